"""Rows of a kitchen that its cooks may change."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpRequest

from .services import member_of


def own(request: HttpRequest, model: Any, pk: UUID) -> Any:
    """A row of the member's kitchen, to be changed. Raises Http404 for anyone else's and for what was put away."""
    member = member_of(request)
    member.require_cook()
    row = model.objects.filter(kitchen=member.kitchen, pk=pk, retired=False).first()
    if row is None:
        raise Http404
    return row
