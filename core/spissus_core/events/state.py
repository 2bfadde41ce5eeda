"""What stands of a batch after an event."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import TYPE_CHECKING, Literal

from ..amounts.changing import Changeable
from ..estimation.window import Window
from ..phenomena.cooling import Reading
from ..phenomena.heating import HeatSetting
from ..pot import Pot

if TYPE_CHECKING:
    from .ending import Finished
    from .starting import Started
    from .wishes import Chosen, Wanted

Verdict = Literal["low", "right", "high"]


@dataclass(frozen=True, slots=True)
class CoolingLog:
    """A pot set to cool: since when, in what surroundings, °C, and its temperatures, minutes from then."""

    began: datetime
    surroundings_c: float
    readings: tuple[Reading, ...]


@dataclass(frozen=True, kw_only=True)
class State(Changeable):
    """A batch after an event.

    ``agreed`` is the wish before ``wanted``; ``kept_fat_g`` the fat put by so far. ``heat`` is what was
    last said of the heat; ``heating`` the stretch under way, or ``not_estimated`` why there is none;
    ``last_look`` when somebody last stood at the pot. ``allergens`` are those of what was added here.
    """

    started: Started | None = None
    pot: Pot | None = None
    wanted: Wanted | None = None
    agreed: Wanted | None = None
    chosen: Chosen | None = None
    finished: Finished | None = None
    fat_settled: bool = False
    thickener_added: bool = False
    salt_added: bool = False
    body_verdict: Verdict | None = None
    salt_verdict: Verdict | None = None
    kept_fat_g: float = 0.0
    signs: tuple[str, ...] = ()
    allergens: frozenset[str] = frozenset()
    binders: tuple[tuple[float, float], ...] = ()
    cooling: CoolingLog | None = None
    heat: HeatSetting | None = None
    heating: Window | None = None
    not_estimated: Exception | None = None
    last_look: datetime | None = None

    @property
    def assumes_boil(self) -> bool:
        """Whether a full boil is taken for granted, until the cook says how it is heated or reads the pot."""
        return self.heat is None and not (self.heating is not None and self.heating.points)
