"""Every act has what answers it."""

from __future__ import annotations

from typing import get_args
from uuid import UUID

import pytest
from batches.acts import act_out, answers_to
from makers import EVENING, event, fold, potted, read, started, wanted
from spissus_core import events as ev
from spissus_core.events.state import Concern, ConcernKind, Slip
from spissus_core.phenomena.cooling import Cooling
from spissus_core.planning.guidance import Act, ActKind
from spissus_core.planning.routes import solve_route
from spissus_core.pot import Pot

STORY = [started("1.6 l", fat_ml="80 ml"), wanted(900), ev.Chosen(route="roux"), ev.Skimmed(way="separator"),
         read("scale", "2340 g")]  # fmt: skip


def _pot() -> Pot:
    return potted(*STORY)


@pytest.mark.parametrize("kind", get_args(ActKind))
def test_every_act_has_what_answers_it(kind: ActKind) -> None:
    """A kind that is added to the list without its answers fails here, and no append."""
    timeline = fold([event(i, one) for i, one in enumerate(STORY, 1)])
    route = solve_route(_pot(), wanted(900), "roux")
    act = Act(
        kind, route, amount=50.0, way="spoon", concern=Concern("butter", EVENING), slip=Slip(UUID(int=1), 5.0, 2.0),
        cooling=Cooling("above"),
    )  # fmt: skip
    assert act_out(act, timeline).sentence
    answers = answers_to(act, timeline)
    assert answers or kind in ("start", "done", "alone")
    for answer in answers:
        assert answer.payload or answer.opens or answer.asks
        if answer.payload and answer.payload["kind"] not in ("taken", "finished"):
            assert not isinstance(ev.recorded(answer.payload), ev.Unread), answer


@pytest.mark.parametrize("doubt", get_args(ConcernKind))
def test_every_doubt_has_its_answers(doubt: ConcernKind) -> None:
    timeline = fold([event(i, one) for i, one in enumerate(STORY, 1)])
    answers = answers_to(Act("warn", concern=Concern(doubt, EVENING)), timeline)
    assert answers
    for answer in answers:
        said = ev.recorded(answer.payload)
        assert isinstance(said, ev.Answered)
        assert said.said()
