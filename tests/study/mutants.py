"""Do the tests bite? The core with one small thing wrong at a time, and whether its tests notice.

``./spissus study mutants [--count=300] [--seed=9]``. Mutants are made by Cosmic Ray's operators: a sign turned, times
for over, a comparison turned; and by one of our own, a number a quarter off. Of all there are a seeded sample is
tried. Only the test files that run the changed line are run, the quickest first. What was found stands in
``mutants.json``; ``--survivors`` tries only those again, and counts those that are noticed now.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import shutil
import signal
import subprocess
import sys
import tempfile
import time
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass
from importlib import import_module
from itertools import islice
from multiprocessing import get_context
from multiprocessing.connection import wait
from pathlib import Path

import parso
import pytest
from cosmic_ray.ast import Visitor, get_ast, is_number
from cosmic_ray.mutating import mutate_code
from cosmic_ray.operators.operator import Operator
from cosmic_ray.plugins import get_operator
from coverage import CoverageData

ROOT = Path(__file__).resolve().parents[2]
CORE = ROOT / "core" / "spissus_core"
FOUND = Path(__file__).with_name("mutants.json")

#: Longer than any run that ends; a mutant that hangs is noticed.
LONGEST_S = 180


class AQuarterOff(Operator):
    """A number that is 25 % off; nothing becomes one."""

    def mutation_positions(self, node: object) -> Iterator[tuple[object, object]]:
        """Every number."""
        if is_number(node):
            yield node.start_pos, node.end_pos  # type: ignore[attr-defined]

    def mutate(self, node: object, index: int) -> object:
        """The number a quarter up; whole ones stay whole."""
        value = eval(node.value)  # type: ignore[attr-defined]
        off = (value * 5 // 4 + (value < 4)) if isinstance(value, int) else value * 1.25 or 1.0
        return parso.python.tree.Number(f" {off}", node.start_pos)  # type: ignore[attr-defined]

    @classmethod
    def examples(cls) -> tuple[()]:
        """None: it is no plugin."""
        return ()


OPERATORS: dict[str, Operator] = {"a quarter off": AQuarterOff()} | {
    name: get_operator(f"core/Replace{name}")()
    for name in (
        "BinaryOperator_Add_Sub",
        "BinaryOperator_Sub_Add",
        "BinaryOperator_Mul_Div",
        "BinaryOperator_Div_Mul",
        "ComparisonOperator_Lt_Gt",
        "ComparisonOperator_Gt_Lt",
        "ComparisonOperator_LtE_GtE",
        "ComparisonOperator_GtE_LtE",
        "ComparisonOperator_Eq_NotEq",
        "UnaryOperator_USub_UAdd",
    )
}


@dataclass(frozen=True, slots=True)
class Mutant:
    """One small thing wrong: where, what, and the line before and after."""

    path: str
    operator: str
    occurrence: int
    line: int
    was: str
    now: str

    @property
    def name(self) -> str:
        """What it is called: the line as it was, and as it is."""
        return f"{self.path}: {self.was} -> {self.now}"


class _Counter(Visitor):
    """Counts the places at which an operator may be applied."""

    def __init__(self, operator: Operator) -> None:
        self.operator, self.count = operator, 0

    def visit(self, node: object) -> object:
        self.count += sum(1 for _ in self.operator.mutation_positions(node))
        return node


def places() -> list[tuple[Path, str, int]]:
    """Everywhere in the core that something can be made wrong: file, operator, occurrence."""
    out = []
    for path in sorted(CORE.rglob("*.py")):
        tree = get_ast(path.read_text(encoding="utf-8"))
        for name, operator in OPERATORS.items():
            counter = _Counter(operator)
            counter.walk(tree)
            out += [(path, name, occurrence) for occurrence in range(counter.count)]
    return out


def made(path: Path, operator: str, occurrence: int) -> Mutant | None:
    """The mutant of a place; None where it is the same program, or only other words."""
    source = path.read_text(encoding="utf-8")
    changed = mutate_code(source, OPERATORS[operator], occurrence)
    if changed is None or changed == source:
        return None
    lines = zip(source.splitlines(), changed.splitlines(), strict=False)
    number, was, now = next((i, a.strip(), b.strip()) for i, (a, b) in enumerate(lines, 1) if a != b)
    if any(sign in was for sign in ("raise ", 'f"', "Annotated", "lru_cache", "*, ")):
        return None
    where = str(path.relative_to(CORE))
    return Mutant(path=where, operator=operator, occurrence=occurrence, line=number, was=was, now=now)


def drawn(count: int, seed: int) -> list[Mutant]:
    """A sample of so many mutants."""
    everywhere = places()
    random.Random(seed).shuffle(everywhere)
    found = (mutant for place in everywhere if (mutant := made(*place)) is not None)
    return list(islice(found, count))


def last_survivors() -> list[Mutant]:
    """Those that were not noticed last and can still be made, wherever they stand now."""
    last = set(json.loads(FOUND.read_text(encoding="utf-8"))["survivors"])
    files = {CORE / name.partition(":")[0] for name in last}
    every = (made(*place) for place in places() if place[0] in files)
    return [mutant for mutant in every if mutant is not None and mutant.name in last]


def covering() -> tuple[dict[tuple[str, int], set[str]], dict[str, float]]:
    """Which test files run each line of the core, and how long each file takes, s."""
    with tempfile.TemporaryDirectory() as scratch:
        settings = Path(scratch) / "rc"
        settings.write_text(f"[run]\nsource = {CORE}\ndynamic_context = test_function\ndata_file = {scratch}/data\n")
        folders = (ROOT / "tests" / "core", ROOT / "tests" / "reference")
        files = sorted(str(path.relative_to(ROOT)) for folder in folders for path in folder.glob("test_*.py"))
        measure = ["-m", "coverage", "run", f"--rcfile={settings}", "-m", "pytest", "-q", "-p", "no:cacheprovider"]
        took: dict[str, float] = {}
        lines: dict[tuple[str, int], set[str]] = defaultdict(set)
        for file in files:
            begin = time.monotonic()
            subprocess.run([sys.executable, *measure, file], cwd=ROOT, check=True, capture_output=True)
            took[file] = time.monotonic() - begin
            data = CoverageData(str(Path(scratch) / "data"))
            data.read()
            for measured in data.measured_files():
                for line, contexts in data.contexts_by_lineno(measured).items():
                    if any(contexts):
                        lines[str(Path(measured).relative_to(CORE)), line].add(file)
        return lines, took


#: The file that is tried first beside the quickest that runs the line: it runs most of the core in two seconds.
FIRST = "tests/core/test_worked.py"

#: Loaded once, before the processes that try the mutants part: what the core stands on takes longer to load than it.
FOUNDATIONS = (
    "hypothesis",
    "numpy",
    "pint",
    "pydantic",
    "pytest",
    "rapidfuzz",
    "scipy.linalg",
    "scipy.optimize",
    "scipy.special",
)


def try_one(mutant: Mutant, files: list[str]) -> None:
    """In a process of its own: exit with 1 where any of these test files notices the mutant, the quickest first."""
    sys.stdout = sys.stderr = open(os.devnull, "w")  # noqa: SIM115  # until the process ends
    signal.alarm(LONGEST_S)
    with tempfile.TemporaryDirectory() as scratch:
        shutil.copytree(CORE, Path(scratch) / "spissus_core", ignore=shutil.ignore_patterns("__pycache__"))
        place = Path(scratch) / "spissus_core" / mutant.path
        changed = mutate_code(place.read_text(encoding="utf-8"), OPERATORS[mutant.operator], mutant.occurrence)
        assert changed is not None
        place.write_text(changed, encoding="utf-8")
        sys.path[:] = [scratch, *(path for path in sys.path if path != str(CORE.parent))]
        sys.dont_write_bytecode = True
        first = list(dict.fromkeys([*(file for file in files if file == FIRST), files[0]]))
        plain = ["-p", "no:cacheprovider", "-p", "no:django", "--hypothesis-seed=0", "-o", "pythonpath=tests"]
        plain += ["-o", "addopts=--import-mode=importlib", "-o", "DJANGO_SETTINGS_MODULE="]
        for some in (first, [file for file in files if file not in first]):
            if some and pytest.main(["-x", "-q", *plain, *some]) != 0:
                sys.exit(1)


def tried(jobs: list[tuple[Mutant, list[str]]], workers: int) -> Iterator[tuple[Mutant, bool]]:
    """Each mutant, and whether it was noticed, as they end; so many at once."""
    for name in FOUNDATIONS:
        import_module(name)
    apart = get_context("fork")
    waiting, running = list(reversed(jobs)), {}
    while waiting or running:
        while waiting and len(running) < workers:
            mutant, files = waiting.pop()
            process = apart.Process(target=try_one, args=(mutant, files))
            process.start()
            running[process.sentinel] = (process, mutant)
        for ended in wait(list(running)):
            process, mutant = running.pop(ended)  # type: ignore[call-overload]
            process.join()
            yield mutant, process.exitcode != 0


def main() -> None:
    """Try a sample and say what came of it."""
    asked = argparse.ArgumentParser(prog="./spissus study mutants")
    asked.add_argument("--count", type=int, default=300)
    asked.add_argument("--seed", type=int, default=9)
    asked.add_argument("--workers", type=int, default=os.cpu_count() or 1)
    asked.add_argument("--survivors", action="store_true", help="only those that were not noticed last")
    how = asked.parse_args()
    sample = last_survivors() if how.survivors else drawn(how.count, how.seed)
    print(f"{len(sample)} mutants", flush=True)
    lines, took = covering()

    jobs = []
    for mutant in sample:
        files = lines.get((mutant.path, mutant.line)) or set(took)
        jobs.append((mutant, sorted(files, key=lambda file: took[file])))
    results = []
    for number, (mutant, found) in enumerate(tried(jobs, how.workers), 1):
        results.append((mutant, found))
        if not found:
            print(f"  unnoticed  {mutant.path}:{mutant.line}  {mutant.was}  ->  {mutant.now}", flush=True)
        if number % 25 == 0:
            print(f"{number} tried", flush=True)
    survivors = [mutant for mutant, found in results if not found]
    share = 1.0 - len(survivors) / len(results)
    print(f"{len(results) - len(survivors)} of {len(results)} noticed: {100 * share:.1f} %")
    told = {"seed": how.seed, "tried": len(results), "noticed": len(results) - len(survivors)}
    if how.survivors:
        # Of the sample that they were left of; what cannot be made any more was never tried.
        last = json.loads(FOUND.read_text(encoding="utf-8"))
        gone = len(last["survivors"]) - len(results)
        told = {
            "seed": last["seed"],
            "tried": last["tried"] - gone,
            "noticed": last["noticed"] + len(results) - len(survivors),
        }
    told["survivors"] = sorted(mutant.name for mutant in survivors)
    FOUND.write_text(json.dumps(told, ensure_ascii=False, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
