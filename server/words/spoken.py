"""What is to be said, in the language that is spoken: as parts, or as plain text where only text will do."""

from __future__ import annotations

from typing import Literal

from spissus_core.amounts.quantities import UnitSystem
from spissus_core.messages import Argument

from .catalogue import spoken
from .parts import Amount, Figure, Moment, Name, Part, Remaining


def parts(said: Argument) -> tuple[Part, ...]:
    """What is to be said, in parts."""
    return spoken().parts(said)


def plain(said: Argument, units: UnitSystem | Literal["both"] = "both") -> str:
    """What is to be said as text; ``both`` where nobody knows the units of whoever reads it."""
    return "".join(_text(part, units) for part in parts(said))


def _text(part: Part, units: UnitSystem | Literal["both"]) -> str:
    match part:
        case str():
            return part
        case Name():
            return part.name
        case Figure():
            return part.figure
        case Amount():
            if units == "both":
                return f"{part.metric} ({part.us})"
            return part.us if units == "us" else part.metric
        case Moment():
            return f"{part.at:%H:%M}"
        case Remaining():
            return f"{part.until:%H:%M}"
