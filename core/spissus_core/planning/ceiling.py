"""Where the salt of a pot stands at something: by boiling alone, and with what is yet to be stirred in."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..ledger.contents import SPECIFIC_VOLUME_ML_G as ML_G
from ..ledger.contents import Contents
from ..pot import Pot
from ..wish import Wish

if TYPE_CHECKING:
    from .solving import Route

#: Boiling further than this share of the water is frying, not reducing. Modelling choice.
LEAST_WATER_SHARE = 0.03


def volume_at_salt_ml(contents: Contents, percent: float) -> float:
    """Volume at which boiling alone, or letting down, brings the salt to ``percent``, mL."""
    mass = 100.0 * contents.salt / percent
    return contents.liquid_ml + (mass - contents.liquid_g) * ML_G["water"]


def bound_at_salt_ml(pot: Pot, percent: float, route: Route | None = None) -> float:
    """Liquid in the pot at which its sauce stands at ``percent`` salt, mL; above the surface where it is past that.

    It is that of the sauce as it will be: what ``route`` has yet to stir in thins its salt.
    """
    binds = _binds(route)
    water_g = 100.0 * (pot.contents.salt + binds.salt) / percent - pot.contents.liquid_g - binds.liquid_g
    return pot.contents.liquid_ml + water_g * ML_G["water"]


def bound_salt_percent(pot: Pot, route: Route | None = None) -> float:
    """Salt of the pot as it is, once what ``route`` has yet to stir in is in it, %."""
    return (pot.contents + _binds(route)).salt_percent


def _binds(route: Route | None) -> Contents:
    return route.thickener.added(route.whole_dry_g) if route is not None and route.thickener is not None else Contents()


def salt_ceiling_ml(pot: Pot, wanted: Wish, route: Route | None = None) -> float | None:
    """Liquid below which the sauce is too salty, mL; None where boiling never gets there."""
    if pot.contents.salt <= 0.0:
        return None
    volume = bound_at_salt_ml(pot, wanted.ceiling_percent, route)
    solids = pot.contents.liquid_ml - pot.contents.water * ML_G["water"]
    return volume if volume > solids + LEAST_WATER_SHARE * pot.contents.water else None
