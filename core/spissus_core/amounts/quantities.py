"""Amounts of a field: reading what was typed into it, and printing amounts as they can be measured.

Spoons, cups and pints mean US customary measures unless the text says "metric", "label" or "imperial".
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Collection, Mapping
from dataclasses import replace
from functools import lru_cache
from types import MappingProxyType
from typing import Literal

from ..errors import QuantityError
from ..messages import Argument, Message, Shown, say
from .figures import THOUSANDS, in_figures
from .reading import Dimension, Said, amount_at, units_of
from .rows import rows

UnitSystem = Literal["metric", "us"]


def _size(spelling: str) -> float:
    return units_of(spelling)[0].size


ML_PER_CUP = _size("cup")
ML_PER_TBSP = _size("tbsp")
ML_PER_TSP = _size("tsp")
ML_PER_QUART = _size("quart")
G_PER_OUNCE = _size("ounce")
MM_PER_INCH = _size("inch")

_SPACES = re.compile(r"[\s\u00a0\u2009\u202f]+")

#: A sixteenth as it is shown, and its figures as they are typed.
_SIXTEENTHS = re.compile("([⁰¹²³⁴⁵⁶⁷⁸⁹]+)⁄₁₆")
_LOWERED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹", "0123456789")

#: What the cook is told to write, by dimension.
_EXAMPLES: dict[Dimension, Shown] = {
    "volume": Shown(1400.0, "1.4 l", "6 cups"),
    "mass": Shown(454.0, "450 g", "1 lb"),
    "length": Shown(54.0, "54 mm", "2 1/8 in"),
    "temperature": Shown(85.0, "85 °C", "185 °F"),
    "percent": Shown(0.6, "0.6 %", "0.6 %"),
    "time": Shown(150.0, "2 1/2 h", "2 1/2 h"),
    "power": Shown(0.9, "0.9 kW", "0.9 kW"),
    "parts": Shown(2.5, "2 1/2", "2 1/2"),
}
#: More characters than one amount takes.
LONGEST_AMOUNT = 60
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
    """Read an amount the way a cook writes or says it; :mod:`.reading` says what is understood.

    Parameters
    ----------
    text : the amount with its unit, e.g. ``"1½ qt"`` or ``"a gallon and a quarter"``.
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

    Examples
    --------
    A US pint is 473.176473 mL, NIST SP 811:

    >>> round(parse("three and a half pints", "volume"), 3)
    1656.118
    """
    example = _EXAMPLES[dimension]
    said = whole_amount(text, dimension, field, default_unit=default_unit, signed=signed)
    if said.unit is None:
        raise QuantityError(field, say("amounts.which_unit", text=_SPACES.sub(" ", text.strip()), example=example))
    if said.unit.dimension != dimension:
        raise QuantityError(
            field,
            say(
                "amounts.wrong_kind",
                unit=said.unit.name,
                found=_NOUNS[said.unit.dimension],
                needed=_NOUNS[dimension],
                example=example,
            ),
        )
    if said.unit.name == "°F":
        return (said.value - 32.0) / 1.8
    return said.value


def parse_any(text: str, among: Collection[Dimension], *, field: str = "amount") -> tuple[Dimension, float]:
    """Read an amount of one of several kinds: its dimension, and the amount in mL, g, mm and so on.

    Raises
    ------
    QuantityError : unreadable, or of none of these kinds.
    """
    first = next(iter(among))
    said = whole_amount(text, first, field, default_unit=None, signed=False, among=among)
    if said.unit is None or said.unit.dimension not in among:
        return first, parse(text, first, field=field)
    return said.unit.dimension, said.value


def parse_mass_or_volume(text: str, *, field: str = "amount") -> tuple[Literal["mass", "volume"], float]:
    """Read an amount that may be weighed or poured: ("mass", g) or ("volume", mL).

    Raises
    ------
    QuantityError : unreadable, or neither a weight nor a volume.
    """
    dimension, value = parse_any(text, ("volume", "mass"), field=field)
    return ("mass" if dimension == "mass" else "volume"), value


def whole_amount(
    text: str,
    dimension: Dimension,
    field: str,
    *,
    default_unit: str | None,
    signed: bool,
    among: Collection[Dimension] | None = None,
) -> Said:
    """A text that is one amount and nothing else, with how far it may be off.

    Raises
    ------
    QuantityError : it is none, or holds more than one amount.
    """
    cleaned = _SIXTEENTHS.sub(r" \1/16", _SPACES.sub(" ", text.strip())).strip().translate(_LOWERED)
    example = _EXAMPLES[dimension]
    if not cleaned:
        raise QuantityError(field, say("amounts.write", example=example))
    if len(cleaned) > LONGEST_AMOUNT:
        raise QuantityError(field, say("amounts.too_long", example=example))
    if dimension == "mass" and (found := THOUSANDS.search(cleaned)):
        # In a sentence about a pot it is more than two kilos; of salt it may be two grams.
        plain, point = f"{found[1]}{found[2]} g", f"{float(found[0]):g} g"
        raise QuantityError(field, say("amounts.two_ways", text=cleaned, plain=plain, point=point))
    sign, body = 1.0, in_figures(cleaned)
    if body[0] in "-−–":
        if dimension != "temperature" and not signed:
            raise QuantityError(field, say("amounts.below_zero", text=cleaned, example=example))
        sign, body = -1.0, body[1:].lstrip()
    if dimension == "temperature" and (mark := _GAS_MARK.fullmatch(body)):
        known = gas_marks().get(mark["mark"].replace("¼", "1/4").replace("½", "1/2"))
        if known is None:
            raise QuantityError(field, say("amounts.no_gas_mark", text=cleaned))
        return Said(known, units_of("°C")[0], 0.0, "")
    said = amount_at(body, among or (dimension,), field=field, example=example)
    if said is None:
        raise QuantityError(field, say("amounts.no_number", text=cleaned, example=example))
    rest = said.rest.strip().rstrip(".").strip()
    if rest:
        raise QuantityError(field, say("amounts.unknown_unit", unit=rest, example=example))
    if said.unit is None and default_unit is not None:
        said = replace(said, unit=next(u for u in units_of(default_unit) if u.dimension == dimension))
    return replace(said, count=sign * said.count)


_GAS_MARK = re.compile(r"(?:regulo|gas)(?: ?mark)? ?(?P<mark>\d/\d|[¼½]|\d{1,2})", re.I)


@lru_cache(maxsize=1)
def gas_marks() -> Mapping[str, float]:
    """What the marks of a gas oven stand for, °C, by the mark: rows of ``data/gas_marks.csv``."""
    return MappingProxyType({row["mark"]: float(row["celsius"]) for row in rows("gas_marks")})


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
_RAISED = str.maketrans("0123456789", "⁰¹²³⁴⁵⁶⁷⁸⁹")
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


#: More tablespoons than this are told in cups. Modelling choice.
MOST_TBSP = 12.0


def show_spoons(ml: float) -> str:
    """A small volume in spoons: tablespoons in halves from 2 tbsp and quarters below, then teaspoons; what nobody
    would count in spoons is cups."""
    if ml >= MOST_TBSP * ML_PER_TBSP:
        return _us_volume(ml)
    if ml >= 0.95 * ML_PER_TBSP:
        return f"{_fraction(ml / ML_PER_TBSP, 2 if ml >= 2 * ML_PER_TBSP else 4)}{_NBSP}tbsp"
    if ml < ML_PER_TSP / 16:
        return f"0{_NBSP}tsp"
    return f"{_fraction(ml / ML_PER_TSP, 8 if ml < ML_PER_TSP / 2 else 4)}{_NBSP}tsp"


#: Steps of an axis that are easy to read, in mL and in US cups.
_METRIC_STEPS = (50.0, 100.0, 200.0, 250.0, 500.0, 1000.0, 2000.0, 5000.0, 10000.0, 20000.0)
_US_STEPS = tuple(cups * ML_PER_CUP for cups in (0.25, 0.5, 1.0, 2.0, 4.0, 8.0, 20.0, 40.0, 80.0))


def volume_ticks(low_ml: float, high_ml: float, most: int = 4) -> dict[UnitSystem, list[Shown]]:
    """Round volumes between two, at most so many, for an axis in either system.

    >>> [tick.value for tick in volume_ticks(600.0, 1500.0)["metric"]]
    [750.0, 1000.0, 1250.0, 1500.0]
    >>> [tick.us[0] for tick in volume_ticks(600.0, 1500.0)["us"]]  # cups
    ['3', '4', '5', '6']
    """
    return {"metric": _ticks(low_ml, high_ml, _METRIC_STEPS, most), "us": _ticks(low_ml, high_ml, _US_STEPS, most)}


def _ticks(low_ml: float, high_ml: float, steps: tuple[float, ...], most: int) -> list[Shown]:
    step = next((one for one in steps if (high_ml - low_ml) / one <= most), steps[-1])
    first, last = math.ceil(low_ml / step), math.floor(high_ml / step)
    return [show_volume(n * step) for n in range(first, min(last, first + most) + 1)]


#: No kitchen scale tells less in ounces; from here down they are read in grams. Common practice.
LEAST_OUNCES = 0.5


@lru_cache(maxsize=4096)
def show_mass(g: float) -> Shown:
    """A mass in g: whole grams from 10 g, tenths below; ounces, or pounds and ounces, in US measure.

    >>> show_mass(50).us, show_mass(2.3).us
    ('1.8\\xa0oz', '2.3\\xa0g')
    """
    metric = f"{grouped(g)}{_NBSP}g" if g >= 10 else f"{g:.1f}{_NBSP}g"
    ounces = g / G_PER_OUNCE
    if ounces >= 16:
        pounds, rest = divmod(round(ounces * 10) / 10, 16)
        us = f"{int(pounds)}{_NBSP}lb{_NBSP}{round(rest, 1):g}{_NBSP}oz"
    else:
        us = f"{ounces:.1f}{_NBSP}oz" if ounces >= LEAST_OUNCES else metric
    return Shown(g, metric, us)


def show_mass_or_spoons(g: float, ml: float) -> Shown:
    """A mass in g, and in US measure the room it takes, ``ml`` mL, in spoons."""
    return Shown(g, show_mass(g).metric, show_spoons(ml))


@lru_cache(maxsize=4096)
def show_length(mm: float) -> Shown:
    """A depth in whole mm, or inches to the nearest sixteenth, with the fraction as one sign.

    >>> show_length(54).us, show_length(36.5).us
    ('2⅛\\xa0in', '1⁷⁄₁₆\\xa0in')
    """
    whole, part = divmod(round(mm / MM_PER_INCH * 16), 16)
    # An odd sixteenth has no letter of its own.
    fraction = _EIGHTHS[part // 2] if part % 2 == 0 else f"{str(part).translate(_RAISED)}⁄₁₆"
    us = f"{whole or ''}{fraction}" or "0"
    return Shown(mm, f"{round(mm)}{_NBSP}mm", f"{us}{_NBSP}in")


#: So far an amount may be off where it is said again, as a share of it. Modelling choice.
SAID_AGAIN = 0.005

#: How a measured amount is shown, and in which unit it is kept.
_SHOWN: dict[Dimension, tuple[Callable[[float], Shown], str]] = {
    "volume": (show_volume, "ml"),
    "mass": (show_mass, "g"),
    "length": (show_length, "mm"),
}


def say_again(value: float, dimension: Dimension, system: UnitSystem) -> str:
    """An amount to be typed again, in mL, g or mm: in US measure where that tells it as exactly as it was told.

    >>> say_again(1656.118, "volume", "us"), say_again(5, "length", "us"), say_again(12.7, "length", "metric")
    ('7\xa0cups', '5 mm', '12.7 mm')
    """
    shown, unit = _SHOWN[dimension]
    kept = f"{value:g} {unit}"
    if system == "metric":
        return kept
    told = shown(value).us
    try:
        return told if math.isclose(parse(told, dimension), value, rel_tol=SAID_AGAIN) else kept
    except QuantityError:
        return kept


def show_temperature(celsius: float) -> Shown:
    """A temperature in whole degrees."""
    return Shown(celsius, f"{round(celsius)}{_NBSP}°C", f"{round(celsius * 1.8 + 32)}{_NBSP}°F")


def show_degrees(kelvin: float) -> Shown:
    """A difference of temperatures, in whole degrees.

    >>> show_degrees(11.0).metric, show_degrees(11.0).us
    ('11\xa0°C', '20\xa0°F')
    """
    return Shown(kelvin, f"{round(kelvin)}{_NBSP}°C", f"{round(kelvin * 1.8)}{_NBSP}°F")


def show_minutes(minutes: float) -> Shown:
    """A duration: whole minutes to an hour and a half, hours and minutes beyond.

    >>> [show_minutes(minutes).metric.replace("\\xa0", " ") for minutes in (89, 95, 120)]
    ['89 min', '1 h 35 min', '2 h']
    """
    hours, rest = divmod(round(minutes), 60)
    if hours * 60 + rest < 90:
        text = f"{hours * 60 + rest}{_NBSP}min"
    else:
        text = f"{hours}{_NBSP}h {rest:02d}{_NBSP}min" if rest else f"{hours}{_NBSP}h"
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
