"""What a dish comes to in a pan on a burner: time does not scale, it is worked out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from .. import events as ev
from ..amounts.estimate import Estimate
from ..board import Board
from ..errors import SpissusError
from ..intake.liquid import strained_liquid
from ..measuring.vessels import Pan
from ..messages import say
from ..pantry.ways import WAYS
from ..phenomena.heating import Burner
from ..planning.proposing import solve_routes
from ..planning.solving import Route
from .dish import HouseDish


@dataclass(frozen=True, slots=True, kw_only=True)
class Foreseen:
    """What a dish comes to in a pan on a burner: what is strained, and the way from there with its minutes in all.

    ``liquid_ml`` is mL at 20 °C; ``minutes`` counts from the strained liquid to the table, 80 % interval.
    """

    pan: Pan
    board: Board
    liquid_ml: float
    route: Route | None
    minutes: Estimate | None


def foreseen(dish: HouseDish, pan: Pan, burner: Burner, at: datetime) -> Foreseen:
    """What the dish comes to, worked out as a batch that begins ``at`` a time.

    Raises
    ------
    SpissusError : it does not fit that pan, or nothing can be told of it.
    """
    liquid = dish.liquid_in(pan)
    started = dish.started.kept_with(pan=pan, burner=burner, liquid=liquid)
    begun = Board(_log(at, [started, *([] if dish.wanted is None else [dish.wanted])]), at)
    if begun.timeline.pot is None:
        problem = begun.timeline.moments[0].problem
        raise problem or SpissusError("start", say("batch.start_unreadable"))
    way = _way(dish, begun)
    if way is None:
        return Foreseen(pan=pan, board=begun, liquid_ml=_liquid_ml(begun), route=None, minutes=None)
    bound = way.thickener if way.way.with_own else None
    chosen = ev.Chosen(route=way.kind, thickener=bound.key if bound else None, school=bound)
    payloads = [started, dish.wanted, chosen]
    board = Board(_log(at, [one for one in payloads if one is not None]), at)
    minutes = board.ready
    return Foreseen(
        pan=pan,
        board=board,
        liquid_ml=_liquid_ml(board),
        route=board.route,
        minutes=None if minutes is None else Estimate(*((one - at).total_seconds() / 60.0 for one in minutes)),
    )


def most_people(dish: HouseDish, pan: Pan) -> int:
    """For how many, up to those of the dish, a pan holds what is strained.

    Found by halving: what is strained grows with what went in.
    """
    low, high = 0, dish.people + 1
    while high - low > 1:
        middle = (low + high) // 2
        low, high = (middle, high) if _fits(dish.for_people(middle), pan) else (low, middle)
    return low


def _fits(dish: HouseDish, pan: Pan) -> bool:
    try:
        strained_liquid(pan, dish.liquid_in(pan))
    except SpissusError:
        return False
    return True


def _liquid_ml(board: Board) -> float:
    pot = board.timeline.first_pot
    assert pot is not None
    return pot.contents.liquid_ml


def _way(dish: HouseDish, begun: Board) -> Route | None:
    """Its own way where that leads there with this pot too; else the one to propose."""
    pot, wanted = begun.timeline.pot, begun.timeline.asked.wanted
    if pot is None or wanted is None:
        return None
    own = None if dish.chosen is None else WAYS.get(dish.chosen.route)
    asked = () if own is None or own.school is None else (own.school.key,)
    pot = pot.but(mixture=None if dish.chosen is None else dish.chosen.school)
    ways = [route for route in solve_routes(pot, wanted, asked=asked) if route.feasible]
    return next((route for route in ways if route.way is own), ways[0] if ways else None)


def _log(at: datetime, payloads: Sequence[ev.Kind]) -> list[ev.Event]:
    return [ev.Event(id=UUID(int=seq), seq=seq, at=at, payload=one) for seq, one in enumerate(payloads, 1)]
