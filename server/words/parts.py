"""What a sentence is made of: words, and what stands between them. A page gets them as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache


@dataclass(frozen=True, slots=True)
class Amount:
    """A figure, in either system of units."""

    metric: str
    us: str


@dataclass(frozen=True, slots=True)
class Figure:
    """A figure that is the same in either system of units."""

    figure: str


@dataclass(frozen=True, slots=True)
class Name:
    """What somebody typed, or the name of a thing of theirs: as it is, and never part of the words around it."""

    name: str


@dataclass(frozen=True, slots=True)
class Moment:
    """A time of day; whoever shows it knows the clock on the wall."""

    at: datetime


@dataclass(frozen=True, slots=True)
class Remaining:
    """The minutes left until a time; whoever shows it counts them down."""

    until: datetime


Part = str | Amount | Figure | Name | Moment | Remaining


@lru_cache(maxsize=8192)
def amount(metric: str, us: str) -> Amount | Figure:
    """An amount: the ways and their arithmetic name the same few hundred again and again."""
    return Figure(metric) if metric == us else Amount(metric, us)
