"""Meat warmed in the sauce, against SciPy's integration of the heat equation and the times of the trade."""

from __future__ import annotations

import numpy as np
import pytest
from numpy.typing import NDArray
from scipy.integrate import solve_ivp
from spissus_core.phenomena.limits import USUAL
from spissus_core.phenomena.warming import (
    CONDUCTIVITY_W_M_K,
    DIFFUSIVITY_MM2_MIN,
    GENTLE_C,
    SIMMER_C,
    TRANSFER_W_M2_K,
    warming_min,
)

#: Layers of half a plate.
LAYERS = 40


def left_in_a_plate(thick_mm: float, minutes: float) -> float:
    """What is left of the difference to the sauce in the middle of a plate, as a share, by finite volumes."""
    step = thick_mm / 2.0 / LAYERS
    biot = TRANSFER_W_M2_K * step / 1000.0 / CONDUCTIVITY_W_M_K

    def warms(_: float, left: NDArray[np.float64]) -> NDArray[np.float64]:
        # No heat crosses the middle; at the surface half a layer and the film stand in a row.
        flows = np.concatenate(([0.0], np.diff(left), [-left[-1] / (0.5 + 1.0 / biot)]))
        return DIFFUSIVITY_MM2_MIN / step**2 * np.diff(flows)

    ran = solve_ivp(warms, (0.0, minutes), np.ones(LAYERS), method="LSODA", rtol=1e-8, atol=1e-10)
    return float(ran.y[0, -1])


@pytest.mark.parametrize(
    ("thick_mm", "shape"), [(10.0, "slab"), (14.0, "slab"), (30.0, "slab"), (40.0, "cube"), (60.0, "cube")]
)
def test_the_middle_is_hot_when_the_heat_equation_says_so(thick_mm: float, shape: str) -> None:
    minutes = warming_min(thick_mm, shape, 4.0).best  # type: ignore[arg-type]
    # A cube is the product of three plates (any textbook of heat transfer).
    left = left_in_a_plate(thick_mm, minutes) ** (1 if shape == "slab" else 3)
    assert SIMMER_C - (SIMMER_C - 4.0) * left == pytest.approx(USUAL.reheat_c, abs=0.7)


def test_times_are_those_of_the_trade() -> None:
    """Handbook of the trade, section 11: common practice."""
    cubes, pieces = warming_min(40.0, "cube", 4.0), warming_min(50.0, "cube", 4.0)
    assert 15.0 < cubes.best < 24.0
    assert 30.0 < pieces.best < 40.0
    assert 8.0 < warming_min(14.0, "slab", 4.0).best < 12.0
    assert warming_min(50.0, "cube", 4.0, GENTLE_C).best == pytest.approx(54.0, abs=8.0)
    assert warming_min(50.0, "cube", USUAL.reheat_c).best == 0.0


def test_no_sauce_warms_meat_past_itself() -> None:
    with pytest.raises(ValueError, match="no warmer"):
        warming_min(20.0, "slab", 4.0, sauce_c=70.0)
