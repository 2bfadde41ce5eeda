"""What cooks write, and what it comes to: lines of old books, of a pad in a kitchen, and of a grammar.

Each line of ``books.txt`` and ``kitchen.txt`` is ``text = items``: items of one reading are divided by ``;``,
readings that are as good by ``|``. An item is the keys it may be taken for, its amount (``?`` for none), its use,
``left`` and ``poured``. ``~`` marks what is only told by count or by hand: any weight within two fifths of it is
right, and ``~~`` within a factor of two and a half. ``ask`` is a line that must be asked about. What stands behind
``@`` is where the weight comes from, where the line does not say it: USDA SR Legacy portions, or memory.
"""

from __future__ import annotations

import random
import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Literal

from spissus_core.intake.lines import ReadLine, read_line
from spissus_core.pantry.ingredients import catalogue

from .forms import made

HERE = Path(__file__).parent

#: How far a weight may be off: where it is said, where it is counted, and where the hand measures it.
SAID, COUNTED, BY_HAND = 1.1, 1.4, 2.5

Outcome = Literal["right", "asked", "wrong"]


@dataclass(frozen=True, slots=True)
class Item:
    """One thing that a line says went in; ``amount`` is None where it says no amount."""

    keys: tuple[str, ...]
    amount: float | None
    poured: bool
    within: float
    use: str | None
    left: float | None
    poured_off: float


@dataclass(frozen=True, slots=True)
class Case:
    """A line, and the readings that are right; none where it must be asked about."""

    block: str
    text: str
    readings: tuple[tuple[Item, ...], ...]
    ask: bool


_ITEM = re.compile(
    r"(?P<keys>[a-z_,]+) (?:(?P<none>\?)|(?P<value>[\d.]+)(?P<unit>g|ml)(?P<loose>~{0,2}))"
    r"(?: (?P<use>in|reduced|flamed|late|dredged|rubbed|fried|left_out))?"
    r"(?: left (?P<left>[\d.]+))?(?: poured (?P<off>[\d.]+))?"
)


def _item(text: str) -> Item:
    found = _ITEM.fullmatch(text.strip())
    if found is None:
        raise ValueError(text)
    return Item(
        keys=tuple(found["keys"].split(",")),
        amount=None if found["none"] else float(found["value"]),
        poured=found["unit"] == "ml",
        within={"": SAID, "~": COUNTED, "~~": BY_HAND}[found["loose"] or ""],
        use=found["use"],
        left=float(found["left"]) if found["left"] else None,
        poured_off=float(found["off"] or 0.0),
    )


def case(block: str, text: str, expected: str) -> Case:
    """A case from its two halves."""
    readings = [reading.strip() for reading in expected.partition("@")[0].split("|")]
    items = tuple(tuple(map(_item, reading.split(";"))) for reading in readings if reading != "ask")
    return Case(block, text, items, "ask" in readings)


def written(name: str) -> Iterator[tuple[str, str, str]]:
    """Block, text and what is expected, of each line of a file."""
    block = name
    for row in (HERE / name).read_text(encoding="utf-8").splitlines():
        if row.startswith("#"):
            block = row[2:]
        elif row:
            text, _, expected = row.rpartition(" = ")
            yield block, text, expected


@cache
def cases() -> tuple[Case, ...]:
    """All lines: of books, of the pad, of the grammar."""
    out = [case(*row) for name in ("books.txt", "kitchen.txt") for row in written(name)]
    return (*out, *(case("forms", text, expected) for text, expected in made()))


@cache
def unlike() -> tuple[Case, ...]:
    """Lines of kinds that the reader was not written for, each written before it was tried on them."""
    return tuple(case(*row) for name in ("notes.txt", "market.txt") for row in written(name))


@cache
def later() -> tuple[Case, ...]:
    """Lines that came up after the corpus was set down."""
    return tuple(case(*row) for row in written("later.txt"))


def kept_apart() -> tuple[Case, ...]:
    """A tenth of them, drawn by seed: looked at only when all else is done."""
    return tuple(random.Random(1126).sample(cases(), len(cases()) // 10))


def _grams(line: ReadLine) -> float | None:
    if line.amount is None or line.ingredient is None:
        return None
    if line.amount.dimension == "mass":
        return line.amount.value
    return line.amount.value * line.ingredient.density_g_ml


def _is(line: ReadLine, item: Item) -> bool:
    what = line.ingredient
    if what is None or what.key not in item.keys:
        return False
    if item.amount is None:
        return line.amount is None
    grams = _grams(line)
    if grams is None:
        return item.use == "left_out" == line.use
    wanted = item.amount * (catalogue()[what.key].density_g_ml if item.poured else 1.0)
    near = wanted / item.within - 0.06 <= grams <= wanted * item.within + 0.06
    used = item.use is None or line.use == item.use
    left = (line.left or 1.0) - (item.left or 1.0)
    return near and used and abs(left) < 0.01 and abs(line.poured_off - item.poured_off) < 0.01


def asks(line: ReadLine) -> bool:
    """Whether a line that was read says that it is not sure."""
    return line.problem is not None or getattr(line, "doubt", None) is not None


def outcome(one: Case) -> Outcome:
    """Whether a line is read right, asked about, or wrong without a word."""
    lines = read_line(one.text)
    for reading in one.readings:
        if len(lines) == len(reading) and all(map(_is, lines, reading)):
            return "right"
    if any(map(asks, lines)):
        return "right" if one.ask else "asked"
    return "wrong"


def amounts() -> tuple[tuple[str, str, float | None], ...]:
    """Dimension, text, and what it is in mL, g, mm, h, °C, % or kW; None where it must be asked about."""
    rows = ((*text.partition(": "), expected) for _, text, expected in written("amounts.txt"))
    return tuple((d, text, None if expected == "ask" else float(expected)) for d, _, text, expected in rows)


def sentences() -> tuple[tuple[str, dict[str, str]], ...]:
    """What a cook says of a strained liquid, and what is to be found in it, by name."""
    out = []
    for _, text, expected in (*written("sentences.txt"), *written("spoken.txt")):
        words = expected.split()
        found: dict[str, str] = {}
        while words:
            name = words.pop(0)
            found[name] = "" if name in ("unread", "none") else words.pop(0)
        out.append((text, found))
    return tuple(out)


def wishes() -> tuple[tuple[str, str, float | None], ...]:
    """What a cook says of how much sauce, the field it belongs to, and its value; None where it must be asked about."""
    fields = {
        "left": "share",
        "gone": "gone_ml",
        "ml": "volume_ml",
        "g": "gross_g",
        "salt": "at_salt_percent",
        "min": "minutes",
        "people": "people",
        "helpings": "portions",
        "step": "body",
    }
    out: list[tuple[str, str, float | None]] = []
    for _, text, expected in written("wishes.txt"):
        kind, _, value = expected.partition(" ")
        out.append((text, fields.get(kind, ""), float(value) if value else None))
    return tuple(out)
