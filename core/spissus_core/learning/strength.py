"""How strongly a kitchen's thickeners bind, from the batches that were bound with one of them and looked at."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from .. import events as ev
from ..estimation.spoon import NOTHING_SEEN, belief
from ..fold import Timeline
from ..pantry.schools import LearnedStrength
from ..phenomena.body import STARCHES

#: How much kitchens differ in what they bind with, and one batch from the next, log standard deviations; together
#: they are what is taken for granted of a thickener before any spoon. Modelling choices.
KITCHENS_DIFFER, BATCHES_DIFFER = 0.22, 0.2

#: Nothing in a bag of starch does more than so many times what the tables say, or less than its inverse: what says so
#: was another thing. Modelling choice; spoons themselves look for factors up to 2.5.
MOST_TIMES = 3.0

#: Spoons that leave it known worse than this tell nothing, log standard error. Modelling choice.
MOST_ERROR = 0.6


class TaughtStrength(NamedTuple):
    """What a batch taught: the dry thickener, the logarithm of how many times as strongly it binds, and its error."""

    dry: str
    log_times: float
    error: float


def taught_strength(timeline: Timeline) -> TaughtStrength | None:
    """What a finished batch taught of its thickener; None where there were several, or no spoon after it.

    The spoons' posterior less what was taken for granted before them: normal beliefs in the logarithm.
    """
    stood = [moment.event.payload for moment in timeline.moments if moment.stands]
    bound = [one.what for one in stood if isinstance(one, ev.Thickened)]
    if not timeline.finished or len({school.dry for school in bound}) != 1:
        return None
    # Of a pair nobody knows which it was, and a gum or a purée goes by no strength of flour.
    if any(school.is_pair or school.term not in STARCHES for school in bound):
        return None
    then, now = NOTHING_SEEN.log_thickener, belief(timeline.judged.spoons).log_thickener
    precision = 1.0 / now.variance - 1.0 / then.variance
    if precision <= MOST_ERROR**-2:
        return None
    said = now.mean / now.variance / precision
    log_times = said + math.log(bound[-1].strength / bound[-1].row_strength)
    return TaughtStrength(bound[-1].dry, _within(log_times), precision**-0.5)


def _within(log_times: float) -> float:
    return min(max(log_times, -math.log(MOST_TIMES)), math.log(MOST_TIMES))


def learned_strengths(taught: Mapping[str, Sequence[tuple[float, float]]]) -> dict[str, LearnedStrength]:
    """What several batches say together of each dry thickener: weighed by precision, with the tables as one of them."""
    return {dry: _together(some) for dry, some in taught.items()}


def _together(taught: Sequence[tuple[float, float]]) -> LearnedStrength:
    weights = [1.0 / (error**2 + BATCHES_DIFFER**2) for _, error in taught]
    precision = KITCHENS_DIFFER**-2 + sum(weights)
    mean = sum(weight * _within(log_times) for weight, (log_times, _) in zip(weights, taught, strict=True)) / precision
    return LearnedStrength(times=math.exp(mean), spread=precision**-0.5, batches=len(taught))
