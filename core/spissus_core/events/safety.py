"""What the cook says to a doubt about the pot: it was thrown away, or the doubt was wrong."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..amounts.quantities import Said, say
from .base import Kind
from .state import ConcernKind, State

_ANSWERS = {
    ("cooling", "thrown_away"): "Thrown away: it was not cooled in time",
    ("cooling", "in_order"): "The cooling was in order: a reading was wrong",
    ("butter", "thrown_away"): "Thrown away: it parted",
    ("butter", "in_order"): "Taken off before it boiled with the butter in it",
}


class Answered(Kind):
    """A doubt about the pot is answered; it stands with the batch until then."""

    versions = (2,)

    kind: Literal["answered"] = "answered"
    concern: ConcernKind
    answer: Literal["thrown_away", "in_order"]

    def apply(self, state: State, at: datetime) -> State:
        """The doubt is gone, or the pot is."""
        left = tuple(concern for concern in state.concerns if concern.kind != self.concern)
        return state.but(concerns=left, thrown_away=state.thrown_away or self.answer == "thrown_away")

    def said(self) -> Said:
        """What was said."""
        return say(_ANSWERS[self.concern, self.answer])
