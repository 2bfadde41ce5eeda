"""The application as an ASGI server runs it."""

import os

from django.core.asgi import get_asgi_application
from django.db import connection
from uvicorn.middleware.proxy_headers import ProxyHeadersMiddleware

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

django_application = get_asgi_application()

# At once, and not with the first request: who wants to know whether the database is in use can see it.
# Where the database is away, it is tried again in the background.
connection.pool.open(wait=False)  # type: ignore[attr-defined]

# Only after Django is set up.
from .door import Door, by_known_addresses  # noqa: E402

# A proxy on this machine says whom it speaks for; nobody else is asked.
application = by_known_addresses(
    ProxyHeadersMiddleware(Door(django_application), trusted_hosts="127.0.0.1")  # type: ignore[arg-type]
)
