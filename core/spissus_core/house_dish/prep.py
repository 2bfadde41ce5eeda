"""Everything that one dish or several need, by ingredient."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import NamedTuple

from .. import events as ev
from ..amounts.quantities import show_mass, show_volume
from ..intake.braise import Line
from ..messages import Shown
from .dish import HouseDish
from .wording import name_of


class Needed(NamedTuple):
    """An ingredient for one dish or several: how much of it, g or mL, and how much of that for which dish."""

    name: str
    amount: Shown
    each: tuple[tuple[str, Shown], ...]


def needed(dishes: Iterable[tuple[str, HouseDish]]) -> tuple[tuple[Needed, ...], tuple[tuple[str, str], ...]]:
    """Everything that several dishes need, by ingredient; and the lines that tell no amount, with their dish.

    What is told by volume in one dish and by weight in another is added up by weight.
    """
    told = list(dishes)
    rows = sorted(map(together, counted(told).values()), key=lambda row: row.name.lower())
    untold = [(name, line.text) for name, dish in told for line in dish.lines if not _tells(line)]
    return tuple(rows), tuple(untold)


def _tells(line: Line) -> bool:
    """Whether it tells an amount, or is not to be bought at all."""
    return line.counts or line.use == "left_out"


def counted(dishes: Iterable[tuple[str, HouseDish]]) -> dict[str, list[tuple[str, Line]]]:
    """The lines that tell an amount, by what they are of, each with its dish."""
    found: dict[str, list[tuple[str, Line]]] = {}
    for name, dish in dishes:
        for line in (*dish.lines, *map(_as_line, dish.added)):
            if line.counts:
                found.setdefault(line.what.key, []).append((name, line))
    return found


def together(lines: Sequence[tuple[str, Line]]) -> Needed:
    by_volume = all(line.volume_ml is not None for _, line in lines)
    each: dict[str, float] = {}
    for name, line in lines:
        each[name] = each.get(name, 0.0) + ((line.volume_ml or 0.0) if by_volume else line.grams)
    show = show_volume if by_volume else show_mass
    told = tuple((name, show(amount)) for name, amount in each.items())
    names = {name_of(line, line.text) for _, line in lines}
    return Needed(names.pop() if len(names) == 1 else lines[0][1].what.name, show(sum(each.values())), told)


def _as_line(added: ev.Added) -> Line:
    return Line.model_construct(
        text=added.what.name,
        ingredient=added.ingredient,
        own=added.own,
        mass_g=added.mass_g,
        volume_ml=added.volume_ml,
        spread=0.0,
        use="in",
        left=None,
        poured_off=0.0,
    )
