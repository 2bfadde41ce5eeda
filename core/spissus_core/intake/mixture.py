"""A thickener that a kitchen mixes itself: read from a list of what is in it, and told as a school of its own."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Annotated, NamedTuple

from pydantic import BaseModel, ConfigDict, Field, ValidationInfo, model_validator

from ..amounts.fields import Name, Remark, on_the_shelf
from ..amounts.quantities import ML_PER_TBSP
from ..amounts.rows import Row
from ..amounts.tables import one_of, table
from ..errors import QuantityError
from ..ledger.contents import Contents
from ..messages import Message, say, several
from ..pantry.ingredients import Ingredient
from ..pantry.schools import SCHOOLS, School
from ..phenomena.body import STARCHES, flour_equivalent_g
from .braise import Line, line_of
from .lines import ReadLine, read_list


class Handling(NamedTuple):
    """How a mixture goes in: with so many parts of the sauce itself by volume, or with nothing; and what it takes."""

    label: str
    like: str
    own_parts: float
    carrier: str
    make_min: float
    wait_low_min: float
    wait_high_min: float
    boil_min: float
    flour_boil_min: float
    how: str


def _handling(row: Row) -> Handling:
    minutes = (float(row[f"{name}_min"]) for name in ("make", "wait_low", "wait_high", "boil", "wheat_boil"))
    make, low, high, boil, flour = minutes
    return Handling(
        row["label"], row["like"], float(row["own_parts"]), row["carrier"], make, low, high, boil, flour, row["how"]
    )


#: How a mixture may go in: rows of ``data/mixing.csv``.
HANDLINGS: Mapping[str, Handling] = table("mixing", _handling)

#: The key of such a row.
GoesIn = Annotated[str, *one_of("mixing", outlives=True)]

#: More lines than any mixture has. Numerical choice.
MOST_LINES = 40

#: Nothing that holds less than this share of what binds, as flour, is weighed as a thickener. Modelling choice.
LEAST_BINDING = 0.05

#: Fats, and what is boiled out of bones, that somebody who eats no meat does not have either.
_OF_MEAT = frozenset(
    {
        "backfat",
        "bacon_fat",
        "beef_fat",
        "chicken_fat",
        "duck_fat",
        "gelatin",
        "goose_fat",
        "lamb_fat",
        "lard",
        "suet",
    }
)

#: Which row tells how what is mostly of one kind looks and lasts: the first of it stirred in cold, or by itself.
_LIKE: Mapping[str, str] = {
    school.term: school.key
    for school in reversed(list(SCHOOLS.values()))
    if school.own_parts or school.term not in STARCHES
}


class Mixture(BaseModel):
    """A thickener of a kitchen's own: what is in it, by the ``lines`` of its list, and how it goes in."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Name
    text: Remark
    goes_in: GoesIn
    lines: Annotated[tuple[Line, ...], Field(min_length=1, max_length=MOST_LINES)]

    @model_validator(mode="after")
    def _binds(self, info: ValidationInfo) -> Mixture:
        # What was once kept stays readable, whatever is known by its name since.
        if not on_the_shelf(info) or (info.context or {}).get("brought"):
            self.check()
        return self

    def check(self) -> None:
        """Raises QuantityError where nothing in it binds, a line says no amount, or its name is known already."""
        # What was learned of a thickener goes by its name.
        if self.name.casefold() in _TAKEN:
            raise QuantityError("name", say("mixtures.name_taken", name=self.name))
        for line in self.lines:
            if not line.counts or line.grams <= 0.0:
                raise QuantityError("text", say("mixtures.how_much", line=line.text))
        self.school("")

    @property
    def handling(self) -> Handling:
        """How it goes in; by the first of the rows where its own has gone."""
        return HANDLINGS.get(self.goes_in) or next(iter(HANDLINGS.values()))

    @property
    def mass_g(self) -> float:
        """All of it, g."""
        return sum(line.grams for line in self.lines)

    def school(self, key: str) -> School:
        """As a school, under ``key``: a gram of it is a gram of all that is in it.

        Raises
        ------
        QuantityError : nothing in it binds.
        """
        holds = self._in_a_gram
        term, strength = _what_binds(holds)
        handling = self.handling
        flour = term in ("wheat", "meal")
        like = SCHOOLS[handling.like if flour else _LIKE[term]]
        boil_min = handling.flour_boil_min if flour else max(handling.boil_min, like.boil_min)
        meat = {"meat"} if any(_is_of_meat(line.what) for line in self.lines) else set()
        return School(
            key=key,
            label=self.name,
            sort="lasting" if self.goes_in == "roux" else "quick",
            dry=self.name,
            term=term,
            strength=strength,
            by_parts=strength,
            own_parts=handling.own_parts,
            salt_g=holds.salt,
            holds=tuple(_besides(holds, term)),
            carrier=handling.carrier,
            tbsp_g=self._tbsp_g(holds),
            spread=like.spread,
            wait_low_min=max(handling.wait_low_min, like.wait_low_min if not flour else 0.0),
            wait_high_min=max(handling.wait_high_min, like.wait_high_min if not flour else 0.0),
            make_min=handling.make_min,
            boil_min=boil_min,
            allergens=tuple(sorted({name for line in self.lines for name in line.what.allergens} | meat)),
            how=handling.how,
            source="the kitchen's own",
            like=like.key,
        )

    @property
    def _in_a_gram(self) -> Contents:
        """What is in a gram of it; its fat stays with the flour."""
        of_all = Contents()
        for line in self.lines:
            of_all = of_all + line.what.portion(line.grams)
        one = of_all.scaled(1.0 / self.mass_g)
        return one.with_masses(fat_free=0.0, fat_emulsified=one.fat_free + one.fat_emulsified)

    def _tbsp_g(self, holds: Contents) -> float:
        """A level spoon of it, g: of powders what each of them fills, of a paste what it weighs without air."""
        if self.handling.like in _PASTES:
            return holds.mass_g / holds.volume_ml * ML_PER_TBSP
        poured = [line for line in self.lines if line.what.pours]
        if not poured:
            return _USUAL_TBSP_G
        volume_ml = sum(line.grams / line.what.density_g_ml for line in poured)
        return sum(line.grams for line in poured) / volume_ml * ML_PER_TBSP


#: What thickeners of the trade are called.
_TAKEN = frozenset(name.casefold() for school in SCHOOLS.values() for name in (school.dry, school.label))

#: What is handled like one of these is a paste.
_PASTES = ("kneaded_butter", "white_roux")

#: A level spoon of what nobody has spooned, g: as corn starch. Modelling choice.
_USUAL_TBSP_G = 8.0


def _is_of_meat(what: Ingredient) -> bool:
    return what.group in ("meat", "cured") or what.key in _OF_MEAT


def _what_binds(holds: Contents) -> tuple[str, float]:
    """What most of the work is done by, and how strong a gram of it is: against flour, or as a share.

    Raises
    ------
    QuantityError : hardly anything in it binds.
    """
    if flour_equivalent_g(holds.starch) >= LEAST_BINDING:
        plant = max(holds.starch, key=lambda name: holds.starch[name] * STARCHES[name])
        return plant, holds.starch[plant] * STARCHES[plant]
    for mass in ("gum", "gelatin"):
        if getattr(holds, mass) >= LEAST_BINDING:
            return mass, getattr(holds, mass)
    raise QuantityError("text", say("mixtures.nothing_binds"))


def _besides(holds: Contents, term: str) -> list[tuple[str, float]]:
    """What is in a gram of it besides what binds and its salt."""
    masses = [(name, getattr(holds, name)) for name in _TOLD if name != term]
    starch = [(name, grams) for name, grams in holds.starch.items() if name != term]
    return [(name, grams) for name, grams in (*masses, *starch) if grams > 0.0]


#: The masses of the ledger that a school tells beside its own.
_TOLD = (
    "water",
    "ethanol",
    "sugar",
    "acid",
    "acetic",
    "fat_emulsified",
    "gelatin",
    "pulp",
    "other",
    "gum",
    "bitter",
)


#: So many things that a line may have meant are named. Numerical choice.
_NAMED = 3


def _not_understood(read: ReadLine) -> Message | None:
    """What is not clear about a line, and how to write it so that it is; None where all is."""
    line = read.text.strip()
    if read.ingredient is None and read.candidates:
        names = several("or", *(one.name for one in read.candidates[:_NAMED]))
        return say("mixtures.which", line=line, names=names)
    if read.problem is not None:
        return say("mixtures.in_line", line=line, problem=read.problem)
    return None if read.doubt is None else say("mixtures.doubted", line=line, doubt=read.doubt)


def read_mixture(name: str, text: str, goes_in: str, own: Sequence[Ingredient] = ()) -> Mixture:
    """A mixture from the list of what is in it, each line understood.

    Raises
    ------
    QuantityError : a line that is not understood, or whose amount is missing, in the field ``text``; or nothing binds.
    """
    found = read_list(text, own)
    if found.rest or len(found.lines) > MOST_LINES:
        raise QuantityError("text", say("mixtures.too_long"))
    lines = []
    for read in found.lines:
        wrong = _not_understood(read)
        if wrong is not None:
            raise QuantityError("text", wrong)
        lines.append(line_of(read, own).written_out(own))
    if not lines:
        raise QuantityError("text", say("mixtures.what_is_in_it"))
    # Its fields are judged by now; what is wrong with them together is said beside the list.
    mixture = Mixture.model_construct(name=name, text=text, goes_in=goes_in, lines=tuple(lines))
    mixture.check()
    return mixture
