"""What a kitchen likes, from the batches it tasted and finished: how salty, how thick, how sour and how bitter."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from ..amounts.tables import table
from ..events import State
from ..events.judging import LEANING, level_known
from ..messages import Message, say
from ..pantry.guests import DISHES
from ..phenomena.palate import LEAST_LEVEL, LEVELS, PALATE_TONGUE, TASTERS, Figured, level_liked
from ..phenomena.seasoning import SAUCE, Leant, LeantOf, LearnedLiking


class Liking(NamedTuple):
    """Where kitchens stand on average, by how much they differ, and one batch from the next; standard deviations."""

    usual: float
    kitchens_differ: float
    batches_differ: float


#: Rows of ``data/likings.csv``: what is learned.
LIKINGS: Mapping[str, Liking] = table(
    "likings", lambda row: Liking(float(row["usual"]), float(row["kitchens_differ"]), float(row["batches_differ"]))
)

#: A batch outside of these, %, or known worse, was not eaten as it stands in the log: it teaches nothing. Common
#: practice: sauces hold 0.7 to 1.1 %, and nobody likes more than 1.6.
LEAST_LIKED, MOST_LIKED, MOST_ERROR = 0.3, 2.0, 1.0

#: What was wanted and found right tells of a body to so many steps. Modelling choice: half a step.
BODY_ERROR = 0.5

#: One thing that a batch taught: what was liked, and its standard error.
Taught = tuple[float, float]


def taught_likings(state: State) -> dict[str, Taught]:
    """What a finished batch taught of each; nothing of what nobody tasted."""
    if not state.finished or state.pot is None:
        return {}
    found = {"salt": _salt(state), "body": _body(state)} | {of: _palate(state, of) for of in LEANING}
    return {of: one for of, one in found.items() if one is not None}


def _salt(state: State) -> Taught | None:
    """The tongue's last word stands for how far it was over the liking, whatever was said to be liked before."""
    assert state.pot is not None
    if not state.judged.salt or not state.judged.teaches:
        return None
    said = SAUCE.stands.get(state.judged.salt[-1])
    if said is None:
        return None
    liked_percent, error = state.pot.contents.salt_percent - said, math.hypot(state.pot.salt_error, SAUCE.error)
    plausible = LEAST_LIKED <= liked_percent <= MOST_LIKED and error <= MOST_ERROR
    return (liked_percent, error) if plausible else None


def _body(state: State) -> Taught | None:
    """What was wanted, against what suits the dish, where a spoon found it right at last."""
    wish = state.asked.wanted
    if wish is None or wish.people is None or not state.judged.body or state.judged.body[-1] != "right":
        return None
    return float(wish.body - DISHES[wish.dish].body), BODY_ERROR


def _palate(state: State, of: Figured) -> Taught | None:
    """What was called right is liked: how far it is over what most like."""
    assert state.pot is not None
    found = next((one for one in state.judged.palate if one.of == of), None)
    if found is None or found.again or found.verdict != "right" or not TASTERS[found.by].teaches:
        return None
    contents = state.pot.contents
    level = max(LEVELS[of](contents), LEAST_LEVEL)
    low, high = PALATE_TONGUE.ends["right"]
    # Anything between the ends of "right" is called so: a uniform of that width.
    error = math.hypot(level_known(state), (high - low) / math.sqrt(12.0))
    return math.log(level / level_liked(of, contents)), error


def posterior(of: str, taught: Sequence[Taught]) -> Taught:
    """What several batches say together: normal beliefs, weighed by precision, with what is usual as one of them."""
    row = LIKINGS[of]
    weights = [1.0 / row.kitchens_differ**2, *(1.0 / (error**2 + row.batches_differ**2) for _, error in taught)]
    means = [row.usual, *(value for value, _ in taught)]
    precision = sum(weights)
    return sum(weight * mean for weight, mean in zip(weights, means, strict=True)) / precision, precision**-0.5


#: Leaning to more or less of a taste than this, as a natural logarithm, nobody notices. Modelling choice.
LEAST_LEANT = 0.15

_LEANS: Mapping[LeantOf, tuple[Message, Message]] = {
    "body": (say("kitchen.thinner"), say("kitchen.thicker")),
    "sour": (say("kitchen.milder"), say("kitchen.sharper")),
    "bitter": (say("kitchen.less_bitter"), say("kitchen.more_bitter")),
}


def leanings(liking: LearnedLiking) -> list[Message]:
    """What else a kitchen leans to, in words: how thick, how sharp, how bitter it has its sauces."""
    found = []
    for of, (less, more) in _LEANS.items():
        by = liking.steps if of == "body" else liking.leans(of).by
        if abs(by) >= LEAST_LEANT:
            found.append(more if by > 0 else less)
    return found


def liked(taught: Mapping[str, Sequence[Taught]]) -> LearnedLiking:
    """What a kitchen has come to like, from what its batches taught of each."""
    salt = taught.get("salt", ())
    percent, error = posterior("salt", salt)
    more: dict[LeantOf, Leant] = {}
    for of in _LEANS:
        if of in taught:
            by, spread = posterior(of, taught[of])
            more[of] = Leant(by=by, error=spread, batches=len(taught[of]))
    return LearnedLiking(percent=max(percent, 0.0), error=error, batches=len(salt), more=more)
