"""What the sauce is to be, and the way the cook takes."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, ValidationInfo, model_validator

from ..amounts.fields import Percent, VolumeMl, on_the_shelf
from ..amounts.quantities import Said, say, show_volume
from ..amounts.tables import one_of, rows
from ..errors import QuantityError, SpissusError, TargetError
from ..phenomena.body import LADDER
from ..phenomena.fat import USUAL_REST_G_PER_100_ML
from ..phenomena.seasoning import USUAL_CEILING_PERCENT, USUAL_SALT_PERCENT
from .base import Kind
from .state import State

#: A ceiling below this is a slip of the finger, % by weight; so is less sauce than this, mL. Modelling choices.
LEAST_CEILING_PERCENT, LEAST_SAUCE_ML = 0.05, 1.0

#: Unsalted liquid makes up this much at most: past that nothing of the pot is tasted any more. Modelling choice.
MOST_ADDED_SHARE = 1.0

#: A portion that lacks less than this still counts. Modelling choice.
PORTION_SLACK = 0.05


class Wanted(Kind):
    """What the sauce is to be.

    Volume or portions of a size, body on the ladder, salt and its ceiling, and the fat that may float
    on it, g per 100 mL.
    """

    kind: Literal["wanted"] = "wanted"
    volume_ml: VolumeMl | None = None
    portions: Annotated[int, Field(ge=1, le=2000)] | None = None
    portion_ml: VolumeMl | None = None
    body: Annotated[int, Field(ge=0, le=5)] = 3
    salt_percent: Percent = USUAL_SALT_PERCENT
    ceiling_percent: Percent = USUAL_CEILING_PERCENT
    fat_g_per_100_ml: Annotated[float, Field(ge=0, le=30)] = USUAL_REST_G_PER_100_ML

    @model_validator(mode="after")
    def _an_amount(self, info: ValidationInfo) -> Wanted:
        if self.volume_ml is None and (self.portions is None or self.portion_ml is None):
            raise QuantityError("volume_ml", "Say how much sauce: a volume, or portions and their size.")
        if self.volume_ml is not None and self.portions is not None and self.portion_ml is not None:
            raise QuantityError("volume_ml", "Give a volume, or portions and their size, not both.")
        if on_the_shelf(info):
            return self
        if self.amount_ml < LEAST_SAUCE_ML:
            field = "volume_ml" if self.volume_ml is not None else "portion_ml"
            raise QuantityError(field, "The amount of sauce must be more than nothing.")
        if self.ceiling_percent < LEAST_CEILING_PERCENT:
            raise QuantityError("ceiling_percent", "No sauce is that bland: most kitchens call 1.3 % too salty.")
        if self.ceiling_percent < self.salt_percent:
            raise QuantityError("ceiling_percent", "The ceiling cannot be below the salt content you want.")
        return self

    @property
    def amount_ml(self) -> float:
        """The finished sauce, mL."""
        if self.volume_ml is not None:
            return self.volume_ml
        return (self.portions or 0) * (self.portion_ml or 0.0)

    @property
    def aim_mpas(self) -> float:
        """The middle of the wanted step of the ladder, mPa·s."""
        return LADDER[self.body].aim

    def portions_in(self, volume_ml: float) -> int | None:
        """Whole portions in a volume; one that lacks a twentieth still counts. None without a portion size."""
        return int(volume_ml / self.portion_ml + PORTION_SLACK) if self.portion_ml else None

    def check_amount(self, have_ml: float, agreed: Wanted | None = None) -> None:
        """Refuse a wish for more than the pot can give.

        An amount that was agreed on earlier may stand, even when the pot has gone past it since: the
        routes then begin by letting it down with unsalted liquid.

        Raises
        ------
        TargetError : more is wanted than a small addition to the pot could give.
        """
        if agreed is not None and self.amount_ml <= agreed.amount_ml + LEAST_SAUCE_ML:
            return
        if self.amount_ml > (1.0 + MOST_ADDED_SHARE) * have_ml:
            field = "volume_ml" if self.volume_ml is not None else "portions"
            raise TargetError(
                field,
                f"Only {show_volume(have_ml).both} of liquid is in the pot; {show_volume(self.amount_ml).both} cannot "
                "come of it. Ask for less, or add unsalted liquid first.",
            )

    def apply(self, state: State, at: datetime) -> State:
        """The wish stands, the one before it is remembered; what was said of another body or salt is forgotten."""
        before = state.wanted
        same_body = before is None or before.body == self.body
        same_salt = before is None or before.salt_percent == self.salt_percent
        return state.but(
            wanted=self, agreed=before, body_tested=state.body_tested if same_body else (),
            salt_tested=state.salt_tested if same_salt else (), boiled_enough=False,
            liking_percent=state.liking_percent if same_salt else 0.0,
        )  # fmt: skip

    def check(self, after: State) -> None:
        """Refuse more than the pot can give."""
        super().check(after)
        if after.pot is not None:
            self.check_amount(after.pot.contents.liquid_ml, after.agreed)

    def said(self) -> Said:
        """How much, how thick, how salty."""
        return say(
            f"Wanted: {{}}, {LADDER[self.body].word}, {self.salt_percent:g} % salt, at most {self.ceiling_percent:g} %",
            show_volume(self.amount_ml),
        )


#: A way that is offered, by its key: rows of ``data/ways.csv``.
RouteKind = Annotated[str, *one_of("ways")]

WAY_LABELS = {row["key"]: row["label"] for row in rows("ways")}


class Chosen(Kind):
    """The way the cook takes."""

    looks = True

    kind: Literal["chosen"] = "chosen"
    route: RouteKind

    def apply(self, state: State, at: datetime) -> State:
        """The way stands; boiling may begin anew for it."""
        return state.but(chosen=self, boiled_enough=False)

    def check(self, after: State) -> None:
        """A way leads somewhere."""
        super().check(after)
        if after.wanted is None:
            raise SpissusError("kind", "Say first what sauce you want.")

    def said(self) -> Said:
        """Which way."""
        return say(f"Chosen: {WAY_LABELS.get(self.route, self.route).lower()}")
