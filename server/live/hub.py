"""One ear per process: a single LISTEN connection, whose news goes out to every open stream.

The process holds nothing that could be lost: a stream that missed something is told to ask again.
"""

from __future__ import annotations

import asyncio
import json
import logging
from collections.abc import AsyncIterator
from contextlib import contextmanager
from typing import Any

import psycopg
from django.db import connections

from .services import CHANNEL

log = logging.getLogger(__name__)

#: A comment goes out this often, so that a dead connection is noticed, s.
HEARTBEAT_S = 15.0
#: A page that does not keep up is told to ask again instead, messages.
BACKLOG = 50
#: Pause before listening again after the database went away, s.
RETRY_S = 0.5

#: Sent where news may have been missed.
AGAIN = "event: again\ndata: {}\n\n"


class Hub:
    """The streams of one process, by kitchen."""

    def __init__(self) -> None:
        self._streams: dict[str, set[asyncio.Queue[str]]] = {}
        self._ear: asyncio.Task[None] | None = None

    async def stream(self, kitchen: str) -> AsyncIterator[str]:
        """News for one page of a kitchen, for as long as it listens."""
        with self._joined(kitchen) as queue:
            yield AGAIN
            while True:
                try:
                    yield await asyncio.wait_for(queue.get(), HEARTBEAT_S)
                except TimeoutError:
                    yield ": still here\n\n"

    @contextmanager
    def _joined(self, kitchen: str) -> Any:
        queue: asyncio.Queue[str] = asyncio.Queue(BACKLOG)
        self._streams.setdefault(kitchen, set()).add(queue)
        if self._ear is None or self._ear.done():
            self._ear = asyncio.get_running_loop().create_task(self._listen())
        try:
            yield queue
        finally:
            self._streams[kitchen].discard(queue)
            if not self._streams[kitchen]:
                del self._streams[kitchen]

    async def _listen(self) -> None:
        """Listen while anyone does; come back by itself when the database went away."""
        while self._streams:
            try:
                async with await psycopg.AsyncConnection.connect(**_where(), autocommit=True) as connection:
                    await connection.execute(f"LISTEN {CHANNEL}")
                    self._tell_all(AGAIN)
                    while self._streams:
                        async for notify in connection.notifies(timeout=HEARTBEAT_S):
                            self._pass_on(notify.payload)
            except (psycopg.Error, OSError) as error:
                log.info("The database does not answer, listening again: %s", error)
                await asyncio.sleep(RETRY_S)

    def _pass_on(self, payload: str) -> None:
        news = json.loads(payload)
        text = f"event: batch\ndata: {json.dumps({'id': news['batch'], 'seq': news['seq']})}\n\n"
        for queue in self._streams.get(news["kitchen"], ()):
            _put(queue, text)

    def _tell_all(self, text: str) -> None:
        for queues in self._streams.values():
            for queue in queues:
                _put(queue, text)


def _put(queue: asyncio.Queue[str], text: str) -> None:
    if queue.full():
        while not queue.empty():
            queue.get_nowait()
        text = AGAIN
    queue.put_nowait(text)


def _where() -> dict[str, Any]:
    """How to reach the database that the rest of the process uses."""
    settings = connections["default"].settings_dict
    names = {"HOST": "host", "PORT": "port", "NAME": "dbname", "USER": "user", "PASSWORD": "password"}
    return {ours: settings[theirs] for theirs, ours in names.items() if settings[theirs]}


hub = Hub()
