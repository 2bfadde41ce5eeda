"""What every test may use."""

from __future__ import annotations

from collections import Counter

import pytest
from hypothesis import settings

# A loaded machine is no failure of the code; examples are the same from run to run.
settings.register_profile("spissus", deadline=None, derandomize=True)
settings.load_profile("spissus")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """Refuse tests that share a name where they are dealt out to processes by name: all but one would be dropped."""
    shared = [name for name, times in Counter(item.nodeid for item in items).items() if times > 1]
    if shared and hasattr(config, "workerinput"):
        raise pytest.UsageError(f"These share a name, and cannot be dealt out: {shared}")
