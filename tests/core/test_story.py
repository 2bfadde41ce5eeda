"""The story of a batch: what turned out otherwise is told with what it alone did, and nothing else is."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import EVENING, event, in_words, read, started, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.planning.story import Story

#: Boiled to its mark, bound and salted as foreseen.
BEGIN = (
    (0.0, started("1.84 l", salt={"by": "meter", "percent": 0.2})),
    (1.0, wanted(700)),
    (2.0, ev.Chosen(route="all-volume-corn_starch_own")),
    (3.0, ev.Heated(heat="boil")),
)


def board_of(*steps: tuple[float, ev.Kind]) -> Board:
    log = [event(seq, kind, minute=minute) for seq, (minute, kind) in enumerate(steps, 1)]
    return Board(log, log[-1].at)


def foreseen() -> tuple[float, float, float, float]:
    """The mark, the thickener, the salt and the minutes, as they are foreseen at the start."""
    route = board_of(*BEGIN[:3]).route
    assert route is not None
    return route.boil_to_ml, route.dry_g, route.salt_to_add_g, route.minutes.best


def told(*, mark: float = 1.0, dry: float = 1.0, salt: float = 1.0, minutes: float = 1.0, water: float = 0.0) -> Story:
    """The batch with each so many times as it was foreseen."""
    to_ml, dry_g, salt_g, boils = foreseen()
    off = 3.0 + boils * minutes
    steps: list[tuple[float, ev.Kind]] = [
        *BEGIN,
        (off, read("jug", f"{to_ml * mark * 1.038:.0f} ml")),
        (off + 0.5, ev.Heated(heat="off")),
        (off + 3.0, ev.Thickened(thickener="corn_starch", dry_g=dry_g * dry)),
        (off + 6.0, ev.Salted(salt_g=salt_g * salt)),
    ]
    if water:
        steps.append((off + 7.0, ev.Added(ingredient="water", volume_ml=water)))
    found = board_of(*steps, (off + 20.0, ev.Finished())).story
    assert found is not None
    return found


def words(story: Story) -> list[str]:
    return [f"{in_words(one.what)}: {in_words(one.did)}".replace("\u00a0", " ") for one in story.because]


def test_what_went_as_foreseen_has_no_reasons() -> None:
    found = told()
    assert [one for one in words(found) if "heat" not in one and "earlier" not in one] == []
    assert {one.what for one in found.figures if one.same} >= {"volume", "body", "salt"}


@pytest.mark.parametrize(
    ("otherwise", "said"),
    [
        ({"mark": 1.25}, "Boiled to"),
        ({"mark": 0.8}, "less sauce"),
        ({"dry": 1.6}, "of corn starch, not"),
        ({"salt": 0.0}, "0 g of salt, not"),
        ({"salt": 2.0}, "points more salt"),
        ({"water": 120.0}, "stirred in"),
    ],
)
def test_what_turned_out_otherwise_alone_is_the_first_reason(otherwise: dict[str, float], said: str) -> None:
    assert said in words(told(**otherwise))[0]


def test_the_largest_comes_first_and_no_more_than_fit() -> None:
    found = told(mark=1.3, dry=1.2, salt=2.5, water=60.0)
    weights = [one.weight for one in found.because]
    assert weights == sorted(weights, reverse=True)
    assert len(weights) <= 4


def test_both_ways_begin_with_the_same_and_end_when_they_end() -> None:
    found = told(mark=1.2)
    assert found.happened[0].ml == pytest.approx(found.foreseen[0].ml)
    assert found.happened[0].at == found.foreseen[0].at == EVENING
    assert found.foreseen[-1].at > EVENING + timedelta(minutes=20)
    for path in (found.happened, found.foreseen):
        assert [one.at for one in path] == sorted(one.at for one in path)


def test_there_is_no_story_before_the_end_or_without_a_way() -> None:
    assert board_of(*BEGIN).story is None
    assert board_of(BEGIN[0], BEGIN[1], (9.0, ev.Finished())).story is None


def test_what_one_thing_did_is_what_the_sums_say_of_it_alone() -> None:
    """Salt: twice the salt that was foreseen is as many points more as that salt makes in that much liquid."""
    to_ml, _, salt_g, _ = foreseen()
    reason = next(one for one in told(salt=2.0).because if "salt" in in_words(one.what))
    points = float(in_words(reason.did).split()[0])
    # Within the thickener's water, which is no part of what was boiled down.
    assert points == pytest.approx(100.0 * salt_g / to_ml, rel=0.12)
