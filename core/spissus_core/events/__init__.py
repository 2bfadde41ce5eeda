"""What can happen to a batch: one class a kind, each with everything that follows from it.

The one registry is :data:`KINDS`; it fills itself from the modules of this package. From it come the union of
payloads, what the API takes, and their JSON Schema. Payloads are judged by today's rules at the door, after an
older version has been put in today's words; on the shelf what was once recorded is always readable.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from importlib import import_module
from pkgutil import iter_modules
from typing import Annotated, Any, Union
from uuid import UUID

from pydantic import BaseModel, ConfigDict, Field, SerializeAsAny, TypeAdapter, ValidationError

from ..amounts.fields import SHELF
from ..errors import SetAsideError, SpissusError
from ..messages import Argument, Message, say
from .additions import Added, Salted, Thickened
from .alarm import Hushed
from .base import KINDS, STAGES, ActsOnPot, Form, Kind, Kitchen, Stage, form_of
from .corrections import Dated, Meant, Struck
from .ending import Finished
from .fat import FatSeen, Skimmed, fat_left_ml, fat_to_skim, usual_ice_g
from .judging import SIGNS, Noted, Seen, Sign, Tested, signs_asked, smells_of_wine
from .looking import GainError, LossError, Metered, Read, most_ml_min, no_chance_ml
from .meat import Glazed, MeatIn, MeatProbed, Ovened
from .pans import Drawn, Moved, Parted, Rejoined, Returned, Solids, Split, Taken
from .preparing import Prepared
from .remembering import POINTS, Minded, NextTime, Rated
from .rest import RestIs
from .safety import Answered
from .shelf import JarMoved, JarTaken, JarWarmed, PouredIn, PutBy
from .sieving import Sieved
from .starting import Started
from .state import CoolingLog, State
from .warmth import Cooling, Heated, Probed
from .wishes import Chosen, RouteKind, Wanted

__all__ = [
    "KINDS",
    "POINTS",
    "SIGNS",
    "STAGES",
    "VERSION",
    "ActsOnPot",
    "Added",
    "Answered",
    "Chosen",
    "Cooling",
    "CoolingLog",
    "Dated",
    "Drawn",
    "Event",
    "FatSeen",
    "Finished",
    "Form",
    "GainError",
    "Glazed",
    "Heated",
    "Hushed",
    "JarMoved",
    "JarTaken",
    "JarWarmed",
    "Kind",
    "Kitchen",
    "LossError",
    "Meant",
    "MeatIn",
    "MeatProbed",
    "Metered",
    "Minded",
    "Moved",
    "NextTime",
    "Noted",
    "Ovened",
    "Parted",
    "PouredIn",
    "Prepared",
    "Probed",
    "PutBy",
    "Rated",
    "Read",
    "Rejoined",
    "RestIs",
    "Returned",
    "RouteKind",
    "Salted",
    "Seen",
    "Sieved",
    "Sign",
    "Skimmed",
    "Solids",
    "Split",
    "Stage",
    "Started",
    "State",
    "Struck",
    "Taken",
    "Tested",
    "Thickened",
    "Unread",
    "Wanted",
    "door",
    "fat_left_ml",
    "fat_to_skim",
    "form_of",
    "most_ml_min",
    "no_chance_ml",
    "recorded",
    "schema",
    "signs_asked",
    "smells_of_wine",
    "upcast",
    "usual_ice_g",
]

for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")

#: The version of everything that is recorded from now on: the newest that any kind knows. The second keeps
#: ingredients and schools whole, the third knows of a meter whether it was asked about, the fourth names ways by what
#: they are composed of, the fifth tells two spoonfuls at once, the sixth what else is tasted, the
#: seventh whose tongue it was, and what is kept, the eighth by whose limits and clock, the ninth how strongly binds
#: what a kitchen binds with, the tenth what of a thickener is made beside the pot, and in what it is stirred.
VERSION = max(version for kind in KINDS.values() for version in kind.versions)


#: More of a reason than this is of no use to a cook, characters.
LONGEST_WHY = 300


class Unread(Kind):
    """What was recorded and cannot be read: it stands in the log with the reason, and changes nothing."""

    kind: str
    why: Any

    def apply(self, state: State, at: datetime) -> State:
        """Nothing can be made of it."""
        raise SetAsideError(say("events.cannot_be_read", why=self.why))

    def said(self) -> Message:
        """That there is something."""
        return say("events.unread", kind=self.kind)


def _any_of(kinds: Iterable[type[BaseModel]]) -> Any:
    return Annotated[Union[tuple(kinds)], Field(discriminator="kind")]  # noqa: UP007


_shelf: TypeAdapter[Kind] = TypeAdapter(_any_of(KINDS.values()))

#: What a page may send, as a type: any kind, with ids for pans and burners.
door: Any = _any_of(form_of(kind) for kind in KINDS.values())


def schema() -> dict[str, Any]:
    """JSON Schema of every payload as it is kept."""
    return _shelf.json_schema()


def upcast(payload: object, version: int) -> object:
    """What was said in ``version``, in today's words."""
    known = KINDS.get(str(payload.get("kind"))) if isinstance(payload, dict) else None
    if known is None or not isinstance(payload, dict):
        return payload
    for at in range(version, VERSION):
        if at in known.upcasts:
            payload = known.upcasts[at](dict(payload))
    return payload


def recorded(payload: object, version: int = VERSION) -> Kind:
    """A payload as it was recorded, however long ago; never an error.

    Fields that are not known any more are passed over, and amounts that today's rules would not take
    are kept. What cannot be read all the same is :class:`Unread`.
    """
    try:
        return _shelf.validate_python(upcast(payload, version), extra="ignore", context=dict(SHELF))
    except ValidationError as error:
        first = error.errors(include_url=False, include_input=False)[0]
        where = ".".join(str(part) for part in first["loc"][1:])
        raised = first.get("ctx", {}).get("error")
        said: Argument = raised.message if isinstance(raised, SpissusError) else first["msg"][:LONGEST_WHY]
        why: Argument = said
        if first["type"] == "missing":
            why = say("events.field_missing", field=where)
        elif where:
            why = say("events.field_wrong", field=where, why=said)
    except (SpissusError, RecursionError, ArithmeticError, KeyError, TypeError, ValueError, AttributeError) as error:
        why = error.message if isinstance(error, SpissusError) else (str(error) or type(error).__name__)[:LONGEST_WHY]
    kind = payload.get("kind") if isinstance(payload, dict) else None
    return Unread(kind=str(kind)[:40] if isinstance(kind, str) else "unknown", why=why)


class Event(BaseModel):
    """A payload with its identity, place in the log and time.

    ``device`` is what read it by itself. ``told`` is the time it came with, where that cannot be (a dead
    clock) and ``at`` is when it arrived.
    """

    model_config = ConfigDict(frozen=True)

    id: UUID
    seq: int
    at: datetime
    payload: SerializeAsAny[Kind]
    device: str | None = None
    told: datetime | None = None
