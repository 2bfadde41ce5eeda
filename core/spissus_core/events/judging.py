"""What the cook finds: by spoon and tongue, by eye and ear, and in words."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from ..amounts.fields import Remark
from ..amounts.quantities import Said, say
from ..amounts.tables import one_of, rows
from .base import Kind, verbatim
from .state import State, Verdict

_VERDICTS = {"low": "not enough", "right": "right", "high": "too much"}


class Tested(Kind):
    """A spoonful on a warm plate, or a taste: is body, or salt, where it should be?"""

    kind: Literal["tested"] = "tested"
    of: Literal["body", "salt"]
    verdict: Verdict

    def apply(self, state: State, at: datetime) -> State:
        """The verdict stands until the pot changes in what it judged."""
        return state.but(body_verdict=self.verdict) if self.of == "body" else state.but(salt_verdict=self.verdict)

    def said(self) -> Said:
        """The verdict."""
        return say(f"Tested {self.of}: {_VERDICTS[self.verdict]}")


#: What cooks see, hear and smell on the way down: rows of ``data/signs.csv``.
Sign = Annotated[str, *one_of("signs", outlives=True)]

_SIGNS = {row["key"]: row["log"] for row in rows("signs")}


class Seen(Kind):
    """A sign, noted beside the numbers."""

    kind: Literal["seen"] = "seen"
    sign: Sign

    def apply(self, state: State, at: datetime) -> State:
        """One more sign."""
        return state if self.sign in state.signs else state.but(signs=(*state.signs, self.sign))

    def said(self) -> Said:
        """The sign in a cook's words."""
        return say("Seen: {}", verbatim(_SIGNS.get(self.sign, self.sign)))


class Noted(Kind):
    """A remark."""

    kind: Literal["noted"] = "noted"
    text: Remark

    def said(self) -> Said:
        """The remark."""
        return say("{}", verbatim(self.text))
