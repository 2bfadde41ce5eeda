"""The pictures in docs/screenshots/, one for each main view, taken from the demo kitchen.

Run by ``./spissus shots``.
"""

from __future__ import annotations

import re
from datetime import UTC, datetime
from typing import Any

from playwright.sync_api import Page, expect
from running import ROOT, Site, served

from .site import chromium, enter_demo
from .test_walk import pick, way_in_hand, word

#: The hour of the evening at which the pictures are taken.
SERVICE = 19

FOLDER = ROOT / "docs" / "screenshots"
PORK, DUCK, VENISON, MUTTON = "Pork cheek", "Duck leg", "Venison", "Mutton"


def _open(page: Page, site: Site, name: str, view: str = "") -> None:
    page.goto(site.url)
    link = page.get_by_role("main").get_by_role("link", name=re.compile(name)).get_attribute("href")
    page.goto(f"{site.url}{link}/{view}")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    if view == "plan":
        expect(way_in_hand(page)).to_be_visible()


def _save(page: Page, name: str) -> None:
    page.mouse.move(0, 0)
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.screenshot(path=FOLDER / f"{name}.png")


def _evening() -> str:
    """A time zone in which it is seven in the evening: pictures are of an evening, whenever they are taken."""
    ahead = (SERVICE - datetime.now(UTC).hour + 12) % 24 - 12
    # The names of these zones count westwards.
    return f"Etc/GMT{-ahead:+d}" if ahead else "Etc/GMT"


def take(site: Site) -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with chromium() as browser:

        def tablet(**more: Any) -> Page:
            usual: dict[str, Any] = {"viewport": {"width": 1280, "height": 800}, "timezone_id": _evening()}
            page = browser.new_context(**usual | more).new_page()
            page.goto(site.url)
            return page

        page = tablet()
        expect(page.get_by_role("button", name="Step into the demo kitchen")).to_be_visible()
        _save(page, "welcome")
        enter_demo(page, site)
        _save(page, "batches")
        page.goto(f"{site.url}/start")
        pick(page, "Pan", "24 cm braising pan")
        page.get_by_label("What is it?").fill("Venison neck with Madeira and juniper")
        page.get_by_label("Say what you have").fill("a bit over three litres, 1 cm of fat, nearly right for salt")
        expect(word(page, "Salt")).to_contain_text("nearly right")
        expect(page.get_by_text("10\u00a0mm thick")).to_be_visible()
        _save(page, "start")
        for name, view in ((PORK, "plan"), (PORK, "strain"), (DUCK, "skim"), (PORK, "thicken"), (PORK, "season")):
            _open(page, site, name, view)
            _save(page, view)
        _open(page, site, PORK)
        _save(page, "reduce")
        _open(page, site, MUTTON)
        _save(page, "cooling")
        _open(page, site, VENISON)
        _save(page, "serve")
        page.goto(f"{page.url.rpartition('/')[0]}/story")
        expect(page.get_by_role("img", name=re.compile("^What happened"))).to_be_visible()
        _save(page, "story")
        page.goto(site.url)
        page.get_by_role("link", name="venison sauce").click()
        expect(page.get_by_role("article", name="Label")).to_be_visible()
        _save(page, "kept")
        page.goto(f"{site.url}/house-dishes")
        page.get_by_role("link", name="Hogget neck").click()
        page.get_by_label("For how many?").fill("12")
        expect(page.get_by_role("region", name="What it comes to")).to_contain_text("Everything 2 times")
        _save(page, "house-dish")
        page.goto(f"{site.url}/kitchen")
        expect(page.get_by_role("heading", name="Burners")).to_be_visible()
        _save(page, "kitchen")
        phone = tablet(viewport={"width": 390, "height": 844})
        enter_demo(phone, site)
        _open(phone, site, PORK)
        _save(phone, "reduce-phone")


if __name__ == "__main__":
    with served("spissus_shots") as running:
        take(running)
