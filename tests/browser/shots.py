"""The pictures in docs/screenshots/, one for each main view, taken from the demo kitchen.

Run by ``./spissus shots``.
"""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Page, expect

from .site import ROOT, Site, chromium, enter_demo, served

FOLDER = ROOT / "docs" / "screenshots"
PORK, DUCK, VENISON = "Pork cheek", "Duck leg", "Venison"


def _open(page: Page, site: Site, name: str, view: str = "") -> None:
    page.goto(site.url)
    link = page.get_by_role("link", name=re.compile(name)).get_attribute("href")
    page.goto(f"{site.url}{link}/{view}")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    if view == "plan":
        expect(page.get_by_role("listitem", name="Your volume, with roux")).to_be_visible()


def _save(page: Page, name: str) -> None:
    page.mouse.move(0, 0)
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.screenshot(path=FOLDER / f"{name}.png")


def take(site: Site) -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with chromium() as browser:

        def tablet(**more: Any) -> Page:
            page = browser.new_context(**{"viewport": {"width": 1280, "height": 800}} | more).new_page()
            page.goto(site.url)
            return page

        page = tablet()
        expect(page.get_by_role("button", name="Step into the demo kitchen")).to_be_visible()
        _save(page, "welcome")
        enter_demo(page, site)
        _save(page, "batches")
        page.goto(f"{site.url}/start")
        page.get_by_role("radio", name="24 cm braising pan").click()
        page.get_by_role("radio", name="Dip").click()
        page.get_by_label("Measurement").fill("52 mm")
        page.get_by_label("Fat on top, if any").fill("6 mm")
        expect(page.get_by_text("6\u00a0mm thick")).to_be_visible()
        _save(page, "start")
        for name, view in ((PORK, "plan"), (PORK, "strain"), (DUCK, "skim"), (PORK, "thicken"), (PORK, "season")):
            _open(page, site, name, view)
            _save(page, view)
        _open(page, site, PORK)
        _save(page, "reduce")
        _open(page, site, VENISON)
        _save(page, "serve")
        page.goto(f"{site.url}/kitchen")
        expect(page.get_by_role("heading", name="Burners")).to_be_visible()
        _save(page, "kitchen")
        dim = tablet(color_scheme="dark")
        enter_demo(dim, site)
        _open(dim, site, PORK)
        _save(dim, "reduce-dim")
        phone = tablet(viewport={"width": 390, "height": 844})
        enter_demo(phone, site)
        _open(phone, site, PORK)
        _save(phone, "reduce-phone")


if __name__ == "__main__":
    with served("spissus_shots") as running:
        take(running)
