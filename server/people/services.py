"""What other apps may ask of the people."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime
from uuid import UUID

from django.db import close_old_connections
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone
from live.services import end_streams

from .models import Session, User
from .sessions import KITCHEN_KEY

__all__ = ["User", "has_session", "let_sessions_go", "newcomer", "sessions_that_last", "signed_in", "works_in"]


def signed_in(request: HttpRequest) -> User:
    """Who is behind a request that only the signed-in may make."""
    user = request.user
    assert isinstance(user, User)
    return user


def newcomer(name: str) -> User:
    """Somebody without a password: only a one-tap way leads in."""
    user = User(username=name)
    user.set_unusable_password()
    user.save()
    return user


def works_in(request: HttpRequest, kitchen_id: UUID) -> None:
    """From now on this browser works in that kitchen; its open pages begin anew there."""
    request.session[KITCHEN_KEY] = str(kitchen_id)
    end_streams(session_key=request.session.session_key)


def has_session(people: Collection[int]) -> bool:
    """Whether any of these people is signed in anywhere."""
    return Session.objects.filter(person__in=people, expire_date__gt=timezone.now()).exists()


def sessions_that_last(keys: Collection[str]) -> set[str]:
    """Which of these sessions are there still, and of somebody who may sign in."""
    theirs = Q(person=None) | Q(person__is_active=True)
    try:
        lasting = Session.objects.filter(theirs, session_key__in=keys, expire_date__gt=timezone.now())
        return set(lasting.values_list("session_key", flat=True))
    finally:
        # Not within a request, which would see to it.
        close_old_connections()


def let_sessions_go(now: datetime) -> int:
    """Delete the sessions that are over. Returns how many."""
    return Session.objects.filter(expire_date__lt=now).delete()[0]
