"""Sessions that know whose they are: who is signed in, and in which kitchen, comes with one query."""

from __future__ import annotations

from functools import partial
from typing import Any, cast

from django.contrib.auth import HASH_SESSION_KEY, SESSION_KEY
from django.contrib.auth.middleware import AuthenticationMiddleware
from django.contrib.auth.middleware import get_user as looked_up
from django.contrib.auth.models import AnonymousUser
from django.contrib.sessions.backends import db
from django.db.models import F
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import constant_time_compare
from django.utils.functional import SimpleLazyObject

from .models import Membership, Session, User


class SessionStore(db.SessionStore):
    """Django's sessions in the database, each found together with its person's first membership."""

    membership: Membership | None = None

    @classmethod
    def get_model_class(cls) -> type[Session]:
        return Session

    def create_model_instance(self, data: dict[str, Any]) -> Session:
        row = cast(Session, super().create_model_instance(data))
        row.person_id = data.get(SESSION_KEY)
        return row

    def load(self) -> dict[str, Any]:
        found = (
            Membership.objects.filter(user__session__session_key=self.session_key)
            .annotate(data=F("user__session__session_data"), expires=F("user__session__expire_date"))
            .select_related("user", "kitchen")
            .order_by("pk")
            .first()
        )
        if found is None or found.expires <= timezone.now():
            # Nobody's yet, of somebody without a kitchen, or over: as ever.
            return super().load()
        self.membership = found
        return self.decode(found.data)


class WhoMiddleware(AuthenticationMiddleware):
    """Put the person behind a request into it, without asking for them again."""

    def process_request(self, request: HttpRequest) -> None:
        super().process_request(request)
        request.user = SimpleLazyObject(partial(_signed_in, request))  # type: ignore[assignment]


def _signed_in(request: HttpRequest) -> User | AnonymousUser:
    """Who is signed in. A session whose password was changed since is Django's to judge, as is any other."""
    told = request.session.get(HASH_SESSION_KEY, "")
    membership: Membership | None = getattr(request.session, "membership", None)
    if membership is not None and constant_time_compare(told, membership.user.get_session_auth_hash()):
        membership.user.first_membership = membership
        return membership.user
    return looked_up(request)
