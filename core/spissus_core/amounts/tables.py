"""The lists of the trade, as rows of ``data/*.csv``: each with its source, and each offered to the page."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from types import MappingProxyType
from typing import Any, TypeVar

from pydantic import AfterValidator, ValidationInfo, WithJsonSchema

from ..errors import QuantityError
from ..messages import say
from .estimate import Estimate
from .fields import on_the_shelf
from .rows import Row, rows

Thing = TypeVar("Thing")


def table(name: str, make: Callable[[Row], Thing]) -> Mapping[str, Thing]:
    """The rows of a list by their ``key``, each as what ``make`` makes of it."""
    return MappingProxyType({row["key"]: make(row) for row in rows(name)})


def span(row: Row, name: str) -> Estimate:
    """An estimate that stands in three columns: ``<name>_low``, ``<name>`` and ``<name>_high``."""
    return Estimate(float(row[f"{name}_low"]), float(row[name]), float(row[f"{name}_high"]))


def key_of(name: str) -> WithJsonSchema:
    """The annotation of a key of a list in what is answered: its schema names the rows."""
    return _named([row["key"] for row in rows(name)])


def _named(keys: Iterable[str]) -> WithJsonSchema:
    return WithJsonSchema({"type": "string", "enum": list(keys)})


def one_of(name: str, *, outlives: bool = False) -> tuple[Any, ...]:
    """The annotation of a key of a list in what comes in.

    One that ``outlives`` its row is judged at the door only: what it stands for is kept beside it, or nothing is
    worked out from it. Any other cannot be read any more once its row has gone.
    """
    return among([row["key"] for row in rows(name)], outlives=outlives)


def among(keys: Collection[str], *, outlives: bool = False) -> tuple[Any, ...]:
    """The same for keys that are composed of several lists."""

    def known(key: str, info: ValidationInfo) -> str:
        if key not in keys and not (outlives and on_the_shelf(info)):
            raise QuantityError("key", say("amounts.none_of", text=key, known=", ".join(sorted(keys))))
        return key

    return AfterValidator(known), _named(keys)
