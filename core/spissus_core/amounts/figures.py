"""What is spoken, in figures: "six hundred", "two point four", thousands with a point, "2 l 350"."""

from __future__ import annotations

import re

from .reading import ONES, TENS, number_at

#: A number of hundreds in words, and one with a point in it.
_ONES, _TENS = "|".join(ONES), "|".join(TENS)
_HUNDREDS = re.compile(
    rf"\b(?P<n>{_ONES}|a)[ -]hundred(?:(?:[ -]and)?[ -](?P<rest>(?:{_TENS})(?:[ -](?:{_ONES}))?|{_ONES}))?\b(?! and a)",
    re.I,
)
_POINT = re.compile(
    rf"\b(?P<whole>nought|zero|{_ONES})[ -]point[ -](?P<tenths>(?:nought|zero|{_ONES})(?:[ -](?:{_ONES}))?)\b", re.I
)
#: "2.250 g": nobody weighs a pot to the milligram. "2 l 350": what follows is of the next smaller unit.
THOUSANDS = re.compile(r"\b(\d{1,2})\.(\d{3})(?=\s*(?:g|gr|grams?|ml|mils?)\b)", re.I)
_NEXT_SMALLER = re.compile(
    rf"\b(?P<whole>(?:\d+|an?|{_ONES})\s*(?P<unit>l|lit(?:re|er)s?|kg|kilos?))"
    r"(?:\s+|,\s+(?=\d{2,3}$))(?P<rest>\d{2,3})"
    r"(?=\s*(?:$|[,;](?!\d)|\b(?:on|hot|cold|with|and|of|no|salty|flat)\b))",
    re.I,
)
#: "Seven fifty mil" is 750, as it is said over the counter.
_HUNDREDS_LEFT_OUT = re.compile(
    rf"\b(?P<n>{_ONES})[ -](?P<tens>{_TENS})\b(?=\s*(?:m(?:il)?ls?|mils?|ml|millilit(?:re|er)s?|g|gr|gram(?:me)?s?)\b)",
    re.I,
)
_PER_HUNDRED = re.compile(r"\s+(?:in|out of|per)\s+(?:a |one )?100\b(?!\s*[\w/])", re.I)


def in_figures(text: str) -> str:
    """What is spoken in figures: "six hundred" and "two point four", thousands with a point, "2 l 350"."""
    text = _HUNDREDS_LEFT_OUT.sub(lambda found: _figures(_number(found["n"]) * 100 + _number(found["tens"])), text)
    text = _HUNDREDS.sub(lambda found: _figures(_number(found["n"]) * 100 + _number(found["rest"])), text)
    text = _POINT.sub(_with_a_point, text)
    text = _PER_HUNDRED.sub(" %", THOUSANDS.sub(r"\1\2", text))
    smaller = {"l": "ml", "k": "g"}
    return _NEXT_SMALLER.sub(
        lambda found: f"{found['whole']} {found['rest']} {smaller[found['unit'][0].lower()]}", text
    )


def _number(words: str | None) -> float:
    found = None if words is None else number_at(words.replace("-", " "))
    return 0.0 if found is None else found[0]


def _figures(value: float) -> str:
    return f"{value:.0f}"


def _with_a_point(found: re.Match[str]) -> str:
    digits = "".join(
        _figures(0.0 if word in ("nought", "zero") else _number(word))
        for word in found["tenths"].lower().replace("-", " ").split()
    )
    whole = 0.0 if found["whole"].lower() in ("nought", "zero") else _number(found["whole"])
    return f"{_figures(whole)}.{digits}"
