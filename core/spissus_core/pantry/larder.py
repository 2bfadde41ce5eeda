"""Ingredients of a kitchen's own: something known, with what its label or its cook says changed."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator

from ..amounts.fields import MassG, Name, PerHundredG, Strength
from ..amounts.quantities import parse_mass_or_volume
from ..errors import QuantityError
from ..messages import say
from ..phenomena.seasoning import SALT_PER_SODIUM
from .concentrates import salt_from_label_salt, salt_from_sodium_percent
from .ingredients import Ingredient, ingredient


class Label(BaseModel):
    """What a label declares in one serving: sodium in mg or g, or a European label's salt."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    sodium_g: MassG | None = None
    salt_g: MassG | None = None
    serving: Annotated[str, Field(max_length=60)] = "100 g"

    @model_validator(mode="after")
    def _one_of_them(self) -> Label:
        if (self.sodium_g is None) == (self.salt_g is None):
            raise QuantityError("sodium_g", say("pantry.sodium_or_salt"))
        parse_mass_or_volume(self.serving, field="serving")
        return self

    def salt_percent(self, like: Ingredient) -> float:
        """Salt, % by weight; a serving by volume is weighed by the density of ``like``.

        Raises
        ------
        QuantityError : no serving, or more than salt itself holds.
        """
        dimension, amount = parse_mass_or_volume(self.serving, field="serving")
        serving_g = amount if dimension == "mass" else amount * like.density_g_ml
        if self.sodium_g is not None:
            return salt_from_sodium_percent(self.sodium_g * 1000.0, serving_g)
        sodium_mg = salt_from_label_salt(self.salt_g or 0.0) / SALT_PER_SODIUM * 1000.0
        return salt_from_sodium_percent(sodium_mg, serving_g)


class OwnIngredient(BaseModel):
    """An ingredient of a kitchen's own.

    It is ``like`` one of the catalogue but for what is given here: the salt of its label, its strength
    in % vol, and sugar, fat and gelatin in g per 100 g. ``instead`` puts it in that one's place.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Name
    like: Annotated[str, Field(max_length=60)]
    instead: bool = False
    label: Label | None = None
    abv: Strength | None = None
    sugar: PerHundredG | None = None
    fat: PerHundredG | None = None
    gelatin: PerHundredG | None = None

    @field_validator("like")
    @classmethod
    def _is_known(cls, key: str) -> str:
        ingredient(key)
        return key

    @model_validator(mode="after")
    def _adds_up(self) -> OwnIngredient:
        self.ingredient("own")
        return self

    def ingredient(self, key: str) -> Ingredient:
        """As the catalogue would hold it, under ``key`` or, ``instead``, under the one it stands in for.

        Raises
        ------
        QuantityError : its parts come to more than 100 g in 100 g.
        """
        base = ingredient(self.like)
        given = {n: v for n in ("abv", "sugar", "fat", "gelatin") if (v := getattr(self, n)) is not None}
        if self.label is not None:
            given["sodium_mg"] = self.label.salt_percent(base) / SALT_PER_SODIUM * 1000.0
        names = {"key": base.key if self.instead else key, "name": self.name, "usda_row": ""}
        # In its place it is meant by all the names of the other; beside it, only by its own.
        synonyms = (*base.synonyms, base.name) if self.instead else ()
        source = {"source": f"the kitchen’s own, after “{base.name}”", "synonyms": synonyms}
        return Ingredient.model_validate(base.model_dump() | given | names | source)
