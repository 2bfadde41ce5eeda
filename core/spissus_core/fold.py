"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out, by itself, and says why.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from uuid import UUID

from . import events as ev
from .errors import SetAsideError, SpissusError
from .estimation.forecast import Progress
from .events.state import State
from .pot import Pot


@dataclass(frozen=True, slots=True)
class Moment:
    """One event and the pot after it.

    ``problem`` says why an event could not be applied: it contradicts what is in the pot, or, where it is
    :class:`.SetAsideError`, it cannot be read or worked out at all.
    """

    event: ev.Event
    pot: Pot | None
    struck: bool = False
    problem: SpissusError | None = None

    @property
    def stands(self) -> bool:
        """Whether it counts: neither taken back nor left out."""
        return not self.struck and self.problem is None


@dataclass(frozen=True, kw_only=True)
class Timeline(State):
    """A folded batch: every event in order, and what stands at the end."""

    moments: tuple[Moment, ...]

    @property
    def start(self) -> Pot | None:
        """The pot as it was first measured."""
        return next((m.pot for m in self.moments if m.pot is not None), None)


def fold(log: Iterable[ev.Event], aside: Mapping[UUID, SpissusError] | None = None) -> Timeline:
    """Run through the events of one batch, in order of time, then of number.

    The order in which they were recorded does not matter. The newest ``started`` that stands is the
    start, and everything else is applied to it. Events in ``aside`` are left out for the reason given.
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
        if not taken_back and problem is None:
            try:
                after = happened.apply(state, event.at)
                if after.pot is not None and after.pot is not state.pot:
                    _sound(after.pot)
            except SpissusError as error:
                problem = error
            except Exception as error:  # whatever it is, it must not take the batch with it
                problem = unworkable(error)
            else:
                state = _estimated(state, after, event) if begun else after
        moments.append(Moment(event, state.pot if begun else None, struck=taken_back, problem=problem))
    return Timeline(moments=tuple(moments), **vars(state))


def _estimated(before: State, after: State, event: ev.Event) -> State:
    """The batch after an event, with the estimate of volume and rate moved on; what fails there stays there."""
    happened = event.payload
    last = event.at if happened.looks else before.last_look
    try:
        heating, lost = happened.heating(before, after, event.at), before.not_estimated
    except Exception as error:  # whatever it is, the pot and the log must stay
        heating, lost = None, error
    if heating is before.heating and last is before.last_look and lost is before.not_estimated:
        return after
    return after.but(heating=heating, last_look=last, not_estimated=lost)


def progress(state: State) -> Progress | None:
    """What is known of the heating that is under way; None where nothing heats, or nothing is planned yet."""
    if state.not_estimated is not None:
        raise state.not_estimated
    if state.heating is None or state.pot is None or state.last_look is None:
        return None
    if state.chosen is None and state.heat is None:
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
    """The events in order of time, each where the newest word on it says it belongs."""
    log = list(log)
    said = [e for e in log if isinstance(e.payload, ev.Dated) and e.id not in struck]
    if said:
        when = {e.payload.event: e.payload.at for e in sorted(said, key=lambda e: e.seq)}  # type: ignore[attr-defined]
        log = [e.model_copy(update={"at": when[e.id], "told": None}) if e.id in when else e for e in log]
    return sorted(log, key=lambda e: (e.at, e.seq))


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
    """What is said of an event, or a part of the page, that fails for no reason a cook could know."""
    why = f"{type(error).__name__}: {str(error)[:160]}".rstrip(": ")
    return SetAsideError(f"This cannot be worked out ({why}).")


#: A pot of more than this is no pot, g; it is only there so that nothing that follows can overflow.
MOST_G = 1e7


def _sound(pot: Pot) -> Pot:
    """The pot, if everything else can be worked out from its masses. Raises ValueError."""
    if not (math.isfinite(pot.contents.mass_g) and 0.0 < pot.contents.liquid_g < MOST_G and pot.contents.water > 0.0):
        raise ValueError("no pot can hold that")
    return pot
