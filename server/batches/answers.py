"""What answers each act: one to three buttons, each with the entry it records or the place where more is said."""

from __future__ import annotations

from typing import Any

from spissus_core.events import State
from spissus_core.events.state import ConcernKind
from spissus_core.phenomena.heating import FULL_BOIL
from spissus_core.planning.guidance import Act
from spissus_core.planning.routes import solve_route, suggested

from .schemas import AnswerOut


def answers_to(act: Act, timeline: State) -> list[AnswerOut]:
    """The answers to an act, the one that it asks for first."""
    match act.kind:
        case "want":
            pot = timeline.pot
            wish = (
                []
                if pot is None
                else [_records("That is it", suggested(pot).model_dump(mode="json", exclude_none=True))]
            )
            return [*wish, AnswerOut(label="Something else", opens="plan")]
        case "choose":
            if act.route is None:
                return [AnswerOut(label="Change the wish", opens="plan")]
            take = _records("Take this way", {"kind": "chosen", "route": act.route.kind})
            return [take, AnswerOut(label="Other ways", opens="plan")]
        case "take":
            return [_records("Taken", {"kind": "taken", "volume_ml": act.amount}), _opens("Another amount", "strain")]
        case "cool":
            return [_opens("Temperature", "skim")]
        case "skim":
            off = [_records("It is off", {"kind": "skimmed", "way": act.way})] if act.way else []
            return [*off, _opens("Another way", "skim")]
        case "heat":
            return [_records("It is on", {"kind": "heated", **FULL_BOIL.model_dump(mode="json")})]
        case "boil":
            reading, window = AnswerOut(label="Reading", asks="reading"), timeline.heating
            if act.why == "no_time":
                bind = {"kind": "chosen", "route": "bind_starch"}
                return [reading, *([_records("Bind it as it is", bind)] if _can_bind(timeline) else [])]
            if window is None or not window.assumed:
                return [reading]
            # Nobody said that it is on.
            return [reading, _records("It is not on", {"kind": "heated", "heat": "off", "never_on": True})]
        case "measure":
            return [AnswerOut(label="Reading", asks="reading")]
        case "let_down":
            stirred = {"kind": "added", "ingredient": "water", "volume_ml": act.amount}
            return [_records("Stirred in", stirred), AnswerOut(label="Something else", asks="add")]
        case "thicken":
            thickener = act.route.thickener if act.route else None
            if thickener is None:
                return []
            whisked = {"kind": "thickened", "thickener": thickener.key, "dry_g": act.amount}
            return [_records("Whisked in", whisked), _opens("Another amount", "thicken")]
        case "test_body":
            return [_said("body", word, verdict) for word, verdict in _SPOON]
        case "salt":
            return [
                _records("Stirred in", {"kind": "salted", "salt_g": act.amount}),
                _opens("Another amount", "season"),
            ]
        case "test_salt":
            return [_said("salt", word, verdict) for word, verdict in _TONGUE]
        case "finish":
            return [_opens("Finish", "serve")]
        case "warn":
            assert act.concern is not None
            about = {"kind": "answered", "concern": act.concern.kind}
            return [_records(label, {**about, "answer": answer}) for label, answer in _DOUBTS[act.concern.kind]]
        case "slip":
            slip = act.slip
            assert slip is not None
            event = str(slip.event)
            if slip.twice:
                both = _records("Both went in", {"kind": "meant", "event": event})
                return [both, _records("Only one", {"kind": "struck", "event": event})]
            right = _records(f"{slip.grams:.3g} g", {"kind": "meant", "event": event})
            tenth = round(slip.grams / 10.0, 2)
            return [right, _records(f"{tenth:.2g} g", {"kind": "meant", "event": event, "grams": tenth})]
        case "start" | "done" | "alone":
            return []


def _can_bind(timeline: State) -> bool:
    """Whether it can be bound as it is, with what is in the pot."""
    pot, wanted = timeline.pot, timeline.wanted
    return pot is not None and wanted is not None and solve_route(pot, wanted, "bind_starch").feasible


#: What may be said to each doubt.
_DOUBTS: dict[ConcernKind, tuple[tuple[str, str], ...]] = {
    "cooling": (("Thrown away", "thrown_away"), ("A reading was wrong", "in_order")),
    "butter": (("Taken off in time", "in_order"), ("It boiled", "mended")),
    "alcohol": (("They are told", "told"), ("There is none in it", "in_order")),
    "allergen": (("They are told", "told"), ("It is free of it", "in_order")),
}

_SPOON = (("Too thin", "low"), ("Right", "right"), ("Too thick", "high"))
_TONGUE = (
    ("Flat", "flat"), ("Nearly", "nearly"), ("Right", "right"), ("Salty", "salty"), ("Too salty", "too_salty"),
)  # fmt: skip


def _records(label: str, payload: dict[str, Any]) -> AnswerOut:
    return AnswerOut(label=label, payload={key: value for key, value in payload.items() if value is not None})


def _opens(label: str, stage: str) -> AnswerOut:
    return AnswerOut.model_validate({"label": label, "opens": stage})


def _said(of: str, word: str, verdict: str) -> AnswerOut:
    return _records(word, {"kind": "tested", "of": of, "verdict": verdict})
