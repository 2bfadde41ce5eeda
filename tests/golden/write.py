"""Write the whole batches and their answers anew: ``python -m tests.golden.write``.

Only for a change that is meant to change an answer; each difference is explained where it is committed.
The events of a batch that stands here are never written again.
"""

from __future__ import annotations

import json
import os
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid5

import django

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
django.setup()

from demo.kitchen import STORIES  # noqa: E402

from tests.golden.batches import FOLDER, NAMESPACE, worked  # noqa: E402

#: Saturday evening, when the stories of the demo are told from.
BEGAN = datetime(2026, 3, 14, 18, 0, tzinfo=UTC)


def told(story: Any) -> list[dict[str, Any]]:
    """The events of a story as the table keeps them."""
    happened = [(0.0, story.started), *story.events]
    return [
        {
            "id": str(uuid5(NAMESPACE, f"{story.name} {seq}")),
            "seq": seq,
            "at": (BEGAN + timedelta(minutes=minute)).isoformat(),
            "payload": payload.model_dump(mode="json"),
        }
        for seq, (minute, payload) in enumerate(happened, 1)
    ]


def main() -> None:
    """Write every batch; answers anew, events only where there are none yet."""
    for story in STORIES:
        path = FOLDER / f"{story.name.lower().replace(' ', '-')}.json"
        events = json.loads(path.read_text(encoding="utf-8"))["events"] if path.exists() else told(story)
        kept = {"name": story.name, "events": events, "answer": worked(story.name, events)}
        path.write_text(json.dumps(kept, ensure_ascii=False, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
