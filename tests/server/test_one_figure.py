"""One thing has one figure wherever it stands: bar, ribbon, curve and plan of whole evenings, at every act."""

from __future__ import annotations

from types import SimpleNamespace
from typing import cast
from uuid import UUID

import pytest
from batches.bench import batch_out
from batches.models import Batch
from shared.shapes import ShownOut
from spissus_core.amounts.quantities import show_volume
from spissus_core.board import Board
from spissus_core.planning.acts import Act
from spissus_core.planning.solving import solve_route
from spissus_core.wish import Wish
from words import plain

from tests.study.obedient import ERRING, Evening

#: What a wish says besides how much.
BESIDE = {"body", "salt_percent", "ceiling_percent", "fat_g_per_100_ml", "minutes", "avoid"}


def _shown(figure: ShownOut | None) -> str | None:
    return None if figure is None else figure.metric


class _Watched(Evening):
    """An evening of which every figure of every view is looked at before the cook acts."""

    seen: tuple[dict[str, set[str | None]], ...] = ()

    def obey(self, act: Act, board: Board) -> None:
        batch = cast(
            Batch,
            SimpleNamespace(id=UUID(int=self.seed), pk=0, name="", house_dish=None, created_at=self.now, last_seq=0),
        )
        out = batch_out(batch, board)
        assert not out.missing
        assert out.pot is not None
        done = [one for one in out.ribbon if not one.planned]
        boils = [one for one in out.ribbon if one.planned and one.stage == "reduce"]
        things: dict[str, set[str | None]] = {"now": {_shown(done[-1].liquid), _shown(out.pot.liquid)}}
        # What is planned is never drawn before what has happened.
        assert out.ribbon == [*done, *(one for one in out.ribbon if one.planned)]
        if out.plan is not None:
            things["makes"] = {_shown(out.ribbon[-1].liquid), _shown(out.plan.volume)}
            things["salt in the end"] = {f"{out.ribbon[-1].salt_percent:.2f}", f"{out.plan.salt_after.best:.2f}"}
        if out.plan is not None and act.mark is not None and boils and out.curve is not None:
            assert out.curve.stop is not None
            things["stop"] = {_shown(boils[-1].liquid), _shown(out.plan.boil_to), _shown(out.curve.stop)}
        if out.plan is not None and board.drawn is not None and board.drawn.feasible:
            agreed, pot = board.timeline.asked.wanted, board.timeline.pot
            assert agreed is not None
            assert pot is not None
            # What the page asks for is the wish as it shows it.
            said = Wish.model_validate({"amount": show_volume(agreed.amount_ml).us} | agreed.model_dump(include=BESIDE))
            way = board.as_drawn(said.said_again(agreed), solve_route(pot, agreed, board.drawn.kind))
            things["the way on the plan"] = {
                f"{show_volume(ml).metric} {salt:.2f} %"
                for ml, salt in (
                    (way.boil_to_ml, way.salt_after.best),
                    (out.plan.boil_to.value, out.plan.salt_after.best),
                )
            }
        if out.act.goes_in is not None:
            assert out.act.goes_in.metric in plain(act.said(board.timeline), "metric")
        self.seen = (*self.seen, things)
        super().obey(act, board)


@pytest.mark.parametrize("seed", [6_600_000, 6_600_001, 6_600_006, 6_600_011])
def test_no_thing_has_two_figures(seed: int) -> None:
    evening = _Watched(seed, ERRING)
    evening.run()
    for number, things in enumerate(evening.seen):
        assert {name: figures for name, figures in things.items() if len(figures) > 1} == {}, number
    named = {name for things in evening.seen for name in things}
    assert {"now", "makes", "salt in the end", "the way on the plan"} <= named
