"""Properties of water, the part of a sauce that boils away."""

from __future__ import annotations

import math

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


#: Coefficients of :func:`density_kg_m3`: of the numerator by rising power of °C, and of the denominator.
KELL_TOP = (999.83952, 16.945176, -7.9870401e-3, -46.170461e-6, 105.56302e-9, -280.54253e-12)
KELL_BOTTOM = 16.879850e-3


def density_kg_m3(celsius: float) -> float:
    """Density of liquid water at atmospheric pressure, kg/m³.

    Valid from 0 to 100 °C. Source: Kell, G. S., J. Chem. Eng. Data 20 (1975) 97, equation 16; pinned to
    IAPWS-95 within 0.01 % (tests/reference/test_water_and_solutions.py).

    >>> round(density_kg_m3(20.0), 1)  # IAPWS-95: 998.2
    998.2
    """
    top = sum(a * celsius**power for power, a in enumerate(KELL_TOP))
    return top / (1.0 + KELL_BOTTOM * celsius)


#: Antoine's equation for water from 1 to 105 °C, log₁₀ p = a − b / (c + t) with p in mmHg, and mmHg in kPa.
ANTOINE_A, ANTOINE_B, ANTOINE_C, KPA_PER_MMHG = 8.07131, 1730.63, 233.426, 0.133322


def vapour_pressure_kpa(celsius: float) -> float:
    """Saturation vapour pressure of water, kPa, 1 to 105 °C.

    Antoine's equation; pinned to IAPWS-95 within 0.5 % from 20 °C on (tests/reference/test_water_and_solutions.py).

    >>> round(vapour_pressure_kpa(100.0), 1)  # IAPWS-95: 101.4
    101.3
    """
    return float(KPA_PER_MMHG * 10.0 ** (ANTOINE_A - ANTOINE_B / (ANTOINE_C + celsius)))


def boils_at_c(pressure_kpa: float) -> float:
    """Temperature at which water boils under a pressure, °C: the same equation turned round.

    >>> round(boils_at_c(101.325), 1)  # by definition of the old degree: 100.0
    100.0
    """
    return ANTOINE_B / (ANTOINE_A - math.log10(pressure_kpa / KPA_PER_MMHG)) - ANTOINE_C


def expansion(celsius: float) -> float:
    """Volume at ``celsius`` over volume at 20 °C: a jug filled hot reads high.

    >>> round(expansion(95.0), 3)  # IAPWS-95: 998.2 / 961.9
    1.038
    """
    return density_kg_m3(REFERENCE_C) / density_kg_m3(celsius)


HOT_EXPANSION = expansion(OFF_THE_BOIL_C)
