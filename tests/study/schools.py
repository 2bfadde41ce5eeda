"""Evenings of a cook who obeys, with each school of body: the first way as proposed, thickened with another school.

Where the school is not for the sauce, by what the app says of it, the evening is as any other: what is counted are
those on which it was taken and something went in.
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from multiprocessing import get_context
from pathlib import Path

from spissus_core.planning.choosing import TRAITS, Circumstances, compared
from spissus_core.pot import Pot
from spissus_core.wish import Wish

from . import obedient

#: No school makes fewer good sauces in a hundred than this.
LEAST_GOOD = 0.60

RESULTS = Path(__file__).with_suffix(".json")


@dataclass
class Asking(obedient.Evening):
    """An evening on which one school is asked for."""

    school: str = ""
    took: bool = False

    def way_of(self, proposed: str, pot: Pot, wanted: Wish) -> str:
        """The proposed way with the school, where it fits; there is fat enough of the pot's own."""
        found = compared(pot, wanted, proposed, Circumstances(kept_fat_g=1000.0))
        fits = next((one for one in found if one.school.key == self.school and one.reason is None), None)
        if fits is None or fits.route is None:
            return proposed
        self.took = True
        return fits.route.kind


def evening(school: str, seed: int) -> tuple[bool, str]:
    """Whether the school was taken and went in, and what came of it."""
    asked = Asking(seed, obedient.ERRING, school=school)
    asked.run()
    return asked.took and asked.parts > 0, asked.verdict


def evenings(school: str, count: int, seed: int) -> Iterator[str]:
    """What came of those on which it went in."""
    for one in range(count):
        went_in, verdict = evening(school, seed * 100_000 + one)
        if went_in:
            yield verdict


def share_good(verdicts: list[str]) -> float:
    """The good ones among them."""
    return sum(verdict == "good" for verdict in verdicts) / len(verdicts)


def main() -> None:
    """Run them, say what came of each school, and keep it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=300)
    parser.add_argument("--seed", type=int, default=710)
    asked = parser.parse_args()
    kept = {}
    for school in TRAITS:
        with get_context("spawn").Pool() as pool:
            seeds = [asked.seed * 100_000 + i for i in range(asked.count)]
            ran = pool.map(partial(evening, school), seeds, chunksize=10)
        verdicts = [verdict for went_in, verdict in ran if went_in]
        # Gelatin alone is for no hot sauce, and is never taken.
        good = round(share_good(verdicts), 3) if verdicts else None
        kept[school] = {"evenings": len(verdicts), "good": good}
        print(
            f"{school}: {'never taken' if good is None else f'{100 * good:.0f} % good of {len(verdicts)}'}", flush=True
        )
    RESULTS.write_text(json.dumps({"seed": asked.seed, **kept}, indent=1) + "\n", "utf-8")


if __name__ == "__main__":
    main()
