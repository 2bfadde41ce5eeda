"""What the API says of a batch. Amounts come worded in both systems of units; the page only draws."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from kitchens.api import PanShape, ShownOut
from ninja import Field, Schema
from pydantic import BaseModel, ConfigDict
from spissus_core import events as ev
from spissus_core.guidance import ActKind
from spissus_core.journey import Stage
from spissus_core.quantities import Said


class SaidOut(Schema):
    """A sentence in the words of either system of units."""

    metric: str
    us: str

    @classmethod
    def of(cls, said: Said) -> SaidOut:
        return cls(metric=said.metric, us=said.us)


class RangeOut(Schema):
    """A value with its 80 % interval."""

    low: float
    best: float
    high: float


class ReasonOut(Schema):
    what: str
    how: SaidOut


class BodyOut(Schema):
    """Body on the ladder; ``position`` is 0 to 6 along its six steps, for drawing."""

    step: int
    word: str
    does: str
    viscosity: RangeOut
    position: float


class ContentsRow(Schema):
    name: str
    mass: ShownOut
    percent: float
    how: SaidOut


class MethodOut(Schema):
    """A way to measure this pot, and how far it may be off."""

    method: Literal["jug", "dip", "scale"]
    error: ShownOut
    best: bool
    usable: bool


class PotOut(Schema):
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


class MarkOut(Schema):
    """A mark on the skewer."""

    kind: Literal["start", "now", "stop", "ceiling"]
    depth: ShownOut


class StretchOut(Schema):
    """A stretch of the ribbon; see ``spissus_core.journey.Stretch``."""

    stage: Stage
    planned: bool
    from_ml: float
    to_ml: float
    from_tone: float
    to_tone: float
    salt_percent: float
    to: ShownOut
    fat: ShownOut
    vapour: ShownOut
    added: ShownOut


class RouteOut(Schema):
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
    dry_range: RangeOut | None
    carrier: ShownOut | None
    carrier_name: str | None
    how: str | None
    allergens: list[str]
    salt_before: RangeOut
    salt_after: RangeOut
    salt_to_add: ShownOut
    portions: float | None
    body: BodyOut
    notes: list[SaidOut]
    reasons: list[ReasonOut]


class TradeOut(Schema):
    """One point of the trade between volume, thickener and salt."""

    volume: ShownOut
    salt_percent: float
    roux_flour_g: float
    corn_starch_g: float


class RoutesOut(Schema):
    routes: list[RouteOut]
    trade: list[TradeOut]
    wanted: ShownOut
    least: ShownOut
    most: ShownOut


class WantedOut(Schema):
    amount: ShownOut
    portions: int | None
    portion: ShownOut | None
    body: int
    salt_percent: float
    ceiling_percent: float


class ActOut(Schema):
    """The next act: its sentence, and the event that answers it where one tap is enough."""

    kind: ActKind
    stage: Stage
    sentence: SaidOut
    amount: float
    thickener: str | None


class EntryOut(Schema):
    id: UUID
    seq: int
    at: datetime
    kind: str
    text: SaidOut
    struck: bool
    problem: str | None
    undoable: bool


class StepOut(Schema):
    """A step of the ladder of body."""

    index: int
    word: str
    does: str


class CurvePoint(Schema):
    """A measurement of the liquid, with its standard error in mL."""

    at: datetime
    liquid: ShownOut
    error_ml: float


class CurveOut(Schema):
    """The liquid over time, and when boiling on would bring it to the mark, minutes from the last point."""

    points: list[CurvePoint]
    stop: ShownOut | None
    ceiling: ShownOut | None
    minutes: RangeOut | None
    steam_g_min: RangeOut


class BatchOut(Schema):
    id: UUID
    name: str
    created_at: datetime
    last_seq: int
    finished: bool
    pan: PanShape
    burner: str
    pot: PotOut
    marks: list[MarkOut]
    curve: CurveOut
    ribbon: list[StretchOut]
    wanted: WantedOut | None
    chosen: ev.RouteKind | None
    plan: RouteOut | None
    act: ActOut
    log: list[EntryOut]
    cautions: list[str]
    ladder: list[StepOut]


class BatchLine(Schema):
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


class BatchPage(Schema):
    items: list[BatchLine]
    next: str | None


class StartedIn(BaseModel):
    """The strained liquid in one of the kitchen's pans, on one of its burners."""

    model_config = ConfigDict(extra="forbid")

    kind: Literal["started"] = "started"
    pan_id: UUID
    burner_id: UUID
    liquid: ev.StrainedLiquid


class StartIn(Schema):
    """A new batch. The page makes both ids, so that sending it twice starts one batch."""

    id: UUID
    event_id: UUID
    at: datetime
    name: str = Field(min_length=1, max_length=120)
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


class EventIn(Schema):
    """One event. The page makes the id, so that sending it twice records it once."""

    id: UUID
    at: datetime
    payload: PayloadIn


class PreviewOut(Schema):
    """What a start would give, before it is recorded."""

    pan: PanShape
    pot: PotOut
    marks: list[MarkOut]


class IngredientOut(Schema):
    """An ingredient of the catalogue, by name."""

    key: str
    name: str
    group: str
    salt_percent: float
