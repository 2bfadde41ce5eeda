"""One expected loss against dynamic programming: a small pot, three acts, and every order of them tried.

What is unknown is where the body stands, in steps over what is wanted; starch and water move it by as much as they
say. The optimum knows every look and every helping that may follow; what is spoken looks one look ahead.
"""

from __future__ import annotations

import numpy as np
import pytest
from numpy.typing import NDArray
from spissus_core.estimation.spoon import two_spoonfuls
from spissus_core.planning.judgement import JUDGEMENT
from spissus_core.planning.weighing import Known, Move, least_loss, missed, water_costs

Floats = NDArray[np.float64]

PLACES = np.arange(-3.0, 3.01, 0.25)
#: Steps that are put in, with what each costs.
PUT_IN = {
    steps: JUDGEMENT.a_look
    + (JUDGEMENT.a_helping if steps > 0.0 else float(water_costs(-steps * JUDGEMENT.water_a_step, JUDGEMENT)))
    for steps in (-1.0, -0.5, 0.5, 1.0, 1.5, 2.0)
}
#: Acts that the optimum is worked out for, and that one who goes step by step may take.
ACTS, MOST_ACTS = 3, 6


def left(chances: Floats, moved: float) -> float:
    """What is lost where it is left."""
    return float(missed((PLACES + moved) / JUDGEMENT.body_fault, JUDGEMENT) @ chances)


def after_look(chances: Floats, moved: float) -> list[Floats]:
    """The chances with each answer of a look, not yet divided by its own."""
    said = two_spoonfuls(PLACES + moved) * chances
    # In whichever order the two were said.
    rows = said.reshape(3, 3, -1)
    return [rows[i, j] + (rows[j, i] if i != j else 0.0) for i in range(3) for j in range(i, 3)]


def optimum(chances: Floats, moved: float, acts: int) -> float:
    """The least that can be lost, in so many acts."""
    lost = left(chances, moved)
    if acts == 0:
        return lost
    total = float(chances.sum())
    looked = JUDGEMENT.a_look * total + sum(optimum(one, moved, acts - 1) for one in after_look(chances, moved))
    put_in = (cost * total + optimum(chances, moved + steps, acts - 1) for steps, cost in PUT_IN.items())
    return min(lost, looked, *put_in)


def spoken(chances: Floats, moved: float, acts: int) -> float:
    """What is lost by one who does what loses least by one look ahead, in so many acts."""
    total = float(chances.sum())
    if acts == 0 or total < 1e-12:
        return left(chances, moved)
    faults = (PLACES + moved) / JUDGEMENT.body_fault
    moves = [Move(steps, cost, faults + steps / JUDGEMENT.body_fault) for steps, cost in PUT_IN.items()]
    water = JUDGEMENT.body_fault * JUDGEMENT.water_a_step
    best = least_loss(Known(chances / total, faults), two_spoonfuls(PLACES + moved), moves, water, JUDGEMENT)
    if best.do == "leave":
        return left(chances, moved)
    if best.do == "look":
        return JUDGEMENT.a_look * total + sum(spoken(one, moved, acts - 1) for one in after_look(chances, moved))
    return PUT_IN[best.amount] * total + spoken(chances, moved + best.amount, acts - 1)


@pytest.mark.parametrize("spread", [0.3, 0.7])
@pytest.mark.parametrize("mean", [-2.0, -1.0, -0.5, 0.0, 0.75])
def test_one_look_ahead_loses_hardly_more_than_the_best_there_is(mean: float, spread: float) -> None:
    chances = np.exp(-0.5 * ((PLACES - mean) / spread) ** 2)
    chances /= chances.sum()
    least, found = optimum(chances, 0.0, ACTS), spoken(chances, 0.0, MOST_ACTS)
    assert found <= 1.1 * least + 0.05 < left(chances, 0.0) + 0.1
