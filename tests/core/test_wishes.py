"""A wish: how much, in any words; for whom, in what time, and without what."""

from __future__ import annotations

from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import BURNER, EVENING, PAN, braise, event, fold, in_words, pot, read, refused, started, told, wanted
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.errors import SpissusError, TargetError
from spissus_core.estimation.window import warming_kj
from spissus_core.fold import Timeline, progress
from spissus_core.intake.wish import read_amount_wanted
from spissus_core.measuring.vessels import Pan
from spissus_core.pantry.guests import DISHES
from spissus_core.phenomena.evaporation import boiled_to_volume
from spissus_core.phenomena.heating import Burner
from spissus_core.planning.acts import next_act
from spissus_core.planning.because import because
from spissus_core.planning.explanation import stretched
from spissus_core.planning.hurry import hurried
from spissus_core.planning.plan import skim_way
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import boiling_minutes, solve_route, work_min
from spissus_core.planning.spoken import way_line

WIDE = Pan.round("32 cm pan", 320, 80, empty_g=2100)
STRONG = Burner(name="big burner", net_kw=3.0)


@pytest.mark.parametrize(
    ("said", "field", "value"),
    [
        ("900 ml", "volume_ml", 900.0),
        ("0,5 l", "volume_ml", 500.0),
        ("half a litre", "volume_ml", 500.0),
        ("900", "volume_ml", 900.0),
        ("half", "share", 0.5),
        ("half of it", "share", 0.5),
        ("a third left", "share", 1 / 3),
        ("two thirds of the pot", "share", 2 / 3),
        ("3/4 of it", "share", 0.75),
        ("by 400 ml", "gone_ml", 400.0),
        ("½", "share", 0.5),
        ("50 %", "share", 0.5),
        ("boil down by a third", "share", 2 / 3),
        ("reduce to half", "share", 0.5),
        ("all of it", "share", 1.0),
        ("2.4 kg on the scale", "gross_g", 2400.0),
        ("0.9 % salt", "at_salt_percent", 0.9),
        ("20 min", "minutes", 20.0),
        ("1 1/2 h", "minutes", 90.0),
        ("for 6 people", "people", 6),
        ("one person", "people", 1),
    ],
)
def test_how_much_is_read_as_it_is_said(said: str, field: str, value: float) -> None:
    wish = ev.Wanted(amount=said)
    assert wish.told == (field,)
    assert getattr(wish, field) == pytest.approx(value)


def test_helpings_have_a_size() -> None:
    assert ev.Wanted(amount="8 helpings").amount_ml == 8 * DISHES["mash"].helping_ml
    assert ev.Wanted(amount="8 portions of 60 ml").amount_ml == 480.0
    assert ev.Wanted(amount="8 portions", portion_ml=50).amount_ml == 400.0
    assert ev.Wanted(people=4, over="plate").amount_ml == 5 * 60.0
    assert ev.Wanted(people=4, over="bread").portions_in(480.0) == 4


@pytest.mark.parametrize(
    ("said", "complaint"),
    [
        ("", "Say how much sauce"),
        ("a lot", "not a unit"),
        ("blub", "How much is “blub”"),
        ("20 °C", "How much is “20 °C”"),
        ("2.5 people", "whole number"),
        ("0 people", "whole number"),
        ("five quarters", "of what"),
        ("a third", "left, or gone"),
        ("2/3", "left, or gone"),
        ("8", "of what"),
        ("by 120 %", "between nothing and all"),
        ("9 furlongs", "not a unit"),
        ("-3 l", "How much is"),
        ("1e9 people", "How much is"),
        ("99999 min", "must lie"),
    ],
)
def test_what_says_nothing_of_how_much_is_asked_again(said: str, complaint: str) -> None:
    with refused((ValidationError, SpissusError), complaint):
        ev.Wanted(amount=said)


@given(st.text(max_size=60))
def test_anything_typed_is_read_or_refused_with_a_sentence(text: str) -> None:
    try:
        told = read_amount_wanted(text)
    except SpissusError as error:
        complaint = in_words(error.message)
    else:
        complaint = f"{told.field}."
    assert complaint.endswith(".")


def test_every_way_to_say_it_comes_to_the_same_volume() -> None:
    one = pot()
    volume = solve_route(one, wanted(900), "all-volume-white_roux")
    boiled = one.boiled_to(one.contents.with_masses(water=one.contents.water - 500.0))
    half_ml = boiled.contents.liquid_ml
    wishes = (
        ev.Wanted(share=half_ml / one.contents.liquid_ml),
        ev.Wanted(gross_g=boiled.gross_g),
        ev.Wanted(at_salt_percent=boiled.contents.salt_percent),
    )
    assert all(wish.of(one).amount_ml == pytest.approx(half_ml, rel=1e-3) for wish in wishes)
    assert volume.volume_ml == pytest.approx(900, rel=0.01)


def test_minutes_are_what_boils_away_in_them() -> None:
    one = pot(braise(3000.0, salt=6.0))
    wish = ev.Wanted(minutes=30).of(one)
    steam_g = (30.0 * 60.0 * BURNER.net_kw - warming_kj(one)) / 2.2565
    assert 3000.0 - wish.amount_ml == pytest.approx(steam_g, rel=0.02)
    # It is no time by which it is wanted.
    assert wish.time_there_is is None


def test_a_wish_by_the_pot_needs_a_pot_that_can_tell() -> None:
    unweighed = pot(pan=PAN.model_copy(update={"empty_g": None}))
    with refused(TargetError, "never weighed"):
        ev.Wanted(gross_g=2000).of(unweighed)
    with refused(TargetError, "alone weighs"):
        ev.Wanted(gross_g=1400).of(pot())
    with refused(TargetError, "no salt"):
        ev.Wanted(at_salt_percent=0.9).of(pot(braise(salt=0.0)))
    with refused(TargetError, "depends on what is in the pot"):
        _ = ev.Wanted(share=0.5).amount_ml


def test_half_is_half_of_what_was_there_when_it_was_said() -> None:
    start = started("1.6 l")
    entries = [event(1, start), event(2, ev.Wanted(amount="half"), minute=1.0)]
    wish = fold(entries).asked.wanted
    assert wish is not None
    assert wish.amount_ml == pytest.approx(0.5 * told(start).pot.contents.liquid_ml)
    later = fold([*entries, event(3, ev.Added(ingredient="water", volume_ml=400), minute=5.0)]).asked.wanted
    assert later is not None
    assert later.amount_ml == wish.amount_ml


# -- in what time ---------------------------------------------------------------------------------


@pytest.mark.parametrize("minutes", [5.0, 12.0, 20.0, 40.0, 90.0])
@pytest.mark.parametrize(("liquid_ml", "salt"), [(600.0, 3.0), (1500.0, 9.0), (4000.0, 20.0), (1500.0, 17.0)])
def test_nothing_that_takes_longer_than_there_is_can_be_taken(minutes: float, liquid_ml: float, salt: float) -> None:
    one = pot(braise(liquid_ml, salt=salt))
    ways = solve_routes(one, ev.Wanted(people=4, minutes=minutes))
    able = [way for way in ways if way.feasible]
    assert able, [way.reason for way in ways]
    assert all(work_min(way) <= minutes + 1.0 for way in able)
    assert able[0].salt_after.best == pytest.approx(0.9, abs=0.15)
    late = [way for way in ways if way.reason and "It takes about" in in_words(way.reason)]
    assert all(work_min(way) > minutes for way in late)


def test_as_far_as_the_time_goes_stops_where_the_time_is_up() -> None:
    one = pot(braise(1500.0))
    way = solve_route(one, ev.Wanted(volume_ml=800, minutes=20), "all-time-corn_starch_own")
    assert way.feasible
    assert 800 < way.volume_ml < 1500
    assert work_min(way) == pytest.approx(20.0, abs=1.0)
    assert "all-time-corn_starch_own" not in [found.kind for found in solve_routes(one, wanted(800))]


def test_a_wider_pan_or_a_second_one_makes_it_in_time() -> None:
    one, wish = pot(braise(1500.0)), ev.Wanted(volume_ml=800, minutes=30)
    slow = solve_route(one, wish, "all-volume-corn_starch_own")
    assert not slow.feasible
    found = hurried(one, wish, slow, [(PAN, BURNER), (WIDE, STRONG)])
    assert found is not None
    assert (found.place, found.split_ml) == (1, None)
    assert work_min(found.route) <= 31.0
    # No pan holds it: then half of it boils beside.
    small = Pan.round("16 cm pan", 160, 70, empty_g=700)
    deep = one.but(pan=Pan.round("18 cm pan", 180, 120, empty_g=900))
    split = hurried(deep, wish, slow, [(small, STRONG.model_copy(update={"net_kw": 1.2}))])
    assert split is not None
    assert split.split_ml == pytest.approx(750, rel=0.2)
    assert hurried(one, wish, solve_route(one, wanted(800), "all-volume-corn_starch_own"), [(WIDE, STRONG)]) is None


def test_fat_is_taken_off_in_a_way_that_suits_the_hour() -> None:
    fatty = pot(braise(1200.0).with_masses(fat_free=100.0))
    assert skim_way(fatty, None) == skim_way(fatty, 60.0) == "separator"
    assert skim_way(fatty, 24 * 60.0) == "chill"


def test_what_will_not_be_ready_in_time_says_so_and_can_be_bound_as_it_is() -> None:
    log = [event(1, started("1.6 l")), event(2, ev.Wanted(volume_ml=900, minutes=40), minute=0.5)]
    log += [
        event(3, ev.Chosen(route="all-volume-corn_starch_own"), minute=1.0),
        event(4, ev.Heated(heat="simmer"), minute=2.0),
    ]
    log += [event(5, ev.Heated(heat="boil", share=0.4), minute=20.0)]
    act = next_act(fold(log))
    assert (act.kind, act.why) == ("boil", "no_time")
    assert act.late_min > 3.0


# -- without what ---------------------------------------------------------------------------------


def test_what_somebody_must_not_have_is_not_proposed() -> None:
    ways = solve_routes(pot(), ev.Wanted(volume_ml=900, avoid=("gluten",)))
    assert all("gluten" not in (way.thickener.allergens if way.thickener else ()) for way in ways if way.feasible)
    refused = next(way for way in ways if way.kind == "all-volume-white_roux")
    assert refused.reason is not None
    assert "gluten" in in_words(refused.reason)


def concerned(*happened: ev.Kind) -> Timeline:
    return told(started("1.6 l"), ev.Wanted(volume_ml=900, avoid=("milk", "alcohol")), *happened)


def test_what_somebody_must_not_have_stays_until_it_is_answered() -> None:
    cream, more = (ev.Added(ingredient="cream_heavy", volume_ml=ml) for ml in (50, 30))
    assert next_act(concerned()).kind == "choose"
    act = next_act(concerned(ev.Chosen(route="all-volume-corn_starch_own"), cream))
    assert act.kind == "warn"
    assert act.concern is not None
    assert (act.concern.kind, act.concern.holds) == ("allergen", ("milk",))
    finished = concerned(cream, ev.Finished())
    assert next_act(finished).kind == "warn"
    answered = concerned(cream, ev.Answered(concern="allergen", answer="told"), more, ev.Finished())
    assert next_act(answered).kind == "done"
    wine = concerned(ev.Added(ingredient="red_wine", volume_ml=200), ev.Noted(text="smells good"))
    assert [concern.kind for concern in wine.table.concerns] == ["alcohol"]
    with refused(ValidationError, "no answer"):
        ev.Answered(concern="alcohol", answer="mended")


def test_a_wish_that_comes_later_finds_what_is_in_already() -> None:
    late = told(
        started("1.6 l"), ev.Added(ingredient="cream_heavy", volume_ml=50), ev.Wanted(people=4, avoid=("milk",))
    )
    assert [concern.holds for concern in late.table.concerns] == [("milk",)]


def test_what_a_sauce_may_be_stretched_with_is_compared_but_for_what_is_avoided() -> None:
    salty = pot(braise(900.0, salt=12.0))
    lines = {in_words(reason.what): in_words(reason.how) for reason in stretched(salty, wanted(900), 200.0)}
    wine = "With red wine reduction"
    assert set(lines) == {"With stock, unsalted", "With water", wine, "With cream, 36 % fat"}
    # Boiled down by itself it brings its sourness, and hardly any alcohol.
    assert "alcohol" not in lines[wine]
    assert lines[wine].partition("sourness")[2] > lines["With water"].partition("sourness")[2]
    avoided = stretched(salty, wanted(900, avoid=("alcohol", "milk", "celery")), 200.0)
    assert [in_words(reason.what) for reason in avoided] == ["With water"]


def test_what_is_free_of_it_is_asked_about_again_when_more_of_it_goes_in() -> None:
    cream = ev.Added(ingredient="cream_heavy", volume_ml=50)
    free = concerned(cream, ev.Answered(concern="allergen", answer="in_order"), ev.Noted(text="oat cream"))
    assert free.table.concerns == ()
    again = concerned(
        cream, ev.Answered(concern="allergen", answer="in_order"), ev.Added(ingredient="butter", mass_g=20)
    )
    assert [concern.holds for concern in again.table.concerns] == [("milk",)]
    wine = ev.Added(ingredient="red_wine", volume_ml=200)
    assert concerned(wine, ev.Answered(concern="alcohol", answer="in_order")).table.concerns == ()
    assert len(concerned(wine, ev.Answered(concern="alcohol", answer="in_order"), wine).table.concerns) == 1
    # Taken back, there is nothing to ask.
    taken = event(3, cream, minute=2.0)
    log = [event(1, started("1.6 l")), event(2, ev.Wanted(volume_ml=900, avoid=("milk",))), taken]
    assert fold([*log, event(4, ev.Struck(event=taken.id), minute=3.0)]).table.concerns == ()


def test_whoever_is_late_already_hears_the_quickest_way() -> None:
    log = [event(1, started("1.6 l")), event(2, ev.Wanted(people=4, minutes=10), minute=1.0)]
    act = next_act(fold(log, now=EVENING + timedelta(minutes=40)))
    assert act.kind == "choose"
    assert act.route is not None
    assert work_min(act.route) < 8.0


# -- signs ----------------------------------------------------------------------------------------


def signed(sign: str, start: ev.Started, *before: ev.Kind) -> Timeline:
    return told(start, *before, ev.Seen(sign=sign))


def test_an_ordinary_simmer_leaves_hardly_any_alcohol_and_as_much_in_the_pot() -> None:
    wine = ev.Added(ingredient="red_wine", volume_ml=300)
    before, after = told(started("1.6 l"), wine).pot, signed("calm", started("1.6 l"), wine).pot
    assert before is not None
    assert after is not None
    assert after.contents.ethanol < 0.3 * before.contents.ethanol
    assert after.contents.mass_g == pytest.approx(before.contents.mass_g)
    assert "calm" in ev.signs_asked(told(started("1.6 l"), wine))
    assert "calm" not in ev.signs_asked(told(started("1.6 l")))


def test_frying_means_that_the_water_is_gone_and_is_refused_where_there_is_far_too_much_of_it() -> None:
    dry = signed("frying", started("250 ml", fat_ml="60 ml")).pot
    assert dry is not None
    assert dry.contents.water < 5.0
    problem = signed("frying", started("1.6 l", fat_ml="60 ml")).moments[-1].problem
    assert problem is not None
    assert "cannot fry" in in_words(problem.message)


def test_a_film_says_that_the_body_has_come_so_far() -> None:
    plain, film = told(started("1.6 l")).pot, signed("film", started("1.6 l")).pot
    assert plain is not None
    assert film is not None
    assert film.body.viscosity > plain.body.viscosity
    # A sign is worth less than a spoon.
    spoon = told(started("1.6 l"), wanted(900, body=2), ev.Tested(of="body", verdict="right")).pot
    assert spoon is not None
    assert film.strength.before < spoon.strength.before


# -- what was told is done -----------------------------------------------------------------------


def followed(amount: str, salt: float, litres: str = "1.6 l") -> tuple[ev.Started, Timeline, float]:
    """A pot boiled down by the first card of a wish, to the mark that the bar says; what it then holds, mL."""
    start = started(litres, fat_ml=0.0, salt={"by": "meter", "percent": salt})
    pot_then = start.begin()
    wish = ev.Wanted(amount=amount)
    first = solve_routes(pot_then, wish)[0]
    begun = fold([event(1, start), event(2, wish), event(3, ev.Chosen(route=first.kind))])
    act = next_act(begun)
    assert act.kind in ("heat", "boil"), act
    assert act.mark is not None
    return start, begun, act.mark.ml


@pytest.mark.parametrize("salt", [0.3, 0.6, 0.9])
@pytest.mark.parametrize(
    ("amount", "left"),
    [("half", 0.5), ("by a third", 2 / 3), ("leave 40 %", 0.4), ("boil off a quarter", 0.75), ("leave a third", 1 / 3)],
)
def test_a_share_that_was_told_is_what_comes_of_it(amount: str, left: float, salt: float) -> None:
    start, _, mark_ml = followed(amount, salt)
    assert mark_ml == pytest.approx(left * start.begin().contents.liquid_ml, rel=0.005)


def test_time_salt_weight_and_loss_that_were_told_are_what_comes_of_it() -> None:
    start, begun, mark_ml = followed("20 min", 0.6)
    boiled = boiled_to_volume(start.begin().contents, mark_ml)
    assert boiling_minutes(start.begin(), boiled).best == pytest.approx(20.0, rel=0.02)
    start, begun, mark_ml = followed("1.1 % salt", 0.6)
    assert boiled_to_volume(start.begin().contents, mark_ml).salt_percent == pytest.approx(1.1, rel=0.005)
    start, begun, mark_ml = followed("2.3 kg on the scale", 0.6)
    stop = next_act(begun).mark.reads
    assert stop is not None
    assert stop.scale == pytest.approx(2300.0, abs=2.0)
    start, _, mark_ml = followed("reduce by 400 ml", 0.6)
    assert mark_ml == pytest.approx(start.begin().contents.liquid_ml - 400.0, abs=2.0)


def test_what_was_told_names_the_ceiling_that_it_passes_and_a_better_way_stands_second() -> None:
    one = started("1.6 l", fat_ml=0.0, salt={"by": "meter", "percent": 0.9}).begin()
    wish = ev.Wanted(amount="half").of(one)
    first, second = solve_routes(one, wish)[:2]
    assert first.feasible
    assert "ends at 1.67 %" in in_words(because(one, wish, first))
    assert "your limit of 1.30 %" in in_words(because(one, wish, first))
    assert in_words(way_line(one, wish, first)).startswith("It ends at 1.67 % salt, over your limit.")
    assert second.salt_before.best < 1.3


def test_what_was_told_stops_before_dry_and_before_the_edge_scorches() -> None:
    start, _, mark_ml = followed("by 95 %", 0.1, "1 l")
    assert start.begin().mark_mm(mark_ml) == pytest.approx(8.0, abs=0.1)
    tall = Pan.round("tall pot", 100, 200, empty_g=900)
    deep = pot(braise(salt=0.5), pan=tall)
    wish = ev.Wanted(amount="by 99 %").of(deep)
    first = solve_routes(deep, wish)[0]
    assert first.boil_to_ml > deep.contents.liquid_ml - deep.contents.water * 1.0018
    assert "You said to go further" in in_words(because(deep, wish, first))


@pytest.mark.parametrize("stove", [0.5, 1.0, 1.8])
def test_what_is_told_in_minutes_boils_by_the_clock_however_strong_the_stove(stove: float) -> None:
    """Half as strong as it is called, or twice: after its minutes it is there, and what is left is what is wanted."""
    entries = [
        event(1, started("1.6 l", fat_ml=0), minute=0.0),
        event(2, ev.Wanted(minutes=20.0), minute=0.0),
        event(3, ev.Chosen(route="all-told-white_roux"), minute=0.0),
        event(4, ev.Heated(heat="boil"), minute=0.0),
    ]
    begun = fold(entries)
    assert begun.pot is not None
    assert begun.stove.window is not None
    gross, rate = begun.pot.gross_g or 0.0, begun.stove.window.power.steam_g_min
    warm = begun.stove.window.pending_kj / begun.stove.window.power.kj_min
    for minute in (8.0, 14.0):
        weighed = gross - stove * rate * max(minute - warm / stove, 0.0)
        entries.append(event(len(entries) + 1, read("scale", weighed), minute=minute))
        timeline = fold(entries)
        act = next_act(timeline, progress(timeline))
        assert (act.kind, timeline.asked.left_min) == ("boil", pytest.approx(20.0 - minute))
        assert act.mark is not None
        assert timeline.pot is not None
        ends = timeline.pot.contents.liquid_ml - stove * rate * (20.0 - minute) * 1.0018
        assert act.mark.ml == pytest.approx(ends, abs=0.15 * stove * rate * (20.0 - minute) + 15.0)
    weighed = gross - stove * rate * (20.0 - warm / stove)
    done = fold([*entries, event(len(entries) + 1, read("scale", weighed), minute=20.0)])
    assert next_act(done).kind != "boil"
    assert done.asked.wanted is not None
    assert done.pot is not None
    assert done.asked.wanted.amount_ml == pytest.approx(done.pot.contents.liquid_ml, rel=0.01)
    assert done.asked.wanted.told_by == "minutes"


def test_told_in_minutes_it_goes_on_with_another_salt_at_a_simmer_and_never_by_another_way() -> None:
    entries = [event(1, started("1.6 l", fat_ml=0), minute=0.0), event(2, ev.Wanted(minutes=20.0), minute=0.0)]
    told_so = [*entries, event(3, ev.Chosen(route="all-told-white_roux"), minute=0.0)]
    simmers = [*told_so, event(4, ev.Heated(heat="simmer"), minute=0.0)]
    wish = fold(simmers).asked.wanted
    assert wish is not None
    # The page says again what it came to, with another salt: the clock runs on.
    again = ev.Wanted(volume_ml=round(wish.amount_ml / 5.0) * 5.0, salt_percent=1.0)
    after = fold([*simmers, event(5, again, minute=8.0)])
    assert after.moments[-1].problem is None
    assert (after.asked.told_by, after.asked.clock_min) == ("minutes", pytest.approx(12.0))
    assert after.asked.wanted is not None
    assert after.asked.wanted.salt_percent == 1.0
    other = fold([*entries, event(3, ev.Chosen(route="all-salt-white_roux"), minute=0.0)])
    assert (other.asked.left_min, other.asked.clock_min) == (20.0, None)


def test_a_salt_that_is_told_is_never_let_down_to_on_a_word() -> None:
    way = [started("1.6 l", fat_ml=0), ev.Wanted(at_salt_percent=0.9), ev.Chosen(route="all-told-white_roux")]
    salty = told(*way, ev.Tested(of="salt", verdict="too_salty"))
    assert salty.pot is not None
    assert salty.asked.wanted is not None
    assert salty.asked.wanted.amount_ml <= salty.pot.contents.liquid_ml * (1.0 + 1e-9)


@pytest.mark.parametrize(
    ("told", "limit"),
    [
        ({"people": 4, "over": "mash"}, 0.823),
        ({"amount": "4 people", "over": "mash"}, 0.823),
        ({"amount": "10 portions of 90 ml"}, 0.823),
        ({"portions": 10, "portion_ml": 90}, 0.823),
    ],
)
def test_salt_may_be_told_as_sodium_in_a_helping(told: dict[str, object], limit: float) -> None:
    """300 mg of sodium are 0.763 g of salt (58.44 ÷ 22.99), in 90 mL of sauce at 1.03 g/mL."""
    wish = ev.Wanted.model_validate({"salt_percent": "200 mg", "ceiling_percent": "300 mg of sodium", **told})
    assert wish.ceiling_percent == pytest.approx(limit, abs=0.001)
    assert wish.salt_percent == pytest.approx(limit / 1.5, abs=0.001)


@pytest.mark.parametrize("told", [{"amount": "600 ml"}, {"people": 4, "over": "moon"}, {"volume_ml": "600 ml"}])
def test_sodium_of_a_helping_that_nobody_knows_is_asked(told: dict[str, object]) -> None:
    with refused((ValidationError, SpissusError), "Milligrams go by the helping"):
        ev.Wanted.model_validate({"ceiling_percent": "300 mg", **told})
