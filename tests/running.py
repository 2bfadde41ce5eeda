"""The whole of Spissus, running as it would for a cook, against a database of its own."""

from __future__ import annotations

import contextlib
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from urllib.error import URLError
from urllib.parse import urlsplit, urlunsplit
from urllib.request import urlopen

import psycopg

ROOT = Path(__file__).resolve().parents[1]

#: What the server's log may not say in a test: a fault of ours, or something that could not be shown.
FAULTS = re.compile(r"Request \S+ failed|is set aside|goes without|Traceback")


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


class Site:
    """A served Spissus with the demo kitchen in a fresh database."""

    def __init__(self, name: str, database: str | None = None, options: tuple[str, ...] = ()) -> None:
        self.options = options
        where = database or os.environ["DATABASE_URL"]
        parts = urlsplit(where)
        with psycopg.connect(where, autocommit=True) as server:
            server.execute(f'DROP DATABASE IF EXISTS "{name}" WITH (FORCE)')
            server.execute(f'CREATE DATABASE "{name}"')
        own = urlunsplit(parts._replace(path=f"/{name}"))
        self.env = os.environ | {"DATABASE_URL": own, "SPISSUS_DEMO": "1"}
        self.url = f"http://127.0.0.1:{free_port()}"
        self._server: subprocess.Popen[bytes] | None = None
        self._log = tempfile.NamedTemporaryFile(prefix="spissus-log-")  # noqa: SIM115
        for command in (["migrate", "-v", "0"], ["createcachetable"], ["load_demo"]):
            subprocess.run([sys.executable, "server/manage.py", *command], cwd=ROOT, env=self.env, check=True)

    def start(self) -> None:
        port = str(urlsplit(self.url).port)
        command = [sys.executable, "-m", "config.serve", "--port", port, "--log-level", "error", *self.options]
        # A group of its own, so that all its processes can be killed at once.
        self._server = subprocess.Popen(command, cwd=ROOT, env=self.env, stderr=self._log, start_new_session=True)
        give_up = time.monotonic() + 30
        while True:
            try:
                urlopen(f"{self.url}/api/v1/health", timeout=2)
            except (URLError, OSError):
                if self._server.poll() is not None or time.monotonic() > give_up:
                    raise
                time.sleep(0.05)
            else:
                return

    def kill(self) -> None:
        """End the server as a power cut would."""
        if self._server is not None:
            os.killpg(self._server.pid, signal.SIGKILL)
            self._server.wait(timeout=20)
            self._server = None

    def kill_one(self) -> None:
        """End one of its processes; another takes its place."""
        assert self._server is not None
        listed = subprocess.run(["pgrep", "-P", str(self._server.pid)], capture_output=True, text=True, check=True)
        os.kill(int(listed.stdout.split()[-1]), signal.SIGKILL)

    @property
    def log(self) -> str:
        """What it has said of itself."""
        return Path(self._log.name).read_text(encoding="utf-8", errors="replace")

    def faults(self) -> list[str]:
        """Lines of its log that should not be there."""
        return [line for line in self.log.splitlines() if FAULTS.search(line)]

    def stop(self) -> None:
        if self._server is not None:
            self._server.terminate()
            self._server.wait(timeout=20)
            self._server = None


@contextmanager
def served(name: str) -> Iterator[Site]:
    """A running site, stopped at the end."""
    site = Site(name)
    site.start()
    try:
        yield site
    finally:
        site.stop()
    assert site.faults() == []


class Cluster:
    """A PostgreSQL cluster that may crash."""

    def __init__(self) -> None:
        bins = sorted(Path("/usr/lib/postgresql").glob("*/bin"))
        self.bin = bins[-1]
        self.home = Path(tempfile.mkdtemp(prefix="spissus-crash-"))
        # PostgreSQL refuses to run as root.
        self.user = "postgres" if os.geteuid() == 0 else None
        if self.user:
            shutil.chown(self.home, self.user)
        self.data = self.home / "data"
        self.port = free_port()
        self._run("initdb", "-D", str(self.data), "-U", "spissus", "-A", "trust", "-N", "-E", "UTF8", "--locale=C")
        self.start()
        self.url = f"postgres://spissus@127.0.0.1:{self.port}/postgres"

    def _run(self, program: str, *words: str) -> None:
        command = [str(self.bin / program), *words]
        subprocess.run(command, check=True, user=self.user, cwd="/", stdout=subprocess.DEVNULL)

    def start(self) -> None:
        options = f"-c listen_addresses=127.0.0.1 -c port={self.port} -c unix_socket_directories="
        self._run("pg_ctl", "-D", str(self.data), "-w", "-l", str(self.data / "log"), "-o", options, "start")

    def crash(self) -> None:
        """Stop at once, without writing anything more: the next start recovers from the log."""
        self._run("pg_ctl", "-D", str(self.data), "-m", "immediate", "stop")

    def remove(self) -> None:
        with contextlib.suppress(subprocess.CalledProcessError):
            self.crash()
        shutil.rmtree(self.home, ignore_errors=True)
