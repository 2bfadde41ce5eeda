"""The rooms of the events: each kind has every member, and older words are put in today's."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from typing import Any
from uuid import UUID

import pytest
from examples import ALL_VERSIONS, recorded
from makers import fold, in_words, log, refused, started, told, wanted
from spissus_core import events as ev
from spissus_core.events.base import Form, form_of
from spissus_core.events.state import State
from spissus_core.fold import REMEMBERED, progress
from spissus_core.intake.mixture import read_mixture
from spissus_core.pantry.schools import SCHOOLS, LearnedStrength, School
from spissus_core.phenomena.limits import PLACES, Limits
from spissus_core.phenomena.seasoning import LearnedLiking

AT = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)


@pytest.mark.parametrize("kind", sorted(ev.KINDS))
def test_a_kind_owns_everything_that_follows_from_it(kind: str) -> None:
    of = ev.KINDS[kind]
    payload = ev.recorded(recorded(kind), 1)
    assert type(payload) is of
    assert in_words(payload.said())
    assert isinstance(payload.apply(State(), AT), State)
    assert all(isinstance(name, str) for name in payload.allergens)
    assert of.stage in (None, *ev.STAGES)
    assert issubclass(form_of(of), Form | ev.Kind)
    assert of.__doc__
    # What can change nothing of the pot says so by its class.
    assert isinstance(payload, ev.ActsOnPot) or "on_pot" not in vars(of)


@pytest.mark.parametrize("kind", sorted(ev.KINDS))
def test_an_event_is_written_out_whole_and_read_back_the_same(kind: str) -> None:
    payload = ev.recorded(recorded(kind), 1)
    event = ev.Event(id=UUID(int=1), seq=1, at=AT, payload=payload)
    dumped = json.loads(event.model_dump_json())
    assert dumped["payload"] == payload.model_dump(mode="json")
    assert ev.recorded(dumped["payload"]) == payload


def test_the_schema_and_the_door_come_from_the_registry() -> None:
    assert set(ev.schema()["discriminator"]["mapping"]) == set(ev.KINDS)


def test_older_words_are_put_in_todays_by_the_kind_that_changed(monkeypatch: pytest.MonkeyPatch) -> None:
    def renamed(said: dict[str, Any]) -> dict[str, Any]:
        return {("text" if name == "words" else name): value for name, value in said.items()}

    monkeypatch.setattr(ev.Noted, "upcasts", {1: renamed})
    old = {"kind": "noted", "words": "bay leaf"}
    assert ev.upcast(old, 1) == {"kind": "noted", "text": "bay leaf"}
    assert ev.upcast(old, ev.VERSION) == old
    assert ev.recorded(old, 1) == ev.Noted(text="bay leaf")
    assert isinstance(ev.recorded(old, ev.VERSION), ev.Unread)


def test_an_upcast_that_fails_leaves_an_entry_that_cannot_be_read(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ev.Noted, "upcasts", {1: lambda said: {"text": said["gone"]}})
    assert isinstance(ev.recorded({"kind": "noted", "text": "bay"}, 1), ev.Unread)


class Nowhere:
    """A kitchen of which nothing can be looked up but what it has learned."""

    def pan(self, pan_id: Any) -> Any:
        raise LookupError(pan_id)

    def burner(self, burner_id: Any, pan_id: Any) -> Any:
        raise LookupError(burner_id)

    def own_ingredients(self) -> tuple[()]:
        return ()

    def liking(self) -> LearnedLiking:
        return LearnedLiking(percent=1.0, error=0.05, batches=4)

    def binds(self) -> dict[str, LearnedStrength]:
        return {"flour": LearnedStrength(times=0.8, spread=0.1, batches=4)}

    def habit(self) -> School:
        return SCHOOLS["arrowroot_own"]

    def school(self, key: str) -> School:
        return read_mixture("house roux", "500 g flour\n500 g butter", "roux").school(key)

    def binding(self, school: School) -> School:
        return school.binding(0.8)

    def limits(self) -> Limits:
        return PLACES["scotland"].limits

    def time_zone(self) -> str:
        return "Europe/Lisbon"

    def entry(self, event: Any) -> Any:
        return ev.Salted(salt_g=2.0)


def test_nothing_that_was_recorded_is_looked_up_any_more() -> None:
    """Every kind as it is kept today holds what a fold needs of it."""

    for kind, payload in ALL_VERSIONS["1"].items():
        kept = ev.recorded({"kind": kind, **payload}, 1).written_out(Nowhere())
        written = () if kind in ("skimmed", "wanted", "chosen") else kept.server_writes
        assert all(getattr(kept, name) is not None for name in written), kind
    asked = ev.recorded({"kind": "wanted", **ALL_VERSIONS["8"]["wanted"]}, 8).written_out(Nowhere())
    assert asked.model_dump()["time_zone"] == "Europe/Lisbon"
    dissolved = ev.Skimmed(way="boil_dry", dissolved_ml=200, ingredient="beef_stock_own").written_out(Nowhere())
    assert dissolved.own is not None
    added = ev.Added(ingredient="flour", mass_g=10).written_out(Nowhere())
    assert added.own is not None
    assert added.own.plant == "wheat"


def test_a_wish_beyond_the_one_before_it_is_refused_and_within_it_stands() -> None:
    boiled = (started("1.6 l"), wanted(1400), ev.Read.model_validate({"measured": {"method": "jug", "value": 900}}))
    told(*boiled, wanted(1300)).asked.wanted.check(told(*boiled, wanted(1300)))  # type: ignore[union-attr]
    late = told(*boiled, wanted(1900))
    with refused(ValueError, "cannot be made from it"):
        late.asked.wanted.check(late)  # type: ignore[union-attr]


def test_the_estimate_is_carried_along_and_its_faults_stay_with_it(monkeypatch: pytest.MonkeyPatch) -> None:
    events = log(started("1.6 l"), wanted(900), ev.Chosen(route="all-volume-white_roux"), ev.Salted(salt_g=1))

    assert progress(fold(events)) is not None

    def broken(*_: Any) -> None:
        raise ZeroDivisionError("no heat")

    monkeypatch.setattr(ev.Salted, "heating", broken)
    REMEMBERED.forget()
    timeline = fold(events)
    assert all(moment.stands for moment in timeline.moments)
    assert timeline.went_in.salted
    with pytest.raises(ZeroDivisionError):
        progress(timeline)
