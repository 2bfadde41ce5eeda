"""Shapes that answers of every app are made of."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from django.http import HttpResponse
from pydantic import BaseModel, ConfigDict, RootModel
from spissus_core.amounts.estimate import Estimate
from spissus_core.measuring.vessels import Shape as Outline
from spissus_core.messages import Argument, Reason, Shown
from words import Part, parts, plain


class Shape(BaseModel):
    """What goes in or out: no infinity, and nothing that is no number, either way."""

    model_config = ConfigDict(allow_inf_nan=False)


def sent(answer: BaseModel) -> HttpResponse:
    """A long answer as JSON at once, in one pass: what is made here was judged as it was made."""
    return HttpResponse(answer.model_dump_json(), content_type="application/json; charset=utf-8")


class ShownOut(Shape):
    """An amount, exact and in the words of either system of units."""

    value: float
    metric: str
    us: str

    @classmethod
    def of(cls, shown: Shown) -> ShownOut:
        return cls(value=shown.value, metric=shown.metric, us=shown.us)


class SaidOut(RootModel[list[Part]]):
    """A sentence in parts: words, and what stands between them. Switching units needs no server."""

    @classmethod
    def of(cls, said: Argument) -> SaidOut:
        return cls.model_construct(list(parts(said)))

    @classmethod
    def of_all(cls, said: Iterable[Argument]) -> list[SaidOut]:
        return [cls.of(one) for one in said]

    @classmethod
    def maybe(cls, said: Argument | None) -> SaidOut | None:
        return None if said is None else cls.of(said)


class RangeOut(Shape):
    """A value with its 80 % interval."""

    low: float
    best: float
    high: float

    @classmethod
    def of(cls, estimate: Estimate) -> RangeOut:
        return cls(low=estimate.low, best=estimate.best, high=estimate.high)


class SpanOut(Shape):
    """An amount with its 80 % interval."""

    low: ShownOut
    best: ShownOut
    high: ShownOut

    @classmethod
    def of(cls, estimate: Estimate, show: Callable[[float], Shown]) -> SpanOut:
        low, best, high = (ShownOut.of(show(value)) for value in (estimate.low, estimate.best, estimate.high))
        return cls(low=low, best=best, high=high)


class ReasonOut(Shape):
    """One line of the arithmetic behind a figure: ``key`` for who looks it up, ``what`` for who reads it."""

    key: str
    what: str
    how: SaidOut

    @classmethod
    def of(cls, reason: Reason) -> ReasonOut:
        return cls(key=reason.key, what=plain(reason.what), how=SaidOut.of(reason.how))


class PanShape(Shape):
    """A pan by its inner measurements, mm, and its empty weight, g: enough to draw it to scale."""

    name: str
    shape: Outline
    base_length_mm: float
    base_width_mm: float
    rim_length_mm: float
    rim_width_mm: float
    height_mm: float
    empty_g: float | None
