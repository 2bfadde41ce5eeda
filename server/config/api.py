"""The API: one router an app, errors in one shape."""

from batches.api import router as batches
from devices.api import router as devices
from django.http import HttpRequest
from kitchens.api import router as kitchens
from larder.api import router as larder
from ninja import NinjaAPI

from . import problems

api = NinjaAPI(
    title="Spissus",
    version="1",
    description="From a strained braising liquid to a finished sauce.",
    docs_url=None,
    openapi_url="openapi.json",
    urls_namespace="api",
)
problems.install(api)
api.add_router("", kitchens)
api.add_router("", larder)
api.add_router("", batches)
api.add_router("", devices)


@api.get("/ping", auth=None, tags=["service"], summary="Whether the service answers")
def ping(request: HttpRequest) -> dict[str, str]:
    """The cheapest request there is."""
    return {"status": "ok"}
