"""An hour of readings brought down to what a pot can tell."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spissus_core.thinning import thinned


def test_one_reading_for_each_stretch_the_median() -> None:
    found = thinned([0, 1, 2, 14, 15, 16, 17], [10, 11, 99, 12, 5, 6, 7], 15.0, 100.0)
    assert [(one.second, one.value, one.count) for one in found] == [(1.5, 11.5, 4), (16, 6, 3)]


def test_what_does_not_stand_still_is_left_out() -> None:
    shaken = [1000 + (200 if i % 2 else -200) for i in range(15)]
    assert thinned(list(range(15)), shaken, 15.0, 12.0) == []
    (kept,) = thinned(list(range(15)), [1000.0] * 12 + [1400.0] * 3, 15.0, 12.0)
    assert kept.value == 1000.0


@given(st.lists(st.tuples(st.floats(0, 3600), st.floats(0, 5000)), max_size=60), st.randoms())
def test_order_does_not_matter_and_medians_are_numpys(readings: list[tuple[float, float]], rng: object) -> None:
    mixed = list(readings)
    rng.shuffle(mixed)  # type: ignore[attr-defined]
    one, other = (thinned([t for t, _ in r], [v for _, v in r], 15.0, 1e9) for r in (readings, mixed))
    assert one == other
    for stretch in one:
        inside = [v for t, v in readings if t // 15.0 == stretch.second // 15.0]
        if len(inside) == stretch.count:
            assert stretch.value == pytest.approx(float(np.median(inside)))


def test_too_few_of_a_quick_device_cannot_tell_and_one_of_a_slow_one_can() -> None:
    # The last stretch has just begun: one reading of a scale that makes fifteen.
    readings = [1000.0] * 15 + [1300.0]
    assert [one.value for one in thinned(list(range(16)), readings, 15.0, 12.0)] == [1000.0]
    slow = thinned([0.0, 60.0, 120.0], [1000.0, 970.0, 940.0], 15.0, 12.0)
    assert [one.value for one in slow] == [1000.0, 970.0, 940.0]


def test_nothing_is_nothing() -> None:
    assert thinned([], [], 15.0, 1.0) == []
