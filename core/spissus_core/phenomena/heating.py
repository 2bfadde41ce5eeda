"""What drives the vapour out of a pot: a burner at a boil, the surface below it, or an oven."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal, NamedTuple, cast

from pydantic import BaseModel, ConfigDict, Field

from ..amounts.fields import Celsius, Name
from ..amounts.tables import table
from ..ledger.water import LATENT_HEAT_KJ_KG, boils_at_c
from ..measuring.vessels import Pan
from .evaporation import (
    BOILING_SPREAD,
    COVERS,
    SIMMERING_SPREAD,
    Cover,
    boiling_rate_g_min,
    oven_rate_g_min,
    simmering_rate_g_min,
)

HeatKind = Literal["simmer", "boil", "oven"]

#: Whatever a pot may stand on; kept warm it steams, and teaches nothing of a stove.
Heat = Literal["off", "simmer", "boil", "oven", "hold"]

#: ICAO standard atmosphere: kPa at sea level, share lost with each metre, and exponent.
SEA_LEVEL_KPA, PER_METRE, ICAO_EXPONENT = 101.325, 2.25577e-5, 5.25588


def boiling_point_c(altitude_m: float) -> float:
    """Temperature at which water boils at an altitude, °C. About 1 °C less for every 300 m.

    Pressure by the ICAO standard atmosphere, p = 101.325·(1 − 2.25577e-5·h)^5.25588 kPa; pinned to CoolProp within
    0.2 K (tests/reference/test_learning.py).

    >>> round(boiling_point_c(1500.0))  # CoolProp at 84.6 kPa: 95.0
    95
    """
    return boils_at_c(SEA_LEVEL_KPA * (1.0 - PER_METRE * altitude_m) ** ICAO_EXPONENT)


class LearnedRate(BaseModel):
    """What earlier batches taught of one pan on one burner: net power, kW, and its log standard deviation."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    heat: HeatKind
    net_kw: float = Field(gt=0, le=40)
    spread: float = Field(gt=0, le=1)
    batches: int = Field(ge=1)


class Burner(BaseModel):
    """A heat source: net power into the liquid at the setting used for reducing, kW.

    ``boils_c`` is what water boils at in this kitchen, °C, and ``learned`` what is known of the burner with
    the pan at hand.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Name
    net_kw: float = Field(ge=0.05, le=20)
    boils_c: float = Field(default=100.0, ge=60, le=105)
    learned: Annotated[tuple[LearnedRate, ...], Field(max_length=3)] = ()


#: A sauce is kept warm at about this, °C. Handbook of the trade, section 11: 60 to 65 with butter in it.
USUAL_HOLD_C = 65.0


class HeatSetting(BaseModel):
    """How a pot is heated: a boil at a share of the burner's power, a simmer, in an oven, or kept at ``hold_c``."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    heat: Heat = "boil"
    share: float = Field(default=1.0, ge=0.05, le=3)
    cover: Cover = "open"
    oven_c: Celsius = 150.0
    hold_c: Celsius = USUAL_HOLD_C


#: What is taken for granted until the cook says otherwise.
FULL_BOIL = HeatSetting()


class HeatRow(NamedTuple):
    """A heat as a cook says it: its label, what it is, and the share of the burner's power."""

    label: str
    heat: Heat
    share: float


#: The heats that are offered: rows of ``data/heats.csv``.
HEATS: Mapping[str, HeatRow] = table(
    "heats", lambda row: HeatRow(row["label"], cast(Any, row["heat"]), float(row["share"]))
)


def heat_key(setting: HeatSetting) -> str:
    """The offered heat that comes nearest to a setting."""
    alike = {key: row for key, row in HEATS.items() if row.heat == setting.heat}
    return min(alike, key=lambda key: abs(alike[key].share - setting.share))


@dataclass(frozen=True, slots=True)
class Power:
    """Heat that goes into vapour, kJ/min, with its log standard deviation; ``batches`` it was learned from."""

    kj_min: float
    spread: float
    batches: int = 0

    @property
    def steam_g_min(self) -> float:
        """Water vapour it makes, g/min."""
        return self.kj_min / LATENT_HEAT_KJ_KG * 1000.0


def power(pan: Pan, burner: Burner, setting: HeatSetting, depth_mm: float) -> Power | None:
    """Heat into vapour from one pan on one burner; None where the heat is off, or drives nothing out.

    Boiling: the burner's net power. Simmering: what the surface lets go, never more than the burner
    gives. In an oven: the heat that passes from its air. A cover keeps most of it in. What was learned
    of pan and burner takes the place of the guess.
    """
    if setting.heat == "off":
        return None
    found = _driven(pan, burner, setting, depth_mm)
    return found if found.steam_g_min >= LEAST_STEAM_G_MIN else None


#: Less steam than this is no heating: an oven below the boil, g/min. Modelling choice.
LEAST_STEAM_G_MIN = 0.05


def _driven(pan: Pan, burner: Burner, setting: HeatSetting, depth_mm: float) -> Power:
    cover = COVERS[setting.cover].share.best
    known = next((rate for rate in burner.learned if rate.heat == setting.heat), None)
    if setting.heat == "boil":
        kw = (known.net_kw if known else burner.net_kw) * setting.share
        return _power(kw * 60.0 * cover, known, BOILING_SPREAD)
    if known is not None:
        return _power(known.net_kw * 60.0 * cover, known, known.spread)
    if setting.heat == "simmer":
        rate = min(simmering_rate_g_min(pan.area_mm2(depth_mm)).best, boiling_rate_g_min(burner.net_kw).best)
    elif setting.heat == "hold":
        rate = simmering_rate_g_min(pan.area_mm2(depth_mm), setting.hold_c).best
    else:
        surface = pan.area_mm2(depth_mm)
        wall = math.pi * math.sqrt(4.0 * surface / math.pi) * pan.height_mm
        rate = oven_rate_g_min(2.0 * surface + wall, setting.oven_c).best
    return _power(rate * LATENT_HEAT_KJ_KG / 1000.0 * cover, None, SIMMERING_SPREAD)


def _power(kj_min: float, known: LearnedRate | None, spread: float) -> Power:
    return Power(kj_min, known.spread if known else spread, known.batches if known else 0)
