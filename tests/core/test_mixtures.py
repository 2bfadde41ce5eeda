"""Thickeners that a kitchen mixes itself: read from their list, told as a school, and taken on a way."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import pot, wanted
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.amounts.fields import SHELF
from spissus_core.errors import QuantityError
from spissus_core.intake.mixture import HANDLINGS, Mixture, read_mixture
from spissus_core.ledger.contents import MASSES
from spissus_core.pantry.schools import OWN_PLACE, SCHOOLS, School
from spissus_core.pantry.ways import WAYS
from spissus_core.phenomena.body import flour_equivalent_g
from spissus_core.planning.choosing import Circumstances, compared, most_percent, traits_of
from spissus_core.planning.solving import solve_route

ROUX = "500 g flour\n500 g butter"


def mixed(text: str, goes_in: str = "slurry", name: str = "house thickener") -> Mixture:
    return read_mixture(name, text, goes_in)


def school(text: str, goes_in: str = "slurry") -> School:
    return mixed(text, goes_in).school("own-1")


def test_a_roux_that_stands_ready_binds_as_much_as_the_flour_in_it() -> None:
    paste, fresh = school(ROUX, "roux"), SCHOOLS["white_roux"]
    one, other = paste.added(60.0), fresh.added(30.0)
    assert one.starch == pytest.approx(dict(other.starch))
    assert one.fat_emulsified == pytest.approx(0.811 * 30.0, rel=0.01)
    assert paste.sort == "lasting"
    assert paste.boil_min == 10


def test_a_mixture_of_two_starches_does_the_work_of_both() -> None:
    both = school("60 g potato starch\n40 g rice flour")
    assert both.term == "potato"
    assert flour_equivalent_g(both.added(100.0).starch) == pytest.approx(60 * 2.3 + 40 * 1.2)
    assert both.like == "potato_own"
    assert both.is_slurry


@pytest.mark.parametrize("times", [0.7, 1.3])
def test_what_a_kitchen_learned_of_it_holds_for_all_that_binds_in_it(times: float) -> None:
    both = school("60 g potato starch\n40 g rice flour")
    stronger = both.binding(times)
    assert flour_equivalent_g(stronger.added(1.0).starch) == pytest.approx(
        times * flour_equivalent_g(both.added(1.0).starch)
    )
    assert stronger.row_strength == both.strength


def test_its_salt_and_what_somebody_may_not_have_come_along() -> None:
    salted = school("450 g flour\n450 g butter\n40 g salt\n60 g lard", "roux")
    assert salted.salt_g == pytest.approx(0.0395, abs=0.001)
    assert salted.allergens == ("gluten", "meat", "milk")
    assert "gluten" not in school("100 g corn starch").allergens


def test_a_gram_of_it_weighs_a_gram() -> None:
    for text, goes_in in ((ROUX, "kneaded"), ("80 g corn starch\n4 g xanthan\n16 g salt", "slurry")):
        told = school(text, goes_in)
        assert told.added(1.0).mass_g == pytest.approx(1.0, abs=1e-6)


@given(
    st.dictionaries(
        st.sampled_from(["flour", "corn starch", "arrowroot", "butter", "salt", "xanthan", "gelatin powder", "sugar"]),
        st.integers(min_value=1, max_value=900),
        min_size=1,
    ),
    st.sampled_from(sorted(HANDLINGS)),
)
def test_whatever_is_in_it_nothing_is_lost(parts: dict[str, int], goes_in: str) -> None:
    text = "\n".join(f"{grams} g {name}" for name, grams in parts.items())
    try:
        told = school(text, goes_in)
    except QuantityError:
        assert not {"flour", "corn starch", "arrowroot", "xanthan", "gelatin powder"} & {
            name for name, grams in parts.items() if grams >= 0.08 * sum(parts.values())
        }
        return
    brought = told.added(sum(parts.values()))
    assert brought.mass_g == pytest.approx(sum(parts.values()), rel=1e-6)
    assert brought.fat_free == 0.0
    assert all(getattr(brought, name) >= 0.0 for name in MASSES)


def test_a_pinch_of_xanthan_teaches_nothing_of_the_starch() -> None:
    assert school("100 g corn starch\n3 g xanthan").is_pair
    assert not school("100 g corn starch").is_pair


def test_it_lasts_no_better_than_its_starches() -> None:
    traits = traits_of(school("60 g rice flour\n40 g potato starch"))
    alone = traits_of(school("60 g rice flour"))
    assert traits is not None
    assert alone is not None
    assert "held" in traits.unfit
    assert "held" not in alone.unfit
    assert most_percent(school("60 g rice flour\n40 g potato starch")) == 100.0


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("", "mixtures.what_is_in_it"),
        ("500 g flour\n200 g wombat fat", "mixtures.doubted"),
        ("500 g flour\n200 g starch", "mixtures.which"),
        ("500 g flour\n30 g milk powder", "mixtures.doubted"),
        ("1,200 g flour", "mixtures.in_line"),
        ("flour\n200 g butter", "mixtures.in_line"),
        ("500 g butter\n20 g salt", "mixtures.nothing_binds"),
        ("1 g flour\n500 g butter", "mixtures.nothing_binds"),
        ("\n".join(["500 g flour"] * 100), "mixtures.too_long"),
    ],
)
def test_what_is_not_understood_is_asked_about_beside_the_list(text: str, said: str) -> None:
    with pytest.raises(QuantityError) as refused:
        mixed(text)
    assert refused.value.message.key == said
    assert refused.value.field == "text"


def test_it_may_not_be_called_as_what_is_known() -> None:
    with pytest.raises(QuantityError) as refused:
        mixed(ROUX, "roux", "White Roux")
    assert refused.value.message.key == "mixtures.name_taken"


def test_what_was_kept_stays_readable_whatever_it_is_called_by_now() -> None:
    told = mixed(ROUX, "roux").model_dump(mode="json") | {"name": "corn starch", "goes_in": "poured"}
    kept = Mixture.model_validate(told, context=dict(SHELF))
    assert kept.school("own-1").strength == mixed(ROUX, "roux").school("own-1").strength
    with pytest.raises(ValidationError):
        Mixture.model_validate(told, context=dict(SHELF) | {"brought": True})
    assert all(line["own"] for line in told["lines"])


def test_a_file_may_bring_no_line_without_an_amount() -> None:
    told = mixed(ROUX, "roux").model_dump(mode="json")
    for line in told["lines"]:
        line["mass_g"] = 0.0
    with pytest.raises(ValidationError):
        Mixture.model_validate(told, context=dict(SHELF) | {"brought": True})


def test_as_long_a_name_as_there_may_be() -> None:
    name = "x" * 60
    assert mixed(ROUX, "roux", name).school("own-1").label == name


def test_a_way_is_solved_with_it_and_called_by_its_name() -> None:
    paste = school(ROUX, "roux")
    with_it = solve_route(pot().but(mixture=paste), wanted(450), f"all-taste-{OWN_PLACE}")
    with_roux = solve_route(pot(), wanted(450), "all-taste-white_roux")
    assert with_it.thickener == paste
    assert with_it.dry_g == pytest.approx(2.0 * with_roux.dry_g, rel=0.03)
    assert with_it.body.viscosity == pytest.approx(with_roux.body.viscosity, rel=0.01)
    assert with_it.label.arguments["own"] == "house thickener"  # type: ignore[union-attr]


def test_it_stands_among_the_schools_before_those_that_are_not_the_kitchens() -> None:
    paste = school(ROUX, "roux")
    options = compared(pot(), wanted(450), "all-taste-corn_starch_own", Circumstances(own=(paste,)))
    fit = [one.school.key for one in options if one.reason is None]
    assert fit[:2] == ["corn_starch_own", "own-1"]
    assert next(one for one in options if one.school.key == "own-1").route.kind == "all-taste-own"  # type: ignore[union-attr]


def test_no_more_of_it_than_its_gum_lets_a_sauce_bear() -> None:
    strong = school("60 g rice flour\n40 g xanthan")
    assert most_percent(strong) == pytest.approx(1.25)
    options = compared(pot(), wanted(450, body=4), "all-taste-corn_starch_own", Circumstances(own=(strong,)))
    option = next(one for one in options if one.school.key == "own-1")
    assert option.route is not None
    assert (option.reason is None) == (100.0 * option.route.dry_g <= 1.25 * option.route.final.liquid_g)


def test_a_sweet_one_is_told_to_be_tasted() -> None:
    sweet = school("60 g rice flour\n60 g sugar", "strewn")
    options = compared(pot(), wanted(450), "all-taste-corn_starch_own", Circumstances(own=(sweet,)))
    minds = next(one for one in options if one.school.key == "own-1").minds
    assert "choosing.brings_sugar" in {mind.key for mind in minds}


def test_what_somebody_must_not_have_bars_it() -> None:
    options = compared(
        pot(), wanted(450, avoid=("milk",)), "all-taste-corn_starch_own", Circumstances(own=(school(ROUX, "roux"),))
    )
    assert next(one for one in options if one.school.key == "own-1").reason is not None


def test_a_way_with_it_is_taken_with_it_alone() -> None:
    assert WAYS["all-taste-own"].with_own
    assert ev.Chosen(route="all-taste-own").school is None
    own = {"thickener": "own-1", "school": school(ROUX, "roux")}
    whole = ev.Chosen(route="all-taste-own").model_copy(update=own)
    assert whole.said().arguments["way"].arguments["own"] == "house thickener"  # type: ignore[union-attr]
