"""What it costs to be many: ``./spissus bench scale``, by which docs/scale.md has its figures.

A kitchen that somebody stepped into is copied in the database, rows and all, until a million events stand in it; then
the same calls are made again.
"""

from __future__ import annotations

import json
import os
import time
from datetime import UTC, datetime
from uuid import uuid4

import psycopg
import requests
from running import Site, served

from .bench import Visitor, interleaved

#: So many copies of a kitchen of seven batches and some seventy events.
COPIES = int(os.environ.get("SPISSUS_COPIES", "16000"))

#: Every table of a kitchen, with how its rows are copied: ids are made of the old one and the number of the copy.
COPIED = (
    """INSERT INTO kitchens_kitchen (id, name, created_at, is_demo, claimed, altitude_m, limits, time_zone)
       SELECT md5(id::text || n)::uuid, name, created_at, false, true, altitude_m, limits, time_zone
       FROM kitchens_kitchen, generate_series(1, %(copies)s) n WHERE id = %(of)s""",
    """INSERT INTO kitchens_pan (id, kitchen_id, spec, position, retired)
       SELECT md5(id::text || n)::uuid, md5(kitchen_id::text || n)::uuid, spec, position, retired
       FROM kitchens_pan, generate_series(1, %(copies)s) n WHERE kitchen_id = %(of)s""",
    """INSERT INTO kitchens_burner (id, kitchen_id, spec, position, retired)
       SELECT md5(id::text || n)::uuid, md5(kitchen_id::text || n)::uuid, spec, position, retired
       FROM kitchens_burner, generate_series(1, %(copies)s) n WHERE kitchen_id = %(of)s""",
    """INSERT INTO batches_batch (id, kitchen_id, name, created_at, last_seq, summary, put_away_at, house_dish, words)
       SELECT md5(id::text || n)::uuid, md5(kitchen_id::text || n)::uuid, name, created_at, last_seq, summary,
              put_away_at, house_dish, words
       FROM batches_batch, generate_series(1, %(copies)s) n WHERE kitchen_id = %(of)s""",
    """INSERT INTO batches_event (id, batch_id, seq, at, recorded_at, kind, version, payload, author_id)
       SELECT md5(e.id::text || n)::uuid, md5(e.batch_id::text || n)::uuid, e.seq, e.at, e.recorded_at, e.kind,
              e.version, e.payload, e.author_id
       FROM batches_event e JOIN batches_batch b ON b.id = e.batch_id, generate_series(1, %(copies)s) n
       WHERE b.kitchen_id = %(of)s""",
)  # fmt: skip

TABLES = ("kitchens_kitchen", "kitchens_pan", "kitchens_burner", "batches_batch", "batches_event")


def called(site: Site) -> dict[str, tuple[float, float]]:
    """The calls of a cook at the stove, in turn: median and p95, ms."""
    cook = Visitor(site)
    listed = json.loads(cook.call("GET", "/api/v1/batches"))["items"]
    pork = next(one["id"] for one in listed if one["name"].startswith("Pork"))

    def note() -> None:
        body = {"id": str(uuid4()), "at": datetime.now(UTC).isoformat(), "payload": {"kind": "noted", "text": "x"}}
        cook.call("POST", f"/api/v1/batches/{pork}/events", body)

    device = json.loads(cook.call("POST", "/api/v1/devices", {"name": "its scale", "kind": "scale", "batch_id": pork}))
    scale = requests.Session()
    scale.headers["Authorization"] = f"Bearer {device['token']}"

    def reading() -> None:
        told = [{"at": datetime.now(UTC).isoformat(), "value": 2240.0}]
        scale.post(f"{site.url}/api/v1/device/readings", json={"readings": told}, timeout=20).raise_for_status()

    return interleaved(
        {
            "the list": lambda: cook.call("GET", "/api/v1/batches"),
            "a search": lambda: cook.call("GET", "/api/v1/batches?q=cider"),
            "a batch": lambda: cook.call("GET", f"/api/v1/batches/{pork}"),
            "an entry": note,
            "a reading": reading,
        }
    )


def measure(site: Site) -> None:
    """Before, the copies, after."""
    before = called(site)
    with psycopg.connect(site.env["DATABASE_URL"], autocommit=True) as database:
        one = database.execute("SELECT id FROM kitchens_kitchen WHERE is_demo ORDER BY created_at LIMIT 1").fetchone()
        assert one is not None
        begin = time.monotonic()
        for copying in COPIED:
            database.execute(copying, {"copies": COPIES, "of": one[0]})
        database.execute("VACUUM ANALYZE")
        print(f"copied in {time.monotonic() - begin:.0f} s")
        for table in TABLES:
            rows, size = database.execute(
                f"SELECT count(*), pg_total_relation_size('{table}') FROM {table}"
            ).fetchone() or (0, 0)
            print(f"{table:18} {rows:9,} rows {size / 1e6:8.0f} MB {size / max(rows, 1):6.0f} bytes a row")
    after = called(site)
    for name, (median, p95) in before.items():
        now, late = after[name]
        print(f"{name:10} {median:6.1f} ms, p95 {p95:6.1f}; among a million events {now:6.1f} ms, p95 {late:6.1f}")


if __name__ == "__main__":
    with served("spissus_scale", SPISSUS_DEVICE_POSTS="100000/min") as running:
        measure(running)
