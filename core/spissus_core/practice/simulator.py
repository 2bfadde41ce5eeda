"""A pot that really boils, for practice, for the stand-in devices and for the checks of the learning.

What is hidden from the cook is drawn from the spreads that the learning assumes: the power, its drift,
how far the first measurement was off, and the error of each reading. Randomness comes from outside.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from ..estimation.path import LEAST_SHARE, Path
from ..estimation.track import DRIFT_PER_MIN
from ..estimation.window import WATER_KJ_G
from ..ledger.contents import Contents
from ..phenomena.evaporation import boiled_to_water


@dataclass(slots=True)
class SimulatedPot:
    """A boiling pot as it truly is.

    ``kj_min`` is the heat that goes into vapour, kJ/min; it drifts by itself. ``contents`` are the
    true ones.
    """

    contents: Contents
    kj_min: float
    drifts: bool = True

    @classmethod
    def drawn(
        cls, rng: np.random.Generator, contents: Contents, kj_min: float, spread: float, error_g: float = 0.0
    ) -> SimulatedPot:
        """A pot whose power lies log-normally around ``kj_min``, and that holds about what was measured."""
        water = max(contents.water + rng.normal(0.0, error_g), 1.0) if error_g else contents.water
        return cls(contents.with_masses(water=water), kj_min * math.exp(rng.normal(0.0, spread)))

    def boil(self, rng: np.random.Generator, minutes: float, step: float = 0.25) -> None:
        """Let it boil for so many minutes."""
        spent, left = 0.0, minutes
        while left > 1e-9:
            part = min(step, left)
            spent += self.kj_min * part
            if self.drifts:
                self.kj_min *= math.exp(rng.normal(0.0, math.sqrt(DRIFT_PER_MIN * part)))
            left -= part
        self.contents = after_heat(self.contents, spent)


def after_heat(contents: Contents, energy_kj: float) -> Contents:
    """The pot once ``energy_kj`` has gone into its vapour."""
    if contents.ethanol <= 0.0:
        return contents.with_masses(water=max(contents.water - energy_kj / WATER_KJ_G, 1.0))
    path = Path(contents)
    left = path.mass_g(min(energy_kj, float(path.energy[-1])))
    # Mass falls with water along the path; alcohol goes with it by Rayleigh's equation.
    water = float(np.interp(-left, -path.mass, contents.water * np.linspace(1.0, LEAST_SHARE, len(path.mass))))
    return boiled_to_water(contents, max(water, 1.0))
