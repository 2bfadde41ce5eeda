"""How fast a pot of it would cool, before it is set to cool: which way makes it in time.

Liquid that moves cools as one body (Newton), with the time constant τ = m·c / (h·A); in a tray, where nothing stirs it,
by conduction out of a slab that is cooled from both sides (:mod:`.conduction`). Film
coefficients are rows of ``data/chilling.csv``, each with its range. Checked against SciPy's integration of both
(tests/reference/test_chilling.py).

Aids, not a safety certificate: local food rules and the kitchen's own food-safety plan come first.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from functools import partial
from typing import Literal, NamedTuple

from scipy.optimize import brentq

from ..amounts.estimate import Estimate
from ..amounts.tables import span, table
from ..measuring.vessels import Pan
from .conduction import conducted_min, lag_min
from .limits import USUAL, Limits
from .warming import CONDUCTIVITY_W_M_K, DIFFUSIVITY_MM2_MIN, TRANSFER_W_M2_K

#: Heat that a millilitre of stock or sauce gives up for a kelvin, J. From memory: 3.7 to 4.1.
SAUCE_J_ML_K = 4.0

#: Thermal diffusivity of a sauce, mm²/min, and its conductivity, W/(m·K): nearly those of water. From memory.
SAUCE_MM2_MIN, SAUCE_W_M_K = 8.4, 0.55

#: A tray, or a wide dish, as a kitchen has it, mm². Common practice: 30 by 20 cm.
TRAY_MM2 = 300.0 * 200.0

#: A piece of meat that is left in the pot, mm. Common practice.
PIECE_MM = 50.0

#: More trays than this are a refrigerator full of them. Common practice.
MOST_TRAYS = 8


class Chilling(NamedTuple):
    """A way to cool: what it stands in, °C, the heat it takes, W/(m² K), how deep it lies in trays, mm, and among how
    many ``pots`` it is divided, each as wide as its pan."""

    key: str
    label: str
    celsius: float
    w_m2k: Estimate
    deep_mm: float | None
    pots: int


CHILLING: Mapping[str, Chilling] = table(
    "chilling",
    lambda row: Chilling(
        row["key"],
        row["label"],
        float(row["celsius"]),
        span(row, "w_m2k"),
        float(row["deep_mm"]) if row["deep_mm"] else None,
        int(row["pots"]),
    ),
)

#: In time as far as its range tells, perhaps, or not.
Makes = Literal["in_time", "perhaps", "too_slow"]


class Chilled(NamedTuple):
    """How a way would go: minutes from the start of the clock to each limit, and how many trays it takes.

    They are infinite where it never gets there. ``lifted`` is whether meat that stands in it is lifted out first.
    """

    way: Chilling
    minutes: tuple[Estimate, ...]
    makes: Makes
    trays: int
    lifted: bool = False


def time_constant_min(volume_ml: float, area_mm2: float, w_m2k: float) -> float:
    """Time constant of liquid that moves, min.

    >>> round(time_constant_min(2000.0, 78_000.0, 140.0), 1)  # 2 L in a pot of 24 cm, in stirred ice water
    12.2
    """
    return volume_ml * SAUCE_J_ML_K / (w_m2k * area_mm2 * 1e-6) / 60.0


def covered_c(volume_ml: float, pan: Pan, from_c: float, minutes: float) -> float:
    """Temperature of what stands off the heat with its lid on, after so many minutes, °C."""
    room = CHILLING["room"]
    constant = time_constant_min(volume_ml, _wetted_mm2(volume_ml, pan), room.w_m2k.best)
    return room.celsius + (from_c - room.celsius) * math.exp(-minutes / constant)


def chilled(way: Chilling, volume_ml: float, pan: Pan, limits: Limits = USUAL, solids_ml: float = 0.0) -> Chilled:
    """How so much, in its pan or out of it, would cool by a way; with pieces of meat in it to the middle of those."""
    if way.deep_mm is None:
        whole_ml = min(volume_ml + solids_ml, pan.capacity_ml) / way.pots
        constant = partial(time_constant_min, whole_ml, _wetted_mm2(whole_ml, pan))
        minutes = _to_each(way, partial(_with_pieces if solids_ml else _newton, way, constant), limits)
        return Chilled(way, minutes, _makes(minutes, limits), 0)
    trays = math.ceil(volume_ml / (TRAY_MM2 * way.deep_mm / 1000.0))
    # What fills its last tray badly lies less deep in each.
    deep = volume_ml * 1000.0 / (trays * TRAY_MM2)
    minutes = _to_each(way, partial(_conducted, way, deep), limits)
    return Chilled(way, minutes, _makes(minutes, limits), trays, lifted=solids_ml > 0.0)


def proposals(volume_ml: float, pan: Pan, limits: Limits = USUAL, solids_ml: float = 0.0) -> tuple[Chilled, ...]:
    """Every way, the least work that makes it for sure first, then what may, then what does not."""
    found = [chilled(way, volume_ml, pan, limits, solids_ml) for way in CHILLING.values()]
    order: tuple[Makes, ...] = ("in_time", "perhaps", "too_slow")
    usable = [one for one in found if one.trays <= MOST_TRAYS]
    return tuple(sorted(usable, key=lambda one: order.index(one.makes)))


def _makes(minutes: tuple[Estimate, ...], limits: Limits) -> Makes:
    within = [due.minutes for due in limits.cooled]
    if all(one.high <= limit for one, limit in zip(minutes, within, strict=True)):
        return "in_time"
    return "perhaps" if all(one.best <= limit for one, limit in zip(minutes, within, strict=True)) else "too_slow"


def _to_each(way: Chilling, takes: Callable[[float, float, float], float], limits: Limits) -> tuple[Estimate, ...]:
    """How long it ``takes`` to each limit, with the most, the best and the least heat that the way takes."""

    def minutes(to_c: float, w_m2k: float) -> float:
        return math.inf if way.celsius >= to_c else takes(limits.starts_c, to_c, w_m2k)

    heat = way.w_m2k
    return tuple(
        Estimate(minutes(due.celsius, heat.high), minutes(due.celsius, heat.best), minutes(due.celsius, heat.low))
        for due in limits.cooled
    )


def _newton(way: Chilling, constant: Callable[[float], float], from_c: float, to_c: float, w_m2k: float) -> float:
    return constant(w_m2k) * math.log((from_c - way.celsius) / (to_c - way.celsius))


def _with_pieces(way: Chilling, constant: Callable[[float], float], from_c: float, to_c: float, w_m2k: float) -> float:
    return following_min(constant(w_m2k), from_c, way.celsius, to_c)


def following_min(constant_min: float, from_c: float, around_c: float, to_c: float) -> float:
    """Minutes until the middle of a piece comes to ``to_c`` in liquid that cools with a time constant, min.

    Two bodies in a row, the second with the time constant of the piece, once its middle begins to follow.
    """
    piece, waits = lag_min(
        PIECE_MM / 2.0, 3, w_m2k=TRANSFER_W_M2_K, mm2_min=DIFFUSIVITY_MM2_MIN, w_m_k=CONDUCTIVITY_W_M_K
    )
    slow, quick = max(constant_min, piece), min(constant_min, piece)
    # Where both are alike their difference has no value of its own.
    quick = min(quick, slow / 1.001)
    share = (to_c - around_c) / (from_c - around_c)

    def over(minute: float) -> float:
        left = slow * math.exp(-minute / slow) - quick * math.exp(-minute / quick)
        return left / (slow - quick) - share

    return waits + float(brentq(over, 0.0, 40.0 * slow))


def _conducted(way: Chilling, deep_mm: float, from_c: float, to_c: float, w_m2k: float) -> float:
    return conducted_min(
        deep_mm / 2.0, 1, from_c, way.celsius, to_c, w_m2k=w_m2k, mm2_min=SAUCE_MM2_MIN, w_m_k=SAUCE_W_M_K
    )


def _wetted_mm2(volume_ml: float, pan: Pan) -> float:
    """All of a pot that gives off heat: its base, its wall as far as it is wet, and the surface."""
    depth = pan.depth_mm(volume_ml)
    base, surface = pan.area_mm2(0.0), pan.area_mm2(depth)
    wall = 2.0 * math.sqrt(math.pi * (base + surface) / 2.0) * depth
    return base + surface + wall
