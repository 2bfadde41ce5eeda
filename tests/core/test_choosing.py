"""Another way to thicken: every school on one pot, what is not for it, and what each brings."""

from __future__ import annotations

import pytest
from makers import in_words, pot, potted, refused, started, wanted
from spissus_core import events as ev
from spissus_core.errors import TargetError
from spissus_core.estimation.spoon import height
from spissus_core.messages import Shown
from spissus_core.pantry.ingredients import catalogue
from spissus_core.pantry.schools import OF_ITS_OWN_FAT, SCHOOLS
from spissus_core.pantry.ways import WAYS, ways_with
from spissus_core.phenomena.body import LADDER, body_of
from spissus_core.planning.choosing import (
    TRAITS,
    Circumstances,
    Option,
    chosen_between,
    compared,
    way_like,
)
from spissus_core.planning.proposing import solve_routes

#: Gelatin alone makes nothing of this pot coat a spoon.
NEVER_SO_THICK = {"gelatin_leaves", "gelatin_powder"}

LIKE = "all-taste-corn_starch_own"
FAT_ENOUGH = Circumstances(kept_fat_g=500.0)
LOW_SALT = started("2.4 l", salt={"by": "meter", "percent": 0.12}, character="thin")


def options(wish: ev.Wanted | None = None, of: Circumstances = FAT_ENOUGH, like: str = LIKE) -> dict[str, Option]:
    found = compared(pot(), wish or wanted(900), like, of)
    return {one.school.key: one for one in found}


def said(option: Option) -> str:
    return "" if option.reason is None else in_words(option.reason)


def test_every_school_that_may_be_asked_for_has_a_row_of_each_list_and_its_ways() -> None:
    assert set(TRAITS) <= set(SCHOOLS)
    for key in TRAITS:
        assert f"all-taste-{key}" in WAYS
        assert not SCHOOLS[key].offered or key in {way.school.key for way in ways_with() if way.school}


def test_each_is_dosed_to_the_body_that_is_wanted() -> None:
    for key, option in options().items():
        if option.reason is None:
            assert option.route is not None
            assert option.route.body.viscosity == pytest.approx(LADDER[3].aim, rel=0.02), key


def test_what_is_stronger_takes_less() -> None:
    """By mass: half a spoon of starch for one of flour, and a dark roux a third of a white one (common practice)."""
    dry = {key: one.route.dry_g for key, one in options().items() if one.route is not None}
    assert dry["corn_starch_own"] / dry["white_roux"] == pytest.approx(0.5, rel=0.15)
    assert dry["dark_roux"] > 2.0 * dry["white_roux"]
    order = ["potato_own", "arrowroot_own", "corn_starch_own", "tapioca_own", "rice_own", "instant_flour"]
    assert [dry[key] for key in order] == sorted(dry[key] for key in order)


def test_another_school_leaves_the_salt_alone_unless_it_brings_some() -> None:
    for key, one in options().items():
        assert one.route is not None
        if one.route.parted_ml:
            continue
        brought = one.route.final.salt - one.route.salt_to_add_g - pot().contents.salt
        assert brought == pytest.approx(pot().binding(SCHOOLS[key]).salt_g * one.route.dry_g, abs=0.02), key


@pytest.mark.parametrize(
    ("avoided", "out"),
    [
        (
            "gluten",
            {
                *("white_roux", "blond_roux", "brown_roux", "dark_roux", "own_fat_roux"),
                *("kneaded_butter", "instant_flour", "granules", "roux_gelatin"),
            },
        ),
        ("milk", {"kneaded_butter", "granules"}),
        ("celery", {"granules", "vegetable_puree"}),
        ("meat", {"roux_gelatin", "gelatin_leaves", "gelatin_powder"}),
    ],
)
def test_what_somebody_must_not_have_is_out_with_its_name(avoided: str, out: set[str]) -> None:
    # Salt leaves room for granules here: they are out for what they hold.
    found = compared(potted(LOW_SALT), wanted(700, avoid=(avoided,)), LIKE, FAT_ENOUGH)
    named = {one.school.key for one in found if "brings" in said(one) and avoided in said(one)}
    assert named == {key for key in TRAITS if avoided in SCHOOLS[key].allergens and key not in NEVER_SO_THICK}
    assert out - NEVER_SO_THICK == named


def test_what_does_not_hold_is_out_where_it_waits() -> None:
    found = options(wanted(900, minutes=150))
    assert "does not hold that long" in said(found["potato_own"])
    assert "does not hold that long" in said(found["arrowroot_own"])
    assert found["white_roux"].reason is None
    assert options(wanted(900, minutes=60))["arrowroot_own"].reason is None


def test_milk_and_sourness_put_the_starches_out_that_do_not_bear_them() -> None:
    with_milk = options(of=Circumstances(kept_fat_g=500.0, milk=True))
    assert [key for key, one in with_milk.items() if "slimy" in said(one)] == ["arrowroot_own"]
    contents = pot().contents
    sour = pot(contents.with_masses(acid=0.012 * contents.liquid_g))
    found = {one.school.key: one for one in compared(sour, wanted(900), "all-here-white_roux", FAT_ENOUGH)}
    assert {key for key, one in found.items() if "sour" in said(one)} == {"corn_starch_own", "potato_own"}


@pytest.mark.parametrize(
    ("kept", "reason", "minds"), [(0.0, "No fat of this pot", ""), (12.0, "", "more"), (500.0, "", "")]
)
def test_a_roux_of_its_own_fat_takes_what_was_kept(kept: float, reason: str, minds: str) -> None:
    option = options(of=Circumstances(kept_fat_g=kept))[OF_ITS_OWN_FAT]
    assert reason in said(option)
    assert minds in " ".join(map(in_words, option.minds)) or kept == 0.0
    if kept == 12.0:
        assert option.route is not None
        assert f"{option.route.dry_g - 12.0:.0f}" in in_words(option.minds[0])


def test_granules_are_for_a_pot_with_room_for_their_salt() -> None:
    assert "no room" in said(options()["granules"]) or "salt" in said(options()["granules"])
    # For a thick sauce they bring more salt than is liked by themselves; a light one of unsalted liquid bears them.
    found = compared(potted(LOW_SALT), wanted(1800, body=1), "all-here-white_roux", FAT_ENOUGH)
    granules = next(one for one in found if one.school.key == "granules")
    assert granules.reason is None
    assert "of salt with it" in in_words(granules.minds[0])


def test_a_pot_that_is_thick_already_needs_none_of_them() -> None:
    found = compared(pot(), wanted(900, body=0), "all-here-white_roux", FAT_ENOUGH)
    assert all("thick enough without" in said(one) for one in found if one.route is not None and one.route.feasible)


def test_what_fits_stands_before_what_does_not() -> None:
    found = compared(pot(), wanted(900, avoid=("gluten",)), LIKE, FAT_ENOUGH)
    out = [one.reason is not None for one in found]
    assert out == sorted(out)
    assert found[0].school.key == "corn_starch_own"


def test_a_way_is_like_another_where_its_stop_takes_the_school() -> None:
    assert way_like("part-volume-white_roux", "arrowroot_own") == "part-volume-arrowroot_own"
    # Nothing quick is boiled to a salt; and nothing lasting is made in a hurry.
    assert way_like("all-salt-white_roux", "arrowroot_own") == "all-taste-arrowroot_own"
    with refused(TargetError, "is not offered any more"):
        compared(pot(), wanted(900), "all-day-long", FAT_ENOUGH)


def test_only_what_is_asked_for_comes_besides_what_is_proposed() -> None:
    usual = {route.kind for route in solve_routes(pot(), wanted(900))}
    more = {route.kind for route in solve_routes(pot(), wanted(900), asked=("arrowroot_own",))} - usual
    assert more
    assert all(kind.endswith("arrowroot_own") for kind in more)


@pytest.mark.parametrize(
    ("key", "row"),
    [("arrowroot_own", "arrowroot"), ("rice_own", "rice_flour"), ("potato_own", "potato_flour")],
)
def test_a_spoon_of_it_weighs_what_the_tables_say(key: str, row: str) -> None:
    """USDA SR Legacy: household weights of a cup."""
    assert SCHOOLS[key].tbsp_g == pytest.approx(catalogue()[row].household_g / 16, rel=0.01)


@pytest.mark.parametrize("body", [1, 2, 3])
def test_gelatin_alone_makes_no_hot_sauce_thick_and_says_so(body: int) -> None:
    """53 g in a litre make water three times as thick at 60 °C: it is glue before it is a jus."""
    found = options(wanted(500, body=body))
    for key in NEVER_SO_THICK:
        assert "it is glue" in said(found[key]) or "No amount" in said(found[key])
    pair = found["roux_gelatin"]
    assert pair.reason is None
    assert pair.route is not None
    assert pair.route.final.gelatin > pot().contents.gelatin * pair.route.share_left * 0.3
    assert pair.route.dry_g < options(wanted(500, body=body))["white_roux"].route.dry_g  # type: ignore[union-attr]


def test_gum_past_half_a_gram_in_a_hundred_is_slime() -> None:
    assert "0.5 % of the sauce, and it is slime" in said(options(wanted(900, body=4))["xanthan"])
    jus = options(wanted(900, body=1))["xanthan"]
    assert jus.reason is None


def test_what_is_to_be_frozen_weeps_with_some_starches() -> None:
    found = options(of=Circumstances(kept_fat_g=500.0, frozen=True))
    out = {key for key, one in found.items() if "to be frozen" in said(one)}
    assert out == {"corn_starch_own", "potato_own", "arrowroot_own"}
    assert found["waxy_own"].reason is None
    assert found["tapioca_own"].reason is None


def test_without_a_scale_a_tenth_of_a_gram_is_no_amount() -> None:
    by_spoon = Circumstances(kept_fat_g=500.0, by_spoon=True)
    few = options(wanted(300, body=1), of=by_spoon)
    assert "A scale that shows tenths" in said(few["xanthan"])
    assert few["white_roux"].reason is None
    assert options(wanted(900), of=by_spoon)["xanthan"].reason is None


def test_what_the_kitchen_used_last_stands_after_the_one_in_hand() -> None:
    found = list(options(of=Circumstances(kept_fat_g=500.0, habit="tapioca_own")).values())
    assert [one.school.key for one in found[:2]] == ["corn_starch_own", "tapioca_own"]
    assert "used last" in in_words(found[1].minds[0]) or "with last" in in_words(found[1].minds[0])


def test_what_the_braise_brought_is_shown_first() -> None:
    floured = potted(started("1.6 l"), ev.Thickened(thickener="white_roux", dry_g=25))
    said_first = [in_words(one) for one in chosen_between(floured, wanted(900), LIKE, FAT_ENOUGH).said]
    assert len(said_first) == 1
    assert "is in it already" in said_first[0]
    assert "25 g of flour" in said_first[0]
    c = pot().contents
    assert chosen_between(pot(c.with_masses(pulp=0.0)), wanted(900), LIKE, FAT_ENOUGH).said == ()


def test_what_is_thicker_than_wanted_is_stretched_to_it() -> None:
    thick = potted(started("1.6 l"), ev.Thickened(thickener="white_roux", dry_g=80))
    choice = chosen_between(thick, wanted(1500, body=1), "all-here-white_roux", FAT_ENOUGH)
    assert all(one.reason is not None for one in choice.options)
    [told] = choice.said
    assert "thicker than that already" in in_words(told)
    volume = told.arguments["volume"]
    assert isinstance(volume, Shown)
    watered = thick.contents.with_masses(water=thick.contents.water + volume.value / 1.0018)
    assert height(body_of(watered, thick.strength).viscosity) == pytest.approx(height(LADDER[1].aim), abs=0.05)
