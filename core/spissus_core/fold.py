"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out, by itself, and says why.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Literal
from uuid import UUID

from . import events as ev
from .amounts.estimate import Estimate
from .amounts.quantities import show_mass, show_volume
from .errors import MeasurementError, SetAsideError, SpissusError
from .intake.liquid import SOLIDS_G_ML, strained_liquid
from .ledger.contents import SPECIFIC_VOLUME_ML_G, Contents
from .ledger.water import HOT_EXPANSION, OFF_THE_BOIL_C
from .measuring.measurement import Measured, Method, error_ml, gross_to_net_g, measured_volume_ml
from .measuring.vessels import Pan
from .pantry.schools import THICKENERS
from .phenomena.body import Body, body_of
from .phenomena.cooling import Reading
from .phenomena.evaporation import boiled_to_mass, boiled_to_volume
from .phenomena.fat import LIFTS_BELOW_C, WAYS, boiled_dry, ice_needed_g, rest_g, skimmed
from .phenomena.seasoning import SaltByMeter, starting_salt_percent

#: Share of water in cooked meat and vegetables, and how far their salt follows the liquid's (modelling
#: choices; see :data:`.braise.EXCHANGE`).
SOLIDS_WATER, SOLIDS_EXCHANGE = 0.6, 0.5


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
    burner: ev.Burner
    share: float

    def depth_mm(self, contents: Contents) -> float:
        """Depth in it when hot, mm."""
        return self.pan.depth_mm(min(contents.volume_ml * self.share * HOT_EXPANSION, self.pan.capacity_ml))


@dataclass(frozen=True, slots=True)
class Pot:
    """The pot after an event.

    ``salt_minus`` and ``salt_plus`` are how far the true salt may lie from the ledger's, g (80 %);
    ``measured_by`` and ``error_ml`` say how well the volume is known. ``solids`` stand in the pan beside
    the liquid; ``kept`` is liquid that stayed on the meat when the rest was drawn off. ``brine`` is the
    salt per gram of water when the liquid was strained: what the meat was steeped in. ``beside`` is a
    second pan with a part of the liquid; depths and weights are those of the first.
    """

    contents: Contents
    pan: Pan
    burner: ev.Burner
    hot: bool
    salt_minus: float
    salt_plus: float
    measured_by: Method | Literal["list"]
    error_ml: float
    solids: InPan | None = None
    kept: Contents | None = None
    brine: float = 0.0
    beside: Beside | None = None

    @property
    def share(self) -> float:
        """Share of the liquid that stands in the first pan."""
        return 1.0 - self.beside.share if self.beside else 1.0

    @property
    def salt_percent(self) -> Estimate:
        """Salt by weight of the liquid, %, with its 80 % interval."""
        c = self.contents
        scale = 100.0 / c.liquid_g
        return Estimate(max(c.salt - self.salt_minus, 0.0) * scale, c.salt * scale, (c.salt + self.salt_plus) * scale)

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
        :data:`.braise.EXCHANGE`). Boiled down, liquid with meat in it gets less salty than without.
        """
        if self.solids is None:
            return contents
        share = contents.water / (contents.water + SOLIDS_EXCHANGE * SOLIDS_WATER * self.solids.mass_g)
        return contents.with_masses(salt=(contents.salt + self.solids.salt_g) * share)

    @property
    def body(self) -> Body:
        """Body as served."""
        return body_of(self.contents)

    def mark_mm(self, liquid_ml: float) -> float:
        """Dip mark, straight off the boil, at which ``liquid_ml`` mL (20 °C) and the floating fat stand, mm."""
        return self._stands_mm((liquid_ml + self.contents.fat_ml) * HOT_EXPANSION)


@dataclass(frozen=True, slots=True)
class Moment:
    """One event and the pot after it.

    ``problem`` says why an event could not be applied: it contradicts what is in the pot, or, where it is
    :class:`.SetAsideError`, it cannot be read or worked out at all.
    """

    event: ev.Event
    pot: Pot | None
    struck: bool = False
    problem: SpissusError | None = None


@dataclass(frozen=True, slots=True)
class CoolingLog:
    """A pot set to cool: since when, in what surroundings, °C, and its temperatures, minutes from then."""

    began: datetime
    surroundings_c: float
    readings: tuple[Reading, ...]


@dataclass(frozen=True, slots=True)
class Timeline:
    """A folded batch: every event in order, and what stands at the end."""

    moments: tuple[Moment, ...]
    started: ev.Started | None
    pot: Pot | None
    wanted: ev.Wanted | None
    chosen: ev.Chosen | None
    fat_settled: bool
    thickener_added: bool
    salt_added: bool
    body_verdict: str | None
    salt_verdict: str | None
    finished: ev.Finished | None
    kept_fat_g: float

    @property
    def cooling(self) -> CoolingLog | None:
        """The cooling that is under way, or None; it ends when the fat is off, or the pot heated again."""
        found: CoolingLog | None = None
        for m in self.moments:
            happened, at = m.event.payload, m.event.at
            if m.struck or m.problem is not None:
                continue
            if isinstance(happened, ev.Cooling):
                found = CoolingLog(at, happened.surroundings_c, (Reading(0.0, happened.celsius),))
            elif isinstance(happened, ev.Probed) and found is not None:
                minute = (at - found.began).total_seconds() / 60.0
                found = replace(found, readings=(*found.readings, Reading(minute, happened.celsius)))
            elif _ends_cooling(happened):
                found = None
        return found

    @property
    def start(self) -> Pot | None:
        """The pot as it was first measured."""
        return next((m.pot for m in self.moments if m.pot is not None), None)


def struck_ids(log: Iterable[ev.Event]) -> frozenset[UUID]:
    """Events that are taken back. The last strike decides; striking a strike brings its event back."""
    ordered = sorted(log, key=lambda e: e.seq)
    out: set[UUID] = set()
    for event in reversed(ordered):
        if isinstance(event.payload, ev.Struck) and event.id not in out:
            out.add(event.payload.event)
    return frozenset(out)


def _placed(log: Iterable[ev.Event], struck: frozenset[UUID]) -> list[ev.Event]:
    """The events in order of time, each where the newest word on it says it belongs."""
    log = list(log)
    said = [e for e in log if isinstance(e.payload, ev.Dated) and e.id not in struck]
    if said:
        when = {e.payload.event: e.payload.at for e in sorted(said, key=lambda e: e.seq)}  # type: ignore[union-attr]
        log = [e.model_copy(update={"at": when[e.id], "told": None}) if e.id in when else e for e in log]
    return sorted(log, key=lambda e: (e.at, e.seq))


def _first_pot(starts: Sequence[ev.Event], left_out: dict[UUID, SpissusError]) -> tuple[ev.Started | None, Pot | None]:
    """The newest start that can be worked out, and its pot; why others cannot goes into ``left_out``."""
    for event in sorted(starts, key=lambda e: e.seq, reverse=True):
        if event.id in left_out:
            continue
        assert isinstance(event.payload, ev.Started)
        try:
            return event.payload, _begin(event.payload)
        except SpissusError as error:
            left_out[event.id] = error
        except Exception as error:  # whatever it is, it must not take the batch with it
            left_out[event.id] = unworkable(error)
    return None, None


def unworkable(error: Exception) -> SetAsideError:
    """What is said of an event, or a part of the page, that fails for no reason a cook could know."""
    why = f"{type(error).__name__}: {str(error)[:160]}".rstrip(": ")
    return SetAsideError(f"This cannot be worked out ({why}).")


#: A pot of more than this is no pot, g; it is only there so that nothing that follows can overflow.
MOST_G = 1e7


def _sound(pot: Pot) -> Pot:
    """The pot, if everything else can be worked out from its masses. Raises ValueError."""
    if not (math.isfinite(pot.contents.mass_g) and 0.0 < pot.contents.liquid_g < MOST_G and pot.contents.water > 0.0):
        raise ValueError("no pot can hold that")
    return pot


def fold(log: Iterable[ev.Event], aside: Mapping[UUID, SpissusError] | None = None) -> Timeline:
    """Run through the events of one batch, in order of time, then of number.

    The order in which they were recorded does not matter. The newest ``started`` that stands is the
    start, and everything else is applied to it. Events in ``aside`` are left out for the reason given.
    """
    log = list(log)
    struck = struck_ids(log)
    ordered = _placed(log, struck)
    left_out = dict(aside or {})
    starts = [e for e in ordered if isinstance(e.payload, ev.Started) and e.id not in struck]
    started, pot = _first_pot(starts, left_out)
    begun = False
    moments: list[Moment] = []
    wanted: ev.Wanted | None = None
    chosen: ev.Chosen | None = None
    finished: ev.Finished | None = None
    fat_settled = thickener_added = salt_added = False
    kept_fat_g = 0.0
    verdicts: dict[str, str | None] = {"body": None, "salt": None}
    for event in ordered:
        happened = event.payload
        begun = begun or isinstance(happened, ev.Started)
        if event.id in struck:
            moments.append(Moment(event, pot if begun else None, struck=True))
            continue
        problem = left_out.get(event.id)
        if problem is not None:
            pass
        elif isinstance(happened, ev.Unread):
            problem = SetAsideError(f"This entry cannot be read any more ({happened.why}).")
        elif isinstance(happened, ev.Wanted):
            wanted = happened
        elif isinstance(happened, ev.Chosen):
            chosen = happened
        elif isinstance(happened, ev.Tested):
            verdicts[happened.of] = happened.verdict
        elif isinstance(happened, ev.Finished):
            finished = happened
        elif pot is not None and not isinstance(happened, _TELLS_ONLY):
            before = pot
            try:
                pot = _sound(_applied(pot, happened))
            except SpissusError as error:
                problem = error
            except Exception as error:  # whatever it is, it must not take the batch with it
                problem = unworkable(error)
            else:
                if isinstance(happened, ev.Skimmed) and happened.kept:
                    kept_fat_g += before.contents.fat_free - pot.contents.fat_free
                fat_settled = fat_settled or isinstance(happened, ev.Skimmed)
                thickener_added = thickener_added or isinstance(happened, ev.Thickened)
                salt_added = salt_added or isinstance(happened, ev.Salted)
                _forget_verdicts(verdicts, happened)
        moments.append(Moment(event, pot if begun else None, problem=problem))
    return Timeline(
        tuple(moments), started, pot, wanted, chosen, fat_settled, thickener_added, salt_added,
        verdicts["body"], verdicts["salt"], finished, kept_fat_g,
    )  # fmt: skip


def _ends_cooling(happened: object) -> bool:
    """The fat is off, or it is on the heat again."""
    if isinstance(happened, ev.Heated):
        return happened.heat != "off"
    return isinstance(happened, ev.Skimmed) or (isinstance(happened, ev.Read) and happened.measured.hot)


#: Events that say something and leave the pot as it is.
_TELLS_ONLY = (ev.Started, ev.Noted, ev.Struck, ev.Dated, ev.Probed, ev.Seen)


def _forget_verdicts(verdicts: dict[str, str | None], happened: object) -> None:
    """A verdict holds until the pot changes in what it judged."""
    if isinstance(happened, ev.Thickened | ev.Added) or (isinstance(happened, ev.Read) and verdicts["body"] == "low"):
        verdicts["body"] = None
    if isinstance(happened, ev.Salted | ev.Added):
        verdicts["salt"] = None


def _begin(started: ev.Started) -> Pot:
    known = started.liquid
    strained = strained_liquid(started.pan, known)
    contents, salt = strained.contents, strained.salt_g
    brine = contents.salt / contents.water
    return Pot(
        contents, started.pan, started.burner, known.measured.hot if known.measured else True, salt.best - salt.low,
        salt.high - salt.best, strained.measured_by, strained.error_ml, _in_pan(known.solids_g, brine), None, brine,
    )  # fmt: skip


def _in_pan(mass_g: float, brine: float) -> InPan | None:
    """Solids as they come from the braise, with the salt they took up there."""
    if mass_g <= 0.0:
        return None
    return InPan(mass_g, SOLIDS_EXCHANGE * SOLIDS_WATER * mass_g * brine)


def _applied(pot: Pot, happened: object) -> Pot:
    match happened:
        case ev.Skimmed():
            return _skimmed(pot, happened)
        case ev.Read():
            return _read(pot, happened)
        case ev.Thickened():
            if happened.dry_g <= 0.0:
                raise SpissusError("dry_g", "Say how much thickener went in.")
            return _mixed(pot, THICKENERS[happened.thickener].added(happened.dry_g), "dry_g")
        case ev.Salted():
            return replace(pot, contents=pot.contents + Contents(salt=happened.salt_g))
        case ev.Solids():
            return _with_solids(pot, happened)
        case ev.Drawn():
            return _drawn(pot, happened)
        case ev.Returned():
            return _returned(pot, happened)
        case ev.Cooling():
            return replace(pot, hot=False)
        case ev.Heated():
            return replace(pot, hot=pot.hot or happened.heat != "off")
        case ev.Moved():
            return _moved(pot, happened)
        case ev.Split():
            return _split(pot, happened)
        case ev.Rejoined():
            return _rejoined(pot)
        case ev.Metered():
            return _metered(pot, happened)
        case ev.Added():
            what = happened.what
            mass = happened.mass_g if happened.mass_g is not None else (happened.volume_ml or 0.0) * what.density_g_ml
            return _mixed(pot, what.portion(mass), "volume_ml")
    raise TypeError(f"not an event that changes the pot: {happened!r}")


def _mixed(pot: Pot, more: Contents, field: str) -> Pot:
    contents = pot.contents + more
    if contents.volume_ml + pot.solids_ml > pot.pan.capacity_ml:
        raise MeasurementError(
            field,
            f"With that, {show_volume(contents.volume_ml).both} would be in “{pot.pan.name}”, "
            f"which holds {show_volume(pot.pan.capacity_ml).both}.",
        )
    return replace(pot, contents=contents)


def _with_solids(pot: Pot, happened: ev.Solids) -> Pot:
    solids = _in_pan(happened.mass_g, pot.brine)
    better = replace(pot, solids=solids)
    if pot.contents.volume_ml + better.solids_ml > pot.pan.capacity_ml:
        raise MeasurementError("mass_g", f"That does not fit into “{pot.pan.name}” beside the liquid.")
    return better


def _drawn(pot: Pot, happened: ev.Drawn) -> Pot:
    """The part for the sauce, fat and all, in its own pan; the rest is kept on the meat."""
    have = pot.contents.liquid_ml
    if not 0.0 < happened.volume_ml <= have * 1.001:
        raise MeasurementError(
            "volume_ml", f"{show_volume(have).both} of liquid is in the pot. Draw off some of it, such as 400 ml."
        )
    share = min(happened.volume_ml / have, 1.0)
    taken = pot.contents.scaled(share)
    if taken.volume_ml > happened.pan.capacity_ml:
        raise MeasurementError("volume_ml", f"That is more than “{happened.pan.name}” holds.")
    rest = pot.contents.scaled(1.0 - share)
    return replace(
        pot, contents=taken, pan=happened.pan, burner=happened.burner, salt_minus=pot.salt_minus * share,
        salt_plus=pot.salt_plus * share, measured_by="jug", error_ml=error_ml(happened.pan, "jug", taken.volume_ml),
        solids=None, kept=rest if pot.kept is None else pot.kept + rest,
    )  # fmt: skip


def _moved(pot: Pot, happened: ev.Moved) -> Pot:
    if pot.contents.volume_ml * pot.share + pot.solids_ml > happened.pan.capacity_ml:
        raise MeasurementError(
            "pan_id", f"“{happened.pan.name}” holds only {show_volume(happened.pan.capacity_ml).both} to the rim."
        )
    return replace(pot, pan=happened.pan, burner=happened.burner)


def _split(pot: Pot, happened: ev.Split) -> Pot:
    have = pot.contents.liquid_ml
    if not 0.0 < happened.volume_ml < have:
        raise MeasurementError("volume_ml", f"{show_volume(have).both} is in the pot. Pour a part of it over.")
    beside = Beside(happened.pan, happened.burner, happened.volume_ml / have)
    if pot.contents.volume_ml * beside.share > happened.pan.capacity_ml:
        raise MeasurementError("volume_ml", f"That is more than “{happened.pan.name}” holds.")
    return replace(pot, beside=beside)


def _rejoined(pot: Pot) -> Pot:
    if pot.beside is None:
        raise MeasurementError("kind", "It is in one pan already.")
    if pot.contents.volume_ml + pot.solids_ml > pot.pan.capacity_ml:
        raise MeasurementError("kind", f"“{pot.pan.name}” does not hold both. Move it to a bigger pan first.")
    return replace(pot, beside=None)


def _metered(pot: Pot, happened: ev.Metered) -> Pot:
    """The meter and the ledger, each by its precision; where they contradict, the meter is believed."""
    stated, known = starting_salt_percent(SaltByMeter(percent=happened.percent)), pot.salt_percent
    percent = known.weighed_with(stated) if known.agrees_with(stated) else stated
    bare_g = pot.contents.liquid_g - pot.contents.salt
    low, best, high = (bare_g * p / (100.0 - p) for p in (percent.low, percent.best, percent.high))
    return replace(
        pot, contents=pot.contents.with_masses(salt=best), salt_minus=best - low, salt_plus=high - best
    )  # fmt: skip


def _returned(pot: Pot, happened: ev.Returned) -> Pot:
    if pot.kept is None or pot.kept.liquid_ml < 1.0:
        raise MeasurementError(
            "volume_ml", "No liquid is left on the meat: none was drawn off, or all of it came back."
        )
    have = pot.kept.liquid_ml
    volume = have if happened.volume_ml is None else happened.volume_ml
    if volume > have * 1.001:
        raise MeasurementError("volume_ml", f"Only {show_volume(have).both} stayed on the meat.")
    share = min(volume / have, 1.0)
    back = pot.kept.scaled(share)
    more = back.salt / pot.contents.salt if pot.contents.salt > 0.0 else 0.0
    return replace(
        _mixed(pot, back, "volume_ml"), kept=None if share > 0.999 else pot.kept.scaled(1.0 - share),
        salt_minus=pot.salt_minus * (1.0 + more), salt_plus=pot.salt_plus * (1.0 + more),
    )  # fmt: skip


def _skimmed(pot: Pot, happened: ev.Skimmed) -> Pot:
    way = WAYS[happened.way]
    if happened.fat_ml is None:
        fat_ml = way.removes_ml(pot.contents.fat_ml)
    elif happened.fat_ml > 1.5 * pot.contents.fat_ml + 30.0:
        raise SpissusError(
            "fat_ml",
            f"Only about {show_volume(pot.contents.fat_ml).both} of fat was floating. "
            "If there was more, correct the start first.",
        )
    else:
        fat_ml = happened.fat_ml
    if happened.way == "boil_dry":
        water = Contents(water=(happened.dissolved_ml or 0.0) / SPECIFIC_VOLUME_ML_G["water"])
        return replace(pot, contents=boiled_dry(pot.contents, fat_ml, water), hot=True)
    contents = skimmed(pot.contents, fat_ml, way.liquid_per_fat * fat_ml)
    share = contents.salt / pot.contents.salt if pot.contents.salt > 0.0 else 1.0
    pot = replace(pot, contents=contents, salt_minus=pot.salt_minus * share, salt_plus=pot.salt_plus * share)
    if happened.way == "ice":
        ice_g = usual_ice_g(pot) if happened.ice_g is None else happened.ice_g
        return replace(_mixed(pot, Contents(water=ice_g), "ice_g"), hot=False)
    return replace(pot, hot=False) if happened.way == "chill" else pot


#: Liquid that has stood for a moment off the heat before the ice goes in, °C. Modelling choice.
STOOD_C = OFF_THE_BOIL_C - 15.0


def usual_ice_g(pot: Pot, to_c: float = LIFTS_BELOW_C) -> float:
    """Ice that sets the fat on this pot, g, straight from the stove or cold already."""
    return ice_needed_g(pot.contents.mass_g, STOOD_C, to_c) if pot.hot else 0.0


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
    standing = pot.solids_ml if measured.method == "dip" else 0.0
    volume_ml = (measured_volume_ml(pot.pan, measured) - standing) / pot.share
    return contents.mass_g + (volume_ml - contents.volume_ml) / SPECIFIC_VOLUME_ML_G["water"]


def _read(pot: Pot, happened: ev.Read) -> Pot:
    if happened.gain == "misread":
        return pot
    measured, contents = happened.measured, pot.contents
    weighed = measured.method == "scale"
    try:
        mass_g = implied_mass_g(pot, measured)
    except SpissusError as misfit:
        raise MeasurementError(f"measured.{misfit.field}", misfit.message) from None
    gained_ml = (mass_g - contents.mass_g) * SPECIFIC_VOLUME_ML_G["water"]
    error = _error(pot, measured)
    if gained_ml > 0.0:
        if happened.gain == "added":
            contents = contents + Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"])
        elif gained_ml > 2.0 * (error**2 + pot.error_ml**2) ** 0.5:
            raise GainError(gained_ml, weighed)
        # A gain within the error of the two measurements is no news.
    else:
        try:
            if weighed:
                contents = boiled_to_mass(contents, mass_g)
            else:
                contents = boiled_to_volume(contents, contents.liquid_ml + gained_ml)
        except SpissusError:
            raise MeasurementError(
                "measured.value",
                "That is less than the solids and the fat alone would take up. Check the reading and how it was taken.",
            ) from None
    traded = pot.traded(contents)
    solids = pot.solids and replace(pot.solids, salt_g=pot.solids.salt_g + contents.salt - traded.salt)
    return replace(
        pot, contents=traded, solids=solids, hot=measured.hot, measured_by=measured.method, error_ml=error
    )  # fmt: skip


def _error(pot: Pot, measured: Measured) -> float:
    """Standard error of a reading, mL of all the liquid."""
    in_pan = pot.contents.volume_ml * pot.share
    return error_ml(pot.pan, measured.method, in_pan, pot.contents.density_g_ml) / pot.share


class GainError(MeasurementError):
    """A reading that shows more in the pot than there can be; ``gained_ml`` is how much, mL."""

    def __init__(self, gained_ml: float, weighed: bool) -> None:
        more = show_mass(gained_ml).both if weighed else show_volume(gained_ml).both
        super().__init__(
            "measured.value",
            f"That is {more} more than was there before. Did you add something, or was it misread?",
        )
        self.gained_ml = gained_ml


def fat_to_skim(pot: Pot, wanted: ev.Wanted | None = None) -> bool:
    """Whether clearly more fat floats than is wanted, or than a cook would usually leave."""
    rest = rest_g(pot.contents.liquid_ml) if wanted is None else rest_g(pot.contents.liquid_ml, wanted.fat_g_per_100_ml)
    return pot.contents.fat_free > 1.5 * rest + 0.5
