"""What the cook says to a doubt about the pot: it was thrown away, or the doubt was wrong."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import Literal

from pydantic import ValidationInfo, model_validator

from ..amounts.fields import on_the_shelf
from ..errors import SpissusError
from ..messages import Message, say
from ..pantry.guests import ALCOHOL
from .base import Kind
from .state import ConcernKind, State

#: What the log says of an answer, by doubt.
_ANSWERS: dict[tuple[str, str], Message] = {
    ("cooling", "thrown_away"): say("events.cooling_thrown_away"),
    ("cooling", "in_order"): say("events.cooling_in_order"),
    ("rest", "thrown_away"): say("events.rest_gone"),
    ("rest", "in_order"): say("events.cooling_in_order"),
    ("kept", "thrown_away"): say("events.kept_thrown_away"),
    ("kept", "in_order"): say("events.kept_in_order"),
    ("butter", "thrown_away"): say("events.butter_thrown_away"),
    ("butter", "in_order"): say("events.butter_in_order"),
    ("butter", "mended"): say("events.butter_mended"),
    ("yolk", "thrown_away"): say("events.yolk_thrown_away"),
    ("yolk", "in_order"): say("events.yolk_in_order"),
    ("yolk", "mended"): say("events.yolk_mended"),
    ("cream", "thrown_away"): say("events.cream_thrown_away"),
    ("cream", "in_order"): say("events.cream_in_order"),
    ("cream", "mended"): say("events.cream_mended"),
    ("alcohol", "told"): say("events.alcohol_told"),
    ("alcohol", "in_order"): say("events.alcohol_in_order"),
    ("allergen", "told"): say("events.allergen_told"),
    ("allergen", "in_order"): say("events.allergen_in_order"),
    ("allergen", "thrown_away"): say("events.allergen_thrown_away"),
}


#: What may be answered to a doubt.
_DOUBTS: dict[str, Message] = {
    "cooling": say("events.no_answer_to_cooling"),
    "rest": say("events.no_answer_to_rest"),
    "kept": say("events.no_answer_to_kept"),
    "butter": say("events.no_answer_to_butter"),
    "yolk": say("events.no_answer_to_yolk"),
    "cream": say("events.no_answer_to_cream"),
    "alcohol": say("events.no_answer_to_alcohol"),
    "allergen": say("events.no_answer_to_allergen"),
}


class Answered(Kind):
    """A doubt about the pot is answered; it stands with the batch until then."""

    versions = (2,)
    away = True
    called = say("entries.answered")

    kind: Literal["answered"] = "answered"
    concern: ConcernKind
    answer: Literal["thrown_away", "in_order", "mended", "told"]

    @model_validator(mode="after")
    def _an_answer_to_it(self, info: ValidationInfo) -> Answered:
        if (self.concern, self.answer) not in _ANSWERS and not on_the_shelf(info):
            raise SpissusError("answer", _DOUBTS[self.concern])
        return self

    def apply(self, state: State, at: datetime) -> State:
        """The doubt is gone, or the pot is."""
        left = tuple(concern for concern in state.table.concerns if concern.kind != self.concern)
        about = next((concern for concern in state.table.concerns if concern.kind == self.concern), None)
        vouched = about and about.since if self.concern == "cooling" else state.table.vouched_for
        # Whoever was told knows it of the whole pot; what is free of it says nothing of what may still go in.
        told = {ALCOHOL} if self.concern == ALCOHOL else set(about.holds if about else ())
        table = state.table.but(
            concerns=left,
            vouched_for=vouched,
            told=state.table.told.union(told if self.answer == "told" else ()),
            thrown_away=state.table.thrown_away or self.answer == "thrown_away",
        )
        if self.concern == "rest" and self.answer == "thrown_away":
            # The sauce itself is another matter.
            pot = None if state.pot is None else state.pot.but(kept=None)
            return state.but(table=table.but(thrown_away=state.table.thrown_away), pot=pot, rest=None)
        if self.concern == "rest" and state.rest is not None:
            state = state.but(rest=replace(state.rest, readings=()))
        return state.but(table=table)

    def said(self) -> Message:
        """What was said."""
        return _ANSWERS.get((self.concern, self.answer)) or say("events.noted", text=self.answer)
