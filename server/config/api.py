"""The API: one router an app, errors in one shape."""

from archive.api import router as archive
from batches.api import router as batches
from batches.example import router as example
from batches.explained import router as explained
from batches.lists import router as lists
from devices.api import router as devices
from house_dishes.api import router as house_dishes
from kitchens.api import router as kitchens
from kitchens.brigade import router as brigade
from kitchens.burners import router as burners
from kitchens.learned import router as learned
from kitchens.pans import router as pans
from larder.api import router as larder
from larder.mixtures import router as mixtures
from people.api import router as people
from people.oneself import router as oneself
from people.recovery import router as recovery

from . import health, problems
from .reading import StrictParser, StrictRenderer

api = problems.Api(
    title="Spissus",
    version="1",
    description="From a strained braising liquid to a finished sauce.",
    docs_url=None,
    openapi_url="openapi.json",
    urls_namespace="api",
    parser=StrictParser(),
    renderer=StrictRenderer(),
)
problems.install(api)
api.add_router("", people)
api.add_router("", oneself)
api.add_router("", recovery)
api.add_router("", kitchens)
api.add_router("", pans)
api.add_router("", brigade)
api.add_router("", burners)
api.add_router("", learned)
api.add_router("", larder)
api.add_router("", mixtures)
api.add_router("", batches)
api.add_router("", lists)
api.add_router("", explained)
api.add_router("", example)
api.add_router("", house_dishes)
api.add_router("", archive)
api.add_router("", devices)
api.add_router("", health.router)
