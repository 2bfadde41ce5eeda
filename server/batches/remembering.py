"""Notes for next time, as they come back when a dish of the same name is made again."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from django.db.models import Q
from shared.shapes import Shape
from spissus_core.amounts.tables import key_of
from spissus_core.events import Stage
from spissus_core.events.remembering import MOMENTS, POINTS
from spissus_core.events.state import Remembered

from .models import Batch
from .pot import word

#: No more notes than this come back at once, the newest first. Modelling choice.
MOST_NOTES = 12


class NoteOut(Shape):
    """A note of an earlier batch of the same name: what it says, when it was written, and the moment it concerns."""

    note: UUID
    text: str
    moment: Annotated[str, key_of("moments")]
    label: str
    stage: Stage
    batch: UUID
    written: datetime


class OwnNoteOut(Shape):
    """A note of this batch, for next time."""

    note: UUID
    text: str
    label: str


class RememberedOut(Shape):
    """How it was, from 1 to 5; how many ate it; and what is noted for next time."""

    points: int | None
    how: str | None
    ate: int | None
    notes: list[OwnNoteOut]


def remembered_row(state: Remembered) -> dict[str, Any]:
    """What a summary keeps of it, so that a new batch finds it without a fold; nothing where there is nothing."""
    found: dict[str, Any] = {"points": state.points} if state.points else {}
    if state.notes:
        found["next_time"] = [{"note": str(one.note), "text": one.text, "moment": one.moment} for one in state.notes]
    if state.done:
        found["minded"] = sorted(map(str, state.done))
    return found


def remembered_out(state: Remembered) -> RememberedOut:
    """What is remembered of a batch."""
    return RememberedOut(
        points=state.points,
        how=None if state.points is None else word(POINTS[state.points]),
        ate=state.ate,
        notes=[
            OwnNoteOut(note=one.note, text=one.text, label=word(MOMENTS[one.moment].label))
            for one in state.notes
            if one.moment in MOMENTS
        ],
    )


def last_time(batch: Batch, state: Remembered) -> list[NoteOut]:
    """What was noted of earlier batches of its name, and that nobody has minded yet: the newest first."""
    told = Q(summary__has_key="next_time") | Q(summary__has_key="minded")
    named = Batch.objects.filter(told, kitchen_id=batch.kitchen_id, name__iexact=batch.name).exclude(pk=batch.pk)
    earlier = list(named.order_by("-created_at")[: 4 * MOST_NOTES])
    done = {note for one in earlier for note in one.summary.get("minded", ())} | set(map(str, state.minded))
    return list(_notes(earlier, batch.created_at, done))[:MOST_NOTES]


def _notes(earlier: Iterable[Batch], before: datetime, done: set[str]) -> Iterable[NoteOut]:
    for one in earlier:
        for row in one.summary.get("next_time", ()):
            moment = MOMENTS.get(row["moment"])
            if row["note"] not in done and moment is not None and one.created_at < before:
                yield NoteOut(
                    note=UUID(row["note"]),
                    text=row["text"],
                    moment=row["moment"],
                    label=word(moment.label),
                    stage=moment.stage,
                    batch=one.pk,
                    written=one.created_at,
                )
