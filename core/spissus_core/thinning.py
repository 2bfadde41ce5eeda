"""Readings of a device, once a second, brought down to what a pot can tell."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np


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
    somebody stirred, or lifted the pan (modelling choice).

    Parameters
    ----------
    seconds, values : in any order.
    every_s : length of a stretch, s; stretches begin at multiples of it.
    steady : how far a reading may lie from the median of its stretch, in its own unit.
    """
    if not len(seconds):
        return []
    at, value = np.asarray(seconds, dtype=float), np.asarray(values, dtype=float)
    order = np.argsort(at, kind="stable")
    at, value = at[order], value[order]
    bounds = np.flatnonzero(np.diff(np.floor(at / every_s))) + 1
    out = []
    for times, read in zip(np.split(at, bounds), np.split(value, bounds), strict=True):
        median = float(np.median(read))
        if np.mean(np.abs(read - median) <= steady) >= STEADY_SHARE:
            out.append(Thinned(float(np.median(times)), median, len(read)))
    return out
