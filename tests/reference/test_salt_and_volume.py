"""Volume and salt are learned together: against NumPy's joint Gaussian, and on a pot of physics of its own."""

from __future__ import annotations

import math
from datetime import timedelta

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import EVENING, event, fold, in_words, potted, read, started, told, wanted
from numpy.typing import NDArray
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.estimation.track import DRIFT_PER_MIN, Track
from spissus_core.events.looking import SaltError
from spissus_core.phenomena.seasoning import RAW, USUAL_SALT_PERCENT, meter_error
from study.obedient import TruePot

KJ_MIN = 60.0

#: What is shown, of which the first grows with the steam, the second with the salt, and the third falls between.
SHOWS = {"weight": (1.0, 0.0), "salt alone": (0.0, 1.0), "meter": (0.004, 1.0)}


def _gaussian(
    minutes: NDArray[np.float64],
    shown: list[tuple[float, float]],
    readings: NDArray[np.float64],
    start: tuple[float, float, float],
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Mean and covariance of the heat by the last minute and of the salt, all readings at once: the covariance of
    integrated Brownian motion, a start that was measured wrong, and a salt that goes with it in part."""
    values, errors = readings
    start_kj, salt_g, slope = start
    times = np.append(minutes, minutes[-1])
    less, more = np.minimum.outer(times, times), np.maximum.outer(times, times)
    q = KJ_MIN**2 * DRIFT_PER_MIN
    heat = start_kj**2 + q * less**2 * (3.0 * more - less) / 6.0
    n = len(times)
    prior = np.zeros((n + 1, n + 1))
    prior[:n, :n] = heat
    prior[n, n] = salt_g**2 + slope**2 * start_kj**2
    prior[n, :n] = prior[:n, n] = slope * start_kj**2
    mean = np.append(KJ_MIN * times, 0.0)
    h = np.zeros((len(values), n + 1))
    for row, (per_kj, per_g) in enumerate(shown):
        h[row, row], h[row, n] = per_kj, per_g
    gain = prior @ h.T @ np.linalg.inv(h @ prior @ h.T + np.diag(errors**2))
    after = prior - gain @ h @ prior
    return (mean + gain @ (values - h @ mean))[n - 1 :], after[n - 1 :, n - 1 :]


@pytest.mark.parametrize("kinds", [("weight", "meter", "weight"), ("meter", "meter", "meter"), ("meter", "salt alone")])
@pytest.mark.parametrize("slope", [0.0, -0.0027])
def test_against_numpys_joint_gaussian(kinds: tuple[str, ...], slope: float) -> None:
    rng = np.random.default_rng(3)
    minutes = np.array([4.0, 7.0, 13.0])[: len(kinds)]
    errors = np.array([{"weight": 60.0, "salt alone": 0.5, "meter": 0.7}[kind] for kind in kinds])
    shown = [SHOWS[kind] for kind in kinds]
    start_kj, salt_g = 80.0, 2.0
    truth = np.array([per_kj * 52.0 * t + per_g * 1.5 for t, (per_kj, per_g) in zip(minutes, shown, strict=True)])
    values = truth + rng.normal(0.0, errors)
    # A power that is as good as known: then all of it is one Gaussian.
    track = Track.begun(KJ_MIN, 1e-6, start_kj, salt_error_g=salt_g, salt_g_kj=slope)
    before = 0.0
    for minute, (per_kj, per_g), value, error in zip(minutes, shown, values, errors, strict=True):
        track = track.moved(minute - before).but(typical=KJ_MIN)
        expected = per_kj * track.energy_kj + per_g * track.salt_g
        track, before = track.learned(value - expected, per_kj, per_g, error), minute
    mean, covariance = _gaussian(minutes, shown, np.array([values, errors]), (start_kj, salt_g, slope))
    assert [track.energy_kj, track.salt_g] == pytest.approx(mean, rel=1e-4, abs=1e-4)
    assert [track.cee, track.ces, track.css] == pytest.approx(covariance[np.triu_indices(2)], rel=1e-4, abs=1e-6)
    assert track.salt_error_g**2 + (track.salt_g_kj * track.error_kj) ** 2 == pytest.approx(covariance[1, 1], rel=1e-4)


def test_a_meter_at_nine_tenths_in_a_pot_that_began_at_half_a_per_cent() -> None:
    """The trade's own example: 44 % of the weight is gone, ± 6."""
    start = started("1.5 l", salt={"by": "meter", "percent": 0.5})
    jus = (wanted(400), ev.Chosen(route="all-salt-alone"))
    events = [event(i, one, minute=0) for i, one in enumerate((start, *jus, ev.Heated(heat="boil")))]
    begun = fold(events).pot
    after = fold([*events, event(9, ev.Metered(percent=0.9), minute=25)]).pot
    assert begun is not None
    assert after is not None
    gone = 1.0 - after.contents.liquid_g / begun.contents.liquid_g
    assert gone == pytest.approx(0.44, abs=0.06)
    assert after.salt_percent.best == pytest.approx(0.9, abs=0.04)
    assert after.contents.salt == pytest.approx(begun.contents.salt, rel=0.1)
    # And how much there is, is known as well as meter and start allow: some 8 % each.
    assert 0.04 < after.error_ml / after.contents.liquid_ml < 0.12


@settings(max_examples=40, deadline=None)
@given(
    st.floats(0.3, 1.2),
    st.floats(2.0, 40.0),
    st.floats(0.2, 3.0),
    st.sampled_from(["jug", "list"]),
    st.lists(st.tuples(st.sampled_from(["metered", "tasted", "jug"]), st.floats(-2.0, 2.0)), min_size=1, max_size=4),
)
def test_nobody_salts_a_pot_by_looking(
    percent: float, minutes: float, rate: float, known: str, looks: list[tuple[str, float]]
) -> None:
    """However it is looked at, the mass of salt moves by no more than it was unknown by."""
    salt = {"by": "meter", "percent": percent} if known == "jug" else {"by": "taste", "verdict": "nearly"}
    start = started("1.5 l", salt=salt)
    events = [event(i, one, minute=0) for i, one in enumerate((start, ev.Heated(heat="boil")))]
    begun = fold(events).pot
    assert begun is not None
    unknown = 3.0 * math.hypot(begun.salt_error_g, begun.salt_g_g * begun.error_g)
    for i, (how, off) in enumerate(looks, 1):
        left = 1.0 - rate * 27.0 * minutes * i / len(looks) / 1500.0
        if left < 0.3:
            break
        if how == "metered":
            shown = percent / left
            look: ev.Kind = ev.Metered(percent=max(shown + off * meter_error(shown), 0.0))
        elif how == "tasted":
            # What an honest tongue says of so much, out of the boil.
            felt = percent / left - USUAL_SALT_PERCENT + off * RAW.error
            look = ev.Tested(of="salt", verdict=min(RAW.stands, key=lambda word: abs(RAW.stands[word] - felt)))  # type: ignore[arg-type]
        else:
            look = read("jug", 1500.0 * left * (1.0 + 0.025 * off))
        after = fold([*events, event(10 + i, look, minute=minutes * i)])
        problem = after.moments[-1].problem
        assert problem is None or isinstance(problem, SaltError | ev.GainError)
        if problem is None:
            events.append(event(10 + i, look, minute=minutes * i))
        pot = after.pot
        assert pot is not None
        assert abs(pot.contents.salt - begun.contents.salt) <= unknown


def _stops_at(power: float, seed: int) -> float:
    """Salt, %, in a pot of its own physics that was only metered, where the app said to stop; 0.9 is wanted."""
    rng = np.random.default_rng(seed)
    pot = TruePot(
        water=1420.0,
        salt=7.5,
        gelatin=25.0,
        pulp=2.0,
        other=50.0,
        alcohol=0.0,
        fat=0.0,
        kw=power,
        thickener=1.0,
        pulp_factor=1.0,
        pending_kj=25.0,
    )

    def meter() -> float:
        return max(pot.salt_percent + rng.normal(0.0, meter_error(pot.salt_percent)), 0.05)

    jugged = pot.ml * 1.038 * (1.0 + rng.normal(0.0, 0.025))
    start = started(f"{jugged:.0f} ml", salt={"by": "meter", "percent": meter()})
    wish = ev.Wanted(volume_ml=600, body=3, salt_percent=0.9)
    log = [event(i, one, minute=i / 10) for i, one in enumerate((start, wish, ev.Chosen(route="all-salt-alone")), 1)]
    now, minutes = EVENING + timedelta(minutes=1), 1.0
    log.append(event(len(log) + 1, ev.Heated(heat="boil"), minute=minutes))
    for _ in range(30):
        act = Board(log, now).act
        if act.kind != "boil" or act.look_at is None:
            break
        passed = max((act.look_at - now).total_seconds() / 60.0, 0.5)
        pot.boil(passed)
        minutes, now = minutes + passed, now + timedelta(minutes=passed)
        shown = ev.Metered(percent=meter())
        one = event(len(log) + 1, shown, minute=minutes)
        if Board([*log, one], now).timeline.moments[-1].problem is not None:
            # What cannot be is asked about: nobody salted it.
            one = event(len(log) + 1, shown.model_copy(update={"because": "boiled"}), minute=minutes)
        log.append(one)
    return pot.salt_percent


def test_a_meter_alone_brings_a_pot_that_was_never_timed_to_the_salt_of_its_mark() -> None:
    rng = np.random.default_rng(11)
    powers = np.exp(rng.uniform(math.log(0.5), math.log(2.0), 40))
    off = np.array([_stops_at(float(power), seed) - 0.9 for seed, power in enumerate(powers)])
    assert np.mean(np.abs(off) <= 0.1) >= 0.9, np.sort(off)


def test_what_cannot_be_both_is_asked() -> None:
    """Ten minutes on the heat, and three times as salty: salted, boiled down, or misread."""
    begun = potted(started())
    for because, salt, left in (("salted", 3.0, 0.85), ("boiled", 1.0, 0.34), ("misread", 1.0, 0.85)):
        said = ev.Metered(percent=1.8, because=because)  # type: ignore[arg-type]
        one = fold(
            [event(1, started(), minute=0), event(2, ev.Heated(heat="boil"), minute=0), event(3, said, minute=10)]
        )
        assert one.pot is not None
        assert one.pot.contents.salt / begun.contents.salt == pytest.approx(salt, rel=0.2), because
        assert one.pot.contents.liquid_g / begun.contents.liquid_g == pytest.approx(left, rel=0.15), because
    asked = told(started(), ev.Metered(percent=1.8)).moments[-1].problem
    assert isinstance(asked, SaltError)
    # By the salt there is, a third of it would be left.
    assert asked.left_ml == pytest.approx(begun.contents.liquid_ml / 3.0, rel=0.01)


def test_a_meter_changes_no_unit() -> None:
    """Strained into a jug, told in millimetres, metered: the mark is still told in millimetres."""
    start = started("2 l", salt={"by": "meter", "percent": 0.5})
    begun = [start, wanted(720), ev.Chosen(route="all-volume-corn_starch_own"), ev.Heated(heat="boil")]
    events = [event(i, one, minute=i) for i, one in enumerate(begun, 1)]
    before = Board(events, EVENING + timedelta(minutes=10)).act
    after = Board([*events, event(9, ev.Metered(percent=0.6), minute=12)], EVENING + timedelta(minutes=12)).act
    assert (before.kind, after.kind) == ("boil", "boil")
    assert (before.reads_by, after.reads_by) == ("dip", "dip")


@pytest.mark.parametrize("version", [1, 2])
def test_a_meter_that_was_believed_before_it_could_be_asked_about_is_believed(version: int) -> None:
    """No batch of before changes: what contradicted its ledger then is no question now."""
    before = ev.recorded({"kind": "metered", "percent": 1.8}, version)
    assert isinstance(before, ev.Metered)
    timeline = told(started(), before)
    assert timeline.moments[-1].problem is None
    assert timeline.pot is not None
    assert timeline.pot.salt_percent.best == pytest.approx(1.8, rel=0.01)
    # What is recorded from now on is asked.
    assert isinstance(told(started(), ev.recorded({"kind": "metered", "percent": 1.8})).moments[-1].problem, SaltError)


def test_unsalted_water_cannot_have_boiled_down_to_a_salt_content() -> None:
    water = started("1.5 l", salt={"by": "meter", "percent": 0.0})
    problem = told(water, ev.Metered(percent=0.9, because="boiled")).moments[-1].problem
    assert problem is not None
    assert "less than the meat" in in_words(problem.message)
