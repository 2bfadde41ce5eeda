"""Figures of worked cases do not move by themselves."""

from __future__ import annotations

import json
from typing import Any

import pytest
from golden.worked import KEPT, worked

STOOD: dict[str, dict[str, Any]] = json.loads(KEPT.read_text(encoding="utf-8"))


@pytest.fixture(scope="module")
def now() -> dict[str, dict[str, Any]]:
    return worked()


def test_there_is_nothing_else(now: dict[str, Any]) -> None:
    assert set(now) == set(STOOD)


@pytest.mark.parametrize("case", STOOD)
def test_a_worked_case_comes_to_what_it_came_to(case: str, now: dict[str, dict[str, Any]]) -> None:
    assert now[case].keys() == STOOD[case].keys()
    moved = [
        f"{where}: was {was}, is {now[case][where]}"
        for where, was in STOOD[case].items()
        if now[case][where] != (was if isinstance(was, bool | str) else pytest.approx(was, rel=1e-6, abs=1e-9))
    ]
    assert moved == []
