"""What is wanted, the ways there, and the pans for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Any
from uuid import UUID

from kitchens.services import Pair
from pydantic import ConfigDict
from shared.shapes import PanShape, RangeOut, ReasonOut, SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_length, show_mass, show_minutes, show_volume
from spissus_core.amounts.tables import key_of
from spissus_core.fold import Timeline
from spissus_core.measuring.vessels import SHALLOW_MM
from spissus_core.messages import Message, say
from spissus_core.pantry.guests import AVOIDED_WORDS, USUAL_PEOPLE
from spissus_core.pantry.schools import SCHOOLS, School, SchoolKey
from spissus_core.phenomena.heating import HeatSetting
from spissus_core.planning.acts import next_act
from spissus_core.planning.because import because, instead, notes
from spissus_core.planning.explanation import leave, reasons, tastes
from spissus_core.planning.hurry import Hurried, hurried
from spissus_core.planning.judgement import JUDGEMENT
from spissus_core.planning.pans import SplitChoice, best_split, compared
from spissus_core.planning.proposing import suggested
from spissus_core.planning.solving import Route, work_min
from spissus_core.planning.spoken import carrier_amount, dry_amount, salt_amount, way_line
from spissus_core.planning.trade import TradePoint, too_salty_ml
from spissus_core.pot import Pot
from spissus_core.wish import Wish
from words import plain

from .pot import BodyOut, body_out, word


class RouteOut(Shape):
    """A way. ``recommended`` is the one to propose, ``because`` why it would be taken, ``reason`` why it cannot be.

    ``flag`` is its name in two or three words, ``said`` what it asks for, and ``takes`` how long until it is done;
    ``to_amount`` says that all of the pot boils down to the amount that is wanted, ``too_salty`` that its sauce would
    be past the ceiling, and ``beside`` how much stands in the pot before it boils, where that is not what is in it.

    ``first`` is what is done before it, in order: another pan, or a second one, where time is short. ``take`` is the
    part of the pot that makes the sauce, where not all of it does; ``let_down`` unsalted liquid to stir in first;
    ``keep`` what is kept for another meal before the rest is bound. ``instead`` is what the next way would give;
    ``times`` how strong its sauce is, in multiples of what was strained.
    ``own`` is the mixture of the kitchen's own that it is made with.
    ``leave`` is how far it boils down and for how long; null where nothing boils away.
    """

    kind: ev.RouteKind
    label: str
    flag: str
    said: SaidOut
    takes: ShownOut
    to_amount: bool
    too_salty: bool
    beside: ShownOut | None
    feasible: bool
    recommended: bool
    because: SaidOut | None
    reason: SaidOut | None
    first: list[dict[str, Any]]
    take: ShownOut | None
    let_down: ShownOut | None
    keep: ShownOut | None
    instead: SaidOut | None
    volume: ShownOut
    boil_to: ShownOut
    leave: SaidOut | None
    mark: ShownOut | None
    gross: ShownOut | None
    minutes: RangeOut
    school: SchoolKey | None
    own: SchoolKey | None
    thickener: str | None
    dry_name: str | None
    dry: ShownOut | None
    dry_also: ShownOut | None
    dry_low: ShownOut | None
    dry_high: ShownOut | None
    carrier: ShownOut | None
    carrier_also: ShownOut | None
    carrier_name: str | None
    how: str | None
    allergens: list[str]
    salt_before: RangeOut
    salt_after: RangeOut
    salt_to_add: ShownOut | None
    salt_to_add_also: ShownOut | None
    portions: int | None
    body: BodyOut
    tastes: SaidOut
    times: float
    notes: list[SaidOut]


class PlanOut(RouteOut):
    """The way that was chosen, with the arithmetic of its figures."""

    reasons: list[ReasonOut]


class TradeOut(Shape):
    """One point of the trade between volume, thickener and salt: where boiling stops for that much sauce, how dark it
    is drawn then, and the dry thickener by school."""

    volume: ShownOut
    boil_to: ShownOut
    tone: float
    salt_percent: float
    dry: dict[str, ShownOut]


class RoutesOut(Shape):
    """The ways there, the one to propose first, and what each volume costs. ``told`` is how what was said of the
    amount was read; null where it is the amount itself. ``body`` is the step of the ladder, which the amount may name
    in words, too ("600 ml, syrupy"). Boiled down below ``too_salty`` its sauce is past the ceiling;
    null where it never is."""

    routes: list[RouteOut]
    trade: list[TradeOut]
    wanted: ShownOut
    told: SaidOut | None
    body: int
    salt_percent: float
    ceiling_percent: float
    too_salty: ShownOut | None
    least: ShownOut
    most: ShownOut


class WantedOut(Shape):
    """What is wanted. ``said`` is how the amount is said again, and ``by_people`` whether it is for so many people,
    which are else those that are taken for granted; ``minutes`` are those left of the time there was."""

    amount: ShownOut
    said: SaidOut
    by_people: bool
    portions: int | None
    portion: ShownOut | None
    people: int
    over: Annotated[str, key_of("dishes")]
    minutes: int | None
    clock: str | None
    avoid: list[Annotated[str, key_of("avoided")]]
    body: int
    salt_percent: float
    ceiling_percent: float
    fat_g_per_100_ml: float


class PansIn(Shape):
    """Which heat, and on which burner, to compare the kitchen's pans for."""

    model_config = ConfigDict(extra="forbid")

    burner_id: UUID | None = None
    heat: HeatSetting = HeatSetting()


class PanChoiceOut(Shape):
    """One of the kitchen's pans for what the pot still has to lose."""

    pan_id: UUID
    pan: PanShape
    burner_id: UUID
    burner: str
    here: bool
    minutes: RangeOut | None
    how: SaidOut | None
    end_depth: ShownOut
    dip_error: ShownOut
    shallow: bool
    scorches: bool


class SplitOut(Shape):
    """What is poured over into a second pan, and what that saves."""

    said: SaidOut
    pan_id: UUID
    burner_id: UUID
    volume_ml: float


class PansOut(Shape):
    """The pans, the quickest that serves first, and the split over two that saves most."""

    stop: ShownOut
    choices: list[PanChoiceOut]
    split: SplitOut | None


def dry_shown(grams: float, school: School) -> tuple[ShownOut, ShownOut]:
    """So much of a dry thickener: as it is weighed, and as it is spooned."""
    dry = dry_amount(grams, school)
    return ShownOut.of(dry.main), ShownOut.of(dry.also)


def route_out(
    pot: Pot,
    wanted: Wish,
    route: Route,
    *,
    recommended: bool = False,
    quick: Quick | None = None,
    after: Route | None = None,
) -> RouteOut:
    """One way: what it makes, what it takes, and the arithmetic of both; and what the way ``after`` it would give."""
    t = route.thickener
    dry = None if t is None else dry_amount(route.dry_g, t)
    carrier = None if t is None or not t.carrier else carrier_amount(route.dry_g, t)
    salt_g = route.salt_to_add_g
    salt = salt_amount(salt_g, "table") if salt_g >= JUDGEMENT.least_salt_g else None
    return RouteOut(
        kind=route.kind,
        label=plain(route.label),
        flag=word(route.way.flag),
        said=SaidOut.of(way_line(pot, wanted, route)),
        takes=ShownOut.of(show_minutes(work_min(route))),
        too_salty=route.salt_before.best > wanted.ceiling_percent,
        beside=(
            ShownOut.of(show_volume(pot.contents.liquid_ml - route.aside_ml + route.let_down_ml))
            if route.aside_ml > 0.0 or route.let_down_ml > 0.0
            else None
        ),
        to_amount=route.way.stop == "volume" and not route.way.part,
        feasible=route.feasible,
        recommended=recommended,
        because=SaidOut.of(quick.why if quick else because(pot, wanted, route)) if route.feasible else None,
        first=[] if quick is None else [quick.payload],
        reason=SaidOut.maybe(route.reason),
        take=ShownOut.of(show_volume(pot.contents.liquid_ml - route.aside_ml)) if route.aside_ml > 0.0 else None,
        let_down=ShownOut.of(show_volume(route.let_down_ml)) if route.let_down_ml > 0.0 else None,
        keep=ShownOut.of(show_volume(route.parted_ml)) if route.parted_ml > 0.0 else None,
        instead=SaidOut.maybe(None if after is None else instead(after)),
        volume=ShownOut.of(show_volume(route.volume_ml)),
        boil_to=ShownOut.of(show_volume(route.boil_to_ml)),
        leave=SaidOut.maybe(leave(route)),
        # Where no ruler reads it there is no mark.
        mark=ShownOut.of(show_length(route.mark_mm)) if route.mark_mm >= SHALLOW_MM else None,
        gross=None if route.gross_g is None else ShownOut.of(show_mass(route.gross_g)),
        minutes=RangeOut.of(route.minutes),
        school=None if route.way.school is None else pot.binding(route.way.school).key,
        own=pot.own.key if route.way.with_own and pot.own is not None else None,
        thickener=None if t is None else plain(t.called),
        dry_name=None if t is None else plain(t.weighed),
        dry=None if dry is None else ShownOut.of(dry.main),
        dry_also=None if dry is None else ShownOut.of(dry.also),
        dry_low=None if t is None else ShownOut.of(dry_amount(route.dry_range_g.low, t).main),
        dry_high=None if t is None else ShownOut.of(dry_amount(route.dry_range_g.high, t).main),
        carrier=None if carrier is None else ShownOut.of(carrier.main),
        carrier_also=None if carrier is None else ShownOut.of(carrier.also),
        carrier_name=None if t is None or not t.carrier else word(t.carrier),
        how=None if t is None else word(t.how),
        allergens=[] if t is None else [word(AVOIDED_WORDS.get(key, key)) for key in t.allergens],
        salt_before=RangeOut.of(route.salt_before),
        salt_after=RangeOut.of(route.salt_after),
        salt_to_add=None if salt is None else ShownOut.of(salt.main),
        salt_to_add_also=None if salt is None else ShownOut.of(salt.also),
        portions=wanted.portions_in(route.volume_ml),
        body=body_out(route.body),
        tastes=SaidOut.of(tastes(pot, route.final)),
        times=pot.times(route.final),
        notes=SaidOut.of_all(notes(pot, wanted, route)),
    )


def in_time(pot: Pot, wanted: Wish, route: Route, pairs: Sequence[Pair]) -> Route:
    """A way as it is where it is in time: in another pan of the kitchen, where this one is too slow for it."""
    found = hurried(pot, wanted, route, [(pair.pan, pair.burner) for pair in pairs]) if pairs else None
    return route if found is None else found.route


def reasons_out(pot: Pot, wanted: Wish, route: Route) -> list[ReasonOut]:
    """The arithmetic of a way's figures."""
    return [ReasonOut.of(reason) for reason in reasons(pot, wanted, route)]


def plan_out(pot: Pot, wanted: Wish, route: Route) -> PlanOut:
    """The way that was chosen, with the arithmetic of its figures."""
    return PlanOut(**dict(route_out(pot, wanted, route)), reasons=reasons_out(pot, wanted, route))


@dataclass(frozen=True, slots=True)
class Quick:
    """A way that is in time elsewhere: what is done first for it, and why."""

    payload: dict[str, Any]
    why: Message


def _quick(found: Hurried, pair: Pair) -> Quick:
    """The other pan, or the second one, as an entry and in words."""
    where = {"pan_id": str(pair.pan_id), "burner_id": str(pair.burner_id)}
    takes = show_minutes(found.takes_min)
    place = say("batch.pan_on_burner", pan=pair.pan.name, burner=pair.burner.name)
    if found.split_ml is None:
        return Quick({"kind": "moved", **where}, say("batch.in_another_pan", place=place, time=takes))
    over = say("batch.in_two_pans", volume=show_volume(found.split_ml), place=place, time=takes)
    return Quick({"kind": "split", "volume_ml": found.split_ml, **where}, over)


def routes_out(
    pot: Pot,
    wanted: Wish,
    routes: tuple[Route, ...],
    points: tuple[TradePoint, ...],
    *,
    pairs: Sequence[Pair] = (),
    chosen: str | None = None,
) -> RoutesOut:
    """The ways; those that this pan is too slow for in another of the kitchen's pans, where one is quick enough.

    The way that was ``chosen`` comes first while it leads there, and nothing else is recommended then.
    """
    wanted = wanted.of(pot)
    salty = too_salty_ml(points, wanted.ceiling_percent)
    found = {r.kind: hurried(pot, wanted, r, [(p.pan, p.burner) for p in pairs]) for r in routes} if pairs else {}
    ways = [
        (one.route, _quick(one, pairs[one.place])) if (one := found.get(route.kind)) else (route, None)
        for route in routes
    ]
    # What another pan makes possible follows what this one does.
    ways.sort(key=lambda way: (not way[0].feasible, way[0].kind != chosen, way[1] is not None))
    return RoutesOut(
        routes=[
            route_out(
                pot,
                wanted,
                route,
                recommended=route.feasible and i == 0 and route.kind != chosen,
                quick=quick,
                after=_another([other for other, _ in ways], route) if i == 0 else None,
            )
            for i, (route, quick) in enumerate(ways)
        ],
        trade=[
            TradeOut(
                volume=ShownOut.of(show_volume(p.volume_ml)),
                boil_to=ShownOut.of(show_volume(p.boil_to_ml)),
                tone=p.tone,
                salt_percent=p.salt_percent,
                dry={key: ShownOut.of(dry_amount(grams, _school(pot, key)).main) for key, grams in p.dry_g.items()},
            )
            for p in points
        ],
        wanted=ShownOut.of(show_volume(wanted.amount_ml)),
        told=SaidOut.of(wanted.amount_said) if wanted.as_told else None,
        body=wanted.body,
        salt_percent=wanted.salt_percent,
        ceiling_percent=wanted.ceiling_percent,
        too_salty=None if salty is None else ShownOut.of(show_volume(salty)),
        least=ShownOut.of(show_volume(points[0].volume_ml if points else 0.0)),
        most=ShownOut.of(show_volume(pot.contents.liquid_ml)),
    )


def _school(pot: Pot, key: str) -> School:
    """A school by its key; the mixture that the pot may be bound with by its own."""
    return pot.own if pot.own is not None and pot.own.key == key else SCHOOLS[key]


def _another(routes: Sequence[Route], first: Route) -> Route | None:
    """The best way of another kind than the first; None where no other leads there."""
    return next((r for r in routes if r.feasible and r.way.flag != first.way.flag), None)


def wanted_out(wanted: Wish, minutes_left: float | None = None) -> WantedOut:
    """A wish as it is said again, with what it comes to."""
    return WantedOut(
        amount=ShownOut.of(show_volume(wanted.amount_ml)),
        by_people=wanted.told_by == "people",
        # What was told by the pot is said again by what it came to: half of it is not half of what is left.
        said=SaidOut.of(wanted.amount_said if wanted.told_by == "portions" else show_volume(wanted.amount_ml)),
        people=wanted.people or USUAL_PEOPLE,
        over=wanted.dish,
        minutes=None if minutes_left is None else max(round(minutes_left), 1),
        clock=wanted.clock,
        avoid=list(wanted.avoid),
        portions=wanted.portions,
        portion=None if wanted.helping_ml is None else ShownOut.of(show_volume(wanted.helping_ml)),
        body=wanted.body,
        salt_percent=wanted.salt_percent,
        ceiling_percent=wanted.ceiling_percent,
        fat_g_per_100_ml=wanted.fat_g_per_100_ml,
    )


def pans_out(timeline: Timeline, pairs: Sequence[Pair], data: PansIn) -> PansOut:
    """The kitchen's pans for what this pot still has to lose."""
    pot = timeline.pot
    assert pot is not None
    mark = next_act(timeline).doing.mark
    stop_ml = suggested(pot).amount_ml if mark is None else mark.ml
    there = [pair for pair in pairs if data.burner_id in (None, pair.burner_id)]
    choices = []
    for one in compared(pot, stop_ml, [(pair.pan, pair.burner) for pair in there], data.heat):
        pair = there[one.place]
        choices.append(
            PanChoiceOut(
                pan_id=pair.pan_id,
                pan=PanShape(**one.pan.model_dump()),
                burner_id=pair.burner_id,
                burner=one.burner.name,
                here=one.pan == pot.pan and one.burner.name == pot.burner.name,
                minutes=None if one.minutes is None else RangeOut.of(one.minutes),
                how=SaidOut.maybe(one.how),
                end_depth=ShownOut.of(show_length(one.end_mm)),
                dip_error=ShownOut.of(show_volume(one.dip_error_ml)),
                shallow=one.end_mm < SHALLOW_MM,
                scorches=one.scorches,
            )
        )
    here = next((c.minutes.best for c in choices if c.here and c.minutes), None)
    best = None
    if here is not None and data.heat.heat == "boil":
        best = best_split(pot, here, [(pair.pan, pair.burner) for pair in pairs])
    split = None if best is None else _split_out(best, pairs[best.place])
    return PansOut(stop=ShownOut.of(show_volume(stop_ml)), choices=choices, split=split)


def _split_out(split: SplitChoice, pair: Pair) -> SplitOut:
    said = say(
        "batch.split_over_two",
        volume=show_volume(split.volume_ml),
        place=say("batch.pan_on_burner", pan=pair.pan.name, burner=pair.burner.name),
        two=show_minutes(split.minutes),
        one=show_minutes(split.instead_of),
    )
    return SplitOut(said=SaidOut.of(said), pan_id=pair.pan_id, burner_id=pair.burner_id, volume_ml=split.volume_ml)
