"""Ready at: a time of the clock beside what is wanted, and what it comes to in minutes.

Summer time: the last Sunday of March and of October, Directive 2000/84/EC; the tz database has it as Europe/Lisbon.
"""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import event, in_words, refused, started
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import QuantityError, SpissusError
from spissus_core.intake.clock import clock_in, next_after

#: What is written where a sauce is to be ready, and the times of day that it may be.
READS = [
    ("20:00", "20:00"),
    ("at 20:00", "20:00"),
    ("08:30", "08:30"),
    ("8 pm", "20:00"),
    ("8.30 p.m.", "20:30"),
    ("12 pm", "12:00"),
    ("12 am", "00:00"),
    ("7:30", "07:30 19:30"),
    ("for eight", "08:00 20:00"),
    ("by eight o'clock", "08:00 20:00"),
    ("half past seven", "07:30 19:30"),
    ("quarter to eight", "07:45 19:45"),
    ("twenty past 7", "07:20 19:20"),
    ("dinner at half eight", "08:30 20:30"),
    ("on the table by 7", "07:00 19:00"),
    ("tonight at 8", "20:00"),
    ("eight in the evening", "20:00"),
    ("19h30", "19:30"),
    ("19.30", "19:30"),
    ("noon", "12:00"),
    ("midnight", "00:00"),
]


@pytest.mark.parametrize(("text", "clock"), READS)
def test_a_time_of_the_clock_is_read(text: str, clock: str) -> None:
    assert clock_in(text, alone=True) == ("", clock)


@pytest.mark.parametrize("text", ["45 min", "8", "1 h", "1:30 h", "1h30", "90", "half an hour", "an hour and a half"])
def test_how_long_it_takes_is_no_time_of_the_clock(text: str) -> None:
    assert clock_in(text, alone=True) == (text, None)


@pytest.mark.parametrize("text", ["25:00", "20:75", "13 pm", "yesterday at 8", "8 pm yesterday"])
def test_a_time_there_never_is_is_said_to_be_none(text: str) -> None:
    with refused(QuantityError, "clock|passed"):
        clock_in(text, alone=True)


#: Behind an amount, what is left of it.
BESIDE = [
    ("600 ml by 20:00", "600 ml", "20:00"),
    ("for four at eight", "for four", "08:00 20:00"),
    ("for 6, ready at half past seven", "for 6", "07:30 19:30"),
    ("half a litre for 8 pm", "half a litre", "20:00"),
    ("for four for eight o'clock", "for four", "08:00 20:00"),
    ("for eight", "for eight", None),
    ("by a third", "by a third", None),
    ("at 0.9 %", "at 0.9 %", None),
    ("1 l at 1 %", "1 l at 1 %", None),
    ("boil off 400 ml", "boil off 400 ml", None),
    ("20 min", "20 min", None),
    ("at 8", "at 8", None),
]


@pytest.mark.parametrize(("text", "rest", "clock"), BESIDE)
def test_behind_an_amount_it_takes_nothing_of_it(text: str, rest: str, clock: str | None) -> None:
    assert clock_in(text) == (rest, clock)


#: When it is said, by which clock, what, and the hours until then.
AHEAD = [
    ("2026-11-27T18:30:00+00:00", "Europe/Lisbon", "08:00 20:00", 1.5),
    ("2026-11-27T18:30:00+00:00", "Europe/Vienna", "20:00", 0.5),
    ("2026-11-27T23:30:00+00:00", "Europe/Lisbon", "00:15", 0.75),
    ("2026-11-27T06:00:00+00:00", "Europe/Lisbon", "08:00 20:00", 2.0),
    # The clocks go back in the night of 25 October, and forward in that of 28 March: an hour more, an hour less.
    ("2026-10-24T22:00:00+00:00", "Europe/Lisbon", "06:00", 8.0),
    ("2027-03-27T22:00:00+00:00", "Europe/Lisbon", "06:00", 7.0),
    # 01:30 is there twice, then; and not at all: the first, and the moment at which it would have been.
    ("2026-10-24T23:00:00+00:00", "Europe/Lisbon", "01:30", 1.5),
    ("2027-03-27T23:00:00+00:00", "Europe/Lisbon", "01:30", 2.5),
    ("2026-11-27T13:00:00+00:00", "Asia/Kolkata", "20:00", 1.5),
]


@pytest.mark.parametrize(("now", "zone", "clock", "hours"), AHEAD)
def test_it_is_the_next_such_time_by_the_clock_of_the_kitchen(now: str, zone: str, clock: str, hours: float) -> None:
    at = datetime.fromisoformat(now)
    assert next_after(clock, at, ZoneInfo(zone)) - at == timedelta(hours=hours)


@given(
    st.integers(0, 2 * 365 * 24 * 60),
    st.integers(0, 23),
    st.integers(0, 59),
    st.sampled_from(["Europe/Lisbon", "America/New_York", "Australia/Lord_Howe", "UTC"]),
)
def test_it_lies_ahead_and_no_more_than_a_day(now: int, hour: int, minute: int, zone: str) -> None:
    at = datetime(2026, 1, 1, tzinfo=UTC) + timedelta(minutes=now)
    found = next_after(f"{hour:02d}:{minute:02d}", at, ZoneInfo(zone))
    assert timedelta(0) < found - at <= timedelta(hours=25)


NOW = datetime(2026, 11, 27, 18, 30, tzinfo=UTC)


def wanted(**told: Any) -> ev.Wanted:
    """A wish as it is kept, in a kitchen of Lisbon."""
    return ev.Wanted.model_validate(told).model_copy(update={"time_zone": "Europe/Lisbon"})


def board(*steps: tuple[float, ev.Kind]) -> Board:
    log = [
        event(n, kind).model_copy(update={"at": NOW + timedelta(minutes=minute)})
        for n, (minute, kind) in enumerate(steps, 1)
    ]
    return Board(log, log[-1].at)


def test_told_for_eight_it_is_to_be_ready_then_and_the_minutes_follow() -> None:
    asked = board((0, started()), (10, wanted(amount="for four at eight"))).timeline.asked
    assert asked.ready_by == datetime(2026, 11, 27, 20, 0, tzinfo=UTC)
    assert asked.wanted is not None
    assert (asked.wanted.people, asked.wanted.minutes, asked.wanted.clock) == (4, 80.0, "20:00")


def test_said_again_with_another_salt_the_hour_stays_the_hour() -> None:
    """Eight has passed by ten minutes: it is not eight of tomorrow."""
    first, again = wanted(volume_ml=600, minutes="20:00"), wanted(volume_ml=600, minutes="20:00", salt_percent=0.8)
    asked = board((0, started()), (10, first), (100, again)).timeline.asked
    assert asked.ready_by == datetime(2026, 11, 27, 20, 0, tzinfo=UTC)


def test_an_hour_that_has_just_passed_is_asked_about() -> None:
    said = wanted(volume_ml=600, minutes="18:00")
    with refused(SpissusError, "18:00"):
        said.check(board((0, started()), (10, said)).timeline)
    tomorrow = wanted(volume_ml=600, minutes="08:00")
    tomorrow.check(board((0, started()), (10, tomorrow)).timeline)


def test_the_log_says_the_hour_and_not_the_minutes() -> None:
    assert "20:00" in in_words(wanted(volume_ml=600, minutes="20:00").said())


def test_without_a_clock_it_is_asked_which() -> None:
    class Nowhere:
        def time_zone(self) -> None:
            return None

    with refused(SpissusError, "time zone"):
        ev.Wanted.model_validate({"volume_ml": 600, "minutes": "20:00"}).written_out(Nowhere())  # type: ignore[arg-type]
    untimed = ev.Wanted.model_validate({"volume_ml": 600, "minutes": "40 min"})
    assert untimed.written_out(Nowhere()) == untimed  # type: ignore[arg-type]


def test_a_zone_that_is_known_no_more_leaves_the_rest_of_the_wish() -> None:
    """Names go out of the tz database; what was recorded with one is read all the same."""
    gone = wanted(volume_ml=600, minutes="20:00").model_copy(update={"time_zone": "Atlantis/Nowhere"})
    found = board((0, started()), (10, gone))
    assert all(moment.problem is None for moment in found.timeline.moments)
    asked = found.timeline.asked
    assert asked.ready_by is None
    assert asked.wanted is not None
    assert asked.wanted.volume_ml == 600
