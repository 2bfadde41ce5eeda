"""The ranges of a list against a Monte Carlo of the same balance (JCGM 101), thinned; ``./spissus study`` draws all."""

from __future__ import annotations

import json

import pytest
from study.ranges import COVERS, DRAWS, RESULT, ends

#: Of the draws, what the tests take, and what so few may add to the tenth that is allowed.
THINNED, MORE = 600, 0.06
WITHIN = 0.10


@pytest.mark.parametrize(("cover", "heat"), COVERS)
def test_the_ends_of_a_range_are_those_of_the_draws(cover: str, heat: str) -> None:
    for name, (told, low, high) in ends(cover, heat, THINNED).items():
        assert told.low > 0.0, name
        assert told.low == pytest.approx(low, rel=WITHIN + MORE), name
        assert told.high == pytest.approx(high, rel=WITHIN + MORE), name


def test_with_all_draws_they_lie_within_a_tenth() -> None:
    study = json.loads(RESULT.read_text(encoding="utf-8"))
    assert study["draws"] == DRAWS
    for figures in study["ends"].values():
        for ends_of in figures.values():
            assert ends_of["told"] == pytest.approx(ends_of["drawn"], rel=WITHIN)
