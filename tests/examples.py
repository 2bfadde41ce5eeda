"""One recorded payload of every kind of event, as it stands in the database; kept in ``golden/events.json``."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

GOLDEN = Path(__file__).parent / "golden"

#: By version of the events, then by kind. What is written there never changes; new kinds and versions join it.
ALL_VERSIONS: dict[str, dict[str, dict[str, Any]]] = json.loads((GOLDEN / "events.json").read_text(encoding="utf-8"))
#: One of every kind, as it was recorded first.
RECORDED: dict[str, dict[str, Any]] = {}
for _version in sorted(ALL_VERSIONS, key=int, reverse=True):
    RECORDED |= ALL_VERSIONS[_version]


def recorded(kind: str) -> dict[str, Any]:
    """The payload with its kind."""
    return {"kind": kind, **RECORDED[kind]}
