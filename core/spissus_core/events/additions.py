"""What goes into the pot: thickener, salt, and whatever else the catalogue knows."""

from __future__ import annotations

import math
from abc import abstractmethod
from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, ClassVar, Literal, NamedTuple, cast

from pydantic import Field, ValidationInfo, model_validator

from ..amounts.fields import MassG, Name, VolumeMl, on_the_shelf
from ..amounts.quantities import (
    ML_PER_TBSP,
    ML_PER_TSP,
    parse_mass_or_volume,
    show_mass,
    show_number,
    show_volume,
    whole_amount,
)
from ..amounts.rows import rows
from ..amounts.tables import table
from ..errors import QuantityError, SpissusError
from ..estimation.spoon import height
from ..intake.how_much import counted
from ..ledger.contents import Contents
from ..messages import Argument, Message, Term, clauses, say
from ..pantry.ingredients import Ingredient, catalogue, ingredient, kept_whole
from ..pantry.schools import OF_ITS_OWN_FAT, SCHOOLS, SLURRY_LIQUIDS, School, SchoolKey, SlurryLiquid, school
from ..phenomena.seasoning import SALT_G_PER_TSP, SaltKind
from ..pot import Pot
from .base import ActsOnPot, Kind, Kitchen
from .state import Splits, State


def spooned(data: object, info: ValidationInfo, field: str, g_per_ml: float | None) -> object:
    """What a page sends of an event, with a weight that was told in spoons or pinches as grams, and its spread.

    ``g_per_ml`` is what a millilitre of it weighs as it lies in a spoon; None where nobody knows.
    """
    if on_the_shelf(info) or not isinstance(data, dict) or not isinstance(data.get(field), str) or g_per_ml is None:
        return data
    try:
        said = whole_amount(data[field], "mass", field, default_unit="g", signed=False, among=("mass", "volume"))
    except QuantityError:
        # What is wrong with it is said by the field itself.
        return data
    unit = said.unit
    if unit is None or (unit.dimension == "mass" and not said.spread):
        return data
    grams = said.value if unit.dimension == "mass" else said.value * g_per_ml
    own = SPOON_SPREAD if unit.dimension == "volume" else 0.0
    return data | {field: round(grams, 2), "spread": round(min(math.hypot(said.spread, own), 1.0), 3)}


#: What a level spoon holds of a dry thing is off by this share, 80 % of the time. Modelling choice.
SPOON_SPREAD = 0.12


def dry_spooned(data: object, info: ValidationInfo) -> object:
    """The same of a dry thickener in the field ``dry_g``; how strong it is spreads wider than any spoon."""
    key = data.get("thickener") if isinstance(data, dict) else None
    known = SCHOOLS.get(key) if isinstance(key, str) else None
    said = spooned(data, info, "dry_g", None if known is None else known.tbsp_g / ML_PER_TBSP)
    return {k: v for k, v in said.items() if k != "spread"} if isinstance(said, dict) else said


class GoesIn(ActsOnPot):
    """Something that goes into the pot by its weight, which stands in the field ``weighed``."""

    kind: str
    weighed: ClassVar[str]

    @property
    @abstractmethod
    def key(self) -> str:
        """Which of all that may go in it is."""

    @property
    @abstractmethod
    def named(self) -> Argument:
        """What it is called."""

    def weighing(self, grams: float) -> Kind:
        """The same with another weight, g."""
        return self.model_copy(update={self.weighed: grams})


class Thickened(GoesIn):
    """Thickener whisked in, by its dry weight. The school is kept whole, as it was when it went in."""

    stage = "thicken"
    server_writes = ("school",)
    versions = (1, 2, 10, 11)
    tells = ("dry_g",)
    called = say("entries.thickened")
    weighed = "dry_g"

    kind: Literal["thickened"] = "thickened"
    thickener: SchoolKey
    dry_g: MassG
    stirred_into: SlurryLiquid | None = None
    school: School | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_spoons(cls, data: object, info: ValidationInfo) -> object:
        return dry_spooned(data, info)

    @property
    def key(self) -> str:
        """The school's."""
        return self.thickener

    @property
    def named(self) -> Argument:
        """What is weighed."""
        return self.what.weighed

    @property
    def what(self) -> School:
        """The school. Raises QuantityError where none of that key is known."""
        return self.school or stirred(school(self.thickener), self.stirred_into)

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with the thickener and its carrier in it."""
        if self.dry_g <= 0.0:
            raise SpissusError("dry_g", say("events.how_much_thickener"))
        after = pot.mixed(self.what.braised_in(pot.brine).added(self.dry_g), "dry_g")
        return after if self.stirred_into is None else after.but(made=self.what)

    def apply(self, state: State, at: datetime) -> State:
        """Its body has to be judged anew, and its salt: bound it tastes of less."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        after = bound(after, self.what)
        made, fresh_g = state.binding.made, self.dry_g
        if made is not None and made.school.key == self.thickener:
            # What stood ready took its fat when it was made.
            fresh_g = max(self.dry_g - made.left_g, 0.0) if made.ready else self.dry_g
            made = made._replace(ready=True, left_g=max(made.left_g - self.dry_g, 0.0))
        if self.thickener == OF_ITS_OWN_FAT:
            after = off_the_kept_fat(after, self.what, fresh_g)
        grams = dict(state.binding.grams)
        grams[self.thickener] = grams.get(self.thickener, 0.0) + self.dry_g
        return after.but(
            binding=after.binding.but(at=at, made=made, grams=tuple(grams.items())),
            judged=state.judged.anew(),
            table=state.table.holding(self.allergens),
        )

    def said(self) -> Message:
        """Which, how much of it, and what it was stirred into where that was chosen."""
        told: dict[str, Argument] = {
            "school": self.what.called,
            "dry": self.what.weighed,
            "amount": show_mass(self.dry_g),
        }
        said = say("events.thickened_own", **told) if self.what.like else say("events.thickened", **told)
        return clauses(said, into_said(self.what, self.stirred_into))

    @property
    def allergens(self) -> tuple[str, ...]:
        """Those of the school."""
        return self.what.allergens

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the school whole, as strongly as it binds in this kitchen."""
        return self.kept_with(school=stirred(kitchen.binding(kitchen.school(self.thickener)), self.stirred_into))


def into_said(what: School, liquid: str | None) -> Message | None:
    """What it is stirred into, where that was chosen."""
    return say("events.stirred_into", liquid=Term(what.carrier)) if liquid is not None and what.is_slurry else None


def stirred(into: School, liquid: str | None) -> School:
    """A school stirred into the liquid of that key; into what its row says where there is none."""
    known = SLURRY_LIQUIDS.get(liquid or "")
    return into if known is None else into.stirred_into(ingredient(known["ingredient"]))


def off_the_kept_fat(state: State, made_of: School, dry_g: float) -> State:
    """A roux of the pot's own fat takes it off what was kept."""
    kept_g = max(state.skimming.kept_g - made_of.fat_g * dry_g, 0.0)
    return state.but(skimming=state.skimming.but(kept_g=kept_g))


def bound(state: State, by: School | None) -> State:
    """A thickener is in; ``by`` says how long it wants before it is judged, where that is known.

    Before a way is chosen it is early flour: it boils down with the rest, and nothing is settled by it.
    """
    waits = ((by.wait_low_min, by.wait_high_min),) if by else ()
    settles = state.binding.in_it or state.asked.way is not None
    waited = state.binding.waited_min + sum(sum(span) / 2.0 for span in waits)
    return state.but(binding=state.binding.but(in_it=settles, waits=(*state.binding.waits, *waits), waited_min=waited))


class Delicate(NamedTuple):
    """What parts, or curdles, where it boils: always, or only with raw wine; from where to where it may be warm, °C."""

    doubt: Splits
    always: bool
    from_c: float | None
    to_c: float | None


#: By ingredient: rows of ``data/splits.csv``.
DELICATE: Mapping[str, Delicate] = table(
    "splits",
    lambda row: Delicate(
        cast(Splits, row["doubt"]),
        row["when"] == "always",
        float(row["from_c"]) if row["from_c"] else None,
        float(row["to_c"]) if row["to_c"] else None,
    ),
)


#: What binds only once it is warm enough.
YOLK = "egg_yolk"

#: What each ingredient brings that a sauce may lack: rows of ``data/finishes.csv``.
BRINGS: Mapping[str, frozenset[str]] = {
    key: frozenset(row["lacks"] for row in rows("finishes") if row["ingredient"] == key)
    for key in {row["ingredient"] for row in rows("finishes")}
}

#: Less of the pot than this, as a share, less salt, points, and less body, steps, nobody notices of what goes in.
#: Common practice.
UNNOTICED_SHARE, UNNOTICED_SALT, UNNOTICED_STEP = 0.02, 0.03, 0.1


class Salted(GoesIn):
    """Salt stirred in; ``spread`` is how far its weight may be off, as a share: spoons and pinches are no scales."""

    stage = "season"
    tells = ("salt_g",)
    called = say("entries.salted")
    weighed = "salt_g"

    kind: Literal["salted"] = "salted"
    salt_g: MassG
    salt: SaltKind = "table"
    spread: Annotated[float, Field(ge=0, le=1)] | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_spoons(cls, data: object, info: ValidationInfo) -> object:
        kind = data.get("salt", "table") if isinstance(data, dict) else "table"
        g_per_tsp = SALT_G_PER_TSP.get(kind) if isinstance(kind, str) else None
        return spooned(data, info, "salt_g", g_per_tsp and g_per_tsp / ML_PER_TSP)

    @property
    def key(self) -> str:
        """One for all salt."""
        return "salt"

    @property
    def named(self) -> Argument:
        """The salt."""
        return say("bar.the_salt")

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with the salt in it."""
        off_g = (self.spread or 0.0) * self.salt_g
        return pot.but(
            contents=pot.contents + Contents(salt=self.salt_g),
            salt_minus=math.hypot(pot.salt_minus, off_g),
            salt_plus=math.hypot(pot.salt_plus, off_g),
        )

    def apply(self, state: State, at: datetime) -> State:
        """Its salt has to be judged anew."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        return after.but(went_in=state.went_in.but(salted=True), judged=state.judged.but(salt=()))

    def said(self) -> Message:
        """How much."""
        return say("events.salted", grams=show_number(self.salt_g, 1, "g"))


class Added(GoesIn):
    """An ingredient of the catalogue poured or stirred in, by weight or by volume.

    ``amount`` is the way to say either in words ("30 g", "1/2 cup", "3 yolks"); what is kept is the number. The
    ingredient is kept whole in ``own``, as it was when it went in.
    """

    stage = "reduce"
    looks = True
    server_writes = ("own",)
    versions = (1, 2, 11)
    tells = (
        "mass_g",
        "volume_ml",
    )
    called = say("entries.added")
    weighed = "mass_g"

    kind: Literal["added"] = "added"
    ingredient: Name
    own: Ingredient | None = None
    amount: Annotated[str | None, Field(max_length=60, exclude=True)] = None
    mass_g: MassG | None = None
    volume_ml: VolumeMl | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_amount(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict) or not isinstance(data.get("amount"), str):
            return data
        key = data.get("ingredient")
        counts = counted(data["amount"], ingredient(key)) if isinstance(key, str) and key in catalogue() else None
        dimension, value = (counts.dimension, counts.value) if counts else parse_mass_or_volume(data["amount"])
        rest = {key: given for key, given in data.items() if key != "amount"}
        return rest | {"mass_g" if dimension == "mass" else "volume_ml": value}

    @model_validator(mode="after")
    def _one_amount(self) -> Added:
        if (self.mass_g is None) == (self.volume_ml is None):
            raise QuantityError("volume_ml", say("events.how_much_of_it"))
        return self

    @property
    def key(self) -> str:
        """The ingredient's."""
        return self.ingredient

    @property
    def named(self) -> Argument:
        """The ingredient."""
        return Term(self.what.name)

    def with_amount(self, text: str) -> Kind:
        """By weight or by volume, or counted, whichever way it was told before."""
        return self.said_otherwise({"mass_g": None, "volume_ml": None, "amount": text})

    def weighing(self, grams: float) -> Kind:
        """Weighed it has no volume."""
        return self.model_copy(update={"mass_g": grams, "volume_ml": None})

    @property
    def what(self) -> Ingredient:
        """The ingredient. Raises QuantityError where the catalogue has none of that key."""
        return self.own or ingredient(self.ingredient)

    @property
    def cold(self) -> Contents | None:
        """What of it comes out of the fridge: all that is dairy; None for the rest."""
        return self.what.portion(self.grams) if self.what.group == "dairy" else None

    @property
    def grams(self) -> float:
        """Its weight, g. Raises QuantityError for a volume of what is only weighed."""
        return self.mass_g if self.mass_g is not None else (self.volume_ml or 0.0) * self.what.density_g_ml

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with it."""
        return pot.mixed(self.what.portion(self.grams), "volume_ml")

    def apply(self, state: State, at: datetime) -> State:
        """Body and salt have to be judged anew; a thickener out of the catalogue is a thickener."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        after = bound(after, None) if self.what.whole else after.but(binding=state.binding.but(at=None))
        if self.what.key in DELICATE:
            raw = state.went_in.raw_yolk or self.what.key == YOLK
            after = after.but(
                went_in=state.went_in.but(delicate=state.went_in.delicate | {self.what.key}, raw_yolk=raw)
            )
        # Let down at its mark it is not boiled away again, but for wine that has to boil off.
        if state.at_its_mark and after.pot is not None and after.pot.contents.ethanol <= state.pot.contents.ethanol:
            after = after.but(judged=after.judged.but(boiled_enough=True))
        judged = after.judged if self._hardly_changes(state.pot, after.pot) else after.judged.anew()
        return after.but(
            judged=judged.helped(BRINGS.get(self.what.key, frozenset())), table=state.table.holding(self.allergens)
        )

    def _hardly_changes(self, before: Pot, after: Pot | None) -> bool:
        """Whether so little went in, and so little salt or body with it, that nobody tastes or looks anew for it."""
        if after is None or self.what.whole:
            return False
        more = (after.contents.liquid_g - before.contents.liquid_g) / before.contents.liquid_g
        saltier = after.contents.salt_percent - before.contents.salt_percent
        thicker = height(after.body.viscosity) - height(before.body.viscosity)
        return abs(more) < UNNOTICED_SHARE and abs(saltier) < UNNOTICED_SALT and abs(thicker) < UNNOTICED_STEP

    def said(self) -> Message:
        """How much of what."""
        amount = show_mass(self.mass_g) if self.mass_g is not None else show_volume(self.volume_ml or 0.0)
        return say("events.added", amount=amount, name=self.what.name)

    @property
    def allergens(self) -> tuple[str, ...]:
        """Those of the ingredient."""
        return self.what.allergens

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the ingredient whole, the kitchen's own before the catalogue's."""
        return self.kept_with(own=kept_whole(self.ingredient, kitchen.own_ingredients()))
