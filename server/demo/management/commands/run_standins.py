"""Let stand-in devices read the batches on the stove of whoever steps into the demo, until this is stopped."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

from django.core.management.base import BaseCommand, CommandParser
from django.db import DatabaseError, close_old_connections, connection
from kitchens.services import Member, looking_around

from demo.devices import StandIn, stand_ins
from standins.device import TOKEN_GONE

#: How often it is looked who has stepped in, and whether a stand-in has ended, s.
EVERY_S = 2.0

#: The kitchens that have devices at a time: the newest. Each has three small programs.
MOST_KITCHENS = 3

#: Whoever stepped in before this was started still has pots that boil, for so long.
STILL_BOILING = timedelta(hours=1)


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--url", required=True)

    def handle(self, *args: Any, **options: Any) -> None:
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        running: dict[UUID, list[tuple[StandIn, subprocess.Popen[bytes]]]] = {}
        try:
            while True:
                try:
                    newest = _newest()
                except DatabaseError:
                    # It comes back, and nobody has stepped in meanwhile.
                    time.sleep(EVERY_S)
                    continue
                for gone in running.keys() - newest.keys():
                    _end(running.pop(gone))
                for kitchen, member in newest.items():
                    if kitchen in running:
                        running[kitchen] = [
                            (one, kept) for one, program in running[kitchen] if (kept := self._kept_going(one, program))
                        ]
                    else:
                        running[kitchen] = [(one, _start(one)) for one in stand_ins(member, options["url"])]
                connection.close()
                time.sleep(EVERY_S)
        finally:
            for programs in running.values():
                _end(programs)

    def _kept_going(self, one: StandIn, program: subprocess.Popen[bytes]) -> subprocess.Popen[bytes] | None:
        """The program, or another in its place if it ended; None where its device was taken away."""
        if program.poll() is None:
            return program
        if program.returncode == TOKEN_GONE:
            self.stderr.write(f"The {one.name} was taken away, and its stand-in is gone with it.")
            return None
        self.stderr.write(f"The stand-in for the {one.name} ended ({program.returncode}) and is started again.")
        return _start(one)


def _newest() -> dict[UUID, Member]:
    """Who stepped in last, by their kitchens."""
    close_old_connections()
    lately = looking_around(datetime.now(UTC) - STILL_BOILING)
    return {member.kitchen.pk: member for member in lately[-MOST_KITCHENS:]}


def _start(one: StandIn) -> subprocess.Popen[bytes]:
    environment = os.environ | {"SPISSUS_DEVICE_TOKEN": one.token}
    return subprocess.Popen([sys.executable, "-m", *one.words], env=environment)


def _end(programs: list[tuple[StandIn, subprocess.Popen[bytes]]]) -> None:
    for _, program in programs:
        program.terminate()
    for _, program in programs:
        program.wait(timeout=10)
