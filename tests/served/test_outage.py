"""The database may go and come: what can be served is served, the rest ends soon, with a sentence."""

from __future__ import annotations

import json
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from urllib.error import HTTPError
from urllib.request import Request, urlopen

import pytest
from running import Cluster, Site

#: Two seconds to find out, and a little for a slow machine to say so.
SOON_S = 2.9


@pytest.fixture(scope="module")
def fragile() -> Iterator[tuple[Site, Cluster]]:
    cluster = Cluster()
    site = Site("spissus_outage", cluster.url)
    site.start()
    try:
        yield site, cluster
    finally:
        site.stop()
        cluster.remove()
    assert site.faults() == []


def asked(site: Site, path: str) -> tuple[int, dict[str, Any], float, str | None]:
    """Status, body, seconds and Retry-After of a request."""
    began = time.monotonic()
    try:
        with urlopen(Request(f"{site.url}/api/v1{path}"), timeout=20) as answer:
            status, body, retry = answer.status, answer.read(), answer.headers["Retry-After"]
    except HTTPError as error:
        status, body, retry = error.code, error.read(), error.headers["Retry-After"]
    return status, json.loads(body), time.monotonic() - began, retry


def several(site: Site, path: str, count: int = 8) -> list[int]:
    """The same asked many times at once, so that every connection of the pool is used."""
    with ThreadPoolExecutor(count) as pool:
        return [status for status, *_ in pool.map(lambda _: asked(site, path), range(count))]


def test_after_a_restart_no_request_fails(fragile: tuple[Site, Cluster]) -> None:
    site, cluster = fragile
    for _ in range(3):
        assert set(several(site, "/ready")) == {200}
        cluster.crash()
        cluster.start()
        assert set(several(site, "/ready")) == {200}


def test_while_it_is_away_requests_end_soon_with_a_sentence(fragile: tuple[Site, Cluster]) -> None:
    site, cluster = fragile
    assert asked(site, "/ready")[0] == 200
    cluster.crash()
    try:
        for path in ("/ready", "/device"):
            status, body, seconds, retry = asked(site, path) if path == "/ready" else with_token(site)
            assert status == 503, path
            assert "database does not answer" in body["detail"]
            assert seconds < SOON_S
            assert retry is not None
        assert asked(site, "/health")[:2] == (200, {"status": "alive"})
        began = time.monotonic()
        assert set(several(site, "/ready", 20)) == {503}
        assert time.monotonic() - began < 2 * SOON_S
    finally:
        cluster.start()
    assert asked(site, "/ready")[0] == 200


def with_token(site: Site) -> tuple[int, dict[str, Any], float, str | None]:
    began = time.monotonic()
    try:
        urlopen(Request(f"{site.url}/api/v1/device", headers={"Authorization": "Bearer x"}), timeout=20)
    except HTTPError as error:
        return error.code, json.loads(error.read()), time.monotonic() - began, error.headers["Retry-After"]
    raise AssertionError("a made-up token was taken")
