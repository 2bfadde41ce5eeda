"""On the table at: when it will be ready, and when to start what goes with it, as the page shows it."""

from __future__ import annotations

from datetime import datetime

from shared.shapes import SaidOut, Shape
from spissus_core.board import Board
from spissus_core.planning.schedule import SIDES, InTime, ready_line, starts

from .pot import word


class SideOut(Shape):
    """Something that goes with it, and when to start it."""

    key: str
    label: str
    at: datetime


class OnTableOut(Shape):
    """When it will be ready, with its interval; ``by`` when it is to be, whether that is in time, and when to start
    what goes with it."""

    low: datetime
    high: datetime
    by: datetime | None
    stands: InTime | None
    said: SaidOut
    sides: list[SideOut]


def ready_out(board: Board) -> OnTableOut | None:
    """What is said of it; None where nothing can be."""
    found, by = board.ready, board.timeline.asked.ready_by
    if found is None:
        return None
    sides = {} if by is None else starts(by)
    return OnTableOut(
        low=found.low,
        high=found.high,
        by=by,
        stands=None if by is None else found.stands(by),
        said=SaidOut.of(ready_line(found, by)),
        sides=[SideOut(key=key, label=word(SIDES[key].label), at=at) for key, at in sides.items()],
    )
