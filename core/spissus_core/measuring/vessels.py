"""Pans: how depth and volume belong together.

Every pan is a straight or tapering wall over a flat base. Its two horizontal dimensions grow
linearly from base to rim, so its volume is a cubic in the depth; the round tapered pan is the
frustum V = πh/3 (r₀² + r₀r + r²) as a special case.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, model_validator
from scipy.optimize import brentq, least_squares

from ..amounts.fields import Name, PanHeightMm, PanWeightG, PanWidthMm
from ..amounts.quantities import ML_PER_CUP, UnitSystem, show_length, show_volume
from ..errors import MeasurementError
from ..messages import Shown, say

Shape = Literal["round", "oval", "rectangular"]

#: Below this depth the edge scorches and a dip means little, mm (common practice).
SHALLOW_MM = 8.0

#: A pan is full to within the rounding of a float.
ROUNDING = 1e-9

_AREA_FACTOR = {"round": math.pi / 4, "oval": math.pi / 4, "rectangular": 1.0}


class Pan(BaseModel):
    """A pan by its inner measurements, mm, and its empty weight, g.

    ``length`` and ``width`` are the two inner horizontal dimensions; a round pan has both equal to
    its diameter. A straight wall has the same figures at base and rim.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Name
    shape: Shape = "round"
    base_length_mm: PanWidthMm
    base_width_mm: PanWidthMm
    rim_length_mm: PanWidthMm
    rim_width_mm: PanWidthMm
    height_mm: PanHeightMm
    empty_g: PanWeightG | None = None

    @model_validator(mode="after")
    def _rim_not_narrower(self) -> Pan:
        if self.rim_length_mm < self.base_length_mm or self.rim_width_mm < self.base_width_mm:
            raise MeasurementError("rim_length_mm", say("measuring.rim_narrower"))
        if self.shape == "round" and (
            self.base_length_mm != self.base_width_mm or self.rim_length_mm != self.rim_width_mm
        ):
            raise MeasurementError("base_width_mm", say("measuring.round_is_round"))
        return self

    @classmethod
    def round(
        cls, name: str, base_mm: float, height_mm: float, *, rim_mm: float | None = None, empty_g: float | None = None
    ) -> Pan:
        """A round pan from its inner base and rim diameters, mm."""
        rim = rim_mm or base_mm
        return cls(
            name=name,
            base_length_mm=base_mm,
            base_width_mm=base_mm,
            rim_length_mm=rim,
            rim_width_mm=rim,
            height_mm=height_mm,
            empty_g=empty_g,
        )

    def area_mm2(self, depth_mm: float) -> float:
        """Area of the surface at ``depth_mm`` above the base, mm²."""
        share = depth_mm / self.height_mm
        length = self.base_length_mm + (self.rim_length_mm - self.base_length_mm) * share
        width = self.base_width_mm + (self.rim_width_mm - self.base_width_mm) * share
        return _AREA_FACTOR[self.shape] * length * width

    def volume_ml(self, depth_mm: float) -> float:
        """Volume up to ``depth_mm``, mL: the integral of :meth:`area_mm2` in closed form.

        Raises
        ------
        MeasurementError : the depth is below the base or above the rim.
        """
        if not 0.0 <= depth_mm <= self.height_mm * (1 + ROUNDING):
            raise MeasurementError(
                "depth",
                say("measuring.too_deep", height=show_length(self.height_mm), depth=show_length(depth_mm)),
            )
        h, deep = depth_mm, self.height_mm
        grow_l, grow_w = self.rim_length_mm - self.base_length_mm, self.rim_width_mm - self.base_width_mm
        integral = (
            self.base_length_mm * self.base_width_mm * h
            + (self.base_length_mm * grow_w + self.base_width_mm * grow_l) * h**2 / (2 * deep)
            + grow_l * grow_w * h**3 / (3 * deep**2)
        )
        return _AREA_FACTOR[self.shape] * integral / 1000.0

    @property
    def capacity_ml(self) -> float:
        """Volume to the rim, mL."""
        return self.volume_ml(self.height_mm)

    def depth_mm(self, volume_ml: float) -> float:
        """Depth at which ``volume_ml`` stands, mm.

        Raises
        ------
        MeasurementError : the pan does not hold that much.
        """
        if not 0.0 <= volume_ml <= self.capacity_ml * (1 + ROUNDING):
            raise MeasurementError(
                "volume",
                say("measuring.too_much", capacity=show_volume(self.capacity_ml), volume=show_volume(volume_ml)),
            )
        if self.rim_length_mm == self.base_length_mm and self.rim_width_mm == self.base_width_mm:
            return volume_ml * 1000.0 / self.area_mm2(0.0)
        return float(
            brentq(lambda h: self.volume_ml(min(h, self.height_mm)) - volume_ml, 0.0, self.height_mm * (1 + ROUNDING))
        )


#: Steps between the marks of a skewer, mL, by system of units; the first that leaves the marks apart is taken.
_STEPS_ML: dict[UnitSystem, tuple[float, ...]] = {
    "metric": (50.0, 100.0, 250.0, 500.0, 1000.0, 2500.0, 5000.0),
    "us": tuple(ML_PER_CUP * cups for cups in (0.25, 0.5, 1.0, 2.0, 4.0, 8.0, 16.0)),
}
#: Marks closer than this cannot be told apart on a skewer, mm. Modelling choice.
_APART_MM = 6.0


#: A pan is comfortable for a liquid that fills half of it. Modelling choice.
COMFORTABLE = 2.0


def comfortable(pans: Sequence[Pan], volume_ml: float) -> Pan | None:
    """The smallest pan that holds twice as much; the largest where none does, None where there is none."""
    by_size = sorted(pans, key=lambda pan: pan.capacity_ml)
    return next(
        (pan for pan in by_size if pan.capacity_ml >= COMFORTABLE * volume_ml), by_size[-1] if by_size else None
    )


def volume_marks(pan: Pan, units: UnitSystem) -> tuple[tuple[float, Shown], ...]:
    """Depths, mm, at which round volumes stand in ``pan``, each with its volume, from the base to the rim."""
    widest = pan.area_mm2(pan.height_mm)
    step = next((s for s in _STEPS_ML[units] if s * 1000.0 / widest >= _APART_MM), _STEPS_ML[units][-1])
    volumes = [step * i for i in range(1, int(pan.capacity_ml / step) + 1)]
    return tuple((pan.depth_mm(volume), show_volume(volume)) for volume in volumes)


# -- calibration ----------------------------------------------------------------------------------

#: How far a ruler laid across a pan is usually off, as a share. Modelling choice: it keeps one reading
#: from bending both ends of the wall.
_RULER_SHARE = 0.04
#: Error of one dip, mm (common practice).
_DIP_MM = 1.5
#: A dip further than this from the fitted pan was misread, mm: three times its error.
_WILD_MM = 3 * _DIP_MM
#: A pan further than this from its measurements was measured wrongly, as a share. Modelling choice.
_FARTHEST = 0.25
#: A volume this many times what the pan should hold was mistyped. Modelling choice.
FAR_TOO_MUCH = 1.6


@dataclass(frozen=True, slots=True)
class Calibration:
    """A pan whose base and rim were fitted to known volumes; ``misses_mm`` is how far each dip is from it."""

    pan: Pan
    misses_mm: tuple[float, ...]


def calibrated(pan: Pan, poured: Sequence[tuple[float, float]]) -> Calibration:
    """Fit a pan to volumes that were poured in and dipped.

    Base and rim are each scaled by a factor of their own: least squares on the depths, with the
    measured dimensions as a prior of 4 %. A single effective radius could not describe a taper.

    Parameters
    ----------
    pan : as measured with a ruler.
    poured : volumes, mL, each with the depth at which it stood, mm.

    Raises
    ------
    MeasurementError : no volumes, more than the pan could hold, or dips that no such pan could give.
    """
    if not poured:
        raise MeasurementError("poured", say("measuring.pour_and_dip"))
    for volume_ml, depth_mm in poured:
        if not 0.0 < depth_mm <= pan.height_mm or not 0.0 < volume_ml <= FAR_TOO_MUCH * pan.capacity_ml:
            raise MeasurementError(
                "poured",
                say(
                    "measuring.deeper_than_pan",
                    volume=show_volume(volume_ml),
                    depth=show_length(depth_mm),
                    pan=pan.name,
                    height=show_length(pan.height_mm),
                ),
            )

    def scaled(base: float, rim: float) -> Pan:
        return pan.model_copy(
            update={
                "base_length_mm": pan.base_length_mm * base,
                "base_width_mm": pan.base_width_mm * base,
                "rim_length_mm": pan.rim_length_mm * rim,
                "rim_width_mm": pan.rim_width_mm * rim,
            }
        )

    def misses(factors: NDArray[np.float64]) -> list[float]:
        fitted = scaled(float(factors[0]), float(factors[1]))
        # Volume over area stands for depth: it needs no root, and is defined past the rim.
        dips = [
            (fitted.volume_ml(depth) - volume) * 1000.0 / fitted.area_mm2(depth) / _DIP_MM for volume, depth in poured
        ]
        return [*dips, *((factors - 1.0) / _RULER_SHARE)]

    found = least_squares(misses, [1.0, 1.0], bounds=(1.0 - 2 * _FARTHEST, 1.0 + 2 * _FARTHEST)).x
    if max(abs(found - 1.0)) > _FARTHEST:
        raise MeasurementError("poured", say("measuring.not_as_measured", pan=pan.name))
    base = float(found[0])
    narrowest = max(pan.base_length_mm / pan.rim_length_mm, pan.base_width_mm / pan.rim_width_mm)
    fitted = scaled(base, max(float(found[1]), base * narrowest))
    missed = tuple((fitted.volume_ml(depth) - volume) * 1000.0 / fitted.area_mm2(depth) for volume, depth in poured)
    worst = max(range(len(missed)), key=lambda i: abs(missed[i]))
    if abs(missed[worst]) > _WILD_MM:
        volume, depth = poured[worst]
        raise MeasurementError(
            "poured",
            say(
                "measuring.no_such_shape",
                volume=show_volume(volume),
                depth=show_length(depth),
                off=show_length(abs(missed[worst])),
            ),
        )
    return Calibration(fitted, missed)
