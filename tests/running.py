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
from typing import ClassVar
from urllib.error import URLError
from urllib.parse import urlsplit, urlunsplit
from urllib.request import urlopen

import psycopg

ROOT = Path(__file__).resolve().parents[1]

#: What the server's log may not say in a test: a fault of ours, or something that could not be shown.
FAULTS = re.compile(r"Request \S+ failed|is set aside|goes without|Traceback")


#: How long anything is waited for, s. What is waited for ends the waiting; this is for what never comes.
PATIENCE_S = 120


#: Somebody has stepped into the demo, so that there is something in the database.
STEPPED_INTO = "from datetime import UTC, datetime; from demo.kitchen import step_into; step_into(datetime.now(UTC))"


#: What is started with this before it ends with the tests, whatever ends them and however.
ENDS_WITH_US = ("setpriv", "--pdeathsig", "TERM")


def clean_env(**more: str) -> dict[str, str]:
    """An environment in which nothing is set that a machine need not have set."""
    return {name: os.environ[name] for name in ("PATH", "HOME") if name in os.environ} | more


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def of_server(url: str, name: str) -> str:
    """Another database of the same server."""
    return urlunsplit(urlsplit(url)._replace(path=f"/{name}"))


class Site:
    """A served Spissus in a fresh database, in which somebody has stepped into the demo kitchen."""

    def __init__(self, name: str, database: str | None = None, options: tuple[str, ...] = ()) -> None:
        self.options = options
        where = database or os.environ["DATABASE_URL"]
        self.env = clean_env(
            DATABASE_URL=of_server(where, name),
            SPISSUS_DEMO="1",
            # Every test steps in from the same address.
            SPISSUS_VISITS="100000/hour",
            SPISSUS_SECRET_KEY="of a test",
            PYTHONPATH=os.pathsep.join(str(ROOT / part) for part in (".", "core", "server")),
        )
        self.url = f"http://127.0.0.1:{free_port()}"
        self._server: subprocess.Popen[bytes] | None = None
        self._log = tempfile.NamedTemporaryFile(prefix="spissus-log-")  # noqa: SIM115
        # Made once for each server, and copied from then on.
        pattern = f"spissus_pattern_{os.getpid()}"
        with psycopg.connect(where, autocommit=True) as server:
            if where not in self._made:
                server.execute(f'DROP DATABASE IF EXISTS "{pattern}" WITH (FORCE)')
                server.execute(f'CREATE DATABASE "{pattern}"')
                for command in (["migrate", "-v", "0"], ["createcachetable"], ["shell", "-v", "0", "-c", STEPPED_INTO]):
                    self.manage(*command, DATABASE_URL=of_server(where, pattern))
                self._made.add(where)
            server.execute(f'DROP DATABASE IF EXISTS "{name}" WITH (FORCE)')
            server.execute(f'CREATE DATABASE "{name}" TEMPLATE "{pattern}"')

    _made: ClassVar[set[str]] = set()

    def manage(self, *words: str, **env: str) -> None:
        """A command of the server's, against its database."""
        subprocess.run([sys.executable, "server/manage.py", *words], cwd=ROOT, env=self.env | env, check=True)

    def start(self) -> None:
        port = str(urlsplit(self.url).port)
        serve = [sys.executable, "-m", "config.serve", "--port", port, "--log-level", "error", *self.options]
        command = [*ENDS_WITH_US, *serve]
        # A group of its own, so that all its processes can be killed at once.
        self._server = subprocess.Popen(command, cwd=ROOT, env=self.env, stderr=self._log, start_new_session=True)
        try:
            wait_until_alive(self.url, self._server)
        except BaseException:
            self.kill()
            raise

    def kill(self) -> None:
        """End the server as a power cut would."""
        if self._server is not None:
            end_group(self._server, signal.SIGKILL)
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
            end_group(self._server, signal.SIGTERM)
            self._server = None


def wait_until_alive(url: str, server: subprocess.Popen[bytes]) -> None:
    """Return once a server answers. Raises what stood in the way where it ended before it did."""
    give_up = time.monotonic() + PATIENCE_S
    while True:
        try:
            urlopen(f"{url}/api/v1/health", timeout=PATIENCE_S)
        except (URLError, OSError):
            if server.poll() is not None or time.monotonic() > give_up:
                raise
            time.sleep(0.05)
        else:
            return


def end_group(leader: subprocess.Popen[bytes], by: signal.Signals) -> None:
    """End a process, and all that it started: whatever is left of its group after it."""
    try:
        leader.send_signal(by)
        leader.wait(timeout=PATIENCE_S)
    finally:
        with contextlib.suppress(ProcessLookupError):
            os.killpg(leader.pid, signal.SIGKILL)
        leader.wait()


@contextmanager
def served(name: str, **settings: str) -> Iterator[Site]:
    """A running site with these settings, stopped at the end."""
    site = Site(name)
    site.env |= settings
    try:
        site.start()
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
