"""What is tasted besides salt and body: sourness, sweetness, bitterness, depth and heat.

What may be said of each, and what helps then, are rows of ``data/palate.csv``; what so much of each is called, where
the ledger holds a figure of it, of ``data/taste_words.csv``.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from itertools import groupby
from typing import Literal, NamedTuple, get_args

from ..amounts.tables import table
from ..ledger.contents import Contents, percent
from .seasoning import Tongue, tasted

#: What a tongue finds besides salt.
Sensed = Literal["sour", "sweet", "bitter", "depth", "hot"]
SENSED: tuple[Sensed, ...] = get_args(Sensed)

#: Too little, right, or too much of it.
Side = Literal["low", "right", "high"]

#: What of it the ledger holds a figure of.
Figured = Literal["sour", "sweet", "bitter"]
FIGURED: tuple[Figured, ...] = get_args(Figured)


class Sense(NamedTuple):
    """One thing that is tasted: its name, the words for too little and too much of it, what is then missing (the
    ``lacks`` of ``data/finishes.csv``), and whether it is asked for at first, and not behind more."""

    label: str
    low: str
    high: str
    low_lacks: str
    high_lacks: str
    at_first: bool


PALATE: Mapping[str, Sense] = table(
    "palate",
    lambda row: Sense(
        row["label"], row["low"], row["high"], row["low_lacks"], row["high_lacks"], bool(row["at_first"])
    ),
)


def found_word(of: str, verdict: str) -> str:
    """What a tongue calls it.

    >>> found_word("sour", "high"), found_word("depth", "low"), found_word("sweet", "right")
    ('too sharp', 'hollow', 'right')
    """
    return {"low": PALATE[of].low, "high": PALATE[of].high}.get(verdict) or "right"


def said_of(of: str) -> dict[Side, str]:
    """The verdicts on it that there are, with their words: nothing is ever too little bitter.

    >>> list(said_of("bitter").values())
    ['right', 'too bitter']
    """
    words: dict[Side, str] = {"low": PALATE[of].low, "right": "right", "high": PALATE[of].high}
    return {verdict: word for verdict, word in words.items() if word}


class TasteWord(NamedTuple):
    """A word for so much of a taste, and from how much on it is said, g in 100 g."""

    of: str
    from_percent: float
    word: str


_WORDS = table("taste_words", lambda row: TasteWord(row["of"], float(row["from_percent"]), row["word"]))
TASTE_WORDS: Mapping[str, tuple[TasteWord, ...]] = {
    of: tuple(words) for of, words in groupby(_WORDS.values(), key=lambda word: word.of)
}


def taste_word(of: Figured, level: float) -> str:
    """What so much of it is called; ``level`` in g in 100 g.

    >>> taste_word("sour", 0.8), taste_word("sweet", 2.0), taste_word("bitter", 0.0)
    ('sharp', 'a little sweet', 'not bitter')
    """
    return next(one.word for one in reversed(TASTE_WORDS[of]) if level >= one.from_percent)


#: How much of each there is, g in 100 g of all but the floating fat: acid as tartaric, sugar, the bitter acids of hops.
LEVELS: Mapping[Figured, Callable[[Contents], float]] = {
    "sour": lambda c: percent(c.acid + c.acetic, c.liquid_g),
    "sweet": lambda c: percent(c.sugar, c.liquid_g),
    "bitter": lambda c: percent(c.bitter, c.liquid_g),
}

#: So much acid wants as much to cover it as a gram of the bitter acids of hops: half a per cent of the one and twenty
#: parts in a million of the other are each about as much as anybody likes bare. Modelling choice.
BITTER_AS_ACID = 250.0


def covered_g(c: Contents) -> float:
    """Acid that its sugar, bound fat and gelatin cover, g. Boiled down, all of them get stronger alike. From memory."""
    return c.sugar / 3.0 + c.fat_emulsified / 4.0 + c.gelatin / 10.0


def covers(of: Figured, c: Contents) -> bool:
    """Whether what covers sourness, or bitterness, is enough for all there is of it."""
    return covered_g(c) >= (c.acid + c.acetic if of == "sour" else BITTER_AS_ACID * c.bitter)


class Liked(NamedTuple):
    """How much of a taste is liked, g in 100 g: the least, the most where it is bare, and where it is covered."""

    least: float
    bare: float
    covered: float


#: Handbook of the trade, section 10, and modelling choices. Nothing covers sweetness.
LIKED: Mapping[Figured, Liked] = {
    "sour": Liked(0.15, 0.6, 1.2),
    "sweet": Liked(0.3, 4.0, 4.0),
    "bitter": Liked(0.0002, 0.002, 0.0035),
}


def liked_range(of: Figured, c: Contents) -> tuple[float, float]:
    """From how much to how much of a taste is usually liked in a sauce of these contents, g in 100 g."""
    liked = LIKED[of]
    return liked.least, liked.covered if covers(of, c) else liked.bare


def level_liked(of: Figured, c: Contents) -> float:
    """The middle of that, by its logarithm, g in 100 g."""
    low, high = liked_range(of, c)
    return math.sqrt(low * high)


#: A tongue that says too little, right or too much of a taste: where each stands, as a natural logarithm of how much
#: there is against what is liked, and its standard error. Modelling choice: a half more or less is noticed.
PALATE_TONGUE = Tongue({"low": -1.2, "right": 0.0, "high": 1.2}, 0.3)


class Taster(NamedTuple):
    """Whose tongue it is: as it is chosen, as the log names it, whether the sauce is seasoned for it, and whether it
    teaches the kitchen what it likes."""

    label: str
    log: str
    counts: bool
    teaches: bool


#: Rows of ``data/tasters.csv``; the first is whoever cooks, and is meant where nobody is named.
TASTERS: Mapping[str, Taster] = table(
    "tasters", lambda row: Taster(row["label"], row["log"], bool(row["counts"]), bool(row["teaches"]))
)
COOK = next(iter(TASTERS))

#: Less of a taste than this, g in 100 g, counts as so much. Numerical choice.
LEAST_LEVEL = 1e-4

#: How well a liking, and a taste that was only worked out, are known, natural logarithms. Modelling choices: cooks
#: differ by about a third; a list of what went in is off by as much, and a kind of liquid alone by twice that.
LIKING_LN, LISTED_LN, GUESSED_LN = 0.3, 0.25, 0.6


class Leaning(NamedTuple):
    """How much more of a taste there is than was thought, and how much more of it is liked, each with how well it is
    known; natural logarithms."""

    there: float
    there_error: float
    liked: float = 0.0
    liked_error: float = LIKING_LN

    def after(self, gap: float, verdict: str) -> Leaning:
        """Both after a taste, each moved as far as it was unsure; ``gap`` is how far it is thought to be over what is
        liked."""
        variance = self.there_error**2 + self.liked_error**2
        moved, left = tasted(gap, variance**0.5, verdict, PALATE_TONGUE)
        there, liked = self.there_error**2 / variance, self.liked_error**2 / variance
        # What contradicts what was thought leaves both known worse.
        less = variance - left**2
        return Leaning(
            self.there + there * (moved - gap),
            max(self.there_error**2 - there**2 * less, 0.0) ** 0.5,
            self.liked - liked * (moved - gap),
            max(self.liked_error**2 - liked**2 * less, 0.0) ** 0.5,
        )
