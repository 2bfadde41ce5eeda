"""What becomes of the liquid that was set aside: kept hot, cooling, cold, or thrown away."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..errors import SpissusError
from ..messages import Message, say
from .base import Kind
from .state import Rest, State

_SAID: dict[str, Message] = {
    "hot": say("events.rest_hot"),
    "cooling": say("events.rest_cooling"),
    "cold": say("events.rest_cold"),
    "gone": say("events.rest_gone"),
}


class RestIs(Kind):
    """What is set aside is kept hot, is set to cool, is cold, or was thrown away."""

    versions = (3,)
    called = say("entries.rest")

    kind: Literal["rest"] = "rest"
    rest: Literal["hot", "cooling", "cold", "gone"]

    def apply(self, state: State, at: datetime) -> State:
        """Kept hot it has no clock; it cools from when it was hot last. Raises SpissusError where nothing is aside."""
        pot, before = state.pot, state.rest
        if pot is None:
            return state
        if before is None:
            raise SpissusError("rest", say("events.nothing_aside"))
        if self.rest == "gone":
            return state.but(pot=pot.but(kept=None), rest=None)
        since = at if before.stands == "hot" or self.rest != "cooling" else before.since
        return state.but(rest=Rest(since, self.rest))

    def said(self) -> Message:
        """What became of it."""
        return _SAID[self.rest]


def set_aside(before: State, after: State, at: datetime) -> State:
    """The batch with what an event has set aside, or poured back; nobody knows yet how it is kept."""
    kept = None if after.pot is None else after.pot.kept
    if kept is None:
        return after if after.rest is None else after.but(rest=None)
    had = None if before.pot is None else before.pot.kept
    if had is not None and kept.mass_g <= had.mass_g:
        return after
    if after.pot is not None and not after.pot.hot:
        return after.but(rest=after.rest or Rest(at, "cold"))
    # Hot liquid poured to what cools already makes it no better: the older clock runs on.
    older = after.rest is not None and after.rest.stands in ("cooling", "unsaid")
    return after if older else after.but(rest=Rest(at, "unsaid"))
