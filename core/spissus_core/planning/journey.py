"""The sauce's way from the strainer to the plate, stage by stage, as a picture can draw it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from .. import events as ev
from ..events import STAGES, Stage
from ..fold import Timeline
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..phenomena.fat import WAYS
from ..pot import Pot
from .plan import plan, skim_way
from .solving import Route
from .tone import tone


@dataclass(frozen=True, slots=True)
class Stretch:
    """One stretch of the way.

    Volumes in mL at 20 °C, floating fat included, at its two ends; ``from_fat_ml`` and ``to_fat_ml``
    are the fat among it. ``fat_ml``, ``vapour_ml``, ``drawn_ml`` and ``added_ml`` are what left or joined
    on the way. ``tone`` runs from 0, pale, to 1, dark. ``after`` is what is in the pot at its end.
    """

    stage: Stage
    planned: bool
    from_ml: float
    to_ml: float
    from_fat_ml: float
    to_fat_ml: float
    from_tone: float
    to_tone: float
    after: Contents
    fat_ml: float
    vapour_ml: float
    added_ml: float
    drawn_ml: float = 0.0

    @property
    def salt_percent(self) -> float:
        """Salt at its end, % by weight."""
        return self.after.salt_percent


@dataclass(frozen=True, slots=True)
class _Change:
    """What happens to the pot in one stage; ``after`` is the pot when it is done."""

    after: Contents
    fat_ml: float = 0.0
    lost_fat_ml: float = 0.0
    vapour_ml: float = 0.0
    added_ml: float = 0.0
    drawn_ml: float = 0.0


def journey(timeline: Timeline, route: Route | None = None) -> tuple[Stretch, ...]:
    """What has happened, and what is planned, in the order of the stages; ``route`` where it was worked out already.

    Every change of the pot is counted to its stage, so that a second skim during the reduction
    still peels off at the skim.
    """
    start = timeline.first_pot
    if start is None or timeline.pot is None:
        return ()
    c = start.contents
    at = Stretch(
        stage="strain",
        planned=False,
        from_ml=c.volume_ml,
        to_ml=c.volume_ml,
        from_fat_ml=c.fat_ml,
        to_fat_ml=c.fat_ml,
        from_tone=tone(c),
        to_tone=tone(c),
        after=c,
        fat_ml=0.0,
        vapour_ml=0.0,
        added_ml=0.0,
    )
    out = [at]
    done, ahead = _happened(timeline, start), _planned(timeline, timeline.pot, route or plan(timeline))
    # What was left out on the way is done next, and not in the past.
    reached = max((STAGES.index(stage) for stage in done), default=0)
    ahead = _from(STAGES[reached], ahead)
    for stage in STAGES:
        for planned, change in ((False, done.get(stage)), (True, ahead.get(stage))):
            if change is not None:
                at = _stretch(at, stage, change, planned=planned)
                out.append(at)
    return tuple(out)


def _from(stage: Stage, ahead: dict[Stage, _Change]) -> dict[Stage, _Change]:
    """What is planned, no earlier than in a stage: what would come before it is done in it."""
    earlier = [ahead[one] for one in STAGES[: STAGES.index(stage)] if one in ahead]
    later = {one: change for one, change in ahead.items() if STAGES.index(one) >= STAGES.index(stage)}
    if not earlier:
        return later
    together = [*earlier, *([later[stage]] if stage in later else [])]
    return later | {
        stage: _Change(
            together[-1].after,
            fat_ml=sum(one.fat_ml for one in together),
            lost_fat_ml=sum(one.lost_fat_ml for one in together),
            vapour_ml=sum(one.vapour_ml for one in together),
            added_ml=sum(one.added_ml for one in together),
            drawn_ml=sum(one.drawn_ml for one in together),
        )
    }


def _stretch(before: Stretch, stage: Stage, change: _Change, *, planned: bool) -> Stretch:
    return Stretch(
        stage=stage,
        planned=planned,
        from_ml=before.to_ml,
        to_ml=before.to_ml + change.added_ml - change.fat_ml - change.vapour_ml - change.drawn_ml,
        from_fat_ml=before.to_fat_ml,
        to_fat_ml=max(before.to_fat_ml - change.lost_fat_ml, 0.0),
        from_tone=before.to_tone,
        to_tone=tone(change.after),
        after=change.after,
        fat_ml=change.fat_ml,
        vapour_ml=change.vapour_ml,
        added_ml=change.added_ml,
        drawn_ml=change.drawn_ml,
    )


#: Where steam is counted, the latest first; and where nothing of them has begun.
_AFTER_THE_BOIL: tuple[Stage, ...] = ("serve", "season", "thicken")
_THE_BOIL: Stage = "reduce"


def _happened(timeline: Timeline, start: Pot) -> dict[Stage, _Change]:
    """For each stage, what left and joined in it so far; the steam between two events is the reduction's, or that of
    the latest stage which has begun."""
    out: dict[Stage, _Change] = {}

    def steamed(before: Contents, after: Contents) -> None:
        lost = before.volume_ml - after.volume_ml
        if lost != 0.0:
            stage = next((one for one in _AFTER_THE_BOIL if one in out), _THE_BOIL)
            old = out.get(stage, _Change(after))
            out[stage] = replace(old, after=after, vapour_ml=old.vapour_ml + lost)

    last = start.contents
    for moment in timeline.moments:
        happened = moment.event.payload
        if not moment.stands or moment.pot is None or moment.found is None or isinstance(happened, ev.Started):
            continue
        found, after = moment.found.contents, moment.pot.contents
        steamed(last, found)
        last = after
        if isinstance(happened, ev.Read) and happened.gain is None:
            # What a reading tells, more or less than was thought, has steamed away, or has not.
            steamed(found, after)
        elif happened.stage is not None:
            # What is taken off a pot that has boiled was not drawn when it was strained.
            stage: Stage = "thicken" if happened.stage == "strain" and "reduce" in out else happened.stage
            out[stage] = _changed(out.get(stage, _Change(after)), happened, found, after)
        else:
            # A meter, a taste or another pan may change what is thought to be in it, too.
            steamed(found, after)
    if timeline.pot is not None:
        steamed(last, timeline.pot.contents)
    return out


def _changed(old: _Change, happened: ev.Kind, found: Contents, after: Contents) -> _Change:
    """What a stage comes to with one more event in it."""
    gain = after.volume_ml - found.volume_ml
    lost = max(-gain, 0.0)
    dry = isinstance(happened, ev.Skimmed) and happened.way == "boil_dry"
    skim, drawn = happened.stage == "skim" and not dry, happened.stage == "strain"
    return _Change(
        after,
        # What the spoon lifts with the fat peels off with it.
        fat_ml=old.fat_ml + (lost if skim else 0.0),
        lost_fat_ml=old.lost_fat_ml + found.fat_ml - after.fat_ml,
        vapour_ml=old.vapour_ml + (0.0 if skim or drawn else lost),
        added_ml=old.added_ml + max(gain, 0.0),
        drawn_ml=old.drawn_ml + (lost if drawn else 0.0),
    )


def _planned(timeline: Timeline, pot: Pot, route: Route | None) -> dict[Stage, _Change]:
    """For each stage, what the chosen route has yet to do."""
    if route is None or timeline.finished:
        return {}
    out: dict[Stage, _Change] = {}
    now = pot.contents
    if route.aside_ml > 0.0 and pot.kept is None:
        taken = now.scaled(1.0 - route.aside_ml / now.liquid_ml)
        out["strain"] = _Change(taken, lost_fat_ml=now.fat_ml - taken.fat_ml, drawn_ml=now.volume_ml - taken.volume_ml)
        now = taken
    if ev.fat_to_skim(pot, timeline.asked.wanted) and not timeline.skimming.settled:
        fat = WAYS[skim_way(pot, timeline.minutes_left)].removes_ml(now.fat_ml)
        out["skim"] = _Change(now, fat_ml=fat, lost_fat_ml=fat)
    steam_ml = now.liquid_ml - route.boil_to_ml
    bound = route.final.with_masses(salt=max(route.final.salt - route.salt_to_add_g, 0.0))
    unbound_ml = route.boil_to_ml + route.let_down_ml
    if steam_ml > 1.0 or route.let_down_ml > 1.0:
        water = now.water + (route.let_down_ml - steam_ml) / SPECIFIC_VOLUME_ML_G["water"]
        out["reduce"] = _Change(now.with_masses(water=max(water, 1.0)), vapour_ml=steam_ml, added_ml=route.let_down_ml)
    if route.thickener is not None:
        added_ml = bound.liquid_ml - route.sauce_share * unbound_ml
        out["thicken"] = _Change(bound, added_ml=added_ml, drawn_ml=route.parted_ml)
    if route.salt_to_add_g > 0.0:
        out["season"] = _Change(route.final, added_ml=route.final.liquid_ml - bound.liquid_ml)
    out["serve"] = _Change(route.final)
    return out
