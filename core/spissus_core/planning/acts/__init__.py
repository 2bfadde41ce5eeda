"""The next act: the one thing to do now.

Every act says by itself whether it is due (:mod:`.base`); they are asked in the order of their ranks, in which a good
cook speaks. A correction is as large as the evidence says is missing, and one verdict ends a matter only where the
ledger agrees. Handbook of the trade, judgement; the figures are those of :mod:`..judgement`.
"""

from __future__ import annotations

from importlib import import_module
from pkgutil import iter_modules

from ...estimation.forecast import Progress
from ...events import State
from ..bench import Bench
from ..judgement import JUDGEMENT, Judgement
from ..solving import Route
from .base import ACTS, Act, Answer, LetDown, Mark, Rank, Sound
from .ending import Alone

__all__ = ["ACTS", "KINDS", "Act", "Alone", "Answer", "LetDown", "Mark", "Rank", "Sound", "next_act"]

# Every module of this package registers its acts.
for _module in iter_modules(__path__):
    import_module(f"{__name__}.{_module.name}")

_BY_RANK = sorted(ACTS, key=lambda act: act.rank)
_DUE = [act for act in _BY_RANK if act.rank <= Rank.END]
_BEFORE = [act for act in _BY_RANK if act.rank > Rank.END]

#: One class of every kind of act, by its name.
KINDS: dict[str, type[Act]] = {act.kind: act for act in reversed(ACTS)}


def next_act(
    timeline: State,
    ahead: Progress | None = None,
    route: Route | None = None,
    judgement: Judgement = JUDGEMENT,
) -> Act:
    """The next act of a batch.

    Parameters
    ----------
    ahead, route : what is known of its heating, and its plan, where they were worked out already.
    judgement : what everything is weighed by.
    """
    bench = Bench(timeline, ahead, route, judgement)
    act = next(found for kind in _DUE if (found := kind.due(bench)) is not None)
    for kind in _BEFORE if act.rank > Rank.THROWN_AWAY else ():
        act = kind.before(act, bench) or act
    return act
