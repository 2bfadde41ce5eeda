"""Finding ingredients, and keeping those of one's own."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from kitchens.services import member_of
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import Field
from shared.refusals import RefusedError
from shared.shapes import Shape
from spissus_core.messages import say
from spissus_core.pantry.ingredients import Ingredient, catalogue, search
from spissus_core.pantry.larder import OwnIngredient as OwnSpec

from .models import OwnIngredient
from .services import key_of, own_ingredients, row_of

router = Router(auth=SessionAuth(), tags=["larder"])

#: What is typed while an ingredient is sought; more of it than a name has is passed over.
Sought = Annotated[str, Field(max_length=2000)]

#: More ingredients of its own than any kitchen keeps.
MOST_OWN = 300


class IngredientOut(Shape):
    """An ingredient, and what 100 g of it bring, g; ``abv`` in % vol."""

    key: str
    name: str
    group: str
    own: bool
    salt: float
    sugar: float
    fat: float
    gelatin: float
    acid: float
    abv: float
    allergens: list[str]

    @classmethod
    def of(cls, item: Ingredient, *, own: bool) -> IngredientOut:
        return cls(
            key=item.key,
            name=item.name,
            group=item.group,
            own=own,
            salt=item.salt,
            sugar=item.sugar,
            fat=item.fat,
            gelatin=item.gelatin,
            acid=item.acid + item.acetic,
            abv=item.abv,
            allergens=list(item.allergens),
        )


class OwnOut(Shape):
    """An ingredient of the kitchen's own: as it was said, and what comes of it."""

    id: UUID
    spec: OwnSpec
    like: str
    ingredient: IngredientOut

    @classmethod
    def of(cls, row: OwnIngredient) -> OwnOut:
        spec = OwnSpec.model_validate(row.spec)
        item = spec.ingredient(key_of(row))
        return cls(id=row.id, spec=spec, like=catalogue()[spec.like].name, ingredient=IngredientOut.of(item, own=True))


@router.get("/ingredients", response=list[IngredientOut])
def ingredients(
    request: HttpRequest, q: Sought = "", limit: Annotated[int, Field(ge=1, le=30)] = 8
) -> list[IngredientOut]:
    """Ingredients by name, best first."""
    own = own_ingredients(member_of(request).kitchen.pk)
    mine = {item.key for item in own}
    found = search(q[:60], own, limit=limit)
    return [IngredientOut.of(f.ingredient, own=f.ingredient.key in mine) for f in found]


@router.get("/larder", response=list[OwnOut])
def larder(request: HttpRequest) -> list[OwnOut]:
    """The kitchen's own ingredients."""
    rows = OwnIngredient.objects.filter(kitchen=member_of(request).kitchen, retired=False)
    return [OwnOut.of(row) for row in rows]


@router.post("/larder", response=OwnOut)
def add(request: HttpRequest, data: OwnSpec) -> OwnOut:
    """Add an ingredient of one's own."""
    member = member_of(request)
    member.require_cook()
    if OwnIngredient.objects.filter(kitchen=member.kitchen, retired=False).count() >= MOST_OWN:
        raise RefusedError(422, say("kitchen.ingredients_enough"))
    return OwnOut.of(OwnIngredient.objects.create(kitchen=member.kitchen, spec=data.model_dump(mode="json")))


@router.put("/larder/{own_id}", response=OwnOut)
def change(request: HttpRequest, own_id: UUID, data: OwnSpec) -> OwnOut:
    """Change it; batches keep what went into them."""
    row = row_of(member_of(request), OwnIngredient, own_id)
    row.spec = data.model_dump(mode="json")
    row.save(update_fields=["spec"])
    return OwnOut.of(row)


@router.delete("/larder/{own_id}", response={204: None})
def remove(request: HttpRequest, own_id: UUID) -> Status[None]:
    """Take it away."""
    row = row_of(member_of(request), OwnIngredient, own_id)
    row.put_away()
    return Status(204, None)
