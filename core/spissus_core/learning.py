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
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import cho_factor, cho_solve
from scipy.special import ndtr

from . import events as ev
from .amounts.estimate import Estimate
from .errors import SpissusError
from .fold import Pot, Timeline, implied_mass_g
from .ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from .ledger.water import HEAT_CAPACITY_KJ_KG_K, LATENT_HEAT_KJ_KG, OFF_THE_BOIL_C, REFERENCE_C
from .phenomena.alcohol import TRACE_G, ethanol_left
from .phenomena.evaporation import COVERS, boiled_to_mass
from .phenomena.fat import LIFTS_BELOW_C
from .phenomena.heating import FULL_BOIL, HeatSetting, LearnedRate, Power, power

#: Heat of vaporisation, kJ/g. Water at 100 °C: IAPWS. Ethanol at its boiling point: from memory.
WATER_KJ_G, ETHANOL_KJ_G = LATENT_HEAT_KJ_KG / 1000.0, 0.85

#: Variance of the log of the rate that builds up in a minute: 10 % in ten minutes (common practice).
DRIFT_PER_MIN = 0.10**2 / 10.0

#: Where the posterior of the log of the power is worked out, in standard deviations of its prior.
_GRID = np.linspace(-4.0, 4.0, 121)

#: A reading this many standard deviations from what the others foretell is left out.
OUTLIER_SD = 4.0

#: More readings than this are thinned: evenly, keeping the newest.
MOST_POINTS = 60

#: The rule of the next look: chance of having gone further than this share of the volume past the mark; at
#: least and at most so many minutes, and this share of the contents away. Common practice asks for less than
#: one in ten; a batch has three or four looks, so one look may use up a third of that (modelling choice).
LOOK_CHANCE, LOOK_SHARE = 0.03, 0.03
LEAST_LOOK_MIN, LONGEST_LOOK_MIN = 1.0, 10.0

#: A ruler that cannot tell this many of its errors from what is left to lose is no longer any use.
RULER_USELESS = 1.3


@dataclass(frozen=True, slots=True)
class Point:
    """A reading as energy: kJ gone into vapour and warming since the window began, and its standard error.

    ``effective`` is the minutes at the heat the window began with.
    """

    at: datetime
    minute: float
    effective: float
    energy_kj: float
    error_kj: float
    liquid_ml: float
    error_ml: float


@dataclass(frozen=True, slots=True)
class Window:
    """A stretch of heating of one kind in one pan.

    ``steps`` are the changes of heat, (minute, factor on the first power); ``spent_kj`` what the ledger
    says has gone into vapour and warming by now, from which ``contents`` are left.
    """

    began: datetime
    power: Power
    setting: HeatSetting
    steps: tuple[tuple[float, float], ...]
    points: tuple[Point, ...]
    start_error_kj: float
    spent_kj: float
    contents: Contents
    last: datetime

    def minute(self, at: datetime) -> float:
        """Minutes since it began."""
        return (at - self.began).total_seconds() / 60.0

    def effective(self, minute: float) -> float:
        """Minutes at the first heat that ``minute`` minutes come to."""
        return float(_effective(self.steps, np.array([minute]))[0])

    @property
    def heating(self) -> bool:
        """Whether the heat is still on."""
        return self.steps[-1][1] > 0.0


def _effective(steps: Sequence[tuple[float, float]], minutes: NDArray[np.float64]) -> NDArray[np.float64]:
    total = np.zeros_like(minutes)
    ends = [start for start, _ in steps[1:]] + [np.inf]
    for (start, factor), end in zip(steps, ends, strict=True):
        total += factor * np.clip(np.minimum(minutes, end) - start, 0.0, None)
    return total


# -- from a timeline to a window ------------------------------------------------------------------


@dataclass(slots=True)
class _Open:
    """A window while the events are run through."""

    began: datetime
    power: Power
    setting: HeatSetting
    start_error_kj: float
    warm_kj: float
    spent_kj: float = 0.0
    steps: list[tuple[float, float]] = field(default_factory=lambda: [(0.0, 1.0)])
    points: list[Point] = field(default_factory=list)


def window_of(timeline: Timeline) -> Window | None:
    """The stretch of heating that is under way, or None: nothing is planned, or the heat is off.

    Until the cook says how it is heated, a full boil is assumed from the moment the pot was last
    measured, skimmed or planned.
    """
    found: _Open | None = None
    before: Pot | None = None
    told = planned = False
    last: datetime | None = None
    for moment in timeline.moments:
        happened, at, pot = moment.event.payload, moment.event.at, moment.pot
        if moment.struck or moment.problem is not None or pot is None:
            continue
        planned = planned or isinstance(happened, ev.Chosen)
        if isinstance(happened, ev.Heated):
            told = True
            found = _heated(found, pot, happened, at, before)
        elif isinstance(happened, ev.Cooling):
            told, found = True, None
        elif isinstance(happened, ev.Moved | ev.Split | ev.Rejoined | ev.Drawn | ev.Returned):
            setting = found.setting if found else None if told else FULL_BOIL
            found = _begin(pot, setting, at, warm=False) if setting else None
        elif isinstance(happened, ev.Read):
            if found is not None and before is not None:
                _note(found, before, pot, happened, at)
        elif not told and isinstance(happened, ev.Started | ev.Chosen | ev.Skimmed) and not (found and found.points):
            found = _begin(pot, FULL_BOIL, at)
        elif found is not None and before is not None:
            found.warm_kj += _warming(before, pot)
        if isinstance(happened, _COUNTS_AS_A_LOOK):
            last = at
        before = pot
    if found is None or before is None or last is None or not (planned or told):
        return None
    return Window(
        found.began, found.power, found.setting, tuple(found.steps), _thinned(found.points), found.start_error_kj,
        found.spent_kj + found.warm_kj, before.contents, max(last, found.began),
    )  # fmt: skip


#: A heat changed by more than this is another heat: nothing is carried over. Modelling choice.
MOST_FACTOR = 30.0

_COUNTS_AS_A_LOOK = (
    ev.Started, ev.Chosen, ev.Skimmed, ev.Read, ev.Added, ev.Drawn, ev.Returned, ev.Solids, ev.Heated, ev.Moved,
    ev.Split, ev.Rejoined,
)  # fmt: skip


def _heated(found: _Open | None, pot: Pot, happened: ev.Heated, at: datetime, before: Pot | None) -> _Open | None:
    if found is None or happened.heat not in ("off", found.setting.heat):
        return _begin(before or pot, happened.setting, at)
    strength = power_of(pot, happened.setting)
    factor = strength.kj_min / found.power.kj_min if strength else 0.0
    if factor > MOST_FACTOR or 0.0 < factor < 1.0 / MOST_FACTOR:
        return _begin(pot, happened.setting, at, warm=False)
    found.steps.append(((at - found.began).total_seconds() / 60.0, factor))
    return found


def power_of(pot: Pot, setting: HeatSetting) -> Power | None:
    """Heat into vapour of this pot, both pans together where it is split; None where it is off."""
    depth = pot.pan.depth_mm(min(pot.contents.volume_ml * pot.share, pot.pan.capacity_ml))
    one = power(pot.pan, pot.burner, setting, depth)
    if one is None or pot.beside is None:
        return one
    other = power(pot.beside.pan, pot.beside.burner, setting, pot.beside.depth_mm(pot.contents))
    return one if other is None else replace(one, kj_min=one.kj_min + other.kj_min)


def _begin(pot: Pot, setting: HeatSetting, at: datetime, *, warm: bool = True) -> _Open | None:
    strength = power_of(pot, setting)
    if strength is None:
        return None
    boils_c = pot.burner.boils_c
    from_c = boils_c - (100.0 - OFF_THE_BOIL_C) if pot.hot else REFERENCE_C
    warm_kj = _heat_kj(pot.contents.mass_g, boils_c - from_c) if warm else 0.0
    error_kj = pot.error_ml * pot.contents.density_g_ml * WATER_KJ_G
    return _Open(at, strength, setting, error_kj, warm_kj)


def _heat_kj(mass_g: float, kelvin: float) -> float:
    return mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * max(kelvin, 0.0)


def _warming(before: Pot, after: Pot) -> float:
    """Heat that what was added takes up before it boils too, kJ."""
    if before.hot and not after.hot:
        return _heat_kj(after.contents.mass_g, after.burner.boils_c - LIFTS_BELOW_C)
    added_g = max(after.contents.mass_g - before.contents.mass_g, 0.0)
    return _heat_kj(added_g, after.burner.boils_c - REFERENCE_C)


def _note(found: _Open, before: Pot, after: Pot, happened: ev.Read, at: datetime) -> None:
    """Put a reading down as energy, and move the ledger's own account on."""
    if happened.gain == "misread":
        return
    ledger_kj = vapour_kj(before.contents, after.contents)
    if happened.gain == "added":
        # How much was added is known from this reading only: it says nothing of the rate.
        found.warm_kj += _warming(before, after)
        return
    mass_g = implied_mass_g(before, happened.measured)
    now = before.contents
    if mass_g < now.mass_g:
        try:
            gone = vapour_kj(now, boiled_to_mass(now, mass_g))
        except SpissusError:
            return
    else:
        gone = (now.mass_g - mass_g) * WATER_KJ_G
    minute = (at - found.began).total_seconds() / 60.0
    error_ml = after.error_ml
    found.points.append(
        Point(
            at, minute, float(_effective(found.steps, np.array([minute]))[0]), found.spent_kj + found.warm_kj + gone,
            error_ml * now.density_g_ml * WATER_KJ_G, after.contents.liquid_ml, error_ml,
        )
    )  # fmt: skip
    found.spent_kj += max(ledger_kj, 0.0)


def vapour_kj(before: Contents, after: Contents) -> float:
    """Heat that took ``before`` to ``after`` by boiling, kJ."""
    return (before.water - after.water) * WATER_KJ_G + (before.ethanol - after.ethanol) * ETHANOL_KJ_G


def _thinned(points: Sequence[Point]) -> tuple[Point, ...]:
    if len(points) <= MOST_POINTS:
        return tuple(points)
    keep = np.unique(np.linspace(0, len(points) - 1, MOST_POINTS).round().astype(int))
    return tuple(points[i] for i in keep)


# -- the way down -----------------------------------------------------------------------------------


class Path:
    """What is left of a pot as heat goes into its vapour: energy, kJ, against mass and volume."""

    def __init__(self, contents: Contents, steps: int = 28) -> None:
        shares = np.linspace(1.0, 0.03, steps)
        water = contents.water * shares
        ethanol = np.full(steps, contents.ethanol)
        if contents.ethanol > TRACE_G:
            for i in range(1, steps):
                ethanol[i] = ethanol_left(ethanol[i - 1], water[i - 1], water[i], steps=12)
        lost_w, lost_e = contents.water - water, contents.ethanol - ethanol
        self.energy = lost_w * WATER_KJ_G + lost_e * ETHANOL_KJ_G
        self.mass = contents.mass_g - lost_w - lost_e
        per = SPECIFIC_VOLUME_ML_G
        self.liquid = contents.liquid_ml - lost_w * per["water"] - lost_e * per["ethanol"]

    def liquid_ml(self, energy_kj: float) -> float:
        """Liquid left after so much heat, mL; more than there is where the heat is negative."""
        if energy_kj < 0.0:
            return float(self.liquid[0] - energy_kj / WATER_KJ_G * SPECIFIC_VOLUME_ML_G["water"])
        return float(np.interp(energy_kj, self.energy, self.liquid))

    def mass_g(self, energy_kj: float) -> float:
        """Mass left after so much heat, g."""
        if energy_kj < 0.0:
            return float(self.mass[0] - energy_kj / WATER_KJ_G)
        return float(np.interp(energy_kj, self.energy, self.mass))

    def energy_to(self, liquid_ml: float) -> float:
        """Heat that brings the liquid down to ``liquid_ml`` mL, kJ."""
        if liquid_ml > self.liquid[0]:
            return float((self.liquid[0] - liquid_ml) / SPECIFIC_VOLUME_ML_G["water"] * WATER_KJ_G)
        return float(np.interp(-liquid_ml, -self.liquid, self.energy))


class Fit:
    """What the readings of a window say: the rate, where the pot is now, and when it will be there."""

    def __init__(self, window: Window) -> None:
        self.window = window
        self._powers = window.power.kj_min * np.exp(_GRID * window.power.spread)
        self.outliers: tuple[Point, ...] = ()
        points = list(window.points)
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
        if len(points) < 4 or len(self.window.points) - len(points) >= 3:
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
        low, best, high = (float(np.interp(q, cumulative, self._powers)) for q in (0.1, 0.5, 0.9))
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
        u = _effective(self.window.steps, minutes)
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
        levels = low[:, None] + (high - low)[:, None] * np.linspace(0.0, 1.0, 40)
        below = ndtr((levels[:, :, None] - mean[:, None, :]) / sd[:, None, None]) @ self._weights
        return [
            Estimate(*(float(np.interp(q, chance, level)) for q in (0.1, 0.5, 0.9)))
            for chance, level in zip(below, levels, strict=True)
        ]

    def arrival(self, energy_kj: float) -> Estimate | None:
        """Minutes since the window began at which so much will have been spent; None while the heat is off."""
        if not self.window.heating:
            return None
        minutes = self._ahead(energy_kj)
        chance = np.maximum.accumulate(self.chance_past(energy_kj, minutes))
        low, best, high = (float(np.interp(q, chance, minutes)) for q in (0.1, 0.5, 0.9))
        return Estimate(low, best, high)

    def _ahead(self, energy_kj: float) -> NDArray[np.float64]:
        """Minutes worth asking about on the way to an energy, close together at first."""
        last = self.window.minute(self.window.last)
        rate = self.kj_min.low * self.window.steps[-1][1]
        longest = max((energy_kj - self.window.spent_kj) / rate * 1.5, 5.0)
        return last + longest * np.linspace(0.0, 1.0, 90) ** 1.5

    def next_look(self, target_kj: float, over_kj: float, share_kj: float) -> float:
        """Minutes from the last look until the next.

        The latest moment at which the chance of having gone more than ``over_kj`` past ``target_kj`` is
        below :data:`LOOK_CHANCE`, at least a minute and ``share_kj`` away, at most ten minutes.
        """
        minutes = self._ahead(target_kj + over_kj)
        chance = np.maximum.accumulate(self.chance_past(target_kj + over_kj, minutes))
        last = self.window.minute(self.window.last)
        latest = float(np.interp(LOOK_CHANCE, chance, minutes)) - last if chance[-1] > LOOK_CHANCE else np.inf
        rate = self.kj_min.best * self.window.steps[-1][1]
        least = max(LEAST_LOOK_MIN, share_kj / rate)
        return float(min(max(latest, least), LONGEST_LOOK_MIN))


def _drift(u: NDArray[np.float64], v: NDArray[np.float64]) -> NDArray[np.float64]:
    """Covariance of what a drifting rate has added up to, per drift and power squared: integrated Brownian motion."""
    less, more = np.minimum(u[:, None], v[None, :]), np.maximum(u[:, None], v[None, :])
    return np.asarray(less**2 * (3.0 * more - less) / 6.0)


# -- what it comes to -----------------------------------------------------------------------------


@dataclass(frozen=True, slots=True)
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
    """A window with its fit and the way down from the ledger: what may be asked of a boiling pot."""

    def __init__(self, window: Window) -> None:
        self.window = window
        self.fit = Fit(window)
        self.path = Path(window.contents)

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
        arrival = self.fit.arrival(target)
        assert arrival is not None
        look = w.minute(w.last) + self.fit.next_look(target, over, share)
        expected = path.liquid_ml(self.fit.spent([look])[0].best - w.spent_kj)

        def at(minute: float) -> datetime:
            return w.began + timedelta(minutes=minute)

        return Outlook(
            (at(arrival.low), at(arrival.best), at(arrival.high)), at(look), max(expected, stop_ml),
            self.fit.steam_g_min, len(self.fit.points), len(self.fit.outliers),
        )  # fmt: skip


def progress(timeline: Timeline) -> Progress | None:
    """What is known of the heating that is under way; None where nothing heats."""
    window = window_of(timeline)
    return None if window is None else Progress(window)


#: Fewer readings than this teach nothing that the next batch could use.
LEAST_TO_TEACH = 2


def taught_rate(timeline: Timeline) -> LearnedRate | None:
    """What a batch taught of its pan on its burner at the full setting, or None: too few readings, or two pans."""
    window = window_of(timeline)
    pot = timeline.pot
    if window is None or pot is None or pot.beside is not None or window.setting.heat == "off":
        return None
    fit = Fit(window)
    if len(fit.points) < LEAST_TO_TEACH:
        return None
    factor = COVERS[window.setting.cover].best * (window.setting.share if window.setting.heat == "boil" else 1.0)
    kw = fit.kj_min.best / 60.0 / factor
    return LearnedRate(
        heat=window.setting.heat, net_kw=min(max(kw, 0.01), 40.0), spread=min(fit.spread, 1.0), batches=1
    )
