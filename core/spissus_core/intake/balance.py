"""From what went into a braise to what is in its strained liquid.

The model is a balance. Liquids go in whole; meat and vegetables give juice, fat, gelatin and sugar;
the salt of all of them shares itself out between the liquid and what stays in the sieve; vapour
leaves; the sieve holds some back. What is measured afterwards takes the place of what was estimated.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, fields, replace
from types import MappingProxyType

from ..amounts.estimate import Estimate
from ..amounts.tables import span, table
from ..ledger.contents import Contents
from ..measuring.vessels import Pan
from ..pantry.ingredients import SOLIDS, Ingredient
from ..phenomena.alcohol import (
    ADDED_AND_OFF_THE_HEAT,
    FLAMED,
    UPPER_BOUND,
    ethanol_left,
)
from ..phenomena.evaporation import COVERS, boiled_to_volume, oven_rate_g_min, simmering_rate_g_min
from .braise import Braise, Level, Line

_E = Estimate


@dataclass(frozen=True, slots=True)
class Yield:
    """What a cut gives to the liquid, g per 100 g raw."""

    fat: Estimate
    gelatin: Estimate
    juice: Estimate


#: Wide: rows of ``data/cuts.csv``.
CUTS: Mapping[str, Yield] = table(
    "cuts", lambda row: Yield(fat=span(row, "fat"), gelatin=span(row, "gelatin"), juice=span(row, "juice"))
)

#: Trimmed hard, meat gives this share of the fat. Modelling choice.
TRIMMED = 0.55

#: Cooked meat weighs this share of raw, and this share of that is water (modelling choice).
MEAT_LEFT, MEAT_WATER = 0.65, 0.57

#: Vegetables and fruit weigh this share of raw when cooked; what is dry swells until it holds this share of water.
GREENS_LEFT, SWOLLEN_WATER = _E(0.75, 0.80, 0.85), 0.60

#: What holds less water than this drinks, g per 100 g. Modelling choice.
DRY_BELOW = 40.0

#: Solubles of meat juice, and water in a millilitre of strained liquid, g/g and g/mL. Modelling choices.
JUICE_OTHER, WATER_OF_LIQUID = 0.02, 0.94

#: How far meat has come to the liquid's salt: 0.3 to 1, about half for 5 cm pieces and 3 h (modelling choice).
EXCHANGE = MappingProxyType({"large": _E(0.3, 0.5, 0.9), "small": _E(0.8, 0.93, 1.0)})
GREENS_EXCHANGE = _E(0.6, 0.85, 1.0)

#: Share of the meat that the liquid reaches. Modelling choice.
REACHED: Mapping[Level, float] = MappingProxyType({"submerged": 1.0, "nearly": 0.9, "half_way": 0.7})

#: Of the flour that is measured for dredging about three quarters stick to the meat, and a third of those reach the
#: liquid (common practice: a third of what is on the meat); of rubbed salt so much stays in a poured-off pan.
DREDGED, LOST_IN_PAN = _E(0.10, 0.25, 0.45), _E(0.0, 0.04, 0.10)


@dataclass(frozen=True, slots=True)
class Sieve:
    """A way to strain: liquid held back per weight of cooked solids, and share of soft pulp that passes."""

    label: str
    holds_back: Estimate
    pulp: Estimate


#: Rows of ``data/sieves.csv``.
SIEVES: Mapping[str, Sieve] = table(
    "sieves", lambda row: Sieve(row["label"], span(row, "holds_back"), span(row, "pulp"))
)

#: The figures that are leaned to either end.
LEANS = ("juice", "render", "gelatin", "exchange", "greens", "greens_left", "dredged", "lost", "loss", "sieve", "pulp")


@dataclass(frozen=True, slots=True)
class Poured:
    """A liquid line after what was done with it before the braise."""

    line: Line
    contents: Contents


@dataclass(frozen=True, slots=True, kw_only=True)
class Balance:
    """One working-out of the model: what is in the strained liquid, and the steps to it.

    ``brought`` is what each liquid line brings, ``rendered`` the fat and ``melted`` the gelatin of each cut, g;
    ``given`` the share of their own that vegetables give to the liquid, ``greens`` what they hold, ``passes`` the share
    of the liquid that passes the sieve.
    """

    contents: Contents
    water_in: float
    takes_up: float
    loss_g: float
    held_g: float
    share: float
    passes: float
    salt_total: float
    salt_lost: float
    meat_salt: float
    juice_g: float
    given: float
    greens: Contents
    brought: tuple[tuple[Line, Contents], ...]
    rendered: tuple[tuple[Line, float], ...]
    melted: tuple[tuple[Line, float], ...]


#: However much it is thought to have lost, this share of its water is left in a pot that is strained; and of an
#: amount that was told, at least this. Modelling choices.
LEAST_OF_WATER, LEAST_OF_AN_AMOUNT = 0.05, 0.05

#: However much the solids hold, this share of the liquid passes the sieve. Modelling choice.
LEAST_PASSES = 0.3

#: Boiled down to less than this share, a liquid is syrup or burnt. Modelling choice.
LEAST_LEFT = 0.05

#: A pot is braised in at this share of its height. Modelling choice.
BRAISED_AT = 0.6


def as_poured(line: Line) -> Contents:
    """What a line brings after what was done with it: boiled down, set alight, poured off."""
    contents = line.what.portion(line.grams)
    if line.use == "reduced" and line.left is not None and line.left < 1.0:
        return boiled_to_volume(contents, max(line.left * contents.liquid_ml, contents.liquid_ml * LEAST_LEFT))
    if line.use == "flamed":
        return contents.with_masses(ethanol=FLAMED * contents.ethanol)
    if line.use == "late":
        return contents.with_masses(ethanol=ADDED_AND_OFF_THE_HEAT * contents.ethanol)
    if line.use == "fried":
        left = 1.0 - line.poured_off
        if line.what.group in ("fat", "dairy"):
            # Butter melts and spits its water out in the pan: its fat floats like any other.
            left_in = contents.scaled(left)
            fat_g = left_in.fat_free + left_in.fat_emulsified
            return left_in.with_masses(fat_free=fat_g, fat_emulsified=0.0)
        return contents.with_masses(fat_free=contents.fat_free * left)
    return contents


@dataclass(frozen=True, slots=True)
class _Solids:
    """What stays in the sieve, and what it gave to the liquid before, g.

    ``greens`` is all that vegetables, fruit and pulses hold; ``takes_up`` the water that what was dry
    drank.
    """

    meat: float = 0.0
    meat_water: float = 0.0
    meat_juice: float = 0.0
    wilted: float = 0.0
    greens_water: float = 0.0
    greens_juice: float = 0.0
    fat: float = 0.0
    gelatin: float = 0.0
    meat_salt: float = 0.0
    takes_up: float = 0.0
    greens: Contents = field(default_factory=Contents)
    rendered: tuple[tuple[Line, float], ...] = ()
    melted: tuple[tuple[Line, float], ...] = ()


class _Leaning:
    """The uncertain figures of one working-out."""

    def __init__(self, braise: Braise, lean: Mapping[str, float]) -> None:
        self._lean = lean
        self._amounts = {
            id(line): max(1.0 + line.spread * lean.get(f"line {i}", 0.0), LEAST_OF_AN_AMOUNT)
            for i, line in enumerate(braise.lines)
        }

    def of(self, name: str, estimate: Estimate) -> float:
        """The figure as far from its best value as it leans: by 1 to one end of its interval, by −1 to the other."""
        lean = self._lean.get(name, 0.0)
        far = estimate.high - estimate.best if lean > 0.0 else estimate.best - estimate.low
        return max(estimate.best + lean * far, 0.0)

    def amount(self, line: Line) -> float:
        """Factor on the amount of a line."""
        return self._amounts[id(line)]


def _solids(braise: Braise, at: _Leaning) -> _Solids:
    sums = {f.name: 0.0 for f in fields(_Solids) if f.type == "float"}
    greens, fats, gelatins = Contents(), [], []
    for line in braise.counted:
        what, raw = line.what, line.grams * at.amount(line)
        if what.group not in SOLIDS:
            continue
        if what.cut:
            cut = CUTS[what.cut]
            # A cut gives no more fat than it holds.
            rendered = min(at.of("render", cut.fat), what.fat or 100.0) * (TRIMMED if braise.trimmed else 1.0)
            given = {
                "meat": MEAT_LEFT * raw,
                "meat_water": MEAT_LEFT * MEAT_WATER * raw,
                "fat": rendered * raw / 100.0,
                "meat_juice": at.of("juice", cut.juice) * raw / 100.0,
                "meat_salt": what.salt * raw / 100.0,
                "gelatin": at.of("gelatin", cut.gelatin) * raw / 100.0,
            }
            fats.append((line, given["fat"]))
            gelatins.append((line, given["gelatin"]))
        else:
            own = what.portion(raw)
            greens += own
            given = _swollen(what, raw) if what.water < DRY_BELOW else _wilted(own, at.of("greens_left", GREENS_LEFT))
        for name, grams in given.items():
            sums[name] += grams
    return _Solids(**sums, greens=greens, rendered=tuple(fats), melted=tuple(gelatins))


def _swollen(what: Ingredient, raw: float) -> dict[str, float]:
    """Dry pulses, grains and fruit drink until they hold their share of water."""
    swollen = raw * (1.0 - what.water / 100.0) / (1.0 - SWOLLEN_WATER)
    return {"wilted": swollen, "greens_water": swollen * SWOLLEN_WATER, "takes_up": max(swollen - raw, 0.0)}


def _wilted(own: Contents, left: float) -> dict[str, float]:
    """Fresh vegetables and fruit keep a share of themselves and give the rest of their water."""
    return {"wilted": own.mass_g * left, "greens_water": own.water * left, "greens_juice": own.water * (1.0 - left)}


def balance(
    braise: Braise, poured: Sequence[Poured], pan: Pan, lean: Mapping[str, float], liquid_ml: float | None
) -> Balance:
    """One working-out of the model.

    Parameters
    ----------
    braise : how it was cooked and strained, and its solids.
    poured : its liquid lines, after what was done with them before.
    pan : the pot it cooked in.
    lean : how far each of :data:`LEANS`, and each ``line <place>``, lies from its best value, in halves of its 80 %
        interval.
    liquid_ml : the strained liquid as measured, mL; None to work it out.
    """
    at, sieve = _Leaning(braise, lean), SIEVES[braise.strain]
    total, rubbed, brought = Contents(), 0.0, []
    for one in poured:
        dredged = at.of("dredged", DREDGED) if one.line.use == "dredged" else 1.0
        contents = one.contents.scaled(at.amount(one.line) * dredged)
        rubbed += contents.salt if one.line.use == "rubbed" else 0.0
        total += contents
        brought.append((one.line, contents))
    solids = _solids(braise, at)
    greens, given = solids.greens, None
    soft = braise.strain in ("milled", "not_strained")
    if soft:
        # The soft solids go through with everything they hold.
        total += greens
        given = 0.0
        solids = replace(solids, wilted=0.0, greens_water=0.0, greens_juice=0.0)
    water_in = total.water
    juice = solids.meat_juice + solids.greens_juice
    thrown = any(line.use == "fried" and line.poured_off > 0.0 for line in braise.counted)
    lost = at.of("lost", LOST_IN_PAN) * rubbed if thrown else 0.0
    loss, held = at.of("loss", _loss(braise, pan)), at.of("sieve", sieve.holds_back) * (solids.meat + solids.wilted)
    water = total.water + juice - solids.takes_up - loss
    if liquid_ml is not None:
        water = max(liquid_ml * WATER_OF_LIQUID, 1.0) + held
        loss = total.water + juice - solids.takes_up - water
    # Nobody strains a pot that has boiled dry.
    water = max(water, LEAST_OF_WATER * (total.water + juice), 1.0)
    reach = at.of("exchange", EXCHANGE["small" if braise.overnight else braise.pieces]) * REACHED[braise.level]
    share = water / (water + reach * solids.meat_water + solids.greens_water)
    if given is None:
        given = at.of("greens", GREENS_EXCHANGE) * water / (water + solids.greens_water)
    salt = total.salt + solids.meat_salt + (greens.salt if given else 0.0) - lost
    passes = max(water - held, LEAST_PASSES * water) / water
    contents = Contents(
        water=water,
        ethanol=total.ethanol,
        salt=share * salt,
        sugar=total.sugar + given * greens.sugar,
        acid=total.acid + given * greens.acid,
        acetic=total.acetic + given * greens.acetic,
        gelatin=total.gelatin + solids.gelatin,
        other=total.other + given * greens.other + JUICE_OTHER * juice,
        fat_emulsified=total.fat_emulsified,
        bitter=total.bitter,
        starch=total.starch,
    ).scaled(passes)
    contents = contents.with_masses(fat_free=total.fat_free + solids.fat, pulp=at.of("pulp", sieve.pulp) * total.pulp)
    return Balance(
        contents=contents,
        water_in=water_in,
        takes_up=solids.takes_up,
        loss_g=loss,
        held_g=held,
        share=share,
        passes=passes,
        salt_total=salt,
        salt_lost=lost,
        meat_salt=solids.meat_salt,
        juice_g=juice,
        given=1.0 if soft else given,
        greens=greens,
        brought=tuple(brought),
        rendered=solids.rendered,
        melted=solids.melted,
    )


def _loss(braise: Braise, pan: Pan) -> Estimate:
    """Vapour lost while braising, g: the open pot's, times what the cover lets out."""
    surface = pan.area_mm2(pan.height_mm * BRAISED_AT)
    if braise.heat == "oven":
        wall = math.pi * math.sqrt(4.0 * surface / math.pi) * pan.height_mm
        rate = oven_rate_g_min(2.0 * surface + wall, braise.oven_c)
    else:
        rate = simmering_rate_g_min(surface)
    return rate.times(COVERS[braise.cover].share).scaled(60.0 * braise.hours)


def most_left(poured: Poured) -> float:
    """Upper bound of the alcohol that boiling a line down first has left, g."""
    before = poured.line.what.portion(poured.line.grams)
    return ethanol_left(before.ethanol, before.water, poured.contents.water, volatility=UPPER_BOUND)
