"""The way down: what is left of a pot as heat goes into its vapour."""

from __future__ import annotations

import numpy as np

from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..phenomena.alcohol import TRACE_G, ethanol_left
from .window import ETHANOL_KJ_G, WATER_KJ_G

#: The way down ends at this share of the water. Modelling choice, as :data:`.routes.LEAST_WATER_SHARE`.
LEAST_SHARE = 0.03


class Path:
    """What is left of a pot as heat goes into its vapour: energy, kJ, against mass and volume."""

    def __init__(self, contents: Contents, steps: int = 28) -> None:
        shares = np.linspace(1.0, LEAST_SHARE, steps)
        water = contents.water * shares
        ethanol = np.full(steps, contents.ethanol)
        if contents.ethanol > TRACE_G:
            for i in range(1, steps):
                ethanol[i] = ethanol_left(ethanol[i - 1], water[i - 1], water[i], steps=12)
        lost_w, lost_e = contents.water - water, contents.ethanol - ethanol
        self.energy = lost_w * WATER_KJ_G + lost_e * ETHANOL_KJ_G
        self.mass = contents.mass_g - lost_w - lost_e
        per = SPECIFIC_VOLUME_ML_G
        self.liquid = contents.liquid_ml - lost_w * per["water"] - lost_e * per["ethanol"]

    def liquid_ml(self, energy_kj: float) -> float:
        """Liquid left after so much heat, mL; more than there is where the heat is negative."""
        if energy_kj < 0.0:
            return float(self.liquid[0] - energy_kj / WATER_KJ_G * SPECIFIC_VOLUME_ML_G["water"])
        return float(np.interp(energy_kj, self.energy, self.liquid))

    def mass_g(self, energy_kj: float) -> float:
        """Mass left after so much heat, g."""
        if energy_kj < 0.0:
            return float(self.mass[0] - energy_kj / WATER_KJ_G)
        return float(np.interp(energy_kj, self.energy, self.mass))

    def energy_to(self, liquid_ml: float) -> float:
        """Heat that brings the liquid down to ``liquid_ml`` mL, kJ."""
        if liquid_ml > self.liquid[0]:
            return float((self.liquid[0] - liquid_ml) / SPECIFIC_VOLUME_ML_G["water"] * WATER_KJ_G)
        return float(np.interp(-liquid_ml, -self.liquid, self.energy))
