"""Batches over HTTP: start, read, append, and the computations that save nothing."""

from __future__ import annotations

import base64
import json
from datetime import UTC, datetime
from uuid import UUID, uuid4

from django.db.models import Q
from django.http import HttpRequest
from kitchens.api import PanShape
from kitchens.services import Member, burner_spec, member_of, pan_spec
from ninja import Router
from ninja.errors import HttpError
from ninja.security import SessionAuth
from spissus_core import events as ev
from spissus_core.errors import SpissusError
from spissus_core.fold import fold
from spissus_core.ingredients import catalogue
from spissus_core.routes import solve_routes, trade

from . import presenter, services
from . import schemas as sc
from .models import Batch

router = Router(auth=SessionAuth(), tags=["batches"])

PAGE = 30


def _started(member: Member, start: sc.StartedIn) -> ev.Started:
    """The start with the pan and burner as they are now: later changes to either leave it alone."""
    return ev.Started(
        pan=pan_spec(member.kitchen.pk, start.pan_id),
        burner=burner_spec(member.kitchen.pk, start.burner_id),
        liquid=start.liquid,
    )


def _not_ahead(at: datetime) -> datetime:
    """A time with its zone, not later than now: a page's clock may run ahead."""
    if at.tzinfo is None:
        raise SpissusError("at", "A time needs its zone.")
    return min(at, datetime.now(UTC))


@router.post("/previews/start", response=sc.PreviewOut, summary="What a start would give; nothing is saved")
def preview_start(request: HttpRequest, data: sc.StartedIn) -> sc.PreviewOut:
    started = _started(member_of(request), data)
    timeline = fold([ev.Event(id=uuid4(), seq=1, at=datetime.now(UTC), payload=started)])
    assert timeline.pot is not None
    return sc.PreviewOut(
        pan=PanShape(**started.pan.model_dump()),
        pot=presenter.pot_out(timeline.pot),
        marks=presenter.marks_out(timeline),
    )


@router.get("/batches", response=sc.BatchPage, summary="Batches, newest first")
def list_batches(request: HttpRequest, cursor: str = "") -> sc.BatchPage:
    found = Batch.objects.filter(kitchen=member_of(request).kitchen)
    if cursor:
        at, last = _read_cursor(cursor)
        found = found.filter(Q(created_at__lt=at) | Q(created_at=at, id__lt=last))
    rows = list(found[: PAGE + 1])
    more = rows[PAGE - 1] if len(rows) > PAGE else None
    return sc.BatchPage(
        items=[presenter.line_out(batch) for batch in rows[:PAGE]],
        next=None if more is None else _cursor(more),
    )


def _cursor(batch: Batch) -> str:
    return base64.urlsafe_b64encode(json.dumps([batch.created_at.isoformat(), str(batch.id)]).encode()).decode()


def _read_cursor(cursor: str) -> tuple[datetime, UUID]:
    try:
        at, last = json.loads(base64.urlsafe_b64decode(cursor.encode()))
        return datetime.fromisoformat(at), UUID(last)
    except (ValueError, TypeError):
        raise HttpError(422, "This is not a place in the list. Start from its first page.") from None


@router.post("/batches", response=sc.BatchOut, summary="Start a batch")
def start(request: HttpRequest, data: sc.StartIn) -> sc.BatchOut:
    member = member_of(request)
    batch = services.start_batch(
        member, data.id, data.name, event_id=data.event_id, at=_not_ahead(data.at),
        started=_started(member, data.start),
    )  # fmt: skip
    return presenter.batch_out(batch, fold(services.log_of(batch)))


@router.get("/batches/{batch_id}", response=sc.BatchOut, summary="A batch as it stands")
def read(request: HttpRequest, batch_id: UUID) -> sc.BatchOut:
    batch = services.batch_of(member_of(request), batch_id)
    return presenter.batch_out(batch, fold(services.log_of(batch)))


@router.post("/batches/{batch_id}/events", response=sc.BatchOut, summary="Record an event")
def append(request: HttpRequest, batch_id: UUID, data: sc.EventIn) -> sc.BatchOut:
    member = member_of(request)
    payload = _started(member, data.payload) if isinstance(data.payload, sc.StartedIn) else data.payload
    timeline = services.append(member, batch_id, event_id=data.id, at=_not_ahead(data.at), payload=payload)
    return presenter.batch_out(services.batch_of(member, batch_id), timeline)


@router.post("/batches/{batch_id}/routes", response=sc.RoutesOut, summary="Ways to a sauce; nothing is saved")
def routes(request: HttpRequest, batch_id: UUID, data: ev.Wanted) -> sc.RoutesOut:
    batch = services.batch_of(member_of(request), batch_id)
    timeline = fold(services.log_of(batch))
    assert timeline.pot is not None
    solved = solve_routes(timeline.pot, data, agreed=timeline.wanted)
    return presenter.routes_out(timeline.pot, data, solved, trade(timeline.pot, data))


@router.get("/ingredients", response=list[sc.IngredientOut], summary="The catalogue, by name")
def ingredients(request: HttpRequest) -> list[sc.IngredientOut]:
    return [sc.IngredientOut(key=i.key, name=i.name, group=i.group, salt_percent=i.salt) for i in catalogue().values()]
