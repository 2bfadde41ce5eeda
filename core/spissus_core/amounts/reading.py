"""The one grammar of amounts: what a cook writes or says, as so many of a unit.

    amount  = [hedge] sum [ "or so" ]
    sum     = term { ["plus" | "and"] term }            of one dimension, "1 lb 6 oz", "1 pint plus 4 tbsp"
    term    = range [fill] unit ["and a half"]          "2 heaped tbsp", "a gallon and a quarter"
            | range ["×"] term [container]              "two 400 g tins", "2 × 700 ml", "a 70 cl bottle"
            | range                                     a bare number
    range   = number [ ("–" | "to" | "or") number ]
    number  = figures | words                           "1½", "1 010", "three and a half", "two thirds of a"

Units, words that shift or widen an amount, and words for how full a spoon is are rows of ``data/units.csv``,
``data/hedges.csv`` and ``data/fills.csv``. Unit sizes are Pint's, which follows NIST SP 811.
"""

from __future__ import annotations

import re
from collections.abc import Collection
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from typing import Literal, NamedTuple

import pint

from ..errors import QuantityError
from ..messages import Argument, say
from .rows import rows

Dimension = Literal["volume", "mass", "length", "temperature", "percent", "time", "power", "parts"]

_pint: pint.UnitRegistry[float] = pint.UnitRegistry(cache_folder=None)

#: What each dimension is counted in here; what is not in this list is counted in its own unit.
_BASES = {"volume": "milliliter", "mass": "gram", "length": "millimeter", "time": "hour", "power": "kilowatt"}

#: More digits than any figure of a kitchen has.
MOST_DIGITS = 12


class Unit(NamedTuple):
    """A unit: its size in mL, g, mm, h, kW or in itself, how far the size may be off as a share, and of what kind.

    ``exact`` units are defined, those of the ``hand`` and a ``container`` are only usual.
    """

    name: str
    dimension: Dimension
    size: float
    spread: float
    kind: Literal["exact", "hand", "container"]


@dataclass(frozen=True, slots=True)
class Said:
    """An amount at the beginning of a text: so many of a unit, or a bare number where it has none.

    ``spread`` is the half-width of its 80 % interval as a share, ``came_in`` the container of a size that was
    given ("two 400 g tins"), ``rest`` what stands behind it. ``fill`` is what "small" or "heaped" makes of each: it
    counts where nothing else says how large one is.
    """

    count: float
    unit: Unit | None
    spread: float
    rest: str
    came_in: str = ""
    fill: float = 1.0

    @property
    def value(self) -> float:
        """In the base of its dimension: mL, g, mm, h, kW."""
        return self.count * self.fill * (self.unit.size if self.unit else 1.0)


# -- units --------------------------------------------------------------------------------------


def _bare(spelling: str) -> str:
    """A spelling without what only joins or ends it."""
    return re.sub(r"[\s.-]", "", spelling.lower())


def _learn() -> tuple[dict[str, tuple[Unit, ...]], re.Pattern[str]]:
    """Every spelling with the units it may mean, and the pattern that finds one, the longest first."""
    known: dict[str, tuple[Unit, ...]] = {}
    patterns: dict[str, str] = {}
    for row in rows("units"):
        dimension: Dimension = row["dimension"]  # type: ignore[assignment]
        base = _BASES.get(dimension)
        size = float(_pint.Quantity(row["size"]).to(base).magnitude) if base else float(row["size"])
        unit = Unit(row["unit"], dimension, size, float(row["spread"] or 0.0), row["kind"])  # type: ignore[arg-type]
        for spelling in row["spellings"].split(";"):
            key = spelling if spelling in ("T", "t") else _bare(spelling)
            known[key] = (*known.get(key, ()), unit)
            joined = r"[\s.-]{0,2}".join(map(re.escape, re.split(r"[\s.]+", spelling)))
            plural = r"(?:s?-?fuls?|e?s)?" if len(spelling) > 2 and spelling[-1].isalpha() else ""
            patterns[spelling] = joined + plural
    found = "|".join(patterns[s] for s in sorted(patterns, key=len, reverse=True))
    return known, re.compile(rf"[\s-]*({found})\.?(?![^\W\d_])", re.I)


UNITS, _UNIT = _learn()
_PLURALS = ("", "s", "es", "ful", "fuls", "sful", "sfuls")


def units_of(spelling: str) -> tuple[Unit, ...]:
    """The units that a spelling may mean; none where it is not one."""
    if spelling in ("T", "t"):
        return UNITS[spelling]
    bare = _bare(spelling)
    for ending in _PLURALS:
        if bare.endswith(ending) and (found := UNITS.get(bare[: len(bare) - len(ending)] if ending else bare)):
            return found
    return ()


def unit_at(text: str, of: Collection[Dimension] | None = None) -> tuple[Unit, str] | None:
    """The unit that ``text`` begins with, of those dimensions if it can be, and what stands behind it."""
    found = _UNIT.match(text)
    if found is None:
        return None
    units = units_of(found.group(1))
    wanted = next((unit for unit in units if of is None or unit.dimension in of), None)
    return (wanted or units[0], text[found.end() :]) if units else None


# -- numbers ------------------------------------------------------------------------------------

_VULGAR = {
    c: Fraction(n, d)
    for c, n, d in (
        ("½", 1, 2),
        ("⅓", 1, 3),
        ("⅔", 2, 3),
        ("¼", 1, 4),
        ("¾", 3, 4),
        ("⅕", 1, 5),
        ("⅖", 2, 5),
        ("⅗", 3, 5),
        ("⅘", 4, 5),
        ("⅙", 1, 6),
        ("⅚", 5, 6),
        ("⅛", 1, 8),
        ("⅜", 3, 8),
        ("⅝", 5, 8),
        ("⅞", 7, 8),
    )
}
_SIGNS = "".join(_VULGAR)
_GROUPED = re.compile(r"\d{1,3}(?: \d{3})+(?![\d/])(?:[.,]\d+)?")
_FIGURES = re.compile(
    rf"(?P<whole>\d+)\s*[ -]?\s*(?P<vulgar>[{_SIGNS}])"
    rf"|(?P<only>[{_SIGNS}])"
    r"|(?P<mixed>\d+)[ -]+(?P<n>\d+)\s*[/⁄]\s*(?P<d>\d+)"
    r"|(?P<num>\d+)\s*[/⁄]\s*(?P<den>\d+)"
    r"|(?P<decimal>\d*[.,]\d+|\d+)"
)

#: Numbers in words.
ONES = {
    "one": 1.0,
    "two": 2.0,
    "three": 3.0,
    "four": 4.0,
    "five": 5.0,
    "six": 6.0,
    "seven": 7.0,
    "eight": 8.0,
    "nine": 9.0,
    "ten": 10.0,
    "eleven": 11.0,
    "twelve": 12.0,
    "thirteen": 13.0,
    "fourteen": 14.0,
    "fifteen": 15.0,
    "sixteen": 16.0,
    "seventeen": 17.0,
    "eighteen": 18.0,
    "nineteen": 19.0,
}
TENS = {
    "twenty": 20.0,
    "thirty": 30.0,
    "forty": 40.0,
    "fifty": 50.0,
    "sixty": 60.0,
    "seventy": 70.0,
    "eighty": 80.0,
    "ninety": 90.0,
}
_MANY = {"dozen": 12.0, "couple": 2.0, "pair": 2.0, "brace": 2.0, "hundred": 100.0, "few": 3.0, "several": 4.0}
_WHOLES = {"a": 1.0, "an": 1.0, **ONES, **TENS}
_WHOLES |= {f"{ten}{one}": t + o for ten, t in TENS.items() for one, o in ONES.items() if o < 10.0}
_PARTS = {"half": 2, "halve": 2, "third": 3, "quarter": 4, "fifth": 5, "sixth": 6, "eighth": 8, "tenth": 10}

_TEN_ONE = "(?:" + "|".join(TENS) + ")[ -](?:" + "|".join(w for w, n in ONES.items() if n < 10.0) + ")"
_WHOLE = rf"(?:{_TEN_ONE}|" + "|".join(sorted(ONES | TENS, key=len, reverse=True)) + r"|an?)"
_PART = r"(?:halves|half|thirds?|quarters?|fifths?|sixths?|eighths?|tenths?)"
#: What may stand between a part and what it is a part of.
_OF_A = r"(?:\s+of(?![^\W\d_]))?(?:\s+(?:an?|the|one)(?![^\W\d_]))?"
_HALF_A_DOZEN = re.compile(r"half\s+(?:a\s+)?dozen(?:\s+of)?(?![^\W\d_])", re.I)
_SOME_PARTS = re.compile(rf"(?P<n>{_WHOLE}|\d{{1,3}})[ -](?P<part>{_PART})(?![^\W\d_]){_OF_A}", re.I)
_ONE_PART = re.compile(rf"(?P<part>half|third|quarter)(?![^\W\d_]){_OF_A}", re.I)
_MANY_OF = re.compile(rf"(?:(?P<n>{_WHOLE})\s+)?(?P<many>{'|'.join(_MANY)})(?:\s+of)?(?![^\W\d_])", re.I)
_WHOLE_WORD = re.compile(rf"(?P<n>{_WHOLE})(?![^\W\d_])", re.I)
_AND_PARTS = re.compile(rf"\s*(?:and|&)\s+(?:(?P<n>{_WHOLE})[ -])?(?P<part>{_PART})(?![^\W\d_])", re.I)


def _whole(word: str) -> float:
    return float(word) if word.isdigit() else _WHOLES[re.sub(r"[\s-]", "", word.lower())]


def _part(word: str, times: str | None) -> float:
    singular = word.lower().removesuffix("s")
    return (_whole(times) if times else 1.0) / _PARTS["half" if singular == "halve" else singular]


def number_at(text: str, field: str = "amount", example: Argument = "500 g") -> tuple[float, str] | None:
    """The number that ``text`` begins with, in figures or in words, and what stands behind it; None for none.

    Raises
    ------
    QuantityError : figures that are no number, or can be read two ways.
    """
    if found := _HALF_A_DOZEN.match(text):
        return 6.0, text[found.end() :]
    if found := _SOME_PARTS.match(text):
        return _part(found["part"], found["n"]), text[found.end() :]
    if found := _ONE_PART.match(text):
        return _part(found["part"], None), text[found.end() :]
    if found := _MANY_OF.match(text):
        return (_whole(found["n"]) if found["n"] else 1.0) * _MANY[found["many"].lower()], text[found.end() :]
    if found := _WHOLE_WORD.match(text):
        value, rest = _whole(found["n"]), text[found.end() :]
        if rest[:1] not in ("", " ", "-", "\t") and rest[:1].isalnum():
            return None
    elif _FIGURES.match(text):
        value, rest = _figures(text, field, example)
        # "1/2 a bottle", "½ of a lemon".
        rest = re.sub(r"^\s*(?:of\s+)?(?:an?|the)\s+(?=\S)", " ", rest) if value < 1.0 else rest
    else:
        return None
    if more := _AND_PARTS.match(rest):
        value, rest = value + _part(more["part"], more["n"]), re.sub(rf"^{_OF_A}", "", rest[more.end() :])
    return value, rest


def _figures(text: str, field: str, example: Argument) -> tuple[float, str]:
    """A number in figures. Raises QuantityError where it is none, or can be read two ways."""
    grouped = _GROUPED.match(text)
    if grouped and (sizes := _COUNT_OF_SIZES.match(text)):
        return float(sizes.group(1)), text[sizes.end(1) :]
    if grouped and len(grouped.group()) <= 2 * MOST_DIGITS:
        return float(grouped.group().replace(" ", "").replace(",", ".")), text[grouped.end() :]
    match = _FIGURES.match(text)
    if match is None:
        raise QuantityError(field, say("amounts.no_number", text=text, example=example))
    rest = text[match.end() :]
    if re.match(rf"\s*(?:[/⁄\d{_SIGNS}]|[.,]\d)|e[+-]?\d|[.,][.,]", rest, re.I) and not _size_follows(match, rest):
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


#: "2 400 g tins": no 2 400 g, but two tins.
_COUNT_OF_SIZES = re.compile(
    r"([1-9]\d?) \d{3}[\s-]*[^\W\d_]{1,5}\.?[\s-]+(?:tin|can|bottle|jar|carton|packet|pack|bag)s\b", re.I
)


def _size_follows(number: re.Match[str], rest: str) -> bool:
    """ "2 400 g tins": a whole number, and after a space the size of each."""
    return number.group().isdigit() and re.match(r"\s+\d+(?:[.,]\d+)?[\s-]*[^\W\d_]", rest) is not None


# -- amounts ------------------------------------------------------------------------------------


@lru_cache(maxsize=1)
def _hedges() -> tuple[re.Pattern[str], dict[str, tuple[float, float]]]:
    """Words that shift or widen an amount, the longest first: factor, half-width as a share."""
    known = {row["words"]: (float(row["factor"]), float(row["spread"])) for row in rows("hedges")}
    words = "|".join(map(re.escape, sorted(known, key=len, reverse=True)))
    return re.compile(rf"({words})(?![^\W\d_])\s*", re.I), known


@lru_cache(maxsize=1)
def _fills() -> tuple[re.Pattern[str], dict[str, tuple[float, float]]]:
    """Words for how full a spoon or how large a piece is: factor, half-width as a share."""
    known = {row["word"]: (float(row["factor"]), float(row["spread"])) for row in rows("fills")}
    words = "|".join(map(re.escape, sorted(known, key=len, reverse=True)))
    return re.compile(rf"\s*({words})(?:\s+|-(?=sized))(?=\S)", re.I), known


def fill_of(word: str) -> tuple[float, float]:
    """What a word such as "heaped" or "small" makes of an amount: a factor, and half the width as a share."""
    return _fills()[1][word.lower()]


_SEPARATOR = r"\s*(?:-|–|—|to|or)\s*"
_RANGE = re.compile(rf"{_SEPARATOR}(?=[\d{_SIGNS}]|{_WHOLE}(?![^\W\d_])|half|quarter)", re.I)
_BETWEEN = re.compile(r"(?:between|from)\s+(?=\S)", re.I)
_BETWEEN_AND = re.compile(r"\s*(?:and|to)\s+", re.I)
_TIMES = re.compile(r"\s*[x×*@]\s*(?=[\d½¼¾])", re.I)
_OR_SO = re.compile(
    r"\s*(?:\((?:or\s+so|approx\.?|approximately|roughly|about|more or less)\)"
    r"|-?(?:or\s+(?:so|thereabouts)|approx\.?|approximately|ish|roughly|about|more or less)(?![^\W\d_]))",
    re.I,
)
_PLUS = re.compile(r"\s*(?P<how>plus|\+|and|&)?\s*", re.I)
_MINUS = re.compile(r"\s*(?:minus|less|−)\s+(?=\S)", re.I)
_FULL = re.compile(r"\s+full(?=\s*(?:$|[,;).]|of\b))", re.I)
_CLOCK = re.compile(r"(\d{1,2}):([0-5]\d)(?:\s*(?:h|hrs?|hours?))?(?![\w:])", re.I)
_CONTAINER = re.compile(r"[\s-]*(bottle|tin|can|carton|jar|packet|package|pack|box|tub|bag|piece)s?(?![^\W\d_])", re.I)
#: A spread that "or so" gives. Modelling choice.
_OR_SO_SPREAD = 0.08


def amount_at(
    text: str,
    of: Collection[Dimension] | None = None,
    *,
    field: str = "amount",
    example: Argument = "500 g",
    alone: bool = False,
) -> Said | None:
    """The amount that ``text`` begins with; None where it begins with none.

    Parameters
    ----------
    text : without leading spaces.
    of : the dimensions that units are sought in first, where a spelling may mean several.
    alone : an "and" begins another thing: "two litres and 100 ml of fat".

    Raises
    ------
    QuantityError : figures that are no number, or can be read two ways.
    """
    factor, spread, rest = 1.0, 0.0, text
    hedge = None
    pattern, known = _hedges()
    while found := pattern.match(rest):
        hedge = found.group(1).lower()
        times, half = known[hedge]
        factor, spread, rest = factor * times, max(spread, half), rest[found.end() :]
    said = _between(rest, of, field, example) or _sum(rest, of, field, example, alone=alone)
    if said is None and hedge and hedge.startswith("a "):
        # "a good pinch": the hedge ate the article, so one is meant.
        said = _term(f"1 {rest}", of, field, example)
    if said is None:
        return None
    if said.unit and (so := _OR_SO.match(said.rest)):
        said = replace(said, spread=max(said.spread, _OR_SO_SPREAD), rest=said.rest[so.end() :])
    if factor != 1.0 or spread:
        said = replace(said, count=said.count * factor, spread=(said.spread**2 + spread**2) ** 0.5)
    return said


def _between(text: str, of: Collection[Dimension] | None, field: str, example: Argument) -> Said | None:
    """ "Between 1 and 2 litres", "from four to six ounces"."""
    opened = _BETWEEN.match(text)
    if opened is None:
        return None
    low = number_at(text[opened.end() :], field, example)
    joint = _BETWEEN_AND.match(low[1]) if low else None
    high = _term(low[1][joint.end() :], of, field, example) if low and joint else None
    if low is None or high is None or not high.count:
        return None
    middle = (low[0] + high.count) / 2.0
    return replace(high, count=middle, spread=max(high.spread, abs(high.count - low[0]) / 2.0 / middle))


def _sum(text: str, of: Collection[Dimension] | None, field: str, example: Argument, *, alone: bool) -> Said | None:
    """Terms of one dimension that stand together."""
    said = _term(text, of, field, example)
    while said and (unit := said.unit) and unit.kind != "container":
        joint = _PLUS.match(said.rest)
        how = (joint["how"] or "").lower() if joint else ""
        if joint is None or (alone and how in ("and", "&")) or (not joint.group() and not said.rest[:1].isdigit()):
            break
        after = said.rest[joint.end() :]
        try:
            more = _term(after, of, field, example)
        except QuantityError:
            break
        if more is None:
            break
        if more.unit is None and unit.name == "h" and not how and more.count < 60.0 and not more.rest.strip():
            said = replace(said, count=said.count + more.count / 60.0, rest=more.rest)
            break
        if more.unit is None and more.rest[:1] != "" and unit.name == "h":
            break
        if more.unit is None or more.unit.kind == "container" or more.came_in:
            break
        minutes = unit.name == "h" and more.unit.name == "m" and not how
        if not minutes and more.unit.dimension != unit.dimension:
            break
        size = more.count / 60.0 if minutes else more.value
        # Only what is added by name may be as large as what it is added to.
        if how not in ("plus", "+") and size >= said.value:
            break
        total = said.value + size
        spread = ((said.spread * said.value) ** 2 + (more.spread * size) ** 2) ** 0.5 / total if total else 0.0
        said = replace(said, count=total / unit.size, spread=spread, rest=more.rest, fill=1.0)
    return _less(said, of, field, example) if said else None


def _less(said: Said, of: Collection[Dimension] | None, field: str, example: Argument) -> Said:
    """ "A litre less 200 ml": of one dimension, and less than the whole."""
    joint = _MINUS.match(said.rest) if said.unit else None
    try:
        taken = _term(said.rest[joint.end() :], of, field, example) if joint else None
    except QuantityError:
        return said
    if said.unit is None or taken is None or taken.unit is None or taken.unit.dimension != said.unit.dimension:
        return said
    left = said.value - taken.value
    if left <= 0.0:
        return said
    spread = ((said.spread * said.value) ** 2 + (taken.spread * taken.value) ** 2) ** 0.5 / left
    return replace(said, count=left / said.unit.size, spread=spread, rest=taken.rest, fill=1.0)


#: "2 × 6 × 330 ml": nobody multiplies more.
DEEPEST = 2


def _term(text: str, of: Collection[Dimension] | None, field: str, example: Argument, depth: int = 0) -> Said | None:
    """One number with its unit, if it has one."""
    if of is not None and "time" in of and (clock := _CLOCK.match(text)):
        hours = int(clock.group(1)) + int(clock.group(2)) / 60.0
        return Said(hours, _HOUR, 0.0, text[clock.end() :])
    number = number_at(text, field, example)
    if number is None and (one := unit_at(text, of)) and _AND_PARTS.match(one[1]):
        # "Kilo and a half": one of it, and a part.
        number = 1.0, f" {text}"
    if number is None:
        return None
    value, rest = number
    rest, value, spread = _range(rest, value, of, field, example)
    if depth < DEEPEST and (times := _TIMES.match(rest)):
        inner = _term(rest[times.end() :], of, field, example, depth + 1)
        if inner and inner.unit:
            return _each(value, spread, inner)
    pattern, known = _fills()
    full = 1.0
    while fill := pattern.match(rest):
        factor, half = known[fill.group(1).lower()]
        full, spread, rest = full * factor, (spread**2 + half**2) ** 0.5, rest[fill.end() :]
    if unit := unit_at(rest, of):
        return _to_the_other(_in_unit(value, spread, full, *unit), of, field, example)
    # "a 75 cl bottle", "two 400 g tins": the number counts containers of a size.
    if depth < DEEPEST and _FIGURES.match(rest.lstrip(" -")):
        try:
            inner = _term(rest.lstrip(" -"), of, field, example, depth + 1)
        except QuantityError:
            inner = None
        if inner and inner.unit:
            return _each(value, spread, inner)
    return Said(value, None, spread, rest, fill=full)


def _in_unit(value: float, spread: float, full: float, unit: Unit, rest: str) -> Said:
    """A number in its unit; what follows may be a part of another, or the container that it came in."""
    if unit.kind == "hand" and (full_of := _FULL.match(rest)):
        rest = rest[full_of.end() :]
    if more := _AND_PARTS.match(rest):
        value, rest = value + _part(more["part"], more["n"]), re.sub(rf"^{_OF_A}", "", rest[more.end() :])
    # "a 500 ml bottle of cider", with or without its article.
    box = _CONTAINER.match(rest) if unit.kind == "exact" else None
    came_in, rest = (box.group(1).lower(), rest[box.end() :]) if box else ("", rest)
    return Said(value, unit, (spread**2 + unit.spread**2) ** 0.5, rest, came_in, full)


def _each(count: float, spread: float, one: Said) -> Said:
    """So many of a size: "2 × 700 ml", "two 400 g tins"."""
    return replace(one, count=count * one.count, spread=(spread**2 + one.spread**2) ** 0.5)


def _range(
    rest: str, value: float, of: Collection[Dimension] | None, field: str, example: Argument
) -> tuple[str, float, float]:
    """ "2-3 carrots", "6 to 8 cups": what is left of the text, the middle, and half the width as a share."""
    joint = _RANGE.match(rest)
    if joint is None:
        return rest, value, 0.0
    try:
        other = number_at(rest[joint.end() :], field, example)
    except QuantityError:
        return rest, value, 0.0
    # "a 12-oz can" is no range, nor is "2 or a little more".
    if other is None or not value or other[0] <= value:
        return rest, value, 0.0
    middle = (value + other[0]) / 2.0
    return other[1], middle, (other[0] - value) / 2.0 / middle


def _to_the_other(said: Said, of: Collection[Dimension] | None, field: str, example: Argument) -> Said:
    """ "500 g to 600 g": a range with both its units."""
    joint = _RANGE.match(said.rest)
    if joint is None or said.unit is None:
        return said
    try:
        other = number_at(said.rest[joint.end() :], field, example)
    except QuantityError:
        return said
    unit = unit_at(other[1], of) if other else None
    if other is None or unit is None or unit[0].dimension != said.unit.dimension:
        return said
    high = other[0] * unit[0].size
    if high <= said.value:
        return said
    middle = (said.value + high) / 2.0
    return replace(
        said,
        fill=1.0,
        count=middle / said.unit.size,
        spread=max(said.spread, (high - said.value) / 2.0 / middle),
        rest=unit[1],
    )


_HOUR = units_of("h")[0]
