"""How strong a liquid tastes of itself, in a cook's words: rows of ``data/strengths.csv``.

Strength is g of its own solids in 100 g (:attr:`.Contents.strength_percent`): what boiling makes stronger, and water,
starch and thin stock make weaker. Salt, pulp and fat are not in it.
"""

from __future__ import annotations

import math
from typing import NamedTuple

from scipy.special import log_ndtr

from ..amounts.tables import table


class Strength(NamedTuple):
    """A word for strength, and from how much on it is said, g in 100 g."""

    from_percent: float
    word: str


STRENGTH_WORDS = table("strengths", lambda row: Strength(float(row["from_percent"]), row["word"]))
STRENGTHS = tuple(STRENGTH_WORDS.values())


def strength_of(percent: float) -> Strength:
    """The word for so much, g in 100 g.

    >>> strength_of(4.8).word, strength_of(9.4).word, strength_of(13.8).word
    ('like stock', 'rich', 'rich')
    """
    return next(one for one in reversed(STRENGTHS) if percent >= one.from_percent)


#: Gelatin from which a spoonful sets on a cold plate within minutes, %; how sharp that is, and how well it is known by
#: the kind of liquid alone, as standard deviations of its logarithm. From memory: jellies set from 1 to 2 %.
SETS_PERCENT, SETS_ERROR, KIND_SPREAD = 1.5, 0.25, 0.45


def gelatin_seen_percent(percent: float, *, sets: bool) -> float:
    """Gelatin of a liquid of a kind that holds ``percent``, once a spoonful of it set on a cold plate, or did not, %.

    The median of a log-normal belief, moved by what was seen.

    >>> round(gelatin_seen_percent(2.3, sets=True), 1), round(gelatin_seen_percent(2.3, sets=False), 1)
    (2.6, 1.3)
    """
    apart = math.hypot(KIND_SPREAD, SETS_ERROR)
    over = (math.log(percent / SETS_PERCENT) if sets else -math.log(percent / SETS_PERCENT)) / apart
    # The density over the chance, by their logarithms: both are nothing where hardly any gelatin was thought of.
    ratio = math.exp(-0.5 * over**2 - float(log_ndtr(over))) / math.sqrt(2.0 * math.pi)
    moved = KIND_SPREAD**2 / apart * ratio
    return percent * math.exp(moved if sets else -moved)
