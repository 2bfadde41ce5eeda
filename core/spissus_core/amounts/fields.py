"""Pydantic types for what comes in from outside: amounts, and words.

An amount is a number, or text as a cook writes it ("1.4 l", "2 1/8 in", "0.6 %"). Validated, each is
a plain number in the unit of its name; text is read by :func:`.quantities.parse`.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Any, NamedTuple
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from pydantic import AfterValidator, BeforeValidator, StringConstraints, ValidationInfo, WithJsonSchema
from pydantic.json_schema import JsonSchemaValue

from ..errors import QuantityError
from ..messages import say
from .quantities import LONGEST_AMOUNT, parse, within
from .reading import Dimension, units_of

#: The context in which what was recorded is read back: what was once taken stays readable, whatever
#: today's rules would say of it.
SHELF: Mapping[str, Any] = {"shelf": True}


#: More than any rule there ever was would have taken, in any unit of a field. Modelling choice.
BEYOND_ANY_RULE = 1e7


def on_the_shelf(info: ValidationInfo) -> bool:
    """Whether this is read back from the record, and not judged at the door."""
    return info.context is not None and bool(info.context.get("shelf"))


class Accepts(NamedTuple):
    """What an amount may be: its dimension, the unit of a bare number, the accepted range, and the key of its name."""

    dimension: Dimension
    unit: str
    low: float
    high: float
    what: str


def read_amount(value: object, accepts: Accepts, *, recorded: bool = False) -> float:
    """A number or a text as a number in ``accepts.unit``; what was ``recorded`` keeps its value.

    Raises
    ------
    QuantityError : unreadable, or out of range.
    """
    number = value
    if isinstance(value, str):
        size = next(u for u in units_of(accepts.unit) if u.dimension == accepts.dimension).size
        number = parse(value, accepts.dimension, default_unit=accepts.unit, signed=accepts.low < 0.0) / size
    if isinstance(number, bool) or not isinstance(number, int | float):
        raise QuantityError("amount", say("amounts.not_an_amount", what=say(accepts.what)))
    if not abs(number) <= BEYOND_ANY_RULE:
        raise QuantityError("amount", say("amounts.not_that_much", what=say(accepts.what)))
    if recorded:
        return float(number)
    what = say(accepts.what)
    return within(float(number), accepts.low, accepts.high, field="amount", what=what, unit=accepts.unit)


def number_or_text(low: float, high: float) -> WithJsonSchema:
    """How such an amount looks in JSON Schema."""
    bounded: JsonSchemaValue = {"type": "number", "minimum": low, "maximum": high}
    return WithJsonSchema({"anyOf": [bounded, {"type": "string", "maxLength": LONGEST_AMOUNT}]})


def _amount(*accepts: Any) -> Any:
    """The annotation of a number that may arrive as a text."""
    known = Accepts(*accepts)

    def read(value: object, info: ValidationInfo) -> float:
        return read_amount(value, known, recorded=on_the_shelf(info))

    return BeforeValidator(read), number_or_text(known.low, known.high)


VolumeMl = Annotated[float, *_amount("volume", "mL", 0.0, 100_000.0, "amounts.a_volume")]
MassG = Annotated[float, *_amount("mass", "g", 0.0, 100_000.0, "amounts.a_weight")]
DepthMm = Annotated[float, *_amount("length", "mm", 0.0, 800.0, "amounts.a_depth")]
Percent = Annotated[float, *_amount("percent", "%", 0.0, 30.0, "amounts.a_salt_content")]
Strength = Annotated[float, *_amount("percent", "%", 0.0, 96.0, "amounts.a_strength")]
PerHundredG = Annotated[float, *_amount("mass", "g", 0.0, 100.0, "amounts.a_part")]
Celsius = Annotated[float, *_amount("temperature", "°C", -40.0, 300.0, "amounts.a_temperature")]
Minutes = Annotated[float, *_amount("time", "min", 1.0, 4320.0, "amounts.a_time")]
Hours = Annotated[float, *_amount("time", "h", 0.0, 72.0, "amounts.a_time")]
AltitudeM = Annotated[float, *_amount("length", "m", -430.0, 5500.0, "amounts.an_altitude")]
NetKw = Annotated[float, *_amount("power", "kW", 0.05, 20.0, "amounts.a_power")]
Parts = Annotated[float, *_amount("parts", "parts", 0.0, 1000.0, "amounts.parts")]
PanWidthMm = Annotated[float, *_amount("length", "mm", 40.0, 1500.0, "amounts.a_pan_width")]
PanHeightMm = Annotated[float, *_amount("length", "mm", 20.0, 800.0, "amounts.a_pan_height")]
PanWeightG = Annotated[float, *_amount("mass", "g", 50.0, 60_000.0, "amounts.a_pan_weight")]


def zone_of(name: str | None) -> ZoneInfo | None:
    """The time zone of that name; None where the tz database has none.

    >>> zone_of("Europe/Lisbon"), zone_of("Nowhere/At all"), zone_of("")
    (zoneinfo.ZoneInfo(key='Europe/Lisbon'), None, None)
    """
    try:
        return ZoneInfo(name) if name else None
    except (ZoneInfoNotFoundError, ValueError, OSError):
        return None


def _time_zone(name: str, info: ValidationInfo) -> str:
    if name and not on_the_shelf(info) and zone_of(name) is None:
        raise QuantityError("time_zone", say("kitchen.no_such_zone", text=name))
    return name


#: A name of the tz database; empty where it is each device's own.
TimeZone = Annotated[str, StringConstraints(strip_whitespace=True, max_length=60), AfterValidator(_time_zone)]


def keepable(text: str) -> bool:
    """Whether a text can be stored: no NUL, and no half of a surrogate pair."""
    return "\x00" not in text and not any("\ud800" <= c <= "\udfff" for c in text)


def _keepable(text: str) -> str:
    if not keepable(text):
        raise QuantityError("text", say("amounts.not_keepable"))
    return text


def _words(longest: int) -> tuple[StringConstraints, AfterValidator]:
    return StringConstraints(strip_whitespace=True, min_length=1, max_length=longest), AfterValidator(_keepable)


#: The name of a thing, the title of a batch, and a remark of any length a cook would write.
Name = Annotated[str, *_words(60)]
Title = Annotated[str, *_words(120)]
Remark = Annotated[str, *_words(2000)]
PastedList = Annotated[str, *_words(200_000)]
