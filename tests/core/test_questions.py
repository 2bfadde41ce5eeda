"""What is asked before a way is proposed, and what the answers change; and a part that is kept before it is bound."""

from __future__ import annotations

import re

import pytest
from makers import event, fold, in_words, listed, log, read, started, told, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.events.judging import smells_of_wine
from spissus_core.phenomena.alcohol import strength_percent
from spissus_core.planning.acts import Act, next_act
from spissus_core.planning.solving import Task
from spissus_core.planning.spoken import way_line

JUS = ev.Wanted(people=4, over="plate", body=1)


def _start(percent: float, character: str = "gelatin_rich") -> ev.Started:
    return started("700 ml", salt={"by": "meter", "percent": percent}, character=character)


def _asked(*happened: ev.Kind) -> Act:
    return next_act(told(*happened))


def test_raw_wine_is_asked_about_where_nothing_would_be_boiled() -> None:
    assert _asked(_start(0.9), wanted(450)).kind == "smell"
    # What is boiled down anyway loses it on the way.
    assert _asked(_start(0.3), wanted(300)).kind == "choose"
    # Nor is anybody asked who told what went in, or who is late.
    braise = listed("1 kg pork cheek\n1.2 l beef stock\n500 ml red wine\n").model_dump()
    by_list = ev.Started.model_validate(
        _start(0.9).model_dump() | {"liquid": {"salt": {"by": "list"}, "braise": braise}}
    )
    assert _asked(by_list, wanted(450)).kind != "smell"
    late = [event(1, _start(0.9)), event(2, ev.Wanted(people=4, minutes=10), minute=1.0)]
    assert next_act(fold(late, now=event(3, JUS, minute=60.0).at)).kind == "choose"


def test_who_smells_raw_wine_boils_it_out_first() -> None:
    without, with_it = ((_start(0.9), wanted(450), ev.Seen(sign=sign)) for sign in ("raw_gone", "raw_wine"))
    as_it_is, boiled = _asked(*without), _asked(*with_it)
    assert "the wine is cooked out" in in_words(boiled.said(told(*with_it)))
    assert "Nothing has to boil" in in_words(as_it_is.said(told(*without)))
    pot = told(*with_it).pot
    assert pot is not None
    assert smells_of_wine(pot)
    task = Task(pot, wanted(450))
    calm = Board(log(*with_it, ev.Chosen(route="all-taste-corn_starch_own"))).route
    assert calm is not None
    # It is done as it was said: what is only a little to boil away is boiled away all the same.
    assert _asked(*with_it, ev.Chosen(route="all-taste-corn_starch_own")).kind == "boil"
    salty = (_start(1.5), wanted(450), ev.Seen(sign="raw_wine"))
    assert "Its wine stays raw" in in_words(_asked(*salty).said(told(*salty)))
    assert calm.boil_to_ml == pytest.approx(task.no_raw_wine_ml, rel=1e-3)
    assert strength_percent(calm.final.ethanol, calm.volume_ml) <= 0.5


def test_a_cold_plate_is_asked_where_gelatin_decides_whether_it_is_bound() -> None:
    calm = ev.Seen(sign="raw_gone")
    assert _asked(_start(0.9), JUS, calm).kind == "cold_plate"
    sets, runny = (told(_start(0.9), JUS, calm, ev.Seen(sign=sign)) for sign in ("sets_cold", "stays_runny"))
    assert "nothing added" in in_words(next_act(sets).said(sets))
    assert "with corn starch" in in_words(next_act(runny).said(runny))
    assert sets.pot is not None
    assert runny.pot is not None
    assert sets.pot.contents.gelatin > runny.pot.contents.gelatin
    assert sets.pot.contents.liquid_ml == pytest.approx(runny.pot.contents.liquid_ml)
    # It is asked once, and said twice it tells no more.
    twice = told(_start(0.9), JUS, calm, ev.Seen(sign="sets_cold"), ev.Seen(sign="sets_cold"))
    assert twice.pot == sets.pot
    assert next_act(sets).kind == next_act(runny).kind == "choose"


def test_far_too_much_is_kept_before_it_is_bound() -> None:
    happened: list[ev.Kind] = [_start(0.9), wanted(300), ev.Seen(sign="raw_gone")]
    happened += [ev.Chosen(route="all-here-corn_starch_own")]
    act = _asked(*happened)
    assert act.kind == "take"
    assert "another meal" in in_words(act.said(told(*happened)))
    planned = Board(log(*happened)).route
    before = told(*happened).pot
    assert planned is not None
    assert before is not None
    assert re.match(r"Keep .* mL\. Thicken the rest with", in_words(way_line(before, wanted(300), planned)))
    taken = act.answers(told(*happened))[0].event
    assert taken is not None
    after = told(*happened, taken)
    assert after.pot is not None
    assert after.pot.kept is not None
    bound = next_act(after)
    assert bound.kind == "thicken"
    # Both together are what there was, and what is bound comes to what was wanted.
    own = after.pot.contents.own_g + after.pot.kept.own_g
    assert own == pytest.approx(before.contents.own_g, abs=1e-9)
    route = Board(log(*happened, taken)).route
    assert route is not None
    assert route.parted_ml == 0.0
    assert route.volume_ml == pytest.approx(300, rel=0.03)


def test_nobody_is_told_to_salt_twice_without_a_taste() -> None:
    happened: list[ev.Kind] = [_start(0.5), wanted(650), ev.Chosen(route="all-here-corn_starch_own")]
    happened += [ev.Thickened(thickener="corn_starch_own", dry_g=16), *[ev.Tested(of="body", verdict="right")] * 4]
    salted = _asked(*happened)
    assert salted.kind == "salt"
    answer = salted.answers(told(*happened))[0].event
    assert answer is not None
    assert _asked(*happened, answer).kind == "test_salt"


def test_at_its_mark_early_it_boils_on_for_the_time_that_is_left() -> None:
    """A stove that is stronger than it is called is not turned on and off for ever."""
    thin = started("2.4 l", salt={"by": "meter", "percent": 0.1}, character="thin")
    happened = [event(1, thin), event(2, ev.Wanted(people=6, over="plate", body=1, minutes=45), minute=1.0)]
    happened.append(event(3, ev.Chosen(route="all-taste-corn_starch_own"), minute=2.0))
    first = next_act(fold(happened))
    assert first.mark is not None
    weighs = first.mark.reads.scale
    assert weighs is not None
    happened.append(event(4, read("scale", weighs), minute=22.0))
    on = next_act(fold(happened))
    assert on.kind == "heat"
    happened.append(event(5, ev.Heated(heat="boil"), minute=23.0))
    boils = next_act(fold(happened))
    assert boils.kind == "boil"
    assert boils.mark is not None
    assert boils.mark.ml < first.mark.ml
    # Late, it is bound.
    late = next_act(fold(happened[:4], now=event(6, thin, minute=60.0).at))
    assert late.kind in ("take", "thicken", "test_body")


@pytest.mark.parametrize(
    ("poured", "word", "mass", "most_percent"),
    [("500 ml white wine", "sharp", "acid", 0.6), ("1 can of stout", "bitter", "bitter", 0.002)],
)
def test_what_gets_too_sharp_or_too_bitter_is_not_boiled_on(
    poured: str, word: str, mass: str, most_percent: float
) -> None:
    """Half a litre of white wine, or a can of stout, in a thin liquid: neither sugar nor gelatin covers it."""
    braise = listed(f"1 kg pork shoulder\n{poured}\n500 ml water\n").model_dump()
    liquid = {"salt": {"by": "list"}, "braise": braise, "measured": {"method": "jug", "value": "1 l", "hot": True}}
    begun = ev.Started.model_validate(_start(0.9).model_dump() | {"liquid": liquid})
    happened = (begun, ev.Wanted(people=2, over="plate", body=1), ev.Tested(of="salt", verdict="flat"))
    assert f"too {word}" in in_words(_asked(*happened).said(told(*happened)))
    pot = told(*happened).pot
    assert pot is not None
    boiled_g = pot.contents.liquid_g * Task(pot, wanted(100)).taste_mark_ml() / pot.contents.liquid_ml
    assert 100.0 * getattr(pot.contents, mass) / boiled_g == pytest.approx(most_percent, rel=0.05)


@pytest.mark.parametrize(("poured", "word"), [("1 l water\n150 ml lemon juice", "sharp"), ("1 l stout", "bitter")])
def test_what_is_sharp_or_bitter_already_is_not_boiled_and_says_so(poured: str, word: str) -> None:
    braise = listed(f"1 kg pork shoulder\n{poured}\n").model_dump()
    liquid = {"salt": {"by": "list"}, "braise": braise, "measured": {"method": "jug", "value": "1 l", "hot": True}}
    begun = ev.Started.model_validate(_start(0.9).model_dump() | {"liquid": liquid})
    happened = (begun, ev.Wanted(people=8, over="plate", body=2), ev.Tested(of="salt", verdict="flat"))
    act = _asked(*happened)
    assert f"It is {word} already" in in_words(act.said(told(*happened)))
    assert act.route is not None
    assert act.route.steam_g == 0.0
