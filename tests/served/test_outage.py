"""The database may go and come: what can be served is served, the rest ends with a sentence.

How soon it ends stands in the settings, and no clock of a test decides it: a request that waited for ever would be
waited for in vain.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from urllib.error import HTTPError
from urllib.request import Request, urlopen

import pytest
from running import PATIENCE_S, Cluster, Site


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


def asked(site: Site, path: str, **headers: str) -> tuple[int, dict[str, Any], str | None]:
    """Status, body and Retry-After of a request."""
    try:
        with urlopen(Request(f"{site.url}/api/v1{path}", headers=headers), timeout=PATIENCE_S) as answer:
            status, body, retry = answer.status, answer.read(), answer.headers["Retry-After"]
    except HTTPError as error:
        status, body, retry = error.code, error.read(), error.headers["Retry-After"]
    return status, json.loads(body), retry


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


def test_while_it_is_away_requests_end_with_a_sentence(fragile: tuple[Site, Cluster]) -> None:
    site, cluster = fragile
    assert asked(site, "/ready")[0] == 200
    cluster.crash()
    try:
        for path, headers in (("/ready", {}), ("/device", {"Authorization": "Bearer x"})):
            status, body, retry = asked(site, path, **headers)
            assert status == 503, path
            assert "database does not answer" in body["detail"]
            assert retry is not None
        assert asked(site, "/health")[:2] == (200, {"status": "alive"})
        assert set(several(site, "/ready", 20)) == {503}
    finally:
        cluster.start()
    assert asked(site, "/ready")[0] == 200
