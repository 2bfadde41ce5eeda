"""The salt a kitchen likes, against the posterior that SciPy's densities multiply to."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import started, told
from scipy.stats import norm
from spissus_core import events as ev
from spissus_core.learning.liking import BATCHES_DIFFER, KITCHENS_DIFFER, liked, taught_liking
from spissus_core.phenomena.seasoning import TAUGHT_BY, USUAL_SALT_PERCENT

TASTES = st.lists(st.tuples(st.floats(0.5, 1.5), st.floats(0.02, 0.3)), max_size=8)


@given(taught=TASTES)
def test_a_liking_is_the_posterior_of_its_batches(taught: list[tuple[float, float]]) -> None:
    percent = np.linspace(-1.0, 3.0, 40_001)
    density = norm.logpdf(percent, USUAL_SALT_PERCENT, KITCHENS_DIFFER)
    for found, error in taught:
        density += norm.logpdf(found, percent, np.hypot(error, BATCHES_DIFFER))
    weights = np.exp(density - density.max())
    weights /= weights.sum()
    mean = float(weights @ percent)
    spread = float(np.sqrt(weights @ (percent - mean) ** 2))
    found_liking = liked(taught)
    assert found_liking.percent == pytest.approx(mean, abs=1e-4)
    assert found_liking.error == pytest.approx(spread, abs=1e-4)


def test_it_is_proposed_once_enough_batches_taught_it() -> None:
    salty = (1.2, 0.06)
    assert liked([salty] * (TAUGHT_BY - 1)).proposed_percent == USUAL_SALT_PERCENT
    assert liked([salty] * TAUGHT_BY).proposed_percent == pytest.approx(1.1, abs=0.051)
    assert liked([(0.9, 0.06)] * 9).proposed_percent == USUAL_SALT_PERCENT


def test_what_nobody_eats_teaches_nothing() -> None:
    """A slip that was never mended would else be proposed to every batch that follows."""
    ends = (ev.Tested(of="salt", verdict="right", twice=True), ev.Finished())
    assert taught_liking(told(started("1 l"), *ends)) is not None
    assert taught_liking(told(started("1 l"), ev.Salted(salt_g=900), *ends)) is None
    assert taught_liking(told(started("1 l", salt={"by": "meter", "percent": 0.0}), *ends)) is None
