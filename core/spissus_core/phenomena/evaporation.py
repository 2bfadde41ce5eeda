"""Boiling down: what leaves the pot, and how fast."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from scipy.optimize import brentq

from ..amounts.estimate import Estimate
from ..amounts.tables import one_of, span, table
from ..errors import TargetError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HEAT_CAPACITY_KJ_KG_K, LATENT_HEAT_KJ_KG, vapour_pressure_kpa
from ..messages import say
from .alcohol import acetic_left, ethanol_left

#: Log standard deviation of a boiling rate guessed from the burner alone. Modelling choice.
BOILING_SPREAD = 0.35


def boiled_to_water(contents: Contents, water_g: float) -> Contents:
    """The pot once boiling has left ``water_g`` g of water in it.

    Ethanol and acetic acid follow Rayleigh's equation; nothing else leaves.
    """
    return contents.with_masses(
        water=water_g,
        ethanol=ethanol_left(contents.ethanol, contents.water, water_g),
        acetic=acetic_left(contents.acetic, contents.water, water_g),
    )


def boiled_to_volume(contents: Contents, liquid_ml: float) -> Contents:
    """The pot boiled down to ``liquid_ml`` mL at 20 °C, floating fat not counted.

    Raises
    ------
    TargetError : more than is in the pot, or less than its solids alone take up.
    """
    return _boiled(contents, liquid_ml, contents.liquid_ml, SPECIFIC_VOLUME_ML_G["water"], "volume")


def boiled_to_mass(contents: Contents, mass_g: float) -> Contents:
    """The pot boiled down to ``mass_g`` g, floating fat included.

    Raises
    ------
    TargetError : more than is in the pot, or less than its solids alone weigh.
    """
    return _boiled(contents, mass_g, contents.mass_g, 1.0, "mass")


def _boiled(contents: Contents, amount: float, now: float, per_g_water: float, quantity: str) -> Contents:
    ethanol_share = SPECIFIC_VOLUME_ML_G["ethanol"] if quantity == "volume" else 1.0
    acetic_share = SPECIFIC_VOLUME_ML_G["acetic"] if quantity == "volume" else 1.0
    volatile = contents.ethanol * ethanol_share + contents.acetic * acetic_share
    fixed = now - contents.water * per_g_water - volatile
    if amount > now * (1 + 1e-9):
        raise TargetError("volume", say("routes.not_more"))
    if amount <= fixed:
        raise TargetError("volume", say("routes.less_than_solids"))
    if volatile == 0.0:
        return contents.with_masses(water=(amount - fixed) / per_g_water)

    def excess(water_g: float) -> float:
        ethanol = ethanol_left(contents.ethanol, contents.water, water_g) * ethanol_share
        acetic = acetic_left(contents.acetic, contents.water, water_g) * acetic_share
        return fixed + water_g * per_g_water + ethanol + acetic - amount

    if excess(contents.water) <= 0.0:
        return contents
    return boiled_to_water(contents, float(brentq(excess, 1e-6, contents.water, xtol=1e-4)))


def boiling_rate_g_min(net_kw: float) -> Estimate:
    """Water leaving a boiling pot, g/min: net power into the liquid over latent heat.

    Parameters
    ----------
    net_kw : power that reaches the liquid, kW; a burner class, not the figure on the dial.

    The spread is the prior of a pan and burner never timed before (modelling choice, 35 %).

    >>> round(boiling_rate_g_min(1.0).best, 1)  # 60 000 / 2 256.5 kJ/kg, IAPWS-95
    26.6
    """
    return Estimate.log_normal(net_kw * G_MIN_PER_KG_S / LATENT_HEAT_KJ_KG, BOILING_SPREAD)


def minutes_to_boil_away(water_g: float, net_kw: float) -> Estimate:
    """Minutes at a boil until ``water_g`` g have left."""
    return boiling_rate_g_min(net_kw).divided_into(max(water_g, 0.0))


def minutes_to_heat(mass_g: float, from_c: float, to_c: float, net_kw: float) -> Estimate:
    """Minutes to bring a pot from ``from_c`` to ``to_c``: m·c·ΔT over net power, same spread as the rate.

    >>> round(minutes_to_heat(1200.0, 20.0, 80.0, 1.0).best, 1)  # 1.2 kg · 4.0 kJ/(kg K) · 60 K / 60 kJ/min
    4.8
    """
    energy_kj = mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * max(to_c - from_c, 0.0)
    return Estimate.log_normal(net_kw, BOILING_SPREAD).divided_into(energy_kj / 60.0)


# -- below the boil, covered, and in the oven ------------------------------------------------------

#: A cover, by its key: rows of ``data/covers.csv``.
Cover = Annotated[str, *one_of("covers")]


@dataclass(frozen=True, slots=True)
class Covering:
    """A way to cover a pot: the share of the open pot's vapour that it lets out, and the log's words for it."""

    share: Estimate
    log: str


COVERS: Mapping[str, Covering] = table("covers", lambda row: Covering(span(row, "share"), row["log"]))

#: Log standard deviation of a simmering rate from the surface alone. Modelling choice.
SIMMERING_SPREAD = 0.55

#: The pool-evaporation relation in still air, and for each m/s of draught: see :func:`simmering_rate_g_min`.
POOL_STILL, POOL_PER_M_S = 0.089, 0.0782

#: The pressure of the air, kPa (standard atmosphere).
_AIR_KPA = 101.325

#: Units.
MM2_PER_M2, G_MIN_PER_KG_S = 1e6, 60_000.0

#: At the boil itself there is no film: past this share of the pressure the power decides. Modelling choice.
_WETTEST = 0.9

#: Air over a stove, m/s, and the vapour pressure in it, kPa. Modelling choices.
_DRAUGHT_M_S, _ROOM_KPA = 0.1, 1.0

#: Heat passing from oven air into a pot, W/(m² K): modelling choice within the usual 15 to 25.
OVEN_U = Estimate(15.0, 20.0, 25.0)


def simmering_rate_g_min(area_mm2: float, celsius: float = 95.0) -> Estimate:
    """Water leaving an open pot below the boil, g/min.

    (0.089 + 0.0782 v)(p_w − p_a)/h_fg in kg/(m² s), the pool-evaporation relation of the ASHRAE Handbook, HVAC
    Applications. It is one of thin vapour: nearer the boil the vapour itself drives the air away, and it is taken times
    Stefan's factor for a film, P/(p_w − p_a) · ln((P − p_a)/(P − p_w)), with a spread of 55 % (modelling choices).

    >>> round(simmering_rate_g_min(45_239.0, 95.0).best)  # 24 cm: 20 (10 to 34), tank tables, from memory
    21
    >>> round(simmering_rate_g_min(80_425.0, 95.0).best)  # 32 cm: 35
    37

    Parameters
    ----------
    area_mm2 : surface of the liquid, mm².
    celsius : its temperature, °C.
    """
    # What is colder than the dew of the room takes up water, if anything: it loses none.
    wet = max(min(vapour_pressure_kpa(celsius), _WETTEST * _AIR_KPA), _ROOM_KPA)
    driven = _AIR_KPA * math.log((_AIR_KPA - _ROOM_KPA) / (_AIR_KPA - wet))
    flux = (POOL_STILL + POOL_PER_M_S * _DRAUGHT_M_S) * driven / LATENT_HEAT_KJ_KG
    return Estimate.log_normal(flux * area_mm2 / MM2_PER_M2 * G_MIN_PER_KG_S, SIMMERING_SPREAD)


def oven_rate_g_min(outside_mm2: float, oven_c: float, celsius: float = 98.0) -> Estimate:
    """Water leaving an open pot in an oven, g/min: U·A·(T_oven − T)/h_fg with U of 15 to 25 W/(m² K).

    Modelling choice; a 24 cm pot at 130 to 160 °C loses 4 to 8 g/min by it.

    Parameters
    ----------
    outside_mm2 : base, wall and surface of the pot together, mm².
    oven_c : the oven's temperature, °C.
    celsius : the liquid's temperature, °C.
    """
    watts_per_u = outside_mm2 / MM2_PER_M2 * max(oven_c - celsius, 0.0)
    return OVEN_U.scaled(watts_per_u / 1000.0 * G_MIN_PER_KG_S / LATENT_HEAT_KJ_KG)
