"""What other apps may ask of a kitchen's larder."""

from __future__ import annotations

from uuid import UUID

from spissus_core.pantry.ingredients import Ingredient
from spissus_core.pantry.larder import OwnIngredient as OwnSpec

from .models import OwnIngredient


def key_of(row: OwnIngredient) -> str:
    """The key an ingredient of the kitchen's own goes by, unless it stands in for one of the catalogue."""
    return f"own-{row.id}"


def own_ingredients(kitchen_id: UUID) -> tuple[Ingredient, ...]:
    """The kitchen's own ingredients as the catalogue would hold them, the oldest first."""
    rows = OwnIngredient.objects.filter(kitchen_id=kitchen_id, retired=False)
    return tuple(OwnSpec.model_validate(row.spec).ingredient(key_of(row)) for row in rows)
