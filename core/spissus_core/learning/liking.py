"""The salt that a kitchen likes, from the batches it tasted and finished."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..events import State
from ..phenomena.seasoning import SAUCE, USUAL_SALT_PERCENT, LearnedLiking

#: Kitchens like their sauces about as salty as is usual, give or take so much, and from batch to batch they differ by
#: less; points of salt, standard deviations. Common practice: 0.7 to 1.1 %, and modelling choice.
KITCHENS_DIFFER, BATCHES_DIFFER = 0.12, 0.06


#: A batch outside of these, %, or known worse, was not eaten as it stands in the log: it teaches nothing. Common
#: practice: sauces hold 0.7 to 1.1 %, and nobody likes more than 1.6.
LEAST_LIKED, MOST_LIKED, MOST_ERROR = 0.3, 2.0, 1.0


def taught_liking(state: State) -> tuple[float, float] | None:
    """What a finished batch taught of the salt that is liked, %, and its standard error; None where nobody tasted it.

    The tongue's last word stands for how far it was over the liking, whatever was said to be liked before.
    """
    if not state.finished or state.pot is None or not state.judged.salt:
        return None
    said = SAUCE.stands.get(state.judged.salt[-1])
    if said is None:
        return None
    liked_percent, error = state.pot.contents.salt_percent - said, math.hypot(state.pot.salt_error, SAUCE.error)
    plausible = LEAST_LIKED <= liked_percent <= MOST_LIKED and error <= MOST_ERROR
    return (liked_percent, error) if plausible else None


def liked(taught: Sequence[tuple[float, float]]) -> LearnedLiking:
    """What several batches say together: normal beliefs, weighed by precision, with what is usual as one of them."""
    weights = [1.0 / KITCHENS_DIFFER**2, *(1.0 / (error**2 + BATCHES_DIFFER**2) for _, error in taught)]
    means = [USUAL_SALT_PERCENT, *(percent for percent, _ in taught)]
    precision = sum(weights)
    mean = sum(weight * percent for weight, percent in zip(weights, means, strict=True)) / precision
    return LearnedLiking(percent=max(mean, 0.0), error=precision**-0.5, batches=len(taught))
