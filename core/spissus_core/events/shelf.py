"""What is kept: put by in fridge or freezer, used, moved, and poured into another batch with its own figures."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field

from ..amounts.fields import Celsius, Name, VolumeMl
from ..amounts.quantities import show_temperature, show_volume
from ..errors import MeasurementError, SpissusError
from ..ledger.contents import MASSES, Contents
from ..messages import Message, Term, say
from ..pantry.things import SLACK, Thing
from ..phenomena.keeping import KEEPING, THAWED_DAYS, Cold, KeptWhat, keeps_as, use_by
from ..phenomena.limits import USUAL
from ..pot import Pot
from .additions import DELICATE
from .base import ActsOnPot, Kind, Kitchen
from .state import Jar, State

#: Less than this nothing is left, mL. Modelling choice.
LEAST_LEFT_ML = 5.0

#: What the log calls it.
_WHAT: dict[KeptWhat, Message] = {
    "rest": say("events.the_rest"),
    "sauce": say("events.the_sauce"),
    "fat": say("events.the_fat"),
}


def thing_of(jar: Jar) -> Thing:
    """What stands on the shelf, to be written into the event that uses it."""
    held = jar.contents
    return Thing(
        name=jar.name,
        keeps=jar.keeps,
        masses={name: grams for name in MASSES if (grams := getattr(held, name))},
        starch=dict(held.starch),
        allergens=jar.allergens,
        delicate=tuple(sorted(jar.delicate)),
        made=jar.made,
        use_by=jar.use_by,
    )


def brought_by(thing: Thing, state: State) -> State:
    """The batch with what was kept before in it: what it was made of and its date go with it."""
    by = thing.use_by if state.table.use_by is None else min(state.table.use_by, thing.use_by)
    went_in = state.went_in.but(delicate=state.went_in.delicate | (DELICATE.keys() & set(thing.delicate)))
    return state.but(went_in=went_in, table=state.table.holding(thing.allergens).but(reheated=True, use_by=by))


class PutBy(Kind):
    """What was set aside, what is left of a finished sauce, or the fat that came off, is put by; the page makes its id.

    All of it goes where no volume is told, in so many ``containers``.
    """

    stage = "serve"
    away = True
    versions = (7,)
    called = say("entries.put_by")

    kind: Literal["put_by"] = "put_by"
    jar: UUID
    what: KeptWhat
    place: Cold
    name: Name | None = None
    volume_ml: VolumeMl | None = None
    containers: Annotated[int, Field(ge=1, le=200)] = 1

    def apply(self, state: State, at: datetime) -> State:
        """It stands on the shelf. Raises SpissusError where there is none of it, or not so much."""
        if state.pot is None:
            return state
        there = there_is(state, self.what)
        if any(one.id == self.jar for one in state.shelf):
            raise SpissusError("jar", say("events.on_the_shelf_already"))
        if there is None:
            none_left = self.what == "sauce" and state.finished
            raise SpissusError("what", say("events.none_left") if none_left else _NONE[self.what])
        have_ml = there.volume_ml
        volume_ml = have_ml if self.volume_ml is None else self.volume_ml
        if volume_ml > have_ml * (1.0 + SLACK):
            raise MeasurementError("volume_ml", say("events.only_so_much_there", volume=show_volume(have_ml)))
        if volume_ml < LEAST_LEFT_ML:
            raise MeasurementError("volume_ml", say("events.how_much_is_kept"))
        delicate = state.went_in.delicate if self.what == "sauce" else frozenset[str]()
        keeps = keeps_as(self.what, (DELICATE[key].doubt for key in delicate if key in DELICATE))
        if self.place == "freezer" and not KEEPING[keeps].days["freezer"]:
            raise SpissusError("place", say("events.does_not_freeze"))
        share = min(volume_ml / have_ml, 1.0)
        # The rest is as old as the moment it was set aside; the freezer stops its clock.
        made = state.rest.since if self.what == "rest" and state.rest is not None else at
        jar = Jar(
            id=self.jar,
            what=self.what,
            name=self.name or PLAIN_NAMES[self.what],
            contents=there.scaled(share),
            allergens=() if self.what == "fat" else state.all_allergens,
            delicate=delicate,
            keeps=keeps,
            place=self.place,
            since=at,
            made=made,
            use_by=use_by(keeps, self.place, at if self.place == "freezer" else made, state.table.use_by),
            containers=self.containers,
            reheated=state.table.reheated,
            cold_by=_cold_by(state, self.what),
        )
        return _without(state, self.what, there, share).but(shelf=(*state.shelf, jar))

    def said(self) -> Message:
        """What, and where."""
        put = _WHAT[self.what]
        how_much = say("events.all_of_it") if self.volume_ml is None else show_volume(self.volume_ml)
        key = "events.put_in_freezer" if self.place == "freezer" else "events.put_in_fridge"
        return say(key, what=put, amount=how_much)


_NONE: dict[KeptWhat, Message] = {
    "rest": say("events.nothing_aside"),
    "sauce": say("events.not_finished_yet"),
    "fat": say("events.no_fat_kept"),
}


#: What it is called where nobody named it.
PLAIN_NAMES: dict[KeptWhat, str] = {"rest": "stock", "sauce": "sauce", "fat": "fat"}


def there_is(state: State, what: KeptWhat) -> Contents | None:
    """What may still be put by; None where there is none of it."""
    pot = state.pot
    if pot is None:
        return None
    match what:
        case "rest":
            there = pot.kept
        case "sauce":
            if not state.finished or state.table.thrown_away:
                return None
            made_ml = (state.yield_ml or pot.contents.liquid_ml) - state.shelved_ml
            there = pot.contents.scaled(max(made_ml, 0.0) / pot.contents.liquid_ml)
        case "fat":
            there = Contents(fat_free=state.skimming.kept_g)
    return there if there is not None and there.volume_ml >= LEAST_LEFT_ML else None


def _without(state: State, what: KeptWhat, there: Contents, share: float) -> State:
    """The batch once a share of what there was is on the shelf."""
    assert state.pot is not None
    left = there.scaled(1.0 - share)
    match what:
        case "rest":
            gone = left.volume_ml < LEAST_LEFT_ML
            pot = state.pot.but(kept=None if gone else left)
            return state.but(pot=pot, rest=None if gone else state.rest)
        case "sauce":
            return state.but(shelved_ml=state.shelved_ml + share * there.liquid_ml)
        case "fat":
            return state.but(skimming=state.skimming.but(kept_g=left.fat_free))


def _cold_by(state: State, what: KeptWhat) -> datetime | None:
    """By when it must be cold; None for what is, and for fat."""
    within = timedelta(minutes=state.limits.cold.minutes)
    if what == "rest":
        rest = state.rest
        warm = rest is not None and rest.stands != "cold"
        return rest.since + within if rest is not None and warm else None
    if what == "fat" or state.pot is None or not state.pot.hot or state.stands_at is None:
        return None
    return state.stands_at + within


def jar_of(state: State, jar: UUID) -> Jar:
    """A thing on the shelf. Raises SpissusError where none of that id stands there."""
    found = next((one for one in state.shelf if one.id == jar), None)
    if found is None:
        raise SpissusError("jar", say("events.not_on_the_shelf"))
    return found


class OnShelf(Kind):
    """Something happens to a thing that is kept."""

    kind: str
    away = True
    jar: UUID


class JarTaken(OnShelf):
    """Some of it is eaten, poured into another batch, or thrown away; all of it where no volume is told."""

    versions = (7,)
    called = say("entries.jar_taken")

    kind: Literal["jar_taken"] = "jar_taken"
    volume_ml: VolumeMl | None = None
    use: Literal["eaten", "poured", "thrown_away"]

    def apply(self, state: State, at: datetime) -> State:
        """So much less of it. Raises SpissusError where there is not so much."""
        if state.pot is None:
            return state
        jar = jar_of(state, self.jar)
        have_ml = jar.contents.volume_ml
        if self.volume_ml is not None and self.volume_ml <= 0.0:
            raise MeasurementError("volume_ml", say("events.how_much_of_it"))
        taken_ml = have_ml if self.volume_ml is None else self.volume_ml
        if taken_ml > have_ml * (1.0 + SLACK):
            raise MeasurementError("volume_ml", say("events.only_so_much_there", volume=show_volume(have_ml)))
        left = jar.contents.scaled(max(1.0 - taken_ml / have_ml, 0.0))
        stay = () if left.volume_ml < LEAST_LEFT_ML else (jar._replace(contents=left),)
        return state.but(shelf=tuple(one for old in state.shelf for one in (stay if old.id == jar.id else (old,))))

    def said(self) -> Message:
        """How much, and what for."""
        how_much = say("events.all_of_it") if self.volume_ml is None else show_volume(self.volume_ml)
        return say(_USED[self.use], amount=how_much)


_USED = {
    "eaten": "events.jar_eaten",
    "poured": "events.jar_poured",
    "thrown_away": "events.jar_thrown_away",
}


class JarWarmed(OnShelf):
    """Some of it, or all, is warmed again: its temperature in the middle, and gone once it is hot through.

    ``safe_c`` is how hot that is, by the limits of the kitchen.
    """

    server_writes = ("safe_c",)
    versions = (7, 8)
    called = say("entries.jar_warmed")

    kind: Literal["jar_warmed"] = "jar_warmed"
    volume_ml: VolumeMl | None = None
    celsius: Celsius
    safe_c: Celsius = USUAL.reheat_c

    @property
    def hot(self) -> bool:
        """Whether it is hot enough to be served."""
        return self.celsius >= self.safe_c

    def apply(self, state: State, at: datetime) -> State:
        """Hot it is eaten, once; not yet hot it stands as it stood."""
        if state.pot is None:
            return state
        jar_of(state, self.jar)
        if not self.hot:
            return state
        return JarTaken(jar=self.jar, volume_ml=self.volume_ml, use="eaten").apply(state, at)

    def said(self) -> Message:
        """How hot it came."""
        at = show_temperature(self.celsius)
        return say("events.jar_warmed" if self.hot else "events.jar_not_hot", at=at, safe=show_temperature(self.safe_c))

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the limit of the kitchen."""
        return self.kept_with(safe_c=(kitchen.limits() or USUAL).reheat_c)


class JarMoved(OnShelf):
    """It is thawed in the fridge, or frozen after all; or it is cold by now, where it stands."""

    versions = (7,)
    called = say("entries.jar_moved")

    kind: Literal["jar_moved"] = "jar_moved"
    place: Cold

    def apply(self, state: State, at: datetime) -> State:
        """Its date goes by its place. Raises SpissusError for what was thawed once, or does not bear freezing."""
        if state.pot is None:
            return state
        jar = jar_of(state, self.jar)
        if self.place == "freezer" and (jar.thawed or not KEEPING[jar.keeps].days["freezer"]):
            raise SpissusError("place", say("events.thawed_once" if jar.thawed else "events.does_not_freeze"))
        moved = jar._replace(place=self.place, since=at, cold_by=None)
        if self.place != jar.place:
            thawed = self.place == "fridge"
            by = at + timedelta(days=THAWED_DAYS) if thawed else use_by(jar.keeps, "freezer", at)
            moved = moved._replace(use_by=by, thawed=jar.thawed or thawed)
        return state.but(shelf=tuple(moved if one.id == jar.id else one for one in state.shelf))

    def said(self) -> Message:
        """Where it stands."""
        return say("events.jar_frozen" if self.place == "freezer" else "events.jar_in_fridge")


class PouredIn(ActsOnPot):
    """Something that was kept from another batch goes into this one, with its own figures; kept whole in ``thing``."""

    stage = "reduce"
    looks = True
    server_writes = ("thing",)
    versions = (7,)
    called = say("entries.poured_in")

    kind: Literal["poured_in"] = "poured_in"
    jar: UUID
    batch: UUID
    volume_ml: VolumeMl
    thing: Thing | None = None

    @property
    def what(self) -> Thing:
        """The thing. Raises SpissusError where nobody wrote it in."""
        if self.thing is None:
            raise SpissusError("jar", say("events.not_on_the_shelf"))
        return self.thing

    @property
    def portion(self) -> Contents:
        """What goes in. Raises MeasurementError where there is not so much of it."""
        whole = self.what.contents
        if self.volume_ml <= 0.0:
            raise MeasurementError("volume_ml", say("events.how_much_of_it"))
        if self.volume_ml > whole.volume_ml * (1.0 + SLACK):
            raise MeasurementError("volume_ml", say("events.only_so_much_there", volume=show_volume(whole.volume_ml)))
        return whole.scaled(min(self.volume_ml / whole.volume_ml, 1.0))

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with it."""
        return pot.mixed(self.portion, "volume_ml")

    def apply(self, state: State, at: datetime) -> State:
        """All has to be judged anew; what it was made of, and its date, go with it."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        return brought_by(self.what, after).but(judged=after.judged.anew())

    @property
    def allergens(self) -> tuple[str, ...]:
        """Those of what it was kept from."""
        return () if self.thing is None else self.thing.allergens

    def said(self) -> Message:
        """How much of what."""
        name = self.thing.name if self.thing else Term("something kept")
        return say("events.poured_in", amount=show_volume(self.volume_ml), name=name)

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the thing whole, as it stands on its shelf."""
        return self.kept_with(thing=kitchen.kept(self.batch, self.jar))
