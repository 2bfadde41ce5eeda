"""The devices of the demo: a scale and a salt meter on the pork, a thermometer in the mutton that cools."""

from __future__ import annotations

from batches.services import batches_named, log_of
from devices.services import device_of, devices_of, issue, revoke
from kitchens.services import demo_member
from spissus_core.fold import Pot, fold
from spissus_core.heating import FULL_BOIL
from spissus_core.learning import power_of

NAMES = {"scale": "stove scale", "salt_meter": "salt meter", "thermometer": "probe in the mutton"}


def commands(url: str) -> list[list[str]]:
    """The programs that stand in for the devices, as words of a command line.

    Tokens are issued anew each time; those of an earlier run end.
    """
    member = demo_member()
    if member is None:
        return []
    for device in devices_of(member):
        if device.name in NAMES.values():
            revoke(member, device_of(member, device.id).id)
    out = []
    pork = next(iter(batches_named(member, "Pork cheek in dry cider")), None)
    pot = fold(log_of(pork)).pot if pork else None
    if pork is not None and pot is not None and pot.gross_g is not None:
        for kind, more in (("scale", _scale(pot)), ("salt_meter", _salt(pot))):
            _, token = issue(member, NAMES[kind], kind, pork.pk)
            out.append([f"standins.{kind}", "--url", url, "--token", token, *more])
    mutton = next(iter(batches_named(member, "Mutton shoulder with barley and bay")), None)
    timeline = fold(log_of(mutton)) if mutton else None
    if mutton is not None and timeline is not None and timeline.cooling is not None:
        last = timeline.cooling.readings[-1]
        _, token = issue(member, NAMES["thermometer"], "thermometer", mutton.pk)
        more = ["--celsius", f"{last.celsius:.1f}", "--surroundings", f"{timeline.cooling.surroundings_c:g}"]
        out.append(["standins.thermometer", "--url", url, "--token", token, "--constant", "72", *more])
    return out


def _steam(pot: Pot) -> float:
    """What this pot loses, a little less than its burner promises, g/min."""
    power = power_of(pot, FULL_BOIL)
    return 0.92 * power.steam_g_min if power else 0.0


def _scale(pot: Pot) -> list[str]:
    assert pot.gross_g is not None
    floor = pot.gross_g - 0.45 * pot.contents.water
    return ["--gross", f"{pot.gross_g:.1f}", "--steam", f"{_steam(pot):.1f}", "--floor", f"{floor:.1f}"]


def _salt(pot: Pot) -> list[str]:
    c = pot.contents
    floor = c.liquid_g - 0.45 * c.water
    return [
        "--salt",
        f"{c.salt:.2f}",
        "--liquid",
        f"{c.liquid_g:.0f}",
        "--steam",
        f"{_steam(pot):.1f}",
        "--floor",
        f"{floor:.0f}",
    ]
