"""What the spoon says: of the strength of this thickener, and of the body that was there already.

A verdict at a known content says on which side of the wanted band the true body lies, with an error of about half
a step. Unknown are two factors: how strong the thickener is in this pot, and how much body the liquid had before it.
Both are log-normal with heavy tails before the first spoon; the posterior is a sum over a grid of the two.

Source: handbook of the trade, common practice; error and priors are modelling choices. Checked against SciPy's
posterior (tests/reference/test_judgement.py).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from ..ledger.contents import Contents
from ..ledger.water import VISCOSITY_60C_MPAS
from ..phenomena.body import GUM_EXPONENT, LADDER, STARCH_A, STARCH_B, Strength, body_of

#: What a spoon says; a sign, such as a line that stays, says no more than that it is enough.
Verdict = Literal["low", "right", "high", "enough"]

#: Log standard deviations before any spoon: of a thickener's strength, and of the body that pulp and gelatin give
#: (common practice: 25 % in grams, a factor of two for pulp); a share of both is wilder by a factor, so that flour of
#: half the strength is found out too (``./spissus study spoons``).
STRENGTH_SPREAD, BEFORE_SPREAD = 0.3, 0.5
WILD_SHARE, WILD_FACTOR = 0.05, 2.0

#: Standard error of a spoon, and of a sign seen in the boiling pan, in steps of the ladder, and how far from the
#: middle of a step a sauce is still right.
SPOON_ERROR, SIGN_ERROR, HALF_STEP = 0.5, 1.0, 0.5

_LOGS = np.linspace(-3.0, 3.0, 25)
_BOUNDS = np.log([1.0, *(step.high for step in LADDER[:-1]), 2000.0])
_PLACES = np.arange(len(_BOUNDS), dtype=float)


def _heavy(z: NDArray[np.float64]) -> NDArray[np.float64]:
    wild = WILD_SHARE / WILD_FACTOR * np.exp(-0.5 * (z / WILD_FACTOR) ** 2)
    return np.asarray((1.0 - WILD_SHARE) * np.exp(-0.5 * z**2) + wild)


_THICKENER = np.exp(_LOGS * STRENGTH_SPREAD)[:, None]
_BEFORE = np.exp(_LOGS * BEFORE_SPREAD)[None, :]
_PRIOR = np.outer(_heavy(_LOGS), _heavy(_LOGS))
_PRIOR /= _PRIOR.sum()


def height(viscosity_mpas: float) -> float:
    """Where a viscosity stands on the ladder by its logarithm: 3.5 is the middle of step 3."""
    return float(np.interp(math.log(viscosity_mpas), _BOUNDS, _PLACES))


def viscosity_at(place: float) -> float:
    """The viscosity of a place on the ladder, mPa·s: what :func:`height` undoes.

    >>> round(height(viscosity_at(3.25)), 6)
    3.25
    """
    return math.exp(float(np.interp(place, _PLACES, _BOUNDS)))


@dataclass(frozen=True, slots=True)
class Spoonful:
    """A spoon that was looked at: what was in the pot then, the step that was wanted, and what it said."""

    contents: Contents
    body: int
    verdict: Verdict


def like(contents: Contents, step: int) -> Spoonful:
    """A spoon that looked like the one drawn for a step: on the first and the last it may be beyond, on any other it
    is within it."""
    last = len(LADDER) - 1
    if step <= 0:
        return Spoonful(contents, 1, "low")
    if step >= last:
        return Spoonful(contents, last - 1, "high")
    return Spoonful(contents, step, "right")


@dataclass(frozen=True, slots=True)
class Chances:
    """How likely a sauce is too thin, right and too thick."""

    low: float
    right: float
    high: float


@lru_cache(maxsize=256)
def _heights(contents: Contents) -> NDArray[np.float64]:
    """Place on the ladder for each pair of factors."""
    as_tabled = body_of(contents)
    percent = as_tabled.flour_percent * _THICKENER + as_tabled.pulp_percent * _BEFORE
    logs = STARCH_A * percent**1.5 / (1.0 + STARCH_B * percent) + as_tabled.gelatin * np.sqrt(_BEFORE)
    logs = logs + as_tabled.solubles + as_tabled.fat
    viscosity = VISCOSITY_60C_MPAS * 10.0**logs + as_tabled.gum * _THICKENER**GUM_EXPONENT
    return np.asarray(np.interp(np.log(viscosity), _BOUNDS, _PLACES), dtype=float)


def steps_over(contents: Contents, body: int) -> NDArray[np.float64]:
    """Steps above the middle of the wanted one, for each pair of factors."""
    return _heights(contents) - (body + 0.5)


def likelihood(gap: NDArray[np.float64], verdict: Verdict) -> NDArray[np.float64]:
    """Chance of a verdict on a sauce that stands ``gap`` steps above the middle of the wanted one."""
    if verdict == "enough":
        return np.asarray(ndtr((gap + HALF_STEP) / SIGN_ERROR))
    low, high = ndtr((-HALF_STEP - gap) / SPOON_ERROR), ndtr((gap - HALF_STEP) / SPOON_ERROR)
    return np.asarray({"low": low, "high": high, "right": 1.0 - low - high}[verdict])


def two_spoonfuls(gap: NDArray[np.float64]) -> NDArray[np.float64]:
    """Chance of everything that two spoonfuls may say of sauces that stand ``gap`` steps above the middle of the wanted
    one, in rows."""
    one = np.stack([likelihood(gap, verdict) for verdict in ("low", "right", "high")])
    return (one[:, None, :] * one[None, :, :]).reshape(len(one) ** 2, -1)


class Known(NamedTuple):
    """The mean of a logarithm, and its variance."""

    mean: float
    variance: float


class Belief:
    """What the spoons of a pot say together."""

    def __init__(self, spoons: Sequence[Spoonful]) -> None:
        weights = _PRIOR.copy()
        for one in spoons:
            weights *= likelihood(steps_over(one.contents, one.body), one.verdict)
        total = weights.sum()
        self.weights = weights / total if total > 0.0 else _PRIOR

    @property
    def strength(self) -> Strength:
        """The median of each factor, by the mean of its logarithm."""
        thickener = float((self.weights * np.log(_THICKENER)).sum())
        before = float((self.weights * np.log(_BEFORE)).sum())
        return Strength(math.exp(thickener), math.exp(before))

    @property
    def log_thickener(self) -> Known:
        """What is known of the thickener's strength over what the tables say."""
        logs = np.log(_THICKENER)
        mean = float((self.weights * logs).sum())
        return Known(mean, float((self.weights * (logs - mean) ** 2).sum()))

    def gap(self, contents: Contents, body: int) -> float:
        """Steps above the middle of the wanted one, by the mean."""
        return float((self.weights * steps_over(contents, body)).sum())

    def chances(self, contents: Contents, body: int) -> Chances:
        """How likely so much in the pot is too thin, right and too thick for a step of the ladder."""
        gap = steps_over(contents, body)
        low = float(self.weights[gap < -HALF_STEP].sum())
        high = float(self.weights[gap > HALF_STEP].sum())
        return Chances(low, max(1.0 - low - high, 0.0), high)


#: Before any spoon.
NOTHING_SEEN = Belief(())


@lru_cache(maxsize=512)
def belief(spoons: tuple[Spoonful, ...]) -> Belief:
    """What these spoons say together."""
    return Belief(spoons)
