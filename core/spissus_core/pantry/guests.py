"""Who is at the table: what the sauce is poured over, how much of it each has, and what somebody must not have."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal, NamedTuple

from ..amounts.rows import rows
from ..amounts.tables import one_of, table


class Dish(NamedTuple):
    """What a sauce is poured over: its label, the same in a sentence, a helping, mL, and the body that suits it."""

    label: str
    under: str
    helping_ml: float
    body: int


#: What a sauce is poured over: rows of ``data/dishes.csv`` (common practice).
DISHES: Mapping[str, Dish] = table(
    "dishes", lambda row: Dish(row["label"], row["under"], float(row["helping_ml"]), int(row["body"]))
)

#: A dish, by its key.
DishKey = Annotated[str, *one_of("dishes")]

#: What is taken for granted where nobody said what it is poured over, or for how many (common practice).
USUAL_DISH, USUAL_PEOPLE = "mash", 4

#: The dish for which it is boiled down to a shine.
GLAZE = "glaze"

#: Helpings more than there are people: for the pot (common practice).
FOR_THE_POT = 1

#: What somebody may have to do without, by its key: rows of ``data/avoided.csv``.
Avoided = Annotated[str, *one_of("avoided", outlives=True)]

#: Their words.
AVOIDED_WORDS: Mapping[str, str] = {row["key"]: row["label"] for row in rows("avoided")}

#: The one of them that is no allergen, and boils away in part.
ALCOHOL: Literal["alcohol"] = "alcohol"


def helpings_ml(people: int, dish: str) -> float:
    """Sauce for so many people and one helping for the pot, mL."""
    return (people + FOR_THE_POT) * DISHES[dish].helping_ml
