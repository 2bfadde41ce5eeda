"""The account of a batch: one sentence that somebody else could cook it from."""

from __future__ import annotations

import pytest
from makers import EVENING, event, fold, in_words, read, started, wanted
from spissus_core import events as ev
from spissus_core.planning.account import account

START = started("1.84 l", salt={"by": "meter", "percent": 0.4})


def told(*steps: tuple[float, ev.Kind]) -> str:
    log = [event(seq, kind, minute=minute) for seq, (minute, kind) in enumerate(steps, 1)]
    said = account(fold(log, log[-1].at))
    return "" if said is None else in_words(said).replace("\u00a0", " ")


WHOLE = (
    (0.0, START),
    (1.0, wanted(620)),
    (2.0, ev.Heated(heat="boil")),
    (40.0, read("jug", "720 ml")),
    (41.0, ev.Heated(heat="off")),
    (43.0, ev.Thickened(thickener="corn_starch", dry_g=6.0)),
    (46.0, ev.Thickened(thickener="corn_starch", dry_g=4.0)),
    (48.0, ev.Added(ingredient="water", volume_ml=40.0)),
    (49.0, ev.Added(ingredient="water", volume_ml=30.0)),
    (50.0, ev.Salted(salt_g=2.2)),
    (52.0, ev.Finished()),
)


def test_it_says_how_far_in_how_long_what_went_in_and_what_came_of_it() -> None:
    said = told(*WHOLE)
    assert said.startswith("1 775 mL → ")
    assert "in 39 min" in said
    assert "10 g of corn starch in 2 helpings" in said
    assert "70 mL of water" in said
    assert "2.2 g of salt" in said
    assert said.endswith("mL.")


def test_what_was_taken_back_is_no_part_of_it() -> None:
    log = [event(seq, kind, minute=minute) for seq, (minute, kind) in enumerate(WHOLE, 1)]
    salted = next(one for one in log if isinstance(one.payload, ev.Salted))
    said = account(fold([*log, event(12, ev.Struck(event=salted.id), minute=53.0)], EVENING))
    assert said is not None
    assert "of salt" not in in_words(said)


def test_a_mended_amount_is_told_as_it_was_meant() -> None:
    log = [event(seq, kind, minute=minute) for seq, (minute, kind) in enumerate(WHOLE, 1)]
    salted = next(one for one in log if isinstance(one.payload, ev.Salted))
    said = account(
        fold([*log, event(12, ev.Meant(event=salted.id, amount="3 g", becomes={"salt_g": 3.0}), minute=53.0)], EVENING)
    )
    assert said is not None
    assert "3.0 g of salt" in in_words(said).replace("\u00a0", " ")


@pytest.mark.parametrize("steps", [(), ((0.0, ev.Noted(text="nothing yet")),)])
def test_of_nothing_there_is_no_account(steps: tuple[tuple[float, ev.Kind], ...]) -> None:
    assert account(fold([event(1, kind, minute=minute) for minute, kind in steps])) is None


def test_fat_that_came_off_and_what_was_set_aside_are_told() -> None:
    said = told(
        (0.0, started("1.6 l", fat_ml="80 ml", salt={"by": "meter", "percent": 0.8})),
        (3.0, ev.Skimmed(way="separator")),
        (5.0, ev.Parted(volume_ml=500.0, how="under", purpose="aside")),
        (9.0, ev.Finished()),
    )
    assert "of fat off" in said
    assert "set aside" in said
    assert "→" not in said


def test_a_plate_that_went_out_is_not_set_aside() -> None:
    said = told(
        (0.0, started("1.6 l", salt={"by": "meter", "percent": 0.8})),
        (5.0, ev.Parted(volume_ml=100.0, how="under", purpose="plate")),
        (9.0, ev.Finished()),
    )
    assert "set aside" not in said


def test_what_steams_away_once_it_is_bound_is_no_mark() -> None:
    later = (*WHOLE[:-1], (80.0, ev.Heated(heat="boil")), (90.0, read("jug", "600 ml")), WHOLE[-1])
    assert told(*later[:-1], (95.0, ev.Finished())).split(",")[0] == told(*WHOLE).split(",")[0]


def test_a_boil_that_ends_with_the_thickener_is_told() -> None:
    said = told(
        (0.0, START),
        (2.0, ev.Heated(heat="boil")),
        (40.0, ev.Thickened(thickener="corn_starch", dry_g=6.0)),
        (52.0, ev.Finished()),
    )
    assert said.startswith("1 775 mL → ")
