"""Energy and power as readings come in: a Kalman filter with one unknown more, carried along in scalars.

Unknown are the heat E that has gone in, kJ, and a slow drift R of the power, kJ a minute; both obey

    dE = (P + R) du,    dR = √q dW

with u the minutes at the heat it began with. The power P itself is log-normal with heavy tails around what the
burner promises or earlier batches taught. Given P this is a linear filter, and P enters its means as a straight
line: E = e0 + e1·P, R = r0 + r1·P. So two straight lines, one covariance and a parabola for the logarithm of the
likelihood are all there is to carry, and an event costs a few multiplications. The posterior of P is a sum over a
grid.

Sources: Kalman 1960; integrated Brownian motion as in any text on smoothing. Checked against an independent
least-squares smoother (tests/reference/test_learning.py).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any, Self

import numpy as np
from numpy.typing import NDArray

from ..amounts.changing import Changeable
from ..amounts.estimate import Estimate

#: Variance of the log of the rate that builds up in a minute: 10 % in ten minutes (common practice).
DRIFT_PER_MIN = 0.10**2 / 10.0

#: Where the posterior of the power is worked out, in standard deviations of its prior.
_GRID = np.linspace(-4.5, 4.5, 109)

#: A stove may be quite another than was said: so much of the prior is wider by this factor. Modelling choices.
WILD_SHARE, WILD_FACTOR = 0.5, 2.0

#: A reading this many standard deviations from what is thought is left out, unless the next one agrees with it.
OUTLIER_SD = 4.0

#: Where two contradict it so much of what was learned of the power is kept: somebody turned the heat. Modelling
#: choice.
FORGETS = 0.2

#: Ends and middle of an 80 % interval, as chances.
INTERVAL = (0.1, 0.5, 0.9)

_LOG_PRIOR = np.log(
    (1.0 - WILD_SHARE) * np.exp(-0.5 * _GRID**2) + WILD_SHARE / WILD_FACTOR * np.exp(-0.5 * (_GRID / WILD_FACTOR) ** 2)
)


@dataclass(frozen=True, kw_only=True)
class Track(Changeable):
    """What is known of energy and power after the last event.

    ``kj_min`` and ``spread`` are the prior of P; ``e0``, ``e1``, ``r0``, ``r1`` the means as straight lines in
    P; ``cee``, ``cer``, ``crr`` their covariance; ``typical`` the power that the drift is a share of. The
    likelihood of P is exp(linear·P − ½·square·P²). ``contradicting`` counts readings left out in a row,
    ``outliers`` all of them.
    """

    kj_min: float
    spread: float
    typical: float
    e0: float = 0.0
    e1: float = 0.0
    r0: float = 0.0
    r1: float = 0.0
    cee: float = 0.0
    cer: float = 0.0
    crr: float = 0.0
    linear: float = 0.0
    square: float = 0.0
    readings: int = 0
    outliers: int = 0
    contradicting: int = 0

    @classmethod
    def begun(cls, kj_min: float, spread: float, error_kj: float) -> Self:
        """Nothing has gone in yet, and what there is to boil is known to ``error_kj``."""
        return cls(kj_min=kj_min, spread=spread, typical=kj_min, cee=error_kj**2)

    def but(self, **changed: Any) -> Self:
        """The same with some fields replaced; what was worked out of the power stays while its likelihood does."""
        twin = super().but(**changed)
        if "square" in changed:
            twin.__dict__.pop("_posterior", None)
            twin.__dict__.pop("power", None)
        return twin

    @cached_property
    def _posterior(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        powers = self.kj_min * np.exp(_GRID * self.spread)
        logs = _LOG_PRIOR + powers * (self.linear - 0.5 * self.square * powers)
        weights = np.exp(logs - logs.max())
        return powers, weights / weights.sum()

    @property
    def powers(self) -> NDArray[np.float64]:
        """Powers at which the posterior is worked out, kJ/min."""
        return self._posterior[0]

    @property
    def weights(self) -> NDArray[np.float64]:
        """How likely each of them is."""
        return self._posterior[1]

    @cached_property
    def power(self) -> tuple[float, float]:
        """Median, kJ/min, and variance of the power: its mean is drawn up by stoves that hardly exist."""
        powers, weights = self._posterior
        mean = float(weights @ powers)
        middle = float(np.interp(0.5, np.cumsum(weights) - 0.5 * weights, powers))
        return middle, max(float(weights @ (powers - mean) ** 2), 0.0)

    @property
    def power_range(self) -> Estimate:
        """80 % interval of the power, kJ/min."""
        powers, weights = self._posterior
        cumulative = np.cumsum(weights) - 0.5 * weights
        return Estimate(*(float(np.interp(q, cumulative, powers)) for q in INTERVAL))

    @property
    def rate_range(self) -> Estimate:
        """80 % interval of the power as it is by now, its drift included, kJ/min."""
        known = self.power_range
        drifted = max(1.0 + self.r1 + self.r0 / known.best, 0.1)
        return known.scaled(drifted)

    @property
    def power_spread(self) -> float:
        """Log standard deviation of the power."""
        powers, weights = self._posterior
        logs = np.log(powers)
        mean = float(weights @ logs)
        return math.sqrt(max(float(weights @ (logs - mean) ** 2), 0.0))

    @property
    def energy_kj(self) -> float:
        """Heat that has gone in, at the middle power."""
        return self.e0 + self.e1 * self.power[0]

    @property
    def error_kj(self) -> float:
        """Its standard deviation."""
        return math.sqrt(max(self.cee + self.e1**2 * self.power[1], 0.0))

    def moved(self, minutes: float) -> Self:
        """After ``minutes`` more at the heat it began with."""
        if minutes <= 0.0:
            return self
        q = self.typical**2 * DRIFT_PER_MIN
        return self.but(
            e0=self.e0 + self.r0 * minutes, e1=self.e1 + (1.0 + self.r1) * minutes,
            cee=self.cee + 2.0 * self.cer * minutes + self.crr * minutes**2 + q * minutes**3 / 3.0,
            cer=self.cer + self.crr * minutes + q * minutes**2 / 2.0, crr=self.crr + q * minutes,
        )  # fmt: skip

    def contradicted_by(self, energy_kj: float, error_kj: float) -> bool:
        """Whether a reading is too far from what is thought to be chance."""
        return abs(energy_kj - self.energy_kj) > OUTLIER_SD * math.hypot(self.error_kj, error_kj)

    def seen(self, energy_kj: float, error_kj: float, *, believed: bool = False) -> Self:
        """After a reading of the energy, with its standard error.

        One that contradicts everything is left out, unless there is a reason to believe it; where the next one
        contradicts it too, the pot is another than was thought, and is begun from that reading.
        """
        if self.contradicted_by(energy_kj, error_kj):
            if not self.contradicting and not believed:
                return self.but(outliers=self.outliers + 1, contradicting=1)
            return self.but(
                e0=energy_kj, e1=0.0, cee=error_kj**2, cer=0.0, readings=self.readings + 1, contradicting=0,
                linear=FORGETS * self.linear, square=FORGETS * self.square,
            )  # fmt: skip
        total = self.cee + error_kj**2
        along, across = self.cee / total, self.cer / total
        missing = energy_kj - self.e0
        after = self.but(
            e0=self.e0 + along * missing, e1=self.e1 * (1.0 - along), r0=self.r0 + across * missing,
            r1=self.r1 - across * self.e1, cee=self.cee * (1.0 - along), cer=self.cer * (1.0 - along),
            crr=self.crr - across * self.cer, linear=self.linear + missing * self.e1 / total,
            square=self.square + self.e1**2 / total, readings=self.readings + 1, contradicting=0,
        )  # fmt: skip
        return after.but(typical=after.power[0])

    def known(self, energy_kj: float, error_kj: float) -> Self:
        """After a reading that says how much there is, and nothing of the power: it does not boil yet."""
        total = self.cee + error_kj**2
        along = self.cee / total
        return self.but(
            e0=self.e0 + along * (energy_kj - self.energy_kj), cee=self.cee * (1.0 - along), readings=self.readings + 1
        )  # fmt: skip

    def ahead(self, minutes: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Energy after so many more minutes for each power, (minutes, powers), and its deviation given the power."""
        u = minutes
        mean = (self.e0 + self.r0 * u)[:, None] + np.outer(self.e1 + (1.0 + self.r1) * u, self.powers)
        q = self.typical**2 * DRIFT_PER_MIN
        variance = self.cee + 2.0 * self.cer * u + self.crr * u**2 + q * u**3 / 3.0
        return mean, np.sqrt(np.maximum(variance, 1e-9))
