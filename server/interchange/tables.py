"""Tables for a spreadsheet: CSV in UTF-8 with units in the head, and no cell that a spreadsheet would work out."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Sequence
from typing import Any

from spissus_core import events as ev
from spissus_core.fold import Moment
from words import plain

from . import Kitchen, Told, kitchen_written, written

CSV = "text/csv; charset=utf-8"

#: A cell that begins so is a formula to a spreadsheet: it is told that it is text, by the sign that all of them know.
FORMULA = ("=", "+", "-", "@", "\t", "\r")


def table(head: Sequence[str], rows: Iterable[Sequence[Any]]) -> bytes:
    """The table.

    >>> table(("what", "salt, g"), [("=1+1", 2.5), (None, -1.0)]).decode()
    "what,salt g\\r\\n'=1+1,2.5\\r\\n,-1.0\\r\\n".replace("salt g", '"salt, g"')
    """
    out = io.StringIO(newline="")
    sheet = csv.writer(out)
    sheet.writerow(head)
    sheet.writerows([_cell(cell) for cell in row] for row in rows)
    return out.getvalue().encode()


def _cell(value: Any) -> Any:
    return f"'{value}" if isinstance(value, str) and value.startswith(FORMULA) else value


_EVENTS = ("time", "what", "said", "counts", "liquid, mL", "salt, %", "fat, mL", "in the pan, g")


@written("events.csv", CSV)
def _events_of(told: Told) -> bytes:
    """Everything that happened, with the pot after it."""
    return table(_EVENTS, (_event_row(moment, told) for moment in told.board.timeline.moments))


def _event_row(moment: Moment, told: Told) -> list[Any]:
    payload, pot = moment.event.payload, moment.pot
    after: list[float | None] = [None] * 4
    if pot is not None:
        held = pot.contents
        after = [round(held.liquid_ml, 1), round(held.salt_percent, 3), round(held.fat_ml, 1), round(held.mass_g, 1)]
    said = plain(payload.said(), told.units)
    return [moment.event.at.isoformat(), payload.kind, said, "yes" if moment.stands else "no", *after]


_READINGS = ("time", "by", "value", "unit", "counts")


@written("readings.csv", CSV)
def _readings_of(told: Told) -> bytes:
    """What was measured, by hand or by a device."""
    rows = (_reading_row(moment) for moment in told.board.timeline.moments)
    return table(_READINGS, (row for row in rows if row is not None))


#: What each way to measure tells, and its unit.
_UNITS = {"jug": "mL", "eye": "mL", "scale": "g", "dip": "mm"}


def _reading_row(moment: Moment) -> list[Any] | None:
    how: str
    match moment.event.payload:
        case ev.Read(measured=measured) if measured is not None:
            how, value, unit = measured.method, measured.value, _UNITS[measured.method]
        case ev.Probed(celsius=celsius):
            how, value, unit = "thermometer", celsius, "°C"
        case ev.Metered(percent=percent):
            how, value, unit = "salt meter", percent, "%"
        case _:
            return None
    by = moment.event.device or how
    return [moment.event.at.isoformat(), by, value, unit, "yes" if moment.stands else "no"]


_BATCHES = ("name", "begun", "finished", "pan", "at first, mL", "now, mL", "salt, %", "body", "points of 5")


@kitchen_written("batches.csv", CSV)
def _batches_of(kitchen: Kitchen) -> bytes:
    """A line a batch, the newest first."""
    return table(
        _BATCHES,
        (
            [
                one.name,
                one.begun.isoformat(),
                "yes" if one.finished else "no",
                one.pan,
                _rounded(one.start_ml),
                _rounded(one.volume_ml),
                None if one.salt_percent is None else round(one.salt_percent, 3),
                one.body,
                one.points,
            ]
            for one in kitchen.batches
        ),
    )


def _rounded(value: float | None) -> float | None:
    return None if value is None else round(value, 1)
