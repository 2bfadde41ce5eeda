"""How dark the liquid is drawn as it gets stronger: a picture, not a measurement."""

from __future__ import annotations

import math

from ..ledger.contents import Contents

#: Strengths at which the liquid is drawn palest and darkest, g in 100 g: a carton stock's, and a meat glaze's.
#: Modelling choice.
PALE, DARK = 2.0, 35.0


def tone(contents: Contents) -> float:
    """How dark the liquid is drawn, 0 to 1, by its strength alone: flour, salt and pulp make nothing look rich.

    Logarithmic. Modelling choice.
    """
    strength = max(contents.strength_percent, 1e-6)
    return min(max(math.log(strength / PALE) / math.log(DARK / PALE), 0.0), 1.0)
