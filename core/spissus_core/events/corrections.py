"""What is said of other events: when one happened after all, and that one did not."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from pydantic import AwareDatetime, Field, JsonValue, ValidationError

from ..amounts.fields import MassG, Name
from ..amounts.quantities import LONGEST_AMOUNT, show_number
from ..messages import Message, say
from .additions import GoesIn
from .base import Kind, Kitchen
from .state import State


class Dated(Kind):
    """When another event happened after all: its clock was wrong, or it was recorded later."""

    beside = True
    away = True
    called = say("entries.dated")

    kind: Literal["dated"] = "dated"
    event: UUID
    at: AwareDatetime

    def check(self, after: State) -> None:
        """Which event, and when, is for the log to judge."""

    def said(self) -> Message:
        """That it was said."""
        return say("events.dated")


class Struck(Kind):
    """Another event is taken back. Striking a strike brings the event back."""

    undoable = False
    away = True
    called = say("entries.struck")

    kind: Literal["struck"] = "struck"
    event: UUID

    def check(self, after: State) -> None:
        """Which event is for the log to judge."""

    def said(self) -> Message:
        """That it was taken back."""
        return say("events.struck")


class Meant(Kind):
    """How much another event was of after all: what was entered, another weight, or another ``amount`` in words.

    What the event ``becomes`` by that is kept as numbers, field by field, so that it is never read again.
    """

    away = True
    server_writes = ("becomes",)
    versions = (2, 8)
    called = say("entries.meant")

    kind: Literal["meant"] = "meant"
    event: UUID
    grams: MassG | None = None
    amount: Annotated[str | None, Field(max_length=LONGEST_AMOUNT)] = None
    becomes: Annotated[dict[Name, JsonValue], Field(max_length=20)] | None = None

    def apply(self, state: State, at: datetime) -> State:
        """The question is answered."""
        slips = tuple(slip for slip in state.went_in.slips if slip.event != self.event)
        return state.but(went_in=state.went_in.but(slips=slips))

    def check(self, after: State) -> None:
        """Which event is for the log to judge."""

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With what the other event becomes. Raises SpissusError where that is no such amount."""
        if self.amount is None:
            return self
        before = kitchen.entry(self.event)
        was, now = (kind.model_dump(mode="json") for kind in (before, before.with_amount(self.amount)))
        return self.kept_with(becomes={name: value for name, value in now.items() if value != was[name]})

    def corrected(self, happened: Kind) -> Kind:
        """The event with the amount that was meant; as it is where that has none, or cannot become that."""
        if self.becomes is not None:
            try:
                return happened.kept_with(**self.becomes)
            except ValidationError:
                return happened
        return happened.weighing(self.grams) if self.grams is not None and isinstance(happened, GoesIn) else happened

    def said(self) -> Message:
        """That it was right, or how much it was."""
        if self.amount is not None:
            return say("events.meant_amount", text=self.amount)
        if self.grams is None:
            return say("events.as_entered")
        return say("events.meant", grams=show_number(self.grams, 1, "g"))
