"""What passes before Django sees it: the size of a body, and how long anyone may take to send it."""

from __future__ import annotations

import asyncio
from collections.abc import Awaitable, Callable, MutableMapping
from typing import Any

from django.conf import settings
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol

from .problems import problem

Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Message, Receive, Send], Awaitable[None]]


class _TurnedAwayError(Exception):
    """A body that is too large, or too slow."""

    def __init__(self, status: int) -> None:
        super().__init__(status)
        self.status = status


class Door:
    """Refuses a body by its size before it is stored anywhere, and one that never ends."""

    def __init__(self, app: App) -> None:
        self.app = app

    async def __call__(self, scope: Message, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE
        stated = next((value for name, value in scope["headers"] if name == b"content-length"), b"0")
        started = False

        async def counting() -> Message:
            return await body.next()

        async def sending(message: Message) -> None:
            nonlocal started
            started = True
            await send(message)

        body = _Body(receive, most, asyncio.get_running_loop().time() + settings.BODY_S)
        try:
            if not stated.isdigit() or int(stated) > most:
                raise _TurnedAwayError(413)
            await self.app(scope, counting, sending)
        except _TurnedAwayError as away:
            if not started:
                await _answer(send, away.status)


class _Body:
    """The body of one request as it comes in."""

    def __init__(self, receive: Receive, most: int, by: float) -> None:
        self._receive, self._left, self._by = receive, most, by
        self._complete = False

    async def next(self) -> Message:
        if self._complete:
            return await self._receive()
        try:
            async with asyncio.timeout_at(self._by):
                message = await self._receive()
        except TimeoutError:
            raise _TurnedAwayError(408) from None
        self._left -= len(message.get("body", b""))
        if self._left < 0:
            raise _TurnedAwayError(413)
        self._complete = message["type"] != "http.request" or not message.get("more_body", False)
        return message


async def _answer(send: Send, status: int) -> None:
    answer = problem(status)
    headers = [(name.lower().encode(), value.encode()) for name, value in answer.items()]
    headers += [(b"connection", b"close"), (b"content-length", str(len(answer.content)).encode())]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": answer.content})


class PatientProtocol(HttpToolsProtocol):
    """uvicorn's own protocol, which does not wait for ever for the head of a request."""

    _deadline: asyncio.TimerHandle | None = None

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Somebody is there, and is expected to say what they want."""
        super().connection_made(transport)
        self._expect()

    def connection_lost(self, exc: Exception | None) -> None:
        """Nobody is there any more."""
        self._expected()
        super().connection_lost(exc)

    def on_message_begin(self) -> None:
        """Another request begins on the same connection."""
        super().on_message_begin()
        self._expect()

    def on_headers_complete(self) -> None:
        """The head is here."""
        self._expected()
        super().on_headers_complete()

    def _expect(self) -> None:
        if self._deadline is None:
            self._deadline = self.loop.call_later(settings.HEAD_S, self._let_go)

    def _expected(self) -> None:
        if self._deadline is not None:
            self._deadline.cancel()
            self._deadline = None

    def _let_go(self) -> None:
        self._deadline = None
        if not self.transport.is_closing():
            self.transport.close()
