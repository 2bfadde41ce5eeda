"""Fat taken off."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import model_validator

from ..amounts.fields import MassG, Name, VolumeMl
from ..amounts.quantities import show_mass, show_volume
from ..amounts.rows import rows
from ..errors import QuantityError, SpissusError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import OFF_THE_BOIL_C
from ..messages import Message, Term, say
from ..pantry.ingredients import Ingredient, ingredient, kept_whole
from ..phenomena.fat import (
    LIFTS_BELOW_C,
    WAYS,
    FatLook,
    SkimWay,
    boiled_dry,
    fat_as_it_looks_g,
    ice_needed_g,
    rest_g,
    skimmed,
)
from ..pot import Pot
from ..wish import Wish
from .base import ActsOnPot, Kind, Kitchen
from .state import State

#: Liquid that has stood for a moment off the heat before the ice goes in, °C. Modelling choice.
STOOD_C = OFF_THE_BOIL_C - 15.0

#: More fat than this times what floats, and so many mL, was not floating there. Modelling choices.
MOST_FAT_FACTOR, MOST_FAT_ML = 1.5, 30.0

#: Fat past what is wanted by this factor, and so many grams, is clearly too much. Modelling choices.
TOO_MUCH_FACTOR, TOO_MUCH_G = 1.25, 0.5

#: After this many times nobody skims once more. Modelling choice.
MOST_SKIMS = 3


class Skimmed(ActsOnPot):
    """Fat taken off: all that a way usually takes, or a measured amount. Nothing at all means it stays.

    ``ice_g`` is the ice that melted into the pot; ``dissolved_ml`` what took the stuck juices up after boiling dry:
    water, or ``ingredient``, any liquid of the larder, kept whole in ``own``. ``kept`` says whether the fat was put
    by, for roux or another day.
    """

    stage = "skim"
    looks = True
    server_writes = ("own",)
    versions = (1, 2, 11)
    tells = ("fat_ml",)
    called = say("entries.skimmed")

    kind: Literal["skimmed"] = "skimmed"
    way: SkimWay = "spoon"
    fat_ml: VolumeMl | None = None
    ice_g: MassG | None = None
    dissolved_ml: VolumeMl | None = None
    ingredient: Name | None = None
    own: Ingredient | None = None
    kept: bool = True

    @model_validator(mode="after")
    def _way_fits(self) -> Skimmed:
        if self.ice_g and self.way != "ice":
            raise QuantityError("ice_g", say("events.ice_without_ice"))
        if self.way == "boil_dry" and not self.dissolved_ml:
            raise QuantityError("dissolved_ml", say("events.dissolved_in_what"))
        return self

    @property
    def dissolved_in(self) -> Contents:
        """What took up the stuck juices. Raises QuantityError where the catalogue has none of that key."""
        volume_ml = self.dissolved_ml or 0.0
        if self.own is None and self.ingredient is None:
            return Contents(water=volume_ml / SPECIFIC_VOLUME_ML_G["water"])
        liquid = self.own or ingredient(self.ingredient or "water")
        return liquid.portion(volume_ml * liquid.density_g_ml)

    @property
    def allergens(self) -> tuple[str, ...]:
        """Those of what took up the stuck juices."""
        return () if self.own is None else self.own.allergens

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the ingredient whole, the kitchen's own before the catalogue's."""
        if self.way != "boil_dry":
            return self
        return self.kept_with(own=kept_whole(self.ingredient or "water", kitchen.own_ingredients()))

    def on_pot(self, pot: Pot) -> Pot:
        """The pot without that fat, and without the liquid that the way lifts with it."""
        way, floating = WAYS[self.way], pot.contents.fat_ml
        if self.fat_ml is None:
            fat_ml = way.removes_ml(floating)
        elif self.fat_ml > MOST_FAT_FACTOR * floating + MOST_FAT_ML:
            raise SpissusError("fat_ml", say("events.only_so_much_fat", volume=show_volume(floating)))
        else:
            fat_ml = self.fat_ml
        if self.way == "boil_dry":
            return pot.but(contents=boiled_dry(pot.contents, fat_ml, self.dissolved_in), hot=True)
        contents = skimmed(pot.contents, fat_ml, way.liquid_per_fat * fat_ml)
        share = contents.salt / pot.contents.salt if pot.contents.salt > 0.0 else 1.0
        pot = pot.but(contents=contents, salt_minus=pot.salt_minus * share, salt_plus=pot.salt_plus * share)
        if self.way == "ice":
            ice_g = usual_ice_g(pot) if self.ice_g is None else self.ice_g
            return pot.mixed(Contents(water=ice_g), "ice_g").but(hot=False)
        return pot.but(hot=False) if self.way == "chill" else pot

    def apply(self, state: State, at: datetime) -> State:
        """The question of the fat is settled once little floats, or is meant to; what was put by is remembered."""
        after = super().apply(state, at)
        if state.pot is None or after.pot is None:
            return after
        put_by = state.pot.contents.fat_free - after.pot.contents.fat_free if self.kept else 0.0
        times = state.skimming.times + 1
        settled = self.fat_ml == 0.0 or times >= MOST_SKIMS or not fat_to_skim(after.pot, state.asked.wanted)
        return after.but(
            pot=after.pot.but(fat_stays=settled),
            skimming=state.skimming.but(settled=settled, times=times, kept_g=state.skimming.kept_g + put_by),
            table=state.table.holding(self.allergens),
            cooling=None,
        )

    def said(self) -> Message:
        """The way, or how much."""
        if self.fat_ml is None:
            way = Term(WAYS[self.way].label)
            if self.ice_g:
                return say("events.skimmed_with_ice", way=way, ice=show_mass(self.ice_g))
            return say("events.skimmed_by", way=way)
        if self.fat_ml == 0:
            return say("events.left_the_fat")
        return say("events.skimmed", volume=show_volume(self.fat_ml))


class FatSeen(ActsOnPot):
    """The fat was looked at, on a pot that stood for two minutes: once more before it is bound."""

    stage = "skim"
    looks = True
    versions = (2,)
    called = say("entries.fat_seen")

    kind: Literal["fat_seen"] = "fat_seen"
    look: FatLook

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with as much fat as it looks like."""
        return pot.but(contents=pot.contents.with_masses(fat_free=fat_as_it_looks_g(pot.contents, self.look)))

    def apply(self, state: State, at: datetime) -> State:
        """It was looked at; a film comes off once more, where nobody means to leave it."""
        after = super().apply(state, at)
        skimming, floats = state.skimming, after.pot is not None and fat_to_skim(after.pot, state.asked.wanted)
        settled = skimming.settled and not (floats and skimming.times < MOST_SKIMS)
        pot = None if after.pot is None else after.pot.but(fat_stays=settled)
        return after.but(pot=pot, skimming=skimming.but(looked=True, settled=settled))

    def said(self) -> Message:
        """How it looks."""
        return say("events.fat_seen", look=Term(LOOK_LABELS[self.look]) if self.look in LOOK_LABELS else self.look)


LOOK_LABELS = {row["key"]: row["label"] for row in rows("fat_looks")}


def usual_ice_g(pot: Pot, to_c: float = LIFTS_BELOW_C) -> float:
    """Ice that sets the fat on this pot, g, straight from the stove or cold already."""
    return ice_needed_g(pot.contents.mass_g, STOOD_C, to_c) if pot.hot else 0.0


def fat_to_skim(pot: Pot, wanted: Wish | None = None) -> bool:
    """Whether clearly more fat floats than is wanted on the sauce to be, or than a cook would usually leave."""
    return pot.contents.fat_free > TOO_MUCH_FACTOR * _rest_g(pot, wanted) + TOO_MUCH_G


def fat_left_ml(pot: Pot, wanted: Wish) -> float:
    """Fat that floats on it once what is too much has come off, mL."""
    comes_off = not pot.fat_stays and fat_to_skim(pot, wanted)
    left_g = _rest_g(pot, wanted) if comes_off else pot.contents.fat_free
    return left_g * SPECIFIC_VOLUME_ML_G["fat_free"]


def _rest_g(pot: Pot, wanted: Wish | None) -> float:
    if wanted is None:
        return rest_g(pot.contents.liquid_ml)
    return rest_g(min(pot.contents.liquid_ml, wanted.amount_ml), wanted.fat_g_per_100_ml)
