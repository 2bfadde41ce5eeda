"""The model of body, on its own."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import braise
from spissus_core.ledger.contents import Contents
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.phenomena import body as bd
from spissus_core.phenomena.body import flour_equivalent_g
from spissus_core.phenomena.evaporation import boiled_to_volume


@given(st.floats(min_value=0.0, max_value=40.0))
def test_the_inverse_of_the_starch_curve(p: float) -> None:
    assert bd.starch_percent(bd.starch_log(p)) == pytest.approx(p, abs=1e-6)


def test_the_pulp_curve_has_no_step_where_its_halves_meet() -> None:
    assert bd.pulp_percent_as_flour(0.58 - 1e-9) == pytest.approx(bd.pulp_percent_as_flour(0.58), rel=2e-3)


@given(st.floats(min_value=0.2, max_value=0.99))
def test_reduction_never_thins(share: float) -> None:
    pot = braise()
    assert bd.body_of(boiled_to_volume(pot, pot.liquid_ml * share)).viscosity >= bd.body_of(pot).viscosity


@given(st.sampled_from(sorted(SCHOOLS)), st.floats(min_value=1.0, max_value=60.0))
def test_more_thickener_is_thicker(kind: str, dry_g: float) -> None:
    pot = braise()
    less, more = SCHOOLS[kind].added(dry_g), SCHOOLS[kind].added(dry_g + 1.0)
    assert bd.body_of(pot + more).viscosity > bd.body_of(pot + less).viscosity


def test_water_is_a_broth_and_the_ladder_has_no_gaps() -> None:
    assert bd.body_of(Contents(water=1000)).viscosity == pytest.approx(0.466)
    for below, above in pairwise(bd.LADDER):
        assert below.high == above.low
        assert bd.step_of(math.nextafter(above.low, 0)).index == below.index
        assert bd.step_of(above.aim) == above


def test_an_empty_pot_has_the_body_of_water() -> None:
    assert bd.body_of(Contents()).step.word == "broth"


def test_extremes_stay_finite() -> None:
    syrup = bd.body_of(Contents(water=1, sugar=99))
    butter = bd.body_of(Contents(water=10, fat_emulsified=90))
    assert math.isfinite(syrup.viscosity)
    assert math.isfinite(butter.viscosity)


def test_corn_starch_has_twice_the_strength_of_flour() -> None:
    assert flour_equivalent_g({"corn": 10.0}) == 2 * flour_equivalent_g({"wheat": 10.0})
