"""Telling other processes, and through them the pages, that something happened to a batch."""

from __future__ import annotations

import json
from uuid import UUID

from django.db import connection

#: The channel of PostgreSQL that carries the news.
CHANNEL = "spissus_batches"


def announce(kitchen_id: UUID, batch_id: UUID, seq: int | None = None) -> None:
    """Say that a batch changed; heard when the transaction is committed, and only then.

    ``seq`` is the number of its newest event; None where a device read something.
    """
    news = json.dumps({"kitchen": str(kitchen_id), "batch": str(batch_id), "seq": seq})
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_notify(%s, %s)", [CHANNEL, news])
