"""What warms and cools a finished sauce: meat that is warmed in it, by conduction (:mod:`.conduction`), and what comes
cold out of the fridge, by a heat balance."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, NamedTuple, cast

from ..amounts.estimate import Estimate
from ..amounts.tables import span, table
from ..ledger.contents import Contents
from .conduction import conducted_min
from .cooling import FRIDGE_C
from .limits import USUAL

#: Thermal diffusivity of cooked meat, mm²/min, and its conductivity, W/(m·K). From memory: 1.2 to 1.35e-7 m²/s.
DIFFUSIVITY_MM2_MIN, CONDUCTIVITY_W_M_K = 7.2, 0.48

#: Heat transfer from a thick sauce that barely simmers, W/(m²·K). Modelling choice: with it the times of the trade come
#: out (handbook, section 11).
TRANSFER_W_M2_K = 190.0

#: A bare simmer, and a sauce that must not boil again, °C. Handbook of the trade, section 11.
SIMMER_C, GENTLE_C = 92.5, 78.0

#: Thickness, shape and stirring differ by so much: times come out this much shorter or longer. Modelling choice.
QUICKEST, SLOWEST = 0.8, 1.35

#: Meat that was kept warm is only coated and evened out: from so long to so long, min. Handbook, section 11.
COATED_MIN = Estimate(5.0, 7.0, 10.0)


class Meat(NamedTuple):
    """How meat is cut: its shape, its usual thickness, mm, and the share of it that comes back as juice."""

    label: str
    shape: Literal["slab", "cube"]
    thick_mm: float
    juice: Estimate


MEATS: Mapping[str, Meat] = table(
    "meats",
    lambda row: Meat(
        row["label"],
        cast(Literal["slab", "cube"], row["shape"]),
        float(row["thick_mm"]),
        span(row, "juice"),
    ),
)


#: Heat that a gram of each takes up for a kelvin, J: water, fat, which melts on the way, and all else. From memory.
WATER_J, FAT_J, SOLIDS_J = 4.19, 3.1, 1.5

#: A sauce that is finished, °C. Handbook of the trade, section 11.
FINISHED_C = 75.0


def _takes_j_k(c: Contents) -> float:
    fat = c.fat_free + c.fat_emulsified
    return WATER_J * (c.water + c.ethanol) + FAT_J * fat + SOLIDS_J * (c.mass_g - c.water - c.ethanol - fat)


def cooled_by_k(sauce: Contents, cold: Contents) -> float:
    """By how much a finished sauce cools when something out of the fridge is stirred in, K: a heat balance.

    >>> sauce = Contents(water=450.0, gelatin=25.0, other=25.0)
    >>> cream = Contents(water=58.0, fat_emulsified=36.0, sugar=3.0, other=2.0)
    >>> round(cooled_by_k(sauce, cream))  # 100 mL in 500 mL, handbook of the trade: about 11
    11
    """
    takes = _takes_j_k(cold)
    return (FINISHED_C - FRIDGE_C) * takes / (_takes_j_k(sauce) + takes)


def warming_min(
    thick_mm: float,
    shape: Literal["slab", "cube"],
    start_c: float,
    sauce_c: float = SIMMER_C,
    middle_c: float = USUAL.reheat_c,
) -> Estimate:
    """Minutes until the middle of a piece comes to ``middle_c``.

    >>> round(warming_min(50.0, "cube", 4.0).best), round(warming_min(14.0, "slab", 4.0).best)
    (32, 9)

    Raises
    ------
    ValueError : the sauce is no warmer than that.
    """
    if sauce_c <= middle_c:
        raise ValueError("the sauce is no warmer than the middle is to be")
    if start_c >= middle_c:
        return Estimate(0.0, 0.0, 0.0)
    best = conducted_min(
        thick_mm / 2.0,
        1 if shape == "slab" else 3,
        start_c,
        sauce_c,
        middle_c,
        w_m2k=TRANSFER_W_M2_K,
        mm2_min=DIFFUSIVITY_MM2_MIN,
        w_m_k=CONDUCTIVITY_W_M_K,
    )
    return Estimate(QUICKEST * best, best, SLOWEST * best)
