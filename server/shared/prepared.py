"""Queries that are put together once: for what every request asks, the query builder takes longer than the database."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache
from typing import Any
from uuid import UUID, uuid4

from django.db import connection
from django.db.models import QuerySet


def prepared(build: Callable[[UUID], QuerySet[Any, Any]]) -> Callable[[UUID], list[tuple[Any, ...]]]:
    """The rows of a query by one id, each as a tuple of the values it lists.

    Parameters
    ----------
    build : makes the query for an id; the id must be its only parameter.
    """
    anybody = uuid4()

    @cache
    def statement() -> str:
        sql, parameters = build(anybody).query.sql_with_params()
        assert tuple(parameters) == (anybody,)
        return str(sql)

    def rows(key: UUID) -> list[tuple[Any, ...]]:
        with connection.cursor() as cursor:
            cursor.execute(statement(), [key])
            return list(cursor.fetchall())

    return rows
