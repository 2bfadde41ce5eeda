"""What may finish a sauce that lacks something: the smallest of each that is tasted, with all that it changes.

Rows of ``data/finishes.csv``: for each thing that may be missing what brings it, and how much of it in 250 mL is a
first step. Of what brings salt it is what the salt that is missing comes to.
"""

from __future__ import annotations

from typing import Any, Literal, NamedTuple, cast, get_args

from .. import events as ev
from ..amounts.quantities import ML_PER_TSP, show_mass, show_spoons
from ..amounts.tables import table
from ..errors import SpissusError
from ..ledger.contents import percent
from ..messages import Shown
from ..pantry.ingredients import Ingredient, ingredient
from ..phenomena.palate import PALATE, Sensed
from ..phenomena.seasoning import salt_to_add_g
from ..pot import Pot
from ..wish import Wish
from .foreseen import Change, foreseen
from .judgement import JUDGEMENT, Judgement

#: What a tongue may find missing; ``softness`` is missing where something is too much.
Lack = Literal["salt", "sharpness", "sweetness", "depth", "roundness", "softness", "heat", "herbs"]
LACKS: tuple[Lack, ...] = get_args(Lack)

#: Spoons are halved below a tablespoon, quartered and halved again where less of it is tasted, and grams go by fives,
#: or by ones where a step is less. Common practice.
STEPS_TSP, STEPS_G = (0.5, 0.25, 0.125), (5.0, 1.0)

#: The amount of sauce that the steps of the table are for, mL.
STEP_OF_ML = 250.0


class Finish(NamedTuple):
    """Something that finishes a sauce, by its short ``name``: how much in 250 mL is a first step, in teaspoons or in
    g, and how it goes in."""

    key: str
    ingredient: str
    name: str
    lacks: Lack
    tsp_250: float | None
    g_250: float | None
    how: str


FINISHES = table(
    "finishes",
    lambda row: Finish(
        row["key"],
        row["ingredient"],
        row["name"],
        cast(Lack, row["lacks"]),
        float(row["tsp_250"]) if row["tsp_250"] else None,
        float(row["g_250"]) if row["g_250"] else None,
        row["how"],
    ),
)


#: How much of something goes in, in words and as an entry tells it.
HowMuch = tuple[Shown, dict[str, Any]]


class Offer(NamedTuple):
    """A first step of something, for this pot, and all that it changes."""

    finish: Finish
    amount: Shown
    added: ev.Added
    changes: tuple[Change, ...]

    @property
    def entry(self) -> ev.Added:
        """What a page sends once it is in: the kitchen's own ingredient is written into it when it is recorded."""
        return self.added.model_copy(update={"own": None})

    @property
    def hurts(self) -> bool:
        """Whether it makes something worse than is wanted."""
        return any(change.hurts for change in self.changes)


def finishes(
    pot: Pot,
    wanted: Wish | None,
    liking: float | None = None,
    lacks: tuple[Lack, ...] = LACKS,
    judgement: Judgement = JUDGEMENT,
) -> tuple[Offer, ...]:
    """What may go in, by what it lacks; of each lack what hurts nothing first. Nothing that does not fit the pan.

    Parameters
    ----------
    liking : salt that is liked, %, where the tongue has told it better than the wish did.
    lacks : what is missing, in the order in which it is thought of.
    """
    if liking is None and wanted is not None:
        liking = wanted.salt_percent
    found = (_offer(one, pot, wanted, liking, judgement) for one in FINISHES.values() if one.lacks in lacks)
    avoided = set(wanted.avoid) if wanted is not None else set()
    return tuple(
        sorted(
            (one for one in found if one is not None),
            key=lambda one: (lacks.index(one.finish.lacks), bool(avoided & set(one.added.allergens)), one.hurts),
        )
    )


def remedies(pot: Pot, wanted: Wish | None, of: Sensed, verdict: Literal["low", "high"]) -> tuple[Offer, ...]:
    """What helps against what was found, the best first; nothing that hurts, or that a guest must not have."""
    lack = cast(Lack, PALATE[of].low_lacks if verdict == "low" else PALATE[of].high_lacks)
    avoided = set(wanted.avoid) if wanted is not None else set()
    offers = finishes(pot, wanted, lacks=(lack,))
    return tuple(one for one in offers if not one.hurts and not avoided & set(one.added.allergens))


def _offer(finish: Finish, pot: Pot, wanted: Wish | None, liking: float | None, judgement: Judgement) -> Offer | None:
    what = ingredient(finish.ingredient)
    try:
        how_much = _salting(what, pot, liking, judgement) if finish.lacks == "salt" else _step(finish, pot)
        if how_much is None:
            return None
        amount, said = how_much
        added = ev.Added(ingredient=finish.ingredient, own=what, **said)
        after = added.on_pot(pot)
    except SpissusError:
        return None
    return Offer(finish, amount, added, foreseen(pot, after, wanted, added.cold))


def _step(finish: Finish, pot: Pot) -> HowMuch | None:
    times = pot.contents.liquid_ml / STEP_OF_ML
    if finish.tsp_250 is not None:
        return _spoons(finish.tsp_250 * times, round_up=True)
    grams = (finish.g_250 or 0.0) * times
    step = next((one for one in STEPS_G if grams >= one), STEPS_G[-1])
    grams = max(round(grams / step), 1) * step
    return show_mass(grams), {"mass_g": grams}


def _salting(
    what: Ingredient, pot: Pot, liking: float | None, judgement: Judgement
) -> tuple[Shown, dict[str, Any]] | None:
    """The first part of the salt that is missing, by something that brings it; None where none is missing."""
    now, portion = pot.contents, what.portion(100.0)
    if liking is None or liking - now.salt_percent <= judgement.least_salt_share * liking:
        return None
    share = percent(portion.salt, portion.mass_g) / 100.0
    if share <= liking / 100.0:
        return None
    grams = judgement.first_salt * salt_to_add_g(now.salt, now.liquid_g, liking, share)
    return _spoons(grams / what.density_g_ml / ML_PER_TSP, round_up=False)


def _spoons(tsp: float, *, round_up: bool) -> HowMuch | None:
    """So many spoons as are measured; ``round_up`` where a least spoon is a first step, else none of what is less."""
    step = next((one for one in STEPS_TSP if tsp >= one), STEPS_TSP[-1])
    count = round(tsp / step)
    if count < 1 and not round_up:
        return None
    ml = max(count, 1) * step * ML_PER_TSP
    return Shown(ml, show_spoons(ml), show_spoons(ml)), {"volume_ml": ml}
