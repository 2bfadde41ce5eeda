"""The marks of the skewer and the stretches of the ribbon, as a page draws them."""

from __future__ import annotations

from shared.shapes import Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_length, show_volume
from spissus_core.planning.journey import Stretch
from spissus_core.planning.marks import Mark, MarkKind


class MarkOut(Shape):
    """A mark on the skewer."""

    kind: MarkKind
    depth: ShownOut

    @classmethod
    def of(cls, mark: Mark) -> MarkOut:
        return cls(kind=mark.kind, depth=ShownOut.of(show_length(mark.depth_mm)))


class StretchOut(Shape):
    """A stretch of the ribbon; see ``spissus_core.planning.journey.Stretch``. What is too little to draw is null."""

    stage: ev.Stage
    planned: bool
    from_ml: float
    to_ml: float
    from_fat_ml: float
    to_fat_ml: float
    from_tone: float
    to_tone: float
    salt_percent: float
    liquid: ShownOut
    fat: ShownOut | None
    vapour: ShownOut | None
    added: ShownOut | None


#: Less than this, mL, is not worth a sign on the ribbon: a spoon's half. Modelling choice.
LEAST_DRAWN_ML = 2.5


def _drawn(volume_ml: float) -> ShownOut | None:
    return ShownOut.of(show_volume(volume_ml)) if volume_ml >= LEAST_DRAWN_ML else None


def stretch_out(stretch: Stretch) -> StretchOut:
    """A stretch of the ribbon as it is drawn."""
    return StretchOut(
        stage=stretch.stage,
        planned=stretch.planned,
        from_ml=stretch.from_ml,
        to_ml=stretch.to_ml,
        from_tone=stretch.from_tone,
        to_tone=stretch.to_tone,
        salt_percent=stretch.salt_percent,
        from_fat_ml=stretch.from_fat_ml,
        to_fat_ml=stretch.to_fat_ml,
        liquid=ShownOut.of(show_volume(max(stretch.to_ml - stretch.to_fat_ml, 0.0))),
        fat=_drawn(stretch.fat_ml),
        vapour=_drawn(stretch.vapour_ml),
        added=_drawn(stretch.added_ml),
    )
