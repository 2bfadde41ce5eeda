"""Making a thickener: what to weigh, what to do and how it looks meanwhile, what it must not bear, and what is left."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal, NamedTuple, cast

from ..amounts.quantities import show_mass, show_minutes
from ..amounts.rows import rows
from ..events import State
from ..events.state import Made
from ..messages import Message, Term, say
from ..pantry.schools import SCHOOLS, SLURRY_LIQUIDS, School
from .choosing import COMES_BACK, traits_of
from .solving import Route
from .spoken import carrier_amount, carrier_name, dry_amount, second_amount

#: How what is made looks meanwhile.
Swatch = Literal["sand", "straw", "hazelnut", "chocolate", "milk", "clear", "puree"]

#: So much more is made ready than the sums ask for. Handbook of the trade, section 9.
MORE_READY = 1.1

#: Less than this left over is not worth a word, g dry. Modelling choice.
LEAST_LEFT_G = 0.5


class Step(NamedTuple):
    """One thing to do, from which minute to which where it takes a while, and what it looks like then."""

    does: str
    from_min: float | None
    to_min: float | None
    swatch: Swatch | None


#: By school: rows of ``data/making.csv``. Common practice.
STEPS: Mapping[str, tuple[Step, ...]] = {
    key: tuple(
        Step(
            row["does"],
            float(row["from_min"]) if row["from_min"] else None,
            float(row["to_min"]) if row["to_min"] else None,
            cast("Swatch | None", row["swatch"] or None),
        )
        for row in rows("making")
        if key in row["schools"].split()
    )
    for key in SCHOOLS
}


@dataclass(frozen=True, slots=True, kw_only=True)
class Card:
    """What a cook reads while a thickener is made.

    ``dry_g`` of it are made, ``weigh`` says of what, ``minds`` what it must and must not bear. ``liquids`` are what it
    may be stirred into besides what its row says, by their keys, and ``stirred_into`` the one that was taken. ``since``
    is when it was begun, ``ready`` whether it is, and ``left`` what of it is not in the pot.
    """

    school: School
    dry_g: float
    weigh: tuple[Message, ...]
    steps: Sequence[Step]
    minds: tuple[Message, ...]
    liquids: tuple[str, ...]
    stirred_into: str | None
    since: datetime | None
    ready: bool
    left: Message | None

    @property
    def takes_min(self) -> float | None:
        """How long it takes by its own clock; None for what takes no while."""
        return max((step.to_min for step in self.steps if step.to_min is not None), default=None)


def making(state: State, route: Route | None) -> Card | None:
    """The card of the thickener of the way until some is in, or of what stands beside the pot; None for none. Of a
    batch that is finished it says what is left."""
    made = state.binding.made
    if made is not None:
        left = _left(state, made)
        carrier = Term(made.school.carrier) if made.ready else carrier_name(made.made_g, made.school, state)
        poured = state.binding.in_it and made.left_g < LEAST_LEFT_G
        return (
            None
            if poured or (state.finished and left is None)
            else _card(made.school, made.made_g, carrier, made, left)
        )
    if state.finished or route is None or route.thickener is None or route.dry_g <= 0.0 or state.binding.in_it:
        return None
    school, dry_g = route.thickener, MORE_READY * route.dry_g
    return _card(school, dry_g, carrier_name(dry_g, school, state), None, None)


def _card(school: School, dry_g: float, carrier: Term, made: Made | None, left: Message | None) -> Card:
    return Card(
        school=school,
        dry_g=dry_g,
        weigh=tuple(_weigh(school, dry_g, carrier)),
        steps=STEPS.get(school.row, ()) if school.is_slurry or not school.like else (),
        minds=(*((say("making.a_tenth_more"),) if made is None else ()), *_minds(school)),
        liquids=tuple(SLURRY_LIQUIDS) if school.is_slurry else (),
        stirred_into=None if made is None else made.stirred_into,
        since=None if made is None else made.since,
        ready=made is not None and made.ready,
        left=left,
    )


def _weigh(school: School, dry_g: float, carrier: Term) -> list[Message]:
    """What to weigh, a line each."""
    found = [say("bar.dry", amount=dry_amount(dry_g, school).full, dry=school.weighed)]
    if school.carrier:
        carried = carrier_amount(dry_g, school).full
        found.append(say("making.of_carrier", amount=carried, carrier=carrier))
    if school.second:
        found.append(second_amount(dry_g, school))
    return found


def _minds(school: School) -> list[Message]:
    """Whether it must boil, and for how long; what it does when it boils again; and how lumps go."""
    low, high = show_minutes(school.wait_low_min), show_minutes(school.wait_high_min)
    boils = say("making.boils", low=low, high=high) if school.boil_min > 0.0 else say("making.no_boil")
    traits = traits_of(school)
    worse = traits is not None and traits.warmed != COMES_BACK
    again = say("making.again", warmed=Term(traits.warmed)) if traits is not None and worse else None
    return [one for one in (boils, again, say("making.lumps")) if one is not None]


def _left(state: State, made: Made) -> Message | None:
    """What of it did not go in, once some of it is in."""
    if not state.binding.in_it or made.left_g < LEAST_LEFT_G or made.left_g >= made.made_g:
        return None
    left = show_mass(made.left_g)
    key = "making.slurry_left" if made.school.is_slurry else "making.left"
    return say(key, amount=left, dry=made.school.weighed)
