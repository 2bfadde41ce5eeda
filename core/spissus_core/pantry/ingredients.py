"""The catalogue: what an ingredient brings into the pot, and how it is found by name."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property, lru_cache
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator
from rapidfuzz import fuzz, process

from ..amounts.fields import Celsius, MassG, Name, PerHundredG, Remark, Strength
from ..amounts.quantities import parse, show_number
from ..amounts.rows import Row, rows
from ..amounts.tables import one_of
from ..errors import QuantityError
from ..ledger.contents import Contents
from ..messages import say
from ..phenomena.alcohol import ETHANOL_G_ML
from ..phenomena.body import STARCHES
from ..phenomena.seasoning import SALT_PER_SODIUM
from .guests import ALCOHOL, AVOIDED_WORDS

Group = Literal[
    "stock",
    "wine",
    "tomato",
    "juice",
    "acid",
    "condiment",
    "salt",
    "sugar",
    "dairy",
    "fat",
    "starch",
    "spice",
    "meat",
    "cured",
    "vegetable",
    "fruit",
    "pulse",
]
#: Another name, or several: "(beef|veal) bones".
Synonym = Annotated[str, Field(min_length=1, max_length=120)]
#: What meat is, by its key: rows of ``data/cuts.csv``.
Cut = Annotated[str, *one_of("cuts")]

#: Groups that stay behind in the sieve and only share what they hold with the liquid.
SOLIDS = frozenset({"meat", "cured", "vegetable", "fruit", "pulse"})

#: The fourteen allergens that labels must name (Regulation (EU) No 1169/2011, Annex II).
ALLERGENS = tuple(key for key in AVOIDED_WORDS if key != ALCOHOL)


#: Parts that add up to more than this in 100 g were mistyped; a little is rounding. Modelling choice.
MOST_IN_A_HUNDRED_G = 100.5


class Ingredient(BaseModel):
    """One row of ``data/ingredients.csv``, or an ingredient of a kitchen's own.

    Composition in g per 100 g, the rest being water; acids as tartaric, ``acetic`` the volatile part;
    ``abv`` in % vol; ``sodium_mg`` per 100 g; ``bitter_mg`` the bitter acids of hops per 100 g, a tenth of
    the units that a brewer states (mg/L; from memory). One ``household`` measure weighs ``household_g`` g; what
    has none is weighed or counted. ``pieces`` gives the weight of one clove, tin or whole thing, g.
    What is ``whole`` is a thickener itself: it is counted whole, by weight, as starch of its ``plant``; of the rest
    ``starch`` is what it holds. ``cut`` says what meat gives to the liquid (:data:`.balance.CUTS`),
    ``lifts_below_c`` when its fat has set, °C. ``usda_row`` is the row of USDA SR Legacy that sodium, fat and
    sugars come from, ``source`` where the rest does.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", ignored_types=(cached_property,))

    key: Annotated[str, Field(max_length=60)]
    name: Name
    group: Group
    synonyms: Annotated[tuple[Synonym, ...], Field(max_length=40)] = ()
    household: Literal["", "cup", "fl oz", "tbsp", "tsp"] = ""
    household_g: MassG = 0.0
    pieces: Annotated[Mapping[Annotated[str, Field(max_length=30)], MassG], Field(max_length=20)] = Field(
        default_factory=dict
    )
    cut: Cut = ""
    lifts_below_c: Celsius | None = None
    abv: Strength = 0.0
    sodium_mg: Annotated[float, Field(ge=0, le=39_400)] = 0.0
    sugar: PerHundredG = 0.0
    acid: PerHundredG = 0.0
    acetic: PerHundredG = 0.0
    fat: PerHundredG = 0.0
    gelatin: PerHundredG = 0.0
    gum: PerHundredG = 0.0
    pulp: PerHundredG = 0.0
    starch: PerHundredG = 0.0
    plant: Annotated[str, Field(max_length=30)] = "meal"
    whole: bool = False
    other: PerHundredG = 0.0
    bitter_mg: Annotated[float, Field(ge=0, le=100)] = 0.0
    allergens: Annotated[tuple[Annotated[str, Field(max_length=30)], ...], Field(max_length=14)] = ()
    usda_row: Annotated[str, Field(max_length=200)] = ""
    source: Remark = "the kitchen's own"

    @model_validator(mode="after")
    def _fits_in_a_hundred(self) -> Ingredient:
        if self._dissolved > MOST_IN_A_HUNDRED_G:
            raise QuantityError("other", say("pantry.adds_up", sum=show_number(self._dissolved, 0, "g")))
        if self.plant not in STARCHES:
            raise QuantityError("plant", say("pantry.no_starch", plant=self.plant))
        unknown = set(self.allergens) - set(ALLERGENS)
        if unknown:
            raise QuantityError("allergens", say("pantry.no_allergen", text=", ".join(sorted(unknown))))
        return self

    @property
    def pours(self) -> bool:
        """Whether it can be measured by volume."""
        return bool(self.household and self.household_g)

    @cached_property
    def density_g_ml(self) -> float:
        """Density as poured or spooned, g/mL, from the household measure.

        Raises
        ------
        QuantityError : it is weighed or counted, never poured.
        """
        if not self.pours:
            raise QuantityError("volume_ml", say("pantry.weighed_not_poured", name=self.name))
        return self.household_g / parse(f"1 {self.household}", "volume")

    @property
    def salt(self) -> float:
        """Sodium as salt, g per 100 g."""
        return self.sodium_mg * SALT_PER_SODIUM / 1000.0

    @property
    def ethanol(self) -> float:
        """Ethanol, g per 100 g, from the strength in % vol."""
        return self.abv * ETHANOL_G_ML / self.density_g_ml if self.abv else 0.0

    @property
    def _dissolved(self) -> float:
        known = self.ethanol + self.salt + self.sugar + self.acid + self.acetic + self.fat + self.gelatin
        return known + self.gum + self.pulp + self.starch + self.other

    @property
    def water(self) -> float:
        """Water, g per 100 g: what the other masses leave."""
        return max(100.0 - self._dissolved, 0.0)

    def __hash__(self) -> int:
        # The weights of its pieces stand in a mapping, which has no hash of its own.
        return hash((self.key, self.name, self.sodium_mg))

    def portion(self, mass_g: float) -> Contents:
        """What ``mass_g`` g of it bring into the pot.

        Fats and the fat of stock float, that of everything else stays emulsified.
        """
        return self._of_100_g.scaled(mass_g / 100.0)

    @cached_property
    def _of_100_g(self) -> Contents:
        if self.whole:
            return Contents(starch={self.plant: 100.0})
        masses = {
            "water": self.water,
            "ethanol": self.ethanol,
            "salt": self.salt,
            "sugar": self.sugar,
            "acid": self.acid,
            "acetic": self.acetic,
            "gelatin": self.gelatin,
            "gum": self.gum,
            "pulp": self.pulp,
            "other": self.other,
            "bitter": self.bitter_mg / 1000.0,
            "fat_free" if self.group in ("fat", "stock") else "fat_emulsified": self.fat,
        }
        starch = {self.plant: self.starch} if self.starch else {}
        return Contents(**masses, starch=starch)


@lru_cache(maxsize=1)
def catalogue() -> dict[str, Ingredient]:
    """Every ingredient by key, in the order of the file."""
    return {row["key"]: _from_row(row) for row in rows("ingredients")}


def _from_row(row: Row) -> Ingredient:
    given: dict[str, object] = {key: value for key, value in row.items() if value}
    given["synonyms"] = tuple(filter(None, row["synonyms"].split(";")))
    pieces = (piece.split("=") for piece in row["pieces"].split(";") if piece)
    given["pieces"] = {name: float(grams) for name, grams in pieces}
    given["allergens"] = tuple(row["allergens"].split())
    # Numbers stand bare in the file, each in the unit of its column.
    words = {
        "key",
        "name",
        "synonyms",
        "group",
        "household",
        "pieces",
        "cut",
        "plant",
        "whole",
        "allergens",
        "usda_row",
        "source",
    }
    return Ingredient.model_validate({k: v if k in words else float(str(v)) for k, v in given.items()})


def ingredient(key: str) -> Ingredient:
    """The ingredient of that key.

    Raises
    ------
    QuantityError : there is none.
    """
    found = catalogue().get(key)
    if found is None:
        raise QuantityError("ingredient", say("pantry.not_in_catalogue", key=key))
    return found


def kept_whole(key: str, own: Iterable[Ingredient]) -> Ingredient | None:
    """The ingredient that goes into an event: the kitchen's own before the catalogue's; None where there is none."""
    return next((item for item in own if item.key == key), None) or catalogue().get(key)


# -- finding ------------------------------------------------------------------------------------

#: A name this like what was written is taken for it; one less like is only proposed (0 to 100).
#: Modelling choices, set so that one slip of the finger in a word still finds it.
SURE, MAYBE = 78.0, 58.0

#: How many names are compared closely, and how alike they must be at all; what each letter not typed yet takes
#: from a name that begins as it was typed, and for how many letters. Modelling choices.
MOST_LOOKED_AT, ALIKE_AT_ALL = 60, 45
PER_UNTYPED, MOST_UNTYPED = 0.8, 25

#: Of a likeness, how much goes by whether all words are there, and by whether there are few others.
ALL_THERE, FEW_OTHERS = 0.7, 0.3


@dataclass(frozen=True, slots=True)
class Found:
    """An ingredient, and how well its name fits what was sought, 0 to 100."""

    ingredient: Ingredient
    score: float


@lru_cache(maxsize=16384)
def plain(text: str) -> str:
    """A name as it is compared: small letters, no accents, no punctuation, no plural s."""
    bare = "".join(c for c in unicodedata.normalize("NFD", text.lower()) if not unicodedata.combining(c))
    words = re.findall(r"[^\W_]+", bare)
    return " ".join(_singular(word) for word in words)


#: Plurals that no rule makes, and other words for the same.
_PLURALS = {
    "leaves": "leaf",
    "feet": "foot",
    "calves": "calf",
    "halves": "half",
    "loaves": "loaf",
    "geese": "goose",
    "chillies": "chilli",
    "chilies": "chilli",
    "tinned": "canned",
    "tin": "canned",
}


def _singular(word: str) -> str:
    if word in _PLURALS:
        return _PLURALS[word]
    if len(word) > 5 and word.endswith(("shes", "ches", "sses", "xes")):
        return word[:-2]
    if len(word) > 4 and word.endswith("oes"):
        return word[:-2]
    if len(word) > 4 and word.endswith("ies"):
        return word[:-3] + "y"
    return word[:-1] if len(word) > 3 and word.endswith("s") and not word.endswith("ss") else word


def _names(item: Ingredient) -> Iterator[tuple[str, str]]:
    """Everything an ingredient is called; "butter, unsalted" is butter too."""
    for name in dict.fromkeys((item.name, item.name.partition(",")[0], *names_of(item))):
        yield plain(name), item.key


_ONE_OF = re.compile(r"\(([^()]*)\)")


@lru_cache(maxsize=4096)
def _spelled_out(pattern: str) -> tuple[str, ...]:
    """ "unsalted (beef|veal) stock" as the two names that it is."""
    found = _ONE_OF.search(pattern)
    if found is None:
        return (" ".join(pattern.split()),)
    before, after = pattern[: found.start()], pattern[found.end() :]
    return tuple(name for one in found.group(1).split("|") for name in _spelled_out(before + one + after))


def names_of(item: Ingredient) -> Iterator[str]:
    """Its synonyms, those that stand for several spelled out."""
    for pattern in item.synonyms:
        yield from _spelled_out(pattern)


@lru_cache(maxsize=1)
def _phrases() -> tuple[tuple[str, str], ...]:
    return tuple(pair for item in catalogue().values() for pair in _names(item))


@lru_cache(maxsize=1)
def _places() -> dict[str, int]:
    """Among names that fit alike, the earlier row of the file is meant."""
    return {key: place for place, key in enumerate(catalogue())}


def search(text: str, own: Iterable[Ingredient] = (), limit: int = 8) -> list[Found]:
    """Ingredients by name or synonym, best first, with room for slips of the finger.

    Parameters
    ----------
    text : what was typed, or the part of a line that names the ingredient.
    own : a kitchen's own ingredients; one with the key of a catalogue row stands in its place.
    limit : how many at most.
    """
    sought = plain(text)
    if not sought:
        return []
    mine = {item.key: item for item in own}
    phrases = [(p, key) for p, key in _phrases() if key not in mine]
    phrases += [pair for item in mine.values() for pair in _names(item)]
    best: dict[str, float] = {}
    names = [phrase for phrase, _ in phrases]
    # Cheap sieve first: the finer scores are worked out for what is at all alike.
    for phrase, _, place in process.extract(
        sought, names, scorer=fuzz.token_set_ratio, limit=MOST_LOOKED_AT, score_cutoff=ALIKE_AT_ALL
    ):
        key = phrases[place][1]
        best[key] = max(best.get(key, 0.0), _likeness(sought, phrase))
    for phrase, key in phrases:
        if any(word.startswith(sought) for word in phrase.split()) or phrase.startswith(sought):
            best[key] = max(best.get(key, 0.0), 100.0 - min(len(phrase) - len(sought), MOST_UNTYPED) * PER_UNTYPED)
    # A kitchen's own comes first among equals.
    ranked = sorted(
        best.items(), key=lambda pair: (-pair[1], _places().get(pair[0], -1) if pair[0] not in mine else -1)
    )
    found = [Found(mine.get(key) or ingredient(key), score) for key, score in ranked if score >= MAYBE]
    return found[:limit]


def _likeness(sought: str, phrase: str) -> float:
    """How well a name fits: all its words should be there, and few others."""
    if sought == phrase:
        return 100.0
    return float(ALL_THERE * fuzz.token_set_ratio(sought, phrase) + FEW_OTHERS * fuzz.token_sort_ratio(sought, phrase))
