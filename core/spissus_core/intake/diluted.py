"""A concentrate and its water in one line: "1 l stock made from 3 cubes", "(1 part to 3 parts water)"."""

from __future__ import annotations

import re
from collections.abc import Sequence
from typing import NamedTuple

from ..amounts.quantities import parse, show_volume
from ..amounts.reading import amount_at
from ..errors import QuantityError
from ..messages import say
from ..pantry.concentrates import made_up
from ..pantry.ingredients import Ingredient, ingredient
from ..pantry.naming import taken_for
from .clauses import amount_of_list

_N = r"\d{1,4}(?:[.,]\d{1,4})?"
_COUNT = r"one|two|three|four|five|six|seven|eight|nine|ten"
_PARTS = re.compile(
    rf"(?P<a>{_N})\s*parts?\s+(?:of\s+)?(?P<first>[^\d,;]+?)\s+(?:to|and|:)\s+(?P<b>{_N})\s*(?:parts?)?\s*"
    r"(?:of\s+)?(?P<second>[^\d,;]+?)\s*[,;]\s*(?P<total>.+?)(?:\s+(?:in all|in total|altogether|all told))?",
    re.I,
)
_TO_WATER = re.compile(
    rf"(?P<line>[^()]+?)[,\s(]*(?:diluted\s+)?(?P<a>{_N}|one)\s*(?:parts?)?(?:\s+(?:of\s+)?(?:concentrate|stock|it))?"
    rf"\s*(?:to|:|/)\s*(?P<b>{_N}|{_COUNT})\s*(?:parts?)?(?:\s+(?:of\s+)?water|\s+with water)\s*\)?",
    re.I,
)
_FROM_CUBES = re.compile(
    r"(?P<stock>[^()]+?\b(?:stock|broth|bouillon)\b)[,\s(]*(?:made\s+)?(?:up\s+)?(?:from|with|out of)\s+"
    r"(?P<cubes>[^()]+?\bcubes?\b[^,()]*)\)?",
    re.I,
)
_A_CUBE = re.compile(r"(?:an? )?(?:\w+ )?(?:cubes?|powder)", re.I)
_MADE_UP_TO = re.compile(
    r"(?P<line>[^()]+?)[,\s(]*(?:made up|topped up|diluted|filled up)\s+to\s+(?P<total>[^()]+?)"
    r"(?:\s+with water)?\s*\)?",
    re.I,
)


class Part(NamedTuple):
    """One of the things that such a line names: as it is to be read, as it is kept, and what is meant by it."""

    read: str
    written: str
    meant: Ingredient | None = None


def diluted(shown: str, own: Sequence[Ingredient]) -> list[Part]:
    """The concentrate and the water that a line names; nothing where it is no such line.

    Raises
    ------
    QuantityError : it is made up to less than there was.
    """
    if found := _PARTS.fullmatch(shown):
        total = parse(found["total"], "volume")
        a, b = (float(found[side].replace(",", ".")) for side in "ab")
        made = made_up(total, a, b)
        return [_poured(found["first"].strip(), made.concentrate_ml), _poured(found["second"].strip(), made.water_ml)]
    return _to_water(shown, own) or _from_cubes(shown) or _made_up_to(shown)


def _poured(name: str, ml: float, meant: Ingredient | None = None) -> Part:
    return Part(f"{ml:.1f} ml {name}", f"{show_volume(ml).metric} {name}", meant)


def _number(text: str) -> float:
    said = amount_at(text, ())
    return said.count if said else 0.0


def _volume_ml(text: str) -> tuple[float, str] | None:
    """A volume and the name behind it."""
    said = amount_of_list(text)
    if said is None or said.unit is None or said.unit.dimension != "volume":
        return None
    return said.value, re.sub(r"^\s*of\s+", "", said.rest).strip(" ,(")


def _to_water(shown: str, own: Sequence[Ingredient]) -> list[Part]:
    """ "900 ml stock (1 part concentrate to 3 parts water)"."""
    found = _TO_WATER.fullmatch(shown)
    stock = _volume_ml(found["line"]) if found else None
    if found is None or stock is None or _number(found["a"]) <= 0.0:
        return []
    made = made_up(stock[0], _number(found["a"]), _number(found["b"]))
    known = taken_for(f"{stock[1]} concentrate", own)
    concentrate = known[0].ingredient if known and not known[0].missing else ingredient("chicken_broth_condensed")
    name = f"{stock[1]} concentrate"
    return [_poured(name, made.concentrate_ml, concentrate), _poured("water", made.water_ml)]


def _from_cubes(shown: str) -> list[Part]:
    """ "1 l stock made from 3 cubes", "500 ml stock from a cube"."""
    found = _FROM_CUBES.fullmatch(shown)
    stock = _volume_ml(found["stock"]) if found else None
    if found is None or stock is None:
        return []
    cubes = found["cubes"].strip()
    if _A_CUBE.fullmatch(cubes):
        return [Part(found["stock"], shown, ingredient("beef_broth_cube_made"))]
    if not re.search(r"stock|bouillon|broth", cubes, re.I):
        cubes = re.sub(r"(?i)cubes?", "stock cubes", cubes)
    return [_poured("water", stock[0]), Part(cubes, cubes)] if amount_of_list(cubes) else []


def _made_up_to(shown: str) -> list[Part]:
    """ "200 ml concentrate made up to 1 l"."""
    found = _MADE_UP_TO.fullmatch(shown)
    line, total = (_volume_ml(found["line"]), _volume_ml(found["total"])) if found else (None, None)
    if found is None or line is None or total is None or total[1]:
        return []
    if total[0] <= line[0]:
        raise QuantityError("amount", say("intake.more_than_went_in", amount=show_volume(total[0])))
    return [Part(found["line"], found["line"]), _poured("water", total[0] - line[0])]
