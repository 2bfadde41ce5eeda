"""Each figure of the judgement, turned up and down: what comes of the evenings of an obedient cook.

``./spissus study judgement`` runs it; what it found stands in ``judgement.json``. Guards are left alone: no evening
contains what they hold. A figure that changes nothing within the error of the count is one to be let go.
"""

from __future__ import annotations

import argparse
import json
from dataclasses import fields, replace
from itertools import product
from multiprocessing import get_context
from pathlib import Path
from typing import Any

from spissus_core.planning.judgement import JUDGEMENT, Judgement

from tests.study.obedient import came_of, told_of

RESULTS = Path(__file__).with_suffix(".json")

#: By what each figure is multiplied.
TURNS = (0.7, 1.4)


def turned() -> list[tuple[str, float, Judgement]]:
    """The judgement as it is, and with one figure turned."""
    found: list[tuple[str, float, Judgement]] = [("as it is", 1.0, JUDGEMENT)]
    for figure in fields(JUDGEMENT):
        if figure.metadata["guard"]:
            continue
        for turn in TURNS:
            found.append((figure.name, turn, replace(JUDGEMENT, **{figure.name: _times(figure.name, turn)})))
    return found


def _times(name: str, turn: float) -> Any:
    value = getattr(JUDGEMENT, name)
    if isinstance(value, tuple):
        return tuple(min(one * turn, 1.0) for one in value)
    if isinstance(value, int):
        return max(round(value * turn + (0.3 if turn > 1.0 else -0.3)), 1)
    unit = next(figure.metadata["unit"] for figure in fields(JUDGEMENT) if figure.name == name)
    return min(value * turn, 0.99) if unit == "chance" else value * turn


def main() -> None:
    """Run the sweep, say what came of each turn, and keep it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=400)
    parser.add_argument("--seed", type=int, default=10)
    parser.add_argument("--only", default="", help="sweep the figures of these names, with commas between")
    parser.add_argument("--keep", action="store_true", help="keep it, though only some figures were turned")
    asked = parser.parse_args()
    only = [name for name in asked.only.split(",") if name]
    found = []
    with get_context("spawn").Pool() as pool:
        for name, turn, judgement in turned():
            if only and name not in (*only, "as it is"):
                continue
            jobs = [(seed, i, "erring", judgement) for seed, i in product([asked.seed], range(asked.count))]
            result = came_of([told for told, _ in pool.starmap(told_of, jobs, chunksize=10)])
            row = {"figure": name, "times": turn, "good": result.good, "tasty": result.tasty, "acts": result.acts}
            print(
                f"{name} x {turn}: {100 * result.tasty:.1f} % good and strong, {100 * result.good:.1f} % good, "
                f"{result.acts:.0f} acts",
                flush=True,
            )
            found.append(row)
    if asked.keep or not only:
        kept = {"seed": asked.seed, "evenings": asked.count, "only": only, "rows": found}
        RESULTS.write_text(json.dumps(kept, indent=1) + "\n", "utf-8")


if __name__ == "__main__":
    main()
