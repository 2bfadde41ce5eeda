"""House dishes leave with every version, each in the words it was kept in."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from pydantic import Field, JsonValue, ValidationInfo, field_validator
from shared.leaving import LEAVES, Leaves, Row, of_a_kitchen
from spissus_core.amounts.fields import Title

from .models import DishVersion, HouseDish
from .services import MOST_VERSIONS


class HouseDishRow(Row):
    """A house dish; what it is like stands in its versions."""

    id: UUID
    name: Title
    created_at: datetime
    retired: bool


class DishVersionRow(Row):
    """A house dish as somebody kept it, for so many people: events that tell it, in the words of ``version``."""

    id: UUID
    house_dish: UUID
    number: Annotated[int, Field(ge=1, le=MOST_VERSIONS)]
    at: datetime
    author: Annotated[str | None, Field(max_length=150)]
    people: Annotated[int, Field(ge=1, le=2000)]
    version: Annotated[int, Field(ge=1, le=1000)]
    entries: Annotated[list[dict[str, JsonValue]], Field(max_length=200)]

    @field_validator("entries")
    @classmethod
    def _of_a_kitchen(cls, entries: list[dict[str, JsonValue]], info: ValidationInfo) -> list[dict[str, JsonValue]]:
        return entries if not (info.context or {}).get("brought") else [of_a_kitchen(one) for one in entries]


LEAVES["house_dishes"] = Leaves(model=HouseDish, shape=HouseDishRow, order=("created_at",))
LEAVES["dish_versions"] = Leaves(
    model=DishVersion, shape=DishVersionRow, order=("at",), elsewhere={"author": "author__username"}
)
