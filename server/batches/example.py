"""The example sauce, as a page plays it."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from shared.shapes import PanShape, SaidOut, Shape
from spissus_core import events as ev
from spissus_core.practice.example import example

from .marks import StretchOut, stretch_out

router = Router(tags=["explained"])


class ExampleStepOut(Shape):
    """A step of it: the stage that it ends, what is said of it, and how the pot stands; depths in mm, tone 0 to 1."""

    stage: ev.Stage
    said: SaidOut
    depth_mm: float
    fat_mm: float
    tone: float


class ExampleOut(Shape):
    """An example sauce: its pan, its ribbon as it went, and its steps, one for each stretch."""

    pan: PanShape
    ribbon: list[StretchOut]
    steps: list[ExampleStepOut]


@router.get("/example", auth=None, response=ExampleOut)
def play(request: HttpRequest) -> ExampleOut:
    """An example sauce from the strainer to the plate."""
    shown = example()
    return ExampleOut(
        pan=PanShape(**shown.steps[0].pot.pan.model_dump()),
        ribbon=[stretch_out(stretch) for stretch in shown.ribbon],
        steps=[
            ExampleStepOut(
                stage=step.stage,
                said=SaidOut.of(step.said),
                depth_mm=step.pot.depth_mm,
                fat_mm=step.pot.fat_mm,
                tone=step.tone,
            )
            for step in shown.steps
        ],
    )
