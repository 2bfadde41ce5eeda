"""One expected loss: what is lost, on average, by each thing that may be done about body or salt; the least is done.

A loss is counted in faults. One fault is a sauce half a step too thin or too thick, or 0.15 points of salt off, or a
third of the pot let down with water: each is as bad as the others (``Judgement``). What is known is a belief, as a
chance of everything that may be true; a look is worth what the best act after it gains on average, over everything that
may be said of it. Modelling choices. Checked against dynamic programming on a small case
(tests/reference/test_weighing.py).
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal, NamedTuple

import numpy as np
from numpy.typing import NDArray

from .judgement import Judgement

Floats = NDArray[np.float64]

#: Shares of what is probably missing that are weighed against each other. Numerical choice.
SHARES = (0.25, 0.4, 0.55, 0.7, 0.8, 0.9, 1.0, 1.15, 1.3)


class Known(NamedTuple):
    """What is known: of everything that may be true its chance, and how many faults over what is wanted it is."""

    chances: Floats
    faults: Floats


class Move(NamedTuple):
    """Something that may go in: how much, what it costs by itself, and how many faults over what is wanted everything
    that may be true is after it."""

    amount: float
    cost: float
    faults: Floats


class Best(NamedTuple):
    """What loses least, and what is lost then, faults: to leave it, to look at it, or to put in ``amount``."""

    do: Literal["leave", "look", "put_in"]
    loss: float
    amount: float = 0.0


def missed(faults: Floats, weighs: Judgement) -> Floats:
    """What a sauce loses that is so many faults off: by its square, and further off in proportion."""
    off, bend = np.abs(faults), weighs.proportional_from
    return np.where(off < bend, off**2, 2.0 * bend * off - bend**2)


def least_loss(known: Known, says: Floats, moves: Sequence[Move], water: float, weighs: Judgement) -> Best:
    """What loses least.

    Parameters
    ----------
    says : chance of each answer to a look, in rows, for everything that may be true; without rows nobody can look.
    moves : what may go in.
    water : share of the pot that, let down, takes one fault away.
    """
    costs = np.stack([missed(known.faults, weighs), *(_after(move, water, weighs) for move in moves)])
    losses = costs @ known.chances
    best = int(np.argmin(losses))
    if len(says):
        # Whatever is said, the best is done then.
        looked = weighs.a_look + float((costs @ (says * known.chances).T).min(axis=0).sum())
        if looked < losses[best]:
            return Best("look", looked)
    return Best("put_in", float(losses[best]), moves[best - 1].amount) if best else Best("leave", float(losses[0]))


def _after(move: Move, water: float, weighs: Judgement) -> Floats:
    """What is lost in the end: it stays as it is, or that is found out and put right, as well as it can be known."""
    # What is far too little takes several helpings, each with its look.
    helpings = np.maximum(-move.faults / weighs.a_helping_mends, 1.0) * (weighs.a_helping + weighs.a_look)
    put_right = np.where(move.faults < 0.0, helpings, water_costs(water * move.faults, weighs))
    again = weighs.looks_again * weighs.a_look + weighs.never_known + put_right
    return move.cost + np.minimum(missed(move.faults, weighs), again)


def water_costs(share: float | Floats, weighs: Judgement) -> float | Floats:
    """What water takes away that is stirred in, as a share of the pot: it cannot be taken out again."""
    return share / weighs.watered_fault
