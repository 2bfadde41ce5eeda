"""Ways as a product of how much, where to stop and what binds."""

from __future__ import annotations

import pytest
from makers import pot, wanted
from spissus_core import events as ev
from spissus_core.pantry import ways
from spissus_core.pantry.schools import SCHOOLS, School
from spissus_core.pantry.ways import EARLIER, QUICKEST, WAYS, ways_with
from spissus_core.planning.solving import Task

GUM = School(
    key="scratch_gum",
    label="scratch gum",
    words="with gum",
    sort="quick",
    offered=True,
    dry="gum",
    term="gum",
    tbsp_g=9.0,
    make_min=2.0,
)


def test_a_way_is_called_by_what_it_is_composed_of() -> None:
    assert all(way.key == key for key, way in WAYS.items())
    assert WAYS["part-volume-white_roux"].label == "Take what you need, with roux"
    assert WAYS["all-body-alone"].school is None
    assert {way.stop for way in WAYS.values()} == {"body", "volume", "here", "stretch", "salt", "time", "told", "taste"}


def test_nothing_is_quicker_than_the_quickest() -> None:
    assert QUICKEST.stop == "here"
    assert QUICKEST.school is not None
    assert all(QUICKEST.school.work_min <= way.school.work_min for way in ways_with() if way.school is not None)


@pytest.mark.parametrize(("earlier", "now"), EARLIER.items())
def test_what_was_chosen_under_an_earlier_name_is_read_back(earlier: str, now: str) -> None:
    assert ev.recorded({"kind": "chosen", "route": earlier}, 3) == ev.Chosen(route=now)
    assert isinstance(ev.recorded({"kind": "chosen", "route": earlier}, 4), ev.Unread)


def test_a_gum_is_a_school_like_any_other(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ways, "SCHOOLS", {**SCHOOLS, GUM.key: GUM})
    offered = {way.key: way for way in ways._ways()}
    new = {key for key in offered if key not in WAYS}
    # Wherever a stop takes every school, or the quick ones.
    assert new == {
        f"{where}-scratch_gum"
        for where in (
            "all-volume",
            "part-volume",
            "all-here",
            "all-stretch",
            "all-time",
            "all-told",
            "all-taste",
            "part-taste",
        )
    }
    task = Task(pot(), wanted(900, body=4))
    bound = task.route(offered["all-volume-scratch_gum"])
    assert bound.feasible
    assert bound.body.viscosity == pytest.approx(wanted(900, body=4).aim_mpas, rel=1e-3)
    assert 0.5 < bound.dry_g < 10
