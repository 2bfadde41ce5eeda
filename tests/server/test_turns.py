"""Requests wait their turn, and are told at once when the database is found away while they wait."""

from __future__ import annotations

from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from itertools import count
from threading import Barrier, Event, Lock, current_thread, main_thread
from typing import Any

import pytest
from config.middleware import ALIVE, in_turn
from config.problems import unavailable
from django.http import HttpRequest, HttpResponse


def asked(path: str) -> HttpRequest:
    request = HttpRequest()
    request.path = path
    return request


def all_at_once(middleware: Callable[[HttpRequest], HttpResponse], many: int) -> list[int]:
    """So many requests that arrive at the same moment; their statuses."""
    together = Barrier(many)

    def one(_: int) -> int:
        together.wait(timeout=20)
        return middleware(asked("/api/v1/session")).status_code

    with ThreadPoolExecutor(many) as pool:
        return list(pool.map(one, range(many)))


def test_no_more_are_worked_at_than_there_is_room_for(settings: Any) -> None:
    settings.REQUESTS_AT_ONCE = 3
    lock, inside, most = Lock(), [0], [0]
    full = Barrier(3)

    def view(_: HttpRequest) -> HttpResponse:
        with lock:
            inside[0] += 1
            most[0] = max(most[0], inside[0])
        full.wait(timeout=20)  # nobody leaves before the room is full
        with lock:
            inside[0] -= 1
        return HttpResponse()

    assert all_at_once(in_turn(view), 12) == [200] * 12
    assert most[0] == 3


def test_what_waited_while_the_database_was_found_away_does_not_find_it_again(
    settings: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    settings.REQUESTS_AT_ONCE = 1
    tried: list[str] = []
    came, moments = Event(), count()

    def clock() -> int:
        if current_thread() is not main_thread():
            came.set()
        return next(moments)

    monkeypatch.setattr("config.middleware.monotonic", clock)
    with ThreadPoolExecutor(1) as pool:
        later: list[Future[HttpResponse]] = []

        def view(request: HttpRequest) -> HttpResponse:
            tried.append(request.path)
            if request.path == "/first":
                later.append(pool.submit(middleware, asked("/second")))
                assert came.wait(timeout=20)
            return unavailable()

        middleware = in_turn(view)
        assert middleware(asked("/first")).status_code == 503
        assert later[0].result(timeout=20).status_code == 503
        assert tried == ["/first"]
        # Whoever comes later tries anew.
        assert middleware(asked("/third")).status_code == 503
        assert tried == ["/first", "/third"]


def test_whether_it_is_alive_is_told_at_once(settings: Any) -> None:
    settings.REQUESTS_AT_ONCE = 1
    busy = Barrier(2)

    def view(request: HttpRequest) -> HttpResponse:
        if request.path != ALIVE:
            busy.wait(timeout=20)  # until health was answered
        return HttpResponse()

    middleware = in_turn(view)
    with ThreadPoolExecutor(1) as pool:
        other = pool.submit(middleware, asked("/api/v1/session"))
        assert middleware(asked(ALIVE)).status_code == 200
        busy.wait(timeout=20)
        assert other.result(timeout=20).status_code == 200


def test_what_is_refused_for_another_reason_says_nothing_of_the_database(settings: Any) -> None:
    settings.REQUESTS_AT_ONCE = 1
    together = Barrier(2)

    def view(request: HttpRequest) -> HttpResponse:
        if request.path == "/first":
            together.wait(timeout=60)
            return HttpResponse(status=503)
        return HttpResponse()

    middleware = in_turn(view)
    with ThreadPoolExecutor(2) as pool:
        first = pool.submit(middleware, asked("/first"))
        second = pool.submit(middleware, asked("/second"))
        together.wait(timeout=60)
        assert (first.result(timeout=60).status_code, second.result(timeout=60).status_code) == (503, 200)
