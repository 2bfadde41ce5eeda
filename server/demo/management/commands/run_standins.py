"""Let the stand-in devices read the demo batches that are on the stove, until this is stopped."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from demo.devices import StandIn, stand_ins
from standins.device import TOKEN_GONE

#: Pause before a stand-in that ended is started again, s.
AGAIN_S = 5.0


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--url", required=True)

    def handle(self, *args: Any, **options: Any) -> None:
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        running = [(one, _start(one)) for one in stand_ins(options["url"])]
        try:
            while running:
                time.sleep(AGAIN_S)
                running = [(one, kept) for one, program in running if (kept := self._kept_going(one, program))]
        finally:
            for _, program in running:
                program.terminate()
            for _, program in running:
                program.wait(timeout=10)

    def _kept_going(self, one: StandIn, program: subprocess.Popen[bytes]) -> subprocess.Popen[bytes] | None:
        """The program, or another in its place if it ended; None where its device was taken away."""
        if program.poll() is None:
            return program
        if program.returncode == TOKEN_GONE:
            self.stderr.write(f"The {one.name} was taken away, and its stand-in is gone with it.")
            return None
        self.stderr.write(f"The stand-in for the {one.name} ended ({program.returncode}) and is started again.")
        return _start(one)


def _start(one: StandIn) -> subprocess.Popen[bytes]:
    environment = os.environ | {"SPISSUS_DEVICE_TOKEN": one.token}
    return subprocess.Popen([sys.executable, "-m", *one.words], env=environment)
