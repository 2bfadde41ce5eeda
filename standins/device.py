"""What all of them do: read once in a while, and send what was read, however bad the network."""

from __future__ import annotations

import argparse
import json
import os
import random
import signal
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from datetime import UTC, datetime, timedelta
from types import FrameType

#: Readings sent at once, and readings kept while the server does not answer.
AT_ONCE, KEPT = 60, 5000


#: What one ends with when its token is not known: there is no use in starting it again.
TOKEN_GONE = 3

#: The environment names the token, where no list of processes shows it.
TOKEN = "SPISSUS_DEVICE_TOKEN"


def parser(what: str, every_s: float) -> argparse.ArgumentParser:
    """The options that every stand-in has."""
    options = argparse.ArgumentParser(description=what, epilog=f"The device's token is read from {TOKEN}.")
    options.add_argument("--url", required=True, help="where Spissus is, such as http://127.0.0.1:8317")
    options.add_argument("--every", type=float, default=every_s, help="seconds between readings")
    options.add_argument("--speed", type=float, default=1.0, help="how much faster than a clock it lives")
    options.add_argument("--since", type=float, default=0.0, help="begin so many minutes ago, and catch up")
    options.add_argument("--minutes", type=float, default=24 * 60.0, help="stop after so many minutes of its life")
    options.add_argument("--seed", type=int, default=1, help="of the noise")
    return options


def run(options: argparse.Namespace, read: Callable[[float, random.Random], float]) -> None:
    """Read and send until told to stop.

    ``read`` gives the reading at a minute of the device's life. Readings carry the time they were made;
    what cannot be sent is kept and sent later.
    """
    if not os.environ.get(TOKEN):
        sys.exit(f"Set {TOKEN} to the device's token.")
    signal.signal(signal.SIGTERM, _stop)
    noise = random.Random(options.seed)
    began = datetime.now(UTC) - timedelta(minutes=options.since)
    waiting: list[dict[str, object]] = []
    lived = 0.0
    while lived <= options.minutes * 60.0:
        at = began + timedelta(seconds=lived)
        ahead = (at - datetime.now(UTC)).total_seconds()
        if ahead > 0.0:
            time.sleep(min(ahead, 1.0))
            continue
        waiting.append({"at": at.isoformat(), "value": round(read(lived / 60.0, noise), 3)})
        lived += options.every
        behind = (datetime.now(UTC) - at).total_seconds() > 2.0 * options.every
        if len(waiting) >= AT_ONCE or not behind:
            waiting = _sent(options, waiting)
        if options.speed != 1.0 or behind:
            time.sleep(options.every / max(options.speed, 1.0))
    while waiting:
        waiting = _sent(options, waiting)


def _sent(options: argparse.Namespace, waiting: list[dict[str, object]]) -> list[dict[str, object]]:
    """Send what waits; what is still to be sent."""
    body = json.dumps({"readings": waiting[:AT_ONCE]}).encode()
    headers = {"Content-Type": "application/json", "Authorization": f"Bearer {os.environ[TOKEN]}"}
    request = urllib.request.Request(f"{options.url}/api/v1/device/readings", body, headers)
    try:
        with urllib.request.urlopen(request, timeout=10):
            return waiting[AT_ONCE:]
    except urllib.error.HTTPError as answer:
        if answer.code in (401, 403):
            print("The token is not known any more.", file=sys.stderr)
            sys.exit(TOKEN_GONE)
        if answer.code == 429 or answer.code >= 500:
            time.sleep(2.0)
            return waiting[-KEPT:]
        # Nobody wants these: no batch is chosen, or they are of another time.
        print(answer.read().decode(errors="replace"), file=sys.stderr)
        return waiting[AT_ONCE:]
    except (urllib.error.URLError, OSError):
        time.sleep(1.0)
        return waiting[-KEPT:]


def _stop(_signal: int, _frame: FrameType | None) -> None:
    sys.exit(0)
