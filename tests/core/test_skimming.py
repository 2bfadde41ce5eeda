"""Taking the fat off: what each way leaves and costs, on this pot."""

from __future__ import annotations

from typing import Any

import pytest
from makers import PAN, braise, in_words, listed, pot, potted, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.errors import MeasurementError
from spissus_core.events import usual_ice_g
from spissus_core.intake.liquid import StrainedLiquid, strained_liquid
from spissus_core.ledger.contents import Contents
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.phenomena.fat import WAYS
from spissus_core.planning.acts import next_act
from spissus_core.planning.skimming import advised, fat_for_roux, options, rest_ml, sets_at, settling
from spissus_core.pot import Pot


def fatty(fat_g: float = 200.0, **more: Any) -> Pot:
    return pot(braise().with_masses(fat_free=fat_g), **more)


def option(of: Pot, way: str, text: str | None = None) -> Any:
    given = None
    if text is not None:
        known = {"salt": {"by": "list"}, "braise": listed(text)}
        given = strained_liquid(PAN, StrainedLiquid.model_validate(known))
    return next(o for o in options(of, given) if o.way == way)


@pytest.mark.parametrize(
    ("way", "low", "high"),
    [("spoon", 0.70, 0.80), ("separator", 0.90, 0.95), ("chill", 0.97, 1.0), ("ice", 0.70, 0.85)],
)
def test_shares_removed_are_those_of_the_trade(way: str, low: float, high: float) -> None:
    """Common practice."""
    fat = fatty().contents.fat_ml
    left = option(fatty(), way).leaves_ml
    assert (1 - high) * fat - 1e-6 <= left.low <= left.best <= left.high <= (1 - low) * fat + 1e-6
    assert WAYS[way].share.low >= low  # type: ignore[index]


def test_spooning_takes_sauce_with_it() -> None:
    # About a tenth of what is lifted (common practice).
    spooned = option(fatty(), "spoon")
    assert spooned.liquid_ml / (spooned.liquid_ml + spooned.takes_ml) == pytest.approx(0.10, abs=0.005)
    assert option(fatty(), "separator").liquid_ml == 0.0


def test_ice_is_priced_in_grams_and_minutes() -> None:
    one = option(fatty(), "ice")
    text = " ".join(in_words(cost) for cost in one.costs)
    assert one.ice_g == pytest.approx(usual_ice_g(fatty()), rel=1e-6)
    assert f"{round(one.ice_g)} g of ice" in text
    assert "sealed bag" in text
    assert one.minutes.best > option(fatty(), "separator").minutes.best + 15


def test_ice_does_not_help_where_the_fat_stays_soft_or_the_pot_is_cold() -> None:
    duck = option(fatty(), "ice", "4 duck legs\n1 l water")
    assert duck.barred is not None
    assert "stays soft" in in_words(duck.barred)
    beef = option(fatty(), "ice", "1 kg beef shin\n1 l water")
    assert beef.barred is None
    cold = potted(started(fat_ml="200 ml", hot=False))
    assert option(cold, "ice").barred is not None


def test_paper_is_for_the_last_film_and_boiling_dry_for_trays() -> None:
    assert option(fatty(200), "paper").barred is not None
    assert option(fatty(8), "paper").barred is None
    assert option(fatty(), "boil_dry").barred is not None
    tray = pot(braise(300).with_masses(fat_free=100.0))
    assert option(tray, "boil_dry").barred is None
    assert option(tray, "boil_dry").minutes.best > 10


def test_the_advice_is_the_quickest_way_that_leaves_what_is_wanted() -> None:
    assert advised(options(fatty(200)), rest_ml(fatty(200), wanted())) == "separator"
    none_at_all = wanted(fat_g_per_100_ml=0.2)
    assert advised(options(fatty(200)), rest_ml(fatty(200), none_at_all)) == "chill"
    assert advised(options(fatty(0.0)), 30.0) is None


def test_how_much_is_to_stay() -> None:
    # Most cooks leave 1 to 3 g in 100 mL (common practice).
    assert 1.0 <= rest_ml(fatty(), None) / 1.1 / 14.6 <= 3.0
    assert rest_ml(fatty(), wanted(fat_g_per_100_ml=0)) == 0.0


def test_settling_takes_longer_in_a_thick_sauce() -> None:
    thin, thick = (
        in_words(settling(fatty())),
        in_words(settling(pot(braise().with_masses(gelatin=160.0, pulp=30.0))), "metric"),
    )
    assert "large drops are up in" in thin
    assert "fat hardly rises" not in thin
    assert "fat hardly rises" in thick


def test_whether_the_fat_is_enough_for_the_roux() -> None:
    roux, starch = SCHOOLS["white_roux"], SCHOOLS["corn_starch"]
    said = [fat_for_roux(kept, floating, 30.0, roux) for kept, floating in ((40, 0), (10, 60), (5, 10))]
    assert [in_words(s).split(";")[0].split(".")[0] for s in said if s] == [
        "The roux needs 33 g of fat",
        "Keep 23 g for the roux",
        "The roux needs 33 g of fat",
    ]
    assert said[2] is not None
    assert "Butter makes up the rest" in in_words(said[2])
    assert fat_for_roux(0, 100, 30.0, starch) is None


def test_when_the_fat_sets() -> None:
    known = {"salt": {"by": "list"}, "braise": listed("1 kg pork cheek\n1 l water")}
    pork = strained_liquid(PAN, StrainedLiquid.model_validate(known))
    # Pork fat lifts below about 22 °C, beef and lamb below 30 (common practice).
    assert "22 °C" in in_words(sets_at(pork))
    assert "30 °C" in in_words(sets_at(None))


def test_fat_put_by_is_remembered_and_fat_binned_is_not() -> None:
    start = started(fat_ml="200 ml")
    assert told(start, ev.Skimmed(way="separator")).skimming.kept_g == pytest.approx(0.92 * 200 / 1.038 / 1.1, rel=0.01)
    assert told(start, ev.Skimmed(way="separator", kept=False)).skimming.kept_g == 0.0


def test_ice_that_melts_adds_water_and_chills_the_pot() -> None:
    start = started(fat_ml="200 ml")
    before, after = potted(start), potted(start, ev.Skimmed(way="ice", ice_g="400 g"))
    assert after.contents.water - before.contents.water == pytest.approx(400, abs=30)
    assert not after.hot
    assert after.contents.salt == pytest.approx(before.contents.salt, rel=0.01)
    with refused(ValueError, "Ice belongs to"):
        ev.Skimmed(way="spoon", ice_g=100)


def test_boiling_dry_and_dissolving_anew_keeps_what_was_stuck() -> None:
    start = started("400 ml", fat_ml="100 ml")
    before, after = potted(start), potted(start, ev.Skimmed(way="boil_dry", dissolved_ml="300 ml"))
    assert after.contents.salt == pytest.approx(before.contents.salt)
    assert after.contents.gelatin == pytest.approx(before.contents.gelatin)
    assert after.contents.water == pytest.approx(300 / 1.0018)
    assert after.contents.fat_free < 0.1 * before.contents.fat_free
    with refused(ValueError, "dissolve what is stuck"):
        ev.Skimmed(way="boil_dry")


def test_more_fat_than_there_was_is_questioned() -> None:
    problem = told(started(fat_ml="40 ml"), ev.Skimmed(fat_ml="200 ml")).moments[-1].problem
    assert problem is not None
    assert "correct the start first" in in_words(problem.message)


def test_drops_take_their_time_by_their_size() -> None:
    shallow = in_words(settling(pot(Contents(water=300.0))), "metric")
    assert "large drops are up in under a minute" in shallow
    assert "the finest in 33 min" in shallow
    assert "large drops are up in 2 min" in in_words(settling(pot()))


# -- fat first, and looked at again ----------------------------------------------------------------


@pytest.mark.parametrize(("how", "fat_ml"), [("under", 0.0), ("ladle", 70.0), ("top", 100.0), ("poured", 40.0)])
def test_a_part_takes_the_fat_that_its_way_of_drawing_takes(how: str, fat_ml: float) -> None:
    start = started("1 l", fat_ml="100 ml", hot=False)
    pot = potted(start, ev.Taken(volume_ml=400, how=how))
    assert pot.contents.fat_ml == pytest.approx(fat_ml, abs=1.0)
    assert pot.contents.volume_ml == pytest.approx(400.0, abs=0.5)
    # Nothing is lost: what was not taken is kept.
    assert pot.kept is not None
    assert (pot.contents + pot.kept).mass_g == pytest.approx(start.begin().contents.mass_g)


def test_what_is_ordered_is_what_the_jug_shows() -> None:
    pot = potted(started("2 l", fat_ml=0), ev.Taken(volume_ml=519, how="under"))
    assert pot.contents.liquid_ml == pytest.approx(519 / 1.038, rel=0.002)


def test_more_than_there_is_is_refused_beside_its_field() -> None:
    with refused(MeasurementError, "950 mL"):
        ev.Taken(volume_ml="2 l", how="under").on_pot(started("1 l", fat_ml="50 ml").begin())


def test_fat_comes_off_before_anything_is_drawn_off() -> None:
    start = started("3 l", fat_ml="200 ml")
    timeline = told(start, wanted(600), ev.Chosen(route="part-volume-corn_starch_own"))
    assert next_act(timeline).kind == "skim"
    off = told(start, wanted(600), ev.Chosen(route="part-volume-corn_starch_own"), ev.Skimmed(way="separator"))
    act = next_act(off)
    assert act.kind == "take"
    assert "from under the fat" in in_words(act.said(off))


@pytest.mark.parametrize(("look", "low", "high"), [("eyes", 0.0, 1.0), ("touching", 1.0, 3.0), ("film", 3.0, 20.0)])
@pytest.mark.parametrize("fat_ml", [0, 5, 20, 60, 120])
def test_as_much_fat_as_it_looks_like(look: str, low: float, high: float, fat_ml: float) -> None:
    pot = potted(started("1.2 l", fat_ml=fat_ml), ev.FatSeen(look=look))
    assert low <= 100.0 * pot.contents.fat_free / pot.contents.liquid_ml <= high + 1e-9


def test_a_closed_film_comes_off_once_more_before_it_is_bound() -> None:
    # A ruler said that there was little, once.
    steps = (started("1.2 l", fat_ml="25 ml"), wanted(900), ev.Chosen(route="all-here-corn_starch_own"))
    assert next_act(told(*steps)).kind == "look_fat"
    assert next_act(told(*steps, ev.FatSeen(look="film"))).kind == "skim"
    after = told(*steps, ev.FatSeen(look="film"), ev.Skimmed(way="separator"))
    assert next_act(after).kind == "thicken"
    assert next_act(told(*steps, ev.FatSeen(look="touching"))).kind == "thicken"


def test_fat_that_is_found_to_be_too_much_after_all_is_in_no_mark() -> None:
    """Skimmed as far as it was meant to be, and a film when it is looked at again: it comes off once more."""
    start, wish = started("1.6 l", fat_ml="20 ml"), wanted(700)
    settled = told(start, wish, ev.Skimmed(way="separator"))
    assert settled.pot is not None
    assert settled.pot.fat_stays
    film = told(start, wish, ev.Skimmed(way="separator"), ev.FatSeen(look="film"))
    assert film.pot is not None
    assert (film.skimming.settled, film.pot.fat_stays) == (False, False)
    assert ev.fat_left_ml(film.pot, wish) < film.pot.contents.fat_ml
