"""What stands of a batch after an event."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Literal
from uuid import UUID

from ..amounts.changing import Changeable
from ..estimation.spoon import Spoonful, Verdict
from ..estimation.window import Window, boiled_by, known_by
from ..messages import Argument
from ..phenomena.cooling import Reading
from ..phenomena.heating import HeatSetting
from ..phenomena.seasoning import LIKING_ERROR
from ..pot import Pot

if TYPE_CHECKING:
    from .ending import Finished
    from .starting import Started
    from .wishes import Chosen, Wanted

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


@dataclass(frozen=True, slots=True)
class Rest:
    """Liquid that was set aside: how it is kept, and since when; ``unsaid`` while nobody said so."""

    since: datetime
    stands: Literal["unsaid", "hot", "cooling", "cold"]


#: What parts, or curdles, where it boils.
Splits = Literal["butter", "yolk", "cream"]

#: What may be doubtful about a pot, and stays so until the cook answers it.
ConcernKind = Literal["cooling", "butter", "yolk", "cream", "alcohol", "allergen"]


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

    ``twice`` is what went in two times within a short while, where that is what is asked.
    """

    event: UUID
    grams: float
    percent: float
    twice: Argument = ""


@dataclass(frozen=True, slots=True)
class WentIn:
    """What went in last of a kind: its key, when, and how much, g."""

    key: str
    at: datetime
    grams: float


@dataclass(frozen=True, kw_only=True)
class State(Changeable):
    """A batch after an event.

    ``agreed`` is the wish before ``wanted``; ``kept_fat_g`` the fat put by so far, in ``skims`` times;
    ``fat_looked`` whether what is left of it was looked at once more;
    ``measured_bound`` whether it was measured after the thickener went in; ``boiled_enough`` whether spoon or tongue
    found it boiled down far enough: nothing is boiled away again after that. ``heat`` is what was
    last said of the heat; ``heating`` the stretch under way, or ``not_estimated`` why there is none;
    ``last_look`` when somebody last stood at the pot; ``stop_ml`` where boiling ends by the plan, ``stops_by_salt``
    whether that is a salt content, ``waits`` whether something else comes before it, and ``timed`` the stretch that
    taught the stove, where another followed it. ``allergens`` are those of what was added here.

    ``spoons`` are all that were looked at, ``body_tested`` and ``salt_tested`` what was said since the pot last
    changed in it, ``metered`` whether a salt meter ever was held into it, ``bound_at`` when
    thickener last went in, ``waited_min`` the minutes of simmering since anyone measured it. ``liking_percent`` is how
    much more salt the tongue seems to like than was said, known to ``liking_error``.

    ``ready_by`` is when it is to be ready, ``stands_at`` the time of all this, ``hushed_for`` the look whose alarm was
    heard last, and ``told`` what those at the table know that it holds.

    ``concerns`` stay until they are answered, and ``thrown_away`` is one answer; ``vouched_for`` is when the cooling
    began that was said to be in order. ``slips`` are the entries that are asked about, the oldest first. ``delicate``
    is what went in that parts or curdles where it boils, by its key, ``went_in`` what went in last, the newest of each
    kind. ``rest`` is what was set aside.
    """

    started: Started | None = None
    pot: Pot | None = None
    wanted: Wanted | None = None
    agreed: Wanted | None = None
    chosen: Chosen | None = None
    ready_by: datetime | None = None
    stands_at: datetime | None = None
    hushed_for: datetime | None = None
    told: frozenset[str] = frozenset()
    finished: Finished | None = None
    fat_looked: bool = False
    fat_settled: bool = False
    skims: int = 0
    measured_bound: bool = False
    boiled_enough: bool = False
    thickener_added: bool = False
    salt_added: bool = False
    spoons: tuple[Spoonful, ...] = ()
    body_tested: tuple[Verdict, ...] = ()
    salt_tested: tuple[Taste, ...] = ()
    bound_at: datetime | None = None
    went_in: tuple[WentIn, ...] = ()
    delicate: frozenset[str] = frozenset()
    rest: Rest | None = None
    concerns: tuple[Concern, ...] = ()
    thrown_away: bool = False
    vouched_for: datetime | None = None
    slips: tuple[Slip, ...] = ()
    waited_min: float = 0.0
    metered: bool = False
    kept_fat_g: float = 0.0
    signs: tuple[str, ...] = ()
    allergens: frozenset[str] = frozenset()
    binders: tuple[tuple[float, float], ...] = ()
    cooling: CoolingLog | None = None
    heat: HeatSetting | None = None
    heating: Window | None = None
    not_estimated: Exception | None = None
    last_look: datetime | None = None
    stop_ml: float | None = None
    stops_by_salt: bool = False
    waits: bool = False
    timed: Window | None = None
    liking_percent: float = 0.0
    liking_error: float = LIKING_ERROR

    @property
    def ended(self) -> bool:
        """Whether nothing more is to be done: it is finished, or thrown away."""
        return self.finished is not None or self.thrown_away

    @property
    def body_verdict(self) -> Verdict | None:
        """What the last spoon said of this pot; None where it has changed since."""
        return self.body_tested[-1] if self.body_tested else None

    @property
    def salt_verdict(self) -> Taste | None:
        """What the last taste said of this pot; None where it has changed since."""
        return self.salt_tested[-1] if self.salt_tested else None

    @property
    def minutes_left(self) -> float | None:
        """Minutes until it is to be ready; None where nobody said when."""
        if self.ready_by is None or self.stands_at is None:
            return None
        return (self.ready_by - self.stands_at).total_seconds() / 60.0

    @property
    def all_allergens(self) -> tuple[str, ...]:
        """Allergens of everything that is known to be in the pot, by name and in order of the alphabet."""
        braise = self.started.liquid.braise if self.started else None
        found = {allergen for line in (braise.counted if braise else ()) for allergen in line.what.allergens}
        return tuple(sorted(found | self.allergens))

    @property
    def at_its_mark(self) -> bool:
        """Whether nothing is left to boil away, as far as anyone planned it."""
        if self.chosen is None or self.pot is None or self.waits:
            return False
        return self.stop_ml is None or self.pot.contents.liquid_ml <= (1.0 + NEAR_MARK) * self.stop_ml

    def by(self, at: datetime) -> State:
        """The batch as it is thought to stand by ``at``: what boils has lost steam since the last event."""
        window, pot = self.heating, self.pot
        if window is None or pot is None or at <= window.at:
            return self.but(stands_at=at)
        moved, gone_kj = window.moved(at)
        if gone_kj > 0.0:
            pot = pot.boiled_to(boiled_by(pot.contents, gone_kj))
        if moved.heating and moved.pending_kj <= 0.0:
            pot = known_by(pot, moved.track).but(hot=True)
        return self.but(heating=moved, pot=pot, stands_at=at)
