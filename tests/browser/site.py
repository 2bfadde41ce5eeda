"""A browser, and the way into the demo."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, sync_playwright
from running import Site

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

PASSWORD = "a long enough secret"


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
    """One tap into a demo kitchen of one's own."""
    page.goto(site.url)
    page.get_by_role("button", name="Step into the demo kitchen").click()
    page.get_by_role("heading", name="On the stove").wait_for()


def sign_up(page: Page, site: Site, name: str) -> None:
    """A new kitchen of somebody with a name."""
    page.goto(site.url)
    page.get_by_role("button", name="Sign up").click()
    for label, text in (("Name", name), ("Password", PASSWORD), ("Kitchen", f"Kitchen of {name}")):
        page.get_by_label(label, exact=True).fill(text)
    page.get_by_role("button", name="Open the kitchen").click()
    page.get_by_role("heading", name="Batches").wait_for()


def another_of(page: Page, browser: Browser, **context: Any) -> Page:
    """Another browser in which the same cook is signed in."""
    other = browser.new_context(**context)
    other.add_cookies(page.context.cookies())  # type: ignore[arg-type]
    return other.new_page()
