"""More than the pan at hand where time is short: another pan of the kitchen, or two at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..errors import SpissusError
from ..measuring.vessels import SHALLOW_MM, Pan
from ..phenomena.heating import Burner
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT
from .pans import beside_in, room_ml
from .solving import Route, solve_route, work_min


@dataclass(frozen=True, slots=True)
class Hurried:
    """A way that is ready in time elsewhere: the ``place``-th pan of those compared.

    ``split_ml`` is what is poured over into it beside the pan at hand; None where all of it moves. ``takes_min`` is
    the way with that, min.
    """

    route: Route
    place: int
    split_ml: float | None
    takes_min: float


def hurried(pot: Pot, wanted: Wish, route: Route, choices: Sequence[tuple[Pan, Burner]]) -> Hurried | None:
    """The quickest way of the same kind in another pan, or in two, where it takes too long in this one.

    None where time is not what bars it, or where no pan is quick enough. One pan is better than two that save less
    than is worth washing a second one.
    """
    if (
        route.feasible
        or wanted.time_there_is is None
        or work_min(route) <= wanted.time_there_is + JUDGEMENT.time_slack_min
    ):
        return None
    wish = wanted.of(pot)
    found = []
    for place, (pan, burner) in enumerate(choices):
        for split_ml, there in _elsewhere(pot, pan, burner):
            try:
                quick = solve_route(there, wish, route.kind)
            except SpissusError:
                continue
            if quick.feasible and (quick.mark_mm >= SHALLOW_MM or quick.steam_g <= 0.0):
                found.append(Hurried(quick, place, split_ml, work_min(quick)))
    return min(found, key=lambda one: one.takes_min + (JUDGEMENT.worth_two_min if one.split_ml else 0.0), default=None)


def _elsewhere(pot: Pot, pan: Pan, burner: Burner) -> list[tuple[float | None, Pot]]:
    """The pot in that pan, and split between its own and that one, where either holds it."""
    if pot.beside is not None:
        return []
    out: list[tuple[float | None, Pot]] = []
    if (pan, burner) != (pot.pan, pot.burner) and room_ml(pot) <= pan.capacity_ml:
        out.append((None, pot.but(pan=pan, burner=burner)))
    beside = beside_in(pot, pan, burner)
    if beside is not None:
        out.append((beside.share * pot.contents.liquid_ml, pot.but(beside=beside)))
    return out
