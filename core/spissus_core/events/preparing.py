"""A thickener is made beside the pot: a roux that browns, a slurry that stands ready."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import ValidationInfo, model_validator

from ..amounts.fields import MassG
from ..amounts.quantities import show_mass
from ..errors import SpissusError
from ..messages import Message, clauses, say
from ..pantry.schools import OF_ITS_OWN_FAT, School, SchoolKey, SlurryLiquid, school
from .additions import dry_spooned, into_said, off_the_kept_fat, stirred
from .base import Kind, Kitchen
from .state import Made, State

#: How far it is: its clock runs, or it waits to go in.
Stands = Literal["begun", "ready"]


class Prepared(Kind):
    """A thickener is begun, or is ready: so much of it, dry, and what it is stirred into where that was chosen.

    Nothing of it is in the pot by that. What does not go in later is left over. The school is kept whole.
    """

    stage = "thicken"
    away = True
    leaves_plan = True
    server_writes = ("school",)
    versions = (10, 11)
    tells = ("dry_g",)
    called = say("entries.prepared")

    kind: Literal["prepared"] = "prepared"
    thickener: SchoolKey
    dry_g: MassG
    stands: Stands = "ready"
    stirred_into: SlurryLiquid | None = None
    school: School | None = None

    @model_validator(mode="before")
    @classmethod
    def _read_spoons(cls, data: object, info: ValidationInfo) -> object:
        return dry_spooned(data, info)

    @property
    def what(self) -> School:
        """The school. Raises QuantityError where none of that key is known."""
        return self.school or stirred(school(self.thickener), self.stirred_into)

    def apply(self, state: State, at: datetime) -> State:
        """It stands beside the pot; of its own fat so much is used as goes into it. Raises SpissusError for none."""
        if self.dry_g <= 0.0:
            raise SpissusError("dry_g", say("events.how_much_thickener"))
        before = state.binding.made
        same = before is not None and not before.ready and before.school.key == self.thickener
        since = before.since if before is not None and same else at
        made = Made(self.what, self.stirred_into, since, self.stands == "ready", self.dry_g, self.dry_g)
        pot = None if state.pot is None else state.pot.but(made=self.what)
        after = state.but(binding=state.binding.but(made=made), pot=pot)
        uses = self.thickener == OF_ITS_OWN_FAT and self.stands == "ready"
        return off_the_kept_fat(after, self.what, self.dry_g) if uses else after

    def said(self) -> Message:
        """Which, how much of it, and how far it is."""
        begun = self.stands == "begun"
        if self.what.like:
            key = "events.begun_to_make_own" if begun else "events.prepared_own"
        else:
            key = "events.begun_to_make" if begun else "events.prepared"
        said = say(key, school=self.what.called, dry=self.what.weighed, amount=show_mass(self.dry_g))
        return clauses(said, into_said(self.what, self.stirred_into))

    @property
    def allergens(self) -> tuple[str, ...]:
        """None of it is in the pot yet."""
        return ()

    def written_out(self, kitchen: Kitchen) -> Kind:
        """With the school whole, as strongly as it binds in this kitchen."""
        return self.kept_with(school=stirred(kitchen.binding(kitchen.school(self.thickener)), self.stirred_into))
