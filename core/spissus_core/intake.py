"""The strained liquid, from the little a cook knows of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal

from .contents import SPECIFIC_VOLUME_ML_G, Contents, from_composition
from .errors import MeasurementError
from .estimate import Estimate
from .fat import layer_ml
from .measurement import Measured, gross_to_net_g, measured_volume_ml
from .vessels import Pan

Character = Literal["thin", "gelatin_rich", "milled"]


@dataclass(frozen=True, slots=True)
class Composition:
    """What a kind of strained liquid holds besides water, salt and fat, g per 100 g."""

    label: str
    hint: str
    per_100_g: Mapping[str, float]


#: Modelling choice, for want of the full list of what went in: lean cuts in thin stock; cheek, shin,
#: neck or tail, with wine; and a liquid with tomato or vegetables milled into it.
CHARACTERS: Mapping[Character, Composition] = MappingProxyType(
    {
        "thin": Composition(
            "thin stock", "lean meat, water or light stock; sets softly or not at all when cold",
            {"gelatin": 0.8, "sugar": 0.6, "acid": 0.1, "pulp": 0.05, "other": 1.0},
        ),
        "gelatin_rich": Composition(
            "gelatin-rich", "shin, cheek, neck or tail, often with wine or cider; sets firm when cold",
            {"gelatin": 2.3, "sugar": 1.5, "acid": 0.34, "pulp": 0.2, "other": 1.5},
        ),
        "milled": Composition(
            "with tomato or milled vegetables", "soft vegetables pressed or milled in; cloudy",
            {"gelatin": 1.2, "sugar": 3.0, "acid": 0.45, "pulp": 0.6, "other": 1.8},
        ),
    }
)  # fmt: skip


def strained_liquid(
    pan: Pan,
    measured: Measured,
    *,
    fat_mm: float | None,
    fat_ml: float | None,
    salt_percent: Estimate,
    character: Character,
) -> tuple[Contents, Estimate]:
    """The ledger of a strained liquid that was only measured, tasted and looked at.

    Parameters
    ----------
    pan : the pan it stands in.
    measured : jug, dip or scale; the fat layer is part of what was measured and comes off first.
    fat_mm, fat_ml : thickness of the fat layer in this pan, or its volume as measured; at most one.
    salt_percent : salt content of the liquid, % by weight.
    character : which set of defaults fills in gelatin, pulp and the other solubles.

    Returns
    -------
    contents : best values.
    salt_g : the salt with its interval, g.

    Raises
    ------
    MeasurementError : the measurement does not fit the pan, or the fat leaves no liquid.
    """
    per_100_g = {**CHARACTERS[character].per_100_g, "salt": salt_percent.best}
    fat_density = 1.0 / SPECIFIC_VOLUME_ML_G["fat_free"]
    if measured.method == "scale":
        net_g = gross_to_net_g(pan, measured.value)
        liquid = from_composition(100.0, per_100_g)
        fat = _fat_under_scale(pan, net_g, liquid.density_g_ml, fat_mm, fat_ml)
        liquid_ml = (net_g - fat * fat_density) / liquid.density_g_ml
    else:
        total_ml = measured_volume_ml(pan, measured)
        if fat_mm:
            hot_total = total_ml * measured.expansion
            fat = layer_ml(pan, min(hot_total, pan.capacity_ml), fat_mm) / measured.expansion
        else:
            fat = (fat_ml or 0.0) / measured.expansion
        liquid_ml = total_ml - fat
    if liquid_ml <= 0.0:
        raise MeasurementError("fat", "That much fat leaves no liquid: check the fat layer or the measurement.")
    contents = from_composition(liquid_ml, per_100_g).with_masses(fat_free=fat * fat_density)
    if contents.volume_ml > pan.capacity_ml * 1.001:
        raise MeasurementError("measured", f"That is more than “{pan.name}” holds.")
    return contents, salt_percent.scaled(contents.liquid_g / 100.0)


def _fat_under_scale(pan: Pan, net_g: float, density_g_ml: float, fat_mm: float | None, fat_ml: float | None) -> float:
    """Volume of the fat when only weight and layer thickness are known, mL.

    The depth depends on the split and the split on the depth; a few rounds settle it, because fat
    is only a tenth lighter than the liquid.
    """
    if not fat_mm:
        return fat_ml or 0.0
    fat = 0.0
    for _ in range(6):
        total = (net_g - fat / SPECIFIC_VOLUME_ML_G["fat_free"]) / density_g_ml + fat
        if total > pan.capacity_ml:
            raise MeasurementError("value", f"That is more than “{pan.name}” holds.")
        fat = layer_ml(pan, total, fat_mm)
    return fat
