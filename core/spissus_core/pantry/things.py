"""What is kept from another batch, whole: what is in it, what it brings to the table, and by when it is to be used."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from ..amounts.fields import Name
from ..ledger.contents import MASSES, Contents

#: How much more than is known to be there may be taken before it is asked about, as a share. Modelling choice: what was
#: put by was not measured.
SLACK = 0.02


_Word = Annotated[str, Field(max_length=60)]
_Words = Annotated[tuple[_Word, ...], Field(max_length=40)]
_Masses = Annotated[dict[_Word, Annotated[float, Field(ge=0, le=1e6)]], Field(max_length=40)]


class Thing(BaseModel):
    """Something that is kept, as an event of another batch keeps it whole: its name, what is in it, and by when."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    name: Name
    keeps: _Word
    masses: _Masses
    starch: _Masses = {}
    allergens: _Words = ()
    delicate: _Words = ()
    made: AwareDatetime
    use_by: AwareDatetime

    def __hash__(self) -> int:
        # What is in it stands in mappings, which have no hash of their own.
        return hash((self.name, self.made, self.use_by, *self.masses.items(), *self.starch.items()))

    @property
    def contents(self) -> Contents:
        """All of it."""
        known = {name: grams for name, grams in self.masses.items() if name in MASSES}
        return Contents(starch=self.starch).with_masses(**known)


class FromShelf(BaseModel):
    """Something on the shelf of another batch, by its id; the server writes the ``thing`` itself."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    batch: UUID
    jar: UUID
    thing: Thing | None = None
