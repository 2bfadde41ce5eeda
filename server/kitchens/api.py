"""What stands in the kitchen."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.shapes import RangeOut, SaidOut, Shape, ShownOut
from spissus_core.amounts.estimate import Z80, Estimate
from spissus_core.amounts.fields import AltitudeM, Celsius, Minutes, Name, TimeZone
from spissus_core.amounts.quantities import show_minutes, show_temperature
from spissus_core.amounts.tables import key_of, one_of
from spissus_core.learning.liking import leanings
from spissus_core.messages import Term
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.heating import HeatKind, boiling_point_c
from spissus_core.phenomena.limits import PLACES, USUAL, Limits, Place
from spissus_core.planning.safety import kitchen_limits
from words import plain

from .burners import BurnerOut
from .models import Kitchen
from .pans import PanOut
from .services import all_learned, liking_of, limits_of, member_of

router = Router(auth=SessionAuth(), tags=["kitchen"])

PlaceKey = Annotated[str, key_of("limits")]


class LearnedOut(Shape):
    """What this kitchen has learned of a pan on a burner; g of steam a minute with its 80 % interval."""

    pan: str
    burner: str
    heat: HeatKind
    batches: int
    net_kw: float
    low_g_min: float
    best_g_min: float
    high_g_min: float


class LikingOut(Shape):
    """The salt that this kitchen has come to like: %, with its 80 % interval, and what is proposed by it.

    ``more`` says what else it leans to: body, sourness, bitterness.
    """

    percent: RangeOut
    proposed_percent: float
    proposes: bool
    batches: int
    more: list[SaidOut]


class LimitFiguresOut(Shape):
    """How hot it is kept, how hot it is warmed again, and how cold it is to be, in what time."""

    hold: ShownOut
    reheat: ShownOut
    cold: ShownOut
    cold_in: ShownOut

    @classmethod
    def of(cls, limits: Limits) -> LimitFiguresOut:
        """Those of a place, or of a kitchen."""
        return cls(
            hold=ShownOut.of(limits.hold),
            reheat=ShownOut.of(limits.reheat),
            cold=ShownOut.of(show_temperature(limits.cold.celsius)),
            cold_in=ShownOut.of(show_minutes(limits.cold.minutes)),
        )


class LimitsOut(Shape):
    """The limits that the kitchen goes by, whose they are, and what they say."""

    place: PlaceKey
    figures: LimitFiguresOut
    said: list[SaidOut]


class RulesOut(Shape):
    """A place whose limits may be chosen, and where they stand."""

    key: PlaceKey
    label: str
    source: str
    figures: LimitFiguresOut

    @classmethod
    def of(cls, place: Place) -> RulesOut:
        """A place's row."""
        figures = LimitFiguresOut.of(place.limits)
        return cls(key=place.key, label=plain(Term(place.label)), source=place.source, figures=figures)


class KitchenOut(Shape):
    """A kitchen; ``boils_at`` is the temperature at which water boils at its altitude."""

    name: str
    altitude_m: float
    boils_at: ShownOut
    limits: LimitsOut
    places: list[RulesOut]
    time_zone: str
    learned: list[LearnedOut]
    liking: LikingOut | None
    pans: list[PanOut]
    burners: list[BurnerOut]


@router.get("/kitchen", response=KitchenOut)
def kitchen(request: HttpRequest) -> KitchenOut:
    """The kitchen's pans and burners."""
    place = member_of(request).kitchen
    return KitchenOut(
        name=place.name,
        altitude_m=place.altitude_m,
        boils_at=ShownOut.of(show_temperature(boiling_point_c(place.altitude_m))),
        limits=_limits(place),
        places=[RulesOut.of(one) for one in PLACES.values()],
        time_zone=place.time_zone,
        pans=[PanOut.of(pan) for pan in place.pans.filter(retired=False)],
        burners=[BurnerOut.of(burner) for burner in place.burners.filter(retired=False)],
        learned=_learned(place),
        liking=_liking(place),
    )


def _limits(place: Kitchen) -> LimitsOut:
    limits = limits_of(place) or USUAL
    return LimitsOut(
        place=limits.place, figures=LimitFiguresOut.of(limits), said=SaidOut.of_all(kitchen_limits(limits))
    )


def _liking(place: Kitchen) -> LikingOut | None:
    found = liking_of(place.pk)
    if found is None:
        return None
    wide = Z80 * found.error
    return LikingOut(
        percent=RangeOut(low=max(found.percent - wide, 0.0), best=found.percent, high=found.percent + wide),
        proposed_percent=found.proposed_percent,
        proposes=found.proposes,
        batches=found.batches,
        more=[SaidOut.of(said) for said in leanings(found)],
    )


def _learned(place: Kitchen) -> list[LearnedOut]:
    out = []
    for (pan, burner), rates in all_learned(place.pk).items():
        for rate in rates:
            steam = Estimate.log_normal(boiling_rate_g_min(rate.net_kw).best, rate.spread)
            out.append(
                LearnedOut(
                    pan=pan,
                    burner=burner,
                    heat=rate.heat,
                    batches=rate.batches,
                    net_kw=rate.net_kw,
                    low_g_min=steam.low,
                    best_g_min=steam.best,
                    high_g_min=steam.high,
                )
            )
    return out


class LimitsIn(Shape):
    """A place whose limits are gone by, and the kitchen's own figures where they are stricter."""

    model_config = ConfigDict(extra="forbid")

    place: Annotated[str, *one_of("limits")]
    hold_c: Celsius | None = None
    reheat_c: Celsius | None = None
    cold_c: Celsius | None = None
    cold_min: Minutes | None = None


class PlaceIn(Shape):
    """Where the kitchen is: how high, by whose clock, and under whose rules; what is not said stays."""

    model_config = ConfigDict(extra="forbid")

    altitude_m: AltitudeM | None = None
    time_zone: TimeZone | None = None
    limits: LimitsIn | None = None


@router.patch("/kitchen", response=KitchenOut)
def place_kitchen(request: HttpRequest, data: PlaceIn) -> KitchenOut:
    """Say where the kitchen is. Batches that have begun keep the limits they began with."""
    member = member_of(request)
    member.require_cook()
    place = member.kitchen
    said: dict[str, Any] = data.model_dump(exclude={"limits"}, exclude_none=True)
    if data.limits is not None:
        own = data.limits.model_dump(exclude={"place"})
        said["limits"] = PLACES[data.limits.place].limits.stricter(**own).model_dump(mode="json")
    for name, value in said.items():
        setattr(place, name, value)
    # What another page says of the place at the same time stays.
    place.save(update_fields=list(said))
    return kitchen(request)


@router.delete("/learned", response={204: None})
def forget_learned(request: HttpRequest, pan: Name, burner: Name) -> Status[None]:
    """Forget what was learned of a pan on a burner."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.learned_rates.filter(pan=pan, burner=burner).delete()
    return Status(204, None)


@router.delete("/liking", response={204: None})
def forget_liking(request: HttpRequest) -> Status[None]:
    """Forget what this kitchen has come to like."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.likings.all().delete()
    return Status(204, None)
