"""Salt: what is in the pot, what will be, and how much to add."""

from __future__ import annotations

import math
from collections.abc import Mapping
from itertools import pairwise
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import BaseModel, ConfigDict, Field
from scipy.special import ndtr

from ..amounts.estimate import Z80, Estimate
from ..amounts.fields import Percent
from ..amounts.quantities import ML_PER_TSP
from ..amounts.tables import one_of, span, table
from ..errors import TargetError
from ..ledger.contents import Contents
from ..messages import say

Verdict = Literal["flat", "nearly", "right", "salty", "too_salty"]
StockKind = Literal["salted", "reduced_salt", "low_salt", "unsalted"]

#: A kind of salt, by its key: rows of ``data/salts.csv``.
SaltKind = Annotated[str, *one_of("salts", outlives=True)]

#: Salt in strained liquid made with each kind of stock, % by weight: rows of ``data/stocks.csv``.
STOCK_PERCENT: Mapping[str, Estimate] = table("stocks", lambda row: span(row, "percent"))

#: Error of a pocket salt meter: points of salt, and as a share of what it shows, 80 % of the time. Modelling choices.
METER_ERROR, METER_SHARE = 0.05, 0.05


def meter_error(percent: float) -> float:
    """Standard error of a salt meter that shows ``percent``, points of salt."""
    return math.hypot(METER_ERROR, METER_SHARE * percent) / Z80


class Tongue:
    """What a tongue says of how far something is over what it likes: where each word stands, and its standard error."""

    def __init__(self, stands: Mapping[str, float], error: float) -> None:
        self.stands, self.error = stands, error

    @property
    def ends(self) -> Mapping[str, tuple[float, float]]:
        """Ends of each answer, halfway between two words; of five, not enough and too much stand beside right too."""
        words = list(self.stands.values())
        between = [-math.inf, *((a + b) / 2.0 for a, b in pairwise(words)), math.inf]
        five = dict(zip(self.stands, pairwise(between), strict=True))
        low, high = five["right"]
        return five | {"low": (-math.inf, low), "high": (high, math.inf)}

    def says(self, gap: NDArray[np.float64], times: int = 1) -> NDArray[np.float64]:
        """Chance of each of the five words, in rows, of sauces ``gap`` points over what is liked, tasted so often."""
        error, five = self.error / math.sqrt(times), [self.ends[word] for word in self.stands]
        return np.stack([ndtr((high - gap) / error) - ndtr((low - gap) / error) for low, high in five])


#: Points of salt over what is liked: rows of ``data/tastes.csv``. Strained liquid is judged hot, unbound and against a
#: memory, a sauce as it is eaten. Modelling choices around common practice.
RAW = Tongue(table("tastes", lambda row: float(row["raw"])), 0.25)
SAUCE = Tongue(table("tastes", lambda row: float(row["sauce"])), 0.12)

#: How far a kitchen's liking lies from what it says, points of salt. Modelling choice.
LIKING_ERROR = 0.06


def tasted(gap: float, error: float, verdict: str, tongue: Tongue = SAUCE, times: int = 1) -> tuple[float, float]:
    """How far over the liking a sauce is, and how well that is known, after a taste; points of salt.

    Parameters
    ----------
    gap, error : before it, as a normal distribution.
    verdict : what the tongue said; of so many ``times`` together.
    """
    low, high = tongue.ends[verdict]
    off = tongue.error / math.sqrt(times)
    apart = max(low - gap, gap - high, 0.0) / math.hypot(error, off)
    if apart > CONTRADICTS_SD:
        # Out there no share of the answer is left to weigh: its nearer end stands for it.
        sure, said = 1.0 / error**2, 1.0 / off**2
        mean = (sure * gap + said * (low if gap < low else high)) / (sure + said)
        return mean, (sure + said) ** -0.5 * apart / CONTRADICTS_SD
    # What is tasted is normal, and cut off at both ends of the answer (its moments: any textbook of statistics).
    v = math.hypot(error, off)
    a, b = (low - gap) / v, (high - gap) / v
    share = float(ndtr(b) - ndtr(a))
    up, spread = (_density(a) - _density(b)) / share, (_moment(a) - _moment(b)) / share
    kept = error**2 / v
    return gap + kept * up, math.sqrt((error * off / v) ** 2 + kept**2 * max(1.0 + spread - up**2, 0.0))


def _density(z: float) -> float:
    return math.exp(-0.5 * z * z) / math.sqrt(2.0 * math.pi)


def _moment(z: float) -> float:
    return z * _density(z) if math.isfinite(z) else 0.0


#: Past so many standard deviations a taste and the ledger contradict each other, and what comes of both is known worse
#: by as much as they are further apart. Modelling choice.
CONTRADICTS_SD = 3.0

#: Grams in a level teaspoon (4.93 mL) of each.
SALT_G_PER_TSP: Mapping[str, float] = table("salts", lambda row: float(row["g_per_tsp"]))

#: Sodium to salt, from molar masses 58.44 and 22.99 g/mol.
SALT_PER_SODIUM = 58.44 / 22.99

#: What is poured on a plate is told by the ten, mg. 21 CFR 101.9(c)(4) for sodium above 140 mg.
SODIUM_STEP_MG = 10.0


def sodium_mg(contents: Contents, helping_ml: float) -> float:
    """Sodium in a helping of so many mL, mg, to the nearest 10 as a label tells it.

    >>> round(sodium_mg(Contents(water=990.0, salt=9.0), 60.0))  # 0.54 g of salt ÷ 2.542
    210
    """
    salt_g = contents.salt * helping_ml / contents.liquid_ml
    return SODIUM_STEP_MG * round(1000.0 * salt_g / SALT_PER_SODIUM / SODIUM_STEP_MG)


#: What salt contents of a finished sauce are called, % by weight: rows of ``data/salt_words.csv``.
SALT_WORDS: Mapping[str, float] = table("salt_words", lambda row: float(row["percent"]))

#: What most kitchens aim for, and past which most diners find it too salty, % by weight.
USUAL_SALT_PERCENT = SALT_WORDS["usual"]
USUAL_CEILING_PERCENT = SALT_WORDS["too_salty"]


#: A liking is what is proposed once so many batches have taught it, to the nearest so many points. Modelling choices.
TAUGHT_BY, LIKING_STEP = 3, 0.05


#: What of a sauce besides its salt a kitchen may lean to: steps of body, and natural logarithms of a taste.
LeantOf = Literal["body", "sour", "bitter"]


class Leant(BaseModel):
    """How much more of something than is usual a kitchen likes, its standard error, and how many batches taught it."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    by: float = Field(ge=-20, le=20)
    error: float = Field(ge=0, le=20)
    batches: int = Field(ge=0)

    @property
    def proposes(self) -> bool:
        """Whether batches enough have taught it."""
        return self.batches >= TAUGHT_BY


class LearnedLiking(BaseModel):
    """The salt that a kitchen likes, as its batches taught it: %, its standard error, and how many batches; and what
    else it leans to."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    percent: float = Field(ge=0, le=10)
    error: float = Field(ge=0, le=1)
    batches: int = Field(ge=0)
    more: dict[LeantOf, Leant] = {}

    @property
    def proposes(self) -> bool:
        """Whether batches enough have taught it."""
        return self.batches >= TAUGHT_BY

    @property
    def proposed_percent(self) -> float:
        """What is proposed where nobody says otherwise, %."""
        if not self.proposes:
            return USUAL_SALT_PERCENT
        return round(round(self.percent / LIKING_STEP) * LIKING_STEP, 2)

    def leans(self, of: LeantOf) -> Leant:
        """How much more of something is liked; nothing, where too few batches taught it."""
        found = self.more.get(of)
        return found if found is not None and found.proposes else NOT_LEANT

    @property
    def steps(self) -> int:
        """How many steps thicker than suits the dish the kitchen has its sauces."""
        return round(self.leans("body").by)


#: Nothing is known of what a kitchen likes of it.
NOT_LEANT = Leant(by=0.0, error=0.0, batches=0)


class SaltByTaste(BaseModel):
    """How salty the strained liquid tastes."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    by: Literal["taste"] = "taste"
    verdict: Verdict


class SaltByMeter(BaseModel):
    """What a salt meter shows, % by weight."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    by: Literal["meter"] = "meter"
    percent: Percent


class SaltByStock(BaseModel):
    """Which kind of stock went into the braise."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    by: Literal["stock"] = "stock"
    stock: StockKind


class SaltByList(BaseModel):
    """Nobody measured or tasted it: what went into the braise has to tell."""

    model_config = ConfigDict(frozen=True, extra="forbid")
    by: Literal["list"] = "list"


SaltStart = Annotated[SaltByTaste | SaltByMeter | SaltByStock | SaltByList, Field(discriminator="by")]


def starting_salt_percent(start: SaltByTaste | SaltByMeter | SaltByStock) -> Estimate:
    """Salt content of the strained liquid, % by weight, with its 80 % interval."""
    if isinstance(start, SaltByTaste):
        best = USUAL_SALT_PERCENT + RAW.stands[start.verdict]
        return Estimate(max(best - Z80 * RAW.error, 0.0), best, best + Z80 * RAW.error)
    if isinstance(start, SaltByStock):
        return STOCK_PERCENT[start.stock]
    error = Z80 * meter_error(start.percent)
    return Estimate(max(start.percent - error, 0.0), start.percent, start.percent + error)


def salt_to_add_g(salt_g: float, mass_g: float, target_percent: float, carrier_salt: float = 1.0) -> float:
    """Seasoning that brings a sauce to a salt content, g; zero if it is there or past it.

    From (S + s·x) / (M + x) = t follows x = (t·M − S) / (s − t).

    Parameters
    ----------
    salt_g, mass_g : salt and everything (floating fat left out) in the pot, g.
    target_percent : wanted salt content, % by weight.
    carrier_salt : share of salt in what is added, 1 for salt.

    Raises
    ------
    TargetError : the carrier is no saltier than the target.
    """
    target = target_percent / 100.0
    if carrier_salt <= target:
        raise TargetError("salt", say("events.not_saltier"))
    return max((target * mass_g - salt_g) / (carrier_salt - target), 0.0)


def salt_spoon_ml(salt_g: float, kind: SaltKind) -> float:
    """Level volume of ``salt_g`` g of a kind of salt, mL."""
    return salt_g / SALT_G_PER_TSP[kind] * ML_PER_TSP
