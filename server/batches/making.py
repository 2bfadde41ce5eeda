"""Making a thickener beside the pot: the card that is read meanwhile."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated

from shared.shapes import SaidOut, Shape
from spissus_core.amounts.tables import key_of
from spissus_core.pantry.schools import SLURRY_LIQUIDS, SchoolKey
from spissus_core.planning.making import Card, Step, Swatch
from words import plain

from .pot import word


class MakingStepOut(Shape):
    """One thing to do, from which minute to which where it takes a while, and what it looks like then."""

    does: str
    from_min: float | None
    to_min: float | None
    swatch: Swatch | None


class SlurryLiquidOut(Shape):
    """What it may be stirred into."""

    key: Annotated[str, key_of("slurries")]
    label: str


class MakingOut(Shape):
    """A thickener that is to be made, is being made or stands ready: what to weigh, what to do, what it must not bear,
    since when its clock runs, and what of it is left."""

    school: SchoolKey
    label: str
    dry_g: float
    weigh: list[SaidOut]
    steps: list[MakingStepOut]
    how: str
    minds: list[SaidOut]
    liquids: list[SlurryLiquidOut]
    stirred_into: Annotated[str, key_of("slurries")] | None
    takes_min: float | None
    since: datetime | None
    ready: bool
    left: SaidOut | None


def making_out(card: Card | None) -> MakingOut | None:
    """A card as the page shows it."""
    if card is None:
        return None
    return MakingOut(
        school=card.school.key,
        label=plain(card.school.called),
        dry_g=round(card.dry_g, 1),
        weigh=SaidOut.of_all(card.weigh),
        steps=[_step_out(step) for step in card.steps],
        how=word(card.school.how),
        minds=SaidOut.of_all(card.minds),
        liquids=[SlurryLiquidOut(key=key, label=word(SLURRY_LIQUIDS[key]["label"])) for key in card.liquids],
        stirred_into=card.stirred_into,
        takes_min=card.takes_min,
        since=card.since,
        ready=card.ready,
        left=SaidOut.maybe(card.left),
    )


def _step_out(step: Step) -> MakingStepOut:
    return MakingStepOut(does=word(step.does), from_min=step.from_min, to_min=step.to_min, swatch=step.swatch)
