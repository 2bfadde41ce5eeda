"""What may finish a sauce that lacks something: the smallest of each that is tasted, with all that it changes.

Rows of ``data/finishes.csv``: for each thing that may be missing what brings it, and how much of it in 250 mL is a
first step. Salt is not among them: it is sought by the ledger, and spoken by the bar.
"""

from __future__ import annotations

from typing import Literal, NamedTuple, cast, get_args

from .. import events as ev
from ..amounts.quantities import ML_PER_TSP, show_mass, show_spoons
from ..amounts.tables import table
from ..errors import SpissusError
from ..messages import Shown
from ..pantry.ingredients import ingredient
from ..pot import Pot
from ..wish import Wish
from .foreseen import Change, foreseen

#: What a tongue may find missing.
Lack = Literal["sharpness", "sweetness", "depth", "roundness"]
LACKS: tuple[Lack, ...] = get_args(Lack)

#: Spoons are halved below a tablespoon, and grams go by fives. Common practice.
STEP_TSP, STEP_G = 0.5, 5.0

#: The amount of sauce that the steps of the table are for, mL.
STEP_OF_ML = 250.0


class Finish(NamedTuple):
    """Something that finishes a sauce: how much in 250 mL is a first step, in teaspoons or in g, and how it goes in."""

    key: str
    ingredient: str
    lacks: Lack
    tsp_250: float | None
    g_250: float | None
    how: str


FINISHES = table(
    "finishes",
    lambda row: Finish(
        row["key"],
        row["ingredient"],
        cast(Lack, row["lacks"]),
        float(row["tsp_250"]) if row["tsp_250"] else None,
        float(row["g_250"]) if row["g_250"] else None,
        row["how"],
    ),
)


class Offer(NamedTuple):
    """A first step of something, for this pot, and all that it changes."""

    finish: Finish
    amount: Shown
    added: ev.Added
    changes: tuple[Change, ...]

    @property
    def hurts(self) -> bool:
        """Whether it makes something worse than is wanted."""
        return any(change.hurts for change in self.changes)


def finishes(pot: Pot, wanted: Wish | None) -> tuple[Offer, ...]:
    """What may go in, by what it lacks; of each lack what hurts nothing first. Nothing that does not fit the pan."""
    offers = [one for finish in FINISHES.values() if (one := _offer(finish, pot, wanted)) is not None]
    avoided = set(wanted.avoid) if wanted is not None else set()
    by_lack = {lack: place for place, lack in enumerate(LACKS)}
    return tuple(
        sorted(offers, key=lambda one: (by_lack[one.finish.lacks], bool(avoided & set(one.added.allergens)), one.hurts))
    )


def _offer(finish: Finish, pot: Pot, wanted: Wish | None) -> Offer | None:
    times = pot.contents.liquid_ml / STEP_OF_ML
    what = ingredient(finish.ingredient)
    if finish.tsp_250 is not None:
        ml = max(round(finish.tsp_250 * times / STEP_TSP), 1) * STEP_TSP * ML_PER_TSP
        amount, said = Shown(ml, show_spoons(ml), show_spoons(ml)), {"volume_ml": ml}
    else:
        grams = max(round((finish.g_250 or 0.0) * times / STEP_G), 1) * STEP_G
        amount, said = show_mass(grams), {"mass_g": grams}
    try:
        added = ev.Added(ingredient=finish.ingredient, own=what, **said)
        after = added.on_pot(pot)
    except SpissusError:
        return None
    return Offer(finish, amount, added, foreseen(pot, after, wanted))
