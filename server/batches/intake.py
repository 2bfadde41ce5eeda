"""What went into a braise, read and estimated."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal
from uuid import UUID

from pydantic import ConfigDict, Field
from shared.shapes import PanShape, RangeOut, ReasonOut, SaidOut, Shape, ShownOut, SpanOut
from spissus_core import events as ev
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.fields import Parts, PastedList, Remark, VolumeMl
from spissus_core.amounts.quantities import UnitSystem, say_again, show_mass, show_volume
from spissus_core.amounts.reading import Dimension
from spissus_core.errors import SpissusError
from spissus_core.intake.braise import Braise, Line, line_of
from spissus_core.intake.doings import Use
from spissus_core.intake.estimated import Estimated
from spissus_core.intake.lines import MOST_LINES, Choice, ReadLine
from spissus_core.intake.liquid import Character, StrainedLiquid, strained_liquid
from spissus_core.intake.sentence import ReadSentence
from spissus_core.intake.terms import brings, reduced_note
from spissus_core.intake.unsure import asked_first
from spissus_core.measuring.measurement import Method
from spissus_core.measuring.vessels import Pan, comfortable
from spissus_core.messages import Message, Shown, say, sentences, several
from spissus_core.pantry.concentrates import made_up
from spissus_core.pantry.guests import AVOIDED_WORDS
from spissus_core.pantry.ingredients import Ingredient, catalogue
from spissus_core.phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G
from spissus_core.phenomena.seasoning import StockKind, Verdict
from spissus_core.planning.safety import ALCOHOL_REMAINS, intake_cautions
from spissus_core.start import Start
from words import plain

from .marks import MarkOut, StretchOut
from .pot import PotOut, word


class EstimateOut(Shape):
    """One mass by the list of what went in, and the terms it comes from."""

    name: str
    label: str
    span: SpanOut
    percent: RangeOut | None
    reasons: list[ReasonOut]


class AlcoholOut(Shape):
    """Alcohol left, by which rule and why."""

    grams: RangeOut
    percent: RangeOut
    rule: Literal["vapour", "table", "none"]
    why: SaidOut
    caution: SaidOut | None


class EstimatedOut(Shape):
    """What the list of what went in says of the strained liquid."""

    liquid: SpanOut
    liquid_reasons: list[ReasonOut]
    figures: list[EstimateOut]
    alcohol: AlcoholOut
    allergens: list[str]
    cautions: list[SaidOut]


class FoundOut(Shape):
    """An ingredient that a line might mean."""

    key: str
    name: str


class BringsOut(Shape):
    """What a line brings of one matter."""

    key: Literal["salt", "alcohol", "fat", "gelatin", "sugar", "acid", "starch"]
    said: SaidOut


class LineIn(Shape):
    """One line, with what the cook chose for it where the reading was wrong."""

    model_config = ConfigDict(extra="forbid")

    text: Remark
    ingredient: Annotated[str, Field(max_length=60)] | None = None
    use: Use | None = None
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    poured_off: Annotated[float, Field(ge=0, le=1)] | None = None


class ChoiceOut(Shape):
    """Another reading of a line, and the line that says it."""

    said: SaidOut
    line: LineIn


class LineOut(Shape):
    """A line of what went in: as it is kept, what it was taken for, and what it brings."""

    line: Line
    name: str
    amount: ShownOut | None
    about: bool
    group: str | None
    brings: list[BringsOut]
    note: SaidOut | None
    problem: SaidOut | None
    candidates: list[FoundOut]
    doubt: SaidOut | None
    choices: list[ChoiceOut]


class LinesOut(Shape):
    """A list as it was understood; ``rest`` is what was too much to read."""

    lines: list[LineOut]
    rest: str


class RecipeOut(LinesOut):
    """The same out of a recipe of another program, and what that is called."""

    name: str


class StartOut(Shape):
    """The start as it was said, so that it can be corrected."""

    pan: str
    burner: str
    liquid: StrainedLiquid
    lines: list[LineOut]


class StartQuery(Shape):
    """What is asked beside a start: with ``any_pan`` the pan is not said yet, and one that suits is taken; ``unsure``
    are the places of the lines whose doubt nobody has answered."""

    any_pan: bool = False
    unsure: Annotated[list[Annotated[int, Field(ge=0, le=MOST_LINES)]], Field(max_length=MOST_LINES)] = []


class PreviewOut(Shape):
    """What a start would give, before it is recorded. Where a line that is not sure may be half of the salt,
    ``ask_first`` asks about it, and no figure is to be shown before."""

    pan: PanShape
    pot: PotOut
    marks: list[MarkOut]
    ribbon: list[StretchOut]
    estimated: EstimatedOut | None
    doubt: SaidOut | None
    ask_first: SaidOut | None
    pan_id: UUID


class ListIn(Shape):
    """A whole list as it was pasted."""

    model_config = ConfigDict(extra="forbid")

    text: PastedList


class SentenceIn(Shape):
    """What a cook says of the strained liquid."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=500)]
    pan_id: UUID | None = None
    units: UnitSystem = "metric"


class SentenceOut(Shape):
    """What a sentence says of the strained liquid, in the words a start takes; None where it is silent."""

    method: Method | None
    value: str | None
    hot: bool | None
    fat_mm: str | None
    fat_ml: str | None
    fat_in: Literal["jug", "pan"] | None
    verdict: Verdict | None
    percent: str | None
    stock: StockKind | None
    character: Character | None
    unread: list[str]


class ConcentrateIn(Shape):
    """Parts of a concentrate and of water, and how much it is to make."""

    model_config = ConfigDict(extra="forbid")

    volume_ml: VolumeMl
    concentrate_parts: Parts
    water_parts: Parts


class ConcentrateOut(Shape):
    """What makes exactly that much, and the mistake to avoid."""

    concentrate: ShownOut
    water: ShownOut
    mind: SaidOut


#: Of less than this, g, a list tells nothing. Modelling choice.
LEAST_TOLD_G = 0.5


#: What the list tells beside the liquid: its name, the mass of the ledger, and what that is called.
_FIGURES = (
    ("salt", "salt", say("batch.contents_salt")),
    ("fat", "fat_free", say("batch.contents_fat_free")),
    ("gelatin", "gelatin", say("batch.contents_gelatin")),
    ("sugar", "sugar", say("batch.contents_sugar")),
    ("acid", "acid", say("batch.contents_acid")),
)


def read_out(read: ReadLine, own: Sequence[Ingredient]) -> LineOut:
    """A line that was just read."""
    out = line_out(line_of(read, own), read.name, read.problem, read.candidates)
    if read.use == "left_out":
        return out
    choices = [_choice_out(choice) for choice in read.choices]
    if read.doubt is not None:
        left_out = LineIn(text=out.line.text, ingredient=out.line.ingredient, use="left_out")
        choices.append(ChoiceOut(said=SaidOut.of(say("intake.leave_it_out")), line=left_out))
    return out.model_copy(update={"doubt": SaidOut.maybe(read.doubt), "choices": choices})


def _choice_out(choice: Choice) -> ChoiceOut:
    return ChoiceOut(said=SaidOut.of(choice.said), line=LineIn(text=choice.text, ingredient=choice.ingredient))


def line_out(
    line: Line, name: str = "", problem: Message | None = None, candidates: Sequence[Ingredient] = ()
) -> LineOut:
    """A line as it is kept, with what it was taken for and what it brings."""
    what = line.what if line.own or line.ingredient else None
    note = reduced_note(line) if line.counts else None
    if problem is None and not line.counts and line.use != "left_out":
        problem = say("intake.does_not_count")
    return LineOut(
        line=_named(line),
        name=what.name if what else name or line.text,
        amount=ShownOut.of(line.shown) if line.counts else None,
        about=line.spread > 0.1,
        group=what.group if what else None,
        brings=[BringsOut.model_validate({"key": key, "said": SaidOut.of(said)}) for key, said in brings(line)],
        note=SaidOut.maybe(note),
        problem=SaidOut.maybe(problem),
        candidates=[FoundOut(key=item.key, name=item.name) for item in candidates],
        doubt=None,
        choices=[],
    )


def estimated_out(estimated: Estimated, braise: Braise | None) -> EstimatedOut:
    """What the list alone says of the strained liquid."""
    alcohol, ranges = estimated.alcohol, dict(estimated.ranges)
    # What boils off and what does not are one figure to the cook.
    acid, acetic = ranges["acid"], ranges["acetic"]
    ranges["acid"] = Estimate(acid.low + acetic.low, acid.best + acetic.best, acid.high + acetic.high)
    return EstimatedOut(
        liquid=SpanOut.of(estimated.liquid_ml, show_volume),
        liquid_reasons=[ReasonOut.of(reason) for reason in estimated.terms["liquid"]],
        figures=[
            EstimateOut(
                name=name,
                label=plain(label),
                span=SpanOut.of(ranges[mass], show_mass),
                percent=RangeOut.of(estimated.percent[name]) if name in estimated.percent else None,
                reasons=[ReasonOut.of(reason) for reason in estimated.terms[name]],
            )
            for name, mass, label in _FIGURES
            if ranges[mass].high >= LEAST_TOLD_G
        ],
        alcohol=AlcoholOut(
            grams=RangeOut.of(alcohol.grams),
            percent=RangeOut.of(estimated.percent["alcohol"]),
            rule=alcohol.rule,
            why=SaidOut.of(alcohol.why),
            caution=SaidOut.of(ALCOHOL_REMAINS) if alcohol.grams.high >= ALCOHOL_WORTH_A_WORD_G else None,
        ),
        allergens=[word(AVOIDED_WORDS.get(key, key)) for key in estimated.allergens],
        cautions=SaidOut.of_all(intake_cautions(braise)) if braise else [],
    )


def assumed_pan(pans: Sequence[tuple[UUID, Pan]], pan_id: UUID, liquid: StrainedLiquid) -> UUID:
    """The pan that a start is likely in, where nobody has said which: the smallest that holds twice the liquid.

    A depth or a weight is told of one pan, and then ``pan_id`` stays.
    """
    if liquid.measured is not None and liquid.measured.method in ("dip", "scale"):
        return pan_id
    sizes = dict(pans)
    if pan_id not in sizes:
        return pan_id
    if liquid.measured is not None:
        volume_ml = liquid.measured.value
    else:
        try:
            volume_ml = strained_liquid(max(sizes.values(), key=lambda pan: pan.capacity_ml), liquid).contents.volume_ml
        except SpissusError:
            return pan_id
    best = comfortable(list(sizes.values()), volume_ml)
    return next((one for one, pan in pans if pan == best), pan_id)


def first_question(started: ev.Started, unsure: Sequence[int], own: Sequence[Ingredient]) -> Message | None:
    """What is asked before a figure is shown, by the places of the lines that are not sure; None for nothing."""
    braise = started.liquid.braise
    line = asked_first(braise.lines, unsure, own) if braise else None
    return None if line is None else say("intake.ask_first", line=line.text)


#: What a refused start says of a pan that is too small.
_TOO_SMALL = frozenset({"measuring.does_not_fit", "intake.bigger_pan"})


def with_pans_that_fit(problem: SpissusError, pans: Sequence[tuple[UUID, Pan]]) -> SpissusError:
    """What is wrong with a start, and where it does not fit its pan, which pans it fits in."""
    volume = problem.message.arguments.get("volume")
    if problem.message.key not in _TOO_SMALL or not isinstance(volume, Shown):
        return problem
    fit = [pan.name for _, pan in pans if pan.capacity_ml >= volume.value][:3]
    more = say("intake.pans_that_fit", pans=several("or", *fit)) if fit else say("intake.no_pan_fits")
    return SpissusError(problem.field, sentences(problem.message, more))


def start_out(start: Start) -> StartOut:
    """The start as the cook gave it."""
    braise = start.liquid.braise
    return StartOut(
        pan=start.pan.name,
        burner=start.burner.name,
        liquid=_as_said(start.liquid),
        lines=[line_out(line) for line in braise.lines] if braise else [],
    )


def _as_said(liquid: StrainedLiquid) -> StrainedLiquid:
    """The start as the page sent it."""
    kept, braise = liquid.kept, liquid.braise
    if kept is not None:
        liquid = liquid.model_copy(update={"kept": kept.model_copy(update={"thing": None})})
    if braise is None:
        return liquid
    lines = tuple(_named(line) for line in braise.lines)
    return liquid.model_copy(update={"braise": braise.model_copy(update={"lines": lines})})


def _named(line: Line) -> Line:
    """A line without the ingredient of the catalogue in it, which is kept whole with the event."""
    if line.own is None or line.own != catalogue().get(line.ingredient or ""):
        return line
    return line.model_copy(update={"own": None})


#: What a way to measure reads.
_READS: dict[Method, Dimension] = {"jug": "volume", "eye": "volume", "dip": "length", "scale": "mass"}


def sentence_out(said: ReadSentence, units: UnitSystem) -> SentenceOut:
    """A sentence in the words that a start takes, in the reader's units."""
    return SentenceOut(
        method=said.method,
        value=None if said.method is None or said.value is None else say_again(said.value, _READS[said.method], units),
        hot=said.hot,
        fat_mm=None if said.fat_mm is None else say_again(said.fat_mm, "length", units),
        fat_ml=None if said.fat_ml is None else say_again(said.fat_ml, "volume", units),
        fat_in=said.fat_in,
        verdict=said.verdict,
        percent=None if said.percent is None else f"{said.percent:g} %",
        stock=said.stock,
        character=said.character,
        unread=list(said.unread),
    )


def concentrate_out(data: ConcentrateIn) -> ConcentrateOut:
    """What makes exactly the volume wanted, and the usual mistake with it."""
    made = made_up(data.volume_ml, data.concentrate_parts, data.water_parts)
    if data.water_parts <= 0.0:
        mind = say("intake.no_water")
    else:
        wrong = data.volume_ml * (data.concentrate_parts + data.water_parts) / data.water_parts
        mind = say("batch.concentrate_twice", volume=show_volume(data.volume_ml), wrong=show_volume(wrong))
    return ConcentrateOut(
        concentrate=ShownOut.of(show_volume(made.concentrate_ml)),
        water=ShownOut.of(show_volume(made.water_ml)),
        mind=SaidOut.of(mind),
    )
