"""Addresses: the API, and one page for everything else."""

import sys

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from live.views import stream

from .api import api
from .problems import failed, problem


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The page; the browser takes it from there. It brings a token, so that it is asked for anew each time."""
    answer = render(request, "page.html")
    answer["Cache-Control"] = "private, no-cache"
    return answer


def too_old(request: HttpRequest, reason: str = "") -> HttpResponse:
    """The CSRF token does not fit: the page was open across a sign-in, or it is not ours."""
    return problem(403)


def handler400(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """A request that cannot be read."""
    return problem(400)


def handler403(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Not allowed."""
    return problem(403)


def handler404(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Not there."""
    return problem(404)


def handler500(request: HttpRequest) -> HttpResponse:
    """A fault of ours, outside the API's own handlers."""
    error = sys.exc_info()[1]
    assert error is not None
    return failed(request, error)


urlpatterns = [
    path("api/v1/stream", stream),
    path("api/v1/", api.urls),
    re_path(r"^(?!api/|static/)", page),
]
