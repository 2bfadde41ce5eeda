"""One ear per process: a single LISTEN connection, whose news goes out to every open stream.

The process holds nothing that could be lost: a stream that missed something is told to ask again.
"""

from __future__ import annotations

import asyncio
import json
import logging
from collections.abc import AsyncIterator, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import psycopg
from asgiref.sync import sync_to_async
from django.db import Error as DatabaseError
from django.db import connections
from people.services import sessions_that_last

from .services import CHANNEL, session_mark, unpacked

log = logging.getLogger(__name__)

#: A comment goes out this often, so that a dead connection is noticed, s.
HEARTBEAT_S = 20.0
#: A page that does not keep up is told to ask again instead, messages.
BACKLOG = 50
#: Pause before listening again after the database went away, s.
RETRY_S = 0.5

#: Sent where news may have been missed.
AGAIN = "event: again\ndata: {}\n\n"


@dataclass(frozen=True, slots=True, eq=False)
class Listener:
    """One open page: of which kitchen, whose, by which session, and what it has yet to be told."""

    kitchen: str
    person: int
    session: str
    queue: asyncio.Queue[str | None]


class Hub:
    """The streams of one process."""

    def __init__(self) -> None:
        self._listeners: set[Listener] = set()
        self._ear: asyncio.Task[None] | None = None
        self._hears = False
        self._pieces: dict[str, str] = {}

    def streams_of(self, person: int) -> int:
        """How many streams somebody has open in this process."""
        return sum(one.person == person for one in self._listeners)

    async def stream(self, kitchen: str, person: int = 0, session: str = "") -> AsyncIterator[str]:
        """News for one page of a kitchen, for as long as it listens and its session lasts."""
        with self._joined(Listener(kitchen, person, session, asyncio.Queue(BACKLOG))) as one:
            # Where the ear is not there yet, all are told when it is: once, so that nothing is asked for twice.
            if self._hears:
                yield AGAIN
            while True:
                try:
                    told = await asyncio.wait_for(one.queue.get(), HEARTBEAT_S)
                except TimeoutError:
                    told = ": still here\n\n"
                if told is None:
                    return
                yield told

    @contextmanager
    def _joined(self, one: Listener) -> Iterator[Listener]:
        self._listeners.add(one)
        if self._ear is None or self._ear.done():
            self._ear = asyncio.get_running_loop().create_task(self._listen())
        try:
            yield one
        finally:
            self._listeners.discard(one)

    async def _listen(self) -> None:
        """Listen while anyone does; come back by itself when the database went away."""
        while self._listeners:
            try:
                async with await psycopg.AsyncConnection.connect(**_where(), autocommit=True) as connection:
                    await connection.execute(f"LISTEN {CHANNEL}")
                    self._pieces.clear()
                    self._hears = True
                    self._tell_all(AGAIN)
                    while self._listeners:
                        async for notify in connection.notifies(timeout=HEARTBEAT_S):
                            self._pass_on(notify.payload)
                        await self.end_what_is_over()
            except (psycopg.Error, DatabaseError, OSError) as error:
                log.info("The database does not answer, listening again: %s", error)
                await asyncio.sleep(RETRY_S)
            finally:
                self._hears = False

    def _pass_on(self, payload: str) -> None:
        news = json.loads(payload)
        if "batch" not in news:
            self._end(news["person"], news["session"])
            return
        # The pieces of one piece of news come one after the other: they were sent in one transaction.
        packed = self._pieces.pop(news["batch"], "") + news["live"]
        if news["more"]:
            self._pieces[news["batch"]] = packed
            return
        live = f', "live": {unpacked(packed)}' if packed else ""
        text = f'event: batch\ndata: {{"id": {json.dumps(news["batch"])}, "seq": {json.dumps(news["seq"])}{live}}}\n\n'
        for one in self._listeners:
            if one.kitchen == news["kitchen"]:
                _put(one.queue, text)

    def _end(self, person: int | None, session: str | None) -> None:
        for one in self._listeners:
            if one.person == person or (session is not None and session_mark(one.session) == session):
                _put(one.queue, None)

    async def end_what_is_over(self) -> None:
        """End the streams whose session has expired since, or was taken away without a word."""
        open_here = {one.session for one in self._listeners}
        last = await sync_to_async(sessions_that_last, thread_sensitive=False)(open_here)
        for one in self._listeners:
            if one.session in open_here - last:
                _put(one.queue, None)

    def _tell_all(self, text: str) -> None:
        for one in self._listeners:
            _put(one.queue, text)


def _put(queue: asyncio.Queue[str | None], text: str | None) -> None:
    if queue.full():
        ended = False
        while not queue.empty():
            ended = queue.get_nowait() is None or ended
        text = None if ended or text is None else AGAIN
    queue.put_nowait(text)


def _where() -> dict[str, Any]:
    """How to reach the database that the rest of the process uses."""
    settings = connections["default"].settings_dict
    names = {"HOST": "host", "PORT": "port", "NAME": "dbname", "USER": "user", "PASSWORD": "password"}
    return {ours: settings[theirs] for theirs, ours in names.items() if settings[theirs]}


hub = Hub()
