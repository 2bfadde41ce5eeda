"""Body: how thick a sauce is when served, and what it owes to each thing in the pot.

Apparent viscosity η at 60 °C and 50 s⁻¹, as a sum of logarithms over water:

    log₁₀(η / η₀) = S(starch + pulp) + gelatin + solubles + emulsified fat

Semi-empirical; a modelling choice calibrated on the ratios of white sauces, roux-bound stocks,
sucrose solutions and meat glaze (tests/reference/test_body.py). Expect a factor of two either way.
Percentages are grams per 100 g of the water-based phase, thickener included.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..amounts.estimate import Estimate
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import VISCOSITY_60C_MPAS
from ..pantry.schools import flour_equivalent_g


@dataclass(frozen=True, slots=True)
class Step:
    """One step of the ladder of body: bounds and aim in mPa·s at 60 °C and 50 s⁻¹."""

    index: int
    word: str
    low: float
    high: float
    aim: float
    does: str


#: Words and bounds are a modelling choice. The aim is the geometric middle of a step.
LADDER: tuple[Step, ...] = (
    Step(0, "broth", 0.0, 5.0, 2.5, "runs like water"),
    Step(1, "jus", 5.0, 20.0, 10.0, "slightly slippery, pools"),
    Step(2, "light coat", 20.0, 60.0, math.sqrt(20 * 60), "film on the spoon, the line closes"),
    Step(3, "nappe", 60.0, 200.0, math.sqrt(60 * 200), "coats; a finger line stays"),
    Step(4, "gravy", 200.0, 600.0, math.sqrt(200 * 600), "pours in a ribbon, clings"),
    Step(5, "binding", 600.0, math.inf, 850.0, "mounds, holds things together"),
)

#: Log₁₀ half-width of the 80 % interval of a predicted viscosity: a factor of two.
SPREAD_LOG10 = math.log10(2.0)

_A, _B = 0.5377, 0.4135
_GELATIN_INTRINSIC_L_G, _MARTIN_K = 0.028, 0.35
_MOONEY_SHAPE, _MOONEY_CROWDING, _PHI_PER_PERCENT = 2.5, 1.43, 0.806
_FAT_PACKED, _FAT_EXPONENT = 0.74, 1.85


def step_of(viscosity_mpas: float) -> Step:
    """The step of the ladder on which a viscosity stands."""
    return next(step for step in LADDER if viscosity_mpas < step.high)


def starch_log(p: float) -> float:
    """S(p): log₁₀ of the viscosity ratio given by ``p`` % of flour. Modelling choice, see the module."""
    return _A * p * math.sqrt(p) / (1.0 + _B * p)


def starch_percent(log10_ratio: float) -> float:
    """The inverse of :func:`starch_log`, % of flour.

    With u = √p the curve is the cubic a·u³ − b·S·u² − S = 0, which has one positive root; solved
    by Cardano's formula.
    """
    if log10_ratio <= 0.0:
        return 0.0
    third = _B * log10_ratio / _A / 3.0
    half = third**3 + log10_ratio / _A / 2.0
    root = math.sqrt(half**2 - third**6)
    u = third + math.cbrt(half + root) + math.cbrt(half - root)
    return u * u


def pulp_percent_as_flour(p: float) -> float:
    """Flour that gives the body of ``p`` % of insoluble fibre, %. Modelling choice."""
    log10_ratio = 1.69 * (p / 0.58) ** 1.5 if p < 0.58 else 5.0 * p / (1.0 + 1.23 * p)
    return starch_percent(log10_ratio)


def gelatin_log(g_per_l: float) -> float:
    """log₁₀ of the viscosity ratio of gelatin, partly broken down by long boiling.

    Martin's equation, η_r = 1 + x·exp(0.35 x), x = 0.028 L/g · c. Constants: modelling choice.
    """
    x = _GELATIN_INTRINSIC_L_G * g_per_l
    return math.log10(1.0 + x * math.exp(_MARTIN_K * x))


def solubles_log(p: float) -> float:
    """log₁₀ of the viscosity ratio of ``p`` % of sugar and other solubles.

    Mooney's equation, ln η_r = 2.5 φ / (1 − 1.43 φ), φ = 0.00806 p, fitted to sucrose tables.
    """
    phi = min(_PHI_PER_PERCENT * p / 100.0, 0.65)
    return _MOONEY_SHAPE * phi / (1.0 - _MOONEY_CROWDING * phi) / math.log(10.0)


def fat_log(phi: float) -> float:
    """log₁₀ of the viscosity ratio of a volume share ``phi`` of emulsified fat.

    Krieger and Dougherty 1959: (1 − φ/0.74)^−1.85.
    """
    return -_FAT_EXPONENT * math.log10(1.0 - min(phi, 0.70) / _FAT_PACKED)


@dataclass(frozen=True, slots=True)
class Body:
    """A viscosity and where it comes from.

    ``viscosity`` in mPa·s; the four terms are log₁₀ of a ratio. ``flour_percent`` is the starch in
    the pot as flour, ``pulp_percent`` the pulp as flour, both in % of the water-based phase.
    """

    viscosity: float
    starch_and_pulp: float
    gelatin: float
    solubles: float
    fat: float
    flour_percent: float
    pulp_percent: float

    @property
    def step(self) -> Step:
        """The step of the ladder."""
        return step_of(self.viscosity)

    @property
    def estimate(self) -> Estimate:
        """The viscosity with its factor of two."""
        factor = 10.0**SPREAD_LOG10
        return Estimate(self.viscosity / factor, self.viscosity, self.viscosity * factor)


def body_of(contents: Contents) -> Body:
    """The body of what is in the pot, as it would be served at 60 °C; floating fat does not count."""
    phase_g = contents.liquid_g - contents.fat_emulsified
    if phase_g <= 0.0:
        return Body(VISCOSITY_60C_MPAS, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0)
    fat_ml = contents.fat_emulsified * SPECIFIC_VOLUME_ML_G["fat_emulsified"]
    liquid_ml = contents.liquid_ml
    flour = 100.0 * flour_equivalent_g(contents.starch) / phase_g
    pulp = pulp_percent_as_flour(100.0 * contents.pulp / phase_g)
    terms = (
        starch_log(flour + pulp),
        gelatin_log(1000.0 * contents.gelatin / (liquid_ml - fat_ml)),
        solubles_log(100.0 * (contents.sugar + contents.other) / phase_g),
        fat_log(fat_ml / liquid_ml),
    )
    return Body(VISCOSITY_60C_MPAS * 10.0 ** sum(terms), *terms, flour_percent=flour, pulp_percent=pulp)
