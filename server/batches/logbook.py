"""Batches in a list, from their summaries alone."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, ClassVar, cast
from uuid import UUID

from django.core.exceptions import ValidationError as Unplaced
from django.db import DataError
from django.db.models import QuerySet
from django.http import HttpRequest
from ninja.errors import ValidationError as NotAnInput
from ninja.pagination import CursorPagination
from pydantic import Field
from shared.shapes import PanShape, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_length, show_volume
from spissus_core.errors import SpissusError
from spissus_core.events.remembering import POINTS
from spissus_core.events.state import ConcernKind
from spissus_core.measuring.vessels import SHALLOW_MM
from spissus_core.messages import Message, say
from spissus_core.planning.acts import KINDS, Sound
from spissus_core.planning.doubts import DOUBTS
from spissus_core.planning.explanation import left_of_it
from words import plain

from .due import RemindOut
from .models import Batch
from .pot import word


class PotLine(Shape):
    """A pot of the list as it is drawn: its pan, how deep it stands, and the mark to stop at."""

    pan: PanShape
    depth_mm: float
    fat_mm: float
    stop: ShownOut | None


class BatchLine(Shape):
    """A batch in a list; where its start cannot be read, nothing is known of its pot. ``next`` is what is to be done
    to it, in a few words; ``reminds`` of what must be cold; ``burner`` where it stands, or stood last."""

    id: UUID
    name: str
    created_at: datetime
    finished: bool
    stage: ev.Stage
    pan: str | None
    volume: ShownOut | None
    start: ShownOut | None
    salt_percent: float | None
    body: str | None
    tone: float | None
    share: float | None
    left: SaidOut | None
    burner: str | None
    on_heat: bool
    pot: PotLine | None
    next: SaidOut | None
    look_at: datetime | None
    sound: Sound
    quiet: bool
    concern: str | None
    rest: SaidOut | None
    reminds: RemindOut | None
    points: int | None
    how: str | None


class AuthorOut(Shape):
    """Who recorded an entry."""

    event: UUID
    name: str


class BatchPage(Shape):
    """A page of the list; ``next`` is where the next one begins, null where this is the last. The first has with it
    what is further down and still open: it stands on the stove, however much has been cooked since."""

    items: list[BatchLine]
    next: str | None


def line_out(batch: Batch) -> BatchLine:
    """A batch in a list, from its summary alone."""
    s = batch.summary
    known = "volume_ml" in s
    return BatchLine(
        id=batch.id,
        name=batch.name,
        created_at=batch.created_at,
        finished=s.get("finished", False),
        stage=s.get("stage", "strain"),
        pan=s.get("pan"),
        volume=ShownOut.of(show_volume(s["volume_ml"])) if known else None,
        start=ShownOut.of(show_volume(s["start_ml"])) if known else None,
        salt_percent=s.get("salt_percent"),
        body=word(s["body"]) if s.get("body") else None,
        tone=s.get("tone"),
        share=min(s["volume_ml"] / s["start_ml"], 1.0) if known else None,
        left=SaidOut.of(left_of_it(s["volume_ml"], s["start_ml"])) if known else None,
        look_at=s.get("look_at"),
        burner=s.get("burner"),
        on_heat=s.get("on_heat", False),
        pot=_pot(s),
        next=SaidOut.maybe(_next(s)),
        sound=s.get("sound", "hurry"),
        quiet=s.get("quiet", False),
        concern=_concern(s.get("concern")),
        rest=SaidOut.maybe(_rest(s.get("rest"))),
        reminds=RemindOut.model_validate(s["reminds"]) if s.get("reminds") else None,
        points=s.get("points"),
        how=word(POINTS[s["points"]]) if s.get("points") in POINTS else None,
    )


def _pot(s: dict[str, Any]) -> PotLine | None:
    """The pot as it is drawn; a summary of before it was drawn has none, until the next entry."""
    if "pan_shape" not in s:
        return None
    stop = s["stop_mm"]
    return PotLine(
        pan=PanShape(**s["pan_shape"]),
        depth_mm=s["depth_mm"],
        fat_mm=s["fat_mm"],
        stop=None if stop is None else ShownOut.of(show_length(stop)),
    )


def _next(s: dict[str, Any]) -> Message | None:
    """What is to be done, in a few words."""
    doing, stop = s.get("doing"), s.get("stop_mm")
    if doing == "boil" and stop is not None and stop >= SHALLOW_MM:
        return say("bar.next_boil", mark=show_length(stop))
    return KINDS[doing].next_words if doing in KINDS else None


def _rest(rest: dict[str, Any] | None) -> Message | None:
    """What stands aside, and by when it must be cold."""
    if rest is None:
        return None
    return say(
        "bar.rest_cold_by", volume=show_volume(rest["volume_ml"]), cold_by=datetime.fromisoformat(rest["cold_by"])
    )


def _concern(kind: ConcernKind | None) -> str | None:
    return plain(DOUBTS[kind].short) if kind is not None and kind in DOUBTS else None


#: Pots further down the list that the first page still has with it; nobody has more of them open.
MOST_OPEN = 30


class Place(Shape):
    """Where a page of the list begins; at the newest where nothing is said."""

    cursor: Annotated[str, Field(max_length=200)] = ""

    page_size: ClassVar[int | None] = None


class Pages(CursorPagination):
    """Pages of the list, the newest first, by the framework's own cursors; ``next`` is the place of the next one."""

    items_attribute = "items"

    @staticmethod
    def _add_cursor_to_URL(url: str, cursor: CursorPagination.Cursor | None) -> str | None:  # noqa: N802
        # The page knows the address; what it asks with is the place alone.
        return None if cursor is None else cursor.encode_as_param()

    def of(self, batches: QuerySet[Batch], place: Place, request: HttpRequest) -> BatchPage:
        """The page at that place. Raises SpissusError for a place that is none."""
        try:
            found = self.paginate_queryset(batches, cast(CursorPagination.Input, place), request)
        except (Unplaced, NotAnInput, ValueError, OverflowError, DataError):
            raise SpissusError("cursor", say("batch.no_place_in_the_list")) from None
        items = list(found["items"])
        if not place.cursor and found["next"] is not None:
            older = batches.filter(summary__finished=False, created_at__lte=items[-1].created_at)
            items += older.exclude(pk__in=[one.pk for one in items]).order_by("-created_at")[:MOST_OPEN]
        return BatchPage(items=[line_out(batch) for batch in items], next=found["next"])


#: Batches on a page of the list.
PAGES = Pages(ordering=("-created_at", "-id"), page_size=30)
