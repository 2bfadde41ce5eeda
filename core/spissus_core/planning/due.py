"""What is due: by when what stands warm must be cold, by when what is kept must be used, and when to be reminded."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..amounts.quantities import show_temperature
from ..events.state import State
from ..messages import Message, Term, say

#: One is reminded so long before, while an ice bath still helps. Modelling choice.
REMINDED_BEFORE = timedelta(minutes=20)


class Due(NamedTuple):
    """Something that is due at a time; ``id`` names it within its batch."""

    what: Literal["cold", "used"]
    id: str
    at: datetime
    said: Message


def due(state: State) -> tuple[Due, ...]:
    """Everything of a batch that is due, the first first."""
    return tuple(sorted((*_rest(state), *_shelf(state)), key=lambda one: one.at))


def _rest(state: State) -> Iterator[Due]:
    rest = state.rest
    if rest is None or rest.stands not in ("unsaid", "cooling"):
        return
    for limit in state.limits.cooled:
        if not any(reading.celsius <= limit.celsius for reading in rest.readings):
            by, what = rest.since + timedelta(minutes=limit.minutes), say("due.aside")
            said = say("due.cold", what=what, limit=show_temperature(limit.celsius), by=by)
            yield Due("cold", f"rest-{limit.celsius:g}", by, said)


def _shelf(state: State) -> Iterator[Due]:
    limit = show_temperature(state.limits.cold.celsius)
    for jar in state.shelf:
        name = Term(jar.name)
        if jar.cold_by is not None:
            said = say("due.cold", what=name, limit=limit, by=jar.cold_by)
            yield Due("cold", f"{jar.id}-cold", jar.cold_by, said)
        yield Due("used", f"{jar.id}-used", jar.use_by, say("due.used", what=name))


def reminder(seen: State) -> tuple[datetime, Message] | None:
    """When to sound next for what must be cold, and what is said then: before it is due, and again when it is.

    ``seen`` is the batch as its last entry left it: whoever entered something after the sound has heard it.
    """
    now = seen.stands_at
    cools = [one for one in due(seen) if one.what == "cold"]
    moments = [(at, one.said) for one in cools for at in (one.at - REMINDED_BEFORE, one.at)]
    ahead = [one for one in moments if now is None or one[0] > now]
    return min(ahead, key=lambda one: one[0], default=None)
