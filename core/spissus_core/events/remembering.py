"""What is to be remembered of a batch: how it was, who ate it, and what is to be done otherwise next time."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Annotated, Literal, NamedTuple, cast
from uuid import UUID

from pydantic import Field

from ..amounts.fields import Remark
from ..amounts.rows import rows
from ..amounts.tables import one_of, table
from ..messages import Message, Term, clauses, say
from .base import Kind, Stage
from .state import NextTimeNote, State

#: How good it was, in words, by points from 1 to 5: rows of ``data/points.csv``.
POINTS: Mapping[int, str] = {int(row["points"]): row["label"] for row in rows("points")}


class Moment(NamedTuple):
    """A moment that a note concerns: what it is called, and the stage at which it comes back."""

    label: str
    stage: Stage


#: Rows of ``data/moments.csv``.
MOMENTS: Mapping[str, Moment] = table("moments", lambda row: Moment(row["label"], cast(Stage, row["stage"])))

MomentKey = Annotated[str, *one_of("moments", outlives=True)]


class Rated(Kind):
    """How it was, from 1 to 5 points; how many ate it. The newest word counts."""

    stage = "serve"
    beside = True
    away = True
    versions = (8,)
    called = say("entries.rated")

    kind: Literal["rated"] = "rated"
    points: Annotated[int, Field(ge=1, le=5)]
    ate: Annotated[int, Field(ge=0, le=2000)] | None = None

    def apply(self, state: State, at: datetime) -> State:
        """It is remembered."""
        return state.but(remembered=state.remembered.but(points=self.points, ate=self.ate))

    def said(self) -> Message:
        """How it was, and for how many."""
        ate = None if self.ate is None else say("events.ate", count=self.ate)
        return clauses(say("events.rated", how=Term(POINTS.get(self.points, str(self.points)))), ate)


class NextTime(Kind):
    """What is to be done otherwise when the dish is made again, and at what moment; the page makes the note's id."""

    stage = "serve"
    beside = True
    away = True
    versions = (8,)
    called = say("entries.next_time")

    kind: Literal["next_time"] = "next_time"
    note: UUID
    text: Remark
    moment: MomentKey = "start"

    def apply(self, state: State, at: datetime) -> State:
        """It is remembered; said again under the same id it takes the place of what was said before."""
        others = tuple(one for one in state.remembered.notes if one.note != self.note)
        noted = NextTimeNote(self.note, self.text, self.moment)
        return state.but(remembered=state.remembered.but(notes=(*others, noted)))

    def said(self) -> Message:
        """The note, and when it comes back."""
        moment = MOMENTS.get(self.moment)
        return say("events.next_time", moment=Term(moment.label if moment else self.moment), text=self.text)


class Minded(Kind):
    """A note of an earlier batch has come back: it was minded, or is kept for another time."""

    beside = True
    away = True
    versions = (8,)
    called = say("entries.minded")

    kind: Literal["minded"] = "minded"
    note: UUID
    keep: bool = False

    def apply(self, state: State, at: datetime) -> State:
        """It is not shown again in this batch; minded it is shown in none."""
        seen = state.remembered.minded | {self.note}
        done = state.remembered.done if self.keep else state.remembered.done | {self.note}
        return state.but(remembered=state.remembered.but(minded=seen, done=done))

    def said(self) -> Message:
        """What became of it."""
        return say("events.note_kept" if self.keep else "events.note_minded")
