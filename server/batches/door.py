"""What a page sends: a start, and events, in the words of the version it knows."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, Any
from uuid import UUID

from pydantic import AwareDatetime, ConfigDict, Field, model_validator
from shared.shapes import Shape
from spissus_core import events as ev
from spissus_core.amounts.fields import Title


class StartIn(Shape):
    """A new batch, of a house dish or of none. The page makes both ids, so that sending it twice starts one batch."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    event_id: UUID
    at: AwareDatetime
    version: Version = 1
    name: Title
    house_dish: UUID | None = None
    start: StartedIn

    @model_validator(mode="before")
    @classmethod
    def _older(cls, data: Any) -> Any:
        return _in_todays_words(data, "start")


class EntryIn(Shape):
    """What an event would say, without its being one."""

    model_config = ConfigDict(extra="forbid")

    version: Version = 1
    payload: PayloadIn

    @model_validator(mode="before")
    @classmethod
    def _older(cls, data: Any) -> Any:
        return _in_todays_words(data, "payload")


class EventIn(EntryIn):
    """One event. The page makes the id, so that sending it twice records it once."""

    id: UUID
    at: AwareDatetime


#: The version of the events that a page knows; one that says nothing is of the first.
Version = Annotated[int, Field(ge=1, le=ev.VERSION)]


# What a page sends of a start, and of any event: models that the registry makes.
if TYPE_CHECKING:
    StartedIn = ev.Form
    PayloadIn = ev.Form | ev.Kind
else:
    StartedIn = ev.form_of(ev.Started)
    PayloadIn = ev.door


def _in_todays_words(data: Any, field: str) -> Any:
    """What an older page says of an event, in today's words, before it is judged."""
    if not isinstance(data, dict) or field not in data:
        return data
    version = data.get("version", 1)
    if not isinstance(version, int) or not 1 <= version <= ev.VERSION:
        return data
    try:
        return {**data, field: ev.upcast(data[field], version)}
    except (LookupError, TypeError, ValueError, ArithmeticError, AttributeError):
        # Nothing that version ever said: today's rules say what is wrong with it.
        return data
