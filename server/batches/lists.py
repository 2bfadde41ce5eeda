"""The lists of the trade, for the page to offer: whatever is a row in the core is offered here."""

from __future__ import annotations

from django.http import HttpRequest
from kitchens.services import member_of
from kitchens.shapes import Shape, ShownOut
from ninja import Router
from ninja.security import SessionAuth
from spissus_core.amounts.quantities import show_temperature, show_volume
from spissus_core.amounts.tables import rows
from spissus_core.events import Sign
from spissus_core.intake.braise import Strain
from spissus_core.pantry.guests import DISHES, Avoided, DishKey
from spissus_core.pantry.schools import SCHOOLS, SchoolKey
from spissus_core.phenomena.evaporation import Cover
from spissus_core.phenomena.seasoning import SaltKind

router = Router(auth=SessionAuth(), tags=["lists"])


class SchoolOut(Shape):
    """A school of thickening, and what it weighs."""

    key: SchoolKey
    label: str
    dry: str


class SaltOut(Shape):
    key: SaltKind
    label: str


class DishOut(Shape):
    """What a sauce is poured over; ``body`` is the step of the ladder that suits it."""

    key: DishKey
    label: str
    helping: ShownOut
    body: int


class AvoidedOut(Shape):
    """What somebody at the table may have to do without."""

    key: Avoided
    label: str


class SignOut(Shape):
    key: Sign
    label: str


class CoverOut(Shape):
    """A cover; ``cooked`` is the word for it in the sentence about the braise."""

    key: Cover
    label: str
    cooked: str


class SieveOut(Shape):
    """A way to strain; ``cooked`` is the word for it in the sentence about the braise."""

    key: Strain
    cooked: str
    hint: str


class PlaceOut(Shape):
    """A place to cool a pot in."""

    key: str
    label: str
    celsius: ShownOut


class ListsOut(Shape):
    """What the page offers to choose from."""

    schools: list[SchoolOut]
    salts: list[SaltOut]
    dishes: list[DishOut]
    avoided: list[AvoidedOut]
    signs: list[SignOut]
    covers: list[CoverOut]
    sieves: list[SieveOut]
    cooling_places: list[PlaceOut]


@router.get("/lists", response=ListsOut, summary="The lists of the trade")
def lists(request: HttpRequest) -> ListsOut:
    member_of(request)
    return ListsOut(
        schools=[SchoolOut(key=s.key, label=s.label, dry=s.dry) for s in SCHOOLS.values()],
        salts=[SaltOut(key=r["key"], label=r["label"]) for r in rows("salts")],
        dishes=[
            DishOut(key=key, label=dish.label, helping=ShownOut.of(show_volume(dish.helping_ml)), body=dish.body)
            for key, dish in DISHES.items()
        ],
        avoided=[AvoidedOut(key=r["key"], label=r["label"]) for r in rows("avoided")],
        signs=[SignOut(key=r["key"], label=r["label"]) for r in rows("signs")],
        covers=[CoverOut(key=r["key"], label=r["label"], cooked=r["cooked"]) for r in rows("covers")],
        sieves=[SieveOut(key=r["key"], cooked=r["cooked"], hint=r["hint"]) for r in rows("sieves")],
        cooling_places=[
            PlaceOut(key=r["key"], label=r["label"], celsius=ShownOut.of(show_temperature(float(r["celsius"]))))
            for r in rows("cooling_places")
        ],
    )
