"""What is asked before a way is proposed: one thing at a time, and only where the answer changes what comes first."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...errors import SpissusError
from ...events import Stage, State
from ...messages import Message, say
from ..bench import Bench
from ..plan import FINISHING_MIN, best_way
from .base import Act, Answer, Rank


@dataclass(frozen=True, kw_only=True)
class _Question(Act):
    """A question to the strained liquid, answered by a sign."""

    stage: ClassVar[Stage] = "strain"
    next_words: ClassVar[Message | None] = say("bar.next_question")
    phrase: ClassVar[str]
    #: What is answered, and the sign that it stands for.
    signs: ClassVar[tuple[tuple[Message, str], ...]]

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where nobody told what went in, nor answered it yet, and the answer matters; late, nothing is asked."""
        timeline = bench.timeline
        by_its_kind = timeline.start is not None and timeline.start.liquid.braise is None
        late = timeline.minutes_left is not None and timeline.minutes_left < FINISHING_MIN
        if not by_its_kind or timeline.asked.way is not None or timeline.binding.in_it or late:
            return None
        heard = any(sign in timeline.judged.signs for _, sign in cls.signs)
        return None if heard or not _matters(bench, [sign for _, sign in cls.signs]) else cls()

    def said(self, timeline: State) -> Message:
        """The question."""
        return say(self.phrase)

    def answers(self, timeline: State) -> list[Answer]:
        """What may be seen, or smelled; and the ways without."""
        seen = [Answer(label, ev.Seen(sign=sign)) for label, sign in self.signs]
        return [*seen, Answer(say("answers.other_ways"), opens="plan")]


def _matters(bench: Bench, signs: Iterable[str]) -> bool:
    """Whether by one answer a part comes first, or a thickener, or boiling, and by another none."""
    at, firsts = bench.timeline.stands_at, set()
    if at is None:
        return False
    for sign in signs:
        try:
            seen = ev.Seen(sign=sign).apply(bench.timeline, at)
        except SpissusError:
            return False
        first = best_way(seen, bench.judgement)
        firsts.add(first and (first.way.part, first.thickener is not None, first.steam_g > 0.0))
    return len(firsts) > 1


@dataclass(frozen=True, kw_only=True)
class Smell(_Question):
    """Is there raw wine in it? What is not boiled any more would keep it."""

    kind: ClassVar[str] = "smell"
    rank: ClassVar[Rank] = Rank.SMELL
    phrase: ClassVar[str] = "bar.smell"
    signs: ClassVar[tuple[tuple[Message, str], ...]] = (
        (say("answers.no_wine"), "raw_gone"),
        (say("answers.raw_wine"), "raw_wine"),
    )


@dataclass(frozen=True, kw_only=True)
class ColdPlate(_Question):
    """Is it rich in gelatin? What sets when cold needs less to bind it, or nothing."""

    kind: ClassVar[str] = "cold_plate"
    rank: ClassVar[Rank] = Rank.COLD_PLATE
    phrase: ClassVar[str] = "bar.cold_plate"
    signs: ClassVar[tuple[tuple[Message, str], ...]] = (
        (say("answers.it_sets"), "sets_cold"),
        (say("answers.stays_runny"), "stays_runny"),
    )
