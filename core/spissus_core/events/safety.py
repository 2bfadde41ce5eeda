"""What the cook says to a doubt about the pot: it was thrown away, or the doubt was wrong."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import ValidationInfo, model_validator

from ..amounts.fields import on_the_shelf
from ..amounts.quantities import Said, say
from ..errors import SpissusError
from .base import Kind
from .state import ConcernKind, State

_ANSWERS = {
    ("cooling", "thrown_away"): "Thrown away: it was not cooled in time",
    ("cooling", "in_order"): "The cooling was in order: a reading was wrong",
    ("butter", "thrown_away"): "Thrown away: it parted",
    ("butter", "in_order"): "Taken off before it boiled with the butter in it",
    ("butter", "mended"): "It boiled with the butter in it, and was whisked together again",
}


class Answered(Kind):
    """A doubt about the pot is answered; it stands with the batch until then."""

    versions = (2,)

    kind: Literal["answered"] = "answered"
    concern: ConcernKind
    answer: Literal["thrown_away", "in_order", "mended"]

    @model_validator(mode="after")
    def _an_answer_to_it(self, info: ValidationInfo) -> Answered:
        if (self.concern, self.answer) not in _ANSWERS and not on_the_shelf(info):
            raise SpissusError("answer", "What was not cooled in time is thrown away, or a reading was wrong.")
        return self

    def apply(self, state: State, at: datetime) -> State:
        """The doubt is gone, or the pot is."""
        left = tuple(concern for concern in state.concerns if concern.kind != self.concern)
        since = next((concern.since for concern in state.concerns if concern.kind == self.concern), None)
        vouched = since if self.concern == "cooling" else state.vouched_for
        return state.but(
            concerns=left, vouched_for=vouched, thrown_away=state.thrown_away or self.answer == "thrown_away"
        )

    def said(self) -> Said:
        """What was said."""
        return say(_ANSWERS.get((self.concern, self.answer), self.answer))
