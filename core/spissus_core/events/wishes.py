"""What the sauce is to be, and the way the cook takes."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated, Literal

from ..amounts.quantities import show_minutes, show_plain
from ..amounts.tables import among
from ..errors import SpissusError
from ..messages import Message, Term, clauses, say, several
from ..pantry.guests import AVOIDED_WORDS
from ..pantry.ways import EARLIER, WAYS
from ..phenomena.body import LADDER
from ..wish import Wish
from .base import Kind
from .state import State


class Wanted(Wish, Kind):
    """What the sauce is to be."""

    versions = (1, 2)
    called = say("entries.wanted")

    kind: Literal["wanted"] = "wanted"

    def apply(self, state: State, at: datetime) -> State:
        """The wish stands, the one before it is remembered; what was said of another body or salt is forgotten."""
        before = state.asked.wanted
        wish = self.said_again(before)
        same_body = before is None or before.body == self.body
        same_salt = before is None or before.salt_percent == self.salt_percent
        # Said again with another salt it boils no longer for it; told anew it does.
        goes_on = wish is not self and wish.told_by == "minutes"
        asked = state.asked.but(
            wanted=wish if state.pot is None else wish.of(state.pot),
            agreed=before,
            ready_by=None if self.time_there_is is None else at + timedelta(minutes=self.time_there_is),
            left_min=state.asked.left_min if goes_on else wish.minutes,
        )
        judged = state.judged.but(boiled_enough=False)
        judged = judged if same_body else judged.but(body=())
        judged = judged if same_salt else judged.but(salt=(), liking_percent=0.0)
        return state.but(asked=asked, judged=judged)

    def check(self, after: State) -> None:
        """Refuse more than the pot can give."""
        super().check(after)
        if after.pot is not None:
            self.of(after.pot).check_amount(after.pot.contents.liquid_ml, after.asked.agreed)

    def said(self) -> Message:
        """How much, how thick, how salty, in what time, and for whom not."""
        timed = self.time_there_is is not None
        wanted = say(
            "events.wanted",
            amount=self.amount_said,
            body=Term(LADDER[self.body].on_the_spoon),
            salt=show_plain(self.salt_percent, "%"),
            ceiling=show_plain(self.ceiling_percent, "%"),
        )
        wanted = clauses(wanted, say("events.wanted_in", time=show_minutes(self.minutes or 0.0)) if timed else None)
        without = [Term(AVOIDED_WORDS[key]) if key in AVOIDED_WORDS else key for key in self.avoid]
        return say("events.wanted_without", wanted=wanted, avoid=several("clauses", *without)) if without else wanted


#: A way that is offered, by its key.
RouteKind = Annotated[str, *among(WAYS)]


class Chosen(Kind):
    """The way the cook takes."""

    looks = True
    versions = (1, 4)
    # Ways had names of their own before they were composed.
    upcasts = {3: lambda said: said | {"route": EARLIER.get(str(said.get("route")), said.get("route"))}}
    called = say("entries.chosen")

    kind: Literal["chosen"] = "chosen"
    route: RouteKind

    def apply(self, state: State, at: datetime) -> State:
        """The way stands; boiling may begin anew for it."""
        return state.but(asked=state.asked.but(way=self.route), judged=state.judged.but(boiled_enough=False))

    def check(self, after: State) -> None:
        """A way leads somewhere."""
        super().check(after)
        if after.asked.wanted is None:
            raise SpissusError("kind", say("wishes.what_first"))

    def said(self) -> Message:
        """Which way."""
        return say("events.chosen", way=Term(WAYS[self.route].label))
