"""Schools of body compared on one pot: what each takes, how it looks and lasts, and which are not for this sauce."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal, NamedTuple, cast

from scipy.optimize import brentq

from ..amounts.quantities import ML_PER_TSP, show_mass, show_minutes, show_plain, show_volume
from ..amounts.tables import table
from ..errors import TargetError
from ..estimation.spoon import height
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..messages import Message, Term, say, several
from ..pantry.schools import OF_ITS_OWN_FAT, OWN_PLACE, SCHOOLS, School
from ..pantry.ways import WAYS
from ..phenomena.body import STARCHES, flour_equivalent_g, viscosity_mpas
from ..pot import Pot
from ..wish import Wish
from .judgement import JUDGEMENT, Judgement
from .solving import Route, Task, waits_min

#: What a sauce may be that a school does not bear.
Unfit = Literal["held", "sour", "milk", "frozen"]

#: How a sauce of a school is drawn.
Drawn = Literal["clear", "glossy", "cloudy", "brown", "dark", "grainy"]

#: A sauce that holds so much acid, % as tartaric, thins starch that is boiled in it. Modelling choice.
SOUR_PERCENT = 0.7


class Traits(NamedTuple):
    """What a cook wants to know of a school beside its weight, in words, and what it does not bear; ``most_percent`` is
    as much of it as a sauce bears, g in 100 g, and ``too_much`` what more would be."""

    drawn: Drawn
    looks: str
    tastes: str
    on_the_pass: str
    frozen: str
    warmed: str
    unfit: frozenset[Unfit]
    most_percent: float
    too_much: str


#: What a school that lasts does where it is kept warm, frozen, and warmed again, in the words of its row.
_LASTS = ("holds for hours", "freezes well", COMES_BACK := "comes back well")


def lasts(traits: Traits) -> tuple[Message, ...]:
    """What is to be known of how it lasts: what it does not bear well, or that it bears all of it."""
    told = (
        say("choosing.kept_warm", does=Term(traits.on_the_pass)),
        say("choosing.frozen", does=Term(traits.frozen)),
        say("choosing.warmed", does=Term(traits.warmed)),
    )
    words = (traits.on_the_pass, traits.frozen, traits.warmed)
    faults = tuple(one for one, word, best in zip(told, words, _LASTS, strict=True) if word != best)
    return faults or (say("choosing.lasts_well"),)


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
        float(row["most_percent"] or 100.0),
        row["too_much"],
    ),
)


def traits_of(school: School) -> Traits | None:
    """What is to be known of a school; None for one that is not offered. A mixture is like its row, and bears nothing
    that any of its starches does not."""
    known = TRAITS.get(school.row)
    if known is None or not school.like:
        return known
    parts = (_BY_TERM[name].unfit for name, grams in school.holds if grams >= LEAST_OF_A_MIXTURE and name in _BY_TERM)
    most, too_much = min(_most_of(school), default=(100.0, ""))
    return known._replace(unfit=known.unfit.union(*parts), most_percent=most, too_much=too_much)


def _most_of(school: School) -> Iterator[tuple[float, str]]:
    """As much of a mixture as a sauce bears by the gum and the gelatin in it, g in 100 g, and what more would be."""
    in_a_gram = school.per_gram
    for mass, row in (("gum", TRAITS["xanthan"]), ("gelatin", TRAITS["gelatin_powder"])):
        if (grams := getattr(in_a_gram, mass)) > 0.0:
            yield min(row.most_percent / grams, 100.0), row.too_much


#: Less of a starch than this in a gram of a mixture is not what it lasts by. Modelling choice.
LEAST_OF_A_MIXTURE = 0.2

#: What is to be known of a starch stirred in cold, by its plant.
_BY_TERM: Mapping[str, Traits] = {
    SCHOOLS[key].term: traits for key, traits in reversed(list(TRAITS.items())) if SCHOOLS[key].is_slurry
}


def most_percent(school: School) -> float:
    """As much of a school as a sauce bears, g in 100 g; all of it, of what nobody minds."""
    known = traits_of(school)
    return 100.0 if known is None else known.most_percent


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
    """What of a batch decides between schools besides its pot: fat that was kept, g, whether milk is in it, whether it
    is to be ``frozen``, whether all is measured ``by_spoon``, the ``habit`` of its kitchen, a school, and the mixtures
    of its ``own``."""

    kept_fat_g: float = 0.0
    milk: bool = False
    frozen: bool = False
    by_spoon: bool = False
    habit: str | None = None
    own: tuple[School, ...] = ()


class Choice(NamedTuple):
    """The schools on a pot, what fits first; and what is to be said of all of them, where there is anything."""

    options: tuple[Option, ...]
    said: tuple[Message, ...] = ()


def compared(
    pot: Pot,
    wanted: Wish,
    like: str,
    of: Circumstances,
    judgement: Judgement = JUDGEMENT,
) -> tuple[Option, ...]:
    """Every school on a way ``like`` that one: its own first, then the kitchen's habit, what fits, and what does not.

    Raises
    ------
    TargetError : no way is called so.
    """
    if like not in WAYS:
        raise TargetError("route", say("routes.not_offered", kind=like))
    task = _Pot(Task(pot, wanted.of(pot), judgement), of, like)
    found = [task.option(SCHOOLS[key], TRAITS[key], way_like(like, key)) for key in TRAITS]
    in_hand = WAYS[like].school
    hand = None if in_hand is None else pot.binding(in_hand).key
    for mixture in of.own:
        own, traits = _Pot(task.task.with_pot(pot.but(mixture=mixture)), of, like), traits_of(mixture)
        assert traits is not None
        found.append(own.option(mixture, traits, way_like(like, OWN_PLACE)))

    def order(one: Option) -> tuple[bool, bool, bool, bool]:
        return one.reason is not None, one.school.key != hand, one.school.key != of.habit, not one.school.like

    return tuple(sorted(found, key=order))


def suits(task: Task, route: Route) -> bool:
    """Whether a sauce of what binds a way does for its pot and its wish, as far as these alone tell; none that does not
    bind does."""
    traits = None if route.thickener is None else traits_of(route.thickener)
    if route.thickener is None or traits is None:
        return False
    return _Pot(task, Circumstances(), route.kind).why_not(route.thickener, route, traits) is None


def chosen_between(pot: Pot, wanted: Wish, like: str, of: Circumstances, judgement: Judgement = JUDGEMENT) -> Choice:
    """The schools compared, with what the pot holds of its body already, and what to do where none of them fits.

    Raises
    ------
    TargetError : no way is called so.
    """
    options = compared(pot, wanted, like, of, judgement)
    fit = [one for one in options if one.reason is None]
    there = _there_already(pot, next((one.route for one in fit if one.route is not None), None))
    if fit:
        return Choice(options, () if there is None else (there,))
    stretched = _stretched(pot, wanted.of(pot))
    return Choice(options, () if stretched is None else (stretched,))


def _there_already(pot: Pot, route: Route | None) -> Message | None:
    """How much of the body is in the pot before anything is whisked in; None where it is little."""
    if route is None or route.body.flour_percent + route.body.pulp_percent <= 0.0:
        return None
    whole_g = (route.body.flour_percent + route.body.pulp_percent) / 100.0 * route.final.liquid_g
    brings = route.thickener.added(route.dry_g) if route.thickener is not None else Contents()
    flour_g = pot.strength.thickener * flour_equivalent_g(pot.contents.starch) * route.sauce_share
    pulp_g = whole_g - pot.strength.thickener * flour_equivalent_g(brings.starch) - flour_g if not brings.pulp else 0.0
    share = (flour_g + pulp_g) / whole_g
    if share < LEAST_THERE:
        return None
    parts = min(THERE_IN_WORDS, key=lambda part: abs(part - share))
    by_flour, by_pulp = flour_g > 0.1 * (flour_g + pulp_g), pulp_g > 0.1 * (flour_g + pulp_g)
    of = [
        say("choosing.of_flour", grams=show_mass(flour_g)) if by_flour else None,
        say("choosing.of_pulp") if by_pulp else None,
    ]
    return say("choosing.there_already", part=THERE_IN_WORDS[parts], of=several("both", *(one for one in of if one)))


#: Less of the body than this share is not worth a word; and what shares are called. Modelling choice.
LEAST_THERE = 0.15
THERE_IN_WORDS: Mapping[float, Message] = {
    0.2: say("choosing.a_fifth"),
    0.33: say("choosing.a_third"),
    0.5: say("choosing.half"),
    0.67: say("choosing.two_thirds"),
    0.8: say("choosing.most"),
}


def _stretched(pot: Pot, wanted: Wish) -> Message | None:
    """With how much unsalted liquid a pot that is thicker than wanted comes to its body; None for any other."""
    aim, now = wanted.aim_mpas, pot.contents

    def over(water_g: float) -> float:
        return height(viscosity_mpas(now.with_masses(water=now.water + water_g), pot.strength)) - height(aim)

    most = MOST_STRETCHED * now.liquid_g
    if over(0.0) <= 0.0 or over(most) >= 0.0:
        return None
    water_ml = float(brentq(over, 0.0, most, xtol=1.0)) * SPECIFIC_VOLUME_ML_G["water"]
    return say("choosing.stretch_it", volume=show_volume(water_ml)) if water_ml >= LEAST_STRETCHED_ML else None


#: Nobody lets a sauce down to more than so many times what it was, nor with less than this, mL. Modelling choice.
MOST_STRETCHED, LEAST_STRETCHED_ML = 4.0, 15.0


def way_like(like: str, school: str) -> str:
    """The key of a way of as much, to the same stop, with another school; boiled for its taste where there is none."""
    part, stop, _ = like.split("-")
    same = f"{part}-{stop}-{school}"
    return same if same in WAYS else f"all-taste-{school}"


@dataclass(frozen=True, slots=True)
class _Pot:
    """The pot that all of them are compared on."""

    task: Task
    of: Circumstances
    like: str

    def option(self, school: School, traits: Traits, kind: str) -> Option:
        """A school on a way of that kind."""
        try:
            route = self.task.route(WAYS[kind])
        except TargetError as error:
            return Option(school, traits, None, reason=error.message)
        if route.feasible and route.thickener is None:
            return Option(school, traits, route, reason=say("choosing.thick_enough"))
        school = route.thickener or school
        return Option(school, traits, route, tuple(self._minds(school, route)), self.why_not(school, route, traits))

    def why_not(self, school: School, route: Route, traits: Traits) -> Message | None:
        """Why a sauce of that school is not for this pot; None where it is."""
        reason = route.reason or self._unfit(route, traits) or self._too_much(school, route, traits)
        if reason is not None:
            return reason
        brings_g = school.salt_g * route.dry_g
        if brings_g >= LEAST_SALT_TOLD_G and self._no_room_for_its_salt(school, route):
            return say("choosing.no_room_for_salt", grams=show_mass(brings_g))
        if school.key == OF_ITS_OWN_FAT and self.of.kept_fat_g < LEAST_KEPT_G:
            return say("choosing.no_fat_kept")
        return None

    def _too_much(self, school: School, route: Route, traits: Traits) -> Message | None:
        """That it takes more of it than a sauce bears, or so little that no spoon tells it; None otherwise."""
        percent = 100.0 * route.dry_g / route.final.liquid_g
        if percent > traits.most_percent:
            more = Term(traits.too_much)
            return say(
                "choosing.too_much",
                grams=show_mass(route.dry_g),
                most=show_plain(traits.most_percent, "%", 2),
                more=more,
            )
        if self.of.by_spoon and school.spoon_ml(route.dry_g) < LEAST_SPOONED_ML:
            return say("choosing.no_spoon", grams=show_plain(route.dry_g, "g", 1))
        return None

    def _no_room_for_its_salt(self, school: School, route: Route) -> bool:
        """Whether more of it than is foreseen, as a spoon may ask for, is too salty; or water is needed anyway."""
        more = route.final + school.added(school.spread * route.dry_g)
        salt = 100.0 * (more.salt - route.salt_to_add_g) / more.liquid_g
        return route.let_down_ml > 0.0 or salt > self.task.wanted.salt_percent

    def _unfit(self, route: Route, traits: Traits) -> Message | None:
        """Why a sauce of this school would not be what it was when it is eaten; None where it is."""
        waits = waits_min(self.task.wanted, route, self.task.judgement)
        if "held" in traits.unfit and waits is not None:
            return say("choosing.does_not_hold", time=show_minutes(waits))
        if "frozen" in traits.unfit and self.of.frozen:
            return say("choosing.does_not_freeze", frozen=Term(traits.frozen))
        if "milk" in traits.unfit and self.of.milk:
            return say("choosing.slimy_with_milk")
        final = route.final
        if "sour" in traits.unfit and 100.0 * (final.acid + final.acetic) >= SOUR_PERCENT * final.liquid_g:
            return say("choosing.sour_thins")
        return None

    def _minds(self, school: School, route: Route) -> Iterator[Message]:
        """What it brings, what is short, and how sure it is."""
        of = self.of
        in_hand = WAYS[self.like].school
        if in_hand is not None and school.key == self.task.pot.binding(in_hand).key and route.kind == self.like:
            yield say("choosing.why_lasting" if school.sort == "lasting" else "choosing.why_quick")
        if school.key == of.habit:
            yield say("choosing.habit")
        if school.salt_g * route.dry_g >= LEAST_SALT_TOLD_G and not school.braised:
            yield say("choosing.brings_salt", grams=show_mass(school.salt_g * route.dry_g))
        sugar_g = school.per_gram.sugar * route.dry_g
        if sugar_g >= LEAST_SWEET_SHARE * route.final.liquid_g:
            yield say("choosing.brings_sugar", grams=show_mass(sugar_g))
        if school.key == OF_ITS_OWN_FAT and of.kept_fat_g < route.dry_g:
            fat = "oil" if "milk" in self.task.wanted.avoid else "butter"
            yield say("choosing.made_up", grams=show_mass(route.dry_g - of.kept_fat_g), fat=Term(fat))
        if school.term in STARCHES and school.strength < LEAST_STRONG and not school.holds:
            yield say("choosing.weak")
        if school.term == "gelatin":
            yield say("choosing.sets_cold")
        if school.spread >= UNSURE:
            yield say("choosing.unsure")


#: Less fat than this was not kept to make a roux of, g. Modelling choice.
LEAST_KEPT_G = 1.0

#: So much more sugar in a sauce is tasted, as a share. Modelling choice.
LEAST_SWEET_SHARE = 0.01

#: Less salt than this that comes with it is not worth a word, g: it is counted all the same. Modelling choice.
LEAST_SALT_TOLD_G = 0.1

#: What is weaker than this, against plain flour, takes a heap for a thick sauce; what spreads by this share and more is
#: told to be unsure; and less than a level eighth of a teaspoon is no spoon, mL. Modelling choices.
LEAST_STRONG, UNSURE, LEAST_SPOONED_ML = 0.5, 0.5, ML_PER_TSP / 8.0
