"""House dishes: masses follow the people, salt follows the ledger, and time is worked out for the pan that is taken."""

from __future__ import annotations

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import BURNER, EVENING, PAN, event, fold, in_words, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.errors import SpissusError
from spissus_core.house_dish import Foreseen, HouseDish, changes, foreseen, kept_from, most_people, needed
from spissus_core.intake.braise import Braise, line_of
from spissus_core.intake.lines import read_list
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.heating import Burner

#: What a braise for four goes by.
LIST = "1.2 kg beef shin\n1.5 l unsalted beef stock\n2 dl red wine\n2 onions\n10 g salt\nthyme"

LARGE = Pan.round("40 cm rondeau", 400, 180, empty_g=5200)
STRONG = Burner(name="strong burner, full", net_kw=2.5)


def listed(text: str, **cooked: object) -> Braise:
    return Braise.model_validate({"lines": tuple(line_of(read) for read in read_list(text).lines), **cooked})


def shin(people: int = 4, text: str = LIST, hours: float = 3.0, **wish: object) -> HouseDish:
    """A dish of a list, of which nothing was measured."""
    begun = started("1.2 l", salt={"by": "list"}, braise=listed(text, hours=hours))
    steps = (begun, wanted(**{"volume_ml": 480, **wish}), ev.Added(ingredient="butter", mass_g=20.0))
    return kept_from(told(*steps), people)


def comes_to(dish: HouseDish, pan: Pan = PAN, burner: Burner = BURNER) -> Foreseen:
    return foreseen(dish, pan, burner, EVENING)


def test_every_mass_follows_the_people_and_no_time_does() -> None:
    four, thirty = shin(), shin().for_people(30)
    for few, many in zip(four.lines, thirty.lines, strict=True):
        assert (many.mass_g, many.volume_ml) == (
            few.mass_g and pytest.approx(7.5 * few.mass_g),
            few.volume_ml and pytest.approx(7.5 * few.volume_ml),
        )
    assert thirty.added[0].mass_g == pytest.approx(150.0)
    assert thirty.wanted
    assert thirty.wanted.volume_ml == pytest.approx(3600.0)
    assert four.started.liquid.braise
    assert thirty.started.liquid.braise
    assert thirty.started.liquid.braise.hours == four.started.liquid.braise.hours == 3.0
    assert [line.text for line in thirty.lines][:2] == ["9 kg beef shin", "11.2 l unsalted beef stock"]
    assert thirty.lines[-1].text == "thyme"


@pytest.mark.parametrize(
    ("text", "more"),
    [
        ("2 bay leaves", "5 bay leaves"),
        ("3 bay leaves", "8 bay leaves"),
        ("1 tbsp tomato paste", "2½ tbsp tomato paste"),
        ("1 kg lamb neck", "2.5 kg lamb neck"),
        ("1 1/2 cups stock", "3¾ cups stock"),
        ("2½ dl brown ale", "6.25 dl brown ale"),
        ("18 g salt, rubbed on the meat", "45 g salt, rubbed on the meat"),
        ("1,5 kg lamb neck", "3.75 kg lamb neck"),
        # What its number does not tell is told anew.
        ("2-3 carrots", "500\u00a0g carrots"),
        ("8 duck legs (about 250 g each)", "20 duck legs (about 250 g each)"),
        ("1 bottle perry (750 ml)", "2½ bottle perry (750 ml)"),
        ("salt to taste", "salt to taste"),
    ],
)
def test_a_line_keeps_the_words_it_was_told_in(text: str, more: str) -> None:
    [line] = shin(text=f"{LIST}\n{text}").for_people(10).lines[-1:]
    assert line.text == more


def test_a_pan_is_enough_for_so_many() -> None:
    pan = Pan.round("20 cm saucepan", 200, 110)
    most = most_people(shin().for_people(60), pan)
    assert most_people(shin().for_people(most), pan) == most
    assert comes_to(shin().for_people(most), pan).liquid_ml > 0
    with refused(SpissusError, "20 cm saucepan"):
        comes_to(shin().for_people(most + 1), pan)


@pytest.mark.parametrize("units", ["metric", "us"])
def test_a_line_for_others_is_read_as_what_it_says(units: UnitSystem) -> None:
    """Whoever corrects a line of it begins with its text."""
    for line in shin().for_people(30, units).lines[:-1]:
        [again] = read_list(line.text).lines
        assert again.problem is None, line.text
        told = line_of(again)
        assert told.ingredient == line.ingredient, line.text
        assert told.grams == pytest.approx(line.grams, rel=0.02), line.text


def test_what_it_comes_to_is_worked_out_for_the_pan_and_the_burner() -> None:
    few, many = comes_to(shin()), comes_to(shin().for_people(30), LARGE, STRONG)
    assert few.route
    assert many.route
    assert few.minutes
    assert many.minutes
    # Seven and a half times as much liquid, less what a wider pan loses; on a burner two and a half times as strong.
    assert 6.0 < many.liquid_ml / few.liquid_ml < 9.0
    assert 0.7 < many.route.minutes.best / few.route.minutes.best < 4.0
    slow = comes_to(shin().for_people(30), LARGE, BURNER)
    assert slow.route
    assert slow.route.minutes.best > 2.0 * many.route.minutes.best


def test_salt_follows_the_ledger() -> None:
    """A pinch more for each person would be wrong: thirty helpings boil down otherwise than four."""
    few, many = comes_to(shin()), comes_to(shin().for_people(30), LARGE, STRONG)
    assert few.route
    assert many.route
    for one, dish in ((few, shin()), (many, shin().for_people(30))):
        assert one.route
        assert dish.wanted
        held = one.route.salt_before.best + 100.0 * one.route.salt_to_add_g / one.route.final.liquid_g
        assert held == pytest.approx(one.route.salt_after.best, abs=0.03)


def test_what_does_not_fit_is_said() -> None:
    with refused(SpissusError, "20 cm saucepan"):
        comes_to(shin().for_people(60), Pan.round("20 cm saucepan", 200, 110))


def test_what_was_measured_is_held_against_the_list_again() -> None:
    less = kept_from(told(started("1.0 l", hot=False, salt={"by": "list"}, braise=listed(LIST)), wanted(400)), 4)
    assert comes_to(less).liquid_ml == pytest.approx(less.strained_ml)
    assert comes_to(less.for_people(8)).liquid_ml < comes_to(shin().for_people(8)).liquid_ml


def test_without_a_list_it_is_as_much_and_as_salty_as_it_was() -> None:
    plain = kept_from(told(started("800 ml", hot=False, salt={"by": "meter", "percent": 0.4}), wanted(300)), 4)
    twice = comes_to(plain.for_people(8), Pan.round("24 cm braising pan", 240, 130))
    assert twice.liquid_ml == pytest.approx(1600.0)
    assert twice.board.timeline.first_pot
    assert twice.board.timeline.first_pot.contents.salt_percent == pytest.approx(0.4)


@pytest.mark.parametrize("told_by", [{"volume_ml": None, "minutes": 20}, {"volume_ml": None, "gone_ml": 500}])
def test_what_only_that_pot_could_tell_is_kept_as_its_volume(told_by: dict[str, object]) -> None:
    kept = shin(**told_by)
    assert kept.wanted
    assert kept.wanted.told == ("volume_ml",)
    assert kept.wanted.minutes is None


def test_its_own_way_is_taken_where_it_leads_there_and_the_one_to_propose_elsewhere() -> None:
    steps = (
        started("1.6 l", salt={"by": "meter", "percent": 0.3}),
        wanted(600),
        ev.Chosen(route="all-volume-white_roux"),
    )
    dish = kept_from(told(*steps), 4)
    assert (found := comes_to(dish).route)
    assert found.kind == "all-volume-white_roux"
    none = HouseDish.of(4, [dish.started, *([] if dish.wanted is None else [dish.wanted])])
    assert (proposed := comes_to(none).route)
    assert proposed.feasible


@given(st.integers(1, 400), st.integers(1, 400))
def test_there_and_back_is_the_same(here: int, there: int) -> None:
    dish = shin(here)
    back = dish.for_people(there).for_people(here)
    for line, again in zip(dish.lines, back.lines, strict=True):
        assert (line.mass_g, line.volume_ml) == (
            again.mass_g and pytest.approx(again.mass_g),
            again.volume_ml and pytest.approx(again.volume_ml),
        )


def test_it_is_read_back_as_it_was_kept() -> None:
    dish = shin()
    assert HouseDish.recorded(4, dish.entries, ev.VERSION) == dish


def test_one_that_no_reader_bears_is_said_and_what_else_cannot_be_read_is_left_out() -> None:
    dish = shin()
    with refused(SpissusError, "start"):
        HouseDish.recorded(4, [{"kind": "started"}, *dish.entries[1:]], ev.VERSION)
    assert HouseDish.recorded(4, [dish.entries[0], {"kind": "wanted", "body": "thick"}], ev.VERSION).wanted is None


def test_what_changed_is_said_for_as_many_as_the_later_one_is_for() -> None:
    before = shin()
    more_wine = LIST.replace("2 dl", "3 dl").replace("10 g salt\n", "") + "\n50 g tomato paste"
    after = shin(6, more_wine, hours=3.5, salt_percent=0.8, volume_ml=720)
    said = [in_words(one).replace("\u00a0", " ") for one in changes(before, after)]
    assert said[0] == "for 6 people instead of 4"
    assert "300 mL → 300 mL red wine" not in said
    assert "1 800 g → 1 200 g beef shin" in said
    assert any("tomato paste too" in one for one in said)
    assert any(one.startswith("no ") and "salt" in one for one in said)
    assert "3 h → 3.5 h in the pot" in said
    assert "salt 0.90 % → 0.80 %" in said
    # Twelve hundredths of a litre a person either way.
    assert not any("of sauce" in one for one in said)


def test_what_somebody_may_not_have_is_told_of_the_whole_dish() -> None:
    steps = (started("1.2 l", salt={"by": "list"}, braise=listed(f"{LIST}\n2 sticks celery")), wanted(480))
    bound = ev.Chosen(route="all-taste-white_roux")
    dish = kept_from(told(*steps, bound, ev.Added(ingredient="butter", mass_g=20.0)), 4)
    assert {"celery", "gluten", "milk"} <= set(dish.allergens)


def test_nothing_changed_is_nothing_said() -> None:
    assert changes(shin(), shin()) == ()
    assert changes(shin(), shin().for_people(8)) == changes(shin(), shin().for_people(8))[:1]


@pytest.mark.parametrize(
    ("cooked", "said"),
    [({"hours": 3.5}, "3 h → 3.5 h in the pot"), ({"strain": "pressed"}, "cooked or strained in another way")],
)
def test_how_it_was_cooked_is_a_change_too(cooked: dict[str, Any], said: str) -> None:
    other = shin().started.liquid.braise
    assert other is not None
    other = other.model_copy(update=cooked)
    steps = (
        started("1.2 l", salt={"by": "list"}, braise=other),
        wanted(480),
        ev.Added(ingredient="butter", mass_g=20.0),
    )
    found = [in_words(one) for one in changes(shin(), kept_from(told(*steps), 4))]
    assert said in found


def test_a_prep_list_adds_up_by_ingredient_and_names_the_dishes() -> None:
    rows, untold = needed([("Shin", shin()), ("Large shin", shin().for_people(30))])
    wine = next(row for row in rows if "wine" in row.name)
    assert wine.amount.value == pytest.approx(200.0 * 8.5)
    assert [name for name, _ in wine.each] == ["Shin", "Large shin"]
    butter = next(row for row in rows if "butter" in row.name)
    assert butter.amount.value == pytest.approx(170.0)
    assert untold == (("Shin", "thyme"), ("Large shin", "thyme"))
    assert [row.name.lower() for row in rows] == sorted(row.name.lower() for row in rows)


def test_volumes_and_weights_of_one_thing_are_added_by_weight() -> None:
    rows, _ = needed([("a", shin(text="1 l water\n500 g beef shin")), ("b", shin(text="500 g water\n1 kg beef shin"))])
    water = next(row for row in rows if "water" in row.name)
    assert water.amount.value == pytest.approx(1500.0, rel=0.01)
    assert water.amount.metric.endswith("g")


def test_an_entry_that_was_struck_is_not_kept() -> None:
    log = [event(1, started(salt={"by": "meter", "percent": 0.3})), event(2, wanted())]
    log.append(event(3, ev.Added(ingredient="butter", mass_g=20.0)))
    log.append(event(4, ev.Struck(event=log[2].id)))
    assert kept_from(fold(log), 4).added == ()
