"""What stands in the kitchen."""

from __future__ import annotations

from typing import Annotated, Any

from django.http import HttpRequest
from ninja import Router
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core.amounts.fields import AltitudeM, Celsius, Minutes, TimeZone
from spissus_core.amounts.quantities import show_minutes, show_temperature
from spissus_core.amounts.tables import key_of, one_of
from spissus_core.messages import Term, say
from spissus_core.phenomena.heating import boiling_point_c
from spissus_core.phenomena.limits import PLACES, USUAL, Limits, Place
from spissus_core.planning.safety import kitchen_limits
from words import plain

from .burners import BurnerOut
from .learned import LearnedOut, LikingOut, StrengthOut, learned_out, liking_out, strengths_out
from .models import Kitchen
from .pans import PanOut
from .services import did, limits_of, member_of

router = Router(auth=SessionAuth(), tags=["kitchen"])

PlaceKey = Annotated[str, key_of("limits")]


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
    strengths: list[StrengthOut]
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
        learned=learned_out(place),
        liking=liking_out(place),
        strengths=strengths_out(place),
    )


def _limits(place: Kitchen) -> LimitsOut:
    limits = limits_of(place) or USUAL
    return LimitsOut(
        place=limits.place, figures=LimitFiguresOut.of(limits), said=SaidOut.of_all(kitchen_limits(limits))
    )


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
    if data.limits is not None:
        did(member, say("deeds.limits", place=plain(Term(PLACES[data.limits.place].label))))
    elif said:
        did(member, say("deeds.placed"))
    return kitchen(request)
