"""Another way to thicken: the schools of body compared on one pot."""

from __future__ import annotations

from collections.abc import Sequence

from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core.amounts.quantities import show_minutes, show_volume
from spissus_core.fold import Timeline
from spissus_core.pantry.guests import AVOIDED_WORDS
from spissus_core.pantry.schools import School, SchoolKey
from spissus_core.planning.choosing import Circumstances, Drawn, Option, chosen_between, lasts
from spissus_core.planning.solving import Route, work_min
from spissus_core.pot import Pot
from spissus_core.wish import Wish
from words import plain

from .pot import word
from .ways import dry_shown


class OptionOut(Shape):
    """A school for this pot: the way ``kind`` that it would be, its dry weight also in spoons, the minutes in all, and
    in words how it looks, tastes and lasts; what it brings, and what is to be minded."""

    key: SchoolKey
    kind: str
    label: str
    drawn: Drawn
    dry: ShownOut
    dry_also: ShownOut
    takes: ShownOut
    volume: ShownOut
    looks: str
    tastes: str
    lasts: list[SaidOut]
    brings: list[str]
    minds: list[SaidOut]


class NoOptionOut(Shape):
    """A school that is not for this sauce, and why."""

    key: SchoolKey
    label: str
    reason: SaidOut


class ChoosingOut(Shape):
    """The schools that fit this pot, and those that do not; and what is ``said`` before all of them."""

    said: list[SaidOut]
    fit: list[OptionOut]
    unfit: list[NoOptionOut]


def choosing_out(
    timeline: Timeline,
    pot: Pot,
    wanted: Wish,
    like: str,
    *,
    frozen: bool,
    by_spoon: bool,
    habit: str | None,
    own: tuple[School, ...],
) -> ChoosingOut:
    """Every school on a way ``like`` that one. Raises TargetError where no way is called so."""
    of = Circumstances(
        kept_fat_g=timeline.skimming.kept_g,
        milk="milk" in timeline.all_allergens,
        frozen=frozen,
        by_spoon=by_spoon,
        habit=habit,
        own=own,
    )
    choice = chosen_between(pot, wanted.of(pot), like, of)
    found: Sequence[Option] = choice.options
    return ChoosingOut(
        said=SaidOut.of_all(choice.said),
        fit=[_option_out(one, one.route) for one in found if one.reason is None and one.route is not None],
        unfit=[
            NoOptionOut(key=one.school.key, label=plain(one.school.called), reason=SaidOut.of(one.reason))
            for one in found
            if one.reason is not None
        ],
    )


def _option_out(one: Option, route: Route) -> OptionOut:
    traits, (dry, also) = one.traits, dry_shown(route.dry_g, one.school)
    return OptionOut(
        key=one.school.key,
        kind=route.kind,
        label=plain(one.school.called),
        drawn=traits.drawn,
        dry=dry,
        dry_also=also,
        takes=ShownOut.of(show_minutes(work_min(route))),
        volume=ShownOut.of(show_volume(route.volume_ml)),
        looks=word(traits.looks),
        tastes=word(traits.tastes),
        lasts=SaidOut.of_all(lasts(traits)),
        brings=[word(AVOIDED_WORDS.get(key, key)) for key in one.school.allergens],
        minds=SaidOut.of_all(one.minds),
    )
