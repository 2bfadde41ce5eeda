"""Water against IAPWS formulations (the `iapws` package); solutions against handbook densities."""

from __future__ import annotations

import math

import pytest
from CoolProp.CoolProp import PropsSI
from iapws import IAPWS95, IAPWS97
from iapws._iapws import _Ice
from scipy.integrate import quad
from spissus_core.ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from spissus_core.ledger.water import (
    HOT_EXPANSION,
    LATENT_HEAT_KJ_KG,
    VISCOSITY_60C_MPAS,
    boils_at_c,
    density_kg_m3,
    vapour_pressure_kpa,
)
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.alcohol import ETHANOL_G_ML
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.fat import MELTING_KJ_KG, VISCOSITY_80C_MPAS

ATMOSPHERE_MPA = 0.101325


@pytest.mark.parametrize("celsius", [1, 5, 20, 40, 60, 80, 95, 99])
def test_density_against_iapws_95(celsius: float) -> None:
    reference = IAPWS95(T=celsius + 273.15, P=ATMOSPHERE_MPA).rho
    assert density_kg_m3(celsius) == pytest.approx(reference, rel=1e-4)


@pytest.mark.parametrize("celsius", [20, 50, 80, 95, 100, 104])
def test_vapour_pressure_against_iapws_95(celsius: float) -> None:
    reference = IAPWS95(T=celsius + 273.15, x=0).P * 1000
    assert vapour_pressure_kpa(celsius) == pytest.approx(reference, rel=5e-3)
    assert boils_at_c(vapour_pressure_kpa(celsius)) == pytest.approx(celsius, abs=1e-9)


def test_density_of_ethanol_against_coolprop() -> None:
    assert PropsSI("D", "T", 293.15, "P", 101325, "Ethanol") / 1000 == pytest.approx(ETHANOL_G_ML, rel=3e-3)


def test_viscosity_of_hot_water_and_melting_of_ice() -> None:
    """IAPWS for water at 80 °C; the heat that melts ice from the enthalpies of IAPWS-06 and IAPWS-95."""
    assert pytest.approx(IAPWS95(T=353.15, P=ATMOSPHERE_MPA).mu * 1000, rel=5e-3) == VISCOSITY_80C_MPAS
    melted = IAPWS95(T=273.16, P=ATMOSPHERE_MPA).h - _Ice(273.152, ATMOSPHERE_MPA)["h"]
    assert pytest.approx(melted, rel=5e-3) == MELTING_KJ_KG


def test_expansion_at_95_degrees() -> None:
    cold, hot = (IAPWS95(T=t + 273.15, P=ATMOSPHERE_MPA).rho for t in (20, 95))
    assert pytest.approx(cold / hot, rel=1e-4) == HOT_EXPANSION


def test_specific_volume_of_water() -> None:
    assert SPECIFIC_VOLUME_ML_G["water"] == pytest.approx(1000 / IAPWS95(T=293.15, P=ATMOSPHERE_MPA).rho, rel=1e-4)


def test_latent_heat_against_iapws_97() -> None:
    steam, water = (IAPWS97(T=373.124, x=x).h for x in (1, 0))
    assert pytest.approx(steam - water, rel=5e-4) == LATENT_HEAT_KJ_KG


def test_viscosity_of_water_at_60_degrees() -> None:
    assert pytest.approx(IAPWS95(T=333.15, P=ATMOSPHERE_MPA).mu * 1000, rel=3e-3) == VISCOSITY_60C_MPAS


@pytest.mark.parametrize(("kilowatt", "g_min"), [(0.4, 11), (0.7, 19), (1.0, 27), (1.5, 40), (2.5, 66)])
def test_boiling_rate_is_power_over_latent_heat(kilowatt: float, g_min: float) -> None:
    steam, water = (IAPWS97(T=373.124, x=x).h for x in (1, 0))
    rate = boiling_rate_g_min(kilowatt)
    assert rate.best == pytest.approx(kilowatt * 60_000 / (steam - water), rel=1e-3)
    assert rate.best == pytest.approx(g_min, abs=0.6)


@pytest.mark.parametrize(
    ("solute", "percent", "density"),
    [
        # Densities at 20 °C, g/mL: CRC Handbook, "Concentrative properties of aqueous solutions" (from memory).
        ("salt", 1.0, 1.0053),
        ("salt", 5.0, 1.0340),
        ("salt", 10.0, 1.0707),
        ("sugar", 10.0, 1.0381),
        ("sugar", 20.0, 1.0810),
        ("sugar", 40.0, 1.1765),
        ("ethanol", 5.0, 0.9893),
        ("ethanol", 10.0, 0.9819),
    ],
)
def test_solutions_against_handbook_densities(solute: str, percent: float, density: float) -> None:
    solution = Contents(water=100.0 - percent).with_masses(**{"water": 100.0 - percent, solute: percent})
    assert solution.density_g_ml == pytest.approx(density, rel=5e-3)


@pytest.mark.parametrize("depth", [8.0, 31.0, 60.0, 95.0])
def test_pan_volumes_against_numerical_integration(depth: float) -> None:
    pans = (
        Pan.round("tapered", 160, 95, rim_mm=220),
        Pan(
            name="oval",
            shape="oval",
            base_length_mm=290,
            base_width_mm=215,
            rim_length_mm=330,
            rim_width_mm=235,
            height_mm=95,
        ),
        Pan(
            name="tray",
            shape="rectangular",
            base_length_mm=400,
            base_width_mm=270,
            rim_length_mm=440,
            rim_width_mm=300,
            height_mm=95,
        ),
    )
    for pan in pans:
        integral, _ = quad(pan.area_mm2, 0.0, depth)
        assert pan.volume_ml(depth) == pytest.approx(integral / 1000, rel=1e-9)


def test_a_round_tapered_pan_is_a_frustum() -> None:
    r0, r1, h = 80.0, 110.0, 95.0
    frustum = math.pi * h / 3 * (r0**2 + r0 * r1 + r1**2) / 1000
    assert Pan.round("tapered", 160, 95, rim_mm=220).capacity_ml == pytest.approx(frustum, rel=1e-12)
