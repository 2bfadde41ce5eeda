"""The example sauce is one that a good cook would serve, and its sentences are of it."""

from __future__ import annotations

import pytest
from spissus_core import events as ev
from spissus_core.practice.example import example


def test_it_is_a_sauce_as_it_was_wished() -> None:
    timeline = example().timeline
    assert [moment.problem for moment in timeline.moments if moment.problem] == []
    wish, served = timeline.asked.wanted, example().steps[-1].pot
    assert wish is not None
    assert abs(served.contents.salt_percent - wish.salt_percent) < 0.07
    assert served.body.step.index == wish.body
    # No more fat stays than three grams in a hundred, as is common practice; there is enough, and not twice as much.
    assert 100 * served.contents.fat_ml / served.contents.liquid_ml < 3.0
    assert wish.amount_ml is not None
    assert 1.0 < served.contents.liquid_ml / wish.amount_ml < 1.5


def test_each_step_ends_its_stretch_and_nothing_is_planned_any_more() -> None:
    shown = example()
    assert [step.stage for step in shown.steps] == [stretch.stage for stretch in shown.ribbon] == list(ev.STAGES)
    assert not any(stretch.planned for stretch in shown.ribbon)


def test_it_boils_away_what_its_burner_takes_away_in_that_time() -> None:
    moments = {moment.event.payload.kind: moment for moment in example().timeline.moments}
    skimmed, read = moments["skimmed"], moments["read"]
    assert skimmed.pot is not None
    assert read.pot is not None
    minutes = (read.event.at - skimmed.event.at).total_seconds() / 60.0
    # 1.2 kW over the latent heat of water at 100 °C, 2257 kJ/kg (IAPWS): 31.9 g a minute, known to a third.
    boiled = skimmed.pot.contents.water - read.pot.contents.water
    assert 0.65 < boiled / (1.2 * 60.0 / 2.257 * minutes) < 1.35
    assert read.pot.contents.salt == pytest.approx(skimmed.pot.contents.salt, rel=0.01)
