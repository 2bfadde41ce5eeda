"""What other apps may ask of the people."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime
from uuid import UUID

from django.core.exceptions import ValidationError
from django.db import close_old_connections
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone
from live.services import end_streams
from shared.codes import digest, drawn
from spissus_core.errors import SpissusError
from spissus_core.messages import say

from .models import RecoveryCode, Session, User
from .sessions import KITCHEN_KEY

__all__ = [
    "User",
    "has_session",
    "let_sessions_go",
    "new_name",
    "newcomer",
    "recovery_code",
    "sessions_that_last",
    "signed_in",
    "works_in",
]

#: What the digests of codes for a forgotten password are of.
RECOVERS = "people.recovery"


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


def new_name(told: str, *, but: User | None = None) -> str:
    """A name to sign in with that nobody has, but for one's own. Raises SpissusError where it will not do."""
    name = User.normalize_username(told.strip())
    if not name:
        raise SpissusError("name", say("kitchen.choose_a_name"))
    try:
        User.username_validator(name)
    except ValidationError:
        raise SpissusError("name", say("kitchen.letters_only")) from None
    if any(one != but for one in User.objects.filter(username__iexact=name)):
        raise SpissusError("name", say("kitchen.name_taken"))
    return name


def recovery_code(person: User, until: datetime) -> str:
    """A code by which somebody chooses a new password, once, until then; an earlier one of its kind opens nothing."""
    code = drawn()
    RecoveryCode.objects.filter(person=person).exclude(expires_at=None).delete()
    RecoveryCode.objects.create(person=person, digest=digest(RECOVERS, code), expires_at=until)
    return code


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
