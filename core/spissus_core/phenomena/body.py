"""Body: how thick a sauce is when served, and what it owes to each thing in the pot.

Apparent viscosity η at 60 °C and 50 s⁻¹, as a sum of logarithms over water:

    log₁₀(η / η₀) = S(starch + pulp) + gelatin + solubles + emulsified fat

and the viscosity of a gum beside it. Semi-empirical; a modelling choice calibrated on the ratios of white
sauces, roux-bound stocks, sucrose solutions and meat glaze (tests/reference/test_body.py). Expect a factor of
two either way. Percentages are grams per 100 g of the water-based phase, thickener included.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

from ..amounts.estimate import Estimate
from ..amounts.rows import Row
from ..amounts.tables import table
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import VISCOSITY_60C_MPAS


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step of the ladder of body: bounds and aim in mPa·s at 60 °C and 50 s⁻¹.

    ``word`` is the trade's, ``everyday`` what anyone would say, and ``on_the_spoon`` the same in full.
    """

    index: int
    word: str
    everyday: str
    on_the_spoon: str
    low: float
    high: float
    aim: float
    does: str


def _step(row: Row) -> Step:
    low, high = float(row["low"]), float(row["high"])
    aim = float(row["aim"]) if row["aim"] else math.sqrt(low * high)
    return Step(
        index=int(row["key"]),
        word=row["word"],
        everyday=row["everyday"],
        on_the_spoon=row["on_the_spoon"],
        low=low,
        high=high,
        aim=aim,
        does=row["does"],
    )


#: Rows of ``data/ladder.csv``. The aim is the geometric middle of a step, but at the open ends.
LADDER: tuple[Step, ...] = tuple(table("ladder", _step).values())

#: Log₁₀ half-width of the 80 % interval of a predicted viscosity: a factor of two.
SPREAD_LOG10 = math.log10(2.0)

#: What one gram of each starch does the work of, g of plain flour: rows of ``data/starches.csv``.
STARCHES: Mapping[str, float] = table("starches", lambda row: float(row["strength"]))

#: The curve of the starches, S(p) = a·p^1.5 / (1 + b·p) with p in %. Fitted to the check points of the module.
STARCH_A, STARCH_B = 0.5377, 0.4135

#: Fibre below this share, %, follows its own power: L = 1.69·(p/0.58)^1.5; above, L = 5.0·p / (1 + 1.23·p).
#: Modelling choice, for tomato solids.
PULP_BEND_PERCENT, PULP_LOG_AT_BEND, PULP_EXPONENT, PULP_SLOPE, PULP_CROWDING = 0.58, 1.69, 1.5, 5.0, 1.23

#: Martin's equation for gelatin: intrinsic viscosity, L/g, and k. Modelling choice: partly broken down by long boiling.
GELATIN_INTRINSIC_L_G, GELATIN_MARTIN_K = 0.028, 0.35

#: Mooney's equation for sugar and other solubles: shape, crowding, and volume share of one percent (fitted to
#: sucrose tables); the share past which there is no liquid left to speak of.
SOLUBLES_SHAPE, SOLUBLES_CROWDING, SOLUBLES_PHI, SOLUBLES_MOST_PHI = 2.5, 1.43, 0.00806, 0.65

#: Krieger and Dougherty 1959, for droplets of fat: closest packing and exponent; the share past which it is butter.
FAT_PACKED, FAT_EXPONENT, FAT_MOST_PHI = 0.74, 1.85, 0.70

#: Xanthan in water, η = 330·c^1.35 mPa·s with c in %, 0.1 to 0.4 %. Modelling choice.
GUM_AT_ONE_PERCENT, GUM_EXPONENT = 330.0, 1.35


def step_of(viscosity_mpas: float) -> Step:
    """The step of the ladder on which a viscosity stands."""
    return next(step for step in LADDER if viscosity_mpas < step.high)


def starch_log(p: float) -> float:
    """S(p): log₁₀ of the viscosity ratio given by ``p`` % of flour. Modelling choice, see the module."""
    return STARCH_A * p * math.sqrt(p) / (1.0 + STARCH_B * p)


def starch_percent(log10_ratio: float) -> float:
    """The inverse of :func:`starch_log`, % of flour.

    With u = √p the curve is the cubic a·u³ − b·S·u² − S = 0, which has one positive root; solved
    by Cardano's formula.

    >>> round(starch_percent(starch_log(3.0)), 9)
    3.0
    """
    if log10_ratio <= 0.0:
        return 0.0
    third = STARCH_B * log10_ratio / STARCH_A / 3.0
    half = third**3 + log10_ratio / STARCH_A / 2.0
    root = math.sqrt(half**2 - third**6)
    u = third + math.cbrt(half + root) + math.cbrt(half - root)
    return u * u


def as_flour_percent(viscosity_mpas: float) -> float:
    """Flour that gives water a viscosity, %."""
    return starch_percent(math.log10(viscosity_mpas / VISCOSITY_60C_MPAS))


def pulp_percent_as_flour(p: float) -> float:
    """Flour that gives the body of ``p`` % of insoluble fibre, %. Modelling choice."""
    if p < PULP_BEND_PERCENT:
        log10_ratio = PULP_LOG_AT_BEND * (p / PULP_BEND_PERCENT) ** PULP_EXPONENT
    else:
        log10_ratio = PULP_SLOPE * p / (1.0 + PULP_CROWDING * p)
    return starch_percent(log10_ratio)


def gelatin_log(g_per_l: float) -> float:
    """log₁₀ of the viscosity ratio of gelatin, partly broken down by long boiling.

    Martin's equation, η_r = 1 + x·exp(0.35 x), x = 0.028 L/g · c. Constants: modelling choice.
    """
    x = GELATIN_INTRINSIC_L_G * g_per_l
    return math.log10(1.0 + x * math.exp(GELATIN_MARTIN_K * x))


def solubles_log(p: float) -> float:
    """log₁₀ of the viscosity ratio of ``p`` % of sugar and other solubles.

    Mooney's equation, ln η_r = 2.5 φ / (1 − 1.43 φ), φ = 0.00806 p, fitted to sucrose tables.

    >>> [round(10.0 ** solubles_log(p), 1) for p in (20.0, 40.0)]  # sucrose at 60 °C: 1.7 and 4.5
    [1.7, 4.5]
    """
    phi = min(SOLUBLES_PHI * p, SOLUBLES_MOST_PHI)
    return SOLUBLES_SHAPE * phi / (1.0 - SOLUBLES_CROWDING * phi) / math.log(10.0)


def fat_log(phi: float) -> float:
    """log₁₀ of the viscosity ratio of a volume share ``phi`` of emulsified fat.

    Krieger and Dougherty 1959: (1 − φ/0.74)^−1.85.
    """
    return 0.0 - FAT_EXPONENT * math.log10(1.0 - min(phi, FAT_MOST_PHI) / FAT_PACKED)


def gum_mpas(p: float) -> float:
    """Viscosity that ``p`` % of gum adds to that of the rest, mPa·s. Modelling choice: beside starch it holds."""
    return GUM_AT_ONE_PERCENT * math.pow(p, GUM_EXPONENT)


def flour_equivalent_g(starch: Mapping[str, float]) -> float:
    """Plain flour with the strength of the starches in the pot, g."""
    return sum((grams * STARCHES[plant] for plant, grams in starch.items()), 0.0)


@dataclass(frozen=True, slots=True)
class Strength:
    """How strong this pot's thickener is, and the body it had already, each over what the tables say.

    The body it had is that of its pulp; gelatin, of which more is known, goes by the root of the factor.
    """

    thickener: float = 1.0
    before: float = 1.0


#: What is taken for granted until a spoon says otherwise.
AS_TABLED = Strength()


class Body(NamedTuple):
    """What a viscosity comes from.

    Four terms are log₁₀ of a ratio; ``gum`` in mPa·s comes on top. ``flour_percent`` is the starch in the pot as flour,
    ``pulp_percent`` the pulp as flour, both in % of the water-based phase.
    """

    starch_and_pulp: float = 0.0
    gelatin: float = 0.0
    solubles: float = 0.0
    fat: float = 0.0
    gum: float = 0.0
    flour_percent: float = 0.0
    pulp_percent: float = 0.0

    @property
    def viscosity(self) -> float:
        """In mPa·s."""
        logs = self.starch_and_pulp + self.gelatin + self.solubles + self.fat
        return float(VISCOSITY_60C_MPAS * 10.0**logs + self.gum)

    @property
    def step(self) -> Step:
        """The step of the ladder."""
        return step_of(self.viscosity)

    @property
    def estimate(self) -> Estimate:
        """The viscosity with its factor of two."""
        factor, viscosity = 10.0**SPREAD_LOG10, self.viscosity
        return Estimate(viscosity / factor, viscosity, viscosity * factor)


#: Nothing but water.
_WATER = Body()


def body_of(contents: Contents, strength: Strength = AS_TABLED) -> Body:
    """The body of what is in the pot, as it would be served at 60 °C; floating fat does not count."""
    phase_g = contents.liquid_g - contents.fat_emulsified
    if phase_g <= 0.0:
        return _WATER
    fat_ml = contents.fat_emulsified * SPECIFIC_VOLUME_ML_G["fat_emulsified"]
    liquid_ml = contents.liquid_ml
    flour = strength.thickener * 100.0 * flour_equivalent_g(contents.starch) / phase_g
    pulp = strength.before * pulp_percent_as_flour(100.0 * contents.pulp / phase_g)
    return Body(
        starch_and_pulp=starch_log(flour + pulp),
        gelatin=math.sqrt(strength.before) * gelatin_log(1000.0 * contents.gelatin / (liquid_ml - fat_ml)),
        solubles=solubles_log(100.0 * (contents.sugar + contents.other) / phase_g),
        fat=fat_log(fat_ml / liquid_ml),
        gum=gum_mpas(strength.thickener * 100.0 * contents.gum / phase_g) if contents.gum else 0.0,
        flour_percent=flour,
        pulp_percent=pulp,
    )


def viscosity_mpas(contents: Contents, strength: Strength = AS_TABLED) -> float:
    """Viscosity of what is in the pot, mPa·s, as it would be served at 60 °C; floating fat does not count."""
    return body_of(contents, strength).viscosity
