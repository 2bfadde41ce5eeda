"""The sauce on the plate: how warm it is there, and how much thicker than on the spoon.

A film of sauce on a plate cools as anything does (Newton), the sooner the colder the plate; each kelvin below the 60 °C
of the spoon thickens it by as much as water and what is dissolved in it do together (an Arrhenius law of about
18 kJ/mol, which is that of water between 40 and 60 °C and of most bound sauces within a third; from memory). What sets
as a jelly does so below 30 °C, where nobody eats it.
"""

from __future__ import annotations

import math
from typing import NamedTuple

#: Temperature at which body is told, °C.
SPOON_C = 60.0

#: Activation energy of the viscosity, J/mol, and the gas constant, J/(mol K). From memory.
ACTIVATION_J_MOL, GAS_J_MOL_K = 18_000.0, 8.314


class Plate(NamedTuple):
    """A plate: how warm the sauce is on it at once, °C, and by which minutes it comes a third of the way to the room's
    20 °C. Modelling choices: a plate of 600 g takes the heat of 60 mL at once, then both cool together."""

    at_once_c: float
    constant_min: float


WARM_PLATE, COLD_PLATE = Plate(62.0, 45.0), Plate(48.0, 40.0)

#: A room, °C; and the minutes after which a plate is still being eaten from. Common practice.
ROOM_C, EATEN_MIN = 20.0, 10.0


def on_plate_c(plate: Plate, minutes: float = EATEN_MIN) -> float:
    """Temperature of the sauce after so many minutes, °C.

    >>> round(on_plate_c(WARM_PLATE)), round(on_plate_c(COLD_PLATE))
    (54, 42)
    """
    return ROOM_C + (plate.at_once_c - ROOM_C) * math.exp(-minutes / plate.constant_min)


def thicker_times(celsius: float) -> float:
    """How many times as viscous as at 60 °C.

    >>> round(thicker_times(40.0), 2)  # water: 0.653 mPa·s at 40 °C and 0.466 at 60 °C, 1.40 times (CRC Handbook)
    1.51
    """
    return math.exp(ACTIVATION_J_MOL / GAS_J_MOL_K * (1.0 / (celsius + 273.15) - 1.0 / (SPOON_C + 273.15)))
