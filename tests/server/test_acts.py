"""Every act has its stage, its words and what answers it."""

from __future__ import annotations

from dataclasses import MISSING, fields
from typing import Any, get_args
from uuid import UUID

import pytest
from batches.acts import act_out
from makers import EVENING, event, fold, in_words, potted, read, started, wanted
from spissus_core import events as ev
from spissus_core.events import STAGES
from spissus_core.events.state import Concern, ConcernKind, Found, Slip
from spissus_core.fold import Timeline
from spissus_core.pantry.schools import SCHOOLS
from spissus_core.phenomena.cooling import Cooling
from spissus_core.phenomena.palate import Leaning
from spissus_core.planning.acts import ACTS, KINDS, Act, Alone, Mark
from spissus_core.planning.acts.asking import Warn
from spissus_core.planning.finishing import remedies
from spissus_core.planning.solving import solve_route

WAY = "all-volume-white_roux"
STORY = [
    started("1.6 l", fat_ml="80 ml"),
    wanted(900),
    ev.Chosen(route=WAY),
    ev.Skimmed(way="separator"),
    read("scale", "2340 g"),
]


def _timeline() -> Timeline:
    return fold([event(i, one) for i, one in enumerate(STORY, 1)])


def _sample(act: type[Act]) -> Act:
    """An act of a class, each of its fields with something in it."""
    reads = potted(*STORY).reads(potted(*STORY).contents)
    given: dict[str, Any] = {
        "wish": wanted(900),
        "route": solve_route(potted(*STORY), wanted(900), WAY),
        "volume_ml": 50.0,
        "dry_g": 12.0,
        "first": True,
        "salt_g": 2.0,
        "fat_ml": 40.0,
        "way": "spoon",
        "mark": Mark(700.0, reads, "dip"),
        "expect": reads,
        "thought_ml": 720.0,
        "late_min": 5.0,
        "thickener": SCHOOLS["white_roux"],
        "stands": Cooling("above"),
        "by": None,
        "partly": True,
        "concern": Concern("butter", EVENING),
        "slip": Slip(UUID(int=1), 5.0, 2.0),
        "of": "sour",
        "found": "high",
        "amiss": Found("sour", "high", False, 0, Leaning(0.0, 0.3)),
        "offer": remedies(potted(*STORY), wanted(900), "sour", "high")[0],
        "how": "cold",
        "parts": "butter" if act.kind == "too_hot" else True,
        "left": 3,
        "in_a_pan": True,
        "oven_c": 200.0,
        "celsius": 86.0,
        "bears_c": 80.0,
        "hour_ml": 120.0,
        "gone_ml": 30.0,
        "salt_percent": 0.95,
        "wants_a_lid": True,
        "parts_c": 80.0,
        "earlier": "flat",
        "then": "too salty",
    }
    return act(**{field.name: given[field.name] for field in fields(act) if field.default is MISSING})


@pytest.mark.parametrize("kind", ACTS, ids=lambda act: act.__name__)
def test_every_act_has_its_stage_its_words_and_what_answers_it(kind: type[Act]) -> None:
    timeline = _timeline()
    act = _sample(kind)
    assert act.stage in STAGES
    assert in_words(act.said(timeline))
    assert in_words(act.overdue(timeline))
    assert kind.next_words or kind.kind in ("start", "done", "alone", "warn", "slip")
    assert kind.next_words == KINDS[kind.kind].next_words
    shown = act_out(act, timeline)
    assert shown.answers or kind.kind in ("start", "done", "alone")
    for answer in shown.answers:
        assert answer.payload or answer.opens or answer.asks
        if answer.payload is not None:
            assert not isinstance(ev.recorded(answer.payload), ev.Unread), answer
            written = ev.KINDS[answer.payload["kind"]].server_writes
            assert not any(answer.payload.get(name) for name in written), answer


def test_acts_have_each_their_turn() -> None:
    """Acts that share a turn are of one matter, which decides between them: they stand in one module."""
    modules: dict[int, set[str]] = {}
    for act in ACTS:
        if act is not Alone:
            modules.setdefault(act.rank, set()).add(act.__module__)
    assert all(len(found) == 1 for found in modules.values()), modules


@pytest.mark.parametrize("doubt", get_args(ConcernKind))
def test_every_doubt_has_its_answers(doubt: ConcernKind) -> None:
    answers = Warn(concern=Concern(doubt, EVENING)).answers(_timeline())
    assert answers
    for answer in answers:
        assert isinstance(answer.event, ev.Answered)
        assert answer.event.said()
