"""A forgotten password: by a code that was kept for it, or by one that an owner hands over."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import authenticate, login
from django.contrib.auth.backends import ModelBackend
from django.db import transaction
from django.db.models import Q
from django.http import HttpRequest
from django.utils import timezone
from kitchens.services import member_of
from live.services import end_streams
from ninja import Router
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.codes import Code, digest, drawn
from shared.limits import PerAddress
from shared.refusals import RefusedError, may_refuse, wait_shown
from shared.shapes import Shape
from spissus_core.errors import SpissusError
from spissus_core.messages import say

from .api import BACKEND, Anyone, Password, SessionOut, Username, known, refuse_weak, session_out
from .models import RecoveryCode, User
from .services import RECOVERS

router = Router(auth=SessionAuth(), tags=["recovery"])

#: Codes that somebody is given to keep. Modelling choice.
CODES = 8


class ByCode(ModelBackend):
    """Whoever has a code of that name's; it opens once. Wrong ones are counted as wrong passwords are."""

    def authenticate(  # type: ignore[override]  # by another thing than a password
        self, request: Any, username: str | None = None, recovery_code: str | None = None, **more: Any
    ) -> User | None:
        if username is None or recovery_code is None:
            return None
        open_still = Q(expires_at=None) | Q(expires_at__gt=timezone.now())
        found = RecoveryCode.objects.select_for_update().select_related("person")
        row = found.filter(
            open_still, person__username__iexact=username, digest=digest(RECOVERS, recovery_code)
        ).first()
        if row is None or not self.user_can_authenticate(row.person):
            return None
        row.delete()
        return row.person


class CodesLeftOut(Shape):
    """How many codes for a forgotten password somebody has still."""

    left: int


class CodesOut(Shape):
    """New codes, shown this once; earlier ones open nothing any more."""

    codes: list[str]


class CodesIn(Shape):
    """The password, before new codes are drawn."""

    model_config = ConfigDict(extra="forbid")

    password: Password


class RecoverIn(Shape):
    """A name, a code of its own, and the password from now on."""

    model_config = ConfigDict(extra="forbid")

    name: Username
    code: Code
    password: Password


@router.get("/me/codes", response=CodesLeftOut)
def codes_left(request: HttpRequest) -> CodesLeftOut:
    """How many codes one has still."""
    return CodesLeftOut(left=RecoveryCode.objects.filter(person=member_of(request).user, expires_at=None).count())


@router.post("/me/codes", response=CodesOut, throttle=PerAddress("sign_in"), openapi_extra=may_refuse(429))
def draw_codes(request: HttpRequest, data: CodesIn) -> CodesOut:
    """Codes to keep for a forgotten password. They take the place of earlier ones."""
    user = member_of(request).user
    known(request, user.username, data.password, SpissusError("password", say("kitchen.not_your_password")))
    codes = [drawn() for _ in range(CODES)]
    with transaction.atomic():
        RecoveryCode.objects.filter(person=user, expires_at=None).delete()
        RecoveryCode.objects.bulk_create(RecoveryCode(person=user, digest=digest(RECOVERS, one)) for one in codes)
    return CodesOut(codes=codes)


@router.post(
    "/session/recovery",
    auth=Anyone(),
    response=SessionOut,
    throttle=PerAddress("sign_in"),
    openapi_extra=may_refuse(429),
)
def recover(request: HttpRequest, data: RecoverIn) -> SessionOut:
    """Sign in by a code, with a new password from now on; everywhere else one is signed out."""
    name = User.normalize_username(data.name.strip())
    refuse_weak(data.password, User(username=name), "password")
    with transaction.atomic():
        user = authenticate(request, username=name, recovery_code=data.code)
        wait_s = getattr(request, "held_up_s", 0.0)
        if isinstance(user, User):
            user.set_password(data.password)
            user.save(update_fields=["password"])
    if wait_s > 0.0:
        raise RefusedError(429, say("kitchen.wrong_passwords", wait=wait_shown(wait_s)), retry_s=wait_s)
    if not isinstance(user, User):
        raise SpissusError("code", say("kitchen.no_such_recovery"))
    end_streams(person=user.pk)
    login(request, user, backend=BACKEND)
    return session_out(request)
