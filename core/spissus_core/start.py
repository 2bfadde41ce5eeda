"""The start: what was told of the strained liquid, and the pot that it makes."""

from __future__ import annotations

import math
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field

from .intake.liquid import StrainedLiquid, strained_liquid
from .measuring.vessels import Pan
from .pantry.schools import LearnedStrength, School
from .phenomena.heating import Burner
from .phenomena.limits import Limits
from .phenomena.seasoning import LeantOf, LearnedLiking
from .pot import Pot, in_pan

#: To such a factor the strength of a strained liquid is known, by what went in and by its kind alone. From memory.
FROM_A_LIST, FROM_ITS_KIND = 1.25, 1.4


class Start(BaseModel):
    """The strained liquid in its pan, on its burner; what its kitchen likes, what it is used to thicken with and how
    that binds there, and what it goes by."""

    model_config = ConfigDict(frozen=True, extra="forbid")

    pan: Pan
    burner: Burner
    liquid: StrainedLiquid
    liking: LearnedLiking | None = None
    binds: dict[Annotated[str, Field(max_length=60)], LearnedStrength] = {}
    limits: Limits | None = None
    habit: School | None = None

    def _likes(self, of: LeantOf) -> float:
        """How many times as much of a taste it is to this kitchen's tongue as to most."""
        return 1.0 if self.liking is None else math.exp(-self.liking.leans(of).by)

    def begin(self) -> Pot:
        """The pot that everything else is applied to.

        Raises
        ------
        MeasurementError, QuantityError : it cannot be worked out.
        """
        known = self.liquid
        strained = strained_liquid(self.pan, known)
        contents, salt = strained.contents, strained.salt_g
        brine = contents.salt / contents.water
        return Pot(
            contents=contents,
            pan=self.pan,
            burner=self.burner,
            hot=known.measured.hot if known.measured else True,
            salt_minus=salt.best - salt.low,
            salt_plus=salt.high - salt.best,
            measured_by=strained.measured_by,
            error_ml=strained.error_ml,
            salt_g_g=strained.salt_g_g,
            solids=in_pan(known.solids_g, brine),
            brine=brine,
            strained_percent=contents.strength_percent,
            strength_factor=FROM_A_LIST if strained.estimated else FROM_ITS_KIND,
            binds=tuple(sorted((dry, one.times) for dry, one in self.binds.items() if one.counts)),
            sour_times=self._likes("sour"),
            bitter_times=self._likes("bitter"),
            habit=self.habit,
        )
