"""Properties of water, the part of a sauce that boils away."""

from __future__ import annotations

#: Heat that turns boiling water at 100 °C into steam, kJ/kg (IAPWS-95).
LATENT_HEAT_KJ_KG = 2256.5

#: Specific heat of a watery sauce between room temperature and the boil, kJ/(kg K).
#: Modelling choice: a little under water's 4.19, for the dissolved solids.
HEAT_CAPACITY_KJ_KG_K = 4.0

#: Viscosity of water at 60 °C, mPa·s (IAPWS formulation 2008).
VISCOSITY_60C_MPAS = 0.466

#: Temperature of liquid measured straight off the boil, °C. Modelling choice.
OFF_THE_BOIL_C = 95.0

#: Temperature taken for liquid that was measured cold, °C; the volumes of the ledger refer to it.
REFERENCE_C = 20.0


def density_kg_m3(celsius: float) -> float:
    """Density of liquid water at atmospheric pressure, kg/m³.

    Valid from 0 to 100 °C, within 0.01 % of IAPWS-95.
    Source: Kell, G. S., J. Chem. Eng. Data 20 (1975) 97, equation 16 (from memory).
    """
    t = celsius
    top = (
        999.83952 + 16.945176 * t - 7.9870401e-3 * t**2 - 46.170461e-6 * t**3
        + 105.56302e-9 * t**4 - 280.54253e-12 * t**5
    )  # fmt: skip
    return top / (1 + 16.879850e-3 * t)


def expansion(celsius: float) -> float:
    """Volume at ``celsius`` over volume at 20 °C. 1.038 at 95 °C: a jug filled hot reads high."""
    return density_kg_m3(REFERENCE_C) / density_kg_m3(celsius)


HOT_EXPANSION = expansion(OFF_THE_BOIL_C)
