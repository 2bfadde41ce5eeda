"""The whole of Spissus, running as it would for a cook, against a database of its own."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from urllib.error import URLError
from urllib.parse import urlsplit, urlunsplit
from urllib.request import urlopen

import psycopg
from playwright.sync_api import Browser, Page, sync_playwright

ROOT = Path(__file__).resolve().parents[2]
CHROMIUM = "/usr/bin/chromium"
ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


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
        for command in (["migrate", "-v", "0"], ["createcachetable"], ["load_demo"]):
            subprocess.run([sys.executable, "server/manage.py", *command], cwd=ROOT, env=self.env, check=True)

    def start(self) -> None:
        port = str(urlsplit(self.url).port)
        command = [sys.executable, "-m", "config.serve", "--port", port, "--log-level", "error", *self.options]
        self._server = subprocess.Popen(command, cwd=ROOT, env=self.env)
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
            self._server.kill()
            self._server.wait(timeout=20)
            self._server = None

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


@contextmanager
def chromium() -> Iterator[Browser]:
    """Debian's Chromium, headless."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=ARGUMENTS)
        try:
            yield browser
        finally:
            browser.close()


def enter_demo(page: Page, site: Site) -> None:
    """One tap into the demo kitchen."""
    page.goto(site.url)
    page.get_by_role("button", name="Step into the demo kitchen").click()
    page.get_by_role("heading", name="On the stove").wait_for()
