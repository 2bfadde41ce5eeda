"""Thickeners: how strong each is, what carries it into the pot, and how to handle it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Literal

from ..amounts.quantities import ML_PER_TBSP
from ..ledger.contents import Contents

ThickenerKind = Literal["white_roux", "blond_roux", "corn_starch"]

#: Share of the estimated thickener to whisk in first; the rest follows by the spoon (common practice).
FIRST_SHARE = 0.6


@dataclass(frozen=True, slots=True)
class Thickener:
    """A way to bind.

    ``strength`` is against plain flour by mass (common practice). One gram of dry thickener goes in
    with ``fat_per_g`` g of fat and ``water_per_g`` g of cold liquid. ``tbsp_g`` is one level US
    tablespoon of the dry thickener, g.
    """

    kind: ThickenerKind
    label: str
    dry: str
    strength: float
    fat_per_g: float
    water_per_g: float
    tbsp_g: float
    wait_min: tuple[int, int]
    how: str
    allergens: tuple[str, ...] = ()

    def added(self, dry_g: float) -> Contents:
        """What ``dry_g`` g of thickener with its carrier bring into the pot."""
        return Contents(
            water=dry_g * self.water_per_g,
            fat_emulsified=dry_g * self.fat_per_g,
            starch=MappingProxyType({self.kind: dry_g}),
        )

    def spoon_ml(self, dry_g: float) -> float:
        """The dry thickener as a level volume, mL."""
        return dry_g / self.tbsp_g * ML_PER_TBSP


def _slurry_water_per_g(tbsp_g: float) -> float:
    """Cold water for a slurry of one part of starch to two of water by volume, g per g of starch."""
    return 2.0 * ML_PER_TBSP / tbsp_g


#: Spoon weights: USDA household weights of flour (125 g a cup) and corn starch (128 g a cup).
THICKENERS: Mapping[str, Thickener] = MappingProxyType(
    {
        "white_roux": Thickener(
            "white_roux", "white roux", "flour", 1.0, 1.0, 0.0, 125 / 16, (5, 10),
            "Equal weights of fat and flour, cooked 2–3 min until it looks like damp sand. "
            "Simmer 10 min to lose the raw taste.", ("gluten",),
        ),
        "blond_roux": Thickener(
            "blond_roux", "blond roux", "flour", 0.9, 1.0, 0.0, 125 / 16, (5, 10),
            "Equal weights of fat and flour, cooked about 5 min to the colour of straw. "
            "Simmer 10 min to lose the raw taste.", ("gluten",),
        ),
        "corn_starch": Thickener(
            "corn_starch", "corn starch slurry", "corn starch", 2.0, 0.0, _slurry_water_per_g(128 / 16), 128 / 16,
            (1, 2), "One part of starch to two of cold water by volume. Stir before pouring; boil 1 min.",
        ),
    }
)  # fmt: skip


def flour_equivalent_g(starch: Mapping[str, float]) -> float:
    """Plain flour with the strength of the thickeners in the pot, g."""
    return sum((grams * THICKENERS[kind].strength for kind, grams in starch.items()), 0.0)
