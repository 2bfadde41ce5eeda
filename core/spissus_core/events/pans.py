"""Which pan it stands in: moved, split, poured together, drawn off and returned; and what else is in it."""

from __future__ import annotations

from abc import abstractmethod
from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from ..amounts.fields import MassG, VolumeMl
from ..amounts.quantities import show_mass, show_volume
from ..errors import MeasurementError
from ..estimation.window import Window
from ..measuring.measurement import error_ml
from ..measuring.vessels import Pan
from ..messages import Message, say
from ..phenomena.fat import Draw, drawn_fat_ml
from ..phenomena.heating import Burner
from ..pot import Beside, Pot, in_pan
from ..wish import MOST_ADDED_SHARE
from .base import ActsOnPot
from .rest import set_aside
from .state import State

#: How far a volume that was told may exceed what there is, as a share, and the least that is worth pouring, mL.
#: Modelling choices.
POURED_SLACK, LEAST_POURED_ML = 0.001, 1.0


class ChangesPan(ActsOnPot):
    """Another pan, or another amount in it: the same heat begins anew."""

    looks = True

    kind: str

    def apply(self, state: State, at: datetime) -> State:
        """The pot in its pan, and what stands aside."""
        return set_aside(state, super().apply(state, at), at)

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """The heat that was on, or is assumed, begins anew; it boils already."""
        window = before.stove.window
        if window is None or not window.heating or after.pot is None:
            return None
        return Window.begun(after.pot, window.setting, at, warm=False, assumed=window.assumed)


class Moved(ChangesPan):
    """All of it is poured into another pan, or set on another burner."""

    called = say("entries.moved")

    kind: Literal["moved"] = "moved"
    pan: Pan
    burner: Burner

    def on_pot(self, pot: Pot) -> Pot:
        """The pot in the other pan."""
        if pot.contents.volume_ml * pot.share + pot.solids_ml > self.pan.capacity_ml:
            raise MeasurementError(
                "pan_id", say("events.holds_only", pan=self.pan.name, capacity=show_volume(self.pan.capacity_ml))
            )
        return pot.but(pan=self.pan, burner=self.burner)

    def said(self) -> Message:
        """Where to."""
        return say("events.moved", pan=self.pan.name, burner=self.burner.name)


class Split(ChangesPan):
    """Part of it boils in a second pan beside the first. Both are taken to fall alike."""

    tells = ("volume_ml",)
    called = say("entries.split")

    kind: Literal["split"] = "split"
    volume_ml: VolumeMl
    pan: Pan
    burner: Burner

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with the second pan beside it."""
        have = pot.contents.liquid_ml
        if not 0.0 < self.volume_ml < have:
            raise MeasurementError("volume_ml", say("events.pour_a_part", volume=show_volume(have)))
        beside = Beside(self.pan, self.burner, self.volume_ml / have)
        if pot.contents.volume_ml * beside.share > self.pan.capacity_ml:
            raise MeasurementError("volume_ml", say("events.more_than_pan", pan=self.pan.name))
        return pot.but(beside=beside)

    def said(self) -> Message:
        """How much, and where to."""
        return say("events.split", volume=show_volume(self.volume_ml), pan=self.pan.name)


class Rejoined(ChangesPan):
    """The two pans are poured together again, into the first."""

    called = say("entries.rejoined")

    kind: Literal["rejoined"] = "rejoined"

    def on_pot(self, pot: Pot) -> Pot:
        """The pot in one pan."""
        if pot.beside is None:
            raise MeasurementError("kind", say("events.one_pan_already"))
        if pot.contents.volume_ml + pot.solids_ml > pot.pan.capacity_ml:
            raise MeasurementError("kind", say("events.does_not_hold_both", pan=pot.pan.name))
        return pot.but(beside=None)

    def said(self) -> Message:
        """That it is together."""
        return say("events.rejoined")


class DrawsOff(ChangesPan):
    """A part is measured off: how much of what stands in the pot the jug shows, and how it was drawn.

    The page asks how. What was recorded before it did, or is sent by an older one (``how`` is None), is liquid told
    cold, with the fat in proportion. ``people`` is how many what goes on is for, where that was said.
    """

    kind: str
    volume_ml: VolumeMl
    how: Draw | None = None
    people: Annotated[int, Field(ge=1, le=2000)] | None = None

    def drawn_off(self, pot: Pot) -> tuple[float, float | None]:
        """Liquid and fat that are drawn off, mL; the fat is None where it comes in proportion.

        Raises MeasurementError where there is not so much.
        """
        if self.how is None:
            liquid_ml, fat_ml = self.volume_ml, None
        else:
            told_ml = self.volume_ml / pot.expansion
            fat_ml = drawn_fat_ml(pot.contents, told_ml, self.how)
            liquid_ml = told_ml - fat_ml
        have = pot.contents.liquid_ml
        if not 0.0 < liquid_ml <= have * (1.0 + POURED_SLACK):
            raise MeasurementError("volume_ml", self.not_so_much(have * (1.0 if self.how is None else pot.expansion)))
        return min(liquid_ml, have), fat_ml

    def part_of(self, pot: Pot) -> Pot:
        """The part. Raises MeasurementError where there is not so much."""
        liquid_ml, fat_ml = self.drawn_off(pot)
        return pot.part(liquid_ml / pot.contents.liquid_ml) if fat_ml is None else pot.drawn(liquid_ml, fat_ml)

    def apply(self, state: State, at: datetime) -> State:
        """The pot, and the wish for as many as what goes on is for."""
        after = super().apply(state, at)
        wish = after.asked.wanted
        if wish is None or self.people is None:
            return after
        return after.but(asked=after.asked.but(wanted=wish.for_people(self.people), agreed=None))

    @abstractmethod
    def not_so_much(self, have_ml: float) -> Message:
        """What is said where there is not so much."""


class Drawn(DrawsOff):
    """Part of the liquid is taken for the sauce, into a pan of its own; the rest stays on the meat."""

    stage = "strain"
    tells = ("volume_ml",)
    called = say("entries.drawn")

    kind: Literal["drawn"] = "drawn"
    pan: Pan
    burner: Burner

    def not_so_much(self, have_ml: float) -> Message:
        """How much there is."""
        return say("events.draw_off_some", volume=show_volume(have_ml))

    def apply(self, state: State, at: datetime) -> State:
        """A wish that is far out of reach of the part is asked anew: it was one for all of the pot."""
        after = super().apply(state, at)
        wish, pot = after.asked.wanted, after.pot
        if wish is None or pot is None or wish.amount_ml <= (1.0 + MOST_ADDED_SHARE) * pot.contents.liquid_ml:
            return after
        return after.but(asked=after.asked.but(wanted=None, agreed=None, way=None))

    def on_pot(self, pot: Pot) -> Pot:
        """The part for the sauce, with the fat that came along, in its own pan; the rest is kept on the meat."""
        taken = self.part_of(pot)
        if taken.contents.volume_ml > self.pan.capacity_ml:
            raise MeasurementError("volume_ml", say("events.more_than_pan", pan=self.pan.name))
        measured = taken.measured_anew(error_ml(self.pan, "jug", taken.contents.volume_ml))
        return measured.but(pan=self.pan, burner=self.burner, measured_by="jug", solids=None)

    def said(self) -> Message:
        """How much, and where to."""
        return say("events.drawn", volume=show_volume(self.volume_ml), pan=self.pan.name)


class Taken(DrawsOff):
    """What the sauce needs is measured off by the jug; the rest is kept for the meat or another day."""

    stage = "strain"
    versions = (2,)
    tells = ("volume_ml",)
    called = say("entries.taken")

    kind: Literal["taken"] = "taken"

    def not_so_much(self, have_ml: float) -> Message:
        """How much there is."""
        return say("events.take_a_part", volume=show_volume(have_ml))

    def on_pot(self, pot: Pot) -> Pot:
        """The part for the sauce, with the fat that came along, in the pan it was in."""
        taken = self.part_of(pot)
        return taken.measured_anew(error_ml(pot.pan, "jug", taken.contents.volume_ml))

    def said(self) -> Message:
        """How much."""
        return say("events.taken", volume=show_volume(self.volume_ml))


class Parted(DrawsOff):
    """A part leaves the pot, and the rest of it is the sauce: for a plate that is served now, or set aside.

    Of a finished sauce it is so many ``plates`` of those that it was made for, ``in_a_pan`` where each is boiled up
    with its piece.
    """

    stage = "strain"
    versions = (3, 6, 7)
    tells = ("volume_ml",)
    called = say("entries.parted")

    kind: Literal["parted"] = "parted"
    purpose: Literal["plate", "aside"]
    plates: Annotated[int, Field(ge=1, le=200)] | None = None
    in_a_pan: Literal[True] | None = None

    def apply(self, state: State, at: datetime) -> State:
        """Of a sauce that goes out by ``plates`` so much less is wanted in the pot."""
        after = super().apply(state, at)
        wish = after.asked.wanted
        if self.plates is None or after.pot is None or state.pot is None:
            return after
        served_ml = state.pot.contents.liquid_ml - after.pot.contents.liquid_ml
        if after.held is not None:
            after = after.but(held=after.held.scaled(max(1.0 - served_ml / state.pot.contents.liquid_ml, 0.0)))
        out, gone_ml = after.table.plates + self.plates, after.table.served_ml + served_ml
        table = after.table.but(plates=out, served_ml=gone_ml, in_a_pan=bool(self.in_a_pan))
        if wish is None:
            return after.but(table=table)
        return after.but(table=table, asked=after.asked.but(wanted=wish.less(self.plates, served_ml), agreed=None))

    def not_so_much(self, have_ml: float) -> Message:
        """How much there is."""
        return say("events.take_a_part", volume=show_volume(have_ml))

    def on_pot(self, pot: Pot) -> Pot:
        """The rest. Raises MeasurementError where none would be left."""
        liquid_ml, fat_ml = self.drawn_off(pot)
        have = pot.contents.liquid_ml
        if liquid_ml > (1.0 - LEAST_REST) * have:
            raise MeasurementError("volume_ml", self.not_so_much(have * (1.0 if self.how is None else pot.expansion)))
        proportion = pot.contents.fat_ml * liquid_ml / have
        rest, part = pot.without(
            liquid_ml, proportion if fat_ml is None else fat_ml, error_ml(pot.pan, "jug", liquid_ml)
        )
        if self.purpose == "plate":
            return rest
        return rest.but(kept=part if pot.kept is None else pot.kept + part)

    def said(self) -> Message:
        """How much, and what for."""
        what = "events.parted_plate" if self.purpose == "plate" else "events.parted_aside"
        return say(what, volume=show_volume(self.volume_ml))


#: A pot of which less than this share is left has been poured out. Modelling choice.
LEAST_REST = 0.02


class Returned(ChangesPan):
    """Liquid that stayed on the meat joins the sauce after all; all of it unless a volume is given."""

    stage = "strain"
    tells = ("volume_ml",)
    called = say("entries.returned")

    kind: Literal["returned"] = "returned"
    volume_ml: VolumeMl | None = None

    def apply(self, state: State, at: datetime) -> State:
        """What was said of the pot was said of it without that."""
        return super().apply(state, at).but(judged=state.judged.anew())

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with it."""
        if pot.kept is None or pot.kept.liquid_ml < LEAST_POURED_ML:
            raise MeasurementError("volume_ml", say("events.none_on_meat"))
        have = pot.kept.liquid_ml
        volume = have if self.volume_ml is None else self.volume_ml
        if volume > have * (1.0 + POURED_SLACK):
            raise MeasurementError("volume_ml", say("events.only_so_much_on_meat", volume=show_volume(have)))
        share = min(volume / have, 1.0)
        back = pot.kept.scaled(share)
        more = back.salt / pot.contents.salt if pot.contents.salt > 0.0 else 0.0
        return pot.mixed(back, "volume_ml").but(
            kept=None if share > 1.0 - POURED_SLACK else pot.kept.scaled(1.0 - share),
            salt_minus=pot.salt_minus * (1.0 + more),
            salt_plus=pot.salt_plus * (1.0 + more),
        )

    def said(self) -> Message:
        """How much."""
        if self.volume_ml is None:
            return say("events.all_returned")
        return say("events.returned", volume=show_volume(self.volume_ml))


class Solids(ActsOnPot):
    """Meat or vegetables now in the pan with the liquid, by their weight; nothing when they were lifted out."""

    looks = True
    tells = ("mass_g",)
    called = say("entries.solids")

    kind: Literal["solids"] = "solids"
    mass_g: MassG

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with them in it."""
        better = pot.but(solids=in_pan(self.mass_g, pot.brine))
        if pot.contents.volume_ml + better.solids_ml > pot.pan.capacity_ml:
            raise MeasurementError("mass_g", say("events.does_not_fit_beside", pan=pot.pan.name))
        return better

    def said(self) -> Message:
        """How much of them."""
        if self.mass_g <= 0.0:
            return say("events.solids_out")
        return say("events.solids", mass=show_mass(self.mass_g))
