"""What was done with a thing that went in, as a line says it: boiled down, set alight, fried in, poured off."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Literal

from ..amounts.reading import Said, amount_at, number_at
from ..amounts.shares import Remaining, goes_by
from ..errors import QuantityError
from ..messages import say
from ..phenomena.fat import POURED_OFF

#: How something went in; see :mod:`.braise` for what each does.
Use = Literal["in", "reduced", "flamed", "late", "dredged", "rubbed", "fried", "left_out"]


@dataclass(frozen=True, slots=True)
class Done:
    """What was done with a thing: its use, the share ``left`` of it where it was boiled down or the amount ``left_of``
    it, the share of a fat that was ``poured_off``, and what ``stayed`` behind, as a share or an amount."""

    use: Use = "in"
    left: float | None = None
    left_of: Said | None = None
    poured_off: float = 0.0
    stayed: float | Said | None = None


_GLAZE = {"a glaze": 0.12, "a syrup": 0.2}
_SHARE = r"(?P<share>(?:a glaze|a syrup|[^,;()]+))"
_DOWN = (
    r"(?:reduced|boiled down|cooked down|simmered down|boiled away|boiled|reduce|boil down|let down)"
    r"(?:\s+(?:first|before|beforehand|then))?"
)
_REDUCED = re.compile(
    rf"[,;(]?\s*\b(?:then\s+|first\s+|and\s+)?{_DOWN}\s+(?P<way>by|to|off|away)\s+{_SHARE}\)?(?=[,;)]|$)", re.I
)
_LEAVE = re.compile(rf"[,;(]?\s*\b(?:leave|leaving)\s+{_SHARE}\)?(?=[,;)]|$)", re.I)
_POURED_OFF = re.compile(
    r"[,;(]?\s*\b(?P<and>then |and )?(?:(?P<part>most|half|all|some)\s+(?:of it\s+)?(?:was\s+|is\s+)?)?"
    r"(?P<how>poured (?:off|away)|drained off|thrown (?:away|out)|tipped (?:off|away|out)|discarded"
    r"|wiped (?:out|away|off))\)?",
    re.I,
)
_STAYED = re.compile(
    r"[,;(]?\s*(?:(?:with|of which|about)\s+)*(?P<what>[^,;()]+?)\s+(?:(?:of it|was|were|is)\s+)*"
    r"(?:left|stayed|remained|left over|left behind|thrown away|discarded|shaken off|kept back|not used)"
    r"(?:\s+(?:behind|over|back))?(?:\s+(?:in|on)\s+(?:the\s+|a\s+)?(?:bowl|dish|plate|bag|board|tray|packet|cup|jug|bottle|glass))?\)?$",
    re.I,
)
_MEAT = (
    r"(?:the )?(?:meat|beef|veal|lamb|pork|pieces|joint|bird|birds|chicken|duck|shanks?|cheeks?|rest|others?"
    r"|vegetables)"
)
_BEFORE = r"(?:the (?:day|night) before|overnight|beforehand|in advance|yesterday)"
_TIMES = r"(?:\s+for\s+[^,;()]+)?"
#: What is told of a use, as patterns; what changes nothing is only understood.
_USE_WORDS: tuple[tuple[Use, str], ...] = (
    ("in", rf"(?:simmered|cooked|boiled|braised|stewed)\s+(?:together\s+|down\s+)?with\s+{_MEAT}{_TIMES}"),
    ("flamed", r"flamed|flamb[eé]+d?|set (?:alight|on fire)|ignited|burn(?:ed|t) off"),
    (
        "late",
        r"(?:added |stirred in |whisked in |put in )?"
        r"(?:at the (?:very )?end|off the heat|to finish|at the last minute)",
    ),
    (
        "left_out",
        r"(?:for|as)(?: the)? (?:garnish|garnishing|serving|decoration)|to (?:serve|garnish)|on the side|not used",
    ),
    (
        "dredged",
        r"(?:for |to )?(?:dredging|dredged?|dusting|dusted|dust|coating|coat|flouring)(?:(?: of)? the \w+)?",
    ),
    (
        "rubbed",
        r"(?:rubbed|dry-brined|sprinkled|for rubbing)?\s*"
        r"(?:on|onto|into|in|over|for) the (?:meat|joint|bird|shanks?|skin)"
        rf"|(?:rubbed (?:in|on)|for rubbing|dry-?\s?brined|(?:for|as) (?:the |a )?dry brine)(?:,? {_BEFORE})?"
        rf"|(?:salted|brined) {_BEFORE}(?: with(?= \d))?",
    ),
    (
        "fried",
        r"(?:for|to) (?:the )?(?:frying|fry|browning|brown|sear|searing|saut[eé]ing|saut[eé])(?: in)?(?: the \w+)?"
        r"|for the (?:frying )?pan|in the frying pan|(?:to|for) (?:soften|sweat)(?:ing)?(?: the \w+)?",
    ),
)
_USES = tuple(
    (use, re.compile(rf"[,;(]?\s*(?:,\s*)?\b(?:and\s+|then\s+)?(?:{words})\)?(?=[\s,;).]|$)", re.I))
    for use, words in _USE_WORDS
)


def _share(text: str) -> float | Said:
    """ "Half", "two thirds", "40 %", "a glaze", "200 ml": a share, or an amount. Raises QuantityError for neither."""
    words = re.sub(
        r"\s+(?:first|before|beforehand|of it|of its volume|its volume|in the oven)$", "", text.strip().lower()
    )
    words = re.sub(r"^(?:about|roughly|nearly|almost|of|its|one|an?)\s+(?=half|third|quarter)", "", words)
    if words in _GLAZE:
        return _GLAZE[words]
    said = amount_at(words, ("volume", "mass", "percent"))
    if said is None or said.rest.strip(" ."):
        raise QuantityError("share", say("intake.what_share", text=text.strip()))
    if said.unit is not None and said.unit.dimension == "percent":
        return min(said.value / 100.0, 1.0)
    if said.unit is not None:
        return said
    if not 0.0 < said.count <= 1.0:
        raise QuantityError("share", say("intake.leaves_nothing", text=text.strip()))
    return said.count


def _without(text: str, found: re.Match[str]) -> str:
    return f"{text[: found.start()]} {text[found.end() :]}"


def doings(text: str) -> tuple[str, Done]:
    """A line without the words for what was done with it, and what that was.

    Raises
    ------
    QuantityError : it was boiled down to nothing, or to what cannot be told.
    """
    use: Use = "in"
    left: float | None = None
    left_of: Said | None = None
    if found := _REDUCED.search(text) or _LEAVE.search(text):
        share = _share(found["share"])
        if isinstance(share, Said):
            left_of = share
        else:
            if share >= 1.0 and goes_by(found.groupdict().get("way") or "leave") == "gone":
                raise QuantityError("share", say("intake.boiled_to_nothing"))
            left = Remaining(goes_by(found.groupdict().get("way") or "leave"), share).left(found["share"], "share")
        use, text = "reduced", _without(text, found)
    poured = 0.0
    if found := _POURED_OFF.search(text):
        part = (found["part"] or ("all" if found["how"].lower().startswith("wiped") else "most")).lower()
        use, poured, text = "fried", POURED_OFF[part], _without(text, found)
    stayed, text = _stayed(text)
    for name, pattern in _USES:
        if found := pattern.search(text):
            use = name if use == "in" else use
            text = _without(text, found)
    return re.sub(r"\s+", " ", text).strip(" ,;"), Done(use, left, left_of, poured, stayed)


def _stayed(text: str) -> tuple[float | Said | None, str]:
    """ "3 tbsp flour for dredging, 1 tbsp left in the bowl": what did not go in, and the line without it."""
    for clause in re.finditer(r"[,;(]\s*[^,;()]+\)?\s*$", text):
        found = _STAYED.match(clause.group())
        if found is None:
            continue
        what = found["what"].strip().lower()
        if number := number_at(what):
            said = amount_at(what, ("mass", "volume"))
            if said and said.unit and not said.rest.strip():
                return said, text[: clause.start()]
            if number[0] <= 1.0 and not number[1].strip():
                return number[0], text[: clause.start()]
        if what in ("most", "some"):
            return POURED_OFF[what], text[: clause.start()]
    return None, text
