"""The story of a batch: what happened over what was foreseen when its way was taken, and why the two differ.

Each reason is the effect of one thing alone: the way is worked out again with that as it turned out, and everything
else as it was foreseen. What several do together is told of none of them.
"""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Literal, NamedTuple

from .. import events as ev
from ..amounts.quantities import show_mass, show_minutes, show_number, show_percent, show_volume
from ..fold import Moment, Timeline
from ..ledger.contents import percent
from ..messages import Argument, Message, Term, say
from ..phenomena.heating import Burner, LearnedRate
from ..pot import Pot
from .schedule import BINDING_MIN, Ready
from .solving import Route
from .tone import tone

#: Two figures that lie closer to each other are the same to a cook: share of a volume, points of salt, times as strong,
#: minutes, and share of a thickener. Modelling choices, from what spoon and tongue tell apart (handbook of the trade,
#: section 19).
SAME_VOLUME, SAME_SALT, SAME_TIMES, SAME_MIN, SAME_DRY = 0.05, 0.05, 0.15, 5.0, 0.15

#: No more reasons than fit beside a ribbon.
MOST_REASONS = 4

#: Less than this has not boiled, mL. Numerical choice.
STILL_ML = 1.0

#: A stove that gives within this share of what was thought is the stove that was thought of. Modelling choice.
SAME_STOVE = 0.1


class Point(NamedTuple):
    """How much there is at a time, mL at 20 °C with its fat, and how dark it is drawn."""

    at: datetime
    ml: float
    tone: float


class Compared(NamedTuple):
    """A figure as it came, and as it was foreseen; ``same`` where nobody would tell the two apart."""

    what: Literal["volume", "body", "salt", "strength", "time"]
    happened: Argument
    foreseen: Argument
    same: bool


class Because(NamedTuple):
    """Something that turned out otherwise, where on the ribbon, and what it alone did; ``weight`` orders them."""

    at: datetime
    ml: float
    what: Message
    did: Message
    weight: float


class Story(NamedTuple):
    """What happened, what was foreseen, the figures of both, and why they differ, the largest first."""

    happened: tuple[Point, ...]
    foreseen: tuple[Point, ...]
    figures: tuple[Compared, ...]
    because: tuple[Because, ...]


def chosen(timeline: Timeline) -> Moment | None:
    """Where the way was taken that was gone; None where none was."""
    taken = [one for one in timeline.moments if one.stands and isinstance(one.event.payload, ev.Chosen)]
    return taken[-1] if taken else None


def known_then(timeline: Timeline, taken: Moment) -> list[ev.Event]:
    """What had happened when a way was taken, as it was mended since."""
    upto = timeline.moments[: timeline.moments.index(taken) + 1]
    return [one.event for one in upto if one.stands]


def story(
    timeline: Timeline, then: Timeline, route: Route, foreseen: Ready, taught: LearnedRate | None
) -> Story | None:
    """The story of a batch; ``then``, ``route`` and ``foreseen`` are as it stood when its way was taken.

    None where nothing has followed on that.
    """
    pot, before = timeline.pot, then.pot
    since = list(_to_the_end(timeline))
    begun = then.stands_at
    after = [one for one in since if begun is not None and one.event.at >= begun]
    if pot is None or before is None or begun is None or len(after) < 2:
        return None
    gone = _Gone(pot, before, route, foreseen, after, taught)
    because = sorted(_because(gone), key=lambda one: one.weight, reverse=True)
    return Story(
        happened=tuple(_points(since)),
        foreseen=tuple(_planned(then, before, route, begun, foreseen)),
        figures=tuple(_figures(timeline, gone)),
        because=tuple(one for one in because if one.weight >= 1.0)[:MOST_REASONS],
    )


def _to_the_end(timeline: Timeline) -> Iterator[Moment]:
    """Everything that counts, up to where it was finished: what was said later is no part of the way."""
    for one in timeline.moments:
        if one.stands and one.pot is not None:
            yield one
            if isinstance(one.event.payload, ev.Finished):
                return


def _points(moments: list[Moment]) -> Iterator[Point]:
    """Each entry with the pot that it found, and the pot that it left; a reading with what it showed alone."""
    for moment in moments:
        read = isinstance(moment.event.payload, ev.Read)
        for pot in (None if read else moment.found, moment.pot):
            if pot is not None:
                yield Point(moment.event.at, pot.contents.volume_ml, tone(pot.contents))


def _planned(then: Timeline, pot: Pot, route: Route, begun: datetime, foreseen: Ready) -> Iterator[Point]:
    """The way as it would have gone: boiled from when it was taken, bound, and on the table when it was to be."""
    held = pot.contents
    yield Point(then.moments[0].event.at, held.volume_ml, tone(held))
    yield Point(begun, held.volume_ml, tone(held))
    if route.aside_ml > 0.0:
        yield Point(begun, held.volume_ml - route.aside_ml, tone(held))
    boiled = begun + timedelta(minutes=route.minutes.best if route.steam_g > 0.0 else 0.0)
    yield Point(boiled, route.boil_to_ml + route.fat_ml, tone(route.final))
    bound = min(boiled + timedelta(minutes=BINDING_MIN), max(foreseen.best, boiled))
    yield Point(bound, route.final.volume_ml, tone(route.final))
    yield Point(max(foreseen.best, bound), route.final.volume_ml, tone(route.final))


class _Gone(NamedTuple):
    """A way that was gone: the batch at its end, its pot then and before, and everything from when it was taken."""

    pot: Pot
    before: Pot
    route: Route
    foreseen: Ready
    after: list[Moment]
    taught: LearnedRate | None

    @property
    def stop(self) -> Moment:
        """Where it was boiled no more: at the first thickener, or when it came off the heat, or at the end."""
        for one in self.after[1:]:
            payload = one.event.payload
            if isinstance(payload, ev.Thickened) or (isinstance(payload, ev.Heated) and payload.heat == "off"):
                return one
        return self.after[-1]

    @property
    def stopped_at(self) -> Pot:
        """The pot then."""
        found = self.stop.found or self.stop.pot
        assert found is not None
        return found

    def of(self, *kinds: type[ev.Kind]) -> list[Moment]:
        """What was entered of some kinds since."""
        return [one for one in self.after if isinstance(one.event.payload, kinds)]


def _figures(timeline: Timeline, gone: _Gone) -> Iterator[Compared]:
    route, pot, made = gone.route, gone.pot, timeline.made_ml
    near = abs(made - route.volume_ml) <= SAME_VOLUME * route.volume_ml
    yield Compared("volume", show_volume(made), show_volume(route.volume_ml), near)
    step, wanted = pot.body.step, route.body.step
    yield Compared("body", Term(step.everyday), Term(wanted.everyday), step is wanted)
    salt, salty = pot.contents.salt_percent, route.salt_after.best
    yield Compared("salt", show_percent(salt), show_percent(salty), abs(salt - salty) <= SAME_SALT)
    times, strong = pot.times(pot.contents), gone.before.times(route.final)
    shown = [say("story.times", times=show_number(one, 1)) for one in (times, strong)]
    yield Compared("strength", shown[0], shown[1], abs(times - strong) <= SAME_TIMES)
    at, by = gone.after[-1].event.at, gone.foreseen
    yield Compared("time", say("story.at", at=at), say("story.at", at=by.best), by.low <= at <= by.high)


def _because(gone: _Gone) -> Iterator[Because]:
    yield from _another_mark(gone)
    stove = list(_another_stove(gone))
    yield from stove
    yield from _another_pace(gone, stove_explains=bool(stove))
    yield from _more_than_thought(gone)
    yield from _another_thickener(gone)
    yield from _another_salt(gone)
    yield from _stirred_in(gone)


def _another_mark(gone: _Gone) -> Iterator[Because]:
    """It was boiled further, or less far, than to its mark."""
    route, stopped = gone.route, gone.stopped_at.contents.liquid_ml
    if route.steam_g <= 0.0:
        return
    alone = route.stopped_at(stopped, route.mark_mm, route.gross_g)
    more_ml = alone.volume_ml - route.volume_ml
    salt = percent(alone.final.salt - alone.salt_to_add_g + route.salt_to_add_g, alone.final.liquid_g)
    yield Because(
        at=gone.stop.event.at,
        ml=gone.stopped_at.contents.volume_ml,
        what=say("story.boiled_to", volume=show_volume(stopped), mark=show_volume(route.boil_to_ml)),
        did=_more_or_less(more_ml, salt - route.salt_after.best),
        weight=max(abs(more_ml) / (SAME_VOLUME * route.volume_ml), abs(salt - route.salt_after.best) / SAME_SALT / 2.0),
    )


def _more_or_less(more_ml: float, salt: float) -> Message:
    key = "story.more_sauce" if more_ml > 0.0 else "story.less_sauce"
    sign = "story.salt_up" if salt > 0.0 else "story.salt_down"
    return say(key, volume=show_volume(abs(more_ml)), salt=say(sign, points=show_number(abs(salt), 2)))


def _another_stove(gone: _Gone) -> Iterator[Because]:
    """The burner gave more, or less, than it was thought to."""
    taught, route = gone.taught, gone.route
    if taught is None or route.steam_g <= 0.0:
        return
    thought = _thought_kw(gone.before.burner, taught)
    minutes = route.minutes.best * (thought / taught.net_kw - 1.0)
    if abs(taught.net_kw / thought - 1.0) < SAME_STOVE:
        return
    yield Because(
        at=gone.stop.event.at,
        ml=gone.stopped_at.contents.volume_ml,
        what=say("story.later" if minutes > 0.0 else "story.earlier", time=show_minutes(abs(minutes))),
        did=say("story.burner_gave", kw=show_number(taught.net_kw, 1), thought=show_number(thought, 1)),
        weight=abs(minutes) / SAME_MIN,
    )


def _thought_kw(burner: Burner, taught: LearnedRate) -> float:
    known = next((rate for rate in burner.learned if rate.heat == taught.heat), None)
    return known.net_kw if known else burner.net_kw


def _another_pace(gone: _Gone, *, stove_explains: bool) -> Iterator[Because]:
    """The work around the pot took longer, or less long; told where the stove is not the reason."""
    last = gone.after[-1]
    minutes = (last.event.at - gone.foreseen.best).total_seconds() / 60.0
    if stove_explains or gone.foreseen.low <= last.event.at <= gone.foreseen.high:
        return
    yield Because(
        at=last.event.at,
        ml=gone.pot.contents.volume_ml,
        what=say("story.done_later" if minutes > 0.0 else "story.done_earlier", time=show_minutes(abs(minutes))),
        did=say("story.the_work"),
        weight=abs(minutes) / SAME_MIN,
    )


def _more_than_thought(gone: _Gone) -> Iterator[Because]:
    """A reading found more than was thought where nothing had boiled since: there was more from the first."""
    for earlier, moment in pairwise(gone.after):
        if not isinstance(moment.event.payload, ev.Read) or not (earlier.pot and moment.found and moment.pot):
            continue
        found, now = moment.found.contents.liquid_ml, moment.pot.contents.liquid_ml
        if now > found and earlier.pot.contents.liquid_ml - found < STILL_ML:
            yield Because(
                at=moment.event.at,
                ml=moment.pot.contents.volume_ml,
                what=say("story.more_than_thought", volume=show_volume(now - found)),
                did=say("story.a_reading_said"),
                weight=(now - found) / (SAME_VOLUME * found),
            )


def _another_thickener(gone: _Gone) -> Iterator[Because]:
    """It took more, or less, thickener than the tables say."""
    route, doses = gone.route, gone.of(ev.Thickened)
    if route.thickener is None or route.dry_g <= 0.0 or not doses:
        return
    grams = sum(one.event.payload.dry_g for one in doses if isinstance(one.event.payload, ev.Thickened))
    ratio = grams / route.dry_g
    last = doses[-1]
    does = gone.pot.strength.thickener
    yield Because(
        at=last.event.at,
        ml=(last.pot or gone.pot).contents.volume_ml,
        what=say("story.dry", mass=show_mass(grams), dry=route.thickener.weighed, planned=show_mass(route.dry_g)),
        did=say("story.thickener_did", percent=show_number(100.0 * does, 0, "%"))
        if abs(does - 1.0) >= SAME_DRY
        else say("story.for_the_spoon"),
        weight=abs(ratio - 1.0) / SAME_DRY,
    )


def _another_salt(gone: _Gone) -> Iterator[Because]:
    """More, or less, salt went in than was foreseen."""
    route, salted = gone.route, gone.of(ev.Salted)
    grams = sum(one.event.payload.salt_g for one in salted if isinstance(one.event.payload, ev.Salted))
    points = percent(grams - route.salt_to_add_g, route.final.liquid_g)
    at = salted[-1] if salted else gone.after[-1]
    planned = show_number(route.salt_to_add_g, 1, "g")
    yield Because(
        at=at.event.at,
        ml=(at.pot or gone.pot).contents.volume_ml,
        what=say("story.salted", mass=show_number(grams, 1, "g"), planned=planned)
        if salted
        else say("story.unsalted", planned=planned),
        did=say("story.salt_up" if points > 0.0 else "story.salt_down", points=show_number(abs(points), 2)),
        weight=abs(points) / SAME_SALT,
    )


def _stirred_in(gone: _Gone) -> Iterator[Because]:
    """What went in besides, or was poured back."""
    added = [
        one for one in gone.of(ev.Added, ev.PouredIn, ev.Returned) if one.found is not None and one.pot is not None
    ]
    more_ml = sum(_gained(one) for one in added) - gone.route.let_down_ml
    if not added:
        return
    last = added[-1]
    yield Because(
        at=last.event.at,
        ml=(last.pot or gone.pot).contents.volume_ml,
        what=say("story.stirred_in", volume=show_volume(more_ml)),
        did=say("story.that_much_more"),
        weight=more_ml / (SAME_VOLUME * gone.route.volume_ml),
    )


def _gained(moment: Moment) -> float:
    assert moment.found is not None
    assert moment.pot is not None
    return moment.pot.contents.liquid_ml - moment.found.contents.liquid_ml
