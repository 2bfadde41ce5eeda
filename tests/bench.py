"""How fast it is. Figures are medians and 95th percentiles of one run, and ratios taken within it.

Run by ``./spissus bench``. Everything is sent to loopback and stops by itself.
"""

from __future__ import annotations

import json
import os
import selectors
import socket
import statistics
import subprocess
import sys
import time
from collections.abc import Callable, Iterator, Sequence
from datetime import UTC, datetime
from functools import partial
from http.client import HTTPConnection
from threading import Thread
from urllib.parse import urlsplit
from uuid import uuid4

import psycopg
from browser import first_load
from corpus import cases
from makers import event, read, started, wanted
from running import ROOT, Site, served
from spissus_core import events as ev
from spissus_core.estimation.thinning import thinned
from spissus_core.fold import REMEMBERED, fold, progress
from spissus_core.intake.lines import read_line, read_list
from spissus_core.planning.bench import stop_of
from spissus_core.planning.choosing import Circumstances, compared
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import solve_route
from spissus_core.planning.trade import trade

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


def anew(log: list[ev.Event]) -> None:
    """A fold from zero."""
    REMEMBERED.forget()
    fold(log, stop_of=stop_of)


def one_more(log: list[ev.Event]) -> float:
    """A fold of one event more than was folded before, ms: the median of many."""
    taken = []
    for _ in range(30):
        anew(log[:-1])
        begin = time.perf_counter()
        fold(log, stop_of=stop_of)
        taken.append((time.perf_counter() - begin) * 1000)
    return statistics.median(taken)


def core() -> None:
    for count in (50, 200, 800):
        steps: list[ev.Kind] = [started("1.6 l", fat_ml="80 ml"), wanted(900), ev.Chosen(route="all-volume-white_roux")]
        steps += [read("scale", 3000 - 500 * i / count) for i in range(count - len(steps))]
        log = [event(seq, payload, minute=seq / 10) for seq, payload in enumerate(steps, 1)]
        print(f"fold of {count:4} events        {timed(lambda log=log: anew(log), 30)[0]:7.2f} ms")  # type: ignore[misc]
        print(f"  one more                 {one_more(log):7.2f} ms")
    for count in (50, 200):
        # The same pot on the heat, looked at every minute: steam, salt and what its window learns are followed.
        boiling: list[ev.Kind] = [
            started("1.6 l", fat_ml="80 ml"),
            wanted(900),
            ev.Chosen(route="all-volume-white_roux"),
            ev.Heated(heat="simmer"),
        ]
        boiling += [read("scale", 3000 - 500 * i / count) for i in range(count - len(boiling))]
        hot = [event(seq, payload, minute=seq) for seq, payload in enumerate(boiling, 1)]
        print(f"the same, heated, of {count:4}  {timed(lambda log=hot: anew(log), 10)[0]:7.2f} ms")  # type: ignore[misc]
        print(f"  one more                 {one_more(hot):7.2f} ms")
    pot = fold(log, stop_of=stop_of).pot
    assert pot is not None
    print(f"four routes                {timed(lambda: solve_routes(pot, wanted(900)), 300)[0]:7.2f} ms")
    like = "all-taste-corn_starch_own"
    print(f"one way                    {timed(lambda: solve_route(pot, wanted(900), like), 300)[0]:7.2f} ms")
    every = timed(lambda: compared(pot, wanted(900), like, Circumstances()), 30)[0]
    print(f"the same with every school {every:7.2f} ms")
    print(f"the trade, 17 volumes      {timed(lambda: trade(pot, wanted(900)), 300)[0]:7.2f} ms")


def reader() -> None:
    """Lines of the corpus one by one, a list of forty, and what nobody would type."""
    lines = [one.text for one in cases()]
    taken = []
    for line in lines:
        begin = time.perf_counter()
        read_line(line)
        taken.append((time.perf_counter() - begin) * 1000)
    p95 = statistics.quantiles(taken, n=20)[-1]
    print(f"a line                     {statistics.median(taken):7.2f} ms, p95 {p95:.2f}")
    forty = "\n".join(lines[:: len(lines) // 40][:40])
    print(f"a list of 40               {timed(lambda: read_list(forty), 20)[0]:7.2f} ms")
    for name, text in (
        ("10,000 characters", "2 carrots, " * 910),
        ("90 nested brackets", f"2 onions {'(' * 90}big{')' * 90}"),
        ("190 digits", f"{'9' * 180} g salt"),
        ("190 hedges", "about " * 30 + "1 l"),
        ("60 things", ", ".join(["1 g salt"] * 19)),
    ):
        print(f"{name:26} {timed(lambda text=text: read_line(text), 20)[0]:7.2f} ms")  # type: ignore[misc]


def devices_core() -> None:
    """An hour of a scale at 1 Hz: thinned, folded and learned from."""
    steps: list[ev.Kind] = [started("3 l"), wanted(900), ev.Chosen(route="all-volume-white_roux")]
    plan = [event(seq, payload, minute=0) for seq, payload in enumerate(steps, 1)]
    pot = fold(plan, stop_of=stop_of).pot
    assert pot is not None
    assert pot.gross_g is not None
    stretches = [[(float(s), pot.gross_g - 27.0 * s / 60.0) for s in range(i, i + 15)] for i in range(0, 3600, 15)]

    def hour() -> None:
        found = [thinned(i, *zip(*readings, strict=True), 15.0, 12.0) for i, readings in enumerate(stretches)]
        readings = [event(0, read("scale", r.value), minute=r.second / 60) for r in found if r]
        progress(fold([*plan, *readings], stop_of=stop_of))

    print(f"3,600 scale readings       {timed(hour, 20)[0]:7.2f} ms median: thinned, folded, learned from")


def streams(cook: Visitor, site: Site, batch: str, count: int = 300) -> None:
    """Open pages of one kitchen; how long until all of them hear of an event."""
    ears = opened(cook, site, count)
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


def opened(cook: Visitor, site: Site, count: int) -> selectors.BaseSelector:
    """So many streams of one person, each open and heard from once."""
    parts = urlsplit(site.url)
    cookie = "; ".join(f"{k}={v}" for k, v in cook.cookies.items())
    request = f"GET /api/v1/stream HTTP/1.1\r\nHost: {parts.netloc}\r\nCookie: {cookie}\r\n\r\n".encode()
    ears = selectors.DefaultSelector()
    for _ in range(count):
        one = socket.create_connection((parts.hostname or "", parts.port or 80), timeout=20)
        one.sendall(request)
        ears.register(one, selectors.EVENT_READ)
    listen(ears, b"event: again", count)
    return ears


def listen(ears: selectors.BaseSelector, news: bytes, count: int) -> None:
    """Wait until so many streams have brought the news."""
    heard: set[int] = set()
    give_up = time.monotonic() + 60
    while len(heard) < count:
        assert time.monotonic() < give_up, f"{len(heard)} of {count} streams heard"
        for key, _ in ears.select(timeout=1.0):
            if news in key.fileobj.recv(65536):  # type: ignore[union-attr]
                heard.add(key.fd)


#: Rounds of a run, and runs; what is quoted is the median of the runs.
ROUNDS, RUNS = 120, 3


def interleaved(calls: dict[str, Callable[[], object]]) -> dict[str, tuple[float, float]]:
    """Median and p95 of each call, ms, made in turn so that a slow moment of the machine meets them all."""
    runs: dict[str, list[tuple[float, float]]] = {name: [] for name in calls}
    for _ in range(RUNS):
        taken: dict[str, list[float]] = {name: [] for name in calls}
        for _ in range(ROUNDS):
            for name, call in calls.items():
                begin = time.perf_counter()
                call()
                taken[name].append((time.perf_counter() - begin) * 1000)
        for name, times in taken.items():
            runs[name].append((statistics.median(times), statistics.quantiles(times, n=20)[-1]))
    return {
        name: (statistics.median(m for m, _ in of), statistics.median(late for _, late in of))
        for name, of in runs.items()
    }


def over_http(site: Site) -> None:
    cook = Visitor(site)
    batches = json.loads(cook.call("GET", "/api/v1/batches"))["items"]
    batch = next(b["id"] for b in batches if b["name"].startswith("Pork"))
    path = f"/api/v1/batches/{batch}"

    fresh = fresh_batches(cook)

    def append() -> None:
        body = {"id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "payload": {"kind": "noted", "text": "x"}}
        cook.call("POST", f"/api/v1/batches/{next(fresh)}/events", body)

    found = interleaved(
        {
            "empty endpoint": lambda: cook.call("GET", "/api/v1/health"),
            "who is signed in": lambda: cook.call("GET", "/api/v1/session"),
            "POST routes": lambda: cook.call("POST", f"{path}/routes", WANTED),
            "a batch": lambda: cook.call("GET", path),
        }
    )
    # Apart: every note makes its batch longer, from 3 entries to 43.
    found |= interleaved({"empty again": lambda: cook.call("GET", "/api/v1/health"), "append": append})
    empty, signed_in = found["empty endpoint"][0], found["who is signed in"][0]
    for name, (median, late) in found.items():
        print(
            f"{name:18} {median:7.2f} ms median, {late:7.2f} ms p95; {median / empty:5.2f} × empty, "
            f"{median / signed_in:5.2f} × signed in"
        )
    crowd(site, batch)
    long_days(site)
    streams(Visitor(site), site, batch)


def fresh_batches(cook: Visitor) -> Iterator[str]:
    """Batches that are planned and boil, each for forty entries."""
    kitchen = json.loads(cook.call("GET", "/api/v1/kitchen"))
    where = {"pan_id": kitchen["pans"][0]["id"], "burner_id": kitchen["burners"][0]["id"]}
    measured = {"method": "jug", "value": "1.6 l"}
    liquid = {"measured": measured, "salt": {"by": "meter", "percent": 0.6}}
    while True:
        batch, at = str(uuid4()), datetime.now(UTC).isoformat()
        start = {"id": batch, "event_id": str(uuid4()), "at": at, "name": "x", "start": {"liquid": liquid, **where}}
        cook.call("POST", "/api/v1/batches", start)
        for payload in (WANTED, {"kind": "chosen", "route": "all-volume-white_roux"}):
            cook.call("POST", f"/api/v1/batches/{batch}/events", {"id": str(uuid4()), "at": at, "payload": payload})
        yield from [batch] * 40


#: A crowd at one process: people dragging, scales reading, pages listening, and for how long, s.
PEOPLE, SCALES, LISTENING, CROWDED_S = 50, 20, 300, 20.0


def at_once(doing: Sequence[Callable[[], None]]) -> None:
    """All of these, each in a thread of its own, until the last has ended."""
    threads = [Thread(target=one) for one in doing]
    for one in threads:
        one.start()
    for one in threads:
        one.join()


def crowd(site: Site, batch: str) -> None:
    """So many people dragging, scales reading and pages open at one process: errors, and how long a drag takes."""
    cook = Visitor(site)
    ears = opened(cook, site, LISTENING)
    parts = urlsplit(site.url)
    until = time.monotonic() + CROWDED_S
    taken: list[float] = []
    errors: list[str] = []

    def drag(person: int) -> None:
        who = Visitor(site)
        while time.monotonic() < until:
            wish = WANTED | {"volume_ml": 500 + (person * 37 + len(taken)) % 400}
            begin = time.perf_counter()
            try:
                who.call("POST", f"/api/v1/batches/{batch}/routes", wish)
            except (AssertionError, OSError) as error:
                errors.append(str(error))
            taken.append((time.perf_counter() - begin) * 1000)
            time.sleep(0.06)  # what a page waits while a finger moves

    def token_of(name: str) -> str:
        scale = {"name": name, "kind": "scale", "batch_id": batch}
        return str(json.loads(cook.call("POST", "/api/v1/devices", scale))["token"])

    tokens = [token_of(f"scale {i}") for i in range(SCALES)]

    def weigh(token: str) -> None:
        line = HTTPConnection(parts.hostname or "", parts.port)
        headers = {"Authorization": f"Bearer {token}", "Content-Type": "application/json"}
        while time.monotonic() < until:
            body = {"readings": [{"at": datetime.now(UTC).isoformat(), "value": 2500}]}
            line.request("POST", "/api/v1/device/readings", json.dumps(body), headers)
            answer = line.getresponse()
            answer.read()
            if answer.status != 200:
                errors.append(f"a scale heard {answer.status}")
            time.sleep(1.0)

    def hear() -> None:
        while time.monotonic() < until:
            for key, _ in ears.select(timeout=0.5):
                key.fileobj.recv(65536)  # type: ignore[union-attr]

    at_once(
        [
            *(partial(drag, i) for i in range(PEOPLE)),
            *(partial(weigh, token) for token in tokens),
            hear,
        ]
    )
    for key in list(ears.get_map().values()):
        key.fileobj.close()  # type: ignore[union-attr]
    late = statistics.quantiles(taken, n=20)[-1]
    print(
        f"{PEOPLE} dragging, {SCALES} scales, {LISTENING} streams: {len(taken) / CROWDED_S:.0f} drags a second, "
        f"{statistics.median(taken):.0f} ms median, {late:.0f} ms p95, {len(errors)} errors {sorted(set(errors))[:3]}"
    )


def long_days(site: Site) -> None:
    """A batch that a scale read once a second for 28 hours, beside one of an hour."""
    code = """
import sys
from datetime import UTC, datetime, timedelta
from uuid import uuid4
from batches.services import start_batch
from demo.kitchen import STORIES
from devices.services import issue, take
from kitchens.services import looking_around
now = datetime.now(UTC)
member = looking_around(now - timedelta(hours=1))[-1]
for hours in (1, 28):
    batch = uuid4()
    began = now - timedelta(hours=29)
    start_batch(member, batch, f'{hours} h', event_id=uuid4(), at=began, started=STORIES[-1].started)
    device, _ = issue(member, f'scale of {hours} h', 'scale', batch)
    count = hours * 3600
    readings = [(now - timedelta(seconds=count - s), 2600.0 - 400.0 * s / count) for s in range(count)]
    for first in range(0, count, 600):
        take(device.pk, readings[first : first + 600])
    print(batch)
"""
    done = subprocess.run(
        [sys.executable, "server/manage.py", "shell", "-v", "0", "-c", code],
        cwd=ROOT,
        env=site.env,
        check=True,
        capture_output=True,
        text=True,
    )
    hour, day = done.stdout.split()
    cook = Visitor(site)  # the idle connection was let go
    found = interleaved({name: lambda name=name: cook.call("GET", f"/api/v1/batches/{name}") for name in (hour, day)})
    print(
        f"28 h of a scale at 1 Hz open {found[day][0] / found[hour][0]:.2f} × as slowly as 1 h ({found[day][0]:.1f} ms)"
    )
    with psycopg.connect(site.env["DATABASE_URL"]) as server:
        server.execute("CREATE TEMP TABLE bare (id uuid PRIMARY KEY, payload jsonb)")

        def insert() -> None:
            server.execute("INSERT INTO bare VALUES (%s, %s)", (uuid4(), '{"kind": "noted"}'))
            server.commit()

        print(f"bare insert and commit {timed(insert, 300)[0]:.2f} ms")


if __name__ == "__main__":
    print(f"{os.cpu_count()} processors")
    core()
    reader()
    devices_core()
    with served("spissus_bench", SPISSUS_STREAMS="1000") as running:
        first_load.measure(running)
        over_http(running)
