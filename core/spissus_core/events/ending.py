"""The end: the sauce is done."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..amounts.fields import VolumeMl
from ..messages import Message, say
from .base import Kind
from .state import State


class Finished(Kind):
    """The sauce is done, planned or not; its yield was measured or is taken from the ledger."""

    stage = "serve"
    tells = ("yield_ml",)
    called = say("entries.finished")

    kind: Literal["finished"] = "finished"
    yield_ml: VolumeMl | None = None

    def apply(self, state: State, at: datetime) -> State:
        """It is done."""
        return state.but(finished=True, yield_ml=self.yield_ml)

    def said(self) -> Message:
        """That it is done."""
        return say("events.finished")
