"""Open formats: a module a format, which registers itself with :func:`written`, :func:`kitchen_written` or
:func:`dish_written`.

All of them are served by one route of a batch, ``/batches/{id}/files/{name}``, one of the kitchen,
``/kitchen/files/{name}``, and one of a house dish, ``/house-dishes/{id}/files/{name}``; nothing else names them.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from datetime import datetime
from importlib import import_module
from pkgutil import iter_modules
from typing import Annotated, Generic, NamedTuple, TypeVar

from django.http import HttpResponse
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.amounts.tables import among
from spissus_core.board import Board
from spissus_core.house_dish import HouseDish
from spissus_core.messages import Message


@dataclass(frozen=True, slots=True)
class Told:
    """A batch as a format writes it: its name, all that is known of it, and the units of whoever reads it."""

    name: str
    board: Board
    units: UnitSystem


class Line(NamedTuple):
    """A batch in a list: volumes in mL, salt in %, how it was in points of five."""

    name: str
    begun: datetime
    finished: bool
    pan: str | None
    start_ml: float | None
    volume_ml: float | None
    salt_percent: float | None
    body: str | None
    points: int | None


class DueLine(NamedTuple):
    """Something that is due at a time, of which batch; ``uid`` names it for good."""

    uid: str
    batch: str
    at: datetime
    said: Message


@dataclass(frozen=True, slots=True)
class Kitchen:
    """A kitchen as a format writes it, as it stands ``at`` a time."""

    name: str
    at: datetime
    batches: Sequence[Line]
    dues: Sequence[DueLine]


@dataclass(frozen=True, slots=True)
class DishTold:
    """A house dish as a format writes it, for the people it is asked for, and the units of whoever reads it."""

    name: str
    dish: HouseDish
    units: UnitSystem


_Of = TypeVar("_Of")


@dataclass(frozen=True, slots=True)
class Format(Generic[_Of]):
    """A format: its media type, and how it is written."""

    media_type: str
    write: Callable[[_Of], bytes]


#: Every format of a batch, of a kitchen and of a house dish, by the name that its files end in.
FORMATS: dict[str, Format[Told]] = {}
KITCHEN_FORMATS: dict[str, Format[Kitchen]] = {}
DISH_FORMATS: dict[str, Format[DishTold]] = {}


def written(name: str, media_type: str) -> Callable[[Callable[[Told], bytes]], Callable[[Told], bytes]]:
    """Registers what writes a batch in a format."""
    return _registered(FORMATS, name, media_type)


def kitchen_written(name: str, media_type: str) -> Callable[[Callable[[Kitchen], bytes]], Callable[[Kitchen], bytes]]:
    """Registers what writes a kitchen in a format."""
    return _registered(KITCHEN_FORMATS, name, media_type)


def dish_written(name: str, media_type: str) -> Callable[[Callable[[DishTold], bytes]], Callable[[DishTold], bytes]]:
    """Registers what writes a house dish in a format."""
    return _registered(DISH_FORMATS, name, media_type)


def _registered(
    formats: dict[str, Format[_Of]], name: str, media_type: str
) -> Callable[[Callable[[_Of], bytes]], Callable[[_Of], bytes]]:
    def register(write: Callable[[_Of], bytes]) -> Callable[[_Of], bytes]:
        formats[name] = Format(media_type, write)
        return write

    return register


for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")


def file_answer(body: bytes, media_type: str, *named: str) -> HttpResponse:
    """A file to look at or to save; ``named`` are what it is called by, the last with its ending."""
    *of, name = named
    said = re.sub(r"[^A-Za-z0-9]+", "-", " ".join(of)).strip("-").lower()
    filename = f"{said}-{name}" if said else name
    return HttpResponse(
        body, content_type=media_type, headers={"Content-Disposition": f'inline; filename="{filename}"'}
    )


#: The name of a format, as a page asks for it.
FormatName = Annotated[str, *among(FORMATS)]
KitchenFormatName = Annotated[str, *among(KITCHEN_FORMATS)]
DishFormatName = Annotated[str, *among(DISH_FORMATS)]
