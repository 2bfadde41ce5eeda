"""The start: the strained liquid stands in a pan."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..messages import Message, Term, say
from ..pantry.things import Thing
from ..start import Start
from .base import Kind, Kitchen
from .looking import BY
from .shelf import brought_by
from .state import State


class Started(Start, Kind):
    """The strained liquid stands in a pan. A later one corrects the start."""

    stage = "strain"
    looks = True
    server_writes = ("liking", "limits", "binds", "habit")
    versions = (1, 2, 6, 7, 8, 9, 11)
    called = say("entries.started")

    kind: Literal["started"] = "started"

    def apply(self, state: State, at: datetime) -> State:
        """What it was kept from goes with it: its date, what somebody may not have, and what must not boil."""
        return state if self._thing is None else brought_by(self._thing, state)

    @property
    def _thing(self) -> Thing | None:
        return None if self.liquid.kept is None else self.liquid.kept.thing

    @property
    def allergens(self) -> tuple[str, ...]:
        """Those of what it was kept from."""
        return () if self._thing is None else self._thing.allergens

    def check(self, after: State) -> None:
        """A start may come at any time."""

    def said(self) -> Message:
        """How much, how it was found, and in what."""
        known, pan = self.liquid, self.pan.name
        if known.kept is not None and known.measured is not None:
            name = self._thing.name if self._thing else Term("something kept")
            return say("events.started_from_kept", amount=known.measured.shown, name=name, pan=pan)
        if known.measured is None:
            lines = len(known.braise.counted) if known.braise else 0
            return say("events.started_by_list", count=lines, pan=pan)
        return say("events.started", by=BY[known.measured.method], amount=known.measured.shown, pan=pan)

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With every ingredient of its list whole, and with what the kitchen has learned by now and goes by."""
        liquid, kept = self.liquid.written_out(kitchen.own_ingredients()), self.liquid.kept
        if kept is not None:
            whole = kept.model_copy(update={"thing": kitchen.kept(kept.batch, kept.jar)})
            liquid = liquid.model_copy(update={"kept": whole})
        learned = {"liking": kitchen.liking(), "binds": kitchen.binds(), "habit": kitchen.habit()}
        return self.kept_with(liquid=liquid, limits=kitchen.limits(), **learned)
