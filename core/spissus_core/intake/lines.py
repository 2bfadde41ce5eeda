"""Reading what a cook writes of what went in: a line of a list, a whole list, a sentence.

A small grammar of our own: the libraries that parse ingredient lists fetch language models when they
first run. What cannot be read is handed back as it was written, with the reason, never dropped.
"""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ..amounts.quantities import (
    ML_PER_TBSP,
    NUMBER,
    NUMBER_WORDS,
    UNITS,
    parse,
    read_number,
    show_mass,
    show_volume,
)
from ..errors import QuantityError
from ..messages import Message, Shown, say
from ..pantry.concentrates import made_up
from ..pantry.ingredients import SURE, Found, Ingredient, search
from ..phenomena.fat import POURED_OFF

#: How something went in; see :mod:`.braise` for what each does.
Use = Literal["in", "reduced", "flamed", "late", "dredged", "rubbed", "fried", "left_out"]

#: More lines than any braise has; what follows is not read.
MOST_LINES = 200
LONGEST_LINE = 200


@dataclass(frozen=True, slots=True)
class Amount:
    """A weight in g or a volume in mL; ``spread`` is the half-width of its 80 % interval, as a share."""

    dimension: Literal["mass", "volume"]
    value: float
    spread: float = 0.0

    @property
    def shown(self) -> Shown:
        """As a cook reads it."""
        return show_mass(self.value) if self.dimension == "mass" else show_volume(self.value)


@dataclass(frozen=True, slots=True)
class ReadLine:
    """One line as it was understood.

    ``left`` is the share of it left where it was boiled down first, ``poured_off`` the share of a
    frying fat that was thrown away. ``problem`` says why a line does not count; ``candidates`` what
    it might have meant.
    """

    text: str
    name: str
    ingredient: Ingredient | None = None
    amount: Amount | None = None
    use: Use = "in"
    left: float | None = None
    poured_off: float = 0.0
    problem: Message | None = None
    candidates: tuple[Ingredient, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadList:
    """A list as it was understood; ``rest`` is what was not read because there was too much."""

    lines: tuple[ReadLine, ...]
    rest: str = ""


# -- amounts ------------------------------------------------------------------------------------

#: Words that shift or widen an amount: factor, half-width as a share. Modelling choices.
_HEDGES: tuple[tuple[str, float, float], ...] = (
    ("a good bit over", 1.12, 0.08), ("well over", 1.15, 0.10), ("a bit over", 1.05, 0.06),
    ("a bit more than", 1.05, 0.06),
    ("a little over", 1.04, 0.05), ("just over", 1.03, 0.04), ("over", 1.06, 0.07), ("more than", 1.06, 0.07),
    ("a bit under", 0.95, 0.06), ("a bit less than", 0.95, 0.06), ("just under", 0.97, 0.04), ("nearly", 0.96, 0.04),
    ("almost", 0.96, 0.04), ("not quite", 0.95, 0.05), ("under", 0.94, 0.07), ("less than", 0.94, 0.07),
    ("about", 1.0, 0.08), ("around", 1.0, 0.08), ("roughly", 1.0, 0.10), ("approximately", 1.0, 0.08),
    ("approx", 1.0, 0.08), ("some", 1.0, 0.15), ("circa", 1.0, 0.08), ("ca", 1.0, 0.08), ("maybe", 1.0, 0.15),
    ("a good", 1.08, 0.08), ("a generous", 1.10, 0.10), ("a scant", 0.92, 0.08), ("scant", 0.92, 0.08),
    ("generous", 1.10, 0.10), ("~", 1.0, 0.08),
)  # fmt: skip

#: A heaped spoon is 1.5 to 2 level ones (common practice); a rounded one lies between.
_FILLS: dict[str, tuple[float, float]] = {
    "heaped": (1.75, 0.15), "heaping": (1.75, 0.15), "rounded": (1.35, 0.15), "level": (1.0, 0.0), "large": (1.3, 0.15),
    "big": (1.3, 0.15), "small": (0.7, 0.15), "medium": (1.0, 0.1),
}  # fmt: skip

#: Measures of the hand and the table: mL or g, half-width as a share. Modelling choices.
_LOOSE: dict[str, tuple[Literal["mass", "volume"], float, float]] = {
    "glass": ("volume", 150.0, 0.25), "wineglass": ("volume", 150.0, 0.25), "mug": ("volume", 300.0, 0.2),
    "ladle": ("volume", 120.0, 0.25), "ladleful": ("volume", 120.0, 0.25), "splash": ("volume", 15.0, 0.5),
    "dash": ("volume", 1.0, 0.5), "drizzle": ("volume", 10.0, 0.5), "glug": ("volume", 25.0, 0.5),
    "shot": ("volume", 30.0, 0.2), "pinch": ("mass", 0.5, 0.4), "handful": ("mass", 30.0, 0.4),
    "knob": ("mass", 15.0, 0.4),
}  # fmt: skip

#: Things that amounts come in, when no size is given: mL or g, half-width as a share. Modelling choices.
_CONTAINERS: dict[str, tuple[Literal["mass", "volume"], float, float]] = {
    "bottle": ("volume", 750.0, 0.0), "carton": ("volume", 1000.0, 0.1), "tin": ("mass", 400.0, 0.05),
    "can": ("mass", 400.0, 0.05), "jar": ("mass", 350.0, 0.25), "box": ("volume", 1000.0, 0.2),
    "packet": ("mass", 250.0, 0.3), "pack": ("mass", 250.0, 0.3),
}  # fmt: skip

#: Beer and cider come in bottles and cans of this size, mL, unless the line says otherwise.
_SMALL_BOTTLE_ML = 330.0
_SMALL_BOTTLE_BELOW_ABV = 10.0

#: The weight of a piece varies by about this much. Modelling choice.
_PIECE_SPREAD = 0.2

_POURED = {u: size for u, (dim, size) in UNITS.items() if dim == "volume" and u not in ("bottle", "bottles")}
_WEIGHED = {u: size for u, (dim, size) in UNITS.items() if dim == "mass"}
_BY_LENGTH = sorted([*_POURED, *_WEIGHED], key=len, reverse=True)
_UNIT = re.compile("(" + "|".join(re.escape(u) for u in _BY_LENGTH) + r")\.?(?![^\W\d_])", re.I)
_RANGE = re.compile(r"\s*(?:-|–|—|to|or)\s*(?=[\d½⅓⅔¼¾⅛])", re.I)
_TIMES = re.compile(r"\s*[x×]\s*(?=[\d½¼¾])", re.I)
_OF = re.compile(r"\s*(?:of\s+(?:the\s+|a\s+|an\s+)?)", re.I)


@dataclass(frozen=True, slots=True)
class _Count:
    """A number before its unit is known."""

    value: float
    factor: float
    spread: float


def _strip(text: str) -> str:
    """Without marks that only steer the display, bullets and doubled spaces."""
    shown = "".join(" " if c in "\t\u00a0\u2009\u202f" else c for c in text if unicodedata.category(c) != "Cf")
    return re.sub(r"\s+", " ", re.sub(r"^[\s\-–—*•·▪◦☐✓+>]+(?=\S)", "", shown)).strip()


def _count(text: str) -> tuple[_Count, str] | None:
    """The number a line begins with, hedges and ranges included."""
    factor = spread = 0.0
    rest, low = text, text.lower()
    for words, times, half in _HEDGES:
        if low.startswith(words) and not low[len(words) : len(words) + 1].isalpha():
            factor, spread, rest = times, half, text[len(words) :].lstrip()
            break
    hedged = bool(factor)
    word = re.match(
        r"(?:(half|quarter|third) (?:of )?an? |(a|one) (half|third|quarter|couple|dozen)(?: of)?(?: an?)? )", rest, re.I
    )
    if word:
        value = NUMBER_WORDS[(word.group(1) or word.group(3)).lower()]
        rest = rest[word.end() :]
    else:
        first = rest.split(" ", 1)[0].lower().rstrip(".")
        if not NUMBER.match(rest) and first not in NUMBER_WORDS:
            # "a bit over": the hedge ate the article, so one is meant.
            return (_Count(1.0, factor, spread), rest) if hedged and low.startswith("a ") else None
        try:
            value, rest = read_number(rest, "amount", "500 g")
        except QuantityError:
            if first not in NUMBER_WORDS:
                raise
            return None
    if first_range := _RANGE.match(rest):
        try:
            other, rest = read_number(rest[first_range.end() :], "amount", "500 g")
        except QuantityError:
            pass
        else:
            middle = (value + other) / 2.0
            spread = max(spread, abs(other - value) / 2.0 / middle if middle else 0.0)
            value = middle
    # "1/2 a bottle", "½ of a lemon".
    rest = re.sub(r"^\s*(?:of\s+)?an?\s+(?=\S)", "", rest) if value < 1.0 else rest
    return _Count(value, factor or 1.0, spread), rest.lstrip()


def _measure(text: str) -> tuple[Literal["mass", "volume"], float, str] | None:
    """A unit at the beginning of ``text``: its dimension, its size, and the rest."""
    found = _UNIT.match(text)
    if not found:
        return None
    unit = found.group(1).lower()
    rest = text[found.end() :]
    if unit in _WEIGHED:
        return "mass", _WEIGHED[unit], rest
    return "volume", _POURED[unit], rest


def _loose(text: str) -> tuple[str, str] | None:
    """A loose measure, container or piece word at the beginning of ``text``, in the singular, and the rest."""
    found = re.match(r"([^\W\d_]+)\b", text)
    if not found:
        return None
    word = found.group(1).lower()
    for single in (word, word[:-1], word[:-2]):
        if single in _LOOSE or single in _CONTAINERS:
            return single, text[found.end() :]
    return None


def _amount_first(text: str) -> tuple[_Count, Amount | str | None, str] | None:
    """Count, and the measure it counts (an amount of one, a word such as "clove", or nothing), and the rest."""
    counted = _count(text)
    if counted is None:
        return None
    count, rest = counted
    if times := _TIMES.match(rest):
        inner = _amount_first(rest[times.end() :])
        if inner and isinstance(inner[1], Amount):
            one = inner[1]
            return count, replace(one, value=one.value * inner[0].value), _without_container(inner[2])
    if bracket := re.match(r"\(([^)]{1,30})\)\s*", rest):
        inner = _amount_first(bracket.group(1))
        if inner and isinstance(inner[1], Amount):
            one = inner[1]
            return count, replace(one, value=one.value * inner[0].value), _without_container(rest[bracket.end() :])
    fill, spread = 1.0, 0.0
    first, _, after = rest.partition(" ")
    if first.lower() in _FILLS and after:
        fill, spread = _FILLS[first.lower()]
        rest = after
    count = replace(count, factor=count.factor * fill, spread=(count.spread**2 + spread**2) ** 0.5)
    if measure := _measure(rest):
        dimension, size, rest = measure
        total, rest = _smaller_unit(dimension, size * count.value, _without_container(rest.lstrip()))
        return replace(count, value=1.0), Amount(dimension, total), rest
    # "a 75 cl bottle", "half a 750 ml bottle": the article counts containers of a size.
    if NUMBER.match(rest):
        inner = _amount_first(rest)
        if inner and isinstance(inner[1], Amount):
            one = inner[1]
            return count, replace(one, value=one.value * inner[0].value), inner[2]
    if loose := _loose(rest):
        return count, loose[0], loose[1]
    return count, None, rest


def _smaller_unit(dimension: str, size: float, rest: str) -> tuple[float, str]:
    """ "1 lb 4 oz", "1 l 200 ml": a second, smaller unit of the same kind belongs to the first."""
    again = NUMBER.match(rest)
    if again:
        value, after = read_number(rest, "amount", "500 g")
        measure = _measure(after.lstrip())
        if measure and measure[0] == dimension and measure[1] * value < size:
            return size + measure[1] * value, measure[2]
    return size, rest


def _without_container(text: str) -> str:
    """What stands after "bottle of" or "tin of"; that it came from a tin is worth keeping."""
    found = re.match(r"(bottle|tin|can|carton|jar|packet|pack|box)s?\b\s*(?:of\s+)?", text, re.I)
    if not found:
        return text
    return ("canned " if found.group(1).lower() in ("tin", "can") else "") + text[found.end() :]


#: Measures that nobody counts without naming them: "1 salt" is not a pinch.
_NOT_COUNTED = frozenset({"pinch", "grind", "handful", "squeeze", "cup"})

#: Other words for the same piece.
_SAME_PIECE = {
    "strip": ("rasher", "slice"), "slice": ("rasher",), "rasher": ("slice",), "stalk": ("stick", "rib"),
    "rib": ("stick", "stalk"), "stick": ("stalk", "rib"), "bulb": ("head",), "head": ("bulb",),
}  # fmt: skip


def _resolve(count: _Count, measure: Amount | str | None, what: Ingredient) -> Amount:
    """The amount of an ingredient that ``count`` of ``measure`` come to."""
    times = count.value * count.factor
    if isinstance(measure, Amount):
        return replace(measure, value=measure.value * times, spread=count.spread)
    if isinstance(measure, str) and measure in what.pieces:
        wide = 0.0 if measure in ("tin", "can", "carton", "cube", "bottle", "jar", "sachet") else _PIECE_SPREAD
        return Amount("mass", what.pieces[measure] * times, max(count.spread, wide))
    if measure in ("tin", "can") and "tin" in what.pieces:
        return Amount("mass", what.pieces["tin"] * times, count.spread)
    if measure in ("bottle", "can") and what.group == "wine" and what.abv < _SMALL_BOTTLE_BELOW_ABV:
        return Amount("volume", _SMALL_BOTTLE_ML * times, max(count.spread, 0.25))
    if measure is not None:
        dimension, size, wide = _LOOSE.get(measure) or _CONTAINERS[measure]
        return Amount(dimension, size * times, max(count.spread, wide))
    single = next(iter(what.pieces), "") if len(what.pieces) == 1 else "each"
    one = None if single in _NOT_COUNTED else what.pieces.get(single)
    if one:
        return Amount("mass", one * times, max(count.spread, _PIECE_SPREAD if "each" in what.pieces else 0.0))
    raise QuantityError("amount", say("intake.how_much_of_it", name=what.name))


# -- what was done with it ------------------------------------------------------------------------

_SHARE_WORDS = {
    "half": 1 / 2, "a half": 1 / 2, "a third": 1 / 3, "one third": 1 / 3, "a quarter": 1 / 4, "one quarter": 1 / 4,
    "two thirds": 2 / 3, "three quarters": 3 / 4, "a fifth": 1 / 5, "a tenth": 1 / 10, "a glaze": 0.12, "a syrup": 0.2,
}  # fmt: skip
_SHARE = r"(?P<share>" + "|".join(sorted(_SHARE_WORDS, key=len, reverse=True)) + r"|[½⅓⅔¼¾]|\d\s*/\s*\d|\d{1,3}\s*%)"
_REDUCED = re.compile(
    r"[,;(]?\s*(?:then\s+|first\s+)?(?:reduced|boiled down|cooked down|simmered down|boiled)\s+(?P<way>by|to)\s+"
    + _SHARE.replace("a half", "a half|of half") + r"(?:\s+first)?\)?", re.I,
)  # fmt: skip
_LEAVE = re.compile(r"[,;(]?\s*(?:leave|leaving)\s+" + _SHARE + r"\)?", re.I)
_POURED_OFF = re.compile(r"[,;(]?\s*(?:(?P<part>most|half|all|some)\s+(?:of it\s+)?)?poured off\)?", re.I)
_USE_WORDS: tuple[tuple[Use, str], ...] = (
        ("flamed", r"flamed|flamb[eé]d?|set alight|ignited"),
        ("late", r"(?:added |stirred in )?(?:at the end|off the heat|to finish|at the last minute)"),
        ("dredged", r"(?:for |to )?(?:dredging|dredged?|dusting|dusted|dust|coating|coat)(?: the meat)?"),
        ("rubbed", r"(?:rubbed|dry-brined|sprinkled)?\s*(?:on|onto|into|over) the meat|for the meat|rubbed in"),
        ("fried", r"(?:for|to) (?:the )?(?:frying|fry|browning|brown|sear|searing)(?: in)?(?: the meat)?"),
)  # fmt: skip
_USES = tuple((use, re.compile(rf"[,;(]?\s*(?:{words})\)?", re.I)) for use, words in _USE_WORDS)

#: Words that describe and do not name.
_DRESSING = re.compile(
    r"\b(?:finely|roughly|coarsely|thinly|thickly|freshly|chopped|diced|sliced|peeled|trimmed|boneless|bone-in|boned|cut|"
    r"into|chunks|cubes|pieces|halved|quartered|grated|minced|good|quality|organic|ripe|washed|drained|rinsed|cold|hot|"
    r"warm|optional|plus|extra|to taste|large|small|medium|big|whole|homemade|home-made|our|own)\b",
    re.I,
)


def _share(found: re.Match[str]) -> float:
    """The share that a phrase names. Raises QuantityError for none at all."""
    share = _named_share(found)
    if not 0.0 < share <= 1.0:
        raise QuantityError("share", say("intake.leaves_nothing", text=found.group().strip(" ,;")))
    return share


def _named_share(found: re.Match[str]) -> float:
    text = found.group("share").lower().strip()
    if text in _SHARE_WORDS:
        return _SHARE_WORDS[text]
    if text.endswith("%"):
        return min(float(text[:-1]) / 100.0, 1.0)
    return min(read_number(text.replace(" ", ""), "share", "1/2")[0], 1.0)


def _uses(text: str) -> tuple[str, Use, float | None, float]:
    """What was done with it, and the line without those words: text, use, share left, share poured off."""
    use: Use = "in"
    left, poured = None, 0.0
    if found := _REDUCED.search(text):
        share = _share(found)
        left = 1.0 - share if found.group("way").lower() == "by" else share
        if left <= 0.0:
            raise QuantityError("share", say("intake.boiled_to_nothing"))
        use, text = "reduced", text[: found.start()] + text[found.end() :]
    elif found := _LEAVE.search(text):
        use, left, text = "reduced", _share(found), text[: found.start()] + text[found.end() :]
    if found := _POURED_OFF.search(text):
        part = found.group("part")
        use, poured = "fried", POURED_OFF[part.lower() if part else "most"]
        text = text[: found.start()] + text[found.end() :]
    for name, pattern in _USES:
        if found := pattern.search(text):
            use = name if use == "in" else use
            text = text[: found.start()] + text[found.end() :]
    return text.strip(" ,;"), use, left, poured


_LEADING = re.compile(r"^(?:the|your)\s+", re.I)

# -- lines and lists ------------------------------------------------------------------------------

_PARTS = re.compile(
    r"(?P<a>\d{1,4}(?:[.,]\d{1,4})?)\s*parts?\s+(?:of\s+)?(?P<first>[^\d,;]+?)\s+(?:to|and|:)\s+(?P<b>\d{1,4}(?:[.,]\d{1,4})?)\s*(?:parts?)?\s*"
    r"(?:of\s+)?(?P<second>[^\d,;]+?)\s*[,;]\s*(?P<total>.+?)(?:\s+(?:in all|in total|altogether|all told))?$",
    re.I,
)


def read_line(text: str, own: Sequence[Ingredient] = (), meant: Ingredient | None = None) -> list[ReadLine]:
    """A line as it was understood; two where a concentrate and its water stand in one.

    Parameters
    ----------
    text : the line as written, e.g. ``"half a bottle of red wine, reduced by half"``.
    own : the kitchen's own ingredients, sought before the catalogue.
    meant : the ingredient that was chosen for it, whatever the line calls it.

    Returns
    -------
    lines : never empty; what could not be read carries its ``problem``.
    """
    shown = _strip(text)
    if len(shown) > LONGEST_LINE:
        return [ReadLine(text, shown[:60], problem=say("intake.line_too_long", most=LONGEST_LINE))]
    try:
        if parts := _PARTS.fullmatch(shown):
            return _parts(text, parts, own)
        return [_one_line(text, shown, own, meant)]
    except QuantityError as error:
        return [ReadLine(text, shown, problem=error.message)]


def _one_line(text: str, shown: str, own: Sequence[Ingredient], meant: Ingredient | None = None) -> ReadLine:
    body, use, left, poured = _uses(shown)
    if re.match(r"[-−–]\s*\d", text.strip()) and not re.match(r"[-−–]\s+\d", text.strip()):
        raise QuantityError("amount", say("intake.below_zero", text=text.strip()))
    if squeezed := re.match(r"(?:the )?(juice|zest|peel) of (.+)", body, re.I):
        part = "juice" if squeezed.group(1).lower() == "juice" else "peel"
        body = f"{_LEADING.sub('', squeezed.group(2))} {part}"
    read = _amount_first(body)
    if read is None:
        read = _amount_last(body)
    count, measure, name = read if read else (None, None, body)
    name, measure = _size_in_brackets(name, measure)
    name = _without_second_amount(_OF.sub("", name, count=1) if _OF.match(name) else name).strip(" ,;:.")
    if not name and meant is None:
        raise QuantityError("ingredient", say("intake.not_of_what"))
    if (
        isinstance(measure, str)
        and measure in _CONTAINERS
        and (size := _amount_last(name))
        and isinstance(size[1], Amount)
    ):
        # "1 bottle of cider, 750 ml"
        measure, name = replace(size[1], value=size[1].value * size[0].value), size[2].strip(" ,;:.")
    word, name = _piece_word(name, measure, count)
    found = _named(name, own)
    candidates = tuple(f.ingredient for f in found[:4])
    if meant is None and (not found or found[0].score < SURE):
        hint = say("intake.one_of_these" if candidates else "intake.something_like_it")
        return ReadLine(
            text,
            name,
            problem=say("intake.not_in_catalogue", name=name[:60], hint=hint),
            candidates=candidates,
            use=use,
        )
    what = meant or _best(found, measure)
    if word:
        measure = next((w for w in (word, *_SAME_PIECE.get(word, ())) if w in what.pieces), measure)
    if use == "in" and what.group == "fat" and poured:
        use = "fried"
    line = ReadLine(text, name, ingredient=what, use=use, left=left, poured_off=poured, candidates=candidates)
    if count is None:
        return replace(line, problem=say("intake.how_much"))
    try:
        amount = _resolve(count, measure, what)
        if amount.dimension == "volume":
            _ = what.density_g_ml
    except QuantityError as error:
        return replace(line, problem=error.message)
    if not 0.0 < amount.value <= 100_000.0:
        return replace(line, problem=say("intake.no_amount"))
    return replace(line, amount=amount)


def _size_in_brackets(name: str, measure: Amount | str | None) -> tuple[str, Amount | str | None]:
    """ "1 bottle dry cider (750 ml)": the size of what is counted, wherever it stands."""
    found = re.search(r"\(\s*(?:of\s+)?([^)]{1,24}?)\s*(?:each)?\s*\)", name)
    if not found or not isinstance(measure, str) or measure not in _CONTAINERS:
        return name, measure
    inner = _safe_amount(found.group(1))
    if inner is None or not isinstance(inner[1], Amount) or inner[2].strip():
        return name, measure
    size = replace(inner[1], value=inner[1].value * inner[0].value)
    return f"{name[: found.start()]} {name[found.end() :]}", size


def _piece_word(name: str, measure: object, count: _Count | None) -> tuple[str | None, str]:
    """A word such as clove, stick or slice before the name of what it is a piece of."""
    if count is None or isinstance(measure, Amount):
        return None, name
    found = re.match(r"([^\W\d_]+)\s+(?:of\s+)?(?=\S)", name)
    if not found:
        return None, name
    word = found.group(1).lower()
    for single in (word, word[:-1], {"leaves": "leaf", "bunches": "bunch"}.get(word, word)):
        if single in _PIECE_WORDS:
            return single, name[found.end() :]
    return None, name


_PIECE_WORDS = frozenset({
    "clove", "stick", "stalk", "rib", "head", "bulb", "bunch", "sprig", "rasher", "slice", "leaf", "cube",
    "fillet", "strip", "link", "leg", "thigh", "piece", "thumb", "tube", "sachet", "square", "grind", "berry",
    "punnet", "squeeze",
})  # fmt: skip


def _without_second_amount(name: str) -> str:
    """ "500 ml / 18 fl oz stock": the same amount said twice counts once."""
    again = re.match(r"\s*[/(]\s*([^)/]{1,24}?)\s*\)?\s*(?=\s|$)", name)
    while again and (inner := _safe_amount(again.group(1))) and isinstance(inner[1], Amount) and not inner[2].strip():
        name = name[again.end() :]
        again = re.match(r"\s*[/(]\s*([^)/]{1,24}?)\s*\)?\s*(?=\s|$)", name)
    name = re.sub(r"^\s*/\s*[\d½¼¾.,/ ]+\s*[^\W\d_]+(?:\s?oz)?\s+", "", name)
    return re.sub(r"\([^)]*\)", " ", name)


def _safe_amount(text: str) -> tuple[_Count, Amount | str | None, str] | None:
    try:
        return _amount_first(text)
    except QuantityError:
        return None


def _amount_last(text: str) -> tuple[_Count, Amount | str | None, str] | None:
    """ "Salt: 12 g", "pork cheek 1.2 kg", "carrots × 2"."""
    for found in re.finditer(r"(?:[:;,=–—-]|\s|^)\s*(?:[x×]\s*)?(?=[\d½⅓⅔¼¾⅛])", text):
        if not found.start():
            continue
        read = _safe_amount(text[found.end() :])
        if read and not read[2].strip(" ."):
            return read[0], read[1], text[: found.start()]
    return None


def _named(name: str, own: Sequence[Ingredient]) -> list[Found]:
    """What a name may mean: as it stands, then without what only describes, then what comes before a comma."""
    best: list[Found] = []
    bare = re.sub(r"\s+", " ", _DRESSING.sub(" ", name)).strip(" ,;")
    for attempt in dict.fromkeys((name, bare, bare.partition(",")[0])):
        found = search(attempt, own)
        if found and (not best or found[0].score > best[0].score + 1e-9):
            best = found
    return best


def _best(found: Sequence[Found], measure: Amount | str | None) -> Ingredient:
    """Of names that fit alike, what is spooned is meant by a spoon: "1 tsp pepper" is no vegetable."""
    if isinstance(measure, Amount) and measure.dimension == "volume" and measure.value <= 1.1 * ML_PER_TBSP:
        for one in found:
            if one.score >= found[0].score - 1e-9 and one.ingredient.household in ("tsp", "tbsp"):
                return one.ingredient
    return found[0].ingredient


def _parts(text: str, found: re.Match[str], own: Sequence[Ingredient]) -> list[ReadLine]:
    """ "7 parts water to 2 of concentrate, 1.8 l in all": exactly that volume, in two lines."""
    total = parse(found.group("total"), "volume")
    a, b = (float(found.group(side).replace(",", ".")) for side in "ab")
    made = made_up(total, a, b)
    lines = []
    for name, ml in ((found.group("first"), made.concentrate_ml), (found.group("second"), made.water_ml)):
        line = _one_line(text, f"{ml:.1f} ml {name.strip()}", own)
        lines.append(replace(line, text=f"{show_volume(ml).metric} {name.strip()}"))
    return lines


def read_list(text: str, own: Sequence[Ingredient] = ()) -> ReadList:
    """A pasted list, line by line; blank lines and headings ending in a colon are passed over.

    At most :data:`MOST_LINES` lines are read; ``rest`` holds the others as they were.
    """
    rows = [row for row in text.splitlines() if row.strip() and not row.strip().endswith(":")]
    read = tuple(line for row in rows[:MOST_LINES] for line in read_line(row, own))
    return ReadList(read, "\n".join(rows[MOST_LINES:]))


# -- a sentence ------------------------------------------------------------------------------------


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
    verdict: Literal["flat", "nearly", "right", "salty", "too_salty"] | None = None
    percent: float | None = None
    stock: Literal["salted", "reduced_salt", "low_salt", "unsalted"] | None = None
    character: Literal["thin", "gelatin_rich", "milled"] | None = None
    unread: tuple[str, ...] = ()


_VERDICTS = (
    ("too_salty", r"(?:far |much )?too salty|over-?salted"),
    (
        "nearly",
        r"(?:nearly|almost|not quite) (?:right|there|enough|salty enough)|(?:a bit|slightly|a little) (?:flat|bland)",
    ),
    ("flat", r"flat|bland|under-?seasoned|hardly any salt|no salt(?: in it)?(?: yet)?|needs salt"),
    ("right", r"(?:about |just |tastes )?right|well seasoned|seasoned|good for salt"),
    ("salty", r"salty"),
)  # fmt: skip
_STOCKS = (
    ("reduced_salt", r"reduced[- ]salt|salt[- ]reduced"), ("low_salt", r"low[- ]salt|low in salt|low[- ]sodium"),
    ("unsalted", r"unsalted|salt[- ]free"), ("salted", r"salted stock|ready[- ]made stock"),
)  # fmt: skip
_CHARACTERS = (
    ("milled", r"milled|tomato|puree|purée|cloudy|vegetables in it"),
    ("gelatin_rich", r"gelatin|sets|sticky|cheek|shin|tail|trotter|shank|neck"),
    ("thin", r"\bthin\b|watery|lean"),
)  # fmt: skip


def read_sentence(text: str) -> ReadSentence:
    """ "A bit over two litres, two centimetres of fat, nearly right for salt" as a start.

    Clauses are divided by commas, semicolons, full stops and "and" or "with"; each is taken for an
    amount of liquid, a layer of fat, a taste of salt or a kind of liquid. What fits none is returned
    in ``unread``.
    """
    text = _and_a_half(_strip(text[:500]))
    clauses = re.split(r"(?<!\d)[,;.](?!\d)|[,;]\s|\.\s|\.$|\b(?:and|with|but)\b", text)
    said, unread = ReadSentence(), []
    for clause in (c.strip() for c in clauses):
        if clause:
            better = _clause(said, clause)
            if better is said:
                unread.append(clause)
            said = better
    return replace(said, unread=tuple(unread))


def _and_a_half(text: str) -> str:
    """ "Two and a half litres" and "a litre and a half" in figures, before "and" divides the clauses."""
    parts = {"half": 0.5, "quarter": 0.25, "third": 1.0 / 3.0}

    def figures(found: re.Match[str]) -> str:
        word, part, unit = found["word"].lower(), parts[found["part"].lower()], found.groupdict().get("unit") or ""
        whole = NUMBER_WORDS[word] if word in NUMBER_WORDS else float(word)
        return f"{whole + part:g} {unit}".strip()

    number = r"(?P<word>\d{1,6}|" + "|".join(w for w in NUMBER_WORDS if w not in parts) + ")"
    part = r"and a (?P<part>half|quarter|third)"
    text = re.sub(rf"\b{number} {part}\b", figures, text, flags=re.I)
    return re.sub(rf"\b{number} (?P<unit>[^\W\d_]+) {part}\b", figures, text, flags=re.I)


#: Thicknesses shown on the hand, mm. Modelling choices.
_FINGERS = {"finger": 18.0, "fingers": 18.0, "thumb": 22.0, "fingernail": 10.0}


def _clause(said: ReadSentence, clause: str) -> ReadSentence:
    low = clause.lower()
    out = said
    if re.search(r"\bhot\b|off the boil|steaming|just strained", low):
        out = replace(out, hot=True)
    elif re.search(r"(?<!when )\b(?:cold|cool)\b|room temperature|fridge|chilled", low):
        out = replace(out, hot=False)
    if re.search(r"\b(?:fat|grease|oil)\b", low):
        return _fat_clause(out, low)
    meter = re.search(r"(?<!\d)(\d{1,3}(?:[.,]\d{1,6})?)\s*(?:%|per ?cent)", low)
    if meter:
        return replace(out, percent=float(meter.group(1).replace(",", ".")))
    for stock, pattern in _STOCKS:
        if re.search(pattern, low):
            out = replace(out, stock=stock)  # type: ignore[arg-type]
            break
    else:
        for verdict, pattern in _VERDICTS:
            if re.search(rf"\b(?:{pattern})\b", low):
                out = replace(out, verdict=verdict)  # type: ignore[arg-type]
                break
    for character, pattern in _CHARACTERS:
        if out.character is None and re.search(pattern, low):
            out = replace(out, character=character)  # type: ignore[arg-type]
    amount = _sentence_amount(low)
    if amount is not None and out.value is None:
        out = replace(out, method=amount[0], value=amount[1])
    return out


def _fat_clause(said: ReadSentence, low: str) -> ReadSentence:
    if re.search(r"\bno fat\b|fat is off|skimmed|without fat|hardly any fat", low):
        return replace(said, fat_ml=0.0)
    amount = _sentence_amount(low)
    if amount is None:
        return said
    if amount[0] == "dip":
        return replace(said, fat_mm=amount[1])
    return replace(said, fat_ml=amount[1]) if amount[0] in ("jug", "eye") else said


_FILLER = re.compile(r"^(?:i have|i've got|there is|there's|there are|it is|it's|we have|that is)\s+", re.I)


def _sentence_amount(low: str) -> tuple[Literal["jug", "dip", "scale", "eye"], float] | None:
    """An amount in a clause: litres by eye or jug, a depth, or a weight on the scale."""
    words = _FILLER.sub("", low)
    for start in re.finditer(r"(?:^|\s)(?=\S)", words):
        rest = words[start.end() :]
        try:
            counted = _count(rest)
        except QuantityError:
            continue
        if counted is None:
            continue
        count, after = counted
        unit = re.match(r"([^\W\d_]+|\"|″)", after)
        if unit and unit.group(1) in _FINGERS:
            return "dip", round(count.value * count.factor * _FINGERS[unit.group(1)], 1)
        dimension = UNITS.get(unit.group(1)) if unit else None
        if unit and dimension and dimension[0] in ("volume", "length", "mass"):
            value = count.value * count.factor * dimension[1]
            if dimension[0] == "length":
                return "dip", round(value, 1)
            if dimension[0] == "mass":
                return "scale", round(value)
            exact = not count.spread and not re.search(r"\b(?:by eye|guess|i think)\b", low)
            return ("jug" if exact else "eye"), round(value)
    return None
