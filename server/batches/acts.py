"""The next act and what answers it: one to three buttons, each with the entry it records or the place where more is
said.
"""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from shared.shapes import RangeOut, SaidOut, Shape
from spissus_core import events as ev
from spissus_core.amounts.quantities import show_plain
from spissus_core.amounts.rows import rows
from spissus_core.amounts.tables import key_of
from spissus_core.events import State
from spissus_core.events.alarm import quiet
from spissus_core.events.state import ConcernKind, Taste
from spissus_core.fold import Timeline
from spissus_core.measuring.measurement import Method
from spissus_core.messages import Message, Term, Until, say
from spissus_core.phenomena.heating import FULL_BOIL
from spissus_core.planning.guidance import Act, ActKind, Why
from spissus_core.planning.journey import stage_of
from spissus_core.planning.routes import solve_route, suggested
from spissus_core.planning.spoken import ALONE, concern_line, now_line, overdue_line, rest_line
from words import plain


class AnswerOut(Shape):
    """A button that answers an act: the entry it records as it stands, or the view or the sheet where more is said.

    With both it opens the view, and where that is open already it sends the form there.
    """

    label: str
    payload: dict[str, Any] | None = None
    opens: ev.Stage | Literal["plan"] | None = None
    asks: Literal["reading", "add"] | None = None


class ActOut(Shape):
    """The next act: its sentence, and what answers it where one tap is enough.

    ``doing`` is what is to be done at the pot, where a doubt or a slip is asked about before it.
    ``why`` is what the pot contradicts, where it is not simply the next step; ``way`` a way of taking fat off,
    ``measure`` what to measure with, ``wait_min`` how long a thickener simmers, lid on, before it is judged. Where it
    is a matter of looking again, ``look_at`` says when, ``countdown`` stands before the sentence until then,
    ``overdue`` is the sentence from then on, and ``quiet`` whether somebody heard the alarm already. ``reads_by`` is
    the way to measure that its mark is told in.
    """

    kind: ActKind
    doing: ActKind
    why: Why | None
    answers: list[AnswerOut]
    way: str | None
    measure: Literal["jug", "dip", "scale", "eye", "spoon"] | None
    reads_by: Method
    wait_min: RangeOut | None
    stage: ev.Stage
    sentence: SaidOut
    look_at: datetime | None
    quiet: bool
    countdown: SaidOut | None
    overdue: SaidOut | None
    amount: float
    thickener: Annotated[str, key_of("schools")] | None


def act_out(act: Act, timeline: Timeline) -> ActOut:
    """The next act in the words that are spoken, with what answers it."""
    thickener = act.route.thickener if act.route and act.kind == "thicken" else None
    return ActOut(
        kind=act.kind, doing=act.doing.kind, why=act.why, way=act.way, measure=act.measure, reads_by=act.doing.reads_by,
        wait_min=_wait(act),
        answers=answers_to(act, timeline), stage=stage_of(act), amount=act.amount,
        sentence=SaidOut.of(now_line(act, timeline)),
        thickener=None if thickener is None else thickener.key,
        look_at=act.look_at,
        quiet=quiet(timeline.seen, act.look_at),
        countdown=SaidOut.maybe(_countdown(act)),
        overdue=None if act.look_at is None else SaidOut.of(overdue_line(act.doing, timeline)),
    )  # fmt: skip


def _countdown(act: Act) -> Message | None:
    """What stands before the sentence until it is time to look; what is asked first has no time."""
    if act.look_at is None or act.beneath is not None:
        return None
    return say("bar.look_in" if act.kind == "boil" else "bar.wait", until=Until(act.look_at))


def concerns_out(timeline: Timeline) -> list[SaidOut]:
    """What makes the pot doubtful, until it is answered."""
    return [SaidOut.of(concern_line(concern, timeline)) for concern in timeline.concerns]


def rest_out(timeline: Timeline) -> SaidOut | None:
    """What is said of the liquid that was set aside, while anything is to be done about it."""
    return SaidOut.maybe(rest_line(timeline))


def _wait(act: Act) -> RangeOut | None:
    """How long a thickener wants, min."""
    if act.wait_min is None:
        return None
    low, high = act.wait_min
    return RangeOut(low=low, best=(low + high) / 2.0, high=high)


def alone() -> ActOut:
    """What stands in its place where it cannot be worked out."""
    return ActOut(
        kind="alone", doing="alone", why=None, way=None, measure=None, reads_by="dip", wait_min=None, answers=[],
        stage="strain", sentence=SaidOut.of(ALONE), look_at=None, quiet=False, countdown=None, overdue=None, amount=0.0,
        thickener=None,
    )  # fmt: skip


def answers_to(act: Act, timeline: State) -> list[AnswerOut]:
    """The answers to an act, the one that it asks for first."""
    match act.kind:
        case "want":
            pot = timeline.pot
            wish = (
                []
                if pot is None
                else [_records(say("answers.that_is_it"), suggested(pot).model_dump(mode="json", exclude_none=True))]
            )
            return [*wish, _button(say("answers.something_else"), opens="plan")]
        case "choose":
            if act.route is None:
                return [_button(say("answers.change_the_wish"), opens="plan")]
            take = _records(say("answers.take_this_way"), {"kind": "chosen", "route": act.route.kind})
            return [take, _button(say("answers.other_ways"), opens="plan")]
        case "take":
            return [
                _records(say("answers.taken"), _taken(act, timeline)),
                _opens(say("answers.another_amount"), "strain"),
            ]
        case "look_fat":
            return [
                _records(say("answers.fat_look", look=Term(row["label"])), {"kind": "fat_seen", "look": row["key"]})
                for row in rows("fat_looks")
            ]
        case "cool":
            return [_opens(say("answers.temperature"), "skim")]
        case "skim":
            off = [_records(say("answers.it_is_off"), {"kind": "skimmed", "way": act.way})] if act.way else []
            return [*off, _opens(say("answers.another_way"), "skim")]
        case "heat":
            return [_records(say("answers.it_is_on"), {"kind": "heated", **FULL_BOIL.model_dump(mode="json")})]
        case "boil":
            reading, window = _button(say("answers.reading"), asks="reading"), timeline.heating
            if act.why == "no_time":
                bind = {"kind": "chosen", "route": "bind_starch"}
                return [reading, *([_records(say("answers.bind_it"), bind)] if _can_bind(timeline) else [])]
            if window is None or not window.assumed:
                return [reading]
            # Nobody said that it is on.
            return [reading, _records(say("answers.it_is_not_on"), {"kind": "heated", "heat": "off", "never_on": True})]
        case "measure":
            return [_button(say("answers.reading"), asks="reading")]
        case "let_down":
            stirred = {"kind": "added", "ingredient": "water", "volume_ml": act.amount}
            return [_records(say("answers.stirred_in"), stirred), _button(say("answers.something_else"), asks="add")]
        case "thicken":
            thickener = act.route.thickener if act.route else None
            if thickener is None:
                return []
            whisked = {"kind": "thickened", "thickener": thickener.key, "dry_g": act.amount}
            return [_records(say("answers.whisked_in"), whisked), _opens(say("answers.another_amount"), "thicken")]
        case "test_body":
            return [_said("body", word, verdict) for word, verdict in SPOON]
        case "salt":
            return [
                _records(say("answers.stirred_in"), {"kind": "salted", "salt_g": act.amount}),
                _opens(say("answers.another_amount"), "season"),
            ]
        case "test_salt":
            return [_said("salt", word, verdict) for word, verdict in TONGUE]
        case "bigger_pan":
            return [_opens(say("answers.another_pan"), "reduce"), _opens(say("answers.draw_some_off"), "strain")]
        case "rest":
            return [_records(label, {"kind": "rest", "rest": rest}) for label, rest in _RESTS]
        case "finish":
            # Where it is served from it is finished; from anywhere else that is where it is looked at once more.
            return [_button(say("answers.finish"), opens="serve", payload={"kind": "finished"})]
        case "warn":
            assert act.concern is not None
            about = {"kind": "answered", "concern": act.concern.kind}
            return [_records(label, {**about, "answer": answer}) for label, answer in _DOUBTS[act.concern.kind]]
        case "slip":
            slip = act.slip
            assert slip is not None
            event = str(slip.event)
            if slip.twice:
                both = _records(say("answers.both_went_in"), {"kind": "meant", "event": event})
                return [both, _records(say("answers.only_one"), {"kind": "struck", "event": event})]
            right = _records(_grams(slip.grams, 3), {"kind": "meant", "event": event})
            tenth = round(slip.grams / 10.0, 2)
            return [right, _records(_grams(tenth, 2), {"kind": "meant", "event": event, "grams": tenth})]
        case "start" | "done" | "alone":
            return []


def _taken(act: Act, timeline: State) -> dict[str, Any]:
    """A part as its jug shows it, from under the fat."""
    expansion = 1.0 if timeline.pot is None else timeline.pot.expansion
    return {"kind": "taken", "volume_ml": act.amount * expansion, "how": "under"}


def _can_bind(timeline: State) -> bool:
    """Whether it can be bound as it is, with what is in the pot."""
    pot, wanted = timeline.pot, timeline.wanted
    return pot is not None and wanted is not None and solve_route(pot, wanted, "bind_starch").feasible


#: What may be said to each doubt.
_DOUBTS: dict[ConcernKind, tuple[tuple[Message, str], ...]] = {
    "cooling": ((say("answers.thrown_away"), "thrown_away"), (say("answers.reading_was_wrong"), "in_order")),
    "butter": ((say("answers.taken_off_in_time"), "in_order"), (say("answers.it_boiled"), "mended")),
    "yolk": ((say("answers.taken_off_in_time"), "in_order"), (say("answers.it_boiled"), "mended")),
    "cream": ((say("answers.taken_off_in_time"), "in_order"), (say("answers.it_boiled"), "mended")),
    "alcohol": ((say("answers.they_are_told"), "told"), (say("answers.none_in_it"), "in_order")),
    "allergen": ((say("answers.they_are_told"), "told"), (say("answers.free_of_it"), "in_order")),
}


#: What may become of what was set aside.
_RESTS = (
    (say("answers.kept_hot"), "hot"), (say("answers.it_cools"), "cooling"), (say("answers.thrown_away"), "gone"),
)  # fmt: skip


#: What may be said of a spoonful, and of a taste.
SPOON: tuple[tuple[Message, Taste], ...] = (
    (say("answers.too_thin"), "low"),
    (say("answers.right"), "right"),
    (say("answers.too_thick"), "high"),
)


TONGUE: tuple[tuple[Message, Taste], ...] = (
    (say("answers.flat"), "flat"),
    (say("answers.nearly"), "nearly"),
    (say("answers.right"), "right"),
    (say("answers.salty"), "salty"),
    (say("answers.too_salty"), "too_salty"),
)


def _grams(grams: float, digits: int) -> Message:
    return say("answers.grams", grams=show_plain(grams, "g", digits))


def _button(label: Message, **rest: Any) -> AnswerOut:
    return AnswerOut(label=plain(label), **rest)


def _records(label: Message, payload: dict[str, Any]) -> AnswerOut:
    return _button(label, payload={key: value for key, value in payload.items() if value is not None})


def _opens(label: Message, stage: ev.Stage) -> AnswerOut:
    return _button(label, opens=stage)


def _said(of: str, word: Message, verdict: str) -> AnswerOut:
    return _records(word, {"kind": "tested", "of": of, "verdict": verdict})
