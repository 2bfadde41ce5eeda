"""Kept warm on the pass: what steams away is given back, and it stays the sauce it was."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import EVENING, PAN, event, in_words, pot, refused
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import SpissusError
from spissus_core.learning.rates import taught_rate
from spissus_core.phenomena.evaporation import simmering_rate_g_min

from .test_palate import right

#: Right in every way, by spoon and tongue.
SPOONS = ev.Tested(of="body", verdict="right", again="right")
DONE = (*right(), SPOONS, SPOONS, ev.Tested(of="salt", verdict="right", twice=True))


def held(celsius: float = 70.0, cover: str = "open") -> ev.Heated:
    return ev.Heated.model_validate({"heat": "hold", "hold_c": celsius, "cover": cover})


def board(log: list[ev.Event], minute: float) -> Board:
    return Board(log, EVENING + timedelta(minutes=minute))


def of(*steps: ev.Kind) -> list[ev.Event]:
    return [event(seq, step) for seq, step in enumerate(steps, 1)]


@pytest.mark.parametrize(
    ("celsius", "least", "most"), [(57, 1.7, 3.4), (65, 2.5, 5.0), (75, 3.9, 7.8), (85, 6.0, 12.0)]
)
def test_what_leaves_an_open_pan_is_what_the_pool_relation_says(celsius: float, least: float, most: float) -> None:
    """Handbook of the trade, section 13: a pan of 24 cm, times 1 to 2."""
    assert least <= simmering_rate_g_min(PAN.area_mm2(20.0), celsius).best <= 2.0 * least


def test_an_hour_open_costs_what_the_trade_says_and_under_a_lid_hardly_anything() -> None:
    """900 mL at 70 °C for an hour: 190 to 370 mL open, 10 to 40 mL under a lid (handbook, section 13)."""
    for cover, least, most in (("open", 150.0, 370.0), ("tight", 8.0, 40.0)):
        log = of(*DONE, held(70.0, cover))
        start = board(log, len(log)).timeline.pot
        later = board(log, len(log) + 60).timeline.pot
        assert start is not None
        assert later is not None
        assert least < start.contents.liquid_ml - later.contents.liquid_ml < most, cover


def test_ninety_minutes_on_the_pass_it_is_kept_the_sauce_it_was() -> None:
    log = of(*DONE, held())
    now, looks = float(len(log)), 0
    before = board(log, now).timeline.pot
    end = now + 90.0
    while now < end:
        found = board(log, now)
        act = found.act
        assert act.kind == "hold", in_words(act.said(found.timeline))
        assert act.look_at is not None
        now = min(max((act.look_at - EVENING).total_seconds() / 60.0, now + 1.0), end)
        due = board(log, now)
        answer = due.act.answers(due.timeline)[0].event
        assert isinstance(answer, ev.Added)
        log.append(event(len(log) + 1, answer, minute=now))
        looks += 1
        stands = board(log, now + 0.1).timeline.pot
        assert before is not None
        assert stands is not None
        assert stands.contents.salt_percent == pytest.approx(before.contents.salt_percent, abs=0.06)
        assert stands.contents.liquid_ml == pytest.approx(before.contents.liquid_ml, rel=0.06)
    assert 3 <= looks <= 12


def test_it_says_how_much_steams_away_and_when_to_look() -> None:
    found = board(of(*DONE, held(70.0, "open")), len(DONE) + 1)
    said = in_words(found.act.said(found.timeline))
    assert said.startswith("Kept at 70 °C: about ")
    assert "a lid" in said
    under_lid = board(of(*DONE, held(70.0, "tight")), len(DONE) + 1)
    assert "a lid" not in in_words(under_lid.act.said(under_lid.timeline))


def test_under_the_limit_it_is_warmed_or_cooled_and_not_held() -> None:
    for steps in ((*DONE, held(50.0)), (*DONE, held(70.0), ev.Probed(celsius=51))):
        found = board(of(*steps), len(steps))
        assert "over 57 °C" in in_words(found.act.said(found.timeline)), in_words(found.act.said(found.timeline))
    warm = board(of(*DONE, held(70.0), ev.Probed(celsius=63)), len(DONE) + 2)
    assert "over 57 °C" not in in_words(warm.act.said(warm.timeline))


def test_butter_is_kept_cooler_than_it_parts_at() -> None:
    butter = ev.Added(ingredient="butter", mass_g=20)
    found = board(of(*DONE, butter, SPOONS, SPOONS, held(85.0)), len(DONE) + 4)
    assert "Butter is in it: above 80 °C it parts." in in_words(found.act.said(found.timeline))


def test_what_was_kept_warm_teaches_nothing_of_the_stove() -> None:
    log = of(*DONE, held())
    for minute in (30.0, 60.0):
        read = ev.Read.model_validate({"measured": {"method": "jug", "value": 480 - minute, "hot": True}})
        log.append(event(len(log) + 1, read, minute=len(log) + minute))
    log.append(event(len(log) + 1, ev.Finished(), minute=200))
    assert taught_rate(board(log, 201).timeline) is None
    assert pot().hot


@pytest.mark.parametrize("celsius", [-40.0, 5.0, 39.0, 96.0, 300.0])
def test_nobody_calls_that_kept_warm(celsius: float) -> None:
    with refused(SpissusError, "Kept warm is between 40 °C"):
        held(celsius).check(board(of(*DONE), 9.0).timeline)
    # Recorded once all the same, it leaves its batch readable.
    assert not board(of(*DONE, held(celsius)), 60.0).faults
