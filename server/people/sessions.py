"""Sessions that know whose they are: who is signed in, and in which kitchen, comes with one query."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache, partial
from typing import Any, cast

from django.apps import apps
from django.contrib.auth import HASH_SESSION_KEY, SESSION_KEY
from django.contrib.auth.middleware import AuthenticationMiddleware
from django.contrib.auth.middleware import get_user as looked_up
from django.contrib.auth.models import AnonymousUser
from django.contrib.sessions.backends import db
from django.db import connection
from django.db.models import Field, Model
from django.http import HttpRequest
from django.utils import timezone
from django.utils.crypto import constant_time_compare
from django.utils.functional import SimpleLazyObject

from .models import Session, User

#: What a session calls the kitchen that it works in.
KITCHEN_KEY = "kitchen"


class SessionStore(db.SessionStore):
    """Django's sessions in the database, each found together with its person's membership in the kitchen that it works
    in, or in the first."""

    membership: Any = None

    @classmethod
    def get_model_class(cls) -> type[Session]:
        return Session

    def create_model_instance(self, data: dict[str, Any]) -> Session:
        row = cast(Session, super().create_model_instance(data))
        row.person_id, row.kitchen = data.get(SESSION_KEY), data.get(KITCHEN_KEY)
        return row

    def load(self) -> dict[str, Any]:
        """What the session holds; whose it is stands in ``membership`` then."""
        with connection.cursor() as cursor:
            cursor.execute(_statement(), [self.session_key, timezone.now()])
            row = cursor.fetchone()
        if row is None:
            # Nobody's yet, of somebody without a kitchen, or over: as ever.
            return super().load()
        data, *values = row
        found: dict[str, Any] = {}
        for model, fields in _fields():
            mine, values = values[: len(fields)], values[len(fields) :]
            mine = [_as_python(field, value) for field, value in zip(fields, mine, strict=True)]
            found[model.__name__] = model.from_db(connection.alias, [f.attname for f in fields], mine)
        self.membership = found["Membership"]
        self.membership.user, self.membership.kitchen = found["User"], found["Kitchen"]
        return self.decode(data)


def _as_python(field: Field[Any, Any], value: Any) -> Any:
    """A value as its field has it: the query builder would convert what the database gives, too."""
    for convert in field.get_db_converters(connection):
        value = convert(value, None, connection)
    return value


def _tables() -> tuple[type[Model], type[Model], type[Model]]:
    """Where a person works stands in rows of the kitchens; read with the person they need no query of their own."""
    return apps.get_model("kitchens", "Membership"), User, apps.get_model("kitchens", "Kitchen")


@cache
def _fields() -> list[tuple[type[Model], Sequence[Field[Any, Any]]]]:
    return [(model, model._meta.concrete_fields) for model in _tables()]


@cache
def _statement() -> str:
    """The one query of every request, put together once: the query builder takes longer than the database."""
    columns = ", ".join(f'"{m._meta.db_table}"."{f.column}"' for m, fields in _fields() for f in fields)
    member, user, kitchen, session = (m._meta.db_table for m in (*_tables(), Session))
    return (
        f'SELECT "{session}"."session_data", {columns} FROM "{session}" '
        f'JOIN "{user}" ON "{user}"."id" = "{session}"."person_id" '
        f'JOIN "{member}" ON "{member}"."user_id" = "{user}"."id" '
        f'JOIN "{kitchen}" ON "{kitchen}"."id" = "{member}"."kitchen_id" '
        f'WHERE "{session}"."session_key" = %s AND "{session}"."expire_date" > %s '
        f'ORDER BY ("{member}"."kitchen_id" = "{session}"."kitchen") DESC NULLS LAST, "{member}"."id" LIMIT 1'
    )


class WhoMiddleware(AuthenticationMiddleware):
    """Put the person behind a request into it, without asking for them again."""

    def process_request(self, request: HttpRequest) -> None:
        super().process_request(request)
        request.user = SimpleLazyObject(partial(_signed_in, request))  # type: ignore[assignment]


def _signed_in(request: HttpRequest) -> User | AnonymousUser:
    """Who is signed in. A session whose password was changed since is Django's to judge, as is any other."""
    told = request.session.get(HASH_SESSION_KEY, "")
    membership: Any = getattr(request.session, "membership", None)
    if membership is not None and constant_time_compare(told, membership.user.get_session_auth_hash()):
        person: User = membership.user
        person.first_membership = membership
        return person
    return looked_up(request)
