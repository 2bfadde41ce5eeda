"""From what went into a braise to what is in its strained liquid.

The model is a balance. Liquids go in whole; meat and vegetables give juice, fat, gelatin and sugar;
the salt of all of them shares itself out between the liquid and what stays in the sieve; vapour
leaves; the sieve holds some back. What is measured afterwards takes the place of what was estimated.

Spreads follow the guide to the expression of uncertainty in measurement (JCGM 100): the balance is
worked out again with each uncertain figure at the ends of its range, and the differences are added
in quadrature.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, fields, replace
from types import MappingProxyType
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from ..amounts.estimate import Estimate
from ..amounts.fields import Celsius, Hours, MassG, Remark, VolumeMl
from ..amounts.quantities import show_mass, show_number, show_percent, show_plain, show_volume
from ..amounts.tables import one_of, span, table
from ..errors import QuantityError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from ..measuring.vessels import Pan
from ..messages import Argument, Message, Reason, Shown, Term, say, sentences
from ..pantry.ingredients import SOLIDS, Ingredient, ingredient, kept_whole
from ..phenomena.alcohol import (
    ADDED_AND_OFF_THE_HEAT,
    FLAMED,
    UPPER_BOUND,
    AlcoholLeft,
    ethanol_left,
    left_by_table,
    left_by_vapour,
    strength_percent,
)
from ..phenomena.evaporation import COVERS, Cover, boiled_to_volume, oven_rate_g_min, simmering_rate_g_min
from .doings import Use
from .lines import MOST_LINES, ReadLine

# -- what is said ---------------------------------------------------------------------------------


class _Said(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class Line(_Said):
    """Something that went in: an ingredient of the catalogue or of the kitchen's own, and how much.

    ``spread`` is how far the amount may be off, as a share. ``left`` is the share of it left where it
    was boiled down first; ``poured_off`` the share of a frying fat that was thrown away. A line that
    was left out, or names nothing known, is kept for what it says and counts nothing.
    """

    text: Remark
    ingredient: Annotated[str, Field(max_length=60)] | None = None
    own: Ingredient | None = None
    mass_g: MassG | None = None
    volume_ml: VolumeMl | None = None
    spread: Annotated[float, Field(ge=0, le=1)] = 0.0
    use: Use = "in"
    left: Annotated[float, Field(gt=0, le=1)] | None = None
    poured_off: Annotated[float, Field(ge=0, le=1)] = 0.0

    @model_validator(mode="after")
    def _can_be_weighed(self) -> Line:
        if self.counts:
            _ = self.what, self.grams
        return self

    @property
    def counts(self) -> bool:
        """Whether it says both what and how much."""
        known = self.own is not None or self.ingredient is not None
        return known and self.use != "left_out" and (self.mass_g is not None or self.volume_ml is not None)

    @property
    def what(self) -> Ingredient:
        """The ingredient. Raises QuantityError where the catalogue has none of that key."""
        return self.own or ingredient(self.ingredient or "")

    @property
    def grams(self) -> float:
        """Its weight, g. Raises QuantityError for a volume of what is only weighed."""
        if self.mass_g is not None:
            return self.mass_g
        return (self.volume_ml or 0.0) * self.what.density_g_ml

    def written_out(self, own: Sequence[Ingredient]) -> Line:
        """With its ingredient whole, the kitchen's own before the catalogue's."""
        if self.ingredient is None:
            return self
        return self.model_copy(update={"own": kept_whole(self.ingredient, own) or self.own})

    @property
    def shown(self) -> Shown:
        """The amount as a cook reads it."""
        return show_mass(self.mass_g) if self.mass_g is not None else show_volume(self.volume_ml or 0.0)


#: More of a line than this is not kept, characters.
LONGEST_KEPT = 2000


def line_of(read: ReadLine, own: Sequence[Ingredient] = ()) -> Line:
    """A line as it is kept, from how it was read; an ingredient of the kitchen's own is kept whole."""
    amount = read.amount
    return Line(
        text=read.text.strip()[:LONGEST_KEPT] or read.name or "…",
        own=read.ingredient if read.ingredient in own else None,
        ingredient=None if read.ingredient is None else read.ingredient.key,
        mass_g=amount.value if amount and amount.dimension == "mass" else None,
        volume_ml=amount.value if amount and amount.dimension == "volume" else None,
        spread=min(amount.spread, 1.0) if amount else 0.0,
        use=read.use,
        left=read.left,
        poured_off=read.poured_off,
    )


Level = Literal["submerged", "nearly", "half_way"]

#: A way to strain, by its key: rows of ``data/sieves.csv``.
Strain = Annotated[str, *one_of("sieves")]


class Braise(_Said):
    """What went into a braise, and how it was cooked and strained."""

    lines: Annotated[tuple[Line, ...], Field(max_length=MOST_LINES)] = ()
    cover: Cover = "tight"
    heat: Literal["stove", "oven"] = "oven"
    oven_c: Celsius = 150.0
    hours: Hours = 3.0
    level: Level = "nearly"
    pieces: Literal["large", "small"] = "large"
    overnight: bool = False
    trimmed: bool = False
    strain: Strain = "fine"

    def written_out(self, own: Sequence[Ingredient]) -> Braise:
        """With every ingredient whole, so that later changes to it leave the batch alone."""
        return self.model_copy(update={"lines": tuple(line.written_out(own) for line in self.lines)})

    @property
    def counted(self) -> tuple[Line, ...]:
        """The lines that say what and how much."""
        return tuple(line for line in self.lines if line.counts)


# -- what is taken for granted --------------------------------------------------------------------

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

#: Share of the flour dredged on meat that reaches the liquid; of rubbed salt that stays in a poured-off pan.
DREDGED, LOST_IN_PAN = _E(0.15, 0.33, 0.5), _E(0.0, 0.04, 0.10)


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

# -- the balance ----------------------------------------------------------------------------------

#: The figures that are leaned to either end.
_LEANS = ("juice", "render", "gelatin", "exchange", "greens", "greens_left", "dredged", "lost", "loss", "sieve", "pulp")


@dataclass(frozen=True, slots=True)
class _Poured:
    """A liquid line after what was done with it before the braise."""

    line: Line
    contents: Contents


@dataclass(frozen=True, slots=True, kw_only=True)
class _Balance:
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


#: The steps to a figure.
Terms = tuple[Reason, ...]


@dataclass(frozen=True, slots=True, kw_only=True)
class Estimated:
    """The ledger of a strained liquid from what went into its braise.

    ``contents`` holds best values; ``ranges`` the 80 % intervals of its masses, g, and
    ``liquid_ml`` that of its volume; ``percent`` those of salt, gelatin and acid in g per 100 g of liquid, and of
    alcohol in % vol. ``terms`` are the steps to each figure. ``contradiction`` says what cannot be, and which line
    makes it so.
    """

    contents: Contents
    liquid_ml: Estimate
    ranges: Mapping[str, Estimate]
    percent: Mapping[str, Estimate]
    alcohol: AlcoholLeft
    contradiction: Message | None
    terms: Mapping[str, Terms]
    allergens: tuple[str, ...]
    lifts_below_c: float | None
    stays_soft: bool


#: What holds less water than this, as a share of its weight, is no liquid. Modelling choice.
LEAST_WATER = 0.3
#: Nor is less water than this in a whole pot, g. Modelling choice.
LEAST_WATER_G = 20.0

#: However much it is thought to have lost, this share of its water is left in a pot that is strained; and of an
#: amount that was told, at least this. Modelling choices.
LEAST_OF_WATER, LEAST_OF_AN_AMOUNT = 0.05, 0.05

#: However much the solids hold, this share of the liquid passes the sieve. Modelling choice.
LEAST_PASSES = 0.3

#: Saltier than this, % by weight, or with more gelatin than a glaze has in it, no strained liquid is: a line was
#: misread. Modelling choices.
MOST_SALT_PERCENT, MOST_GELATIN_PERCENT = 4.0, 15.0

#: Boiled down to less than this share, a liquid is syrup or burnt. Modelling choice.
LEAST_LEFT = 0.05

#: A pot is braised in at this share of its height. Modelling choice.
BRAISED_AT = 0.6

#: Less alcohol than this counts as none, g; of what went in off the heat at least this share is left (the table's
#: 85 % by its spread). Modelling choices.
NO_ALCOHOL_G, LATE_AT_LEAST = 0.05, 0.8

#: What is given a range, by name of the ledger.
RANGED = ("salt", "gelatin", "fat_free", "sugar", "acid", "acetic", "pulp", "other")


def estimate(braise: Braise, pan: Pan, liquid_ml: float | None = None) -> Estimated:
    """What is in the strained liquid of a braise.

    Parameters
    ----------
    braise : what went in, and how it was cooked and strained.
    pan : the pot it cooked in, or one like it: its surface sets the loss where nothing was measured.
    liquid_ml : the strained liquid as measured, mL at 20 °C without floating fat; None to estimate it.

    Raises
    ------
    QuantityError : no line counts, or nothing liquid is left.
    """
    if not braise.counted:
        raise QuantityError("lines", say("intake.nothing_counts"))
    poured = tuple(_Poured(line, _as_poured(line)) for line in braise.counted if line.what.group not in SOLIDS)
    best = _balance(braise, poured, pan, {}, liquid_ml)
    if best.contents.water < max(LEAST_WATER_G, LEAST_WATER * best.contents.liquid_g):
        raise QuantityError("lines", say("intake.no_liquid_left"))
    leaned = _leaned(braise, poured, pan, liquid_ml)
    ranges = {
        name: _spread(getattr(best.contents, name), [getattr(b.contents, name) for b in leaned]) for name in RANGED
    }
    alcohol = _alcohol(braise, poured, best, measured=liquid_ml is not None)
    contents = best.contents.with_masses(ethanol=alcohol.grams.best)
    if liquid_ml is None:
        volume = _spread(best.contents.liquid_ml, [b.contents.liquid_ml for b in leaned])
        # The alcohol that has left takes its room with it, in each working-out alike.
        volume = volume.scaled(contents.liquid_ml / best.contents.liquid_ml)
    else:
        contents = _filled(contents, liquid_ml)
        volume = Estimate.exact(liquid_ml)
    meats = [line.what for line in braise.counted if line.what.cut]
    set_points = [meat.lifts_below_c for meat in meats if meat.lifts_below_c is not None]
    return Estimated(
        contents=contents,
        liquid_ml=volume,
        ranges=MappingProxyType(ranges),
        percent=MappingProxyType(_percents(best, leaned) | {"alcohol": _strength(alcohol, volume)}),
        alcohol=alcohol,
        contradiction=_contradiction(best, measured=liquid_ml is not None),
        terms=_terms(best, braise, ranges, alcohol),
        allergens=tuple(sorted({name for line in braise.counted for name in line.what.allergens})),
        lifts_below_c=min(set_points, default=None),
        stays_soft=any(meat.lifts_below_c is None for meat in meats),
    )


def _contradiction(best: _Balance, *, measured: bool) -> Message | None:
    """What cannot be, and the line that makes it so; None where all of it can."""
    liquid_g = best.contents.liquid_g
    salt, gelatin = 100.0 * best.contents.salt / liquid_g, 100.0 * best.contents.gelatin / liquid_g
    by_salt = [(line, contents.salt) for line, contents in best.brought]
    by_gelatin = [*((line, contents.gelatin) for line, contents in best.brought), *best.melted]
    for percent, most, what, lines in (
        (salt, MOST_SALT_PERCENT, _MATTERS["salt"], by_salt),
        (gelatin, MOST_GELATIN_PERCENT, _MATTERS["gelatin"], by_gelatin),
    ):
        worst = max(lines, key=lambda pair: pair[1], default=None)
        if percent > most and worst is not None:
            return say("intake.cannot_hold", percent=show_percent(percent, 1), what=what, line=worst[0].text)
    if not measured and best.contents.water <= 1.01 * LEAST_OF_WATER * (best.water_in + best.juice_g):
        return say("intake.nothing_left", water=_grams(best.water_in, 0), loss=_grams(best.loss_g, 0))
    return None


def _leaned(braise: Braise, poured: Sequence[_Poured], pan: Pan, liquid_ml: float | None) -> list[_Balance]:
    """The balance with each uncertain figure, and each uncertain amount, at both its ends."""
    out: list[_Balance] = []
    for name in _LEANS:
        out += [_balance(braise, poured, pan, {name: end}, liquid_ml) for end in (-1, 1)]
    for place, line in enumerate(braise.lines):
        if line.spread and line.counts:
            out += [_balance(braise, poured, pan, {f"line {place}": end}, liquid_ml) for end in (-1, 1)]
    return out


def _spread(best: float, leaned: Sequence[float]) -> Estimate:
    """Interval of a figure from its values at the ends of each input, two by two, in quadrature.

    Logarithms are added: a figure that is divided by the liquid that is left spreads by factors, and is never nothing.
    """
    if best <= 0.0:
        return Estimate(0.0, max(best, 0.0), max(*leaned, best, 0.0))
    down = up = 0.0
    for low, high in zip(leaned[::2], leaned[1::2], strict=True):
        lower, upper = max(min(low, high, best), LEAST_SHARE * best), max(low, high, best)
        down += math.log(best / lower) ** 2
        up += math.log(upper / best) ** 2
    return Estimate(best * math.exp(-math.sqrt(down)), best, best * math.exp(math.sqrt(up)))


#: What a figure leans down to is no less than this share of it: numbers, not cooks, make it nothing.
LEAST_SHARE = 1e-3


#: What is told in per cent of the liquid, too: g per 100 g, by the masses that make it.
_IN_PERCENT: Mapping[str, tuple[str, ...]] = MappingProxyType(
    {"salt": ("salt",), "gelatin": ("gelatin",), "acid": ("acid", "acetic")}
)


def _percents(best: _Balance, leaned: Sequence[_Balance]) -> dict[str, Estimate]:
    """Contents in per cent of the liquid that is left, each leaned as such: less liquid is saltier."""

    def percent(of: _Balance, masses: tuple[str, ...]) -> float:
        mass_g = sum(float(getattr(of.contents, name)) for name in masses)
        return 100.0 * mass_g / of.contents.liquid_g

    return {
        name: _spread(percent(best, masses), [percent(one, masses) for one in leaned])
        for name, masses in _IN_PERCENT.items()
    }


def _strength(alcohol: AlcoholLeft, liquid_ml: Estimate) -> Estimate:
    """Alcohol in % vol: by how much of it is left, and in how much liquid."""
    grams, best = alcohol.grams, strength_percent(alcohol.grams.best, liquid_ml.best)
    if best <= 0.0:
        return Estimate(0.0, 0.0, strength_percent(grams.high, liquid_ml.best))
    lows = (max(grams.low / grams.best, LEAST_SHARE), liquid_ml.best / liquid_ml.high)
    highs = (grams.high / grams.best, liquid_ml.best / max(liquid_ml.low, LEAST_SHARE * liquid_ml.best))
    down, up = (math.sqrt(sum(math.log(share) ** 2 for share in shares)) for shares in (lows, highs))
    return Estimate(best * math.exp(-down), best, best * math.exp(up))


def _as_poured(line: Line) -> Contents:
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
                "meat": MEAT_LEFT * raw, "meat_water": MEAT_LEFT * MEAT_WATER * raw, "fat": rendered * raw / 100.0,
                "meat_juice": at.of("juice", cut.juice) * raw / 100.0, "meat_salt": what.salt * raw / 100.0,
                "gelatin": at.of("gelatin", cut.gelatin) * raw / 100.0,
            }  # fmt: skip
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


def _balance(
    braise: Braise, poured: Sequence[_Poured], pan: Pan, lean: Mapping[str, float], liquid_ml: float | None
) -> _Balance:
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
        water=water, ethanol=total.ethanol, salt=share * salt, sugar=total.sugar + given * greens.sugar,
        acid=total.acid + given * greens.acid, acetic=total.acetic + given * greens.acetic,
        gelatin=total.gelatin + solids.gelatin, other=total.other + given * greens.other + JUICE_OTHER * juice,
        fat_emulsified=total.fat_emulsified, starch=total.starch,
    ).scaled(passes)  # fmt: skip
    contents = contents.with_masses(
        fat_free=total.fat_free + solids.fat, pulp=at.of("pulp", sieve.pulp) * total.pulp
    )  # fmt: skip
    return _Balance(
        contents=contents, water_in=water_in, takes_up=solids.takes_up, loss_g=loss, held_g=held, share=share,
        passes=passes, salt_total=salt, salt_lost=lost, meat_salt=solids.meat_salt, juice_g=juice,
        given=1.0 if soft else given,
        greens=greens, brought=tuple(brought), rendered=solids.rendered,
        melted=solids.melted,
    )  # fmt: skip


def _loss(braise: Braise, pan: Pan) -> Estimate:
    """Vapour lost while braising, g: the open pot's, times what the cover lets out."""
    surface = pan.area_mm2(pan.height_mm * BRAISED_AT)
    if braise.heat == "oven":
        wall = math.pi * math.sqrt(4.0 * surface / math.pi) * pan.height_mm
        rate = oven_rate_g_min(2.0 * surface + wall, braise.oven_c)
    else:
        rate = simmering_rate_g_min(surface)
    return rate.times(COVERS[braise.cover].share).scaled(60.0 * braise.hours)


def _alcohol(braise: Braise, poured: Sequence[_Poured], best: _Balance, *, measured: bool) -> AlcoholLeft:
    """Alcohol left: by vapour for an open pot that was measured, by the table otherwise."""

    def ethanol(*uses: Use) -> float:
        return sum(one.contents.ethanol for one in poured if one.line.use in uses)

    boiled_down, late = ethanol("reduced"), ethanol("late")
    cooked = ethanol("in", "flamed", "fried", "dredged", "rubbed")
    if cooked + late < NO_ALCOHOL_G:
        down = [one for one in poured if one.line.use == "reduced"]
        before = sum(one.line.what.portion(one.line.grams).ethanol for one in down)
        if before < NO_ALCOHOL_G:
            return AlcoholLeft(Estimate.exact(0.0), "none", say("intake.no_alcohol"))
        most = sum(_most_left(one) for one in down)
        why = say(
            "intake.boiled_down_before",
            left=show_number(boiled_down, 2), all=show_number(before, 0, "g"), most=show_number(most, 2, "g"),
        )  # fmt: skip
        return AlcoholLeft(Estimate(0.0, boiled_down, max(most, boiled_down)), "vapour", why)
    if cooked < NO_ALCOHOL_G:
        why = say(
            "intake.off_the_heat", share=show_percent(100 * ADDED_AND_OFF_THE_HEAT, 0), left=show_number(late, 1, "g")
        )
        return AlcoholLeft(Estimate(LATE_AT_LEAST * late, late + boiled_down, late + boiled_down), "table", why)
    cooked += boiled_down
    start = best.water_in + best.juice_g
    if braise.cover == "open" and measured and best.loss_g > 0.0:
        left = left_by_vapour(cooked, start, max(start - best.loss_g, 1.0))
    else:
        why = say("intake.lid_kept_it" if braise.cover != "open" else "intake.nobody_measured")
        left = left_by_table(cooked, 60.0 * braise.hours, why)
    if late <= 0.0:
        return left
    share = show_percent(100 * ADDED_AND_OFF_THE_HEAT, 0)
    why = sentences(left.why, say("intake.added_at_the_end", grams=show_number(late, 1, "g"), share=share))
    grams = Estimate(left.grams.low + LATE_AT_LEAST * late, left.grams.best + late, left.grams.high + late)
    return AlcoholLeft(grams, left.rule, why)


def _filled(contents: Contents, liquid_ml: float) -> Contents:
    """The same solids in exactly ``liquid_ml`` mL: the water makes up the rest."""
    missing = liquid_ml - contents.liquid_ml
    water = contents.water + missing / SPECIFIC_VOLUME_ML_G["water"]
    if water <= 0.0:
        raise QuantityError("value", say("intake.too_little_for_it"))
    return contents.with_masses(water=water)


#: Less than this of a thing is not named among the terms, g.
LEAST_NAMED_SALT_G, LEAST_NAMED_G = 0.05, 0.1

# -- explaining itself ----------------------------------------------------------------------------


def _terms(best: _Balance, braise: Braise, ranges: Mapping[str, Estimate], alcohol: AlcoholLeft) -> Mapping[str, Terms]:
    acid, acetic = ranges["acid"], ranges["acetic"]
    sour = Estimate(acid.low + acetic.low, acid.best + acetic.best, acid.high + acetic.high)
    return MappingProxyType(
        {
            "liquid": _liquid_terms(braise, best),
            "salt": _salt_terms(best, ranges["salt"]),
            "gelatin": _sum_terms(best, lambda c: c.gelatin, ranges["gelatin"], cuts=best.melted),
            "fat": _fat_terms(braise, best, ranges["fat_free"]),
            "sugar": _sum_terms(best, lambda c: c.sugar, ranges["sugar"]),
            # What boils off of it and what does not are one figure to the cook.
            "acid": _sum_terms(best, lambda c: c.acid + c.acetic, sour),
            "alcohol": (Reason(say("explanation.alcohol"), alcohol.why),),
        }
    )


def _range(what: Estimate) -> Message:
    digits = 0 if what.high >= 10 else 1
    return say("intake.likely", low=show_number(what.low, digits), high=show_number(what.high, digits, "g"))


def _grams(grams: float, digits: int = 1) -> Shown:
    return show_number(grams, digits, "g")


def _liquid_terms(braise: Braise, best: _Balance) -> Terms:
    strained = Term(SIEVES[braise.strain].label)
    hours = show_plain(braise.hours, "h")
    dry = (Reason(say("explanation.taken_up"), say("intake.taken_up", grams=_grams(best.takes_up, 0))),)
    return (
        Reason(say("explanation.water_in"), say("intake.water_in", grams=_grams(best.water_in, 0))),
        Reason(say("explanation.juice"), say("intake.juice", grams=_grams(best.juice_g, 0))),
        *(dry if best.takes_up >= LEAST_NAMED_WATER_G else ()),
        Reason(say("explanation.vapour"), say("intake.vapour", grams=_grams(best.loss_g, 0), hours=hours)),
        Reason(say("explanation.held_back"), say("intake.held_back", grams=_grams(best.held_g, 0), sieve=strained)),
        Reason(
            say("explanation.together"), say("intake.water_together", grams=_grams(best.contents.water, 0))
        ),
    )  # fmt: skip


#: Less water than this is not named among the terms, g.
LEAST_NAMED_WATER_G = 0.5


def _line_reason(line: Line, how: str, **more: Argument) -> Reason:
    """What one line has to do with a figure."""
    return Reason(say("explanation.line", name=line.what.name), say(how, amount=line.shown, **more))


def _salt_terms(best: _Balance, salt: Estimate) -> Terms:
    out = [
        _line_reason(line, "intake.line_salt", grams=_grams(contents.salt))
        for line, contents in best.brought
        if contents.salt >= LEAST_NAMED_SALT_G
    ]
    if best.meat_salt >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.meats_own"), say("intake.salt", grams=_grams(best.meat_salt))))
    if best.greens.salt >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.greens"), say("intake.salt", grams=_grams(best.greens.salt))))
    if best.salt_lost >= LEAST_NAMED_SALT_G:
        out.append(Reason(say("explanation.left_in_pan"), say("intake.less_salt", grams=_grams(best.salt_lost))))
    shared = say(
        "intake.shared_out",
        all=_grams(best.salt_total), share=show_percent(100 * best.share, 0), passes=show_percent(100 * best.passes, 0),
        grams=_grams(best.contents.salt), likely=_range(salt),
    )  # fmt: skip
    return (*out, Reason(say("explanation.shared_out"), shared))


def _sum_terms(
    best: _Balance, of: Callable[[Contents], float], found: Estimate, cuts: Sequence[tuple[Line, float]] = ()
) -> Terms:
    """What each line brings of one thing, what cuts and vegetables give of it, and how much of it passes the sieve."""
    out = _brought_terms(best, of)
    out += _cut_terms(cuts)
    held, given = of(best.greens), best.given
    if held * given >= LEAST_NAMED_G:
        how = say(
            "intake.greens_give", share=show_percent(100 * given, 0), held=_grams(held), grams=_grams(given * held)
        )
        out.append(Reason(say("explanation.greens"), how))
    whole = sum(of(c) for _, c in best.brought) + sum(grams for _, grams in cuts) + given * held
    how = say(
        "intake.together_sieved",
        all=_grams(whole), passes=show_percent(100 * best.passes, 0), grams=_grams(found.best), likely=_range(found),
    )  # fmt: skip
    return (*out, Reason(say("explanation.together"), how))


def _fat_terms(braise: Braise, best: _Balance, found: Estimate) -> Terms:
    """What floats: all of it passes the sieve."""
    out = _brought_terms(best, lambda c: c.fat_free)
    for line, grams in best.rendered:
        rate = CUTS[line.what.cut or ""].fat.best
        most = line.what.fat or 100.0
        capped = {"rate": show_plain(min(rate, most), "%", 3), "grams": _grams(grams)}
        if braise.trimmed:
            out.append(_line_reason(line, "intake.line_trimmed", **capped, trimmed=show_plain(TRIMMED)))
        elif rate > most:
            out.append(_line_reason(line, "intake.line_all_its_fat", **capped))
        else:
            out.append(_line_reason(line, "intake.line_raw", **capped))
    how = say("intake.together", grams=_grams(found.best), likely=_range(found))
    return (*out, Reason(say("explanation.together"), how))


def _brought_terms(best: _Balance, of: Callable[[Contents], float]) -> list[Reason]:
    return [
        _line_reason(line, "intake.line_grams", grams=_grams(of(contents)))
        for line, contents in best.brought
        if of(contents) >= LEAST_NAMED_G
    ]


def _cut_terms(cuts: Sequence[tuple[Line, float]]) -> list[Reason]:
    return [
        _line_reason(
            line,
            "intake.line_raw",
            rate=show_plain(CUTS[line.what.cut or ""].gelatin.best, "%", 3),
            grams=_grams(grams),
        )
        for line, grams in cuts
    ]


def brings(line: Line) -> tuple[tuple[str, Message], ...]:
    """What a line puts into the pot, or gives to it, in short: each matter by its key, and how much of it."""
    if not line.counts:
        return ()
    what = line.what
    if what.cut:
        cut, raw = CUTS[what.cut], line.grams / 100.0
        shares = [(key, e) for key, e in (("fat", cut.fat), ("gelatin", cut.gelatin)) if e.high * raw >= 1.0]
        given = [
            (key, say(how, low=show_number(e.low * raw), high=_grams(e.high * raw, 0), what=_MATTERS[key]))
            for (key, e), how in zip(shares, ("intake.gives", "intake.gives_too"), strict=False)
        ]
        salt = what.salt * raw
        own = [("salt", say("intake.brings", grams=_grams(salt), what=_MATTERS["salt"]))] if salt >= 0.1 else []
        return (*given, *own)
    c = _as_poured(line).scaled(DREDGED.best if line.use == "dredged" else 1.0)
    named = (
        ("salt", c.salt, 0.1), ("alcohol", c.ethanol, 0.5), ("fat", c.fat_free + c.fat_emulsified, 1.0),
        ("gelatin", c.gelatin, 1.0), ("sugar", c.sugar, 1.0), ("acid", c.acid + c.acetic, 0.3),
        ("starch", c.starch_g, 1.0),
    )  # fmt: skip
    return tuple(
        (key, say("intake.brings", grams=_grams(grams, 1 if grams < 10 else 0), what=_MATTERS[key]))
        for key, grams, least in named
        if grams >= least
    )


#: What a line may bring, as it is named.
_MATTERS: Mapping[str, Message] = {
    "salt": say("intake.matter_salt"),
    "alcohol": say("intake.matter_alcohol"),
    "fat": say("intake.matter_fat"),
    "gelatin": say("intake.matter_gelatin"),
    "sugar": say("intake.matter_sugar"),
    "acid": say("intake.matter_acid"),
    "starch": say("intake.matter_starch"),
}


def reduced_note(line: Line) -> Message | None:
    """What boiling a line down first does to its alcohol, acid and sugar; None where it was not boiled down."""
    if line.use != "reduced" or line.left is None or not line.counts:
        return None
    before, after = line.what.portion(line.grams), _as_poured(line)
    return say(
        "intake.reduced",
        left=show_volume(after.liquid_ml), amount=line.shown, sugar=_grams(after.sugar, 0), acid=_grams(after.acid),
        before=_grams(before.ethanol, 0), alcohol=_grams(after.ethanol),
        most=_grams(_most_left(_Poured(line, after))),
    )  # fmt: skip


def _most_left(poured: _Poured) -> float:
    """Upper bound of the alcohol that boiling a line down first has left, g."""
    before = poured.line.what.portion(poured.line.grams)
    return ethanol_left(before.ethanol, before.water, poured.contents.water, volatility=UPPER_BOUND)
