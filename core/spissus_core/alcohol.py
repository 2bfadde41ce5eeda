"""What boiling does to alcohol."""

from __future__ import annotations

import numpy as np

MOLAR_MASS_WATER = 18.015
MOLAR_MASS_ETHANOL = 46.07

#: Vapour-liquid equilibrium of ethanol and water at 1 atm: mole fraction of ethanol in liquid, vapour.
#: Source: Carey and Lewis 1932, as tabled in chemical-engineering handbooks (from memory).
EQUILIBRIUM = (
    (0.0190, 0.1700), (0.0721, 0.3891), (0.0966, 0.4375), (0.1238, 0.4704), (0.1661, 0.5089),
    (0.2337, 0.5445), (0.2608, 0.5580), (0.3273, 0.5826), (0.3965, 0.6122), (0.5079, 0.6564),
)  # fmt: skip

_X = np.array([x for x, _ in EQUILIBRIUM])
_ALPHA = np.array([(y / (1 - y)) / (x / (1 - x)) for x, y in EQUILIBRIUM])


#: Less ethanol than this is none, g.
TRACE_G = 1e-6


def relative_volatility(mole_fraction: float) -> float:
    """Relative volatility α of ethanol over water at the boil, dimensionless.

    Linear between the tabled points; the most dilute value is held below 1.9 mol %.
    """
    return float(np.interp(mole_fraction, _X, _ALPHA))


def ethanol_left(ethanol_g: float, water_g: float, water_left_g: float, steps: int = 200) -> float:
    """Ethanol left after open boiling has brought the water from ``water_g`` to ``water_left_g``, g.

    Rayleigh's equation, d ln n_e = α(x) d ln n_w, integrated in equal steps of ln n_w by Heun's
    method. No vapour falls back: with a lid on, more stays.
    """
    if ethanol_g < TRACE_G or water_left_g >= water_g:
        return ethanol_g
    if water_left_g <= 0.0:
        return 0.0
    step = np.log(water_left_g / water_g) / steps
    log_ratio = np.log((ethanol_g / MOLAR_MASS_ETHANOL) / (water_g / MOLAR_MASS_WATER))

    def alpha(at: float) -> float:
        ratio = np.exp(at)
        return relative_volatility(ratio / (1 + ratio))

    for _ in range(steps):
        first = alpha(log_ratio) - 1.0
        second = alpha(log_ratio + first * step) - 1.0
        log_ratio += 0.5 * (first + second) * step
    return float(np.exp(log_ratio) * water_left_g / MOLAR_MASS_WATER * MOLAR_MASS_ETHANOL)
