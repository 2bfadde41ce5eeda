"""A site and a browser for the tests that look at the page."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect
from running import Site, served

from .site import chromium

expect.set_options(timeout=10_000)


@pytest.fixture(scope="session")
def site() -> Iterator[Site]:
    with served("spissus_browser") as running:
        yield running


# Not for the session: Playwright keeps an event loop running in which Django refuses to work.
@pytest.fixture(scope="module")
def browser() -> Iterator[Browser]:
    with chromium() as running:
        yield running


@pytest.fixture
def page(browser: Browser) -> Iterator[Page]:
    """A tablet at the stove. Errors on the page fail the test."""
    # What keeps the page for later has tests of its own, and takes its time in each new browser.
    context = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB", service_workers="block")
    page = context.new_page()
    failures: list[str] = []
    page.on("pageerror", lambda error: failures.append(str(error)))
    page.on("console", lambda said: failures.append(said.text) if "Content Security Policy" in said.text else None)
    yield page
    context.close()
    assert failures == []
