"""What is kept: how long, and how it is warmed again, by what is in it. Rows of ``data/keeping.csv``.

Aids, not a safety certificate: local food rules and the kitchen's own food-safety plan come first.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..amounts.tables import table

#: What was set aside, the finished sauce, or the fat that came off.
KeptWhat = Literal["rest", "sauce", "fat"]

#: Where it is kept cold.
Cold = Literal["fridge", "freezer"]


class Keeping(NamedTuple):
    """How long something keeps, days, none in the freezer for what does not bear it; and how it is warmed again: from
    where to where, °C, for what must not boil, and what else is to be said of it."""

    label: str
    days: Mapping[Cold, int]
    warm_c: tuple[float, float] | None
    again: str


KEEPING: Mapping[str, Keeping] = table(
    "keeping",
    lambda row: Keeping(
        row["label"],
        {"fridge": int(row["fridge_days"]), "freezer": int(row["freezer_days"])},
        (float(row["to_c"]), float(row["most_c"])) if row["to_c"] else None,
        row["again"],
    ),
)

#: Thawed, it is used within so many days, whatever it is. Common practice.
THAWED_DAYS = 1


def keeps_as(what: KeptWhat, delicate: Iterable[str]) -> str:
    """The row of the table that something keeps by; ``delicate`` is what in it parts or curdles (butter, yolk, cream).

    >>> keeps_as("sauce", ["butter"]), keeps_as("rest", []), keeps_as("sauce", ["cream", "yolk"])
    ('butter', 'stock', 'yolk')
    """
    if what == "fat":
        return "fat"
    held = set(delicate)
    return next((of for of in ("yolk", "cream", "butter") if of in held), "stock" if what == "rest" else "sauce")


def use_by(keeps: str, place: Cold, since: datetime, before: datetime | None = None) -> datetime:
    """When it is to be used by: so many days from when it was made or put there, and never later than ``before``.

    What was made of something older goes by the older one's date, but for the freezer, which stops the clock.
    """
    by = since + timedelta(days=KEEPING[keeps].days[place])
    return by if before is None or place == "freezer" else min(by, before)
