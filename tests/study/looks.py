"""Looks: how often a pot is past its mark, or short of it, when the bar says stop, on stoves unlike the guess.

The pot is the obedient cook's (:mod:`.obedient`), with a power that drifts; the cook looks when told to, measures with
one tool, and stops when told to.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np
from spissus_core import events as ev
from spissus_core.board import Board

from .obedient import ERRING, Evening

Tool = Literal["scale", "jug", "dip"]

#: Of the batches, at most so many end more than 3 % past the mark, and so many more than 3 % short.
MOST_PAST: dict[Tool, float] = {"scale": 0.10, "jug": 0.20, "dip": 0.20}
MOST_SHORT: dict[Tool, float] = {"scale": 0.05, "jug": 0.25, "dip": 0.50}
MOST_LOOKS, OFF = 5, 0.03

#: Boils of which the guess says so long, min: shorter ones go by the trail of the spoon, longer ones want a look every
#: ten minutes however well they are known.
LEAST_MIN, MOST_MIN = 14.0, 35.0


@dataclass(frozen=True)
class Ended:
    """How one boil ended: share of the mark past it (negative: short of it), looks, and the closest two of them, min."""

    past: float
    looks: int
    closest_min: float


def boils(tool: Tool, power: float, count: int, seed: int = 3) -> Iterator[Ended]:
    """So many boils to a mark on a stove ``power`` times as strong as guessed."""
    for i in range(count):
        yield _boil(tool, power, seed * 100_000 + i)


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
    evening.record(ev.Chosen(route="corn_starch"))
    looks = []
    for _ in range(25):
        act = Board(evening.log, evening.now).act
        if act.kind != "boil":
            break
        assert act.look_at is not None
        mark_ml = act.amount
        minutes = max((act.look_at - evening.now).total_seconds() / 60.0, 0.0)
        pot.kw *= math.exp(rng.normal(0.0, 0.1 * math.sqrt(minutes / 10.0)))
        pot.boil(minutes)
        evening.wait(minutes)
        looks.append(minutes)
        evening.read(tool)
    return Ended(1.0 - pot.ml / mark_ml, len(looks), min(looks[1:], default=math.inf))


def main(count: int = 100) -> None:
    for tool in MOST_PAST:
        for power in (0.5, 1.0, 2.0):
            ended = list(boils(tool, power, count))
            past = np.array([e.past for e in ended])
            print(
                f"{tool:5} × {power}: past {100 * np.mean(past > OFF):.0f} %, short {100 * np.mean(past < -OFF):.0f} %, "
                f"looks {np.median([e.looks for e in ended]):.0f} (most {max(e.looks for e in ended)}), closest {min(e.closest_min for e in ended):.2f} min"
            )


if __name__ == "__main__":
    import sys
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 100)
