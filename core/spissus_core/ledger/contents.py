"""The ledger: what is in the pot, by mass.

Everything a cook does is an operation on these masses. Concentrations and volumes are derived and
never stored. Boiling removes water and ethanol only; mixing is addition.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from types import MappingProxyType
from typing import Any

#: Partial specific volumes at 20 °C, mL/g. Water: IAPWS. The rest: modelling choices that reproduce
#: handbook densities of brine and sucrose solutions within 0.5 % (tests/reference).
SPECIFIC_VOLUME_ML_G: Mapping[str, float] = MappingProxyType(
    {
        "water": 1.0018,
        "ethanol": 1.17,
        "salt": 0.33,
        "sugar": 0.62,
        "acid": 0.58,
        "acetic": 0.58,
        "fat_free": 1.10,
        "fat_emulsified": 1.10,
        "gelatin": 0.72,
        "pulp": 0.65,
        "other": 0.62,
        "gum": 0.62,
        "starch": 0.63,
    }
)

#: So much of the sugar counts as strength: much of it is sweetness alone. Common practice.
SUGAR_TASTES = 0.5

_NO_STARCH: Mapping[str, float] = MappingProxyType({})


@dataclass(frozen=True)
class Contents:
    """Masses in the pot, g.

    ``acid`` is titratable acid as tartaric, ``acetic`` the same for what boils off; ``fat_free`` floats,
    ``fat_emulsified`` does not; ``pulp`` is insoluble fibre; ``gum`` xanthan and its like; ``other`` the
    remaining solubles. ``bitter`` is the bitter acids of hops, a trace that is tasted and neither weighed nor measured.
    ``starch`` is by plant (:data:`.body.STARCHES`): a thickener's as the cook weighs it,
    moisture and protein among it; what foods hold of their own, bare.
    """

    water: float = 0.0
    ethanol: float = 0.0
    salt: float = 0.0
    sugar: float = 0.0
    acid: float = 0.0
    acetic: float = 0.0
    fat_free: float = 0.0
    fat_emulsified: float = 0.0
    gelatin: float = 0.0
    pulp: float = 0.0
    other: float = 0.0
    gum: float = 0.0
    bitter: float = 0.0
    starch: Mapping[str, float] = field(default_factory=lambda: _NO_STARCH)

    def __post_init__(self) -> None:
        least = min(
            self.water,
            self.ethanol,
            self.salt,
            self.sugar,
            self.acid,
            self.acetic,
            self.fat_free,
            self.fat_emulsified,
            self.gelatin,
            self.pulp,
            self.other,
            self.gum,
            self.bitter,
        )
        if not least >= 0.0:
            raise ValueError(f"a mass cannot be negative: {self}")

    def __hash__(self) -> int:
        # Starch by plant stands in a mapping, which has no hash of its own.
        return hash((*(getattr(self, name) for name in MASSES), *self.starch.items()))

    def __add__(self, more: Contents) -> Contents:
        return self.mixed(more)

    def scaled(self, factor: float) -> Contents:
        """The same liquid, ``factor`` times as much of it."""
        return _NOTHING.mixed(self, factor)

    # Runs hundreds of times while a start is estimated or a dose sought: written out, it takes a third of the time.
    def mixed(self, more: Contents, times: float = 1.0) -> Contents:
        """This, and ``times`` as much as ``more`` of that."""
        mixture = _made(
            {
                "water": self.water + times * more.water,
                "ethanol": self.ethanol + times * more.ethanol,
                "salt": self.salt + times * more.salt,
                "sugar": self.sugar + times * more.sugar,
                "acid": self.acid + times * more.acid,
                "acetic": self.acetic + times * more.acetic,
                "fat_free": self.fat_free + times * more.fat_free,
                "fat_emulsified": self.fat_emulsified + times * more.fat_emulsified,
                "gelatin": self.gelatin + times * more.gelatin,
                "pulp": self.pulp + times * more.pulp,
                "other": self.other + times * more.other,
                "gum": self.gum + times * more.gum,
                "bitter": self.bitter + times * more.bitter,
                "starch": _together(self.starch, more.starch, times) if more.starch else self.starch,
            }
        )
        if not times >= 0.0:
            mixture.__post_init__()
        return mixture

    def with_masses(self, **masses: float) -> Contents:
        """The same contents with some masses replaced.

        Raises
        ------
        ValueError : a mass is negative, or no number.
        TypeError : the ledger keeps no such mass.
        """
        if not masses.keys() <= _PLAIN:
            raise TypeError(f"the ledger keeps no {', '.join(sorted(masses.keys() - _PLAIN))}")
        if not all(grams >= 0.0 for grams in masses.values()):
            raise ValueError(f"a mass cannot be negative: {masses}")
        return _made(self.__dict__ | masses)

    @property
    def starch_g(self) -> float:
        """Starch of every plant, g."""
        return sum(self.starch.values()) if self.starch else 0.0

    @property
    def mass_g(self) -> float:
        """Everything in the pot, floating fat included, g."""
        return (
            self.water
            + self.ethanol
            + self.salt
            + self.sugar
            + self.acid
            + self.acetic
            + self.fat_free
            + self.fat_emulsified
            + self.gelatin
            + self.pulp
            + self.other
            + self.gum
            + self.starch_g
        )

    @property
    def strength_percent(self) -> float:
        """How much taste of its own it holds, g in 100 g of all but the floating fat."""
        return 100.0 * self.own_g / self.liquid_g

    @property
    def own_g(self) -> float:
        """What tastes of the pot itself, g: gelatin, half its sugar, acid and other solubles. Common practice."""
        return self.gelatin + SUGAR_TASTES * self.sugar + self.other + self.acid + self.acetic

    @property
    def liquid_g(self) -> float:
        """Everything but the floating fat, g."""
        return self.mass_g - self.fat_free

    @property
    def liquid_ml(self) -> float:
        """Volume at 20 °C of everything but the floating fat, mL."""
        v = SPECIFIC_VOLUME_ML_G
        return (
            self.water * v["water"]
            + self.ethanol * v["ethanol"]
            + self.salt * v["salt"]
            + self.sugar * v["sugar"]
            + (self.acid + self.acetic) * v["acid"]
            + self.fat_emulsified * v["fat_emulsified"]
            + self.gelatin * v["gelatin"]
            + self.pulp * v["pulp"]
            + self.other * v["other"]
            + self.gum * v["gum"]
            + self.starch_g * v["starch"]
        )

    @property
    def fat_ml(self) -> float:
        """Volume at 20 °C of the floating fat, mL."""
        return self.fat_free * SPECIFIC_VOLUME_ML_G["fat_free"]

    @property
    def volume_ml(self) -> float:
        """Volume at 20 °C of liquid and floating fat together, mL."""
        return self.liquid_ml + self.fat_ml

    @property
    def density_g_ml(self) -> float:
        """Density of the liquid without its floating fat, g/mL at 20 °C."""
        return self.liquid_g / self.liquid_ml

    @property
    def salt_percent(self) -> float:
        """Salt by weight of the liquid without its floating fat, %."""
        return percent(self.salt, self.liquid_g)


def _together(some: Mapping[str, float], more: Mapping[str, float], times: float) -> Mapping[str, float]:
    return MappingProxyType({plant: some.get(plant, 0.0) + times * more.get(plant, 0.0) for plant in {**some, **more}})


def _made(masses: dict[str, Any]) -> Contents:
    """Contents of masses that are known to be sound: every one of them, in ledger order."""
    contents = object.__new__(Contents)
    contents.__dict__.update(masses)
    return contents


_NOTHING = Contents()

#: Names of the plain masses, in ledger order.
MASSES: tuple[str, ...] = tuple(f.name for f in fields(Contents) if f.name != "starch")
_PLAIN = frozenset(MASSES)


def percent(part: float, whole: float) -> float:
    """``part`` in 100 of ``whole``; 0 for an empty whole."""
    return 100.0 * part / whole if whole > 0 else 0.0


def from_composition(volume_ml: float, per_100_g: Mapping[str, float]) -> Contents:
    """A volume of liquid whose composition is known.

    Parameters
    ----------
    volume_ml : at 20 °C, mL.
    per_100_g : masses in g per 100 g of liquid by ledger name, water left out: it is the remainder.
    """
    solids = sum(per_100_g.values())
    if solids > 100.0:
        raise ValueError(f"{solids} g of solids do not fit in 100 g of liquid")
    unit = Contents(water=100.0 - solids).with_masses(**per_100_g)
    return unit.scaled(volume_ml / unit.liquid_ml)
