"""How much sauce, as a cook says it: a volume, a share, a weight on the scale, a salt content, minutes or helpings."""

from __future__ import annotations

import re
from typing import NamedTuple

from ..amounts.quantities import parse, show_plain
from ..amounts.reading import amount_at, number_at
from ..errors import QuantityError
from ..messages import Message, say

#: The field of a wish that each kind of amount belongs to.
_FIELDS = {"volume": "volume_ml", "mass": "gross_g", "percent": "at_salt_percent", "time": "minutes"}

#: Past this a percentage is a share of the pot, up to it a salt content, %. Modelling choice: no sauce holds more.
MOST_SALT_PERCENT = 5.0

_EXAMPLE = say("wishes.example")
_OF_IT = re.compile(r"\s+(?:of (?:it|the pot|what is there)|of all)$")
_PEOPLE = re.compile(r"(?:people|persons?|guests?|eaters|of us|covers)$")
_HELPINGS = re.compile(r"(?:helpings?|portions?|servings?|plates?)(?: (?:of|at|à) (?P<size>.+))?$")
_BEFORE = re.compile(r"^(?:for|about|boil(?:ed)?(?: down)?(?: to| by| for)?|reduced? (?:to|by|for)|down to|by)\s+")
_AFTER = re.compile(r"\s+(?:salt|on the scale|gross|with the pan|finished|of sauce)$")
_PARTS = "half|third|quarter|fifth|sixth|eighth|tenth"


class Told(NamedTuple):
    """A field of a wish, and what was said for it; ``each_ml`` is the size of a helping where that was said too."""

    field: str
    value: float
    each_ml: float | None = None


def read_amount_wanted(text: str, *, field: str = "amount") -> Told:
    """What a cook says of how much sauce it is to be.

    A share is of the pot, a weight what the scale shows, pan included, a percentage up to 5 % a salt content.

    Raises
    ------
    QuantityError : it is none of these.
    """
    said = _SPACES.sub(" ", text.strip().lower()).rstrip(".")
    by = re.match(r"(?:boil(?:ed)? down|reduced?) by\b", said) is not None
    said = _AFTER.sub("", _OF_IT.sub("", _BEFORE.sub("", said)))
    if not said:
        raise QuantityError(field, say("wishes.how_much", example=_EXAMPLE))
    share = _share(said, field)
    if share is not None:
        return Told("share", 1.0 - share if by else share)
    try:
        amount = amount_at(said, ("volume", "mass", "percent", "time"), field=field, example=_EXAMPLE)
    except QuantityError:
        amount = None
    if amount is None:
        raise QuantityError(field, say("wishes.says_nothing", text=text.strip(), example=_EXAMPLE))
    unit = amount.rest.strip().removeprefix("of ").removeprefix("a ")
    if amount.unit is None and _PEOPLE.match(unit):
        return Told("people", _whole(amount.count, field, say("wishes.noun_people")))
    helpings = _HELPINGS.match(unit) if amount.unit is None else None
    if helpings:
        size = helpings["size"]
        return Told(
            "portions",
            _whole(amount.count, field, say("wishes.noun_helpings")),
            None if size is None else parse(size, "volume", field=field),
        )
    if unit:
        raise QuantityError(field, say("amounts.unknown_unit", unit=unit, example=_EXAMPLE))
    dimension = amount.unit.dimension if amount.unit else "volume"
    if dimension not in _FIELDS:
        raise QuantityError(field, say("wishes.says_nothing", text=text.strip(), example=_EXAMPLE))
    value = parse(said, dimension, field=field, default_unit="ml")
    if dimension == "percent" and value > MOST_SALT_PERCENT:
        return Told("share", value / 100.0)
    return Told(_FIELDS[dimension], 60.0 * value if dimension == "time" else value)


_SPACES = re.compile(r"[\s\u00a0\u2009\u202f]+")


def _share(said: str, field: str) -> float | None:
    """A share of the pot in words or as a bare fraction; None where it is something else."""
    if said == "all":
        return 1.0
    if not re.fullmatch(rf"\d+\s*[/⁄]\s*\d+|[½⅓⅔¼¾⅕⅖⅗⅘]|[a-z -]*(?:{_PARTS})s?", said):
        return None
    number = number_at(said, field, _EXAMPLE)
    return _part(number[0], field) if number and not number[1].strip() else None


def _part(share: float, field: str) -> float:
    if not 0.0 < share <= 1.0:
        raise QuantityError(field, say("wishes.share_between"))
    return share


def _whole(number: float, field: str, what: Message) -> float:
    if number != int(number) or number < 1:
        raise QuantityError(field, say("wishes.whole_number", number=show_plain(number), what=what))
    return number
