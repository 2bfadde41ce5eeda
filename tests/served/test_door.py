"""At the door: bodies by their size, those who dawdle, guessed passwords, and what every answer carries."""

from __future__ import annotations

import json
import socket
import time
from collections.abc import Iterator
from http.client import HTTPConnection
from typing import Any
from urllib.parse import urlsplit

import pytest
from running import Site


@pytest.fixture(scope="module")
def site() -> Iterator[Site]:
    running = Site("spissus_door")
    running.env |= {"SPISSUS_BODY_SECONDS": "1", "SPISSUS_HEAD_SECONDS": "1", "SPISSUS_HTTPS": "1"}
    running.start()
    try:
        yield running
    finally:
        running.stop()
    assert running.faults() == []


def spoken(site: Site, *pieces: bytes, pause: float = 0.0) -> tuple[bytes, float]:
    """What comes back when ``pieces`` are said, and after how many seconds the other side is gone."""
    with socket.create_connection(("127.0.0.1", urlsplit(site.url).port or 0), timeout=15) as line:
        began = time.monotonic()
        for piece in pieces:
            line.sendall(piece)
            time.sleep(pause)
        heard = b""
        while some := _heard(line):
            heard += some
        return heard, time.monotonic() - began


def _heard(line: socket.socket) -> bytes:
    try:
        return line.recv(65536)
    except ConnectionError:
        return b""


HEAD = b"POST /api/v1/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"


def test_a_body_is_refused_by_its_size_before_it_comes(site: Site) -> None:
    heard, seconds = spoken(site, HEAD + b"Content-Length: 5000000000\r\n\r\n")
    assert heard.startswith(b"HTTP/1.1 413")
    assert b"application/problem+json" in heard
    assert seconds < 5
    assert spoken(site, HEAD + b"Content-Length: 1x\r\n\r\n")[0][:12] in (b"HTTP/1.1 400", b"HTTP/1.1 413")


def test_a_body_without_a_size_is_counted_as_it_comes(site: Site) -> None:
    chunk = b"10000\r\n" + b"x" * 0x10000 + b"\r\n"
    heard, _ = spoken(site, HEAD + b"Transfer-Encoding: chunked\r\n\r\n", *[chunk] * 6)
    assert heard.startswith(b"HTTP/1.1 413")


def test_whoever_dawdles_is_let_go(site: Site) -> None:
    heard, seconds = spoken(site, HEAD + b"Content-Length: 100\r\n\r\n{", b'"name":')
    assert heard.startswith(b"HTTP/1.1 408")
    assert seconds < 8
    for head in (b"", b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "):
        heard, seconds = spoken(site, head)
        assert heard == b""
        assert seconds < 8


def test_an_idle_connection_ends(site: Site) -> None:
    heard, seconds = spoken(site, b"GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
    assert heard.startswith(b"HTTP/1.1 200")
    assert seconds < 12


def told(site: Site, method: str, path: str, body: Any = None, *, address: str = "10.0.0.1", **more: str) -> Any:
    """Status, headers and body, as seen from an address behind the proxy on this machine."""
    line = HTTPConnection("127.0.0.1", urlsplit(site.url).port, timeout=30)
    headers = {"X-Forwarded-For": address, "X-Forwarded-Proto": "https", "Content-Type": "application/json"} | more
    line.request(method, path, None if body is None else json.dumps(body), headers)
    answer = line.getresponse()
    text = answer.read()
    line.close()
    return answer.status, answer.headers, json.loads(text) if text[:1] in (b"{", b"[") else text


def csrf(site: Site) -> dict[str, str]:
    """What the page sends so that it is known for ours."""
    _, headers, _ = told(site, "GET", "/")
    token = headers["Set-Cookie"].split("csrftoken=")[1].split(";")[0]
    return {"Cookie": f"csrftoken={token}", "X-CSRFToken": token, "Referer": "https://127.0.0.1/"}


def test_wrong_passwords_hold_up_their_own_address_only(site: Site) -> None:
    page = csrf(site)
    person = {"name": "guessed", "password": "a long enough secret"}
    status, *_ = told(site, "POST", "/api/v1/accounts", person | {"kitchen": "Corner"}, **page)
    assert status == 200
    for _ in range(25):
        status, *_ = told(site, "POST", "/api/v1/session", person | {"password": "wrong"}, **page)
        assert status in (422, 429)
    status, _, answer = told(site, "POST", "/api/v1/session", person, **page)
    assert status == 429
    assert "Wait a minute" in answer["detail"]
    began = time.monotonic()
    status, *_ = told(site, "POST", "/api/v1/session", person, address="10.0.0.2", **page)
    assert status == 200
    # A quiet core takes a tenth of this.
    assert time.monotonic() - began < 3


def test_sign_ups_from_one_address_are_counted(site: Site) -> None:
    page = csrf(site)
    person = {"name": "x", "password": "short", "kitchen": "Corner"}
    answers = [told(site, "POST", "/api/v1/accounts", person, address="10.0.0.9", **page) for _ in range(31)]
    assert [status for status, *_ in answers[:30]] == [422] * 30
    status, headers, answer = answers[30]
    assert status == 429
    assert int(headers["Retry-After"]) > 0
    assert "Try again in" in answer["detail"]


def test_what_every_answer_carries(site: Site) -> None:
    status, page, _ = told(site, "GET", "/")
    assert status == 200
    policy = page["Content-Security-Policy"]
    assert "unsafe" not in policy
    assert "default-src 'none'" in policy
    assert "frame-ancestors 'none'" in policy
    assert "max-age=" in page["Strict-Transport-Security"]
    assert "geolocation=()" in page["Permissions-Policy"]
    assert page["X-Content-Type-Options"] == "nosniff"
    assert "Secure" in page["Set-Cookie"]
    _, answer, _ = told(site, "GET", "/api/v1/session")
    assert answer["Cache-Control"] == "no-store"
    assert "Server" not in answer


def test_what_the_build_left_over_is_not_served(site: Site) -> None:
    for path in (".vite/manifest.json", "manifest.json", "../manifest.json", ".stamp", "../.stamp"):
        assert told(site, "GET", f"/static/{path}")[0] == 404
    status, _, text = told(site, "GET", "/static/licences.md")
    assert status == 200
    assert b"SIL OPEN FONT LICENSE" in text.upper()
    assert b"react-dom" in text
