"""How requests run."""

from __future__ import annotations

from collections.abc import Callable
from threading import BoundedSemaphore
from time import monotonic
from typing import cast
from uuid import uuid4

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.middleware.gzip import GZipMiddleware
from django.utils.decorators import sync_only_middleware

from .problems import in_one_shape, unavailable

#: The screen is kept awake at the stove; nothing else of the device is asked for.
PERMISSIONS = "screen-wake-lock=(self), " + ", ".join(
    f"{name}=()" for name in ("camera", "microphone", "geolocation", "usb", "serial", "payment")
)

View = Callable[[HttpRequest], HttpResponse]


#: Whether the process is alive is told at once, whoever else waits.
ALIVE = "/api/v1/health"


@sync_only_middleware
def in_turn(get_response: View) -> View:
    """Let a request wait until there is room for it: no more are worked at than there are connections for.

    Waiting here is no fault; waiting for a connection would look as if the database were away. Where that is
    found while a request waits, the request need not find it again.
    """
    turns, away = BoundedSemaphore(settings.REQUESTS_AT_ONCE), [0.0]

    def middleware(request: HttpRequest) -> HttpResponse:
        if request.path == ALIVE:
            return get_response(request)
        came = monotonic()
        with turns:
            if away[0] > came:
                return unavailable()
            response = get_response(request)
            if getattr(response, "database_away", False):
                away[0] = monotonic()
            return response

    return middleware


@sync_only_middleware
def answered(get_response: View) -> View:
    """Give a request its id, and its answer the shape and headers that every answer has. The first middleware."""

    def middleware(request: HttpRequest) -> HttpResponse:
        request.id = str(uuid4())  # type: ignore[attr-defined]
        # A cookie may spell a NUL, which no database takes.
        for name in [name for name, value in request.COOKIES.items() if not value.isprintable()]:
            del request.COOKIES[name]
        response = in_one_shape(get_response(request))
        response["X-Request-ID"] = request.id  # type: ignore[attr-defined]
        response["Permissions-Policy"] = PERMISSIONS
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "no-store")
        return response

    return middleware


@sync_only_middleware
def compressed(get_response: View) -> View:
    """Compress what the API answers, and the page. Assets lie compressed beside themselves; a stream stays as it is.

    The framework's own middleware does it, with the padding that keeps a token from being guessed by its length.
    """
    squeeze = GZipMiddleware(get_response)

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        return response if response.streaming else cast(HttpResponse, squeeze.process_response(request, response))

    return middleware


@sync_only_middleware
def one_thread(get_response: View) -> View:
    """Keep a whole request in one thread. It must be the last middleware.

    Under ASGI, Django would hand every middleware to a thread of its own and back, twice; being
    synchronous, this one makes the whole chain run in a single hand-over, which is several times
    faster. Views that stream can still be asynchronous.
    """
    return get_response
