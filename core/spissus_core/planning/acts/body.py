"""Body: what loses least of looking at it, binding it, letting it down and leaving it as it is."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import timedelta
from typing import ClassVar, Literal, NamedTuple, Self

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from ... import events as ev
from ...amounts.quantities import show_mass, show_number
from ...estimation.spoon import belief, height, steps_over, two_spoonfuls, viscosity_at
from ...events import Stage, State
from ...events.state import Made, Taste
from ...ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ...messages import Message, Term, Until, say, sentences
from ...pantry.schools import School
from ...phenomena.body import LADDER, STARCHES, flour_equivalent_g
from ..bench import Bench
from ..solving import as_it_is, dose_g, solve
from ..spoken import Measure, carrier_amount, carrier_name, dry_amount, made_amount, second_amount
from ..weighing import SHARES, Best, Known, Move, least_loss, water_costs
from .base import Act, Answer, LetDown, Rank


class _Matter(NamedTuple):
    """What is to be done about the body, and why; with how much, dry g or g of water."""

    do: Literal["spoon", "thicken", "thin"]
    why: str | None = None
    grams: float = 0.0


def _matter(bench: Bench) -> _Matter | None:
    """What spoons and ledger say together; None where the body is as wanted, or nothing is to be done."""
    binding, judged, weighs = bench.timeline.binding, bench.timeline.judged, bench.judgement
    bare = bench.way.stop == "salt" and bench.way.school is None
    if bare or len(judged.spoons) >= weighs.most_spoons_in_all:
        return None
    if binding.waits and not _seen_bound(bench):
        # Nobody goes by the body of raw starch.
        return _Matter("spoon")
    best, said = _best(bench), judged.body
    if said[-4:] == ("right",) * 4:
        # Nobody asks on after four right ones, whatever the sums say.
        return None
    if best.do == "leave":
        return None
    least = best.do == "put_in" and best.amount <= _MORE_THAN_LEAST * _least_dry_g(bench)
    if best.do == "look" or (least and not said and not binding.in_it):
        return _Matter("spoon", "once_more" if said else None if binding.in_it else "may_be_thick")
    if bench.belief.gap(bench.pot.contents, bench.wanted.body) < 0.0:
        return _Matter("thicken", "leans" if said[-2:] == ("right", "right") else None, best.amount)
    if not said:
        return _Matter("spoon", None if binding.in_it else "may_be_thick")
    # What thins it takes its taste away for good: nobody pours water into what both spoonfuls called right.
    return _Matter("thin", grams=best.amount) if "high" in said[-2:] else None


def _seen_bound(bench: Bench) -> bool:
    """Whether a spoon was looked at since the last helping went in."""
    spoons = bench.timeline.judged.spoons
    return bool(spoons) and _thickening_g(spoons[-1].contents) >= _thickening_g(bench.pot.contents) - 1e-6


def _thickening_g(contents: Contents) -> float:
    return sum(contents.starch.values(), contents.gum + contents.gelatin + contents.pulp)


def _best(bench: Bench) -> Best:
    """What loses least: to leave it, to look, to bind it with more, or to let it down."""
    school, now, aim = bench.school, bench.pot.contents, bench.wanted.body
    weighs, believed = bench.judgement, bench.belief
    thin = believed.gap(now, aim) < 0.0
    wait_min = (school.wait_low_min + school.wait_high_min) / 2.0

    def made(grams: float) -> Contents:
        return now.mixed(school.per_gram, grams) if thin else now.with_masses(water=now.water + grams)

    def off(contents: Contents) -> NDArray[np.float64]:
        return steps_over(contents, aim).reshape(-1)

    def cost(grams: float) -> float:
        own = weighs.a_helping + weighs.a_minute * wait_min if thin else water_costs(grams / now.mass_g, weighs)
        return weighs.a_look + float(own)

    if thin:
        least = _least_dry_g(bench)
        most = 2.0 * solve(bench.pot, bench.wanted, "here", school).dry_g + 3.0 * least
        # What is usual goes into a full pan, too: stirred into its own liquid it takes next to no room.
        bears = bench.helping_g(school) if bench.has_enough_of is None else math.inf
    else:
        least_share = weighs.least_step * weighs.water_a_step
        least = max(bench.least_liquid_ml / SPECIFIC_VOLUME_ML_G["water"], least_share * now.mass_g)
        most = bears = now.mass_g
    missing = _root(lambda grams: believed.gap(made(grams), aim), most)
    amounts = sorted({min(max(share * missing, least), bears) for share in SHARES})
    known = Known(believed.weights.reshape(-1), off(now) / weighs.body_fault)
    moves = [Move(grams, cost(grams), off(made(grams)) / weighs.body_fault) for grams in amounts]
    surely_thin = not bench.timeline.binding.in_it and believed.chances(now, aim).low > weighs.surely_thin
    # Who found both too thin adds, and does not look again.
    both_thin = bench.timeline.judged.body[-2:] == ("low", "low") and thin
    asked = len(bench.timeline.judged.body) < weighs.most_spoons and not surely_thin and not both_thin
    says = two_spoonfuls(off(now)) if asked else np.empty((0, 0))
    return least_loss(known, says, moves, weighs.body_fault * weighs.water_a_step, weighs)


def _root(gap: Callable[[float], float], most: float) -> float:
    """The amount at which it is as wanted by the mean, or ``most`` where that is not enough."""
    return most if gap(0.0) * gap(most) >= 0.0 else float(brentq(gap, 0.0, most, xtol=_GRAMS))


#: So many times the least that is noticed is still so little that what is there is looked at first. Modelling choice.
_MORE_THAN_LEAST = 1.5

#: How exactly a helping is sought, g. Numerical choice.
_GRAMS = 0.05


def _least_dry_g(bench: Bench) -> float:
    """The least helping that is noticed, dry g."""
    weighs, pot, school = bench.judgement, bench.pot, bench.school
    if school.term not in STARCHES:
        # Of what is no flour it is as much as moves the body by so little that an eye sees it.
        seen = viscosity_at(height(pot.body.viscosity) + weighs.least_step)
        return dose_g(as_it_is(pot.contents, school), seen, pot.contents.mass_g, pot.strength)
    smallest = min(weighs.least_dry_g, weighs.least_dry_share * pot.contents.liquid_g)
    flour_g = (pot.body.flour_percent + pot.body.pulp_percent) / 100.0 * pot.contents.liquid_g
    per_gram = flour_equivalent_g(school.per_gram.starch) or math.inf
    return max(smallest, weighs.least_dose_share * flour_g / per_gram)


@dataclass(frozen=True, kw_only=True)
class Spoon(Act):
    """Two spoonfuls on a warm plate: one may be wrong, and what is added on its word is not taken out again.

    After a thickener it is once that has lost its raw taste, ``wait_min`` after; where it must
    not boil (``boils`` is false) the pot is kept short of a simmer meanwhile.
    """

    kind: ClassVar[str] = "test_body"
    stage: ClassVar[Stage] = "thicken"
    rank: ClassVar[Rank] = Rank.BODY
    next_words: ClassVar[Message | None] = say("bar.next_spoon")

    wait_min: tuple[float, float] | None = None
    boils: bool = True

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the spoon knows more than the ledger."""
        matter, timeline = bench.once(_matter), bench.timeline
        if matter is None or matter.do != "spoon":
            return None
        if timeline.binding.at is None or timeline.judged.body or not timeline.binding.waits:
            return cls(why=matter.why)
        wait = timeline.binding.waits[-1]
        look_at = timeline.binding.at + timedelta(minutes=wait[0])
        return cls(why=matter.why, wait_min=wait, look_at=look_at, boils=bench.school.boil_min > 0.0)

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
            thick = timeline.judged.body[-1:] == ("high",)
            return say("bar.before_it_is_watered" if thick else "bar.one_spoon_may_be_wrong", asked=asked)
        if self.why == "may_be_thick":
            return say("bar.may_be_thick", asked=asked)
        if self.wait_min is not None:
            low, high = self.wait_min
            span = {"low": show_number(low), "high": show_number(high, 0, "min")}
            return say("bar.simmer_first", **span) if self.boils else say("bar.warm_first", **span)
        return say("bar.spoonful", asked=asked)

    def overdue(self, timeline: State) -> Message:
        """That it has simmered, or stood hot, for as long as it wanted."""
        asked = _asked(timeline)
        return say("bar.has_simmered", asked=asked) if self.boils else say("bar.has_stood_hot", asked=asked)

    def countdown(self) -> Message | None:
        """How long it simmers yet."""
        return say("bar.wait", until=Until(self.look_at)) if self.look_at else None

    def answers(self, timeline: State) -> list[Answer]:
        """What the two may look like."""
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


#: Less than this share of what stands ready is not kept back. Modelling choice.
ALL_OF_IT = 0.9


def ready_beside(bench: Bench) -> Made | None:
    """What stands ready of the thickener of the way; None where there is none of it left."""
    made = bench.timeline.binding.made
    fits = made is not None and made.ready and made.school.key == bench.school.key
    return made if fits and made is not None and made.left_g > _GRAMS else None


def _found_weak(bench: Bench) -> bool:
    """Whether the last two spoonfuls were the first to find that what is in it does little: it is asked but once."""
    spoons, least = bench.timeline.judged.spoons, bench.judgement.binds_weakly
    now, before = (belief(some).strength.thickener for some in (spoons, spoons[:-2]))
    return now < least <= before


def _asks_why(thickener: School) -> Message:
    """What is asked about a thickener that does little."""
    return say("bar.thickens_weakly") if thickener.boil_min > 0.0 else say("bar.thickens_weakly_unboiled")


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
    made: Made | None = None
    stirred_into: str | None = None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is too thin."""
        matter = bench.once(_matter)
        if matter is None or matter.do != "thicken":
            return None
        first = not bench.timeline.binding.in_it
        weak = not first and _found_weak(bench)
        why = matter.why or ("weak" if weak else None if first else "too_thin")
        made, school = ready_beside(bench), bench.school
        if bench.has_enough_of is not None and school.key not in dict(bench.timeline.binding.grams):
            why = "enough"
        grams = matter.grams if made is None else min(matter.grams, made.left_g)
        was = bench.timeline.binding.made
        into = was.stirred_into if was is not None and was.school.key == school.key else None
        return cls(thickener=school, why=why, dry_g=grams, first=first, made=made, stirred_into=into)

    @property
    def pours_ml(self) -> float:
        """What it brings."""
        return self.thickener.added(self.dry_g).volume_ml

    @property
    def goes_in(self) -> Measure:
        """The helping."""
        return dry_amount(self.dry_g, self.thickener)

    def said(self, timeline: State) -> Message:
        """How much, and with what."""
        if self.made is not None:
            return self._poured(self.made)
        thickener, key = self.thickener, "bar.dry" if self.first else "bar.more_dry"
        dry = say(key, amount=self.goes_in.full, dry=thickener.weighed)
        leans = self._leans
        if thickener.own_parts:
            carried = carrier_amount(self.dry_g, thickener).main
            return sentences(leans, say("bar.ladle_off", amount=carried), say("bar.stir_into_it", dry=dry))
        if thickener.carrier:
            carried = carrier_amount(self.dry_g, thickener).main
            carrier = carrier_name(self.dry_g, thickener, timeline)
            dry = say("bar.with_carrier", dry=dry, amount=carried, carrier=carrier)
        if thickener.second:
            dry = say("bar.with_second", dry=dry, second=second_amount(self.dry_g, thickener))
        return sentences(leans, say("bar.whisk_in" if self.first else "bar.whisk_in_more", dry=dry))

    @property
    def _leans(self) -> Message | None:
        """What is said before it, where there is anything."""
        said = {"leans": say("bar.leans"), "weak": _asks_why(self.thickener), "enough": say("bar.enough_of_it")}
        return said.get(self.why or "")

    def _poured(self, made: Made) -> Message:
        """How much of what stands ready, in what it is measured by."""
        leans = self._leans
        if self.dry_g >= ALL_OF_IT * made.left_g:
            return sentences(leans, say("bar.pour_the_rest"))
        stirs = say("bar.stir_it_up") if self.thickener.is_slurry else None
        amount = made_amount(self.dry_g, self.thickener).full
        key = "bar.pour_made" if self.first else "bar.pour_more_made"
        return sentences(leans, stirs, say(key, amount=amount, dry=show_mass(self.dry_g)))

    def answers(self, timeline: State) -> list[Answer]:
        """It is whisked in; or another amount."""
        whisked = ev.Thickened(thickener=self.thickener.key, dry_g=self.dry_g, stirred_into=self.stirred_into)
        return [
            Answer(say("answers.whisked_in"), whisked),
            Answer(say("answers.another_amount"), opens="thicken"),
        ]


@dataclass(frozen=True, kw_only=True)
class TooThick(LetDown):
    """Let down with as much as loses least."""

    rank: ClassVar[Rank] = Rank.BODY
    phrase: ClassVar[str] = "bar.too_thick"

    why: str | None = "too_thick"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the spoon says so."""
        matter = bench.once(_matter)
        if matter is None or matter.do != "thin":
            return None
        return cls(volume_ml=matter.grams * SPECIFIC_VOLUME_ML_G["water"])
