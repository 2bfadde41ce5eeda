"""Readings of a device, once a second, brought down to what a pot can tell."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

#: Share of a stretch that must stand still.
STEADY_SHARE = 0.7


@dataclass(frozen=True, slots=True)
class Thinned:
    """A stretch of readings as one: when, in seconds like the readings', and their median."""

    second: float
    value: float
    count: int


def thinned(seconds: Sequence[float], values: Sequence[float], every_s: float, steady: float) -> list[Thinned]:
    """One reading for each stretch of ``every_s`` seconds: the median of what stood still.

    A stretch in which more than three in ten lie further than ``steady`` from its median is left out:
    somebody stirred, or lifted the pan; and so is one that holds hardly any of the readings that the
    device usually makes in it, which could not tell (modelling choices).

    Parameters
    ----------
    seconds, values : in any order.
    every_s : length of a stretch, s; stretches begin at multiples of it.
    steady : how far a reading may lie from the median of its stretch, in its own unit.
    """
    if not len(seconds):
        return []
    at, value = np.asarray(seconds, dtype=float), np.asarray(values, dtype=float)
    _, stretch, counts = np.unique(np.floor(at / every_s), return_inverse=True, return_counts=True)
    times, medians = _medians(at, stretch, counts), _medians(value, stretch, counts)
    still = np.bincount(stretch, weights=np.abs(value - medians[stretch]) <= steady) / counts
    enough = _enough(at, every_s)
    return [
        Thinned(float(t), float(v), int(n))
        for t, v, n, share in zip(times, medians, counts, still, strict=True)
        if share >= STEADY_SHARE and n >= enough
    ]


def _enough(at: NDArray[np.float64], every_s: float) -> float:
    """Readings that a stretch must hold to be judged: one of a slow device, three of a quick one."""
    if len(at) < 2:
        return 1.0
    spacing = max(float(np.median(np.diff(np.sort(at)))), 1e-3)
    return min(max(every_s / spacing / 4.0, 1.0), 3.0)


def _medians(of: NDArray[np.float64], stretch: NDArray[np.int_], counts: NDArray[np.int_]) -> NDArray[np.float64]:
    """The median of each stretch, all at once: sorted within their stretches, the middle ones are picked."""
    ordered = of[np.lexsort((of, stretch))]
    first = np.concatenate(([0], np.cumsum(counts)[:-1]))
    return np.asarray((ordered[first + (counts - 1) // 2] + ordered[first + counts // 2]) / 2.0)
