"""News of batches: to one's own kitchen only, and never silently lost."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from live.hub import AGAIN, BACKLOG, Hub
from live.services import CHANNEL

from .conftest import person


class DeafHub(Hub):
    """A hub that hears only what the test tells it."""

    async def _listen(self) -> None:
        await asyncio.sleep(3600)

    def hear(self, kitchen: str, seq: int) -> None:
        self._pass_on(json.dumps({"kitchen": kitchen, "batch": "b", "seq": seq}))


async def _next(stream: AsyncIterator[str]) -> str:
    return await asyncio.wait_for(anext(stream), 2)


def test_news_go_to_their_kitchen_only_and_in_order() -> None:
    async def listen() -> None:
        hub = DeafHub()
        mine, theirs = hub.stream("mine"), hub.stream("theirs")
        # Whatever happened before the stream was open has to be asked for.
        assert await _next(mine) == AGAIN
        assert await _next(theirs) == AGAIN
        hub.hear("mine", 1)
        hub.hear("mine", 2)
        hub.hear("theirs", 9)
        assert '"seq": 1' in await _next(mine)
        assert '"seq": 2' in await _next(mine)
        assert '"seq": 9' in await _next(theirs)
        await mine.aclose()  # type: ignore[attr-defined]
        hub.hear("mine", 3)
        await theirs.aclose()  # type: ignore[attr-defined]

    asyncio.run(listen())


def test_a_page_that_does_not_keep_up_is_told_to_ask_again() -> None:
    async def listen() -> None:
        hub = DeafHub()
        stream = hub.stream("mine")
        assert await _next(stream) == AGAIN
        for seq in range(BACKLOG + 1):
            hub.hear("mine", seq)
        assert await _next(stream) == AGAIN
        await stream.aclose()  # type: ignore[attr-defined]

    asyncio.run(listen())


@pytest.mark.django_db
def test_the_stream_is_for_members_only() -> None:
    assert Client().get("/api/v1/stream").status_code == 401


@pytest.mark.django_db(transaction=True)
def test_an_event_is_announced_when_it_is_committed() -> None:
    cook = person("herald")
    batch = cook.start()
    with connection.cursor() as cursor:
        cursor.execute(f"LISTEN {CHANNEL}")
    connection.connection.notifies(timeout=0)
    assert cook.record(batch["id"], {"kind": "noted", "text": "x"}).status_code == 200
    refused = cook.record(batch["id"], {"kind": "salted", "salt_g": "-3 g"})
    assert refused.status_code == 422
    heard: list[dict[str, Any]] = [json.loads(n.payload) for n in connection.connection.notifies(timeout=1)]
    told = [news["seq"] for news in heard if news["batch"] == batch["id"]]
    assert told[-1:] == [2]
    assert len(set(told)) == len(told)
