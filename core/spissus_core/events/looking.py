"""What is read of the pot: by jug, dip, scale or eye, and by a salt meter."""

from __future__ import annotations

import math
from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, model_validator

from ..amounts.fields import Percent, on_the_shelf
from ..amounts.quantities import LONGEST_AMOUNT, show_mass, show_percent, show_volume
from ..amounts.shares import remaining
from ..errors import MeasurementError, QuantityError, SpissusError
from ..estimation.window import Window, boiled_by, kj_of, ml_of
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..ledger.water import HOT_EXPANSION
from ..measuring.measurement import Measured, Method
from ..messages import Message, clauses, say
from ..phenomena.seasoning import SaltByMeter, starting_salt_percent
from ..pot import Pot, implied_mass_g
from .base import ActsOnPot, Kind, Kitchen
from .state import State

#: A reading that shows more than there was by this many standard errors is no chance. Modelling choice.
GAIN_SD = 3.0

#: Less than a spoonful is no pot, mL. Modelling choice.
LEAST_LEFT_ML = 5.0


class Read(ActsOnPot):
    """A reading of the pot while it reduces: measured, or the share of it that is ``left`` to the eye ("half is gone"),
    which is kept as the volume that it comes to.

    ``gain`` answers for a reading that shows more than there can be: liquid was added, or it was misread.
    """

    stage = "reduce"
    looks = True

    kind: Literal["read"] = "read"
    measured: Measured | None = None
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    gain: Literal["added", "misread"] | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_share(cls, data: object, info: ValidationInfo) -> object:
        if on_the_shelf(info) or not isinstance(data, dict):
            return data
        given = data.get("measured")
        if not isinstance(given, dict) or not isinstance(given.get("value"), str):
            return data
        try:
            rests = remaining(given["value"][:LONGEST_AMOUNT])
        except QuantityError:
            return data
        if rests is None or rests.share is None:
            return data
        return {**data, "measured": None, "left": rests.left(given["value"], "value")}

    @model_validator(mode="after")
    def _something_was_read(self) -> Read:
        if self.measured is None and self.left is None:
            raise QuantityError("value", say("measuring.how_much_is_left"))
        return self

    def written_out(self, kitchen: Kitchen) -> Kind:
        """A share of the pot as the volume that it comes to, by eye."""
        if self.measured is not None or self.left is None:
            return self
        value = self.left * kitchen.unboiled_ml() * HOT_EXPANSION
        if value < LEAST_LEFT_ML:
            raise QuantityError("value", say("measuring.how_much_is_left"))
        return self.kept_with(measured=Measured(method="eye", value=value, hot=True))

    def on_pot(self, pot: Pot) -> Pot:
        """The pot with what the reading says of it, each by its precision, where nothing is known of its heat."""
        found = self._found(pot, 0.0)
        if found is None:
            return pot
        gained_ml, error = found
        if self.gain == "added":
            return self._held(pot, pot.contents + Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"]), error)
        known = pot.error_ml**2
        lost = -gained_ml > GAIN_SD * math.hypot(error, pot.error_ml)
        # Clearly less than there was: it boiled, and nobody said so.
        along = 1.0 if lost else known / (known + error**2)
        changed = boiled_by(pot.contents, -along * kj_of(gained_ml))
        return self._held(pot, changed, error if lost else (1.0 - along) ** 0.5 * pot.error_ml)

    def _found(self, pot: Pot, unseen_ml: float) -> tuple[float, float] | None:
        """How much more there is than was thought, mL, and the error of the reading; None where it is misread.

        What was only thought to have boiled away since anyone looked, ``unseen_ml``, may still be there.

        Raises
        ------
        MeasurementError : it does not fit the pan, or shows less than the solids alone.
        GainError : it shows more than there can be.
        """
        measured, contents = self.measured, pot.contents
        if self.gain == "misread" or measured is None:
            return None
        try:
            mass_g = implied_mass_g(pot, measured)
        except SpissusError as misfit:
            raise MeasurementError(f"measured.{misfit.field}", misfit.message) from None
        gained_ml = (mass_g - contents.mass_g) * SPECIFIC_VOLUME_ML_G["water"]
        error = pot.known_to_ml(measured)
        if self.gain is None and gained_ml - unseen_ml > GAIN_SD * math.hypot(error, pot.error_ml):
            raise GainError(gained_ml - unseen_ml, measured.method == "scale")
        if contents.water * SPECIFIC_VOLUME_ML_G["water"] + gained_ml <= 0.0:
            raise MeasurementError("measured.value", say("events.less_than_solids"))
        return gained_ml, error

    def _held(self, pot: Pot, contents: Contents, error_ml: float) -> Pot:
        assert self.measured is not None
        return pot.boiled_to(contents).but(
            hot=self.measured.hot, measured_by=self.measured.method, error_ml=error_ml
        )  # fmt: skip

    def apply(self, state: State, at: datetime) -> State:
        """The ledger takes what all readings say together; a pot found too thin may be thick enough now.

        Read hot it does not cool.
        """
        pot, window = state.pot, state.heating
        if pot is None or self.measured is None:
            return state
        if window is None or self.gain is not None or not window.heating:
            after = state.but(pot=self.on_pot(pot))
            if window is not None and self.gain == "added" and after.pot is not None:
                after = after.but(heating=window.joined(pot, after.pot))
        else:
            found = self._found(pot, ml_of(window.unseen_kj))
            assert found is not None
            gained_ml, error = found
            moved, gone_kj = window.seen(-kj_of(gained_ml), kj_of(error))
            changed = boiled_by(pot.contents, gone_kj)
            known = ml_of(moved.track.error_kj)
            after = state.but(pot=self._held(pot, changed, known), heating=moved)
        return after.but(
            body_tested=() if state.body_verdict == "low" and not state.thickener_added else state.body_tested,
            cooling=None if self.measured.hot else state.cooling, waited_min=0.0, measured_bound=state.thickener_added
        )  # fmt: skip

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """As the reading left it."""
        return after.heating

    def said(self) -> Message:
        """What was read, and what became of it."""
        if self.measured is None:
            return say("events.read_share", left=show_percent(100.0 * (self.left or 0.0), 0))
        read = say("events.read", by=BY[self.measured.method], amount=self.measured.shown)
        if self.gain is None:
            return read
        return clauses(read, say("events.misread" if self.gain == "misread" else "events.liquid_added"))


#: What a reading was taken by.
BY: dict[Method, Message] = {
    "jug": say("events.by_jug"),
    "dip": say("events.by_dip"),
    "scale": say("events.by_scale"),
    "eye": say("events.by_eye"),
}


class GainError(MeasurementError):
    """A reading that shows more in the pot than there can be; ``gained_ml`` is how much, mL."""

    def __init__(self, gained_ml: float, weighed: bool) -> None:
        more = show_mass(gained_ml) if weighed else show_volume(gained_ml)
        super().__init__("measured.value", say("events.more_than_before", more=more))
        self.gained_ml = gained_ml


class Metered(ActsOnPot):
    """A salt meter was held into the pot."""

    kind: Literal["metered"] = "metered"
    percent: Percent

    def on_pot(self, pot: Pot) -> Pot:
        """The meter and the ledger, each by its precision; where they contradict, the meter is believed."""
        stated, known = starting_salt_percent(SaltByMeter(percent=self.percent)), pot.salt_percent
        percent = known.weighed_with(stated) if known.agrees_with(stated) else stated
        bare_g = pot.contents.liquid_g - pot.contents.salt
        low, best, high = (bare_g * p / (100.0 - p) for p in (percent.low, percent.best, percent.high))
        contents = pot.contents.with_masses(salt=best)
        return pot.but(contents=contents, salt_minus=best - low, salt_plus=high - best)

    def apply(self, state: State, at: datetime) -> State:
        """Its salt is known."""
        after = super().apply(state, at)
        return after if state.pot is None else after.but(metered=True)

    def said(self) -> Message:
        """What it showed."""
        return say("events.metered", salt=show_percent(self.percent))
