"""What is in the pot, and how it may be measured."""

from __future__ import annotations

from shared.shapes import RangeOut, ReasonOut, SaidOut, Shape, ShownOut
from spissus_core.amounts.quantities import UnitSystem, show_length, show_mass, show_volume
from spissus_core.estimation.spoon import height
from spissus_core.measuring.measurement import DIP_ERROR_MM, READ_IN, Method, Reads, error_ml
from spissus_core.messages import Term
from spissus_core.phenomena.body import Body, Step
from spissus_core.phenomena.strength import strength_of
from spissus_core.planning.explanation import parts_of, pot_reasons, times_strained
from spissus_core.planning.tone import tone
from spissus_core.pot import Pot
from words import plain


class BodyOut(Shape):
    """Body on the ladder; ``position`` is 0 to 6 along its six steps, for drawing, and ``low`` and ``high`` where its
    range ends. ``word`` is the trade's, ``everyday`` anyone's."""

    step: int
    word: str
    everyday: str
    does: str
    low: float
    position: float
    high: float


class ContentsRow(Shape):
    """One thing of the ledger: its weight, its share of the pot in %, and how that comes about."""

    name: str
    mass: ShownOut
    percent: float
    how: SaidOut


class MethodOut(Shape):
    """A way to measure this pot, and how far it may be off: in mL, and in mm of its depth."""

    method: Method
    error: ShownOut
    error_mm: float
    best: bool
    usable: bool


class FiguresRead(Shape):
    """What a dip, a jug (hot, the fat with it) and a scale show, in the units that they are read in."""

    dip: float
    jug: float
    scale: float | None

    @classmethod
    def of(cls, reads: Reads, system: UnitSystem) -> FiguresRead:
        """What they show in a system of units, to more than anyone can read."""

        def figure(method: Method, value: float) -> float:
            return round(value / READ_IN[method][system][1], 3)

        scale = None if reads.scale is None else figure("scale", reads.scale)
        return cls(dip=figure("dip", reads.dip), jug=figure("jug", reads.jug), scale=scale)


class ReadsRow(Shape):
    """What shows so much liquid, mL at 20 °C, in this pot; for a page that has nobody to ask."""

    liquid: float
    metric: FiguresRead
    us: FiguresRead


class PotOut(Shape):
    """What is in the pot: volumes at 20 °C, depths as it stands, salt in % by weight; ``table`` from little to a bit
    more than there is."""

    liquid: ShownOut
    depth: ShownOut
    fat: ShownOut
    fat_depth: ShownOut
    gross: ShownOut | None
    solids: ShownOut | None
    kept: ShownOut | None
    liquid_error: ShownOut
    salt: RangeOut
    body: BodyOut
    taste: str
    times_strained: SaidOut
    tone: float
    contents: list[ContentsRow]
    reasons: list[ReasonOut]
    methods: list[MethodOut]
    table: list[ReadsRow]


class StepOut(Shape):
    """A step of the ladder of body in anyone's word, and what it does; ``trade`` is the trade's word where that is
    another one."""

    index: int
    everyday: str
    trade: str | None
    does: str


def word(text: str) -> str:
    """A word of the trade in the language that is spoken."""
    return plain(Term(text))


def step_out(step: Step) -> StepOut:
    """A step of the ladder as it is shown."""
    trade = None if step.word == step.everyday else word(step.word)
    return StepOut(index=step.index, everyday=word(step.everyday), trade=trade, does=word(step.does))


def body_out(body: Body) -> BodyOut:
    """A body on the ladder, and how far along it."""
    step, spread = body.step, body.estimate
    return BodyOut(
        step=step.index,
        word=word(step.word),
        everyday=word(step.everyday),
        does=word(step.does),
        low=height(spread.low),
        # As drawn it stands within its step.
        position=min(max(height(spread.best), step.index), step.index + 0.999),
        high=height(spread.high),
    )


def pot_out(pot: Pot) -> PotOut:
    """The pot with the arithmetic of its figures."""
    c = pot.contents
    liquid = show_volume(c.liquid_ml)
    return PotOut(
        liquid=ShownOut.of(liquid),
        depth=ShownOut.of(show_length(pot.depth_mm)),
        fat=ShownOut.of(show_volume(c.fat_ml)),
        fat_depth=ShownOut.of(show_length(pot.fat_mm)),
        gross=None if pot.gross_g is None else ShownOut.of(show_mass(pot.gross_g)),
        solids=None if pot.solids is None else ShownOut.of(show_mass(pot.solids.mass_g)),
        kept=None if pot.kept is None else ShownOut.of(show_volume(pot.kept.liquid_ml)),
        liquid_error=ShownOut.of(show_volume(pot.error_ml)),
        salt=RangeOut.of(pot.salt_percent),
        body=body_out(pot.body),
        taste=word(strength_of(c.strength_percent).word),
        times_strained=SaidOut.of(times_strained(pot, c)),
        tone=tone(c),
        contents=_contents(pot),
        reasons=[ReasonOut.of(reason) for reason in pot_reasons(pot)],
        methods=_methods(pot),
        table=[
            ReadsRow(liquid=round(ml, 1), metric=FiguresRead.of(reads, "metric"), us=FiguresRead.of(reads, "us"))
            for ml, reads in pot.table()
        ],
    )


def _contents(pot: Pot) -> list[ContentsRow]:
    return [
        ContentsRow(
            name=plain(part.name),
            mass=ShownOut.of(show_mass(part.grams)),
            percent=part.percent,
            how=SaidOut.of(part.how),
        )
        for part in parts_of(pot)
    ]


def _methods(pot: Pot) -> list[MethodOut]:
    c = pot.contents
    methods: tuple[Method, ...] = ("jug", "dip", "scale")
    errors = {m: error_ml(pot.pan, m, c.volume_ml, c.density_g_ml) for m in methods}
    usable = {"jug": True, "dip": pot.depth_mm > 4 * DIP_ERROR_MM, "scale": pot.pan.empty_g is not None}
    surface_mm2 = pot.pan.area_mm2(min(pot.depth_mm, pot.pan.height_mm))
    best = min((m for m in methods if usable[m]), key=lambda m: errors[m])
    return [
        MethodOut(
            method=m,
            error=ShownOut.of(show_volume(errors[m])),
            error_mm=1000.0 * errors[m] / surface_mm2,
            best=m == best,
            usable=usable[m],
        )
        for m in methods
    ]
