"""What becomes of the liquid that was set aside: kept hot, cooling, cold, or thrown away."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..amounts.fields import Celsius
from ..amounts.quantities import show_temperature
from ..errors import SpissusError
from ..messages import Message, say
from ..phenomena.cooling import Reading
from .base import Kind
from .state import Rest, State

_SAID: dict[str, Message] = {
    "hot": say("events.rest_hot"),
    "cooling": say("events.rest_cooling"),
    "cold": say("events.rest_cold"),
    "gone": say("events.rest_gone"),
}


class RestIs(Kind):
    """What is set aside is kept hot, is set to cool, is cold, or was thrown away.

    While it cools it is told with its temperature and what it stands in, as often as somebody takes it.
    """

    versions = (3, 7)
    called = say("entries.rest")

    kind: Literal["rest"] = "rest"
    rest: Literal["hot", "cooling", "cold", "gone"]
    celsius: Celsius | None = None
    surroundings_c: Celsius | None = None

    def apply(self, state: State, at: datetime) -> State:
        """Kept hot it has no clock; it cools from when it was hot last. Raises SpissusError where nothing is aside."""
        pot, before = state.pot, state.rest
        if pot is None:
            return state
        if before is None:
            raise SpissusError("rest", say("events.nothing_aside"))
        if self.rest == "gone":
            return state.but(pot=pot.but(kept=None), rest=None)
        since = at if before.stands == "hot" or self.rest == "hot" else before.since
        readings = () if self.rest == "hot" or since is not before.since else before.readings
        if self.celsius is not None and self.rest == "cooling":
            readings = (*readings, Reading((at - since).total_seconds() / 60.0, self.celsius))
        around = before.surroundings_c if self.surroundings_c is None else self.surroundings_c
        return state.but(rest=Rest(since, self.rest, readings, around))

    def said(self) -> Message:
        """What became of it."""
        if self.celsius is None:
            return _SAID[self.rest]
        return say("events.rest_probed", at=show_temperature(self.celsius))


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
