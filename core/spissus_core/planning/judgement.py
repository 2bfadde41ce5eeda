"""By what a good cook's judgement is weighed here: one frozen table, passed to whatever weighs acts or ways.

Each figure has its meaning, its unit and its source. Where the source is the study, it was found by turning it on the
evenings of an obedient cook; ``./spissus study judgement`` turns them all. A guard holds what no evening of the study
contains; to turn it would say nothing.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

Source = Literal["common practice", "modelling choice", "study", "from memory"]


def _figure(value: Any, unit: str, source: Source, *, guard: bool = False) -> Any:
    return field(default=value, metadata={"unit": unit, "source": source, "guard": guard})


@dataclass(frozen=True, slots=True, kw_only=True)
class Judgement:
    """The figures by which acts and ways are weighed."""

    # -- ways: how much of the pot --------------------------------------------------------------------

    #: Less than both of these is not worth setting aside.
    least_aside_ml: float = _figure(60.0, "mL", "modelling choice")
    least_aside_share: float = _figure(0.1, "share of the pot", "modelling choice")
    #: What is taken for a sauce may boil down to this share, for flavour, where the salt allows it.
    taken_boils_to: float = _figure(0.65, "share", "modelling choice")
    #: At least this share of a sauce is pot: what is let down further is water.
    least_taken: float = _figure(0.25, "share", "modelling choice", guard=True)
    #: What boils down in less is past its mark before anyone looks; longer no part is boiled for its flavour.
    least_boil_min: float = _figure(6.0, "min", "modelling choice")
    most_flavour_min: float = _figure(25.0, "min", "modelling choice")

    # -- ways: boiled for the taste -------------------------------------------------------------------

    #: Own solids at which a sauce is rich: where cooks like a braising sauce.
    rich_percent: float = _figure(11.0, "g in 100 g", "common practice")
    #: So much of the salt that is liked is kept for what comes later.
    salt_kept: float = _figure(0.05, "points of salt", "common practice")
    #: Boiled down to its mark a pot may come to so many times what is wanted before only a part of it is taken.
    most_meals: float = _figure(4.0, "times the amount", "common practice")
    #: Longer than this nobody boils where no time was told.
    most_boiling_min: float = _figure(40.0, "min", "common practice")
    #: Less than this is not worth boiling away: it is there.
    least_boiled: float = _figure(0.08, "share of the pot", "modelling choice")
    #: Up to so many helpings it is bound with what is quick; for a large table with what holds.
    most_quickly_bound: int = _figure(8, "helpings", "common practice")

    # -- ways: put in order ---------------------------------------------------------------------------

    #: Minutes of work of measuring off what is set aside, and of stirring in.
    aside_min: float = _figure(2.0, "min", "modelling choice")
    stir_min: float = _figure(1.0, "min", "modelling choice")
    #: What a sauce that is not quite what was wanted costs beside its minutes of work: a step too thin; a tenth of the
    #: amount too much, or too little; a tenth of its taste let down; as pale as all its salt is missing; a tenth of a
    #: point too salty.
    too_thin: float = _figure(25.0, "min", "modelling choice")
    too_much: float = _figure(3.0, "min", "modelling choice")
    too_little: float = _figure(40.0, "min", "modelling choice")
    let_down: float = _figure(2.5, "min", "modelling choice")
    pale: float = _figure(20.0, "min", "modelling choice")
    salty: float = _figure(20.0, "min", "modelling choice")
    #: Over the time there is by less than this nobody minds; and a second pan, which is one more to watch and to
    #: wash, has to save more.
    time_slack_min: float = _figure(1.0, "min", "modelling choice", guard=True)
    worth_two_min: float = _figure(3.0, "min", "modelling choice", guard=True)
    #: A sauce is what was wanted where its salt is this close, its amount at least this share, and its body no further
    #: below the aim.
    salt_slack: float = _figure(0.1, "points of salt", "modelling choice")
    amount_slack: float = _figure(0.95, "share of the amount", "modelling choice", guard=True)
    most_below_aim: float = _figure(0.1, "share of the viscosity", "modelling choice", guard=True)
    #: Marks, and amounts, that differ by less are one to whoever chooses.
    marks_alike: float = _figure(0.15, "share", "modelling choice")
    amounts_alike: float = _figure(0.02, "share", "modelling choice", guard=True)

    # -- boiling --------------------------------------------------------------------------------------

    #: Thought to be so far past its mark a pot is told to be taken off before it is measured.
    late_share: float = _figure(0.03, "share of the mark", "modelling choice")
    #: Less than this is not late.
    late_min: float = _figure(3.0, "min", "modelling choice", guard=True)
    #: A sauce this far over what is liked is too salty to be bound.
    too_salty: float = _figure(0.12, "points of salt", "study")
    #: Boiling stops so far over what is liked: a look that comes late is not answered with water then.
    saltier: float = _figure(0.08, "points of salt", "study")
    #: Salt that is known this well is not tasted before it is bound.
    unsure_salt: float = _figure(0.08, "points of salt", "modelling choice")
    #: Salt that nobody tasted is unknown from this error on: nothing is planned before it was tasted.
    salt_unknown: float = _figure(0.06, "points of salt", "modelling choice", guard=True)

    # -- amount ---------------------------------------------------------------------------------------

    #: Liquid below both of these is not worth stirring in; in a small pot less counts, by the teaspoon.
    least_liquid_ml: float = _figure(15.0, "mL", "common practice")
    least_liquid_share: float = _figure(0.02, "share of the pot", "common practice")
    small_pot_share: float = _figure(0.04, "share of the pot", "modelling choice")
    #: Short by less than this is what was wanted.
    short_share: float = _figure(0.04, "share of the amount", "modelling choice")
    #: After so much simmering, or known worse than this, the amount is measured once before it is salted.
    waited_min: float = _figure(12.0, "min", "study")
    unsure_share: float = _figure(0.05, "share of the pot", "study")
    #: More than this is not poured through a separator jug.
    most_in_a_jug_ml: float = _figure(2000.0, "mL", "modelling choice")

    # -- body -----------------------------------------------------------------------------------------

    #: A body of which this is sure is not asked for again, by one spoon that calls it right and by two in a row.
    sure: float = _figure(0.9, "chance", "study")
    agreed: float = _figure(0.85, "chance", "study")
    #: So many in a row that call it right end it, whatever the ledger says.
    most_rights: int = _figure(3, "spoonfuls", "modelling choice")
    #: One spoon that says otherwise than those before it is asked again, where all together this is sure.
    dissent: float = _figure(0.75, "chance", "study")
    #: A body of which this much is sure may be it already.
    may_be: float = _figure(0.3, "chance", "study")
    #: A helping of thickener leaves at most this chance of too thick: the first, the second, and all that follow.
    risks: tuple[float, ...] = _figure((0.3, 0.45, 0.5), "chance", "study")
    #: A helping after the first leaves at most this chance of a full step too thick.
    leap_risk: float = _figure(0.03, "chance", "study")
    #: Liquid stirred in leaves at most this chance of too thin, and is this share of what is missing.
    thin_risk: float = _figure(0.15, "chance", "study")
    thin_share: float = _figure(0.6, "share", "common practice")
    #: A first helping of less than this share of the usual one waits for a spoon.
    least_first: float = _figure(0.4, "share", "study")
    #: Too thin once is asked again where it is right with more than this chance: a helping cannot be taken out.
    doubt: float = _figure(0.2, "chance", "study")
    #: A sauce that is right by one spoon, and so far too thin by everything else, gets a little more.
    leans: float = _figure(0.15, "steps of the ladder", "study")
    #: The spoon is asked so often at one content; then the ledger decides.
    most_spoons: int = _figure(5, "spoonfuls", "study")
    #: After so many in all nobody is asked for another: it is as it is.
    most_spoons_in_all: int = _figure(20, "spoonfuls", "modelling choice", guard=True)
    #: Thickener to prepare for what is worked out.
    prepared: float = _figure(1.1, "times", "common practice")
    #: Dry thickener below this is too small to say; in a small pot less counts, by the quarter teaspoon.
    least_dry_g: float = _figure(1.0, "g", "common practice")
    least_dry_share: float = _figure(0.003, "share of the pot", "modelling choice")
    #: Dry thickener is never more than this.
    most_dry_share: float = _figure(0.15, "share of the pot", "modelling choice", guard=True)
    #: A helping after the first is at least this share of the flour that is in already: about a quarter of a step.
    least_dose_share: float = _figure(0.06, "share", "study")

    # -- salt -----------------------------------------------------------------------------------------

    #: Salt this close to what is liked is what is liked.
    close_salt: float = _figure(0.12, "points of salt", "study")
    #: So sure of that is sure enough.
    sure_salt: float = _figure(0.7, "chance", "study")
    #: Less than this is not worth a change.
    worth_salt: float = _figure(0.07, "points of salt", "study")
    #: Salt that differs by less is not noticed (Weber fraction).
    least_salt_share: float = _figure(0.08, "share of the salt", "from memory")
    #: Less salt than this is too small to say.
    least_salt_g: float = _figure(0.3, "g", "common practice")
    #: Of what is missing this goes in first, and of what the tongue misses that.
    first_salt: float = _figure(0.75, "share", "common practice")
    more_salt: float = _figure(0.75, "share", "study")
    #: Of the water that too much salt would need so much is ordered by a word at the start, a taste, and two tastes:
    #: what is poured in cannot be taken out.
    water_by_tastes: tuple[float, ...] = _figure((0.35, 0.5, 0.7), "share", "study")
    #: The tongue is asked so often at one content; then the ledger decides.
    most_tastes: int = _figure(3, "tastes", "study")


#: The judgement that the app speaks by.
JUDGEMENT = Judgement()
