"""Whether what is said of the time holds: three hundred simulated evenings against the interval that was told.

An interval is asked for once a way is chosen, and at every act after it; the evening's own end says whether it held.
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Iterable
from datetime import datetime
from pathlib import Path
from typing import NamedTuple

from spissus_core.board import Board
from spissus_core.planning.acts import Act
from spissus_core.planning.schedule import Ready

from tests.study import obedient

RESULTS = Path(__file__).with_suffix(".json")

#: Seed and count of the study, and of the evenings that the tests run.
SEED, COUNT, THINNED = 12, 300, 24


class Held(NamedTuple):
    """The share of intervals that held, of those that were told first and of all after them, and that ended sooner."""

    first: float
    later: float
    sooner: float


class _Watched(obedient.Evening):
    """An evening whose times are written down as it goes."""

    def obey(self, act: Act, board: Board) -> None:
        if board.ready is not None:
            self.told = [*getattr(self, "told", []), (self.now, board.ready)]
        super().obey(act, board)


def evening(seed: int) -> tuple[list[tuple[datetime, Ready]], datetime]:
    """What was told of one evening, and when it ended."""
    watched = _Watched(seed, obedient.ERRING)
    watched.run()
    return getattr(watched, "told", []), watched.now


def held(seeds: Iterable[int]) -> Held:
    """How often it held."""
    first: list[bool] = []
    later: list[bool] = []
    sooner = 0
    for seed in seeds:
        told, end = evening(seed)
        inside = [found.low <= end <= found.high for _, found in told]
        first += inside[:1]
        later += inside[1:]
        sooner += sum(end < found.low for _, found in told)
    every = len(first) + len(later)
    return Held(sum(first) / len(first), sum(later) / len(later), sooner / every)


def main() -> None:
    """Run the study and keep what it found."""
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--count", type=int, default=COUNT)
    asked.add_argument("--seed", type=int, default=SEED)
    given = asked.parse_args()
    found = held(given.seed * 100_000 + i for i in range(given.count))
    shares = ", ".join(f"{name} {100.0 * share:.0f} %" for name, share in found._asdict().items())
    print(f"held: {shares}")
    if given.count >= COUNT:
        RESULTS.write_text(json.dumps({"seed": given.seed, "count": given.count, **found._asdict()}, indent=1) + "\n")


if __name__ == "__main__":
    main()
