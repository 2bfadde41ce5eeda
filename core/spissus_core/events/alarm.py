"""The alarm: it was heard, and told to be quiet."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..amounts.quantities import Said, say
from .base import Kind
from .state import State


class Hushed(Kind):
    """The alarm of this pot was heard; on every device it is quiet until the next look is due."""

    versions = (2,)

    kind: Literal["hushed"] = "hushed"

    def apply(self, state: State, at: datetime) -> State:
        """Heard at that time; nothing else changes."""
        return state.but(hushed_at=at)

    def said(self) -> Said:
        """That it was heard."""
        return say("Alarm heard")
