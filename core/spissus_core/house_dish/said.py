"""A house dish in a few words: how it is cooked, what is wished of it, by which way."""

from __future__ import annotations

from ..amounts.quantities import show_percent, show_plain, show_temperature, show_volume
from ..intake.braise import Braise
from ..messages import Argument, Message, Term, say
from ..pantry.ways import WAYS
from ..phenomena.body import LADDER
from ..wish import Wish
from .dish import HouseDish


def in_short(dish: HouseDish) -> Message:
    """What is wished of it, or what was strained where nobody wished."""
    if dish.wanted is None:
        return say("house_dishes.strained", volume=show_volume(dish.strained_ml))
    return wanted_said(dish.wanted)


def wanted_said(wanted: Wish) -> Message:
    """How much, how thick, how salty."""
    body, salt = Term(LADDER[wanted.body].on_the_spoon), show_percent(wanted.salt_percent)
    return say("house_dishes.wanted", amount=wanted.amount_said, body=body, salt=salt)


def cooked_said(braise: Braise) -> Message:
    """How long, on what heat."""
    hours = show_plain(braise.hours)
    if braise.heat == "stove":
        return say("house_dishes.on_the_stove", hours=hours)
    return say("house_dishes.in_the_oven", hours=hours, celsius=show_temperature(braise.oven_c))


def way_said(dish: HouseDish) -> Argument | None:
    """The way that was taken, where there still is such a one."""
    if dish.chosen is None or dish.chosen.route not in WAYS:
        return None
    return WAYS[dish.chosen.route].called(dish.chosen.school)
