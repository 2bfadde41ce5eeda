"""What the API says of a batch. Amounts come worded in both systems of units; the page only draws."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from kitchens.api import PanShape, ShownOut
from pydantic import BaseModel, ConfigDict, Field
from spissus_core import events as ev
from spissus_core.fat import SkimWay
from spissus_core.fields import Title
from spissus_core.guidance import ActKind
from spissus_core.intake import Character
from spissus_core.journey import Stage
from spissus_core.measurement import Method
from spissus_core.quantities import Said
from spissus_core.seasoning import StockKind, Verdict
from spissus_core.thickeners import ThickenerKind


class SaidOut(BaseModel):
    """A sentence in the words of either system of units."""

    metric: str
    us: str

    @classmethod
    def of(cls, said: Said) -> SaidOut:
        return cls(metric=said.metric, us=said.us)


class RangeOut(BaseModel):
    """A value with its 80 % interval."""

    low: float
    best: float
    high: float


class ReasonOut(BaseModel):
    what: str
    how: SaidOut


class BodyOut(BaseModel):
    """Body on the ladder; ``position`` is 0 to 6 along its six steps, for drawing."""

    step: int
    word: str
    does: str
    viscosity: RangeOut
    position: float


class ContentsRow(BaseModel):
    name: str
    mass: ShownOut
    percent: float
    how: SaidOut


class MethodOut(BaseModel):
    """A way to measure this pot, and how far it may be off."""

    method: Method
    error: ShownOut
    best: bool
    usable: bool


class PotOut(BaseModel):
    liquid: ShownOut
    depth: ShownOut
    fat: ShownOut
    fat_depth: ShownOut
    gross: ShownOut | None
    liquid_error: ShownOut
    salt: RangeOut
    body: BodyOut
    tone: float
    contents: list[ContentsRow]
    reasons: list[ReasonOut]
    methods: list[MethodOut]


class MarkOut(BaseModel):
    """A mark on the skewer."""

    kind: Literal["start", "now", "stop", "ceiling"]
    depth: ShownOut


class StretchOut(BaseModel):
    """A stretch of the ribbon; see ``spissus_core.journey.Stretch``."""

    stage: Stage
    planned: bool
    from_ml: float
    to_ml: float
    from_fat_ml: float
    to_fat_ml: float
    from_tone: float
    to_tone: float
    salt_percent: float
    liquid: ShownOut
    fat: ShownOut
    vapour: ShownOut
    added: ShownOut


class RouteOut(BaseModel):
    kind: ev.RouteKind
    label: str
    feasible: bool
    reason: SaidOut | None
    volume: ShownOut
    boil_to: ShownOut
    share_left: float
    mark: ShownOut
    gross: ShownOut | None
    minutes: RangeOut
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
    salt_to_add: ShownOut
    salt_to_add_also: ShownOut
    portions: int | None
    body: BodyOut
    notes: list[SaidOut]
    reasons: list[ReasonOut]


class TradeOut(BaseModel):
    """One point of the trade between volume, thickener and salt."""

    volume: ShownOut
    salt_percent: float
    roux_flour_g: float
    corn_starch_g: float


class RoutesOut(BaseModel):
    routes: list[RouteOut]
    trade: list[TradeOut]
    wanted: ShownOut
    salt_percent: float
    ceiling_percent: float
    least: ShownOut
    most: ShownOut


class WantedOut(BaseModel):
    amount: ShownOut
    portions: int | None
    portion: ShownOut | None
    body: int
    salt_percent: float
    ceiling_percent: float


class ActOut(BaseModel):
    """The next act: its sentence, and what answers it where one tap is enough.

    Where it is a matter of looking again, ``look_at`` says when, and ``overdue`` is the sentence from
    then on.
    """

    kind: ActKind
    stage: Stage
    sentence: SaidOut
    look_at: datetime | None
    overdue: SaidOut | None
    amount: float
    thickener: ThickenerKind | None


class EntryOut(BaseModel):
    id: UUID
    seq: int
    at: datetime
    kind: str
    text: SaidOut
    struck: bool
    problem: str | None
    undoable: bool
    strikes: UUID | None


class StepOut(BaseModel):
    """A step of the ladder of body."""

    index: int
    word: str
    does: str


class CurvePoint(BaseModel):
    """A measurement of the liquid, with its standard error in mL."""

    at: datetime
    liquid: ShownOut
    error_ml: float


class ArrivalOut(BaseModel):
    """A time with its 80 % interval."""

    low: datetime
    best: datetime
    high: datetime


class CurveOut(BaseModel):
    """The liquid over time, and when boiling on would bring it to the mark."""

    points: list[CurvePoint]
    stop: ShownOut | None
    ceiling: ShownOut | None
    arrive: ArrivalOut | None
    steam_g_min: RangeOut


class SkimWayOut(BaseModel):
    """A way to take the fat off this pot, and what it leaves."""

    way: SkimWay
    label: str
    share: float
    leaves: ShownOut
    time: str


class ServedOut(BaseModel):
    """What came of it: measured, or by the ledger."""

    volume: ShownOut
    portions: int | None


class StartOut(BaseModel):
    """The start as it was said, so that it can be corrected."""

    pan: str
    burner: str
    method: Method
    value: float
    hot: bool
    fat_mm: float | None
    fat_ml: float | None
    salt_by: Literal["taste", "meter", "stock"]
    salt_verdict: Verdict | None
    salt_percent: float | None
    salt_stock: StockKind | None
    character: Character


class BatchOut(BaseModel):
    id: UUID
    name: str
    created_at: datetime
    last_seq: int
    finished: bool
    pan: PanShape
    burner: str
    start: StartOut
    pot: PotOut
    marks: list[MarkOut]
    curve: CurveOut
    ribbon: list[StretchOut]
    wanted: WantedOut | None
    suggested: WantedOut
    chosen: ev.RouteKind | None
    plan: RouteOut | None
    act: ActOut
    log: list[EntryOut]
    skim_ways: list[SkimWayOut]
    served: ServedOut
    skim_cautions: list[str]
    boil_cautions: list[str]
    serve_cautions: list[str]
    ladder: list[StepOut]


class BatchLine(BaseModel):
    """A batch in a list."""

    id: UUID
    name: str
    created_at: datetime
    finished: bool
    stage: Stage
    pan: str
    volume: ShownOut
    start: ShownOut
    salt_percent: float
    body: str
    tone: float
    share: float


class BatchPage(BaseModel):
    items: list[BatchLine]
    next: str | None


class StartedIn(BaseModel):
    """The strained liquid in one of the kitchen's pans, on one of its burners."""

    model_config = ConfigDict(extra="forbid")

    kind: Literal["started"] = "started"
    pan_id: UUID
    burner_id: UUID
    liquid: ev.StrainedLiquid


class StartIn(BaseModel):
    """A new batch. The page makes both ids, so that sending it twice starts one batch."""

    id: UUID
    event_id: UUID
    at: datetime
    name: Title
    start: StartedIn


PayloadIn = Annotated[
    StartedIn
    | ev.Wanted
    | ev.Chosen
    | ev.Skimmed
    | ev.Read
    | ev.Thickened
    | ev.Salted
    | ev.Added
    | ev.Tested
    | ev.Noted
    | ev.Finished
    | ev.Struck,
    Field(discriminator="kind"),
]


class EventIn(BaseModel):
    """One event. The page makes the id, so that sending it twice records it once."""

    id: UUID
    at: datetime
    payload: PayloadIn


class PreviewOut(BaseModel):
    """What a start would give, before it is recorded."""

    pan: PanShape
    pot: PotOut
    marks: list[MarkOut]


class IngredientOut(BaseModel):
    """An ingredient of the catalogue, by name."""

    key: str
    name: str
    group: str
    salt_percent: float
