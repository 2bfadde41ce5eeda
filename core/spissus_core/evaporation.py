"""Boiling down: what leaves the pot, and how fast."""

from __future__ import annotations

from scipy.optimize import brentq

from .alcohol import ethanol_left
from .contents import SPECIFIC_VOLUME_ML_G, Contents
from .errors import TargetError
from .estimate import Estimate
from .water import HEAT_CAPACITY_KJ_KG_K, LATENT_HEAT_KJ_KG

#: Log standard deviation of a boiling rate guessed from the burner alone. Modelling choice.
BOILING_SPREAD = 0.35


def boiled_to_water(contents: Contents, water_g: float) -> Contents:
    """The pot once boiling has left ``water_g`` g of water in it; ethanol follows Rayleigh's equation."""
    return contents.with_masses(water=water_g, ethanol=ethanol_left(contents.ethanol, contents.water, water_g))


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
    fixed = now - contents.water * per_g_water - contents.ethanol * ethanol_share
    if amount > now * (1 + 1e-9):
        raise TargetError("volume", "Boiling cannot make more than is in the pot.")
    if amount <= fixed:
        raise TargetError("volume", "That is less than what stays when all the water has gone.")
    if contents.ethanol == 0.0:
        return contents.with_masses(water=(amount - fixed) / per_g_water)

    def excess(water_g: float) -> float:
        ethanol = ethanol_left(contents.ethanol, contents.water, water_g)
        return fixed + water_g * per_g_water + ethanol * ethanol_share - amount

    if excess(contents.water) <= 0.0:
        return contents
    return boiled_to_water(contents, float(brentq(excess, 1e-6, contents.water, xtol=1e-4)))


def boiling_rate_g_min(net_kw: float) -> Estimate:
    """Water leaving a boiling pot, g/min: net power into the liquid over latent heat.

    Parameters
    ----------
    net_kw : power that reaches the liquid, kW; a burner class, not the figure on the dial.

    The spread is the prior of a pan and burner never timed before (modelling choice, 35 %).
    """
    return Estimate.log_normal(net_kw * 60_000.0 / LATENT_HEAT_KJ_KG, BOILING_SPREAD)


def minutes_to_boil_away(water_g: float, net_kw: float) -> Estimate:
    """Minutes at a boil until ``water_g`` g have left."""
    return boiling_rate_g_min(net_kw).divided_into(max(water_g, 0.0))


def minutes_to_heat(mass_g: float, from_c: float, to_c: float, net_kw: float) -> Estimate:
    """Minutes to bring a pot from ``from_c`` to ``to_c``: m·c·ΔT over net power, same spread as the rate."""
    energy_kj = mass_g / 1000.0 * HEAT_CAPACITY_KJ_KG_K * max(to_c - from_c, 0.0)
    return Estimate.log_normal(net_kw, BOILING_SPREAD).divided_into(energy_kj / 60.0)
