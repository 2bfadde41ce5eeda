"""Which pan, how hot: the kitchen's pans for what this pot still has to lose."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_number
from ..estimation.window import vapour_kj, warming_kj
from ..ledger.water import HOT_EXPANSION
from ..measuring.measurement import error_ml
from ..measuring.vessels import SHALLOW_MM, Pan
from ..messages import Message, say
from ..phenomena.evaporation import boiled_to_volume
from ..phenomena.heating import FULL_BOIL, Burner, HeatSetting, power
from ..pot import Beside, Pot
from .judgement import JUDGEMENT
from .safety import SCORCHES_FROM_STEP


@dataclass(frozen=True, slots=True)
class PanChoice:
    """One pan on one burner, the ``place``-th of those compared.

    ``minutes`` down to the mark, None where it does not hold the liquid, and ``how`` they come about; ``end_mm`` the
    depth there, ``dip_error_ml`` what a dip is worth there, and whether the edge would scorch.
    """

    pan: Pan
    burner: Burner
    minutes: Estimate | None
    end_mm: float
    dip_error_ml: float
    scorches: bool
    place: int
    how: Message | None = None

    @property
    def holds_it(self) -> bool:
        """Whether the liquid goes into it."""
        return self.minutes is not None


def compared(pot: Pot, stop_ml: float, choices: Sequence[tuple[Pan, Burner]], setting: HeatSetting) -> list[PanChoice]:
    """Every pan and burner for boiling ``pot`` down to ``stop_ml`` mL, the quickest that serves first."""
    stop = boiled_to_volume(pot.contents, min(stop_ml, pot.contents.liquid_ml))
    boiling = max(vapour_kj(pot.contents, stop), 0.0)
    warming = warming_kj(pot) if boiling else 0.0
    steam = show_number(pot.contents.mass_g - stop.mass_g, 0, "g")
    thick = pot.body.step.index >= SCORCHES_FROM_STEP
    out = []
    for place, (pan, burner) in enumerate(choices):
        room = room_ml(pot)
        at_end = min(stop.volume_ml * HOT_EXPANSION + pot.solids_ml, pan.capacity_ml)
        end_mm = pan.depth_mm(at_end)
        minutes, how = None, None
        if room <= pan.capacity_ml:
            middle = pan.depth_mm(min((room + at_end) / 2.0, pan.capacity_ml))
            strength = power(pan, burner, setting, middle)
            if strength is not None:
                minutes = Estimate.log_normal(strength.kj_min, strength.spread).divided_into(boiling + warming)
                how = say(
                    "explanation.pan_how",
                    first=show_number(warming / strength.kj_min, 1, "min"),
                    steam=steam,
                    rate=show_number(strength.steam_g_min, 1, "g/min"),
                    best=show_number(minutes.best, 0, "min"),
                )
        out.append(
            PanChoice(
                pan=pan,
                burner=burner,
                minutes=minutes,
                end_mm=end_mm,
                place=place,
                dip_error_ml=error_ml(pan, "dip", stop.volume_ml),
                scorches=end_mm < SHALLOW_MM or thick,
                how=how,
            )
        )
    return sorted(out, key=lambda c: (not c.holds_it, c.end_mm < SHALLOW_MM, c.minutes.best if c.minutes else 0.0))


def room_ml(pot: Pot) -> float:
    """The room that a pot takes up as it boils, with what lies in it, mL."""
    return pot.contents.volume_ml * HOT_EXPANSION + pot.solids_ml


#: Less than this share in either pan is no split. Modelling choice.
LEAST_SPLIT = 0.2


def beside_in(pot: Pot, pan: Pan, burner: Burner) -> Beside | None:
    """The part of a pot that boils in a second pan beside it, so much that both are down at once.

    None where it is in two pans already, has something in it, or where one of them would hold too little or too much.
    """
    if pot.beside is not None or pot.solids is not None or burner.name == pot.burner.name:
        return None
    depth = pan.depth_mm(min(0.5 * pot.contents.volume_ml, pan.capacity_ml))
    mine, theirs = power(pot.pan, pot.burner, FULL_BOIL, pot.depth_mm), power(pan, burner, FULL_BOIL, depth)
    if mine is None or theirs is None:
        return None
    share = theirs.kj_min / (mine.kj_min + theirs.kj_min)
    fits = LEAST_SPLIT <= share <= 1.0 - LEAST_SPLIT and share * room_ml(pot) <= pan.capacity_ml
    return Beside(pan, burner, share) if fits else None


@dataclass(frozen=True, slots=True)
class SplitChoice:
    """A second pan, the ``place``-th of those compared: what is poured over into it, mL, and the minutes it takes then,
    instead of those it takes in one."""

    place: int
    volume_ml: float
    minutes: float
    instead_of: float


def best_split(pot: Pot, minutes: float, choices: Sequence[tuple[Pan, Burner]]) -> SplitChoice | None:
    """The second pan that saves most of the ``minutes`` that the pot takes where it is.

    None where none saves as much as it is worth to wash one up.
    """
    splits = []
    for place, (pan, burner) in enumerate(choices):
        beside = beside_in(pot, pan, burner) if pan != pot.pan else None
        if beside is not None:
            # The pan at hand boils away its own share alone.
            took = minutes * (1.0 - beside.share)
            splits.append(SplitChoice(place, beside.share * pot.contents.liquid_ml, took, minutes))
    best = min(splits, key=lambda split: split.minutes, default=None)
    return best if best is not None and minutes - best.minutes > JUDGEMENT.worth_two_min else None
