"""Limits by place: the same pot is judged by the rules of where it stands, and by a kitchen's own stricter ones.

Outside values: FDA Food Code 2022 §3-501.14, §3-501.16 and §3-403.11; Food Safety and Hygiene (England) Regulations
2013, Sch. 4; Food Hygiene (Scotland) Regulations 2006, Sch. 4; CAC/RCP 39-1993.
"""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from makers import EVENING, event, in_words, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import MeasurementError
from spissus_core.phenomena.chilling import CHILLING, chilled
from spissus_core.phenomena.cooling import Reading, judge
from spissus_core.phenomena.limits import PLACES, USUAL, Limits
from spissus_core.planning.safety import kitchen_limits, local_rules
from spissus_core.planning.spoken import rest_line
from spissus_core.planning.warming_again import again

from .test_holding import DONE, held, of


def at(place: str, **more: Any) -> ev.Started:
    """A start in a kitchen of that place."""
    return started("2.4 l", **more).model_copy(update={"limits": PLACES[place].limits})


def cooled(place: str) -> tuple[tuple[float, float], ...]:
    return tuple((due.celsius, due.minutes) for due in PLACES[place].limits.cooled)


def test_the_limits_are_those_that_were_published() -> None:
    assert (USUAL.starts_c, cooled("us"), USUAL.hold_c, USUAL.reheat_c) == (57, ((21, 120), (5, 360)), 57, 74)
    assert (PLACES["england"].limits.hold_c, cooled("england")) == (63, ((8, 90),))
    assert PLACES["scotland"].limits.reheat_c == 82
    assert cooled("codex") == ((10, 120),)
    assert all(place.source for place in PLACES.values())


#: A log of a pot, minutes and °C, and what each place says of it.
LOGS = [
    # From the heat to 8 °C in two hours: in time by the American clock, not by ninety minutes.
    ([(0, 80), (20, 57), (60, 30), (90, 18), (120, 8), (240, 4.8)], {"us": "done", "england": "missed"}),
    # The same pot within eighty-five minutes of 63 °C.
    ([(0, 63), (40, 25), (85, 7.5)], {"england": "done", "scotland": "done", "us": "in_time"}),
    # 60 °C: the clock of England runs already, that of the United States does not.
    ([(0, 60)], {"us": "above", "england": "unknown", "codex": "unknown"}),
    # At 10 °C after 115 minutes it is done where nothing colder is asked within a time.
    ([(0, 60), (60, 24), (115, 10)], {"codex": "done", "france": "done", "us": "in_time", "england": "missed"}),
]


@pytest.mark.parametrize(("readings", "verdicts"), LOGS)
def test_one_log_is_judged_by_the_place(readings: list[tuple[float, float]], verdicts: dict[str, str]) -> None:
    log = [Reading(minute, celsius) for minute, celsius in readings]
    found = {place: judge(log, 1.0, PLACES[place].limits).verdict for place in verdicts}
    assert found == verdicts


def test_a_batch_is_judged_by_the_limits_that_it_began_with() -> None:
    def stands(start: ev.Started) -> tuple[str, ...]:
        log = [event(1, start, minute=0), event(2, ev.Cooling(celsius=63, surroundings_c=1), minute=10)]
        log += [event(3, ev.Probed(celsius=7.9), minute=105), event(4, ev.Heated(heat="boil"), minute=106)]
        return tuple(concern.kind for concern in Board(log, log[-1].at).timeline.table.concerns)

    assert stands(at("england")) == ("cooling",)
    assert stands(started("2.4 l")) == ()


def test_sixty_on_the_pass_is_hot_enough_in_one_place_alone() -> None:
    def says(place: str) -> str:
        begun = DONE[0].model_copy(update={"limits": PLACES[place].limits})
        log = of(begun, *DONE[1:], held(60.0, "tight"))
        board = Board(log, log[-1].at)
        return in_words(board.act.doing.said(board.timeline))

    assert "over 63 °C" in says("england")
    assert "57" not in says("us")


def test_cold_slices_at_seventy_six_are_not_ready_in_scotland() -> None:
    steps = (wanted(600), ev.MeatIn(cut="slices", mass_g=600, cold=True), ev.MeatProbed(celsius=76))
    meat = {place: told(at(place), *steps).meat for place in ("us", "scotland")}
    assert {place: one and one.done for place, one in meat.items()} == {"us": True, "scotland": False}


def test_what_curdles_below_the_limit_is_not_told_to_be_warmed() -> None:
    assert "82 °C" in in_words(again("yolk", PLACES["scotland"].limits))
    assert "cold" in in_words(again("yolk", PLACES["scotland"].limits))
    assert "74 °C" in in_words(again("yolk", USUAL))


def test_where_one_figure_is_due_one_is_named() -> None:
    rest = told(at("england"), wanted(600), ev.Parted(volume_ml=1000, purpose="aside", how="under"))
    line = in_words(rest_line(rest) or "")
    assert "above 63 °C" in line
    assert "8 °C by" in line
    assert "21" not in line


def test_ninety_minutes_take_more_than_a_fridge() -> None:
    pan = started().pan
    for place, makes in (("us", "in_time"), ("england", "in_time")):
        assert chilled(CHILLING["bath"], 1500.0, pan, PLACES[place].limits).makes == makes
    assert chilled(CHILLING["trays"], 1500.0, pan, PLACES["us"].limits).makes == "in_time"
    assert chilled(CHILLING["trays"], 1500.0, pan, PLACES["england"].limits).makes == "too_slow"


@pytest.mark.parametrize(
    ("own", "complaint"),
    [
        ({"hold_c": 55.0}, "63.*85"),
        ({"reheat_c": 60.0}, "75.*85"),
        ({"cold_c": 12.0}, "0.*8 °C"),
        ({"cold_min": 240.0}, "15 min.*90|1 h"),
        ({"hold_c": 99.0}, "85"),
    ],
)
def test_a_kitchen_may_be_stricter_and_no_laxer(own: dict[str, float], complaint: str) -> None:
    with refused(MeasurementError, complaint):
        PLACES["england"].limits.stricter(**own)


def test_a_kitchens_own_figures_stand_in_every_sentence() -> None:
    own = PLACES["england"].limits.stricter(hold_c=65.0, cold_c=5.0, cold_min=80.0)
    said = " ".join(in_words(line) for line in kitchen_limits(own))
    assert "65 °C" in said
    assert "5 °C within 80 min" in said
    assert "local" in said.lower()
    assert own.label in in_words(local_rules(own))


@given(place=st.sampled_from(sorted(PLACES)), hold=st.floats(0, 20), cold=st.floats(0, 5), sooner=st.floats(0, 60))
def test_what_is_stricter_never_passes_what_the_place_fails(
    place: str, hold: float, cold: float, sooner: float
) -> None:
    limits = PLACES[place].limits
    own = limits.stricter(
        hold_c=min(limits.hold_c + hold, 85.0),
        cold_c=max(limits.cold.celsius - cold, 0.0),
        cold_min=max(limits.cold.minutes - sooner, 15.0),
    )
    assert Limits.model_validate(own.model_dump(mode="json")) == own
    log = [Reading(m, 1.0 + 70.0 * 0.5 ** (m / 25.0)) for m in (0, 30, 60, 90, 120)]
    if judge(log, 1.0, limits).verdict == "missed":
        assert judge(log, 1.0, own).verdict == "missed"


def test_what_the_rest_must_be_by_is_the_places() -> None:
    after = told(at("england"), wanted(600), ev.Parted(volume_ml=1000, purpose="aside", how="under"))
    jar = ev.PutBy.model_validate({"jar": "00000000-0000-0000-0000-000000000007", "what": "rest", "place": "fridge"})
    put = jar.apply(after, EVENING + timedelta(minutes=5)).shelf[0]
    assert after.rest is not None
    assert put.cold_by == after.rest.since + timedelta(minutes=90)
