"""How much of an ingredient a line comes to: pieces by their weight, drinks by the fluid ounce."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, replace
from typing import Literal

from ..amounts.quantities import LONGEST_AMOUNT, ML_PER_CUP, ML_PER_TBSP, show_mass, show_volume
from ..amounts.reading import Said, fill_of
from ..errors import QuantityError
from ..messages import Shown, say
from ..pantry.ingredients import Ingredient, names_of, plain
from .clauses import Parts, Size, amount_of_list
from .doings import Done


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


#: Beer and cider, below this strength in % vol, come in bottles and cans of this size, mL, and of one that may be
#: another this share off (common practice).
_SMALL_BOTTLE_SPREAD = 0.25
_SMALL_BOTTLE_ML, _SMALL_BOTTLE_BELOW_ABV = 330.0, 10.0

#: The weight of a piece varies by about this much, and a solid in a cup lies as loosely. Modelling choices.
_PIECE_SPREAD, _LOOSE_SPREAD = 0.2, 0.2

#: Two amounts of one thing that differ by less are the same; a count that may be each or all together is clear where
#: one of the two is this much likelier. Modelling choices.
_SAME, _CLEAR = 1.15, 1.6
#: A weight and a volume of one thing may differ by this much for how loosely it lies. Modelling choice.
_ANOTHER = 2.0

#: How far a share that stayed in the bowl may be off, as a share of the whole. Modelling choice.
_STAYED_SPREAD = 0.1

#: A cube or a powder is counted, weighed or spooned: more than this of it, mL, is the stock made from it, and less
#: water than this, g per 100 g, makes it one. Modelling choices.
_SPOONED_ML, _DRY_WATER = 5.0 * ML_PER_TBSP, 20.0

#: Other words for the same piece.
_SAME_PIECE = {
    "strip": ("rasher", "slice"),
    "slice": ("rasher", "piece"),
    "rasher": ("slice",),
    "can": ("tin",),
    "stalk": ("stick", "rib", "stem"),
    "rib": ("stick", "stalk"),
    "stick": ("stalk", "rib"),
    "bulb": ("head",),
    "head": ("bulb", "each"),
    "corn": ("peppercorn", "each"),
    "stem": ("stalk", "sprig"),
    "branch": ("sprig",),
    "faggot": ("bunch",),
    "bundle": ("bunch",),
    "fist": ("handful",),
    "hand": ("handful",),
    "whole": ("each",),
    "lump": ("knob", "piece"),
    "knob": ("lump",),
}
_PIECE_WORDS = frozenset(
    {
        "clove",
        "stick",
        "stalk",
        "rib",
        "head",
        "bulb",
        "bunch",
        "sprig",
        "rasher",
        "slice",
        "leaf",
        "cube",
        "fillet",
        "strip",
        "link",
        "leg",
        "thigh",
        "drumstick",
        "piece",
        "thumb",
        "tube",
        "sachet",
        "square",
        "grind",
        "berry",
        "punnet",
        "squeeze",
        "pod",
        "blade",
        "thread",
        "pot",
        "stem",
        "branch",
        "faggot",
        "bundle",
        "grating",
        "quarter",
        "lump",
        "corn",
        "turn",
        "twist",
        "peppercorn",
        "handful",
        "grain",
    }
)
#: Measures that nobody counts without naming them: "1 salt" is not a pinch.
_NOT_COUNTED = frozenset({"pinch", "grind", "handful", "squeeze", "cup", "tsp", "lump"})


#: How pieces are written short.
_SHORT = {"spr": "sprig", "hd": "head", "bch": "bunch", "lf": "leaf", "leafs": "leaf"}


def piece_of(words: str, what: Ingredient) -> str | None:
    """The word for a piece that a name holds, if this ingredient comes in it: "sticks of celery", "chicken thighs"."""
    for word in re.findall(r"[^\W\d_]+", words)[:6]:
        single = _SHORT.get(word.lower()) or plain(word)
        if single in _PIECE_WORDS or single in what.pieces:
            for one in (single, *_SAME_PIECE.get(single, ())):
                if one in what.pieces:
                    return one
    return None


#: What may stand beside a count without saying of what.
_SAYS_NO_MORE = frozenset({"of", "a", "an", "the", "it", "them", "whole", "large", "small", "medium", "big", "little"})


_PART_OF = re.compile(r"(?:the )?(?P<part>juice|zest|peel|yolks?|whites?|leaves) (?:of|from) (?:the )?", re.I)


def counted(text: str, what: Ingredient) -> Amount | None:
    """So many of an ingredient, or a measure of the hand, where nothing but the amount is said: "3 yolks", "half an
    orange", "a splash"; None where the text is none, or names something else.

    Raises
    ------
    QuantityError : nobody knows what one weighs, or figures that are no number.
    """
    if len(text) > LONGEST_AMOUNT:
        return None
    names = {plain(word) for name in (what.name, *names_of(what)) for word in name.split()}
    part = _PART_OF.match(text.strip())
    said = amount_of_list(text.strip()[part.end() :] if part and plain(part["part"]) in names else text.strip())
    if said is None or (said.unit is not None and said.unit.kind == "exact"):
        return None
    words = {plain(word) for word in re.findall(r"[^\W\d_]+", said.rest)}
    pieces = {piece for word in words if (piece := piece_of(word, what))}
    if not words <= names | _SAYS_NO_MORE | _PIECE_WORDS | set(what.pieces) or (words & _PIECE_WORDS and not pieces):
        return None
    return of_a_kind(_resolved(said, what, said.rest), what)


def in_all(parts: Parts, what: Ingredient) -> tuple[Amount, float | None]:
    """How much of an ingredient a line comes to, and the weight it may be instead, g, where that is not clear."""
    first, sizes = parts.first, parts.sizes
    if first is not None and (net := next((size for size in sizes if size.net), None)):
        return _resolved(net.said, what, parts.words), None
    amount, unclear = _full(parts, what)
    if (drained := _drained(parts, what)) is not None:
        amount = replace(amount, value=drained * amount.value, spread=math.hypot(amount.spread, _DRAINED_SPREAD))
    return amount, unclear


def _full(parts: Parts, what: Ingredient) -> tuple[Amount, float | None]:
    """As :func:`in_all`, of what was bought."""
    first, sizes = parts.first, parts.sizes
    sized = [size for size in sizes if size.said.unit is not None and size.said.unit.kind != "container"]
    if first is None:
        # "Salt: 12 g", "carrots × 2"; of two sizes, "2 … 1.4 kg", one counts the other.
        counts = [size for size in sizes if size.said.unit is None]
        if sized and counts:
            return _counted_sizes(counts[0].said, None, sized[0], what, parts.words)
        return _resolved((sized or list(sizes))[0].said, what, parts.words), None
    counted = first.unit is None or first.unit.kind == "container" or first.unit.name in what.pieces
    if sized and counted and 0.0 < first.count < 1.0 and not sized[0].of:
        # "Half a goose, 1.9 kg": what is bought weighs that.
        return _resolved(sized[0].said, what, parts.words), None
    if sized and counted:
        return _counted_sizes(first, first.unit.name if first.unit else None, sized[0], what, parts.words)
    amount = _resolved(first, what, parts.words)
    if sized:
        other = _resolved(sized[0].said, what, parts.words)
        mine, theirs = grams_of(amount, what), grams_of(other, what)
        if max(mine, theirs) > _SAME * min(mine, theirs):
            if sized[0].of == "all" or first.spread > 0.1 or (first.unit and first.unit.kind == "hand"):
                return other, None
            if theirs > 0.0 and amount.dimension == other.dimension:
                return amount, theirs
            # A weight beside a cup tells how it lies in it; one that no cup comes to is another thing.
            weighed, poured = (other, mine) if other.dimension == "mass" else (amount, theirs)
            far = max(mine, theirs) > _ANOTHER * min(mine, theirs)
            return weighed, (poured if far else None)
    return amount, None


#: What is left of a tin of beans or tomatoes, as a share of what it holds, and how far that may be off (common
#: practice: a tin of 400 g is sold as 240 g drained).
DRAINED, _DRAINED_SPREAD = 0.6, 0.08
_DRAINED, _UNDRAINED = re.compile(r"\bdrained\b", re.I), re.compile(r"\bundrained\b", re.I)


def _drained(parts: Parts, what: Ingredient) -> float | None:
    """The share of a tin that goes in without its liquid; None where all of it does, or it is drained as it is told.

    Beans are drained unless their liquid is named; tomatoes only where it is said.
    """
    first = parts.first
    tinned = first is not None and (first.came_in in ("tin", "can", "jar") or (first.unit and first.unit.name == "tin"))
    told_full = any(size.said.unit is not None for size in parts.sizes) or not (
        first and first.unit and first.unit.name in what.pieces
    )
    if not tinned or _UNDRAINED.search(parts.words):
        return None
    if what.group == "pulse":
        return DRAINED if told_full else None
    return DRAINED if _DRAINED.search(parts.words) and what.group in ("tomato", "vegetable", "fruit") else None


def _counted_sizes(
    count: Said, container: str | None, size: Size, what: Ingredient, words: str
) -> tuple[Amount, float | None]:
    """A count with a size beside it: "3 quails, 200 g each", "2 tins (400 g)", "1 hen, about 2.1 kg"."""
    one = _resolved(size.said, what, words)
    times = count.count
    each = replace(one, value=one.value * times, spread=math.hypot(one.spread, count.spread))
    if size.of == "each" or container in ("bottle", "tin", "carton", "jar", "packet", "box", "magnum"):
        return (one, None) if size.of == "all" else (each, None)
    if size.of == "all" or 0.0 < times <= 1.0:
        return (one, None) if size.of == "all" or times == 1.0 else (each, None)
    piece = piece_of(words, what) or "each"
    usual = what.pieces.get(piece) or next(iter(what.pieces.values()), 0.0)
    grams = grams_of(one, what)
    if not usual:
        # Nobody knows what one weighs: told behind a count, it is more often all of them.
        return one, grams_of(each, what)
    far_each, far_all = abs(math.log(grams / usual)), abs(math.log(grams / (usual * times)))
    if abs(far_each - far_all) >= math.log(_CLEAR):
        return (each if far_each < far_all else one), None
    # Where the two are far apart, and neither is likelier, the smaller counts.
    if far_each <= far_all and times <= _TWOFOLD:
        return each, grams
    return one, grams_of(each, what)


#: Readings of a line that differ by more count as the smaller one until somebody says. Modelling choice.
_TWOFOLD = 2.0


def grams_of(amount: Amount, what: Ingredient) -> float:
    """Its weight, g. Raises QuantityError for a volume of what is only weighed."""
    return amount.value if amount.dimension == "mass" else amount.value * what.density_g_ml


def _resolved(said: Said, what: Ingredient, words: str) -> Amount:
    """The amount of an ingredient that so many of a unit, or of its pieces, come to.

    Raises
    ------
    QuantityError : nobody knows what one weighs, or it is never poured.
    """
    unit = said.unit
    piece = piece_of(words, what)
    if unit is None:
        said = _by_size(said, words)
        single = piece or (
            "each" if "each" in what.pieces else next(iter(what.pieces), "") if len(what.pieces) == 1 else ""
        )
        weight = None if single in _NOT_COUNTED and piece is None else what.pieces.get(single)
        if weight is None:
            raise QuantityError("amount", say("intake.how_much_of_it", name=what.name))
        return Amount("mass", weight * said.count * said.fill, max(said.spread, _PIECE_SPREAD))
    if unit.name in what.pieces:
        wide = 0.0 if unit.kind == "container" else _PIECE_SPREAD
        return Amount("mass", what.pieces[unit.name] * said.count * said.fill, max(said.spread, wide))
    if said.came_in in ("", "piece") and unit.kind == "hand" and (same := _same_piece(unit.name, what)):
        return Amount("mass", what.pieces[same] * said.count * said.fill, max(said.spread, _PIECE_SPREAD))
    if comes_in_small(what) and unit.name in ("bottle", "tin"):
        return Amount("volume", _SMALL_BOTTLE_ML * said.count * said.fill, max(said.spread, _SMALL_BOTTLE_SPREAD))
    if unit.name == "oz" and what.group in ("wine", "juice") and what.pours:
        # Twelve ounces of a drink are fluid ounces.
        return Amount("volume", said.count * said.fill * _FLUID_OUNCE, said.spread)
    if unit.dimension == "mass":
        return Amount("mass", said.value, said.spread)
    if what.pours and not (piece and unit.kind == "hand"):
        return Amount("volume", said.value, said.spread)
    if "tsp" in what.pieces and said.value <= 3.0 * ML_PER_TBSP:
        return Amount("mass", said.value / (ML_PER_TBSP / 3.0) * what.pieces["tsp"], max(said.spread, _LOOSE_SPREAD))
    if "cup" in what.pieces:
        return Amount("mass", said.value / ML_PER_CUP * what.pieces["cup"], max(said.spread, _LOOSE_SPREAD))
    raise QuantityError("amount", say("pantry.weighed_not_poured", name=what.name))


#: "Small onions, 6": how large a piece is, where it stands with the name.
_SIZES = re.compile(r"\b(small|little|large|big|medium)\b", re.I)


def _by_size(said: Said, words: str) -> Said:
    found = _SIZES.search(words)
    if found is None:
        return said
    factor, spread = fill_of(found.group(1))
    return replace(said, fill=said.fill * factor, spread=math.hypot(said.spread, spread))


_FLUID_OUNCE = ML_PER_TBSP * 2.0


def comes_in_small(what: Ingredient) -> bool:
    """Whether it comes in small bottles, as beer and cider do, unless the catalogue knows the size of its own."""
    return what.group == "wine" and 0.0 < what.abv < _SMALL_BOTTLE_BELOW_ABV and "bottle" not in what.pieces


def _same_piece(word: str, what: Ingredient) -> str | None:
    return next((one for one in _SAME_PIECE.get(word, ()) if one in what.pieces), None)


def of_a_kind(amount: Amount, what: Ingredient) -> Amount:
    """Cubes and powders are never poured. Raises QuantityError for one that is."""
    if (
        amount.dimension == "volume"
        and amount.value > _SPOONED_ML
        and what.group == "stock"
        and what.water < _DRY_WATER
    ):
        raise QuantityError("amount", say("intake.never_poured", name=what.name, volume=show_volume(amount.value)))
    if amount.dimension == "volume":
        _ = what.density_g_ml
    return amount


def after(amount: Amount, done: Done, what: Ingredient) -> tuple[Amount, float | None]:
    """Less what stayed in the bowl, and the share left where it was boiled down to an amount."""
    if isinstance(done.stayed, float):
        amount = replace(amount, value=amount.value * (1.0 - done.stayed), spread=max(amount.spread, _STAYED_SPREAD))
    elif done.stayed is not None:
        kept = grams_of(_resolved(done.stayed, what, ""), what)
        share = max(1.0 - kept / grams_of(amount, what), 0.0)
        amount = replace(amount, value=amount.value * share)
    left = done.left
    if done.left_of is not None:
        left = grams_of(_resolved(done.left_of, what, ""), what) / grams_of(amount, what)
        if not 0.0 < left <= 1.0:
            raise QuantityError("share", say("intake.more_than_went_in", amount=amount.shown))
    return amount, left
