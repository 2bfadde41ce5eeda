"""What the cook says to a doubt about the pot: it was thrown away, or the doubt was wrong."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import ValidationInfo, model_validator

from ..amounts.fields import on_the_shelf
from ..amounts.quantities import Said, say
from ..errors import SpissusError
from ..pantry.guests import ALCOHOL
from .base import Kind
from .state import ConcernKind, State

_ANSWERS = {
    ("cooling", "thrown_away"): "Thrown away: it was not cooled in time",
    ("cooling", "in_order"): "The cooling was in order: a reading was wrong",
    ("butter", "thrown_away"): "Thrown away: it parted",
    ("butter", "in_order"): "Taken off before it boiled with the butter in it",
    ("butter", "mended"): "It boiled with the butter in it, and was whisked together again",
    ("alcohol", "told"): "Whoever must not have alcohol knows that some may be left",
    ("alcohol", "in_order"): "No alcohol is in it",
    ("allergen", "told"): "Whoever must not eat it knows that it is in the sauce",
    ("allergen", "in_order"): "It is free of it, by the label",
    ("allergen", "thrown_away"): "Thrown away: somebody must not eat it",
}


_DOUBTS = {
    "cooling": "the cooling: it was thrown away, or a reading was wrong",
    "butter": "the butter: it was taken off in time, it was mended, or thrown away",
    "alcohol": "alcohol: they were told, or there is none",
    "allergen": "what somebody must not eat: they were told, it is free of it, or it was thrown away",
}


class Answered(Kind):
    """A doubt about the pot is answered; it stands with the batch until then."""

    versions = (2,)

    kind: Literal["answered"] = "answered"
    concern: ConcernKind
    answer: Literal["thrown_away", "in_order", "mended", "told"]

    @model_validator(mode="after")
    def _an_answer_to_it(self, info: ValidationInfo) -> Answered:
        if (self.concern, self.answer) not in _ANSWERS and not on_the_shelf(info):
            raise SpissusError("answer", f"That is no answer to a doubt about {_DOUBTS[self.concern]}.")
        return self

    def apply(self, state: State, at: datetime) -> State:
        """The doubt is gone, or the pot is."""
        left = tuple(concern for concern in state.concerns if concern.kind != self.concern)
        about = next((concern for concern in state.concerns if concern.kind == self.concern), None)
        vouched = about and about.since if self.concern == "cooling" else state.vouched_for
        # Whoever was told knows it of the whole pot; what is free of it says nothing of what may still go in.
        told = {ALCOHOL} if self.concern == ALCOHOL else set(about.holds if about else ())
        return state.but(
            concerns=left, vouched_for=vouched, told=state.told.union(told if self.answer == "told" else ()),
            thrown_away=state.thrown_away or self.answer == "thrown_away",
        )  # fmt: skip

    def said(self) -> Said:
        """What was said."""
        return say(_ANSWERS.get((self.concern, self.answer), self.answer))
