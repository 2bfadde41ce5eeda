"""Let the stand-in devices read the demo batch that is on the stove, until this is stopped."""

from __future__ import annotations

import signal
import subprocess
import sys
import time
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from demo.devices import commands


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--url", required=True)

    def handle(self, *args: Any, **options: Any) -> None:
        running = [subprocess.Popen([sys.executable, "-m", *words]) for words in commands(options["url"])]
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        try:
            while any(program.poll() is None for program in running):
                time.sleep(0.5)
        finally:
            for program in running:
                program.terminate()
            for program in running:
                program.wait(timeout=10)
