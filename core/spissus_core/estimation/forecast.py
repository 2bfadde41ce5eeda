"""Learning the rate while it cooks, and saying when to look next.

At constant heat a pot loses *energy* linearly: the heat that goes into vapour, Σ h·Δm, grows as P·u,
where u counts minutes at the heat the window began with. Grams do not: alcohol leaves with much less
heat. Unknown are the power P, log-normal around what the burner promises or earlier batches taught;
how far the first measurement was off; and a slow drift of P. Given P the readings are a Gaussian
process, so the posterior is a sum over a grid of log P. Everything is worked out in kJ, and told in mL,
mm and minutes.

Sources: energy balance; Gaussian-process regression as in any text on it; spreads from common practice.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_factor, cho_solve
from scipy.special import ndtr

from ..amounts.estimate import Estimate
from ..ledger.contents import Contents
from .path import Path
from .window import WATER_KJ_G, Point, Window, effective_minutes

#: Variance of the log of the rate that builds up in a minute: 10 % in ten minutes (common practice).
DRIFT_PER_MIN = 0.10**2 / 10.0

#: Where the posterior of the log of the power is worked out, in standard deviations of its prior.
_GRID = np.linspace(-4.0, 4.0, 121)

#: A reading this many standard deviations from what the others foretell is left out.
OUTLIER_SD = 4.0

#: The rule of the next look: chance of having gone further than this share of the volume past the mark; at
#: least and at most so many minutes, and this share of the contents away. Common practice asks for less than
#: one in ten; a batch has three or four looks, so one look may use up a third of that (modelling choice).
LOOK_CHANCE, LOOK_SHARE = 0.03, 0.03
LEAST_LOOK_MIN, LONGEST_LOOK_MIN = 1.0, 10.0

#: The forecast asks so many moments, closer together at first by this power, until this many times as long as a low
#: rate would take, minutes at the least; a spread is read off so many levels. Numerical choices.
_MOMENTS, _CLOSER, _LONGER, _AT_LEAST_MIN, _LEVELS = 90, 1.5, 1.5, 5.0, 40

#: Ends and middle of an 80 % interval, as chances.
_INTERVAL = (0.1, 0.5, 0.9)

#: A ruler that cannot tell this many of its errors from what is left to lose is no longer any use.
RULER_USELESS = 1.3


class Fit:
    """What the readings of a window say: the rate, where the pot is now, and when it will be there."""

    def __init__(self, window: Window) -> None:
        self.window = window
        self._powers = window.power.kj_min * np.exp(_GRID * window.power.spread)
        self.outliers: tuple[Point, ...] = ()
        points = list(window.few_points)
        while True:
            self._solve(points)
            worst = self._worst(points)
            if worst is None:
                break
            self.outliers += (points.pop(worst),)
        self.points = tuple(points)

    def _solve(self, points: Sequence[Point]) -> None:
        w = self.window
        self._u = np.array([p.effective for p in points])
        self._y = np.array([p.energy_kj for p in points])
        errors = np.array([p.error_kj for p in points])
        logs = -0.5 * _GRID**2
        typical = w.power.kj_min
        for _ in range(2 if points else 1):
            self._drift = typical**2 * DRIFT_PER_MIN
            if points:
                cov = np.diag(errors**2) + w.start_error_kj**2 + self._drift * _drift(self._u, self._u)
                self._cho = cho_factor(cov, lower=True)
                self._vu, self._vy = cho_solve(self._cho, self._u), cho_solve(self._cho, self._y)
                likely = -0.5 * (self._powers**2 * (self._u @ self._vu) - 2.0 * self._powers * (self._u @ self._vy))
                logs = -0.5 * _GRID**2 + likely
            weights = np.exp(logs - logs.max())
            self._weights = weights / weights.sum()
            typical = float(self._weights @ self._powers)
        self._typical = typical

    def _worst(self, points: Sequence[Point]) -> int | None:
        """The reading that the others contradict most, if any; never one of the first three."""
        if len(points) < 4 or len(self.outliers) >= 3:
            return None
        inverse = cho_solve(self._cho, np.eye(len(points)))
        residual = self._vy - self._typical * self._vu
        z = np.abs(residual) / np.sqrt(np.diag(inverse))
        worst = int(np.argmax(z))
        return worst if z[worst] > OUTLIER_SD else None

    @cached_property
    def kj_min(self) -> Estimate:
        """Power into vapour at the heat of the window's beginning, kJ/min."""
        cumulative = np.cumsum(self._weights)
        low, best, high = (float(np.interp(q, cumulative, self._powers)) for q in _INTERVAL)
        return Estimate(low, best, high)

    @property
    def spread(self) -> float:
        """Log standard deviation of the power."""
        logs = np.log(self._powers)
        mean = float(self._weights @ logs)
        return float(np.sqrt(self._weights @ (logs - mean) ** 2))

    @property
    def steam_g_min(self) -> Estimate:
        """Vapour at the present heat, g of water/min."""
        return self.kj_min.scaled(self.window.steps[-1][1] / WATER_KJ_G)

    def _at(self, minutes: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Energy at each minute for each power, and its standard deviation given the power, kJ."""
        u = effective_minutes(self.window.steps, minutes)
        start = self.window.start_error_kj**2
        variance = start + self._drift * u**3 / 3.0
        mean = np.outer(u, self._powers)
        if len(self._u):
            k = start + self._drift * _drift(self._u, u)
            solved = cho_solve(self._cho, k)
            mean = np.outer(u - k.T @ self._vu, self._powers) + (k.T @ self._vy)[:, None]
            variance = variance - np.einsum("ij,ij->j", k, solved)
        return mean, np.sqrt(np.maximum(variance, 1e-9))

    def chance_past(self, energy_kj: float, minutes: NDArray[np.float64]) -> NDArray[np.float64]:
        """Probability that more than ``energy_kj`` has been spent by each minute."""
        mean, sd = self._at(minutes)
        return np.asarray(ndtr((mean - energy_kj) / sd[:, None]) @ self._weights)

    def spent(self, minutes: Sequence[float]) -> list[Estimate]:
        """Energy spent by each minute since the window began, kJ."""
        mean, sd = self._at(np.asarray(minutes, dtype=float))
        low, high = mean.min(axis=1) - 4.0 * sd, mean.max(axis=1) + 4.0 * sd
        levels = low[:, None] + (high - low)[:, None] * np.linspace(0.0, 1.0, _LEVELS)
        below = ndtr((levels[:, :, None] - mean[:, None, :]) / sd[:, None, None]) @ self._weights
        return [
            Estimate(*(float(np.interp(q, chance, level)) for q in _INTERVAL))
            for chance, level in zip(below, levels, strict=True)
        ]

    def arrival(self, energy_kj: float, last: float) -> Estimate | None:
        """Minutes since the window began at which so much will have been spent; None while the heat is off.

        ``last`` is the minute of the last look: before it, it was not.
        """
        if not self.window.heating:
            return None
        minutes = self._ahead(energy_kj, last)
        chance = np.maximum.accumulate(self.chance_past(energy_kj, minutes))
        low, best, high = (float(np.interp(q, chance, minutes)) for q in _INTERVAL)
        return Estimate(low, best, high)

    def _ahead(self, energy_kj: float, last: float) -> NDArray[np.float64]:
        """Minutes worth asking about on the way to an energy from minute ``last`` on, close together at first."""
        rate = self.kj_min.low * self.window.steps[-1][1]
        longest = max((energy_kj - self.window.spent_kj) / rate * _LONGER, _AT_LEAST_MIN)
        return last + longest * np.linspace(0.0, 1.0, _MOMENTS) ** _CLOSER

    def next_look(self, target_kj: float, over_kj: float, share_kj: float, last: float) -> float:
        """Minutes from the last look, at minute ``last``, until the next.

        The latest moment at which the chance of having gone more than ``over_kj`` past ``target_kj`` is
        below :data:`LOOK_CHANCE`, at least a minute and ``share_kj`` away, at most ten minutes.
        """
        minutes = self._ahead(target_kj + over_kj, last)
        chance = np.maximum.accumulate(self.chance_past(target_kj + over_kj, minutes))
        latest = float(np.interp(LOOK_CHANCE, chance, minutes)) - last if chance[-1] > LOOK_CHANCE else np.inf
        rate = self.kj_min.best * self.window.steps[-1][1]
        least = max(LEAST_LOOK_MIN, share_kj / rate)
        return float(min(max(latest, least), LONGEST_LOOK_MIN))


def _drift(u: NDArray[np.float64], v: NDArray[np.float64]) -> NDArray[np.float64]:
    """Covariance of what a drifting rate has added up to, per drift and power squared: integrated Brownian motion."""
    less, more = np.minimum(u[:, None], v[None, :]), np.maximum(u[:, None], v[None, :])
    return np.asarray(less**2 * (3.0 * more - less) / 6.0)


# -- what it comes to -----------------------------------------------------------------------------


@dataclass(frozen=True, slots=True, kw_only=True)
class Outlook:
    """A boiling pot and its mark.

    ``arrives`` is when the liquid will be down to the mark; ``look_at`` when to look next, ``expect_ml``
    what should be there then. ``steam`` is the vapour, g/min, learned from ``readings`` readings.
    """

    arrives: tuple[datetime, datetime, datetime]
    look_at: datetime
    expect_ml: float
    steam: Estimate
    readings: int
    outliers: int


@dataclass(frozen=True, slots=True)
class Standing:
    """Where a pot is thought to stand at a time: liquid, mL, with its 80 % interval, and mass, g."""

    at: datetime
    liquid_ml: Estimate
    mass_g: float


class Progress:
    """A window with its fit and the way down from the ledger: what may be asked of a boiling pot.

    ``contents`` is what the ledger says is left, ``last`` when the pot was last looked at.
    """

    def __init__(self, window: Window, contents: Contents, last: datetime) -> None:
        self.window = window
        self.last = max(last, window.began)
        self.fit = Fit(window)
        self.path = Path(contents)

    def course(self, moments: Sequence[datetime]) -> list[Standing]:
        """Where the pot is thought to stand at each of these times."""
        minutes = [max(self.window.minute(at), 0.0) for at in moments]
        out = []
        for at, spent in zip(moments, self.fit.spent(minutes), strict=True):
            low, best, high = (
                self.path.liquid_ml(e - self.window.spent_kj) for e in (spent.high, spent.best, spent.low)
            )
            liquid = Estimate(min(low, best), best, max(high, best))
            out.append(Standing(at, liquid, self.path.mass_g(spent.best - self.window.spent_kj)))
        return out

    def outlook(self, stop_ml: float) -> Outlook | None:
        """When it will be down to ``stop_ml`` mL, and when to look; None while the heat is off."""
        if not self.window.heating:
            return None
        path, w = self.path, self.window
        to_mark = path.energy_to(stop_ml)
        target = w.spent_kj + to_mark
        over = path.energy_to(max(stop_ml * (1.0 - LOOK_SHARE), float(path.liquid[-1]))) - to_mark
        share = path.energy_to((1.0 - LOOK_SHARE) * float(path.liquid[0]))
        last = w.minute(self.last)
        arrival = self.fit.arrival(target, last)
        assert arrival is not None
        look = last + self.fit.next_look(target, over, share, last)
        expected = path.liquid_ml(self.fit.spent([look])[0].best - w.spent_kj)

        def at(minute: float) -> datetime:
            return w.began + timedelta(minutes=minute)

        return Outlook(
            arrives=(at(arrival.low), at(arrival.best), at(arrival.high)), look_at=at(look),
            expect_ml=max(expected, stop_ml), steam=self.fit.steam_g_min, readings=len(self.fit.points),
            outliers=len(self.fit.outliers),
        )  # fmt: skip
