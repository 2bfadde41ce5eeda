"""Pans and burners are kept alike: a row with what it is, added, changed and put away by the kitchen's cooks."""

from __future__ import annotations

from typing import Any, NamedTuple, TypeVar
from uuid import UUID

from django.http import Http404, HttpRequest
from shared.refusals import RefusedError
from spissus_core.messages import Message, say

from .models import Burner, Pan
from .services import Member, did, member_of

_Thing = TypeVar("_Thing", Pan, Burner)


class Deeds(NamedTuple):
    """What is told of a row that was added, changed, or put away."""

    added: str
    changed: str
    put_away: str


_DEEDS: dict[type[Pan | Burner], Deeds] = {
    Pan: Deeds("deeds.pan_added", "deeds.pan_changed", "deeds.pan_put_away"),
    Burner: Deeds("deeds.burner_added", "deeds.burner_changed", "deeds.burner_put_away"),
}


def added(request: HttpRequest, model: type[_Thing], spec: dict[str, Any], most: int, enough: Message) -> _Thing:
    """A new row, behind those there are. Raises RefusedError where ``most`` are there already."""
    kitchen = _cook(request).kitchen
    rows = model.objects.filter(kitchen=kitchen)
    if rows.filter(retired=False).count() >= most:
        raise RefusedError(422, enough)
    did(_cook(request), say(_DEEDS[model].added, name=spec["name"]))
    return model.objects.create(kitchen=kitchen, spec=spec, position=rows.count())


def changed(request: HttpRequest, model: type[_Thing], pk: UUID, spec: dict[str, Any]) -> _Thing:
    """The row as it is now; batches keep what it was. Raises Http404 for anyone else's and for what was put away."""
    row = _own(request, model, pk)
    row.spec = spec
    row.save(update_fields=["spec"])
    did(_cook(request), say(_DEEDS[model].changed, name=spec["name"]))
    return row


def put_away(request: HttpRequest, model: type[_Thing], pk: UUID) -> None:
    """The row is not offered any more. Raises Http404 for anyone else's and for what was put away."""
    row = _own(request, model, pk)
    row.retired = True
    row.save(update_fields=["retired"])
    did(_cook(request), say(_DEEDS[model].put_away, name=str(row)))


def _cook(request: HttpRequest) -> Member:
    member = member_of(request)
    member.require_cook()
    return member


def _own(request: HttpRequest, model: type[_Thing], pk: UUID) -> _Thing:
    row = model.objects.filter(kitchen=_cook(request).kitchen, pk=pk, retired=False).first()
    if row is None:
        raise Http404
    return row
