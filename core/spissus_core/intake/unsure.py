"""Which doubt of a list is asked before its first figure: one that may be half of the salt."""

from __future__ import annotations

from collections.abc import Collection, Sequence

from ..pantry.ingredients import Ingredient, ingredient
from .braise import Line
from .how_much import grams_of
from .lines import Choice, read_line

#: A doubt that may be this share of all the salt is asked first, unless it is less than so much, g. Modelling choices.
MOST_OF_THE_SALT, LEAST_SALT_G = 0.5, 1.0


def asked_first(lines: Sequence[Line], unsure: Collection[int], own: Sequence[Ingredient] = ()) -> Line | None:
    """The line of a list whose doubt weighs most on its salt; None where none may be half of it.

    Parameters
    ----------
    lines : the list as it is kept.
    unsure : places of the lines whose doubt nobody has answered.
    own : the kitchen's own ingredients.
    """
    spans = [_salt_span_g(line, own) if place in unsure else (_salt_g(line),) * 2 for place, line in enumerate(lines)]
    all_g = sum(high for _, high in spans)
    apart, place = max(((high - low, place) for place, (low, high) in enumerate(spans)), default=(0.0, 0))
    return lines[place] if apart >= max(MOST_OF_THE_SALT * all_g, LEAST_SALT_G) else None


def _salt_g(line: Line) -> float:
    return line.what.portion(line.grams).salt if line.counts else 0.0


def _salt_span_g(line: Line, own: Sequence[Ingredient]) -> tuple[float, float]:
    """The least and the most salt that a line may mean, g."""
    choices = [choice for read in read_line(line.text, own) for choice in read.choices]
    found = [_salt_g(line), *(_choice_g(choice, own) for choice in choices)]
    return min(found), max(found)


def _choice_g(choice: Choice, own: Sequence[Ingredient]) -> float:
    meant = next((one for one in own if one.key == choice.ingredient), None)
    if meant is None and choice.ingredient is not None:
        meant = ingredient(choice.ingredient)
    return sum(
        one.ingredient.portion(grams_of(one.amount, one.ingredient)).salt
        for one in read_line(choice.text, own, meant)
        if one.ingredient is not None and one.amount is not None
    )
