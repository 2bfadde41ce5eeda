"""The stream of news: server-sent events, one for each open page."""

from __future__ import annotations

from django.conf import settings
from django.db import connection
from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.views.decorators.http import require_GET
from kitchens.services import member_of
from shared.refusals import RefusedError

from .hub import hub


@require_GET
def stream(request: HttpRequest) -> HttpResponse | StreamingHttpResponse:
    """News of the member's kitchen: which batch changed. What changed is asked for as ever."""
    if not request.user.is_authenticated:
        return HttpResponse(status=401)
    try:
        member = member_of(request)
    except RefusedError as refused:
        return HttpResponse(status=refused.status_code)
    person, session = member.user.pk, request.session.session_key or ""
    if hub.streams_of(person) >= settings.MOST_STREAMS:
        return HttpResponse(status=429)
    # The stream lives for hours and needs no database; the connection goes back to the pool.
    connection.close()
    return StreamingHttpResponse(
        hub.stream(str(member.kitchen.pk), person, session),
        content_type="text/event-stream",
        headers={"Cache-Control": "no-cache", "X-Accel-Buffering": "no"},
    )
