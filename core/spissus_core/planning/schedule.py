"""On the table at: when it will be ready, as an interval, whether that is in time, and when to start what goes with it.

What is left to boil has its own interval (:mod:`..estimation.forecast`, or that of the way); what follows, binding,
tasting and seasoning, takes about as long as cooks take over it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..amounts.estimate import Z80, Estimate
from ..amounts.fields import zone_of
from ..amounts.tables import table
from ..estimation.forecast import Outlook
from ..events import State, fat_to_skim
from ..messages import Message, say
from .solving import Route, work_min

#: What the end of an evening takes, min: the fat, a thickener in its parts with their spoons, body that nobody judged
#: yet, and tasting, salting and looking at the end. Each takes so much more or less, as a share, by itself, the end
#: above all, and rather more; with errors of spoon and tongue a boil takes so many times as long as planned. Modelling
#: choices, held to simulated evenings (tests/study/readiness.py).
FAT_MIN, BINDING_MIN, SPOONS_MIN, END_MIN = 12.0, 10.0, 5.0, 9.0
SPREAD, END_SPREAD, MORE_RATHER, BOILS_LONGER, LEAST_SHARE = 0.5, 0.85, 1.7, 1.3, 0.3


class Side(NamedTuple):
    """Something that goes with it, and how long before it is to be started, min.

    ``over`` is what the sauce is poured over then; nothing where it goes with any.
    """

    label: str
    minutes: float
    over: str


#: Rows of ``data/sides.csv``.
SIDES: Mapping[str, Side] = table("sides", lambda row: Side(row["label"], float(row["minutes"]), row["over"]))

#: Whether it is in time, much too early, may be late, or is.
InTime = Literal["early", "in_time", "perhaps", "late"]

#: Ready so long before it is wanted it has to be kept warm, or is begun later. Modelling choice.
EARLY = timedelta(minutes=20)

#: By so much is dinner put off where something is late, min. Common practice.
PUT_OFF_MIN = (15, 30, 60)


class Ready(NamedTuple):
    """When it will be ready, with its 80 % interval."""

    low: datetime
    best: datetime
    high: datetime

    def stands(self, by: datetime) -> InTime:
        """Whether that is in time."""
        if self.high <= by:
            return "early" if self.high <= by - EARLY else "in_time"
        return "late" if self.low > by else "perhaps"


def ready(state: State, route: Route, outlook: Outlook | None = None) -> Ready:
    """When a way is done, from the batch as it stands; ``outlook`` is what is known of a boil that is under way."""
    now, pot, judged = state.stands_at, state.pot, state.judged
    assert now is not None
    assert pot is not None
    boils = route.minutes if route.steam_g > 0.0 else Estimate(0.0, 0.0, 0.0)
    stirring = work_min(route) - (route.minutes.best if route.steam_g > 0.0 else 0.0)
    if outlook is not None:
        boils = Estimate(*(max((at - now).total_seconds() / 60.0, 0.0) for at in outlook.arrives))
    unbound = route.thickener is not None and not state.binding.in_it
    parts = (
        FAT_MIN if not state.skimming.settled and fat_to_skim(pot, state.asked.wanted) else 0.0,
        BINDING_MIN + stirring if unbound else stirring,
        SPOONS_MIN if not judged.body or judged.body[-1] != "right" else 0.0,
    )
    best = BOILS_LONGER * boils.best + sum(parts) + END_MIN
    # What is left to do varies part by part: the more of it there is, the less all of it does as a share.
    boil_sd = BOILS_LONGER * (boils.high - boils.low) / 2.0 / Z80
    sd = math.hypot(SPREAD * math.hypot(*parts), END_SPREAD * END_MIN, boil_sd)
    low, high = max(best - Z80 * sd, LEAST_SHARE * best), best + MORE_RATHER * Z80 * sd
    return Ready(*(now + timedelta(minutes=minutes) for minutes in (low, best, high)))


def ready_line(found: Ready, by: datetime | None) -> Message:
    """One line: when, and whether that is in time."""
    if by is None:
        return say("schedule.ready", low=found.low, high=found.high)
    return say(_STANDS[found.stands(by)], by=by, low=found.low, high=found.high)


_STANDS = {
    "early": "schedule.early",
    "in_time": "schedule.in_time",
    "perhaps": "schedule.perhaps",
    "late": "schedule.late",
}


def starts(by: datetime, dish: str) -> dict[str, datetime]:
    """When to start each of what goes with such a dish, the first first."""
    found = {
        key: by - timedelta(minutes=side.minutes) for key, side in SIDES.items() if not side.over or side.over == dish
    }
    return dict(sorted(found.items(), key=lambda one: one[1]))


def put_off(by: datetime, now: datetime, time_zone: str | None) -> dict[int, str]:
    """How a wish says that it is wanted so many minutes later: by the clock it was told by, or in minutes from now."""
    later = {minutes: max(by, now) + timedelta(minutes=minutes) for minutes in PUT_OFF_MIN}
    zone = zone_of(time_zone)
    if zone is None:
        return {minutes: f"{(at - now).total_seconds() / 60.0:.0f} min" for minutes, at in later.items()}
    return {minutes: f"{at.astimezone(zone):%H:%M}" for minutes, at in later.items()}
