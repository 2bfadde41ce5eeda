"""Cooling against the clock. Limits: FDA Food Code 2022 §3-501.14 (57 to 21 °C in 2 h, to 5 °C in 6 h in all)."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import event, fold, read, started, wanted
from spissus_core import events as ev
from spissus_core.phenomena.cooling import Reading, forecast, judge, time_constant
from spissus_core.planning.acts import next_act


def cooled(constant: float, *minutes: float, start_c: float = 90.0, around_c: float = 4.0) -> list[Reading]:
    """A pot that cools by Newton's law with a time constant in minutes."""
    return [Reading(m, around_c + (start_c - around_c) * math.exp(-m / constant)) for m in minutes]


def test_above_57_the_clock_has_not_started() -> None:
    assert judge([Reading(0, 90)]).verdict == "above"
    assert judge(cooled(60, 0, 10)).verdict == "above"


def test_one_reading_below_says_only_by_when() -> None:
    stands = judge([Reading(0, 50)])
    assert (stands.verdict, stands.limit_c, stands.limit_minute) == ("unknown", 21.0, 120.0)


@given(st.floats(20, 300))
def test_the_time_constant_is_found_again(constant: float) -> None:
    assert time_constant(cooled(constant, 0, 20, 45, 70), 4.0) == pytest.approx(constant, rel=0.02)


def test_the_clock_starts_where_the_curve_passes_57() -> None:
    constant = 60.0
    passes = constant * math.log(86 / 53)
    stands = judge(cooled(constant, 0, 20, 40))
    assert stands.began == pytest.approx(passes, abs=0.5)
    assert stands.limit_minute == pytest.approx(passes + 120, abs=0.5)


def test_arrival_is_foretold_before_the_limit_passes() -> None:
    constant = 100.0
    stands = judge(cooled(constant, 0, 50, 60))
    assert stands.arrives == pytest.approx(constant * math.log(86 / 17), rel=0.02)
    assert stands.verdict == "in_time"
    slow = judge(cooled(200.0, 0, 110, 130))
    assert slow.verdict == "too_slow"
    assert slow.arrives is not None
    assert slow.limit_minute is not None
    assert slow.arrives > slow.limit_minute > 130


def test_the_longest_time_constant_that_still_makes_it() -> None:
    """With surroundings at 4 °C it must be under 91 min (figure of the trade): 5 °C is what decides."""
    good, bad = (judge(cooled(c, *np.linspace(0, 240, 13))) for c in (89.0, 93.0))
    assert good.verdict == "in_time"
    assert bad.verdict == "too_slow"


def test_surroundings_that_are_too_warm_never_do() -> None:
    stands = judge(cooled(30.0, 0, 20, 60, around_c=6.0), surroundings_c=6.0)
    assert (stands.verdict, stands.limit_c) == ("too_slow", 5.0)
    assert stands.arrives == math.inf


def test_missed_and_done() -> None:
    assert judge(cooled(200.0, 0, 90, 260)).verdict == "missed"
    assert judge(cooled(40.0, 0, 30, 60, 100, 220)).verdict == "done"
    # It was cold in the end, but the first limit had passed.
    assert judge([Reading(0, 57), Reading(170, 25), Reading(330, 4)]).verdict == "missed"


def test_the_forecast_goes_on_from_the_last_reading() -> None:
    log = cooled(60.0, 0, 30)
    ahead = forecast(log, 4.0, 240.0)
    assert ahead[0].celsius == pytest.approx(log[-1].celsius)
    assert ahead[-1].celsius == pytest.approx(4 + 86 * math.exp(-240 / 60), rel=0.01)
    assert forecast(log[:1], 4.0, 240.0) == ()


def test_a_batch_that_cools_says_so_until_it_is_heated_or_lifted() -> None:
    start = started(fat_ml="200 ml")
    log = [
        event(1, start, minute=0),
        event(2, wanted(), minute=1),
        event(3, ev.Cooling(celsius="90 °C"), minute=5),
        event(4, ev.Probed(celsius="131 °F"), minute=45),
        event(5, ev.Probed(celsius=30), minute=85),
    ]
    timeline = fold(log)
    assert timeline.cooling is not None
    assert [round(r.celsius) for r in timeline.cooling.readings] == [90, 55, 30]
    assert timeline.pot is not None
    assert not timeline.pot.hot
    act = next_act(timeline)
    assert act.kind == "cool"
    assert act.stands.verdict == "in_time"
    assert act.by is not None
    assert fold([*log, event(6, ev.Skimmed(way="chill"), minute=700)]).cooling is None
    assert fold([*log, event(6, read("jug", "1.55 l"), minute=700)]).cooling is None


def test_a_pot_at_fridge_temperature_is_probed_without_a_log() -> None:
    timeline = fold([event(1, started()), event(2, ev.Probed(celsius=60))])
    assert timeline.cooling is None
