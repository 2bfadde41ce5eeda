"""How often something may be asked for: counted in PostgreSQL, by the web framework's own throttle."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest
from ninja.throttling import SimpleRateThrottle


class PerAddress(SimpleRateThrottle):
    """So many requests of a kind from one address; the numbers are settings."""

    def __init__(self, scope: str) -> None:
        self.scope = scope
        super().__init__(settings.LIMITS[scope])

    def get_cache_key(self, request: HttpRequest) -> str | None:
        return f"{self.scope}-{self.get_ident(request)}"
