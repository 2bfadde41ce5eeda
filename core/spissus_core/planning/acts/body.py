"""Body: the spoon first where it may be there already; then thickener by parts, and by what the spoon taught."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import timedelta
from typing import ClassVar, Literal, NamedTuple, Self

from scipy.optimize import brentq

from ... import events as ev
from ...amounts.quantities import show_number
from ...estimation.spoon import Chances, belief
from ...events import Stage, State
from ...events.state import Taste
from ...ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ...messages import Message, Term, Until, say, sentences
from ...pantry.schools import School
from ...phenomena.body import LADDER, flour_equivalent_g
from ...pot import Pot
from ..bench import Bench
from ..solving import solve
from ..spoken import carrier_amount, dry_amount
from .base import Act, Answer, LetDown, Rank


class _Dose(NamedTuple):
    """A helping of thickener, dry g; whether none is in yet, and the least that is noticed, dry g."""

    dry_g: float
    first: bool
    least_g: float


class _Matter(NamedTuple):
    """What is to be done about the body, and why."""

    do: Literal["spoon", "thicken", "thin"]
    why: str | None = None


def _matter(bench: Bench) -> _Matter | None:
    """What the spoons and the ledger say together; None where the body is as wanted, or nothing is to be done."""
    timeline, weighs, aim = bench.timeline, bench.judgement, bench.wanted.body
    judged, now = timeline.judged, bench.pot.contents
    said, spoons = judged.body, len(judged.spoons)
    if (bench.way.stop == "salt" and bench.way.school is None) or spoons >= weighs.most_spoons_in_all:
        return None
    chances = bench.belief.chances(now, aim)
    if not said:
        return _Matter("spoon") if timeline.binding.in_it else _unbound(bench, chances)
    agreed = len(said) >= 2 and said[-1] == said[-2]
    more = len(said) < weighs.most_spoons
    often = said[-weighs.most_rights :] == ("right",) * weighs.most_rights
    if often or (agreed and said[-1] == "right" and (chances.right >= weighs.agreed or not more)):
        return None
    if said == ("high",):
        # What thins it takes its taste away for good.
        return _Matter("spoon", "once_more")
    if said == ("low",) and timeline.binding.in_it and chances.right + chances.high > weighs.doubt:
        return _Matter("spoon", "once_more")
    if said[-1] == "right":
        gap = bench.belief.gap(now, aim)
        if chances.right >= weighs.sure or (not more and gap > -weighs.leans):
            return None
        if more and (gap > -weighs.leans or len(said) == 1):
            return _Matter("spoon", "once_more")
        # Right at last, and thin by all the rest: a little more does less harm than none.
        return _Matter("thicken", "leans" if agreed or len(said) == 1 else "one_thin")
    if not agreed and more and chances.right >= weighs.dissent:
        return _Matter("spoon", "once_more")
    if not more and not agreed and chances.right > max(chances.low, chances.high):
        return None
    return _Matter("thin") if said[-1] == "high" else _Matter("thicken")


def _unbound(bench: Bench, chances: Chances) -> _Matter:
    """Whether it is bound at once, or looked at before, where no spoon has said anything of it."""
    thickener, weighs = bench.route.thickener, bench.judgement
    if thickener is None or chances.right + chances.high > weighs.may_be:
        return _Matter("spoon", "may_be_thick")
    # So little that it would tell nothing: what is there already is asked of the spoon before.
    usual = bench.route.dry_g * thickener.first_share
    small = bench.once(_dose).dry_g < weighs.least_first * usual
    return _Matter("spoon", "may_be_thick") if small else _Matter("thicken")


def _dose(bench: Bench) -> _Dose:
    """As much as is probably missing, and not so much that it is probably too thick."""
    school, now, aim, weighs = bench.school, bench.pot.contents, bench.wanted.body, bench.judgement
    planned = solve(bench.pot, bench.wanted, "here", school).dry_g
    first = not bench.timeline.binding.in_it
    believed = bench.belief
    risk = weighs.risks[min(len(bench.timeline.binding.waits), len(weighs.risks) - 1)]

    def gap(dry: float) -> float:
        return believed.gap(now.mixed(school.per_gram, dry), aim)

    def risky(part: float) -> float:
        after = now.mixed(school.per_gram, part)
        leap = 0.0 if first else believed.beyond(after, aim) / weighs.leap_risk
        return max(believed.chances(after, aim).high / risk, leap) - 1.0

    total = _most(gap, max(2.0 * planned, weighs.most_dry_share * now.mass_g))
    dry = _most(risky, total)
    if first:
        usual = school.first_share * max(planned, total)
        dry = min(dry, max(usual, weighs.least_dry_share * now.liquid_g))
    smallest = min(weighs.least_dry_g, weighs.least_dry_share * now.liquid_g)
    per_gram = flour_equivalent_g(school.per_gram.starch) or math.inf
    least = max(smallest, weighs.least_dose_share * _flour_in(bench.pot) / per_gram)
    dry = max(dry, least)
    return _Dose(dry, first, least)


def _flour_in(pot: Pot) -> float:
    """Body that is in already, as flour, g."""
    return (pot.body.flour_percent + pot.body.pulp_percent) / 100.0 * pot.contents.liquid_g


def _most(over: Callable[[float], float], most: float) -> float:
    """The most, up to ``most``, at which ``over`` is not positive yet; nothing where it is from the first."""
    if most <= 0.0 or over(0.0) >= 0.0:
        return 0.0
    return most if over(most) <= 0.0 else float(brentq(over, 0.0, most, xtol=_GRAMS))


#: How exactly a helping is sought, g. Numerical choice.
_GRAMS = 0.05


@dataclass(frozen=True, kw_only=True)
class Spoon(Act):
    """Spoonfuls on a warm plate, two where none was looked at yet: one may be wrong, and what is added on its word is
    not taken out again. After a thickener it is once that has lost its raw taste, ``wait_min`` after."""

    kind: ClassVar[str] = "test_body"
    stage: ClassVar[Stage] = "thicken"
    rank: ClassVar[Rank] = Rank.BODY
    next_words: ClassVar[Message | None] = say("bar.next_spoon")

    wait_min: tuple[float, float] | None = None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the spoon knows more than the ledger."""
        matter, timeline = bench.once(_matter), bench.timeline
        if matter is None or matter.do != "spoon":
            return None
        if timeline.binding.at is None or timeline.judged.body or not timeline.binding.waits:
            return cls(why=matter.why)
        wait = timeline.binding.waits[-1]
        return cls(why=matter.why, wait_min=wait, look_at=timeline.binding.at + timedelta(minutes=wait[0]))

    def said(self, timeline: State) -> Message:
        """The question to it, and why it is asked."""
        asked, pot = _asked(timeline), timeline.pot
        if self.why == "once_more" and pot is not None:
            wanted = timeline.asked.wanted
            if timeline.judged.body[-2:] == ("right", "right") and wanted is not None:
                thin = belief(timeline.judged.spoons).gap(pot.contents, wanted.body) < 0.0
                return say("bar.right_twice_thin" if thin else "bar.right_twice_thick", asked=asked)
            if len(set(timeline.judged.body[-2:])) > 1:
                return say("bar.spoons_differ", asked=asked)
            if timeline.judged.body[-1:] == ("right",):
                return say("bar.right_once_more", asked=asked)
            if wanted is not None and pot.body.step.index == wanted.body:
                return say("bar.once_more", body=Term(pot.body.step.on_the_spoon), asked=asked)
            return say("bar.one_spoon_may_be_wrong", asked=asked)
        if self.why == "may_be_thick":
            return say("bar.may_be_thick", asked=asked)
        if self.wait_min is not None:
            low, high = self.wait_min
            return say("bar.simmer_first", low=show_number(low), high=show_number(high, 0, "min"))
        return say("bar.spoonful", asked=asked)

    def overdue(self, timeline: State) -> Message:
        """That it has simmered."""
        return say("bar.has_simmered", asked=_asked(timeline))

    def countdown(self) -> Message | None:
        """How long it simmers yet."""
        return say("bar.wait", until=Until(self.look_at)) if self.look_at else None

    def answers(self, timeline: State) -> list[Answer]:
        """What a spoonful may look like, or two."""
        if timeline.judged.body:
            return [Answer(word, ev.Tested(of="body", verdict=verdict)) for word, verdict in SPOON]
        return [Answer(word, ev.Tested(of="body", verdict=one, again=other)) for word, one, other in TWO_SPOONS]


#: What one spoonful says.
Spooned = Literal["low", "right", "high"]

#: What may be said of a spoonful.
SPOON: tuple[tuple[Message, Taste], ...] = (
    (say("answers.too_thin"), "low"),
    (say("answers.right"), "right"),
    (say("answers.too_thick"), "high"),
)

#: What may be said of two, looked at one after the other.
TWO_SPOONS: tuple[tuple[Message, Spooned, Spooned], ...] = (
    (say("answers.both_too_thin"), "low", "low"),
    (say("answers.one_too_thin"), "low", "right"),
    (say("answers.both_right"), "right", "right"),
    (say("answers.one_too_thick"), "right", "high"),
    (say("answers.both_too_thick"), "high", "high"),
)

#: What is asked for where nobody said how thick it is to be.
USUAL_STEP = 3


def _asked(timeline: State) -> Message:
    """The question to a spoonful: what it looks like."""
    step = LADDER[timeline.asked.wanted.body if timeline.asked.wanted else USUAL_STEP]
    return say("bar.asked", does=Term(step.does.replace(";", ",")))


#: What is nearly right: it gets no more than the least that is noticed.
_BARELY = ("leans", "one_thin")


@dataclass(frozen=True, kw_only=True)
class Thicken(Act):
    """A helping of thickener, ``dry_g``; ``first`` is it where none is in yet."""

    kind: ClassVar[str] = "thicken"
    stage: ClassVar[Stage] = "thicken"
    rank: ClassVar[Rank] = Rank.BODY
    next_words: ClassVar[Message | None] = say("bar.next_thicken")

    thickener: School = field()
    dry_g: float
    first: bool

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is too thin."""
        matter = bench.once(_matter)
        if matter is None or matter.do != "thicken":
            return None
        dose = bench.once(_dose)
        why = matter.why or (None if dose.first else "too_thin")
        dry_g = dose.least_g if why in _BARELY else dose.dry_g
        return cls(thickener=bench.school, why=why, dry_g=dry_g, first=dose.first)

    @property
    def pours_ml(self) -> float:
        """What it brings."""
        return self.thickener.added(self.dry_g).volume_ml

    def said(self, timeline: State) -> Message:
        """How much, and with what."""
        thickener, key = self.thickener, "bar.dry" if self.first else "bar.more_dry"
        dry = say(key, amount=dry_amount(self.dry_g, thickener).full, dry=Term(thickener.dry))
        whys = {"leans": say("bar.leans"), "one_thin": say("bar.one_thin")}
        leans = whys.get(self.why or "")
        carried = carrier_amount(self.dry_g, thickener).main
        if thickener.own_parts:
            return sentences(leans, say("bar.ladle_off", amount=carried), say("bar.stir_into_it", dry=dry))
        if thickener.carrier:
            dry = say("bar.with_carrier", dry=dry, amount=carried, carrier=Term(thickener.carrier))
        return sentences(leans, say("bar.whisk_in" if self.first else "bar.whisk_in_more", dry=dry))

    def answers(self, timeline: State) -> list[Answer]:
        """It is whisked in; or another amount."""
        whisked = ev.Thickened(thickener=self.thickener.key, dry_g=self.dry_g)
        return [
            Answer(say("answers.whisked_in"), whisked),
            Answer(say("answers.another_amount"), opens="thicken"),
        ]


@dataclass(frozen=True, kw_only=True)
class TooThick(LetDown):
    """Let down with as much as brings most of the body back, unless that is probably too thin."""

    rank: ClassVar[Rank] = Rank.BODY
    phrase: ClassVar[str] = "bar.too_thick"

    why: str | None = "too_thick"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the spoon says so."""
        matter = bench.once(_matter)
        if matter is None or matter.do != "thin":
            return None
        now, aim, believed, weighs = bench.pot.contents, bench.wanted.body, bench.belief, bench.judgement

        def with_water(grams: float) -> Contents:
            return now.with_masses(water=now.water + grams)

        def too_thick(grams: float) -> float:
            return -believed.gap(with_water(grams), aim)

        def risky(grams: float) -> float:
            return believed.chances(with_water(grams), aim).low - weighs.thin_risk

        missing = _most(risky, _most(too_thick, now.water))
        amount = max(weighs.thin_share * missing * SPECIFIC_VOLUME_ML_G["water"], bench.least_liquid_ml)
        return cls(volume_ml=amount)
