"""Schools of thickening: what each whisks in, how strong it is, and how to handle it. Rows of ``data/schools.csv``."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cached_property, lru_cache
from typing import Annotated, Literal, Self, get_args

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationInfo, WithJsonSchema, model_validator

from ..amounts.fields import on_the_shelf
from ..amounts.quantities import ML_PER_TBSP
from ..amounts.rows import Row
from ..amounts.tables import one_of, table
from ..errors import QuantityError
from ..ledger.contents import Contents
from ..messages import Argument, Term, say
from ..phenomena.body import STARCHES
from ..phenomena.seasoning import TAUGHT_BY
from .ingredients import Ingredient

_Word = Annotated[str, Field(max_length=60)]
_Share = Annotated[float, Field(ge=0, le=20)]
_Minutes = Annotated[float, Field(ge=0, le=600)]

#: Nothing binds more strongly, against plain flour by mass. Modelling choice.
MOST_STRENGTH = 20.0

#: Terms of the ledger, besides the plants of :data:`.body.STARCHES`, that a school may fill.
_MASSES = ("gum", "gelatin", "pulp")

#: What a thickener may hold besides, or bring with the liquid that it is stirred into.
_Mass = Literal[
    "water", "ethanol", "salt", "sugar", "acid", "acetic", "fat_emulsified", "gelatin", "pulp", "other", "gum", "bitter"
]

#: The starch of another plant, which a mixture may hold, too.
_Plant = Literal["wheat", "corn", "waxy_corn", "potato", "arrowroot", "tapioca", "rice", "meal"]


class School(BaseModel):
    """A way to bind.

    One gram of the thickener, dry or as it is milled, fills ``term`` of the ledger: a starch by plant, a gum, gelatin
    or pulp. Of starch ``strength`` is told against plain flour by mass, of the others it is the share that they are of
    it; it ``holds`` so many grams of other things, and what is left of the gram stays in the pot as other solubles.
    With it come ``fat_g`` g of fat, ``salt_g`` g of salt, ``second_g`` g of a ``second`` thickener, and ``water_parts``
    parts of cold water to one of it by volume; or it is stirred into ``own_parts`` parts of the sauce itself, which
    brings nothing, or into ``other_parts`` of another liquid, which stands in what it holds. What was ``braised`` in
    the pot took up that share of its salt. What a kitchen mixes itself is ``like`` one of the rows by how it looks and
    lasts; it is as strong as its parts are, ``by_parts``, and what it holds is all that there is in it.
    ``tbsp_g`` is one level US tablespoon of it, g, ``leaf_g`` a leaf of what comes in leaves, and ``spread`` the share
    by which its strength varies.
    It takes ``make_min`` to make and ``boil_min`` of boiling, and wants ``wait_low_min`` to ``wait_high_min`` minutes
    before it is judged. What binds with it holds for as long as it is kept hot, or is ready sooner: its ``sort``. Of
    those that are ``offered`` ways are made, called by its ``words``.
    """

    model_config = ConfigDict(frozen=True, extra="forbid", ignored_types=(cached_property,))

    key: _Word
    label: _Word
    words: _Word = ""
    sort: Literal["lasting", "quick"] = "quick"
    offered: bool = False
    dry: _Word
    term: _Word
    strength: Annotated[float, Field(gt=0, le=MOST_STRENGTH)] = 1.0
    fat_g: _Share = 0.0
    water_parts: _Share = 0.0
    own_parts: _Share = 0.0
    other_parts: _Share = 0.0
    salt_g: _Share = 0.0
    holds: Annotated[tuple[tuple[_Mass | _Plant, _Share], ...], Field(max_length=20)] = ()
    second: Literal["", "gum", "gelatin"] = ""
    second_g: _Share = 0.0
    braised: Annotated[float, Field(ge=0, le=1)] = 0.0
    leaf_g: Annotated[float, Field(ge=0, le=20)] = 0.0
    carrier: _Word = ""
    tbsp_g: Annotated[float, Field(gt=0, le=100)]
    spread: Annotated[float, Field(ge=0, lt=1)] = 0.25
    wait_low_min: _Minutes = 0.0
    wait_high_min: _Minutes = 0.0
    make_min: _Minutes = 0.0
    boil_min: _Minutes = 0.0
    allergens: Annotated[tuple[_Word, ...], Field(max_length=16)] = ()
    how: Annotated[str, Field(max_length=500)] = ""
    source: Annotated[str, Field(max_length=500)] = ""
    like: _Word = ""
    by_parts: Annotated[float, Field(ge=0, le=MOST_STRENGTH)] = 0.0

    @model_validator(mode="after")
    def _term_is_known(self) -> Self:
        if self.term not in STARCHES and self.term not in _MASSES:
            raise QuantityError("term", say("pantry.no_such_term", term=self.term))
        return self

    @property
    def called(self) -> Argument:
        """What it is called: in a word of the trade, or by the name that a kitchen gave it."""
        return self.label if self.like else Term(self.label)

    @property
    def weighed(self) -> Argument:
        """What of it is weighed, in the same way."""
        return self.dry if self.like else Term(self.dry)

    @property
    def row(self) -> str:
        """The key of the row that tells how it looks, lasts and is handled."""
        return self.like or self.key

    @property
    def is_pair(self) -> bool:
        """Whether a second thing in it binds by other laws."""
        return bool(self.second) or any(name in ("gum", "gelatin") and grams > 0.0 for name, grams in self.holds)

    @property
    def water_g(self) -> float:
        """Water that goes in with a gram, cold or held, g."""
        return self.per_gram.water

    @property
    def liquid_ml(self) -> float:
        """Liquid that a gram is stirred into, water or the sauce's own, mL."""
        return (self.water_parts + self.own_parts + self.other_parts) * ML_PER_TBSP / self.tbsp_g

    @property
    def work_min(self) -> float:
        """What making it and cooking it takes, min."""
        return self.make_min + self.boil_min

    @cached_property
    def per_gram(self) -> Contents:
        """What one gram of thickener with its carrier brings into the pot."""
        water_g = self.water_parts * ML_PER_TBSP / self.tbsp_g
        carried = Contents(water=water_g, fat_emulsified=self.fat_g, salt=self.salt_g)
        starch: dict[str, float] = {name: grams for name, grams in self.holds if name in STARCHES}
        masses = {name: grams for name, grams in self.holds if name not in STARCHES}
        carried = carried + Contents().with_masses(**masses) + Contents(starch=starch)
        if self.second:
            carried = carried + Contents().with_masses(**{self.second: self.second_g})
        if self.like:
            own = {self.term: self.strength}
            binds = Contents().with_masses(**own) if self.term in _MASSES else Contents(starch={self.term: self._share})
            return carried + binds
        # What comes with the liquid of a slurry is no part of the gram.
        held = 0.0 if self.other_parts else sum(grams for _, grams in self.holds)
        if self.term in _MASSES:
            return carried + Contents(other=max(1.0 - self.strength - held, 0.0)).with_masses(
                **{self.term: self.strength}
            )
        rest = max(1.0 - self._share - held, 0.0)
        return carried + Contents(other=rest, starch={self.term: self._share})

    @property
    def _share(self) -> float:
        """Starch of its plant in a gram: what binds better than that is told as more of it."""
        return self.strength / STARCHES[self.term]

    def added(self, dry_g: float) -> Contents:
        """What ``dry_g`` g of thickener with its carrier bring into the pot."""
        return self.per_gram.scaled(dry_g)

    def dry_in(self, volume_ml: float) -> float:
        """The dry thickener, g, that comes to so much in the pot with its carrier, mL."""
        return volume_ml / self.per_gram.volume_ml

    def spoon_ml(self, dry_g: float) -> float:
        """The dry thickener as a level volume, mL."""
        return dry_g / self.tbsp_g * ML_PER_TBSP

    def __hash__(self) -> int:
        return hash((self.key, self.term, self.strength, self.salt_g, self.other_parts))

    @property
    def is_slurry(self) -> bool:
        """Whether it is stirred into something cold, of which there is a choice."""
        return self.term in STARCHES and not self.fat_g and self.liquid_ml > 0.0

    def stirred_into(self, liquid: Ingredient | None) -> School:
        """The same, stirred into another liquid than that of its row, as much of it; None for that of its row."""
        if liquid is None or not self.is_slurry:
            return self
        parts, ml = self.water_parts + self.own_parts + self.other_parts, self.liquid_ml
        brings = liquid.portion(ml * liquid.density_g_ml)
        # What is told of a row's gram is its own; a mixture keeps what it holds.
        held = Contents().with_masses(**{name: grams for name, grams in self.holds if name not in STARCHES})
        with_it = (held + brings) if self.like else brings
        holds = tuple((name, getattr(with_it, name)) for name in get_args(_Mass) if getattr(with_it, name) > 0.0)
        holds += tuple(one for one in self.holds if one[0] in STARCHES)
        told = {
            "water_parts": 0.0,
            "own_parts": 0.0,
            "other_parts": parts,
            "holds": holds,
            "carrier": liquid.name,
            "label": self.label if self.like else f"{self.dry} slurry",
            "how": "",
            "allergens": tuple(sorted({*self.allergens, *liquid.allergens})),
        }
        return School.model_validate(self.model_dump() | told)

    def braised_in(self, brine: float) -> School:
        """The same with the salt of the pot that it was braised in, ``brine`` g of salt in a gram of its water."""
        return self if not self.braised else _salted(self, self.braised * brine * dict(self.holds).get("water", 0.0))

    def binding(self, times: float) -> School:
        """The same where it binds so many times as strongly as its row says; what is no starch stays as it is."""
        return self if times == 1.0 or self.term in _MASSES else _binding(self, times)

    @property
    def row_strength(self) -> float:
        """How strong its row, or its parts, say it is; as strong as it is, where there is no such row any more."""
        return SCHOOLS[self.key].strength if self.key in SCHOOLS else self.by_parts or self.strength


# Made anew, since what it brings is worked out once for each; and but once, since every way asks for it.
@lru_cache(maxsize=256)
def _binding(school: School, times: float) -> School:
    more = tuple((name, grams * times if name in STARCHES else grams) for name, grams in school.holds)
    told = {"strength": min(school.strength * times, MOST_STRENGTH), "holds": more}
    return School(**school.model_dump() | told)


@lru_cache(maxsize=256)
def _salted(school: School, salt_g: float) -> School:
    return School(**school.model_dump() | {"salt_g": salt_g})


class LearnedStrength(BaseModel):
    """How many ``times`` as strongly as its rows say a dry thickener binds in a kitchen, the log standard deviation of
    that, and how many batches taught it."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    times: float = Field(gt=0, le=20)
    spread: float = Field(ge=0, le=5)
    batches: int = Field(ge=0)

    @property
    def counts(self) -> bool:
        """Whether batches enough have taught it to go by it."""
        return self.batches >= TAUGHT_BY


def school_of(row: Row) -> School:
    """A row of the list as a school."""
    told: dict[str, object] = {key: text for key, text in row.items() if text}
    told["allergens"] = tuple(row.get("allergens", "").split())
    told["holds"] = tuple(tuple(one.split()) for one in row.get("holds", "").split(";") if one)
    return School.model_validate(told)


#: Spoon weights are the catalogue's (USDA household weights).
SCHOOLS: Mapping[str, School] = table("schools", school_of)

#: The school that is made of what was skimmed.
OF_ITS_OWN_FAT = "own_fat_roux"

#: What a slurry may be stirred into besides what its row says, by the ingredient that it is: rows of
#: ``data/slurries.csv``.
SLURRY_LIQUIDS: Mapping[str, Row] = table("slurries", lambda row: row)

#: The key of such a liquid.
SlurryLiquid = Annotated[str, *one_of("slurries", outlives=True)]

#: What the keys of a kitchen's own mixtures begin with, and the place of such a one among the ways.
OWN_PREFIX, OWN_PLACE = "own-", "own"

#: How many characters such a key may have.
_LONGEST_KEY = 60


def _known(key: str, info: ValidationInfo) -> str:
    own = key.startswith(OWN_PREFIX) and len(key) <= _LONGEST_KEY
    if key not in SCHOOLS and not own and not on_the_shelf(info):
        raise QuantityError("key", say("pantry.no_thickener", key=key))
    return key


#: The key of a school, or of a mixture of a kitchen's own. One that has gone is kept for what is told beside it.
SchoolKey = Annotated[
    str,
    AfterValidator(_known),
    WithJsonSchema(
        {
            "anyOf": [
                {"type": "string", "enum": list(SCHOOLS)},
                {"type": "string", "pattern": f"^{OWN_PREFIX}.+", "maxLength": _LONGEST_KEY},
            ]
        }
    ),
]

#: What stands among the ways for a mixture of a kitchen's own until it is known which; alone it binds as flour does.
OWN_SCHOOL = School(key=OWN_PLACE, label="", dry="", term="wheat", tbsp_g=8.0, like="instant_flour")


def school(key: str) -> School:
    """The school of that key.

    Raises
    ------
    QuantityError : there is none.
    """
    found = SCHOOLS.get(key)
    if found is None:
        raise QuantityError("thickener", say("pantry.no_thickener", key=key))
    return found
