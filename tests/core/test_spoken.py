"""What the now line and the log say, in both systems of units."""

from __future__ import annotations

import re
from typing import get_args

import pytest
from makers import EVENING, in_words, log, pot, potted, read, started, told, wanted
from spissus_core import events as ev
from spissus_core.events.state import Concern, ConcernKind
from spissus_core.fold import Timeline
from spissus_core.ledger.water import HOT_EXPANSION
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.planning.acts import next_act
from spissus_core.planning.acts.ending import Finish
from spissus_core.planning.doubts import DOUBTS, concern_line
from spissus_core.planning.solving import solve_route
from spissus_core.planning.spoken import (
    carrier_amount,
    dry_amount,
    salt_amount,
    way_line,
)

START = started("1.6 l", fat_ml="80 ml")
PLAN = (START, wanted(900), ev.Chosen(route="all-volume-white_roux"))
SKIMMED = (*PLAN, ev.Skimmed(way="separator"))
AT_MARK = (*SKIMMED, read("scale", "2340 g"), ev.FatSeen(look="eyes"))
BOUND = (*AT_MARK, ev.Thickened(thickener="white_roux", dry_g=16))
FINE = ev.Tested(of="body", verdict="right", again="right")
LOTS = ev.Thickened(thickener="white_roux", dry_g=60)
FLAT = ev.Tested(of="salt", verdict="flat", twice=True)
STARCHED = (
    *PLAN[:-1],
    ev.Chosen(route="all-volume-corn_starch_own"),
    *SKIMMED[len(PLAN) :],
    read("scale", "2390 g"),
    *AT_MARK[-1:],
)
THIN = ev.Tested(of="body", verdict="low", again="low")
THICK = ev.Tested(of="body", verdict="high", again="high")
TASTY = ev.Tested(of="salt", verdict="right", twice=True)
SALTY = ev.Tested(of="salt", verdict="too_salty", twice=True)
RIGHT = (*BOUND, read("scale", "2385 g"), FINE, FINE, FINE)


def said(timeline: Timeline) -> tuple[str, str]:
    line = next_act(timeline).said(timeline)
    return in_words(line).replace("\u00a0", " "), in_words(line, "us").replace("\u00a0", " ")


@pytest.mark.parametrize(
    ("steps", "metric", "us"),
    [
        ((), "Say what is in the pot.", "Say what is in the pot."),
        ((START,), "Make 450 mL, for four people, with something to soak it up?", "Make"),
        ((START, wanted(900)), "Boil down for its taste, with roux. Boiled for", "times as strong as strained."),
        (PLAN, "about 75 mL of fat first", "about ⅓ cup of fat first"),
        (SKIMMED, "Stop at 20 mm.", "Stop at ¾ in."),
        (AT_MARK[:-1], "How does the fat look?", "Let it stand two minutes."),
        (AT_MARK, "of flour with", "More follows by the spoon."),
        (STARCHED, "Ladle off 35 mL, and let it cool to lukewarm. Stir in 9.7 g", "Ladle off"),
        (BOUND, "Simmer 5 to 10 min with the lid on.", "Then look at two spoonfuls."),
        ((*BOUND, THICK), "Before you thin it, look at two more spoonfuls:", "coats, a finger line stays?"),
        ((*BOUND, THIN, THIN), "more flour with", "and look again."),
        ((*BOUND, THICK, THICK, THICK), "Too thick. Stir in", "of unsalted stock"),
        ((*AT_MARK, LOTS, FINE), "Seems right, a little thick by the sums.", "coats, a finger line stays?"),
        (RIGHT, "Taste it twice, with what it is eaten with. About 0.9", "About 0.9"),
        ((*RIGHT, SALTY, SALTY), "Too salty. Stir in", "Too salty. Stir in"),
        ((*RIGHT, FLAT, FLAT), "more salt, and taste again.", "tsp ("),
        ((*RIGHT, FLAT), "It should be 0.86", "Rinse your mouth. Taste it twice more."),
        ((*RIGHT, TASTY, TASTY), "keep above 57 °C.", "keep above 135 °F."),
        ((*RIGHT, ev.Finished(yield_ml=880)), "Finished with 880 mL.", "Finished with 3¾ cups."),
        ((*SKIMMED, read("scale", "2100 g")), "Past the mark. Stir in", "of water or unsalted stock:"),
    ],
)
def test_the_now_line(steps: tuple[ev.Kind, ...], metric: str, us: str) -> None:
    in_metric, in_us = said(told(*steps))
    assert metric in in_metric
    assert us in in_us


def test_the_line_once_the_look_is_due() -> None:
    assert in_words(next_act(told(*SKIMMED)).overdue(told(*SKIMMED)), "metric") == "Look now. Stop at 20 mm."


@pytest.mark.parametrize(
    ("payload", "line"),
    [
        (started("53 mm", "dip"), "53 mm by dip in: 24 cm pan"),
        (wanted(900), "Wanted: 900 mL, coats the spoon, 0.9 % salt, at most 1.3 %"),
        (ev.Chosen(route="all-salt-white_roux"), "Chosen: boil until salted right, with roux"),
        (ev.Skimmed(way="chill"), "Skimmed: chill and lift"),
        (ev.Skimmed(fat_ml=60), "Skimmed 60 mL of fat"),
        (ev.Skimmed(fat_ml=0), "Left the fat on"),
        (read("jug", "900 ml", gain="added"), "Reading by jug: 900 mL, liquid was added"),
        (read("scale", 2000, gain="misread"), "Reading by scale: 2 000 g, misread"),
        (ev.Thickened(thickener="corn_starch", dry_g=12), "Corn starch slurry: 12 g of corn starch"),
        (ev.Salted(salt_g=1.5), "Salt: 1.5 g"),
        (ev.Added(ingredient="butter", amount="30 g"), "Added 30 g of butter, unsalted"),
        (ev.Added(ingredient="red_wine", amount="100 ml"), "Added 100 mL of red wine"),
        (ev.Tested(of="salt", verdict="low"), "Tested salt: not enough"),
        (ev.Noted(text="50 {} %s"), "50 {} %s"),
        (ev.Finished(), "Finished"),
        (ev.Struck(event=log(START)[0].id), "Took an entry back"),
    ],
)
def test_the_log(payload: ev.Kind, line: str) -> None:
    assert in_words(payload.said()).replace("\u00a0", " ") == line


def test_amounts_for_the_hand() -> None:
    roux, corn = SCHOOLS["white_roux"], SCHOOLS["corn_starch"]
    assert dry_amount(27.3, roux).full.metric == "27\u00a0g (3½\u00a0tbsp)"
    assert dry_amount(27.3, roux).full.us == "3½\u00a0tbsp (1.0\u00a0oz)"
    assert carrier_amount(20, roux).full.metric == "20\u00a0g (1½\u00a0tbsp)"
    # One part of starch to two of water by volume: 16 g are two tablespoons.
    assert carrier_amount(16, corn).main.us == "¼\u00a0cup"
    assert carrier_amount(16, corn).also.metric == "4\u00a0tbsp"
    assert salt_amount(3.0, "table").full.metric == "3.0\u00a0g (½\u00a0tsp)"
    assert salt_amount(2.8, "light_flake").main.us == "1\u00a0tsp"


@pytest.mark.parametrize(
    ("kind", "volume_ml", "line"),
    [
        ("all-volume-white_roux", 900, r"Boil it down to \d\d mm \(855 mL\)\. Thicken it with \d\d g of flour\."),
        ("all-here-white_roux", 1400, r"Thicken it with \d\d g of flour\."),
        (
            "part-volume-corn_starch_own",
            400,
            r"Take \d+ mL\. Boil it down to .*\. Thicken it with [\d.]+ g of corn starch\.",
        ),
    ],
)
def test_the_bar_says_a_way_in_the_order_in_which_it_is_done(kind: str, volume_ml: float, line: str) -> None:
    one = pot()
    found = in_words(way_line(one, wanted(volume_ml), solve_route(one, wanted(volume_ml), kind))).replace("\u00a0", " ")
    assert re.fullmatch(line, found), found


def test_a_mark_is_told_in_what_is_measured_with() -> None:
    """A jug is read hot, and with the fat that floats: 900 mL at 20 °C stand at 934 mL."""
    by_jug = (started("1.6 l"), wanted(900), ev.Chosen(route="all-volume-white_roux"), read("jug", "1.4 l"))
    act = next_act(told(*by_jug))
    assert act.mark is not None
    assert act.reads_by == "jug"
    assert act.mark.reads.jug == pytest.approx(act.mark.ml * HOT_EXPANSION, rel=1e-3)
    assert "mL hot (" in said(told(*by_jug))[0]
    dipped = next_act(told(*by_jug[:3], read("dip", "30 mm")))
    assert dipped.reads_by == "dip"


@pytest.mark.parametrize(
    ("wish", "amount_ml", "how"),
    [
        ({}, 890.0, "890 mL, as you wanted it"),
        ({}, 800.0, "800 mL, 100 mL short"),
        ({"body": 4}, 890.0, "890 mL, a little thinner than you wanted"),
        ({"body": 5}, 890.0, "890 mL, much thinner than you wanted"),
        ({"body": 2}, 890.0, "890 mL, a little thicker than you wanted"),
        ({"body": 1}, 890.0, "890 mL, much thicker than you wanted"),
        ({"salt_percent": 0.5}, 890.0, "saltier than you like"),
        ({"salt_percent": 1.2, "ceiling_percent": 1.4}, 890.0, "milder than you like"),
        ({}, 1300.0, "1 300 mL, as you wanted it"),
        ({}, 1400.0, "1 400 mL, more than you wanted"),
        ({"body": 2}, 820.0, "820 mL, a little thicker than you wanted and 80 mL short"),
    ],
)
def test_the_end_says_how_it_stands_against_the_wish(wish: dict[str, float], amount_ml: float, how: str) -> None:
    bound = (
        START,
        ev.Skimmed(way="separator"),
        read("scale", "2360 g"),
        ev.Thickened(thickener="white_roux", dry_g=22),
    )
    timeline = told(*bound, ev.Wanted.model_validate({"volume_ml": 900, "salt_percent": 1.05} | wish))
    assert how in in_words(Finish(volume_ml=amount_ml).said(timeline))
    assert "Done: " in in_words(Finish(volume_ml=amount_ml).said(told(*bound)))


def test_the_end_says_what_fat_is_left_on_it() -> None:
    timeline = told(START, wanted(900, salt_percent=0.6, body=1))
    assert "with 75 mL of fat on it" in in_words(Finish(volume_ml=1450).said(timeline))


def test_a_plan_says_its_mark_without_the_fat_that_will_be_gone() -> None:
    """What is marked before the skim is what is marked after it, within what the spoon leaves; what stays is in it."""
    wish = wanted(700)
    for way in ("all-volume-white_roux", "all-salt-white_roux"):
        whole, skimmed = potted(START, wish), potted(START, wish, ev.Skimmed(fat_ml="60 ml"))
        before, after = (solve_route(one, wish, way) for one in (whole, skimmed))
        assert before.mark_mm == pytest.approx(after.mark_mm, abs=0.4)
        assert before.gross_g == pytest.approx(after.gross_g, abs=12.0)
    kept = potted(START, wish, ev.Skimmed(fat_ml=0))
    assert (
        solve_route(kept, wish, "all-volume-white_roux").mark_mm
        > solve_route(potted(START), wish, "all-volume-white_roux").mark_mm + 1.0
    )


# -- nothing half added ----------------------------------------------------------------------------


@pytest.mark.parametrize("doubt", get_args(ConcernKind))
def test_every_doubt_has_its_words(doubt: ConcernKind) -> None:
    assert in_words(concern_line(Concern(doubt, EVENING, ("milk",)), told(*RIGHT)))
    assert in_words(DOUBTS[doubt].short)
