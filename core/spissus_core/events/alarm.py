"""The alarm: it was heard, and told to be quiet."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime

from ..messages import Message, say
from .base import Happened, Kind
from .state import State


class Hushed(Kind):
    """The alarm of the look that was ``due`` was heard: it is quiet on every device until the cook acts."""

    undoable = False
    versions = (2,)
    beside = True
    away = True
    called = say("entries.hushed")

    kind: Literal["hushed"] = "hushed"
    due: AwareDatetime

    def apply(self, state: State, at: datetime) -> State:
        """Heard; nothing else changes."""
        return state.but(hushed_for=self.due)

    def said(self) -> Message:
        """That it was heard."""
        return say("events.hushed")


#: A look that is worked out anew may move by this much and be the same. Numerical choice.
SAME_LOOK = timedelta(minutes=1)


def rings_again(after: State, event: Happened) -> State:
    """The batch with its alarm to ring again, where the cook did something about it."""
    away = event.device is not None or event.payload.away
    return after if away or after.hushed_for is None else after.but(hushed_for=None)


def quiet(seen: State, look_at: datetime | None) -> bool:
    """Whether the alarm of this look was heard already: it is the same one, or was overdue when it was last seen."""
    if look_at is None or seen.hushed_for is None:
        return False
    return look_at <= seen.hushed_for + SAME_LOOK or (seen.stands_at is not None and look_at <= seen.stands_at)
