"""Batches leave whole: every event as it was recorded, whatever its version."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import Field, JsonValue, ValidationInfo, field_validator
from shared.leaving import LEAVES, Leaves, Row, of_a_kitchen
from spissus_core.amounts.fields import Title
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.messages import say

from .bench import batch_out
from .models import Batch, Event
from .services import MOST_EVENTS, log_of, present, stands


class BatchRow(Row):
    """A batch; what happened to it follows as its events."""

    id: UUID
    name: Title
    created_at: datetime
    put_away_at: datetime | None
    house_dish: UUID | None = None


class EventRow(Row):
    """Something that happened, in the words of its version; ``seq`` is its number within the batch."""

    id: UUID
    seq: Annotated[int, Field(ge=1, le=MOST_EVENTS)]
    at: datetime
    recorded_at: datetime
    kind: Annotated[str, Field(max_length=20)]
    version: Annotated[int, Field(ge=1, le=1000)]
    payload: dict[str, JsonValue]
    author: Annotated[str | None, Field(max_length=150)]

    @field_validator("payload")
    @classmethod
    def _of_a_kitchen(cls, payload: dict[str, JsonValue], info: ValidationInfo) -> dict[str, JsonValue]:
        """What was once recorded is read without its bounds; what is brought in nobody has judged yet."""
        return of_a_kitchen(payload) if (info.context or {}).get("brought") else payload


LEAVES["batches"] = Leaves(model=Batch, shape=BatchRow, order=("created_at",))
LEAVES["events"] = Leaves(
    model=Event, shape=EventRow, of="batch", order=("seq",), elsewhere={"author": "author__username"}
)


def settle(batch_id: UUID) -> None:
    """Work a batch out that came in, so that it stands in the lists. Raises SpissusError where it cannot be shown."""
    batch = Batch.objects.get(pk=batch_id)
    board = Board(log_of(batch), present())
    try:
        batch_out(batch, board)
        stands(batch, board, max((row.seq for row in Event.objects.filter(batch=batch)), default=0))
    except Exception as error:
        raise SpissusError("batches", say("archive.not_shown", name=batch.name)) from error
