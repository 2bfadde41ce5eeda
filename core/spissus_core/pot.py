"""The pot: what is in it, what it stands in, and how well it is known."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from typing import Literal

from .amounts.changing import Changeable
from .amounts.estimate import Z80, Estimate
from .amounts.quantities import show_volume
from .errors import MeasurementError
from .intake.liquid import SOLIDS_G_ML
from .ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from .ledger.water import HOT_EXPANSION
from .measuring.measurement import Measured, Method, Reads, error_ml, gross_to_net_g, measured_volume_ml
from .measuring.vessels import Pan
from .messages import say
from .pantry.schools import OWN_PLACE, School
from .phenomena.body import AS_TABLED, Body, Strength, body_of
from .phenomena.heating import Burner

#: Share of water in cooked meat and vegetables, and how far their salt follows the liquid's (modelling
#: choices; see :data:`.balance.EXCHANGE`).
SOLIDS_WATER, SOLIDS_EXCHANGE = 0.6, 0.5

#: The shares of the present liquid that a table of the pot spans, and its steps: straight lines between them are
#: nearer than any dip (modelling choice).
TABLE_FROM, TABLE_TO, TABLE_STEPS = 0.05, 1.1, 21


#: So much of a pan stays free of what is ordered into it: what simmers foams and is stirred. Modelling choice.
FOAM_SHARE = 0.06


#: What is weaker is compared with this, g in 100 g. Numerical choice.
LEAST_STRENGTH_PERCENT = 0.05


@dataclass(frozen=True, slots=True)
class InPan:
    """Meat or vegetables left in the liquid: they take up room and weight, and hold salt, g."""

    mass_g: float
    salt_g: float

    @property
    def volume_ml(self) -> float:
        """Room they take up, mL."""
        return self.mass_g / SOLIDS_G_ML


@dataclass(frozen=True, slots=True)
class Beside:
    """A second pan that boils a part of the same liquid: ``share`` of all of it."""

    pan: Pan
    burner: Burner
    share: float

    def depth_mm(self, contents: Contents) -> float:
        """Depth in it when hot, mm."""
        return self.pan.depth_mm(min(contents.volume_ml * self.share * HOT_EXPANSION, self.pan.capacity_ml))


@dataclass(frozen=True, kw_only=True)
class Pot(Changeable):
    """The pot after an event.

    ``salt_minus`` and ``salt_plus`` are how far the true salt may lie from the ledger's, g (80 %), were the volume
    what the ledger says; ``salt_g_g`` is how much more of it there is, g, for each gram of liquid more: what was
    tasted or metered is a share, however much there is. ``measured_by`` and ``error_ml`` say how well the volume is
    known. ``solids`` stand in the pan beside
    the liquid; ``kept`` is liquid that stayed on the meat when the rest was drawn off. ``brine`` is the
    salt per gram of water when the liquid was strained: what the meat was steeped in, and ``strained_percent`` its
    strength then, g of its own solids in 100 g, which is known to a factor of ``strength_factor``. ``beside`` is a
    second pan with a part of the liquid; depths and weights are those of the first. ``strength`` is what spoons
    have taught of its thickener and of the body it had before; ``fat_stays`` is whether what floats on it stays there.
    ``binds`` is how many times as strongly as the tables say a dry thickener binds in its kitchen, where that is known.
    ``made`` is a thickener as it was made for this pot, or is, in the place of its row, and ``mixture`` the kitchen's
    own that a way was taken with; ``habit`` is what its kitchen is used to thicken with, where that is known.
    To the tongue that has tasted it, it is ``sour_times`` as sour and ``bitter_times`` as bitter as the ledger has it.
    """

    contents: Contents
    pan: Pan
    burner: Burner
    hot: bool
    salt_minus: float
    salt_plus: float
    measured_by: Method | Literal["list"]
    error_ml: float
    salt_g_g: float = 0.0
    solids: InPan | None = None
    kept: Contents | None = None
    brine: float = 0.0
    strained_percent: float = 0.0
    strength_factor: float = 1.0
    beside: Beside | None = None
    strength: Strength = AS_TABLED
    fat_stays: bool = False
    binds: tuple[tuple[str, float], ...] = ()
    sour_times: float = 1.0
    bitter_times: float = 1.0
    made: School | None = None
    mixture: School | None = None
    habit: School | None = None

    @property
    def own(self) -> School | None:
        """The mixture of the kitchen's own that stands among the ways: the one in hand, or the one it is used to."""
        if self.mixture is not None or self.habit is None:
            return self.mixture
        return self.habit if self.habit.like else None

    @property
    def used_to(self) -> tuple[str, ...]:
        """The place among the ways of what the kitchen is used to thicken with, where it has such a habit."""
        if self.habit is None:
            return ()
        return (OWN_PLACE if self.habit.like else self.habit.key,)

    def binding(self, school: School) -> School:
        """The school as strongly as it binds in this kitchen, with the salt of this pot where it was braised in it."""
        if school.key == OWN_PLACE and self.own is not None:
            school = self.own
        if self.made is not None and self.made.key == school.key:
            return self.made.braised_in(self.brine)
        return school.braised_in(self.brine).binding(dict(self.binds).get(school.dry, 1.0))

    @property
    def share(self) -> float:
        """Share of the liquid that stands in the first pan."""
        return 1.0 - self.beside.share if self.beside else 1.0

    @property
    def error_g(self) -> float:
        """Standard error of the mass of its liquid, g."""
        return self.error_ml / SPECIFIC_VOLUME_ML_G["water"]

    @property
    def salt_error_g(self) -> float:
        """Standard error of its salt, were the volume what the ledger says, g."""
        return (self.salt_minus + self.salt_plus) / 2.0 / Z80

    @property
    def salt_g(self) -> Estimate:
        """Salt, g, with its 80 % interval, whatever the volume is."""
        return self._salt(self.salt_g_g)

    @property
    def salt_percent(self) -> Estimate:
        """Salt by weight of the liquid, %, with its 80 % interval."""
        c = self.contents
        # Were there more of it, its salt would be spread over more.
        return self._salt(self.salt_g_g - c.salt / c.liquid_g).scaled(100.0 / c.liquid_g)

    def _salt(self, g_g: float) -> Estimate:
        salt, with_volume = self.contents.salt, Z80 * g_g * self.error_g
        low, high = math.hypot(self.salt_minus, with_volume), math.hypot(self.salt_plus, with_volume)
        return Estimate(max(salt - low, 0.0), salt, salt + high)

    @property
    def salt_error(self) -> float:
        """Standard error of its salt, % by weight."""
        c = self.contents
        with_volume = (self.salt_g_g - c.salt / c.liquid_g) * self.error_g
        return 100.0 * math.hypot(self.salt_error_g, with_volume) / c.liquid_g

    def salt_known_to(self, error_g: float, g_g: float) -> Pot:
        """The same, its salt known to a standard error, g, and ``g_g`` g more for each gram of liquid more.

        What was known better on one side stays so.
        """
        before = self.salt_error_g
        minus, plus = (self.salt_minus / before, self.salt_plus / before) if before > 0.0 else (Z80, Z80)
        return self.but(salt_minus=minus * error_g, salt_plus=plus * error_g, salt_g_g=g_g)

    def measured_over(self, error_ml: float) -> Pot:
        """The same, measured whatever was thought of its volume before: that says nothing of its salt."""
        error_g = math.hypot(self.salt_error_g, self.salt_g_g * self.error_g)
        return self.salt_known_to(error_g, 0.0).but(error_ml=error_ml)

    def measured_anew(self, error_ml: float) -> Pot:
        """A part of it that was measured by itself: it is as salty as the whole was known to be."""
        c, error_g = self.contents, self.salt_error / 100.0 * self.contents.liquid_g
        return self.salt_known_to(error_g, c.salt / c.liquid_g).but(error_ml=error_ml)

    @property
    def expansion(self) -> float:
        """Volume in the pan over volume at 20 °C."""
        return HOT_EXPANSION if self.hot else 1.0

    @property
    def solids_ml(self) -> float:
        """Room that solids take up in the pan, mL."""
        return self.solids.volume_ml if self.solids else 0.0

    def _stands_mm(self, volume_ml: float) -> float:
        return self.pan.depth_mm(min(volume_ml * self.share + self.solids_ml, self.pan.capacity_ml))

    @property
    def depth_mm(self) -> float:
        """Depth of everything as it stands in the pan, mm."""
        return self._stands_mm(self.contents.volume_ml * self.expansion)

    @property
    def fat_mm(self) -> float:
        """Thickness of the floating fat as it stands in the pan, mm."""
        c, hot = self.contents, self.expansion
        return self._stands_mm(c.volume_ml * hot) - self._stands_mm(c.liquid_ml * hot)

    def gross_of(self, contents: Contents) -> float | None:
        """What a scale shows with ``contents`` in this pan, g; None where the pan was never weighed."""
        solids = self.solids.mass_g if self.solids else 0.0
        return None if self.pan.empty_g is None else contents.mass_g * self.share + solids + self.pan.empty_g

    @property
    def gross_g(self) -> float | None:
        """What a scale shows with pan and contents on it, g; None where the pan was never weighed."""
        return self.gross_of(self.contents)

    def traded(self, contents: Contents) -> Contents:
        """``contents`` once the solids have taken up, or given, their share of the salt.

        The liquid's share is its water over its water and half of the solids' (modelling choice: see
        :data:`.balance.EXCHANGE`). Boiled down, liquid with meat in it gets less salty than without.
        """
        if self.solids is None:
            return contents
        share = contents.water / (contents.water + SOLIDS_EXCHANGE * SOLIDS_WATER * self.solids.mass_g)
        return contents.with_masses(salt=(contents.salt + self.solids.salt_g) * share)

    def boiled_to(self, contents: Contents) -> Pot:
        """The pot once boiling has left ``contents``, its solids with their share of the salt."""
        if self.solids is None:
            return self.but(contents=contents)
        traded = self.traded(contents)
        salt_g = max(self.solids.salt_g + contents.salt - traded.salt, 0.0)
        return self.but(contents=traded, solids=replace(self.solids, salt_g=salt_g))

    def times(self, contents: Contents) -> float:
        """How many times as strong ``contents`` are as what was strained; as what is in the pot, where nobody knows."""
        before = self.strained_percent or self.contents.strength_percent
        return contents.strength_percent / max(before, LEAST_STRENGTH_PERCENT)

    @property
    def body(self) -> Body:
        """Body as served."""
        return body_of(self.contents, self.strength)

    def mark_mm(self, liquid_ml: float, fat_ml: float | None = None) -> float:
        """Dip mark, straight off the boil, at which ``liquid_ml`` mL (20 °C) and the floating fat stand, mm; with
        another amount of fat where that is given."""
        return self._stands_mm((liquid_ml + (self.contents.fat_ml if fat_ml is None else fat_ml)) * HOT_EXPANSION)

    def reads(self, contents: Contents) -> Reads:
        """What each way to measure shows once it is boiled down to ``contents``."""
        return Reads(self.mark_mm(contents.liquid_ml), contents.volume_ml * HOT_EXPANSION, self.gross_of(contents))

    def table(self) -> list[tuple[float, Reads]]:
        """Liquid, mL at 20 °C, against what each way to measure shows of it off the boil, as water boils away or comes
        back: from :data:`TABLE_FROM` to :data:`TABLE_TO` of what there is, in even steps."""
        c, per = self.contents, SPECIFIC_VOLUME_ML_G["water"]
        shares = (TABLE_FROM + (TABLE_TO - TABLE_FROM) * i / TABLE_STEPS for i in range(TABLE_STEPS + 1))
        waters = (c.water + (share - 1.0) * c.liquid_ml / per for share in shares)
        rows = (c.with_masses(water=water) for water in waters if water > 0.0)
        return [(row.liquid_ml, self.reads(row)) for row in rows]

    def part(self, share: float) -> Pot:
        """A share of the liquid, fat and all, known as well as the whole; the rest is kept."""
        rest = self.contents.scaled(1.0 - share)
        return self.but(
            contents=self.contents.scaled(share),
            salt_minus=self.salt_minus * share,
            salt_plus=self.salt_plus * share,
            kept=rest if self.kept is None else self.kept + rest,
        )

    def drawn(self, liquid_ml: float, fat_ml: float) -> Pot:
        """So much of the liquid, and of the floating fat, mL; the rest is kept."""
        taken = self.contents.scaled(liquid_ml / self.contents.liquid_ml)
        fat_g = fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"]
        left_g = max(self.contents.fat_free - fat_g, 0.0)
        one = self.part(liquid_ml / self.contents.liquid_ml)
        rest = self.contents.scaled(1.0 - liquid_ml / self.contents.liquid_ml).with_masses(fat_free=left_g)
        return one.but(contents=taken.with_masses(fat_free=fat_g), kept=rest if self.kept is None else self.kept + rest)

    def without(self, liquid_ml: float, fat_ml: float, error_ml: float) -> tuple[Pot, Contents]:
        """The pot once so much of the liquid, and of the floating fat, mL, has left it, measured to ``error_ml``; and
        what has left."""
        share = liquid_ml / self.contents.liquid_ml
        fat_g = min(fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"], self.contents.fat_free)
        part = self.contents.scaled(share).with_masses(fat_free=fat_g)
        rest = self.contents.scaled(1.0 - share).with_masses(fat_free=self.contents.fat_free - fat_g)
        left = self.but(
            contents=rest,
            error_ml=math.hypot(self.error_ml, error_ml),
            salt_minus=self.salt_minus * (1.0 - share),
            salt_plus=self.salt_plus * (1.0 - share),
        )
        return left, part

    def mixed(self, more: Contents, field: str) -> Pot:
        """The pot with more in it.

        Raises
        ------
        MeasurementError : the pan does not hold that; it stands beside ``field``.
        """
        contents = self.contents + more
        if contents.volume_ml + self.solids_ml > self.pan.capacity_ml:
            raise MeasurementError(
                field,
                say(
                    "events.too_much_for_pan",
                    volume=show_volume(contents.volume_ml),
                    pan=self.pan.name,
                    capacity=show_volume(self.pan.capacity_ml),
                ),
            )
        return self.but(contents=contents)

    @property
    def room_ml(self) -> float:
        """What can still be stirred into its pan, cold, with room for foam, mL; nothing where it is full."""
        stands = self.contents.volume_ml * self.share * HOT_EXPANSION + self.solids_ml
        return max(self.pan.capacity_ml * (1.0 - FOAM_SHARE) - stands, 0.0) / HOT_EXPANSION

    def known_to_ml(self, method: Method) -> float:
        """Standard error of a reading of this pot, mL of all the liquid."""
        in_pan = self.contents.volume_ml * self.share
        return error_ml(self.pan, method, in_pan, self.contents.density_g_ml) / self.share


def in_pan(mass_g: float, brine: float) -> InPan | None:
    """Solids as they come from the braise, with the salt they took up there; None where there are none."""
    if mass_g <= 0.0:
        return None
    return InPan(mass_g, SOLIDS_EXCHANGE * SOLIDS_WATER * mass_g * brine)


def implied_mass_g(pot: Pot, measured: Measured) -> float:
    """What a reading says is in the pot, floating fat included, g; in both pans where it is split.

    Raises
    ------
    MeasurementError : it does not fit the pan.
    """
    contents = pot.contents
    if measured.method == "scale":
        net_g = gross_to_net_g(pot.pan, measured.value) - (pot.solids.mass_g if pot.solids else 0.0)
        return net_g / pot.share
    # Solids stand as wide hot as cold; their room is taken off before the liquid is told cold.
    standing = pot.solids_ml / measured.expansion if measured.method == "dip" else 0.0
    volume_ml = (measured_volume_ml(pot.pan, measured) - standing) / pot.share
    return contents.mass_g + (volume_ml - contents.volume_ml) / SPECIFIC_VOLUME_ML_G["water"]
