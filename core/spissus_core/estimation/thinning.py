"""Readings of a device, as many as it likes to make, brought down to what a pot can tell.

Time is cut into stretches. Of each the median is kept, where most of the readings stood still; and of the
stretches themselves no more than a batch can use, close together where it is now and wide apart long ago.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import median
from typing import TypeVar

#: Share of a stretch that must stand still. Modelling choice.
STEADY_SHARE = 0.7

#: A stretch is judged by a quarter of the readings that the device usually makes in it, but three are
#: always enough. Modelling choice.
LEAST_SHARE, ENOUGH = 0.25, 3.0

#: More stretches than this of one device say no more of one batch. Modelling choice: an hour of a scale.
MOST_KEPT = 240

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Thinned:
    """A stretch of readings as one: when, in seconds like the readings', and their median."""

    second: float
    value: float
    count: int


def stretch_of(second: float, every_s: float) -> int:
    """The number of the stretch that a moment falls into; stretches begin at multiples of ``every_s`` s."""
    return int(second // every_s)


def thinned(
    stretch: int, seconds: Sequence[float], values: Sequence[float], every_s: float, steady: float
) -> Thinned | None:
    """One stretch as one reading; None where it cannot tell.

    A stretch in which more than three in ten lie further than ``steady`` from its median is left out:
    somebody stirred, or lifted the pan. So is one that holds hardly any of the readings that the device
    makes at its pace, which is that of this stretch and its neighbours.

    Parameters
    ----------
    stretch : its number.
    seconds, values : the readings of this stretch and of its neighbours, in any order.
    every_s : length of a stretch, s.
    steady : how far a reading may lie from the median of its stretch, in its own unit.
    """
    inside = [(t, v) for t, v in zip(seconds, values, strict=True) if stretch_of(t, every_s) == stretch]
    if not inside or len(inside) < _enough(seconds, every_s):
        return None
    middle = median(v for _, v in inside)
    still = sum(abs(v - middle) <= steady for _, v in inside) / len(inside)
    if still < STEADY_SHARE:
        return None
    return Thinned(median(t for t, _ in inside), middle, len(inside))


def _enough(seconds: Sequence[float], every_s: float) -> float:
    """Readings that a stretch must hold to be judged: one of a slow device, three of a quick one."""
    ordered = sorted(set(seconds))
    if len(ordered) < 2:
        return 1.0
    spacing = max(median(b - a for a, b in pairwise(ordered)), 1e-3)
    return min(max(LEAST_SHARE * every_s / spacing, 1.0), ENOUGH)


def too_many(kept: Sequence[T]) -> list[T]:
    """Of readings in order of time, those to let go: while there are too many, every other of the older half."""
    gone: list[T] = []
    while len(kept) > MOST_KEPT:
        half = len(kept) // 2
        gone += kept[:half:2]
        kept = [*kept[1:half:2], *kept[half:]]
    return gone
