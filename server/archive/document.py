"""The file itself: JSON of a kitchen, or of one batch, by a schema that is published in ``docs/schema``."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator, Mapping
from pathlib import Path
from typing import Any, Literal, NamedTuple
from uuid import UUID

import django
from pydantic import ValidationError, ValidationInfo, create_model, model_validator
from pydantic_core import from_json
from shared.leaving import LEAVES, Leaves, Row
from spissus_core import events as ev
from spissus_core.amounts.fields import AltitudeM, TimeZone
from spissus_core.errors import SpissusError
from spissus_core.messages import Message, say
from spissus_core.phenomena.limits import PLACES, Limits

#: What a file is, and the newest version of it that is read and written here.
KITCHEN, BATCH, VERSION = "spissus-kitchen", "spissus-batch", 3

#: There will be no more versions than this. Numerical choice.
MOST_VERSIONS = 1000

#: Where the schemas are published.
SCHEMAS = Path(__file__).resolve().parents[2] / "docs" / "schema"

#: What there is a file of.
Of = Literal["kitchen", "batch"]
OF: tuple[Of, ...] = ("kitchen", "batch")

#: No file is larger than this, bytes. A batch is ten thousand or so.
MOST_BYTES = 32 * 1024 * 1024


class KitchenRow(Row):
    """What is said of the kitchen itself. Limits are those that it chose; altitude is in metres."""

    name: str
    altitude_m: AltitudeM
    limits: Limits | None
    time_zone: TimeZone

    @classmethod
    def brought(cls, told: object) -> Any:
        """The row, by the rules for what is said today: it is to hold from now on."""
        return cls.model_validate(told, context={"brought": True})

    @model_validator(mode="after")
    def _no_laxer_than_its_place(self, info: ValidationInfo) -> KitchenRow:
        if self.limits is not None and (info.context or {}).get("brought"):
            place, cold = PLACES.get(self.limits.place), self.limits.cold
            if place is None:
                raise SpissusError("limits", say("archive.no_such_place"))
            own = {"hold_c": self.limits.hold_c, "reheat_c": self.limits.reheat_c}
            place.limits.stricter(cold_c=cold.celsius, cold_min=cold.minutes, **own)
        return self


class Whole(NamedTuple):
    """A batch with the rows that belong to it, by their part of the file."""

    batch: Row
    parts: Mapping[str, list[Row]]


class Brought(NamedTuple):
    """What a file holds: what can be read of it, by its part, and what cannot, with the reason."""

    kitchen: KitchenRow | None
    rows: Mapping[str, list[Row]]
    batches: list[Whole]
    unreadable: list[tuple[str, Message]]


def parts(of: Of) -> dict[str, Leaves]:
    """The parts of a kitchen beside its batches, or those of a batch."""
    return {name: one for name, one in LEAVES.items() if one.of == of and name != "batches"}


def shape(of: Of) -> type[Row]:
    """A file as a whole, for its schema."""
    inside: Any = {name: (list[one.shape], ...) for name, one in parts("batch").items()}  # type: ignore[name-defined]
    batch = create_model("Batch", __base__=LEAVES["batches"].shape, **inside)
    head: Any = {"format": (Literal[KITCHEN if of == "kitchen" else BATCH], ...), "version": (Literal[VERSION], ...)}
    if of == "batch":
        return create_model("SpissusBatch", __base__=Row, **head, batch=(batch, ...))
    rows: Any = {name: (list[one.shape], ...) for name, one in parts("kitchen").items()}  # type: ignore[name-defined]
    return create_model(
        "SpissusKitchen", __base__=Row, **head, kitchen=(KitchenRow, ...), **rows, batches=(list[batch], ...)
    )


def schema(of: Of) -> dict[str, Any]:
    """The JSON Schema of a file."""
    said = shape(of).model_json_schema(mode="serialization")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **said}


def written(kitchen: KitchenRow, kitchen_id: UUID) -> Iterator[str]:
    """A kitchen's file piece by piece: no more than a batch of it is in memory."""
    yield f'{{"format":"{KITCHEN}","version":{VERSION},"kitchen":{kitchen.model_dump_json()}'
    for name, one in parts("kitchen").items():
        yield f',\n"{name}":['
        yield from _listed(row.model_dump_json() for row in one.written(kitchen_id))
        yield "]"
    yield ',\n"batches":['
    yield from _listed(batch_written(row) for row in LEAVES["batches"].written(kitchen_id))
    yield "]}\n"


def batch_file(row: Row) -> str:
    """The file of one batch."""
    return f'{{"format":"{BATCH}","version":{VERSION},"batch":{batch_written(row)}}}\n'


def batch_written(row: Row) -> str:
    """A batch with everything that belongs to it."""
    inside = [f',"{name}":[{",".join(_listed_rows(one, row))}]' for name, one in parts("batch").items()]
    return row.model_dump_json()[:-1] + "".join(inside) + "}"


def _listed_rows(one: Leaves, batch: Row) -> Iterator[str]:
    return (row.model_dump_json() for row in one.written(batch.id))  # type: ignore[attr-defined]


def _listed(pieces: Iterator[str]) -> Iterator[str]:
    for number, piece in enumerate(pieces):
        yield f",\n{piece}" if number else f"\n{piece}"


def read(text: bytes) -> Brought:
    """What a file holds.

    Raises
    ------
    SpissusError : it is no file of ours, of a newer version, or holds what no database takes.
    """
    told = _parsed(text)
    if told.get("format") not in (KITCHEN, BATCH):
        raise SpissusError("file", say("archive.not_ours"))
    version = told.get("version")
    if not isinstance(version, int) or not 1 <= version <= MOST_VERSIONS:
        raise SpissusError("file", say("archive.not_ours"))
    if version > VERSION:
        raise SpissusError("file", say("archive.newer", version=str(version), known=VERSION))
    unreadable: list[tuple[str, Message]] = []
    if told["format"] == BATCH:
        return Brought(None, {}, _batches([told.get("batch")], unreadable), unreadable)
    said = told.get("kitchen")
    kitchen = None if said is None else _one(KitchenRow, said, "kitchen", unreadable)
    rows = {name: _rows(one.shape, told.get(name), name, unreadable) for name, one in parts("kitchen").items()}
    _refuse_newer(row for some in rows.values() for row in some)
    return Brought(kitchen, rows, _batches(told.get("batches"), unreadable), unreadable)


def _parsed(text: bytes) -> dict[str, Any]:
    if len(text) > MOST_BYTES:
        raise SpissusError("file", say("archive.too_large"))
    try:
        told = from_json(text, allow_inf_nan=False)
    except ValueError:
        # Nested too deep, cut short, or no JSON at all.
        raise SpissusError("file", say("archive.no_json")) from None
    if not isinstance(told, dict) or b"\\u0000" in text:
        raise SpissusError("file", say("archive.not_ours"))
    return told


def _batches(told: object, unreadable: list[tuple[str, Message]]) -> list[Whole]:
    found = []
    if told is not None and not isinstance(told, list):
        unreadable.append(("batches", say("archive.no_list")))
    for one in told if isinstance(told, list) else []:
        inside = {name: one.get(name, []) for name in parts("batch")} if isinstance(one, dict) else {}
        itself = {name: value for name, value in one.items() if name not in inside} if isinstance(one, dict) else one
        batch = _one(LEAVES["batches"].shape, itself, "batches", unreadable)
        if batch is None:
            continue
        wrong: list[tuple[str, Message]] = []
        rows = {name: _rows(LEAVES[name].shape, told, name, wrong) for name, told in inside.items()}
        # Half of a batch is another batch.
        if wrong or not rows.get("events"):
            why = wrong[0][1] if wrong else say("archive.no_events")
            unreadable.append((str(itself.get("name")), why))
            continue
        _refuse_newer(rows["events"])
        found.append(Whole(batch, rows))
    return found


def _refuse_newer(rows: Iterable[Row]) -> None:
    """Take nothing that is told in words of a later version."""
    newest = max((getattr(row, "version", 1) for row in rows), default=1)
    if newest > ev.VERSION:
        raise SpissusError("file", say("archive.newer_events", version=newest, known=ev.VERSION))


def _rows(of: type[Row], told: object, name: str, unreadable: list[tuple[str, Message]]) -> list[Row]:
    if told is not None and not isinstance(told, list):
        unreadable.append((name, say("archive.no_list")))
    found = (_one(of, one, name, unreadable) for one in (told if isinstance(told, list) else []))
    return [row for row in found if row is not None]


def _one(of: type[Row], told: object, name: str, unreadable: list[tuple[str, Message]]) -> Any:
    try:
        return of.brought(told)
    except (ValidationError, SpissusError) as error:
        called = str(told.get("name") or name) if isinstance(told, dict) else name
        unreadable.append((called[:60], _wrong(error, name)))
        return None


#: What is wrong with a field, by the kind of error; anything else is no such thing as stands there.
_WHY = {"missing": say("archive.is_missing"), "extra_forbidden": say("archive.not_known")}


def _wrong(error: ValidationError | SpissusError, name: str) -> Message:
    """Where something is wrong, and what."""
    if isinstance(error, SpissusError):
        return say("archive.wrong_there", where=name, why=error.message)
    first = error.errors(include_url=False, include_input=False)[0]
    raised = first.get("ctx", {}).get("error")
    why = raised.message if isinstance(raised, SpissusError) else _WHY.get(first["type"], say("archive.no_such_value"))
    return say("archive.wrong_there", where=".".join(str(part) for part in first["loc"]) or name, why=why)


def main() -> None:
    """Publish the schemas of this version."""
    django.setup()
    for of in OF:
        text = json.dumps(schema(of), indent=1, ensure_ascii=False)
        (SCHEMAS / f"{of}-{VERSION}.json").write_text(f"{text}\n", encoding="utf-8")


if __name__ == "__main__":
    main()
