"""Wrong passwords, counted so that a guesser is held up and a neighbour is not.

What is counted and kept is the library's; its own rule, one limit for everything, locks a class out behind its router
and lets whoever knows one password guess at all others. There are three here: by name and address for a minute; by
name slowly, wherever it comes from, for an address that was wrong itself; by address highly.
"""

from __future__ import annotations

from datetime import timedelta
from typing import Any

from axes.handlers.database import AxesDatabaseHandler
from axes.helpers import get_client_username
from axes.models import AccessFailureLog
from django.conf import settings
from django.db.models import QuerySet
from django.http import HttpRequest
from django.utils import timezone


def held_up_s(name: str, address: str) -> float:
    """How long somebody at this address waits before another password for this name is looked at, s."""
    wrong = AccessFailureLog.objects.all()
    ours, of_name = wrong.filter(username=name, ip_address=address), wrong.filter(username=name)
    most = settings.WRONG_PASSWORDS
    waits = [_wait_s(ours, *most["pair"]), _wait_s(wrong.filter(ip_address=address), *most["address"])]
    by_name = _wait_s(of_name, *most["name"])
    # Whoever has not been wrong from here is no part of the guessing: the right password still opens.
    if by_name and ours.filter(attempt_time__gt=timezone.now() - most["name"][1]).exists():
        waits.append(by_name)
    return max(waits)


def _wait_s(wrong: QuerySet[AccessFailureLog], most: int, within: timedelta) -> float:
    """Until fewer than ``most`` of them are younger than ``within``, s."""
    now = timezone.now()
    times = wrong.filter(attempt_time__gt=now - within).order_by("-attempt_time").values_list("attempt_time", flat=True)
    counted = list(times[most - 1 : most])
    return (counted[0] + within - now).total_seconds() if counted else 0.0


def forgive(name: str, address: str) -> None:
    """The right password came from here: what was mistyped before it counts no more."""
    AccessFailureLog.objects.filter(username=name.lower(), ip_address=address).delete()


class Guesses(AxesDatabaseHandler):  # type: ignore[misc]  # the library is not typed
    """The library's handler, by these rules. ``request.held_up_s`` says how long."""

    def is_locked(self, request: Any, credentials: dict[str, str] | None = None) -> bool:
        request.held_up_s = held_up_s(_name(request, credentials), request.axes_ip_address)
        return bool(request.held_up_s > 0.0)

    def user_login_failed(
        self, sender: Any, credentials: dict[str, str], request: HttpRequest | None = None, **more: Any
    ) -> None:
        # Whoever waits and tries again waits no longer for it.
        if request is None or getattr(request, "held_up_s", 0.0) > 0.0:
            return
        AccessFailureLog.objects.create(
            username=_name(request, credentials),
            ip_address=request.axes_ip_address,  # type: ignore[attr-defined]
            user_agent="",
            http_accept="",
            path_info=request.path[:255],
        )

    def user_logged_in(self, sender: Any, request: Any, user: Any, **more: Any) -> None:
        forgive(user.get_username(), request.axes_ip_address)

    def user_logged_out(self, sender: Any, request: Any, user: Any, **more: Any) -> None:
        """Nothing is kept of it."""


def _name(request: HttpRequest, credentials: dict[str, str] | None) -> str:
    return (get_client_username(request, credentials) or "").lower()
