"""Boiled down to the mark: the heat is turned on, and it is looked at in time."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import ClassVar, NamedTuple, Self

from ... import events as ev
from ...amounts.quantities import show_minutes, show_volume
from ...estimation.forecast import Outlook
from ...events import Stage, State
from ...events.assumed import CLOSE_ENOUGH, there
from ...events.doubts import must_not_boil
from ...fold import Timeline
from ...ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ...measuring.measurement import Method, Reads
from ...measuring.vessels import SHALLOW_MM
from ...messages import Argument, Message, Term, Until, say, sentences, several
from ...pantry.ways import QUICKEST
from ...phenomena.evaporation import boiled_to_volume
from ...phenomena.heating import FULL_BOIL
from ...pot import implied_mass_g
from ..bench import Bench
from ..plan import finer_method
from ..solving import binding_min, solve_route
from ..spoken import by_means
from .base import Act, Answer, Finer, Mark, Rank, Sound


class _Boil(NamedTuple):
    """Boiling that is due: to which mark, why, what is known of the way there, and what to measure with."""

    mark: Mark
    why: str | None
    outlook: Outlook | None
    measure: Finer | None


def _due(bench: Bench) -> _Boil | None:
    """The boiling that is to be done, or goes on; what boils, boils until somebody says otherwise."""
    if bench.settled or _boils_for_nothing(bench):
        return None
    if bench.boils:
        ml = bench.standing_mark_ml
        late = bench.pot.contents.liquid_ml < (1.0 - bench.judgement.late_share) * ml
        why = "late" if late else _why(bench)
    elif there(bench.timeline, bench.mark_ml):
        return None
    else:
        ml, why = bench.mark_ml, _why(bench)
    finer = finer_method(bench.seen, bench.seen.contents.liquid_ml - ml)
    # Worked out from what was seen last: past it, the mark stays where it was, above what is thought to be left.
    reads = bench.seen.reads(_at_volume(bench.seen.contents, ml))
    return _Boil(Mark(ml, reads, _reads_by(bench, finer, reads)), why, bench.outlook(ml), finer)


def _boils_for_nothing(bench: Bench) -> bool:
    """Whether it boils by somebody's word, and parts by it, or has nothing to boil away from what was seen last."""
    if not bench.boils:
        return False
    if must_not_boil(bench.timeline):
        return True
    return not bench.settled and bench.seen.contents.liquid_ml <= bench.standing_mark_ml


def _why(bench: Bench) -> str | None:
    if bench.timeline.judged.body[-1:] == ("low",):
        return "too_thin"
    # Short of what the plan says: the cook is told why.
    mark_ml = bench.mark_ml
    short = bench.route.boil_to_ml < (1.0 - bench.judgement.late_share) * mark_ml
    return "salt_binds" if short and mark_ml <= bench.salt_mark_ml else None


#: A reading so many of its errors off all that was known before is said to be doubtful. Modelling choice.
DOUBTED_SD = 1.5


def _rather(bench: Bench) -> Reads | None:
    """What should have been read, where the last thing that happened is a reading that little else agrees with."""
    moments = bench.timeline.moments if isinstance(bench.timeline, Timeline) else ()
    last = next((moment for moment in reversed(moments) if moment.stands), None)
    if last is None or last.pot is None or last.event.device is not None or not isinstance(last.event.payload, ev.Read):
        return None
    measured, pot = last.event.payload.measured, last.pot
    if measured is None or measured.method == "eye" or last.event.payload.gain is not None:
        return None
    off_ml = abs(implied_mass_g(pot, measured) - pot.contents.mass_g) * SPECIFIC_VOLUME_ML_G["water"]
    return pot.reads(pot.contents) if off_ml > DOUBTED_SD * pot.known_to_ml(measured.method) else None


def _at_volume(contents: Contents, liquid_ml: float) -> Contents:
    """Contents boiled down to a volume, or, where there is less, with the water that is missing."""
    missing = liquid_ml - contents.liquid_ml
    if missing <= 0.0:
        return boiled_to_volume(contents, liquid_ml)
    return contents.with_masses(water=contents.water + missing / SPECIFIC_VOLUME_ML_G["water"])


def _reads_by(bench: Bench, finer: Finer | None, mark: Reads) -> Method:
    """What a mark is told in: by what is used, or is to be used from now on; else a dip, which needs no pouring.

    No ruler reads a mark below :data:`.SHALLOW_MM`.
    """
    if finer in ("scale", "jug"):
        return finer
    if mark.dip < SHALLOW_MM:
        return "jug" if mark.scale is None else "scale"
    used, window = bench.seen.measured_by, bench.timeline.stove.window
    # Who strained into a jug does not pour a boiling pot back into it to look.
    poured = used == "jug" and window is not None and window.measured > 0
    return "jug" if poured else "scale" if used == "scale" and bench.seen.pan.empty_g is not None else "dip"


@dataclass(frozen=True, kw_only=True)
class TakeOff(Act):
    """It boils, and is not to: it is taken off the heat before anything else is done with it."""

    kind: ClassVar[str] = "take_off"
    stage: ClassVar[Stage] = "reduce"
    rank: ClassVar[Rank] = Rank.BOIL
    next_words: ClassVar[Message | None] = say("bar.next_take_off")

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where somebody turned it on, and nothing is to boil away."""
        return cls() if _boils_for_nothing(bench) else None

    def said(self, timeline: State) -> Message:
        """That it has to come off, and why."""
        parts = [Term(one) for one in sorted(must_not_boil(timeline))]
        return say("bar.take_off_parts", what=several("both", *parts)) if parts else say("bar.take_off")

    def answers(self, timeline: State) -> list[Answer]:
        """It is off."""
        return [Answer(say("answers.it_is_off"), ev.Heated(heat="off"))]


@dataclass(frozen=True, kw_only=True)
class Heat(Act):
    """The heat is turned on, to boil it down to its mark."""

    kind: ClassVar[str] = "heat"
    stage: ClassVar[Stage] = "reduce"
    rank: ClassVar[Rank] = Rank.BOIL
    next_words: ClassVar[Message | None] = say("bar.next_heat")

    mark: Mark = field()

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is not at its mark, and nothing heats it."""
        boil = bench.once(_due)
        return cls(mark=boil.mark, why=boil.why, measure=boil.measure) if boil and boil.outlook is None else None

    def said(self, timeline: State) -> Message:
        """How far, and why no further."""
        key = "bar.boil_on" if self.why == "too_thin" else "bar.heat"
        binds = say("bar.salt_binds") if self.why == "salt_binds" else None
        return sentences(say(key, volume=show_volume(self.mark.ml), mark=mark_line(self.mark)), binds)

    def answers(self, timeline: State) -> list[Answer]:
        """It is on."""
        return [Answer(say("answers.it_is_on"), ev.Heated(**FULL_BOIL.model_dump(mode="json")))]


@dataclass(frozen=True, kw_only=True)
class Boil(Act):
    """It boils, and is looked at in time.

    ``thought_ml`` is what is thought to be left by now, ``expect`` what is read at the look then, and ``late_min`` how
    much later than wanted it will be ready. ``rather`` is what should have been read just now, where that was something
    else.
    """

    kind: ClassVar[str] = "boil"
    stage: ClassVar[Stage] = "reduce"
    rank: ClassVar[Rank] = Rank.BOIL
    next_words: ClassVar[Message | None] = say("bar.next_look")
    sound: ClassVar[Sound] = "hurry"

    mark: Mark = field()
    expect: Reads
    thought_ml: float
    late_min: float
    rather: Reads | None = None

    @classmethod
    def due(cls, bench: Bench) -> Self | None:
        """Where it is not at its mark, and is heated."""
        boil = bench.once(_due)
        if boil is None or boil.outlook is None:
            return None
        now, outlook = bench.pot.contents, boil.outlook
        late = _late_min(bench, outlook)
        expect = boiled_to_volume(now, min(outlook.expect_ml, now.liquid_ml))
        return cls(
            mark=boil.mark,
            why=boil.why or ("no_time" if late > 0.0 else None),
            measure=boil.measure,
            outlook=outlook,
            look_at=outlook.look_at,
            expect=bench.pot.reads(expect),
            thought_ml=now.liquid_ml,
            late_min=late,
            rather=_rather(bench),
        )

    def said(self, timeline: State) -> Message:
        """What to expect at the look, where to stop, and what else matters."""
        back: Mapping[str | None, Message] = {
            "too_thin": say("bar.too_thin"),
            "no_time": say("bar.too_late", time=show_minutes(self.late_min)),
        }
        # Thought to be at its mark already, there is nothing to expect above it; a jug's mark has two figures as it is.
        above = self.reads_by != "jug" and self.expect.dip >= self.mark.reads.dip >= SHALLOW_MM
        expected = say("bar.expect", read=_read(self.expect, self.reads_by)) if above else None
        if self.rather is not None:
            expected = say("bar.rather", read=_read(self.rather, self.reads_by))
        binds = say("bar.salt_binds") if self.why == "salt_binds" else None
        stop = say("bar.stop_at", mark=mark_line(self.mark))
        clock_min, wanted = timeline.asked.clock_min, timeline.asked.wanted
        # Where it may not boil so long, the mark is what counts.
        by_the_clock = wanted is not None and self.mark.ml <= (1.0 + CLOSE_ENOUGH) * wanted.amount_ml
        if clock_min is not None and timeline.stands_at is not None and by_the_clock:
            stop = say("bar.stop_by", at=timeline.stands_at + timedelta(minutes=clock_min), mark=mark_line(self.mark))
            expected = None
        return sentences(back.get(self.why), expected, stop, binds, _from_now_on(self.measure))

    def overdue(self, timeline: State) -> Message:
        """To look now; thought to be past its mark, to take it off."""
        mark = mark_line(self.mark)
        if self.why == "late":
            missing = show_volume(max(self.mark.ml - self.thought_ml, 0.0))
            return say("bar.gone_past", missing=missing, mark=mark, by=by_means(self.measure))
        return sentences(say("bar.look_now", mark=mark), _from_now_on(self.measure))

    def countdown(self) -> Message | None:
        """How long until the look."""
        return say("bar.look_in", until=Until(self.look_at)) if self.look_at else None

    def answers(self, timeline: State) -> list[Answer]:
        """A reading; too late for the table, or never turned on, what else may be done."""
        reading, window = Answer(say("answers.reading"), asks="reading"), timeline.stove.window
        if self.why == "no_time":
            bind = Answer(say("answers.bind_it"), ev.Chosen(route=QUICKEST.key))
            return [reading, bind] if _can_bind(timeline) else [reading]
        if window is None or not window.assumed:
            return [reading]
        return [reading, Answer(say("answers.it_is_not_on"), ev.Heated(heat="off", never_on=True))]


def _can_bind(timeline: State) -> bool:
    """Whether it can be bound as it is, with what is in the pot."""
    pot, wanted = timeline.pot, timeline.asked.wanted
    return pot is not None and wanted is not None and solve_route(pot, wanted, QUICKEST.key).feasible


def _late_min(bench: Bench, outlook: Outlook) -> float:
    """How much later than it is wanted it will be ready, boiled down to its mark, min; nothing where in time."""
    ready_by: datetime | None = bench.timeline.asked.ready_by
    if ready_by is None:
        return 0.0
    after = (outlook.arrives[1] - ready_by).total_seconds() / 60.0 + binding_min(bench.bound_with)
    return after if after > bench.judgement.late_min else 0.0


def mark_line(mark: Mark) -> Argument:
    """The mark in what is measured with; of a jug, which wants pouring, in the pan too, where a ruler reads it."""
    reads = mark.reads
    if reads.dip < SHALLOW_MM:
        return _read(reads, "jug" if reads.scale is None else "scale")
    read = _read(reads, mark.reads_by)
    return read if mark.reads_by != "jug" else say("bar.read_and_mark", read=read, mark=reads.shown("dip"))


def _read(reads: Reads, method: Method) -> Argument:
    """What is read of it; of a jug, that it is read hot."""
    return say("bar.hot", volume=reads.shown(method)) if method == "jug" else reads.shown(method)


def _from_now_on(measure: Finer | None) -> Message | None:
    """Where what was measured with so far is too coarse for what is left to lose."""
    return _FINER.get(measure) if measure else None


_FINER: Mapping[str, Message] = {
    "scale": say("bar.by_scale_now"),
    "jug": say("bar.by_jug_now"),
    "spoon": say("bar.by_spoon_now"),
}
