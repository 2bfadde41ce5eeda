"""Serve: `python -m config.serve --port 8317 --workers 1`."""

from __future__ import annotations

import argparse
import os
import sys
from contextlib import suppress

import uvicorn
from uvicorn.supervisors import ChangeReload, Multiprocess

# Each worker begins with what this process has in its environment, and reads the settings before the application.
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")


class Workers(Multiprocess):
    """uvicorn's own keeper of processes, which does not start for ever what dies before it has served.

    ``failed`` says that it gave up: as many workers as there should be died in a row, and none had served.
    """

    failed = False
    _died_unserved = 0

    def keep_subprocess_alive(self) -> None:
        """Start anew whoever died, unless all of them die at once: then the fault is in what is started."""
        for worker in self.processes:
            if not worker.process.is_alive():
                self._died_unserved += 1
            elif self._died_unserved and worker.is_ready():
                self._died_unserved = 0
        alive = (worker for worker in self.processes if worker.process.is_alive())
        if self._died_unserved >= self.processes_num and not any(worker.is_ready() for worker in alive):
            print("Every worker ended before it could serve. What it said of itself stands above.", file=sys.stderr)
            self.failed = True
            self.should_exit.set()
            return
        super().keep_subprocess_alive()


def main() -> int:
    """Listen on loopback until told to stop. Returns the exit status: 1 where no worker could serve."""
    options = argparse.ArgumentParser(description=__doc__)
    options.add_argument("--port", type=int, required=True)
    options.add_argument("--workers", type=int, default=1)
    options.add_argument("--reload", action="append", help="begin anew when something in this folder changes")
    options.add_argument("--log-level", default="warning")
    given = options.parse_args()
    config = uvicorn.Config(
        "config.asgi:application",
        host="127.0.0.1",
        port=given.port,
        workers=given.workers,
        reload=bool(given.reload),
        reload_dirs=given.reload,
        http="config.door:PatientProtocol",
        ws="none",
        log_level=given.log_level,
        lifespan="off",
        timeout_graceful_shutdown=3,
        # What a proxy says of an address is looked at before it is believed: config.asgi does both.
        proxy_headers=False,
        server_header=False,
    )
    if config.should_reload:
        ChangeReload(config, target=uvicorn.Server(config).run, sockets=[config.bind_socket()]).run()
        return 0
    if given.workers == 1:
        server = uvicorn.Server(config)
        with suppress(KeyboardInterrupt):
            server.run()
        return int(not server.started)
    workers = Workers(config, sockets=[config.bind_socket()])
    workers.run()
    return int(workers.failed)


if __name__ == "__main__":
    sys.exit(main())
