"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out, by itself, and says why.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from . import events as ev
from .errors import SetAsideError, SpissusError
from .estimation.forecast import Progress
from .estimation.window import Window, ml_of
from .events.state import Concern, Slip, State
from .phenomena.cooling import judge
from .phenomena.heating import FULL_BOIL, HeatSetting
from .phenomena.seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT
from .pot import Pot

#: Where boiling ends by the plan, mL; None where nothing is to be boiled away.
StopOf = Callable[[State], float | None]


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
        if not taken_back and problem is None:
            if begun:
                state = _by(state, event.at)
            try:
                after = happened.apply(state, event.at)
                if after.pot is not None and after.pot is not state.pot:
                    _sound(after.pot)
            except SpissusError as error:
                problem = error
            except Exception as error:  # whatever it is, it must not take the batch with it
                problem = unworkable(error)
            else:
                before, state = state, _estimated(state, after, event, stop_of) if begun else after
                state = _doubted(before, state, event)
        moments.append(Moment(event, state.pot if begun else None, struck=taken_back, problem=problem))
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


def _estimated(before: State, after: State, event: ev.Event, stop_of: StopOf | None) -> State:
    """The batch after an event, with the estimate of volume and rate moved on; what fails there stays there."""
    happened = event.payload
    last = event.at if happened.looks else before.last_look
    try:
        after = after.but(heating=happened.heating(before, after, event.at), last_look=last)
        return _as_planned(before, after, event, stop_of)
    except Exception as error:  # whatever it is, the pot and the log must stay
        return after.but(heating=None, last_look=last, not_estimated=error)


#: A reading of salt so far over what is liked, points, that comes of one entry which at least doubles it, is asked
#: about; so is salt that goes in twice within so many seconds. Modelling choices.
SLIP_POINTS, SLIP_FACTOR, TWICE_S = 0.15, 2.0, 60.0


def _doubted(before: State, after: State, event: ev.Event) -> State:
    """The batch with what has become doubtful by an event: its cooling, its butter, or the entry itself."""
    return _slipped(before, _concerned(before, after, event), event)


def _concerned(before: State, after: State, event: ev.Event) -> State:
    """A cooling that failed, or was left before anyone knew, and butter that boils, are concerns."""
    found: list[Concern] = []
    log = after.cooling or before.cooling
    ended = before.cooling is not None and (after.cooling is None or after.cooling.began != before.cooling.began)
    if log is not None and (ended or isinstance(event.payload, ev.Probed)):
        stood = judge((before.cooling or log).readings if ended else log.readings, log.surroundings_c).verdict
        left_late = ended and stood == "unknown" and event.at - log.began > DANGER
        if stood == "missed" or (ended and stood == "too_slow") or left_late:
            found.append(Concern("cooling", event.at, stood))
    if _butter_boils(after) and not _butter_boils(before):
        found.append(Concern("butter", event.at))
    known = {concern.kind for concern in after.concerns}
    new = tuple(concern for concern in found if concern.kind not in known)
    return after.but(concerns=(*after.concerns, *new)) if new else after


def _butter_boils(state: State) -> bool:
    """Whether it is on to boil with butter in it."""
    window = state.heating
    return state.mounted and window is not None and window.heating and window.setting.heat == "boil"


def _slipped(before: State, after: State, event: ev.Event) -> State:
    """Salt over the ceiling, or twice what there was, of one entry; and salt twice within a minute."""
    happened, pot, was = event.payload, after.pot, before.pot
    if pot is None or was is None or not isinstance(happened, ev.Salted | ev.Added | ev.Thickened):
        return after
    grams = pot.contents.salt - was.contents.salt
    if grams <= 0.0:
        return after
    wanted = after.wanted
    ceiling = wanted.ceiling_percent if wanted else USUAL_CEILING_PERCENT
    liking = wanted.salt_percent if wanted else USUAL_SALT_PERCENT
    percent, past = pot.contents.salt_percent, was.contents.salt_percent
    over = past <= ceiling < percent
    doubled = percent > SLIP_FACTOR * past and percent > liking + SLIP_POINTS
    salted, last = isinstance(happened, ev.Salted), before.salted_at
    twice = salted and last is not None and (event.at - last).total_seconds() <= TWICE_S
    if not (over or doubled or twice):
        return after
    entered = happened.salt_g if isinstance(happened, ev.Salted) else pot.contents.mass_g - was.contents.mass_g
    return after.but(slip=Slip(event.id, entered, percent, twice=twice and not over and not doubled))


#: Cooled without anyone knowing its temperature for longer than this it is doubtful (FDA Food Code: 2 h to 21 °C).
DANGER = timedelta(hours=2)

#: Kinds that leave what is planned as it was.
_LEAVES_PLAN = (ev.Read, ev.Noted, ev.Seen, ev.Probed, ev.Heated, ev.Answered, ev.Meant)

#: What is taken for granted while flour or starch loses its raw taste: the lid on.
_UNDER_A_LID = HeatSetting(heat="simmer", cover="tight")


def _as_planned(before: State, after: State, event: ev.Event, stop_of: StopOf | None) -> State:
    """The heat that is taken for granted after an event, where nobody said how the pot is heated.

    It boils while the plan wants it to; a reading at the mark ends the boiling, said or not, for that is what the
    cook was told; a thickener simmers under its lid for its time, or until the next thing happens.
    """
    happened, window, pot = event.payload, after.heating, after.pot
    if pot is None:
        return after
    stop = after.stop_ml
    if not isinstance(happened, _LEAVES_PLAN):
        stop = None if stop_of is None else stop_of(after)
        after = after.but(stop_ml=stop)
    wants = stop is not None and not there(after, stop)
    on = window is not None and window.heating
    if wants and not on and after.heat is None and after.cooling is None:
        return after.but(heating=_on(before, after, FULL_BOIL, event.at))
    simmers = after.heat is None or after.heat.heat == "boil"
    if isinstance(happened, ev.Thickened) and simmers and not wants and pot.hot:
        simmering = _on(before, after, _UNDER_A_LID, event.at)
        until = event.at + timedelta(minutes=after.binders[-1][1]) if after.binders else None
        kept = None if simmering is None else simmering.but(until=until)
        return after.but(heating=kept, timed=_timed(after), heat=None)
    if window is None or not on or wants:
        return after
    at_mark = isinstance(happened, ev.Read) and event.device is None and window.setting.heat == "boil"
    boiled = window.assumed and window.setting.heat == "boil" and not isinstance(happened, ev.Heated)
    simmered = window.assumed and window.setting.heat == "simmer" and not isinstance(happened, ev.Noted | ev.Seen)
    if (at_mark and before.stop_ml is not None) or boiled or simmered:
        return after.but(heating=window.but(factor=0.0), heat=None if at_mark else after.heat)
    return after


def _on(before: State, after: State, setting: HeatSetting, at: datetime) -> Window | None:
    """The heat taken for granted: a bend in what is known of it, or another stretch."""
    window, pot = after.heating, after.pot
    assert pot is not None
    if window is None:
        return Window.begun(pot, setting, at, assumed=True)
    return window.heated(pot, pot, setting, at, assumed=True)


def _timed(state: State) -> Window | None:
    """The stretch that taught the stove, kept when another follows it."""
    window = state.heating
    return window if window is not None and window.readings else state.timed


#: A pot within this share of its mark is there: no measurement tells the difference.
CLOSE_ENOUGH = 0.01

#: What is left to boil away in less than this would be further past the mark by the next look, min; as a share of
#: the mark it is no more than that.
LEAST_BOIL_MIN, MOST_LEFT = 0.5, 0.03

#: What is not known well is stopped this much of its standard error sooner: water is easily given back, and never
#: taken out. Modelling choice.
UNSURE = 0.8


def there(state: State, stop_ml: float) -> bool:
    """Whether a pot is down to where boiling ends, as nearly as anyone could stop it."""
    assert state.pot is not None
    left = state.pot.contents.liquid_ml - stop_ml - UNSURE * state.pot.error_ml
    if left <= CLOSE_ENOUGH * stop_ml:
        return True
    window = state.heating
    if window is None or left > MOST_LEFT * stop_ml:
        return False
    a_while = ml_of(LEAST_BOIL_MIN * (window.factor or 1.0) * window.track.power[0])
    return left < a_while


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
