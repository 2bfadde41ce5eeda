"""Open formats of a batch: a module a format, which registers itself with :func:`written`.

All of them are served by one route of a batch, ``/batches/{id}/files/{name}``; nothing else names them.
"""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from importlib import import_module
from pkgutil import iter_modules
from typing import Annotated

from django.http import HttpResponse
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.amounts.tables import among
from spissus_core.board import Board


@dataclass(frozen=True, slots=True)
class Told:
    """A batch as a format writes it: its name, all that is known of it, and the units of whoever reads it."""

    name: str
    board: Board
    units: UnitSystem


@dataclass(frozen=True, slots=True)
class Format:
    """A format of a batch: its media type, and how it is written."""

    media_type: str
    write: Callable[[Told], bytes]


#: Every format there is, by the name that its files end in.
FORMATS: dict[str, Format] = {}


def written(name: str, media_type: str) -> Callable[[Callable[[Told], bytes]], Callable[[Told], bytes]]:
    """Registers what writes a batch in a format."""

    def register(write: Callable[[Told], bytes]) -> Callable[[Told], bytes]:
        FORMATS[name] = Format(media_type, write)
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
