"""The first choice, over a grid of pots and wishes: ``python -m tests.golden.choices`` writes the table anew.

A cook can read it line by line: what is in the pot, what is wanted, the first card, its figures and its sentence, and
the card after it. ``tests/core/test_choices.py`` holds the app to it, and to what must be true of all of it.
"""

from __future__ import annotations

import csv
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from spissus_core.errors import SpissusError
from spissus_core.intake.liquid import LIQUIDS
from spissus_core.ledger.contents import from_composition
from spissus_core.measuring.vessels import Pan
from spissus_core.phenomena.heating import Burner
from spissus_core.phenomena.strength import strength_of
from spissus_core.planning.because import because, instead
from spissus_core.planning.proposing import solve_routes
from spissus_core.planning.solving import Route
from spissus_core.pot import Pot
from spissus_core.wish import Wish

from tests.makers import in_words

KEPT = Path(__file__).with_name("choices.csv")

#: What is strained, mL, with the pan, cm, and the burner, kW into the pot, that a home cook boils so much on.
SIZES = {300.0: (140, 0.7), 700.0: (200, 1.0), 1500.0: (240, 1.5), 4000.0: (280, 2.0)}

#: Salt of what is strained, %; what it is; how thick the sauce is to be, and what that is poured over.
SALTS = (0.3, 0.6, 0.9, 1.3)
KINDS = tuple(LIQUIDS)
BODIES = {"jus": (1, "plate"), "nappe": (3, "mash"), "gravy": (4, "bread")}

#: For how many; and what else is told in place of that: half of it.
PEOPLE = (2, 4, 10)


@dataclass(frozen=True)
class Choice:
    """One line of the grid; ``people`` is None where half is told."""

    liquid_ml: float
    salt_percent: float
    kind: str
    body: str
    people: int | None

    @cached_property
    def pot(self) -> Pot:
        """The skimmed liquid in its pan, measured by weight, its salt by a meter."""
        across, kw = SIZES[self.liquid_ml]
        contents = from_composition(self.liquid_ml, {**LIQUIDS[self.kind], "salt": self.salt_percent})
        known = 0.04 / 100.0 * contents.liquid_g
        return Pot(
            contents=contents,
            pan=Pan.round(f"{across // 10} cm pan", across, 0.55 * across, empty_g=1200),
            burner=Burner(name="burner", net_kw=kw),
            hot=True,
            salt_minus=known,
            salt_plus=known,
            measured_by="scale",
            error_ml=3.0,
        )

    @cached_property
    def wish(self) -> Wish:
        step, dish = BODIES[self.body]
        return Wish(share=0.5, body=step) if self.people is None else Wish(people=self.people, over=dish, body=step)

    @cached_property
    def ways(self) -> tuple[Route, ...]:
        """The cards, the first one first; none where so much sauce cannot be had."""
        try:
            return tuple(way for way in solve_routes(self.pot, self.wish) if way.feasible)
        except SpissusError:
            return ()

    @property
    def line(self) -> dict[str, str]:
        """The line of the table."""
        asked = {
            "strained mL": f"{self.liquid_ml:.0f}",
            "salt %": f"{self.salt_percent}",
            "liquid": self.kind,
            "wanted": self.body,
            "for": "told: half" if self.people is None else f"{self.people}",
        }
        if not self.ways:
            return asked | {"first card": "so much cannot be had of it"}
        first, second = self.ways[0], self.ways[1] if len(self.ways) > 1 else None
        strength = first.final.strength_percent
        return asked | {
            "first card": in_words(first.label),
            "aside mL": _or_nothing(first.aside_ml),
            "boil to mL": _or_nothing(first.boil_to_ml if first.steam_g > 1.0 else 0.0),
            "min": _or_nothing(first.minutes.best),
            "stir in mL": _or_nothing(first.let_down_ml),
            "keep mL": _or_nothing(first.parted_ml),
            "thickener g": _or_nothing(first.dry_g),
            "makes mL": f"{first.volume_ml:.0f}",
            "salt before %": f"{first.salt_before.best:.2f}",
            "body": first.body.step.word,
            "strength %": f"{strength:.1f}",
            "tastes": strength_of(strength).word,
            "why": in_words(because(self.pot, self.wish.of(self.pot), first)),
            "the next": in_words(instead(second)) if second else "",
        }


def _or_nothing(figure: float) -> str:
    return f"{figure:.0f}" if figure >= 0.5 else ""


def grid() -> Iterator[Choice]:
    """Every line, in order."""
    for liquid_ml in SIZES:
        for salt in SALTS:
            for kind in KINDS:
                for body in BODIES:
                    for people in (*PEOPLE, None):
                        yield Choice(liquid_ml, salt, kind, body, people)


def table() -> list[dict[str, str]]:
    """The lines of the grid as they are written."""
    return [choice.line for choice in grid()]


def main() -> None:
    """Write the table anew."""
    lines = table()
    with KEPT.open("w", newline="") as file:
        writer = csv.DictWriter(file, max(lines, key=len).keys(), lineterminator="\n")
        writer.writeheader()
        writer.writerows(lines)


if __name__ == "__main__":
    main()
