"""The stretch of heating that is under way, and where the pot is thought to be by any time.

It is carried along while a batch is folded: every event is first folded onto where the pot is thought to be by
then, a reading moves that thought, a change of heat bends the line, and what is added takes up heat before it
boils too. The ledger takes the mean of what is thought, so that no reading is believed more than it is worth.
"""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Self

from ..amounts.changing import Changeable
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HEAT_CAPACITY_KJ_KG_K, LATENT_HEAT_KJ_KG, OFF_THE_BOIL_C, REFERENCE_C
from ..phenomena.alcohol import TRACE_G, ethanol_left
from ..phenomena.evaporation import boiled_to_water
from ..phenomena.fat import LIFTS_BELOW_C
from ..phenomena.heating import FULL_BOIL, HeatSetting, Power, power
from ..pot import Pot
from .track import Track

#: Heat of vaporisation, kJ/g. Water at 100 °C: IAPWS. Ethanol at its boiling point: pinned to CoolProp within 2 %
#: (tests/reference/test_learning.py).
WATER_KJ_G, ETHANOL_KJ_G = LATENT_HEAT_KJ_KG / 1000.0, 0.85

#: A heat changed by more than this is another heat: nothing is carried over. Modelling choice.
MOST_FACTOR = 30.0

#: How cold the pot is nobody measured: so much of what it takes up to boil may be wrong. Modelling choice.
WARMING_ERROR = 0.5

#: Readings that say less than this many of their errors about steam say nothing while the pot still warms up.
SURE_SD = 2.0

#: Of fewer readings than this none is left out for contradicting the guess. Modelling choice.
FEW_READINGS = 3

#: A pot holds this share of water at the least, however long it boils: then it is dry. Modelling choice.
DRY_SHARE = 0.04


@dataclass(frozen=True, kw_only=True)
class Window(Changeable):
    """A stretch of heating of one kind in one pan, as it stands ``at`` the last event.

    ``factor`` is the present heat over that of its beginning; ``pending_kj`` what the pot has yet to take up
    before it boils. ``track`` is what is known of energy and power, its energy being what the ledger has given
    off so far; ``unseen_kj`` is that part of it which nobody has seen yet, and ``measured`` how often its level or its
    weight was read. ``assumed`` says that nobody said so,
    and ``until`` how long that is assumed.
    """

    began: datetime
    at: datetime
    power: Power
    setting: HeatSetting
    track: Track
    pending_kj: float
    factor: float = 1.0
    unseen_kj: float = 0.0
    measured: int = 0
    assumed: bool = False
    until: datetime | None = None

    @classmethod
    def begun(
        cls, pot: Pot, setting: HeatSetting, at: datetime, *, warm: bool = True, assumed: bool = False
    ) -> Self | None:
        """A new stretch; None where the heat drives nothing out. ``warm`` is whether it has to come to the boil."""
        strength = power_of(pot, setting)
        if strength is None:
            return None
        # What is kept warm comes to no boil.
        pending_kj = warming_kj(pot) if warm and setting.heat != "hold" else 0.0
        error_kj = math.hypot(kj_of(pot.error_ml), WARMING_ERROR * pending_kj)
        return cls(
            began=at,
            at=at,
            power=strength,
            setting=setting,
            assumed=assumed,
            pending_kj=pending_kj,
            track=_begun(pot, strength.kj_min, strength.spread, error_kj),
        )

    @property
    def heating(self) -> bool:
        """Whether the heat is still on."""
        return self.factor > 0.0

    @property
    def readings(self) -> int:
        """Readings it has learned from."""
        return self.track.readings

    def moved(self, to: datetime) -> tuple[Self, float]:
        """This stretch at a later time, and the heat that has gone into vapour meanwhile by the mean, kJ."""
        if to <= self.at:
            return self, 0.0
        ends = to if self.until is None else min(to, self.until)
        minutes = (ends - self.at).total_seconds() / 60.0
        if not self.heating or minutes <= 0.0:
            return self.but(at=to), 0.0
        after = self.track.moved(minutes * self.factor)
        gone = max(after.energy_kj - self.track.energy_kj, 0.0)
        warms = min(gone, self.pending_kj)
        # What warms the pot is no vapour: the track counts vapour only, so that a reading can be laid beside it.
        track = after.but(e0=after.e0 - warms)
        boiled = gone - warms
        return self.but(
            at=to, track=track, pending_kj=self.pending_kj - warms, unseen_kj=self.unseen_kj + boiled
        ), boiled

    def heated(self, before: Pot, after: Pot, setting: HeatSetting, at: datetime, *, assumed: bool) -> Self | None:
        """The heat is set anew: a bend in the line where it is the same kind of heat, else another stretch."""
        if setting.heat not in ("off", self.setting.heat):
            return self.begun(before, setting, at, assumed=assumed)
        strength = power_of(after, setting)
        factor = strength.kj_min / self.power.kj_min if strength else 0.0
        if factor > MOST_FACTOR or 0.0 < factor < 1.0 / MOST_FACTOR:
            return self.begun(after, setting, at, warm=False, assumed=assumed)
        return self.but(factor=factor, assumed=assumed, until=None)

    def joined(self, before: Pot, after: Pot) -> Self:
        """Something was added, or cooled the pot: it takes up heat before it boils too."""
        warming = 0.0 if self.setting.heat == "hold" else _warming_kj(before, after)
        # What went in is known to no more than its own error.
        more = after.salt_error_g**2 - before.salt_error_g**2
        track = self.track.but(css=max(self.track.css + more, 0.0)) if more else self.track
        return self.but(track=track, pending_kj=self.pending_kj + warming)

    def seen(self, gone_kj: float, error_kj: float, *, believed: bool = False) -> Self:
        """After a reading that says ``gone_kj`` more, or less, has left than was thought.

        While the pot still warms up a reading within its errors says how much there is, and nothing of the stove. One
        that contradicts all others is left out, unless it is ``believed``.
        """
        if self.pending_kj > 0.0 and abs(gone_kj) < SURE_SD * error_kj:
            return self.but(
                track=self.track.known(gone_kj, 1.0, 0.0, error_kj), unseen_kj=0.0, measured=self.measured + 1
            )
        # What was only thought to have boiled away, and is there after all, was on less heat than anyone said.
        waited = -self.unseen_kj - SURE_SD * error_kj <= gone_kj < 0.0
        believed = believed or waited or self.track.readings < FEW_READINGS
        track = self.track.seen(self.track.energy_kj + gone_kj, error_kj, believed=believed)
        return self.but(track=track, pending_kj=0.0, unseen_kj=0.0, measured=self.measured + 1)

    def told_salt(self, found: Concentration) -> Self:
        """After a reading of how salty it is, which says as much of the steam that has gone."""
        told = (found.more_g, found.g_kj, 1.0, found.error_g)
        if self.pending_kj > 0.0 and self.track.apart(*told) < SURE_SD:
            return self.but(track=self.track.known(*told))
        return self.but(track=self.track.learned(*told), pending_kj=0.0, unseen_kj=0.0)


@dataclass(frozen=True, slots=True)
class Concentration:
    """What a salt meter or a tongue says of a pot, as the salt that would be in it were its volume as it is thought.

    ``more_g`` is how much more salt that is than is thought, and ``g_kj`` by how much less of it there would be, g,
    for each kJ of steam more that has gone; ``error_g`` is the standard error.
    """

    more_g: float
    g_kj: float
    error_g: float

    @classmethod
    def of(cls, pot: Pot, percent: float, error: float) -> Self:
        """A pot that is found to hold ``percent`` of salt, with its standard error in points."""
        contents = pot.contents
        share = percent / 100.0
        # Of what has boiled away as steam; meat in the pot gives or takes salt meanwhile.
        little = _LITTLE * contents.water
        traded = pot.traded(contents.with_masses(water=contents.water - little)).salt - pot.traded(contents).salt
        return cls(
            more_g=share * contents.liquid_g - contents.salt,
            g_kj=(share + traded / little) / WATER_KJ_G,
            error_g=error / 100.0 * contents.liquid_g,
        )


#: The share of the water over which it is looked how meat gives and takes salt. Numerical choice.
_LITTLE = 0.01


def _begun(pot: Pot, kj_min: float, spread: float, error_kj: float) -> Track:
    """What is known of a pot before it boils: the salt goes with the volume as far as it was tasted or metered."""
    of_volume = kj_of(pot.error_ml) / error_kj if error_kj > 0.0 else 0.0
    return Track.begun(
        kj_min, spread, error_kj, salt_error_g=pot.salt_error_g, salt_g_kj=-pot.salt_g_g / WATER_KJ_G * of_volume**2
    )


def still(pot: Pot) -> Track:
    """What is known of a pot that nothing heats: how much there is, and its salt."""
    return _begun(pot, 1.0, 1.0, kj_of(pot.error_ml))


def known_by(pot: Pot, track: Track) -> Pot:
    """The pot, known as well as a track says."""
    return pot.salt_known_to(track.salt_error_g, -track.salt_g_kj * WATER_KJ_G).but(error_ml=ml_of(track.error_kj))


def found_by(pot: Pot, before: Track, after: Track) -> Contents:
    """What is in the pot once a reading has moved what is thought of its steam and of its salt."""
    salt = max(pot.contents.salt + after.salt_g - before.salt_g, 0.0)
    return boiled_by(pot.contents.with_masses(salt=salt), after.energy_kj - before.energy_kj)


def steam_kj(pot: Pot, minutes: float, setting: HeatSetting = FULL_BOIL) -> float:
    """Heat that goes into vapour within so many minutes from now, coming to the boil first, kJ."""
    strength = power_of(pot, setting)
    return 0.0 if strength is None else max(minutes * strength.kj_min - warming_kj(pot), 0.0)


def power_of(pot: Pot, setting: HeatSetting) -> Power | None:
    """Heat into vapour of this pot, both pans together where it is split; None where it is off."""
    depth = pot.pan.depth_mm(min(pot.contents.volume_ml * pot.share, pot.pan.capacity_ml))
    one = power(pot.pan, pot.burner, setting, depth)
    if one is None or pot.beside is None:
        return one
    other = power(pot.beside.pan, pot.beside.burner, setting, pot.beside.depth_mm(pot.contents))
    return one if other is None else replace(one, kj_min=one.kj_min + other.kj_min)


def kj_of(volume_ml: float) -> float:
    """Heat that boils so much water away, kJ."""
    return volume_ml / SPECIFIC_VOLUME_ML_G["water"] * WATER_KJ_G


def ml_of(energy_kj: float) -> float:
    """The water that so much heat boils away, mL at 20 °C."""
    return energy_kj / WATER_KJ_G * SPECIFIC_VOLUME_ML_G["water"]


def vapour_kj(before: Contents, after: Contents) -> float:
    """Heat that took ``before`` to ``after`` by boiling, kJ."""
    return (before.water - after.water) * WATER_KJ_G + (before.ethanol - after.ethanol) * ETHANOL_KJ_G


def boiled_by(contents: Contents, energy_kj: float) -> Contents:
    """The pot once so much more heat has gone into its vapour; where it is negative, with that much more water.

    It ends boiled dry: at :data:`DRY_SHARE` of water.
    """
    if energy_kj <= 0.0:
        return contents.with_masses(water=contents.water - energy_kj / WATER_KJ_G)
    least = min(DRY_SHARE * (contents.liquid_g - contents.water - contents.ethanol), contents.water)
    water = max(contents.water - energy_kj / WATER_KJ_G, least)
    if contents.ethanol <= TRACE_G:
        return boiled_to_water(contents, water)
    # Alcohol takes its share of the heat: the water is found in a few steps, each nearer by a factor of ten or so.
    for _ in range(6):
        ethanol = ethanol_left(contents.ethanol, contents.water, water, steps=12)
        taken = (contents.ethanol - ethanol) * ETHANOL_KJ_G
        better = max(contents.water - max(energy_kj - taken, 0.0) / WATER_KJ_G, least)
        if abs(better - water) < 1e-3:
            break
        water = 0.5 * (water + better)
    return boiled_to_water(contents, water)


def warming_kj(pot: Pot) -> float:
    """Heat that a pot takes up before it boils, straight off the heat or cold, kJ."""
    boils_c = pot.burner.boils_c
    from_c = boils_c - (100.0 - OFF_THE_BOIL_C) if pot.hot else REFERENCE_C
    return _heat_kj(pot.contents.mass_g, boils_c - from_c)


def _heat_kj(mass_g: float, kelvin: float) -> float:
    return mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * max(kelvin, 0.0)


def _warming_kj(before: Pot, after: Pot) -> float:
    """Heat that what was added takes up before it boils too, kJ."""
    if before.hot and not after.hot:
        return _heat_kj(after.contents.mass_g, after.burner.boils_c - LIFTS_BELOW_C)
    added_g = max(after.contents.mass_g - before.contents.mass_g, 0.0)
    return _heat_kj(added_g, after.burner.boils_c - REFERENCE_C)
