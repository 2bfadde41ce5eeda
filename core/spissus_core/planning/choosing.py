"""Schools of body compared on one pot: what each takes, how it looks and lasts, and which are not for this sauce."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal, NamedTuple, cast

from ..amounts.quantities import show_mass, show_minutes
from ..amounts.tables import table
from ..errors import TargetError
from ..messages import Message, Term, say
from ..pantry.schools import SCHOOLS, School
from ..pantry.ways import WAYS
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT, Judgement
from .solving import Route, solve_route, waits_min

#: What a sauce may be that a school does not bear.
Unfit = Literal["held", "sour", "milk"]

#: How a sauce of a school is drawn.
Drawn = Literal["clear", "glossy", "cloudy", "brown", "dark", "grainy"]

#: The school that is made of what was skimmed.
OF_ITS_OWN_FAT = "own_fat_roux"

#: A sauce that holds so much acid, % as tartaric, thins starch that is boiled in it. Modelling choice.
SOUR_PERCENT = 0.7


class Traits(NamedTuple):
    """What a cook wants to know of a school beside its weight, in words, and what it does not bear."""

    drawn: Drawn
    looks: str
    tastes: str
    on_the_pass: str
    frozen: str
    warmed: str
    unfit: frozenset[Unfit]


#: By school: rows of ``data/choosing.csv``. Common practice.
TRAITS: Mapping[str, Traits] = table(
    "choosing",
    lambda row: Traits(
        cast(Drawn, row["drawn"]),
        row["looks"],
        row["tastes"],
        row["on_the_pass"],
        row["frozen"],
        row["warmed"],
        cast("frozenset[Unfit]", frozenset(row["unfit"].split())),
    ),
)


@dataclass(frozen=True, slots=True)
class Option:
    """A school for this pot: the way that it would be, and what is to be minded; or why it is none."""

    school: School
    traits: Traits
    route: Route | None
    minds: tuple[Message, ...] = ()
    reason: Message | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class Circumstances:
    """What of a batch decides between schools besides its pot: fat that was kept, g, and whether milk is in it."""

    kept_fat_g: float = 0.0
    milk: bool = False


def compared(
    pot: Pot,
    wanted: Wish,
    like: str,
    of: Circumstances,
    judgement: Judgement = JUDGEMENT,
) -> tuple[Option, ...]:
    """Every school on a way ``like`` that one: its own first, then what fits, and last what does not.

    Raises
    ------
    TargetError : no way is called so.
    """
    if like not in WAYS:
        raise TargetError("route", say("routes.not_offered", kind=like))
    task = _Pot(pot, wanted, of, judgement)
    found = [task.option(SCHOOLS[key], way_like(like, key)) for key in TRAITS]
    return tuple(sorted(found, key=lambda one: (one.reason is not None, way_like(like, one.school.key) != like)))


def way_like(like: str, school: str) -> str:
    """The key of a way of as much, to the same stop, with another school; boiled for its taste where there is none."""
    part, stop, _ = like.split("-")
    same = f"{part}-{stop}-{school}"
    return same if same in WAYS else f"all-taste-{school}"


@dataclass(frozen=True, slots=True)
class _Pot:
    """The pot that all of them are compared on."""

    pot: Pot
    wanted: Wish
    of: Circumstances
    judgement: Judgement

    def option(self, school: School, kind: str) -> Option:
        """A school on a way of that kind."""
        traits = TRAITS[school.key]
        try:
            route = solve_route(self.pot, self.wanted, kind, judgement=self.judgement)
        except TargetError as error:
            return Option(school, traits, None, reason=error.message)
        if route.feasible and route.thickener is None:
            return Option(school, traits, route, reason=say("choosing.thick_enough"))
        reason = route.reason or self._unfit(route, traits)
        if reason is None and school.salt_g > 0.0 and self._no_room_for_its_salt(school, route):
            reason = say("choosing.no_room_for_salt", grams=show_mass(school.salt_g * route.dry_g))
        if reason is None and school.key == OF_ITS_OWN_FAT and self.of.kept_fat_g < 1.0:
            reason = say("choosing.no_fat_kept")
        return Option(school, traits, route, tuple(_minds(school, route, self.of)), reason)

    def _no_room_for_its_salt(self, school: School, route: Route) -> bool:
        """Whether more of it than is foreseen, as a spoon may ask for, is too salty; or water is needed anyway."""
        more = route.final + school.added(school.spread * route.dry_g)
        salt = 100.0 * (more.salt - route.salt_to_add_g) / more.liquid_g
        return route.let_down_ml > 0.0 or salt > self.wanted.salt_percent

    def _unfit(self, route: Route, traits: Traits) -> Message | None:
        """Why a sauce of this school would not be what it was when it is eaten; None where it is."""
        waits = waits_min(self.wanted, route, self.judgement)
        if "held" in traits.unfit and waits is not None:
            return say("choosing.does_not_hold", time=show_minutes(waits))
        if "milk" in traits.unfit and self.of.milk:
            return say("choosing.slimy_with_milk")
        final = route.final
        if "sour" in traits.unfit and 100.0 * (final.acid + final.acetic) >= SOUR_PERCENT * final.liquid_g:
            return say("choosing.sour_thins")
        return None


def _minds(school: School, route: Route, of: Circumstances) -> Iterator[Message]:
    """What it brings, and what is short."""
    if school.salt_g > 0.0:
        yield say("choosing.brings_salt", grams=show_mass(school.salt_g * route.dry_g))
    if school.key == OF_ITS_OWN_FAT and of.kept_fat_g < route.dry_g:
        yield say("choosing.made_up", grams=show_mass(route.dry_g - of.kept_fat_g), fat=Term("butter"))
    if school.strength < LEAST_STRONG:
        yield say("choosing.weak")


#: What is weaker than this, against plain flour, takes a heap for a thick sauce. Modelling choice.
LEAST_STRONG = 0.5
