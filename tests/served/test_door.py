"""At the door: bodies by their size, those who dawdle, guessed passwords, and what every answer carries."""

from __future__ import annotations

import json
import socket
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import suppress
from http.client import HTTPConnection
from typing import Any
from urllib.parse import urlsplit

import pytest
from running import PATIENCE_S, Site


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


def spoken(site: Site, *pieces: bytes) -> bytes:
    """What comes back when ``pieces`` are said, until the other side is gone: were it to stay, this would fail."""
    with socket.create_connection(("127.0.0.1", urlsplit(site.url).port or 0), timeout=PATIENCE_S) as line:
        with suppress(ConnectionError):
            for piece in pieces:
                line.sendall(piece)
        heard = b""
        while some := _heard(line):
            heard += some
        return heard


def _heard(line: socket.socket) -> bytes:
    try:
        return line.recv(65536)
    except ConnectionError:
        return b""


HEAD = b"POST /api/v1/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\n"


def test_a_body_is_refused_by_its_size_before_it_comes(site: Site) -> None:
    heard = spoken(site, HEAD + b"Content-Length: 5000000000\r\n\r\n")
    assert heard.startswith(b"HTTP/1.1 413")
    assert b"application/problem+json" in heard
    assert spoken(site, HEAD + b"Content-Length: 1x\r\n\r\n")[:12] in (b"HTTP/1.1 400", b"HTTP/1.1 413")


def test_a_body_without_a_size_is_counted_as_it_comes(site: Site) -> None:
    chunk = b"10000\r\n" + b"x" * 0x10000 + b"\r\n"
    heard = spoken(site, HEAD + b"Transfer-Encoding: chunked\r\n\r\n", *[chunk] * 6)
    assert heard.startswith(b"HTTP/1.1 413")


def test_whoever_dawdles_is_let_go(site: Site) -> None:
    heard = spoken(site, HEAD + b"Content-Length: 100\r\n\r\n{", b'"name":')
    assert heard.startswith(b"HTTP/1.1 408")
    for head in (b"", b"GET / HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Slow: "):
        assert spoken(site, head) == b""


def test_a_head_that_does_not_end_is_not_listened_to(site: Site) -> None:
    begun = b"GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\n"
    for endless in (b"X-Long: " + b"a" * 100_000, b"X-Many: a\r\n" * 10_000, b"X" * 100_000):
        assert spoken(site, begun + endless).startswith(b"HTTP/1.1 431")
    # What comes with a head in one piece is no head; and the next head on a line is counted from its own beginning.
    body = b"Content-Length: 90000\r\n\r\n" + b" " * 90_000
    assert not spoken(site, HEAD + body + HEAD + body).startswith(b"HTTP/1.1 431")


def test_an_idle_connection_ends(site: Site) -> None:
    heard = spoken(site, b"GET /api/v1/health HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
    assert heard.startswith(b"HTTP/1.1 200")


def told(site: Site, method: str, path: str, body: Any = None, *, address: str = "10.0.0.1", **more: str) -> Any:
    """Status, headers and body, as seen from an address behind the proxy on this machine."""
    line = HTTPConnection("127.0.0.1", urlsplit(site.url).port, timeout=PATIENCE_S)
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


@pytest.mark.parametrize("wrong", ["unknown", "10.0.0.1, proxy", "::ffff:", "\xff", "10.0.0.1'--", "a" * 9000, ","])
def test_what_is_no_address_counts_as_the_proxys_own(site: Site, wrong: str) -> None:
    page = csrf(site)
    body = {"name": "nobody-here", "password": "wrong"}
    assert told(site, "POST", "/api/v1/session", body, address=wrong, **page)[0] == 422
    assert told(site, "GET", "/api/v1/session", address=wrong)[0] == 200


HOSTILE = {
    "Accept": "\xff\xfe",
    "Accept-Language": "en" * 3000,
    "Authorization": "Bearer \xff",
    "Content-Length": "0",
    "Cookie": "sessionid=%00; csrftoken=\xff",
    "Host": "127.0.0.1",
    "If-None-Match": "\xff",
    "Range": "bytes=9-1",
    "Referer": "https://127.0.0.1:99999999/",
    "X-CSRFToken": "\xff" * 70,
    "X-Forwarded-Proto": "gopher",
    "X-HTTP-Method-Override": "DELETE",
    "Upgrade": "websocket",
    "Connection": "upgrade",
    "Expect": "200-maybe",
}


@pytest.mark.parametrize("name", HOSTILE)
@pytest.mark.parametrize("path", ["/", "/api/v1/session", "/api/v1/stream", "/api/v1/device", "/static/sw.js"])
def test_no_header_is_a_fault_of_ours(site: Site, name: str, path: str) -> None:
    for method in ("GET", "POST"):
        head = {"Host": "127.0.0.1", "Connection": "close"} | {name: HOSTILE[name]}
        lines = "".join(f"{one}: {value}\r\n" for one, value in head.items())
        heard = spoken(site, f"{method} {path} HTTP/1.1\r\n{lines}\r\n".encode("latin1"))
        assert heard[:9] == b"HTTP/1.1 ", heard
        assert int(heard[9:12]) < 500, heard


def test_a_class_behind_one_router_signs_up_and_in_together(site: Site) -> None:
    page = csrf(site)
    pupils = [{"name": f"pupil-{n}", "password": f"a long enough secret {n}"} for n in range(60)]

    def said(path: str, body: dict[str, str]) -> int:
        return int(told(site, "POST", path, body, address="10.0.3.1", **page)[0])

    # What is typed wrong costs nobody their turn.
    assert [said("/api/v1/accounts", one | {"password": "short", "kitchen": "x"}) for one in pupils[:20]] == [422] * 20
    with ThreadPoolExecutor(12) as crowd:
        assert set(crowd.map(lambda one: said("/api/v1/accounts", one | {"kitchen": "Class"}), pupils[:30])) == {200}
    assert said("/api/v1/accounts", pupils[30] | {"kitchen": "Class"}) == 200
    for one in pupils[:8]:
        assert said("/api/v1/session", one | {"password": "mistyped"}) == 422
        assert said("/api/v1/session", one) == 200


def test_wrong_passwords_hold_up_their_own_address_only(site: Site) -> None:
    page = csrf(site)
    person = {"name": "guessed", "password": "a long enough secret"}
    status, *_ = told(site, "POST", "/api/v1/accounts", person | {"kitchen": "Corner"}, **page)
    assert status == 200
    for _ in range(10):
        status, *_ = told(site, "POST", "/api/v1/session", person | {"password": "wrong"}, **page)
        assert status == 422
    status, headers, answer = told(site, "POST", "/api/v1/session", person, **page)
    assert status == 429
    assert "Too many wrong passwords. Try again in" in answer["detail"]
    assert 0 < int(headers["Retry-After"]) <= 60
    # A neighbour of the same router, and the same person from elsewhere, are not held up.
    neighbour = {"name": "neighbour", "password": "another long secret", "kitchen": "Corner"}
    assert told(site, "POST", "/api/v1/accounts", neighbour, **page)[0] == 200
    assert told(site, "POST", "/api/v1/session", person, address="10.0.0.2", **page)[0] == 200


def test_a_crowd_at_the_door_leaves_the_kitchen_alone(site: Site) -> None:
    """Of a flood from one address one is worked at, and the rest wait where they hold nothing up: sixty that wait are
    more than there are turns, and still a cook is answered while they do."""
    page = csrf(site)
    answered: list[str] = []

    def flood(number: int) -> None:
        body = {"name": f"flood-{number}", "password": "wrong"}
        told(site, "POST", "/api/v1/session", body, address="10.0.4.1", **page)
        answered.append("flood")

    with ThreadPoolExecutor(61) as crowd:
        for number in range(60):
            crowd.submit(flood, number)
        for _ in range(5):
            assert told(site, "GET", "/api/v1/session", address="10.0.4.2")[0] == 200
        answered.append("cook")
    assert answered.index("cook") < 60


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
    # The page brings a token, and is asked for anew each time.
    assert "no-cache" in page["Cache-Control"]


@pytest.mark.parametrize("path", ["sw.js", "icon.svg", "manifest.webmanifest", "licences.md"])
def test_what_is_served_beside_the_app_may_do_nothing_else(site: Site, path: str) -> None:
    status, headers, _ = told(site, "GET", f"/static/{path}")
    assert status == 200
    assert "default-src 'self'" in headers["Content-Security-Policy"]
    assert "frame-ancestors 'none'" in headers["Content-Security-Policy"]
    assert headers["X-Content-Type-Options"] == "nosniff"
    assert headers["Access-Control-Allow-Origin"] is None


def test_what_the_build_left_over_is_not_served(site: Site) -> None:
    for path in (".vite/manifest.json", "manifest.json", "../manifest.json", ".stamp", "../.stamp"):
        assert told(site, "GET", f"/static/{path}")[0] == 404
    status, _, text = told(site, "GET", "/static/licences.md")
    assert status == 200
    assert b"SIL OPEN FONT LICENSE" in text.upper()
    assert b"react-dom" in text
