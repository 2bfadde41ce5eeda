"""What the words on the page mean, and the example sauce, as they are told to anybody."""

from __future__ import annotations

from typing import get_args

from batches.explained import EXPLAINED, Drawing
from django.test import Client
from makers import text_of


def test_every_word_is_told_once_with_a_drawing_of_its_own() -> None:
    told = Client().get("/api/v1/explained").json()
    assert len({one["key"] for one in told}) == len({text_of(one["title"]) for one in told}) == len(EXPLAINED)
    assert {one["drawing"] for one in told} == {name for some in get_args(Drawing) for name in get_args(some)}
    for one in told:
        # A few sentences, of which each can be read at a glance.
        sentences = text_of(one["said"]).split(". ")
        assert 2 <= len(sentences) <= 5, one["key"]
        assert max(len(sentence.split()) for sentence in sentences) <= 36, one["key"]


def test_figures_in_it_are_those_that_are_worked_with() -> None:
    told = {one["key"]: text_of(one["said"]) for one in Client().get("/api/v1/explained").json()}
    # The latent heat of water at 100 °C is 2257 kJ/kg (IAPWS): a kilowatt boils 26.6 g away in a minute.
    assert "boils 27 g of water away" in told["burner"]
    assert "has about 3" in told["strength"]
    assert "rich at 9" in told["strength"]


def test_the_example_is_six_steps_with_a_stretch_each() -> None:
    told = Client().get("/api/v1/example").json()
    assert [step["stage"] for step in told["steps"]] == [stretch["stage"] for stretch in told["ribbon"]]
    depths = [step["depth_mm"] for step in told["steps"]]
    assert depths[0] > depths[1] > depths[2]
    tones = [step["tone"] for step in told["steps"]]
    # It darkens as it boils down, and not before; flour makes it paler.
    assert tones[0] == tones[1] < tones[3] < tones[2]
