"""Heat that is conducted into a piece or out of a tray: when its middle has come to a temperature.

A plate of half thickness L, or a cube of the same, in surroundings of a steady temperature: the first term of the
series
(any textbook of heat transfer), which is near enough once the middle has begun to follow,

    (T_around - T_middle) / (T_around - T_0) = (C exp(-z² Fo))^n,   z tan z = Bi,   C = 4 sin z / (2 z + sin 2z)

with Fo = a·t/L², Bi = h·L/k, and n = 1 for a plate and 3 for a cube. Pinned to SciPy's integration of the heat equation
(tests/reference/test_warming.py and test_chilling.py).
"""

from __future__ import annotations

import math

from scipy.optimize import brentq


def conducted_min(
    half_mm: float,
    times: int,
    start_c: float,
    around_c: float,
    middle_c: float,
    *,
    w_m2k: float,
    mm2_min: float,
    w_m_k: float,
) -> float:
    """Minutes until the middle comes from ``start_c`` to ``middle_c``.

    Parameters
    ----------
    half_mm, times : half its thickness, and in how many directions heat passes: 1 for a plate, 3 for a cube.
    around_c : what surrounds it, °C.
    w_m2k, mm2_min, w_m_k : heat transfer to it, W/(m² K); its diffusivity, mm²/min; its conductivity, W/(m K).

    Raises
    ------
    ValueError : what surrounds it is not past ``middle_c``: it never comes there.
    """
    left = (around_c - middle_c) / (around_c - start_c)
    if left <= 0.0:
        raise ValueError("it never comes there")
    if left >= 1.0:
        return 0.0
    z = _root(w_m2k * half_mm / 1000.0 / w_m_k)
    fourier = max(math.log(_first(z) / left ** (1.0 / times)), 0.0) / z**2
    return fourier * half_mm**2 / mm2_min


def lag_min(half_mm: float, times: int, *, w_m2k: float, mm2_min: float, w_m_k: float) -> tuple[float, float]:
    """How late the middle follows what surrounds it, min: the time constant of the first term, and before that the time
    until it begins to."""
    z = _root(w_m2k * half_mm / 1000.0 / w_m_k)
    constant = half_mm**2 / (times * mm2_min * z**2)
    return constant, constant * times * math.log(_first(z))


def _root(biot: float) -> float:
    """The first root of z tan z = Bi."""
    return float(brentq(lambda z: z * math.tan(z) - biot, 1e-9, math.pi / 2.0 - 1e-9))


def _first(z: float) -> float:
    """The first coefficient of the series."""
    return 4.0 * math.sin(z) / (2.0 * z + math.sin(2.0 * z))
