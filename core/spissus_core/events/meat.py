"""Meat and sauce together: warmed in it until its middle is hot, and out on plates."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from ..amounts.estimate import Estimate
from ..amounts.fields import Celsius, DepthMm, MassG
from ..amounts.quantities import show_length, show_mass, show_temperature, show_volume
from ..amounts.tables import one_of
from ..errors import MeasurementError, SpissusError
from ..estimation.window import Window
from ..measuring.measurement import error_ml
from ..messages import Message, Term, say
from ..pantry.ingredients import ingredient
from ..phenomena.cooling import FRIDGE_C
from ..phenomena.heating import HeatSetting
from ..phenomena.limits import Limits
from ..phenomena.warming import COATED_MIN, MEATS, warming_min
from ..pot import Pot, in_pan
from .base import ActsOnPot, Kind
from .state import Meat, State
from .warmth import OFF, in_heat

#: What drinks as much as this share of a sauce is too much to be warmed in it. Modelling choice.
LEAST_LEFT = 0.5


class MeatIn(ActsOnPot):
    """Meat goes into the sauce to be warmed in it, kept warm until now or from the fridge.

    It takes up room, gives back its juice, and has a clock; ``thick_mm`` is its thickness where it was measured.
    Vegetables are warmed in it alike, but they drink of it.
    """

    stage = "serve"
    looks = True
    versions = (6,)
    tells = ("mass_g",)
    called = say("entries.meat_in")

    kind: Literal["meat_in"] = "meat_in"
    mass_g: MassG
    cut: Annotated[str, *one_of("meats")] = "pieces"
    cold: bool = False
    thick_mm: DepthMm | None = None

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with it and its juice. Raises MeasurementError where it does not fit, or there is none."""
        if self.mass_g <= 0.0:
            raise MeasurementError("mass_g", say("events.how_much_meat"))
        if self.thick_mm is not None and self.thick_mm <= 0.0:
            raise MeasurementError("thick_mm", say("events.how_thick"))
        there = pot.solids.mass_g if pot.solids else 0.0
        juice_g = MEATS[self.cut].juice.best * self.mass_g
        if juice_g >= 0.0:
            juicy = pot.mixed(ingredient("resting_juices").portion(juice_g), "mass_g")
        elif -juice_g >= LEAST_LEFT * pot.contents.liquid_g:
            raise MeasurementError("mass_g", say("events.drinks_all", volume=show_volume(pot.contents.liquid_ml)))
        else:
            drunk_ml = -juice_g / pot.contents.liquid_g * pot.contents.liquid_ml
            juicy = pot.without(drunk_ml, 0.0, error_ml(pot.pan, "jug", drunk_ml))[0]
        better = juicy.but(solids=in_pan(there + self.mass_g, pot.brine))
        if better.contents.volume_ml + better.solids_ml > pot.pan.capacity_ml:
            raise MeasurementError("mass_g", say("events.does_not_fit_beside", pan=pot.pan.name))
        return better

    def apply(self, state: State, at: datetime) -> State:
        """Its clock begins."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        minutes = COATED_MIN
        if self.cold:
            meat = MEATS[self.cut]
            minutes = warming_min(self.thick_mm or meat.thick_mm, meat.shape, FRIDGE_C, middle_c=after.limits.reheat_c)
        return after.but(meat=Meat(at, minutes, "cold" if self.cold else "warm"), judged=after.judged.anew())

    def said(self) -> Message:
        """How much of it, and how cold."""
        cut = Term(MEATS[self.cut].label) if self.cut in MEATS else self.cut
        thick = None if self.thick_mm is None else show_length(self.thick_mm)
        key = "events.cold_meat_in" if self.cold else "events.warm_meat_in"
        said = say(key, mass=show_mass(self.mass_g), cut=cut)
        return said if thick is None else say("events.so_thick", said=said, thick=thick)


#: A piece is glazed with so much, mL, in an oven so hot, °C, for so long, min: handbook of the trade, section 11.
GLAZE_ML, GLAZE_C, GLAZE_MIN = 18.0, 220.0, Estimate(15.0, 20.0, 30.0)


class Glazed(ActsOnPot):
    """Pieces get a ladle of the sauce each, and go into a hot oven, where they are basted twice."""

    stage = "serve"
    looks = True
    versions = (6,)
    called = say("entries.glazed")

    kind: Literal["glazed"] = "glazed"
    pieces: Annotated[int, Field(ge=1, le=500)]

    def on_pot(self, pot: Pot) -> Pot:
        """The rest of it. Raises MeasurementError where there is not so much."""
        taken_ml = self.pieces * GLAZE_ML
        if taken_ml >= pot.contents.liquid_ml:
            raise MeasurementError("pieces", say("events.not_so_many", volume=show_volume(pot.contents.liquid_ml)))
        return pot.without(taken_ml, 0.0, error_ml(pot.pan, "jug", taken_ml))[0]

    def apply(self, state: State, at: datetime) -> State:
        """Its clock begins; so much less is wanted in the pot."""
        after = super().apply(state, at)
        wish, taken_ml = after.asked.wanted, self.pieces * GLAZE_ML
        if state.pot is None:
            return after
        table = after.table.but(served_ml=after.table.served_ml + taken_ml)
        if wish is not None and wish.helping_ml is None:
            after = after.but(asked=after.asked.but(wanted=wish.less(0, taken_ml), agreed=None))
        return after.but(meat=Meat(at, GLAZE_MIN, "glazed"), table=table)

    def said(self) -> Message:
        """How many."""
        return say("events.glazed", count=self.pieces, volume=show_volume(self.pieces * GLAZE_ML))


#: Crisped by itself, and uncovered under the sauce: so long it takes, min. From memory, and handbook, section 11.
CRISP_MIN, UNDER_SAUCE_MIN = Estimate(8.0, 12.0, 20.0), Estimate(15.0, 20.0, 30.0)


class Ovened(ActsOnPot):
    """Meat goes into the oven: ``crisped`` apart, or in the pan and uncovered under the sauce, which steams."""

    stage = "serve"
    looks = True
    versions = (7,)
    called = say("entries.ovened")

    kind: Literal["ovened"] = "ovened"
    how: Literal["crisped", "oven"]
    oven_c: Celsius = 200.0

    @property
    def setting(self) -> HeatSetting:
        """How the pan is heated with it."""
        return HeatSetting(heat="oven", oven_c=self.oven_c)

    def on_pot(self, pot: Pot) -> Pot:
        """Nothing of it changes at once."""
        return pot

    def apply(self, state: State, at: datetime) -> State:
        """Its clock begins."""
        if state.pot is None:
            return state
        minutes = CRISP_MIN if self.how == "crisped" else UNDER_SAUCE_MIN
        stove = state.stove if self.how == "crisped" else state.stove.but(heat=self.setting)
        return state.but(meat=Meat(at, minutes, self.how, oven_c=self.oven_c), stove=stove)

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """Under the sauce it steams from now on."""
        if self.how == "crisped" or before.pot is None or after.pot is None:
            return before.stove.window
        return in_heat(self.setting, before, after, at)

    def said(self) -> Message:
        """How, and how hot."""
        return say(
            "events.crisped" if self.how == "crisped" else "events.under_sauce", oven=show_temperature(self.oven_c)
        )


class MeatProbed(Kind):
    """Meat was looked at: the temperature of its thickest piece, or only whether it is ready."""

    stage = "serve"
    looks = True
    versions = (6,)
    called = say("entries.meat_probed")

    kind: Literal["meat_probed"] = "meat_probed"
    celsius: Celsius | None = None
    ready: bool | None = None

    def check(self, after: State) -> None:
        """Only of meat that is in it, and with an answer."""
        super().check(after)
        if after.meat is None:
            raise SpissusError("kind", say("events.no_meat_in_it"))
        if self.celsius is None and self.ready is None:
            raise SpissusError("celsius", say("events.how_hot_is_it"))

    def done(self, limits: Limits) -> bool:
        """Whether it is hot through, or said to be ready."""
        return self.celsius >= limits.reheat_c if self.celsius is not None else bool(self.ready)

    def apply(self, state: State, at: datetime) -> State:
        """It is done, or looked at again after a third of the time."""
        if state.meat is None:
            return state
        if not self.done(state.limits):
            return state.but(meat=state.meat.again_from(at))
        stove = state.stove.but(heat=OFF) if state.meat.how == "oven" else state.stove
        return state.but(meat=state.meat.ready(), stove=stove)

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """Out of the oven it steams no more."""
        out = before.meat is not None and before.meat.how == "oven" and self.done(before.limits)
        return in_heat(OFF, before, after, at) if out else before.stove.window

    def said(self) -> Message:
        """What the probe read."""
        if self.celsius is not None:
            return say("events.meat_probed", at=show_temperature(self.celsius))
        return say("events.meat_is_ready" if self.ready else "events.meat_is_not_ready")
