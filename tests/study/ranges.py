"""The ranges of a list against a Monte Carlo of the same balance, under five covers.

Each uncertain figure is drawn from a normal distribution in two halves, each as wide as its side of the 80 %
interval; the ends of an interval are to be the 10th and the 90th percentile, within a tenth (JCGM 101).
"""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
from makers import PAN, listed
from spissus_core.amounts.estimate import Z80, Estimate
from spissus_core.intake import balance as model
from spissus_core.intake.estimated import IN_PERCENT, estimate
from spissus_core.pantry.ingredients import SOLIDS

#: A braise with a bit of everything that is uncertain.
LIST = (
    "1.2 kg pork cheek\n300 g duck leg\n2 tsp salt\n2 onions\n2 carrots\n1.5 l chicken stock\n"
    "1 bottle dry cider (750 ml)\n2 heaped tbsp flour, dredged\n2 tbsp tomato paste"
)
COVERS = (("tight", "oven"), ("ajar", "oven"), ("paper", "oven"), ("open", "oven"), ("open", "stove"))
DRAWS = 20_000
RESULT = Path(__file__).with_suffix(".json")


def ends(cover: str, heat: str, draws: int) -> dict[str, tuple[Estimate, float, float]]:
    """Each figure's interval by the balance, and the two percentiles by as many draws."""
    braise = listed(LIST, cover=cover, heat=heat, hours=2.5)
    found = estimate(braise, PAN)
    poured = tuple(
        model.Poured(line, model.as_poured(line)) for line in braise.counted if line.what.group not in SOLIDS
    )
    names = [*model.LEANS, *(f"line {place}" for place, line in enumerate(braise.lines) if line.spread)]
    rng = np.random.default_rng(20261126)
    drawn: dict[str, list[float]] = {name: [] for name in ("liquid", "salt", "gelatin", "acid", "fat")}
    for leans in rng.normal(scale=1.0 / Z80, size=(draws, len(names))):
        contents = model.balance(braise, poured, PAN, dict(zip(names, leans, strict=True)), None).contents
        drawn["liquid"].append(contents.liquid_ml)
        drawn["fat"].append(contents.fat_free)
        for name, masses in IN_PERCENT.items():
            drawn[name].append(100.0 * sum(getattr(contents, mass) for mass in masses) / contents.liquid_g)
    # The estimate takes the alcohol that has left off the volume; the draws of the balance do not.
    liquid = found.liquid_ml.scaled(
        float(model.balance(braise, poured, PAN, {}, None).contents.liquid_ml / found.liquid_ml.best)
    )
    told = {"liquid": liquid, "fat": found.ranges["fat_free"], **found.percent}
    return {name: (told[name], *map(float, np.percentile(values, (10, 90)))) for name, values in drawn.items()}


def main() -> None:
    """All five covers with all draws; the result is kept."""
    out = {
        f"{cover}, {heat}": {
            name: {"told": [round(told.low, 4), round(told.high, 4)], "drawn": [round(low, 4), round(high, 4)]}
            for name, (told, low, high) in ends(cover, heat, DRAWS).items()
        }
        for cover, heat in COVERS
    }
    RESULT.write_text(json.dumps({"draws": DRAWS, "ends": out}, indent=1) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
