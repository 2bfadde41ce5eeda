"""On the table at: when it will be ready, and when to start what goes with it, as the page shows it."""

from __future__ import annotations

from datetime import datetime

from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core.amounts.quantities import show_minutes
from spissus_core.board import Board
from spissus_core.pantry.guests import USUAL_DISH
from spissus_core.planning.schedule import SIDES, InTime, put_off, ready_line, starts

from .pot import word


class SideOut(Shape):
    """Something that goes with it, and when to start it."""

    key: str
    label: str
    at: datetime


class LaterOut(Shape):
    """So much later, and how a wish says so."""

    said: ShownOut
    minutes: str


class OnTableOut(Shape):
    """When it will be ready, with its interval; ``by`` when it is to be, whether that is in time, and when to start
    what goes with it, and how it may be put off."""

    low: datetime
    high: datetime
    by: datetime | None
    stands: InTime | None
    said: SaidOut
    sides: list[SideOut]
    later: list[LaterOut]


def ready_out(board: Board) -> OnTableOut | None:
    """What is said of it; None where nothing can be."""
    found, by = board.ready, board.timeline.asked.ready_by
    if found is None:
        return None
    asked = board.timeline.asked
    sides = {} if by is None else starts(by, asked.wanted.dish if asked.wanted else USUAL_DISH)
    now = board.timeline.stands_at or found.low
    later = {} if by is None else put_off(by, now, asked.time_zone)
    return OnTableOut(
        low=found.low,
        high=found.high,
        by=by,
        stands=None if by is None else found.stands(by),
        said=SaidOut.of(ready_line(found, by)),
        sides=[SideOut(key=key, label=word(SIDES[key].label), at=at) for key, at in sides.items()],
        later=[LaterOut(said=ShownOut.of(show_minutes(minutes)), minutes=told) for minutes, told in later.items()],
    )
