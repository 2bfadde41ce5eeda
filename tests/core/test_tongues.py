"""Whose tongue it is: two that contradict each other are told so, and another person's liking is another liking."""

from __future__ import annotations

from typing import Any

import pytest
from makers import in_words, log, refused, started
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.board import Board

from .test_palate import right


def salty(verdict: str, **more: Any) -> ev.Tested:
    return ev.Tested.model_validate({"of": "salt", "verdict": verdict, **more})


def sour(verdict: str, **more: Any) -> ev.Tested:
    return ev.Tested.model_validate({"of": "sour", "verdict": verdict, **more})


def said(*steps: ev.Kind) -> str:
    board = Board(log(*steps))
    return in_words(board.act.said(board.timeline))


#: A pot of which only a word tells the salt.
TOLD = (started("0.5 l", fat_ml="0 ml", salt={"by": "taste", "verdict": "right"}), *right()[1:])


def test_flat_and_then_too_salty_is_said_to_contradict_itself_and_tasted_once_more() -> None:
    twice = (*TOLD, salty("flat"), salty("too_salty"))
    assert said(*twice).startswith("Flat, then too salty, and nothing went in."), said(*twice)
    # Whatever is said then settles it: nobody is asked a fourth time.
    for third in ("flat", "right", "too_salty"):
        assert "nothing went in" not in said(*twice, salty(third))


@pytest.mark.parametrize(("first", "then"), [("nearly", "right"), ("right", "salty"), ("salty", "too_salty")])
def test_what_a_tongue_may_well_say_twice_contradicts_nothing(first: str, then: str) -> None:
    assert "nothing went in" not in said(*TOLD, salty(first), salty(then))


def test_what_went_in_between_is_no_contradiction() -> None:
    assert "nothing went in" not in said(*TOLD, salty("flat"), ev.Salted(salt_g=2.5), salty("too_salty"))
    vinegar = ev.Added(ingredient="wine_vinegar", volume_ml=20)
    assert "nothing went in" not in said(*right(), sour("low"), vinegar, sour("high"))


def test_too_dull_and_then_too_sharp_is_said_too() -> None:
    twice = (*right(), sour("low"), sour("high"))
    assert said(*twice).startswith("Too dull, then too sharp, and nothing went in."), said(*twice)
    assert "nothing went in" not in said(*twice, sour("low"))


def test_a_contradiction_leaves_the_salt_known_worse_than_before_it() -> None:
    once = Board(log(*TOLD, salty("flat"))).timeline
    twice = Board(log(*TOLD, salty("flat"), salty("too_salty"))).timeline
    assert once.pot is not None
    assert twice.pot is not None
    assert twice.pot.salt_error > 0.9 * once.pot.salt_error


def test_two_people_may_differ_and_contradict_nothing() -> None:
    assert "nothing went in" not in said(*TOLD, salty("flat"), salty("too_salty", taster="second"))


def liking(*steps: ev.Kind) -> float:
    return Board(log(*steps)).timeline.judged.liking_percent


#: A pot of which a meter tells the salt: what tongues say is of what they like.
METERED = right()


def test_another_cook_tells_of_the_pot_and_moves_nobodys_aim() -> None:
    assert liking(*METERED, salty("flat", taster="second")) == liking(*METERED)
    assert liking(*METERED, salty("flat")) > liking(*METERED)


def test_whoever_eats_it_is_seasoned_for() -> None:
    for_guest = liking(*METERED, salty("too_salty", twice=True), salty("flat", taster="guest", twice=True))
    assert for_guest > 0.0 > liking(*METERED, salty("too_salty", twice=True))
    # The cook's own tongue speaks of the cook's own liking, and the aim is the guest's still.
    again = liking(*METERED, salty("flat", taster="guest", twice=True), salty("flat", taster="second"))
    assert again == liking(*METERED, salty("flat", taster="guest", twice=True))


def test_a_guests_tongue_teaches_the_kitchen_nothing() -> None:
    end = ev.Finished()
    assert Board(log(*METERED, salty("right", twice=True), end)).taught_likings
    assert Board(log(*METERED, salty("right", twice=True, taster="guest"), end)).taught_likings == {}


def test_the_log_says_whose_tongue_it_was() -> None:
    assert in_words(salty("too_salty", taster="chef").said()) == "the chef tasted: too salty"
    assert "the guest" not in in_words(salty("too_salty").said())


def test_nobody_else_looks_at_a_spoon_and_nobody_unknown_tastes() -> None:
    with refused((ValidationError,), "tongue"):
        ev.Tested(of="body", verdict="right", taster="chef")
    with refused((ValidationError,), "among|one of|none"):
        salty("right", taster="neighbour")
