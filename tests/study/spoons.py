"""The spoon teaches: pots bound by parts with thickeners weaker and stronger than the tables say.

The body of the pot is the obedient cook's (:mod:`.obedient`). The cook whisks in what the bar says, looks at two
spoonfuls when asked, and stops when the bar does; what a spoon says is off by a quarter of a step.
"""

from __future__ import annotations

import argparse
import json
from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass
from pathlib import Path

import numpy as np
from spissus_core import events as ev
from spissus_core.board import Board

from tests.study.obedient import PERFECT, STRENGTHS, Evening

#: True strengths over what the tables say, and what is asked of each.
TRUE_STRENGTHS = (0.5, 0.7, 1.0, 1.4)
LEAST_WITHIN, MOST_PARTS, SPOON_ERROR = 0.90, 4, 0.25


@dataclass(frozen=True)
class Bound:
    """How one pot ended: steps from the middle of the wanted one at the end and at its thickest, parts, spoons."""

    gap: float
    most_gap: float
    parts: int
    spoons: int


def bound(strength: float, count: int, *, wrong_at: int | None = None, seed: int = 4) -> Iterator[Bound]:
    """So many pots; ``wrong_at`` the spoonful whose verdict is the opposite of what it should be."""
    for i in range(count):
        yield _bound(strength, seed * 100_000 + i, wrong_at)


def _bound(strength: float, seed: int, wrong_at: int | None) -> Bound:
    evening = Evening(seed, PERFECT)
    pot, rng = evening.pot, evening.rng
    pot.thickener, pot.pulp_factor, pot.fat, pot.alcohol = strength, 1.0, 0.0, 0.0
    evening.body = int(rng.integers(2, 5))
    evening.begin()
    wish = ev.Wanted(volume_ml=0.9 * pot.ml, body=evening.body, salt_percent=pot.salt_percent, ceiling_percent=3.0)
    evening.record(wish)
    evening.record(ev.Chosen(route="all-here-corn_starch_own"))
    parts = spoons = 0
    most = pot.step
    for _ in range(30):
        act = Board(evening.log, evening.now).act
        evening.wait(2.0)
        if act.kind == "thicken":
            school = act.thickener
            pot.starch += STRENGTHS[school.key] * act.dry_g
            pot.water += school.water_g * act.dry_g
            most = max(most, pot.step)
            evening.record(ev.Thickened(thickener=school.key, dry_g=act.dry_g))
            parts += 1
        elif act.kind == "test_body":
            for _ in range(2):
                spoons += 1
                gap = pot.step - evening.body - 0.5 + rng.normal(0.0, SPOON_ERROR)
                if spoons == wrong_at:
                    gap = -gap
                verdict = "low" if gap < -0.5 else "high" if gap > 0.5 else "right"
                evening.record(ev.Tested(of="body", verdict=verdict))
        elif act.kind == "let_down":
            pot.water += act.volume_ml
            evening.record(ev.Added(ingredient="water", volume_ml=act.volume_ml))
        else:
            break
    middle = evening.body + 0.5
    return Bound(pot.step - middle, most - middle, parts, spoons)


@dataclass(frozen=True)
class Cell:
    """Shares within half a step in at most four parts, and a full step over at any time; parts and spoons, means."""

    within: float
    over: float
    parts: float
    spoons: float


def came_of(pots: Sequence[Bound]) -> Cell:
    """What came of these pots."""
    return Cell(
        float(np.mean([abs(p.gap) <= 0.5 and p.parts <= MOST_PARTS for p in pots])),
        float(np.mean([p.most_gap > 1.0 for p in pots])),
        float(np.mean([p.parts for p in pots])),
        float(np.mean([p.spoons for p in pots])),
    )


def main() -> None:
    """Run the study, say what came of it, and keep it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=200)
    asked = parser.parse_args()
    found = {}
    for strength in TRUE_STRENGTHS:
        cell = came_of(list(bound(strength, asked.count)))
        found[f"{strength:g}"] = asdict(cell)
        print(
            f"× {strength:g}: {100 * cell.within:.0f} % within half a step in at most {MOST_PARTS} parts, "
            f"{100 * cell.over:.0f} % ever a step over; {cell.parts:.1f} parts, {cell.spoons:.1f} spoons"
        )
    if asked.count >= 200:
        Path(__file__).with_suffix(".json").write_text(json.dumps(found, indent=1) + "\n", "utf-8")


if __name__ == "__main__":
    main()
