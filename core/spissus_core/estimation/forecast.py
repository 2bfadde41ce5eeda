"""When a pot will be at its mark, and when to look next: what the track says of the time to come.

Everything is worked out in kJ of vapour, and told in mL, mm and minutes. Given the power the energy ahead is
Gaussian, so a chance is a sum over the grid of powers (see :mod:`.track`).

Sources: energy balance; spreads from common practice.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, ndtri

from ..amounts.estimate import Estimate
from ..ledger.contents import Contents
from .path import Path
from .track import INTERVAL
from .window import WATER_KJ_G, Window, boiled_by, kj_of

#: The rule of the next look: chance of having gone further than this share of the volume past the mark; at
#: least and at most so many minutes, and this share of the contents away. Common practice asks for less than
#: one in ten; a batch has three or four looks, so one look may use up a third of that (modelling choice).
LOOK_CHANCE, LAST_LOOK_CHANCE, LOOK_SHARE = 0.04, 0.1, 0.03
LEAST_LOOK_MIN, LONGEST_LOOK_MIN = 1.0, 12.0

#: A stove that was never timed is looked at when this share of the way should be done. Modelling choice.
FIRST_LOOK_SHARE = 0.25

#: The forecast asks so many moments, closer together at first by this power, until this many times as long as a low
#: rate would take, minutes at the least; a spread is found in so many steps, where it is no flatter than that.
#: Numerical choices.
_MOMENTS, _CLOSER, _LONGER, _AT_LEAST_MIN, _STEPS, _FLAT = 90, 1.5, 1.5, 5.0, 5, 1e-6

#: A cook alone is told the look after readings at so many levels, and this share of it: a reading that comes late
#: surprises, and what surprises is looked at sooner. Numerical choices.
ALONE_STEPS, ALONE_SHARE = 5, 0.9

#: A ruler that cannot tell this many of its errors from what is left to lose is no longer any use.
RULER_USELESS = 1.3


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
class LookAlone:
    """What a cook whom nobody can answer goes by: liquid that is read, mL, as early as that may be, ``at``; and the
    minutes until the look after it."""

    liquid_ml: float
    at: datetime
    minutes: float


@dataclass(frozen=True, slots=True)
class Standing:
    """Where a pot is thought to stand at a time: liquid, mL, with its 80 % interval, and mass, g."""

    at: datetime
    liquid_ml: Estimate
    mass_g: float


class Progress:
    """A window and the way down from the ledger: what may be asked of a boiling pot.

    ``contents`` is what the ledger says is left at the time of the window, ``last`` when the pot was last looked at.
    """

    def __init__(self, window: Window, contents: Contents, last: datetime) -> None:
        self.window, self.contents = window, contents
        self.last = max(last, window.began)
        self.path = Path(contents)

    @cached_property
    def _rate_kj_min(self) -> Estimate:
        return self.window.track.rate_range.scaled(max(self.window.factor, 1e-9))

    @property
    def steam_g_min(self) -> Estimate:
        """Vapour at the present heat, g of water/min."""
        return self._rate_kj_min.scaled(1.0 / WATER_KJ_G)

    def _ahead(self, minutes: NDArray[np.float64]) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
        """Heat that goes into vapour from the window's time on, for each power, and its deviation, kJ."""
        w = self.window
        mean, sd = w.track.ahead(np.maximum(minutes, 0.0) * w.factor)
        return mean - w.track.energy_kj - w.pending_kj, sd

    def _chance_past(self, energy_kj: float, minutes: NDArray[np.float64]) -> NDArray[np.float64]:
        mean, sd = self._ahead(minutes)
        return np.maximum.accumulate(np.asarray(ndtr((mean - energy_kj) / sd[:, None]) @ self.window.track.weights))

    def _spent(self, minutes: Sequence[float]) -> list[Estimate]:
        """Heat gone into vapour after so many minutes, kJ."""
        (mean, sd), weights = self._ahead(np.asarray(minutes, dtype=float)), self.window.track.weights
        middle = mean @ weights
        spread = np.sqrt((mean - middle[:, None]) ** 2 @ weights + sd**2)
        # From the Gaussian of the same mean and spread by Newton's steps, none longer than the spread.
        energy = middle[:, None] + spread[:, None] * ndtri(INTERVAL)
        for _ in range(_STEPS):
            z = (energy[:, :, None] - mean[:, None, :]) / sd[:, None, None]
            off = ndtr(z) @ weights - np.asarray(INTERVAL)
            slope = np.exp(-0.5 * z**2) @ weights / (math.sqrt(2.0 * math.pi) * sd[:, None])
            energy -= np.clip(off / np.maximum(slope, _FLAT / spread[:, None]), -spread[:, None], spread[:, None])
        return [Estimate(float(low), float(best), float(high)) for low, best, high in energy]

    def minute(self, at: datetime) -> float:
        """Minutes from the window's time on."""
        return (at - self.window.at).total_seconds() / 60.0

    def course(self, moments: Sequence[datetime]) -> list[Standing]:
        """Where the pot is thought to stand at each of these times."""
        out = []
        waiting = self.window.pending_kj > 0.0
        for at, spent in zip(moments, self._spent([self.minute(at) for at in moments]), strict=True):
            # What still warms up has lost nothing yet.
            floor = 0.0 if waiting else -np.inf
            low, best, high = (
                self.path.liquid_ml(max(energy, floor)) for energy in (spent.high, spent.best, spent.low)
            )
            liquid = Estimate(min(low, best), best, max(high, best))
            out.append(Standing(at, liquid, self.path.mass_g(max(spent.best, floor))))
        return out

    def outlook(self, stop_ml: float) -> Outlook | None:
        """When it will be down to ``stop_ml`` mL, and when to look; None while the heat is off."""
        w, path = self.window, self.path
        if not w.heating:
            return None
        to_mark = path.energy_to(stop_ml)
        over = path.energy_to(max(stop_ml * (1.0 - LOOK_SHARE), float(path.liquid[-1])))
        last = self.minute(self.last)
        longest = (over + w.pending_kj) / self._rate_kj_min.low * _LONGER
        minutes = max(longest, _AT_LEAST_MIN) * np.linspace(0.0, 1.0, _MOMENTS) ** _CLOSER
        there = self._chance_past(to_mark, minutes)
        arrives = [w.at + timedelta(minutes=float(np.interp(q, there, minutes))) for q in INTERVAL]
        look_at = self._look(minutes, there, self._chance_past(over, minutes), to_mark, last)
        expected = path.liquid_ml(max(self._spent([self.minute(look_at)])[0].best, 0.0))
        return Outlook(
            arrives=(arrives[0], arrives[1], arrives[2]),
            look_at=look_at,
            expect_ml=expected,
            steam=self.steam_g_min,
            readings=w.track.readings,
            outliers=w.track.outliers,
        )

    def looks_alone(self, stop_ml: float, error_ml: float, steps: int = ALONE_STEPS) -> list[LookAlone]:
        """The look that would follow a reading of so much liquid, down to the mark, each read as early as the stove may
        have brought it there: by the same rule as every look, and so never later than what would be said of it.

        ``error_ml`` is the error of the reading.
        """
        w, path = self.window, self.path
        if not w.heating:
            return []
        have = float(path.liquid[0])
        levels = [have + (stop_ml - have) * i / steps for i in range(1, steps)]
        out = []
        longest = (path.energy_to(stop_ml) + w.pending_kj) / self._rate_kj_min.low * _LONGER
        minutes = max(longest, _AT_LEAST_MIN) * np.linspace(0.0, 1.0, _MOMENTS) ** _CLOSER
        for level in levels:
            soonest = float(np.interp(INTERVAL[0], self._chance_past(path.energy_to(level), minutes), minutes))
            at = max(w.at + timedelta(minutes=soonest), self.last + timedelta(minutes=LEAST_LOOK_MIN))
            there, gone_kj = w.moved(at)
            read = there.seen(path.energy_to(level) - gone_kj, kj_of(error_ml))
            left = boiled_by(self.contents, gone_kj + read.track.energy_kj - there.track.energy_kj)
            found = Progress(read, left, at).outlook(stop_ml)
            if found is not None:
                out.append(LookAlone(level, at, ALONE_SHARE * (found.look_at - at).total_seconds() / 60.0))
        return out

    def _look(
        self,
        minutes: NDArray[np.float64],
        there: NDArray[np.float64],
        past: NDArray[np.float64],
        to_mark: float,
        last: float,
    ) -> datetime:
        """The latest moment at which the pot has hardly gone past its mark; at least a minute after the last look.

        The last look is the one at the mark: where the one before would leave less than a minute until then, it is
        left out, or taken a minute earlier.
        """
        w, path = self.window, self.path
        rate = self._rate_kj_min.best
        arrives = float(np.interp(0.5, there, minutes))
        latest = float(np.interp(LOOK_CHANCE, past, minutes)) if past[-1] > LOOK_CHANCE else np.inf
        if not w.track.readings and not w.power.batches:
            # From the last look on, so that a note in between puts nothing off.
            latest = min(latest, last + FIRST_LOOK_SHARE * ((to_mark + w.pending_kj) / rate - last))
        latest = min(latest, arrives)
        if arrives - LEAST_LOOK_MIN < latest < arrives:
            sure = float(np.interp(arrives, minutes, past)) < LAST_LOOK_CHANCE
            latest = arrives if sure else arrives - LEAST_LOOK_MIN
        # What has lost less than a look can tell is not worth one, while the mark is further away than that.
        share = max(path.energy_to((1.0 - LOOK_SHARE) * float(path.liquid[0])), w.track.error_kj)
        least = last + LEAST_LOOK_MIN
        worth = min(last + (share + w.pending_kj) / rate, arrives - LEAST_LOOK_MIN)
        return w.at + timedelta(minutes=float(min(max(latest, worth, least), last + LONGEST_LOOK_MIN)))
