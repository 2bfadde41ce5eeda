"""Where the skewer is marked: the start, now, where to stop, and where it gets too salty."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, NamedTuple

from ..amounts.quantities import show_length
from ..events.assumed import CLOSE_ENOUGH
from ..fold import Timeline
from ..measuring.vessels import SHALLOW_MM
from ..messages import Message, say
from .acts import Act
from .acts.amount import Take
from .ceiling import salt_ceiling_ml
from .solving import Route

MarkKind = Literal["start", "now", "stop", "ceiling", "over"]

#: What the skewer says beside its marks.
_WORDS: Mapping[MarkKind, Message] = {
    "start": say("batch.mark_start"),
    "now": say("batch.mark_now"),
    "stop": say("batch.mark_stop"),
    "ceiling": say("batch.mark_ceiling"),
    "over": say("batch.mark_over"),
}

#: A start that lies less than this above the pot is no mark of its own, mm. Modelling choice.
LEAST_FALLEN_MM = 1.0


class Mark(NamedTuple):
    """A mark: what of, and how far above the base of the pan, mm."""

    kind: MarkKind
    depth_mm: float

    @property
    def said(self) -> Message:
        """What stands beside it, and how deep it is."""
        return say("batch.mark", what=_WORDS[self.kind], depth=show_length(self.depth_mm))


def marks(timeline: Timeline, act: Act | None = None, route: Route | None = None) -> tuple[Mark, ...]:
    """The marks of a batch; ``act`` is what is to be done next, and ``route`` the plan, where there are any."""
    pot, start, wanted = timeline.pot, timeline.first_pot, timeline.asked.wanted
    if pot is None or start is None:
        return ()
    found = [Mark("now", pot.depth_mm)]
    if start.depth_mm - pot.depth_mm > LEAST_FALLEN_MM and start.pan == pot.pan:
        found.insert(0, Mark("start", start.depth_mm))
    if isinstance(act, Take):
        # What the sauce needs is taken first: the marks are those of what is left then.
        return tuple(found)
    if act is not None and act.mark is not None and act.mark.reads.dip >= SHALLOW_MM:
        found.append(Mark("stop", act.mark.reads.dip))
    elif route is not None and route.share_left < 1.0 - CLOSE_ENOUGH and route.mark_mm >= SHALLOW_MM:
        found.append(Mark("stop", route.mark_mm))
    ceiling = salt_ceiling_ml(pot, wanted, route) if wanted else None
    if ceiling is not None:
        # A ceiling that is passed already is drawn at the surface.
        passed = ceiling >= pot.contents.liquid_ml
        depth = pot.depth_mm if passed else pot.mark_mm(ceiling)
        if depth >= SHALLOW_MM or passed:
            found.append(Mark("over" if passed else "ceiling", depth))
    return tuple(found)
