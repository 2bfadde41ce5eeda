"""The sauce's way from the strainer to the plate, stage by stage, as a picture can draw it."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from .contents import Contents
from .fat import WAYS
from .fold import Pot, Timeline, fat_to_skim
from .guidance import Act, ActKind, plan

Stage = Literal["strain", "skim", "reduce", "thicken", "season", "serve"]

STAGES: tuple[Stage, ...] = ("strain", "skim", "reduce", "thicken", "season", "serve")

#: Where each event belongs on the way, whenever it happened.
_STAGE_OF: dict[str, Stage] = {
    "started": "strain", "skimmed": "skim", "read": "reduce", "added": "reduce", "thickened": "thicken",
    "salted": "season", "finished": "serve",
}  # fmt: skip

_STAGE_OF_ACT: dict[ActKind, Stage] = {
    "start": "strain", "want": "strain", "choose": "strain", "skim": "skim", "boil": "reduce", "let_down": "reduce",
    "thicken": "thicken", "test_body": "thicken", "salt": "season", "test_salt": "season", "finish": "serve",
    "done": "serve",
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Stretch:
    """One stretch of the way.

    Volumes in mL at 20 °C, floating fat included, at its two ends; ``fat_ml``, ``vapour_ml`` and
    ``added_ml`` are what left or joined in it. ``tone`` runs from 0, pale, to 1, dark.
    """

    stage: Stage
    planned: bool
    from_ml: float
    to_ml: float
    from_tone: float
    to_tone: float
    salt_percent: float
    fat_ml: float = 0.0
    vapour_ml: float = 0.0
    added_ml: float = 0.0


def stage_of(act: Act) -> Stage:
    """The stage an act belongs to."""
    return _STAGE_OF_ACT[act.kind]


def tone(contents: Contents) -> float:
    """How dark the liquid is drawn, 0 to 1, from its dissolved and suspended solids.

    Logarithmic between 3 % and 40 % of solids. Modelling choice; a picture, not a measurement.
    """
    solids = 1.0 - (contents.water + contents.ethanol) / contents.liquid_g
    return min(max(math.log(max(solids, 1e-6) / 0.03) / math.log(0.40 / 0.03), 0.0), 1.0)


def journey(timeline: Timeline) -> tuple[Stretch, ...]:
    """What has happened, and what is planned, in the order of the stages.

    Every change of the pot is counted to its stage, so that a second skim during the reduction
    still peels off at the skim.
    """
    start = timeline.start
    if start is None or timeline.pot is None:
        return ()
    done = _happened(timeline, start)
    ahead = _planned(timeline, timeline.pot)
    at = Stretch(
        "strain", False, start.contents.volume_ml, start.contents.volume_ml, tone(start.contents),
        tone(start.contents), start.contents.salt_percent,
    )  # fmt: skip
    out = [at]
    for stage in STAGES[1:]:
        for planned, change in ((False, done.get(stage)), (True, ahead.get(stage))):
            if change is None:
                continue
            at = Stretch(
                stage, planned, at.to_ml, at.to_ml + change.added_ml - change.fat_ml - change.vapour_ml, at.to_tone,
                change.to_tone, change.salt_percent, change.fat_ml, change.vapour_ml, change.added_ml,
            )  # fmt: skip
            out.append(at)
    return tuple(out)


def _happened(timeline: Timeline, start: Pot) -> dict[Stage, Stretch]:
    """For each stage, what left and joined in it so far."""
    out: dict[Stage, Stretch] = {}
    before = start.contents
    for moment in timeline.moments:
        stage = _STAGE_OF.get(moment.event.payload.kind)
        if moment.struck or moment.problem or moment.pot is None or stage in (None, "strain"):
            continue
        assert stage is not None
        after = moment.pot.contents
        # What the spoon lifts with the fat peels off with it.
        fat = max(before.volume_ml - after.volume_ml, 0.0) if stage == "skim" else 0.0
        change = after.volume_ml - before.volume_ml + fat
        old = out.get(stage)
        out[stage] = Stretch(
            stage, False, 0.0, 0.0, 0.0, tone(after), after.salt_percent,
            fat_ml=fat + (old.fat_ml if old else 0.0),
            vapour_ml=max(-change, 0.0) + (old.vapour_ml if old else 0.0),
            added_ml=max(change, 0.0) + (old.added_ml if old else 0.0),
        )  # fmt: skip
        before = after
    return out


def _planned(timeline: Timeline, pot: Pot) -> dict[Stage, Stretch]:
    """For each stage, what the chosen route has yet to do."""
    route = plan(timeline)
    if route is None or timeline.finished is not None:
        return {}
    out: dict[Stage, Stretch] = {}
    now, salt = pot.contents, pot.contents.salt_percent
    if fat_to_skim(pot) and not timeline.fat_settled:
        out["skim"] = Stretch("skim", True, 0.0, 0.0, 0.0, tone(now), salt, fat_ml=WAYS["spoon"].share * now.fat_ml)
    steam = now.liquid_ml - route.boil_to_ml
    unsalted = route.final.with_masses(salt=max(route.final.salt - route.salt_to_add_g, 0.0))
    if steam > 1.0 or route.let_down_ml > 1.0:
        reduced = now.with_masses(water=max(now.water - steam / 1.0018 + route.let_down_ml / 1.0018, 1.0))
        out["reduce"] = Stretch(
            "reduce", True, 0.0, 0.0, 0.0, tone(reduced), reduced.salt_percent, vapour_ml=steam,
            added_ml=route.let_down_ml,
        )  # fmt: skip
    if route.thickener is not None:
        out["thicken"] = Stretch(
            "thicken", True, 0.0, 0.0, 0.0, tone(unsalted), unsalted.salt_percent,
            added_ml=unsalted.liquid_ml - route.boil_to_ml - route.let_down_ml,
        )  # fmt: skip
    if route.salt_to_add_g > 0.0:
        out["season"] = Stretch(
            "season", True, 0.0, 0.0, 0.0, tone(route.final), route.final.salt_percent,
            added_ml=route.final.liquid_ml - unsalted.liquid_ml,
        )  # fmt: skip
    out["serve"] = Stretch("serve", True, 0.0, 0.0, 0.0, tone(route.final), route.final.salt_percent)
    return out
