"""The stretch of heating that is under way, as energy: what the estimate of volume and rate goes by.

It is carried along while a batch is folded, one cheap step an event: a reading is a point of energy against
time, a change of heat a bend in the line, an addition heat that it takes up before it boils too.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal, Self

import numpy as np
from numpy.typing import NDArray

from ..amounts.changing import Changeable
from ..errors import SpissusError
from ..ledger.contents import Contents
from ..ledger.water import HEAT_CAPACITY_KJ_KG_K, LATENT_HEAT_KJ_KG, OFF_THE_BOIL_C, REFERENCE_C
from ..measuring.measurement import Measured
from ..phenomena.evaporation import boiled_to_mass
from ..phenomena.fat import LIFTS_BELOW_C
from ..phenomena.heating import HeatSetting, Power, power
from ..pot import Pot, implied_mass_g

#: Heat of vaporisation, kJ/g. Water at 100 °C: IAPWS. Ethanol at its boiling point: pinned to CoolProp within 2 %
#: (tests/reference/test_learning.py).
WATER_KJ_G, ETHANOL_KJ_G = LATENT_HEAT_KJ_KG / 1000.0, 0.85

#: A heat changed by more than this is another heat: nothing is carried over. Modelling choice.
MOST_FACTOR = 30.0

#: More readings than this are thinned: evenly, keeping the newest.
MOST_POINTS = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Point:
    """A reading as energy: kJ gone into vapour and warming since the window began, and its standard error.

    ``effective`` is the minutes at the heat the window began with.
    """

    at: datetime
    minute: float
    effective: float
    energy_kj: float
    error_kj: float
    liquid_ml: float
    error_ml: float


@dataclass(frozen=True, kw_only=True)
class Window(Changeable):
    """A stretch of heating of one kind in one pan, as it stands after an event.

    ``steps`` are the changes of heat, (minute, factor on the first power); ``boiled_kj`` what the ledger
    says has gone into vapour by now, ``warmed_kj`` what everything has taken up to come to the boil.
    """

    began: datetime
    power: Power
    setting: HeatSetting
    start_error_kj: float
    warmed_kj: float
    boiled_kj: float = 0.0
    steps: tuple[tuple[float, float], ...] = ((0.0, 1.0),)
    points: tuple[Point, ...] = ()

    @classmethod
    def begun(cls, pot: Pot, setting: HeatSetting, at: datetime, *, warm: bool = True) -> Self | None:
        """A new stretch; None where the heat drives nothing out. ``warm`` is whether it has to come to the boil."""
        strength = power_of(pot, setting)
        if strength is None:
            return None
        boils_c = pot.burner.boils_c
        from_c = boils_c - (100.0 - OFF_THE_BOIL_C) if pot.hot else REFERENCE_C
        return cls(
            began=at, power=strength, setting=setting,
            start_error_kj=pot.error_ml * pot.contents.density_g_ml * WATER_KJ_G,
            warmed_kj=_heat_kj(pot.contents.mass_g, boils_c - from_c) if warm else 0.0,
        )  # fmt: skip

    @property
    def spent_kj(self) -> float:
        """Heat that the ledger says has gone in by now."""
        return self.boiled_kj + self.warmed_kj

    def minute(self, at: datetime) -> float:
        """Minutes since it began."""
        return (at - self.began).total_seconds() / 60.0

    def effective(self, minute: float) -> float:
        """Minutes at the first heat that ``minute`` minutes come to."""
        ends = [*(start for start, _ in self.steps[1:]), math.inf]
        parts = zip(self.steps, ends, strict=True)
        return sum(factor * max(min(minute, end) - start, 0.0) for (start, factor), end in parts)

    @property
    def heating(self) -> bool:
        """Whether the heat is still on."""
        return self.steps[-1][1] > 0.0

    @property
    def few_points(self) -> tuple[Point, ...]:
        """Its readings, evenly thinned where there are many."""
        if len(self.points) <= MOST_POINTS:
            return self.points
        keep = np.unique(np.linspace(0, len(self.points) - 1, MOST_POINTS).round().astype(int))
        return tuple(self.points[i] for i in keep)

    def heated(self, before: Pot, after: Pot, setting: HeatSetting, at: datetime) -> Self | None:
        """The heat is set anew: a bend in the line where it is the same kind of heat, else another stretch."""
        if setting.heat not in ("off", self.setting.heat):
            return self.begun(before, setting, at)
        strength = power_of(after, setting)
        factor = strength.kj_min / self.power.kj_min if strength else 0.0
        if factor > MOST_FACTOR or 0.0 < factor < 1.0 / MOST_FACTOR:
            return self.begun(after, setting, at, warm=False)
        return self.but(steps=(*self.steps, (self.minute(at), factor)))

    def joined(self, before: Pot, after: Pot) -> Self:
        """Something was added, or cooled the pot: it takes up heat before it boils too."""
        warming = _warming_kj(before, after)
        return self.but(warmed_kj=self.warmed_kj + warming) if warming else self

    def read(
        self, before: Pot, after: Pot, measured: Measured, gain: Literal["added", "misread"] | None, at: datetime
    ) -> Self:
        """A reading put down as energy, and the ledger's own account moved on.

        What was added between two readings is known from the second only: it says nothing of the rate.
        """
        if gain == "misread":
            return self
        if gain == "added":
            return self.joined(before, after)
        now, mass_g = before.contents, implied_mass_g(before, measured)
        if mass_g < now.mass_g:
            try:
                gone = vapour_kj(now, boiled_to_mass(now, mass_g))
            except SpissusError:
                return self
        else:
            gone = (now.mass_g - mass_g) * WATER_KJ_G
        minute = self.minute(at)
        point = Point(
            at=at, minute=minute, effective=self.effective(minute), energy_kj=self.spent_kj + gone,
            error_kj=after.error_ml * now.density_g_ml * WATER_KJ_G, liquid_ml=after.contents.liquid_ml,
            error_ml=after.error_ml,
        )  # fmt: skip
        boiled = max(vapour_kj(now, after.contents), 0.0)
        return self.but(points=(*self.points, point), boiled_kj=self.boiled_kj + boiled)


def effective_minutes(steps: Sequence[tuple[float, float]], minutes: NDArray[np.float64]) -> NDArray[np.float64]:
    """Minutes at the first heat that each of ``minutes`` comes to, through the changes of heat in ``steps``."""
    total = np.zeros_like(minutes)
    ends = [start for start, _ in steps[1:]] + [np.inf]
    for (start, factor), end in zip(steps, ends, strict=True):
        total += factor * np.clip(np.minimum(minutes, end) - start, 0.0, None)
    return total


def power_of(pot: Pot, setting: HeatSetting) -> Power | None:
    """Heat into vapour of this pot, both pans together where it is split; None where it is off."""
    depth = pot.pan.depth_mm(min(pot.contents.volume_ml * pot.share, pot.pan.capacity_ml))
    one = power(pot.pan, pot.burner, setting, depth)
    if one is None or pot.beside is None:
        return one
    other = power(pot.beside.pan, pot.beside.burner, setting, pot.beside.depth_mm(pot.contents))
    return one if other is None else replace(one, kj_min=one.kj_min + other.kj_min)


def vapour_kj(before: Contents, after: Contents) -> float:
    """Heat that took ``before`` to ``after`` by boiling, kJ."""
    return (before.water - after.water) * WATER_KJ_G + (before.ethanol - after.ethanol) * ETHANOL_KJ_G


def _heat_kj(mass_g: float, kelvin: float) -> float:
    return mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * max(kelvin, 0.0)


def _warming_kj(before: Pot, after: Pot) -> float:
    """Heat that what was added takes up before it boils too, kJ."""
    if before.hot and not after.hot:
        return _heat_kj(after.contents.mass_g, after.burner.boils_c - LIFTS_BELOW_C)
    added_g = max(after.contents.mass_g - before.contents.mass_g, 0.0)
    return _heat_kj(added_g, after.burner.boils_c - REFERENCE_C)
