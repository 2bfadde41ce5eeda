"""What passes before Django sees it: sizes, how long anyone may take to say what they want, and who waits in line."""

from __future__ import annotations

import asyncio
from collections import Counter
from collections.abc import AsyncIterator, Awaitable, Callable, MutableMapping
from contextlib import AsyncExitStack, asynccontextmanager, nullcontext
from ipaddress import ip_address
from typing import Any

from django.conf import settings
from spissus_core.messages import Message as Said
from spissus_core.messages import say
from uvicorn.protocols.http.httptools_impl import HttpToolsProtocol
from words import plain

from .problems import problem

Message = MutableMapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Message, Receive, Send], Awaitable[None]]


#: Where a password is hashed, which is slow on purpose: method and path.
HASHES = {("POST", "/api/v1/session"), ("POST", "/api/v1/accounts"), ("PUT", "/api/v1/session/password")}


class _TurnedAwayError(Exception):
    """A body that is too large or too slow, or somebody who waited too long in line."""

    def __init__(self, status: int, said: Said | None = None) -> None:
        super().__init__(status)
        self.status, self.said = status, said


def by_known_addresses(app: App) -> App:
    """Leave out what a proxy says of an address where it names none: then its own address counts."""

    async def looked_at(scope: Message, receive: Receive, send: Send) -> None:
        told = [value for name, value in scope.get("headers", ()) if name == FORWARDED]
        if told and not _addresses(b",".join(told).decode("latin1")):
            scope["headers"] = [(name, value) for name, value in scope["headers"] if name != FORWARDED]
        await app(scope, receive, send)

    return looked_at


#: The header in which a proxy says whom it speaks for.
FORWARDED = b"x-forwarded-for"


def _addresses(told: str) -> bool:
    try:
        return all(ip_address(one.strip()) for one in told.split(","))
    except ValueError:
        return False


class Line:
    """Those who wait to have a password hashed: few at once in a process, and one at a time from one address.

    A crowd at the door must not take the processor from those who cook. Whoever waits here holds neither a thread
    nor a connection.
    """

    def __init__(self) -> None:
        self._at_all = asyncio.Semaphore(settings.HASHED_AT_ONCE)
        self._by_address: dict[str, asyncio.Lock] = {}
        self._here: Counter[str] = Counter()

    @asynccontextmanager
    async def turn(self, address: str) -> AsyncIterator[None]:
        """Wait for one's turn. Raises _TurnedAwayError (429) after ``settings.HASH_PATIENCE_S``."""
        self._here[address] += 1
        mine = self._by_address.setdefault(address, asyncio.Lock())
        try:
            async with AsyncExitStack() as turns:
                try:
                    async with asyncio.timeout(settings.HASH_PATIENCE_S):
                        await turns.enter_async_context(mine)
                        await turns.enter_async_context(self._at_all)
                except TimeoutError:
                    raise _TurnedAwayError(429, say("kitchen.too_many_sign_in")) from None
                yield
        finally:
            self._here[address] -= 1
            if not self._here[address]:
                del self._here[address], self._by_address[address]


class Door:
    """Refuses a body by its size before it is stored anywhere, and one that never ends; keeps the line at the door."""

    def __init__(self, app: App) -> None:
        self.app = app
        self._line = Line()

    async def __call__(self, scope: Message, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        large = scope["path"] in settings.LARGE_BODIES
        most = settings.LARGE_BODY if large else settings.DATA_UPLOAD_MAX_MEMORY_SIZE
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
            address = (scope.get("client") or ("",))[0]
            async with self._line.turn(address) if (scope["method"], scope["path"]) in HASHES else nullcontext():
                await self.app(scope, counting, sending)
        except _TurnedAwayError as away:
            if not started:
                await _answer(send, away)


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


async def _answer(send: Send, away: _TurnedAwayError) -> None:
    status = away.status
    answer = problem(status, plain(away.said) if away.said else "")
    headers = [(name.lower().encode(), value.encode()) for name, value in answer.items()]
    headers += [(b"connection", b"close"), (b"content-length", str(len(answer.content)).encode())]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": answer.content})


#: What is looked at at once of what a connection brings, bytes: a body that comes with a head is not counted as one.
SLICE = 8 * 1024
#: The whole answer to a head that does not end; it is given before anybody knows what was wanted.
TOO_LONG = b"HTTP/1.1 431 Request Header Fields Too Large\r\nConnection: close\r\nContent-Length: 0\r\n\r\n"


class PatientProtocol(HttpToolsProtocol):
    """uvicorn's own protocol, which waits neither for ever for the head of a request, nor for an endless one."""

    _deadline: asyncio.TimerHandle | None = None
    _head = 0

    def connection_made(self, transport: asyncio.Transport) -> None:  # type: ignore[override]
        """Somebody is there, and is expected to say what they want."""
        super().connection_made(transport)
        self._expect()

    def connection_lost(self, exc: Exception | None) -> None:
        """Nobody is there any more."""
        self._expected()
        super().connection_lost(exc)

    def data_received(self, data: bytes) -> None:
        """Take what has come, a slice at a time, for as long as the head is not longer than any of ours."""
        for begin in range(0, len(data), SLICE):
            piece = data[begin : begin + SLICE]
            self._head += len(piece)
            super().data_received(piece)
            if self.transport.is_closing():
                return
            if self._deadline is not None and self._head > settings.HEAD_MOST:
                self.transport.write(TOO_LONG)
                self._let_go()
                return

    def on_message_begin(self) -> None:
        """Another request begins on the same connection."""
        super().on_message_begin()
        self._expect()

    def on_headers_complete(self) -> None:
        """The head is here."""
        self._expected()
        super().on_headers_complete()

    def _expect(self) -> None:
        self._head = 0
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
