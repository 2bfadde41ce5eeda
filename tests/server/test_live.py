"""News of batches: to one's own kitchen only, and never silently lost."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator
from typing import Any

import pytest
from django.db import connection
from django.test import Client
from django.utils import timezone
from live.hub import AGAIN, BACKLOG, Hub, hub
from live.services import CHANNEL, session_mark
from people.models import Session

from .conftest import person


class DeafHub(Hub):
    """A hub that hears only what the test tells it."""

    async def _listen(self) -> None:
        self._hears = True
        self._tell_all(AGAIN)
        await asyncio.sleep(3600)

    def hear(self, kitchen: str, seq: int) -> None:
        self._pass_on(json.dumps({"kitchen": kitchen, "batch": "b", "seq": seq, "live": "", "more": 0}))


async def _next(stream: AsyncIterator[str]) -> str:
    return await asyncio.wait_for(anext(stream), 60)


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


def test_streams_end_at_sign_out_and_when_the_password_changes() -> None:
    async def listen() -> None:
        hub = DeafHub()
        here, there = hub.stream("mine", 1, "here"), hub.stream("mine", 1, "there")
        other = hub.stream("mine", 2, "other")
        for stream in (here, there, other):
            assert await _next(stream) == AGAIN
        assert hub.streams_of(1) == 2
        hub._pass_on(json.dumps({"person": None, "session": session_mark("here")}))
        with pytest.raises(StopAsyncIteration):
            await _next(here)
        hub.hear("mine", 1)
        assert '"seq": 1' in await _next(there)
        hub._pass_on(json.dumps({"person": 1, "session": None}))
        with pytest.raises(StopAsyncIteration):
            await _next(there)
        assert hub.streams_of(1) == 0
        assert '"seq": 1' in await _next(other)
        await other.aclose()  # type: ignore[attr-defined]

    asyncio.run(listen())


@pytest.mark.django_db
def test_nobody_has_more_streams_than_pages(monkeypatch: pytest.MonkeyPatch) -> None:
    cook = person("cook")
    monkeypatch.setattr(hub, "streams_of", lambda person: 20)
    assert cook.get("/stream").status_code == 429


@pytest.mark.django_db(transaction=True)
def test_signing_out_is_told_to_the_streams() -> None:
    cook = person("herald")
    with connection.cursor() as cursor:
        cursor.execute(f"LISTEN {CHANNEL}")
    connection.connection.notifies(timeout=0)
    key = cook.client.session.session_key
    assert cook.client.delete("/api/v1/session").status_code == 200
    told = [json.loads(n.payload) for n in connection.connection.notifies(timeout=1)]
    # What a test before this one set going may still arrive.
    assert [one for one in told if "session" in one] == [{"person": None, "session": session_mark(key)}]


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
    told = [news["seq"] for news in heard if news.get("batch") == batch["id"]]
    assert told[-1:] == [2]
    assert len(set(told)) == len(told)


@pytest.mark.django_db(transaction=True)
def test_streams_end_with_their_session_expired_or_taken_away() -> None:
    cook, other = person("herald"), person("other")
    keys = {one: one.client.session.session_key or "" for one in (cook, other)}
    Session.objects.filter(session_key=keys[cook]).update(expire_date=timezone.now())

    async def listen() -> None:
        hub = DeafHub()
        over, gone, open_still = (hub.stream("mine", 1, key) for key in (keys[cook], "nobody's", keys[other]))
        for stream in (over, gone, open_still):
            assert await _next(stream) == AGAIN
        await hub.end_what_is_over()
        for stream in (over, gone):
            with pytest.raises(StopAsyncIteration):
                await _next(stream)
        hub.hear("mine", 1)
        assert '"seq": 1' in await _next(open_still)
        await open_still.aclose()  # type: ignore[attr-defined]

    asyncio.run(listen())


@pytest.mark.django_db
def test_a_member_without_a_kitchen_is_answered() -> None:
    cook = person("cook")
    cook.user.memberships.all().delete()
    assert cook.get("/stream").status_code == 403
