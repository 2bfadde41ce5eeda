"""How strong a liquid tastes of itself, in a cook's words: rows of ``data/strengths.csv``.

Strength is g of its own solids in 100 g (:attr:`.Contents.strength_percent`): what boiling makes stronger, and water,
starch and thin stock make weaker. Salt, pulp and fat are not in it.
"""

from __future__ import annotations

from typing import NamedTuple

from ..amounts.tables import table


class Strength(NamedTuple):
    """A word for strength, and from how much on it is said, g in 100 g."""

    from_percent: float
    word: str


STRENGTHS = tuple(table("strengths", lambda row: Strength(float(row["from_percent"]), row["word"])).values())


def strength_of(percent: float) -> Strength:
    """The word for so much, g in 100 g.

    >>> strength_of(4.8).word, strength_of(9.4).word, strength_of(13.8).word
    ('like stock', 'rich', 'rich')
    """
    return next(one for one in reversed(STRENGTHS) if percent >= one.from_percent)
