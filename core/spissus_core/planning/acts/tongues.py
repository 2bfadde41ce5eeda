"""A tongue that contradicts itself: it is asked once more before anything follows from it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal, Self

from ... import events as ev
from ...events import Stage, State
from ...events.judging import TONGUE_WORDS
from ...messages import Argument, Message, Term, say
from ...phenomena.palate import Sensed, found_word
from ..bench import Bench
from ..verdicts import TONGUE, palate
from .base import Act, Answer, Rank


@dataclass(frozen=True, kw_only=True)
class TonguesDiffer(Act):
    """The same tongue said one thing ``earlier``, and ``then`` the contrary, and nothing went in."""

    kind: ClassVar[str] = "taste"
    stage: ClassVar[Stage] = "season"
    rank: ClassVar[Rank] = Rank.TONGUES_DIFFER
    next_words: ClassVar[Message | None] = say("bar.next_taste")

    of: Literal["salt"] | Sensed
    earlier: Argument
    then: Argument

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it did, and was not asked again since."""
        judged = bench.timeline.judged
        if judged.salt_against is not None and judged.salt:
            return cls(of="salt", earlier=TONGUE_WORDS[judged.salt_against], then=TONGUE_WORDS[judged.salt[-1]])
        found = next((one for one in judged.palate if one.against and not one.again), None)
        if found is None or found.against is None:
            return None
        return cls(of=found.of, earlier=Term(found_word(found.of, found.against)), then=Term(found.found))

    def said(self, timeline: State) -> Message:
        """What it said."""
        return say("bar.tongues_differ", first=self.earlier, then=self.then)

    def answers(self, timeline: State) -> list[Answer]:
        """What may be said of it."""
        if self.of == "salt":
            return [Answer(word, ev.Tested(of="salt", verdict=verdict, twice=True)) for word, verdict in TONGUE]
        return [Answer(said, ev.Tested(of=self.of, verdict=verdict)) for said, verdict in palate(self.of)]
