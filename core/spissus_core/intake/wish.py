"""How much sauce, as a cook says it: a volume, a share, a weight on the scale, a salt content, minutes or helpings;
and, beside it or alone, how thick."""

from __future__ import annotations

import re
from functools import lru_cache
from typing import NamedTuple

from ..amounts.figures import in_figures
from ..amounts.quantities import LONGEST_AMOUNT, parse, show_plain
from ..amounts.reading import Said, amount_at
from ..amounts.rows import rows
from ..amounts.shares import Remaining, remaining
from ..errors import QuantityError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from ..messages import Message, say

#: The field of a wish that each kind of amount belongs to.
_FIELDS = {"volume": "volume_ml", "mass": "gross_g", "percent": "at_salt_percent", "time": "minutes"}

#: Past this a percentage is a share of the pot, up to it a salt content, %. Modelling choice: no sauce holds more.
MOST_SALT_PERCENT = 5.0

_EXAMPLE = say("wishes.example")
_PEOPLE = re.compile(r"(?:people|persons?|guests?|eaters|(?:of )?us|covers|to eat)$")
_SO_MANY = re.compile(
    r"^(?:(?:just |only )?enough |(?:dinner|supper|lunch) )?(?:for|serves|serving|feeds)\s+(?:a table of\s+|the\s+)?"
)
_HELPINGS = re.compile(r"(?:helpings?|portions?|servings?|plates?)(?: (?:of|at|à) (?P<size>.+))?$")
_BEFORE = re.compile(
    r"^(?:for|about|(?:no|not) (?:more|less) than|not (?:above|over|under|below)|at (?:the )?(?:most|least)|up to|at|in"
    r"|(?:until|till) (?:there(?: is| are|'s)|(?:it|the scale|the meter) (?:shows|reads|says|is))"
    r"|boil(?:ed)?(?: it)?(?: hard| gently| fast)?(?: down)?(?: to| for)?|reduced?(?: it)? (?:to|for)|down to|to)\s+"
)
_AFTER = re.compile(
    r"(?:,? (?:and )?(?:no|not) (?:more|less)|,? at (?:most|least)| (?:will do|is enough|is plenty)|'? worth"
    r"| salt| on the scale| gross| with the pan| finished| of sauce| please)$"
)


class Told(NamedTuple):
    """A field of a wish, and what was said for it.

    ``each_ml`` is the size of a helping and ``body`` the step of the ladder, where those were said too; the field is
    "body" where nothing else was said.
    """

    field: str
    value: float
    each_ml: float | None = None
    body: int | None = None


#: What may stand before a word for body, and behind it.
_MAKE_IT = (
    r"(?:(?:and|but|with|make|it|it's|should|to|be|is|nice(?: and)?|quite|rather|fairly|a bit|so|that|until|till|sauce"
    r"|the|of|consistency|enough|thick enough)\s+)*"
)
_LIKE_THAT = r"(?:\s+(?:consistency|sauce|jus|body|enough|please|coat))*"


@lru_cache(maxsize=1)
def _body_words() -> tuple[dict[str, int], re.Pattern[str]]:
    """Words for how thick it is to be, with the step each means, and the pattern that finds one: rows of
    ``data/body_words.csv``."""
    known = {word: int(row["step"]) for row in rows("body_words") for word in row["words"].split("|")}
    words = "|".join(map(re.escape, sorted(known, key=len, reverse=True)))
    thick = rf"{_MAKE_IT}(?:an?\s+)?(?P<word>{words}){_LIKE_THAT}"
    return known, re.compile(
        rf"^{thick}(?:[,;]|\s+(?=for\b|\d)|$)|(?:[,;]|\s|\band\b)\s*(?:of\s+)?{thick.replace('word', 'last')}$"
    )


def body_wanted(text: str) -> tuple[str, int | None]:
    """What is said of how thick it is to be, as a step of the ladder, and the rest of the text.

    >>> body_wanted("600 ml, syrupy")
    ('600 ml', 2)
    """
    known, pattern = _body_words()
    found = pattern.search(text)
    if found is None:
        return text, None
    rest = f"{text[: found.start()]} {text[found.end() :]}".strip(" ,;")
    return rest, known[found["word"] or found["last"]]


def read_amount_wanted(text: str, *, field: str = "amount") -> Told:
    """What a cook says of how much sauce it is to be, and how thick.

    A share is of the pot (:mod:`..amounts.shares`), a weight what the scale shows, pan included, a percentage up to 5 %
    a salt content where nobody says that it goes.

    Raises
    ------
    QuantityError : it is none of these, or can be meant two ways.
    """
    if len(text) > LONGEST_AMOUNT:
        raise QuantityError(field, say("amounts.too_long", example=_EXAMPLE))
    said, body = body_wanted(_SPACES.sub(" ", text.strip().lower()).rstrip("."))
    if body is not None and not said:
        return Told("body", body)
    return _amount_wanted(in_figures(said), text, field)._replace(body=body)


def _amount_wanted(said: str, text: str, field: str) -> Told:
    """What ``said``, a part of ``text``, says of how much. Raises QuantityError where it says nothing."""
    try:
        rests = remaining(said, field=field)
    except QuantityError:
        rests = None
    if rests and (told := _rests(rests, said, field)):
        return told
    many = _SO_MANY.match(said)
    said = _AFTER.sub("", _BEFORE.sub("", said[many.end() :] if many else said))
    if not said:
        raise QuantityError(field, say("wishes.how_much", example=_EXAMPLE))
    try:
        amount = amount_at(said, ("volume", "mass", "percent", "time"), field=field, example=_EXAMPLE)
    except QuantityError:
        amount = None
    if amount is None:
        raise QuantityError(field, say("wishes.says_nothing", text=text.strip(), example=_EXAMPLE))
    unit = amount.rest.strip().removeprefix("of ").removeprefix("a ")
    if amount.unit is None and (_PEOPLE.match(unit) or (many and not unit)):
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
    if amount.unit is None and amount.count < LEAST_BARE:
        raise QuantityError(field, say("wishes.of_what", text=text.strip()))
    dimension = amount.unit.dimension if amount.unit else "volume"
    if dimension not in _FIELDS:
        raise QuantityError(field, say("wishes.says_nothing", text=text.strip(), example=_EXAMPLE))
    value = parse(said, dimension, field=field, default_unit="ml")
    return Told(_FIELDS[dimension], 60.0 * value if dimension == "time" else value)


def _rests(rests: Remaining, said: str, field: str) -> Told | None:
    """What is left or gone, as a field of a wish; None for a salt content, and for an amount that is to be left."""
    if rests.amount is not None:
        value, volume = rests.amount.value, _is_volume(rests.amount)
        if rests.goes != "gone":
            return Told("volume_ml", value) if volume else None
        return Told("gone_ml", value if volume else value * SPECIFIC_VOLUME_ML_G["water"])
    assert rests.share is not None
    if "%" in said and rests.share <= MOST_SALT_PERCENT / 100.0 and rests.goes != "gone":
        return None
    return Told("share", rests.left(said, field))


def _is_volume(said: Said) -> bool:
    return said.unit is not None and said.unit.dimension == "volume"


#: A bare number below this is no volume of a sauce: helpings, people or millimetres as likely. Modelling choice.
LEAST_BARE = 50.0

_SPACES = re.compile(r"[\s\u00a0\u2009\u202f]+")


def _whole(number: float, field: str, what: Message) -> float:
    if number != int(number) or number < 1:
        raise QuantityError(field, say("wishes.whole_number", number=show_plain(number), what=what))
    return number
