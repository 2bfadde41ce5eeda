"""What is in a strained liquid by the list of what went in, and how well it is known.

Spreads follow the guide to the expression of uncertainty in measurement (JCGM 100): the balance is worked out again
with each uncertain figure at the ends of its range, and the logarithms of the ratios are added in quadrature.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from types import MappingProxyType

from ..amounts.estimate import Estimate
from ..amounts.quantities import show_number, show_percent
from ..errors import QuantityError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..measuring.vessels import Pan
from ..messages import Message, say, sentences
from ..pantry.ingredients import SOLIDS
from ..phenomena.alcohol import (
    ADDED_AND_OFF_THE_HEAT,
    AlcoholLeft,
    left_by_table,
    left_by_vapour,
    strength_percent,
)
from .balance import LEANS, LEAST_OF_WATER, Balance, Poured, as_poured, balance, most_left
from .braise import Braise
from .doings import Use
from .terms import MATTERS, Terms, grams_shown, terms_of


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimated:
    """The ledger of a strained liquid from what went into its braise.

    ``contents`` holds best values; ``ranges`` the 80 % intervals of its masses, g, and
    ``liquid_ml`` that of its volume; ``percent`` those of salt, gelatin and acid in g per 100 g of liquid, and of
    alcohol in % vol. ``terms`` are the steps to each figure. ``contradiction`` says what cannot be, and which line
    makes it so.
    """

    contents: Contents
    liquid_ml: Estimate
    ranges: Mapping[str, Estimate]
    percent: Mapping[str, Estimate]
    alcohol: AlcoholLeft
    contradiction: Message | None
    terms: Mapping[str, Terms]
    allergens: tuple[str, ...]
    lifts_below_c: float | None
    stays_soft: bool


#: What holds less water than this, as a share of its weight, is no liquid. Modelling choice.
LEAST_WATER = 0.3

#: Nor is less water than this in a whole pot, g. Modelling choice.
LEAST_WATER_G = 20.0

#: Saltier than this, % by weight, or with more gelatin than a glaze has in it, no strained liquid is: a line was
#: misread. Modelling choices.
MOST_SALT_PERCENT, MOST_GELATIN_PERCENT = 4.0, 15.0

#: Less alcohol than this counts as none, g; of what went in off the heat at least this share is left (the table's
#: 85 % by its spread). Modelling choices.
NO_ALCOHOL_G, LATE_AT_LEAST = 0.05, 0.8

#: What is given a range, by name of the ledger.
RANGED = ("salt", "gelatin", "fat_free", "sugar", "acid", "acetic", "pulp", "other")


def estimate(braise: Braise, pan: Pan, liquid_ml: float | None = None) -> Estimated:
    """What is in the strained liquid of a braise.

    Parameters
    ----------
    braise : what went in, and how it was cooked and strained.
    pan : the pot it cooked in, or one like it: its surface sets the loss where nothing was measured.
    liquid_ml : the strained liquid as measured, mL at 20 °C without floating fat; None to estimate it.

    Raises
    ------
    QuantityError : no line counts, or nothing liquid is left.
    """
    if not braise.counted:
        raise QuantityError("lines", say("intake.nothing_counts"))
    poured = tuple(Poured(line, as_poured(line)) for line in braise.counted if line.what.group not in SOLIDS)
    best = balance(braise, poured, pan, {}, liquid_ml)
    if best.contents.water < max(LEAST_WATER_G, LEAST_WATER * best.contents.liquid_g):
        raise QuantityError("lines", say("intake.no_liquid_left"))
    leaned = leaned_ways(braise, poured, pan, liquid_ml)
    ranges = {
        name: _spread(getattr(best.contents, name), [getattr(b.contents, name) for b in leaned]) for name in RANGED
    }
    alcohol = _alcohol(braise, poured, best, measured=liquid_ml is not None)
    contents = best.contents.with_masses(ethanol=alcohol.grams.best)
    if liquid_ml is None:
        volume = _spread(best.contents.liquid_ml, [b.contents.liquid_ml for b in leaned])
        # The alcohol that has left takes its room with it, in each working-out alike.
        volume = volume.scaled(contents.liquid_ml / best.contents.liquid_ml)
    else:
        contents = _filled(contents, liquid_ml)
        volume = Estimate.exact(liquid_ml)
    meats = [line.what for line in braise.counted if line.what.cut]
    set_points = [meat.lifts_below_c for meat in meats if meat.lifts_below_c is not None]
    return Estimated(
        contents=contents,
        liquid_ml=volume,
        ranges=MappingProxyType(ranges),
        percent=MappingProxyType(_percents(best, leaned) | {"alcohol": _strength(alcohol, volume)}),
        alcohol=alcohol,
        contradiction=_contradiction(best, measured=liquid_ml is not None),
        terms=terms_of(best, braise, ranges, alcohol),
        allergens=tuple(sorted({name for line in braise.counted for name in line.what.allergens})),
        lifts_below_c=min(set_points, default=None),
        stays_soft=any(meat.lifts_below_c is None for meat in meats),
    )


def _contradiction(best: Balance, *, measured: bool) -> Message | None:
    """What cannot be, and the line that makes it so; None where all of it can."""
    liquid_g = best.contents.liquid_g
    salt, gelatin = 100.0 * best.contents.salt / liquid_g, 100.0 * best.contents.gelatin / liquid_g
    by_salt = [(line, contents.salt) for line, contents in best.brought]
    by_gelatin = [*((line, contents.gelatin) for line, contents in best.brought), *best.melted]
    for percent, most, what, lines in (
        (salt, MOST_SALT_PERCENT, MATTERS["salt"], by_salt),
        (gelatin, MOST_GELATIN_PERCENT, MATTERS["gelatin"], by_gelatin),
    ):
        worst = max(lines, key=lambda pair: pair[1], default=None)
        if percent > most and worst is not None:
            return say("intake.cannot_hold", percent=show_percent(percent, 1), what=what, line=worst[0].text)
    if not measured and best.contents.water <= 1.01 * LEAST_OF_WATER * (best.water_in + best.juice_g):
        return say("intake.nothing_left", water=grams_shown(best.water_in, 0), loss=grams_shown(best.loss_g, 0))
    return None


def leaned_ways(braise: Braise, poured: Sequence[Poured], pan: Pan, liquid_ml: float | None) -> list[Balance]:
    """The balance with each uncertain figure, and each uncertain amount, at both its ends."""
    out: list[Balance] = []
    for name in LEANS:
        out += [balance(braise, poured, pan, {name: end}, liquid_ml) for end in (-1, 1)]
    for place, line in enumerate(braise.lines):
        if line.spread and line.counts:
            out += [balance(braise, poured, pan, {f"line {place}": end}, liquid_ml) for end in (-1, 1)]
    return out


def _spread(best: float, leaned: Sequence[float]) -> Estimate:
    """Interval of a figure from its values at the ends of each input, two by two, in quadrature.

    Logarithms are added: a figure that is divided by the liquid that is left spreads by factors, and is never nothing.
    """
    if best <= 0.0:
        return Estimate(0.0, max(best, 0.0), max(*leaned, best, 0.0))
    down = up = 0.0
    for low, high in zip(leaned[::2], leaned[1::2], strict=True):
        lower, upper = max(min(low, high, best), LEAST_SHARE * best), max(low, high, best)
        down += math.log(best / lower) ** 2
        up += math.log(upper / best) ** 2
    return Estimate(best * math.exp(-math.sqrt(down)), best, best * math.exp(math.sqrt(up)))


#: What a figure leans down to is no less than this share of it: numbers, not cooks, make it nothing.
LEAST_SHARE = 1e-3


#: What is told in per cent of the liquid, too: g per 100 g, by the masses that make it.
IN_PERCENT: Mapping[str, tuple[str, ...]] = MappingProxyType(
    {"salt": ("salt",), "gelatin": ("gelatin",), "acid": ("acid", "acetic")}
)


def _percents(best: Balance, leaned: Sequence[Balance]) -> dict[str, Estimate]:
    """Contents in per cent of the liquid that is left, each leaned as such: less liquid is saltier."""

    def percent(of: Balance, masses: tuple[str, ...]) -> float:
        mass_g = sum(float(getattr(of.contents, name)) for name in masses)
        return 100.0 * mass_g / of.contents.liquid_g

    return {
        name: _spread(percent(best, masses), [percent(one, masses) for one in leaned])
        for name, masses in IN_PERCENT.items()
    }


def _strength(alcohol: AlcoholLeft, liquid_ml: Estimate) -> Estimate:
    """Alcohol in % vol: by how much of it is left, and in how much liquid."""
    grams, best = alcohol.grams, strength_percent(alcohol.grams.best, liquid_ml.best)
    if best <= 0.0:
        return Estimate(0.0, 0.0, strength_percent(grams.high, liquid_ml.best))
    lows = (max(grams.low / grams.best, LEAST_SHARE), liquid_ml.best / liquid_ml.high)
    highs = (grams.high / grams.best, liquid_ml.best / max(liquid_ml.low, LEAST_SHARE * liquid_ml.best))
    down, up = (math.sqrt(sum(math.log(share) ** 2 for share in shares)) for shares in (lows, highs))
    return Estimate(best * math.exp(-down), best, best * math.exp(up))


def _alcohol(braise: Braise, poured: Sequence[Poured], best: Balance, *, measured: bool) -> AlcoholLeft:
    """Alcohol left: by vapour for an open pot that was measured, by the table otherwise."""

    def ethanol(*uses: Use) -> float:
        return sum(one.contents.ethanol for one in poured if one.line.use in uses)

    boiled_down, late = ethanol("reduced"), ethanol("late")
    cooked = ethanol("in", "flamed", "fried", "dredged", "rubbed")
    if cooked + late < NO_ALCOHOL_G:
        down = [one for one in poured if one.line.use == "reduced"]
        before = sum(one.line.what.portion(one.line.grams).ethanol for one in down)
        if before < NO_ALCOHOL_G:
            return AlcoholLeft(Estimate.exact(0.0), "none", say("intake.no_alcohol"))
        most = sum(most_left(one) for one in down)
        why = say(
            "intake.boiled_down_before",
            left=show_number(boiled_down, 2),
            all=show_number(before, 0, "g"),
            most=show_number(most, 2, "g"),
        )
        return AlcoholLeft(Estimate(0.0, boiled_down, max(most, boiled_down)), "vapour", why)
    if cooked < NO_ALCOHOL_G:
        why = say(
            "intake.off_the_heat", share=show_percent(100 * ADDED_AND_OFF_THE_HEAT, 0), left=show_number(late, 1, "g")
        )
        return AlcoholLeft(Estimate(LATE_AT_LEAST * late, late + boiled_down, late + boiled_down), "table", why)
    cooked += boiled_down
    start = best.water_in + best.juice_g
    if braise.cover == "open" and measured and best.loss_g > 0.0:
        left = left_by_vapour(cooked, start, max(start - best.loss_g, 1.0))
    else:
        why = say("intake.lid_kept_it" if braise.cover != "open" else "intake.nobody_measured")
        left = left_by_table(cooked, 60.0 * braise.hours, why)
    if late <= 0.0:
        return left
    share = show_percent(100 * ADDED_AND_OFF_THE_HEAT, 0)
    why = sentences(left.why, say("intake.added_at_the_end", grams=show_number(late, 1, "g"), share=share))
    grams = Estimate(left.grams.low + LATE_AT_LEAST * late, left.grams.best + late, left.grams.high + late)
    return AlcoholLeft(grams, left.rule, why)


def _filled(contents: Contents, liquid_ml: float) -> Contents:
    """The same solids in exactly ``liquid_ml`` mL: the water makes up the rest."""
    missing = liquid_ml - contents.liquid_ml
    water = contents.water + missing / SPECIFIC_VOLUME_ML_G["water"]
    if water <= 0.0:
        raise QuantityError("value", say("intake.too_little_for_it"))
    return contents.with_masses(water=water)
