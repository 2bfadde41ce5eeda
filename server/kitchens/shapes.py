"""Shapes that answers of every app are made of."""

from __future__ import annotations

from pydantic import BaseModel, ConfigDict
from spissus_core.amounts.quantities import Shown


class Shape(BaseModel):
    """What goes in or out: no infinity, and nothing that is no number, either way."""

    model_config = ConfigDict(allow_inf_nan=False)


class ShownOut(Shape):
    """An amount, exact and in the words of either system of units."""

    value: float
    metric: str
    us: str

    @classmethod
    def of(cls, shown: Shown) -> ShownOut:
        return cls(value=shown.value, metric=shown.metric, us=shown.us)
