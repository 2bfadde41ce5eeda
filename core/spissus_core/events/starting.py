"""The start: the strained liquid stands in a pan."""

from __future__ import annotations

from typing import Literal

from ..intake.liquid import StrainedLiquid, strained_liquid
from ..measuring.vessels import Pan
from ..messages import Message, say
from ..phenomena.heating import Burner
from ..pot import Pot, in_pan
from .base import Kind, Kitchen
from .looking import BY
from .state import State


class Started(Kind):
    """The strained liquid stands in a pan. A later one corrects the start."""

    stage = "strain"
    looks = True
    versions = (1, 2)

    kind: Literal["started"] = "started"
    pan: Pan
    burner: Burner
    liquid: StrainedLiquid

    def begin(self) -> Pot:
        """The pot that everything else is applied to.

        Raises
        ------
        MeasurementError, QuantityError : it cannot be worked out.
        """
        known = self.liquid
        strained = strained_liquid(self.pan, known)
        contents, salt = strained.contents, strained.salt_g
        brine = contents.salt / contents.water
        return Pot(
            contents=contents, pan=self.pan, burner=self.burner, hot=known.measured.hot if known.measured else True,
            salt_minus=salt.best - salt.low, salt_plus=salt.high - salt.best, measured_by=strained.measured_by,
            error_ml=strained.error_ml, salt_g_g=strained.salt_g_g, solids=in_pan(known.solids_g, brine), brine=brine,
        )  # fmt: skip

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
        """With every ingredient of its list whole."""
        return self.kept_with(liquid=self.liquid.written_out(kitchen.own_ingredients()))
