"""What a sentence says of the strained liquid: how much there is, the fat on it, how salty, of what kind."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

from ..amounts.figures import in_figures
from ..amounts.reading import Dimension, amount_at, number_at
from ..errors import QuantityError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G
from .clauses import cleaned


@dataclass(frozen=True, slots=True)
class ReadSentence:
    """What a sentence about the strained liquid says; what it leaves open is None.

    ``value`` is in mL, mm or g by ``method``; ``by_eye`` marks an amount that was only guessed.
    """

    method: Literal["jug", "dip", "scale", "eye"] | None = None
    value: float | None = None
    hot: bool | None = None
    fat_mm: float | None = None
    fat_ml: float | None = None
    fat_in: Literal["jug", "pan"] | None = None
    verdict: Literal["flat", "nearly", "right", "salty", "too_salty"] | None = None
    percent: float | None = None
    stock: Literal["salted", "reduced_salt", "low_salt", "unsalted"] | None = None
    character: str | None = None
    unread: tuple[str, ...] = ()


_VERDICTS = (
    ("too_salty", r"(?:far |much |way )?too salty|over-?salted|over-?seasoned|inedibl[ey] salty|like brine"),
    (
        "nearly",
        r"(?:nearly|almost|not quite) (?:right|there|enough|salty enough)"
        r"|(?:a bit|slightly|a little|somewhat) (?:flat|bland|under|low)"
        r"|(?:needs|wants|could take|could do with) (?:just )?(?:a (?:little|bit|touch|pinch|tad)|some|slightly)"
        r"(?: bit)?(?: more)?(?: of)? salt",
    ),
    (
        "flat",
        r"flat|bland|under-?seasoned|under-?salted|hardly any salt|no salt(?: in it)?(?: yet)?|needs salt|wants salt"
        r"|tastes of nothing|insipid|not salted|unsalted yet",
    ),
    (
        "right",
        r"(?:about |just |tastes )?right|well seasoned|seasoned|good for salt|salt(?:y|ed) enough"
        r"|salt is (?:good|fine|ok)|perfect|spot on",
    ),
    ("salty", r"salty"),
)
_STOCKS = (
    ("reduced_salt", r"reduced[- ]salt|salt[- ]reduced"),
    ("low_salt", r"low[- ]salt|low in salt|low[- ]sodium"),
    ("unsalted", r"unsalted|salt[- ]free"),
    ("salted", r"salted stock|ready[- ]made stock"),
)
_CHARACTERS = (
    ("milled", r"milled|tomato|puree|purée|cloudy|vegetables in it"),
    ("gelatin_rich", r"gelatin|sets|set firm|jell(?:ied|y)|wobbly|sticky|cheek|shin|tail|trotter|shank|neck"),
    ("thin", r"\bthin\b|watery|lean"),
)


def read_sentence(text: str, pan_ml: float | None = None) -> ReadSentence:
    """ "A bit over two litres, two centimetres of fat, nearly right for salt" as a start.

    Clauses are divided by commas, semicolons, full stops and "and" or "with"; each is taken for an
    amount of liquid, a layer of fat, a taste of salt or a kind of liquid. What fits none is returned
    in ``unread``. "Half a pot" is of ``pan_ml``, what the pan holds; nobody knows it where that is not said.
    """
    said, unread = ReadSentence(), []
    whole = in_figures(cleaned(text[:LONGEST_SENTENCE]))
    for clause in _clauses(_OF_IT.sub(r"\1 of fat", _WITH_ITS_FAT.sub(" ", whole))):
        if _PRAISE.fullmatch(clause):
            continue
        better = said if _MOSTLY_FAT.search(clause) else _clause(said, clause, pan_ml)
        if better is said:
            unread.append(clause)
        said = better
    if said.method == "scale" and (net := _NET.search(whole)):
        # A reading of the scale has the pan in it; of one without, it is asked what the pan weighs.
        said = replace(said, method=None, value=None)
        unread.append(net.group())
    return replace(said, unread=tuple(unread))


#: What says nothing that a figure could hold.
_PRAISE = re.compile(
    r"(?:it (?:is|tastes|looks|smells) )?(?:very |quite |really )?"
    r"(?:the pan|pan and all|nice|good|fine|tasty|lovely|rich|dark|brown|clear|delicious)",
    re.I,
)

#: What a jug and a scale show in any case.
_WITH_ITS_FAT = re.compile(
    r",?\s*\b(?:(?:including|includes|incl\.?|counting) (?:the )?fat|(?:the )?fat (?:and all|included))\b", re.I
)
_OF_IT = re.compile(r"(\d\s*(?:mm|cm|ml)) of it\b", re.I)
_NET = re.compile(r"\b(?:without (?:the )?pan|net|(?:the )?pan not (?:counted|included)|less the pan)\b", re.I)
_MOSTLY_FAT = re.compile(r"\b(?:mostly|nearly all|all) fat\b", re.I)

#: More of a sentence than this is not read, characters.
LONGEST_SENTENCE = 500

_DIVIDES = re.compile(
    r"(?<!\d)[,;.](?!\d)|[,;]\s|\.\s|\.$|\b(?:and|with|but|which|that)\b"
    r"|\bon(?=\s+(?:about |roughly )?(?:\d|an? |one|two|three|half))\b",
    re.I,
)
#: An amount with an "and" in it, "two and a half litres", is one clause.
_WORD_START = re.compile(r"(?:^|(?<=[\s(]))(?=[^\s])")


def _clauses(text: str) -> list[str]:
    """The clauses of a sentence, amounts left whole."""
    whole: list[tuple[int, int]] = []
    for start in _WORD_START.finditer(text):
        if whole and start.start() < whole[-1][1]:
            continue
        try:
            said = amount_at(text[start.start() :], _SOUGHT, alone=True)
        except QuantityError:
            continue
        if said and said.unit:
            whole.append((start.start(), len(text) - len(said.rest)))
    out, begun = [], 0
    for joint in _DIVIDES.finditer(text):
        if any(low < joint.start() < high for low, high in whole):
            continue
        out.append(text[begun : joint.start()])
        begun = joint.end()
    out.append(text[begun:])
    return [part for clause in out for part in _one_amount_each(clause.strip(" ()")) if part]


#: Words that belong to the amount behind them.
_LEADS = re.compile(
    r"(?:\b(?:salt|salted|meter|the meter says)\s+(?:of\s+|at\s+|is\s+|says\s+)?|\b(?:below|under|beneath)\s+)$",
    re.I,
)


def _one_amount_each(clause: str) -> list[str]:
    """ "1.3 l hot 5 mm fat salt .5 %": divided before each amount but the first."""
    ends: list[int] = []
    cuts: list[int] = []
    for start in _WORD_START.finditer(clause):
        if ends and start.start() < ends[-1]:
            continue
        try:
            said = amount_at(clause[start.start() :], _SOUGHT, alone=True)
        except QuantityError:
            continue
        if said is None or said.unit is None or said.unit.kind == "container":
            continue
        if ends:
            lead = _LEADS.search(clause[ends[-1] : start.start()])
            cuts.append(start.start() if lead is None else ends[-1] + lead.start())
        ends.append(len(clause) - len(said.rest))
    places = [0, *cuts, len(clause)]
    parts = [clause[a:b] for a, b in pairwise(places)]
    if not cuts:
        return [clause]
    return [_JOINS.sub("", part).strip(" ()") for part in parts]


#: What only joins two amounts.
_JOINS = re.compile(r"^(?:below|under|beneath)\s+|\s+(?:below|under|beneath|with|and|on)$", re.I)


_SOUGHT: tuple[Dimension, ...] = ("volume", "length", "mass", "percent")

#: Layers of fat that are told and not measured, mm. Modelling choices.
_FAT_LAYERS = (
    (r"lots of|a lot of|plenty of|loads of|much|very|thick layer|swimming|heavy", 15.0),
    (r"(?:thin|light) (?:film|layer|skin)|a film|a skin|a few eyes|some eyes", 1.0),
    (r"a (?:little|bit of)|not much|some|a few drops", 2.0),
    (r"a (?:good|thick) layer|quite a bit of|a fair bit of|fatty|greasy|oily", 8.0),
)
_NO_FAT = (
    r"\bno (?:visible )?(?:fat|grease|oil)\b"
    r"|(?:fat|grease) (?:is |was |has been )?(?:already |all )?(?:off|gone|removed|lifted)"
    r"|skimmed|defatted|de-fatted|without (?:any )?fat|hardly any fat|fat-?free|already off"
)
#: Where a layer of fat was seen.
_FAT_IN = re.compile(r"\b(?:in|on) (?:the |my |a )?(?:(?P<jug>\w*[- ]?jug)|pan|pot|casserole)\b", re.I)
_FAT = re.compile(r"\b(?:fats?|fatty|grease|greasy|oil|oily)\b", re.I)
_OF_POT = re.compile(
    r"(?:(?:the |my )?(?:pot|pan|casserole) (?:is |was )?(?:about )?(?P<full>.+?) full)"
    r"|(?:(?P<level>.+?) full)$"
    r"|(?P<of>.+?)(?:\s+of)?\s+(?:an? |the |my )?(?:pot|pan|casserole)(?:ful|full)?(?: (?:is |was )?left)?$",
    re.I,
)
#: A share of a pot that is told by eye may be off by this much of it. Modelling choice.
_NOT = re.compile(r"\bnot (?:too |very |at all |really |so )?(salty|flat|bland)", re.I)


def _clause(said: ReadSentence, clause: str, pan_ml: float | None) -> ReadSentence:
    low = clause.lower()
    out = said
    if re.search(r"\bhot\b|off the boil|steaming|just strained|boiling", low):
        out = replace(out, hot=True)
    elif re.search(r"(?<!when )\b(?:cold|cool)\b|room temperature|fridge|chilled", low):
        out = replace(out, hot=False)
    if _FAT.search(low) or re.search(r"skimmed|already off", low):
        out = _fat_clause(out, low)
        # "No fat, flat" without its comma.
        return out if out.verdict is not None else _taste(out, re.sub(_NO_FAT, " ", low))
    if (meter := _sentence_amount(low, ("percent",))) and meter[0] == "percent":
        return replace(out, percent=round(meter[1], 3))
    for stock, pattern in _STOCKS:
        if re.search(pattern, low):
            out = replace(out, stock=stock)  # type: ignore[arg-type]
            break
    else:
        out = _taste(out, low)
    for character, pattern in _CHARACTERS:
        if re.search(pattern, low):
            out = replace(out, character=out.character or character)
    if out.value is None:
        if share := _of_pot(low):
            # Of which pot, nobody has said.
            return out if pan_ml is None else replace(out, method="eye", value=round(share * pan_ml))
        amount = _sentence_amount(low)
        if amount is not None and amount[0] != "percent" and not re.search(r"knob|butter|flour|wine|meat", low):
            out = replace(out, method=amount[0], value=amount[1])
    return out


def _taste(said: ReadSentence, low: str) -> ReadSentence:
    """A taste of salt in a clause."""
    if found := _NOT.search(low):
        # "Not salty" says that it is flat; "not flat either" takes that back.
        salty = found.group(1).lower() == "salty"
        much = re.search(r"not (?:too|very|so)", low) is not None
        if said.verdict is not None or much:
            return replace(said, verdict="right")
        return replace(said, verdict="flat" if salty else "right")
    for verdict, pattern in _VERDICTS:
        if re.search(rf"\b(?:{pattern})\b", low):
            return replace(said, verdict=verdict)  # type: ignore[arg-type]
    return said


def _of_pot(low: str) -> float | None:
    """ "Half a pot", "the pan is two thirds full": a share of what the pan holds."""
    found = _OF_POT.search(_FILLER.sub("", low))
    if found is None:
        return None
    words = re.sub(
        r"\b(?:about|roughly|nearly|almost|good)\s+", "", found["full"] or found["level"] or found["of"] or ""
    ).strip()
    if words in ("a", "a full", "one", ""):
        return 1.0 if words else None
    try:
        number = number_at(words)
    except QuantityError:
        return None
    if number is None or number[1].strip(" of") or not 0.0 < number[0] <= 1.0:
        return None
    return number[0]


def _fat_clause(said: ReadSentence, low: str) -> ReadSentence:
    if re.search(_NO_FAT, low):
        without = replace(said, fat_ml=0.0)
        # "1 litre skimmed stock": how much of it stands in the same words.
        liquid = None if said.value is not None else _sentence_amount(low)
        if liquid is None or liquid[0] not in ("jug", "eye", "scale", "dip"):
            return without
        return replace(without, method=liquid[0], value=liquid[1])
    amount = _sentence_amount(low)
    if amount is None:
        layer = next((mm for pattern, mm in _FAT_LAYERS if re.search(rf"\b(?:{pattern})\b", low)), None)
        return said if layer is None else replace(said, fat_mm=layer)
    if amount[0] == "dip":
        where = _FAT_IN.search(low)
        seen: Literal["jug", "pan"] | None = None if where is None else "jug" if where["jug"] else "pan"
        return replace(said, fat_mm=amount[1], fat_in=seen)
    if amount[0] == "scale":
        return replace(said, fat_ml=round(amount[1] * SPECIFIC_VOLUME_ML_G["fat_free"]))
    return replace(said, fat_ml=amount[1]) if amount[0] in ("jug", "eye") else said


_FILLER = re.compile(r"^(?:i have|i've got|there is|there's|there are|it is|it's|we have|that is)\s+", re.I)
_BY_EYE = re.compile(r"\b(?:by eye|guess|i think|or so|roughly|about|perhaps|maybe)\b", re.I)


def _sentence_amount(
    low: str, of: tuple[Dimension, ...] = _SOUGHT
) -> tuple[Literal["jug", "dip", "scale", "eye", "percent"], float] | None:
    """An amount in a clause: litres by eye or jug, a depth, a weight on the scale, or a salt content."""
    words = _FILLER.sub("", low)
    for start in _WORD_START.finditer(words):
        try:
            amount = amount_at(words[start.start() :], of, alone=True)
        except QuantityError:
            continue
        if amount is None or amount.unit is None or amount.unit.dimension not in of:
            continue
        if amount.unit.kind == "container" and amount.unit.dimension == "mass":
            # A tub, a pot of something: no weight of a pan.
            continue
        value = amount.value
        if amount.unit.dimension == "length":
            return "dip", round(value, 1)
        if amount.unit.dimension == "mass":
            return "scale", round(value)
        if amount.unit.dimension == "percent":
            return "percent", value
        exact = not amount.spread and not _BY_EYE.search(low)
        return ("jug" if exact else "eye"), round(value)
    return None
