"""When it is on the table: one interval, whether it is in time, and when to start what goes with it."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from zoneinfo import ZoneInfo

from makers import EVENING, event, in_words, potted, read, started, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.planning.because import notes
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.schedule import SIDES, Ready, put_off, ready_line, starts

WAY = ev.Chosen(route="all-volume-white_roux")


def board(*steps: ev.Kind, minute: float | None = None) -> Board:
    log = [event(seq, step) for seq, step in enumerate(steps, 1)]
    return Board(log, EVENING + timedelta(minutes=len(log) if minute is None else minute))


def of(*steps: ev.Kind, **more: Any) -> Ready:
    found = board(*steps, **more).ready
    assert found is not None
    return found


START = (started("1.6 l", fat_ml="80 ml"), wanted(900), WAY)


def test_it_comes_nearer_as_things_are_done() -> None:
    begun = of(*START)
    skimmed = of(*START, ev.Skimmed(way="separator"))
    boiled = of(*START, ev.Skimmed(way="separator"), read("jug", "0.96 l"))
    assert begun.low < begun.best < begun.high
    assert skimmed.best - EVENING < begun.best - EVENING
    assert boiled.high - boiled.low < begun.high - begun.low


def test_a_reading_that_shows_a_stronger_stove_brings_it_nearer() -> None:
    steps = (*START, ev.Skimmed(way="separator"), ev.Heated(heat="boil"))
    slow = of(*steps, read("jug", "1.5 l"), minute=20)
    quick = of(*steps, read("jug", "1.1 l"), minute=20)
    assert quick.best < slow.best


def test_nothing_is_said_before_a_way_is_chosen_nor_once_it_is_finished() -> None:
    assert board(*START[:2]).ready is None
    assert board(*START, ev.Finished()).ready is None


def test_a_time_that_was_told_is_in_time_doubtful_or_late() -> None:
    found = of(*START)
    assert found.stands(found.high) == "in_time"
    assert found.stands(found.best) == "perhaps"
    assert found.stands(found.low - timedelta(minutes=1)) == "late"
    for by, word in ((found.high, "in time"), (found.best, "may be late"), (EVENING, "late")):
        assert word in in_words(ready_line(found, by))
    assert in_words(ready_line(found, None)).startswith("Ready ")


def test_a_late_meat_moves_it_and_says_what_still_fits() -> None:
    """Dinner was told for an hour; the meat comes half an hour late, and the strained liquid with it."""
    told = wanted(900, minutes=60)
    on_time = board(START[0], told, WAY)
    late = board(START[0], told, WAY, minute=45)
    assert on_time.ready is not None
    assert late.ready is not None
    assert late.timeline.asked.ready_by == on_time.timeline.asked.ready_by
    by = late.timeline.asked.ready_by
    assert by is not None
    assert late.ready.stands(by) != "in_time"
    assert "on the table at" in in_words(ready_line(late.ready, by)).lower()


def test_each_side_is_started_so_long_before() -> None:
    by = EVENING + timedelta(hours=2)
    found = starts(by, "mash")
    assert list(found.values()) == sorted(found.values())
    assert found["mash"] == by - timedelta(minutes=SIDES["mash"].minutes)


def test_what_is_ready_long_before_is_begun_later_or_kept_warm() -> None:
    found = board(*START[:1], wanted(900, minutes=240), WAY)
    by = found.timeline.asked.ready_by
    assert found.ready is not None
    assert by is not None
    assert found.ready.stands(by) == "early"
    assert "keep it warm" in in_words(ready_line(found.ready, by))


def test_sides_go_with_what_the_sauce_is_poured_over() -> None:
    by = EVENING + timedelta(hours=2)
    assert {"mash", "rice", "polenta"} <= starts(by, "mash").keys()
    assert "mash" not in starts(by, "noodles")
    assert {"meat", "plates"} <= starts(by, "plate").keys()


def test_dinner_is_put_off_by_the_clock_it_was_told_by() -> None:
    by, now = EVENING + timedelta(minutes=90), EVENING + timedelta(minutes=30)
    lisbon = by.astimezone(ZoneInfo("Europe/Lisbon"))
    assert put_off(by, now, "Europe/Lisbon")[30] == f"{lisbon + timedelta(minutes=30):%H:%M}"
    assert put_off(by, now, None)[15] == "75 min"
    # What is late already is put off from now.
    assert put_off(now - timedelta(hours=1), now, None)[15] == "15 min"


def test_what_waits_an_hour_on_the_pass_is_bound_with_what_holds() -> None:
    """Handbook of the trade, section 19: for a pass roux, which holds; for a few helpings at once corn starch."""

    def first(minutes: float | None) -> str:
        pot = potted(started("1.2 l", salt={"by": "meter", "percent": 0.5}))
        wish = wanted(700, minutes=minutes)
        route = solve_routes(pot, wish)[0]
        return " ".join([route.thickener.key if route.thickener else "", *map(in_words, notes(pot, wish, route))])

    assert "corn_starch" in first(None)
    assert "corn_starch" in first(45)
    assert "white_roux" in first(180)
    assert "keep it warm under its lid" in first(180)
