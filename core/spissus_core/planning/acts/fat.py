"""Fat: taken off before it is boiled in, looked at once more before it is bound; and a pot that cools to set it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_volume
from ...amounts.rows import rows
from ...events import Stage, State
from ...messages import Message, Term, say
from ...phenomena import cooling
from ...phenomena.fat import WAYS, SkimWay
from ..bench import Bench
from ..plan import skim_way
from ..spoken import cooling_line
from .base import Act, Answer, Rank


@dataclass(frozen=True, kw_only=True)
class Cool(Act):
    """It cools, and is to be cold in time; ``by`` is when it must meet its next limit."""

    kind: ClassVar[str] = "cool"
    stage: ClassVar[Stage] = "skim"
    rank: ClassVar[Rank] = Rank.COOLING
    next_words: ClassVar[Message | None] = say("bar.next_cool")

    stands: cooling.Cooling
    by: datetime | None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """While it cools."""
        log = bench.timeline.cooling
        if log is None:
            return None
        stands = cooling.judge(log.readings, log.surroundings_c, bench.timeline.limits)
        minute = stands.limit_minute
        return cls(stands=stands, by=None if minute is None else log.began + timedelta(minutes=minute))

    def said(self, timeline: State) -> Message:
        """How it stands, and what to do."""
        return cooling_line(self.stands, self.by, timeline.limits)

    def answers(self, timeline: State) -> list[Answer]:
        """A temperature."""
        return [Answer(say("answers.temperature"), opens="skim")]


@dataclass(frozen=True, kw_only=True)
class Skim(Act):
    """Fat is taken off, ``fat_ml`` of it, the way that fits; and once more where too much of it stayed."""

    kind: ClassVar[str] = "skim"
    stage: ClassVar[Stage] = "skim"
    rank: ClassVar[Rank] = Rank.FAT
    next_words: ClassVar[Message | None] = say("bar.next_skim")

    fat_ml: float
    way: SkimWay

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where more floats than is wanted, and nobody said that it stays."""
        if not bench.fat_due:
            return None
        way = skim_way(bench.pot, bench.timeline.minutes_left)
        again = "still_fat" if bench.timeline.skimming.times > 0 else None
        return cls(fat_ml=bench.pot.contents.fat_ml, way=way, why=again)

    def said(self, timeline: State) -> Message:
        """How much, and the way."""
        key = "bar.still_fat" if self.why == "still_fat" else "bar.skim"
        return say(key, fat=show_volume(self.fat_ml), way=Term(WAYS[self.way].label))

    def answers(self, timeline: State) -> list[Answer]:
        """It is off, or another way."""
        return [
            Answer(say("answers.it_is_off"), ev.Skimmed(way=self.way)),
            Answer(say("answers.another_way"), opens="skim"),
        ]


@dataclass(frozen=True, kw_only=True)
class LookFat(Act):
    """Looked at once more before it is bound, where any was on it: afterwards it hardly rises."""

    kind: ClassVar[str] = "look_fat"
    stage: ClassVar[Stage] = "skim"
    rank: ClassVar[Rank] = Rank.FAT_AGAIN
    next_words: ClassVar[Message | None] = say("bar.next_look_fat")

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is about to be bound."""
        timeline = bench.timeline
        had_some = timeline.skimming.times > 0 or bench.pot.contents.fat_free > 0.0
        if timeline.skimming.looked or timeline.binding.in_it or not had_some or bench.route.thickener is None:
            return None
        return cls()

    def said(self, timeline: State) -> Message:
        """How to look."""
        return say("bar.look_fat")

    def answers(self, timeline: State) -> list[Answer]:
        """What may be seen."""
        return [
            Answer(say("answers.fat_look", look=Term(row["label"])), ev.FatSeen(look=row["key"]))
            for row in rows("fat_looks")
        ]
