"""By what a good cook's judgement is weighed here: one frozen table, passed to whatever weighs acts or ways.

Each figure has its meaning, its unit and its source. Where the source is the study, it was found by turning it on the
evenings of an obedient cook; ``./spissus study judgement`` turns them all. A guard holds what no evening of the study
contains; to turn it would say nothing.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any, Literal

from ..phenomena.palate import LIKED

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
    #: So sour a sauce may get by boiling, and so sour where sugar, fat and gelatin cover it.
    sour_percent: float = _figure(LIKED["sour"].bare, "g in 100 g", "common practice")
    sour_covered_percent: float = _figure(LIKED["sour"].covered, "g in 100 g", "from memory")
    #: And so bitter of hops: what a bitter beer has, or a stout where they are covered.
    bitter_percent: float = _figure(LIKED["bitter"].bare, "g in 100 g", "modelling choice")
    bitter_covered_percent: float = _figure(LIKED["bitter"].covered, "g in 100 g", "modelling choice")
    #: Nor is a thin liquid boiled down to more than so many times what it was.
    most_times: float = _figure(2.5, "times the strength", "from memory")
    #: So much too thin a jus may be that begins without starch; thinner it is bound a little.
    thinner_jus: float = _figure(0.6, "steps of the ladder", "modelling choice")
    #: Let down to less than this nothing is stretched to an amount: there is less of it then.
    least_stretched_percent: float = _figure(3.0, "g in 100 g", "from memory")
    #: More than so many times what is wanted is another meal, which is kept before the rest is bound, or stretched.
    more_meals: float = _figure(1.5, "times the amount", "common practice")
    #: Boiled down to its mark a pot may come to so many times what is wanted before only a part of it is taken.
    most_meals: float = _figure(5.0, "times the amount", "common practice")
    #: Longer than this nobody boils where no time was told.
    most_boiling_min: float = _figure(40.0, "min", "common practice")
    #: Less than this is not worth boiling away: it is there.
    least_boiled: float = _figure(0.12, "share of the pot", "modelling choice")
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
    #: below the aim: what is missing then the spoon says.
    salt_slack: float = _figure(0.1, "points of salt", "modelling choice")
    amount_slack: float = _figure(0.95, "share of the amount", "modelling choice", guard=True)
    enough_body: float = _figure(0.5, "steps of the ladder", "common practice")
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

    # -- body and salt: one expected loss -------------------------------------------------------------

    #: One fault: a body so far off, a salt so far off, or so much water in the pot are as bad as each other.
    body_fault: float = _figure(0.5, "steps of the ladder", "common practice")
    salt_fault: float = _figure(0.15, "points of salt", "common practice")
    watered_fault: float = _figure(0.33, "share of the pot", "study")
    #: Up to so many a fault counts by its square, beyond them in proportion.
    proportional_from: float = _figure(2.0, "faults", "modelling choice")
    #: What it costs to look at two spoonfuls or to taste twice, to stir in a helping, to salt, and to wait a minute.
    a_look: float = _figure(0.04, "faults", "study")
    a_helping: float = _figure(0.1, "faults", "study")
    a_pinch: float = _figure(0.06, "faults", "study")
    a_minute: float = _figure(0.01, "faults", "study")
    #: What goes in is found wanting by so many looks, and by what they never tell.
    looks_again: float = _figure(3.0, "looks", "modelling choice")
    never_known: float = _figure(0.3, "faults", "study")
    #: A helping, or a pinch, puts so much right.
    a_helping_mends: float = _figure(2.0, "faults", "modelling choice")
    #: A quarter of a pot in water thins it by a step.
    water_a_step: float = _figure(0.25, "share of the pot", "common practice")

    # -- body -----------------------------------------------------------------------------------------

    #: Nobody looks at an unbound liquid that is too thin with such a chance.
    surely_thin: float = _figure(0.9, "chance", "common practice")
    #: The spoon is asked so often at one content; then it is done, or left, by what is known.
    most_spoons: int = _figure(5, "spoonfuls", "study")
    #: After so many in all nobody is asked for another: it is as it is.
    most_spoons_in_all: int = _figure(24, "spoonfuls", "modelling choice", guard=True)
    #: What binds less than this, by its spoons, was not boiled, is old, or is another thing: a cook asks.
    binds_weakly: float = _figure(0.65, "times what the tables say", "common practice")
    #: Thickener to prepare for what is worked out.
    prepared: float = _figure(1.1, "times", "common practice")
    #: Dry thickener below this is too small to say; in a small pot less counts, by the quarter teaspoon.
    least_dry_g: float = _figure(1.0, "g", "common practice")
    least_dry_share: float = _figure(0.003, "share of the pot", "modelling choice")
    #: Nobody sees less than this: so little water is not poured in.
    least_step: float = _figure(0.2, "steps of the ladder", "common practice")
    #: A helping after the first is at least this share of the flour that is in already: about a quarter of a step.
    least_dose_share: float = _figure(0.06, "share", "study")

    # -- salt -----------------------------------------------------------------------------------------

    #: Salt this close to what is liked is what is liked.
    close_salt: float = _figure(0.12, "points of salt", "study")
    #: Boiled to a salt content that only words stand for, it is tasted at every look, so often.
    most_on_the_way: int = _figure(4, "tastes", "study")
    #: With more than this chance of too much salt it is tasted before it is bound: what is let down is not bound twice.
    may_be_salty: float = _figure(0.3, "chance", "study")
    #: Salt that differs by less is not noticed (Weber fraction).
    least_salt_share: float = _figure(0.08, "share of the salt", "from memory")
    #: Less salt than this is too small to say.
    least_salt_g: float = _figure(0.3, "g", "common practice")
    #: Of what is missing at most this goes in before anybody tasted.
    first_salt: float = _figure(0.75, "share", "common practice")
    #: Of the water that too much salt would need so much is ordered by a word at the start, a taste, and two tastes:
    #: what is poured in cannot be taken out.
    water_by_tastes: tuple[float, ...] = _figure((0.35, 0.5, 0.7), "share", "study")
    #: The tongue is asked so often at one content; then it is done, or left, by what is known.
    most_tastes: int = _figure(2, "tastes", "study")


#: The judgement that the app speaks by.
JUDGEMENT = Judgement()
