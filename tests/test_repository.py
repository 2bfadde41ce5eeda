"""What must hold of the files themselves."""

from __future__ import annotations

import json
import re
import subprocess
from hashlib import sha256
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]


def tracked(pattern: str) -> list[Path]:
    listed = subprocess.run(["git", "ls-files", "-z", pattern], cwd=ROOT, capture_output=True, check=False)
    return [ROOT / name for name in listed.stdout.decode().split("\0") if name]


#: All that may stand at the top, and every kind of file there may be. What a tool leaves behind is neither.
TOP = {
    ".ci",
    ".gitignore",
    "LICENSE",
    "README.md",
    "core",
    "docs",
    "pyproject.toml",
    "requirements-data.txt",
    "requirements-dev.in",
    "requirements-dev.txt",
    "requirements-node.in",
    "requirements-node.txt",
    "requirements-study.in",
    "requirements-study.txt",
    "requirements.in",
    "requirements.txt",
    "server",
    "spissus",
    "standins",
    "tests",
    "web",
}
KINDS = {
    "",
    ".css",
    ".csv",
    ".html",
    ".in",
    ".js",
    ".json",
    ".md",
    ".png",
    ".py",
    ".svg",
    ".toml",
    ".ts",
    ".tsx",
    ".txt",
    ".typed",
    ".woff2",
}
MOST_BYTES = 256 * 1024
#: Pictures, fonts, lock files and what is generated may be larger.
LARGER = {".png", ".woff2"}
LARGER_NAMES = {"package-lock.json", "openapi.json", "schema.d.ts"}


def test_only_what_belongs_here_is_tracked() -> None:
    names = [path.relative_to(ROOT) for path in tracked(".")]
    assert names
    assert {name.parts[0] for name in names} <= TOP
    assert {name.suffix for name in names} - KINDS == set()
    for name in names:
        lock = name.name in LARGER_NAMES or name.name.startswith("requirements")
        if name.suffix not in LARGER and not lock:
            assert (ROOT / name).stat().st_size <= MOST_BYTES, name


@pytest.mark.parametrize("name", [f"requirements{what}.txt" for what in ("", "-dev", "-data", "-node", "-study")])
def test_python_packages_are_pinned_with_hashes_and_name_no_index(name: str) -> None:
    text = (ROOT / name).read_text(encoding="utf-8")
    assert not re.search(r"^\s*--?(index-url|extra-index-url|find-links|i|f)\b", text, re.M)
    assert "://" not in text
    pins = re.findall(r"^[a-z0-9][^\s]*==[^\s]+", text, re.M)
    assert pins
    for block in re.split(r"(?m)^(?=[a-z0-9])", text)[1:]:
        assert "--hash=sha256:" in block, block.splitlines()[0]


def test_what_is_served_is_among_what_is_tested() -> None:
    def pins(name: str) -> set[str]:
        return set(re.findall(r"^[a-z0-9][^\s]*==[^\s]+", (ROOT / name).read_text(encoding="utf-8"), re.M))

    assert pins("requirements.txt") <= pins("requirements-dev.txt")


def test_front_end_packages_are_pinned_and_name_no_registry() -> None:
    lock = json.loads((ROOT / "web" / "package-lock.json").read_text(encoding="utf-8"))
    packages = {name: entry for name, entry in lock["packages"].items() if name}
    assert packages
    for name, entry in packages.items():
        assert "resolved" not in entry, name
        assert entry.get("integrity", "").startswith("sha512-"), name


def test_every_picture_is_shown_in_the_readme_and_there_are_few() -> None:
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    assert 0 < len(pictures) < 20
    for picture in pictures:
        assert f"docs/screenshots/{picture.name}" in readme
    for shown in re.findall(r"docs/screenshots/([\w-]+\.png)", readme):
        assert (ROOT / "docs" / "screenshots" / shown).exists()


def test_the_command_is_sound_shell_and_says_what_it_can_do() -> None:
    subprocess.run(["sh", "-n", str(ROOT / "spissus")], check=True)
    told = subprocess.run([str(ROOT / "spissus"), "help"], capture_output=True, text=True, check=True).stdout
    assert {"./spissus demo", "./spissus test"} <= set(re.findall(r"\./spissus \w+", told))
    wrong = subprocess.run([str(ROOT / "spissus"), "fry"], capture_output=True, text=True, check=False)
    assert wrong.returncode == 2
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    for command in re.findall(r"\./spissus (\w+)", readme):
        assert f"./spissus {command}" in told or command == "help"


#: What makers are called, as the first digits of a SHA-256: none of them is to be read here, or anywhere.
MAKERS = set((ROOT / "tests" / "unnamed.txt").read_text(encoding="utf-8").split())


def test_no_maker_is_named() -> None:
    texts = [
        path
        for pattern in ("*.csv", "*.txt", "*.py", "*.toml", "*.tsx", "*.ts", "*.md")
        for path in tracked(pattern)
        if not path.name.startswith("requirements")
    ]
    named = []
    for path in texts:
        words = set(re.findall(r"[a-z]{3,}", path.read_text(encoding="utf-8").casefold().replace("'", "")))
        named += [f"{path.name}: {word}" for word in words if sha256(word.encode()).hexdigest()[:12] in MAKERS]
    assert not named
