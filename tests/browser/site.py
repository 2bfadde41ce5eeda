"""A browser, and the way into the demo."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

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


#: The salt that the kitchen has come to like is forgotten.
FORGETS = """async () => {
  const token = document.cookie.split('; ').find((one) => one.startsWith('csrftoken=')).slice(10)
  await fetch('/api/v1/liking', {method: 'DELETE', headers: {'X-CSRFToken': token}})
}"""


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
    # Whatever batches of other tests taught it: what is proposed is what is usual.
    page.evaluate(FORGETS)
