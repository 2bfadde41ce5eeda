"""What stands aside has its clock; what does not bear a boil is asked about; what is ordered fits the pan."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import BURNER, EVENING, PAN, event, fold, in_words, log, potted, started, told, wanted
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.events.additions import DELICATE
from spissus_core.measuring.vessels import Pan
from spissus_core.messages import Message
from spissus_core.phenomena.limits import USUAL
from spissus_core.planning.acts import KINDS, Act, next_act
from spissus_core.planning.skimming import options
from spissus_core.planning.spoken import rest_line
from spissus_core.pot import FOAM_SHARE

START = started("1.6 l")
TAKEN = ev.Taken(volume_ml="700 ml", how="under")
ASIDE = [
    TAKEN,
    ev.Drawn(volume_ml=700, pan=PAN, burner=BURNER, how="under"),
    ev.Parted(volume_ml=700, how="under", purpose="aside"),
]


# -- what stands aside -----------------------------------------------------------------------------


@pytest.mark.parametrize("aside", ASIDE, ids=lambda kind: kind.kind)
def test_hot_liquid_that_stands_aside_has_a_clock_from_then_on(aside: ev.Kind) -> None:
    timeline = told(START, aside)
    assert timeline.rest is not None
    assert (timeline.rest.stands, timeline.rest.since) == ("unsaid", EVENING + timedelta(minutes=2))
    line = rest_line(timeline)
    assert line is not None
    dues = line.arguments["dues"]
    assert isinstance(dues, Message)
    by = [EVENING + timedelta(minutes=2 + due.minutes) for due in USUAL.cooled]
    assert [one.arguments["by"] for one in dues.arguments["items"]] == by
    assert "above 57 °C" in in_words(line)


def test_nothing_stands_aside_of_a_plate_nor_once_it_is_back() -> None:
    assert told(START, ev.Parted(volume_ml=150, how="under", purpose="plate")).rest is None
    assert told(START, TAKEN, ev.Returned()).rest is None
    assert told(START, TAKEN, ev.Returned(volume_ml=100)).rest is not None
    assert rest_line(told(START)) is None
    # What was cold already needs no clock.
    cold = told(started("1.6 l", hot=False), ev.Taken(volume_ml="700 ml"))
    assert cold.rest is not None
    assert cold.rest.stands == "cold"
    assert rest_line(cold) is None


def test_the_clock_starts_when_it_is_no_longer_kept_hot() -> None:
    begun = [event(1, START, minute=0), event(2, TAKEN, minute=1)]
    hot = [*begun, event(3, ev.RestIs(rest="hot"), minute=10)]
    assert "kept above 57 °C" in in_words(rest_line(fold(hot)) or "")
    cools = fold([*hot, event(4, ev.RestIs(rest="cooling"), minute=90)])
    assert cools.rest is not None
    assert cools.rest.since == EVENING + timedelta(minutes=90)
    # Where nobody kept it hot it has cooled since it was set aside.
    unkept = fold([*begun, event(3, ev.RestIs(rest="cooling"), minute=90)])
    assert unkept.rest is not None
    assert unkept.rest.since == EVENING + timedelta(minutes=1)
    # More hot liquid poured to it makes the older no fresher.
    more = fold([*begun, event(3, TAKEN.model_copy(update={"volume_ml": 300.0}), minute=60)])
    assert more.rest == fold(begun).rest


def test_it_is_asked_about_once_the_sauce_is_finished_and_only_once() -> None:
    done = (START, TAKEN, ev.Finished())
    asked = next_act(told(*done))
    assert (asked.kind, KINDS["rest"]) == ("rest", type(asked))
    assert in_words(asked.said(told(*done))).startswith("865 mL is set aside.")
    for rest in ("hot", "cooling", "gone"):
        assert next_act(told(*done, ev.RestIs(rest=rest))).kind == "done"  # type: ignore[arg-type]
    gone = potted(*done, ev.RestIs(rest="gone"))
    assert gone.kept is None
    assert next_act(told(START, ev.Finished())).kind == "done"
    problem = told(START, ev.RestIs(rest="hot")).moments[-1].problem
    assert problem is not None
    assert in_words(problem.message) == "Nothing is set aside."


# -- what does not bear a boil ---------------------------------------------------------------------

BOILS = ev.Heated(heat="boil")
WINE = ev.Added.model_validate({"ingredient": "red_wine", "amount": "200 ml"})


def _with(key: str) -> ev.Added:
    return ev.Added.model_validate({"ingredient": key, "mass_g": "60 g"})


@pytest.mark.parametrize("key", DELICATE)
def test_what_parts_or_curdles_is_asked_about_where_it_boils(key: str) -> None:
    row = DELICATE[key]
    kinds = [concern.kind for concern in told(START, _with(key), BOILS).table.concerns]
    assert kinds == ([row.doubt] if row.always else [])
    # Put into what boils it is the same; and with raw wine no cream bears it.
    assert [concern.kind for concern in told(START, BOILS, _with(key)).table.concerns] == kinds
    assert [concern.kind for concern in told(START, BOILS, _with(key), WINE).table.concerns] == [row.doubt]
    assert not told(START, _with(key), ev.Heated(heat="simmer")).table.concerns


@pytest.mark.parametrize("key", ["butter", "egg_yolk", "sour_cream"])
def test_it_is_asked_until_it_is_answered_and_again_when_it_boils_anew(key: str) -> None:
    doubt = DELICATE[key].doubt
    boiled = (START, _with(key), BOILS)
    act = next_act(told(*boiled))
    assert (act.kind, act.concern and act.concern.kind) == ("warn", doubt)
    for answer in ("in_order", "mended", "thrown_away"):
        answered = told(*boiled, ev.Answered(concern=doubt, answer=answer))  # type: ignore[arg-type]
        assert not answered.table.concerns
        assert answered.table.thrown_away == (answer == "thrown_away")
    again = told(*boiled, ev.Heated(heat="off"), ev.Answered(concern=doubt, answer="in_order"), BOILS)
    assert [concern.kind for concern in again.table.concerns] == [doubt]


# -- what is ordered fits the pan ------------------------------------------------------------------


@pytest.mark.parametrize("height_mm", [40, 45, 55, 70])
@pytest.mark.parametrize("salt", [0.6, 1.3, 1.8])
def test_nothing_is_ordered_that_would_stand_at_the_rim(height_mm: int, salt: float) -> None:
    """Obeyed to the letter, no pot ever stands higher than its pan is high, less the room for foam."""
    pan = Pan.round("low pan", 240, height_mm, empty_g=1200)
    start = started("1.6 l", salt={"by": "meter", "percent": salt}).model_copy(update={"pan": pan})
    happened: list[ev.Kind] = [start, wanted(900)]
    for _ in range(14):
        board = Board(log(*happened))
        act, pot = board.act, board.timeline.pot
        assert pot is not None
        done = _obeyed(act)
        if done is None:
            break
        happened.append(done)
        after = Board(log(*happened)).timeline
        assert after.moments[-1].problem is None
        assert after.pot is not None
        if act.kind in ("let_down", "thicken"):
            assert after.pot.depth_mm <= (1.0 - FOAM_SHARE) * height_mm + 0.5
    else:
        pytest.fail("it never comes to an end")


def _obeyed(act: Act) -> ev.Kind | None:
    """What an obedient cook records; nothing where it is done, or another pan is asked for."""
    match act.kind:
        case "choose":
            return ev.Chosen(route=act.route.kind) if act.route else None  # type: ignore[arg-type]
        case "take":
            return ev.Taken(volume_ml=act.volume_ml * 1.038, how="under")
        case "heat" | "boil":
            measured = {"method": "scale", "value": act.mark.reads.scale}
            return ev.Read.model_validate({"measured": measured})
        case "let_down":
            return ev.Added(ingredient="water", volume_ml=act.volume_ml)
        case "thicken":
            return ev.Thickened.model_validate({"thickener": act.thickener.key, "dry_g": act.dry_g})
        case "test_body":
            return ev.Tested(of="body", verdict="right")
        case "test_salt":
            return ev.Tested(of="salt", verdict="right")
        case "salt":
            return ev.Salted(salt_g=act.salt_g)
        case "bigger_pan":
            return ev.Moved(pan=PAN, burner=BURNER)
        case _:
            return None


def test_a_pan_that_is_full_is_changed_before_anything_is_poured_in() -> None:
    pan = Pan.round("low pan", 240, 38, empty_g=1200)
    full = started("1.6 l", salt={"by": "meter", "percent": 1.6}).model_copy(update={"pan": pan})
    act = next_act(told(full, wanted(1500), ev.Chosen(route="all-stretch-corn_starch_own")))
    assert act.kind == "bigger_pan"
    assert act.doing.kind == "let_down"
    roomy = next_act(
        told(full, wanted(1500), ev.Chosen(route="all-stretch-corn_starch_own"), ev.Moved(pan=PAN, burner=BURNER))
    )
    assert roomy.kind == "let_down"


def test_ice_that_would_not_fit_is_no_way() -> None:
    def ice(height_mm: int) -> bool:
        pan = Pan.round("pan", 240, height_mm, empty_g=1200)
        pot = potted(started("1.6 l", fat_ml=60).model_copy(update={"pan": pan}))
        return next(option for option in options(pot) if option.way == "ice").barred is None

    assert (ice(40), ice(90)) == (False, True)
