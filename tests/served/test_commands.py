"""What `./spissus` does beside serving: keeping a copy, putting it back, and saying why it does not start."""

from __future__ import annotations

import fcntl
import json
import os
import socket
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Any
from urllib.parse import urlsplit

import psycopg
import pytest
from running import ROOT, Cluster, Site, clean_env, free_port


@pytest.fixture
def site() -> Iterator[Site]:
    running = Site("spissus_commands")
    yield running
    running.stop()
    where = urlsplit(running.env["DATABASE_URL"])
    with psycopg.connect(os.environ["DATABASE_URL"], autocommit=True) as server:
        left = server.execute("SELECT datname FROM pg_database WHERE datname LIKE %s", [f"{where.path[1:]}%"])
        for (name,) in left.fetchall():
            server.execute(f'DROP DATABASE "{name}" WITH (FORCE)')


def spissus(site: Site, *words: str, stdin: str = "", **env: str) -> subprocess.CompletedProcess[str]:
    """The one command, against the site's database."""
    given = clean_env(**{"DATABASE_URL": site.env["DATABASE_URL"]} | env)
    return subprocess.run(
        [str(ROOT / "spissus"), *words], env=given, input=stdin, capture_output=True, text=True, check=False
    )


def folded(site: Site) -> dict[str, Any]:
    """Every batch as its page shows it, apart from what moves with the clock."""
    code = """
import json
from batches.models import Batch
from batches.bench import batch_out
from batches.services import log_of
from spissus_core.board import Board
whole = {b.name: json.loads(batch_out(b, Board(log_of(b))).model_dump_json()) for b in Batch.objects.all()}
print(json.dumps(whole))
"""
    done = subprocess.run(
        [sys.executable, "server/manage.py", "shell", "-v", "0", "-c", code],
        cwd=ROOT,
        env=site.env,
        check=True,
        capture_output=True,
        text=True,
    )
    return dict(json.loads(done.stdout))


def rows(site: Site) -> tuple[int, str]:
    """How many entries there are, and what stands in all of them."""
    digest = "SELECT count(*), md5(string_agg(e::text, '' ORDER BY e.id)) FROM batches_event e"
    with psycopg.connect(site.env["DATABASE_URL"]) as database:
        found: tuple[int, str] | None = database.execute(digest).fetchone()
    assert found is not None
    assert found[0] > 30
    return found


def test_a_backup_made_while_serving_puts_every_batch_back(site: Site, tmp_path: Path) -> None:
    site.start()
    before = folded(site)
    assert len(before) > 3
    kept = tmp_path / "evening.dump"
    done = spissus(site, "backup", str(kept))
    assert done.returncode == 0, done.stderr
    assert kept.stat().st_mode & 0o077 == 0
    refused = spissus(site, "restore", str(kept))
    assert refused.returncode == 1
    assert "Stop serving first" in refused.stderr
    site.stop()
    with psycopg.connect(site.env["DATABASE_URL"], autocommit=True) as database:
        database.execute("DELETE FROM batches_event")
    assert all(batch["pot"] is None for batch in folded(site).values())
    done = spissus(site, "restore", str(kept))
    assert done.returncode == 0, done.stderr
    assert "is kept as the database" in done.stderr
    assert folded(site) == before


def test_what_is_no_backup_changes_nothing(site: Site, tmp_path: Path) -> None:
    before = rows(site)
    wrong = tmp_path / "wrong.dump"
    wrong.write_text("not a backup", encoding="utf-8")
    refused = spissus(site, "restore", str(wrong))
    assert refused.returncode == 1
    assert "stays as it is" in refused.stderr
    assert spissus(site, "restore", str(tmp_path / "missing")).returncode == 1
    assert rows(site) == before


#: Does something as soon as it is restored, where it may.
HOSTILE = """
CREATE FUNCTION does() RETURNS int LANGUAGE plpgsql AS $$ BEGIN
    IF current_database() LIKE '%restored%' THEN EXECUTE $x$COPY (SELECT 1) TO PROGRAM 'touch {mark}'$x$; END IF;
    RETURN 1;
END $$;
CREATE MATERIALIZED VIEW seen AS SELECT does();
"""


@pytest.mark.parametrize(
    ("what", "said"),
    [
        (HOSTILE, "could not be restored"),
        (
            "CREATE VIEW still AS SELECT 1; CREATE FUNCTION quiet() RETURNS int LANGUAGE sql AS 'SELECT 1'; "
            "CREATE RULE hushed AS ON DELETE TO batches_event DO INSTEAD NOTHING; CREATE SCHEMA aside",
            "a view (still), a function (quiet), a rule (hushed), a schema (aside)",
        ),
        ("INSERT INTO django_migrations (app, name, applied) VALUES ('batches', '0999_later', now())", "0999_later"),
        ("DROP TABLE django_migrations", "is no backup of Spissus"),
    ],
)
def test_a_file_is_looked_at_before_it_takes_the_place_of_anything(
    site: Site, tmp_path: Path, what: str, said: str
) -> None:
    mark, kept = tmp_path / "mark", tmp_path / "strange.dump"
    with psycopg.connect(site.env["DATABASE_URL"], autocommit=True) as database:
        database.execute(what.replace("{mark}", str(mark)))  # type: ignore[arg-type]
    assert spissus(site, "backup", str(kept)).returncode == 0
    refused = spissus(site, "restore", str(kept))
    assert refused.returncode == 1
    assert said in refused.stderr
    assert "stays as it is" in refused.stderr
    assert not mark.exists()
    with psycopg.connect(site.env["DATABASE_URL"]) as database:
        listed = database.execute("SELECT datname FROM pg_database WHERE datname LIKE 'spissus_commands%'").fetchall()
    assert listed == [("spissus_commands",)]


def test_a_foreign_database_and_half_a_backup_are_no_kitchen(site: Site, tmp_path: Path) -> None:
    before = rows(site)
    foreign, half = tmp_path / "foreign.dump", tmp_path / "half.dump"
    other = Site("spissus_commands_other")
    with psycopg.connect(other.env["DATABASE_URL"], autocommit=True) as database:
        database.execute("DROP SCHEMA public CASCADE; CREATE SCHEMA public; CREATE TABLE trains (id int)")
    assert spissus(other, "backup", str(foreign)).returncode == 0
    refused = spissus(site, "restore", str(foreign))
    assert refused.returncode == 1
    assert "stays as it is" in refused.stderr
    assert spissus(site, "backup", str(half)).returncode == 0
    half.write_bytes(half.read_bytes()[: half.stat().st_size // 2])
    assert "could not be restored" in spissus(site, "restore", str(half)).stderr
    assert rows(site) == before


def test_nothing_is_restored_as_a_superuser(site: Site, tmp_path: Path) -> None:
    kept = tmp_path / "evening.dump"
    assert spissus(site, "backup", str(kept)).returncode == 0
    cluster = Cluster()
    try:
        refused = spissus(site, "restore", str(kept), DATABASE_URL=cluster.url)
    finally:
        cluster.remove()
    assert refused.returncode == 1
    assert "names a superuser" in refused.stderr


def test_a_port_that_is_taken_is_said_before_anything_is_done(site: Site) -> None:
    with socket.socket() as other:
        other.bind(("127.0.0.1", 0))
        other.listen()
        port = str(other.getsockname()[1])
        refused = spissus(site, "demo", PORT=port)
    assert refused.returncode == 1
    assert f"Something else has port {port}" in refused.stderr
    assert f"PORT={int(port) + 1} ./spissus demo" in refused.stderr


def test_an_earlier_start_is_recognised(site: Site) -> None:
    port = str(free_port())
    mark = ROOT / ".run" / f"serving-{port}"
    try:
        with mark.open("w", encoding="utf-8") as earlier:
            fcntl.flock(earlier, fcntl.LOCK_EX)
            earlier.write("4711\n")
            earlier.flush()
            refused = spissus(site, "serve", PORT=port)
        assert refused.returncode == 1
        assert "An earlier start of this copy, process 4711" in refused.stderr
        with socket.socket() as orphan:
            orphan.bind(("127.0.0.1", int(port)))
            orphan.listen()
            mark.write_text(f"4711\n{os.getpid()}\n", encoding="utf-8")
            refused = spissus(site, "serve", PORT=port)
        assert f"Stop that with: kill {os.getpid()}" in refused.stderr
    finally:
        mark.unlink(missing_ok=True)


def test_a_forgotten_password_is_set_anew(site: Site) -> None:
    with psycopg.connect(site.env["DATABASE_URL"]) as database:
        database.execute("UPDATE kitchens_user SET username = 'early-shift'")
    weak = spissus(site, "password", "early-shift", stdin="short\n")
    assert weak.returncode != 0
    assert "too short" in weak.stderr
    assert "Nobody signs in as" in spissus(site, "password", "nobody-at-all", stdin="x\n").stderr
    done = spissus(site, "password", "EARLY-shift", stdin="a perfectly new secret\n")
    assert done.returncode == 0, done.stderr
    assert "early-shift has a new password" in done.stdout


def test_tidying_lets_go_of_what_is_old_and_of_nothing_else(site: Site) -> None:
    # Nobody is signed in to what somebody stepped into: it stands for a kitchen with a name here.
    with psycopg.connect(site.env["DATABASE_URL"]) as database:
        database.execute("UPDATE kitchens_kitchen SET claimed = true, is_demo = false")
    before = rows(site)
    done = spissus(site, "tidy")
    assert done.returncode == 0, done.stderr
    assert "raw readings" in done.stdout
    assert rows(site) == before


def test_a_step_that_fails_stops_the_command_with_its_own_message(site: Site, tmp_path: Path) -> None:
    (tmp_path / "npm").write_text("#!/bin/sh\necho 'npm: no network' >&2\nexit 1\n", encoding="utf-8")
    (tmp_path / "npm").chmod(0o755)
    copy = tmp_path / "copy"
    subprocess.run(["git", "clone", "-q", str(ROOT), str(copy)], check=True)
    # Everything but the front end is there already.
    (copy / ".venv").symlink_to(ROOT / ".venv")
    failed = subprocess.run(
        [str(copy / "spissus"), "serve"],
        capture_output=True,
        text=True,
        check=False,
        env=clean_env(DATABASE_URL=site.env["DATABASE_URL"], PORT=str(free_port()))
        | {"PATH": f"{tmp_path}:{os.environ['PATH']}"},
    )
    assert failed.returncode == 1
    assert failed.stderr.rstrip().endswith("Front-end packages could not be installed: npm says why above.")
    assert "Traceback" not in failed.stderr
