"""What cooking does to alcohol, and to the acid that boils off with the steam.

Where it is known how much vapour left an open pot, Rayleigh's equation says what is left. Under a
lid, or where the loss is unknown, only the published retention table is any help.
"""

from __future__ import annotations

import math
from bisect import bisect
from dataclasses import dataclass
from typing import Literal

import numpy as np

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_number, show_percent
from ..messages import Message, say

#: Density of pure ethanol at 20 °C, g/mL: a label's "% vol" counts pure ethanol by volume (pinned to CoolProp).
ETHANOL_G_ML = 0.789

#: g/mol.
MOLAR_MASS_WATER = 18.015
MOLAR_MASS_ETHANOL = 46.07

#: Vapour-liquid equilibrium of ethanol and water at 1 atm: mole fraction of ethanol in liquid, vapour.
#: Source: Carey and Lewis 1932; pinned to CoolProp within 1 %, 4.8 % at its most dilute point
#: (tests/reference/test_alcohol.py).
EQUILIBRIUM = (
    (0.0190, 0.1700),
    (0.0721, 0.3891),
    (0.0966, 0.4375),
    (0.1238, 0.4704),
    (0.1661, 0.5089),
    (0.2337, 0.5445),
    (0.2608, 0.5580),
    (0.3273, 0.5826),
    (0.3965, 0.6122),
    (0.5079, 0.6564),
)

_X = tuple(x for x, _ in EQUILIBRIUM)
_ALPHA = tuple((y / (1 - y)) / (x / (1 - x)) for x, y in EQUILIBRIUM)


#: With this factor on α Rayleigh's equation gives an upper bound. Modelling choice.
UPPER_BOUND = 0.7

#: Less alcohol than this in a whole pot is not worth a word, g. Modelling choice.
ALCOHOL_WORTH_A_WORD_G = 0.5

#: Less ethanol than this is none, g.
TRACE_G = 1e-6


def relative_volatility(mole_fraction: float) -> float:
    """Relative volatility α of ethanol over water at the boil, dimensionless.

    Linear between the tabled points; the most dilute value is held below 1.9 mol %. The table is that of
    :data:`EQUILIBRIUM`; pinned to CoolProp within 1 % from 2 mol % on (tests/reference/test_alcohol.py).

    >>> alpha = relative_volatility(0.019)
    >>> round(alpha * 0.019 / (1.0 + (alpha - 1.0) * 0.019), 3)  # the table's vapour: 0.170
    0.17
    """
    if mole_fraction <= _X[0]:
        return _ALPHA[0]
    above = bisect(_X, mole_fraction)
    if above == len(_X):
        return _ALPHA[-1]
    along = (mole_fraction - _X[above - 1]) / (_X[above] - _X[above - 1])
    return _ALPHA[above - 1] + along * (_ALPHA[above] - _ALPHA[above - 1])


def ethanol_left(
    ethanol_g: float, water_g: float, water_left_g: float, *, volatility: float = 1.0, steps: int = 200
) -> float:
    """Ethanol left after open boiling has brought the water from ``water_g`` to ``water_left_g``, g.

    Rayleigh's equation, d ln n_e = α(x) d ln n_w, integrated in equal steps of ln n_w by Heun's
    method. No vapour falls back: with a lid on, more stays.

    Parameters
    ----------
    ethanol_g, water_g : at the start, g.
    water_left_g : at the end, g.
    volatility : factor on α; :data:`UPPER_BOUND` gives the most that may be left.
    steps : of the integration.
    """
    if ethanol_g < TRACE_G or water_left_g >= water_g:
        return ethanol_g
    if water_left_g <= 0.0:
        return 0.0
    step = math.log(water_left_g / water_g) / steps
    log_ratio = math.log((ethanol_g / MOLAR_MASS_ETHANOL) / (water_g / MOLAR_MASS_WATER))

    def alpha(at: float) -> float:
        ratio = math.exp(at)
        return volatility * relative_volatility(ratio / (1 + ratio))

    for _ in range(steps):
        first = alpha(log_ratio) - 1.0
        second = alpha(log_ratio + first * step) - 1.0
        log_ratio += 0.5 * (first + second) * step
    return math.exp(log_ratio) * water_left_g / MOLAR_MASS_WATER * MOLAR_MASS_ETHANOL


#: Relative volatility of acetic acid in dilute solution. Modelling choice, within 0.65 to 0.70.
ACETIC_VOLATILITY = 0.675


def acetic_left(acetic_g: float, water_g: float, water_left_g: float) -> float:
    """Acetic acid left after open boiling, g: Rayleigh's equation with a constant α below one.

    Less volatile than water, it leaves more slowly.

    >>> round(acetic_left(5.0, 95.0, 47.5) / 5.0, 2)  # vinegar halved keeps three fifths of it (common practice)
    0.63
    """
    if acetic_g <= 0.0 or water_left_g >= water_g:
        return acetic_g
    return float(acetic_g * (max(water_left_g, 0.0) / water_g) ** ACETIC_VOLATILITY)


#: Share of the alcohol left after stirring it in and simmering for so many minutes.
#: Source: USDA Table of Nutrient Retention Factors, Release 6 (2007).
RETENTION = ((15, 0.40), (30, 0.35), (60, 0.25), (90, 0.20), (120, 0.10), (150, 0.05))

#: The same, for other ways of treating it.
FLAMED, ADDED_AND_OFF_THE_HEAT = 0.75, 0.85

#: The table's shares may be off by this factor either way. Modelling choice.
RETENTION_FACTOR = 1.4


def retained(minutes: float) -> Estimate:
    """Share of the alcohol left after ``minutes`` of simmering, by the table.

    Linear between its rows; before the first, towards what goes into boiling liquid and off the
    heat; after the last, its value is held.

    >>> retained(60.0).best  # USDA Table of Nutrient Retention Factors, Release 6: 25 %
    0.25
    """
    times = [0.0, *(float(t) for t, _ in RETENTION)]
    shares = [ADDED_AND_OFF_THE_HEAT, *(share for _, share in RETENTION)]
    best = float(np.interp(minutes, times, shares))
    return Estimate(best / RETENTION_FACTOR, best, min(best * RETENTION_FACTOR, 1.0))


@dataclass(frozen=True, slots=True)
class AlcoholLeft:
    """Ethanol left in the pot, g, by which rule, and why that one."""

    grams: Estimate
    rule: Literal["vapour", "table", "none"]
    why: Message


def left_by_vapour(ethanol_g: float, water_g: float, water_left_g: float) -> AlcoholLeft:
    """What is left in an open pot whose loss is known: Rayleigh's equation with its upper bound."""
    best = ethanol_left(ethanol_g, water_g, water_left_g)
    most = ethanol_left(ethanol_g, water_g, water_left_g, volatility=UPPER_BOUND)
    gone = 100.0 * (1.0 - water_left_g / water_g) if water_g > 0.0 else 0.0
    why = say(
        "intake.by_vapour",
        gone=show_percent(gone, 0),
        left=show_number(best, 1),
        all=show_number(ethanol_g, 0, "g"),
        most=show_number(most, 1, "g"),
    )
    return AlcoholLeft(Estimate(best, best, most), "vapour", why)


def left_by_table(ethanol_g: float, minutes: float, why: Message) -> AlcoholLeft:
    """What is left by the retention table; ``why`` says why the vapour is no guide."""
    share = retained(minutes)
    text = say(
        "intake.by_table",
        why=why,
        share=show_percent(100 * share.best, 0),
        all=show_number(ethanol_g, 0, "g"),
        time=show_number(minutes, 0, "min"),
    )
    return AlcoholLeft(share.scaled(ethanol_g), "table", text)


def strength_percent(ethanol_g: float, volume_ml: float) -> float:
    """Strength in % vol of ``ethanol_g`` g of ethanol (0.789 g/mL) in ``volume_ml`` mL.

    >>> round(strength_percent(78.9, 1000.0), 1)  # a label's 10 % vol is 78.9 g in a litre
    10.0
    """
    return 100.0 * ethanol_g / ETHANOL_G_ML / volume_ml if volume_ml > 0.0 else 0.0
