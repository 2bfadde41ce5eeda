"""Oneself: the name one signs in with, the browsers that are signed in, and the end of it."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated

from django.conf import settings
from django.contrib.auth import logout
from django.contrib.auth.signals import user_logged_in
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest
from django.utils import timezone
from kitchens.services import delete_alone, member_of
from live.services import end_streams, session_mark
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict, Field
from shared.limits import PerAddress
from shared.refusals import RefusedError, may_refuse
from shared.shapes import Shape
from spissus_core.errors import SpissusError
from spissus_core.messages import say

from .api import Password, SessionOut, Username, known, session_out
from .models import Session, User
from .services import new_name

router = Router(auth=SessionAuth(), tags=["oneself"])

#: More of what a browser calls itself is of no use to its person, characters.
LONGEST_AGENT = 200

AGENT_KEY = "agent"

#: What a session is called outside its cookie.
Mark = Annotated[str, Field(max_length=40)]


def _note_the_browser(sender: object, request: HttpRequest, user: object, **more: object) -> None:
    request.session[AGENT_KEY] = request.headers.get("User-Agent", "")[:LONGEST_AGENT]


user_logged_in.connect(_note_the_browser, dispatch_uid="people.oneself")


class BrowserOut(Shape):
    """A browser that is signed in: since when, what it calls itself, and whether it is this one."""

    id: str
    since: datetime
    agent: str
    here: bool


class NameIn(Shape):
    """Another name to sign in with, and the password."""

    model_config = ConfigDict(extra="forbid")

    name: Username
    password: Password


class EndIn(Shape):
    """The password, before everything of one's own is deleted."""

    model_config = ConfigDict(extra="forbid")

    password: Password


@router.get("/me/browsers", response=list[BrowserOut])
def browsers(request: HttpRequest) -> list[BrowserOut]:
    """Where one is signed in, the newest first."""
    rows, here = _sessions(request), request.session.session_key
    lasts = timedelta(seconds=settings.SESSION_COOKIE_AGE)
    return [
        BrowserOut(
            id=session_mark(row.session_key),
            since=row.expire_date - lasts,
            agent=str(row.get_decoded().get(AGENT_KEY, "")),
            here=row.session_key == here,
        )
        for row in rows
    ]


@router.delete("/me/browsers/{mark}", response={204: None})
def end_browser(request: HttpRequest, mark: Mark) -> Status[None]:
    """Sign one of one's browsers out, wherever it is."""
    found = next((row for row in _sessions(request) if session_mark(row.session_key) == mark), None)
    if found is None:
        raise Http404
    end_streams(session_key=found.session_key)
    found.delete()
    return Status(204, None)


@router.put("/me/name", response=SessionOut, throttle=PerAddress("sign_in"), openapi_extra=may_refuse(429))
def change_name(request: HttpRequest, data: NameIn) -> SessionOut:
    """Sign in under another name from now on; what was recorded under the old one is told under the new one."""
    user = member_of(request).user
    known(request, user.username, data.password, SpissusError("password", say("kitchen.not_your_password")))
    user.username = new_name(data.name, but=user)
    try:
        with transaction.atomic():
            user.save(update_fields=["username"])
    except IntegrityError:
        raise SpissusError("name", say("kitchen.name_taken")) from None
    return session_out(request)


@router.post("/me/end", response=SessionOut, throttle=PerAddress("sign_in"), openapi_extra=may_refuse(409, 429))
def end(request: HttpRequest, data: EndIn) -> SessionOut:
    """Delete oneself, and the kitchens in which nobody else works, for good. What was recorded in others stays."""
    member = member_of(request)
    if member.kitchen.is_demo:
        raise RefusedError(409, say("kitchen.made_up_goes"))
    known(request, member.user.username, data.password, SpissusError("password", say("kitchen.not_your_password")))
    with transaction.atomic():
        delete_alone(member.user)
        person = member.user.pk
        Session.objects.filter(person=person).delete()
        User.objects.filter(pk=person).delete()
    end_streams(person=person)
    logout(request)
    return session_out(request)


def _sessions(request: HttpRequest) -> list[Session]:
    mine = Session.objects.filter(person=member_of(request).user, expire_date__gt=timezone.now())
    return list(mine.order_by("-expire_date"))
