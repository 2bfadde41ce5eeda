"""Fat on the liquid: how much floats, and what taking it off leaves behind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .contents import SPECIFIC_VOLUME_ML_G, Contents
from .errors import MeasurementError
from .vessels import Pan

SkimWay = Literal["spoon", "separator", "chill"]

#: Floating fat that most cooks leave for flavour, g per 100 mL of liquid (common practice, 1 to 3).
USUAL_REST_G_PER_100_ML = 2.0


@dataclass(frozen=True, slots=True)
class Way:
    """A way to take fat off: share removed, minutes, and liquid lifted with each mL of fat, mL."""

    label: str
    share: float
    minutes: tuple[float, float]
    liquid_per_fat: float


#: Common practice: middle of the usual range for each way.
WAYS: dict[SkimWay, Way] = {
    "spoon": Way("tilt and spoon", 0.75, (5, 10), 0.11),
    "separator": Way("separator jug", 0.92, (5, 8), 0.0),
    "chill": Way("chill and lift", 0.97, (360, 720), 0.0),
}


def layer_ml(pan: Pan, total_ml: float, layer_mm: float) -> float:
    """Volume of a fat layer ``layer_mm`` thick on top of ``total_ml`` (liquid and fat) in ``pan``, mL.

    Raises
    ------
    MeasurementError : the layer is as thick as everything in the pan.
    """
    surface = pan.depth_mm(total_ml)
    if layer_mm >= surface:
        raise MeasurementError(
            "fat", f"The pot stands {surface:.0f} mm deep in all; {layer_mm:.0f} mm of fat leaves no liquid."
        )
    return total_ml - pan.volume_ml(surface - layer_mm)


def layer_mm(pan: Pan, contents: Contents, expansion: float = 1.0) -> float:
    """Thickness of the floating fat in ``pan``, mm."""
    return pan.depth_mm(contents.volume_ml * expansion) - pan.depth_mm(contents.liquid_ml * expansion)


def skimmed(contents: Contents, fat_ml: float, liquid_ml: float = 0.0) -> Contents:
    """The pot after ``fat_ml`` mL of floating fat, and ``liquid_ml`` mL of liquid with it, were taken off.

    No more fat leaves than floats.
    """
    fat_g = min(fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"], contents.fat_free)
    kept = 1.0 - min(liquid_ml / contents.liquid_ml, 1.0) if contents.liquid_ml > 0 else 1.0
    return contents.scaled(kept).with_masses(fat_free=contents.fat_free - fat_g)


def usual_rest_g(liquid_ml: float) -> float:
    """Floating fat a cook would usually leave on ``liquid_ml`` mL, g (common practice)."""
    return USUAL_REST_G_PER_100_ML * liquid_ml / 100.0
