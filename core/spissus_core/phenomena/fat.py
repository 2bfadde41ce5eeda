"""Fat on the liquid: how much floats, and what taking it off leaves behind."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Annotated

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_length
from ..amounts.rows import Row
from ..amounts.tables import one_of, span, table
from ..errors import MeasurementError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HEAT_CAPACITY_KJ_KG_K
from ..measuring.vessels import Pan
from ..messages import say
from .evaporation import minutes_to_boil_away, minutes_to_heat

#: A way to take fat off, by its key: rows of ``data/skim_ways.csv``.
SkimWay = Annotated[str, *one_of("skim_ways")]

#: Floating fat that is left for flavour, g per 100 mL of liquid: rows of ``data/fat_rests.csv``; most cooks leave a
#: little.
RESTS_G_PER_100_ML: Mapping[str, float] = table("fat_rests", lambda row: float(row["g_per_100_ml"]))
USUAL_REST_G_PER_100_ML = RESTS_G_PER_100_ML["little"]

#: Frying fat that is poured off, as a share: rows of ``data/poured_off.csv``.
POURED_OFF: Mapping[str, float] = table("poured_off", lambda row: float(row["share"]))


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """A way to take fat off.

    ``share`` removed, with its usual range; minutes; liquid lifted with each mL of fat, mL; the most it
    takes in one go, mL; and what to mind.
    """

    label: str
    share: Estimate
    minutes: tuple[float, float]
    note: str
    liquid_per_fat: float = 0.0
    most_ml: float = math.inf

    def removes_ml(self, fat_ml: float) -> float:
        """Fat it usually takes off ``fat_ml`` mL, mL."""
        return min(self.share.best * fat_ml, self.most_ml)


def _way(row: Row) -> Way:
    return Way(
        label=row["label"],
        share=span(row, "share"),
        minutes=(float(row["least_min"]), float(row["most_min"])),
        note=row["note"],
        liquid_per_fat=float(row["liquid_per_fat"] or 0.0),
        most_ml=float(row["most_ml"] or math.inf),
    )


WAYS: Mapping[str, Way] = table("skim_ways", _way)


def layer_ml(pan: Pan, total_ml: float, layer_mm: float) -> float:
    """Volume of a fat layer ``layer_mm`` thick on top of ``total_ml`` (liquid and fat) in ``pan``, mL.

    Raises
    ------
    MeasurementError : the layer is as thick as everything in the pan.
    """
    surface = pan.depth_mm(total_ml)
    if layer_mm >= surface:
        raise MeasurementError("fat", say("measuring.all_fat", depth=show_length(surface), layer=show_length(layer_mm)))
    return total_ml - pan.volume_ml(surface - layer_mm)


def skimmed(contents: Contents, fat_ml: float, liquid_ml: float = 0.0) -> Contents:
    """The pot after ``fat_ml`` mL of floating fat, and ``liquid_ml`` mL of liquid with it, were taken off.

    No more fat leaves than floats.
    """
    fat_g = min(fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"], contents.fat_free)
    kept = 1.0 - min(liquid_ml / contents.liquid_ml, 1.0) if contents.liquid_ml > 0 else 1.0
    return contents.scaled(kept).with_masses(fat_free=contents.fat_free - fat_g)


def boiled_dry(contents: Contents, fat_ml: float, dissolved_in: Contents) -> Contents:
    """Tray juices boiled down until only fat and stuck juices are left, the fat poured off, dissolved anew.

    Parameters
    ----------
    contents : before; all its water, alcohol and volatile acid leave.
    fat_ml : fat poured off, mL.
    dissolved_in : the liquid that takes the stuck juices up.
    """
    fat_g = min(fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"], contents.fat_free)
    stuck = contents.with_masses(water=0.0, ethanol=0.0, acetic=0.0, fat_free=contents.fat_free - fat_g)
    return stuck + dissolved_in


def rest_g(liquid_ml: float, g_per_100_ml: float = USUAL_REST_G_PER_100_ML) -> float:
    """Floating fat to leave on ``liquid_ml`` mL, g; by default what most cooks leave (common practice)."""
    return g_per_100_ml * liquid_ml / 100.0


# -- drawing off, and looking at it ----------------------------------------------------------------

#: How a part is drawn off, by its key: rows of ``data/draws.csv``.
Draw = Annotated[str, *one_of("draws")]

#: Fat in what each way of drawing takes, as a share of its volume; None where it takes it in proportion.
DRAWS: Mapping[str, float | None] = table("draws", lambda row: float(row["fat_share"]) if row["fat_share"] else None)


def drawn_fat_ml(contents: Contents, volume_ml: float, how: str) -> float:
    """Floating fat in ``volume_ml`` mL that is drawn off a pot, mL: no more than floats, and no more than that."""
    share = DRAWS[how]
    if share is None:
        share = contents.fat_ml / contents.volume_ml
    return min(share * volume_ml, contents.fat_ml, volume_ml)


#: What the fat of a pot that stood for two minutes looks like, by its key: rows of ``data/fat_looks.csv``.
FatLook = Annotated[str, *one_of("fat_looks")]

#: Floating fat at which it looks so, g per 100 mL of liquid: from, and up to; None where nothing bounds it.
FAT_LOOKS: Mapping[str, tuple[float, float | None]] = table(
    "fat_looks", lambda row: (float(row["low"]), float(row["high"]) if row["high"] else None)
)


def fat_as_it_looks_g(contents: Contents, look: str) -> float:
    """Floating fat of a pot that looks so, g: what the ledger thought, moved to where it looks like that. A film that
    the ledger knows nothing of is taken for twice the least (modelling choice)."""
    low, high = (None if end is None else end * contents.liquid_ml / 100.0 for end in FAT_LOOKS[look])
    assert low is not None
    if high is None:
        return contents.fat_free if contents.fat_free > low else 2.0 * low
    return min(max(contents.fat_free, low), high)


# -- settling -------------------------------------------------------------------------------------

#: Viscosity of water at 80 °C, mPa·s, and how much lighter fat is than the liquid there, kg/m³ (IAPWS; fat:
#: modelling choice).
VISCOSITY_80C_MPAS, LIGHTER_KG_M3 = 0.354, 90.0

#: Standard gravity, and the factor of Stokes' law for a sphere.
GRAVITY_M_S2, STOKES = 9.81, 18.0

#: Droplets of fat as a gentle simmer, a spoon and a hard boil leave them, µm. Modelling choices.
DROPLETS_UM: Mapping[str, float] = MappingProxyType({"large": 100.0, "middling": 30.0, "fine": 5.0})


def rise_mm_min(droplet_um: float, thickness: float = 1.0) -> float:
    """Speed at which a droplet of fat climbs, mm/min: Stokes' law, v = Δρ·g·d²/(18 μ).

    Parameters
    ----------
    droplet_um : diameter, µm.
    thickness : viscosity of the liquid over that of water at the same temperature.

    Source: Stokes' law; pinned to the terminal velocity of the package ``fluids`` within 0.2 %
    (tests/reference/test_fat_and_ice.py).

    >>> round(rise_mm_min(100.0) / rise_mm_min(50.0), 9)  # by the square of the diameter
    4.0
    """
    metres = droplet_um * 1e-6
    v = LIGHTER_KG_M3 * GRAVITY_M_S2 * metres**2 / (STOKES * VISCOSITY_80C_MPAS * 1e-3 * thickness)
    return v * 1000.0 * 60.0


def settling_minutes(depth_mm: float, droplet_um: float, thickness: float = 1.0) -> float:
    """Minutes until a droplet has climbed ``depth_mm``."""
    return depth_mm / rise_mm_min(droplet_um, thickness)


# -- ice ------------------------------------------------------------------------------------------

#: Heat that melts ice, kJ/kg, and specific heat of the water it gives, kJ/(kg K) (IAPWS).
MELTING_KJ_KG, WATER_KJ_KG_K = 334.0, 4.18


def ice_needed_g(mass_g: float, from_c: float, to_c: float) -> float:
    """Ice at 0 °C that cools ``mass_g`` g of liquid from ``from_c`` to ``to_c``, g: m·4.0·ΔT/(334 + 4.18·T₂).

    Pinned to IAPWS-95 and IAPWS-06 within 6 % (tests/reference/test_fat_and_ice.py).

    >>> round(ice_needed_g(1200.0, 80.0, 35.0), -1)  # handbook of the trade: about 450 g
    450.0
    """
    return mass_g * HEAT_CAPACITY_KJ_KG_K * max(from_c - to_c, 0.0) / (MELTING_KJ_KG + WATER_KJ_KG_K * to_c)


@dataclass(frozen=True, slots=True)
class IcePrice:
    """What setting the fat with ice costs: ice, g; the time to heat it all again and boil the water off."""

    ice_g: float
    to_c: float
    heat_min: Estimate
    boil_min: Estimate

    @property
    def minutes(self) -> Estimate:
        """Heating and boiling together."""
        return self.heat_min.plus(self.boil_min)


def ice_price(mass_g: float, from_c: float, to_c: float, net_kw: float) -> IcePrice:
    """The price of ice in a pot of ``mass_g`` g that boils on ``net_kw`` kW."""
    ice = ice_needed_g(mass_g, from_c, to_c)
    heat = minutes_to_heat(mass_g + ice, to_c, 100.0, net_kw)
    return IcePrice(ice, to_c, heat, minutes_to_boil_away(ice, net_kw))


#: Temperature below which fat of unknown kind lifts cleanly, °C (common practice: beef and lamb 30, pork 22).
LIFTS_BELOW_C, PORK_LIFTS_BELOW_C = 30.0, 22.0
