"""What other apps may ask of a kitchen's larder."""

from __future__ import annotations

from typing import TypeVar
from uuid import UUID

from django.http import Http404
from kitchens.services import Member
from spissus_core.amounts.fields import SHELF
from spissus_core.errors import QuantityError
from spissus_core.intake.mixture import Mixture as MixtureSpec
from spissus_core.messages import say
from spissus_core.pantry.ingredients import Ingredient
from spissus_core.pantry.larder import OwnIngredient as OwnSpec
from spissus_core.pantry.schools import OWN_PREFIX, School, school

from .models import Kept, Mixture, OwnIngredient

Own = TypeVar("Own", bound=Kept)


def key_of(row: OwnIngredient | Mixture) -> str:
    """The key that something of the kitchen's own goes by; an ingredient that stands in for another goes by that's."""
    return f"{OWN_PREFIX}{row.id}"


def row_of(member: Member, of: type[Own], pk: UUID) -> Own:
    """Something of the kitchen's own, for whoever may change it.

    Raises
    ------
    RefusedError : the member may only look.
    Http404 : it was put away, or is another kitchen's.
    """
    member.require_cook()
    row = of._default_manager.filter(kitchen=member.kitchen, pk=pk, retired=False).first()
    if row is None:
        raise Http404
    return row


def own_ingredients(kitchen_id: UUID) -> tuple[Ingredient, ...]:
    """The kitchen's own ingredients as the catalogue would hold them, the oldest first."""
    rows = OwnIngredient.objects.filter(kitchen_id=kitchen_id, retired=False)
    return tuple(OwnSpec.model_validate(row.spec).ingredient(key_of(row)) for row in rows)


def spec_of(row: Mixture) -> MixtureSpec:
    """A mixture as it was said, by the rules for what was once taken."""
    return MixtureSpec.model_validate(row.spec, context=dict(SHELF))


def mixtures(kitchen_id: UUID) -> tuple[School, ...]:
    """The thickeners that the kitchen mixes itself, the oldest first."""
    rows = Mixture.objects.filter(kitchen_id=kitchen_id, retired=False)
    return tuple(spec_of(row).school(key_of(row)) for row in rows)


def school_of(kitchen_id: UUID, key: str) -> School:
    """A school, or a mixture of the kitchen's own; one that was put away is known for what it was.

    Raises
    ------
    QuantityError : there is none of that key.
    """
    if not key.startswith(OWN_PREFIX):
        return school(key)
    try:
        row = Mixture.objects.filter(kitchen_id=kitchen_id, pk=UUID(key.removeprefix(OWN_PREFIX))).first()
    except ValueError:
        row = None
    if row is None:
        raise QuantityError("thickener", say("mixtures.no_such"))
    return spec_of(row).school(key)
