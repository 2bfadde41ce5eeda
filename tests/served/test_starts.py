"""`./spissus` as it is typed, by somebody who has set nothing: alone, again, and beside itself."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from urllib.request import urlopen

import pytest
from running import ENDS_WITH_US, ROOT, Site, clean_env, end_group, free_port, wait_until_alive


@pytest.fixture
def site() -> Iterator[Site]:
    """A database of its own; what serves it is started by the test."""
    running = Site("spissus_starts")
    yield running
    running.stop()


@contextmanager
def started(site: Site, command: str, log: Path, **env: str) -> Iterator[str]:
    """The one command, running; where it is."""
    url = f"http://127.0.0.1:{free_port()}"
    more = {"DATABASE_URL": site.env["DATABASE_URL"], "PORT": url.rpartition(":")[2]} | env
    with log.open("wb") as said:
        running = subprocess.Popen(
            [*ENDS_WITH_US, str(ROOT / "spissus"), command],
            env=clean_env(**more),
            stdout=said,
            stderr=said,
            start_new_session=True,
        )
        try:
            wait_until_alive(url, running)
            yield url
        finally:
            end_group(running, signal.SIGTERM)


def page(url: str) -> str:
    with urlopen(url) as answer:
        return str(answer.read().decode())


@pytest.mark.parametrize("workers", ["1", "3"])
def test_it_serves_with_one_worker_and_with_several(site: Site, tmp_path: Path, workers: str) -> None:
    log = tmp_path / "log"
    with started(site, "serve", log, WORKERS=workers) as url:
        assert "<title>Spissus</title>" in page(url)
        for _ in range(6):
            assert page(f"{url}/api/v1/ready") == '{"database":"ok","migrations":"ok"}'
    assert "Traceback" not in log.read_text()


def test_a_second_start_builds_nothing_and_installs_nothing(site: Site, tmp_path: Path) -> None:
    before = os.readlink(ROOT / "web" / "dist")
    log = tmp_path / "log"
    with started(site, "demo", log) as url:
        assert "Step into" in page(f"{url}/static/{_script(url)}") or page(url)
    assert os.readlink(ROOT / "web" / "dist") == before
    for step in ("Building", "Installing", "Creating"):
        assert step not in log.read_text()


def _script(url: str) -> str:
    return page(url).split('src="/static/')[1].split('"')[0]


def test_the_page_that_is_worked_on_comes_from_vite(site: Site, tmp_path: Path) -> None:
    with started(site, "dev", tmp_path / "log") as url:
        assert "127.0.0.1:5173" in page(url)


def test_workers_that_cannot_serve_end_with_their_message(site: Site) -> None:
    command = [sys.executable, "-m", "config.serve", "--port", str(free_port()), "--workers", "3"]
    ended = subprocess.run(
        command, cwd=ROOT, env=site.env | {"SPISSUS_SECRET_KEY": ""}, capture_output=True, text=True, check=False
    )
    assert ended.returncode == 1
    assert "Set SPISSUS_SECRET_KEY." in ended.stderr
    assert "Every worker ended before it could serve." in ended.stderr


# -- a copy of its own -----------------------------------------------------------------------------


@pytest.fixture
def copy(tmp_path: Path) -> Iterator[Path]:
    """A clone with everything installed, and nothing built or made yet."""
    clone = tmp_path / "copy"
    subprocess.run(["git", "clone", "-q", str(ROOT), str(clone)], check=True)
    # What is being worked on is what is tried.
    for name in ("spissus", "server/config/backup.py", "server/config/settings.py", "web/vite.config.ts"):
        shutil.copy(ROOT / name, clone / name)
    (clone / ".venv").symlink_to(ROOT / ".venv")
    (clone / "web" / "node_modules").symlink_to(ROOT / "web" / "node_modules")
    yield clone
    shutil.rmtree(home_of(clone), ignore_errors=True)


def home_of(clone: Path) -> Path:
    """Where its PostgreSQL lives."""
    if os.geteuid() != 0:
        return clone / ".run"
    summed = subprocess.run(["cksum"], input=str(clone), capture_output=True, text=True, check=True).stdout
    return Path("/var/lib/spissus") / summed.strip().replace(" ", "-")


def run(clone: Path, *words: str, **env: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [str(clone / "spissus"), *words], env=clean_env(**env), capture_output=True, text=True, check=False
    )


def in_shell(clone: Path, script: str) -> subprocess.CompletedProcess[str]:
    """Functions of `./spissus`, called as it calls them."""
    functions = (clone / "spissus").read_text(encoding="utf-8").partition("\ncommand=${1:-help}")[0]
    whole = functions.replace('cd "$(dirname "$0")"', f"cd {clone}") + f"\n{script}\n"
    return subprocess.run(["sh", "-c", whole], env=clean_env(), capture_output=True, text=True, check=False)


#: A cluster as earlier versions made it: all of it belongs to the superuser who serves.
EARLIER = """
owned() { owner_password=; }
cluster pg
as_keeper -d postgres -c 'CREATE DATABASE spissus' -c 'CREATE DATABASE spissus_8399'
as_keeper -d spissus -c 'CREATE TABLE kept (id bigint GENERATED BY DEFAULT AS IDENTITY, more serial)'
"""
OWNERS = """
cluster pg
as_keeper -d postgres -c "SELECT rolname, rolsuper FROM pg_roles WHERE rolname LIKE 'spissus%' ORDER BY 1"
as_keeper -d postgres -c "SELECT datname, datdba::regrole FROM pg_database WHERE datname LIKE 'spissus%' ORDER BY 1"
as_keeper -d spissus -c "SELECT relname, relowner::regrole FROM pg_class WHERE relnamespace = 'public'::regnamespace"
"""


def test_an_earlier_cluster_is_moved_over_to_an_owner_who_is_no_superuser(copy: Path, tmp_path: Path) -> None:
    assert run(copy, "backup", str(tmp_path / "none.dump")).returncode == 1
    made = in_shell(copy, EARLIER)
    assert made.returncode == 0, made.stderr
    kept = run(copy, "backup", str(tmp_path / "kept.dump"))
    assert kept.returncode == 0, kept.stderr
    assert "The database spissus is kept in" in kept.stderr
    # The demo on another port has one of its own, and that is meant where its port is named.
    kept = run(copy, "backup", str(tmp_path / "other.dump"), PORT="8399")
    assert "The database spissus_8399 is kept in" in kept.stderr
    told = in_shell(copy, OWNERS).stdout.split()
    assert told[:2] == ["spissus|t", "spissus_owner|f"]
    assert all(line.endswith("|spissus_owner") for line in told[2:]), told
    assert len(told) == 2 + 2 + 3


def test_a_build_that_is_served_stays_until_nobody_serves_it(copy: Path) -> None:
    build = """
    web_build
    readlink web/dist
    """
    first = in_shell(copy, build).stdout.strip()
    assert (copy / "web" / "dist" / "manifest.json").exists()
    assert in_shell(copy, build).stdout.strip() == first
    server = subprocess.Popen(
        ["flock", "-s", str(copy / "web" / first / ".whole"), "sh", "-c", "echo; exec sleep 1000"],
        stdout=subprocess.PIPE,
        start_new_session=True,
    )
    try:
        assert server.stdout is not None
        server.stdout.readline()
        (copy / "web" / "src" / "styles.css").open("a").write("\n")
        second = in_shell(copy, build).stdout.strip()
        assert second != first
        assert (copy / "web" / first / "manifest.json").exists()
    finally:
        os.killpg(server.pid, signal.SIGTERM)
        server.wait()
    assert in_shell(copy, build).stdout.strip() == second
    assert not (copy / "web" / first).exists()
