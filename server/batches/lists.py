"""The lists of the trade, for the page to offer: whatever is a row in the core is offered here."""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated

from django.http import HttpRequest
from kitchens.services import liking_of, member_of
from ninja import Router
from ninja.security import SessionAuth
from shared.shapes import Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import UnitSystem, show_number, show_temperature, show_volume
from spissus_core.amounts.rows import rows
from spissus_core.amounts.tables import key_of
from spissus_core.events import Sign
from spissus_core.events.remembering import MOMENTS, POINTS
from spissus_core.events.state import Taste
from spissus_core.intake.braise import Braise, Strain
from spissus_core.intake.doings import Use
from spissus_core.intake.lines import MOST_LINES
from spissus_core.intake.liquid import Character
from spissus_core.ledger.water import HOT_EXPANSION
from spissus_core.measuring.measurement import METHOD_WORDS, READ_IN, Method
from spissus_core.pantry.guests import DISHES, Avoided, DishKey
from spissus_core.pantry.schools import SCHOOLS, SchoolKey
from spissus_core.phenomena.evaporation import Cover, boiling_rate_g_min
from spissus_core.phenomena.fat import POURED_OFF, RESTS_G_PER_100_ML, Draw
from spissus_core.phenomena.heating import HEATS, Heat
from spissus_core.phenomena.palate import PALATE, SENSED, TASTERS, Sensed
from spissus_core.phenomena.seasoning import SALT_WORDS, SaltKind, StockKind, Verdict
from spissus_core.phenomena.warming import MEATS
from spissus_core.planning.acts.body import SPOON
from spissus_core.planning.proposing import body_for
from spissus_core.planning.verdicts import TONGUE, palate
from words import plain

from .pot import word

router = Router(auth=SessionAuth(), tags=["lists"])


class SchoolOut(Shape):
    """A school of thickening, and what it weighs."""

    key: SchoolKey
    label: str
    dry: str


class SaltOut(Shape):
    """A kind of salt."""

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
    """What may be seen, heard or smelt in the pan."""

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


class LiquidOut(Shape):
    """A kind of strained liquid, for want of the list of what went in."""

    key: Character
    label: str
    hint: str


class PlaceOut(Shape):
    """A place to cool a pot in."""

    key: str
    label: str
    celsius: ShownOut


class TasteOut(Shape):
    """How salty the strained liquid is by the tongue."""

    key: Verdict
    label: str


class StockOut(Shape):
    """A kind of stock that went into the braise."""

    key: StockKind
    label: str


class UseOut(Shape):
    """How an ingredient went in."""

    key: Use
    label: str


class SpoonOut(Shape):
    """What may be said of a spoonful."""

    key: Taste
    label: str


class MeatOut(Shape):
    """A way to cut meat."""

    key: Annotated[str, key_of("meats")]
    label: str


class SenseOut(Shape):
    """Something that is tasted besides salt and body, and what may be said of it; the first are asked for at first."""

    key: Sensed
    label: str
    at_first: bool
    words: list[TongueOut]


class TasterOut(Shape):
    """Whose tongue it may be; the first is whoever cooks."""

    key: Annotated[str, key_of("tasters")]
    label: str


class TongueOut(Shape):
    """What may be said of a taste."""

    key: Taste
    label: str


class HeatWordOut(Shape):
    """A heat, and the setting that it stands for."""

    key: str
    label: str
    heat: Heat
    share: float


class ShareOut(Shape):
    """A share of something, in a word; ``hint`` says the same from the other side."""

    key: str
    label: str
    share: float
    hint: str = ""


class RestOut(Shape):
    """Fat that is left for flavour, g per 100 mL."""

    key: str
    label: str
    g_per_100_ml: float


class DrawOut(Shape):
    """How a part is drawn off."""

    key: Draw
    label: str


class SaltWordOut(Shape):
    """What a salt content is called, % by weight."""

    key: str
    label: str
    percent: float


class MeasureOut(Shape):
    """A way to measure the pot, as a word on a button, and the unit that its numbers are read in."""

    key: Method
    label: str
    unit: dict[UnitSystem, str]


class KindOut(Shape):
    """A kind of entry: what it is called, and whether nothing follows from it for the pot."""

    kind: str
    called: str
    beside: bool


class MomentOut(Shape):
    """A moment that a note for next time concerns."""

    key: Annotated[str, key_of("moments")]
    label: str


class PointOut(Shape):
    """How good it was, from 1 to 5, in words."""

    points: int
    label: str


class ListsOut(Shape):
    """What the page offers to choose from."""

    schools: list[SchoolOut]
    salts: list[SaltOut]
    dishes: list[DishOut]
    avoided: list[AvoidedOut]
    signs: list[SignOut]
    covers: list[CoverOut]
    sieves: list[SieveOut]
    liquids: list[LiquidOut]
    cooling_places: list[PlaceOut]
    uses: list[UseOut]
    spoon: list[SpoonOut]
    tongue: list[TongueOut]
    palate: list[SenseOut]
    tasters: list[TasterOut]
    moments: list[MomentOut]
    points: list[PointOut]
    meats: list[MeatOut]
    tastes: list[TasteOut]
    stocks: list[StockOut]
    salt_words: list[SaltWordOut]
    heats: list[HeatWordOut]
    fat_rests: list[RestOut]
    draws: list[DrawOut]
    reductions: list[ShareOut]
    poured_off: list[ShareOut]
    hot_expansion_percent: float
    steam_g_min_per_kw: float
    ways_to_measure: list[MeasureOut]
    most_lines: int
    kinds: list[KindOut]
    usual_oven: ShownOut
    usual_hours: ShownOut


@router.get("/lists", response=ListsOut)
def lists(request: HttpRequest) -> ListsOut:
    """The lists of the trade; what a dish wants is as thick as the kitchen has come to like it."""
    liking = liking_of(member_of(request).kitchen.pk)
    return ListsOut(
        schools=[SchoolOut(key=s.key, label=word(s.label), dry=word(s.dry)) for s in SCHOOLS.values()],
        salts=[SaltOut(key=r["key"], label=word(r["label"])) for r in rows("salts")],
        dishes=[
            DishOut(
                key=key,
                label=word(dish.label),
                helping=ShownOut.of(show_volume(dish.helping_ml)),
                body=body_for(key, liking),
            )
            for key, dish in DISHES.items()
        ],
        avoided=[AvoidedOut(key=r["key"], label=word(r["label"])) for r in rows("avoided")],
        signs=[SignOut(key=r["key"], label=word(r["label"])) for r in rows("signs")],
        covers=[CoverOut(key=r["key"], label=word(r["label"]), cooked=word(r["cooked"])) for r in rows("covers")],
        sieves=[SieveOut(key=r["key"], cooked=word(r["cooked"]), hint=word(r["hint"])) for r in rows("sieves")],
        liquids=[LiquidOut(key=r["key"], label=word(r["label"]), hint=word(r["hint"])) for r in rows("liquids")],
        cooling_places=[
            PlaceOut(key=r["key"], label=word(r["label"]), celsius=ShownOut.of(show_temperature(float(r["celsius"]))))
            for r in rows("cooling_places")
        ],
        uses=[UseOut.model_validate({"key": r["key"], "label": word(r["label"])}) for r in rows("uses")],
        spoon=[SpoonOut(key=verdict, label=plain(said)) for said, verdict in SPOON],
        tongue=[TongueOut(key=verdict, label=plain(said)) for said, verdict in TONGUE],
        palate=[
            SenseOut(
                key=of,
                label=word(PALATE[of].label),
                at_first=PALATE[of].at_first,
                words=[TongueOut(key=verdict, label=plain(answer)) for answer, verdict in palate(of)],
            )
            for of in SENSED
        ],
        moments=[MomentOut(key=key, label=word(one.label)) for key, one in MOMENTS.items()],
        points=[PointOut(points=points, label=word(label)) for points, label in POINTS.items()],
        tasters=[TasterOut(key=key, label=word(one.label)) for key, one in TASTERS.items()],
        meats=[MeatOut(key=key, label=word(meat.label)) for key, meat in MEATS.items()],
        tastes=[TasteOut.model_validate({"key": r["key"], "label": word(r["label"])}) for r in rows("tastes")],
        stocks=[StockOut.model_validate({"key": r["key"], "label": word(r["label"])}) for r in rows("stocks")],
        salt_words=[
            SaltWordOut(key=r["key"], label=word(r["label"]), percent=SALT_WORDS[r["key"]]) for r in rows("salt_words")
        ],
        heats=[HeatWordOut(key=k, label=word(h.label), heat=h.heat, share=h.share) for k, h in HEATS.items()],
        fat_rests=[
            RestOut(key=r["key"], label=word(r["label"]), g_per_100_ml=RESTS_G_PER_100_ML[r["key"]])
            for r in rows("fat_rests")
        ],
        draws=[DrawOut(key=r["key"], label=word(r["label"])) for r in rows("draws")],
        reductions=[
            ShareOut(key=r["key"], label=word(r["label"]), hint=word(r["hint"]), share=float(Fraction(r["left"])))
            for r in rows("reductions")
        ],
        poured_off=[
            ShareOut(key=r["key"], label=word(r["label"]), share=POURED_OFF[r["key"]]) for r in rows("poured_off")
        ],
        hot_expansion_percent=100.0 * (HOT_EXPANSION - 1.0),
        steam_g_min_per_kw=boiling_rate_g_min(1.0).best,
        ways_to_measure=[
            MeasureOut(
                key=method, label=plain(label), unit={system: unit for system, (unit, _) in READ_IN[method].items()}
            )
            for method, label in METHOD_WORDS.items()
        ],
        most_lines=MOST_LINES,
        usual_oven=ShownOut.of(show_temperature(Braise().oven_c)),
        usual_hours=ShownOut.of(show_number(Braise().hours, unit="h")),
        kinds=[KindOut(kind=n, called=plain(k.called), beside=k.beside) for n, k in sorted(ev.KINDS.items())],
    )
