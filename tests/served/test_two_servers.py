"""Two servers on two ports over one PostgreSQL: what happens at one is so at the other."""

from __future__ import annotations

import copy
import json
from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

import pytest
import requests
from running import PATIENCE_S, Site, free_port, served

SECRET = "a long enough secret"


class Cook:
    """Somebody with a browser, who asks now this server and now that one."""

    def __init__(self) -> None:
        self.session = requests.Session()

    def call(self, site: Site, method: str, path: str, body: Any = None) -> requests.Response:
        if "csrftoken" not in self.session.cookies:
            self.session.get(site.url, timeout=PATIENCE_S)
        headers = {"X-CSRFToken": self.session.cookies["csrftoken"], "Referer": site.url}
        return self.session.request(method, f"{site.url}/api/v1{path}", json=body, headers=headers, timeout=PATIENCE_S)

    def news(self, site: Site) -> Iterator[str]:
        """Lines of the stream of news."""
        answer = self.session.get(f"{site.url}/api/v1/stream", stream=True, timeout=PATIENCE_S)
        assert answer.status_code == 200
        yield from answer.iter_lines(chunk_size=1, decode_unicode=True)


@pytest.fixture(scope="module")
def pair() -> Iterator[tuple[Site, Site]]:
    with served("spissus_two_servers", SPISSUS_VISITS="6/hour") as one:
        other = copy.copy(one)
        other.url = f"http://127.0.0.1:{free_port()}"
        other.start()
        try:
            yield one, other
        finally:
            other.stop()


@pytest.fixture
def cook(pair: tuple[Site, Site]) -> Cook:
    somebody = Cook()
    body = {"name": f"cook-{uuid4().hex[:8]}", "password": SECRET, "kitchen": "Two doors"}
    assert somebody.call(pair[0], "POST", "/accounts", body).status_code == 200
    return somebody


def begin(cook: Cook, site: Site) -> str:
    kitchen = cook.call(site, "GET", "/kitchen").json()
    liquid = {"measured": {"method": "jug", "value": "1.5 l", "hot": True}, "salt": {"by": "meter", "percent": 0.6}}
    start = {"pan_id": kitchen["pans"][2]["id"], "burner_id": kitchen["burners"][1]["id"], "liquid": liquid}
    ids = {"id": str(uuid4()), "event_id": str(uuid4()), "at": now()}
    answer = cook.call(site, "POST", "/batches", ids | {"name": "Shin", "start": start})
    assert answer.status_code == 200, answer.text
    return str(answer.json()["id"])


def now() -> str:
    return datetime.now(UTC).isoformat()


def record(cook: Cook, site: Site, batch: str, payload: dict[str, Any]) -> None:
    answer = cook.call(site, "POST", f"/batches/{batch}/events", {"id": str(uuid4()), "at": now(), "payload": payload})
    assert answer.status_code == 200, answer.text


def until(lines: Iterator[str], what: str) -> str:
    return next(line for line in lines if what in line)


def test_news_of_one_reaches_whoever_listens_at_the_other(pair: tuple[Site, Site], cook: Cook) -> None:
    one, other = pair
    batch = begin(cook, one)
    lines = cook.news(other)
    until(lines, "event: again")
    record(cook, one, batch, {"kind": "noted", "text": "bay"})
    told = json.loads(until(lines, batch).removeprefix("data: "))
    assert told["seq"] == 2


def test_what_is_recorded_at_one_is_there_at_the_other_and_nothing_twice(pair: tuple[Site, Site], cook: Cook) -> None:
    one, other = pair
    batch = begin(cook, one)
    entry = {"id": str(uuid4()), "at": now(), "payload": {"kind": "salted", "salt_g": "2 g", "salt": "table"}}
    for site in (one, other, one):
        assert cook.call(site, "POST", f"/batches/{batch}/events", entry).status_code == 200
    logs = [cook.call(site, "GET", f"/batches/{batch}").json()["log"] for site in pair]
    assert [entry["kind"] for entry in logs[0]] == ["started", "salted"]
    assert logs[0] == logs[1]


def test_what_rings_is_quiet_at_both_once_it_was_heard_at_one(pair: tuple[Site, Site], cook: Cook) -> None:
    one, other = pair
    batch = begin(cook, one)
    for payload in ({"kind": "wanted", "volume_ml": 700}, {"kind": "chosen", "route": "all-volume-white_roux"}):
        record(cook, other, batch, payload)
    due = cook.call(one, "GET", f"/batches/{batch}").json()["act"]["look_at"]
    record(cook, one, batch, {"kind": "hushed", "due": due})
    assert all(cook.call(site, "GET", f"/batches/{batch}").json()["act"]["quiet"] for site in pair)


def test_what_a_kitchen_learned_is_alike_at_both(pair: tuple[Site, Site], cook: Cook) -> None:
    one, other = pair
    batch = begin(cook, one)
    record(cook, one, batch, {"kind": "tested", "of": "salt", "verdict": "right"})
    record(cook, other, batch, {"kind": "finished", "yield_ml": 1400})
    kitchens = [cook.call(site, "GET", "/kitchen").json() for site in pair]
    assert kitchens[0] == kitchens[1]


def test_wrong_passwords_at_one_count_at_the_other(pair: tuple[Site, Site], cook: Cook) -> None:
    name = cook.call(pair[0], "GET", "/session").json()["name"]
    guesser = Cook()
    said = [
        guesser.call(pair[n % 2], "POST", "/session", {"name": name, "password": f"guess number {n}"}).status_code
        for n in range(12)
    ]
    assert said == [422] * 10 + [429] * 2


def test_limits_by_address_are_counted_together(pair: tuple[Site, Site]) -> None:
    said = [Cook().call(pair[n % 2], "POST", "/session/visit", {}).status_code for n in range(8)]
    assert said == [200] * 6 + [429] * 2


def test_whoever_is_signed_out_at_one_hears_no_more_at_the_other(pair: tuple[Site, Site], cook: Cook) -> None:
    one, other = pair
    lines = cook.news(other)
    until(lines, "event: again")
    assert cook.call(one, "PUT", "/session/password", {"old": SECRET, "new": "another long secret"}).status_code == 200
    # The stream ends; nothing is waited for.
    assert [line for line in lines if line.startswith("event")] == []
    assert cook.call(other, "GET", "/kitchen").status_code == 200
