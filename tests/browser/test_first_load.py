"""What a first visit costs: budgets that no clock decides. How long it takes is measured by ``./spissus bench``."""

from __future__ import annotations

import gzip
import json
import re
from collections.abc import Iterator
from urllib.request import Request, urlopen

import pytest
from playwright.sync_api import Browser, Page, Route, expect
from running import ROOT, Site

from .first_load import first_load
from .site import enter_demo
from .test_walk import now_line, open_batch

BUILT = ROOT / "web" / "dist"
CHUNKS: dict[str, dict[str, object]] = json.loads((BUILT / "manifest.json").read_text())
STAGES = sorted(key for key in CHUNKS if key.startswith("src/stages/") and key.endswith("Panel.tsx"))

#: Script for the first look at a stage, bytes as they travel to any browser.
MOST_SCRIPT = 150_000
#: Below this nobody sees anything move.
MOST_SHIFT = 0.01


def _needed(key: str, seen: set[str]) -> Iterator[str]:
    """A chunk and all that it cannot do without."""
    if key not in seen:
        seen.add(key)
        yield str(CHUNKS[key]["file"])
        for other in CHUNKS[key].get("imports", []):  # type: ignore[attr-defined]
            yield from _needed(other, seen)


@pytest.mark.parametrize("stage", STAGES)
def test_the_first_look_at_a_stage_needs_little_script(stage: str) -> None:
    seen: set[str] = set()
    files = [*_needed("src/main.tsx", seen), *_needed(stage, seen)]
    assert sum(len(gzip.compress((BUILT / "site" / file).read_bytes())) for file in files) <= MOST_SCRIPT


def test_every_stage_is_a_chunk_of_its_own() -> None:
    assert len(STAGES) == 7
    assert not set(STAGES) & set(CHUNKS["src/main.tsx"]["imports"])  # type: ignore[call-overload]


def test_nothing_moves_and_nothing_is_asked_twice(browser: Browser, site: Site) -> None:
    visit = first_load(browser, site, slow=False)
    assert visit.shifted < MOST_SHIFT
    first = visit.asked[:5]
    assert sorted(first) == sorted(set(first))
    assert sum(call.startswith("batches?") for call in visit.asked) == 1


@pytest.mark.parametrize(("asked", "said"), [("br", "br"), ("gzip", "gzip"), ("identity", None)])
def test_what_is_built_is_sent_as_small_as_the_browser_takes_it_and_kept(
    site: Site, asked: str, said: str | None
) -> None:
    script = CHUNKS["src/main.tsx"]["file"]
    with urlopen(Request(f"{site.url}/static/{script}", headers={"Accept-Encoding": asked})) as answer:
        assert answer.headers["Content-Encoding"] == said
        assert "immutable" in answer.headers["Cache-Control"]


def test_answers_of_the_api_are_compressed(site: Site) -> None:
    with urlopen(Request(f"{site.url}/api/v1/openapi.json", headers={"Accept-Encoding": "gzip"})) as answer:
        assert answer.headers["Content-Encoding"] == "gzip"
        assert len(answer.read()) > 1000


def test_something_is_painted_before_any_script(browser: Browser, site: Site) -> None:
    context = browser.new_context(java_script_enabled=False, viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(site.url)
    frame = page.locator(".skeleton")
    assert frame.bounding_box() == {"x": 0, "y": 0, "width": 1280, "height": 800}
    context.close()


def test_a_part_that_does_not_come_is_asked_for_until_it_does(page: Page, site: Site) -> None:
    refused: list[str] = []

    def refuse_twice(route: Route) -> None:
        if len(refused) < 2:
            refused.append(route.request.url)
            route.abort()
        else:
            route.continue_()

    enter_demo(page, site)
    page.route(re.compile(r"/OpenSheet-[\w-]+\.js$"), refuse_twice)
    # With a server that answers, the page would be loaded anew for a build that is no more: this one is of today.
    page.evaluate("sessionStorage.setItem('spissus-anew', String(Date.now()))")
    open_batch(page, "Pork cheek")
    expect(now_line(page)).to_be_visible()
    page.keyboard.press("n")
    expect(page.get_by_role("dialog", name="Note")).to_be_visible()
    assert len(refused) == 2
