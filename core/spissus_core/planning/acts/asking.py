"""What is asked of the cook: what there is, what is wanted, which way, and what looks wrong."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_percent, show_plain, show_volume
from ...events import Stage, State
from ...events.state import Concern, Slip
from ...messages import Message, Term, say
from ...pantry.guests import DISHES, USUAL_PEOPLE
from ...wish import Wish
from ..because import because
from ..bench import Bench
from ..doubts import DOUBTS, concern_line
from ..plan import best_way
from ..proposing import suggested
from ..solving import Route
from .base import Act, Answer, Rank

#: A wish for so many times what there is wants more than measuring explains. Modelling choice.
STRETCHED = 1.1


@dataclass(frozen=True, kw_only=True)
class Start(Act):
    """There is no pot yet."""

    kind: ClassVar[str] = "start"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.EMPTY

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where nobody said what is in it."""
        return cls() if bench.timeline.pot is None else None

    def said(self, timeline: State) -> Message:
        """What to say."""
        return say("bar.start")


@dataclass(frozen=True, kw_only=True)
class Want(Act):
    """What it is to be is not said yet; ``wish`` is what most would want of it."""

    kind: ClassVar[str] = "want"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.WISH
    next_words: ClassVar[Message | None] = say("bar.next_want")

    wish: Wish

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where there is no wish."""
        return cls(wish=suggested(bench.pot, bench.timeline.liking)) if bench.timeline.asked.wanted is None else None

    def said(self, timeline: State) -> Message:
        """Whether it is what most would want."""
        volume = show_volume(self.wish.amount_ml)
        if not self.wish.people:
            there_ml = 0.0 if timeline.pot is None else timeline.pot.contents.liquid_ml
            # More than there is comes of letting it down.
            stretched = self.wish.amount_ml > there_ml * STRETCHED
            return say("bar.want_stretched" if stretched else "bar.want_all", volume=volume)
        usual = self.wish.people == USUAL_PEOPLE
        people = say("bar.four_people") if usual else say("bar.people", count=self.wish.people)
        return say("bar.want", volume=volume, people=people, dish=Term(DISHES[self.wish.dish].under))

    def answers(self, timeline: State) -> list[Answer]:
        """It is, or something else."""
        return [
            Answer(say("answers.that_is_it"), ev.Wanted(**dict(self.wish))),
            Answer(say("answers.something_else"), opens="plan"),
        ]


@dataclass(frozen=True, kw_only=True)
class Choose(Act):
    """A way is to be chosen; ``route`` is the one to take, None where none leads there."""

    kind: ClassVar[str] = "choose"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.WAY
    next_words: ClassVar[Message | None] = say("bar.next_choose")

    route: Route | None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where none was chosen."""
        return cls(route=best_way(bench.timeline, bench.judgement)) if bench.timeline.asked.way is None else None

    def said(self, timeline: State) -> Message:
        """The way, and why it is the first."""
        assert timeline.pot is not None
        assert timeline.asked.wanted is not None
        if self.route is None:
            return say("bar.no_way")
        why = because(timeline.pot, timeline.asked.wanted, self.route)
        return say("bar.choose", way=self.route.label, because=why)

    def answers(self, timeline: State) -> list[Answer]:
        """It is taken, or another; without one, the wish has to change."""
        if self.route is None:
            return [Answer(say("answers.change_the_wish"), opens="plan")]
        return [
            Answer(say("answers.take_this_way"), taken(self.route)),
            Answer(say("answers.other_ways"), opens="plan"),
        ]


def taken(route: Route) -> ev.Chosen:
    """What is recorded where a way is taken: with the mixture of the kitchen's own, where it is one of those."""
    own = route.thickener.key if route.way.with_own and route.thickener is not None else None
    return ev.Chosen(route=route.kind, thickener=own)


@dataclass(frozen=True, kw_only=True)
class AskRest(Act):
    """What became of the liquid that was set aside, ``volume_ml``, is asked once the sauce is finished."""

    kind: ClassVar[str] = "rest"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.REST
    next_words: ClassVar[Message | None] = say("bar.next_rest")

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where nobody said."""
        timeline = bench.timeline
        unsaid = timeline.finished and timeline.rest is not None and timeline.rest.stands == "unsaid"
        return cls(volume_ml=bench.pot.kept.liquid_ml) if unsaid and bench.pot.kept is not None else None

    def said(self, timeline: State) -> Message:
        """The question."""
        return say("bar.ask_rest", volume=show_volume(self.volume_ml))

    def answers(self, timeline: State) -> list[Answer]:
        """What may have become of it."""
        return [
            Answer(say("answers.kept_hot"), ev.RestIs(rest="hot")),
            Answer(say("answers.it_cools"), ev.RestIs(rest="cooling")),
            Answer(say("answers.thrown_away"), ev.RestIs(rest="gone")),
        ]


@dataclass(frozen=True, kw_only=True)
class AskSlip(Act):
    """An entry that looks like a slip of the finger is asked about, before anything goes by it."""

    kind: ClassVar[str] = "slip"
    stage: ClassVar[Stage] = "season"
    rank: ClassVar[Rank] = Rank.SLIP

    slip: Slip

    @classmethod
    def before(cls, act: Act, bench: Bench) -> Self | None:
        """Where there is one, and nothing makes the pot doubtful."""
        slips = bench.timeline.went_in.slips
        if not slips or bench.timeline.table.concerns:
            return None
        return cls(slip=slips[0], beneath=act, look_at=act.look_at)

    def said(self, timeline: State) -> Message:
        """What is asked of it."""
        slip = self.slip
        if slip.twice:
            return say("bar.twice", what=slip.twice, salt=show_percent(slip.percent))
        grams, tenth = show_plain(slip.grams, "g", 3), show_plain(slip.grams / 10.0, "g", 2)
        if slip.tastes:
            return say("bar.slip_tastes", tastes=slip.tastes, grams=grams, tenth=tenth)
        return say("bar.slip", salt=show_percent(slip.percent, 1), grams=grams, tenth=tenth)

    def answers(self, timeline: State) -> list[Answer]:
        """It was meant, or not: another weight, or only one of the two."""
        event, grams = self.slip.event, self.slip.grams
        if self.slip.twice:
            return [
                Answer(say("answers.both_went_in"), ev.Meant(event=event)),
                Answer(say("answers.only_one"), ev.Struck(event=event)),
            ]
        tenth = round(grams / 10.0, 2)
        return [
            Answer(_grams(grams, 3), ev.Meant(event=event)),
            Answer(_grams(tenth, 2), ev.Meant(event=event, grams=tenth)),
        ]


def _grams(grams: float, digits: int) -> Message:
    return say("answers.grams", grams=show_plain(grams, "g", digits))


@dataclass(frozen=True, kw_only=True)
class Warn(Act):
    """What makes the pot doubtful is spoken before everything else; what boils meanwhile is still looked at in time."""

    kind: ClassVar[str] = "warn"
    stage: ClassVar[Stage] = "serve"
    rank: ClassVar[Rank] = Rank.DOUBT

    concern: Concern

    @classmethod
    def before(cls, act: Act, bench: Bench) -> Self | None:
        """Where something does."""
        concerns = bench.timeline.table.concerns
        return cls(concern=concerns[0], beneath=act, look_at=act.look_at) if concerns else None

    def said(self, timeline: State) -> Message:
        """The doubt."""
        return concern_line(self.concern, timeline)

    def answers(self, timeline: State) -> list[Answer]:
        """What may be said to it."""
        kind = self.concern.kind
        return [Answer(label, ev.Answered(concern=kind, answer=answer)) for label, answer in DOUBTS[kind].answers]
