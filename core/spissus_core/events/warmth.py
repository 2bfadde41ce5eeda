"""The heat, and the cold: how the pot is heated, and how it cools."""

from __future__ import annotations

import math
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Literal

from ..amounts.fields import Celsius
from ..amounts.quantities import show_percent, show_temperature
from ..errors import SpissusError
from ..estimation.window import Window, boiled_by
from ..messages import Message, Term, say
from ..phenomena.cooling import FRIDGE_C, Reading
from ..phenomena.evaporation import COVERS
from ..phenomena.heating import HeatSetting
from ..pot import Pot
from .additions import DELICATE, YOLK
from .base import ActsOnPot, Kind
from .state import CoolingLog, Probe, State

OFF = HeatSetting(heat="off")

#: Nobody calls it kept warm below this, nor above, where it simmers, °C. Common practice.
LEAST_HOLD_C, MOST_HOLD_C = 40.0, 95.0


def in_heat(setting: HeatSetting, before: State, after: State, at: datetime) -> Window | None:
    """The stretch of heating that begins, bends or ends by a setting."""
    if before.pot is None or after.pot is None:
        return before.stove.window
    if before.stove.window is None or after.stove.window is None:
        return Window.begun(before.pot, setting, at)
    return before.stove.window.heated(before.pot, after.pot, setting, at, assumed=False)


class Heated(HeatSetting, ActsOnPot):
    """The heat is set, or turned off; ``never_on`` says that it was not on when it was taken to be."""

    looks = True
    versions = (1, 2, 7)
    leaves_plan = True
    called = say("entries.heated")

    kind: Literal["heated"] = "heated"
    never_on: bool = False

    def check(self, after: State) -> None:
        """Kept warm it is neither cold nor on the boil."""
        super().check(after)
        if self.heat == "hold" and not LEAST_HOLD_C <= self.hold_c <= MOST_HOLD_C:
            low, high = show_temperature(LEAST_HOLD_C), show_temperature(MOST_HOLD_C)
            raise SpissusError("hold_c", say("events.hold_between", low=low, high=high))

    @property
    def setting(self) -> HeatSetting:
        """The setting alone."""
        return HeatSetting.model_construct(
            heat=self.heat, share=self.share, cover=self.cover, oven_c=self.oven_c, hold_c=self.hold_c
        )

    def on_pot(self, pot: Pot) -> Pot:
        """On the heat it is hot, or soon will be."""
        return pot.but(hot=pot.hot or self.heat != "off")

    def apply(self, state: State, at: datetime) -> State:
        """On the heat it does not cool any more; what was only thought to have boiled away is still there."""
        if state.pot is not None and state.stove.window is not None and self.never_on and self.heat == "off":
            pot = state.pot.boiled_to(boiled_by(state.pot.contents, -state.stove.window.unseen_kj))
            # It is known as well as it was measured, not as badly as it was thought to boil.
            known = pot.error_ml if pot.measured_by == "list" else pot.known_to_ml(pot.measured_by)
            pot = pot.measured_over(min(known, pot.error_ml))
            state = state.but(pot=pot, stove=state.stove.but(window=None))
        after = super().apply(state, at)
        if state.pot is None:
            return after
        cooling = state.cooling if self.heat == "off" else None
        # Set warmer or cooler it is still to be what it was.
        held = (after.held or state.pot.contents) if self.heat == "hold" else None
        return after.but(stove=after.stove.but(heat=self.setting), cooling=cooling, held=held)

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """A stretch of heating begins, bends or ends."""
        return in_heat(self.setting, before, after, at)

    def said(self) -> Message:
        """How it is heated."""
        if self.never_on:
            return say("events.never_on")
        if self.heat == "off":
            return say("events.heat_off")
        cover = Term(COVERS[self.cover].log) if COVERS[self.cover].log else None
        match self.heat:
            case "oven":
                heated = say("events.oven", oven=show_temperature(self.oven_c))
            case "simmer":
                heated = say("events.simmer")
            case "hold":
                heated = say("events.hold", at=show_temperature(self.hold_c))
            case "boil":
                heated = say("events.boil", share=show_percent(100 * self.share, 0))
        return heated if cover is None else say("events.covered", heated=heated, cover=cover)


class Cooling(ActsOnPot):
    """The pot is set to cool: the clock starts."""

    tells = ("celsius",)
    called = say("entries.cooling")

    kind: Literal["cooling"] = "cooling"
    celsius: Celsius
    surroundings_c: Celsius = FRIDGE_C

    def on_pot(self, pot: Pot) -> Pot:
        """It is not hot any more."""
        return pot.but(hot=False)

    def apply(self, state: State, at: datetime) -> State:
        """The heat is off, and a log of temperatures begins."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        log = CoolingLog(at, self.surroundings_c, (Reading(0.0, self.celsius),))
        return after.but(cooling=log, stove=after.stove.but(heat=OFF))

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """None: it cools."""
        return None

    def said(self) -> Message:
        """From what, in what."""
        return say("events.cooling", at=show_temperature(self.celsius), place=show_temperature(self.surroundings_c))


#: A temperature that is older than this says nothing of now. Modelling choice.
FRESH = timedelta(minutes=10)


def fresh(probed: Probe | None, now: datetime | None) -> float | None:
    """The temperature of the sauce, °C, where it was taken lately."""
    return None if probed is None or now is None or now - probed.at > FRESH else probed.celsius


class Probed(Kind):
    """A temperature of the sauce, or while it cools of its thickest part."""

    leaves_plan = True
    tells = ("celsius",)
    called = say("entries.probed")

    kind: Literal["probed"] = "probed"
    celsius: Celsius

    def apply(self, state: State, at: datetime) -> State:
        """Another temperature for the log of a pot that cools; a sauce with yolk in it is bound once it is so warm."""
        log = state.cooling
        if log is None:
            bound = (DELICATE[YOLK].from_c or math.inf) <= self.celsius
            went_in = state.went_in.but(raw_yolk=False) if bound and state.went_in.raw_yolk else state.went_in
            return state.but(probed=Probe(self.celsius, at), went_in=went_in)
        minute = (at - log.began).total_seconds() / 60.0
        return state.but(cooling=replace(log, readings=(*log.readings, Reading(minute, self.celsius))))

    def said(self) -> Message:
        """The temperature."""
        return say("events.probed", at=show_temperature(self.celsius))
