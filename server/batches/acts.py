"""The next act and what answers it, as the page shows them: one to a few buttons, each with the entry it records or
the place where more is said.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import WithJsonSchema
from shared.shapes import SaidOut, Shape, ShownOut
from spissus_core import events as ev
from spissus_core.amounts.tables import key_of
from spissus_core.events.alarm import quiet
from spissus_core.fold import Timeline
from spissus_core.measuring.measurement import Method
from spissus_core.planning.acts import KINDS, Act, Answer, Sound
from spissus_core.planning.doubts import concern_line
from spissus_core.planning.spoken import rest_line
from words import plain

#: The name of an act, in the schema one of those there are.
ActKind = Annotated[str, WithJsonSchema({"type": "string", "enum": sorted(KINDS)})]


class AnswerOut(Shape):
    """A button that answers an act: the entry it records as it stands, or the view or the sheet where more is said.

    With both it opens the view, and where that is open already it sends the form there.
    """

    label: str
    payload: dict[str, Any] | None = None
    opens: ev.Stage | Literal["plan"] | None = None
    asks: Literal["reading", "add", "probe", "probe_meat"] | None = None

    @classmethod
    def of(cls, answer: Answer) -> AnswerOut:
        """An answer of the core, its event as a page records it."""
        event = answer.event
        payload = None if event is None else {"kind": event.kind} | event.model_dump(mode="json", exclude_none=True)
        return cls(label=plain(answer.label), payload=payload, opens=answer.opens, asks=answer.asks)


class ActOut(Shape):
    """The next act: its sentence, and what answers it where one tap is enough.

    ``doing`` is what is to be done at the pot, where a doubt or a slip is asked about before it, ``stage`` where it is
    done, ``measure`` what to measure with and ``thickener`` what goes in; ``goes_in`` is how much of that, or of salt,
    and ``goes_in_also`` the same by the spoon. Where it is a matter of looking again, ``look_at`` says when,
    ``countdown`` stands before the sentence until then, ``overdue`` is the sentence from then on, ``sound`` its
    alarm's, and ``quiet`` whether somebody heard that already. ``reads_by`` is the way to measure
    that its mark is told in.
    """

    kind: ActKind
    doing: ActKind
    answers: list[AnswerOut]
    measure: Literal["jug", "dip", "scale", "eye", "spoon"] | None
    reads_by: Method
    stage: ev.Stage
    sentence: SaidOut
    look_at: datetime | None
    sound: Sound
    quiet: bool
    countdown: SaidOut | None
    overdue: SaidOut | None
    thickener: Annotated[str, key_of("schools")] | None
    goes_in: ShownOut | None
    goes_in_also: ShownOut | None


def act_out(act: Act, timeline: Timeline) -> ActOut:
    """The next act in the words that are spoken, with what answers it."""
    doing = act.doing
    return ActOut(
        kind=act.kind,
        doing=doing.kind,
        answers=[AnswerOut.of(answer) for answer in act.answers(timeline)],
        measure=act.measure,
        reads_by=doing.reads_by,
        stage=doing.stage,
        sentence=SaidOut.of(act.said(timeline)),
        look_at=act.look_at,
        sound=doing.sound,
        quiet=quiet(timeline.seen, act.look_at),
        countdown=SaidOut.maybe(act.countdown()),
        overdue=None if act.look_at is None else SaidOut.of(doing.overdue(timeline)),
        thickener=None if act.thickener is None else act.thickener.key,
        goes_in=None if act.goes_in is None else ShownOut.of(act.goes_in.main),
        goes_in_also=None if act.goes_in is None else ShownOut.of(act.goes_in.also),
    )


def concerns_out(timeline: Timeline) -> list[SaidOut]:
    """What makes the pot doubtful, until it is answered."""
    return [SaidOut.of(concern_line(concern, timeline)) for concern in timeline.table.concerns]


def rest_out(timeline: Timeline) -> SaidOut | None:
    """What is said of the liquid that was set aside, while anything is to be done about it."""
    return SaidOut.maybe(rest_line(timeline))
