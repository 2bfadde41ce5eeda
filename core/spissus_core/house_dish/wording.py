"""A line of a list said for others, as far as possible in the words in which it was told."""

from __future__ import annotations

import math
import re
import unicodedata
from fractions import Fraction

from ..amounts.quantities import UnitSystem
from ..intake.braise import Line, line_of
from ..intake.lines import read_line

#: The number with which a line begins: "1 1/2", "3/4", "1,5", "2½", "8". A range is none.
_NUMBER = re.compile(r"\s*(?:(\d+)\s+)?(?:(\d+)/(\d+)|(\d+[.,]\d+)|(\d*)([½¼¾⅓⅔⅛⅜⅝⅞])|(\d+))(?![\d/.,–-])")

#: A text is taken that is read as its amount but for this share: pieces and spoons are rounded to quarters, and pieces
#: of which each is as heavy as it is to whole ones. Modelling choices.
ROUNDED_SHARE, ABOUT_SPREAD = 0.04, 0.1

#: What is weighed or poured by a metric measure has figures behind the point, and no quarters.
_METRIC = re.compile(r"\s*(?:g|kg|mg|ml|cl|dl|l|gr|grams?|kilos?|lit(?:er|re)s?)\b", re.IGNORECASE)

_QUARTERS = {0.25: "¼", 0.5: "½", 0.75: "¾"}


def text_for(line: Line, text: str, times: float, units: UnitSystem) -> str:
    """The text of a ``line`` that is so many ``times`` as much as its ``text`` says.

    Its first number is multiplied, and the text read again: where that does not give the line, its amount and its name
    are said instead.
    """
    found = _NUMBER.match(text)
    if found is not None:
        value, rest = _value(found) * times, text[found.end() :]
        pieces = [f"{max(value, 1.0):.0f}"] if line.spread >= ABOUT_SPREAD else []
        for number in [_shown(value)] if _METRIC.match(rest) else [*pieces, _in_quarters(value), _shown(value)]:
            if _says(f"{number}{rest}", line):
                return f"{number}{rest}"
    amount = line.shown.us if units == "us" else line.shown.metric
    plainly = f"{amount} {name_of(line, text)}"
    return plainly if _says(plainly, line) else f"{amount} {line.what.name}"


def name_of(line: Line, text: str) -> str:
    """What a line calls its ingredient; its name, where it calls it nothing."""
    read = read_line(text, () if line.own is None else (line.own,))
    return next((one.name for one in read if one.ingredient and one.ingredient.key == line.what.key), line.what.name)


def _says(text: str, line: Line) -> bool:
    """Whether the text is read as just that line."""
    read = read_line(text, () if line.own is None else (line.own,))
    if len(read) != 1 or read[0].problem is not None:
        return False
    again = line_of(read[0], () if line.own is None else (line.own,))
    same = again.counts and again.what.key == line.what.key and again.use == line.use and again.left == line.left
    return same and math.isclose(again.grams, line.grams, rel_tol=max(ROUNDED_SHARE, line.spread / 2.0))


def _value(found: re.Match[str]) -> float:
    whole, over, under, decimal, before, sign, digits = found.groups()
    value = float(whole or before or 0)
    if over:
        return value + float(Fraction(int(over), int(under) or 1))
    if decimal:
        return value + float(decimal.replace(",", "."))
    return value + (unicodedata.numeric(sign) if sign else float(digits))


def _in_quarters(value: float) -> str:
    """As a cook counts pieces and spoons: whole ones from ten on.

    >>> _in_quarters(4.67), _in_quarters(0.5), _in_quarters(11.7)
    ('4¾', '½', '12')
    """
    near = math.floor(value * 4.0 + 0.5) / 4.0 if value < 10.0 else math.floor(value + 0.5)
    whole, part = divmod(near, 1.0)
    return f"{whole:.0f}{_QUARTERS[part]}".lstrip("0") if part else f"{whole:.0f}"


def _shown(value: float) -> str:
    """Three figures, and no zeros behind the point.

    >>> _shown(9000.0), _shown(3.75), _shown(12.345)
    ('9000', '3.75', '12.3')
    """
    return f"{value:.0f}" if value >= 100.0 else f"{value:.3g}"
