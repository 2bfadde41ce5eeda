"""Amounts as cooks write them: reading them, and printing them as they can be measured.

Unit sizes come from Pint, which follows NIST SP 811; the label cup and spoons from 21 CFR 101.9;
the metric cup (250 mL) and the Australian tablespoon (20 mL) are metrication-board sizes. Spoons
and cups mean US customary measures unless the text says "metric" or "label".
"""

from __future__ import annotations

import math
import re
from fractions import Fraction
from functools import lru_cache
from typing import Literal

import pint

from ..errors import QuantityError
from ..messages import Argument, Message, Shown, say

Dimension = Literal["volume", "mass", "length", "temperature", "percent", "time", "power", "parts"]
UnitSystem = Literal["metric", "us"]

_pint: pint.UnitRegistry[float] = pint.UnitRegistry(cache_folder=None)


def _size(unit: str, base: str) -> float:
    return float(_pint.Quantity(1.0, unit).to(base).magnitude)


ML_PER_CUP = _size("cup", "milliliter")
ML_PER_TBSP = _size("tablespoon", "milliliter")
ML_PER_TSP = _size("teaspoon", "milliliter")
ML_PER_QUART = _size("quart", "milliliter")
G_PER_OUNCE = _size("ounce", "gram")
MM_PER_INCH = _size("inch", "millimeter")

#: Wine is sold by this bottle almost everywhere; "a bottle" means it.
ML_PER_BOTTLE = 750.0

#: Every spelling of a unit, with its dimension and its size in mL, g, mm, °C, %, h, kW or parts.
UNITS: dict[str, tuple[Dimension, float]] = {}


def _learn(dimension: Dimension, size: float, *spellings: str) -> None:
    for spelling in spellings:
        UNITS[spelling] = (dimension, size)


_learn("volume", 1.0, "ml", "milliliter", "milliliters", "millilitre", "millilitres", "cc")
_learn("volume", 10.0, "cl", "centilitre", "centilitres", "centiliter", "centiliters")
_learn("volume", 100.0, "dl", "decilitre", "decilitres", "deciliter", "deciliters")
_learn("volume", 1000.0, "l", "lt", "litre", "litres", "liter", "liters")
_learn("volume", ML_PER_CUP, "cup", "cups", "c", "us cup", "us cups")
_learn("volume", 240.0, "label cup", "label cups")
_learn("volume", 250.0, "metric cup", "metric cups")
_learn("volume", ML_PER_TBSP, "tbsp", "tbsps", "tbs", "tb", "tablespoon", "tablespoons")
_learn("volume", 15.0, "label tbsp", "metric tbsp")
_learn("volume", 20.0, "australian tbsp", "australian tablespoon", "australian tablespoons")
_learn("volume", ML_PER_TSP, "tsp", "tsps", "teaspoon", "teaspoons")
_learn("volume", 5.0, "label tsp", "metric tsp")
_learn("volume", _size("fluid_ounce", "milliliter"), "fl oz", "floz", "fl. oz", "fluid ounce", "fluid ounces")
_learn("volume", _size("pint", "milliliter"), "pt", "pts", "pint", "pints")
_learn("volume", ML_PER_QUART, "qt", "qts", "quart", "quarts")
_learn("volume", _size("gallon", "milliliter"), "gal", "gallon", "gallons")
_learn("volume", ML_PER_BOTTLE, "bottle", "bottles")
_learn("mass", 1.0, "g", "gr", "gram", "grams", "gramme", "grammes")
_learn("mass", 1e-3, "mg", "milligram", "milligrams")
_learn("mass", 1e3, "kg", "kilo", "kilos", "kilogram", "kilograms")
_learn("mass", G_PER_OUNCE, "oz", "ounce", "ounces")
_learn("mass", _size("pound", "gram"), "lb", "lbs", "pound", "pounds")
_learn("length", 1.0, "mm", "millimetre", "millimetres", "millimeter", "millimeters")
_learn("length", 10.0, "cm", "centimetre", "centimetres", "centimeter", "centimeters")
_learn("length", MM_PER_INCH, "in", "inch", "inches", '"', "″")
_learn("length", 1000.0, "m", "metre", "metres", "meter", "meters")
_learn("length", 12.0 * MM_PER_INCH, "ft", "foot", "feet")
_learn("power", 1.0, "kw", "kilowatt", "kilowatts")
_learn("power", 1e-3, "w", "watt", "watts")
_learn("parts", 1.0, "part", "parts")
_learn("percent", 1.0, "%", "percent", "per cent", "% vol", "% abv", "vol%")
_learn("time", 1.0, "h", "hr", "hrs", "hour", "hours")
_learn("time", 1.0 / 60.0, "min", "mins", "minute", "minutes")
_learn("temperature", 1.0, "°c", "celsius", "degc")
_learn("temperature", 1.0, "°f", "f", "fahrenheit", "degf")

_VULGAR = {c: Fraction(n, d) for c, n, d in (
    ("½", 1, 2), ("⅓", 1, 3), ("⅔", 2, 3), ("¼", 1, 4), ("¾", 3, 4), ("⅕", 1, 5), ("⅖", 2, 5),
    ("⅗", 3, 5), ("⅘", 4, 5), ("⅙", 1, 6), ("⅚", 5, 6), ("⅛", 1, 8), ("⅜", 3, 8), ("⅝", 5, 8),
    ("⅞", 7, 8),
)}  # fmt: skip
#: Numbers that cooks write out.
NUMBER_WORDS = {
    "a": 1.0, "an": 1.0, "one": 1.0, "half": 0.5, "third": 1.0 / 3.0, "quarter": 0.25, "two": 2.0, "couple": 2.0,
    "three": 3.0, "four": 4.0, "five": 5.0, "six": 6.0, "seven": 7.0, "eight": 8.0, "nine": 9.0, "ten": 10.0,
    "eleven": 11.0, "twelve": 12.0, "dozen": 12.0,
}  # fmt: skip
_SPACES = re.compile(r"[\s\u00a0\u2009\u202f]+")
GROUPED = re.compile(r"\d{1,3}(?: \d{3})+(?![\d/])(?:[.,]\d+)?")
NUMBER = re.compile(
    r"(?P<whole>\d+)\s*[ -]?\s*(?P<vulgar>[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])"
    r"|(?P<only>[½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞])"
    r"|(?P<mixed>\d+)[ -]+(?P<n>\d+)\s*[/⁄]\s*(?P<d>\d+)"
    r"|(?P<num>\d+)\s*[/⁄]\s*(?P<den>\d+)"
    r"|(?P<decimal>\d*[.,]\d+|\d+)"
)

#: What the cook is told to write, by dimension.
_EXAMPLES: dict[Dimension, Message] = {
    "volume": say("amounts.example_volume"),
    "mass": say("amounts.example_mass"),
    "length": say("amounts.example_length"),
    "temperature": say("amounts.example_temperature"),
    "percent": say("amounts.example_percent"),
    "time": say("amounts.example_time"),
    "power": say("amounts.example_power"),
    "parts": say("amounts.example_parts"),
}
#: More characters than one amount takes, and more digits than any figure of a kitchen has.
LONGEST_AMOUNT, MOST_DIGITS = 60, 12
#: Smaller than anything a kitchen tells from nothing, in any unit: a slip, not an amount.
LEAST = 1e-6

_NOUNS: dict[Dimension, Message] = {
    "volume": say("amounts.noun_volume"),
    "mass": say("amounts.noun_mass"),
    "length": say("amounts.noun_length"),
    "temperature": say("amounts.noun_temperature"),
    "percent": say("amounts.noun_percent"),
    "time": say("amounts.noun_time"),
    "power": say("amounts.noun_power"),
    "parts": say("amounts.noun_parts"),
}


def parse(
    text: str, dimension: Dimension, *, field: str = "amount", default_unit: str | None = None, signed: bool = False
) -> float:
    """Read an amount the way a cook writes it.

    Decimal points and commas, "1 1/2", "1½", "¾", grouped thousands with a space ("1 010 mL"), and
    the words "half a", "a", "two" are understood.

    Parameters
    ----------
    text : the amount with its unit, e.g. ``"1½ qt"``.
    dimension : which kind of amount is expected.
    field : name reported in an error.
    default_unit : unit taken when none is written; ``None`` refuses a bare number.
    signed : whether it may lie below zero; a temperature always may.

    Returns
    -------
    mL, g, mm, °C, per cent, h, kW or parts, by ``dimension``.

    Raises
    ------
    QuantityError : unreadable, negative, an unknown unit, or a unit of another kind.
    """
    cleaned = _SPACES.sub(" ", text.strip())
    example = _EXAMPLES[dimension]
    if not cleaned:
        raise QuantityError(field, say("amounts.write", example=example))
    if len(cleaned) > LONGEST_AMOUNT:
        raise QuantityError(field, say("amounts.too_long", example=example))
    sign = 1.0
    if cleaned[0] in "-−–":
        if dimension != "temperature" and not signed:
            raise QuantityError(field, say("amounts.below_zero", text=cleaned, example=example))
        sign, cleaned = -1.0, cleaned[1:].lstrip()
    value, rest = read_number(cleaned, field, example)
    unit = rest.strip().lower().rstrip(".")
    if unit.startswith("of a "):
        unit = unit[5:]
    elif unit.startswith("a "):
        unit = unit[2:]
    if not unit:
        if default_unit is None:
            raise QuantityError(field, say("amounts.which_unit", text=cleaned, example=example))
        unit = default_unit.lower()
    if dimension == "temperature" and unit in {"c", "°", "deg"}:
        unit = "°c"
    known = UNITS.get(unit)
    if known is None:
        raise QuantityError(field, say("amounts.unknown_unit", unit=unit, example=example))
    if known[0] != dimension:
        raise QuantityError(
            field,
            say("amounts.wrong_kind", unit=unit, found=_NOUNS[known[0]], needed=_NOUNS[dimension], example=example),
        )
    if dimension == "temperature":
        degrees = sign * value
        return (degrees - 32.0) / 1.8 if unit in {"°f", "f", "fahrenheit", "degf"} else degrees
    return sign * value * known[1]


def parse_mass_or_volume(text: str, *, field: str = "amount") -> tuple[Literal["mass", "volume"], float]:
    """Read an amount that may be weighed or poured: ("mass", g) or ("volume", mL).

    Raises
    ------
    QuantityError : unreadable, or neither a weight nor a volume.
    """
    try:
        return "volume", parse(text, "volume", field=field)
    except QuantityError as not_poured:
        try:
            return "mass", parse(text, "mass", field=field)
        except QuantityError:
            raise not_poured from None


def read_number(text: str, field: str, example: Argument) -> tuple[float, str]:
    """The number a text begins with, and the rest of the text.

    Raises
    ------
    QuantityError : it does not begin with a number, or with one that can be read two ways.
    """
    word, _, rest = text.partition(" ")
    if word.lower() in NUMBER_WORDS:
        return NUMBER_WORDS[word.lower()], rest
    grouped = GROUPED.match(text)
    if grouped and len(grouped.group()) <= 2 * MOST_DIGITS:
        return float(grouped.group().replace(" ", "").replace(",", ".")), text[grouped.end() :]
    match = NUMBER.match(text)
    if match is None:
        raise QuantityError(field, say("amounts.no_number", text=text, example=example))
    rest = text[match.end() :]
    if re.match(r"[.,/⁄\d]|e[+-]?\d", rest.strip(), re.I):
        raise QuantityError(field, say("amounts.not_one_number", text=text, example=example))
    got = match.groupdict()
    if any(len(digits) > MOST_DIGITS for digits in re.findall(r"\d+", match.group())):
        raise QuantityError(field, say("amounts.beyond", text=match.group()[:40], example=example))
    if got["vulgar"]:
        return int(got["whole"]) + float(_VULGAR[got["vulgar"]]), rest
    if got["only"]:
        return float(_VULGAR[got["only"]]), rest
    if got["den"] or got["d"]:
        bottom = int(got["den"] or got["d"])
        if bottom == 0:
            raise QuantityError(field, say("amounts.by_zero", text=match.group(), example=example))
        return int(got["mixed"] or 0) + int(got["num"] or got["n"]) / bottom, rest
    decimal = got["decimal"]
    if re.fullmatch(r"[1-9]\d{0,2},\d{3}", decimal):
        plain, point = decimal.replace(",", ""), decimal.replace(",", ".")
        raise QuantityError(field, say("amounts.two_ways", text=decimal, plain=plain, point=point))
    return float(decimal.replace(",", ".")), rest


def within(value: float, low: float, high: float, *, field: str, what: Message, unit: str) -> float:
    """Return ``value`` if it lies in [low, high].

    Raises
    ------
    QuantityError : it does not; the sentence names the accepted range. Neither is less than a
        millionth taken that is not nothing: nobody measures that.
    """
    if 0.0 < abs(value) < LEAST:
        raise QuantityError(field, say("amounts.too_little", what=what, least=show_plain(LEAST, unit)))
    if not math.isfinite(value) or not low <= value <= high:
        between: dict[str, Argument] = {
            "low": f"{low:g}",
            "high": show_plain(high, unit),
            "value": show_plain(value, unit),
        }
        raise QuantityError(field, say("amounts.between", what=what, **between))
    return value


# -- printing -----------------------------------------------------------------------------------

_NBSP = "\u00a0"
_EIGHTHS = ("", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞")


def grouped(value: float) -> str:
    """A whole number with no-break spaces between thousands: ``1 010``."""
    return f"{round(value):,}".replace(",", _NBSP)


def _fraction(value: float, parts: int, *, thirds: bool = False) -> str:
    """Nearest 1/``parts`` (2, 4 or 8) as a whole number and a vulgar fraction; thirds on request."""
    if thirds:
        for third, sign in ((1 / 3, "⅓"), (2 / 3, "⅔")):
            if abs(value % 1 - third) < abs(value - round(value * parts) / parts):
                return f"{int(value) or ''}{sign}"
    steps = round(value * parts)
    whole, part = divmod(steps, parts)
    sign = _EIGHTHS[part * 8 // parts]
    return f"{whole or ''}{sign}" or "0"


@lru_cache(maxsize=4096)
def show_volume(ml: float) -> Shown:
    """A volume in mL: 5 mL steps from 50 mL, ½ tsp (2.5 mL) below; cups, quarts or spoons in US measure."""
    if ml >= 10_000:
        metric = f"{ml / 1000:.1f}{_NBSP}L"
    elif ml >= 50:
        metric = f"{grouped(round(ml / 5) * 5)}{_NBSP}mL"
    else:
        metric = f"{round(ml / 2.5) * 2.5:g}{_NBSP}mL"
    return Shown(ml, metric, _us_volume(ml))


def _us_volume(ml: float) -> str:
    if ml >= 2.5 * ML_PER_QUART:
        return f"{_fraction(ml / ML_PER_QUART, 8)}{_NBSP}qt"
    if ml >= 0.23 * ML_PER_CUP:
        cups = _fraction(ml / ML_PER_CUP, 8, thirds=ml < 2 * ML_PER_CUP)
        return f"{cups}{_NBSP}{'cup' if ml <= 1.06 * ML_PER_CUP else 'cups'}"
    return show_spoons(ml)


def show_spoons(ml: float) -> str:
    """A small volume in spoons: tablespoons in halves from 2 tbsp and quarters below, then teaspoons."""
    if ml >= 0.95 * ML_PER_TBSP:
        return f"{_fraction(ml / ML_PER_TBSP, 2 if ml >= 2 * ML_PER_TBSP else 4)}{_NBSP}tbsp"
    if ml < ML_PER_TSP / 16:
        return f"0{_NBSP}tsp"
    return f"{_fraction(ml / ML_PER_TSP, 8 if ml < ML_PER_TSP / 2 else 4)}{_NBSP}tsp"


@lru_cache(maxsize=4096)
def show_mass(g: float) -> Shown:
    """A mass in g: whole grams from 10 g, tenths below; ounces, or pounds and ounces, in US measure."""
    metric = f"{grouped(g)}{_NBSP}g" if g >= 10 else f"{g:.1f}{_NBSP}g"
    ounces = g / G_PER_OUNCE
    if ounces >= 16:
        pounds, rest = divmod(round(ounces * 10) / 10, 16)
        us = f"{int(pounds)}{_NBSP}lb {rest:.1f}{_NBSP}oz"
    else:
        us = f"{ounces:.1f}{_NBSP}oz" if ounces >= 1 else f"{ounces:.2f}{_NBSP}oz"
    return Shown(g, metric, us)


@lru_cache(maxsize=4096)
def show_length(mm: float) -> Shown:
    """A depth in whole mm, or inches to the nearest sixteenth."""
    sixteenths = round(mm / MM_PER_INCH * 16)
    whole, part = divmod(sixteenths, 16)
    if part:
        fraction = Fraction(part, 16)
        us = f"{whole or ''} {fraction.numerator}/{fraction.denominator}".strip()
    else:
        us = str(whole)
    return Shown(mm, f"{round(mm)}{_NBSP}mm", f"{us}{_NBSP}in")


def show_temperature(celsius: float) -> Shown:
    """A temperature in whole degrees."""
    return Shown(celsius, f"{round(celsius)}{_NBSP}°C", f"{round(celsius * 1.8 + 32)}{_NBSP}°F")


def show_minutes(minutes: float) -> Shown:
    """A duration: whole minutes to an hour and a half, hours and minutes beyond."""
    whole = round(minutes)
    text = f"{whole}{_NBSP}min" if whole < 90 else f"{whole // 60}{_NBSP}h {whole % 60:02d}{_NBSP}min"
    return Shown(minutes, text, text)


def show_number(value: float, digits: int = 0, unit: str = "") -> Shown:
    """A figure with so many decimals, and its unit where it has one; the same in either system of units."""
    figure = grouped(value) if digits == 0 else f"{value:.{digits}f}"
    text = f"{figure}{_NBSP}{unit}" if unit else figure
    return Shown(value, text, text)


def show_plain(value: float, unit: str = "", digits: int = 6) -> Shown:
    """A figure as short as it can be said, of so many digits at most: ``0.9``, ``12``, ``1.3 %``."""
    # Never with a power of ten: nobody in a kitchen reads 1e-06.
    figure = f"{float(f'{value:.{digits}g}'):,.6f}".rstrip("0").rstrip(".").replace(",", _NBSP)
    text = f"{figure}{_NBSP}{unit}" if unit else figure
    return Shown(value, text, text)


def show_percent(value: float, digits: int = 2) -> Shown:
    """A share or a content in per cent."""
    return show_number(value, digits, "%")


def show_span(low_min: float, high_min: float) -> str:
    """A span of minutes, in hours from two hours on: ``5–10 min``, ``6–12 h``."""
    if low_min >= 120:
        return f"{low_min / 60:.0f}–{high_min / 60:.0f}{_NBSP}h"
    return f"{low_min:.0f}–{high_min:.0f}{_NBSP}min"
