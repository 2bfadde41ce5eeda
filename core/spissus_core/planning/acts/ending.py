"""The end: it is a sauce, it is finished, or nobody can say what comes next."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_volume
from ...estimation.spoon import belief
from ...events import Stage, State
from ...messages import Message, Term, say, several
from ..bench import Bench
from ..judgement import JUDGEMENT
from .base import Act, Answer, Rank


@dataclass(frozen=True, kw_only=True)
class ThrownAway(Act):
    """It was thrown away."""

    kind: ClassVar[str] = "done"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.THROWN_AWAY

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody said so."""
        return cls() if bench.timeline.table.thrown_away else None

    def said(self, timeline: State) -> Message:
        """That it was."""
        return say("bar.thrown_away")


@dataclass(frozen=True, kw_only=True)
class Done(Act):
    """It is finished, with ``volume_ml``."""

    kind: ClassVar[str] = "done"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.OVER

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody said so."""
        timeline = bench.timeline
        return cls(volume_ml=timeline.made_ml) if timeline.finished else None

    def said(self, timeline: State) -> Message:
        """With how much."""
        return say("bar.done", volume=show_volume(self.volume_ml))


@dataclass(frozen=True, kw_only=True)
class Finish(Act):
    """Nothing is left to be done: it is a sauce, ``volume_ml`` of it."""

    kind: ClassVar[str] = "finish"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.END
    next_words: ClassVar[Message | None] = say("bar.next_serve")

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Always, when nothing else is."""
        return cls(volume_ml=bench.pot.contents.liquid_ml)

    def said(self, timeline: State) -> Message:
        """How it stands against what was wanted."""
        pot, wanted = timeline.pot, timeline.asked.wanted
        assert pot is not None
        amounts = {"volume": show_volume(self.volume_ml), "hot": timeline.limits.hold}
        if wanted is None:
            return say("bar.finish_plain", **amounts)
        steps = belief(timeline.judged.spoons).gap(pot.contents, wanted.body)
        over = pot.contents.salt_percent - wanted.salt_percent - timeline.judged.liking_percent
        short = wanted.amount_ml - self.volume_ml
        thicker = say("bar.off_much_thicker" if steps > MUCH_OFF_STEPS else "bar.off_thicker")
        thinner = say("bar.off_much_thinner" if steps < -MUCH_OFF_STEPS else "bar.off_thinner")
        salty = say("bar.off_saltier" if over > 0.0 else "bar.off_milder")
        off = [
            thicker if steps > OFF_STEPS else thinner if steps < -OFF_STEPS else None,
            salty if abs(over) > JUDGEMENT.close_salt else None,
            say("bar.off_short", volume=show_volume(short)) if short > OFF_SHORT * wanted.amount_ml else None,
            say("bar.off_more") if self.volume_ml > JUDGEMENT.more_meals * wanted.amount_ml else None,
            say("bar.off_fat", fat=show_volume(pot.contents.fat_ml)) if ev.fat_to_skim(pot, wanted) else None,
            *(say("bar.off_taste", found=Term(one.found)) for one in timeline.judged.palate if one.amiss),
        ]
        found = [one for one in off if one is not None]
        if not found:
            return say("bar.finish", **amounts)
        return say("bar.finish_off", off=several("both", *found), **amounts)

    def answers(self, timeline: State) -> list[Answer]:
        """Where it is served from it is finished; from anywhere else that is where it is looked at once more."""
        warm = ev.Heated(heat="hold", cover="tight")
        return [
            Answer(say("answers.finish"), ev.Finished(), opens="serve"),
            Answer(say("answers.keep_it_warm"), warm),
        ]


#: A sauce this many steps off is thicker or thinner than was wanted, and by so many much so; short by more than this
#: share of what was wanted it is short. Modelling choices.
OFF_STEPS, MUCH_OFF_STEPS, OFF_SHORT = 0.75, 1.5, 0.05


@dataclass(frozen=True, kw_only=True)
class Alone(Act):
    """What comes next cannot be worked out: the pot is looked after by spoon and tongue. Never due by itself."""

    kind: ClassVar[str] = "alone"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.END

    def said(self, timeline: State) -> Message:
        """That it cannot."""
        return say("bar.alone")
