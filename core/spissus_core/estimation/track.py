"""Energy, power and salt as readings come in: a Kalman filter with one unknown more, carried along in scalars.

Unknown are the heat E that has gone in, kJ, a slow drift R of the power, kJ a minute, and the salt S, g over what the
ledger began with; they obey

    dE = (P + R) du,    dR = √q dW,    dS = 0

with u the minutes at the heat it began with: nobody salts a pot by looking at it. The power P itself is log-normal
with heavy tails around what the burner promises or earlier batches taught. Given P this is a linear filter, and P
enters its means as a straight line: E = e0 + e1·P, R = r0 + r1·P, S = s0 + s1·P. So three straight lines, one
covariance and a parabola for the logarithm of the likelihood are all there is to carry, and an event costs a few
multiplications. The posterior of P is a sum over a grid.

Sources: Kalman 1960; integrated Brownian motion as in any text on smoothing. Checked against an independent
least-squares smoother (tests/reference/test_learning.py), its salt against NumPy's solution of the joint Gaussian
(tests/reference/test_salt_and_volume.py).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache
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


@lru_cache(maxsize=256)
def _powers(kj_min: float, spread: float) -> NDArray[np.float64]:
    """Powers at which a posterior is worked out, kJ/min."""
    powers = kj_min * np.exp(_GRID * spread)
    powers.flags.writeable = False
    return powers


@dataclass(frozen=True, kw_only=True)
class Track(Changeable):
    """What is known of energy and power after the last event.

    ``kj_min`` and ``spread`` are the prior of P; ``e0``, ``e1``, ``r0``, ``r1``, ``s0``, ``s1`` the means as straight
    lines in P; ``cee``, ``cer``, ``crr``, ``ces``, ``crs``, ``css`` their covariance; ``typical`` the power that the
    drift is a share of. The
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
    s0: float = 0.0
    s1: float = 0.0
    ces: float = 0.0
    crs: float = 0.0
    css: float = 0.0
    linear: float = 0.0
    square: float = 0.0
    readings: int = 0
    outliers: int = 0
    contradicting: int = 0

    @classmethod
    def begun(
        cls, kj_min: float, spread: float, error_kj: float, *, salt_error_g: float = 0.0, salt_g_kj: float = 0.0
    ) -> Self:
        """Nothing has gone in yet, and what there is to boil is known to ``error_kj``.

        The salt is ``salt_g_kj`` g more for each kJ more that has gone in already, and known to ``salt_error_g``
        besides.
        """
        cee = error_kj**2
        return cls(
            kj_min=kj_min,
            spread=spread,
            typical=kj_min,
            cee=cee,
            ces=salt_g_kj * cee,
            css=salt_error_g**2 + salt_g_kj**2 * cee,
        )

    def but(self, **changed: Any) -> Self:
        """The same with some fields replaced; what was worked out of the power stays while its likelihood does."""
        twin = super().but(**changed)
        if "square" in changed:
            twin.__dict__.pop("_posterior", None)
            twin.__dict__.pop("power", None)
        return twin

    @cached_property
    def _posterior(self) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        powers = _powers(self.kj_min, self.spread)
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

    @property
    def salt_g(self) -> float:
        """Salt over what the ledger began with, at the middle power, g."""
        return self.s0 + self.s1 * self.power[0]

    @property
    def salt_g_kj(self) -> float:
        """Salt that there is more, g, for each kJ that has gone in more than is thought."""
        energy = self.error_kj**2
        return (self.ces + self.e1 * self.s1 * self.power[1]) / energy if energy > 0.0 else 0.0

    @property
    def salt_error_g(self) -> float:
        """Standard deviation of the salt, were the energy what it is thought to be, g."""
        own = self.css + self.s1**2 * self.power[1]
        return math.sqrt(max(own - (self.salt_g_kj * self.error_kj) ** 2, 0.0))

    def moved(self, minutes: float) -> Self:
        """After ``minutes`` more at the heat it began with."""
        if minutes <= 0.0:
            return self
        q = self.typical**2 * DRIFT_PER_MIN
        return self.but(
            e0=self.e0 + self.r0 * minutes,
            e1=self.e1 + (1.0 + self.r1) * minutes,
            cee=self.cee + 2.0 * self.cer * minutes + self.crr * minutes**2 + q * minutes**3 / 3.0,
            cer=self.cer + self.crr * minutes + q * minutes**2 / 2.0,
            crr=self.crr + q * minutes,
            ces=self.ces + self.crs * minutes,
        )

    def contradicted_by(self, energy_kj: float, error_kj: float) -> bool:
        """Whether a reading is too far from what is thought to be chance."""
        return abs(energy_kj - self.energy_kj) > OUTLIER_SD * math.hypot(self.error_kj, error_kj)

    def apart(self, more: float, per_kj: float, per_g: float, error: float) -> float:
        """How many standard deviations a reading lies from what is thought, its own error included.

        It shows ``more`` than is thought of something that grows by ``per_kj`` for each kJ that has gone in and by
        ``per_g`` for each gram of salt.
        """
        along = per_kj * self.e1 + per_g * self.s1
        return abs(more) / math.sqrt(self._total(per_kj, per_g, error) + along**2 * self.power[1])

    def _total(self, per_kj: float, per_g: float, error: float) -> float:
        """Variance of such a reading, given the power."""
        own = per_kj**2 * self.cee + 2.0 * per_kj * per_g * self.ces + per_g**2 * self.css
        return own + error**2

    def seen(self, energy_kj: float, error_kj: float, *, believed: bool = False) -> Self:
        """After a reading of the energy, with its standard error.

        One that contradicts everything is left out, unless there is a reason to believe it; where the next one
        contradicts it too, the pot is another than was thought, and is begun from that reading.
        """
        if self.contradicted_by(energy_kj, error_kj):
            if not self.contradicting and not believed:
                return self.but(outliers=self.outliers + 1, contradicting=1)
            return self.but(
                e0=energy_kj,
                e1=0.0,
                cee=error_kj**2,
                cer=0.0,
                ces=0.0,
                readings=self.readings + 1,
                contradicting=0,
                linear=FORGETS * self.linear,
                square=FORGETS * self.square,
            )
        return self.learned(energy_kj - self.energy_kj, 1.0, 0.0, error_kj)

    def learned(self, more: float, per_kj: float, per_g: float, error: float) -> Self:
        """After a reading as in :meth:`apart`, whatever it says."""
        total = self._total(per_kj, per_g, error)
        # How what it shows goes with energy, drift and salt; and as a straight line in the power.
        with_e = per_kj * self.cee + per_g * self.ces
        with_r = per_kj * self.cer + per_g * self.crs
        with_s = per_kj * self.ces + per_g * self.css
        along = per_kj * self.e1 + per_g * self.s1
        missing = more + along * self.power[0]
        e, r, s = with_e / total, with_r / total, with_s / total
        after = self.but(
            e0=self.e0 + e * missing,
            e1=self.e1 - e * along,
            r0=self.r0 + r * missing,
            r1=self.r1 - r * along,
            s0=self.s0 + s * missing,
            s1=self.s1 - s * along,
            cee=self.cee - e * with_e,
            cer=self.cer - e * with_r,
            crr=self.crr - r * with_r,
            ces=self.ces - e * with_s,
            crs=self.crs - r * with_s,
            css=self.css - s * with_s,
            linear=self.linear + missing * along / total,
            square=self.square + along**2 / total,
            readings=self.readings + 1,
            contradicting=0,
        )
        return after.but(typical=after.power[0])

    def known(self, more: float, per_kj: float, per_g: float, error: float) -> Self:
        """After a reading as in :meth:`apart` that says nothing of the power: it does not boil yet."""
        total = self._total(per_kj, per_g, error)
        with_e, with_s = per_kj * self.cee + per_g * self.ces, per_kj * self.ces + per_g * self.css
        e, s = with_e / total, with_s / total
        return self.but(
            e0=self.e0 + e * more,
            s0=self.s0 + s * more,
            cee=self.cee - e * with_e,
            ces=self.ces - e * with_s,
            css=self.css - s * with_s,
            readings=self.readings + 1,
        )

    def ahead(self, minutes: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Energy after so many more minutes for each power, (minutes, powers), and its deviation given the power."""
        u = minutes
        mean = (self.e0 + self.r0 * u)[:, None] + np.outer(self.e1 + (1.0 + self.r1) * u, self.powers)
        q = self.typical**2 * DRIFT_PER_MIN
        variance = self.cee + 2.0 * self.cer * u + self.crr * u**2 + q * u**3 / 3.0
        return mean, np.sqrt(np.maximum(variance, 1e-9))
