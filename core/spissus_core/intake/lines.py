"""Reading what a cook writes of what went in: a line of a list, and a whole list.

A line is understood, or asked about, never guessed in silence: what cannot be read is handed back as it was written
with the reason (``problem``), and what could be read in more ways than one, or leaves words over, says what it was
taken for (``doubt``) and what else it may be (``choices``).
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import NamedTuple

from ..amounts.figures import in_figures
from ..amounts.quantities import ML_PER_TBSP, show_mass, show_volume
from ..amounts.reading import ONES, Said
from ..amounts.rows import rows
from ..errors import QuantityError
from ..messages import Argument, Message, Shown, say
from ..pantry.ingredients import Ingredient, ingredient, search
from ..pantry.naming import Taken, is_named, stands, taken_for
from .asides import without_asides, without_purpose, without_salting
from .clauses import Parts, amount_of_list, apart, cleaned, is_size, size_last
from .diluted import diluted
from .doings import Done, Use, doings
from .how_much import Amount, after, comes_in_small, in_all, of_a_kind, piece_of

#: More lines than any braise has; what follows is not read.
MOST_LINES = 200
LONGEST_LINE = 200
#: More of one thing than any kitchen holds, g or mL. Modelling choice.
MOST_OF_A_THING = 100_000.0


class Choice(NamedTuple):
    """Another reading of a line: the line that says it, or the ingredient it may mean."""

    said: Message
    text: str
    ingredient: str | None = None


@dataclass(frozen=True, slots=True)
class ReadLine:
    """One line as it was understood.

    ``left`` is the share of it left where it was boiled down first, ``poured_off`` the share of a
    frying fat that was thrown away. ``problem`` says why a line does not count; ``candidates`` what
    it might have meant. ``doubt`` says what a line was taken for that may mean something else, and
    ``choices`` at most two other readings.
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
    doubt: Message | None = None
    choices: tuple[Choice, ...] = ()


@dataclass(frozen=True, slots=True)
class ReadList:
    """A list as it was understood; ``rest`` is what was not read because there was too much."""

    lines: tuple[ReadLine, ...]
    rest: str = ""


# -- a line -----------------------------------------------------------------------------------------

_JOINT = re.compile(
    r"\s*[;+]\s*|\s*/\s*(?!\d+\s*(?:pcs?|piece)\b)"
    r"|\s+(?:and|plus|with|&|stuck with|studded with|mixed with|rolled in|in)\s+|,\s*(?:and\s+)?"
    rf"|\s+(?=(?:\d|[½¼¾⅓⅔]|(?:an?|half|{'|'.join(ONES)})\b))",
    re.I,
)
_SQUEEZED = re.compile(
    r"(?:the )?(?:(?:strained|finely|grated|pared|thin|fresh)\s+)*"
    r"(?P<one>juice|zest|rind|peel)"
    r"(?:\s+(?:and|&|\+)\s+(?:the )?(?:grated )?(?P<two>juice|zest|rind|peel))?\s+(?:of|from)\s+(?P<fruit>.+)",
    re.I,
)
_EGG = re.compile(r"(?:the )?(?P<part>yolk|white)s? of (?P<rest>.+)", re.I)
_WEIGHT_OF = re.compile(r"(?:the )?weight of\b", re.I)
_NOTHING = re.compile(r"(?:no|without(?: any)?|not any|zero)\s+(?P<name>[^\W\d_].*)", re.I)


def read_line(text: str, own: Sequence[Ingredient] = (), meant: Ingredient | None = None) -> list[ReadLine]:
    """A line as it was understood; several where it names several things.

    Parameters
    ----------
    text : the line as written, e.g. ``"half a bottle of red wine, reduced by half"``.
    own : the kitchen's own ingredients, sought before the catalogue.
    meant : the ingredient that was chosen for it, whatever the line calls it; nothing is doubted any more.

    Returns
    -------
    lines : never empty; what could not be read carries its ``problem``, what is not sure its ``doubt``.
    """
    if len(text) > 20 * LONGEST_LINE or len(shown := cleaned(text)) > LONGEST_LINE:
        return [ReadLine(text, text[:60], problem=say("intake.line_too_long", most=LONGEST_LINE))]
    try:
        if re.match(r"[-−–]\s*\d", text.strip()) and not re.match(r"[-−–]\s+\d", text.strip()):
            raise QuantityError("amount", say("intake.below_zero", text=text.strip()))
        shown = without_asides(in_figures(shown))
        if meant is not None:
            return [_sure(_thing(text, shown, own, meant))]
        if made := diluted(shown, own):
            return [_sure(replace(_thing(shown, part.read, own, part.meant), text=part.written)) for part in made]
        things = _things(shown, own)
        return [_thing(part if things[1:] else text, part, own) for part in things]
    except QuantityError as error:
        return [ReadLine(text, shown, problem=error.message, choices=_either_way(shown))]


def _sure(line: ReadLine) -> ReadLine:
    return replace(line, doubt=None, choices=())


def _either_way(shown: str) -> tuple[Choice, ...]:
    """ "1,200 g" as the two amounts that it may be."""
    found = re.search(r"\b([1-9]\d{0,2}),(\d{3})\b", shown)
    if found is None:
        return ()
    texts = (shown[: found.start()] + joint.join(found.groups()) + shown[found.end() :] for joint in ("", "."))
    return tuple(Choice(say("intake.as_written", text=text), text) for text in texts)


def _things(shown: str, own: Sequence[Ingredient]) -> list[str]:
    """The things that a line names: "2 carrots, 1 onion", "juice and zest of a lemon", "salt and pepper"."""
    if squeezed := _SQUEEZED.fullmatch(shown):
        parts = [squeezed["one"], squeezed["two"]] if squeezed["two"] else [squeezed["one"]]
        fruit = re.sub(r"(?i)^an?\s+", "1 ", re.sub(r"(?i)^the\s+", "", squeezed["fruit"]))
        what = ["juice" if part.lower() == "juice" else "peel" for part in parts]
        head, comma, tail = fruit.partition(",")
        return [f"{head} {part}{comma}{tail}" for part in what]
    if egg := _EGG.fullmatch(shown):
        return [f"{re.sub(r'(?i)eggs?', '', egg['rest']).strip() or '1'} egg {egg['part']}"]
    if each := _of_each(shown, own):
        return each
    out: list[str] = []
    rest, start = shown, 0
    while found := _JOINT.search(rest, start):
        left, right = rest[: found.start()], rest[found.end() :]
        if _splits(left, right, found.group().strip().lower(), own):
            out.append(left)
            rest, start = right, 0
        else:
            start = found.end()
    return [*out, rest]


_IN_A_ROW = re.compile(r",\s*(?:and\s+)?|\s+(?:and|&)\s+")
#: "Water and wine, 500 ml each".
_EACH_BEHIND = re.compile(r"(?P<names>[^\d]+?),?\s+(?P<amount>[\d½¼¾][^,;()]*?)\s+(?:of\s+)?each", re.I)


def _of_each(shown: str, own: Sequence[Ingredient]) -> list[str]:
    """ "50 g each butter and flour", "150 g each of carrot, celery and onion": as many things, if it is so told."""
    said = amount_of_list(shown)
    after = re.match(r"\s*(?:of\s+)?each(?:\s+of)?\s+(?=[^\W\d_])", said.rest, re.I) if said else None
    if said is None and (behind := _EACH_BEHIND.fullmatch(shown)):
        names = _IN_A_ROW.split(behind["names"])
        sized = is_size(behind["amount"]) and names[1:] and all(stands(name, own) for name in names)
        return [f"{behind['amount']} {name}" for name in names] if sized else []
    if said is None or after is None:
        return []
    names = _IN_A_ROW.split(said.rest[after.end() :])
    amount = shown[: len(shown) - len(said.rest)]
    return [f"{amount} {name}" for name in names] if names[1:] and all(stands(name, own) for name in names) else []


def _splits(left: str, right: str, joint: str, own: Sequence[Ingredient]) -> bool:
    """Whether what stands on both sides of a joint are two things."""
    if not left.strip() or not right.strip():
        return False
    if left.count("(") != left.count(")"):
        return False
    try:
        one, two = amount_of_list(left.strip()), amount_of_list(right.strip())
    except QuantityError:
        return False
    if joint in ("in", "with") and (two is None or not stands(two.rest, own)):
        return False
    if joint == ";" and one is None and two is None:
        return _whole_thing(left, own) and _whole_thing(right, own)
    if two is None:
        name = right.partition(",")[0]
        return _two_names(left, name, right, joint, own) if one is None else _one_more(one, name, right, joint, own)
    if is_size(right):
        return False
    # "beef, 3 lbs.; bacon, 1/2 lb.": the amount of the right one belongs to it by its name, or the other way round.
    if joint == ";":
        return _whole_thing(left, own) and _whole_thing(right, own)
    return _begins_another(left, one, joint) and all(
        stands(name, own)
        for name in ((left if one is None else one.rest).partition(",")[0], _JOINT.split(two.rest, maxsplit=1)[0])
    )


def _two_names(left: str, name: str, right: str, joint: str, own: Sequence[Ingredient]) -> bool:
    """ "salt and pepper", "pepper and salt to taste": two things only where the whole is no name of one."""
    if joint not in ("and", "&", "+", "/", "rolled in", "mixed with"):
        return False
    return is_named(left, own) and is_named(name, own) and not stands(f"{left} {right}", own)


def _one_more(one: Said, name: str, right: str, joint: str, own: Sequence[Ingredient]) -> bool:
    """ "2 carrots and onions" are two; "1 tsp salt and pepper" too; "300 g ham and bacon trimmings" are not known."""
    if joint not in ("and", "&", "stuck with", "studded with", "mixed with", "rolled in"):
        return joint in (";", "+") and stands(name, own)
    return stands(one.rest, own) and stands(name, own) and not stands(f"{one.rest} {right}", own)


def _begins_another(left: str, one: Said | None, joint: str) -> bool:
    """Whether an amount right of a joint may begin another thing."""
    if joint == "":
        open_ = re.search(r"(?:^|\s)(?:of|in|with|for|at|about|to|than|from|by|per)$", left, re.I)
        return not open_ and one is not None and (one.unit is None or bool(one.rest.strip()))
    if one is not None:
        return True
    return any(c.isdigit() for c in left) and (joint != "," or size_last(left) is not None)


def _whole_thing(text: str, own: Sequence[Ingredient]) -> bool:
    """Whether a text says both what and how much."""
    try:
        parts = apart(doings(text.partition(";")[0])[0])
    except QuantityError:
        return False
    return (parts.first is not None or bool(parts.sizes)) and stands(parts.words, own)


def _thing(text: str, shown: str, own: Sequence[Ingredient], meant: Ingredient | None = None) -> ReadLine:
    """A line, or a part of one, that names one thing."""
    if by_eye := _by_eye(text, shown):
        return by_eye
    if (nothing := _NOTHING.fullmatch(shown)) and stands(nothing["name"], own):
        what = taken_for(nothing["name"], own)[0].ingredient
        return ReadLine(text, nothing["name"], ingredient=what, use="left_out")
    if _WEIGHT_OF.match(shown):
        raise QuantityError("amount", say("intake.how_much"))
    shown, salted = without_salting(shown, own)
    body, done = doings(shown)
    body = without_purpose(body, own)
    parts = apart(body)
    if not parts.words.strip() and meant is None:
        raise QuantityError("ingredient", say("intake.not_of_what"))
    found = _by_measure(parts, own)
    if parts.first is None and not parts.sizes and re.search(r"\d", parts.words):
        raise QuantityError("amount", say("intake.how_much"))
    candidates = tuple(one.ingredient for one in found[:4])
    if meant is None and (not found or found[0].missing):
        candidates = candidates or tuple(one.ingredient for one in search(parts.words, own, 4))
        hint = say("intake.one_of_these" if candidates else "intake.something_like_it")
        name = parts.words[:60] or shown[:60]
        problem = say("intake.not_in_catalogue", name=name, hint=hint)
        return ReadLine(text, name, problem=problem, candidates=candidates, use=done.use)
    taken = found[0] if meant is None else Taken(meant)
    if meant is None and (part := _OF_IT.search(body)):
        # "half of it for frying": of which part something is told, nobody can guess.
        taken = replace(taken, left=(*taken.left, part.group()))
    line = _weighed(text, parts, taken, done, candidates)
    if salted and taken.ingredient.group in ("meat", "cured") and meant is None:
        return replace(line, doubt=say("intake.salted_before", name=taken.ingredient.name), choices=())
    return line


_OF_IT = re.compile(
    r"\b(?:half|some|part|most|the rest|an?|one|two|three|four|\d+)(?: \w+)? of (?:it|them|this|that|which|these)\b",
    re.I,
)


def _by_measure(parts: Parts, own: Sequence[Ingredient]) -> list[Taken]:
    """What a name may mean by how it is measured: a tin holds what is tinned, and a spoon of pepper is no vegetable."""
    first = parts.first
    found = taken_for(parts.words, own)
    if first is not None and (first.came_in in ("tin", "can") or (first.unit and first.unit.name == "tin")):
        tinned = taken_for(f"canned {parts.words}", own)
        comes_so = found and not found[0].missing and "tin" in found[0].ingredient.pieces
        if tinned and not comes_so and not tinned[0].missing and "canned" not in tinned[0].left:
            return tinned
    if not found or not found[0].others:
        return found
    spooned = first is None or (
        first.unit is not None and (first.unit.kind == "hand" or first.value <= 1.1 * ML_PER_TBSP)
    )
    if not spooned:
        return [replace(found[0], others=tuple(o for o in found[0].others if o.group != "spice")), *found[1:]]
    for one in found:
        if one.ingredient.group == "spice" and not one.missing and len(one.left) <= len(found[0].left):
            return [replace(one, others=()), *(other for other in found if other is not one)]
    return found


def _weighed(text: str, parts: Parts, taken: Taken, done: Done, candidates: tuple[Ingredient, ...]) -> ReadLine:
    """A line whose ingredient is known: how much of it, and what is doubtful."""
    what = taken.ingredient
    name = parts.words
    use: Use = done.use
    if use in ("rubbed", "dredged") and what.group in ("wine", "stock", "meat"):
        use = "in"
    if use == "fried" and what.group not in ("fat", "dairy", "cured", "meat"):
        use = "in"
    line = ReadLine(
        text,
        name,
        ingredient=what,
        use=use,
        left=done.left,
        poured_off=done.poured_off if use == "fried" else 0.0,
        candidates=candidates,
    )
    if parts.first is None and not parts.sizes:
        return _doubted(replace(line, problem=say("intake.how_much")), taken)
    try:
        amount, unclear = in_all(parts, what)
        amount = of_a_kind(amount, what)
        amount, left = after(amount, done, what)
    except QuantityError as error:
        return _doubted(replace(line, problem=error.message), taken)
    if not 0.0 < amount.value <= MOST_OF_A_THING:
        return replace(line, problem=say("intake.no_amount"))
    line = replace(line, amount=amount, left=left)
    if small := _small_bottles(parts, what):
        sizes = tuple(_so_much(show_volume(ml), what) for ml in small)
        return replace(line, doubt=say("intake.small_bottle", amount=amount.shown, name=what.name), choices=sizes)
    if unclear is not None:
        said = say("intake.each_or_all", amount=amount.shown, name=what.name)
        return replace(line, doubt=said, choices=(_so_much(show_mass(unclear), what),))
    return _doubted(line, taken)


def _so_much(amount: Shown, what: Ingredient) -> Choice:
    """That it is another amount of the same."""
    return Choice(say("intake.in_all", amount=amount), f"{amount.metric} {what.name}", what.key)


#: Beer and cider come in these bottles too, mL (common practice).
_LARGER_BOTTLES = (500.0, 750.0)


def _small_bottles(parts: Parts, what: Ingredient) -> tuple[float, ...]:
    """What bottles of beer or cider may hold instead, mL, where nobody said; nothing where it is said or plain."""
    first = parts.first
    if first is None or first.unit is None or first.unit.name != "bottle" or parts.sizes or not comes_in_small(what):
        return ()
    return tuple(ml * first.count for ml in _LARGER_BOTTLES)


def _doubted(line: ReadLine, taken: Taken) -> ReadLine:
    """With what is not sure of the name."""
    what, amount = taken.ingredient, line.amount
    taken_as: Argument = say("intake.so_much_of", amount=amount.shown, name=what.name) if amount else what.name
    # The word for a piece was counted.
    left = " ".join(word for word in taken.left if piece_of(word, what) is None)[:60]
    also = taken.others or tuple(item for item in line.candidates if item.key != what.key)
    choices = tuple(Choice(say("intake.or_is_it", name=item.name), line.text, item.key) for item in also[:2])
    if left:
        doubt = say("intake.left_over", what=taken_as, words=left)
        return replace(line, doubt=doubt, choices=choices)
    if any(_differ(what, other) for other in taken.others):
        return replace(line, doubt=say("intake.several", what=taken_as), choices=choices)
    if taken.guessed:
        doubt = say("intake.guessed", what=taken_as, words=" ".join(taken.guessed)[:60])
        return replace(line, doubt=doubt, choices=choices)
    return line


#: Two things called alike are asked about where they differ by more than this in any mass of the ledger, g per 100 g.
#: Modelling choice: "wine", red or white, is one thing to a sauce's salt and body; stock, salted or not, is two.
#: A spoon of one that is heavier than a spoon of the other by more is another thing, too, as of kosher salt.
_ALIKE_G, _LIES_ALIKE = 0.8, 1.15


def _differ(one: Ingredient, other: Ingredient) -> bool:
    """Whether it matters to a sauce which of two is meant. Salt counts tenfold: a sauce holds a tenth of the rest."""
    mine, theirs = one.portion(100.0), other.portion(100.0)
    apart = [
        abs(getattr(mine, name) - getattr(theirs, name)) for name in ("sugar", "acid", "gelatin", "ethanol", "fat_free")
    ]
    return (
        max(*apart, 10.0 * abs(mine.salt - theirs.salt)) > _ALIKE_G
        or (one.household_g or 1.0) > _LIES_ALIKE * (other.household_g or 1.0)
        or (other.household_g or 1.0) > _LIES_ALIKE * (one.household_g or 1.0)
        or one.group != other.group
        or one.allergens != other.allergens
    )


# -- salted by eye ----------------------------------------------------------------------------------


#: No amount that was told is more uncertain than this, as a share. Modelling choice.
WIDEST_SPREAD = 0.9


@lru_cache(maxsize=1)
def _eyes() -> dict[str, tuple[float, float, float]]:
    return {
        words: (float(row["grams"]), float(row["low"]), float(row["high"]))
        for row in rows("by_eye")
        for words in row["words"].split("|")
    }


def _by_eye(text: str, shown: str) -> ReadLine | None:
    """ "Salted by eye", "season generously": a usual amount with a wide range, and said so."""
    words = re.sub(r"^(?:the meat |meat |it |i |we |the pot )(?:was |is )?|[.!]+$", "", shown.lower()).strip()
    words = re.sub(r"\s+(?:the (?:meat|joint|birds?|pieces)|it|them|all over)(?=\s|$)", "", words)
    known = _eyes().get(words)
    if known is None:
        return None
    grams, low, high = known
    salt = ingredient("salt_table")
    # A range of ratios as the half-width that a line has; it never reaches nothing.
    spread = min(max(1.0 - low / grams, high / grams - 1.0), WIDEST_SPREAD)
    doubt = say("intake.by_eye", amount=show_mass(grams), low=show_mass(low), high=show_mass(high))
    choices = tuple(_so_much(show_mass(g), salt) for g in (low, high))
    return ReadLine(text, shown, ingredient=salt, amount=Amount("mass", grams, spread), doubt=doubt, choices=choices)


# -- a list -----------------------------------------------------------------------------------------


def read_list(text: str, own: Sequence[Ingredient] = ()) -> ReadList:
    """A pasted list, line by line; blank lines and headings ending in a colon are passed over.

    At most :data:`MOST_LINES` lines are read; ``rest`` holds the others as they were.
    """
    written = [row for row in text.splitlines() if row.strip() and not row.strip().endswith(":")]
    read = tuple(line for row in written[:MOST_LINES] for line in read_line(row, own))
    return ReadList(read, "\n".join(written[MOST_LINES:]))
