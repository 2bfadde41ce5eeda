"""What the API says of a batch. Amounts come worded in both systems of units; the page only draws."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal
from uuid import UUID

from kitchens.api import PanShape
from pydantic import AwareDatetime, ConfigDict, Field, model_validator
from shared.shapes import RangeOut, ReasonOut, SaidOut, Shape, ShownOut, SpanOut
from spissus_core import events as ev
from spissus_core.amounts.fields import Parts, PastedList, Remark, Title, VolumeMl
from spissus_core.amounts.tables import key_of
from spissus_core.board import Part
from spissus_core.intake.braise import Line
from spissus_core.intake.lines import Use
from spissus_core.intake.liquid import Character, StrainedLiquid
from spissus_core.measuring.measurement import Method
from spissus_core.phenomena.evaporation import Cover
from spissus_core.phenomena.fat import SkimWay
from spissus_core.phenomena.heating import HeatSetting
from spissus_core.phenomena.seasoning import StockKind, Verdict
from spissus_core.planning.guidance import ActKind, Why


class BodyOut(Shape):
    """Body on the ladder; ``position`` is 0 to 6 along its six steps, for drawing."""

    step: int
    word: str
    does: str
    viscosity: RangeOut
    position: float


class ContentsRow(Shape):
    name: str
    mass: ShownOut
    percent: float
    how: SaidOut


class MethodOut(Shape):
    """A way to measure this pot, and how far it may be off."""

    method: Method
    error: ShownOut
    best: bool
    usable: bool


class PotOut(Shape):
    liquid: ShownOut
    depth: ShownOut
    fat: ShownOut
    fat_depth: ShownOut
    gross: ShownOut | None
    solids: ShownOut | None
    kept: ShownOut | None
    measured_by: Method | Literal["list"]
    liquid_error: ShownOut
    salt: RangeOut
    body: BodyOut
    tone: float
    contents: list[ContentsRow]
    reasons: list[ReasonOut]
    methods: list[MethodOut]


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


class RouteOut(Shape):
    """A way. ``recommended`` is the one to propose, ``because`` why it would be taken, ``reason`` why it cannot be.

    ``first`` is what is done before it, in order: another pan, or a second one, where time is short. ``take`` is the
    part of the pot that makes the sauce, where not all of it does; ``let_down`` unsalted liquid to stir in first.
    ``leave`` is how far it boils down and for how long; null where nothing boils away.
    """

    kind: ev.RouteKind
    label: str
    feasible: bool
    recommended: bool
    because: SaidOut | None
    reason: SaidOut | None
    first: list[dict[str, Any]]
    take: ShownOut | None
    let_down: ShownOut | None
    volume: ShownOut
    boil_to: ShownOut
    share_left: float
    leave: SaidOut | None
    mark: ShownOut
    gross: ShownOut | None
    minutes: RangeOut
    school: Annotated[str, key_of("schools")] | None
    thickener: str | None
    dry_name: str | None
    dry: ShownOut | None
    dry_also: ShownOut | None
    dry_range: RangeOut | None
    carrier: ShownOut | None
    carrier_also: ShownOut | None
    carrier_name: str | None
    how: str | None
    allergens: list[str]
    salt_before: RangeOut
    salt_after: RangeOut
    salt_to_add: ShownOut | None
    salt_to_add_also: ShownOut | None
    salt_first: ShownOut | None
    portions: int | None
    body: BodyOut
    notes: list[SaidOut]
    reasons: list[ReasonOut]


class TradeOut(Shape):
    """One point of the trade between volume, thickener and salt; ``dry_g`` is the dry thickener by school."""

    volume: ShownOut
    salt_percent: float
    dry_g: dict[str, float]


class RoutesOut(Shape):
    routes: list[RouteOut]
    trade: list[TradeOut]
    wanted: ShownOut
    salt_percent: float
    ceiling_percent: float
    least: ShownOut
    most: ShownOut


class WantedOut(Shape):
    """What is wanted. ``said`` is how the amount is said again, and ``by_people`` whether it is for so many people,
    which are else those that are taken for granted; ``minutes`` are those left of the time there was."""

    amount: ShownOut
    said: SaidOut
    by_people: bool
    portions: int | None
    portion: ShownOut | None
    people: int
    over: Annotated[str, key_of("dishes")]
    minutes: int | None
    avoid: list[Annotated[str, key_of("avoided")]]
    body: int
    salt_percent: float
    ceiling_percent: float
    fat_g_per_100_ml: float


class AnswerOut(Shape):
    """A button that answers an act: the entry it records as it stands, or the view or the sheet where more is said."""

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
    ``overdue`` is the sentence from then on, and ``quiet`` whether somebody heard the alarm already.
    """

    kind: ActKind
    doing: ActKind
    why: Why | None
    answers: list[AnswerOut]
    way: str | None
    measure: Literal["jug", "dip", "scale", "eye", "spoon"] | None
    wait_min: RangeOut | None
    stage: ev.Stage
    sentence: SaidOut
    look_at: datetime | None
    quiet: bool
    countdown: SaidOut | None
    overdue: SaidOut | None
    amount: float
    thickener: Annotated[str, key_of("schools")] | None


class EntryOut(Shape):
    """An entry of the log. ``told`` is the time it came with, where that cannot be: ``at`` is when it arrived."""

    id: UUID
    seq: int
    at: datetime
    kind: str
    text: SaidOut
    struck: bool
    problem: SaidOut | None
    undoable: bool
    strikes: UUID | None
    told: datetime | None


class DeviceReadOut(Shape):
    """The newest reading of a device, of ``count`` that count; ``problem`` where it contradicts the ledger."""

    name: str
    at: datetime
    text: SaidOut
    count: int
    problem: SaidOut | None
    reading: float | None


class StepOut(Shape):
    """A step of the ladder of body."""

    index: int
    word: str
    does: str


class CurvePoint(Shape):
    """A measurement of the liquid, with its standard error in mL."""

    at: datetime
    liquid: ShownOut
    error_ml: float


class CoursePoint(Shape):
    """Where the pot is thought to stand at a time, with its 80 % interval; depth and gross in its first pan."""

    at: datetime
    liquid: ShownOut
    low_ml: float
    high_ml: float
    depth: ShownOut
    gross: ShownOut | None


class HeatOut(Shape):
    """How the pot is heated; ``told`` says whether anyone said so, or a full boil is assumed. ``key`` is the heat of
    the list that comes nearest."""

    key: Annotated[str, key_of("heats")]
    heat: Literal["off", "simmer", "boil", "oven"]
    share: float
    cover: Cover
    oven: ShownOut
    told: bool


class ArrivalOut(Shape):
    """A time with its 80 % interval."""

    low: datetime
    best: datetime
    high: datetime


class CurveOut(Shape):
    """The liquid over time, and when boiling on would bring it to the mark."""

    points: list[CurvePoint]
    stop: ShownOut | None
    ceiling: ShownOut | None
    arrive: ArrivalOut | None
    steam_g_min: RangeOut
    learned_from: int
    left_out: int
    rate: SaidOut | None
    course: list[CoursePoint]


class SkimWayOut(Shape):
    """A way to take the fat off this pot: what it leaves, takes with it and costs, or why it is barred."""

    way: SkimWay
    label: str
    share: float
    takes: ShownOut
    leaves: ShownOut
    leaves_at_most: ShownOut
    lost: ShownOut
    minutes: RangeOut
    time: str
    costs: list[SaidOut]
    barred: SaidOut | None
    advised: bool
    ice: ShownOut | None


class SkimOut(Shape):
    """Taking the fat off: the ways, how much is to stay, and what is to be known first."""

    ways: list[SkimWayOut]
    rest: ShownOut
    rest_g_per_100_ml: float
    fat: ShownOut
    per_portion: SaidOut | None
    kept: ShownOut | None
    settling: SaidOut
    sets: SaidOut
    roux: SaidOut | None
    cautions: list[SaidOut]


class TemperatureOut(Shape):
    at: datetime
    celsius: float
    shown: ShownOut


class LimitOut(Shape):
    """A temperature to be reached, and by when; unknown until the clock runs."""

    celsius: float
    shown: ShownOut
    by: datetime | None


class CoolingOut(Shape):
    """A pot set to cool: its log, the way ahead at its pace, and how it stands."""

    began: datetime
    surroundings: ShownOut
    verdict: Literal["above", "unknown", "in_time", "too_slow", "missed", "done"]
    sentence: SaidOut
    readings: list[TemperatureOut]
    forecast: list[TemperatureOut]
    limits: list[LimitOut]
    cautions: list[SaidOut]


class EstimateOut(Shape):
    """One mass by the list of what went in, and the terms it comes from."""

    name: str
    label: str
    span: SpanOut
    reasons: list[ReasonOut]


class AlcoholOut(Shape):
    """Alcohol left, by which rule and why."""

    grams: RangeOut
    percent_vol: float
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


class ServedOut(Shape):
    """What came of it: measured, or by the ledger."""

    volume: ShownOut
    portions: int | None


class FoundOut(Shape):
    key: str
    name: str


class BringsOut(Shape):
    """What a line brings of one matter."""

    key: Literal["salt", "alcohol", "fat", "gelatin", "sugar", "acid", "starch"]
    said: SaidOut


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


class LinesOut(Shape):
    """A list as it was understood; ``rest`` is what was too much to read."""

    lines: list[LineOut]
    rest: str


class StartOut(Shape):
    """The start as it was said, so that it can be corrected."""

    pan: str
    burner: str
    liquid: StrainedLiquid
    lines: list[LineOut]


class MissingOut(Shape):
    """A part of a batch that could not be worked out, and why; everything else stands."""

    part: Part
    why: SaidOut


class BatchOut(Shape):
    """Everything the page shows of a batch.

    What cannot be worked out is named in ``missing`` and null here, or empty; without a readable start
    there is no pot, but always the log. ``concerns`` are what makes the pot doubtful, until they are answered.
    """

    id: UUID
    name: str
    created_at: datetime
    last_seq: int
    finished: bool
    missing: list[MissingOut]
    pan: PanShape | None
    burner: str | None
    start: StartOut | None
    pot: PotOut | None
    marks: list[MarkOut]
    curve: CurveOut | None
    heat: HeatOut
    beside: str | None
    signs: list[Annotated[str, key_of("signs")]]
    signs_asked: list[Annotated[str, key_of("signs")]]
    ribbon: list[StretchOut]
    wanted: WantedOut | None
    suggested: WantedOut | None
    chosen: ev.RouteKind | None
    plan: RouteOut | None
    act: ActOut
    concerns: list[SaidOut]
    log: list[EntryOut]
    devices: list[DeviceReadOut]
    skim: SkimOut | None
    cooling: CoolingOut | None
    estimated: EstimatedOut | None
    doubt: SaidOut | None
    served: ServedOut | None
    boil_cautions: list[SaidOut]
    serve_cautions: list[SaidOut]
    ladder: list[StepOut]


class LiveOut(Shape):
    """What of a batch changes by itself, when a device reads: the page puts it in the place of what it has."""

    last_seq: int
    missing: list[MissingOut]
    pot: PotOut | None
    marks: list[MarkOut]
    curve: CurveOut | None
    heat: HeatOut
    ribbon: list[StretchOut]
    suggested: WantedOut | None
    plan: RouteOut | None
    act: ActOut
    concerns: list[SaidOut]
    devices: list[DeviceReadOut]
    skim: SkimOut | None
    cooling: CoolingOut | None
    served: ServedOut | None
    boil_cautions: list[SaidOut]
    serve_cautions: list[SaidOut]


class BatchLine(Shape):
    """A batch in a list; where its start cannot be read, nothing is known of its pot."""

    id: UUID
    name: str
    created_at: datetime
    finished: bool
    stage: ev.Stage
    pan: str | None
    volume: ShownOut | None
    start: ShownOut | None
    salt_percent: float | None
    body: str | None
    tone: float | None
    share: float | None
    left: SaidOut | None
    look_at: datetime | None
    quiet: bool
    concern: str | None


class BatchPage(Shape):
    items: list[BatchLine]
    next: str | None


#: The version of the events that a page knows; one that says nothing is of the first.
Version = Annotated[int, Field(ge=1, le=ev.VERSION)]

# What a page sends of a start, and of any event: models that the registry makes.
if TYPE_CHECKING:
    StartedIn = ev.Form
    PayloadIn = ev.Form | ev.Kind
else:
    StartedIn = ev.form_of(ev.Started)
    PayloadIn = ev.door


def _in_todays_words(data: Any, field: str) -> Any:
    """What an older page says of an event, in today's words, before it is judged."""
    if not isinstance(data, dict) or field not in data:
        return data
    version = data.get("version", 1)
    if not isinstance(version, int) or not 1 <= version <= ev.VERSION:
        return data
    try:
        return {**data, field: ev.upcast(data[field], version)}
    except (LookupError, TypeError, ValueError, ArithmeticError, AttributeError):
        # Nothing that version ever said: today's rules say what is wrong with it.
        return data


class StartIn(Shape):
    """A new batch. The page makes both ids, so that sending it twice starts one batch."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    event_id: UUID
    at: AwareDatetime
    version: Version = 1
    name: Title
    start: StartedIn

    @model_validator(mode="before")
    @classmethod
    def _older(cls, data: Any) -> Any:
        return _in_todays_words(data, "start")


class EventIn(Shape):
    """One event. The page makes the id, so that sending it twice records it once."""

    model_config = ConfigDict(extra="forbid")

    id: UUID
    at: AwareDatetime
    version: Version = 1
    payload: PayloadIn

    @model_validator(mode="before")
    @classmethod
    def _older(cls, data: Any) -> Any:
        return _in_todays_words(data, "payload")


class PreviewOut(Shape):
    """What a start would give, before it is recorded."""

    pan: PanShape
    pot: PotOut
    marks: list[MarkOut]
    ribbon: list[StretchOut]
    estimated: EstimatedOut | None
    doubt: SaidOut | None


class LineIn(Shape):
    """One line, with what the cook chose for it where the reading was wrong."""

    model_config = ConfigDict(extra="forbid")

    text: Remark
    ingredient: Annotated[str, Field(max_length=60)] | None = None
    use: Use | None = None
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    poured_off: Annotated[float, Field(ge=0, le=1)] | None = None


class ListIn(Shape):
    """A whole list as it was pasted."""

    model_config = ConfigDict(extra="forbid")

    text: PastedList


class SentenceIn(Shape):
    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=500)]


class SentenceOut(Shape):
    """What a sentence says of the strained liquid, in the words a start takes; None where it is silent."""

    method: Method | None
    value: str | None
    hot: bool | None
    fat_mm: str | None
    fat_ml: str | None
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


class PansIn(Shape):
    """Which heat, and on which burner, to compare the kitchen's pans for."""

    model_config = ConfigDict(extra="forbid")

    burner_id: UUID | None = None
    heat: HeatSetting = HeatSetting()


class PanChoiceOut(Shape):
    """One of the kitchen's pans for what the pot still has to lose."""

    pan_id: UUID
    pan: PanShape
    burner_id: UUID
    burner: str
    here: bool
    minutes: RangeOut | None
    how: SaidOut | None
    end_depth: ShownOut
    dip_error: ShownOut
    shallow: bool
    scorches: bool


class PansOut(Shape):
    """The pans, the quickest that serves first, and what splitting over two would save."""

    stop: ShownOut
    choices: list[PanChoiceOut]
    split: SaidOut | None
