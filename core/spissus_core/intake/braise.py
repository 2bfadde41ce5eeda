"""What went into a braise, line by line, and how it was cooked and strained."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ..amounts.fields import Celsius, Hours, MassG, Remark, VolumeMl
from ..amounts.quantities import show_mass, show_volume
from ..amounts.tables import one_of
from ..messages import Shown
from ..pantry.ingredients import Ingredient, ingredient, kept_whole
from ..phenomena.evaporation import Cover
from .doings import Use
from .lines import MOST_LINES, ReadLine


class _Said(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Line(_Said):
    """Something that went in: an ingredient of the catalogue or of the kitchen's own, and how much.

    ``spread`` is how far the amount may be off, as a share. ``left`` is the share of it left where it
    was boiled down first; ``poured_off`` the share of a frying fat that was thrown away. A line that
    was left out, or names nothing known, is kept for what it says and counts nothing.
    """

    text: Remark
    ingredient: Annotated[str, Field(max_length=60)] | None = None
    own: Ingredient | None = None
    mass_g: MassG | None = None
    volume_ml: VolumeMl | None = None
    spread: Annotated[float, Field(ge=0, le=1)] = 0.0
    use: Use = "in"
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    poured_off: Annotated[float, Field(ge=0, le=1)] = 0.0

    @model_validator(mode="after")
    def _can_be_weighed(self) -> Line:
        if self.counts:
            _ = self.what, self.grams
        return self

    @property
    def counts(self) -> bool:
        """Whether it says both what and how much."""
        known = self.own is not None or self.ingredient is not None
        return known and self.use != "left_out" and (self.mass_g is not None or self.volume_ml is not None)

    @property
    def what(self) -> Ingredient:
        """The ingredient. Raises QuantityError where the catalogue has none of that key."""
        return self.own or ingredient(self.ingredient or "")

    @property
    def grams(self) -> float:
        """Its weight, g. Raises QuantityError for a volume of what is only weighed."""
        if self.mass_g is not None:
            return self.mass_g
        return (self.volume_ml or 0.0) * self.what.density_g_ml

    def written_out(self, own: Sequence[Ingredient]) -> Line:
        """With its ingredient whole, the kitchen's own before the catalogue's."""
        if self.ingredient is None:
            return self
        return self.model_copy(update={"own": kept_whole(self.ingredient, own) or self.own})

    @property
    def shown(self) -> Shown:
        """The amount as a cook reads it."""
        return show_mass(self.mass_g) if self.mass_g is not None else show_volume(self.volume_ml or 0.0)


#: More of a line than this is not kept, characters.
LONGEST_KEPT = 2000


def line_of(read: ReadLine, own: Sequence[Ingredient] = ()) -> Line:
    """A line as it is kept, from how it was read; an ingredient of the kitchen's own is kept whole."""
    amount = read.amount
    return Line(
        text=read.text.strip()[:LONGEST_KEPT] or read.name or "…",
        own=read.ingredient if read.ingredient in own else None,
        ingredient=None if read.ingredient is None else read.ingredient.key,
        mass_g=amount.value if amount and amount.dimension == "mass" else None,
        volume_ml=amount.value if amount and amount.dimension == "volume" else None,
        spread=min(amount.spread, 1.0) if amount else 0.0,
        use=read.use,
        left=read.left,
        poured_off=read.poured_off,
    )


Level = Literal["submerged", "nearly", "half_way"]

#: A way to strain, by its key: rows of ``data/sieves.csv``.
Strain = Annotated[str, *one_of("sieves")]


class Braise(_Said):
    """What went into a braise, and how it was cooked and strained."""

    lines: Annotated[tuple[Line, ...], Field(max_length=MOST_LINES)] = ()
    cover: Cover = "tight"
    heat: Literal["stove", "oven"] = "oven"
    oven_c: Celsius = 150.0
    hours: Hours = 3.0
    level: Level = "nearly"
    pieces: Literal["large", "small"] = "large"
    overnight: bool = False
    trimmed: bool = False
    strain: Strain = "fine"

    def written_out(self, own: Sequence[Ingredient]) -> Braise:
        """With every ingredient whole, so that later changes to it leave the batch alone."""
        return self.model_copy(update={"lines": tuple(line.written_out(own) for line in self.lines)})

    @property
    def counted(self) -> tuple[Line, ...]:
        """The lines that say what and how much."""
        return tuple(line for line in self.lines if line.counts)
