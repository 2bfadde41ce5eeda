"""How often something may be asked for: counted in PostgreSQL, by the web framework's own throttle."""

from __future__ import annotations

import threading

from django.conf import settings
from django.http import HttpRequest
from ninja.throttling import SimpleRateThrottle


# The framework keeps what it counts for a request in the throttle itself, and has one of it for all: each thread gets
# its own, so that no address is counted as another.
class PerAddress(threading.local, SimpleRateThrottle):
    """So many requests of a kind from one address; the numbers are settings."""

    def __init__(self, scope: str) -> None:
        self.scope = scope
        super().__init__(settings.LIMITS[scope])

    def get_cache_key(self, request: HttpRequest) -> str | None:
        return f"{self.scope}-{self.get_ident(request)}"


class PerAddressDone(PerAddress):
    """The same, where only what came of a request counts: whoever did it says so by :meth:`done`."""

    def throttle_success(self) -> bool:
        return True

    def done(self, request: HttpRequest) -> None:
        """Count one."""
        if self.allow_request(request):
            super().throttle_success()
