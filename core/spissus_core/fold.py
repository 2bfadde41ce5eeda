"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out, by itself, and says why.
"""

from __future__ import annotations

import math
from collections import OrderedDict, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from threading import Lock
from typing import NamedTuple, TypedDict
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
    def first_pot(self) -> Pot | None:
        """The pot as it was first measured."""
        return next((m.pot for m in self.moments if m.pot is not None), None)


class Folded(NamedTuple):
    """A batch after some of its events: how it stands, whether it has begun, and what became of the last event."""

    state: State
    begun: bool
    moment: Moment | None = None


def fold(
    log: Iterable[ev.Event],
    aside: Mapping[UUID, SpissusError] | None = None,
    *,
    stop_of: StopOf | None,
    now: datetime | None = None,
) -> Timeline:
    """Run through the events of one batch, in order of time, then of number.

    The order in which they were recorded does not matter. The newest ``started`` that stands is the
    start, and everything else is applied to it. Events in ``aside`` are left out for the reason given.

    Every event finds the pot where it is thought to be by then: what boils has lost steam meanwhile. Where nobody
    said how it is heated it is taken to boil while the plan wants it to, down to ``stop_of`` the batch; None where no
    plan is to be followed. The end is the pot by ``now``, or as the last event left it.

    A fold goes on from what :data:`.REMEMBERED` knows of the same events, and comes to exactly the same.
    """
    log = list(log)
    of_kind = _by_kind(log)
    struck = struck_ids(of_kind[ev.Struck])
    ordered = _placed(log, of_kind, struck)
    begins = {event.id for event in of_kind[ev.Started]} - struck
    starts = [event for event in ordered if event.id in begins]
    left_out = dict(aside or {})
    known = REMEMBERED.of(starts, stop_of) if not left_out else None
    first = known.first if known else Folded(State(**_first_pot(starts, left_out)), begun=False)
    done = known.shared_with(ordered, struck) if known else []
    shared = len(done)
    for event in ordered[shared:]:
        problem = left_out.get(event.id)
        done.append(step(done[-1] if done else first, event, stop_of, struck=event.id in struck, problem=problem))
    # A start alone, as a page tries them while it is typed, has nothing to go on from.
    if len(done) > 1 and not left_out and not any(map(_failed, done[shared:])):
        REMEMBERED.keep(starts, stop_of, Remembered(first, ordered, struck, done))
    seen, begun, _ = done[-1] if done else first
    state = _by(seen, now) if now is not None and begun and not seen.finished else seen
    moments = tuple(folded.moment for folded in done if folded.moment is not None)
    return Timeline(moments=moments, seen=seen, **vars(state))


def step(
    before: Folded,
    event: ev.Event,
    stop_of: StopOf | None,
    *,
    struck: bool = False,
    problem: SpissusError | None = None,
) -> Folded:
    """A batch after one more event, which may be taken back, or left out for a reason."""
    state, happened = before.state, event.payload
    begun = before.begun or isinstance(happened, ev.Started)
    found = state.pot
    if not struck and problem is None:
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
    moment = Moment(event, state.pot if begun else None, found, struck=struck, problem=problem)
    return Folded(state, begun, moment)


def _failed(folded: Folded) -> bool:
    """Whether something failed that may not fail the next time: that is tried again."""
    problem = folded.moment.problem if folded.moment else None
    return isinstance(problem, SetAsideError) or folded.state.stove.fault is not None


def _by(state: State, at: datetime) -> State:
    """The batch by ``at``; what fails in the estimate stays there."""
    try:
        return state.by(at)
    except Exception as error:  # whatever it is, the pot and the log must stay
        return state.but(stove=state.stove.but(window=None, fault=error))


def _after(before: State, after: State, event: ev.Event, stop_of: StopOf | None) -> State:
    """The batch after an event, the estimate moved on, doubts added; what fails there stays there."""
    happened = event.payload
    last = event.at if happened.looks else before.stove.last_look
    after = rings_again(after, event)
    try:
        window = happened.heating(before, after, event.at)
        after = after.but(stove=after.stove.but(window=window, last_look=last))
        after = as_planned(before, after, event, stop_of)
    except Exception as error:  # whatever it is, the pot and the log must stay
        after = after.but(stove=after.stove.but(window=None, last_look=last, fault=error))
    try:
        return doubted(before, after, event)
    except Exception as error:  # whatever it is, the pot and the log must stay
        return after.but(stove=after.stove.but(fault=after.stove.fault or error))


def progress(state: State) -> Progress | None:
    """What is known of the heating that is under way; None where nothing heats, or nothing is planned yet."""
    if state.stove.fault is not None:
        raise state.stove.fault
    if state.stove.window is None or state.pot is None or state.stove.last_look is None:
        return None
    return Progress(state.stove.window, state.pot.contents, state.stove.last_look)


def struck_ids(log: Iterable[ev.Event]) -> frozenset[UUID]:
    """Events that are taken back. The last strike decides; striking a strike brings its event back."""
    strikes = [event for event in log if isinstance(event.payload, ev.Struck)]
    out: set[UUID] = set()
    for event in sorted(strikes, key=lambda e: e.seq, reverse=True):
        if isinstance(event.payload, ev.Struck) and event.id not in out:
            out.add(event.payload.event)
    return frozenset(out)


def _by_kind(log: Iterable[ev.Event]) -> Mapping[type[ev.Kind], Sequence[ev.Event]]:
    out: dict[type[ev.Kind], list[ev.Event]] = defaultdict(list)
    for event in log:
        out[type(event.payload)].append(event)
    return out


def _placed(
    log: list[ev.Event], of_kind: Mapping[type[ev.Kind], Sequence[ev.Event]], struck: frozenset[UUID]
) -> list[ev.Event]:
    """The events in order of time, each when, and with the weight, the newest word on it says."""
    said = [e for e in of_kind[ev.Dated] if e.id not in struck]
    if said:
        when = {e.payload.event: e.payload.at for e in sorted(said, key=lambda e: e.seq)}  # type: ignore[attr-defined]
        log = [e.model_copy(update={"at": when[e.id], "told": None}) if e.id in when else e for e in log]
    for event in sorted((e for e in of_kind[ev.Meant] if e.id not in struck), key=lambda e: e.seq):
        if isinstance(event.payload, ev.Meant):
            log = [_weighed(one, event.payload) for one in log]
    return sorted(log, key=lambda e: (e.at, e.seq))


def _weighed(event: ev.Event, meant: ev.Meant) -> ev.Event:
    """The event, with the weight that was meant where it is about this one."""
    if meant.event != event.id:
        return event
    return event.model_copy(update={"payload": meant.corrected(event.payload)})


class _First(TypedDict):
    start: ev.Started | None
    pot: Pot | None


def _first_pot(starts: Sequence[ev.Event], left_out: dict[UUID, SpissusError]) -> _First:
    """The newest start that can be worked out, and its pot; why others cannot goes into ``left_out``."""
    for event in sorted(starts, key=lambda e: e.seq, reverse=True):
        if event.id in left_out:
            continue
        assert isinstance(event.payload, ev.Started)
        try:
            return {"start": event.payload, "pot": event.payload.begin()}
        except SpissusError as error:
            left_out[event.id] = error
        except Exception as error:  # whatever it is, it must not take the batch with it
            left_out[event.id] = unworkable(error)
    return {"start": None, "pot": None}


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


# -- going on from what was folded before -----------------------------------------------------------


class Remembered(NamedTuple):
    """A fold: how it began, its events in order, which of them were taken back, and the batch after each."""

    first: Folded
    events: Sequence[ev.Event]
    struck: frozenset[UUID]
    done: Sequence[Folded]

    def shared_with(self, events: Sequence[ev.Event], struck: frozenset[UUID]) -> list[Folded]:
        """The batch after each of those that ``events`` begins with, too, taken back or not as they were."""
        turned = self.struck ^ struck
        same = 0
        for mine, theirs in zip(self.events, events, strict=False):
            if mine is not theirs and not _same(mine, theirs):
                break
            if turned and mine.id in turned:
                break
            same += 1
        return list(self.done[:same])


def _same(one: ev.Event, other: ev.Event) -> bool:
    """Whether two events are one. What is read of a row that never changes is mostly the same object."""
    if one.id != other.id or one.at != other.at or one.seq != other.seq:
        return False
    if one.told != other.told or one.device != other.device:
        return False
    return one.payload is other.payload or one.payload == other.payload


class Memory:
    """The last folds, by the starts that they have and the plan that they follow, up to so many events in all.

    Everything that a fold depends on is in what it is found by, or is compared: its starts, its plan, and each event.
    """

    def __init__(self, most_events: int) -> None:
        self.most_events = most_events
        self._lock = Lock()
        self._folds: OrderedDict[tuple[object, ...], tuple[list[ev.Event], Remembered]] = OrderedDict()
        self.events = 0

    def of(self, starts: Sequence[ev.Event], stop_of: StopOf | None) -> Remembered | None:
        """The last fold with these starts, by this plan."""
        key = self._key(starts, stop_of)
        with self._lock:
            found = self._folds.get(key)
            if found is None:
                return None
            self._folds.move_to_end(key)
        kept, fold_ = found
        return fold_ if all(map(_same, kept, starts)) else None

    def keep(self, starts: Sequence[ev.Event], stop_of: StopOf | None, fold_: Remembered) -> None:
        """Remember a fold in the place of the last with these starts; the oldest are let go."""
        key = self._key(starts, stop_of)
        with self._lock:
            before = self._folds.pop(key, None)
            self.events += len(fold_.events) - (len(before[1].events) if before else 0)
            self._folds[key] = list(starts), fold_
            while self.events > self.most_events and self._folds:
                _, (_, oldest) = self._folds.popitem(last=False)
                self.events -= len(oldest.events)

    def forget(self) -> None:
        """Let go of everything."""
        with self._lock:
            self._folds.clear()
            self.events = 0

    @staticmethod
    def _key(starts: Sequence[ev.Event], stop_of: StopOf | None) -> tuple[object, ...]:
        return (stop_of, *(start.id for start in starts))


#: What a process remembers. An event weighs 3 to 6 kB with the batch after it, measured: 50 MB at most.
REMEMBERED = Memory(most_events=8000)
