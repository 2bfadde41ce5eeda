"""What a device reads changes a batch by itself: its line in the list, and what its pages show."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from devices.services import heard
from live.services import announce
from pydantic import BaseModel
from spissus_core.board import Board

from .bench import LiveOut, batch_out
from .logbook import BatchLine, line_out
from .models import Batch
from .services import log_of, present, summarised


class News(BaseModel):
    """What pages of a batch, and of the list, put in the place of what they have."""

    batch: LiveOut
    line: BatchLine


@heard
def tell(batch_id: UUID, **_: Any) -> None:
    """Tell everyone who shows the batch what has become of it."""
    batch = Batch.objects.select_for_update().get(pk=batch_id)
    board = Board(log_of(batch), present())
    batch.summary = summarised(board)
    batch.save(update_fields=["summary"])
    whole = batch_out(batch, board)
    live = LiveOut.model_construct(**{name: getattr(whole, name) for name in LiveOut.model_fields})
    announce(batch.kitchen_id, batch.pk, live=News.model_construct(batch=live, line=line_out(batch)).model_dump_json())
