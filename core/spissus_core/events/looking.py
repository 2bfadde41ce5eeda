"""What is read of the pot: by jug, dip, scale or eye, and by a salt meter."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from typing import Literal

from ..amounts.fields import Percent
from ..amounts.quantities import Said, say, show_mass, show_volume
from ..errors import MeasurementError, SpissusError
from ..estimation.window import Window
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..measuring.measurement import Measured
from ..phenomena.evaporation import boiled_to_mass, boiled_to_volume
from ..phenomena.seasoning import SaltByMeter, starting_salt_percent
from ..pot import Pot, implied_mass_g
from .base import ActsOnPot
from .state import State

#: A reading that shows more than there was by this many standard errors is no chance. Modelling choice.
GAIN_SD = 2.0


class Read(ActsOnPot):
    """A reading of the pot while it reduces.

    ``gain`` answers for a reading that shows more than there can be: liquid was added, or it was misread.
    """

    stage = "reduce"
    looks = True

    kind: Literal["read"] = "read"
    measured: Measured
    gain: Literal["added", "misread"] | None = None

    def on_pot(self, pot: Pot) -> Pot:
        """The pot boiled down to what the reading says; a gain within the errors is no news."""
        if self.gain == "misread":
            return pot
        measured, contents = self.measured, pot.contents
        weighed = measured.method == "scale"
        try:
            mass_g = implied_mass_g(pot, measured)
        except SpissusError as misfit:
            raise MeasurementError(f"measured.{misfit.field}", misfit.message) from None
        gained_ml = (mass_g - contents.mass_g) * SPECIFIC_VOLUME_ML_G["water"]
        error = pot.known_to_ml(measured)
        if gained_ml > 0.0:
            if self.gain == "added":
                contents = contents + Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"])
            elif gained_ml > GAIN_SD * (error**2 + pot.error_ml**2) ** 0.5:
                raise GainError(gained_ml, weighed)
        else:
            try:
                if weighed:
                    contents = boiled_to_mass(contents, mass_g)
                else:
                    contents = boiled_to_volume(contents, contents.liquid_ml + gained_ml)
            except SpissusError:
                raise MeasurementError(
                    "measured.value",
                    "That is less than the solids and the fat alone would take up. "
                    "Check the reading and how it was taken.",
                ) from None
        traded = pot.traded(contents)
        solids = pot.solids and replace(pot.solids, salt_g=pot.solids.salt_g + contents.salt - traded.salt)
        return pot.but(contents=traded, solids=solids, hot=measured.hot, measured_by=measured.method, error_ml=error
        )  # fmt: skip

    def apply(self, state: State, at: datetime) -> State:
        """A pot found too thin may be thick enough now; read hot it does not cool."""
        after = super().apply(state, at)
        if state.pot is None:
            return after
        body = None if state.body_verdict == "low" else state.body_verdict
        return after.but(body_verdict=body, cooling=None if self.measured.hot else state.cooling)

    def heating(self, before: State, after: State, at: datetime) -> Window | None:
        """A point of energy against time."""
        if before.heating is None or before.pot is None or after.pot is None:
            return before.heating
        return before.heating.read(before.pot, after.pot, self.measured, self.gain, at)

    def said(self) -> Said:
        """What was read, and what became of it."""
        ends = {"misread": ", misread", "added": ", liquid was added", None: ""}[self.gain]
        return say(f"Reading by {self.measured.method}: {{}}{ends}", self.measured.shown)


class GainError(MeasurementError):
    """A reading that shows more in the pot than there can be; ``gained_ml`` is how much, mL."""

    def __init__(self, gained_ml: float, weighed: bool) -> None:
        more = show_mass(gained_ml).both if weighed else show_volume(gained_ml).both
        super().__init__(
            "measured.value",
            f"That is {more} more than was there before. Did you add something, or was it misread?",
        )
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

    def said(self) -> Said:
        """What it showed."""
        return say(f"Salt meter: {self.percent:.2f} %")
