"""What was recorded once is read back for ever, and comes to what it came to."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator, Mapping
from pathlib import Path
from typing import Any

import pytest
from examples import ALL_VERSIONS
from golden.batches import FOLDER, worked
from makers import backwards
from spissus_core import events as ev
from words.catalogue import english, speaking

#: Figures are the same to this, whatever processor adds them up.
CLOSE = 1e-6

STORIES = sorted(FOLDER.glob("*.json"))


def test_every_kind_of_every_version_is_read_back() -> None:
    recorded_in = {
        str(version): {name for name, kind in ev.KINDS.items() if version in kind.versions}
        for version in range(1, ev.VERSION + 1)
    }
    assert {version: set(kinds) for version, kinds in ALL_VERSIONS.items()} == recorded_in
    for version, kinds in ALL_VERSIONS.items():
        for kind, payload in kinds.items():
            told = ev.upcast({"kind": kind, **payload}, int(version))
            read = ev.recorded({"kind": kind, **payload}, int(version))
            assert not isinstance(read, ev.Unread), (version, kind)
            assert _kept(read.model_dump(mode="json"), told) == _kept(told, told), (version, kind)


#: Fields that nobody ever read, and that are kept no longer.
GONE = {"first_share", "most_c", "rules_out"}


def _kept(now: Any, was: Any) -> Any:
    """What is there now of what was recorded; fields that have joined it since left out, however deep."""
    if isinstance(was, dict):
        return {name: _kept(now.get(name), value) for name, value in was.items() if name not in GONE}
    if isinstance(was, list) and len(now) == len(was):
        return [_kept(one, other) for one, other in zip(now, was, strict=True)]
    return now


def differences(was: Any, now: Any, where: str = "") -> Iterator[str]:
    """Places where an answer is not what it was."""
    if isinstance(was, dict) and isinstance(now, dict):
        for key in {**was, **now}:
            yield from differences(was.get(key, "absent"), now.get(key, "absent"), f"{where}.{key}")
    elif isinstance(was, list) and isinstance(now, list) and len(was) == len(now):
        for i, (one, other) in enumerate(zip(was, now, strict=True)):
            yield from differences(one, other, f"{where}[{i}]")
    elif isinstance(was, float | int) and isinstance(now, float | int) and not isinstance(was, bool):
        if now != pytest.approx(was, rel=CLOSE, abs=1e-9):
            yield f"{where}: was {was}, is {now}"
    elif was != now:
        yield f"{where}: was {was}, is {now}"


@pytest.mark.parametrize("path", STORIES, ids=[path.stem for path in STORIES])
def test_a_recorded_batch_comes_to_what_it_came_to(path: Path) -> None:
    kept = json.loads(path.read_text(encoding="utf-8"))
    assert list(differences(kept["answer"], worked(kept["name"], kept["events"]))) == []


def test_there_are_six_of_them() -> None:
    assert len(STORIES) >= 6


def sentences(thing: Any, where: str = "") -> Iterator[tuple[str, str]]:
    """Every text in an answer that reads like words of ours, by where it stands; not what is a name or an amount."""
    if isinstance(thing, Mapping):
        for key, value in thing.items():
            if key not in ("metric", "us", "figure", "name", "at", "until"):
                yield from sentences(value, f"{where}.{key}")
    elif isinstance(thing, list):
        for i, value in enumerate(thing):
            yield from sentences(value, f"{where}[{i}]")
    elif isinstance(thing, str) and re.search(r"[a-z]{2,}.*[ .?]", thing):
        yield where, thing


#: What an answer holds in the words of whoever typed it, or in those of a kitchen.
TYPED = re.compile(
    r"^\.(start\.(liquid|lines|pan|burner)|pan|burner)|\.shape$|created_at$|\.(reasons\[\d+\]\.what|notes\[\d+\]\.text)$"
)


@pytest.mark.parametrize("path", STORIES, ids=lambda path: path.stem)
def test_no_sentence_escapes_the_catalogue(path: Path) -> None:
    """In a made-up language no sentence of an answer reads as it does in English."""
    kept = json.loads(path.read_text(encoding="utf-8"))
    with speaking(backwards(english())):
        foreign = dict(sentences(worked(kept["name"], kept["events"])))
    escaped = [
        (where, text)
        for where, text in sentences(worked(kept["name"], kept["events"]))
        if foreign.get(where) == text and not TYPED.search(where)
    ]
    assert escaped == []
