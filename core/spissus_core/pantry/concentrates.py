"""Concentrates made up with water, and the salt that a label declares."""

from __future__ import annotations

from dataclasses import dataclass

from ..amounts.quantities import show_percent
from ..errors import QuantityError
from ..messages import say
from ..phenomena.seasoning import SALT_PER_SODIUM

#: A European label's "salt" is sodium × 2.5 (Regulation (EU) 1169/2011, Annex I); real salt is 2.542 × sodium.
LABEL_SALT_TO_SALT = SALT_PER_SODIUM / 2.5


@dataclass(frozen=True, slots=True)
class MadeUp:
    """Concentrate and water that together make a volume, mL."""

    concentrate_ml: float
    water_ml: float


def made_up(volume_ml: float, concentrate_parts: float, water_parts: float) -> MadeUp:
    """What makes exactly ``volume_ml`` mL from so many parts of concentrate and of water.

    ``a`` parts to ``b`` make a + b parts: V·a/(a + b) of concentrate and V·b/(a + b) of water. Volumes
    are taken to add up.

    Raises
    ------
    QuantityError : no volume, or no parts.
    """
    if volume_ml <= 0.0:
        raise QuantityError("volume_ml", say("pantry.how_much_in_all"))
    if concentrate_parts <= 0.0 or water_parts < 0.0:
        raise QuantityError("parts", say("pantry.give_parts"))
    part = volume_ml / (concentrate_parts + water_parts)
    return MadeUp(part * concentrate_parts, part * water_parts)


def salt_from_sodium_percent(sodium_mg: float, serving_g: float) -> float:
    """Salt, % by weight, from the sodium of one serving on a label.

    Raises
    ------
    QuantityError : no serving, or more sodium than salt itself holds.
    """
    if serving_g <= 0.0:
        raise QuantityError("serving", say("pantry.how_big_serving"))
    percent = 100.0 * sodium_mg * SALT_PER_SODIUM / 1000.0 / serving_g
    if not 0.0 <= percent <= 100.0:
        raise QuantityError("sodium", say("pantry.check_sodium", salt=show_percent(percent, 0)))
    return percent


def salt_from_label_salt(label_salt_g: float) -> float:
    """Real salt, g, from the "salt" of a European label, g.

    >>> round(salt_from_label_salt(1.0), 3)  # 2.542 / 2.5, atomic masses of IUPAC
    1.017
    """
    return label_salt_g * LABEL_SALT_TO_SALT
