"""Whether the service is alive, and whether it can serve."""

from __future__ import annotations

from typing import Literal

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse
from ninja import Router
from shared.shapes import Shape
from spissus_core.messages import say
from words import plain

from .problems import problem

router = Router(tags=["service"])


class AliveOut(Shape):
    """The process answers."""

    status: Literal["alive"] = "alive"


class ReadyOut(Shape):
    """The database answers, and its tables are those of this version."""

    database: Literal["ok"] = "ok"
    migrations: Literal["ok"] = "ok"


@router.get("/health", auth=None, response=AliveOut)
def health(request: HttpRequest) -> AliveOut:
    """Whether the process is alive.

    The cheapest request there is: it asks for nothing.
    """
    return AliveOut()


@router.get("/ready", auth=None, response=ReadyOut)
def ready(request: HttpRequest) -> ReadyOut | HttpResponse:
    """Whether it can serve: database and migrations.

    503 while the database is away (as everywhere), or waits for its migrations.
    """
    executor = MigrationExecutor(connection)
    waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    if waiting:
        names = ", ".join(f"{migration.app_label} {migration.name}" for migration, _ in waiting)
        return problem(503, plain(say("problems.waits_for_migrations", names=names)))
    return ReadyOut()
