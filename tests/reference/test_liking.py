"""The salt a kitchen likes, against the posterior that SciPy's densities multiply to."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import potted, started, told
from scipy.stats import norm
from spissus_core import events as ev
from spissus_core.learning.liking import LIKINGS, liked, posterior, taught_likings
from spissus_core.phenomena.seasoning import TAUGHT_BY, USUAL_SALT_PERCENT
from spissus_core.planning.proposing import body_for

TASTES = st.lists(st.tuples(st.floats(-1.0, 1.5), st.floats(0.02, 0.6)), max_size=8)


@given(taught=TASTES, of=st.sampled_from(sorted(LIKINGS)))
def test_a_liking_is_the_posterior_of_its_batches(taught: list[tuple[float, float]], of: str) -> None:
    row, there = LIKINGS[of], np.linspace(-4.0, 5.0, 40_001)
    density = norm.logpdf(there, row.usual, row.kitchens_differ)
    for found, error in taught:
        density += norm.logpdf(found, there, np.hypot(error, row.batches_differ))
    weights = np.exp(density - density.max())
    weights /= weights.sum()
    mean = float(weights @ there)
    spread = float(np.sqrt(weights @ (there - mean) ** 2))
    assert posterior(of, taught) == pytest.approx((mean, spread), abs=2e-4)


def test_it_is_proposed_once_enough_batches_taught_it() -> None:
    salty = (1.2, 0.06)
    assert liked({"salt": [salty] * (TAUGHT_BY - 1)}).proposed_percent == USUAL_SALT_PERCENT
    assert liked({"salt": [salty] * TAUGHT_BY}).proposed_percent == pytest.approx(1.1, abs=0.051)
    assert liked({"salt": [(0.9, 0.06)] * 9}).proposed_percent == USUAL_SALT_PERCENT
    assert LIKINGS["salt"].usual == USUAL_SALT_PERCENT


def test_a_kitchen_that_has_it_thicker_is_asked_for_thicker_and_one_batch_is_no_habit() -> None:
    thicker = liked({"body": [(1.0, 0.5)] * 5})
    assert thicker.steps == 1
    assert body_for("plate", thicker) == body_for("plate") + 1
    assert liked({"body": [(1.0, 0.5)] * (TAUGHT_BY - 1)}).steps == 0
    assert liked({"body": [(1.0, 0.5), (0.0, 0.5)] * 3}).steps == 0
    assert body_for("glaze", liked({"body": [(3.0, 0.5)] * 9})) == 5


def test_a_kitchen_that_likes_it_sharp_is_not_warned_of_what_it_likes() -> None:
    sharp = liked({"sour": [(0.8, 0.4)] * 6})
    plain, theirs = (
        potted(started("1 l", character="thin").model_copy(update={"liking": one})) for one in (None, sharp)
    )
    assert theirs.sour_times < plain.sour_times == 1.0


def test_what_nobody_eats_teaches_nothing() -> None:
    """A slip that was never mended would else be proposed to every batch that follows."""
    ends = (ev.Tested(of="salt", verdict="right", twice=True), ev.Finished())
    assert "salt" in taught_likings(told(started("1 l"), *ends))
    assert taught_likings(told(started("1 l"), ev.Salted(salt_g=900), *ends)) == {}
    assert taught_likings(told(started("1 l", salt={"by": "meter", "percent": 0.0}), *ends)) == {}
    sour, people = ev.Tested(of="sour", verdict="right"), ev.Wanted(people=4, over="mash", body=4)
    spoons = ev.Tested(of="body", verdict="right", again="right")
    assert set(taught_likings(told(started("1 l"), people, spoons, sour, *ends))) == {"salt", "body", "sour"}
    assert taught_likings(told(started("1 l"), people, spoons, sour, *ends[:1])) == {}
