"""The sauce goes through a sieve once more."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ..errors import SpissusError
from ..messages import Message, say
from ..pot import Pot
from .base import ActsOnPot
from .state import State

#: So much of the sauce stays in a sieve, and so much of its pulp in a finer one than it came through, as shares.
#: Handbook of the trade, section 11: 2 to 3 %, and half.
STAYS, PULP_STAYS = 0.025, 0.5


class Sieved(ActsOnPot):
    """A second sieve: the same mesh takes lumps and herbs, a finer one half of the pulp, and the body that it gave."""

    stage = "season"
    looks = True
    versions = (6,)
    called = say("entries.sieved")

    kind: Literal["sieved"] = "sieved"
    mesh: Literal["same", "finer"]

    def on_pot(self, pot: Pot) -> Pot:
        """What comes through. Raises SpissusError where meat stands in it."""
        if pot.solids is not None:
            raise SpissusError("mesh", say("events.lift_it_out_first"))
        through = pot.contents.scaled(1.0 - STAYS)
        if self.mesh == "finer":
            through = through.with_masses(pulp=through.pulp * (1.0 - PULP_STAYS))
        return pot.but(
            contents=through, salt_minus=pot.salt_minus * (1.0 - STAYS), salt_plus=pot.salt_plus * (1.0 - STAYS)
        )

    def apply(self, state: State, at: datetime) -> State:
        """Its body has to be judged anew where pulp gave it."""
        after = super().apply(state, at)
        return after.but(judged=after.judged.but(body=())) if self.mesh == "finer" else after

    def said(self) -> Message:
        """Through which."""
        return say("events.sieved_finer" if self.mesh == "finer" else "events.sieved_same")
