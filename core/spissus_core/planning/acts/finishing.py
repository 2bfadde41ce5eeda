"""The end of seasoning: what is amiss besides salt gets one small step, is tasted again, and is not chased."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal, Self, cast

from ... import events as ev
from ...amounts.quantities import show_temperature
from ...events import Stage, State
from ...events.additions import DELICATE
from ...events.state import Found
from ...events.warmth import fresh
from ...messages import Message, Term, say, sentences
from ...phenomena.palate import LEVELS, PALATE, SENSED, Sensed, Side, found_word
from ..bench import Bench
from ..finishing import Offer, remedies
from ..solving import bitterest_percent, sourest_percent
from ..verdicts import palate
from .base import Act, Answer, Rank

#: After so many helpings it is left: what is covered is not chased. Common practice.
MOST_HELPINGS = 2


def _in_order(timeline: State) -> list[Found]:
    """What was found, in the order in which a good cook puts it right: sourness, sweetness, bitterness, depth, heat."""
    return sorted(timeline.judged.palate, key=lambda found: SENSED.index(found.of))


@dataclass(frozen=True, kw_only=True)
class _Tasting(Act):
    """Something besides salt is tasted, ``of``."""

    kind: ClassVar[str] = "taste"
    stage: ClassVar[Stage] = "season"
    next_words: ClassVar[Message | None] = say("bar.next_taste")

    of: Sensed

    def answers(self, timeline: State) -> list[Answer]:
        """What may be found."""
        return [Answer(said, ev.Tested(of=self.of, verdict=verdict)) for said, verdict in palate(self.of)]


@dataclass(frozen=True, kw_only=True)
class TasteAgain(_Tasting):
    """What was ``found`` amiss is tasted once more, since something went in for it."""

    rank: ClassVar[Rank] = Rank.PALATE_AGAIN

    found: Side

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where something did."""
        changed = next((one for one in _in_order(bench.timeline) if one.again), None)
        return None if changed is None else cls(of=changed.of, found=changed.verdict)

    def said(self, timeline: State) -> Message:
        """Whether it still is so."""
        return say("bar.taste_palate_again", found=Term(found_word(self.of, self.found)))


@dataclass(frozen=True, kw_only=True)
class TasteSharp(_Tasting):
    """It may be too sharp, or too bitter, for most: nobody said so yet."""

    rank: ClassVar[Rank] = Rank.PALATE

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where there is more of it than what covers it."""
        told = {one.of for one in bench.timeline.judged.palate}
        of = next((of for of in _MAY_BE_TOO_MUCH if of not in told and _too_much(bench, of)), None)
        return None if of is None else cls(of=of)

    def said(self, timeline: State) -> Message:
        """Whether it is."""
        return say("bar.taste_palate", found=Term(PALATE[self.of].high), of=Term(PALATE[self.of].label))


#: What is asked about where nothing covers it.
_MAY_BE_TOO_MUCH: tuple[Literal["sour", "bitter"], ...] = ("sour", "bitter")


def _too_much(bench: Bench, of: Literal["sour", "bitter"]) -> bool:
    most = sourest_percent if of == "sour" else bitterest_percent
    times = bench.pot.sour_times if of == "sour" else bench.pot.bitter_times
    return times * LEVELS[of](bench.pot.contents) > most(bench.pot.contents, bench.judgement)


@dataclass(frozen=True, kw_only=True)
class PutRight(Act):
    """Something was found amiss: one small step of what helps this pot, or it is left as it is."""

    kind: ClassVar[str] = "put_right"
    stage: ClassVar[Stage] = "season"
    rank: ClassVar[Rank] = Rank.PALATE
    next_words: ClassVar[Message | None] = say("bar.next_finish")

    amiss: Found
    offer: Offer

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where something was found, nothing went in for it since, and it was not helped twice already."""
        for found in _in_order(bench.timeline):
            if not found.amiss or found.again or found.helpings >= MOST_HELPINGS:
                continue
            offers = remedies(bench.pot, bench.wanted, found.of, cast(Literal["low", "high"], found.verdict))
            if offers:
                return cls(amiss=found, offer=offers[found.helpings % len(offers)])
        return None

    @property
    def pours_ml(self) -> float:
        """What goes in takes room."""
        return self.offer.added.what.portion(self.offer.added.grams).volume_ml

    def said(self, timeline: State) -> Message:
        """What was found, and what goes in."""
        finish, found = self.offer.finish, Term(self.amiss.found)
        how = say("bar.put_right", found=found, amount=self.offer.amount, what=Term(finish.name), how=Term(finish.how))
        return sentences(how, self._not_yet(timeline))

    def _not_yet(self, timeline: State) -> Message | None:
        """Where a probe says that it is too hot for it, or too cool."""
        celsius, window = fresh(timeline.probed, timeline.stands_at), DELICATE.get(self.offer.finish.ingredient)
        if celsius is None or window is None:
            return None
        if window.to_c is not None and celsius > window.to_c:
            return say("bar.let_it_cool", to=show_temperature(window.to_c))
        if window.from_c is not None and celsius < window.from_c:
            return say("bar.warm_it_first", to=show_temperature(window.from_c))
        return None

    def answers(self, timeline: State) -> list[Answer]:
        """It is in; something else is chosen; or it is left on purpose."""
        left = ev.Tested(of=self.amiss.of, verdict=self.amiss.verdict, left=True)
        return [
            Answer(say("answers.stirred_in"), self.offer.entry),
            Answer(say("answers.another_way"), opens="season"),
            Answer(say("answers.leave_it"), left),
        ]
