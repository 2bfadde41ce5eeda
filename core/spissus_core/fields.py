"""Pydantic types for what comes in from outside: amounts, and words.

An amount is a number, or text as a cook writes it ("1.4 l", "2 1/8 in", "0.6 %"). Validated, each is
a plain number in the unit of its name; text is read by :func:`.quantities.parse`.
"""

from __future__ import annotations

from typing import Annotated, NamedTuple

from pydantic import AfterValidator, BeforeValidator, StringConstraints, WithJsonSchema

from .errors import QuantityError
from .quantities import Dimension, parse, within


class Accepts(NamedTuple):
    """What an amount may be: its dimension, the unit a bare number is in, and the accepted range."""

    dimension: Dimension
    unit: str
    low: float
    high: float
    what: str


def read_amount(value: object, accepts: Accepts) -> float:
    """A number or a text as a number in ``accepts.unit``.

    Raises
    ------
    QuantityError : unreadable, or out of range.
    """
    number = parse(value, accepts.dimension, default_unit=accepts.unit) if isinstance(value, str) else value
    if isinstance(number, bool) or not isinstance(number, int | float):
        raise QuantityError("amount", f"{accepts.what} must be a number or an amount with its unit.")
    return within(float(number), accepts.low, accepts.high, field="amount", what=accepts.what, unit=accepts.unit)


#: How such an amount looks in JSON Schema.
NUMBER_OR_TEXT = WithJsonSchema({"anyOf": [{"type": "number"}, {"type": "string", "maxLength": 60}]})


def _reader(accepts: Accepts) -> BeforeValidator:
    return BeforeValidator(lambda value: read_amount(value, accepts))


VolumeMl = Annotated[float, _reader(Accepts("volume", "mL", 0.0, 100_000.0, "A volume")), NUMBER_OR_TEXT]
MassG = Annotated[float, _reader(Accepts("mass", "g", 0.0, 100_000.0, "A weight")), NUMBER_OR_TEXT]
DepthMm = Annotated[float, _reader(Accepts("length", "mm", 0.0, 800.0, "A depth")), NUMBER_OR_TEXT]
Percent = Annotated[float, _reader(Accepts("percent", "%", 0.0, 30.0, "A salt content")), NUMBER_OR_TEXT]
Strength = Annotated[float, _reader(Accepts("percent", "%", 0.0, 96.0, "A strength by volume")), NUMBER_OR_TEXT]
PerHundredG = Annotated[float, _reader(Accepts("mass", "g", 0.0, 100.0, "A part of 100 g")), NUMBER_OR_TEXT]
Celsius = Annotated[float, _reader(Accepts("temperature", "°C", -40.0, 300.0, "A temperature")), NUMBER_OR_TEXT]
Hours = Annotated[float, _reader(Accepts("time", "h", 0.0, 72.0, "A time")), NUMBER_OR_TEXT]
PanWidthMm = Annotated[float, _reader(Accepts("length", "mm", 40.0, 1500.0, "The width of a pan")), NUMBER_OR_TEXT]
PanHeightMm = Annotated[float, _reader(Accepts("length", "mm", 20.0, 800.0, "The height of a pan")), NUMBER_OR_TEXT]
PanWeightG = Annotated[float, _reader(Accepts("mass", "g", 50.0, 60_000.0, "The weight of a pan")), NUMBER_OR_TEXT]


def _keepable(text: str) -> str:
    if "\x00" in text:
        raise QuantityError("text", "This holds a character that cannot be kept. Type it anew.")
    return text


def _words(longest: int) -> tuple[StringConstraints, AfterValidator]:
    return StringConstraints(strip_whitespace=True, min_length=1, max_length=longest), AfterValidator(_keepable)


#: The name of a thing, the title of a batch, and a remark of any length a cook would write.
Name = Annotated[str, *_words(60)]
Title = Annotated[str, *_words(120)]
Remark = Annotated[str, *_words(2000)]
PastedList = Annotated[str, *_words(200_000)]
