"""The estimator against ordinary least squares and a smoother, and against a thousand simulated reductions.

The simulation draws rates, drift and errors from the spreads that common practice gives (35 % on a
burner never timed, 10 % drift in ten minutes, and the error of each way to measure), and asks whether
80 % intervals hold what they say and whether the looks come in time.
"""

from __future__ import annotations

from datetime import timedelta
from functools import lru_cache

import numpy as np
import pytest
from CoolProp import CoolProp
from makers import EVENING, braise
from scipy.optimize import curve_fit
from scipy.stats import multivariate_normal
from spissus_core.estimation.forecast import Progress
from spissus_core.estimation.track import DRIFT_PER_MIN, Track
from spissus_core.estimation.window import ETHANOL_KJ_G, WATER_KJ_G, Window, boiled_by, ml_of
from spissus_core.events.assumed import CLOSE_ENOUGH, UNSURE
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.evaporation import COVERS
from spissus_core.phenomena.heating import FULL_BOIL, Burner, HeatSetting, Power, boiling_point_c, power
from spissus_core.practice.simulator import SimulatedPot

STOP_ML = 870.0
PRIOR = Power(60.0, 0.35)
#: Standard errors of one measurement of 1.46 L in a 24 cm pan, g (common practice).
ERRORS_G = {"scale": 4.0, "jug": 36.0, "dip": 68.0}


def window(error_g: float) -> Window:
    track = Track.begun(PRIOR.kj_min, PRIOR.spread, error_g * WATER_KJ_G)
    return Window(began=EVENING, at=EVENING, power=PRIOR, setting=FULL_BOIL, track=track, pending_kj=0.0)


def test_against_weighted_least_squares_with_the_prior_as_a_reading() -> None:
    """SciPy's curve_fit of E = P·t on readings two minutes apart, no drift to speak of, tight readings."""
    rng = np.random.default_rng(5)
    minutes = np.array([2.0, 4.0, 6.0])
    errors = np.full(3, 3.0)
    energy = 52.0 * minutes + rng.normal(0, errors)
    track = Track.begun(PRIOR.kj_min, PRIOR.spread, 0.1)
    for read, error in zip(energy, errors, strict=True):
        track = track.moved(2.0).seen(read, error)
    reference, covariance = curve_fit(lambda t, p: p * t, minutes, energy, sigma=errors, absolute_sigma=True)
    assert track.power_range.best == pytest.approx(reference[0], rel=0.03)
    # The drift that is allowed for makes it the more cautious of the two.
    width = (track.power_range.high - track.power_range.low) / (2 * 1.2816)
    assert width > np.sqrt(covariance[0, 0])
    assert width < 0.08 * reference[0]


def test_the_track_against_a_smoother_over_all_readings_at_once() -> None:
    """SciPy's multivariate normal over all readings together, for each power: integrated Brownian motion and a start
    that was measured wrong give their covariance; the filter that goes from one to the next must come to the same."""
    rng = np.random.default_rng(8)
    minutes, errors, start = np.array([3.0, 4.5, 9.0, 14.0]), np.array([40.0, 15.0, 40.0, 8.0]), 60.0
    energy = 66.0 * minutes + rng.normal(0.0, errors)
    fixed = Track.begun(PRIOR.kj_min, PRIOR.spread, start)
    track, before = fixed, 0.0
    for minute, read, error in zip(minutes, energy, errors, strict=True):
        # The drift is a share of what was typical first, as in the reference.
        track = track.moved(minute - before).seen(read, error).but(typical=PRIOR.kj_min)
        before = minute
    q = PRIOR.kj_min**2 * DRIFT_PER_MIN
    less, more = np.minimum.outer(minutes, minutes), np.maximum.outer(minutes, minutes)
    covariance = start**2 + q * less**2 * (3.0 * more - less) / 6.0 + np.diag(errors**2)
    logs = np.array([multivariate_normal(p * minutes, covariance).logpdf(energy) for p in track.powers])
    prior = fixed.weights
    posterior = prior * np.exp(logs - logs.max())
    posterior /= posterior.sum()
    assert track.weights == pytest.approx(posterior, abs=1e-9)
    # Where the pot is at the last reading, by the same normal: the mean of E given all of them.
    with_end = start**2 + q * minutes**2 * (3.0 * minutes[-1] - minutes) / 6.0
    gain = np.linalg.solve(covariance, with_end)
    mean = float(posterior @ [p * minutes[-1] + gain @ (energy - p * minutes) for p in track.powers])
    assert track.e0 + track.e1 * float(track.weights @ track.powers) == pytest.approx(mean, rel=1e-9)


def test_heat_of_vaporisation_of_ethanol_against_coolprop() -> None:
    heat = CoolProp.PropsSI("H", "T", 351.4, "Q", 1, "Ethanol") - CoolProp.PropsSI("H", "T", 351.4, "Q", 0, "Ethanol")
    assert pytest.approx(heat / 1e6, rel=0.02) == ETHANOL_KJ_G


@pytest.mark.parametrize("altitude", [0.0, 500.0, 1500.0, 3000.0])
def test_boiling_point_by_altitude_against_coolprop(altitude: float) -> None:
    # ICAO standard atmosphere: 101.325, 95.461, 84.556 and 70.109 kPa.
    pressure = {0.0: 101.325, 500.0: 95.461, 1500.0: 84.556, 3000.0: 70.109}[altitude]
    reference = CoolProp.PropsSI("T", "P", pressure * 1000, "Q", 0, "Water") - 273.15
    assert boiling_point_c(altitude) == pytest.approx(reference, abs=0.2)


class _Story:
    """One simulated reduction, looked at when the rule says so."""

    def __init__(self, seed: int, method: str) -> None:
        rng = np.random.default_rng(seed)
        error_g = ERRORS_G[method]
        start, ledger = braise(), braise()
        pot = SimulatedPot.drawn(rng, start, PRIOR.kj_min, PRIOR.spread, error_g)
        now = window(error_g)
        self.intervals: list[tuple[float, float]] = []
        self.overshot: list[bool] = []
        self.arrived: float | None = None
        minute = 0.0
        unsure = ml_of(now.track.error_kj)
        while ledger.liquid_ml - UNSURE * unsure > (1.0 + CLOSE_ENOUGH) * STOP_ML and now.readings < 40:
            outlook = Progress(now, ledger, EVENING + timedelta(minutes=minute)).outlook(STOP_ML)
            assert outlook is not None
            low, _, high = ((at - EVENING).total_seconds() / 60 for at in outlook.arrives)
            self.intervals.append((low, high))
            minute = self._boil(rng, pot, minute, (outlook.look_at - EVENING).total_seconds() / 60)
            self.overshot.append(pot.contents.liquid_ml < 0.97 * STOP_ML)
            now, gone_kj = now.moved(EVENING + timedelta(minutes=minute))
            ledger = boiled_by(ledger, gone_kj)
            less_g = ledger.mass_g - (pot.contents.mass_g + rng.normal(0.0, error_g))
            thought = now.track.energy_kj
            now = now.seen(less_g * WATER_KJ_G, error_g * WATER_KJ_G)
            more_kj = now.track.energy_kj - thought
            ledger = boiled_by(ledger, more_kj)
            unsure = ml_of(now.track.error_kj)
        while self.arrived is None:
            minute = self._boil(rng, pot, minute, minute + 0.5)

    def _boil(self, rng: np.random.Generator, pot: SimulatedPot, minute: float, until: float) -> float:
        while minute < until - 1e-9:
            step = min(0.5, until - minute)
            pot.boil(rng, step, step=0.5)
            minute += step
            if self.arrived is None and pot.contents.liquid_ml <= STOP_ML:
                self.arrived = minute
        return minute


@lru_cache(maxsize=1)
def stories() -> dict[str, list[_Story]]:
    """A thousand reductions in all, a third by each way to measure."""
    return {method: [_Story(seed, method) for seed in range(334)] for method in ERRORS_G}


def test_eighty_per_cent_intervals_hold_three_quarters_to_seventeen_twentieths() -> None:
    held = [
        low <= story.arrived <= high
        for told in stories().values()
        for story in told
        for low, high in story.intervals[:3]
        if story.arrived is not None
    ]
    assert len(held) > 2000
    assert 0.75 <= np.mean(held) <= 0.85


@pytest.mark.parametrize("method", ERRORS_G)
def test_a_look_comes_before_the_pot_has_gone_too_far(method: str) -> None:
    looks = [late for story in stories()[method] for late in story.overshot]
    assert np.mean(looks) <= 0.10


def test_by_the_scale_hardly_one_batch_in_ten_goes_too_far() -> None:
    """Over all looks of a batch, not one. A jug is itself worth 2.5 % and a dip more: there it is one in five."""
    told = stories()
    gone = {method: np.mean([any(story.overshot) for story in told[method]]) for method in told}
    assert gone["scale"] <= 0.10
    assert max(gone.values()) <= 0.25


# -- rules of thumb of the trade (common practice) ------------------------------------------------

HALF_A_BOTTLE_G = 187.0
STRONG = Burner(name="brisk", net_kw=0.7)


def minutes(grams: float, pan: Pan, setting: HeatSetting, burner: Burner = STRONG) -> tuple[float, float]:
    """80 % interval of the time in which so much water leaves."""
    known = power(pan, burner, setting, 40.0)
    assert known is not None
    factor = np.exp(1.2816 * known.spread)
    best = grams / known.steam_g_min
    return best / factor, best * factor


def test_half_a_bottle_of_wine_leaves_half_in_about_ten_minutes_at_a_brisk_boil() -> None:
    low, high = minutes(HALF_A_BOTTLE_G, Pan.round("24 cm pan", 240, 100), FULL_BOIL)
    assert low <= 10 <= high


def test_with_meat_in_the_pan_it_takes_about_twenty() -> None:
    """Meat holds the pot at a simmer: half the power goes past the liquid."""
    low, high = minutes(HALF_A_BOTTLE_G, Pan.round("24 cm pan", 240, 100), HeatSetting(heat="simmer"))
    assert low <= 20 <= high


def test_half_an_hour_uncovered_on_the_stove_is_an_hour_in_a_moderate_oven() -> None:
    pan = Pan.round("26 cm pot", 260, 120)
    stove = power(pan, STRONG, HeatSetting(heat="simmer"), 60.0)
    oven = power(pan, STRONG, HeatSetting(heat="oven", oven_c=170), 60.0)
    assert stove is not None
    assert oven is not None
    ratio = stove.kj_min / oven.kj_min
    spread = np.exp(1.2816 * np.hypot(stove.spread, oven.spread))
    assert ratio / spread <= 2.0 <= ratio * spread


def test_covers_let_out_what_the_trade_says() -> None:
    # Lid 0.05 to 0.1, ajar 0.3, paper 0.4, open 1 (common practice).
    assert 0.05 <= COVERS["tight"].share.best <= 0.1
    assert (COVERS["ajar"].share.best, COVERS["paper"].share.best, COVERS["open"].share.best) == (0.3, 0.4, 1.0)
