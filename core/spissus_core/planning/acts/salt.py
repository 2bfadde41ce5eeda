"""Salt: tasted where it is not known, three quarters of what is missing, then by what the tongue taught."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal, NamedTuple, Self

from scipy.special import ndtr

from ... import events as ev
from ...amounts.quantities import show_percent
from ...events import Stage, State
from ...events.state import Taste
from ...fold import Timeline
from ...messages import Message, say, sentences
from ..bench import Bench
from ..ceiling import bound_salt_percent
from ..spoken import salt_amount
from .base import Act, Answer, LetDown, Rank


class _Matter(NamedTuple):
    """What is to be done about the salt, and why; ``salt_g`` where some goes in."""

    do: Literal["taste", "salt", "thin"]
    why: str | None = None
    salt_g: float = 0.0


def _matter(bench: Bench) -> _Matter | None:
    """What tongue and ledger say together; None where it is as it is liked."""
    timeline, weighs, liquid_g = bench.timeline, bench.judgement, bench.pot.contents.liquid_g
    said, over, error, missing = timeline.judged.salt, bench.over, bench.salt_error, bench.salt_missing_g
    if not said:
        worth = missing >= weighs.least_salt_g and -over > weighs.least_salt_share * bench.liking
        if worth and -over > error and error <= weighs.unsure_salt and not timeline.went_in.salted:
            return _Matter("salt", salt_g=weighs.first_salt * missing)
        return _Matter("taste")
    side = _side(said[-1])
    agreed = len(said) >= 2 and side == _side(said[-2])
    more = len(said) < weighs.most_tastes
    good = float(ndtr((weighs.close_salt - over) / error) - ndtr((-weighs.close_salt - over) / error))
    if side == 0:
        return None if good >= weighs.sure_salt or agreed or not more else _Matter("taste", "once_more")
    if side * over < weighs.worth_salt and not agreed:
        # The tongue says one thing, the ledger another: once more, and two tastes that agree have it.
        doubted = (len(said) == 1 and said[-1] != "nearly") or (good < weighs.sure_salt and more)
        return _Matter("taste", "once_more") if doubted else None
    if side > 0 and not timeline.judged.metered:
        # What thins it takes its taste away for good.
        if len(said) == 1:
            return _Matter("taste", "once_more")
        if over <= weighs.least_salt_share * bench.liking:
            return None
    if side < 0 and missing < 0.5 * weighs.least_salt_g:
        return None
    if side < 0:
        least = weighs.least_salt_share / 100.0 * bench.liking * liquid_g
        return _Matter("salt", "more", max(weighs.more_salt * missing, least, weighs.least_salt_g))
    return _Matter("thin")


def _side(verdict: Taste) -> int:
    """Which way a taste points: too little, right, too much."""
    return {"flat": -1, "nearly": -1, "right": 0}.get(verdict, 1)


@dataclass(frozen=True, kw_only=True)
class _Tasting(Act):
    """It is tasted."""

    kind: ClassVar[str] = "test_salt"
    stage: ClassVar[Stage] = "season"
    next_words: ClassVar[Message | None] = say("bar.next_taste")
    phrase: ClassVar[str]

    def said(self, timeline: State) -> Message:
        """How, and what for."""
        return say(self.phrase)

    def answers(self, timeline: State) -> list[Answer]:
        """What may be said of a taste."""
        return [Answer(word, ev.Tested(of="salt", verdict=verdict)) for word, verdict in TONGUE]


#: What may be said of a taste.
TONGUE: tuple[tuple[Message, Taste], ...] = (
    (say("answers.flat"), "flat"),
    (say("answers.nearly"), "nearly"),
    (say("answers.right"), "right"),
    (say("answers.salty"), "salty"),
    (say("answers.too_salty"), "too_salty"),
)


@dataclass(frozen=True, kw_only=True)
class TasteUnknown(_Tasting):
    """Nobody tasted or measured the salt: nothing is planned before that."""

    rank: ClassVar[Rank] = Rank.UNKNOWN_SALT
    phrase: ClassVar[str] = "bar.taste_first"

    why: str | None = "unknown"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is a guess from a stock or a list, and a wide one."""
        timeline = bench.timeline
        told = timeline.start.liquid.salt.by if timeline.start else "taste"
        nobody = told in ("stock", "list") and not timeline.judged.salt and not timeline.judged.metered
        wide = bench.pot.salt_error > bench.judgement.salt_unknown
        return cls() if nobody and timeline.asked.way is None and wide else None


@dataclass(frozen=True, kw_only=True)
class TasteBeforeWater(_Tasting):
    """Too salty as far as anybody said: before water goes in, which cannot be taken out, it is tasted."""

    rank: ClassVar[Rank] = Rank.TASTE_BEFORE_WATER
    phrase: ClassVar[str] = "bar.taste_before_water"

    why: str | None = "before_water"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is too salty to be bound, and the tongue may know better."""
        known = bench.salt_known or bench.timeline.judged.salt
        return None if known or not _too_salty_to_bind(bench) else cls()


def _too_salty_to_bind(bench: Bench) -> bool:
    """Whether it is past what is liked even with what the thickener brings; what was told is done all the same."""
    if bench.timeline.binding.in_it or bench.boils or bench.way.stop == "told":
        return False
    salt = bound_salt_percent(bench.pot, bench.route)
    if bench.looked:
        # Past its mark: what is let down to its amount anyway is not too salty.
        salt = min(salt, bench.route.salt_before.best)
    return salt - bench.liking > bench.judgement.too_salty


@dataclass(frozen=True, kw_only=True)
class TasteOnTheWay(_Tasting):
    """Boiled to a salt content that only words stand for: a wrong start is mended while there is more to boil away.

    It is tasted at the first look, and once more from half way on.
    """

    rank: ClassVar[Rank] = Rank.TASTE_ON_THE_WAY
    phrase: ClassVar[str] = "bar.taste_on_the_way"

    why: str | None = "on_the_way"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody has looked at it, and it is not known better by now."""
        timeline, window = bench.timeline, bench.timeline.stove.window
        if timeline.asked.told_by != "at_salt_percent" or not bench.boils or bench.settled or timeline.at_its_mark:
            return None
        if window is None or not window.measured or bench.salt_known or len(timeline.judged.salt) > 1:
            return None
        begun = (timeline.first_pot if isinstance(timeline, Timeline) else None) or bench.pot
        half_way = (begun.contents.liquid_ml + bench.mark_ml) / 2.0
        return cls() if not timeline.judged.salt or bench.pot.contents.liquid_ml <= half_way else None


@dataclass(frozen=True, kw_only=True)
class TasteBeforeBinding(_Tasting):
    """What is bound is not boiled on: whether its salt allows more is asked before."""

    rank: ClassVar[Rank] = Rank.TASTE_BEFORE_BINDING
    phrase: ClassVar[str] = "bar.taste_before_binding"

    why: str | None = "before_binding"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """At the mark of a way that goes by the taste, or by a salt content, where the salt is not known well."""
        told = bench.timeline.asked.told_by == "at_salt_percent"
        open_ = (told or bench.way.stop == "taste") and not bench.settled and not bench.boils
        # What was tasted on the way was tasted out of the boil.
        tasted = len(bench.timeline.judged.salt) > (2 if told else 0)
        return cls() if open_ and not tasted and not bench.salt_known else None


@dataclass(frozen=True, kw_only=True)
class TasteSalt(_Tasting):
    """Tasted at the end, on what it will be eaten with; once more where tongue and ledger differ."""

    rank: ClassVar[Rank] = Rank.SALT
    phrase: ClassVar[str] = "bar.taste"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the tongue knows more than the ledger."""
        matter = bench.once(_matter)
        return cls(why=matter.why) if matter is not None and matter.do == "taste" else None

    def said(self, timeline: State) -> Message:
        """What is thought of it, and the question."""
        assert timeline.pot is not None
        salt = timeline.pot.salt_percent.best
        if self.why != "once_more":
            return say(self.phrase, salt=show_percent(salt))
        over = salt - (timeline.asked.wanted.salt_percent if timeline.asked.wanted else salt)
        near = abs(over) <= NEAR_LIKING
        found = "bar.right_for_you" if near else "bar.salty_for_you" if over > 0.0 else "bar.mild_for_you"
        return say("bar.taste_once_more", salt=show_percent(salt), found=say(found))


#: Salt this close to what is liked is neither mild nor salty, points. Modelling choice.
NEAR_LIKING = 0.05


@dataclass(frozen=True, kw_only=True)
class Salt(Act):
    """Salt goes in, ``salt_g``; ``first`` is it where nobody tasted yet."""

    kind: ClassVar[str] = "salt"
    stage: ClassVar[Stage] = "season"
    rank: ClassVar[Rank] = Rank.SALT
    next_words: ClassVar[Message | None] = say("bar.next_salt")

    salt_g: float
    first: bool

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is too mild."""
        matter = bench.once(_matter)
        return cls(salt_g=matter.salt_g, first=matter.why is None) if matter and matter.do == "salt" else None

    def said(self, timeline: State) -> Message:
        """How much."""
        return say("bar.salt" if self.first else "bar.more_salt", amount=salt_amount(self.salt_g, "table").full)

    def answers(self, timeline: State) -> list[Answer]:
        """It is in; or another amount."""
        return [
            Answer(say("answers.stirred_in"), ev.Salted(salt_g=self.salt_g)),
            Answer(say("answers.another_amount"), opens="season"),
        ]


@dataclass(frozen=True, kw_only=True)
class TooSaltyToBind(LetDown):
    """Too salty already: let down before anything is bound, as far as tongue and word are sure of it."""

    rank: ClassVar[Rank] = Rank.SALT_BEFORE_BINDING
    phrase: ClassVar[str] = "bar.too_salty"

    why: str | None = "too_salty"
    partly: bool

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where what the thickener brings does not thin it enough; of salt that is known the plan's own water does."""
        if bench.salt_known and bench.lets_down:
            return None
        if not _too_salty_to_bind(bench):
            return None
        return cls(volume_ml=bench.to_the_liking_ml(), partly=not bench.salt_known)

    def said(self, timeline: State) -> Message:
        """How much of it, and whether more may follow."""
        return sentences(super().said(timeline), say("bar.by_the_tongue") if self.partly else None)


@dataclass(frozen=True, kw_only=True)
class TooSalty(LetDown):
    """Too salty by the tongue."""

    rank: ClassVar[Rank] = Rank.SALT
    phrase: ClassVar[str] = "bar.too_salty"

    why: str | None = "too_salty"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where tongue and ledger say so, or the tongue twice."""
        matter = bench.once(_matter)
        if matter is None or matter.do != "thin":
            return None
        return cls(volume_ml=bench.to_the_liking_ml(bench.judgement.least_salt_share))
