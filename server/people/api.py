"""Signing up, in and out, and one's own password and units."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Annotated

from demo.kitchen import step_into
from django.conf import settings
from django.contrib.auth import authenticate, login, logout, update_session_auth_hash
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest
from django.utils.crypto import get_random_string
from kitchens.services import (
    Member,
    bring_along,
    claim,
    is_named,
    member_of,
    open_kitchen,
    open_to_visitor,
    unclaimed_of,
    visitors,
)
from live.services import end_streams
from ninja import Router
from ninja.security import APIKeyCookie, SessionAuth
from pydantic import ConfigDict, Field
from shared.limits import PerAddress, PerAddressDone
from shared.refusals import RefusedError, may_refuse, wait_shown
from shared.shapes import Shape
from spissus_core.amounts.fields import Name, zone_of
from spissus_core.amounts.quantities import UnitSystem
from spissus_core.errors import SpissusError
from spissus_core.messages import say

from .guessing import forgive
from .models import User
from .services import new_name, newcomer

router = Router(auth=SessionAuth(), tags=["people"])

#: Where somebody signs in without a password that was just checked, it is by this backend.
BACKEND = "django.contrib.auth.backends.ModelBackend"

Username = Annotated[str, Field(max_length=150)]
Password = Annotated[str, Field(max_length=200)]


class Anyone(APIKeyCookie):
    """Open to all, but only from our own page: the CSRF token is checked."""

    def authenticate(self, request: HttpRequest, key: str | None) -> bool:
        return True


class SessionOut(Shape):
    """Who is signed in, if anyone. ``person`` and ``kitchen_id`` say whose what waits in a browser is."""

    signed_in: bool
    demo_offered: bool
    person: str = ""
    kitchen_id: str = ""
    name: str = ""
    kitchen: str = ""
    role: str = ""
    units: UnitSystem = "metric"
    time_zone: str = ""
    claimed: bool = True


class SignIn(Shape):
    """A name and its password; ``bring`` takes along what was begun here before anybody signed in."""

    model_config = ConfigDict(extra="forbid")

    name: Username
    password: Password
    bring: bool = False


class SignUp(SignIn):
    """Somebody new, and what their kitchen is called."""

    kitchen: Name
    time_zone: Annotated[str, Field(max_length=60)] = ""


class NewPassword(Shape):
    """The password as it is, and as it is to be."""

    model_config = ConfigDict(extra="forbid")

    old: Password
    new: Password


class Preferences(Shape):
    """What is somebody's own in every kitchen."""

    model_config = ConfigDict(extra="forbid")

    units: UnitSystem


def session_out(request: HttpRequest) -> SessionOut:
    offered = settings.DEMO
    if not request.user.is_authenticated:
        return SessionOut(signed_in=False, demo_offered=offered)
    member = member_of(request)
    return SessionOut(
        signed_in=True,
        demo_offered=offered,
        person=str(member.user.pk),
        kitchen_id=str(member.kitchen.pk),
        name=member.user.username,
        kitchen=member.kitchen.name,
        role=member.role,
        time_zone=member.kitchen.time_zone,
        claimed=is_named(member),
        units="us" if member.user.units == User.Units.US else "metric",
    )


def known(request: HttpRequest, name: str, password: str, wrong: SpissusError) -> User:
    """Whose password it is. Wrong ones are counted: after too many, 429."""
    user = authenticate(request, username=name, password=password)
    wait_s = getattr(request, "held_up_s", 0.0)
    if wait_s > 0.0:
        raise RefusedError(429, say("kitchen.wrong_passwords", wait=wait_shown(wait_s)), retry_s=wait_s)
    if not isinstance(user, User):
        raise wrong
    return user


def refuse_weak(password: str, user: User, field: str) -> None:
    """Raises SpissusError for a password that is soon guessed."""
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise SpissusError(field, say("kitchen.password", text=" ".join(error.messages))) from None


@router.get("/session", auth=None, response=SessionOut)
def session(request: HttpRequest) -> SessionOut:
    """Who is signed in."""
    return session_out(request)


@router.post(
    "/session", auth=Anyone(), response=SessionOut, throttle=PerAddress("sign_in"), openapi_extra=may_refuse(429)
)
def sign_in(request: HttpRequest, data: SignIn) -> SessionOut:
    """Sign in."""
    name = User.normalize_username(data.name.strip())
    begun = _begun_here(request)
    user = known(request, name, data.password, SpissusError("password", say("kitchen.do_not_belong")))
    login(request, user)
    session = session_out(request)
    if begun is not None and data.bring:
        member = member_of(request)
        member.require_cook()
        bring_along(begun, member)
    return session


def _begun_here(request: HttpRequest) -> Member | None:
    """Whoever began at once in this browser, in the kitchen that was opened for it, if anybody did."""
    return unclaimed_of(member_of(request).user) if request.user.is_authenticated else None


@router.delete("/session", response=SessionOut)
def sign_out(request: HttpRequest) -> SessionOut:
    """Sign out."""
    end_streams(session_key=request.session.session_key)
    logout(request)
    return session_out(request)


#: Somebody who begins at once, or looks around, is counted; and so are all whom nobody has claimed.
VISITS = PerAddressDone("visit")


@router.post(
    "/session/demo",
    auth=Anyone(),
    response=SessionOut,
    throttle=[VISITS, PerAddress("demo")],
    openapi_extra=may_refuse(404, 409, 429),
)
def enter_demo(request: HttpRequest) -> SessionOut:
    """Step into a demo kitchen of one's own, to look around; whoever is in one stays there."""
    if not settings.DEMO:
        raise Http404
    if _begun_here(request) is not None:
        raise RefusedError(409, say("kitchen.keep_it_first"))
    if request.user.is_authenticated and member_of(request).kitchen.is_demo:
        return session_out(request)
    _refuse_more_visitors()
    cook = step_into(datetime.now(UTC)).user
    VISITS.done(request)
    login(request, cook, backend=BACKEND)
    return session_out(request)


@router.put("/session/password", response=SessionOut, throttle=PerAddress("sign_in"), openapi_extra=may_refuse(429))
def change_password(request: HttpRequest, data: NewPassword) -> SessionOut:
    """Change one's own password.

    Every other session of the same person ends by it.
    """
    user = member_of(request).user
    known(request, user.username, data.old, SpissusError("old", say("kitchen.not_your_password")))
    forgive(user.username, request.axes_ip_address)  # type: ignore[attr-defined]
    refuse_weak(data.new, user, "new")
    user.set_password(data.new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)
    end_streams(person=user.pk)
    return session_out(request)


#: A wrong field costs nobody their turn, but for tries without end.
ACCOUNTS = PerAddressDone("sign_up")


@router.post(
    "/accounts",
    auth=Anyone(),
    response=SessionOut,
    throttle=[ACCOUNTS, PerAddress("sign_in")],
    openapi_extra=may_refuse(429),
)
def sign_up(request: HttpRequest, data: SignUp) -> SessionOut:
    """Sign up with a kitchen of one's own: a new one, or what was begun at once in this browser."""
    name, begun = new_name(data.name), _begun_here(request)
    refuse_weak(data.password, User(username=name), "password")
    try:
        with transaction.atomic():
            if begun is None:
                user = User.objects.create_user(username=name, password=data.password, units=_units_spoken(request))
                open_kitchen(data.kitchen, user, time_zone=_zone(data.time_zone))
            else:
                user = begun.user
                user.username = name
                user.set_password(data.password)
                user.save(update_fields=["username", "password"])
                claim(begun.kitchen, data.kitchen)
    except IntegrityError:
        raise SpissusError("name", say("kitchen.name_taken")) from None
    ACCOUNTS.done(request)
    login(request, user, backend=BACKEND)
    return session_out(request)


def _zone(told: str) -> str:
    return told if zone_of(told) else ""


class Visit(Shape):
    """Somebody begins at once: the time zone of their device."""

    model_config = ConfigDict(extra="forbid")

    time_zone: Annotated[str, Field(max_length=60)] = ""


@router.post(
    "/session/visit",
    auth=Anyone(),
    response=SessionOut,
    throttle=[VISITS, PerAddress("sign_in")],
    openapi_extra=may_refuse(429),
)
def visit(request: HttpRequest, data: Visit) -> SessionOut:
    """Begin at once, with a kitchen that lasts as long as this browser is signed in. Whoever is, stays who they are."""
    if request.user.is_authenticated:
        return session_out(request)
    _refuse_more_visitors()
    with transaction.atomic():
        visitor = newcomer(f"visitor-{get_random_string(16).lower()}")
        visitor.units = _units_spoken(request)
        visitor.save(update_fields=["units"])
        open_to_visitor(visitor, time_zone=_zone(data.time_zone))
    VISITS.done(request)
    login(request, visitor, backend=BACKEND)
    return session_out(request)


def _refuse_more_visitors() -> None:
    if visitors() >= settings.MOST_VISITORS:
        raise RefusedError(429, say("kitchen.too_many_visitors"), retry_s=3600.0)


#: Where the measures of the United States are the usual ones: the languages of browsers there.
US_LANGUAGES = ("en-us", "es-us")


def _units_spoken(request: HttpRequest) -> User.Units:
    """The measures that the language of a browser suggests; one tap changes them."""
    first = request.headers.get("Accept-Language", "").partition(",")[0].partition(";")[0].strip().lower()
    return User.Units.US if first in US_LANGUAGES else User.Units.METRIC


@router.patch("/preferences", response=SessionOut)
def set_preferences(request: HttpRequest, data: Preferences) -> SessionOut:
    """Change one's units."""
    member = member_of(request)
    member.user.units = data.units
    member.user.save(update_fields=["units"])
    request.user = member.user
    return session_out(request)
