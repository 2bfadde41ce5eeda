"""Notes for next time, as they come back when a dish of the same name is made again."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import UTC, datetime
from typing import Annotated, Any
from uuid import UUID

from django.db.models import Q, QuerySet
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
    """What was noted of earlier batches of its name or of its house dish, and that nobody has minded yet: the newest
    first."""
    earlier = list(_like(batch.kitchen_id, batch.name, batch.house_dish).exclude(pk=batch.pk)[: 4 * MOST_NOTES])
    return list(_notes(earlier, batch.created_at, set(map(str, state.minded))))[:MOST_NOTES]


def noted_of(kitchen_id: UUID, name: str, house_dish: UUID) -> list[NoteOut]:
    """What comes back when that dish is started now."""
    earlier = list(_like(kitchen_id, name, house_dish)[: 4 * MOST_NOTES])
    return list(_notes(earlier, datetime.now(UTC), set()))[:MOST_NOTES]


def _like(kitchen_id: UUID, name: str, house_dish: UUID | None) -> QuerySet[Batch]:
    """Batches that noted something, or minded a note, of a name or of a house dish, the newest first."""
    told = Q(summary__has_key="next_time") | Q(summary__has_key="minded")
    alike = Q(name__iexact=name) if house_dish is None else Q(name__iexact=name) | Q(house_dish=house_dish)
    return Batch.objects.filter(told & alike, kitchen_id=kitchen_id).order_by("-created_at")


def _notes(earlier: Sequence[Batch], before: datetime, minded: set[str]) -> Iterable[NoteOut]:
    done = minded | {note for one in earlier for note in one.summary.get("minded", ())}
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
