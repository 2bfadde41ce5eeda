"""What was recorded of a batch, by hand and by devices."""

from __future__ import annotations

from collections import Counter
from datetime import datetime
from typing import Any
from uuid import UUID

from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.errors import AskedError, SpissusError
from spissus_core.fold import Moment, Timeline
from spissus_core.messages import say


class EntryOut(Shape):
    """An entry of the log. ``told`` is the time it came with, where that cannot be: ``at`` is when it arrived;
    ``how_much`` its amount, where that can be mended."""

    id: UUID
    seq: int
    at: datetime
    kind: str
    text: SaidOut
    struck: bool
    problem: SaidOut | None
    undoable: bool
    strikes: UUID | None
    told: datetime | None
    how_much: ShownOut | None


class DeviceAnswerOut(Shape):
    """What may be true of a reading that contradicts the ledger; ``payload`` records it so, by hand."""

    label: SaidOut
    payload: dict[str, Any]


class DeviceReadOut(Shape):
    """The newest reading of a device, of ``count`` that count; ``problem`` where it contradicts the ledger, and what
    may be answered to that."""

    name: str
    at: datetime
    text: SaidOut
    count: int
    problem: SaidOut | None
    answers: list[DeviceAnswerOut]
    reading: float | None


def _how_much(payload: ev.Kind) -> ShownOut | None:
    """The amount of an entry, where it can be mended."""
    told = payload.how_much
    return None if told is None else ShownOut.of(told)


def log_out(timeline: Timeline) -> list[EntryOut]:
    """What was recorded by hand; what devices read by themselves stands in ``devices``."""
    started = next((m.event.id for m in timeline.moments if isinstance(m.event.payload, ev.Started)), None)
    return [
        EntryOut(
            id=m.event.id,
            seq=m.event.seq,
            at=m.event.at,
            kind=m.event.payload.kind,
            text=_said_of(m.event.payload),
            struck=m.struck,
            problem=_problem(m.problem),
            told=m.event.told,
            how_much=_how_much(m.event.payload) if m.event.payload.undoable and not m.struck else None,
            strikes=m.event.payload.event if isinstance(m.event.payload, ev.Struck) else None,
            undoable=m.event.payload.undoable and not m.struck and m.event.id != started,
        )
        for m in timeline.moments
        if m.event.device is None
    ]


def _problem(error: SpissusError | None) -> SaidOut | None:
    return None if error is None else SaidOut.of(error.message)


def _said_of(happened: ev.Kind) -> SaidOut:
    """What the log says of an event; for what cannot be put into words, its kind."""
    try:
        return SaidOut.of(happened.said())
    except Exception:  # an entry without words is still an entry
        return SaidOut.of(say("batch.not_put_into_words", kind=happened.kind))


def _reading_of(payload: ev.Kind) -> float | None:
    return payload.measured.value if isinstance(payload, ev.Read) and payload.measured else None


def _answers(moment: Moment) -> list[DeviceAnswerOut]:
    # That it was misread needs no entry: it does not count, and the next one will.
    asked = moment.problem.answers if isinstance(moment.problem, AskedError) else ()
    said = moment.event.payload.model_dump(mode="json", exclude_none=True)
    return [
        DeviceAnswerOut(label=SaidOut.of(label), payload=said | dict(says))
        for label, says in asked
        if "misread" not in says.values()
    ]


def devices_out(timeline: Timeline) -> list[DeviceReadOut]:
    """For each device that reads this pot, its newest reading, and whether it contradicts the ledger."""
    newest = {m.event.device: m for m in timeline.moments if m.event.device is not None}
    counts = Counter(m.event.device for m in timeline.moments if m.event.device is not None)
    return [
        DeviceReadOut(
            name=name,
            at=m.event.at,
            text=_said_of(m.event.payload),
            count=counts[name],
            problem=_problem(m.problem),
            answers=_answers(m),
            reading=_reading_of(m.event.payload),
        )
        for name, m in newest.items()
    ]
