"""Measuring jugs: how much fat a layer is, seen in one.

A layer is as wide as the vessel in which it was seen: 10 mm is about 65 mL of fat in a half-litre jug and 450 mL in a
24 cm pan.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..amounts.rows import rows


@dataclass(frozen=True, slots=True)
class Jug:
    """A jug: what it holds, mL; how wide it is, mm; and how well that is known, as a share of a layer's volume."""

    label: str
    holds_ml: float
    wide_mm: float
    spread: float

    def layer_ml(self, layer_mm: float) -> float:
        """Volume of a layer ``layer_mm`` thick, mL.

        >>> [round(jug.layer_ml(10.0)) for jug in JUGS]  # handbook of the trade: about 65, 95, 130
        [64, 95, 133]
        """
        return math.pi / 4.0 * self.wide_mm**2 * layer_mm / 1000.0


#: The usual ones, the smallest first: rows of ``data/jugs.csv``.
JUGS = tuple(
    Jug(row["label"], float(row["holds_ml"]), float(row["wide_mm"]), float(row["spread"])) for row in rows("jugs")
)

#: Above its last line a jug still holds this share more. Modelling choice.
OVER_THE_LINE = 0.1


def jug_of(volume_ml: float) -> Jug | None:
    """The jug in which so much was probably measured: the smallest that holds it; None where none does."""
    return next((jug for jug in JUGS if volume_ml <= jug.holds_ml * (1.0 + OVER_THE_LINE)), None)
