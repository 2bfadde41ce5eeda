"""What is left of a pot and what is gone, as cooks say it: one reading for lists, wishes and readings.

"Reduce by three quarters" and "reduce to three quarters" are confused all the time, even in print; the first leaves
25 %, the second 75 %. *By, off, away, gone* take away; *to, leave, left, remains* stay; the word next to the verb
decides, and "of it" where there is no other. A half is a half either way; any other share with neither word is asked
about (common practice).
"""

from __future__ import annotations

import re
from typing import Literal, NamedTuple

from ..errors import QuantityError
from ..messages import say
from .reading import Said, amount_at, number_at

#: Whether what is named stays or goes; empty where nobody said.
Goes = Literal["left", "gone", ""]


class Remaining(NamedTuple):
    """What was named, and whether it stays: a ``share`` of the pot, or an ``amount`` with its unit."""

    goes: Goes
    share: float | None = None
    amount: Said | None = None

    def left(self, text: str, field: str) -> float:
        """The share that is left.

        Raises
        ------
        QuantityError : nobody said whether the share stays or goes, or nothing would be left.
        """
        assert self.share is not None
        if not self.goes and self.share not in (0.5, 1.0):
            raise QuantityError(field, say("amounts.left_or_gone", text=text.strip()))
        left = 1.0 - self.share if self.goes == "gone" else self.share
        if not 0.0 < left <= 1.0 or not 0.0 < self.share <= 1.0:
            raise QuantityError(field, say("amounts.share_between"))
        return left


_GONE_BEFORE = r"by|off|away|los[et]|losing|minus|without|lost"
_LEFT_BEFORE = r"to|leav(?:e|es|ing)|keep(?:s|ing)?"
_GONE_AFTER = r"off|away|gone|less|lost|evaporated|steamed|disappeared"
_LEFT_AFTER = r"left(?: over| behind)?|remain(?:s|ing)?|stay(?:s|ing)?|is over"
_OF_IT = r"of (?:it|all|its volume|the (?:pot|liquid|sauce|whole|lot)|what (?:is|was) there|what you strained)"
#: What says nothing of it, before a share or behind it.
_NEUTRAL = (
    r"reduc(?:e|ed|es|ing)|knock(?:ed)?|boil(?:s|ed|ing)?|cook(?:s|ed|ing)?|simmer(?:s|ed|ing)?|steam(?:s|ed)?|bring|brought|take|took"
    r"|let|down|it|all|the|pot|liquid|sauce|volume|until|till|only|just|is|has|have|are|was|were|about|roughly|nearly"
    r"|almost|around|some|me|you|us|then|first|that|this|of|its|should|must|be|by itself|again|out|there"
)
_BEFORE_WORD = re.compile(rf"(?P<gone>{_GONE_BEFORE})\b|(?P<left>{_LEFT_BEFORE})\b|(?:{_NEUTRAL})\b", re.I)
_AFTER_WORD = re.compile(
    rf"(?P<of>{_OF_IT})\b|(?P<gone>{_GONE_AFTER})\b|(?P<left>{_LEFT_AFTER})\b|(?:{_NEUTRAL})\b", re.I
)
_WORD = re.compile(r"[^\s,]+")
_HALVE = re.compile(r"halv(?:e|ed|ing)\b", re.I)
_WHOLE = re.compile(r"(?:all|everything|the lot|the whole(?: pot)?)(?: of it)?$", re.I)
_NOTHING_GONE = re.compile(
    r"nothing (?:boiled )?(?:away|off|gone|lost)|(?:leave it |just )?(?:as|the way) it is|(?:no|without) boiling"
    r"|(?:do not|don't|dont) (?:boil|reduce) (?:it|anything)(?: down)?",
    re.I,
)


def goes_by(word: str) -> Goes:
    """Which way a word before a share points."""
    return _way(word, _BEFORE_WORD) or ""


def remaining(text: str, *, field: str = "amount") -> Remaining | None:
    """What ``text`` says of what stays or goes; None where it speaks of something else.

    An amount with neither word is not for this to read: "900 ml" says what is wanted.

    >>> remaining("reduce by a third").left("", "share")
    0.6666666666666667
    >>> remaining("leave a third")
    Remaining(goes='left', share=0.3333333333333333, amount=None)
    >>> remaining("boil off 400 ml").goes
    'gone'

    Raises
    ------
    QuantityError : figures that are no number.
    """
    said = " ".join(text.lower().strip().rstrip(".").split())
    if _HALVE.match(said) and not _strays(said[_HALVE.match(said).end() :], _AFTER_WORD):  # type: ignore[union-attr]
        return Remaining("left", 0.5)
    if _WHOLE.fullmatch(said) or _NOTHING_GONE.fullmatch(said):
        return Remaining("left", 1.0)
    for start in _WORD.finditer(said):
        found = _named(said[start.start() :], field)
        if found is None:
            continue
        named, rest = found
        before = _way(said[: start.start()], _BEFORE_WORD)
        after = _way(rest, _AFTER_WORD)
        if before is None or after is None:
            return None
        goes = before or after
        if named.share is None and not goes:
            return None
        return named._replace(goes=goes)
    return None


def _named(text: str, field: str) -> tuple[Remaining, str] | None:
    """The share or the amount that ``text`` begins with, and what stands behind it."""
    number = number_at(_ARTICLE.sub("", text), field)
    if number is not None and 0.0 < number[0] < 1.0:
        # What a part is a part of belongs to the part: of a litre it is an amount, of the pot a share.
        eaten = _ARTICLE.sub("", text)
        eaten = eaten[: len(eaten) - len(number[1])]
        of = eaten[eaten.rfind(" of") :] if " of" in eaten else ""
        number = number[0], f"{of}{number[1]}"
        if re.match(rf"\s*{_OF_IT}\b", number[1], re.I):
            return Remaining("", number[0]), number[1]
    said = amount_at(text, ("percent", "volume", "mass"), field=field, alone=True)
    if said is not None and said.unit is not None:
        if said.unit.dimension == "percent":
            return Remaining("", said.value / 100.0), said.rest
        return (Remaining("", amount=said), said.rest) if said.unit.dimension in ("volume", "mass") else None
    if number is None or not 0.0 <= number[0] < 1.0:
        return None
    return Remaining("", number[0]), number[1]


_ARTICLE = re.compile(r"^(?:about|roughly|nearly|almost|its|an?|one)\s+(?=half|third|quarter)", re.I)


def _way(words: str, known: re.Pattern[str]) -> Goes | None:
    """What the words on one side say; None where they hold something else. The nearest to the verb decides."""
    goes: Goes = ""
    rest = words.strip(" ,")
    while rest:
        found = known.match(rest)
        if found is None:
            return None
        got = found.groupdict()
        if got.get("gone"):
            goes = "gone"
        elif got.get("left") or (got.get("of") and not goes):
            goes = "left"
        rest = rest[found.end() :].strip(" ,")
    return goes


def _strays(words: str, known: re.Pattern[str]) -> bool:
    return _way(words, known) is None
