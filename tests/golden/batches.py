"""Whole batches as they were recorded, and what was worked out of each."""

from __future__ import annotations

import json
from datetime import datetime
from pathlib import Path
from typing import Any
from uuid import UUID, uuid5

from batches.bench import batch_out
from batches.models import Batch
from spissus_core import events as ev
from spissus_core.board import Board

FOLDER = Path(__file__).parent / "stories"
NAMESPACE = UUID("6f1c1d1e-3c59-4b4e-9a57-5a0b6f0f8f21")


def worked(name: str, events: list[dict[str, Any]]) -> dict[str, Any]:
    """The answer of a batch with these events, as its page gets it."""
    log = [
        ev.Event.model_construct(
            id=UUID(one["id"]),
            seq=one["seq"],
            at=datetime.fromisoformat(one["at"]),
            payload=ev.recorded(one["payload"], one.get("version", 1)),
        )
        for one in events
    ]
    batch = Batch(id=uuid5(NAMESPACE, name), name=name, created_at=log[0].at, last_seq=len(log))
    return dict(json.loads(batch_out(batch, Board(log)).model_dump_json()))
