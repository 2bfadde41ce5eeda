"""What is tasted besides salt: asked where it matters, put right in small steps, left, and never chased."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import event, in_words, listed, potted, started, told, words_of
from pydantic import ValidationError
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.phenomena.palate import LEVELS, PALATE, SENSED, Sensed, found_word, said_of
from spissus_core.planning.acts import Act
from spissus_core.planning.finishing import remedies
from spissus_core.planning.solving import solve_route
from spissus_core.planning.threads import Thread

BIND = ev.Chosen(route="all-here-corn_starch_own")
WISH = ev.Wanted(volume_ml=500, body=2, salt_percent=0.9)


def season(
    *steps: ev.Kind, says: Mapping[str, list[str]] | None = None, takes: Callable[[Act], int] = lambda _: 0
) -> list[str]:
    """What the bar says from there to the end, to a cook who obeys; the tongue says what is listed, then "right"."""
    log = [event(seq, step) for seq, step in enumerate(steps, 1)]
    heard, says = [], {of: list(words) for of, words in (says or {}).items()}
    for _ in range(20):
        act = Board(log).act
        heard.append(in_words(act.said(Board(log).timeline)))
        if act.kind == "finish":
            return heard
        answers = act.answers(Board(log).timeline)
        said = answers[takes(act)].event
        if act.kind == "test_salt":
            said = ev.Tested(of="salt", verdict="right", twice=True)
        elif act.kind == "taste":
            words = says.get(act.of, [])  # type: ignore[attr-defined]
            said = ev.Tested(of=act.of, verdict=words.pop(0) if words else "right")  # type: ignore[attr-defined, arg-type]
        elif act.kind == "test_body":
            said = ev.Tested(of="body", verdict="right", again="right")
        assert said is not None, heard[-1]
        log.append(event(len(log) + 1, said))
    raise AssertionError(heard)


#: A pot that is right in body, amount and salt, and as sharp as so much lemon or vinegar makes it.
def right(**liquid: Any) -> tuple[ev.Kind, ...]:
    start = started("0.5 l", fat_ml="0 ml", character="thin", salt={"by": "meter", "percent": 0.9}, **liquid)
    spoons = ev.Tested(of="body", verdict="right", again="right")
    return (
        start,
        WISH,
        ev.Chosen(route="all-here-corn_starch_own"),
        ev.Thickened(thickener="corn_starch", dry_g=12),
        spoons,
    )


def sharp(ml: float = 60.0) -> tuple[ev.Kind, ...]:
    *before, spoons = right()
    return (*before, ev.Added(ingredient="wine_vinegar", volume_ml=ml), spoons)


def test_flat_and_right_in_salt_is_made_good_without_salt() -> None:
    lines = season(*right(), ev.Tested(of="sour", verdict="low"), says={"sour": ["right"]})
    assert any("Too dull. Stir in 1 tsp of lemon juice" in line for line in lines), lines
    dull = next(i for i, line in enumerate(lines) if "Too dull" in line)
    # What so little changes is not tasted for its salt again.
    assert lines[dull + 1 :] == ["Stir, taste again. Is it still too dull?", lines[-1]], lines
    assert lines[-1].startswith("Done"), lines


def test_what_is_sharp_and_bare_is_asked_about_covered_and_not_chased() -> None:
    lines = season(*sharp(), says={"sour": ["high", "high", "high", "high"]})
    asked = [line for line in lines if "too sharp?" in line]
    assert len(asked) == 3, lines
    assert any("Too sharp. Stir in" in line and "of cold butter. Off the heat" in line for line in lines), lines
    assert any("sugar" in line for line in lines), lines
    # Twice helped it is told as it is.
    assert "too sharp" in lines[-1], lines


def test_what_is_called_right_is_right() -> None:
    lines = season(*sharp(), says={"sour": ["right"]})
    assert sum("too sharp" in line for line in lines) == 1, lines
    assert "sharp" not in lines[-1], lines


def test_what_is_left_on_purpose_is_not_spoken_of_again() -> None:
    lines = season(
        *sharp(), ev.Tested(of="sour", verdict="high"), takes=lambda act: 2 if act.kind == "put_right" else 0
    )
    assert sum("sharp" in line for line in lines) == 1, lines


#: A bottle of wine in half a litre of sauce: near 8 g/L, and the classic.
BOTTLE = listed(
    "1 bottle red wine\n1.2 l veal stock\n2.5 kg beef cheek\n2 onions\n2 carrots\n1 tbsp tomato paste\n10 g salt"
)


def test_a_bottle_of_wine_whose_sourness_is_covered_is_not_chased() -> None:
    start = started("0.5 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.9}, braise=BOTTLE)
    assert potted(start).contents.acid > 0.0
    lines = season(
        start, WISH, ev.Chosen(route="all-here-corn_starch_own"), ev.Tested(of="body", verdict="right", again="right")
    )
    assert not any("sharp" in line for line in lines), lines


def test_a_guest_without_milk_gets_no_butter() -> None:
    start, wish, *rest = sharp()
    assert isinstance(wish, ev.Wanted)
    lines = season(start, wish.model_copy(update={"avoid": ("milk",)}), *rest, says={"sour": ["high"]})
    assert any("Too sharp. Stir in" in line for line in lines), lines
    assert not any("butter" in line or "cream" in line for line in lines), lines


def test_salt_comes_before_sourness_and_sourness_before_depth() -> None:
    start, *rest = right()
    assert isinstance(start, ev.Started)
    flat = started("0.5 l", fat_ml="0 ml", character="thin", salt={"by": "meter", "percent": 0.6})
    lines = season(flat, *rest, ev.Tested(of="depth", verdict="low"), ev.Tested(of="sour", verdict="low"))
    said = ("of salt", "Too dull. Stir in", "still too dull?", "Hollow. Stir in", "still hollow?", "Done")
    places = [next(i for i, line in enumerate(lines) if words in line) for words in said]
    assert places == sorted(places), lines


@given(of=st.sampled_from(SENSED), verdict=st.sampled_from(["low", "high"]), litres=st.floats(0.15, 3.0))
def test_what_is_proposed_improves_what_it_is_proposed_for_and_hurts_nothing(
    of: Sensed, verdict: Any, litres: float
) -> None:
    if verdict not in said_of(of):
        return
    pot = potted(started(f"{litres:.2f} l", salt={"by": "meter", "percent": 0.9}))
    offers = remedies(pot, WISH, of, verdict)
    assert offers
    for offer in offers:
        assert not offer.hurts
        after = offer.added.on_pot(pot)
        if of in LEVELS and offer.finish.lacks in ("sharpness", "sweetness") and verdict == "low":
            assert LEVELS[of](after.contents) > LEVELS[of](pot.contents)


@pytest.mark.parametrize(
    ("said", "complaint"),
    [
        ({"of": "sour", "verdict": "salty"}, "What may be said of it: low, right, high"),
        ({"of": "bitter", "verdict": "low"}, "What may be said of it: right, high"),
        ({"of": "sour", "step": 3}, "What may be said"),
        ({"of": "sour", "verdict": "right", "left": True}, "right is left anyway"),
        ({"of": "depth", "verdict": "low", "twice": True}, "Two tastes are told by one word"),
    ],
)
def test_what_no_tongue_says_is_refused(said: dict[str, Any], complaint: str) -> None:
    with pytest.raises((ValidationError, SpissusError)) as caught:
        ev.Tested.model_validate({"kind": "tested", **said})
    assert complaint in words_of(caught.value)


def test_what_contradicts_what_was_thought_moves_both_pot_and_taster() -> None:
    """Right of what should be far too sharp: there may be less of it, and the taster may like more."""
    found = told(*sharp(), ev.Tested(of="sour", verdict="right")).judged.palate[0]
    assert found.leaning.there < 0.0 < found.leaning.liked
    assert found_word(found.of, found.verdict) == "right"
    assert set(PALATE) == set(SENSED)


def lanes(*steps: ev.Kind) -> dict[str, Thread]:
    return {one.of: one for one in Board([event(seq, step) for seq, step in enumerate(steps, 1)]).threads}


def test_a_thread_runs_along_the_ribbon_inside_its_lane() -> None:
    steps = [started("1.6 l", fat_ml="40 ml"), ev.Wanted(volume_ml=800), ev.Chosen(route="all-taste-white_roux")]
    board = Board([event(seq, step) for seq, step in enumerate(steps, 1)])
    assert [one.of for one in board.threads] == ["salt", "sour", "sweet", "strength"]
    for one in board.threads:
        assert len(one.path) == len(board.ribbon)
        assert all(before[1] == after[0] for before, after in pairwise(one.path))
        assert all(0.0 <= level <= 1.0 for ends in one.path for level in ends)
        assert one.path[-1][1] == pytest.approx(one.end)
        # What boils down gets stronger in everything.
        assert one.end > one.now.best
        assert one.now.low <= one.now.best <= one.now.high


def test_what_a_tongue_says_moves_the_thread_and_its_gate_apart_or_together() -> None:
    before, high, fine = lanes(*sharp()), lanes(*sharp(), HIGH), lanes(*sharp(), ev.Tested(of="sour", verdict="right"))

    def over(one: Thread) -> float:
        return one.now.best / one.gate.high

    assert over(high["sour"]) > over(before["sour"]) > over(fine["sour"])
    assert (high["sour"].stands, fine["sour"].stands) == ("high", "right")
    assert (before["sour"].tasted, high["sour"].tasted) == (False, True)
    assert over(high["sweet"]) == over(before["sweet"])


HIGH = ev.Tested(of="sour", verdict="high")


def test_what_is_tasted_too_sharp_early_is_boiled_down_less() -> None:
    wine = listed("2 bottles white wine\n200 ml chicken stock\n600 g chicken thighs")
    start = started("1.6 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.2}, braise=wine)
    marks = []
    for early in ((), (HIGH,), (ev.Tested(of="sour", verdict="right"),)):
        pot = potted(start, *early)
        marks.append(solve_route(pot, ev.Wanted(volume_ml=400, body=3), "all-taste-white_roux").boil_to_ml)
    as_it_is, sharp_now, fine = marks
    assert sharp_now > as_it_is >= fine


def test_a_lemon_of_two_kilograms_is_asked_about() -> None:
    log = [event(seq, step) for seq, step in enumerate((*right(), ev.Added(ingredient="lemon_juice", mass_g=2000)), 1)]
    board = Board(log)
    assert in_words(board.act.said(board.timeline)) == "That makes it very sharp. Was it 2 000 g, or 200 g?"
    assert [in_words(one.label) for one in board.act.answers(board.timeline)] == ["2 000 g", "200 g"]
    # Half a lemon in a pot is no slip.
    assert Board([*log[:-1], event(6, ev.Added(ingredient="lemon_juice", mass_g=20))]).act.kind != "slip"


def test_however_often_tongues_contradict_each_other_the_batch_stays_readable() -> None:
    said = [ev.Tested(of="sour", verdict=("high", "low", "high", "high")[i % 4]) for i in range(120)]
    board = Board([event(seq, step) for seq, step in enumerate((*right(), *said), 1)])
    assert board.threads
    assert not board.missing
