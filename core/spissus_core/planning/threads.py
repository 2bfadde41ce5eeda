"""Each taste of the sauce along its way, as a picture can draw it: how it rises and falls, and what is liked of it.

Salt, sourness, sweetness, bitterness and strength are sums of the ledger at the ends of the ribbon's stretches; what a
tongue has said moves them, and the gate, as far as either was unsure.
"""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from ..amounts.estimate import Z80, Estimate
from ..amounts.quantities import show_number, show_percent, show_plain
from ..events import State
from ..events.judging import BLAND, untasted
from ..ledger.contents import Contents
from ..messages import Argument, Message, Shown, Term, say
from ..phenomena.palate import (
    FIGURED,
    LEVELS,
    LIKED,
    Figured,
    Side,
    covers,
    liked_range,
    taste_word,
)
from ..phenomena.seasoning import SALT_WORDS
from ..phenomena.strength import strength_of
from ..pot import Pot
from ..wish import Wish
from .explanation import salt_reason, strength_reason, times_strained
from .journey import Stretch
from .judgement import JUDGEMENT, Judgement

#: What is drawn of the taste.
Drawn = Literal["salt", "sour", "sweet", "bitter", "strength"]

#: A lane is so much higher than its gate, or than its thread: neither touches its edge. Numerical choice.
LANE_OVER = 1.2

#: Bitterness below this is no thread, g of the bitter acids in 100 g. Modelling choice.
LEAST_BITTER_PERCENT = 0.0002


class Gate(NamedTuple):
    """From how much to how much of a taste is liked."""

    low: float
    high: float

    def holds(self, level: float) -> Side:
        """On which side of it a level lies."""
        return "low" if level < self.low else "high" if level > self.high else "right"


#: From so strong to so strong most sauces are liked, g of own solids in 100 g: light for a jus, short of a demi-glace.
#: Common practice.
STRONG = Gate(7.0, 15.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Thread:
    """One taste of the sauce.

    Levels are shares of the height of its lane. ``path`` is it at both ends of each stretch of the ribbon; ``now`` with
    its 80 % interval, ``end`` by the plan, ``gate`` what is liked. ``word`` is what it is called now, ``end_word`` at
    the end where that is another; ``figure`` is it in figures, ``how`` where they come from. ``stands`` is on which
    side of the gate it is, and ``tasted`` whether a tongue said so.
    """

    of: Drawn
    path: tuple[tuple[float, float], ...]
    now: Estimate
    end: float
    gate: Gate
    word: Argument
    end_word: Argument | None
    figure: Shown | Message
    how: Message
    stands: Side
    tasted: bool


def threads(state: State, ribbon: Sequence[Stretch], judgement: Judgement = JUDGEMENT) -> tuple[Thread, ...]:
    """What is drawn of the taste of a batch along its ribbon; nothing where there is no pot."""
    pot = state.pot
    if pot is None or not ribbon:
        return ()
    lanes: list[_Lane] = [_Salt(state, pot, judgement)]
    lanes += [_Palate(state, pot, judgement, of) for of in FIGURED]
    lanes.append(_Strength(state, pot, judgement))
    return tuple(_drawn(lane, ribbon) for lane in lanes if lane.shows)


def _drawn(lane: _Lane, ribbon: Sequence[Stretch]) -> Thread:
    now, after = lane.now, ribbon[-1].after
    gate, ends = lane.gate(after), [lane.level(stretch.after) for stretch in ribbon]
    top = LANE_OVER * max(gate.high, now.best, *ends)
    word, end_word = lane.word(lane.pot.contents), lane.word(after)
    path = zip([ends[0], *ends[:-1]], ends, strict=True)
    return Thread(
        of=lane.of,
        path=tuple((start / top, end / top) for start, end in path),
        now=Estimate(now.low / top, now.best / top, min(now.high / top, 1.0)),
        end=ends[-1] / top,
        gate=Gate(gate.low / top, gate.high / top),
        word=lane.said or word,
        end_word=None if end_word == word else end_word,
        figure=lane.figure,
        how=lane.how,
        stands=lane.verdict or gate.holds(now.best),
        tasted=lane.verdict is not None,
    )


class _Lane(ABC):
    """One taste of a batch: how much of it there is, what is liked, and in which words it is told."""

    of: Drawn
    #: What a tongue found of it last, in a word and as a verdict, where nothing went in since.
    said: Argument | None = None
    verdict: Side | None = None
    shows = True

    def __init__(self, state: State, pot: Pot, judgement: Judgement) -> None:
        self.state, self.pot, self.judgement = state, pot, judgement

    @abstractmethod
    def level(self, contents: Contents) -> float:
        """How much of it there is, g in 100 g."""

    @property
    @abstractmethod
    def now(self) -> Estimate:
        """How much there is of it now, with its 80 % interval."""

    @abstractmethod
    def gate(self, contents: Contents) -> Gate:
        """What is liked of it in such a sauce."""

    @abstractmethod
    def word(self, contents: Contents) -> Argument:
        """What it is called."""

    @property
    @abstractmethod
    def figure(self) -> Shown | Message:
        """It in figures."""

    @property
    @abstractmethod
    def how(self) -> Message:
        """Where they come from."""


class _Salt(_Lane):
    of = "salt"

    def __init__(self, state: State, pot: Pot, judgement: Judgement) -> None:
        super().__init__(state, pot, judgement)
        if state.judged.salt:
            last = state.judged.salt[-1]
            self.verdict = "right" if last == "right" else "low" if last in BLAND else "high"

    @property
    def _wanted(self) -> Wish | None:
        return self.state.asked.wanted

    def level(self, contents: Contents) -> float:
        return contents.salt_percent

    @property
    def now(self) -> Estimate:
        return self.pot.salt_percent

    def gate(self, contents: Contents) -> Gate:
        if self._wanted is None:
            return Gate(SALT_WORDS["mild"], SALT_WORDS["bold"])
        liking = self._wanted.salt_percent + self.state.judged.liking_percent
        return Gate(max(liking - self.judgement.close_salt, 0.0), liking + self.judgement.close_salt)

    def word(self, contents: Contents) -> Argument:
        if self._wanted is not None and contents.salt_percent > self._wanted.ceiling_percent:
            return say("threads.too_salty")
        side = self.gate(contents).holds(contents.salt_percent)
        return say("threads.mild" if side == "low" else "threads.salty" if side == "high" else "threads.right")

    @property
    def figure(self) -> Shown:
        return show_percent(self.now.best)

    @property
    def how(self) -> Message:
        return salt_reason(self.pot)


class _Strength(_Lane):
    of = "strength"

    def level(self, contents: Contents) -> float:
        return contents.strength_percent

    @property
    def now(self) -> Estimate:
        return _log_normal(self.level(self.pot.contents), math.log(max(self.pot.strength_factor, 1.0)) / Z80)

    def gate(self, contents: Contents) -> Gate:
        return STRONG

    def word(self, contents: Contents) -> Argument:
        return Term(strength_of(contents.strength_percent).word)

    @property
    def figure(self) -> Message:
        return times_strained(self.pot, self.pot.contents)

    @property
    def how(self) -> Message:
        return strength_reason(self.pot, self.pot.contents)


class _Palate(_Lane):
    """Sourness, sweetness or bitterness: by the ledger, moved by what a tongue has found."""

    def __init__(self, state: State, pot: Pot, judgement: Judgement, of: Figured) -> None:
        super().__init__(state, pot, judgement)
        self.of = self.figured = of
        self.found = next((one for one in state.judged.palate if one.of == of), None)
        self.leaning = self.found.leaning if self.found else untasted(state, of)
        if self.found is not None and not self.found.again:
            self.said, self.verdict = Term(self.found.found), self.found.verdict
        self.shows = of != "bitter" or self.found is not None or LEVELS[of](pot.contents) >= LEAST_BITTER_PERCENT

    def level(self, contents: Contents) -> float:
        return math.exp(self.leaning.there) * LEVELS[self.figured](contents)

    @property
    def now(self) -> Estimate:
        return _log_normal(self.level(self.pot.contents), self.leaning.there_error)

    def gate(self, contents: Contents) -> Gate:
        low, high = liked_range(self.figured, contents)
        times = math.exp(self.leaning.liked)
        return Gate(times * low, times * high)

    def word(self, contents: Contents) -> Argument:
        level = self.level(contents)
        called = Term(taste_word(self.figured, level))
        bare = level > LIKED[self.figured].bare and self.figured != "sweet"
        return say("threads.covered", word=called) if bare and covers(self.figured, contents) else called

    @property
    def figure(self) -> Shown:
        return _per_kg(self.now.best)

    @property
    def how(self) -> Message:
        c, now = self.pot.contents, self.now
        grams = {"sour": c.acid + c.acetic, "sweet": c.sugar, "bitter": c.bitter}[self.figured]
        said = {"sour": "threads.sour_how", "sweet": "threads.sweet_how", "bitter": "threads.bitter_how"}
        return say(
            said[self.figured],
            grams=show_plain(grams, "g", 2),
            mass=show_number(c.liquid_g, 0, "g"),
            share=_per_kg(now.best),
            low=_per_kg(now.low),
            high=_per_kg(now.high),
        )


def _per_kg(percent: float) -> Shown:
    """So much in 100 g, in a kilogram of sauce."""
    grams = 10.0 * percent
    return show_number(grams, 1, "g/kg") if grams >= LEAST_G_KG else show_number(1000.0 * grams, 0, "mg/kg")


#: Less than this in a kilogram is told in milligrams, g. Common practice.
LEAST_G_KG = 0.1


def _log_normal(level: float, sd_ln: float) -> Estimate:
    wide = math.exp(Z80 * sd_ln)
    return Estimate(level / wide, level, level * wide)
