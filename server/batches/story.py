"""The story of a batch as the page draws it: what happened over what was foreseen."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from shared.shapes import SaidOut, Shape
from spissus_core.board import Board
from spissus_core.planning.story import Because, Compared, Point


class PathPointOut(Shape):
    """How much there is at a time, mL with its fat, and how dark it is drawn."""

    at: datetime
    ml: float
    tone: float

    @classmethod
    def of(cls, point: Point) -> PathPointOut:
        return cls(at=point.at, ml=point.ml, tone=point.tone)


class ComparedOut(Shape):
    """A figure as it came and as it was foreseen; ``same`` where nobody would tell them apart."""

    what: Literal["volume", "body", "salt", "strength", "time"]
    happened: SaidOut
    foreseen: SaidOut
    same: bool

    @classmethod
    def of(cls, one: Compared) -> ComparedOut:
        return cls(what=one.what, happened=SaidOut.of(one.happened), foreseen=SaidOut.of(one.foreseen), same=one.same)


class BecauseOut(Shape):
    """Something that turned out otherwise, where on the ribbon, and what it alone did."""

    at: datetime
    ml: float
    what: SaidOut
    did: SaidOut

    @classmethod
    def of(cls, one: Because) -> BecauseOut:
        return cls(at=one.at, ml=one.ml, what=SaidOut.of(one.what), did=SaidOut.of(one.did))


class StoryOut(Shape):
    """What happened and what was foreseen, as paths in time; their figures; and why they differ, the largest first."""

    happened: list[PathPointOut]
    foreseen: list[PathPointOut]
    figures: list[ComparedOut]
    because: list[BecauseOut]


def story_out(board: Board) -> StoryOut | None:
    """The story; None where there is none yet."""
    told = board.story
    if told is None:
        return None
    return StoryOut(
        happened=[PathPointOut.of(one) for one in told.happened],
        foreseen=[PathPointOut.of(one) for one in told.foreseen],
        figures=[ComparedOut.of(one) for one in told.figures],
        because=[BecauseOut.of(one) for one in told.because],
    )
