"""The strained liquid, from what a cook knows of it: little, or the whole list of what went in."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, ValidationInfo, model_validator

from ..amounts.estimate import Z80, Estimate
from ..amounts.fields import DepthMm, MassG, VolumeMl, on_the_shelf
from ..amounts.quantities import show_number, show_percent, show_volume
from ..amounts.tables import one_of, table
from ..errors import MeasurementError, QuantityError
from ..ledger.contents import SPECIFIC_VOLUME_ML_G, Contents, from_composition
from ..measuring.jugs import jug_of
from ..measuring.measurement import Measured, Method, error_ml, gross_to_net_g, measured_volume_ml
from ..measuring.vessels import Pan
from ..messages import Message, say
from ..pantry.ingredients import Ingredient
from ..pantry.things import SLACK, FromShelf
from ..phenomena.fat import layer_ml
from ..phenomena.seasoning import SaltByList, SaltByMeter, SaltStart, starting_salt_percent
from .braise import Braise
from .estimated import Estimated, estimate

#: A kind of strained liquid, by its key: rows of ``data/liquids.csv``.
Character = Annotated[str, *one_of("liquids")]

#: What each kind holds besides water, salt and fat, g per 100 g, for want of the full list of what went in.
LIQUIDS: Mapping[str, Mapping[str, float]] = table(
    "liquids", lambda row: {name: float(row[name]) for name in ("gelatin", "sugar", "acid", "pulp", "other")}
)


#: A pan holds this share more than its measurements say, for rounding. Modelling choice.
RIM_SLACK = 0.001

#: Density of a strained liquid that no list foresees, g/mL. Modelling choice.
USUAL_DENSITY_G_ML = 1.01

#: Density of cooked meat and vegetables left in the pan, g/mL (common practice).
SOLIDS_G_ML = 1.05


class StrainedLiquid(BaseModel):
    """What the cook knows of the strained liquid.

    With a ``braise`` the measurement may be missing, and the salt known only by the list. The fat is given by the
    thickness of its layer or by volume, not both. ``fat_in`` is where the layer was seen: in the jug, for whoever
    measured with one and says nothing else; in the pan for all others, and where nothing was recorded of it.
    ``solids_g`` is meat or vegetables left in
    the pan: part of a depth or a weight, no part of the liquid. ``kept`` is what of another batch it is.
    """

    model_config = ConfigDict(frozen=True, extra="forbid")

    measured: Measured | None = None
    fat_mm: DepthMm | None = None
    fat_ml: VolumeMl | None = None
    fat_in: Literal["jug", "pan"] | None = None
    salt: SaltStart
    character: Character = "gelatin_rich"
    braise: Braise | None = None
    solids_g: MassG = 0.0
    kept: FromShelf | None = None

    @model_validator(mode="after")
    def _enough_is_known(self, info: ValidationInfo) -> StrainedLiquid:
        if self.fat_mm and self.fat_ml:
            raise QuantityError("fat_ml", say("intake.fat_twice"))
        if (self.braise is None or self.kept is not None) and self.measured is None:
            raise QuantityError("value", say("intake.how_much_is_there"))
        if self.braise is None and isinstance(self.salt, SaltByList):
            raise QuantityError("salt", say("intake.how_salty"))
        if not on_the_shelf(info) and self.fat_mm and self.measured and self.measured.method == "jug":
            self._seen_in_the_jug(self.measured.value)
        return self

    def _seen_in_the_jug(self, volume_ml: float) -> None:
        """Who measured in a jug saw the fat in it. Raises QuantityError where it is too much for one jug."""
        if self.fat_in != "pan" and jug_of(volume_ml) is None:
            raise QuantityError("fat_mm", say("intake.fat_where"))
        # What is kept says where, so that it is read back as it was meant.
        object.__setattr__(self, "fat_in", self.fat_in or "jug")

    def written_out(self, own: Sequence[Ingredient]) -> StrainedLiquid:
        """With every ingredient of its list whole; ``own`` are the kitchen's own."""
        return self if self.braise is None else self.model_copy(update={"braise": self.braise.written_out(own)})


@dataclass(frozen=True, slots=True, kw_only=True)
class Strained:
    """The ledger of a strained liquid, and how well it is known.

    ``salt_g`` is the salt with its interval, were the volume as it is told, and ``salt_g_g`` how much more of it there
    is, g, for each gram of liquid more; ``error_ml`` the standard error of the volume, and ``measured_by`` how that
    was found. ``estimated`` is what the list alone says, ``doubt`` a
    contradiction between the list and a measurement.
    """

    contents: Contents
    salt_g: Estimate
    measured_by: Method | Literal["list"]
    error_ml: float
    salt_g_g: float
    estimated: Estimated | None = None
    doubt: Message | None = None


# Folding a batch works the start out anew each time, from the same words.
@lru_cache(maxsize=512)
def strained_liquid(pan: Pan, known: StrainedLiquid) -> Strained:
    """The ledger of the strained liquid in ``pan``.

    Raises
    ------
    MeasurementError : the measurement does not fit the pan, or the fat leaves no liquid.
    QuantityError : the list says nothing that counts.
    """
    if known.kept is not None:
        return _from_shelf(pan, known, known.kept)
    if known.braise is not None and known.braise.counted:
        return _from_list(pan, known, known.braise)
    if known.measured is None or isinstance(known.salt, SaltByList):
        raise QuantityError("lines", say("intake.nothing_counts"))
    salt = starting_salt_percent(known.salt)
    per_100_g = {**LIQUIDS[known.character], "salt": salt.best}
    density = from_composition(100.0, per_100_g).density_g_ml
    liquid_ml, fat_ml = _measured_parts(pan, known.measured, known, density, None)
    contents = _with_fat(pan, from_composition(liquid_ml, per_100_g), fat_ml)
    error = error_ml(pan, known.measured.method, contents.volume_ml, contents.density_g_ml)
    return Strained(
        contents=contents,
        salt_g=salt.scaled(contents.liquid_g / 100.0),
        measured_by=known.measured.method,
        error_ml=math.hypot(error, _layer_error_ml(known, fat_ml)),
        salt_g_g=contents.salt / contents.liquid_g,
        doubt=_fat_doubt(liquid_ml, fat_ml),
    )


def _from_shelf(pan: Pan, known: StrainedLiquid, kept: FromShelf) -> Strained:
    """What was kept of another batch, as much of it as was measured, fat and all; its salt as it is told."""
    if kept.thing is None or known.measured is None or isinstance(known.salt, SaltByList):
        raise MeasurementError("jar", say("events.not_on_the_shelf"))
    whole = kept.thing.contents
    liquid_ml, _ = _measured_parts(pan, known.measured, known, whole.density_g_ml, None)
    error = error_ml(pan, known.measured.method, liquid_ml, whole.density_g_ml)
    if liquid_ml - 2.0 * error > whole.volume_ml * (1.0 + SLACK):
        raise MeasurementError("value", say("events.only_so_much_there", volume=show_volume(whole.volume_ml)))
    contents = whole.scaled(liquid_ml / whole.volume_ml)
    salt = starting_salt_percent(known.salt)
    return Strained(
        contents=contents.with_masses(salt=salt.best / 100.0 * contents.liquid_g),
        salt_g=salt.scaled(contents.liquid_g / 100.0),
        measured_by=known.measured.method,
        error_ml=error,
        salt_g_g=salt.best / 100.0,
    )


#: More than this share of a start being fat is asked about (common practice).
MUCH_FAT = 0.25


def _fat_doubt(liquid_ml: float, fat_ml: float) -> Message | None:
    share = fat_ml / (liquid_ml + fat_ml)
    if share <= MUCH_FAT:
        return None
    return say("intake.much_fat", fat=show_volume(fat_ml), liquid=show_volume(liquid_ml))


def _layer_error_ml(known: StrainedLiquid, fat_ml: float) -> float:
    """How well the fat of a layer in a jug is known, mL: nobody says how wide the jug is."""
    seen = known.fat_in == "jug" and known.fat_mm and known.measured
    jug = jug_of(known.measured.value) if seen and known.measured else None
    return jug.spread * fat_ml if jug else 0.0


def _from_list(pan: Pan, known: StrainedLiquid, braise: Braise) -> Strained:
    """What the list says, pinned by whatever was measured."""
    try:
        listed: Estimated | None = estimate(braise, pan)
    except QuantityError:
        if known.measured is None:
            raise
        # By the list nothing is left, but there it is: what was measured comes first.
        listed = None
    if known.measured is None:
        assert listed is not None
        estimated, fat_ml = listed, listed.contents.fat_ml if known.fat_ml is None else known.fat_ml
        if known.fat_mm:
            fat_ml = layer_ml(pan, min(listed.contents.volume_ml, pan.capacity_ml), known.fat_mm)
        by: Method | Literal["list"] = "list"
        error = (listed.liquid_ml.high - listed.liquid_ml.low) / (2.0 * Z80)
    else:
        density = listed.contents.density_g_ml if listed else USUAL_DENSITY_G_ML
        fat_guess = listed.contents.fat_ml if listed else None
        liquid_ml, fat_ml = _measured_parts(pan, known.measured, known, density, fat_guess)
        estimated, by = estimate(braise, pan, liquid_ml), known.measured.method
        error = math.hypot(error_ml(pan, by, liquid_ml + fat_ml, density), _layer_error_ml(known, fat_ml))
    contents = _with_fat(pan, estimated.contents, fat_ml)
    by_list = estimated.percent["salt"]
    if by_list.best > 0.0:
        # What has left as alcohol, and what was measured, make it another share of the same salt.
        by_list = by_list.scaled(100.0 * estimated.contents.salt / contents.liquid_g / by_list.best)
    salt, doubt = _pinned(by_list, known.salt)
    doubt = estimated.contradiction or doubt
    if known.fat_mm or known.fat_ml:
        doubt = _fat_doubt(contents.liquid_ml, fat_ml) or doubt
    if known.measured is not None:
        doubt = doubt or (
            _volume_doubt(listed.liquid_ml, contents.liquid_ml, error)
            if listed
            else say("intake.none_left_by_list", volume=show_volume(contents.liquid_ml))
        )
    # The salt is part of what it is a percentage of.
    bare_g = contents.liquid_g - contents.salt
    salt_g = Estimate(*(bare_g * percent / (100.0 - percent) for percent in (salt.low, salt.best, salt.high)))
    by_grams = isinstance(known.salt, SaltByList)
    return Strained(
        contents=contents.with_masses(salt=salt_g.best),
        salt_g=_without(salt_g, error / contents.liquid_ml, by_grams),
        measured_by=by,
        error_ml=error,
        salt_g_g=0.0 if by_grams else salt_g.best / contents.liquid_g,
        estimated=estimated,
        doubt=doubt,
    )


#: Of the spread of a salt content at least this share is the salt's own. Modelling choice.
_OWN_SHARE = 0.3


def _without(salt_g: Estimate, volume_error: float, by_grams: bool) -> Estimate:
    """The salt that a list says, without the part of its spread that comes from not knowing the volume, a share."""
    spread = (salt_g.high - salt_g.low) / 2.0 / Z80 / salt_g.best if salt_g.best > 0.0 else 0.0
    if not by_grams or spread <= 0.0:
        return salt_g
    own = max(1.0 - (volume_error / spread) ** 2, _OWN_SHARE**2) ** 0.5
    low, high = own * (salt_g.best - salt_g.low), own * (salt_g.high - salt_g.best)
    return Estimate(salt_g.best - low, salt_g.best, salt_g.best + high)


def _volume_doubt(listed: Estimate, liquid_ml: float, error: float) -> Message | None:
    """What to ask where the pot holds clearly more than the list can account for, or clearly less."""
    room = 2.0 * error
    if liquid_ml > listed.high + room:
        return say(
            "intake.more_than_listed",
            volume=show_volume(liquid_ml),
            most=show_volume(listed.high),
        )
    if liquid_ml < listed.low - room:
        return say(
            "intake.less_than_listed",
            volume=show_volume(liquid_ml),
            least=show_volume(listed.low),
        )
    return None


def _pinned(listed: Estimate, salt: SaltStart) -> tuple[Estimate, Message | None]:
    """The salt content by the list and by what was tasted or measured, %, and whether they contradict.

    Each counts by its precision. Where they contradict, a meter is believed (common practice: it is the best way to
    know), and a tongue that finds more salt than the list can hold, because lists forget things; a tongue that finds
    less is weighed with the list, and the two are only known to lie as far apart as they do (modelling choice).
    """
    if isinstance(salt, SaltByList):
        return listed, None
    stated = starting_salt_percent(salt)
    if listed.agrees_with(stated):
        return listed.weighed_with(stated), None
    meter = isinstance(salt, SaltByMeter)
    believed = meter or stated.low > listed.high
    both = listed.weighed_with(stated).widened(listed.apart_from(stated))
    what = say("intake.the_meter" if meter else "intake.the_tongue" if salt.by == "taste" else "intake.the_stock")
    ends = say("intake.missing_from_list", what=what)
    if not believed:
        ends = say("intake.both_count", percent=show_percent(both.best))
    elif stated.high < listed.low:
        ends = say("intake.not_in_pot", what=what)
    doubt = say(
        "intake.salt_contradicts",
        low=show_number(listed.low, 2),
        high=show_percent(listed.high),
        what=what,
        says_low=show_number(stated.low, 2),
        says_high=show_percent(stated.high),
        ends=ends,
    )
    return (stated if believed else both), doubt


def _with_fat(pan: Pan, contents: Contents, fat_ml: float) -> Contents:
    whole = contents.with_masses(fat_free=fat_ml / SPECIFIC_VOLUME_ML_G["fat_free"])
    if whole.volume_ml > pan.capacity_ml * (1.0 + RIM_SLACK):
        problem = say("intake.bigger_pan", pan=pan.name, volume=show_volume(whole.volume_ml))
        raise MeasurementError("measured", problem)
    return whole


def _measured_parts(
    pan: Pan, measured: Measured, known: StrainedLiquid, density_g_ml: float, fat_guess_ml: float | None
) -> tuple[float, float]:
    """Liquid and floating fat, mL at 20 °C: the fat is part of what was measured and comes off first."""
    solids_ml = known.solids_g / SOLIDS_G_ML
    fat_density = 1.0 / SPECIFIC_VOLUME_ML_G["fat_free"]
    if measured.method == "scale":
        net_g = gross_to_net_g(pan, measured.value) - known.solids_g
        fat = _fat_under_scale(pan, net_g, density_g_ml, known, solids_ml)
        if known.fat_mm is None and known.fat_ml is None and fat_guess_ml is not None:
            fat = min(fat_guess_ml, 0.5 * net_g)
        liquid_ml = (net_g - fat * fat_density) / density_g_ml
    else:
        total_ml = measured_volume_ml(pan, measured)
        standing = measured.method == "dip"
        if known.fat_mm and known.fat_in == "jug" and (jug := jug_of(measured.value)):
            fat = jug.layer_ml(known.fat_mm) / measured.expansion
        elif known.fat_mm:
            in_pan = total_ml * measured.expansion + (0.0 if standing else solids_ml)
            fat = layer_ml(pan, min(in_pan, pan.capacity_ml), known.fat_mm) / measured.expansion
        elif known.fat_ml is not None or fat_guess_ml is None:
            fat = (known.fat_ml or 0.0) / measured.expansion
        else:
            fat = min(fat_guess_ml, 0.5 * total_ml)
        liquid_ml = total_ml - fat - (solids_ml if standing else 0.0)
    if liquid_ml <= 0.0:
        raise MeasurementError("fat", say("intake.all_fat"))
    return liquid_ml, fat


def _fat_under_scale(pan: Pan, net_g: float, density_g_ml: float, known: StrainedLiquid, solids_ml: float) -> float:
    """Volume of the fat when only weight and layer thickness are known, mL.

    The depth depends on the split and the split on the depth; a few rounds settle it, because fat
    is only a tenth lighter than the liquid.
    """
    if not known.fat_mm:
        return known.fat_ml or 0.0
    fat = 0.0
    for _ in range(6):
        total = (net_g - fat / SPECIFIC_VOLUME_ML_G["fat_free"]) / density_g_ml + fat + solids_ml
        if total > pan.capacity_ml:
            raise MeasurementError("value", say("events.more_than_pan", pan=pan.name))
        fat = layer_ml(pan, total, known.fat_mm)
    return fat
