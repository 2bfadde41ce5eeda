"""How fast it is. Figures are medians and 95th percentiles of one run, and ratios taken within it.

Run by ``./spissus bench``. Everything is sent to loopback and stops by itself.
"""

from __future__ import annotations

import json
import os
import selectors
import socket
import statistics
import time
from collections.abc import Callable
from datetime import UTC, datetime
from http.client import HTTPConnection
from urllib.parse import urlsplit
from uuid import uuid4

import psycopg
from makers import event, read, started, wanted
from spissus_core import events as ev
from spissus_core.fold import fold
from spissus_core.learning import progress
from spissus_core.routes import solve_routes, trade
from spissus_core.thinning import thinned

from tests.browser.site import Site, served

WANTED = {"kind": "wanted", "volume_ml": 900, "body": 3}


def timed(act: Callable[[], object], runs: int) -> tuple[float, float]:
    """Median and 95th percentile of ``act``, ms, after a tenth as many runs to warm up."""
    for _ in range(max(runs // 10, 1)):
        act()
    taken = []
    for _ in range(runs):
        begin = time.perf_counter()
        act()
        taken.append((time.perf_counter() - begin) * 1000)
    return statistics.median(taken), statistics.quantiles(taken, n=20)[-1]


class Visitor:
    """One kept-alive connection into the demo kitchen."""

    def __init__(self, site: Site) -> None:
        parts = urlsplit(site.url)
        self.connection = HTTPConnection(parts.hostname or "", parts.port)
        self.cookies: dict[str, str] = {}
        self.call("GET", "/")
        self.call("POST", "/api/v1/session/demo")

    def call(self, method: str, path: str, body: object = None) -> bytes:
        headers = {
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Content-Type": "application/json",
        }
        self.connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = self.connection.getresponse()
        for cookie in answer.headers.get_all("Set-Cookie") or []:
            name, _, value = cookie.split(";")[0].partition("=")
            self.cookies[name] = value
        content = answer.read()
        assert answer.status == 200, (path, answer.status, content[:300])
        return content


def core() -> None:
    for count in (50, 200, 800):
        steps: list[ev.Payload] = [started("1.6 l", fat_ml="80 ml"), wanted(900), ev.Chosen(route="roux")]
        steps += [read("scale", 3000 - 500 * i / count) for i in range(count - len(steps))]
        log = [event(seq, payload, minute=seq / 10) for seq, payload in enumerate(steps, 1)]
        print(f"fold of {count:4} events        {timed(lambda log=log: fold(log), 30)[0]:7.2f} ms")  # type: ignore[misc]
    pot = fold(log).pot
    assert pot is not None
    print(f"four routes                {timed(lambda: solve_routes(pot, wanted(900)), 300)[0]:7.2f} ms")
    print(f"the trade, 17 volumes      {timed(lambda: trade(pot, wanted(900)), 300)[0]:7.2f} ms")


def devices_core() -> None:
    """An hour of a scale at 1 Hz: thinned, folded and learned from."""
    steps: list[ev.Payload] = [started("3 l"), wanted(900), ev.Chosen(route="roux")]
    plan = [event(seq, payload, minute=0) for seq, payload in enumerate(steps, 1)]
    pot = fold(plan).pot
    assert pot is not None
    assert pot.gross_g is not None
    stretches = [[(float(s), pot.gross_g - 27.0 * s / 60.0) for s in range(i, i + 15)] for i in range(0, 3600, 15)]

    def hour() -> None:
        found = [thinned(i, *zip(*readings, strict=True), 15.0, 12.0) for i, readings in enumerate(stretches)]
        readings = [event(0, read("scale", r.value), minute=r.second / 60) for r in found if r]
        progress(fold([*plan, *readings]))

    print(f"3,600 scale readings       {timed(hour, 20)[0]:7.2f} ms median: thinned, folded, learned from")


def streams(cook: Visitor, site: Site, batch: str, count: int = 300) -> None:
    """Open pages of one kitchen; how long until all of them hear of an event."""
    parts = urlsplit(site.url)
    cookie = "; ".join(f"{k}={v}" for k, v in cook.cookies.items())
    request = f"GET /api/v1/stream HTTP/1.1\r\nHost: {parts.netloc}\r\nCookie: {cookie}\r\n\r\n".encode()
    ears = selectors.DefaultSelector()
    for _ in range(count):
        one = socket.create_connection((parts.hostname or "", parts.port or 80), timeout=20)
        one.sendall(request)
        ears.register(one, selectors.EVENT_READ)
    listen(ears, b"event: again", count)
    taken = []
    for _ in range(5):
        body = {"id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "payload": {"kind": "noted", "text": "x"}}
        begin = time.perf_counter()
        cook.call("POST", f"/api/v1/batches/{batch}/events", body)
        listen(ears, b"event: batch", count)
        taken.append((time.perf_counter() - begin) * 1000)
    print(f"{count} streams hear of an event {statistics.median(taken):7.0f} ms median, {max(taken):.0f} ms at most")
    for key in list(ears.get_map().values()):
        key.fileobj.close()  # type: ignore[union-attr]


def listen(ears: selectors.BaseSelector, news: bytes, count: int) -> None:
    """Wait until so many streams have brought the news."""
    heard: set[int] = set()
    give_up = time.monotonic() + 60
    while len(heard) < count:
        assert time.monotonic() < give_up, f"{len(heard)} of {count} streams heard"
        for key, _ in ears.select(timeout=1.0):
            if news in key.fileobj.recv(65536):  # type: ignore[union-attr]
                heard.add(key.fd)


def over_http(site: Site) -> None:
    cook = Visitor(site)
    batches = json.loads(cook.call("GET", "/api/v1/batches"))["items"]
    batch = next(b["id"] for b in batches if b["name"].startswith("Pork"))
    empty = timed(lambda: cook.call("GET", "/api/v1/health"), 300)
    session = timed(lambda: cook.call("GET", "/api/v1/session"), 300)
    routes = timed(lambda: cook.call("POST", f"/api/v1/batches/{batch}/routes", WANTED), 300)
    whole = timed(lambda: cook.call("GET", f"/api/v1/batches/{batch}"), 300)
    for name, (median, late) in (
        ("empty endpoint", empty),
        ("who is signed in", session),
        ("POST routes", routes),
        ("a batch", whole),
    ):
        print(f"{name:26} {median:7.2f} ms median, {late:7.2f} ms p95, {late / empty[1]:5.1f} × empty")
    appending(cook, site, batch)
    streams(cook, site, batch)


def appending(cook: Visitor, site: Site, batch: str) -> None:
    def append() -> None:
        note = {"kind": "noted", "text": "x"}
        body = {"id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "payload": note}
        cook.call("POST", f"/api/v1/batches/{batch}/events", body)

    one = timed(append, 100)
    with psycopg.connect(site.env["DATABASE_URL"]) as server:
        server.execute("CREATE TEMP TABLE bare (id uuid PRIMARY KEY, payload jsonb)")

        def insert() -> None:
            server.execute("INSERT INTO bare VALUES (%s, %s)", (uuid4(), '{"kind": "noted"}'))
            server.commit()

        bare = timed(insert, 300)
    print(f"append, one connection     {one[0]:7.2f} ms median, {one[1]:7.2f} ms p95; bare insert {bare[0]:.2f} ms")


if __name__ == "__main__":
    print(f"{os.cpu_count()} processors")
    core()
    devices_core()
    with served("spissus_bench") as running:
        over_http(running)
