"""The ledger: mixing, boiling, volumes."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import braise, refused
from spissus_core.errors import TargetError
from spissus_core.ledger.contents import MASSES, Contents, from_composition
from spissus_core.phenomena.evaporation import boiled_to_mass, boiled_to_volume, boiled_to_water
from spissus_core.phenomena.fat import skimmed

grams = st.floats(min_value=0.0, max_value=5000.0)
pots = st.builds(
    lambda masses, starch: Contents(**dict(zip(MASSES, masses, strict=True)), starch={"corn": starch}),
    st.lists(grams, min_size=len(MASSES), max_size=len(MASSES)),
    grams,
)


@given(pots, pots)
def test_mixing_conserves_mass_and_volume(one: Contents, other: Contents) -> None:
    both = one + other
    assert both.mass_g == pytest.approx(one.mass_g + other.mass_g)
    assert both.volume_ml == pytest.approx(one.volume_ml + other.volume_ml)
    assert both.starch_g == pytest.approx(one.starch_g + other.starch_g)


@given(pots, st.floats(min_value=0.0, max_value=3.0))
def test_scaling_keeps_every_concentration(contents: Contents, factor: float) -> None:
    scaled = contents.scaled(factor)
    assert scaled.mass_g == pytest.approx(contents.mass_g * factor)
    if scaled.liquid_g > 1.0:
        assert scaled.salt_percent == pytest.approx(contents.salt_percent)


@given(st.floats(min_value=0.15, max_value=0.999), st.floats(min_value=0.15, max_value=0.999))
def test_more_reduction_never_lowers_salt(one: float, other: float) -> None:
    pot = braise()
    less, more = sorted((one, other), reverse=True)
    assert (
        boiled_to_volume(pot, pot.liquid_ml * more).salt_percent
        >= boiled_to_volume(pot, pot.liquid_ml * less).salt_percent
    )


@given(st.floats(min_value=0.12, max_value=1.0), st.floats(min_value=0.0, max_value=120.0))
def test_boiling_to_a_volume_gets_there_and_takes_water_and_alcohol_only(share: float, ethanol: float) -> None:
    pot = braise().with_masses(ethanol=ethanol)
    boiled = boiled_to_volume(pot, pot.liquid_ml * share)
    assert boiled.liquid_ml == pytest.approx(pot.liquid_ml * share, rel=1e-5)
    assert boiled.ethanol <= pot.ethanol
    for name in MASSES:
        if name not in ("water", "ethanol"):
            assert getattr(boiled, name) == getattr(pot, name)


def test_boiling_to_a_mass() -> None:
    pot = braise().with_masses(fat_free=20.0)
    assert boiled_to_mass(pot, 900.0).mass_g == pytest.approx(900.0)


def test_boiling_cannot_add_or_dry_out() -> None:
    with refused(TargetError, "more than is in the pot"):
        boiled_to_volume(braise(), 2000)
    with refused(TargetError, "all the water has gone"):
        boiled_to_volume(braise(), 20)


def test_alcohol_goes_before_water() -> None:
    pot = braise().with_masses(ethanol=60.0)
    half = boiled_to_water(pot, pot.water / 2)
    assert half.ethanol < 0.02 * pot.ethanol


def test_a_composition_fills_up_with_water() -> None:
    liquid = from_composition(1000.0, {"salt": 0.9, "gelatin": 2.0})
    assert liquid.liquid_ml == pytest.approx(1000.0)
    assert liquid.salt_percent == pytest.approx(0.9)


def test_impossible_masses_are_refused() -> None:
    with refused(ValueError, "cannot be negative"):
        Contents(water=-1.0)
    with refused(ValueError, "do not fit"):
        from_composition(100.0, {"salt": 101.0})


@given(st.floats(min_value=0.0, max_value=500.0), st.floats(min_value=0.0, max_value=50.0))
def test_skimming_takes_no_more_fat_than_floats(fat_ml: float, liquid_ml: float) -> None:
    pot = braise().with_masses(fat_free=90.0)
    after = skimmed(pot, fat_ml, liquid_ml)
    assert 0.0 <= after.fat_free <= 90.0
    assert after.liquid_ml == pytest.approx(pot.liquid_ml - liquid_ml)
    assert after.salt_percent == pytest.approx(pot.salt_percent)
