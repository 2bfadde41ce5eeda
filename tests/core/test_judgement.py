"""Judgement: what is proposed first, what a spoon and a tongue teach, and what is never said."""

from __future__ import annotations

import itertools
import math
import re
from datetime import timedelta
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from makers import EVENING, braise, event, fold, in_words, pot, read, refused, started, told, wanted
from pydantic import ValidationError
from scipy.stats import norm
from spissus_core import events as ev
from spissus_core.estimation.spoon import belief
from spissus_core.events.alarm import quiet
from spissus_core.events.judging import SIGNS
from spissus_core.fold import Timeline
from spissus_core.ledger.water import HOT_EXPANSION
from spissus_core.measuring.vessels import SHALLOW_MM, Pan
from spissus_core.pantry.ways import WAYS
from spissus_core.phenomena.seasoning import SAUCE, tasted
from spissus_core.planning.acts import next_act
from spissus_core.planning.acts.salt import NEAR_LIKING
from spissus_core.planning.bench import Bench
from spissus_core.planning.plan import plan
from spissus_core.planning.proposing import solve_routes, suggested
from spissus_core.pot import Pot

START = started("1.6 l")
WAY = (START, wanted(900), ev.Chosen(route="all-volume-white_roux"))
LOW, RIGHT, HIGH = (ev.Tested(of="body", verdict=verdict) for verdict in ("low", "right", "high"))


def flour(grams: float) -> ev.Thickened:
    return ev.Thickened(thickener="white_roux", dry_g=grams)


# -- a drawn spoon that looks like the cook's ------------------------------------------------------

BOUND = (*WAY, read("scale", "2340 g"), flour(16))


def like(step: int) -> ev.Tested:
    return ev.Tested(of="body", step=step)


@pytest.mark.parametrize(("one", "other"), [("low", "low"), ("low", "right"), ("right", "high")])
def test_two_spoonfuls_at_once_are_two_one_after_the_other(one: Any, other: Any) -> None:
    bound = told(*WAY, read("scale", "2340 g"), flour(16))
    assert len(next_act(bound).answers(bound)) == 5
    first, second = (ev.Tested(of="body", verdict=verdict) for verdict in (one, other))
    both = ev.Tested(of="body", verdict=one, again=other).apply(bound, EVENING)
    assert both == second.apply(first.apply(bound, EVENING), EVENING)
    assert both.judged.body == (one, other)
    with pytest.raises(ValidationError, match="twice_by_one_word"):
        ev.Tested(of="body", verdict="right", twice=True)
    with pytest.raises(ValidationError, match="a_second_spoon"):
        ev.Tested(of="salt", verdict="right", again="right")


@pytest.mark.parametrize(("step", "verdict"), [(0, "low"), (2, "low"), (3, "right"), (4, "high"), (5, "high")])
def test_a_drawn_spoon_is_a_verdict_on_what_is_wanted(step: int, verdict: str) -> None:
    assert told(*BOUND, like(step)).judged.body[-1] == verdict


def test_the_further_a_spoon_is_off_the_more_it_teaches() -> None:
    strengths = [told(*BOUND, like(step)).pot for step in range(6)]
    thick = [one.strength.thickener for one in strengths if one is not None]
    assert thick == sorted(thick)
    assert thick[0] < 1.0 < thick[-1]
    # One step off says no more than "too thin" does; two are answered with flour, and three with more of it.
    assert next_act(told(*BOUND, like(2))).kind == next_act(told(*BOUND, LOW)).kind != "thicken"
    far, farther = (next_act(told(*BOUND, like(step), like(step))) for step in (1, 0))
    assert farther.dry_g > far.dry_g > 5.0


def test_a_spoon_is_told_by_a_word_or_by_its_likeness_and_a_taste_has_none() -> None:
    for wrong in (
        {"of": "body"},
        {"of": "body", "verdict": "low", "step": 2},
        {"of": "salt", "step": 2},
        {"of": "salt"},
    ):
        with refused(ValidationError, "too thin, right|to the tongue"):
            ev.Tested.model_validate(wrong)
    # What was once recorded is read back, and what no ladder has any more takes nothing else with it.
    assert isinstance(ev.recorded({"kind": "tested", "of": "body", "step": 1}, ev.VERSION), ev.Tested)
    odd = [
        ev.recorded({"kind": "tested", "of": of, "step": step}, ev.VERSION)
        for of in ("body", "salt")
        for step in (2, 99)
    ]
    assert told(*BOUND, *odd).pot is not None
    # Before anything is wished for it is evidence all the same.
    before = told(START, like(4))
    assert before.judged.body == ()
    assert len(before.judged.spoons) == 1


# -- the first proposal ---------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("salt", "liquid_ml", "gelatin"), list(itertools.product((0.3, 0.9, 1.2), (300.0, 1500.0, 6000.0), (3.0, 24.0)))
)
def test_every_pot_gets_a_way_that_ends_at_the_salt_that_is_liked(
    salt: float, liquid_ml: float, gelatin: float
) -> None:
    share = liquid_ml / 1000.0
    contents = braise(
        liquid_ml,
        salt=10.0 * salt * share,
        gelatin=gelatin * share,
        sugar=10 * share,
        other=12 * share,
        acid=3 * share,
        pulp=share,
    )
    one = pot(contents)
    for wish in (suggested(one), wanted(min(0.6 * liquid_ml, 900.0))):
        best = solve_routes(one, wish)[0]
        assert best.feasible
        assert best.salt_after.best == pytest.approx(wish.salt_percent, abs=0.1)
        assert best.volume_ml >= 0.95 * wish.amount_ml
        # It never ends at the ceiling to be watered down.
        assert best.salt_before.best < wish.ceiling_percent - 0.1


def test_much_more_than_is_needed_is_taken_in_part_and_too_little_is_stretched() -> None:
    big = pot(braise(5000, salt=30.0))
    best = solve_routes(big, wanted(450))[0]
    assert WAYS[best.kind].part
    assert best.aside_ml > 3500
    little = pot(braise(600, salt=5.0))
    best = solve_routes(little, wanted(900))[0]
    assert best.let_down_ml > 150
    assert best.volume_ml == pytest.approx(900, rel=0.01)


def test_a_pot_that_is_thick_already_is_not_boiled_to_be_let_down_again() -> None:
    thick = (started("900 ml", character="milled", salt={"by": "meter", "percent": 0.4}), wanted(500, body=1))
    act = next_act(told(*thick, ev.Chosen(route="all-volume-white_roux")))
    assert act.kind != "boil" or act.mark.ml > 600


def test_salt_that_nobody_knows_is_tasted_before_anything_is_planned() -> None:
    unknown = started("1.6 l", salt={"by": "stock", "stock": "salted"})
    act = next_act(told(unknown))
    assert (act.kind, act.why) == ("test_salt", "unknown")
    assert next_act(told(unknown, ev.Tested(of="salt", verdict="right"))).kind == "want"
    assert next_act(told(unknown, ev.Metered(percent=0.8))).kind == "want"


# -- the spoon ------------------------------------------------------------------------------------


def believed(*happened: ev.Kind) -> Pot:
    found = told(*WAY, *happened).pot
    assert found is not None
    return found


def test_too_thin_twice_asks_for_more_and_teaches_that_the_flour_is_weak() -> None:
    once = told(*WAY, read("scale", "2360 g"), flour(16), LOW, LOW)
    first = next_act(once)
    again = told(*WAY, read("scale", "2360 g"), flour(16), LOW, LOW, flour(first.dry_g), LOW, LOW, LOW, LOW)
    second = next_act(again)
    assert first.kind == second.kind == "thicken"
    assert first.dry_g + second.dry_g > 0.6 * 16
    assert once.pot is not None
    assert again.pot is not None
    assert again.pot.strength.thickener < once.pot.strength.thickener < 1.0
    # What is in the pot is what went in, whatever it is thought to do.
    assert again.pot.contents.starch["wheat"] == pytest.approx(16 + first.dry_g)


def test_right_is_asked_again_while_the_ledger_doubts_it_and_is_never_watered() -> None:
    agreed = told(*WAY, read("scale", "2360 g"), flour(27), RIGHT, RIGHT, RIGHT)
    assert next_act(agreed).kind == "test_salt"
    for rights in range(1, 6):
        act = next_act(told(*WAY, read("scale", "2360 g"), flour(60), *[RIGHT] * rights))
        assert act.kind in ("test_body", "test_salt")
        assert act.kind == "test_salt" or act.why == "once_more"
    assert act.kind == "test_salt"


def test_too_thick_is_let_down_by_the_gap_and_seen_again() -> None:
    bit, lot = (next_act(told(*WAY, read("scale", "2360 g"), flour(grams), *[HIGH] * 4)) for grams in (34, 80))
    assert bit.kind == lot.kind == "let_down"
    assert 60 < bit.volume_ml < 400
    after = told(
        *WAY, read("scale", "2360 g"), flour(55), HIGH, HIGH, ev.Added(ingredient="water", volume_ml=lot.volume_ml)
    )
    spoon = next_act(after)
    assert spoon.kind == "test_body"
    # Nothing is boiled away again.
    assert after.stove.window is None or after.stove.window.setting.heat != "boil" or not after.stove.window.heating


def test_a_waiting_thickener_has_its_time() -> None:
    act = next_act(told(*WAY, read("scale", "2360 g"), flour(16)))
    whisked = told(*WAY, read("scale", "2360 g"), flour(16)).moments[-1].event.at
    assert act.kind == "test_body"
    assert act.look_at == whisked + timedelta(minutes=5)


def test_a_body_that_was_not_foreseen_is_learned_apart_from_the_thickener() -> None:
    thick = told(START, wanted(900), HIGH, HIGH).pot
    thin = told(START, wanted(900), LOW, LOW).pot
    assert thick is not None
    assert thin is not None
    assert thick.strength.before > thin.strength.before
    assert thick.strength.thickener == pytest.approx(1.0, abs=0.02)


# -- the tongue -----------------------------------------------------------------------------------

BOUND = (*WAY, read("scale", "2360 g"), flour(27), read("scale", "2410 g"), *[RIGHT] * 5)


def taste(verdict: str) -> ev.Tested:
    return ev.Tested.model_validate({"of": "salt", "verdict": verdict})


def test_a_taste_moves_salt_and_liking_as_far_as_each_is_unsure() -> None:
    known, unsure = started("1.6 l"), started("1.6 l", salt={"by": "taste", "verdict": "nearly"})
    for start in (known, unsure):
        before, after = told(start, wanted(900)), told(start, wanted(900), taste("flat"))
        assert before.pot is not None
        assert after.pot is not None
        assert after.pot.contents.salt <= before.pot.contents.salt
        assert after.pot.salt_error < before.pot.salt_error
    loose, tight = (_moved(start) for start in (unsure, known))
    assert loose > 2.0 * tight


def _moved(start: ev.Started) -> float:
    """How far a taste that says too salty moves the salt, as a share."""
    before, after = told(start, wanted(900)).pot, told(start, wanted(900), taste("too_salty")).pot
    assert before is not None
    assert after is not None
    return after.contents.salt / before.contents.salt - 1.0


def test_a_single_right_against_the_ledger_is_asked_once_more_and_three_have_it() -> None:
    salty = (*BOUND, ev.Salted(salt_g=2.8))
    first = next_act(told(*salty, taste("right")))
    assert (first.kind, first.why) == ("test_salt", "once_more")
    assert next_act(told(*salty, *[taste("right")] * 3)).kind == "finish"


@pytest.mark.parametrize(
    ("gap", "error", "verdict", "times"), [(0.1, 0.2, "right", 1), (-0.3, 0.1, "nearly", 2), (0.3, 5.0, "salty", 1)]
)
def test_a_taste_is_weighed_as_scipy_integrates_it(gap: float, error: float, verdict: str, times: int) -> None:
    low, high = SAUCE.ends[verdict]
    at = np.linspace(gap - 9.0 * error, gap + 9.0 * error, 400_001)
    off = SAUCE.error / times**0.5
    weights = norm.pdf(at, gap, error) * (norm.cdf((high - at) / off) - norm.cdf((low - at) / off))
    mean = (weights * at).sum() / weights.sum()
    spread = ((weights * (at - mean) ** 2).sum() / weights.sum()) ** 0.5
    assert tasted(gap, error, verdict, SAUCE, times) == pytest.approx((mean, spread), rel=1e-6)


def test_too_salty_is_let_down_by_what_the_evidence_says() -> None:
    bit = next_act(told(*BOUND, ev.Salted(salt_g=1.5), *[taste("salty")] * 3))
    lot = next_act(told(*BOUND, ev.Salted(salt_g=3), *[taste("too_salty")] * 3))
    assert bit.kind == lot.kind == "let_down"
    assert lot.volume_ml > 1.2 * bit.volume_ml
    assert lot.why == "too_salty"


# -- never against its own figures ----------------------------------------------------------------


def test_nothing_is_boiled_past_the_salt_that_is_liked() -> None:
    salty = (
        started("1.6 l", salt={"by": "meter", "percent": 0.9}),
        wanted(900),
        ev.Chosen(route="all-volume-white_roux"),
    )
    act = next_act(told(*salty))
    timeline = told(*salty)
    assert timeline.pot is not None
    if act.kind in ("boil", "heat"):
        at_mark = 100.0 * timeline.pot.contents.salt / (act.mark.ml * timeline.pot.contents.density_g_ml)
        assert at_mark < 0.9 + 0.2
    metered = next_act(told(*salty, ev.Metered(percent=1.45, because="salted")))
    assert (metered.kind, metered.why) == ("let_down", "too_salty")


@pytest.mark.parametrize("percent", [0.5, 0.6, 0.7, 0.8])
def test_what_is_boiled_to_its_mark_is_not_let_down_again(percent: float) -> None:
    """Nothing is boiled away only to be poured back; nor when the cook comes a little late to the mark."""
    way = (
        started("1.6 l", salt={"by": "meter", "percent": percent}),
        wanted(700),
        ev.Chosen(route="all-volume-white_roux"),
    )
    first = next_act(told(*way))
    mark = first.mark.ml
    # Short of the plan, it is said why.
    whole = plan(told(*way))
    assert whole is not None
    assert (first.why == "salt_binds") == (mark > 1.03 * whole.boil_to_ml)
    for share in (1.0, 0.98):
        there = next_act(told(*way, read("jug", f"{share * mark * HOT_EXPANSION:.0f} ml")))
        assert there.why != "too_salty", (there.kind, share)


def test_a_late_look_says_that_it_has_probably_gone_past() -> None:
    def act(minutes: float) -> tuple[str, str | None]:
        events = [event(i, kind, minute=0) for i, kind in enumerate(WAY, 1)]
        found = next_act(fold(events, EVENING + timedelta(minutes=minutes)))
        return found.kind, found.why

    assert act(5) == ("boil", None)
    assert act(45) == ("boil", "late")
    # Nobody saw it: nothing is stirred in or bound before somebody has.
    assert act(300) == ("boil", "late")


def test_the_pot_goes_on_between_every_two_events() -> None:
    """A note, a taste and an addition find the pot where it is thought to be by then, not where it was read last."""
    log = [event(i, kind, minute=0) for i, kind in enumerate(WAY, 1)]

    def liquid(*more: tuple[float, ev.Kind]) -> float:
        found: Timeline = fold([*log, *(event(9 + i, kind, minute=m) for i, (m, kind) in enumerate(more))])
        assert found.pot is not None
        return found.pot.contents.liquid_ml

    noted = liquid((10, ev.Noted(text="smells good")))
    assert noted < liquid() - 150
    assert liquid((10, ev.Added(ingredient="water", volume_ml=100))) == pytest.approx(noted + 100, rel=0.01)
    assert liquid((5, ev.Noted(text="a")), (10, ev.Noted(text="b"))) == pytest.approx(noted, rel=1e-6)


def test_what_simmers_under_its_lid_loses_steam_too() -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate((*WAY, read("scale", "2360 g"), flour(16)), 1)]
    soon, later, much = (fold(log, EVENING + timedelta(minutes=m)).pot for m in (6, 16, 90))
    assert soon is not None
    assert later is not None
    lost = soon.contents.liquid_ml - later.contents.liquid_ml
    assert 0.5 < lost < 20.0
    assert later.error_ml > soon.error_ml
    # Ten minutes is all that flour wants.
    assert much is not None
    assert much.contents.liquid_ml == pytest.approx(later.contents.liquid_ml)


def test_advice_is_never_smaller_than_it_can_be_measured() -> None:
    for happened in (
        (flour(26), LOW, LOW),
        (flour(27), RIGHT, RIGHT, RIGHT, taste("flat"), taste("flat")),
        (flour(28), HIGH, HIGH),
    ):
        act = next_act(told(*WAY, read("scale", "2360 g"), *happened))
        if act.kind == "thicken":
            assert act.dry_g >= 1.0
        if act.kind == "salt":
            assert act.salt_g >= 0.3
        if act.kind == "let_down":
            assert act.volume_ml >= 15.0


def test_a_belief_is_a_probability() -> None:
    spoons = told(*WAY, read("scale", "2360 g"), flour(16), LOW, flour(8), RIGHT).judged.spoons
    found = belief(spoons)
    chances = found.chances(spoons[-1].contents, 3)
    assert math.isclose(chances.low + chances.right + chances.high, 1.0, abs_tol=1e-9)
    assert float(found.weights.sum()) == pytest.approx(1.0)


# -- slips, and what stays doubtful ---------------------------------------------------------------


def test_a_slip_of_the_finger_is_taken_and_asked_about_until_it_is_answered() -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate((*BOUND, ev.Salted(salt_g=50)), 1)]
    slip = next_act(fold(log))
    assert slip.kind == "slip"
    assert slip.slip is not None
    assert (slip.slip.event, slip.slip.grams) == (log[-1].id, 50)
    later = [*log, event(20, ev.Noted(text="busy"), minute=20)]
    assert next_act(fold(later)).kind == "slip"
    meant = fold([*later, event(21, ev.Meant(event=log[-1].id, grams=5.0), minute=21)])
    assert next_act(meant).kind != "slip"
    right = fold([*later, event(21, ev.Meant(event=log[-1].id), minute=21)])
    assert meant.pot is not None
    assert right.pot is not None
    assert right.pot.contents.salt - meant.pot.contents.salt == pytest.approx(45)
    # Too salty is then what it is.
    assert next_act(right).kind != "slip"
    assert next_act(fold([*later, event(21, ev.Struck(event=log[-1].id), minute=21)])).kind != "slip"


def test_two_people_salting_within_two_minutes_are_asked() -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate(BOUND, 1)]
    twice = [*log, event(20, ev.Salted(salt_g=0.8), minute=20), event(21, ev.Salted(salt_g=0.8), minute=20.5)]
    act = next_act(fold(twice))
    assert act.kind == "slip"
    assert act.slip is not None
    assert act.slip.twice
    apart = [*log, event(20, ev.Salted(salt_g=0.8), minute=20), event(21, ev.Salted(salt_g=0.8), minute=22.5)]
    assert next_act(fold(apart)).kind != "slip"


def test_a_failed_cooling_stays_with_the_pot_until_it_is_answered() -> None:
    happened = [
        (0, START),
        (0, wanted(900)),
        (1, ev.Cooling(celsius=80)),
        (30, ev.Probed(celsius=57)),
        (200, ev.Probed(celsius=35)),
        (700, ev.Skimmed(way="chill")),
        (710, ev.Chosen(route="all-volume-white_roux")),
        (720, ev.Finished()),
    ]
    log = [event(i, kind, minute=m) for i, (m, kind) in enumerate(happened, 1)]
    for upto in range(5, len(log) + 1):
        assert next_act(fold(log[:upto])).kind == "warn", log[upto - 1].payload.kind
    # Undoing anything but the reading leaves it where it is.
    assert next_act(fold([*log, event(30, ev.Struck(event=log[5].id), minute=730)])).kind == "warn"
    wrong = ev.Answered(concern="cooling", answer="in_order")
    assert next_act(fold([*log, event(30, wrong, minute=730)])).kind == "done"
    away = fold([*log, event(30, ev.Answered(concern="cooling", answer="thrown_away"), minute=730)])
    assert away.table.thrown_away
    assert not away.table.concerns


def test_butter_before_a_boil_is_said_and_stays() -> None:
    butter = (*BOUND, ev.Added(ingredient="butter", mass_g=40), ev.Heated(heat="boil"))
    assert next_act(told(*butter)).kind == "warn"
    assert next_act(told(*butter, ev.Noted(text="hm"))).kind == "warn"
    assert next_act(told(*BOUND, ev.Added(ingredient="butter", mass_g=40))).kind != "warn"
    assert (
        next_act(told(*butter, ev.Answered(concern="butter", answer="in_order"), ev.Heated(heat="off"))).kind != "warn"
    )


def test_a_cooling_that_was_vouched_for_is_not_asked_about_again() -> None:
    happened = [
        (0, START),
        (1, ev.Cooling(celsius=80)),
        (30, ev.Probed(celsius=57)),
        (200, ev.Probed(celsius=35)),
        (210, ev.Answered(concern="cooling", answer="in_order")),
        (300, ev.Probed(celsius=30)),
        (700, ev.Skimmed(way="chill")),
    ]
    log = [event(i, kind, minute=m) for i, (m, kind) in enumerate(happened, 1)]
    assert [next_act(fold(log[:n])).kind == "warn" for n in range(4, 8)] == [True, False, False, False]


def test_every_slip_is_asked_about_one_after_the_other() -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate((*BOUND, ev.Salted(salt_g=20)), 1)]
    both = [*log, event(30, ev.Salted(salt_g=60), minute=30)]
    first = next_act(fold(both))
    assert (first.kind, first.slip.grams) == ("slip", 20)
    second = next_act(fold([*both, event(31, ev.Meant(event=log[-1].id), minute=31)]))
    assert second.kind == "slip"
    assert second.slip.grams == pytest.approx(60)


def test_who_says_that_it_was_not_on_has_lost_nothing() -> None:
    log = [event(i, kind, minute=0) for i, kind in enumerate(WAY, 1)]
    before = fold(log).pot
    late = fold([*log, event(9, ev.Heated(heat="off", never_on=True), minute=40)])
    assert before is not None
    assert late.pot is not None
    assert late.pot.contents.water == pytest.approx(before.contents.water)
    assert late.pot.error_ml == pytest.approx(before.error_ml, rel=0.1)
    assert next_act(late).kind == "heat"
    on = fold([*log, event(9, ev.Heated(heat="off", never_on=True), minute=40), event(10, ev.Heated(), minute=41)])
    assert next_act(on).kind == "boil"


def test_what_fails_while_doubts_are_weighed_takes_no_batch_with_it(monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise ZeroDivisionError("no doubt")

    monkeypatch.setattr("spissus_core.events.doubts.judge", broken)
    timeline = told(START, ev.Cooling(celsius=80), ev.Probed(celsius=60), ev.Skimmed(way="chill"))
    assert timeline.pot is not None
    assert all(moment.stands for moment in timeline.moments)


def test_right_by_the_spoon_and_thin_by_the_ledger_is_asked_once_more_and_then_left() -> None:
    bound = (*WAY, read("scale", "2360 g"), flour(14))
    acts = [next_act(told(*bound, *[RIGHT] * rights)) for rights in range(1, 6)]
    assert [act.why for act in acts[:2]] == ["once_more"] * 2
    assert acts[-1].kind not in ("test_body", "thicken")


def test_what_boils_for_as_long_as_there_is_time_is_bound_once_that_is_over() -> None:
    happened = [
        (1, started("1.8 l", fat_ml=0)),
        (2, wanted(700, minutes=12.0)),
        (3, ev.Chosen(route="all-time-corn_starch_own")),
        (8, read("jug", "1680 ml")),
        (16, read("jug", "1600 ml")),
    ]
    log = [event(seq, kind, minute=minute) for seq, (minute, kind) in enumerate(happened, 1)]
    assert next_act(fold(log[:3], EVENING + timedelta(minutes=3))).kind == "boil"
    # Late by now, it is not turned on again for as many minutes once more.
    assert next_act(fold(log, EVENING + timedelta(minutes=16))).kind not in ("boil", "heat", "take_off")


@pytest.mark.parametrize("percent", [0.0, 0.02, 3.0])
def test_who_wants_no_salt_is_told_what_comes_next(percent: float) -> None:
    start = started("1.6 l", salt={"by": "meter", "percent": percent})
    bound = (start, wanted(900, salt_percent=0.0), WAY[-1], read("scale", "2360 g"), flour(27), *[RIGHT] * 5)
    for tastes in range(3):
        act = next_act(told(*bound, *[taste("too_salty")] * tastes))
        assert act.kind in ("test_salt", "let_down", "finish")
        assert act.kind != "let_down" or act.volume_ml < 2000


def test_both_too_thin_is_answered_at_once_and_tongue_and_ledger_that_agree_have_it() -> None:
    bound = (*WAY, read("scale", "2360 g"), flour(16))
    assert next_act(told(*bound, LOW, LOW)).kind == "thicken"
    assert next_act(told(*bound, HIGH, HIGH)).kind == "test_body"
    agreed = told(*BOUND, ev.Tested(of="salt", verdict="right", twice=True))
    assert abs(Bench(agreed).over) <= NEAR_LIKING
    assert next_act(agreed).kind == "finish"


def test_what_was_let_down_is_not_boiled_away_again() -> None:
    salty = (started("1.2 l", salt={"by": "meter", "percent": 1.3}), wanted(600, body=2))
    for way in ("all-stretch-corn_starch_own", "part-volume-corn_starch_own"):
        timeline = told(*salty, ev.Chosen(route=way))
        act = next_act(timeline)
        happened = [ev.Chosen(route=way)]
        if act.kind == "take":
            happened.append(ev.Taken(volume_ml=act.volume_ml))
            act = next_act(told(*salty, *happened))
        assert act.kind == "let_down"
        # A good splash more than was said.
        happened.append(ev.Added(ingredient="water", volume_ml=1.3 * act.volume_ml))
        assert next_act(told(*salty, *happened)).kind in ("thicken", "test_body", "take")
    wine = told(*salty, ev.Chosen(route="all-stretch-corn_starch_own"), ev.Added(ingredient="red_wine", volume_ml=100))
    assert not wine.judged.boiled_enough


# -- the alarm ------------------------------------------------------------------------------------


def test_an_alarm_that_was_heard_is_quiet_until_something_is_done_about_it() -> None:
    log = [event(1, START), event(2, wanted(900)), event(3, ev.Chosen(route="all-volume-white_roux"))]
    due = next_act(fold(log)).look_at
    assert due is not None
    minute = (due - EVENING).total_seconds() / 60.0
    log.append(event(4, ev.Hushed(due=due), minute=minute + 0.5))
    # A note is done away from the pot, whenever it is written.
    for minutes_later, more, heard in (
        (0.0, None, True),
        (3.0, ev.Noted(text="smells good"), True),
        (1.0, read("jug", "1.4 l"), False),
    ):
        seen = fold([*log, *([event(5, more, minute=minute + 1.0 + minutes_later)] if more else [])])
        assert quiet(seen.seen, next_act(seen).look_at) is heard
    # The one after it rings again.
    assert not quiet(fold(log).seen, due + timedelta(minutes=8))


def test_a_taste_or_a_splash_before_the_fat_is_off_does_not_end_the_boiling() -> None:
    fatty = (started("1.6 l", fat_ml="80 ml"), wanted(900), ev.Chosen(route="all-volume-white_roux"))
    stock = ev.Added(ingredient="unsalted_stock", volume_ml=100)
    off = ev.Skimmed(way="separator")
    for early in (ev.Tested(of="salt", verdict="right"), ev.Tested(of="body", verdict="right"), stock):
        act = next_act(told(*fatty, early, off))
        assert act.kind == "boil", early
    # Nor does it before the part for the sauce is taken.
    pot_for_many = (started("5 l"), wanted(450), ev.Chosen(route="part-volume-white_roux"))
    assert next_act(told(*pot_for_many, stock)).kind == "take"


def test_what_boils_under_a_doubt_is_still_looked_at_in_its_time() -> None:
    act = next_act(told(START, wanted(900, avoid=("milk",)), ev.Chosen(route="all-volume-white_roux")))
    cream = ev.Added(ingredient="cream_heavy", volume_ml=30)
    doubted = next_act(told(START, wanted(900, avoid=("milk",)), ev.Chosen(route="all-volume-white_roux"), cream))
    assert (act.kind, doubted.kind, doubted.doing.kind) == ("boil", "warn", "boil")
    assert doubted.look_at == doubted.doing.look_at is not None
    assert doubted.doing.stage == act.doing.stage == "reduce"


# -- a mark stands still ---------------------------------------------------------------------------


@given(
    way=st.sampled_from(sorted(WAYS)),
    minutes=st.lists(st.floats(0.0, 120.0), min_size=2, max_size=4),
    read_at=st.sampled_from([None, 3.0, 12.0]),
    method=st.sampled_from(["scale", "dip", "jug"]),
    litres=st.sampled_from(["0.7 l", "1.6 l", "2.4 l"]),
    fat=st.sampled_from([0.0, 60.0]),
)
@settings(max_examples=120)
def test_the_mark_is_the_same_at_every_moment_between_two_entries(
    way: str, *, minutes: list[float], read_at: float | None, method: str, litres: str, fat: float
) -> None:
    start = started(litres, fat_ml=fat)
    wish = ev.Wanted(amount="half") if WAYS[way].stop == "told" else wanted(450)
    entries = [event(1, start), event(2, wish), event(3, ev.Chosen(route=way)), event(4, ev.Skimmed(way="separator"))]
    entries.append(event(5, ev.Heated(heat="boil")))
    if read_at is not None:
        pot = fold(entries, now=EVENING + timedelta(minutes=5.0 + read_at)).pot
        assert pot is not None
        shown = pot.reads(pot.contents)
        value = {"scale": shown.scale, "dip": shown.dip, "jug": shown.jug}[method]
        assert value is not None
        entries.append(event(6, read(method, value), minute=5.0 + read_at))
    began = 5.0 + (read_at or 0.0)
    marks = set()
    for minute in minutes:
        act = next_act(fold(entries, now=EVENING + timedelta(minutes=began + minute))).doing
        if act.kind == "boil" and act.mark is not None:
            scale = act.mark.reads.scale or 0.0
            figures = act.mark.ml, act.mark.reads.dip, act.mark.reads.jug, scale
            marks.add((act.reads_by, *(f"{figure:.3f}" for figure in figures)))
    assert len(marks) <= 1, marks


def test_past_the_mark_it_says_what_it_was_and_what_is_missing() -> None:
    entries = [
        event(1, started("1.6 l", fat_ml=0.0)),
        event(2, wanted(900)),
        event(3, ev.Chosen(route="all-volume-corn_starch_own")),
    ]
    entries.append(event(4, ev.Heated(heat="boil")))
    on_time = next_act(fold(entries, now=EVENING + timedelta(minutes=10)))
    late = fold(entries, now=EVENING + timedelta(minutes=60))
    act = next_act(late)
    assert act.why == "late"
    assert act.mark == on_time.mark
    line = in_words(act.overdue(late))
    assert act.mark is not None
    assert f"past the mark, {act.mark.reads.dip:.0f} mm" in line
    missing = re.search(r"probably (\d+) mL past the mark", line)
    assert missing is not None
    assert float(missing[1]) == pytest.approx(act.mark.ml - act.thought_ml, abs=5.0)


@pytest.mark.parametrize(
    ("one", "other", "asked"),
    [
        (ev.Added(ingredient="water", volume_ml=150), ev.Added(ingredient="water", volume_ml=150), True),
        (ev.Added(ingredient="water", volume_ml=150), ev.Added(ingredient="water", volume_ml=60), False),
        (ev.Added(ingredient="water", volume_ml=150), ev.Added(ingredient="butter", mass_g=150), False),
        (flour(8), flour(8), True),
        (flour(8), flour(3), False),
    ],
)
def test_the_same_addition_within_two_minutes_is_asked_about(one: ev.Kind, other: ev.Kind, *, asked: bool) -> None:
    log = [event(i, kind, minute=i) for i, kind in enumerate((*WAY, read("scale", "2340 g")), 1)]
    for later, soon in ((1.8, True), (2.5, False)):
        act = next_act(fold([*log, event(20, one, minute=20), event(21, other, minute=20 + later)]))
        assert (act.kind == "slip") == (asked and soon)


# -- a ruler in its place --------------------------------------------------------------------------


@pytest.mark.parametrize("empty_g", [None, 1200.0])
@pytest.mark.parametrize("litres", [0.5, 0.9, 1.4, 2.4])
@pytest.mark.parametrize("width", [200, 280, 360])
def test_no_mark_is_told_below_eight_millimetres(width: int, litres: float, empty_g: float | None) -> None:
    """In any pan a mark is a depth of eight millimetres or more, or it is told in another way."""
    pan = Pan.round("pan", width, 130, empty_g=empty_g)
    start = started(f"{litres} l").model_copy(update={"pan": pan})
    for share in (0.2, 0.35, 0.6):
        timeline = told(
            start, ev.Wanted(share=share, salt_percent=1.2, ceiling_percent=2.0), ev.Chosen(route="all-told-white_roux")
        )
        act = next_act(timeline)
        if act.kind not in ("boil", "heat"):
            continue
        assert act.mark is not None
        assert act.reads_by != "dip" or act.mark.reads.dip >= SHALLOW_MM
        words = in_words(act.said(timeline))
        depths = [float(found) for found in re.findall(r"(\d+) mm", words)]
        assert all(depth >= SHALLOW_MM for depth in depths), words


def test_no_dip_is_asked_for_where_it_tells_no_difference() -> None:
    """Less than two millimetres from the mark a ruler says nothing: the scale, a jug or the spoon does."""
    for empty_g in (None, 1200.0):
        pan = Pan.round("wide pan", 320, 130, empty_g=empty_g)
        start = started("32 mm", "dip").model_copy(update={"pan": pan})
        near = told(start, wanted(2300), ev.Chosen(route="all-volume-corn_starch_own"), read("dip", "30.5 mm"))
        act = next_act(near)
        if act.kind == "boil" and act.mark is not None and near.pot is not None:
            assert near.pot.depth_mm - act.mark.reads.dip >= 1.9 or act.measure in ("scale", "jug", "spoon")


def test_a_sign_that_says_nothing_is_not_asked_for() -> None:
    wine = ev.Added.model_validate({"ingredient": "red_wine", "amount": "1 cup"})
    for timeline in (told(started()), told(started(), wine)):
        assert all(SIGNS[key].says for key in ev.signs_asked(timeline))


# -- in the wrong order ----------------------------------------------------------------------------


def test_what_boils_for_nothing_is_taken_off_and_its_mark_does_not_run_away() -> None:
    """Turned on by somebody, on a way that only lets it down: it is taken off, and nothing else is said before."""
    salty = (started("1.8 l", fat_ml="0 ml", salt={"by": "meter", "percent": 1.3}), ev.Heated(heat="boil"))
    way = (*salty, wanted(800), ev.Chosen(route="all-stretch-corn_starch_own"))
    act = next_act(told(*way))
    assert act.kind == "take_off"
    (off,) = act.answers(told(*way))
    assert off.event is not None
    assert next_act(told(*way, off.event)).kind == "let_down"


def test_what_is_short_is_made_up_before_it_is_bound() -> None:
    """Looked at late: what went too far is stirred in again before spoon and thickener."""
    start = started("1.4 l", fat_ml="0 ml", salt={"by": "taste", "verdict": "nearly"})
    late = (start, wanted(700), ev.Chosen(route="all-taste-corn_starch_own"), read("jug", "640 ml"), taste("right"))
    act = next_act(told(*late))
    assert (act.kind, act.why) == ("let_down", "too_little")


def test_what_is_short_is_poured_back_before_water_goes_in() -> None:
    start = started("2 l", fat_ml="0 ml", salt={"by": "meter", "percent": 1.2})
    taken = (start, wanted(600), ev.Chosen(route="part-volume-corn_starch_own"), ev.Taken(volume_ml="300 ml"))
    batch = told(*taken, ev.Added(ingredient="water", volume_ml=90), taste("right"))
    act = next_act(batch)
    assert act.kind == "pour_back"
    (back, _) = act.answers(batch)
    assert back.event is not None
    after = told(*taken, ev.Added(ingredient="water", volume_ml=90), taste("right"), back.event)
    assert after.pot.contents.liquid_ml == pytest.approx(batch.pot.contents.liquid_ml + act.volume_ml, rel=0.01)
    assert after.judged.salt == ()
