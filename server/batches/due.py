"""What is due, as a list of batches keeps it: of what the page sounds next."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from shared.shapes import SaidOut, Shape
from spissus_core.events.state import State
from spissus_core.planning.due import reminder


class RemindOut(Shape):
    """When to sound for what must be cold, and what is said then."""

    at: datetime
    said: SaidOut


def reminds_row(seen: State) -> dict[str, Any] | None:
    """What a summary keeps of it."""
    found = reminder(seen)
    return None if found is None else RemindOut(at=found[0], said=SaidOut.of(found[1])).model_dump(mode="json")
