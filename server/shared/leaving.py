"""What leaves with a kitchen: each app registers its tables, with the shape in which their rows are written.

A table that belongs to a kitchen is in :data:`LEAVES`, or in :data:`STAYS` with its reason; a test fails for any other.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal
from uuid import UUID

from django.db.models import F, Model
from pydantic import BaseModel, ConfigDict, JsonValue
from spissus_core.amounts.fields import SHELF
from spissus_core.errors import SpissusError
from spissus_core.messages import say


class Row(BaseModel):
    """A row as it is written to a file: nothing else in it, no infinity, nothing that is no number."""

    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)

    @classmethod
    def read(cls, told: object) -> Any:
        """The row, by the rules for what was once recorded. Raises pydantic's ValidationError."""
        return cls.model_validate(told, context=dict(SHELF))

    @classmethod
    def brought(cls, told: object) -> Any:
        """The same of a row that comes in by a file, which no door has judged. Raises pydantic's ValidationError."""
        return cls.model_validate(told, context=dict(SHELF) | {"brought": True})


#: No entry is longer than this, characters, or tells of a number beyond: mL, g, J and minutes of a kitchen are less.
MOST_PAYLOAD, MOST_NUMBER = 256 * 1024, 1e7


def of_a_kitchen(payload: dict[str, JsonValue]) -> dict[str, JsonValue]:
    """An entry that is brought in, as it is. Raises SpissusError for one that no kitchen can have written."""
    if len(json.dumps(payload)) > MOST_PAYLOAD:
        raise SpissusError("payload", say("archive.entry_too_long"))
    waiting: list[JsonValue] = [payload]
    while waiting:
        one = waiting.pop()
        if isinstance(one, dict | list):
            waiting += one.values() if isinstance(one, dict) else one
        elif isinstance(one, int | float) and abs(one) > MOST_NUMBER:
            raise SpissusError("payload", say("archive.no_kitchen_holds"))
    return payload


@dataclass(frozen=True, slots=True, kw_only=True)
class Leaves:
    """A table of which every row leaves: ``of`` the kitchen or of each batch, written in a ``shape`` whose fields are
    the columns' names, told from others by its ``key``, in an ``order``.

    ``elsewhere`` are fields that are read through another table; ``filled`` is what a row that comes back has in the
    columns that stay behind.
    """

    model: type[Model]
    shape: type[Row]
    of: Literal["kitchen", "batch"] = "kitchen"
    key: tuple[str, ...] = ("id",)
    order: tuple[str, ...] = ()
    elsewhere: Mapping[str, str] = field(default_factory=dict)
    filled: Callable[[], dict[str, Any]] = dict

    def written(self, owner: UUID, **only: object) -> Iterable[Row]:
        """The rows of a kitchen, or of a batch, in their order; ``only`` those with these values."""
        names = list(self.shape.model_fields)
        columns = {f"_{name}": F(self.elsewhere.get(name, name)) for name in names}
        rows = self.model._default_manager.filter(**{f"{self.of}_id": owner}, **only).order_by(*self.order, *self.key)
        told = rows.values(**columns)
        # Those of a batch are few; a kitchen's come a part at a time.
        for row in told if self.of == "batch" else told.iterator(500):
            yield self.shape.read({name: row[f"_{name}"] for name in names})

    def there(self, rows: Iterable[Row]) -> dict[tuple[Any, ...], UUID | None]:
        """The keys of those rows that are in the database already, with the kitchen or batch they belong to."""
        first = self.key[0]
        values = {getattr(row, first) for row in rows}
        found = self.model._default_manager.filter(**{f"{first}__in": values})
        return {tuple(one[:-1]): one[-1] for one in found.values_list(*self.key, f"{self.of}_id")}

    def known(self, ids: set[UUID], owner: UUID) -> set[UUID]:
        """Those of the ids that its owner has."""
        rows = self.model._default_manager.filter(pk__in=ids, **{f"{self.of}_id": owner})
        return set(rows.values_list("pk", flat=True))

    def key_of(self, row: Row) -> tuple[Any, ...]:
        """What tells the row from others."""
        return tuple(getattr(row, name) for name in self.key)

    def put(self, rows: Iterable[Row], owner: UUID, elsewhere: Mapping[str, Any] | None = None) -> list[Any]:
        """Create them. Returns their primary keys."""
        columns = [self._columns(row, owner, elsewhere or {}) for row in rows]
        made = self.model._default_manager.bulk_create([self.model(**one) for one in columns])
        # The database stamps what is new with the time; these are older.
        stamped = [
            f.attname
            for f in self.model._meta.concrete_fields
            if getattr(f, "auto_now", False) or getattr(f, "auto_now_add", False)
        ]
        stamped = [name for name in stamped if name in self.shape.model_fields]
        if stamped:
            for row, one in zip(made, columns, strict=True):
                self.model._default_manager.filter(pk=row.pk).update(**{name: one[name] for name in stamped})
        return [row.pk for row in made]

    def _columns(self, row: Row, owner: UUID, elsewhere: Mapping[str, Any]) -> dict[str, Any]:
        plain = row.model_dump(mode="json")
        kept = {
            # What is JSON in the database stays JSON; everything else is what it is.
            name: plain[name] if isinstance(plain[name], dict | list) else getattr(row, name)
            for name in self.shape.model_fields
            if name not in self.elsewhere
        }
        return {**kept, **elsewhere, **self.filled(), f"{self.of}_id": owner}


#: Every table that leaves, by the name of its part of the file.
LEAVES: dict[str, Leaves] = {}

#: Tables of a kitchen that stay, and why.
STAYS: dict[type[Model], str] = {}
