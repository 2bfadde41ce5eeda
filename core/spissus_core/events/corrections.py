"""What is said of other events: when one happened after all, and that one did not."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from pydantic import AwareDatetime

from ..amounts.quantities import Said, say
from .base import Kind
from .state import State


class Dated(Kind):
    """When another event happened after all: its clock was wrong, or it was recorded later."""

    kind: Literal["dated"] = "dated"
    event: UUID
    at: AwareDatetime

    def check(self, after: State) -> None:
        """Which event, and when, is for the log to judge."""

    def said(self) -> Said:
        """That it was said."""
        return say("Said when an entry happened")


class Struck(Kind):
    """Another event is taken back. Striking a strike brings the event back."""

    kind: Literal["struck"] = "struck"
    event: UUID

    def check(self, after: State) -> None:
        """Which event is for the log to judge."""

    def said(self) -> Said:
        """That it was taken back."""
        return say("Took an entry back")
