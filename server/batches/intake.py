"""What went into a braise, read and estimated, as the page shows it."""

from __future__ import annotations

from collections.abc import Sequence

from shared.shapes import RangeOut, ReasonOut, SaidOut, ShownOut, SpanOut
from spissus_core import events as ev
from spissus_core.amounts.estimate import Estimate
from spissus_core.amounts.quantities import show_mass, show_volume
from spissus_core.intake.braise import Braise, Estimated, Line, brings, reduced_note
from spissus_core.intake.lines import ReadLine, ReadSentence
from spissus_core.intake.liquid import StrainedLiquid
from spissus_core.messages import Message, say
from spissus_core.pantry.concentrates import made_up
from spissus_core.pantry.ingredients import Ingredient, catalogue
from spissus_core.phenomena.alcohol import ALCOHOL_WORTH_A_WORD_G, strength_percent
from spissus_core.planning.safety import ALCOHOL_REMAINS, intake_cautions
from words import plain

from . import schemas as out

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


def line_of(read: ReadLine, own: Sequence[Ingredient] = ()) -> Line:
    """A line as it is kept, from how it was read; an ingredient of the kitchen's own is kept whole."""
    amount = read.amount
    return Line(
        text=read.text.strip()[:2000] or read.name or "…",
        own=read.ingredient if read.ingredient in own else None,
        ingredient=None if read.ingredient is None else read.ingredient.key,
        mass_g=amount.value if amount and amount.dimension == "mass" else None,
        volume_ml=amount.value if amount and amount.dimension == "volume" else None,
        spread=min(amount.spread, 1.0) if amount else 0.0,
        use=read.use,
        left=read.left,
        poured_off=read.poured_off,
    )


def read_out(read: ReadLine, own: Sequence[Ingredient]) -> out.LineOut:
    """A line that was just read."""
    return line_out(line_of(read, own), read.name, read.problem, read.candidates)


def line_out(
    line: Line, name: str = "", problem: Message | None = None, candidates: Sequence[Ingredient] = ()
) -> out.LineOut:
    """A line as it is kept, with what it was taken for and what it brings."""
    what = line.what if line.own or line.ingredient else None
    note = reduced_note(line) if line.counts else None
    if problem is None and not line.counts and line.use != "left_out":
        problem = say("intake.does_not_count")
    return out.LineOut(
        line=_named(line),
        name=what.name if what else name or line.text,
        amount=ShownOut.of(line.shown) if line.counts else None,
        about=line.spread > 0.1,
        group=what.group if what else None,
        brings=[out.BringsOut.model_validate({"key": key, "said": SaidOut.of(said)}) for key, said in brings(line)],
        note=SaidOut.maybe(note),
        problem=SaidOut.maybe(problem),
        candidates=[out.FoundOut(key=item.key, name=item.name) for item in candidates],
    )  # fmt: skip


def estimated_out(estimated: Estimated, braise: Braise | None) -> out.EstimatedOut:
    """What the list alone says of the strained liquid."""
    alcohol, ranges = estimated.alcohol, dict(estimated.ranges)
    # What boils off and what does not are one figure to the cook.
    acid, acetic = ranges["acid"], ranges["acetic"]
    ranges["acid"] = Estimate(acid.low + acetic.low, acid.best + acetic.best, acid.high + acetic.high)
    return out.EstimatedOut(
        liquid=SpanOut.of(estimated.liquid_ml, show_volume),
        liquid_reasons=[ReasonOut.of(reason) for reason in estimated.terms["liquid"]],
        figures=[
            out.EstimateOut(
                name=name, label=plain(label), span=SpanOut.of(ranges[mass], show_mass),
                reasons=[ReasonOut.of(reason) for reason in estimated.terms[name]],
            )
            for name, mass, label in _FIGURES
            if ranges[mass].high >= LEAST_TOLD_G
        ],
        alcohol=out.AlcoholOut(
            grams=RangeOut.of(alcohol.grams),
            percent_vol=strength_percent(alcohol.grams.best, estimated.contents.liquid_ml),
            rule=alcohol.rule,
            why=SaidOut.of(alcohol.why),
            caution=SaidOut.of(ALCOHOL_REMAINS) if alcohol.grams.high >= ALCOHOL_WORTH_A_WORD_G else None,
        ),
        allergens=list(estimated.allergens),
        cautions=SaidOut.of_all(intake_cautions(braise)) if braise else [],
    )  # fmt: skip


def start_out(started: ev.Started) -> out.StartOut:
    """The start as the cook gave it."""
    braise = started.liquid.braise
    return out.StartOut(
        pan=started.pan.name,
        burner=started.burner.name,
        liquid=started.liquid if braise is None else _as_said(started.liquid, braise),
        lines=[line_out(line) for line in braise.lines] if braise else [],
    )


def _as_said(liquid: StrainedLiquid, braise: Braise) -> StrainedLiquid:
    """The start as the page sent it."""
    lines = tuple(_named(line) for line in braise.lines)
    return liquid.model_copy(update={"braise": braise.model_copy(update={"lines": lines})})


def _named(line: Line) -> Line:
    """A line without the ingredient of the catalogue in it, which is kept whole with the event."""
    if line.own is None or line.own != catalogue().get(line.ingredient or ""):
        return line
    return line.model_copy(update={"own": None})


def sentence_out(said: ReadSentence) -> out.SentenceOut:
    """A sentence in the words that a start takes."""
    unit = {"jug": "ml", "eye": "ml", "dip": "mm", "scale": "g", None: ""}[said.method]
    return out.SentenceOut(
        method=said.method,
        value=None if said.value is None else f"{said.value:g} {unit}",
        hot=said.hot,
        fat_mm=None if said.fat_mm is None else f"{said.fat_mm:g} mm",
        fat_ml=None if said.fat_ml is None else f"{said.fat_ml:g} ml",
        verdict=said.verdict,
        percent=None if said.percent is None else f"{said.percent:g} %",
        stock=said.stock,
        character=said.character,
        unread=list(said.unread),
    )


def concentrate_out(data: out.ConcentrateIn) -> out.ConcentrateOut:
    """What makes exactly the volume wanted, and the usual mistake with it."""
    made = made_up(data.volume_ml, data.concentrate_parts, data.water_parts)
    if data.water_parts <= 0.0:
        mind = say("intake.no_water")
    else:
        wrong = data.volume_ml * (data.concentrate_parts + data.water_parts) / data.water_parts
        mind = say("batch.concentrate_twice", volume=show_volume(data.volume_ml), wrong=show_volume(wrong))
    return out.ConcentrateOut(
        concentrate=ShownOut.of(show_volume(made.concentrate_ml)), water=ShownOut.of(show_volume(made.water_ml)),
        mind=SaidOut.of(mind),
    )  # fmt: skip
