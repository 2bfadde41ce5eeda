"""How dark the liquid is drawn as it concentrates: a picture, not a measurement."""

from __future__ import annotations

import math

from ..ledger.contents import Contents

#: Shares of solids at which the liquid is drawn palest and darkest. Modelling choice.
PALE, DARK = 0.03, 0.40


def tone(contents: Contents) -> float:
    """How dark the liquid is drawn, 0 to 1, from its dissolved and suspended solids.

    Logarithmic between 3 % and 40 % of solids. Modelling choice.
    """
    solids = 1.0 - (contents.water + contents.ethanol) / contents.liquid_g
    return min(max(math.log(max(solids, 1e-6) / PALE) / math.log(DARK / PALE), 0.0), 1.0)
