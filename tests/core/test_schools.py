"""Schools of thickening: rows, one definition by every door, and one root for the dose."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import PAN, fold, in_words, listed, log, pot, potted, refused, started, told, wanted
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.amounts.tables import rows
from spissus_core.errors import TargetError
from spissus_core.events.base import Form, form_of
from spissus_core.intake.estimated import estimate
from spissus_core.pantry.ingredients import catalogue
from spissus_core.pantry.schools import SCHOOLS, School, school_of
from spissus_core.phenomena.body import LADDER, STARCHES, body_of
from spissus_core.planning.acts import next_act
from spissus_core.planning.explanation import reasons
from spissus_core.planning.plan import plan
from spissus_core.planning.solving import solve

START = started("1.6 l", salt={"by": "stock", "stock": "unsalted"})

#: A row that nobody offers: a gum that brings salt, in a little oil.
SCRATCH = school_of(
    {
        "key": "scratch",
        "label": "scratch gum",
        "dry": "gum",
        "term": "gum",
        "fat_g": "2",
        "salt_g": "0.3",
        "tbsp_g": "9",
    }
)


def test_every_row_has_a_source_and_a_term_of_the_ledger() -> None:
    assert all(row["source"] for name in ("schools", "starches", "stops") for row in rows(name))
    assert all(school.term in (*STARCHES, "gum", "gelatin", "pulp") for school in SCHOOLS.values())
    with refused(ValidationError, "keeps no"):
        School(key="x", label="x", dry="x", term="sawdust", tbsp_g=5)


@pytest.mark.parametrize(("key", "row"), [("white_roux", "flour"), ("corn_starch", "corn_starch")])
def test_a_spoon_weighs_what_the_catalogue_says(key: str, row: str) -> None:
    assert SCHOOLS[key].tbsp_g == pytest.approx(catalogue()[row].household_g / 16)


@pytest.mark.parametrize(("key", "row", "grams"), [("white_roux", "flour", 20.0), ("corn_starch", "corn_starch", 15.0)])
def test_starch_is_the_same_by_every_door(key: str, row: str, grams: float) -> None:
    """By the button, out of the catalogue, and on the list of a braise."""
    by_button = potted(START, ev.Thickened(thickener=key, dry_g=grams)).contents
    by_name = potted(START, ev.Added(ingredient=row, mass_g=grams)).contents
    by_list = estimate(listed(f"1.5 l vegetable broth\n{grams:g} g {catalogue()[row].name.split(',')[0]}"), PAN)
    term = SCHOOLS[key].term
    assert by_button.starch[term] == by_name.starch[term] == by_list.contents.starch[term] == grams
    carrier = SCHOOLS[key].added(grams)
    same = by_name.with_masses(
        water=by_name.water + carrier.water, fat_emulsified=by_name.fat_emulsified + carrier.fat_emulsified
    )
    assert body_of(same).viscosity == pytest.approx(body_of(by_button).viscosity, rel=1e-9)


def test_a_thickener_out_of_the_catalogue_is_a_thickener() -> None:
    way = (START, wanted(1500, body=1), ev.Chosen(route="all-volume-corn_starch_own"))
    bound = told(*way, ev.Added(ingredient="corn_starch", mass_g=15))
    assert bound.binding.in_it
    assert next_act(bound).kind == "test_body"
    assert not told(*way, ev.Added(ingredient="water", mass_g=15)).binding.in_it


@pytest.mark.parametrize(
    "early", [ev.Added(ingredient="flour", mass_g=15), ev.Thickened(thickener="white_roux", dry_g=15)]
)
def test_flour_before_there_is_a_way_boils_down_with_the_rest(early: ev.Kind) -> None:
    way = (wanted(900, body=3), ev.Chosen(route="all-volume-white_roux"))
    batch, without = told(START, early, *way), told(START, *way)
    assert next_act(batch).kind == next_act(without).kind == "boil"
    assert plan(batch).dry_g == pytest.approx(plan(without).dry_g - 15, abs=2)


def test_a_spoon_before_there_is_a_way_does_not_end_the_boiling() -> None:
    thin = ev.Tested(of="body", verdict="low")
    way = (wanted(900, body=3), ev.Chosen(route="all-volume-white_roux"))
    assert next_act(told(START, thin, *way)).kind == "boil"
    assert next_act(told(START, *way, thin)).kind == "boil"


def test_what_roasting_took_of_the_flour_stays_in_the_pot() -> None:
    white, blond = SCHOOLS["white_roux"].added(10.0), SCHOOLS["blond_roux"].added(10.0)
    assert blond.mass_g == pytest.approx(white.mass_g)
    assert blond.starch["wheat"] == pytest.approx(9.0)
    assert blond.other == pytest.approx(1.0)


#: Boiling alone makes no room for the salt that granules bring, and as much purée as there is liquid is not enough:
#: they stay thinner.
NOT_SO_THICK = {("salt", "granules"), ("here", "vegetable_puree")}


@pytest.mark.parametrize("stop", ["volume", "salt", "here"])
@pytest.mark.parametrize("school", [*SCHOOLS.values(), SCRATCH], ids=lambda school: school.key)
def test_any_school_is_dosed_to_the_body_wanted(school: School, stop: str) -> None:
    wish = wanted(900, body=3, ceiling_percent=1.2)
    route = solve(pot(), wish, stop, school)  # type: ignore[arg-type]
    assert route.thickener == pot().binding(school)
    if (stop, school.key) in NOT_SO_THICK or school.term == "gelatin":
        assert body_of(route.final).viscosity < LADDER[3].aim
        return
    bound = route.final.with_masses(salt=route.final.salt - route.salt_to_add_g)
    assert body_of(bound).viscosity == pytest.approx(LADDER[3].aim, rel=0.01)
    if stop == "volume":
        assert bound.liquid_ml == pytest.approx(900, rel=1e-4)
    if stop == "salt":
        assert bound.salt_percent == pytest.approx(0.9, rel=1e-3)


def test_a_scratch_row_with_gum_and_salt_folds_to_what_was_solved() -> None:
    before = potted(START)
    wish = wanted(before.contents.liquid_ml * 0.999, body=2)
    route = solve(before, wish, "here", SCRATCH)
    whisked = ev.Thickened.model_construct(kind="thickened", thickener="scratch", dry_g=route.dry_g, school=SCRATCH)
    after = fold([*log(START), *log(START, whisked)[1:]]).pot
    assert after is not None
    assert after.body.gum > 10.0
    assert after.body.viscosity == pytest.approx(LADDER[2].aim, rel=0.01)
    assert after.contents.salt == pytest.approx(before.contents.salt + 0.3 * route.dry_g, rel=1e-6)
    assert route.salt_before.best == pytest.approx(after.contents.salt_percent, rel=0.01)
    # What is recorded of it is read back though no list knows it.
    again = ev.recorded(whisked.model_dump(mode="json"))
    assert isinstance(again, ev.Thickened)
    assert again.what == SCRATCH


def test_the_arithmetic_of_a_gum_does_not_speak_of_flour() -> None:
    wish = wanted(900, body=3)
    said = {
        in_words(reason.what): in_words(reason.how)
        for reason in reasons(pot(), wish, solve(pot(), wish, "volume", SCRATCH))
    }
    assert "flour" not in said[SCRATCH.label.capitalize()]
    assert "of gum" in said["Body"]


def test_boiling_to_a_body_and_binding_to_it_leaves_nothing_to_solve_for() -> None:
    with refused(TargetError, "nothing to solve"):
        solve(pot(), wanted(900), "body", SCHOOLS["white_roux"])


def test_a_page_sends_ids_and_never_what_the_server_writes() -> None:
    assert issubclass(form_of(ev.Moved), Form)
    assert set(form_of(ev.Moved).model_fields) == {"kind", "pan_id", "burner_id"}
    said = form_of(ev.Thickened)
    assert said.model_validate({"thickener": "corn_starch", "dry_g": 4})
    with refused(ValueError, "school"):
        said.model_validate({"thickener": "corn_starch", "dry_g": 4, "school": SCRATCH.model_dump()})
    assert form_of(ev.Salted) is ev.Salted


@given(
    school=st.sampled_from(sorted(SCHOOLS)),
    grams=st.lists(st.floats(0.01, 300.0), min_size=2, max_size=2, unique=True),
    litres=st.floats(0.2, 4.0),
)
def test_more_of_it_never_thins(school: str, grams: list[float], litres: float) -> None:
    before = pot().contents.scaled(litres)
    less, more = (before + pot().binding(SCHOOLS[school]).added(one) for one in sorted(grams))
    if SCHOOLS[school].term == "gelatin" or SCHOOLS[school].term == "pulp":
        # Water comes with it: against so much water alone it thickens, and that is all it promises.
        watered = less.with_masses(water=less.water + (more.water - less.water))
        assert body_of(more).viscosity >= body_of(watered).viscosity
        return
    assert body_of(more).viscosity >= body_of(less).viscosity * (1.0 - 1e-9) or more.liquid_ml > 2.0 * before.liquid_ml


@pytest.mark.parametrize("school", list(SCHOOLS))
def test_what_was_solved_is_what_the_log_folds_to(school: str) -> None:
    """Any school, whisked in by its button, makes the body and salt that its way said, to 1 %."""
    before = potted(START)
    wish = wanted(before.contents.liquid_ml * 0.999, body=2)
    grams = min(solve(before, wish, "here", SCHOOLS[school]).dry_g, 150.0)
    solved = before.contents + before.binding(SCHOOLS[school]).added(grams)
    after = potted(START, ev.Thickened(thickener=school, dry_g=grams))
    assert after.body.viscosity == pytest.approx(body_of(solved).viscosity, rel=0.01)
    assert after.contents.salt == pytest.approx(solved.salt, rel=0.01)
    assert after.contents.mass_g == pytest.approx(solved.mass_g, rel=0.01)


@pytest.mark.parametrize("first", ["vegetable_puree", "roux_gelatin", "starch_xanthan", "xanthan"])
def test_the_order_of_mixing_changes_no_mass(first: str) -> None:
    one, other = ev.Thickened(thickener=first, dry_g=8), ev.Thickened(thickener="white_roux", dry_g=12)
    assert potted(START, one, other).contents.mass_g == pytest.approx(potted(START, other, one).contents.mass_g)


@pytest.mark.parametrize("school", [key for key, row in SCHOOLS.items() if row.holds or row.term == "gum"])
def test_a_gram_is_a_gram(school: str) -> None:
    """What it holds is no more than it weighs; what it is soaked in, or rubbed into, comes on top."""
    row = SCHOOLS[school]
    soaked_g = row.per_gram.mass_g - row.fat_g - (row.water_g - dict(row.holds).get("water", 0.0))
    assert soaked_g == pytest.approx(1.0, abs=1e-9)


def test_milled_vegetables_are_as_salty_as_their_pot() -> None:
    """Half as salty as its liquid, by the law by which the braise's solids traded their salt."""
    before = potted(started("1.6 l", salt={"by": "meter", "percent": 1.0}))
    school = before.binding(SCHOOLS["vegetable_puree"])
    assert 100.0 * school.salt_g == pytest.approx(0.5 * 100.0 * before.brine * 0.90)
    after = potted(
        started("1.6 l", salt={"by": "meter", "percent": 1.0}), ev.Thickened(thickener="vegetable_puree", dry_g=200)
    )
    assert before.contents.salt < after.contents.salt < before.contents.salt + 1.1
