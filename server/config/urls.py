"""Addresses: the API, and one page for everything else."""

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie
from live.views import stream

from .api import api


@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The page; the browser takes it from there."""
    return render(request, "page.html")


urlpatterns = [
    path("api/v1/stream", stream),
    path("api/v1/", api.urls),
    re_path(r"^(?!api/|static/)", page),
]
