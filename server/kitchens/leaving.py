"""What of a kitchen's own tables leaves with it."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from shared.leaving import LEAVES, STAYS, Leaves, Row
from spissus_core.amounts.fields import Name
from spissus_core.measuring.vessels import Pan as PanSpec
from spissus_core.phenomena.heating import Burner as BurnerSpec
from spissus_core.phenomena.heating import HeatKind

from .models import Burner, LearnedRate, Membership, Pan, TaughtLiking


class PanRow(Row):
    """A pan: its measures in mm and its weight in g."""

    id: UUID
    spec: PanSpec
    position: int
    retired: bool


class BurnerRow(Row):
    """A burner: the power that goes into what stands on it, kW."""

    id: UUID
    spec: BurnerSpec
    position: int
    retired: bool


class RateRow(Row):
    """What a batch taught of a pan on a burner: net power, kW, and its log standard deviation."""

    batch: UUID
    pan: Name
    burner: Name
    heat: HeatKind
    net_kw: float
    spread: float
    at: datetime


class LikingRow(Row):
    """What a batch taught of what is liked: % of salt, steps of body or a natural logarithm, and its standard error."""

    batch: UUID
    of: str
    value: float
    error: float
    at: datetime


LEAVES["pans"] = Leaves(model=Pan, shape=PanRow, order=("position",))
LEAVES["burners"] = Leaves(model=Burner, shape=BurnerRow, order=("position",))
LEAVES["rates"] = Leaves(model=LearnedRate, shape=RateRow, key=("batch",))
LEAVES["likings"] = Leaves(model=TaughtLiking, shape=LikingRow, key=("batch", "of"))
STAYS[Membership] = "Who works in a kitchen, and may, is for the place where it is."
