"""What stands in the kitchen."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router, Status
from ninja.security import SessionAuth
from pydantic import ConfigDict
from shared.shapes import RangeOut, SaidOut, Shape, ShownOut
from spissus_core.amounts.estimate import Z80, Estimate
from spissus_core.amounts.fields import AltitudeM, Name
from spissus_core.amounts.quantities import show_temperature
from spissus_core.learning.liking import leanings
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.heating import HeatKind, boiling_point_c

from .burners import BurnerOut
from .models import Kitchen
from .pans import PanOut
from .services import all_learned, liking_of, member_of

router = Router(auth=SessionAuth(), tags=["kitchen"])


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


class KitchenOut(Shape):
    """A kitchen; ``boils_at`` is the temperature at which water boils at its altitude."""

    name: str
    altitude_m: float
    boils_at: ShownOut
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
        pans=[PanOut.of(pan) for pan in place.pans.filter(retired=False)],
        burners=[BurnerOut.of(burner) for burner in place.burners.filter(retired=False)],
        learned=_learned(place),
        liking=_liking(place),
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


class PlaceIn(Shape):
    """Where the kitchen is."""

    model_config = ConfigDict(extra="forbid")

    altitude_m: AltitudeM


@router.patch("/kitchen", response=KitchenOut)
def place_kitchen(request: HttpRequest, data: PlaceIn) -> KitchenOut:
    """Say how high the kitchen lies."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.altitude_m = data.altitude_m
    member.kitchen.save(update_fields=["altitude_m"])
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
