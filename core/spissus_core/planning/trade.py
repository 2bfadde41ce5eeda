"""What each finished volume costs: salt against thickener, from a fifth of the pot to all of it."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache, partial

import numpy as np

from ..errors import TargetError
from ..ledger.contents import Contents
from ..pantry.schools import School
from ..pantry.ways import ways_with
from ..phenomena.body import LADDER, Strength
from ..phenomena.evaporation import boiled_to_water
from ..pot import Pot
from ..wish import Wish
from .solving import dose_g, filled, room_for_volume
from .tone import tone

#: The trade is drawn from this share of the pot on. Modelling choice.
LEAST_DRAWN = 0.2


@dataclass(frozen=True, slots=True)
class TradePoint:
    """What one finished volume costs for the body wanted: salt, %, and dry thickener by school, g.

    ``boil_to_ml`` is the liquid at which boiling stops for it, and ``tone`` how dark it is drawn then.
    """

    volume_ml: float
    boil_to_ml: float
    tone: float
    salt_percent: float
    dry_g: Mapping[str, float]


def trade(pot: Pot, wanted: Wish, points: int = 17, asked: Collection[str] = ()) -> tuple[TradePoint, ...]:
    """Salt and thickener against the finished volume, from a fifth of the pot to all of it.

    The salt is that of the first school offered. Whatever volume is wanted, the trade of a pot stays what it is; of
    schools those that were ``asked`` for are in it, too.
    """
    offered = tuple(pot.binding(way.school) for way in ways_with((*asked, *pot.used_to)) if way.school is not None)
    return _trade(pot.contents, pot.strength, LADDER[wanted.body].aim, points, tuple(dict.fromkeys(offered)))


@lru_cache(maxsize=64)
def _trade(
    now: Contents,
    strength: Strength,
    aim: float,
    points: int,
    offered: tuple[School, ...],
) -> tuple[TradePoint, ...]:
    first = offered[0]
    out = []
    for i in range(points):
        volume = now.liquid_ml * (LEAST_DRAWN + (1.0 - LEAST_DRAWN) * i / (points - 1))
        room = partial(room_for_volume, amount_ml=volume)
        sauces = {school.key: filled(now, school, room) for school in offered}
        try:
            dry = {key: dose_g(sauce, aim, now.mass_g, strength) for key, sauce in sauces.items()}
        except TargetError:
            continue
        bound = sauces[first.key](dry[first.key])
        stops = boiled_to_water(now, min(bound.water - dry[first.key] * first.water_g, now.water))
        out.append(TradePoint(volume, stops.liquid_ml, tone(stops), bound.salt_percent, dry))
    return tuple(out)


def too_salty_ml(points: Sequence[TradePoint], ceiling_percent: float) -> float | None:
    """The liquid below which its sauce would be past the ceiling, mL, between the points of a trade; None for none."""
    if not points or points[0].salt_percent <= ceiling_percent:
        return None
    falling = points[::-1]
    return float(np.interp(ceiling_percent, [p.salt_percent for p in falling], [p.boil_to_ml for p in falling]))
