"""What the sauce is to be, and the way the cook takes."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated, Literal, Self

from pydantic import AfterValidator, WithJsonSchema

from ..amounts.fields import TimeZone, zone_of
from ..amounts.quantities import show_minutes, show_plain
from ..errors import QuantityError, SpissusError
from ..intake.clock import next_after
from ..messages import Message, Term, clauses, say, several
from ..pantry.guests import AVOIDED_WORDS
from ..pantry.schools import School, SchoolKey
from ..pantry.ways import EARLIER, WAYS
from ..phenomena.body import LADDER
from ..wish import Wish
from .base import Kind, Kitchen
from .state import State

#: Some time is left even once the hour has passed, min: it is late then. An hour that passed so lately is asked about,
#: and not taken for the next day's. Modelling choices.
LEAST_LEFT_MIN, JUST_PASSED = 1.0, timedelta(hours=2)


class Wanted(Wish, Kind):
    """What the sauce is to be; told for a time of the clock, with the zone of that."""

    server_writes = ("time_zone",)
    versions = (1, 2, 8)
    called = say("entries.wanted")

    kind: Literal["wanted"] = "wanted"
    time_zone: TimeZone | None = None

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the clock that it was told by. Raises SpissusError where nobody said which that is."""
        if self.clock is None:
            return self
        zone = kitchen.time_zone()
        if zone is None:
            raise SpissusError("minutes", say("kitchen.which_zone"))
        return self.kept_with(time_zone=zone)

    def timed(self, state: State, at: datetime) -> tuple[Self, datetime | None]:
        """The wish with the minutes there are until then, and when it is to be ready; None where any time will do.

        The hour that was told before is still that hour once it has passed. A zone that no tz database knows any more
        leaves the rest of the wish as it is.
        """
        zone = zone_of(self.time_zone)
        if self.clock is None or zone is None:
            return self, None if self.time_there_is is None else at + timedelta(minutes=self.time_there_is)
        before, by = state.asked.wanted, state.asked.ready_by
        if by is None or before is None or before.clock != self.clock:
            by = next_after(self.clock, at, zone)
        clock = f"{by.astimezone(zone):%H:%M}"
        minutes = max((by - at).total_seconds() / 60.0, LEAST_LEFT_MIN)
        return self.model_copy(update={"clock": clock, "minutes": minutes}), by

    def apply(self, state: State, at: datetime) -> State:
        """The wish stands, the one before it is remembered; what was said of another body or salt is forgotten."""
        before = state.asked.wanted
        told, ready_by = self.timed(state, at)
        wish = told.said_again(before)
        same_body = before is None or before.body == self.body
        same_salt = before is None or before.salt_percent == self.salt_percent
        # Said again with another salt it boils no longer for it; told anew it does.
        goes_on = wish is not told and wish.told_by == "minutes"
        asked = state.asked.but(
            wanted=wish if state.pot is None else wish.of(state.pot),
            agreed=before,
            ready_by=ready_by,
            time_zone=self.time_zone,
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
        self._check_hour(after)

    def _check_hour(self, after: State) -> None:
        at, agreed, zone = after.stands_at, after.asked.agreed, zone_of(self.time_zone)
        if self.clock is None or zone is None or at is None:
            return
        if agreed is not None and agreed.clock == self.clock:
            return
        passed = next_after(self.clock, at - JUST_PASSED, zone)
        if passed <= at:
            raise SpissusError("minutes", say("wishes.clock_just_passed", by=passed))

    def said(self) -> Message:
        """How much, how thick, how salty, in what time, and for whom not."""
        wanted = say(
            "events.wanted",
            amount=self.amount_said,
            body=Term(LADDER[self.body].on_the_spoon),
            salt=show_plain(self.salt_percent, "%"),
            ceiling=show_plain(self.ceiling_percent, "%"),
        )
        wanted = clauses(wanted, self._when)
        without = [Term(AVOIDED_WORDS[key]) if key in AVOIDED_WORDS else key for key in self.avoid]
        return say("events.wanted_without", wanted=wanted, avoid=several("clauses", *without)) if without else wanted

    @property
    def _when(self) -> Message | None:
        if self.clock is not None:
            hours = [say("events.hour", text=one) for one in self.clock.split()]
            return say("events.wanted_at", hour=several("or", *hours))
        there_is = self.time_there_is
        return None if there_is is None else say("events.wanted_in", time=show_minutes(there_is))


def _offered(key: str) -> str:
    if key not in WAYS:
        raise QuantityError("route", say("routes.not_offered", kind=key))
    return key


#: A way that is offered, by its key: how much of the pot, where it stops, what binds it. There are hundreds, so that
#: they are described by their form.
RouteKind = Annotated[
    str,
    AfterValidator(_offered),
    WithJsonSchema({"type": "string", "pattern": "^(all|part)-[a-z]+-[a-z_]+$", "maxLength": max(map(len, WAYS))}),
]


class Chosen(Kind):
    """The way the cook takes."""

    looks = True
    server_writes = ("school",)
    versions = (1, 4, 11)
    # Ways had names of their own before they were composed.
    upcasts = {3: lambda said: said | {"route": EARLIER.get(str(said.get("route")), said.get("route"))}}
    called = say("entries.chosen")

    kind: Literal["chosen"] = "chosen"
    route: RouteKind
    thickener: SchoolKey | None = None
    school: School | None = None

    def apply(self, state: State, at: datetime) -> State:
        """The way stands; boiling may begin anew for it."""
        pot = None if state.pot is None else state.pot.but(mixture=self.school or state.pot.mixture)
        asked = state.asked.but(way=self.route)
        return state.but(asked=asked, judged=state.judged.but(boiled_enough=False), pot=pot)

    def check(self, after: State) -> None:
        """A way leads somewhere."""
        super().check(after)
        if after.asked.wanted is None:
            raise SpissusError("kind", say("wishes.what_first"))
        if WAYS[self.route].with_own and self.school is None:
            raise SpissusError("thickener", say("wishes.which_mixture"))

    def said(self) -> Message:
        """Which way."""
        return say("events.chosen", way=WAYS[self.route].called(self.school))

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With a mixture of the kitchen's own whole, as strongly as it binds there; of the rows none is kept."""
        own = WAYS[self.route].with_own and self.thickener is not None
        school = kitchen.binding(kitchen.school(self.thickener or "")) if own else None
        return self.kept_with(school=school, thickener=self.thickener if own else None)
