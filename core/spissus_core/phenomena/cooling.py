"""Cooling a pot overnight: the clock, the limits, and whether it will make them.

Aids, not a safety certificate: local food rules and the kitchen's own food-safety plan come first.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from ..amounts.rows import rows
from .limits import USUAL, Limits

#: Temperature of a domestic or kitchen refrigerator, °C (``data/cooling_places.csv``).
FRIDGE_C = next(float(row["celsius"]) for row in rows("cooling_places") if row["key"] == "fridge")

#: A probe reads no finer than this, K. Modelling choice.
PROBE_K = 0.3

Verdict = Literal["above", "unknown", "in_time", "too_slow", "missed", "done"]


@dataclass(frozen=True, slots=True)
class Reading:
    """A temperature at a time, minutes from any fixed moment, and °C."""

    minute: float
    celsius: float


@dataclass(frozen=True, slots=True)
class Cooling:
    """Where a cooling pot stands.

    ``began`` is the minute it passed the start of the clock, None while it is above. The next limit to meet is
    ``limit_c`` by ``limit_minute``; ``arrives`` is when it will be there at the present pace, infinite
    where the surroundings are too warm, None where one reading is all there is.
    """

    verdict: Verdict
    began: float | None = None
    limit_c: float | None = None
    limit_minute: float | None = None
    arrives: float | None = None


def judge(readings: Sequence[Reading], surroundings_c: float = FRIDGE_C, limits: Limits = USUAL) -> Cooling:
    """Judge a cooling log.

    The pot is taken to cool exponentially towards its surroundings (Newton's law of cooling). The
    time constant is fitted to the readings below the start by least squares on the logarithm.

    Parameters
    ----------
    readings : in order of time.
    surroundings_c : what it stands in, °C.
    limits : what it is judged by.
    """
    began = _began(readings, limits.starts_c, surroundings_c)
    if began is None:
        return Cooling("above")
    for limit in limits.cooled:
        limit_c, due = limit.celsius, began + limit.minutes
        met = next((r for r in readings if r.celsius <= limit_c), None)
        if met is None:
            return _towards(readings, surroundings_c, began, limit_c, due)
        if _crossing(readings, limit_c, surroundings_c) > due:
            return Cooling("missed", began, limit_c, due)
    return Cooling("done", began)


def _towards(readings: Sequence[Reading], surroundings_c: float, began: float, limit_c: float, due: float) -> Cooling:
    last = readings[-1]
    if last.minute > due:
        return Cooling("missed", began, limit_c, due)
    stands = Cooling("unknown", began, limit_c, due)
    constant = time_constant(readings, surroundings_c)
    if constant is None:
        return stands
    if surroundings_c >= limit_c or not math.isfinite(constant):
        return replace(stands, verdict="too_slow", arrives=math.inf)
    wait = constant * math.log((last.celsius - surroundings_c) / (limit_c - surroundings_c))
    arrives = last.minute + wait
    return replace(stands, verdict="in_time" if arrives <= due else "too_slow", arrives=arrives)


def forecast(readings: Sequence[Reading], surroundings_c: float, until: float, steps: int = 24) -> tuple[Reading, ...]:
    """The way down from the last reading to minute ``until``, at the pace so far; empty where there is none."""
    constant = time_constant(readings, surroundings_c)
    if constant is None or not math.isfinite(constant) or readings[-1].minute >= until:
        return ()
    last = readings[-1]
    minutes = np.linspace(last.minute, until, steps)
    excess = last.celsius - surroundings_c
    return tuple(
        Reading(float(m), surroundings_c + excess * math.exp(-(float(m) - last.minute) / constant)) for m in minutes
    )


def time_constant(readings: Sequence[Reading], surroundings_c: float) -> float | None:
    """Time constant of the cooling, min; None for fewer than two readings, infinite where it does not cool."""
    warm = [r for r in readings if r.celsius > surroundings_c + PROBE_K]
    if len(warm) < 2 or warm[-1].minute <= warm[0].minute:
        return None
    slope = np.polyfit([r.minute for r in warm], [math.log(r.celsius - surroundings_c) for r in warm], 1)[0]
    return -1.0 / float(slope) if slope < 0.0 else math.inf


def _began(readings: Sequence[Reading], starts_c: float, surroundings_c: float) -> float | None:
    """Minute at which the clock started: passing ``starts_c``, or the first reading if it was below already."""
    if not any(r.celsius <= starts_c for r in readings):
        return None
    return readings[0].minute if readings[0].celsius <= starts_c else _crossing(readings, starts_c, surroundings_c)


def _crossing(readings: Sequence[Reading], celsius: float, surroundings_c: float) -> float:
    """Minute at which the log passes ``celsius``, exponentially between the two readings around it."""
    place = next(i for i, r in enumerate(readings) if r.celsius <= celsius)
    after = readings[place]
    if place == 0 or after.celsius == celsius:
        return after.minute
    before = readings[place - 1]
    floor = min(surroundings_c, after.celsius - PROBE_K)
    whole = math.log((before.celsius - floor) / (after.celsius - floor))
    part = math.log((before.celsius - floor) / (celsius - floor))
    return before.minute + (after.minute - before.minute) * part / whole
