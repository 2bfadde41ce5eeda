"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out, by itself, and says why.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from . import events as ev
from .errors import SetAsideError, SpissusError
from .estimation.forecast import Progress
from .events.alarm import rings_again
from .events.assumed import StopOf, as_planned
from .events.doubts import doubted
from .events.state import State
from .messages import say
from .pot import Pot


@dataclass(frozen=True, slots=True)
class Moment:
    """One event, the pot after it, and the pot that it found: what boils has lost steam since the event before.

    ``problem`` says why an event could not be applied: it contradicts what is in the pot, or, where it is
    :class:`.SetAsideError`, it cannot be read or worked out at all.
    """

    event: ev.Event
    pot: Pot | None
    found: Pot | None = None
    struck: bool = False
    problem: SpissusError | None = None

    @property
    def stands(self) -> bool:
        """Whether it counts: neither taken back nor left out."""
        return not self.struck and self.problem is None


@dataclass(frozen=True, kw_only=True)
class Timeline(State):
    """A folded batch: every event in order, and what stands at the end.

    ``seen`` is the batch as its last event left it, from which the time since is foretold.
    """

    moments: tuple[Moment, ...]
    seen: State

    @property
    def start(self) -> Pot | None:
        """The pot as it was first measured."""
        return next((m.pot for m in self.moments if m.pot is not None), None)


def fold(
    log: Iterable[ev.Event],
    aside: Mapping[UUID, SpissusError] | None = None,
    *,
    stop_of: StopOf | None = None,
    now: datetime | None = None,
) -> Timeline:
    """Run through the events of one batch, in order of time, then of number.

    The order in which they were recorded does not matter. The newest ``started`` that stands is the
    start, and everything else is applied to it. Events in ``aside`` are left out for the reason given.

    Every event finds the pot where it is thought to be by then: what boils has lost steam meanwhile. Where nobody
    said how it is heated it is taken to boil while the plan wants it to, down to ``stop_of`` the batch. The end is
    the pot by ``now``, or as the last event left it.
    """
    log = list(log)
    struck = struck_ids(log)
    ordered = _placed(log, struck)
    left_out = dict(aside or {})
    starts = [e for e in ordered if isinstance(e.payload, ev.Started) and e.id not in struck]
    started, pot = _first_pot(starts, left_out)
    state = State(started=started, pot=pot)
    begun = False
    moments: list[Moment] = []
    for event in ordered:
        happened = event.payload
        begun = begun or isinstance(happened, ev.Started)
        taken_back = event.id in struck
        problem = None if taken_back else left_out.get(event.id)
        found = state.pot
        if not taken_back and problem is None:
            if begun:
                state = _by(state, event.at)
                found = state.pot
            try:
                after = happened.apply(state, event.at)
                if after.pot is not None and after.pot is not state.pot:
                    _sound(after.pot)
            except SpissusError as error:
                problem = error
            except Exception as error:  # whatever it is, it must not take the batch with it
                problem = unworkable(error)
            else:
                state = _after(state, after, event, stop_of) if begun else after
        moments.append(Moment(event, state.pot if begun else None, found, struck=taken_back, problem=problem))
    seen = state
    if now is not None and begun and state.finished is None:
        state = _by(state, now)
    return Timeline(moments=tuple(moments), seen=seen, **vars(state))


def _by(state: State, at: datetime) -> State:
    """The batch by ``at``; what fails in the estimate stays there."""
    try:
        return state.by(at)
    except Exception as error:  # whatever it is, the pot and the log must stay
        return state.but(heating=None, not_estimated=error)


def _after(before: State, after: State, event: ev.Event, stop_of: StopOf | None) -> State:
    """The batch after an event, the estimate moved on, doubts added; what fails there stays there."""
    happened = event.payload
    last = event.at if happened.looks else before.last_look
    after = rings_again(after, event)
    try:
        after = after.but(heating=happened.heating(before, after, event.at), last_look=last)
        after = as_planned(before, after, event, stop_of)
    except Exception as error:  # whatever it is, the pot and the log must stay
        after = after.but(heating=None, last_look=last, not_estimated=error)
    try:
        return doubted(before, after, event)
    except Exception as error:  # whatever it is, the pot and the log must stay
        return after.but(not_estimated=after.not_estimated or error)


def progress(state: State) -> Progress | None:
    """What is known of the heating that is under way; None where nothing heats, or nothing is planned yet."""
    if state.not_estimated is not None:
        raise state.not_estimated
    if state.heating is None or state.pot is None or state.last_look is None:
        return None
    return Progress(state.heating, state.pot.contents, state.last_look)


def struck_ids(log: Iterable[ev.Event]) -> frozenset[UUID]:
    """Events that are taken back. The last strike decides; striking a strike brings its event back."""
    ordered = sorted(log, key=lambda e: e.seq)
    out: set[UUID] = set()
    for event in reversed(ordered):
        if isinstance(event.payload, ev.Struck) and event.id not in out:
            out.add(event.payload.event)
    return frozenset(out)


def _placed(log: Iterable[ev.Event], struck: frozenset[UUID]) -> list[ev.Event]:
    """The events in order of time, each when, and with the weight, the newest word on it says."""
    log = list(log)
    said = [e for e in log if isinstance(e.payload, ev.Dated) and e.id not in struck]
    if said:
        when = {e.payload.event: e.payload.at for e in sorted(said, key=lambda e: e.seq)}  # type: ignore[attr-defined]
        log = [e.model_copy(update={"at": when[e.id], "told": None}) if e.id in when else e for e in log]
    for event in sorted(log, key=lambda e: e.seq):
        if isinstance(event.payload, ev.Meant) and event.id not in struck:
            log = [_weighed(one, event.payload) for one in log]
    return sorted(log, key=lambda e: (e.at, e.seq))


def _weighed(event: ev.Event, meant: ev.Meant) -> ev.Event:
    """The event, with the weight that was meant where it is about this one."""
    if meant.event != event.id:
        return event
    return event.model_copy(update={"payload": meant.corrected(event.payload)})


def _first_pot(starts: Sequence[ev.Event], left_out: dict[UUID, SpissusError]) -> tuple[ev.Started | None, Pot | None]:
    """The newest start that can be worked out, and its pot; why others cannot goes into ``left_out``."""
    for event in sorted(starts, key=lambda e: e.seq, reverse=True):
        if event.id in left_out:
            continue
        assert isinstance(event.payload, ev.Started)
        try:
            return event.payload, event.payload.begin()
        except SpissusError as error:
            left_out[event.id] = error
        except Exception as error:  # whatever it is, it must not take the batch with it
            left_out[event.id] = unworkable(error)
    return None, None


def unworkable(error: Exception) -> SetAsideError:
    """What is said of an event, or a part of the page, that fails for no reason a cook could know.

    The error itself, with its traceback, is the cause.
    """
    why = f"{type(error).__name__}: {str(error)[:160]}".rstrip(": ")
    said = SetAsideError(say("events.cannot_be_worked_out", why=why))
    said.__cause__ = error
    return said


#: A pot of more than this is no pot, g; it is only there so that nothing that follows can overflow.
MOST_G = 1e7


def _sound(pot: Pot) -> Pot:
    """The pot, if everything else can be worked out from its masses. Raises ValueError."""
    if not (math.isfinite(pot.contents.mass_g) and 0.0 < pot.contents.liquid_g < MOST_G and pot.contents.water > 0.0):
        raise ValueError("no pot can hold that")
    return pot
