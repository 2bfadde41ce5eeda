"""The catalogue: what an ingredient brings into the pot."""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import lru_cache
from importlib import resources

from .contents import Contents
from .errors import QuantityError
from .quantities import parse
from .seasoning import SALT_PER_SODIUM

#: Density of pure ethanol at 20 °C, g/mL: a label's "% vol" counts pure ethanol by volume.
ETHANOL_G_ML = 0.789


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One row of ``data/ingredients.csv``.

    Composition in g per 100 g, the rest being water; ``abv`` in % vol; one ``household`` measure
    weighs ``household_g`` g; ``sodium_mg`` per 100 g as published; ``usda_row`` the row of USDA SR Legacy that sodium,
    fat and sugars come from, where there is one; ``source`` where the rest comes from.
    """

    key: str
    name: str
    group: str
    household: str
    household_g: float
    abv: float
    sodium_mg: float
    sugar: float
    acid: float
    fat: float
    gelatin: float
    pulp: float
    starch: float
    other: float
    allergens: tuple[str, ...]
    usda_row: str
    source: str

    @property
    def density_g_ml(self) -> float:
        """Density as poured or spooned, g/mL, from the household measure."""
        return self.household_g / parse(f"1 {self.household}", "volume")

    @property
    def salt(self) -> float:
        """Sodium as salt, g per 100 g."""
        return self.sodium_mg * SALT_PER_SODIUM / 1000.0

    @property
    def ethanol(self) -> float:
        """Ethanol, g per 100 g, from the strength in % vol."""
        return self.abv * ETHANOL_G_ML / self.density_g_ml

    @property
    def water(self) -> float:
        """Water, g per 100 g: what the other masses leave."""
        known = self.ethanol + self.salt + self.sugar + self.acid + self.fat + self.gelatin
        return max(100.0 - known - self.pulp - self.starch - self.other, 0.0)

    def portion(self, mass_g: float) -> Contents:
        """What ``mass_g`` g of it bring into the pot.

        Its starch counts as plain flour; pure fats float, the fat of everything else stays emulsified.
        """
        masses = {
            "water": self.water, "ethanol": self.ethanol, "salt": self.salt, "sugar": self.sugar, "acid": self.acid,
            "gelatin": self.gelatin,
            "pulp": self.pulp, "other": self.other,
            "fat_free" if self.group == "fat" else "fat_emulsified": self.fat,
        }  # fmt: skip
        starch = {"white_roux": self.starch} if self.starch else {}
        return Contents(**masses, starch=starch).scaled(mass_g / 100.0)


@lru_cache(maxsize=1)
def catalogue() -> dict[str, Ingredient]:
    """Every ingredient by key, in the order of the file."""
    text = resources.files("spissus_core").joinpath("data/ingredients.csv").read_text(encoding="utf-8")
    rows = list(csv.DictReader(text.splitlines()))
    numbers = (
        "household_g", "abv", "sodium_mg", "sugar", "acid", "fat", "gelatin", "pulp", "starch", "other",
    )  # fmt: skip
    return {
        row["key"]: Ingredient(
            key=row["key"],
            name=row["name"],
            group=row["group"],
            household=row["household"],
            **{name: float(row[name] or 0) for name in numbers},
            allergens=tuple(row["allergens"].split()),
            usda_row=row["usda_row"],
            source=row["source"],
        )
        for row in rows
    }


def ingredient(key: str) -> Ingredient:
    """The ingredient of that key.

    Raises
    ------
    QuantityError : there is none.
    """
    found = catalogue().get(key)
    if found is None:
        raise QuantityError("ingredient", f"“{key}” is not in the catalogue.")
    return found
