"""Fat rising, ice melting, pots simmering: against the `fluids`, `iapws` and `CoolProp` libraries."""

from __future__ import annotations

import pytest
from CoolProp import CoolProp
from fluids.drag import v_terminal
from iapws import IAPWS95
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.evaporation import oven_rate_g_min, simmering_rate_g_min
from spissus_core.phenomena.fat import (
    LIGHTER_KG_M3,
    MELTING_KJ_KG,
    VISCOSITY_80C_MPAS,
    ice_needed_g,
    ice_price,
    rise_mm_min,
    settling_minutes,
)


@pytest.mark.parametrize("droplet_um", [5, 30, 100])
def test_rising_against_fluids(droplet_um: float) -> None:
    rho = 971.8
    reference = v_terminal(
        D=droplet_um * 1e-6, rhop=rho - LIGHTER_KG_M3, rho=rho, mu=VISCOSITY_80C_MPAS * 1e-3, Method="Stokes"
    )
    # The library falls where the particle is lighter: its sign is the other way round.
    assert rise_mm_min(droplet_um) == pytest.approx(-reference * 60_000.0, rel=2e-3)


def test_viscosity_at_80_degrees_against_iapws() -> None:
    assert pytest.approx(IAPWS95(T=353.15, P=0.101325).mu * 1000, rel=5e-3) == VISCOSITY_80C_MPAS


def test_times_to_the_top_as_the_trade_gives_them() -> None:
    # 10 cm: a couple of minutes at 100 µm, about a quarter of an hour at 30, not tonight at 5 (common practice).
    assert 0.5 <= settling_minutes(100.0, 100.0) <= 3.0
    assert 10.0 <= settling_minutes(100.0, 30.0) <= 20.0
    assert settling_minutes(100.0, 5.0) > 6 * 60
    assert settling_minutes(100.0, 30.0, thickness=20.0) == pytest.approx(20 * settling_minutes(100.0, 30.0))


@pytest.mark.parametrize(("mass", "from_c", "to_c"), [(1200, 80, 35), (600, 80, 30), (2000, 60, 22)])
def test_ice_against_an_energy_balance(mass: float, from_c: float, to_c: float) -> None:
    """Water's own enthalpies, CoolProp; a sauce's heat capacity is 4 to 5 % below water's."""

    def enthalpy(celsius: float) -> float:
        return float(CoolProp.PropsSI("H", "T", celsius + 273.15, "P", 101_325, "Water")) / 1000.0

    melting = 333.4  # kJ/kg, IAPWS-06
    reference = mass * (enthalpy(from_c) - enthalpy(to_c)) / (melting + enthalpy(to_c) - enthalpy(0.01))
    assert ice_needed_g(mass, from_c, to_c) == pytest.approx(reference, rel=0.06)
    assert pytest.approx(melting, rel=3e-3) == MELTING_KJ_KG


def test_the_price_of_ice_as_the_trade_gives_it() -> None:
    # 1.2 kg from 80 to 35 °C: about 450 g of ice, about 24 min at 1 kW to heat and boil off again.
    price = ice_price(1200, 80, 35, 1.0)
    assert price.ice_g == pytest.approx(450, abs=15)
    assert price.minutes.best == pytest.approx(24, abs=2)
    assert ice_needed_g(1200, 30, 35) == 0.0


@pytest.mark.parametrize(("width", "g_min"), [(240, 20), (320, 35)])
def test_a_simmering_pan_loses_what_the_trade_says(width: float, g_min: float) -> None:
    rate = simmering_rate_g_min(Pan.round("pan", width, 100).area_mm2(0.0))
    # Tank tables and a film with Stefan flow, from memory: 20 g/min (10 to 34) at 95 °C from 24 cm, 35 from 32 cm.
    assert rate.best == pytest.approx(g_min, rel=0.08)
    assert rate.low < g_min < rate.high


def test_an_open_pot_in_the_oven_loses_what_the_trade_says() -> None:
    pan = Pan.round("pan", 240, 120)
    outside = 2 * pan.area_mm2(0.0) + 3.14159 * 240 * 120
    # 4 to 8 g/min for a 24 cm pot at 130 to 160 °C (modelling choice).
    assert 3.0 < oven_rate_g_min(outside, 130).best < 6.0
    assert 5.0 < oven_rate_g_min(outside, 160).best < 9.0
    assert oven_rate_g_min(outside, 90).best == 0.0
