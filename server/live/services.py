"""Telling other processes, and through them the pages, that something happened to a batch."""

from __future__ import annotations

import hashlib
import json
import zlib
from base64 import b64decode, b64encode
from typing import Any
from uuid import UUID

from django.db import connection

#: The channel of PostgreSQL that carries the news.
CHANNEL = "spissus_batches"


#: PostgreSQL carries a little less than 8,000 bytes in one notification; larger news come in pieces.
PIECE = 7500


def announce(kitchen_id: UUID, batch_id: UUID, seq: int | None = None, live: str | None = None) -> None:
    """Say that a batch changed; heard when the transaction is committed, and only then.

    ``seq`` is the number of its newest event; None where a device read something. ``live`` is what has
    changed by it, as JSON, so that pages need not ask.
    """
    packed = "" if live is None else b64encode(zlib.compress(live.encode())).decode()
    pieces = [packed[i : i + PIECE] for i in range(0, len(packed), PIECE)] or [""]
    for i, piece in enumerate(pieces):
        more = len(pieces) - 1 - i
        _notify({"kitchen": str(kitchen_id), "batch": str(batch_id), "seq": seq, "live": piece, "more": more})


def unpacked(live: str) -> str:
    """What :func:`announce` packed, its pieces put together again."""
    return zlib.decompress(b64decode(live)).decode()


def session_mark(session_key: str) -> str:
    """What a session is called outside its cookie."""
    return hashlib.sha256(session_key.encode()).hexdigest()[:20]


def end_streams(*, person: int | None = None, session_key: str | None = None) -> None:
    """End the open streams of a session that was signed out, or all of a person's; those still signed in come back."""
    _notify({"person": person, "session": session_mark(session_key) if session_key else None})


def _notify(news: dict[str, Any]) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SELECT pg_notify(%s, %s)", [CHANNEL, json.dumps(news)])
