"""What finished batches taught of a kitchen: rates, likings and strengths, each with its evidence, to be forgotten."""

from __future__ import annotations

import math
from datetime import datetime
from uuid import UUID

from django.http import HttpRequest
from ninja import Router, Status
from ninja.security import SessionAuth
from shared.shapes import RangeOut, SaidOut, Shape
from spissus_core.amounts.estimate import Z80, Estimate
from spissus_core.amounts.fields import Name
from spissus_core.amounts.quantities import show_number, show_percent
from spissus_core.learning.liking import leanings
from spissus_core.messages import Message, say
from spissus_core.phenomena.evaporation import boiling_rate_g_min
from spissus_core.phenomena.heating import HeatKind

from .models import Kitchen
from .services import all_learned, forget_taught, liking_of, member_of, strengths_of

router = Router(auth=SessionAuth(), tags=["kitchen"])

#: No more batches than this are shown for anything that was learned. Modelling choice.
MOST_SHOWN = 6


class EvidenceOut(Shape):
    """A batch that taught something, when, and what it said by itself."""

    batch: UUID
    at: datetime
    said: SaidOut


class StrengthOut(Shape):
    """How many times as strongly as the tables say a dry thickener binds here, with its 80 % interval; whether the next
    doses go by it, and the batches that taught it, the newest first."""

    dry: str
    times: RangeOut
    counts: bool
    batches: int
    evidence: list[EvidenceOut]


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
    evidence: list[EvidenceOut]


class LikingOut(Shape):
    """The salt that this kitchen has come to like: %, with its 80 % interval, and what is proposed by it.

    ``more`` says what else it leans to: body, sourness, bitterness.
    """

    percent: RangeOut
    proposed_percent: float
    proposes: bool
    batches: int
    more: list[SaidOut]
    evidence: list[EvidenceOut]


def liking_out(place: Kitchen) -> LikingOut | None:
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
        evidence=[
            EvidenceOut(batch=row.batch, at=row.at, said=SaidOut.of(show_percent(row.value)))
            for row in place.likings.filter(of="salt")[:MOST_SHOWN]
        ],
    )


def strengths_out(place: Kitchen) -> list[StrengthOut]:
    out = []
    for dry, known in sorted(strengths_of(place.pk).items()):
        rows = place.strengths.filter(dry=dry)[:MOST_SHOWN]
        evidence = [
            EvidenceOut(batch=row.batch, at=row.at, said=SaidOut.of(_times(math.exp(row.log_times)))) for row in rows
        ]
        times = RangeOut.of(Estimate.log_normal(known.times, known.spread))
        out.append(StrengthOut(dry=dry, times=times, counts=known.counts, batches=known.batches, evidence=evidence))
    return out


def _times(times: float) -> Message:
    return say("kitchen.times_the_tables", times=show_number(times, 2))


def _rates_of(place: Kitchen, pan: str, burner: str, heat: HeatKind) -> list[EvidenceOut]:
    rows = place.learned_rates.filter(pan=pan, burner=burner, heat=heat).order_by("-at")[:MOST_SHOWN]
    return [
        EvidenceOut(
            batch=row.batch,
            at=row.at,
            said=SaidOut.of(show_number(boiling_rate_g_min(row.net_kw).best, 0, "g/min")),
        )
        for row in rows
    ]


def learned_out(place: Kitchen) -> list[LearnedOut]:
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
                    evidence=_rates_of(place, pan, burner, rate.heat),
                )
            )
    return out


@router.delete("/learned", response={204: None})
def forget_learned(request: HttpRequest, pan: Name, burner: Name) -> Status[None]:
    """Forget what was learned of a pan on a burner."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.learned_rates.filter(pan=pan, burner=burner).delete()
    return Status(204, None)


@router.delete("/learned/strength", response={204: None})
def forget_strength(request: HttpRequest, dry: Name) -> Status[None]:
    """Forget what was learned of a dry thickener: another bag of it is another thing."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.strengths.filter(dry=dry).delete()
    return Status(204, None)


@router.delete("/learned/batches/{batch_id}", response={204: None})
def forget_batch(request: HttpRequest, batch_id: UUID) -> Status[None]:
    """Forget what one batch taught of a pan, of what is liked, and of a thickener; the batch stays as it is."""
    member = member_of(request)
    member.require_cook()
    forget_taught(member.kitchen, batch_id)
    return Status(204, None)


@router.delete("/liking", response={204: None})
def forget_liking(request: HttpRequest) -> Status[None]:
    """Forget what this kitchen has come to like."""
    member = member_of(request)
    member.require_cook()
    member.kitchen.likings.all().delete()
    return Status(204, None)
