"""The heat that is taken for granted, where nobody said how the pot is heated."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta

from ..estimation.window import Window, ml_of
from ..phenomena.heating import FULL_BOIL, HeatSetting
from ..pot import Pot
from .additions import Thickened
from .base import Happened
from .judging import smells_of_wine
from .looking import Metered, Read
from .state import NO_BOILING, Boiling, State
from .warmth import Heated

#: What the plan says of boiling.
StopOf = Callable[[State], Boiling]

#: What is taken for granted while flour or starch loses its raw taste: the lid on.
_UNDER_A_LID = HeatSetting(heat="simmer", cover="tight")


def as_planned(before: State, after: State, event: Happened, stop_of: StopOf | None) -> State:
    """The heat that is taken for granted after an event, where nobody said how the pot is heated.

    It boils while the plan wants it to; a reading at the mark ends the boiling, said or not, for that is what the
    cook was told; a thickener simmers under its lid for its time, or until the next thing happens.
    """
    happened, window, pot = event.payload, after.stove.window, after.pot
    if pot is None:
        return after
    after, reckoned = _reckoned(after)
    # What is turned on again at its mark boils to another.
    mark = after.stove.boiling.stop_ml
    anew = isinstance(happened, Heated) and happened.heat == "boil" and mark is not None and there(after, mark)
    if reckoned or anew or not (happened.away or happened.leaves_plan):
        after = after.but(stove=after.stove.but(boiling=NO_BOILING if stop_of is None else stop_of(after)))
    stove = after.stove
    stop = stove.boiling.stop_ml
    wants = stop is not None and not there(after, stop)
    on = window is not None and window.heating
    if wants and not on and stove.heat is None and after.cooling is None:
        return after.but(stove=stove.but(window=_on(after, FULL_BOIL, event.at)))
    simmers = stove.heat is None or stove.heat.heat == "boil"
    if isinstance(happened, Thickened) and simmers and not wants and pot.hot:
        simmering, waits = _on(after, _UNDER_A_LID, event.at), after.binding.waits
        until = event.at + timedelta(minutes=waits[-1][1]) if waits else None
        kept = None if simmering is None else simmering.but(until=until)
        return after.but(stove=stove.but(window=kept, timed=_timed(after), heat=None))
    if window is None or not on or wants:
        return after
    at_mark = isinstance(happened, Read | Metered) and event.device is None and window.setting.heat == "boil"
    boiled = window.assumed and window.setting.heat == "boil" and not isinstance(happened, Heated)
    simmered = window.assumed and window.setting.heat == "simmer" and not happened.away
    if (at_mark and before.stove.boiling.stop_ml is not None) or boiled or simmered:
        off = window.but(factor=0.0)
        return after.but(stove=stove.but(window=off, heat=None if at_mark else stove.heat))
    return after


def _reckoned(state: State) -> tuple[State, bool]:
    """The batch with its wish as it comes out by now, where that is told in minutes or by a salt content; and whether.

    Until it is bound it boils by the clock, however strong the stove turns out to be, and to the salt as it is known.
    """
    asked, pot, window = state.asked, state.pot, state.stove.window
    if asked.wanted is None or pot is None or state.binding.in_it or state.judged.boiled_enough:
        return state, False
    boils_off_kj = 0.0
    if asked.clock_min is not None and window is not None and window.heating:
        boils_off_kj = max(asked.clock_min * window.track.power[0] * window.factor - window.pending_kj, 0.0)
    elif asked.told_by != "at_salt_percent":
        return state, False
    return state.but(asked=asked.but(wanted=asked.wanted.again(pot, boils_off_kj))), True


def _on(after: State, setting: HeatSetting, at: datetime) -> Window | None:
    """The heat taken for granted: a bend in what is known of it, or another stretch."""
    window, pot = after.stove.window, after.pot
    assert pot is not None
    if window is None:
        return Window.begun(pot, setting, at, assumed=True)
    return window.heated(pot, pot, setting, at, assumed=True)


def _timed(state: State) -> Window | None:
    """The stretch that taught the stove, kept when another follows it."""
    window = state.stove.window
    return window if window is not None and window.readings else state.stove.timed


#: A pot within this share of its mark is there: no measurement tells the difference.
CLOSE_ENOUGH = 0.01

#: What does not boil yet is not brought to the boil for less than this share. Modelling choice.
NOT_WORTH_BOILING = 0.05

#: What is left to boil away in less than this would be further past the mark by the next look, min; as a share of
#: the mark it is no more than that.
LEAST_BOIL_MIN, MOST_LEFT = 0.5, 0.03

#: What is not known well is stopped this much of its standard error sooner: water is easily given back, and never
#: taken out. Modelling choice.
UNSURE = 1.0


def _unsure_ml(state: State, pot: Pot) -> float:
    """How far from its mark a pot may be, mL: where that is a salt content, as far as that is known."""
    known = pot.salt_percent.best
    if not state.stove.boiling.by_salt or known <= 0.0:
        return pot.error_ml
    return min(pot.salt_error / known * pot.contents.liquid_ml, pot.error_ml)


def there(state: State, stop_ml: float) -> bool:
    """Whether a pot is down to where boiling ends, as nearly as anyone could stop it."""
    assert state.pot is not None
    clock_min = state.asked.clock_min
    if clock_min is not None:
        # What is told in minutes ends by the clock, or where no pot may go on.
        return clock_min < LEAST_BOIL_MIN or state.pot.contents.liquid_ml <= (1.0 + CLOSE_ENOUGH) * stop_ml
    left = state.pot.contents.liquid_ml - stop_ml - UNSURE * _unsure_ml(state, state.pot)
    if left <= CLOSE_ENOUGH * stop_ml:
        return True
    window = state.stove.window
    if window is None or not window.heating:
        # Raw wine is worth it, however little has to go.
        return left <= NOT_WORTH_BOILING * stop_ml and not smells_of_wine(state.pot)
    if left > MOST_LEFT * stop_ml:
        return False
    a_while = ml_of(LEAST_BOIL_MIN * (window.factor or 1.0) * window.track.power[0])
    return left < a_while
