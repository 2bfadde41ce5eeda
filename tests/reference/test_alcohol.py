"""Alcohol during open boiling: Rayleigh's equation on the Carey and Lewis equilibrium."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import solve_ivp
from spissus_core.alcohol import (
    EQUILIBRIUM,
    MOLAR_MASS_ETHANOL,
    MOLAR_MASS_WATER,
    ethanol_left,
    relative_volatility,
)

#: A litre of wine at 13 % by volume, g.
ETHANOL, WATER = 130 * 0.789, 880.0


@pytest.mark.parametrize(("x", "y"), EQUILIBRIUM)
def test_the_curve_goes_through_the_tabled_points(x: float, y: float) -> None:
    alpha = relative_volatility(x)
    assert alpha * x / (1 + (alpha - 1) * x) == pytest.approx(y, rel=1e-9)


@pytest.mark.parametrize("share", [0.95, 0.9, 0.75, 0.6])
def test_against_an_adaptive_integrator(share: float) -> None:
    def slope(_log_water: float, log_ethanol: np.ndarray) -> np.ndarray:
        ethanol, water = np.exp(log_ethanol[0]), np.exp(_log_water)
        return np.array([relative_volatility(ethanol / (ethanol + water))])

    n_w, n_e = WATER / MOLAR_MASS_WATER, ETHANOL / MOLAR_MASS_ETHANOL
    span = (np.log(n_w), np.log(n_w * share))
    solved = solve_ivp(slope, span, [np.log(n_e)], rtol=1e-9, atol=1e-12, max_step=0.002)
    reference = np.exp(solved.y[0, -1]) * MOLAR_MASS_ETHANOL
    assert ethanol_left(ETHANOL, WATER, WATER * share) == pytest.approx(reference, rel=5e-3)


def test_bounds() -> None:
    assert ethanol_left(0.0, 100.0, 50.0) == 0.0
    assert ethanol_left(10.0, 100.0, 100.0) == 10.0
    assert ethanol_left(10.0, 100.0, 0.0) == 0.0
