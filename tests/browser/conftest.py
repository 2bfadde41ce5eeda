"""A site and a browser for the tests that look at the page."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, Page, expect
from running import PATIENCE_S, Site, served

from .site import chromium

# What is seen ends the waiting, on a slow machine too.
expect.set_options(timeout=PATIENCE_S * 1000)


@pytest.fixture(scope="session")
def site(worker_id: str) -> Iterator[Site]:
    with served(f"spissus_browser_{worker_id}") as running:
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
    context.set_default_timeout(PATIENCE_S * 1000)
    page = context.new_page()
    failures: list[str] = []
    page.on("pageerror", lambda error: failures.append(str(error)))
    page.on("console", lambda said: failures.append(said.text) if "Content Security Policy" in said.text else None)
    yield page
    context.close()
    assert failures == []
