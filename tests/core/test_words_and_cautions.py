"""What the core says beside its figures, and small things that have no room of their own."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import braise, event, fold, in_words, listed, log, pot, refused, started, told, wanted
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.quantities import parse_mass_or_volume, show_minutes, show_span, show_temperature
from spissus_core.errors import QuantityError
from spissus_core.events import fat_to_skim
from spissus_core.messages import Message
from spissus_core.pantry.ingredients import catalogue, ingredient
from spissus_core.phenomena.body import body_of
from spissus_core.phenomena.evaporation import boiled_to_volume, minutes_to_boil_away, minutes_to_heat
from spissus_core.planning.explanation import body_reason
from spissus_core.planning.proposing import suggested
from spissus_core.planning.safety import (
    alcohol_cautions,
    allergen_cautions,
    boiling_cautions,
    intake_cautions,
)


def test_an_estimate_is_ordered() -> None:
    with refused(ValueError, "not ordered"):
        Estimate(2, 1, 3)


@given(st.floats(min_value=0.1, max_value=100), st.floats(min_value=0.01, max_value=1))
def test_a_log_normal_interval_lies_evenly_about_its_median(best: float, spread: float) -> None:
    estimate = Estimate.log_normal(best, spread)
    assert estimate.low * estimate.high == pytest.approx(best**2)
    assert estimate.divided_into(1.0).low == pytest.approx(1 / estimate.high)
    assert estimate.scaled(2.0).best == pytest.approx(2 * best)


def test_times() -> None:
    assert minutes_to_boil_away(0.0, 1.0).best == 0.0
    assert minutes_to_boil_away(-5.0, 1.0).best == 0.0
    # 1.2 kg by 60 K at 4.0 kJ/(kg K) is 288 kJ: 4.8 min at 1 kW.
    assert minutes_to_heat(1200, 20, 80, 1.0).best == pytest.approx(4.8)
    assert minutes_to_heat(1200, 80, 20, 1.0).best == 0.0


def test_more_printing() -> None:
    assert show_minutes(12.4).metric == "12\u00a0min"
    assert show_minutes(125).metric == "2\u00a0h 05\u00a0min"
    assert show_span(5, 10) == "5–10\u00a0min"
    assert show_span(360, 720) == "6–12\u00a0h"
    assert show_temperature(57).us == "135\u00a0°F"
    assert in_words(show_temperature(57), "both") == "57 °C (135 °F)"
    assert in_words(show_minutes(3), "both") == "3 min"


def test_an_amount_that_may_be_weighed_or_poured() -> None:
    assert parse_mass_or_volume("30 g") == ("mass", 30.0)
    dimension, ml = parse_mass_or_volume("12 fl oz")
    assert dimension == "volume"
    assert ml == pytest.approx(354.9, abs=0.1)
    with refused(QuantityError, "measures a depth"):
        parse_mass_or_volume("3 mm")


def test_an_addition_in_words_is_kept_as_a_number() -> None:
    added = ev.Added(ingredient="butter", amount="2 oz")
    assert added.mass_g == pytest.approx(56.7, abs=0.01)
    assert "amount" not in added.model_dump()
    with refused(ValidationError, "by volume or by weight"):
        ev.Added(ingredient="butter", amount="2 oz", volume_ml=3)


def test_portions_are_whole() -> None:
    wish = ev.Wanted(portions=10, portion_ml=90)
    assert wish.portions_in(900) == 10
    assert wish.portions_in(896) == 10
    assert wish.portions_in(850) == 9
    assert wanted(900).portions_in(900) is None


def test_a_first_wish_is_one_the_pot_can_meet() -> None:
    # Four helpings of 90 mL and one for the pot; of less what there is.
    assert suggested(pot()).amount_ml == pytest.approx(450)
    assert suggested(pot(braise(300.0, salt=1.5))).amount_ml == pytest.approx(300)
    assert suggested(pot(braise(8.0, salt=0, gelatin=0, sugar=0, other=0, acid=0, pulp=0))).amount_ml == 10


def test_a_thick_pot_is_told_to_stir() -> None:
    thin, thick = braise(), boiled_to_volume(braise(), 450)
    assert len(boiling_cautions(body_of(thin))) == 1
    assert "scorch" in in_words(boiling_cautions(body_of(thick))[0])


def test_allergens_come_from_what_was_added() -> None:
    start = started("1.6 l")
    butter = ev.Added(ingredient="butter", amount="30 g")
    assert told(start, ev.Thickened(thickener="white_roux", dry_g=10), butter).all_allergens == ("gluten", "milk")
    assert "brings gluten" in in_words(
        allergen_cautions(told(start, ev.Thickened(thickener="white_roux", dry_g=10)))[0]
    )
    assert told(start, ev.Thickened(thickener="corn_starch", dry_g=10)).all_allergens == ()
    entries = log(start, butter)
    assert fold([*entries, event(3, ev.Struck(event=entries[1].id))]).all_allergens == ()


def test_alcohol_that_was_added_is_mentioned() -> None:
    assert alcohol_cautions(braise()) == ()
    assert "About 20.0 g of alcohol" in in_words(alcohol_cautions(braise().with_masses(ethanol=20.0))[0])


def test_the_reason_of_a_body_adds_up() -> None:
    body = body_of(braise())
    line = in_words(body_reason(body).how)
    assert f"= {body.viscosity:.0f} mPa·s" in line
    total = body.starch_and_pulp + body.gelatin + body.solubles + body.fat
    assert 0.466 * 10**total == pytest.approx(body.viscosity)


def test_a_film_of_fat_is_left_alone() -> None:
    assert not fat_to_skim(pot(braise().with_masses(fat_free=20.0)))
    assert fat_to_skim(pot(braise().with_masses(fat_free=80.0)))


def test_what_ingredients_bring() -> None:
    assert ingredient("lard").portion(10).fat_free == 10
    assert ingredient("cream_heavy").portion(100).fat_emulsified == pytest.approx(36.08)
    assert dict(ingredient("flour").portion(10).starch) == {"wheat": pytest.approx(10.0)}
    assert dict(ingredient("rye_flour").portion(10).starch) == {"meal": pytest.approx(8.0)}
    assert ingredient("red_wine").ethanol == pytest.approx(13 * 0.789 / 0.994, rel=1e-3)
    with refused(QuantityError, "not in the catalogue"):
        ingredient("stardust")
    assert all(key == item.key for key, item in catalogue().items())


def _all(said: tuple[Message, ...]) -> str:
    return " ".join(in_words(one) for one in said)


def test_what_went_in_brings_its_own_cautions() -> None:
    said = _all(intake_cautions(listed("100 ml brandy, set alight\n2 tbsp olive oil for frying\n1 tbsp flour")))
    assert "extractor off, keep a lid at hand, never pour from the bottle" in said
    assert "What is black is bitter" in said
    assert "Flour wants 1 to 4 min of frying" in said
    tomato = _all(intake_cautions(listed("2 tbsp tomato paste\n1 l water")))
    assert "2 to 5 min of frying" in tomato
    assert "bare iron or aluminium" in tomato
    assert intake_cautions(listed("1 l water")) == ()
