"""How much there is: the part that makes the sauce, what is stirred in, what steamed away, and room for it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar, Self

from ... import events as ev
from ...amounts.quantities import show_volume
from ...events import Stage, State
from ...ledger.water import HOT_EXPANSION
from ...messages import Message, Shown, say
from ...pantry.guests import ALCOHOL
from ..bench import Bench
from ..plan import method_for
from ..spoken import by_means
from .base import Act, Answer, LetDown, Rank


@dataclass(frozen=True, kw_only=True)
class Take(Act):
    """What the sauce needs, ``volume_ml``, is measured off first."""

    kind: ClassVar[str] = "take"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.PART
    next_words: ClassVar[Message | None] = say("bar.next_take")
    phrase: ClassVar[str | None] = None

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where the way takes a part, and it is not taken yet."""
        return cls(volume_ml=bench.pot.contents.liquid_ml - bench.route.aside_ml) if bench.aside_due else None

    def said(self, timeline: State) -> Message:
        """How much, as it stands, and from where."""
        volume: Shown | Message = show_volume(self.volume_ml)
        pot = timeline.pot
        if pot is not None and pot.hot:
            volume = say("bar.hot", volume=show_volume(self.volume_ml * HOT_EXPANSION))
        floats = pot is not None and pot.contents.fat_free > 0.0
        return say(self.phrase or ("bar.take_from_under" if floats else "bar.take"), volume=volume)

    def answers(self, timeline: State) -> list[Answer]:
        """It is taken, as its jug shows it and from under the fat; or another amount."""
        expansion = 1.0 if timeline.pot is None else timeline.pot.expansion
        taken = ev.Taken(volume_ml=self.volume_ml * expansion, how="under")
        return [
            Answer(say("answers.taken"), taken),
            Answer(say("answers.another_amount"), opens="strain"),
        ]


@dataclass(frozen=True, kw_only=True)
class TakeBeforeBinding(Take):
    """Far more would be bound than is wanted: the rest keeps better as it is."""

    rank: ClassVar[Rank] = Rank.PART_BEFORE_BINDING
    phrase: ClassVar[str | None] = "bar.take_before_binding"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Not by itself."""
        return None

    @classmethod
    def before(cls, act: Act, bench: Bench) -> Self | None:
        """Before the first helping of thickener."""
        binds = act.thickener is not None and not bench.timeline.binding.in_it
        if not binds or bench.route.parted_ml <= 0.0:
            return None
        return cls(volume_ml=bench.route.sauce_share * bench.pot.contents.liquid_ml, beneath=act)


@dataclass(frozen=True, kw_only=True)
class Stretch(LetDown):
    """The plan lets it down, to its salt or to its amount."""

    rank: ClassVar[Rank] = Rank.STRETCH
    phrase: ClassVar[str] = "bar.stretch"
    wants_stock: ClassVar[bool] = True

    why: str | None = "stretch"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where nothing was boiled yet."""
        return cls(volume_ml=bench.route.let_down_ml) if _lets_down(bench) and not bench.looked else None

    def answers(self, timeline: State) -> list[Answer]:
        """Of a dish with wine, wine that was boiled down by itself serves too."""
        *what, other = super().answers(timeline)
        wine = _wine_of(timeline)
        if wine is None:
            return [*what, other]
        poured = ev.Added(ingredient=f"{wine}_reduced", volume_ml=self.volume_ml)
        return [*what, Answer(say("answers.reduced_wine_is_in"), poured), other]


#: Wines that there are boiled down by themselves.
REDUCED_WINES = ("red_wine", "white_wine")


def _wine_of(timeline: State) -> str | None:
    """The wine that went into the dish, where it is one of those; None where somebody must not have any."""
    braise = timeline.start.liquid.braise if timeline.start else None
    wanted = timeline.asked.wanted
    if braise is None or (wanted is not None and ALCOHOL in wanted.avoid):
        return None
    went_in = {line.what.key for line in braise.counted}
    return next((wine for wine in REDUCED_WINES if wine in went_in), None)


@dataclass(frozen=True, kw_only=True)
class PastTheMark(LetDown):
    """It boiled down past its mark."""

    rank: ClassVar[Rank] = Rank.STRETCH
    phrase: ClassVar[str] = "bar.past_the_mark"

    why: str | None = "past"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where a look found it so."""
        return cls(volume_ml=bench.route.let_down_ml) if _lets_down(bench) and bench.looked else None


def _lets_down(bench: Bench) -> bool:
    return not bench.settled and not bench.boils and bench.lets_down


def _short_ml(bench: Bench) -> float:
    """What is missing to the amount, mL, once it is bound; nothing where it is not worth stirring in."""
    if not bench.settled or bench.way.stop not in ("volume", "stretch", "taste"):
        return 0.0
    missing, least = bench.wanted.amount_ml - bench.route.volume_ml, bench.least_liquid_ml
    # Of less than half of the least that is stirred in, most would be too much.
    enough = missing < max(bench.judgement.short_share * bench.wanted.amount_ml, 0.5 * least)
    return 0.0 if enough else max(missing, least)


#: Less than this share of what is wanted is far too little. Modelling choice.
FAR_TOO_LITTLE = 0.9


@dataclass(frozen=True, kw_only=True)
class PourBack(Act):
    """Bound and short of what was wanted, while liquid of the same pot stands aside: that goes in before water does."""

    kind: ClassVar[str] = "pour_back"
    stage: ClassVar[Stage] = "strain"
    rank: ClassVar[Rank] = Rank.AMOUNT
    next_words: ClassVar[Message | None] = say("bar.next_pour_back")

    volume_ml: float

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where some stands aside; of what is too salty only as much as leaves room for the water it wants."""
        kept = bench.pot.kept
        if kept is None or kept.salt_percent <= 0.0:
            return None
        volume = min(_short_ml(bench) * min(bench.liking / kept.salt_percent, 1.0), kept.liquid_ml)
        return cls(volume_ml=volume) if volume >= bench.least_liquid_ml else None

    @property
    def pours_ml(self) -> float:
        """All of it."""
        return self.volume_ml

    def said(self, timeline: State) -> Message:
        """How much."""
        return say("bar.pour_back", volume=show_volume(self.volume_ml))

    def answers(self, timeline: State) -> list[Answer]:
        """It is in; or something else is."""
        return [
            Answer(say("answers.poured_back"), ev.Returned(volume_ml=self.volume_ml)),
            Answer(say("answers.something_else"), asks="add"),
        ]


@dataclass(frozen=True, kw_only=True)
class TooLittle(LetDown):
    """Bound and short of what was wanted: it is stretched, where it is meant to come to an amount."""

    rank: ClassVar[Rank] = Rank.AMOUNT
    phrase: ClassVar[str] = "bar.too_little"
    wants_stock: ClassVar[bool] = True

    why: str | None = "too_little"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where so much is missing that stirring it in is worth it."""
        short_ml, route = _short_ml(bench), bench.route
        # Boiled for its taste to far too little it stays less where it would taste of nothing: the card said so.
        far = bench.way.stop == "taste" and route.volume_ml < FAR_TOO_LITTLE * bench.wanted.amount_ml
        stays = far and route.final.strength_percent < bench.judgement.least_stretched_percent
        return cls(volume_ml=short_ml) if short_ml > 0.0 and not stays else None


@dataclass(frozen=True, kw_only=True)
class Measure(Act):
    """What steamed away while it simmered is measured once before it is salted."""

    kind: ClassVar[str] = "measure"
    stage: ClassVar[Stage] = "thicken"
    rank: ClassVar[Rank] = Rank.WHAT_STEAMED
    next_words: ClassVar[Message | None] = say("bar.next_measure")

    why: str | None = "unsure"

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it simmered for long, or the amount is not known well."""
        timeline, pot, weighs = bench.timeline, bench.pot, bench.judgement
        known_to_ml = weighs.unsure_share * pot.contents.liquid_ml
        unsure = timeline.binding.waited_min >= weighs.waited_min or pot.error_ml > known_to_ml
        if not unsure or timeline.binding.measured or not timeline.binding.in_it:
            return None
        return cls(measure=method_for(pot, known_to_ml))

    def said(self, timeline: State) -> Message:
        """What to measure it with."""
        return say("bar.measure", by=by_means(self.measure))

    def answers(self, timeline: State) -> list[Answer]:
        """A reading."""
        return [Answer(say("answers.reading"), asks="reading")]


@dataclass(frozen=True, kw_only=True)
class BiggerPan(Act):
    """What is to go in, ``volume_ml``, would stand at the rim: into a bigger pan before."""

    kind: ClassVar[str] = "bigger_pan"
    stage: ClassVar[Stage] = "reduce"
    rank: ClassVar[Rank] = Rank.ROOM
    next_words: ClassVar[Message | None] = say("bar.next_bigger_pan")

    volume_ml: float

    @classmethod
    def before(cls, act: Act, bench: Bench) -> Self | None:
        """Where the pan has no room for it."""
        more_ml = act.pours_ml
        return cls(volume_ml=more_ml, beneath=act) if more_ml > bench.pot.room_ml else None

    def said(self, timeline: State) -> Message:
        """How much there is no room for."""
        return say("bar.bigger_pan", volume=show_volume(self.volume_ml))

    def answers(self, timeline: State) -> list[Answer]:
        """Another pan, or less in this one."""
        return [
            Answer(say("answers.another_pan"), opens="reduce"),
            Answer(say("answers.draw_some_off"), opens="strain"),
        ]
