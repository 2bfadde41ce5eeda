"""Meat warmed in the sauce, and plates that go out by the ladle."""

from __future__ import annotations

from datetime import timedelta

import pytest
from makers import EVENING, event, in_words, potted, refused, started, told
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.errors import MeasurementError, SpissusError
from spissus_core.planning.acts.meat import in_a_hot_pan
from spissus_core.planning.foreseen import foreseen

TEN = ev.Wanted(portions=10, portion_ml=80, body=2, salt_percent=0.9)
SAUCE = (started("0.82 l", fat_ml="0 ml", character="thin", salt={"by": "meter", "percent": 0.9}), TEN)
BOUND = (
    *SAUCE,
    ev.Chosen(route="all-here-corn_starch_own"),
    ev.Thickened(thickener="corn_starch", dry_g=17),
    ev.Tested(of="body", verdict="right", again="right"),
    ev.Tested(of="salt", verdict="right", twice=True),
)
COLD = ev.MeatIn(mass_g=700, cut="slices", cold=True)


def bar(*steps: ev.Kind, later: float = 0.0) -> tuple[Board, str]:
    log = [event(seq, step) for seq, step in enumerate(steps, 1)]
    board = Board(log, EVENING + timedelta(minutes=len(steps) + later))
    due = board.act.look_at is not None and board.now is not None and board.act.look_at <= board.now
    said = board.act.overdue if due else board.act.said
    return board, in_words(said(board.timeline))


def test_cold_slices_are_warmed_until_a_probe_says_74() -> None:
    board, said = bar(*BOUND, COLD)
    assert said == "Lid on, barely simmering, until the thickest piece is 74 °C."
    assert board.act.look_at is not None
    minutes = (board.act.look_at - EVENING).total_seconds() / 60.0 - len(BOUND) - 1
    assert 8.0 < minutes < 12.0
    _, said = bar(*BOUND, COLD, later=15.0)
    assert said == "Probe the thickest piece: is it 74 °C?"
    board, said = bar(*BOUND, COLD, ev.MeatProbed(celsius=66))
    assert said.startswith("Lid on")
    # Not yet: a third of the time more.
    assert board.act.look_at - EVENING == timedelta(minutes=len(BOUND) + 2 + max(minutes / 3.0, 3.0))
    board, said = bar(*BOUND, COLD, ev.MeatProbed(celsius=74.2))
    assert board.act.kind != "warm_meat"


def test_its_juice_and_its_room_are_in_the_ledger() -> None:
    before, after = potted(*SAUCE), potted(*SAUCE, COLD)
    juice = after.contents.mass_g - before.contents.mass_g
    assert juice == pytest.approx(0.045 * 700, rel=0.01)
    assert after.depth_mm - before.depth_mm > 10.0
    assert any(change.of == "volume" for change in foreseen(before, COLD.on_pot(before), TEN))


def test_warm_meat_is_only_coated() -> None:
    _, said = bar(*BOUND, ev.MeatIn(mass_g=700, cut="pieces"))
    assert said == "Lid on, no bubbles: the meat is only coated."


def test_butter_in_it_is_said_where_cold_meat_has_to_simmer() -> None:
    _, said = bar(*BOUND, ev.Added(ingredient="butter", mass_g=30), COLD)
    assert said.endswith("What is in it parts on the boil: better warm the meat by itself.")


def test_ten_plates_go_out_by_the_ladle() -> None:
    steps: list[ev.Kind] = [*BOUND]
    for gone in range(1, 20):
        steps.append(ev.Parted(volume_ml=80 * 1.038, how="under", purpose="plate", plates=1))
        board, said = bar(*steps)
        assert board.timeline.table.plates == gone
        if board.act.kind != "plate":
            break
        assert said.startswith("Ladle 85 mL on the next plate: "), said
        assert board.timeline.pot is not None
        left = board.timeline.pot.contents.liquid_ml
        # Nothing is let down or called short because plates have gone out.
        assert board.timeline.table.served_ml + left == pytest.approx(board.timeline.made_ml)
    assert gone in (10, 11)
    assert said.startswith(f"{gone} plates are out, "), said


@pytest.mark.parametrize(
    ("said", "complaint"),
    [
        (ev.MeatIn(mass_g=0), "How much meat"),
        (ev.MeatIn(mass_g=200, thick_mm=0), "How thick"),
        (ev.MeatIn(mass_g=90_000), "does not hold|fit"),
        (ev.MeatProbed(ready=True), "no meat in it"),
        (ev.MeatProbed(), "no meat in it"),
    ],
)
def test_what_makes_no_sense_is_refused(said: ev.Kind, complaint: str) -> None:
    with refused((SpissusError, MeasurementError), complaint):
        timeline = told(*BOUND, said)
        said.check(timeline)
        problem = timeline.moments[-1].problem
        assert problem is not None
        raise problem


def test_nothing_is_boiled_on_once_butter_is_in_it() -> None:
    """Too thin and flat it would be; what parts on the boil is bound, or left."""
    thin = (started("1.2 l", fat_ml="0 ml", salt={"by": "meter", "percent": 0.4}), ev.Wanted(volume_ml=700, body=3))
    way = ev.Chosen(route="all-taste-white_roux")
    assert bar(*thin, way)[0].act.kind in ("boil", "heat")
    board, said = bar(*thin, way, ev.Added(ingredient="butter", mass_g=60))
    assert board.act.kind not in ("boil", "heat"), said


def test_pieces_are_glazed_with_a_ladle_each_and_basted_until_they_shine() -> None:
    glazed = ev.Glazed(pieces=6)
    before, after = potted(*BOUND), potted(*BOUND, glazed)
    assert before.contents.liquid_ml - after.contents.liquid_ml == pytest.approx(6 * 18, abs=0.1)
    board, said = bar(*BOUND, glazed)
    assert said == "In a hot oven, about 220 °C. Baste it twice; cold meat wants 74 °C inside."
    assert board.timeline.made_ml == pytest.approx(before.contents.liquid_ml, abs=1.0)
    first = board.act.look_at
    board, said = bar(*BOUND, glazed, later=9.0)
    assert said == "Baste it with a little more. Does it shine?"
    board, _ = bar(*BOUND, glazed, ev.MeatProbed(ready=False))
    assert first is not None
    assert board.act.look_at is not None
    assert board.act.look_at > first
    board, said = bar(*BOUND, glazed, ev.MeatProbed(ready=True))
    assert board.act.kind != "warm_meat"
    with refused(MeasurementError, "fewer pieces"):
        ev.Glazed(pieces=400).on_pot(before)


def test_what_is_cooked_in_it_drinks_of_it() -> None:
    before, after = potted(*SAUCE), potted(*SAUCE, ev.MeatIn(mass_g=400, cut="vegetables"))
    drunk = before.contents.liquid_g - after.contents.liquid_g
    assert drunk == pytest.approx(0.03 * 400, rel=0.01)
    # It drinks the sauce as it is: no salt is left behind.
    assert after.contents.salt_percent == pytest.approx(before.contents.salt_percent, rel=1e-9)
    # It lies in the pan, and hides the mark.
    assert after.depth_mm > before.depth_mm
    with refused(MeasurementError, "drinks"):
        ev.MeatIn(mass_g=60_000, cut="vegetables").on_pot(before)


def test_uncovered_in_the_oven_under_the_sauce_it_steams_and_is_measured_after() -> None:
    in_oven = (*BOUND, ev.Ovened(how="oven", oven_c=200))
    _, said = bar(*in_oven)
    assert said == "In the oven, uncovered, at about 200 °C. The sauce over it, until it shines."
    board, said = bar(*in_oven, later=25.0)
    assert said == "Does it shine? Then take it out."
    gone = potted(*in_oven).contents.liquid_ml - board.timeline.pot.contents.liquid_ml  # type: ignore[union-attr]
    assert 30.0 < gone < 400.0
    log = [event(seq, step, minute=seq) for seq, step in enumerate(in_oven, 1)]
    log.append(event(len(log) + 1, ev.MeatProbed(ready=True), minute=len(log) + 25))
    after = Board(log, log[-1].at)
    assert after.timeline.stove.window is None or not after.timeline.stove.window.heating
    # Level, salt and fat have shifted once more: it goes back through the ledger.
    assert "Some has steamed away" in in_words(after.act.said(after.timeline))


def test_crisped_apart_nothing_of_the_sauce_changes() -> None:
    crisped = (*BOUND, ev.Ovened(how="crisped", oven_c=220))
    _, said = bar(*crisped)
    assert said == "Dry it well, crisp it uncovered at about 220 °C. The sauce goes under it, not over."
    assert potted(*crisped).contents == potted(*BOUND).contents
    board, _ = bar(*crisped, ev.MeatProbed(ready=True))
    assert board.act.kind == bar(*BOUND)[0].act.kind


def test_each_piece_in_a_hot_pan_takes_a_larger_ladle() -> None:
    board, _ = bar(*BOUND)
    one = in_a_hot_pan(board.timeline, 80.0)
    # A minute at a full boil takes off what a hot pan gives: the plate gets its helping all the same.
    assert 90.0 < one.volume_ml / board.timeline.pot.expansion < 115.0  # type: ignore[union-attr]
    board, said = bar(*BOUND, one)
    # Told as it is hot in the ladle, like every other plate.
    assert said == "Ladle 100 mL into a hot pan with the piece. A minute: 85 mL for the plate, 7 left."
    # With larger ladles there are fewer plates in it than were wanted, and that is said at once.
    assert board.act.left < 9  # type: ignore[attr-defined]
