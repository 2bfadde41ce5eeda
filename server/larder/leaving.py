"""The ingredients and mixtures of a kitchen's own leave with it."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from shared.leaving import LEAVES, Leaves, Row
from spissus_core.intake.mixture import Mixture as MixtureSpec
from spissus_core.pantry.larder import OwnIngredient as OwnSpec

from .models import Mixture, OwnIngredient


class OwnRow(Row):
    """An ingredient of a kitchen's own: what it is like, and what is otherwise, in g per 100 g."""

    id: UUID
    spec: OwnSpec
    created_at: datetime
    retired: bool


LEAVES["larder"] = Leaves(model=OwnIngredient, shape=OwnRow)


class MixtureRow(Row):
    """A thickener that the kitchen mixes itself: its list, as written and as read, and how it goes in."""

    id: UUID
    spec: MixtureSpec
    created_at: datetime
    retired: bool


LEAVES["mixtures"] = Leaves(model=Mixture, shape=MixtureRow)
