"""Where the skewer is marked, and what the ribbon draws."""

from __future__ import annotations

from typing import Literal

from shared.shapes import Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_length, show_volume
from spissus_core.events.assumed import CLOSE_ENOUGH
from spissus_core.fold import Timeline
from spissus_core.measuring.vessels import SHALLOW_MM
from spissus_core.messages import Message, Shown, say
from spissus_core.planning.acts import Act
from spissus_core.planning.acts.amount import Take
from spissus_core.planning.ceiling import salt_ceiling_ml
from spissus_core.planning.journey import Stretch
from spissus_core.planning.solving import Route


class MarkOut(Shape):
    """A mark on the skewer."""

    kind: Literal["start", "now", "stop", "ceiling", "over"]
    depth: ShownOut


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


MarkKind = Literal["start", "now", "stop", "ceiling", "over"]


#: What the skewer says beside its marks.
MARK_WORDS: dict[MarkKind, Message] = {
    "start": say("batch.mark_start"),
    "now": say("batch.mark_now"),
    "stop": say("batch.mark_stop"),
    "ceiling": say("batch.mark_ceiling"),
    "over": say("batch.mark_over"),
}


def mark_words(mark: MarkOut) -> Message:
    """What stands beside a mark, and how deep it is."""
    depth = Shown(mark.depth.value, mark.depth.metric, mark.depth.us)
    return say("batch.mark", what=MARK_WORDS[mark.kind], depth=depth)


def marks_out(timeline: Timeline, act: Act | None = None, route: Route | None = None) -> list[MarkOut]:
    """Where the skewer is marked: the start, now, where to stop, and where it gets too salty."""
    pot, start = timeline.pot, timeline.first_pot
    if pot is None or start is None:
        return []
    marks = [MarkOut(kind="now", depth=ShownOut.of(show_length(pot.depth_mm)))]
    if start.depth_mm - pot.depth_mm > 1.0 and start.pan == pot.pan:
        marks.insert(0, MarkOut(kind="start", depth=ShownOut.of(show_length(start.depth_mm))))
    if isinstance(act, Take):
        # What the sauce needs is taken first: the marks are those of what is left then.
        return marks
    if act is not None and act.mark is not None and act.mark.reads.dip >= SHALLOW_MM:
        marks.append(MarkOut(kind="stop", depth=ShownOut.of(show_length(act.mark.reads.dip))))
    elif route is not None and route.share_left < 1.0 - CLOSE_ENOUGH and route.mark_mm >= SHALLOW_MM:
        marks.append(MarkOut(kind="stop", depth=ShownOut.of(show_length(route.mark_mm))))
    ceiling = salt_ceiling_ml(pot, timeline.asked.wanted, route) if timeline.asked.wanted else None
    if ceiling is not None:
        # A ceiling that is passed already is drawn at the surface.
        depth = pot.mark_mm(ceiling) if ceiling < pot.contents.liquid_ml else pot.depth_mm
        kind: MarkKind = "ceiling" if ceiling < pot.contents.liquid_ml else "over"
        if depth >= SHALLOW_MM or kind == "over":
            marks.append(MarkOut(kind=kind, depth=ShownOut.of(show_length(depth))))
    return marks


#: Less than this, mL, is not worth a sign on the ribbon: a spoon's half. Modelling choice.
LEAST_DRAWN_ML = 2.5


def _drawn(volume_ml: float) -> ShownOut | None:
    return ShownOut.of(show_volume(volume_ml)) if volume_ml >= LEAST_DRAWN_ML else None


def stretch_out(stretch: Stretch) -> StretchOut:
    """A stretch of the ribbon as it is drawn."""
    return StretchOut(
        stage=stretch.stage, planned=stretch.planned, from_ml=stretch.from_ml, to_ml=stretch.to_ml,
        from_tone=stretch.from_tone, to_tone=stretch.to_tone, salt_percent=stretch.salt_percent,
        from_fat_ml=stretch.from_fat_ml, to_fat_ml=stretch.to_fat_ml,
        liquid=ShownOut.of(show_volume(max(stretch.to_ml - stretch.to_fat_ml, 0.0))),
        fat=_drawn(stretch.fat_ml), vapour=_drawn(stretch.vapour_ml), added=_drawn(stretch.added_ml),
    )  # fmt: skip
