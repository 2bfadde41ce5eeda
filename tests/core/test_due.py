"""What is due: one is reminded of what must be cold in time, until it is cold, and never of what is."""

from __future__ import annotations

import pytest
from makers import EVENING, PAN, event, fold, in_words
from spissus_core import events as ev
from spissus_core.phenomena.chilling import CHILLING, chilled, covered_c
from spissus_core.planning.due import REMINDED_BEFORE, due, reminder

from .test_keeping import TAKEN, put_by


def after(*steps: ev.Kind) -> ev.State:
    """The batch with those at minutes 4, 5, 6 and so on."""
    return fold([event(n, one, minute=float(n)) for n, one in enumerate((*TAKEN, *steps), start=1)]).seen


def test_what_stands_aside_warm_is_due_at_each_limit_and_sounds_before_it() -> None:
    seen = after(ev.RestIs(rest="cooling"))
    first, last = due(seen)
    assert first.at < last.at
    assert {one.what for one in due(seen)} == {"cold"}
    at, said = reminder(seen) or pytest.fail("nothing sounds")
    assert at == first.at - REMINDED_BEFORE
    assert in_words(said).startswith("What stands aside: 21")


def test_it_sounds_again_when_it_is_due_and_then_for_the_next_limit() -> None:
    begun = after(ev.RestIs(rest="cooling"))
    first, last = due(begun)
    minute = (first.at - EVENING).total_seconds() / 60.0

    def heard(at_minute: float) -> object:
        steps = [event(n, one, minute=float(n)) for n, one in enumerate((*TAKEN, ev.RestIs(rest="cooling")), start=1)]
        hushed = event(9, ev.Hushed(due=first.at), minute=at_minute)
        found = reminder(fold([*steps, hushed]).seen)
        return found and found[0]

    assert heard(minute - 15.0) == first.at
    assert heard(minute + 1.0) == last.at - REMINDED_BEFORE
    assert heard(minute + 24 * 60.0) is None


def test_a_probe_below_a_limit_ends_its_reminder_and_cold_ends_all() -> None:
    probed = after(ev.RestIs(rest="cooling", celsius=18.0, surroundings_c=4.0))
    assert len(due(probed)) == 1
    for rest in ("hot", "cold", "gone"):
        assert due(after(ev.RestIs(rest=rest))) == ()  # type: ignore[arg-type]


def test_what_is_kept_has_its_date_and_sounds_only_while_it_is_warm() -> None:
    warm, cold = after(put_by(place="fridge")), after(ev.RestIs(rest="cold"), put_by(place="fridge"))
    assert [one.what for one in due(warm)] == ["cold", "used"]
    assert [one.what for one in due(cold)] == ["used"]
    assert reminder(warm) is not None
    assert reminder(cold) is None
    assert reminder(after()) is not None, "nobody said what became of it"


def test_two_pots_cool_sooner_than_one_and_what_rests_covered_stays_hot() -> None:
    whole, split = (chilled(CHILLING[key], 3000.0, PAN) for key in ("fridge", "split"))
    assert split.minutes[-1].best < whole.minutes[-1].best
    assert 70.0 < covered_c(600.0, PAN, 95.0, 10.0) < 95.0
    assert covered_c(600.0, PAN, 95.0, 600.0) == pytest.approx(21.0, abs=1.0)
