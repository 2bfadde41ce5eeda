"""The plan: the way that was chosen, worked out afresh from the pot as it is, and how it is carried out."""

from __future__ import annotations

from functools import lru_cache
from typing import Literal

from ..errors import SpissusError
from ..estimation.forecast import RULER_USELESS
from ..events import State
from ..events.doubts import must_not_boil
from ..measuring.measurement import Method, error_ml
from ..pantry.ways import WAYS
from ..phenomena.fat import WAYS as SKIM_WAYS
from ..phenomena.fat import SkimWay
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT, Judgement
from .proposing import solve_routes
from .solving import Route, solve_route

#: Ways to these stop where the time is up, if not before.
BY_THE_TIME = ("time", "taste")

#: Of the time there is so much is kept for binding and seasoning, min. Modelling choice.
FINISHING_MIN = 5.0


def plan(timeline: State, judgement: Judgement = JUDGEMENT) -> Route | None:
    """The chosen way, worked out afresh from the pot as it is; None before there is one.

    Once thickener is in, or body is settled, no more boiling is planned.
    """
    if timeline.pot is None or timeline.asked.wanted is None or timeline.asked.way is None:
        return None
    wanted, way = timeline.asked.wanted, timeline.asked.way
    if WAYS[way].stop in BY_THE_TIME:
        # What has boiled for a while has less of it left.
        wanted = in_the_time_left(timeline, wanted)
    return _solved(timeline.pot, wanted, way, settled(timeline), judgement)


# A batch that is open is folded again at every entry, through the same pots.
@lru_cache(maxsize=1024)
def _solved(pot: Pot, wanted: Wish, kind: str, here: bool, judgement: Judgement) -> Route:
    return solve_route(pot, wanted, kind, here=here, judgement=judgement)


def settled(timeline: State) -> bool:
    """Whether boiling is over: a thickener is in, or what parts on the boil; it was found enough, or it is done."""
    over = timeline.binding.in_it or timeline.judged.boiled_enough or timeline.finished
    return over or bool(must_not_boil(timeline))


def best_way(timeline: State, judgement: Judgement = JUDGEMENT) -> Route | None:
    """The way to propose, in the time that is left; None where there is none."""
    pot, wanted = timeline.pot, timeline.asked.wanted
    if pot is None or wanted is None:
        return None
    return _best(pot, in_the_time_left(timeline, wanted), judgement, frozenset(must_not_boil(timeline)))


# What is asked before a way is proposed, and the proposal, go by the same few pots.
@lru_cache(maxsize=256)
def _best(pot: Pot, wanted: Wish, judgement: Judgement, splits: frozenset[str]) -> Route | None:
    try:
        best = solve_routes(pot, wanted, judgement=judgement, splits=splits)[0]
    except SpissusError:
        return None
    return best if best.feasible else None


def in_the_time_left(timeline: State, wanted: Wish) -> Wish:
    """The wish with as many minutes as are left of those there were; late already, with what the quickest way takes."""
    left = timeline.minutes_left
    return wanted if left is None else wanted.model_copy(update={"minutes": max(left, FINISHING_MIN)})


#: Served later than this it has the night to set, and to be finished, min. Modelling choice.
OVERNIGHT_MIN = SKIM_WAYS["chill"].minutes[1] + 60.0


def skim_way(pot: Pot, minutes_left: float | None = None) -> SkimWay:
    """The way of taking fat off that fits this pot and the time: overnight the cold does it, tonight a jug where the
    pot goes into one, else the spoon, and the spoon for little; the last film with paper."""
    if minutes_left is not None and minutes_left > OVERNIGHT_MIN:
        return "chill"
    if pot.contents.fat_ml <= SKIM_WAYS["paper"].most_ml:
        return "paper"
    by_spoon = pot.contents.fat_ml <= MOST_BY_SPOON_ML and _left_by_spoon(pot) <= LITTLE_FAT_PERCENT
    return "separator" if pot.contents.volume_ml <= JUDGEMENT.most_in_a_jug_ml and not by_spoon else "spoon"


#: Nobody pours a pot into a jug for less fat than this, mL, where the spoon leaves no more than so many mL in 100 mL.
#: Modelling choice.
MOST_BY_SPOON_ML, LITTLE_FAT_PERCENT = 25.0, 1.5


def _left_by_spoon(pot: Pot) -> float:
    """Fat that a spoon would leave, mL in 100 mL of what is below."""
    fat_ml = pot.contents.fat_ml
    return 100.0 * (fat_ml - SKIM_WAYS["spoon"].removes_ml(fat_ml)) / max(pot.contents.liquid_ml, 1.0)


def method_for(pot: Pot, to_ml: float) -> Method:
    """What to measure all of the pot with: what was used last, where it is good to ``to_ml``; else what tells best,
    the scale where the pan was weighed, the jug or a dip."""
    methods: tuple[Method, ...] = ("jug", "dip") if pot.pan.empty_g is None else ("scale", "jug", "dip")
    best = min(methods, key=pot.known_to_ml)
    return next((used for used in methods if used == pot.measured_by and pot.known_to_ml(used) <= to_ml), best)


def finer_method(pot: Pot, to_lose_ml: float) -> Method | Literal["spoon"] | None:
    """What to measure with where the last method cannot tell what is left to lose; None where it can."""
    if pot.measured_by == "list":
        return None
    in_pan, density = pot.contents.volume_ml * pot.share, pot.contents.density_g_ml
    used = error_ml(pot.pan, pot.measured_by, in_pan, density) / pot.share
    if to_lose_ml >= RULER_USELESS * used:
        return None
    finer: tuple[Method, ...] = ("scale", "jug") if pot.pan.empty_g is not None else ("jug",)
    for method in finer:
        if to_lose_ml >= RULER_USELESS * error_ml(pot.pan, method, in_pan, density) / pot.share:
            return method
    return "spoon"
