"""The rows of ``data/*.csv``."""

from __future__ import annotations

import csv
from collections.abc import Mapping
from functools import lru_cache
from importlib import resources

Row = Mapping[str, str]


@lru_cache
def rows(name: str) -> tuple[Row, ...]:
    """The rows of ``data/<name>.csv``, in the order of the file."""
    text = resources.files("spissus_core").joinpath(f"data/{name}.csv").read_text(encoding="utf-8")
    return tuple(csv.DictReader(text.splitlines()))
