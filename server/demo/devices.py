"""The devices of the demo: a scale and a salt meter on the pork, a thermometer in the mutton that cools."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import UTC, datetime

from batches.services import batches_named, log_of
from devices.services import device_of, devices_of, issue, revoke
from kitchens.services import Member
from spissus_core.estimation.forecast import Standing
from spissus_core.estimation.window import power_of
from spissus_core.fold import fold, progress
from spissus_core.phenomena.heating import FULL_BOIL
from spissus_core.planning.bench import stop_of
from spissus_core.pot import Pot

NAMES = {"scale": "stove scale", "salt_meter": "salt meter", "thermometer": "probe in the mutton"}


@dataclass(frozen=True, slots=True)
class StandIn:
    """A program that stands in for a device: what it is called, its words, and the token it is given apart."""

    name: str
    words: list[str]
    token: str


def stand_ins(member: Member, url: str) -> list[StandIn]:
    """The programs that stand in for the devices of somebody's demo kitchen.

    Tokens are issued anew each time; those of an earlier run end.
    """
    for device in devices_of(member):
        if device.name in NAMES.values():
            revoke(member, device_of(member, device.id).id)
    out: list[StandIn] = []
    pork = next(iter(batches_named(member, "Pork cheek in dry cider")), None)
    timeline = fold(log_of(pork), stop_of=stop_of) if pork else None
    ahead = progress(timeline) if timeline else None
    if pork is not None and timeline is not None and ahead is not None and timeline.pot is not None:
        now = ahead.course([datetime.now(UTC)])[0]
        for kind, more in (("scale", _scale(timeline.pot, now)), ("salt_meter", _salt(timeline.pot, now))):
            _, token = issue(member, NAMES[kind], kind, pork.pk)
            out.append(StandIn(NAMES[kind], [f"standins.{kind}", f"--url={url}", *more], token))
    mutton = next(iter(batches_named(member, "Mutton shoulder with barley and bay")), None)
    timeline = fold(log_of(mutton), stop_of=stop_of) if mutton else None
    if mutton is not None and timeline is not None and timeline.cooling is not None:
        last = timeline.cooling.readings[-1]
        _, token = issue(member, NAMES["thermometer"], "thermometer", mutton.pk)
        more = [f"--celsius={last.celsius:.1f}", f"--surroundings={timeline.cooling.surroundings_c:g}", "--constant=72"]
        out.append(StandIn(NAMES["thermometer"], ["standins.thermometer", f"--url={url}", *more], token))
    return out


def _steam(pot: Pot) -> float:
    """What this pot loses, a little less than its burner promises, g/min."""
    power = power_of(pot, FULL_BOIL)
    return 0.92 * power.steam_g_min if power else 0.0


def _scale(pot: Pot, now: Standing) -> list[str]:
    assert pot.pan.empty_g is not None
    gross = pot.pan.empty_g + now.mass_g
    floor = gross - 0.45 * pot.contents.water
    return [f"--gross={gross:.1f}", f"--steam={_steam(pot):.1f}", f"--floor={floor:.1f}"]


def _salt(pot: Pot, now: Standing) -> list[str]:
    liquid = now.mass_g - pot.contents.fat_free
    floor = liquid - 0.45 * pot.contents.water
    words = [f"--salt={pot.contents.salt:.2f}", f"--liquid={liquid:.0f}"]
    return [*words, f"--steam={_steam(pot):.1f}", f"--floor={floor:.0f}"]
