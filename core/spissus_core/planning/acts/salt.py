"""Salt: tasted where it is not known; then what loses least of tasting, salting, letting down and leaving it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Literal, NamedTuple, Self

import numpy as np
from scipy.special import ndtr

from ... import events as ev
from ...amounts.quantities import show_percent
from ...events import Stage, State
from ...events.judging import BLAND
from ...ledger.contents import SPECIFIC_VOLUME_ML_G
from ...messages import Message, say, sentences
from ...phenomena.seasoning import SAUCE
from ..bench import Bench
from ..ceiling import bound_salt_percent
from ..spoken import Measure, salt_amount
from ..verdicts import TONGUE
from ..weighing import SHARES, Best, Known, Move, least_loss, water_costs
from .base import Act, Answer, LetDown, Rank


class _Matter(NamedTuple):
    """What is to be done about the salt, and why; with how much of it, g, or of water."""

    do: Literal["taste", "salt", "thin"]
    why: str | None = None
    grams: float = 0.0


def _matter(bench: Bench) -> _Matter | None:
    """What tongue and ledger say together; None where it is as it is liked."""
    best, judged = _best(bench), bench.timeline.judged
    if best.do == "leave":
        return None
    if best.do == "look":
        return _Matter("taste", "once_more" if judged.salt else None)
    mild = bench.over < 0.0
    if not judged.salt:
        # What thins it takes its taste away for good: not without a taste of what there is. Nor is it salted twice.
        again = not mild or bench.timeline.went_in.salted
        return _Matter("taste") if again else _Matter("salt", grams=best.amount)
    if mild is not (judged.salt[-1] in BLAND) or judged.salt[-1] == "right":
        # Nobody salts or waters what the tongue just found otherwise.
        return None
    return _Matter("salt", "more", best.amount) if mild else _Matter("thin", grams=best.amount)


#: What the salt may be, in standard deviations around what is known, and the chances. Numerical choice.
_MAY_BE = np.linspace(-4.0, 4.0, 65)
_CHANCES = np.exp(-0.5 * _MAY_BE**2) / np.exp(-0.5 * _MAY_BE**2).sum()


def _best(bench: Bench) -> Best:
    """What loses least: to leave it, to taste it, to salt it, or to let it down."""
    weighs, pot, liking = bench.judgement, bench.pot.contents, bench.liking
    over, mild = bench.over + bench.salt_error * _MAY_BE, bench.over < 0.0
    if mild:
        missing = bench.salt_missing_g
        least = max(weighs.least_salt_g, weighs.least_salt_share * liking / 100.0 * pot.liquid_g)
    else:
        # At most as much again as there is: then it is tasted.
        missing = min(pot.salt / (liking / 100.0) - pot.liquid_g, pot.liquid_g)
        least = weighs.least_salt_share * pot.liquid_g

    def move(grams: float) -> Move:
        if mild:
            return Move(grams, weighs.a_pinch, (over + 100.0 * grams / pot.liquid_g) / weighs.salt_fault)
        share = grams / pot.liquid_g
        let_down = (over + liking) / (1.0 + share) - liking
        return Move(grams, weighs.a_look + float(water_costs(share, weighs)), let_down / weighs.salt_fault)

    # Of what nobody has tasted, only so much: salt cannot be taken out.
    most = weighs.first_salt if mild and not bench.timeline.judged.salt else max(SHARES)
    moves = [move(grams) for grams in sorted({max(min(share, most) * missing, least) for share in SHARES})]
    # Where tongue and ledger say the same, nobody is asked again, but before water, which takes its taste away.
    said = SAUCE.stands.get(bench.timeline.judged.salt[-1]) if bench.timeline.judged.salt else None
    same = said is not None and said <= 0.0 and abs(bench.over - said) <= NEAR_LIKING
    asked = len(bench.timeline.judged.salt) < weighs.most_tastes and not same
    says = SAUCE.says(over, 2) if asked else np.empty((0, 0))
    return least_loss(Known(_CHANCES, over / weighs.salt_fault), says, moves, weighs.salt_fault / liking, weighs)


@dataclass(frozen=True, kw_only=True)
class _Tasting(Act):
    """It is tasted, twice where it is at leisure: what both say together is told."""

    kind: ClassVar[str] = "test_salt"
    stage: ClassVar[Stage] = "season"
    next_words: ClassVar[Message | None] = say("bar.next_taste")
    phrase: ClassVar[str]
    twice: ClassVar[bool] = True

    def said(self, timeline: State) -> Message:
        """How, and what for."""
        return say(self.phrase)

    def answers(self, timeline: State) -> list[Answer]:
        """What may be said of a taste."""
        return [Answer(word, ev.Tested(of="salt", verdict=verdict, twice=self.twice)) for word, verdict in TONGUE]


@dataclass(frozen=True, kw_only=True)
class TasteUnknown(_Tasting):
    """Nobody tasted or measured the salt: nothing is planned before that."""

    rank: ClassVar[Rank] = Rank.UNKNOWN_SALT
    phrase: ClassVar[str] = "bar.taste_first"
    twice: ClassVar[bool] = False

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
    if bench.timeline.binding.in_it or bench.boils or bench.timeline.asked.told_by == "at_salt_percent":
        return False
    if bench.way.stop == "told" and not (bench.timeline.at_its_mark and bench.timeline.judged.salt):
        return False
    # A thickener that brings salt is no reason for water: of what is watered it takes more.
    salt = min(bound_salt_percent(bench.pot, bench.route), bench.pot.contents.salt_percent)
    if bench.looked:
        # Past its mark: what is let down to its amount anyway is not too salty.
        salt = min(salt, bench.route.salt_before.best)
    return salt - bench.liking > bench.judgement.too_salty


@dataclass(frozen=True, kw_only=True)
class TasteOnTheWay(_Tasting):
    """Boiled to a salt content that only words stand for: a wrong start is mended while there is more to boil away.

    It is tasted at every look until it is known.
    """

    rank: ClassVar[Rank] = Rank.TASTE_ON_THE_WAY
    phrase: ClassVar[str] = "bar.taste_on_the_way"
    twice: ClassVar[bool] = False

    why: str | None = "on_the_way"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody has looked at it, and it is not known better by now."""
        timeline, window = bench.timeline, bench.timeline.stove.window
        if timeline.asked.told_by != "at_salt_percent" or not bench.boils or bench.settled or timeline.at_its_mark:
            return None
        tastes = len(timeline.judged.salt)
        looks = 0 if window is None or bench.salt_known else window.measured
        return cls() if tastes < min(looks, bench.judgement.most_on_the_way) else None


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
        asks = told or _may_be_salty(bench) or (bench.way.stop == "taste" and not _surely_mild(bench))
        open_ = asks and not bench.settled and not bench.boils
        # What was tasted on the way was tasted out of the boil.
        tasted = len(bench.timeline.judged.salt) > (2 if told else 0)
        return cls() if open_ and not tasted and not bench.salt_known else None


def _surely_mild(bench: Bench) -> bool:
    """Whether its salt ended no boiling, by two standard deviations."""
    at_most = bound_salt_percent(bench.pot, bench.route) + 2.0 * bench.salt_error
    return at_most < bench.liking - bench.judgement.salt_kept


def _may_be_salty(bench: Bench) -> bool:
    """Whether it may be too salty once it is bound: then it is let down before, and not bound twice."""
    over = bound_salt_percent(bench.pot, bench.route) - bench.liking - bench.judgement.too_salty
    return bool(ndtr(over / max(bench.salt_error, 1e-6)) > bench.judgement.may_be_salty)


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
        return cls(salt_g=matter.grams, first=matter.why is None) if matter and matter.do == "salt" else None

    @property
    def goes_in(self) -> Measure:
        """Of table salt."""
        return salt_amount(self.salt_g, "table")

    def said(self, timeline: State) -> Message:
        """How much."""
        return say("bar.salt" if self.first else "bar.more_salt", amount=self.goes_in.full)

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
        # What its amount needs goes in at once, where nothing of the pot stands aside to be poured back instead.
        needs_ml = bench.route.let_down_ml if bench.pot.kept is None and bench.way.stop != "told" else 0.0
        return cls(volume_ml=max(bench.to_the_liking_ml(), needs_ml), partly=not bench.salt_known)

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
        return cls(volume_ml=max(matter.grams * SPECIFIC_VOLUME_ML_G["water"], bench.least_liquid_ml))
