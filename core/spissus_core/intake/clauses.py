"""A line of a list taken apart: how much it says, and the words of the name."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from ..amounts.reading import Dimension, Said, amount_at, unit_at
from ..errors import QuantityError

#: What a list measures in.
DIMENSIONS: tuple[Dimension, ...] = ("mass", "volume")

_EACH = re.compile(r"\s*(?:/\s*(?:pcs?|piece|each|ea)|each|apiece|a piece|per piece|the piece|ea\.?)(?![^\W\d_])", re.I)
_ALL = re.compile(
    r"\s*(?:in all|in total|total|(?:for )?the (?:pair|two|three|four|six)|(?:a|per) pair|the bunch|"
    r"altogether|all told|together|all together|the lot|of them|in weight|in the whole|between (?:them|the \w+)|"
    r"whole weight|raw weight|raw|gross|by weight|weight|before (?:being )?(?:peel|trimm?|bon|clean|pluck)(?:ed|ing)"
    r"|(?P<net>(?:when |once |after (?:being )?)?(?:drained|net|prepared|(?:peel|clean|trimm|bon|pluck)(?:ed|ing))"
    r"(?: weight)?))(?![^\W\d_])",
    re.I,
)
_BEFORE_SIZE = re.compile(
    r"(?:\s|^)(?:of|at|à|@|about|(?:weigh(?:ing|s|ed)?|c[ao]mes? to|making|totall?ing)(?:\s+about)?|ca\.?|circa"
    r"|~|x|×|=|:|-|–|—)\s*$",
    re.I,
)
#: Into how many pieces something was cut says nothing of its weight.
_PIECES = re.compile(
    r"(?:in|into|cut into|about)?\s*\d+(?:\s*[-–]\s*\d+)?\s+(?:\w+\s+)?(?:pieces?|chunks?|portions?|parts|slices|pcs)",
    re.I,
)
#: "4 oz butter (1 stick)": the same once more.
_SO_MANY = re.compile(
    r"(?:about |approx\.? |or )?(?:\d+(?:[/.,–-]\d+)?|[½¼¾]|an?|one|two|three|four|half an?)\s+"
    r"(?:(?:small|medium|large|big|whole|level|heaped)\s*)?"
    r"(?:sticks?|bulbs?|heads?|stalks?|fillets?|legs?|cubes?|slices?|rashers?|bunch(?:es)?|sprigs?|small|medium|large|ones?"
    r"|of them|tins?|cans?)?",
    re.I,
)
#: "2 quails of 200 g": each; of one thing, it is the same.
_OF_EACH = re.compile(r"\s(?:of|at|à|@)(?:\s+about)?$", re.I)
_BRACKET = re.compile(r"[(\[{]([^()\[\]{}]*)[)\]}]")
#: Commas, semicolons and dashes between words; not those of a number.
_CLAUSE = re.compile(r"[,;]\s+|[;:]\s*(?=[^\W\d_])|:\s+|\s+[–—-]\s+|,(?=[^\W\d_])")
_NUMBERED = re.compile(r"^\d{1,2}[.)]\s+(?=\d|[½⅓⅔¼¾⅛])")


def cleaned(text: str) -> str:
    """Without marks that only steer the display, bullets and doubled spaces."""
    shown = "".join(" " if c in "\t\u00a0\u2009\u202f" else c for c in text if unicodedata.category(c) != "Cf")
    shown = re.sub(r"\s+", " ", re.sub(r"^[\s\-–—*•·▪◦☐✓+>]+(?=\S)", "", shown)).strip()
    return _NUMBERED.sub("", shown)


class Size(NamedTuple):
    """An amount that stands beside a count: of each, of all, or not said of which; ``net`` is what is left of it once
    it was drained, peeled or boned."""

    said: Said
    of: Literal["each", "all", ""]
    net: bool = False


@dataclass(frozen=True, slots=True)
class Parts:
    """A line taken apart: the amount it begins with, those beside it, and the words of the name."""

    first: Said | None
    sizes: tuple[Size, ...]
    words: str


def amount_of_list(text: str) -> Said | None:
    """An amount of a kitchen list at the beginning of a text; None where there is none, or a unit of another kind."""
    said = amount_at(text, DIMENSIONS)
    if said and said.unit and said.unit.dimension not in DIMENSIONS:
        # "1 thumb of ginger", "3 in all": so many. "36 % fat", "5 cm pieces", "30 min": no amount of it.
        if said.unit.kind == "exact" and said.unit.name != "in":
            return None
        begun = text[: len(text) - len(said.rest)]
        return replace(said, unit=None, rest=f"{begun.rsplit(None, 1)[-1]} {said.rest.strip()}")
    return said


def _size(text: str) -> Size | None:
    """A clause that is a size and nothing more: "200 g each", "about 2.1 kg", "1.2 kg in all"."""
    bare = re.sub(r"^(?:of|at|weighing|weighs|each|of about|each of)\s+", "", text.strip(), flags=re.I)
    bare = re.sub(r"^(?:total|in all|altogether|each)[:\s]+", "", bare, flags=re.I)
    said = amount_of_list(bare)
    if said is None or (said.unit is None and not said.came_in):
        return None
    rest, of, net = said.rest, "", False
    if found := _EACH.match(rest):
        rest, of = rest[found.end() :], "each"
    elif found := _ALL.match(rest):
        rest, of, net = rest[found.end() :], "all", bool(found["net"])
    if re.match(r"each\b", text.strip(), re.I):
        of = "each"
    return Size(said, of, net) if not rest.strip(" .)") else None  # type: ignore[arg-type]


def is_size(text: str) -> bool:
    """Whether a text is a size and nothing more: "600 g the pair"."""
    try:
        return _size(text) is not None
    except QuantityError:
        return False


#: No line of a list has more brackets. Numerical choice.
MOST_BRACKETS = 8


def apart(text: str) -> Parts:
    """A line of one thing, taken apart."""
    text, clauses = _out_of_brackets(text)
    head, *others = [part for part in _CLAUSE.split(re.sub(r"\s+", " ", text).strip(" ,;:.")) if part.strip()] or [""]
    first, head = _first_amount(head)
    words = [head]
    sizes: list[Size] = []
    # "a leg of mutton of seven pounds", "pork cheek 1.2 kg": an amount at the end of the head.
    if found_last := size_last(words[0]):
        words[0], size = found_last
        sizes.append(size)
    elif first is None and (found_within := _size_within(words[0])):
        words[0], size = found_within
        sizes.append(size)
    for clause in [*others, *clauses]:
        if size_ := _size(clause):
            # What is left of it when it is drained or peeled is what goes in.
            sizes.insert(0 if size_.net else len(sizes), size_)
        elif _PIECES.fullmatch(clause.strip()) or (first is not None and _SO_MANY.fullmatch(clause.strip())):
            continue
        elif first is None and not sizes and (said := amount_of_list(clause.strip())):
            # "butter, 2 oz. melted", "onions, 2 large".
            first = said
            words.append(said.rest)
        else:
            again = size_last(clause)
            words.append(again[0] if again else clause)
            sizes += [again[1]] if again else []
    # "500 ml / 18 fl oz stock"
    slash = re.match(r"\s*/\s*", words[0]) if first else None
    if slash and (second := amount_of_list(words[0][slash.end() :])) and second.unit:
        sizes.append(Size(second, ""))
        words[0] = second.rest
    words[0] = re.sub(r"^\s*(?:of\s+(?:the\s+|a\s+|an\s+)?)?", "", words[0])
    if first is not None and (each := _EACH.match(words[0])):
        words[0] = words[0][each.end() :]
    return Parts(first, tuple(sizes), " , ".join(part.strip(" ,;:.") for part in words if part.strip(" ,;:.")))


def _out_of_brackets(text: str) -> tuple[str, list[str]]:
    """A text without what stands in brackets, and the clauses of that."""
    clauses: list[str] = []
    for _ in range(MOST_BRACKETS):
        found = _BRACKET.search(text)
        if found is None:
            break
        clauses += [part for part in _CLAUSE.split(found.group(1)) if part.strip()]
        text = f"{text[: found.start()]} {text[found.end() :]}"
    return text, clauses


def _first_amount(head: str) -> tuple[Said | None, str]:
    """The amount that a line begins with, if it does, and what is left of its words."""
    first = amount_of_list(head)
    if (first is None or first.unit is None) and _VAGUE.match(head):
        # "a lot of pepper", "some thyme": no amount.
        return None, _VAGUE.sub("", head)
    if first is None and (_ONE_PIECE.match(head) or _is_measure(head)):
        # "sprig of parsley", "pinch of saffron": one.
        first = amount_of_list(f"1 {head}")
    return _less(first, head if first is None else first.rest)


_MINUS = re.compile(r"\s+(?:minus|less)\s+(?P<taken>.+)$", re.I)


def _less(first: Said | None, words: str) -> tuple[Said | None, str]:
    """ "Carrots minus one", "red wine minus a glass": the amount without what was kept back, and the words before."""
    found = _MINUS.search(words) if first else None
    taken = amount_of_list(found["taken"]) if found else None
    if first is None or found is None or taken is None or taken.rest.strip(" .") or taken.value >= first.value:
        return first, words
    alike = taken.unit is first.unit or (taken.unit and first.unit and taken.unit.dimension == first.unit.dimension)
    if not alike:
        return first, words
    return replace(first, count=first.count * (1.0 - taken.value / first.value)), words[: found.start()]


_VAGUE = re.compile(
    r"(?:quite )?(?:a (?:lot|little|bit|touch|hint|suspicion)|lots|plenty|some|a little|more|little)"
    r"(?: more)?(?:\s+of)?\s+(?=[^\W\d_])",
    re.I,
)
_ONE_PIECE = re.compile(r"(?:sprig|stick|stalk|slice|rasher|head|bunch|clove|leaf|strip|cube)\s+of\s", re.I)


def _is_measure(head: str) -> bool:
    """Whether a text begins with a measure of the hand or a container: "splash of vinegar", "good pinch of salt"."""
    unit = unit_at(re.sub(r"^(?:good|generous|small|large|big|heaped|level)\s+", "", head), DIMENSIONS)
    if unit is None or unit[0].kind == "exact":
        return False
    return re.match(r"\s+of\s" if unit[0].name not in _SAID_SHORT else r"\s+", unit[1]) is not None


#: Measures of the hand that stand before a name without "of", too: "pinch sugar".
_SAID_SHORT = frozenset({"pinch", "three-finger pinch", "splash", "glug", "drizzle", "dash", "squeeze", "shot"})


#: Where an amount may begin within words, and how many such places, from the end, are looked at.
_SIZE_BEGINS = re.compile(
    r"(?<=\s)(?=[\d½⅓⅔¼¾⅛~≈]|(?:about|a|an|one|two|three|four|five|six|seven|eight|nine|ten|half)\s)", re.I
)
MOST_SIZES = 8


def size_last(text: str) -> tuple[str, Size] | None:
    """ "pork cheek 1.2 kg", "carrots × 2", "3 quails of 200 g": the words before, and the size."""
    for found in list(_SIZE_BEGINS.finditer(text))[-MOST_SIZES:]:
        size = None
        try:
            size = _size(text[found.start() :]) or _counted(text[found.start() :])
        except QuantityError:
            continue
        if size:
            before = text[: found.start()].rstrip()
            if not size.of and _OF_EACH.search(before):
                size = size._replace(of="each")
            return _BEFORE_SIZE.sub("", before), size
    return None


def _counted(text: str) -> Size | None:
    """ "carrots × 2": a bare number at the end."""
    said = amount_of_list(re.sub(r"^[x×]\s*|\s*(?:pcs?\.?|pieces?|nos?\.?)$", "", text))
    return Size(said, "") if said and said.unit is None and not said.rest.strip(" .") else None


def _size_within(text: str) -> tuple[str, Size] | None:
    """ "Soured cream 150 ml pot", "veal stock 2 l unsalted": an amount with the name on both sides of it."""
    for found in list(_SIZE_BEGINS.finditer(text))[-MOST_SIZES:]:
        try:
            said = amount_of_list(text[found.start() :])
        except QuantityError:
            continue
        if said and said.unit and said.unit.kind == "exact":
            return f"{text[: found.start()].rstrip()} {said.rest.strip()}", Size(said, "")
    return None
