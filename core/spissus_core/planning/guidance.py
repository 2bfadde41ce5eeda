"""The next act: the one thing to do now, in numbers. The words are put to it elsewhere."""

from __future__ import annotations

from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Literal

from .. import events as ev
from ..estimation.forecast import RULER_USELESS, Outlook, Progress
from ..events import State
from ..fold import progress
from ..measuring.measurement import Method, error_ml
from ..phenomena.body import LADDER
from ..phenomena.cooling import Cooling, judge
from ..phenomena.evaporation import boiled_to_volume
from ..phenomena.seasoning import FIRST_SHARE as FIRST_SALT
from ..pot import Pot
from .routes import Route, solve_route

ActKind = Literal[
    "start", "cool", "want", "choose", "skim", "heat", "boil", "let_down", "thicken", "test_body", "salt", "test_salt",
    "finish", "done", "alone",
]  # fmt: skip

#: A pot within this share of its mark is there: no measurement tells the difference.
CLOSE_ENOUGH = 0.02
#: Thickener to prepare for what is worked out, and a helping of those that follow, level tbsp (common practice).
PREPARED, HELPING_TBSP = 1.1, 0.5
#: Salt below this is not worth weighing, g.
LEAST_SALT_G = 0.3
#: What a cook changes when the tongue contradicts the arithmetic: 5 % of the liquid, or 0.05 % salt.
NUDGE_SHARE = 0.05
NUDGE_SALT_PERCENT = 0.05


@dataclass(frozen=True, slots=True)
class Act:
    """What to do next.

    ``amount`` is in the unit of its kind: mL of fat for skim, mL of liquid for let_down, dry g for
    thicken, g for salt. ``look_at`` and ``expect_mm`` belong to boil, ``stop_mm`` and ``stop_gross_g`` to
    boil and to heat, where the heat has to be turned on first; ``measure`` says what to measure with
    where what was used so far is too coarse, and ``outlook`` the rest of what is known. ``first`` tells
    the first helping of thickener or salt from those that follow. ``cooling`` is where a cooling pot
    stands, and ``by`` when it must meet its next limit.
    """

    kind: ActKind
    route: Route | None = None
    amount: float = 0.0
    prepare: float = 0.0
    look_at: datetime | None = None
    expect_mm: float = 0.0
    stop_mm: float = 0.0
    stop_gross_g: float | None = None
    first: bool = True
    measure: Method | Literal["spoon"] | None = None
    outlook: Outlook | None = None
    cooling: Cooling | None = None
    by: datetime | None = None


def next_act(timeline: State, ahead: Progress | None = None, route: Route | None = None) -> Act:
    """The next act of a batch.

    ``ahead`` is what is known of its heating, and ``route`` its plan, where they were worked out already.
    """
    pot = timeline.pot
    if pot is None:
        return Act("start")
    if timeline.finished is not None:
        return Act("done", amount=timeline.finished.yield_ml or pot.contents.liquid_ml)
    if timeline.cooling is not None:
        log = timeline.cooling
        stands = judge(log.readings, log.surroundings_c)
        due = None if stands.limit_minute is None else log.began + timedelta(minutes=stands.limit_minute)
        return Act("cool", amount=pot.contents.fat_ml, cooling=stands, by=due)
    if timeline.wanted is None:
        return Act("want")
    if timeline.chosen is None:
        return Act("choose")
    if ev.fat_to_skim(pot, timeline.wanted) and not timeline.fat_settled:
        return Act("skim", amount=pot.contents.fat_ml)
    route = route or plan(timeline)
    assert route is not None
    ahead = ahead or progress(timeline)
    return (
        _volume_act(timeline, pot, route, ahead) or _body_act(timeline, pot, route) or _salt_act(timeline, pot, route)
    )


def plan(timeline: State) -> Route | None:
    """The chosen route, worked out afresh from the pot as it is; None before there is one.

    Once thickener is in, or the body was found right, no more boiling is planned.
    """
    if timeline.pot is None or timeline.wanted is None or timeline.chosen is None:
        return None
    settled = timeline.thickener_added or timeline.body_verdict is not None or timeline.finished is not None
    return solve_route(timeline.pot, timeline.wanted, timeline.chosen.route, here=settled)


def _volume_act(timeline: State, pot: Pot, route: Route, ahead: Progress | None) -> Act | None:
    now = pot.contents.liquid_ml
    if route.let_down_ml > CLOSE_ENOUGH * now:
        return Act("let_down", route, amount=route.let_down_ml)
    if timeline.chosen and timeline.chosen.route == "reduction" and timeline.body_verdict == "low":
        return _boil(pot, route, (1.0 - NUDGE_SHARE) * now, ahead)
    if route.share_left < 1.0 - CLOSE_ENOUGH:
        return _boil(pot, route, route.boil_to_ml, ahead)
    return None


def _boil(pot: Pot, route: Route, stop_ml: float, ahead: Progress | None) -> Act:
    """Boil on until the next look; where the heat is off, turn it on."""
    stop = boiled_to_volume(pot.contents, stop_ml)
    act = Act(
        "heat", route, amount=stop_ml, stop_mm=pot.mark_mm(stop_ml), stop_gross_g=pot.gross_of(stop),
        measure=_finer(pot, pot.contents.liquid_ml - stop_ml),
    )  # fmt: skip
    outlook = ahead.outlook(stop_ml) if ahead else None
    if outlook is None:
        return act
    return replace(
        act, kind="boil", look_at=outlook.look_at, expect_mm=pot.mark_mm(outlook.expect_ml), outlook=outlook
    )  # fmt: skip


def _finer(pot: Pot, to_lose_ml: float) -> Method | Literal["spoon"] | None:
    """What to measure with where the last method cannot tell what is left to lose; None where it can."""
    if pot.measured_by == "list" or to_lose_ml >= RULER_USELESS * pot.error_ml:
        return None
    in_pan, density = pot.contents.volume_ml * pot.share, pot.contents.density_g_ml
    finer: tuple[Method, ...] = ("scale", "jug") if pot.pan.empty_g is not None else ("jug",)
    for method in finer:
        if to_lose_ml >= RULER_USELESS * error_ml(pot.pan, method, in_pan, density) / pot.share:
            return method
    return "spoon"


def _body_act(timeline: State, pot: Pot, route: Route) -> Act | None:
    verdict = timeline.body_verdict
    if verdict == "right":
        return None
    if verdict == "high":
        return Act("let_down", route, amount=NUDGE_SHARE * pot.contents.liquid_ml, first=False)
    if verdict is None and (timeline.thickener_added or route.thickener is None):
        return Act("test_body", route)
    thickener = route.thickener
    if thickener is None:
        # The arithmetic says it is thick enough, the spoon says it is not: the spoon is right.
        binder = solve_route(pot, _thicker(timeline), timeline.chosen.route, here=True) if timeline.chosen else route
        thickener = binder.thickener
        if thickener is None:
            return Act("test_body", route)
        return Act("thicken", binder, amount=HELPING_TBSP * thickener.tbsp_g, first=False)
    if not timeline.thickener_added:
        return Act("thicken", route, amount=thickener.first_share * route.dry_g, prepare=PREPARED * route.dry_g)
    spoon = max(HELPING_TBSP * thickener.tbsp_g, route.dry_g / 2.0)
    return Act("thicken", route, amount=min(route.dry_g, spoon), first=False)


def _thicker(timeline: State) -> ev.Wanted:
    assert timeline.wanted is not None
    return timeline.wanted.model_copy(update={"body": min(timeline.wanted.body + 1, LADDER[-1].index)})


def _salt_act(timeline: State, pot: Pot, route: Route) -> Act:
    verdict, missing = timeline.salt_verdict, route.salt_to_add_g
    if verdict == "right":
        return Act("finish", route, amount=pot.contents.liquid_ml)
    if verdict == "high":
        return Act("let_down", route, amount=NUDGE_SHARE * pot.contents.liquid_ml, first=False)
    if verdict == "low":
        nudge = NUDGE_SALT_PERCENT / 100.0 * pot.contents.liquid_g
        return Act("salt", route, amount=max(missing, nudge), first=False)
    if not timeline.salt_added and missing > LEAST_SALT_G:
        return Act("salt", route, amount=FIRST_SALT * missing)
    return Act("test_salt", route, amount=missing)
