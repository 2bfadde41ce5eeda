"""From what happened to what is in the pot.

:func:`fold` runs through the events of a batch in order of time and returns the timeline of pots.
It never fails on a recorded event: what it cannot apply it leaves out and says why.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from datetime import datetime
from uuid import UUID

from . import events as ev
from .body import Body, body_of
from .contents import SPECIFIC_VOLUME_ML_G, Contents
from .errors import MeasurementError, SpissusError
from .estimate import Estimate
from .evaporation import boiled_to_mass, boiled_to_volume
from .fat import WAYS, layer_mm, skimmed, usual_rest_g
from .ingredients import ingredient
from .intake import strained_liquid
from .measurement import Measured, Method, error_ml, gross_to_net_g, measured_volume_ml
from .quantities import show_mass, show_volume
from .seasoning import starting_salt_percent
from .thickeners import THICKENERS
from .vessels import Pan
from .water import HOT_EXPANSION


@dataclass(frozen=True, slots=True)
class Pot:
    """The pot after an event.

    ``salt_minus`` and ``salt_plus`` are how far the true salt may lie from the ledger's, g (80 %);
    ``measured_by`` and ``error_ml`` say how well the volume is known.
    """

    contents: Contents
    pan: Pan
    burner: ev.Burner
    hot: bool
    salt_minus: float
    salt_plus: float
    measured_by: Method
    error_ml: float

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
    def depth_mm(self) -> float:
        """Depth of liquid and floating fat as they stand in the pan, mm."""
        return self.pan.depth_mm(min(self.contents.volume_ml * self.expansion, self.pan.capacity_ml))

    @property
    def fat_mm(self) -> float:
        """Thickness of the floating fat, mm."""
        return layer_mm(self.pan, self.contents, 1.0) if self.contents.fat_free > 0.0 else 0.0

    @property
    def gross_g(self) -> float | None:
        """What a scale shows with pan and contents on it, g; None where the pan was never weighed."""
        return None if self.pan.empty_g is None else self.contents.mass_g + self.pan.empty_g

    @property
    def body(self) -> Body:
        """Body as served."""
        return body_of(self.contents)

    def mark_mm(self, liquid_ml: float) -> float:
        """Dip mark, straight off the boil, at which ``liquid_ml`` mL (20 °C) and the floating fat stand, mm."""
        stands = (liquid_ml + self.contents.fat_ml) * HOT_EXPANSION
        return self.pan.depth_mm(min(stands, self.pan.capacity_ml))


@dataclass(frozen=True, slots=True)
class Moment:
    """One event and the pot after it. ``problem`` says why an event could not be applied."""

    event: ev.Event
    pot: Pot | None
    struck: bool = False
    problem: SpissusError | None = None


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

    @property
    def since(self) -> datetime | None:
        """When the pot was last known: the newest event that measured, changed or planned it.

        Boiling is counted from here: no event says yet when the heat was turned up.
        """
        telling = (ev.Started, ev.Chosen, ev.Skimmed, ev.Read, ev.Added)
        times = [m.event.at for m in self.moments if not m.struck and isinstance(m.event.payload, telling)]
        return max(times, default=None)

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


def fold(log: Iterable[ev.Event]) -> Timeline:
    """Run through the events of one batch, in order of time, then of number.

    The order in which they were recorded does not matter. The newest ``started`` that stands is the
    start, and everything else is applied to it.
    """
    ordered = sorted(log, key=lambda e: (e.at, e.seq))
    struck = struck_ids(ordered)
    starts = [e for e in ordered if isinstance(e.payload, ev.Started) and e.id not in struck]
    newest = max(starts, key=lambda e: e.seq, default=None)
    started = newest.payload if newest and isinstance(newest.payload, ev.Started) else None
    pot = _begin(started) if started else None
    begun = False
    moments: list[Moment] = []
    wanted: ev.Wanted | None = None
    chosen: ev.Chosen | None = None
    finished: ev.Finished | None = None
    fat_settled = thickener_added = salt_added = False
    verdicts: dict[str, str | None] = {"body": None, "salt": None}
    for event in ordered:
        happened = event.payload
        begun = begun or isinstance(happened, ev.Started)
        if event.id in struck:
            moments.append(Moment(event, pot if begun else None, struck=True))
            continue
        problem = None
        if isinstance(happened, ev.Wanted):
            wanted = happened
        elif isinstance(happened, ev.Chosen):
            chosen = happened
        elif isinstance(happened, ev.Tested):
            verdicts[happened.of] = happened.verdict
        elif isinstance(happened, ev.Finished):
            finished = happened
        elif pot is not None and not isinstance(happened, ev.Started | ev.Noted | ev.Struck):
            try:
                pot = _applied(pot, happened)
            except SpissusError as error:
                problem = error
            else:
                fat_settled = fat_settled or isinstance(happened, ev.Skimmed)
                thickener_added = thickener_added or isinstance(happened, ev.Thickened)
                salt_added = salt_added or isinstance(happened, ev.Salted)
                _forget_verdicts(verdicts, happened)
        moments.append(Moment(event, pot if begun else None, problem=problem))
    return Timeline(tuple(moments), started, pot, wanted, chosen, fat_settled, thickener_added, salt_added,
        verdicts["body"], verdicts["salt"], finished,
    )  # fmt: skip


def _forget_verdicts(verdicts: dict[str, str | None], happened: object) -> None:
    """A verdict holds until the pot changes in what it judged."""
    if isinstance(happened, ev.Thickened | ev.Added) or (isinstance(happened, ev.Read) and verdicts["body"] == "low"):
        verdicts["body"] = None
    if isinstance(happened, ev.Salted | ev.Added):
        verdicts["salt"] = None


def _begin(started: ev.Started) -> Pot:
    known = started.liquid
    contents, salt = strained_liquid(
        started.pan, known.measured, fat_mm=known.fat_mm, fat_ml=known.fat_ml,
        salt_percent=starting_salt_percent(known.salt), character=known.character,
    )  # fmt: skip
    return Pot(
        contents, started.pan, started.burner, known.measured.hot, salt.best - salt.low, salt.high - salt.best,
        known.measured.method, _error(started.pan, known.measured, contents),
    )  # fmt: skip


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
        case ev.Added():
            what = ingredient(happened.ingredient)
            mass = happened.mass_g if happened.mass_g is not None else (happened.volume_ml or 0.0) * what.density_g_ml
            return _mixed(pot, what.portion(mass), "volume_ml")
    raise TypeError(f"not an event that changes the pot: {happened!r}")


def _mixed(pot: Pot, more: Contents, field: str) -> Pot:
    contents = pot.contents + more
    if contents.volume_ml > pot.pan.capacity_ml:
        raise MeasurementError(
            field,
            f"With that, {show_volume(contents.volume_ml).both} would be in “{pot.pan.name}”, "
            f"which holds {show_volume(pot.pan.capacity_ml).both}.",
        )
    return replace(pot, contents=contents)


def _skimmed(pot: Pot, happened: ev.Skimmed) -> Pot:
    way = WAYS[happened.way]
    if happened.fat_ml is None:
        fat_ml = way.share * pot.contents.fat_ml
    elif happened.fat_ml > 1.5 * pot.contents.fat_ml + 30.0:
        raise SpissusError(
            "fat_ml",
            f"Only about {show_volume(pot.contents.fat_ml).both} of fat was floating. "
            "If there was more, correct the start first.",
        )
    else:
        fat_ml = happened.fat_ml
    contents = skimmed(pot.contents, fat_ml, way.liquid_per_fat * fat_ml)
    share = contents.salt / pot.contents.salt if pot.contents.salt > 0.0 else 1.0
    return replace(pot, contents=contents, salt_minus=pot.salt_minus * share, salt_plus=pot.salt_plus * share)


def _read(pot: Pot, happened: ev.Read) -> Pot:
    if happened.gain == "misread":
        return pot
    measured, contents = happened.measured, pot.contents
    try:
        if measured.method == "scale":
            net_g = gross_to_net_g(pot.pan, measured.value)
            gained_ml = (net_g - contents.mass_g) / contents.density_g_ml
        else:
            net_g = None
            gained_ml = measured_volume_ml(pot.pan, measured) - contents.volume_ml
    except SpissusError as misfit:
        raise MeasurementError(f"measured.{misfit.field}", misfit.message) from None
    error = _error(pot.pan, measured, contents)
    if gained_ml > 0.0:
        if happened.gain == "added":
            contents = contents + Contents(water=gained_ml / SPECIFIC_VOLUME_ML_G["water"])
        elif gained_ml > 2.0 * (error**2 + pot.error_ml**2) ** 0.5:
            raise GainError(gained_ml, net_g is not None)
        # A gain within the error of the two measurements is no news.
    else:
        try:
            if net_g is not None:
                contents = boiled_to_mass(contents, net_g)
            else:
                contents = boiled_to_volume(contents, contents.liquid_ml + gained_ml)
        except SpissusError:
            raise MeasurementError(
                "measured.value",
                "That is less than the solids and the fat alone would take up. Check the reading and how it was taken.",
            ) from None
    return replace(pot, contents=contents, hot=measured.hot, measured_by=measured.method, error_ml=error)


def _error(pan: Pan, measured: Measured, contents: Contents) -> float:
    return error_ml(pan, measured.method, contents.volume_ml, contents.density_g_ml)


class GainError(MeasurementError):
    """A reading that shows more in the pot than there can be; ``gained_ml`` is how much, mL."""

    def __init__(self, gained_ml: float, weighed: bool) -> None:
        more = show_mass(gained_ml).both if weighed else show_volume(gained_ml).both
        super().__init__(
            "measured.value",
            f"That is {more} more than was there before. Did you add something, or was it misread?",
        )
        self.gained_ml = gained_ml


def fat_to_skim(pot: Pot) -> bool:
    """Whether more fat floats than a cook would usually leave."""
    return pot.contents.fat_free > 1.5 * usual_rest_g(pot.contents.liquid_ml)
