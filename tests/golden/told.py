"""What a cook is told of the worked cases, word by word: ``python -m tests.golden.told`` writes it anew.

A figure may be right and be told to a digit too many, or in the wrong place: each sentence stands here as it is read.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from pathlib import Path

from spissus_core import events as ev
from spissus_core.board import Board
from spissus_core.events import State
from spissus_core.intake.estimated import estimate
from spissus_core.intake.lines import read_line
from spissus_core.intake.terms import brings, reduced_note
from spissus_core.messages import Argument, Reason
from spissus_core.planning.acts import Act
from spissus_core.planning.because import because, notes
from spissus_core.planning.explanation import leave, parts_of, pot_reasons, reasons
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.safety import alcohol_cautions, boiling_cautions
from spissus_core.planning.skimming import options, settling
from spissus_core.planning.spoken import way_line

from tests.corpus import cases
from tests.golden.worked import COOKED, LISTS, logs
from tests.makers import PAN, fold, in_words, listed, wanted
from tests.study.obedient import ERRING, Evening

KEPT = Path(__file__).with_name("told.json")

#: Evenings of which every line of the bar is kept.
EVENINGS = range(9_100_000, 9_100_012)

#: Amounts, told in every way there is.
AMOUNTS = (
    {"volume_ml": 740},
    {"portions": 7, "portion_ml": 85},
    {"people": 6, "over": "mash"},
    {"share": 0.35},
    {"gone_ml": 460},
    {"gross_g": 2480},
    {"at_salt_percent": 0.85},
    {"minutes": 23},
)


def _shown(*said: Argument | Reason | None) -> Iterator[str]:
    for one in said:
        if isinstance(one, Reason):
            yield f"{in_words(one.what)}: {in_words(one.how)}"
        elif one is not None:
            yield in_words(one)


def _pot(log: list[ev.Event]) -> Iterator[str]:
    """What is said of a batch: its log, the act and its answers, the pot, and each way from it."""
    board, timeline = Board(log), fold(log)
    pot, wish = timeline.pot, timeline.asked.wanted
    assert pot is not None
    yield from _shown(*(one.payload.said() for one in log))
    yield from _act(board, timeline)
    yield from _shown(*pot_reasons(pot), *(Reason(part.name, part.how) for part in parts_of(pot)), settling(pot))
    yield from _shown(*boiling_cautions(pot.body), *alcohol_cautions(pot.contents))
    for option in options(pot, board.strained):
        yield from _shown(*option.costs, option.barred)
    if wish is None:
        return
    for route in solve_routes(pot, wish, agreed=wish)[:3]:
        yield from _shown(way_line(pot, wish, route), route.reason, leave(route), *notes(pot, wish, route))
        yield from _shown(because(pot, wish, route), *reasons(pot, wish, route))


def _act(board: Board, timeline: State) -> Iterator[str]:
    act = board.act
    yield from _shown(act.said(timeline), act.overdue(timeline), *(answer.label for answer in act.answers(timeline)))


def _list(text: str) -> Iterator[str]:
    """What is said of a list of what went in, however it was cooked."""
    for number, cooked in enumerate(COOKED):
        braise = listed(text, **cooked)
        found = estimate(braise, PAN, None if number % 2 else 1700.0)
        yield from _shown(found.contradiction, *(reason for terms in found.terms.values() for reason in terms))
    for line in listed(text).lines:
        yield from _shown(*(said for _, said in brings(line)), reduced_note(line))


class _Heard(Evening):
    """An evening of the obedient cook, and what the bar said."""

    heard: tuple[str, ...] = ()

    def obey(self, act: Act, board: Board) -> None:
        lines = [act.said(board.timeline)]
        if act.look_at is not None:
            lines.append(act.overdue(board.timeline))
        self.heard = (*self.heard, *_shown(*lines))
        super().obey(act, board)


def _heard(seed: int) -> list[str]:
    evening = _Heard(seed, ERRING)
    evening.run()
    return list(evening.heard)


def _read(text: str) -> str:
    """What a line is read as: what, how much, how sure, what was done with it, and what is asked."""
    lines = [
        f"{line.name} {line.amount and line.amount.shown and in_words(line.amount.shown)} "
        f"± {line.amount.spread if line.amount else 0:.2f} {line.use} {line.left} {line.poured_off:g}"
        + "".join(f" {in_words(one)}?" for one in (line.problem, line.doubt) if one is not None)
        for line in read_line(text)
    ]
    return f"{text} = {'; '.join(lines)}"


def told() -> dict[str, list[str]]:
    """Every sentence, by its case; what was said before in a case is not said again."""
    found = {name: _pot(log) for name, log in logs().items()} | {name: _list(text) for name, text in LISTS.items()}
    pot = fold(logs()["from start to plate"][:1]).pot
    assert pot is not None
    wishes = [ev.Wanted.model_validate({**wanted(900).model_dump(), "volume_ml": None, **told}) for told in AMOUNTS]
    found["amounts"] = _shown(*(wish.of(pot).amount_said for wish in wishes))
    found["lines"] = (_read(one.text) for one in cases())
    said = {name: list(dict.fromkeys(lines)) for name, lines in found.items()}
    return said | {f"evening {seed}": _heard(seed) for seed in EVENINGS}


if __name__ == "__main__":
    KEPT.write_text(json.dumps(told(), ensure_ascii=False, indent=0) + "\n", encoding="utf-8")
