"""The start: the strained liquid stands in a pan."""

from __future__ import annotations

from typing import Literal

from ..messages import Message, say
from ..start import Start
from .base import Kind, Kitchen
from .looking import BY
from .state import State


class Started(Start, Kind):
    """The strained liquid stands in a pan. A later one corrects the start."""

    stage = "strain"
    looks = True
    server_writes = ("liking", "limits")
    versions = (1, 2, 6, 7, 8)
    called = say("entries.started")

    kind: Literal["started"] = "started"

    def check(self, after: State) -> None:
        """A start may come at any time."""

    def said(self) -> Message:
        """How much, how it was found, and in what."""
        known, pan = self.liquid, self.pan.name
        if known.measured is None:
            lines = len(known.braise.counted) if known.braise else 0
            return say("events.started_by_list", count=lines, pan=pan)
        return say("events.started", by=BY[known.measured.method], amount=known.measured.shown, pan=pan)

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With every ingredient of its list whole, and with what the kitchen likes by now and goes by."""
        liquid = self.liquid.written_out(kitchen.own_ingredients())
        return self.kept_with(liquid=liquid, liking=kitchen.liking(), limits=kitchen.limits())
