"""What every act has: when it is due, the stage it belongs to, what is said of it, and what answers it."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from datetime import datetime
from enum import IntEnum, auto
from typing import ClassVar, Literal, Self

from ... import events as ev
from ...amounts.quantities import show_percent, show_volume
from ...estimation.forecast import Outlook
from ...events import Stage, State
from ...measuring.measurement import Method, Reads
from ...messages import Message, say
from ...pantry.ingredients import ingredient
from ...pantry.schools import School
from ..bench import Bench
from ..spoken import Measure

#: What to measure with where what was used so far is too coarse.
Finer = Method | Literal["spoon"]


class Rank(IntEnum):
    """The order in which a good cook speaks: what there is, what is due, the next step; body before salt."""

    EMPTY = auto()
    THROWN_AWAY = auto()
    REST = auto()
    OVER = auto()
    COOLING = auto()
    UNKNOWN_SALT = auto()
    WISH = auto()
    SMELL = auto()
    COLD_PLATE = auto()
    WAY = auto()
    FAT = auto()
    TONGUES_DIFFER = auto()
    TASTE_BEFORE_WATER = auto()
    PART = auto()
    SALT_BEFORE_BINDING = auto()
    STRETCH = auto()
    TASTE_ON_THE_WAY = auto()
    BOIL = auto()
    TASTE_BEFORE_BINDING = auto()
    FAT_AGAIN = auto()
    GENTLE = auto()
    MEAT = auto()
    PLATES = auto()
    HOLD = auto()
    AMOUNT = auto()
    BODY = auto()
    WHAT_STEAMED = auto()
    PALATE_AGAIN = auto()
    SALT = auto()
    PALATE = auto()
    END = auto()
    # What comes before whichever of these is due.
    ROOM = auto()
    PART_BEFORE_BINDING = auto()
    SLIP = auto()
    DOUBT = auto()


@dataclass(frozen=True, slots=True)
class Answer:
    """A button that answers an act: the event that it records, or the view or the sheet where more is said.

    With both it opens the view, and where that is open already it records the event.
    """

    label: Message
    event: ev.Kind | None = None
    opens: Stage | Literal["plan"] | None = None
    asks: Literal["reading", "add", "probe", "probe_meat"] | None = None


@dataclass(frozen=True, slots=True)
class Mark:
    """Where to stop: mL of liquid at 20 °C, what is read there, and by which of the ways to measure it is told."""

    ml: float
    reads: Reads
    reads_by: Method


#: What an act sounds like when it is late: ``hurry`` where every minute loses something, ``ready`` where it may wait.
Sound = Literal["hurry", "ready"]

#: Every kind of act there is; filled as the classes are defined.
ACTS: list[type[Act]] = []


@dataclass(frozen=True, kw_only=True)
class Act(ABC):
    """One thing to do, and everything that follows from it.

    An act is one class in one module of this package, and nothing else has to know of it. ``kind`` is its name and
    ``stage`` where it is done; acts that are done alike (liquid that is stirred in) share a kind. ``rank`` is its turn
    to be asked whether it is due, or whether it has to come :meth:`before` what is. ``next_words`` say it in a list of
    pots, and ``sound`` is the alarm's once it is late.

    ``why`` is what makes it more than the next step. ``look_at`` says when it is time for it, ``mark`` where to stop,
    ``outlook`` what is known of the way there, ``measure`` what to measure with, ``thickener`` what goes in,
    ``pours_ml`` how much it pours into the pan, and ``beneath`` what is to be done meanwhile.
    """

    kind: ClassVar[str]
    stage: ClassVar[Stage]
    rank: ClassVar[Rank]
    next_words: ClassVar[Message | None] = None
    sound: ClassVar[Sound] = "ready"

    why: str | None = None
    look_at: datetime | None = None
    mark: Mark | None = None
    outlook: Outlook | None = None
    measure: Finer | None = None
    thickener: School | None = None
    beneath: Act | None = None

    def __init_subclass__(cls, **kwargs: object) -> None:
        super().__init_subclass__(**kwargs)
        if "rank" in vars(cls):
            ACTS.append(cls)

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """The act, where it is to be done now."""
        return None

    @classmethod
    def before(cls, act: Act, bench: Bench) -> Self | None:
        """The act, where it has to come before ``act``."""
        return None

    @abstractmethod
    def said(self, timeline: State) -> Message:
        """What the bar says."""

    def overdue(self, timeline: State) -> Message:
        """What the bar says once it is time for it."""
        return self.said(timeline)

    def countdown(self) -> Message | None:
        """What stands before the sentence until it is time."""
        return None

    def answers(self, timeline: State) -> list[Answer]:
        """The answers to it, the one that it asks for first; none where it is answered elsewhere, or over."""
        return []

    @property
    def doing(self) -> Act:
        """What is to be done at the pot, whatever is asked before it."""
        return self.beneath or self

    @property
    def pours_ml(self) -> float:
        """What it pours into the pan, mL."""
        return 0.0

    @property
    def goes_in(self) -> Measure | None:
        """What is weighed or spooned in, thickener or salt, and how much of it."""
        return None

    @property
    def reads_by(self) -> Method:
        """The way to measure that its mark is told in; else a dip, which needs no pouring."""
        return self.mark.reads_by if self.mark else "dip"


@dataclass(frozen=True, kw_only=True)
class LetDown(Act):
    """Unsalted liquid is stirred in, ``volume_ml``; what for, and in which words, its kinds say."""

    kind: ClassVar[str] = "let_down"
    stage: ClassVar[Stage] = "reduce"
    next_words: ClassVar[Message | None] = say("bar.next_let_down")
    phrase: ClassVar[str]
    #: Whether so much goes in that stock is asked for first, which tastes of something.
    wants_stock: ClassVar[bool] = False

    volume_ml: float

    @property
    def pours_ml(self) -> float:
        """All of it."""
        return self.volume_ml

    def said(self, timeline: State) -> Message:
        """How much of it, and the salt then."""
        assert timeline.pot is not None
        poured = ingredient("unsalted_stock" if self.wants_stock else "water")
        after = timeline.pot.contents + poured.portion(self.volume_ml * poured.density_g_ml)
        return say(self.phrase, volume=show_volume(self.volume_ml), salt=show_percent(after.salt_percent))

    def answers(self, timeline: State) -> list[Answer]:
        """Stock went in, which tastes, or water; or something else did."""
        stock = Answer(say("answers.stock_is_in"), ev.Added(ingredient="unsalted_stock", volume_ml=self.volume_ml))
        water = Answer(say("answers.water_is_in"), ev.Added(ingredient="water", volume_ml=self.volume_ml))
        first = (stock, water) if self.wants_stock else (water, stock)
        return [*first, Answer(say("answers.something_else"), asks="add")]
