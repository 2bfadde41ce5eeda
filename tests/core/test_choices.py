"""The first choice, over a grid that a cook has read line by line (``tests/golden/choices.csv``)."""

from __future__ import annotations

import csv
import itertools
from functools import cache

import pytest
from golden.choices import KEPT, Choice, grid
from spissus_core.estimation.spoon import height
from spissus_core.planning.judgement import JUDGEMENT

#: The lines of so much strained liquid of such salt, %.
CELLS = list(itertools.product((300.0, 700.0, 1500.0, 4000.0), (0.3, 0.6, 0.9, 1.3)))


@cache
def lines() -> tuple[Choice, ...]:
    return tuple(grid())


def untold() -> list[Choice]:
    return [line for line in lines() if line.people is not None and line.ways]


@pytest.mark.parametrize(("liquid_ml", "salt"), CELLS)
def test_the_first_choice_is_the_one_that_was_read(liquid_ml: float, salt: float) -> None:
    with KEPT.open(newline="") as file:
        kept = [{key: told for key, told in row.items() if told} for row in csv.DictReader(file)]
    here = [row for row in kept if (float(row["strained mL"]), float(row["salt %"])) == (liquid_ml, salt)]
    found = [line.line for line in lines() if (line.liquid_ml, line.salt_percent) == (liquid_ml, salt)]
    assert [{key: told for key, told in row.items() if told} for row in found] == here


def test_what_is_told_is_done() -> None:
    assert {line.ways[0].way.stop for line in lines() if line.people is None} == {"told"}


def test_a_thickener_comes_first_only_where_the_pot_would_be_too_thin_without() -> None:
    for line in untold():
        first = line.ways[0]
        if first.thickener is not None:
            bare = [way for way in line.ways if way.way.stop == first.way.stop and way.thickener is None]
            short = JUDGEMENT.thinner_jus if line.body == "jus" else 0.0
            assert all(height(way.body.viscosity) < line.wish.body - short for way in bare), line
        elif line.body != "jus":
            assert height(first.body.viscosity) >= line.wish.body, line


def test_a_part_is_set_aside_only_where_far_more_would_be_left() -> None:
    small = [line for line in untold() if line.liquid_ml <= 1500.0]
    parted = [line for line in small if line.ways[0].aside_ml > 0.0]
    assert len(parted) < 0.25 * len(small)
    # For four people only of what is far too salty: stretched, the rest would take unsalted stock for nothing.
    assert {line.salt_percent for line in parted if line.people == 4} <= {1.3}


def test_nothing_is_boiled_for_a_pot_that_is_there() -> None:
    for line in untold():
        first = line.ways[0]
        assert first.steam_g <= 1.0 or first.share_left <= 1.0 - JUDGEMENT.least_boiled, line


def test_what_is_far_too_much_is_kept_before_it_is_bound() -> None:
    for line in untold():
        first = line.ways[0]
        if first.thickener is not None:
            assert first.volume_ml <= JUDGEMENT.more_meals * line.wish.amount_ml * 1.001, line


def test_nothing_is_watered_until_it_tastes_of_little_but_for_its_salt() -> None:
    for line in untold():
        first = line.ways[0]
        if first.let_down_ml > 0.0 and line.salt_percent < line.wish.salt_percent:
            assert first.final.strength_percent >= JUDGEMENT.least_stretched_percent, line
