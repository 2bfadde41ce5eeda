"""Looks: how often a pot is past its mark, or short of it, when the bar says stop, on stoves unlike the guess.

The pot is the obedient cook's (:mod:`.obedient`), with a power that drifts; the cook looks when told to, measures with
one tool, and stops when told to.
"""

from __future__ import annotations

import argparse
import json
import math
from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Literal

import numpy as np
from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.estimation.track import WILD_FACTOR, WILD_SHARE
from spissus_core.phenomena.evaporation import BOILING_SPREAD

from tests.study.obedient import ERRING, Evening

Tool = Literal["scale", "jug", "dip"]

#: Stoves, over what was guessed of them; one is drawn from what the app believes of stoves before it has timed one.
POWERS = (0.5, 1.0, 2.0, None)

#: Of the batches, at most so many end more than 3 % past the mark, and so many more than 3 % short.
MOST_PAST: dict[Tool, float] = {"scale": 0.10, "jug": 0.20, "dip": 0.20}
MOST_SHORT: dict[Tool, float] = {"scale": 0.05, "jug": 0.25, "dip": 0.50}
MOST_LOOKS, OFF = 5, 0.03

#: Boils of which the guess says so long, min: shorter ones go by the trail of the spoon, longer ones want a look every
#: ten minutes however well they are known.
LEAST_MIN, MOST_MIN = 14.0, 35.0


@dataclass(frozen=True)
class Ended:
    """How one boil ended: share of the mark past it, or short of it; looks, and the closest two of them, min."""

    past: float
    looks: int
    closest_min: float


def boils(tool: Tool, power: float | None, count: int, seed: int = 3) -> Iterator[Ended]:
    """So many boils to a mark on a stove ``power`` times as strong as guessed, or each on one drawn from the prior."""
    stoves = np.random.default_rng(seed)
    for i in range(count):
        wide = BOILING_SPREAD * (WILD_FACTOR if stoves.random() < WILD_SHARE else 1.0)
        drawn = math.exp(stoves.normal(0.0, wide))
        yield _boil(tool, drawn if power is None else power, seed * 100_000 + i)


def _boil(tool: Tool, power: float, seed: int) -> Ended:
    evening = Evening(seed, ERRING)
    share = evening.rng.uniform(0.4, 0.75)
    while not LEAST_MIN < (1.0 - share) * evening.pot.ml / 26.6 / evening.burner.net_kw < MOST_MIN:
        seed += 50_000_000
        evening = Evening(seed, ERRING)
        share = evening.rng.uniform(0.4, 0.75)
    rng, pot = evening.rng, evening.pot
    evening.method = tool
    pot.fat, pot.alcohol, pot.salt = 0.0, 0.0, 0.004 * pot.ml
    pot.kw = evening.burner.net_kw * power
    evening.begin()
    mark_ml = share * pot.ml
    wish = ev.Wanted(volume_ml=mark_ml, body=5, salt_percent=1.5, ceiling_percent=3.0)
    evening.record(wish)
    evening.record(ev.Chosen(route="all-volume-corn_starch_own"))
    looks = []
    for _ in range(25):
        act = Board(evening.log, evening.now).act
        if act.kind != "boil":
            break
        assert act.look_at is not None
        mark_ml = act.mark.ml
        minutes = max((act.look_at - evening.now).total_seconds() / 60.0, 0.0)
        pot.kw *= math.exp(rng.normal(0.0, 0.1 * math.sqrt(minutes / 10.0)))
        pot.boil(minutes)
        evening.wait(minutes)
        looks.append(minutes)
        evening.read(tool)
    return Ended(1.0 - pot.ml / mark_ml, len(looks), min(looks[1:], default=math.inf))


@dataclass(frozen=True)
class Cell:
    """What came of the boils of one tool on one stove, as shares."""

    past: float
    short: float
    looks: float
    closest_min: float


def came_of(ended: Sequence[Ended]) -> Cell:
    """Shares that ended too far past and too short, the median of looks, and the two closest of them, min."""
    past = np.array([one.past for one in ended])
    return Cell(
        float(np.mean(past > OFF)),
        float(np.mean(past < -OFF)),
        float(np.median([one.looks for one in ended])),
        min(one.closest_min for one in ended),
    )


def main() -> None:
    """Run the study, say what came of it, and keep it."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--count", type=int, default=300)
    asked = parser.parse_args()
    found = {}
    for tool in MOST_PAST:
        for power in POWERS:
            cell = came_of(list(boils(tool, power, asked.count)))
            stove = "any" if power is None else f"{power:g}"
            found[f"{tool} × {stove}"] = asdict(cell)
            print(
                f"{tool:5} × {stove}: {100 * cell.past:.0f} % past, {100 * cell.short:.0f} % short, "
                f"{cell.looks:.0f} looks, none closer than {cell.closest_min:.1f} min"
            )
    if asked.count >= 300:
        Path(__file__).with_suffix(".json").write_text(json.dumps(found, indent=1, ensure_ascii=False) + "\n", "utf-8")


if __name__ == "__main__":
    main()
