"""Figures of worked cases do not move by themselves."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

import pytest
from golden import told
from golden.worked import KEPT, worked

STOOD: dict[str, dict[str, Any]] = json.loads(KEPT.read_text(encoding="utf-8"))
SAID: dict[str, list[str]] = json.loads(told.KEPT.read_text(encoding="utf-8"))


@cache
def now() -> dict[str, dict[str, Any]]:
    """Worked out inside of a test, so that what a test runs can be measured."""
    return worked()


def test_there_is_nothing_else() -> None:
    assert set(now()) == set(STOOD)


@pytest.mark.parametrize("case", STOOD)
def test_a_worked_case_comes_to_what_it_came_to(case: str) -> None:
    mine = now()[case]
    assert mine.keys() == STOOD[case].keys()
    moved = [
        f"{where}: was {was}, is {mine[where]}"
        for where, was in STOOD[case].items()
        if mine[where] != (was if isinstance(was, bool | str) else pytest.approx(was, rel=1e-6, abs=1e-9))
    ]
    assert moved == []


def test_a_worked_case_is_told_as_it_was_told() -> None:
    now = told.told()
    assert now.keys() == SAID.keys()
    assert [(case, line) for case in SAID for line in SAID[case] if line not in now[case]] == []
    assert now == SAID
