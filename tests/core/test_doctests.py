"""The examples that stand in the docstrings of the core: an outside value each, where there is one."""

from __future__ import annotations

import doctest
from importlib import import_module
from pkgutil import walk_packages

import pytest
import spissus_core

MODULES = [found.name for found in walk_packages(spissus_core.__path__, "spissus_core.")]


@pytest.mark.parametrize("module", MODULES)
def test_examples_are_true(module: str) -> None:
    assert doctest.testmod(import_module(module)).failed == 0


def test_there_are_examples() -> None:
    finder = doctest.DocTestFinder(exclude_empty=True)
    assert sum(len(test.examples) for name in MODULES for test in finder.find(import_module(name))) >= 15
