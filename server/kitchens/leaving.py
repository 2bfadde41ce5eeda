"""What of a kitchen's own tables leaves with it."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import Field
from shared.leaving import LEAVES, STAYS, Leaves, Row
from spissus_core.amounts.fields import Name
from spissus_core.measuring.vessels import Pan as PanSpec
from spissus_core.phenomena.heating import Burner as BurnerSpec
from spissus_core.phenomena.heating import HeatKind

from .models import Burner, Deed, Invitation, LearnedRate, Membership, Pan, TaughtLiking, TaughtStrength

#: Where a row stands among its like.
Position = Annotated[int, Field(ge=0, le=32_767)]


class PanRow(Row):
    """A pan: its measures in mm and its weight in g."""

    id: UUID
    spec: PanSpec
    position: Position
    retired: bool


class BurnerRow(Row):
    """A burner: the power that goes into what stands on it, kW."""

    id: UUID
    spec: BurnerSpec
    position: Position
    retired: bool


class RateRow(Row):
    """What a batch taught of a pan on a burner: net power, kW, and its log standard deviation."""

    batch: UUID
    pan: Name
    burner: Name
    heat: HeatKind
    net_kw: Annotated[float, Field(gt=0, le=40)]
    spread: Annotated[float, Field(gt=0, le=1)]
    at: datetime


class LikingRow(Row):
    """What a batch taught of what is liked: % of salt, steps of body or a natural logarithm, and its standard error."""

    batch: UUID
    of: Annotated[str, Field(max_length=6)]
    value: Annotated[float, Field(ge=-100, le=100)]
    error: Annotated[float, Field(gt=0, le=100)]
    at: datetime


class StrengthRow(Row):
    """What a batch taught of a dry thickener: the logarithm of how many times as strongly it binds, and its error."""

    batch: UUID
    dry: Name
    log_times: Annotated[float, Field(ge=-3, le=3)]
    error: Annotated[float, Field(gt=0, le=5)]
    at: datetime


LEAVES["pans"] = Leaves(model=Pan, shape=PanRow, order=("position",))
LEAVES["burners"] = Leaves(model=Burner, shape=BurnerRow, order=("position",))
LEAVES["rates"] = Leaves(model=LearnedRate, shape=RateRow, key=("batch",))
LEAVES["likings"] = Leaves(model=TaughtLiking, shape=LikingRow, key=("batch", "of"))
LEAVES["strengths"] = Leaves(model=TaughtStrength, shape=StrengthRow, key=("batch",))
STAYS[Invitation] = "Whom it invites is for the place where it is."
STAYS[Deed] = "Who did what to its people, pans and devices is told of the people of the place where it was done."
STAYS[Membership] = "Who works in a kitchen, and may, is for the place where it is."
