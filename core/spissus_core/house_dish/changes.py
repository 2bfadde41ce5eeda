"""What is otherwise in a later version of a dish."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from .. import events as ev
from ..amounts.quantities import show_percent, show_plain, show_volume
from ..intake.braise import Line
from ..messages import Message, Shown, Term, say
from ..phenomena.body import LADDER
from .dish import HouseDish
from .prep import counted, together
from .said import way_said

#: What changed by less than this share did not change. Modelling choice.
SAME_SHARE = 0.005

#: Nor did what was strained: no jug tells less apart. Modelling choice.
SAME_STRAINED = 0.03


def changes(before: HouseDish, after: HouseDish) -> tuple[Message, ...]:
    """What is otherwise in a later version, for as many people as that is for."""
    then = before.for_people(after.people)
    found = (
        [] if before.people == after.people else [say("house_dishes.people", before=before.people, after=after.people)]
    )
    found += _went_in_changed(then, after)
    found += _cooking_changed(then, after)
    found += _wish_changed(then.wanted, after.wanted)
    ways = [way for way in (way_said(then), way_said(after)) if way is not None]
    if len(ways) == 2 and ways[0] != ways[1]:
        found.append(say("house_dishes.way", before=ways[0], after=ways[1]))
    return tuple(found)


def _went_in_changed(before: HouseDish, after: HouseDish) -> Iterator[Message]:
    then, now = _by_what(before), _by_what(after)
    for what, (name, amount, grams) in now.items():
        if what not in then:
            yield say("house_dishes.goes_in_too", amount=amount, name=name)
        elif not math.isclose(then[what].grams, grams, rel_tol=SAME_SHARE):
            yield say("house_dishes.goes_in_otherwise", before=then[what].amount, after=amount, name=name)
    for what, (name, amount, _) in then.items():
        if what not in now:
            yield say("house_dishes.goes_in_no_more", amount=amount, name=name)


class _Sum(NamedTuple):
    name: str
    amount: Shown
    grams: float


def _by_what(dish: HouseDish) -> dict[str, _Sum]:
    return {key: _summed(some) for key, some in counted([("", dish)]).items()}


def _summed(lines: Sequence[tuple[str, Line]]) -> _Sum:
    told = together(lines)
    return _Sum(told.name, told.amount, sum(line.grams for _, line in lines))


def _cooking_changed(before: HouseDish, after: HouseDish) -> Iterator[Message]:
    then, now = before.started.liquid.braise, after.started.liquid.braise
    if then is not None and now is not None:
        if not math.isclose(then.hours, now.hours, rel_tol=SAME_SHARE):
            yield say("house_dishes.hours", before=show_plain(then.hours), after=show_plain(now.hours))
        told = [one.model_copy(update={"lines": (), "hours": 0.0}) for one in (then, now)]
        if told[0] != told[1]:
            yield say("house_dishes.cooked_otherwise")
    if not math.isclose(before.strained_ml, after.strained_ml, rel_tol=SAME_STRAINED):
        volumes = [show_volume(one.strained_ml) for one in (before, after)]
        yield say("house_dishes.strained_otherwise", before=volumes[0], after=volumes[1])


def _wish_changed(before: ev.Wanted | None, after: ev.Wanted | None) -> Iterator[Message]:
    if before is None or after is None:
        return
    if not math.isclose(before.salt_percent, after.salt_percent, rel_tol=SAME_SHARE):
        yield say("house_dishes.salt", before=show_percent(before.salt_percent), after=show_percent(after.salt_percent))
    if before.body != after.body:
        then, now = (Term(LADDER[one.body].on_the_spoon) for one in (before, after))
        yield say("house_dishes.body", before=then, after=now)
    if before.told_by != after.told_by or before.avoid != after.avoid:
        yield say("house_dishes.wished_otherwise", before=before.amount_said, after=after.amount_said)
    if before.volume_ml and after.volume_ml and not math.isclose(before.volume_ml, after.volume_ml, rel_tol=SAME_SHARE):
        yield say("house_dishes.amount", before=show_volume(before.volume_ml), after=show_volume(after.volume_ml))
