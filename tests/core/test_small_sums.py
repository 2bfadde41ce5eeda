"""Small sums that nothing else would notice to be wrong, each against figures of its own."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from makers import BURNER, EVENING, PAN, braise, in_words, pot, potted, read, started, told, wanted
from spissus_core import events as ev
from spissus_core.estimation.path import Path
from spissus_core.estimation.track import Track
from spissus_core.estimation.window import Window, power_of, steam_kj, warming_kj
from spissus_core.events.fat import usual_ice_g
from spissus_core.intake.how_much import grams_of
from spissus_core.intake.lines import read_line
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.learning.rates import taught_rate
from spissus_core.ledger.contents import Contents
from spissus_core.measuring.measurement import Measured
from spissus_core.measuring.vessels import SHALLOW_MM, Pan
from spissus_core.phenomena.alcohol import acetic_left
from spissus_core.phenomena.cooling import Reading, time_constant
from spissus_core.phenomena.heating import FULL_BOIL, HeatSetting
from spissus_core.phenomena.seasoning import CONTRADICTS_SD, RAW, SAUCE, tasted
from spissus_core.planning.acts import Mark, next_act
from spissus_core.planning.acts.boiling import Heat
from spissus_core.planning.acts.ending import Finish
from spissus_core.planning.acts.salt import TasteSalt
from spissus_core.planning.pans import compared
from spissus_core.planning.proposing import suggested

METER = {"by": "meter", "percent": 0.6}


def test_a_path_run_backwards_has_more_in_it() -> None:
    now = braise()
    path = Path(now)
    # A kilogram of water takes about 2,257 kJ to boil away.
    assert path.mass_g(-2257.0) == pytest.approx(now.mass_g + 1000.0, rel=0.01)
    assert path.liquid_ml(-2257.0) == pytest.approx(now.liquid_ml + 1002.0, rel=0.01)


def test_what_a_pot_must_warm_is_not_steam() -> None:
    cold = pot().but(hot=False)
    strength = power_of(cold, FULL_BOIL)
    assert strength is not None
    assert steam_kj(cold, 30.0) == pytest.approx(30.0 * strength.kj_min - warming_kj(cold))
    assert steam_kj(cold, 0.5) == 0.0


def test_a_gram_of_gum_takes_the_room_of_other_solids() -> None:
    # Polysaccharides weigh about 1.6 g a millilitre.
    assert Contents(gum=10.0).liquid_ml == pytest.approx(10.0 / 1.6, rel=0.02)


def test_fat_under_a_scale_is_weighed_with_the_rest() -> None:
    straight = Pan.round("straight", 200, 150, empty_g=1000)
    begun = ev.Started(
        pan=straight,
        burner=BURNER,
        liquid=StrainedLiquid.model_validate(
            {"measured": {"method": "scale", "value": 3000.0, "hot": True}, "fat_mm": 10.0, "salt": METER}
        ),
    )
    found = potted(begun).contents
    layer_ml = math.pi * 100.0**2 * 10.0 / 1000.0
    assert found.fat_ml == pytest.approx(layer_ml, rel=0.02)
    assert found.mass_g == pytest.approx(2000.0, abs=1.0)


def test_two_skimmings_are_not_the_last() -> None:
    fatty = [started("2 l", fat_ml="400 ml"), wanted(900), ev.Chosen(route="all-volume-white_roux")]
    once = next_act(told(*fatty, ev.Skimmed(fat_ml=60)))
    assert (once.kind, once.why) == ("skim", "still_fat")
    assert next_act(told(*fatty, ev.Skimmed(fat_ml=60), ev.Skimmed(fat_ml=60))).kind == "skim"


def test_a_salty_pot_is_suggested_for_as_much_as_it_stretches_to() -> None:
    # 300 mL of 1.6 % stretch to more than four helpings; of 0.3 % they stay what they are.
    assert suggested(pot(braise(300.0, salt=5.4))).people == 4
    flat = suggested(pot(braise(300.0, salt=1.0)))
    assert flat.amount_ml == pytest.approx(300.0, abs=10.0)


def test_a_reading_of_a_depth_keeps_its_tenth() -> None:
    assert Measured(method="dip", value="5.3 cm").value == pytest.approx(53.0)
    assert read("dip", "53.4 mm").measured.value == pytest.approx(53.4)  # type: ignore[union-attr]
    assert PAN.depth_mm(PAN.volume_ml(53.4)) == pytest.approx(53.4)


def test_half_a_gram_of_acetic_acid_boils_down_as_five_do() -> None:
    # Vinegar halved keeps three fifths of its acid, however little there is of it (common practice).
    assert acetic_left(0.5, 95.0, 47.5) / 0.5 == pytest.approx(acetic_left(5.0, 95.0, 47.5) / 5.0)


def test_a_cold_pot_needs_no_ice() -> None:
    assert usual_ice_g(pot().but(hot=False)) == 0.0
    assert usual_ice_g(pot()) > 100.0


def test_how_far_a_reading_lies_apart_by_hand() -> None:
    # Heat that has gone in for a thousand minutes is off by a thousand times what the power is off by.
    track = Track(kj_min=1.0, spread=0.1, typical=1.0, e1=1000.0)
    off = 1000.0 * math.sqrt(track.power[1])
    assert track.apart(off, 1.0, 0.0, 0.0) == pytest.approx(1.0)
    assert track.apart(2.0 * off, 1.0, 0.0, 0.0) == pytest.approx(2.0)
    assert track.apart(2.0 * off, 2.0, 0.0, 0.0) == pytest.approx(1.0)


@pytest.mark.parametrize(
    ("line", "grams"),
    [
        ("water and wine, 500 ml each", [500.0, 497.0]),
        ("500 g to 600 g beef shin", [550.0]),
        ("1 l water reduced to 400 ml", [1000.0]),
        ("2 carrots each, about 80 g", [160.0]),
        ("6 carrots less 2", [4 * 80.0]),
        ("500 ml water minus 100 ml", [400.0]),
        ("3 × 2 × 100 ml water", [600.0]),
    ],
)
def test_lines_come_to_what_they_say(line: str, grams: list[float]) -> None:
    found = read_line(line)
    assert all(one.amount and one.ingredient for one in found), found
    assert [grams_of(one.amount, one.ingredient) for one in found if one.amount and one.ingredient] == pytest.approx(
        grams, rel=0.02
    )


def test_a_range_is_as_wide_as_it_is_said() -> None:
    (range_,) = read_line("500 g to 600 g beef shin")
    assert range_.amount is not None
    assert range_.amount.spread == pytest.approx(50.0 / 550.0, rel=0.01)
    assert range_.doubt is None


def test_what_is_alike_is_not_asked_about_and_what_cannot_be_is() -> None:
    (wine,) = read_line("200 ml wine")
    assert wine.doubt is None
    (cup,) = read_line("1 cup flour (120 g)")
    assert (cup.doubt, cup.problem) == (None, None)
    (more,) = read_line("1 cup flour (900 g)")
    assert more.doubt is not None
    (gone,) = read_line("500 ml wine, reduced by 100 %")
    assert gone.problem is not None
    (grown,) = read_line("300 ml wine, reduced to 400 ml")
    assert grown.problem is not None


def test_boiled_on_because_it_is_too_thin_is_said_so() -> None:
    thin = [started("1.6 l"), wanted(900), ev.Chosen(route="all-body-alone"), read("scale", 2200)]
    pot = potted(*thin)
    off = Heat(mark=Mark(700.0, pot.reads(pot.contents), "dip"), why="too_thin")
    assert str(off.said(told(*thin))).startswith("bar.boil_on")
    assert str(replace(off, why=None).said(told(*thin))).startswith("bar.heat")


@pytest.mark.parametrize(
    ("grams", "found"), [(0.0, "bar.mild_for_you"), (4.3, "bar.right_for_you"), (12.0, "bar.salty_for_you")]
)
def test_what_is_found_of_the_salt_before_it_is_tasted_once_more(grams: float, found: str) -> None:
    timeline = told(
        started("1 l", hot=False, salt={"by": "meter", "percent": 0.47}),
        wanted(900),
        ev.Salted(salt_g=max(grams, 0.01)),
    )
    said = TasteSalt(why="once_more").said(timeline)
    assert found in str(said)


def test_a_taste_that_contradicts_moves_as_far_as_it_weighs_and_is_trusted_less_the_further_it_is_off() -> None:
    """By hand: the ledger says half a point under the liking to 0.05, the tongue 0.25 or more over it to 0.12."""
    low, _ = SAUCE.ends["salty"]
    sure, said = 1.0 / 0.05**2, 1.0 / 0.12**2
    off = (low + 0.5) / math.hypot(0.05, 0.12)
    mean, error = tasted(-0.5, 0.05, "salty")
    assert off > CONTRADICTS_SD
    assert mean == pytest.approx((-0.5 * sure + low * said) / (sure + said), rel=1e-6)
    assert error == pytest.approx((sure + said) ** -0.5 * off / CONTRADICTS_SD, rel=1e-6)
    assert tasted(-0.8, 0.05, "salty")[1] > error


def test_a_part_that_is_poured_as_it_comes_takes_its_share_of_the_fat() -> None:
    whole = potted(started("2 l", fat_ml="100 ml"))
    part = ev.Parted(volume_ml=0.25 * whole.contents.liquid_ml, purpose="plate")
    assert part.on_pot(whole).contents.fat_ml == pytest.approx(0.75 * whole.contents.fat_ml, rel=1e-6)


def test_an_amount_of_two_parts_is_as_sure_as_both() -> None:
    one, two = (read_line(line)[0].amount for line in ("1 splash of wine", "1 splash plus 1 splash of wine"))
    assert one is not None
    assert two is not None
    assert two.value == pytest.approx(2.0 * one.value)
    # Errors of two splashes that know nothing of each other.
    assert two.spread == pytest.approx(one.spread / math.sqrt(2.0), rel=1e-6) == pytest.approx(0.354, abs=0.01)


def test_a_liking_that_was_learned_is_part_of_how_a_sauce_stands() -> None:
    salted = potted(started("1 l", salt={"by": "meter", "percent": 1.15}, fat_ml=0))
    timeline = told(started("1 l", salt={"by": "meter", "percent": 1.15}, fat_ml=0), wanted(950))
    assert "saltier" in in_words(Finish(volume_ml=950.0).said(timeline))
    likes_more = timeline.but(judged=timeline.judged.but(liking_percent=0.25))
    assert "saltier" not in in_words(Finish(volume_ml=950.0).said(likes_more))
    assert salted.salt_percent.best == pytest.approx(1.15, abs=0.01)


def test_a_stove_teaches_its_full_power_whatever_lies_on_the_pan() -> None:
    """A simmer has a rate of its own: no share of the full heat is taken out of it."""
    track = Track.begun(30.0, 0.1, 0.0)
    for heat, share, full in (("boil", 0.5, 2.0), ("simmer", 0.5, 1.0)):
        setting = HeatSetting(heat=heat, share=share)  # type: ignore[arg-type]
        begun = Window.begun(pot(), setting, EVENING)
        assert begun is not None
        window = begun.but(track=replace(track, readings=9))
        timeline = told(started("1 l"))
        taught = taught_rate(timeline.but(stove=timeline.stove.but(window=window)))
        assert taught is not None
        assert taught.net_kw == pytest.approx(full * track.power_range.best / 60.0, rel=1e-6)


def test_what_stands_at_the_cold_of_the_room_says_nothing_of_how_fast_it_cools() -> None:
    """Newton's law by hand: half of what it is warmer is gone in 30 min, so that the constant is 30 / ln 2."""
    cools = [Reading(0.0, 84.0), Reading(30.0, 44.0), Reading(60.0, 24.0)]
    assert time_constant(cools, 4.0) == pytest.approx(30.0 / math.log(2.0))
    assert time_constant([*cools, Reading(600.0, 4.1), Reading(700.0, 3.9)], 4.0) == time_constant(cools, 4.0)


def test_a_pan_that_ends_too_shallow_comes_after_those_that_do_not() -> None:
    wide, narrow = Pan.round("wide", 600, 120), Pan.round("narrow", 200, 120)
    found = compared(pot(), 500.0, [(wide, BURNER), (narrow, BURNER)], HeatSetting(heat="simmer"))
    assert [one.pan.name for one in found] == ["narrow", "wide"]
    assert found[0].minutes is not None
    assert found[1].minutes is not None
    assert found[1].minutes.best < found[0].minutes.best
    assert found[1].end_mm < SHALLOW_MM < found[0].end_mm


def test_a_taste_that_contradicts_the_meter_leaves_both_in_doubt() -> None:
    """By hand, as in ``tasted``: what is known of salt and liking grows by as much as they disagree."""
    way = (started("1 l", salt=METER, fat_ml=0), ev.Wanted(volume_ml=900, salt_percent=1.5, ceiling_percent=1.6))
    sure, doubted = told(*way), told(*way, ev.Tested(of="salt", verdict="too_salty"))
    assert sure.pot is not None
    assert doubted.pot is not None
    known, liking = sure.pot.salt_error, sure.judged.liking_error
    error = math.hypot(known, liking)
    _, left = tasted(sure.pot.salt_percent.best - 1.5, error, "too_salty", RAW)
    assert left > error
    mine = known**2 / error**2
    assert doubted.pot.salt_error == pytest.approx(math.sqrt(known**2 + mine**2 * (left**2 - error**2)), rel=0.02)
