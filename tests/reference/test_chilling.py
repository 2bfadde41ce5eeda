"""Cooling before it begins: against SciPy's integration, of liquid that moves and of what lies in a tray."""

from __future__ import annotations

import math

import numpy as np
import pytest
from makers import PAN
from numpy.typing import NDArray
from scipy.integrate import solve_ivp
from spissus_core.phenomena.chilling import (
    CHILLING,
    PIECE_MM,
    SAUCE_J_ML_K,
    SAUCE_MM2_MIN,
    SAUCE_W_M_K,
    TRAY_MM2,
    chilled,
    following_min,
    proposals,
    time_constant_min,
)
from spissus_core.phenomena.conduction import conducted_min
from spissus_core.phenomena.limits import USUAL
from spissus_core.phenomena.warming import CONDUCTIVITY_W_M_K, DIFFUSIVITY_MM2_MIN, TRANSFER_W_M2_K

#: Layers of half a slab.
LAYERS = 60


def middle_of_a_slab(thick_mm: float, w_m2k: float, around_c: float, minutes: float) -> float:
    """Temperature in the middle of a slab that began at 57 °C, by finite volumes, °C."""
    step = thick_mm / 2.0 / LAYERS
    biot = w_m2k * step / 1000.0 / SAUCE_W_M_K

    def cools(_: float, over: NDArray[np.float64]) -> NDArray[np.float64]:
        flows = np.concatenate(([0.0], np.diff(over), [-over[-1] / (0.5 + 1.0 / biot)]))
        return SAUCE_MM2_MIN / step**2 * np.diff(flows)

    over = np.full(LAYERS, USUAL.starts_c - around_c)
    ran = solve_ivp(cools, (0.0, minutes), over, method="LSODA", rtol=1e-8, atol=1e-8)
    return around_c + float(ran.y[0, -1])


@pytest.mark.parametrize("thick_mm", [30.0, 50.0, 100.0])
@pytest.mark.parametrize("to_c", [21.0, 5.0])
def test_a_tray_of_3_5_or_10_cm_cools_as_the_heat_equation_says(thick_mm: float, to_c: float) -> None:
    minutes = conducted_min(
        thick_mm / 2.0, 1, USUAL.starts_c, 4.0, to_c, w_m2k=14.0, mm2_min=SAUCE_MM2_MIN, w_m_k=SAUCE_W_M_K
    )
    assert middle_of_a_slab(thick_mm, 14.0, 4.0, minutes) == pytest.approx(to_c, abs=0.3)


def test_a_bath_and_then_the_fridge_cool_at_two_rates() -> None:
    """Two litres in ice water to 21 °C, then the pot in the fridge: the same from SciPy with a rate that changes."""
    bath, fridge = CHILLING["bath"], CHILLING["fridge"]
    constants = {way.key: chilled(way, 2000.0, PAN).minutes[0].best for way in (bath, fridge)}
    area = math.pi * 120.0**2
    wetted = 2.0 * area + math.pi * 240.0 * 2_000_000.0 / area
    rates = {way.key: 1.0 / time_constant_min(2000.0, wetted, way.w_m2k.best) for way in (bath, fridge)}

    def cools(_: float, celsius: NDArray[np.float64]) -> NDArray[np.float64]:
        way = bath if celsius[0] > USUAL.cooled[0].celsius else fridge
        return -rates[way.key] * (celsius - way.celsius)

    ran = solve_ivp(cools, (0.0, 120.0), [USUAL.starts_c], max_step=0.1, dense_output=True)
    reached = next(t for t in np.arange(0.0, 120.0, 0.05) if ran.sol(t)[0] <= USUAL.cooled[0].celsius)
    assert constants["bath"] == pytest.approx(reached, rel=0.03)
    assert rates["bath"] > 10.0 * rates["fridge"]


def test_a_full_pot_does_not_make_it_and_two_trays_do() -> None:
    """Handbook of the trade, section 13: a whole pot often fails; shallow, stirred, or in an ice bath it makes it."""
    found = {one.way.key: one for one in proposals(3500.0, PAN)}
    assert found["fridge"].makes == found["room"].makes == "too_slow"
    assert found["room"].minutes[1].best == math.inf
    assert found["trays"].trays == 2
    assert found["trays"].makes in ("in_time", "perhaps")
    assert found["bath"].makes == "in_time"
    assert next(iter(proposals(3500.0, PAN))).makes == "in_time"


def test_what_the_law_asks_of_a_fridge_is_what_the_limits_ask() -> None:
    """At 4 °C the time constant must be under 91 min (handbook, section 13): 53 K down to 1 K in 360 min."""
    assert 360.0 / math.log(53.0 / 1.0) == pytest.approx(91.0, abs=0.5)
    way = CHILLING["trays"]
    deep = 2.0 * 91.0 * 60.0 * way.w_m2k.best / (SAUCE_J_ML_K * 1e6) * 1000.0
    assert 30.0 < deep < 50.0
    assert chilled(way, 2.0 * TRAY_MM2 * 0.03, PAN).trays == 2


def test_the_middle_of_a_piece_follows_its_liquid_as_the_heat_equation_says() -> None:
    """A cube of 5 cm in liquid that cools by Newton's law: an octant of it in finite differences."""
    cells, constant, around = 10, 60.0, 4.0
    step = PIECE_MM / 2.0 / cells
    film = 1.0 / (1.0 / TRANSFER_W_M2_K + step / 2000.0 / CONDUCTIVITY_W_M_K)
    biot = film * step / 1000.0 / CONDUCTIVITY_W_M_K
    dt = 0.1 * step**2 / DIFFUSIVITY_MM2_MIN
    field, reached, minute = np.full((cells, cells, cells), USUAL.starts_c), list[float](), 0.0
    while len(reached) < 2:
        liquid = around + (USUAL.starts_c - around) * math.exp(-minute / constant)
        change = np.zeros_like(field)
        for axis in range(3):
            flow = np.diff(field, axis=axis)
            inner, outer = [slice(None)] * 3, [slice(None)] * 3
            inner[axis], outer[axis] = slice(0, -1), slice(1, None)
            change[tuple(inner)] += flow
            change[tuple(outer)] -= flow
            edge = [slice(None)] * 3
            edge[axis] = slice(-1, None)
            change[tuple(edge)] += biot * (liquid - field[tuple(edge)])
        field = field + 0.1 * change
        minute += dt
        if field[0, 0, 0] <= USUAL.cooled[len(reached)].celsius:
            reached.append(minute)
    ours = [following_min(constant, USUAL.starts_c, around, due.celsius) for due in USUAL.cooled]
    assert ours == pytest.approx(reached, rel=0.08)


def test_a_pot_with_its_meat_takes_longer_and_the_meat_lifted_out_less() -> None:
    bare, full = ({one.way.key: one for one in proposals(1800.0, PAN, solids_ml=ml)} for ml in (0.0, 1200.0))
    for key in ("fridge", "bath"):
        assert full[key].minutes[0].best > 1.3 * bare[key].minutes[0].best
    assert full["fridge"].makes == "too_slow"
    # Trays hold what is strained: there is no meat in them.
    assert full["trays"].minutes == bare["trays"].minutes
    assert full["trays"].lifted
    assert not bare["trays"].lifted
