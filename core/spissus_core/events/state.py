"""What stands of a batch after an event."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Literal, NamedTuple
from uuid import UUID

from ..amounts.changing import Changeable
from ..amounts.estimate import Estimate
from ..estimation.spoon import Spoonful, Verdict
from ..estimation.window import Window, boiled_by, known_by
from ..ledger.contents import Contents
from ..messages import Argument
from ..pantry.schools import School
from ..pantry.ways import WAYS
from ..phenomena.cooling import FRIDGE_C, Reading
from ..phenomena.heating import HeatSetting
from ..phenomena.keeping import Cold, KeptWhat
from ..phenomena.limits import USUAL, Limits
from ..phenomena.palate import COOK, PALATE, TASTERS, Leaning, Sensed, Side, found_word
from ..phenomena.seasoning import LIKING_ERROR, LearnedLiking
from ..pot import Pot
from ..start import Start
from ..wish import Wish

#: What a spoon says, and what a tongue says.
Taste = Literal["flat", "nearly", "low", "right", "high", "salty", "too_salty"]

#: Within this share of its mark a pot that is judged is judged at its mark. Modelling choice.
NEAR_MARK = 0.08


@dataclass(frozen=True, slots=True)
class CoolingLog:
    """A pot set to cool: since when, in what surroundings, °C, and its temperatures, minutes from then."""

    began: datetime
    surroundings_c: float
    readings: tuple[Reading, ...]


class Probe(NamedTuple):
    """A temperature of the sauce, °C, and when it was taken."""

    celsius: float
    at: datetime


@dataclass(frozen=True, slots=True)
class Rest:
    """Liquid that was set aside: how it is kept, and since when; ``unsaid`` while nobody said so. What cools has its
    temperatures, minutes from then, and its surroundings, °C."""

    since: datetime
    stands: Literal["unsaid", "hot", "cooling", "cold"]
    readings: tuple[Reading, ...] = ()
    surroundings_c: float = FRIDGE_C


class Jar(NamedTuple):
    """Something that is kept: what it is and what is in it, since when and where, and by when it is to be used.

    ``keeps`` is its row in ``data/keeping.csv``. It was ``reheated`` where something of it was kept before, and
    ``thawed`` once it was. ``cold_by`` is when it must be cold, where it was put by before that.
    """

    id: UUID
    what: KeptWhat
    name: str
    contents: Contents
    allergens: tuple[str, ...]
    delicate: frozenset[str]
    keeps: str
    place: Cold
    since: datetime
    made: datetime
    use_by: datetime
    containers: int
    reheated: bool
    cold_by: datetime | None
    thawed: bool = False


#: How meat stands with the sauce.
MeatHow = Literal["warm", "cold", "glazed", "crisped", "oven"]


@dataclass(frozen=True, slots=True)
class Meat:
    """Meat and sauce together: ``since`` when, how many ``minutes`` it takes, and ``how`` it stands with the sauce.

    ``warm`` it is only coated, ``cold`` it is heated through, ``glazed`` it is basted in the oven, ``crisped`` apart,
    and in the ``oven`` it stands uncovered under the sauce. It is ``done`` once somebody says so.
    """

    since: datetime
    minutes: Estimate
    how: MeatHow
    done: bool = False
    oven_c: float = 0.0

    @property
    def look_at(self) -> datetime:
        """When it is to be looked at: once it has probably come to its heat."""
        return self.since + timedelta(minutes=self.minutes.best)

    @property
    def baste_at(self) -> datetime:
        """When it is basted next: after a third of its time."""
        return self.since + timedelta(minutes=max(self.minutes.best / 3.0, LEAST_AGAIN_MIN))

    def ready(self) -> Meat:
        """The same once it is as it is to be."""
        return replace(self, done=True)

    def again_from(self, at: datetime) -> Meat:
        """The same, to be looked at after another third of its time, and no sooner than after some minutes."""
        third = Estimate.exact(max(self.minutes.best / 3.0, LEAST_AGAIN_MIN))
        # What is glazed is basted on at the same pace.
        return replace(self, since=at, minutes=self.minutes if self.how == "glazed" else third)


#: Nobody probes it again sooner than after so many minutes. Common practice.
LEAST_AGAIN_MIN = 3.0


#: What parts, or curdles, where it boils.
Splits = Literal["butter", "yolk", "cream"]

#: What may be doubtful about a pot, and stays so until the cook answers it.
ConcernKind = Literal["cooling", "rest", "kept", "butter", "yolk", "cream", "alcohol", "allergen"]


@dataclass(frozen=True, slots=True)
class Concern:
    """Something that makes a pot doubtful: what, and since when; a cooling is told by when it began.

    ``holds`` is what it holds that somebody at the table must not have.
    """

    kind: ConcernKind
    since: datetime
    holds: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Slip:
    """An entry that looks like a slip of the finger: which, how much of it, and the salt it made, %.

    ``twice`` is what went in two times within a short while, where that is what is asked; ``tastes`` what it tastes of
    then, where it is not the salt.
    """

    event: UUID
    grams: float
    percent: float
    twice: Argument = ""
    tastes: Argument = ""


@dataclass(frozen=True, slots=True)
class WentIn:
    """What went in last of a kind: its key, when, and how much, g."""

    key: str
    at: datetime
    grams: float


class Boiling(NamedTuple):
    """Where boiling ends by the plan, mL; None where nothing is to be boiled away, or something else comes first.

    ``by_salt`` is whether it is the salt content that it ends by.
    """

    stop_ml: float | None
    waits: bool = False
    by_salt: bool = False


#: Nothing is to be boiled away.
NO_BOILING = Boiling(None)


@dataclass(frozen=True, kw_only=True)
class Asked(Changeable):
    """What the cook wants: the wish, the one that was ``agreed`` on before it, and the way that is taken, by its key.

    ``ready_by`` is when it is to be ready, by the clock of a ``time_zone`` where it was told by one. Of a wish that is
    told in minutes ``left_min`` are those that it has yet to boil.
    """

    wanted: Wish | None = None
    agreed: Wish | None = None
    way: str | None = None
    ready_by: datetime | None = None
    time_zone: str | None = None
    left_min: float | None = None

    @property
    def told_by(self) -> str | None:
        """By which field it was told how far to boil, where the way that is taken goes by that; None for others."""
        if self.wanted is None or self.way is None or WAYS[self.way].stop != "told":
            return None
        return self.wanted.told_by

    @property
    def clock_min(self) -> float | None:
        """The minutes that it has yet to boil, where the way that is taken goes by the clock; None for others."""
        return self.left_min if self.told_by == "minutes" else None


class Found(NamedTuple):
    """What was tasted last of something besides salt: the verdict, and whether it was ``left`` so on purpose; the
    ``helpings`` that went in for it; what it says of the pot and of the taster; whether it is to be tasted ``again``,
    since something went in; ``by`` whom; and what the same tongue said before, where that is ``against`` it."""

    of: Sensed
    verdict: Side
    left: bool
    helpings: int
    leaning: Leaning
    again: bool = False
    by: str = COOK
    against: Side | None = None

    @property
    def amiss(self) -> bool:
        """Whether something is to be done about it."""
        return self.verdict != "right" and not self.left

    @property
    def found(self) -> str:
        """What the tongue called it."""
        return found_word(self.of, self.verdict)

    @property
    def lacks(self) -> str:
        """What is missing then."""
        return PALATE[self.of].low_lacks if self.verdict == "low" else PALATE[self.of].high_lacks


class Liking(NamedTuple):
    """How much more salt somebody seems to like than was said, points, and how well that is known."""

    of: str
    percent: float
    error: float


@dataclass(frozen=True, kw_only=True)
class Judged(Changeable):
    """What spoon, tongue, eye and ear said.

    ``spoons`` are all that were looked at; ``body`` and ``salt`` what was said since the pot last changed in it;
    ``metered`` is whether a salt meter ever was held into it, ``boiled_enough`` whether spoon or tongue found it boiled
    down far enough: nothing is boiled away again after that. ``liking_percent`` is how much more salt the ``taster``
    whose liking counts seems to like than was said, known to ``liking_error``; ``others`` are those of all else who
    tasted it. ``salt_by`` is who tasted its salt last, and ``salt_against`` what the same tongue said before, where one
    contradicts the other. ``palate`` is what was found last of all else that is tasted.
    """

    spoons: tuple[Spoonful, ...] = ()
    body: tuple[Verdict, ...] = ()
    salt: tuple[Taste, ...] = ()
    signs: tuple[str, ...] = ()
    boiled_enough: bool = False
    metered: bool = False
    liking_percent: float = 0.0
    liking_error: float = LIKING_ERROR
    taster: str = COOK
    others: tuple[Liking, ...] = ()
    salt_by: str = COOK
    salt_against: Taste | None = None
    palate: tuple[Found, ...] = ()

    def anew(self) -> Judged:
        """The same once the pot has become another: body and salt have to be judged anew."""
        return self.but(body=(), salt=())

    def tasting(self, taster: str) -> Judged:
        """The same with the liking of somebody: what it is seasoned for, or another's to learn from."""
        if taster == self.taster:
            return self
        mine = Liking(self.taster, self.liking_percent, self.liking_error)
        theirs = next((one for one in self.others if one.of == taster), Liking(taster, 0.0, LIKING_ERROR))
        others = (*(one for one in self.others if one.of != taster), mine)
        return self.but(taster=taster, liking_percent=theirs.percent, liking_error=theirs.error, others=others)

    @property
    def teaches(self) -> bool:
        """Whether who tasted its salt last tells what the kitchen likes."""
        return TASTERS[self.salt_by].teaches

    def helped(self, brings: frozenset[str]) -> Judged:
        """The same once something went in that ``brings`` what was missing: that is tasted again."""
        return self.but(
            palate=tuple(
                one._replace(again=True, helpings=one.helpings + 1) if one.amiss and one.lacks in brings else one
                for one in self.palate
            )
        )

    def finding(self, found: Found) -> Judged:
        """The same with what was found last of something."""
        return self.but(palate=(*(one for one in self.palate if one.of != found.of), found))


@dataclass(frozen=True, kw_only=True)
class Skimming(Changeable):
    """The fat that came off: how many ``times``, and ``kept_g`` of it put by; whether what is left was ``looked`` at
    once more, and whether its question is ``settled``."""

    times: int = 0
    kept_g: float = 0.0
    looked: bool = False
    settled: bool = False


class Made(NamedTuple):
    """A thickener that is being made, or ready: its school, what it is stirred into by its key where that was chosen,
    when it was begun, the ``made_g`` of it, dry, and the ``left_g`` that did not go in yet."""

    school: School
    stirred_into: str | None
    since: datetime
    ready: bool
    made_g: float
    left_g: float


@dataclass(frozen=True, kw_only=True)
class Binding(Changeable):
    """The thickener that went in on the plan, if any is ``in_it``: when last, and how long each wants, min; so many
    ``grams`` of each school, dry; and what of it was ``made``, whether it is in yet or not.

    ``waited_min`` are the minutes of simmering since anyone measured it, ``measured`` whether it was once bound.
    """

    in_it: bool = False
    at: datetime | None = None
    waits: tuple[tuple[float, float], ...] = ()
    waited_min: float = 0.0
    measured: bool = False
    grams: tuple[tuple[str, float], ...] = ()
    made: Made | None = None


@dataclass(frozen=True, kw_only=True)
class Stove(Changeable):
    """How the pot is heated.

    ``heat`` is what was last said of it; ``window`` the stretch under way, or ``fault`` why there is none to go by;
    ``timed`` the stretch that taught the stove, where another followed it; ``last_look`` when somebody last stood
    there; ``boiling`` where that ends by the plan.
    """

    heat: HeatSetting | None = None
    window: Window | None = None
    fault: Exception | None = None
    timed: Window | None = None
    last_look: datetime | None = None
    boiling: Boiling = NO_BOILING


@dataclass(frozen=True, kw_only=True)
class Table(Changeable):
    """What those who eat it must know, and what is asked before it is eaten.

    ``allergens`` are those of what was added here, ``told`` what those at the table know that it holds. ``concerns``
    stay until they are answered, and ``thrown_away`` is one answer; ``vouched_for`` is when the cooling began that was
    said to be in order. What of it was kept before makes it ``reheated``, and is the reason for its date, ``use_by``.
    So many ``plates`` have gone out, with ``served_ml`` of it; ``in_a_pan`` is whether the last
    was boiled up with its piece in a hot pan.
    """

    allergens: frozenset[str] = frozenset()
    told: frozenset[str] = frozenset()
    concerns: tuple[Concern, ...] = ()
    thrown_away: bool = False
    vouched_for: datetime | None = None
    plates: int = 0
    served_ml: float = 0.0
    in_a_pan: bool = False
    reheated: bool = False
    use_by: datetime | None = None

    def holding(self, allergens: Iterable[str]) -> Table:
        """The same where something with these allergens went in."""
        return self.but(allergens=self.allergens.union(allergens))


@dataclass(frozen=True, kw_only=True)
class WentInto(Changeable):
    """What went into the pot: ``last`` the newest of each kind, ``delicate`` what parts or curdles where it boils, by
    its key, ``raw_yolk`` whether there is yolk in it that was not warmed yet, ``salted`` whether salt was, and
    ``slips`` the entries that are asked about, the oldest first."""

    last: tuple[WentIn, ...] = ()
    delicate: frozenset[str] = frozenset()
    raw_yolk: bool = False
    salted: bool = False
    slips: tuple[Slip, ...] = ()


class NextTimeNote(NamedTuple):
    """What is to be done otherwise next time, and the moment that it concerns."""

    note: UUID
    text: str
    moment: str


@dataclass(frozen=True, kw_only=True)
class Remembered(Changeable):
    """What is to be remembered of a batch: its ``points``, how many ``ate`` it, and its own ``notes`` for next time.

    Of the notes of earlier batches some have been ``minded`` here, or seen, and some are ``done`` with.
    """

    points: int | None = None
    ate: int | None = None
    notes: tuple[NextTimeNote, ...] = ()
    minded: frozenset[UUID] = frozenset()
    done: frozenset[UUID] = frozenset()


@dataclass(frozen=True, kw_only=True)
class State(Changeable):
    """A batch after an event, in parts, each of which an event changes by itself.

    ``start`` is what it began with. ``rest`` is what was set aside, ``meat`` what is warmed in it. ``probed`` is how
    warm the sauce was last, where it is not set to cool. ``yield_ml`` is what a finished sauce was measured to be.
    ``shelf`` is what of it is kept, ``shelved_ml`` of it of the finished sauce; ``held`` is what it was when it was
    set to be kept warm. ``stands_at`` is the time of all this,
    ``hushed_for`` the look whose alarm was heard last.
    """

    start: Start | None = None
    pot: Pot | None = None
    asked: Asked = Asked()
    skimming: Skimming = Skimming()
    stove: Stove = Stove()
    binding: Binding = Binding()
    judged: Judged = Judged()
    went_in: WentInto = WentInto()
    table: Table = Table()
    cooling: CoolingLog | None = None
    rest: Rest | None = None
    meat: Meat | None = None
    probed: Probe | None = None
    shelf: tuple[Jar, ...] = ()
    shelved_ml: float = 0.0
    held: Contents | None = None
    remembered: Remembered = Remembered()
    finished: bool = False
    yield_ml: float | None = None
    stands_at: datetime | None = None
    hushed_for: datetime | None = None

    @property
    def liking(self) -> LearnedLiking | None:
        """The salt that the kitchen liked when the batch began, as earlier batches taught it."""
        return None if self.start is None else self.start.liking

    @property
    def limits(self) -> Limits:
        """The limits of cooling, keeping hot and reheating that its kitchen went by when it began."""
        return (self.start and self.start.limits) or USUAL

    @property
    def made_ml(self) -> float:
        """The sauce that came of it, measured or by the ledger, mL: what is left, and what went out before."""
        left_ml = 0.0 if self.pot is None else self.pot.contents.liquid_ml
        return self.yield_ml or left_ml + self.table.served_ml

    @property
    def ended(self) -> bool:
        """Whether nothing more is to be done: it is finished, or thrown away."""
        return self.finished or self.table.thrown_away

    @property
    def minutes_left(self) -> float | None:
        """Minutes until it is to be ready; None where nobody said when."""
        if self.asked.ready_by is None or self.stands_at is None:
            return None
        return (self.asked.ready_by - self.stands_at).total_seconds() / 60.0

    @property
    def all_allergens(self) -> tuple[str, ...]:
        """Allergens of everything that is known to be in the pot, by name and in order of the alphabet."""
        braise = self.start.liquid.braise if self.start else None
        found = {allergen for line in (braise.counted if braise else ()) for allergen in line.what.allergens}
        return tuple(sorted(found | self.table.allergens))

    @property
    def at_its_mark(self) -> bool:
        """Whether nothing is left to boil away, as far as anyone planned it."""
        stop_ml, waits, _ = self.stove.boiling
        if self.asked.way is None or self.pot is None or waits:
            return False
        return stop_ml is None or self.pot.contents.liquid_ml <= (1.0 + NEAR_MARK) * stop_ml

    def by(self, at: datetime) -> State:
        """The batch as it is thought to stand by ``at``: what boils has lost steam since the last event."""
        window, pot = self.stove.window, self.pot
        if window is None or pot is None or at <= window.at:
            return self.but(stands_at=at)
        moved, gone_kj = window.moved(at)
        asked = self.asked
        if asked.clock_min is not None and window.heating:
            asked = asked.but(left_min=max(asked.clock_min - (at - window.at).total_seconds() / 60.0, 0.0))
        if gone_kj > 0.0:
            pot = pot.boiled_to(boiled_by(pot.contents, gone_kj))
        if moved.heating and moved.pending_kj <= 0.0:
            pot = known_by(pot, moved.track).but(hot=True)
        return self.but(asked=asked, stove=self.stove.but(window=moved), pot=pot, stands_at=at)
