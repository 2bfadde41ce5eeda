"""A device's readings brought down to what a pot can tell."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spissus_core.estimation.thinning import MOST_KEPT, Thinned, stretch_of, thinned, too_many


def one(seconds: list[float], values: list[float], steady: float = 12.0, stretch: int = 0) -> Thinned | None:
    """A stretch of 15 s."""
    return thinned(stretch, seconds, values, 15.0, steady)


def test_a_stretch_is_its_median() -> None:
    found = one([0, 1, 2, 14, 15, 16, 17], [10, 11, 99, 12, 5, 6, 7], 100.0)
    assert found == Thinned(1.5, 11.5, 4)
    assert one([0, 1, 2, 14, 15, 16, 17], [10, 11, 99, 12, 5, 6, 7], 100.0, 1) == Thinned(16, 6, 3)


def test_what_does_not_stand_still_is_left_out() -> None:
    seconds = [float(s) for s in range(15)]
    assert one(seconds, [1000.0 + (200 if i % 2 else -200) for i in range(15)]) is None
    kept = one(seconds, [1000.0] * 12 + [1400.0] * 3)
    assert kept is not None
    assert kept.value == 1000.0
    assert one(seconds, [1000.0] * 10 + [1400.0] * 5) is None


@given(st.lists(st.tuples(st.floats(0, 29.9), st.floats(0, 5000)), max_size=60), st.randoms())
def test_order_does_not_matter_and_the_median_is_numpys(readings: list[tuple[float, float]], rng: object) -> None:
    mixed = list(readings)
    rng.shuffle(mixed)  # type: ignore[attr-defined]
    found, again = (one([t for t, _ in r], [v for _, v in r], 1e9, 1) for r in (readings, mixed))
    assert found == again
    inside = [v for t, v in readings if stretch_of(t, 15.0) == 1]
    if found is not None:
        assert found.count == len(inside)
        assert found.value == pytest.approx(float(np.median(inside)))


def test_too_few_of_a_quick_device_cannot_tell_and_one_of_a_slow_one_can() -> None:
    # The second stretch has just begun: one reading of a scale that makes fifteen.
    seconds = [float(s) for s in range(16)]
    assert one(seconds, [1000.0] * 15 + [1300.0], stretch=1) is None
    assert one(seconds, [1000.0] * 15 + [1300.0]) is not None
    for stretch, second in ((0, 0.0), (4, 60.0), (8, 120.0)):
        assert one([second], [970.0], stretch=stretch) == Thinned(second, 970.0, 1)


def test_nothing_is_nothing() -> None:
    assert one([], []) is None


def test_a_day_of_stretches_stays_within_bounds_and_is_close_where_it_is_now() -> None:
    kept: list[int] = []
    for stretch in range(28 * 240):
        kept.append(stretch)
        gone = set(too_many(kept))
        kept = [k for k in kept if k not in gone]
        assert len(kept) <= MOST_KEPT
        assert kept[-1] == stretch
    assert len(kept) > MOST_KEPT / 2
    gaps = np.diff(kept)
    assert (gaps[-80:] == 1).all()
    assert (np.diff(gaps) <= 0).mean() > 0.9
