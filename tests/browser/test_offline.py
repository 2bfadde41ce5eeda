"""A tablet that sleeps, is woken, and is loaded again while there is no network."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import UTC, datetime

import pytest
from playwright.sync_api import Browser, Page, expect
from running import Site

from .site import another_of, enter_demo
from .test_stove import of_batch, planned
from .test_walk import in_the_list, now_line, said, take_reading

KEPT = """async () => {
  const opened = indexedDB.open('keyval-store')
  const base = await new Promise((done) => { opened.onsuccess = () => done(opened.result) })
  if (!base.objectStoreNames.contains('keyval')) return []
  const asked = base.transaction('keyval').objectStore('keyval').get('answers')
  const kept = await new Promise((done) => { asked.onsuccess = () => done(asked.result) })
  base.close()
  return (kept?.answers.queries ?? []).map(({ queryKey }) => queryKey.join(' '))
}"""


@pytest.fixture
def boiling(page: Page, site: Site) -> str:
    """The path of a pot of one's own that boils down, begun on another device."""
    enter_demo(page, site)
    planned(page, site, "Cheek beside it")
    return re.sub(r"^.*(/batches/[^/]+).*$", r"\1", planned(page, site, "Cheek in a cellar"))


@pytest.fixture
def tablet(page: Page, browser: Browser, site: Site, boiling: str) -> Iterator[Page]:
    """A tablet that has been in the demo kitchen long enough to have everything."""
    tablet = another_of(page, browser, viewport={"width": 1280, "height": 800}, locale="en-GB")
    tablet.goto(site.url)
    tablet.evaluate("navigator.serviceWorker.ready.then(() => undefined)")
    _until_kept(tablet, boiling)
    yield tablet
    site.stop()
    site.start()
    tablet.context.close()


def address(page: Page, name: str) -> str:
    href = in_the_list(page, name).get_attribute("href")
    assert href is not None
    return href


def _until_kept(page: Page, *addresses: str) -> None:
    wanted = {"session", "lists", *(f"batch {one.rpartition('/')[2]}" for one in addresses)}
    for _ in range(100):
        if wanted <= set(page.evaluate(KEPT)):
            return
        page.wait_for_timeout(100)
    raise AssertionError(f"{wanted - set(page.evaluate(KEPT))} were not kept")


def stop_mark(page: Page) -> str:
    """What the picture of the pot says."""
    return str(page.get_by_role("img", name="The pan in section").get_attribute("aria-label"))


def test_a_reload_without_the_network_shows_every_open_batch_and_takes_entries(
    tablet: Page, site: Site, boiling: str
) -> None:
    page, url = tablet, site.url
    beside = address(page, "Cheek beside it")
    _until_kept(page, boiling, beside)
    pot = of_batch(page, url + boiling)["pot"]
    half_way = f"{(pot['depth']['value'] + 19) / 2:.0f}"
    site.kill()

    # Neither was looked at before.
    page.goto(url + beside)
    expect(said(page)).not_to_be_empty()
    page.goto(url + boiling)
    expect(said(page)).to_contain_text("Stop at")
    expect(page.get_by_text("This is how the pot stood last")).to_be_visible()

    take_reading(page, "Dip", half_way)
    for _ in range(2):
        expect(said(page)).to_contain_text(f"{half_way} mm, not sent yet. Look in")
        assert f"read, not sent yet: {half_way}\u00a0mm" in stop_mark(page)
        expect(page.get_by_role("img", name="The liquid over time")).to_have_accessible_name(re.compile("not sent yet"))
        expect(page.get_by_text("One entry is kept")).to_be_visible()
        page.reload()

    site.start()
    page.reload()
    expect(said(page)).not_to_contain_text("not sent yet")
    expect(page.get_by_text("One entry is kept")).to_have_count(0)
    page.keyboard.press("l")
    expect(
        page.get_by_role("dialog", name="Log").get_by_text(f"Reading by dip: {half_way} mm", exact=True)
    ).to_have_count(1)


def test_the_mark_and_the_clock_go_on_without_the_network(tablet: Page, site: Site, boiling: str) -> None:
    page, url = tablet, site.url
    site.kill()
    page.clock.install(time=datetime.now(UTC))
    page.goto(url + boiling)
    expect(said(page)).to_contain_text("Look in")
    before = page.get_by_role("img", name="The skewer from near").get_attribute("aria-label")
    page.clock.fast_forward("30:00")
    expect(said(page)).to_contain_text("Look now")
    expect(now_line(page).get_by_role("button", name="Quiet")).to_be_visible()
    page.clock.run_for(6000)
    after = page.get_by_role("img", name="The skewer from near").get_attribute("aria-label")
    assert before != after


def test_what_was_done_without_the_network_is_not_asked_for_again(tablet: Page, site: Site, boiling: str) -> None:
    page = tablet
    page.goto(site.url + boiling)
    expect(said(page)).to_contain_text("Look in")
    site.kill()
    page.keyboard.press("a")
    sheet = page.get_by_role("dialog", name="Add")
    sheet.get_by_label("Weight of the salt").fill("2 g")
    sheet.get_by_role("button", name="It is in").click()
    expect(said(page)).to_contain_text("What you did is kept here.")
    expect(now_line(page).get_by_role("button", name="It is not on")).to_have_count(0)
    expect(now_line(page).get_by_role("button", name="Undo")).to_have_count(0)
    # Back again, the server has it once, and says what comes next.
    site.start()
    expect(said(page)).to_contain_text("Look in")
    assert [e["kind"] for e in of_batch(page, site.url + boiling)["log"]].count("salted") == 1


def test_signing_out_leaves_nothing_behind(tablet: Page, site: Site, boiling: str) -> None:
    page = tablet
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    expect(page.get_by_role("button", name="Step into the demo kitchen")).to_be_visible()
    assert page.evaluate(KEPT) == []
    site.kill()
    page.goto(site.url + boiling)
    expect(page.get_by_text("The server cannot be reached.")).to_be_visible()
    expect(page.get_by_text("Cheek in a cellar")).to_have_count(0)


def test_where_the_screen_cannot_be_kept_awake_it_is_said_once(page: Page, site: Site, boiling: str) -> None:
    page.add_init_script(
        "delete Navigator.prototype.wakeLock; Object.defineProperty(window, 'isSecureContext', { value: false })"
    )
    page.goto(site.url + boiling)
    hint = page.get_by_text("Set this screen to stay on")
    expect(hint).to_contain_text("Both come with HTTPS")
    page.get_by_role("button", name="I have set it").click()
    expect(hint).to_have_count(0)
    page.reload()
    expect(said(page)).not_to_be_empty()
    expect(hint).to_have_count(0)


def test_it_can_be_installed(page: Page, site: Site) -> None:
    page.goto(site.url)
    told = page.evaluate(
        """async () => {
          const at = document.querySelector('link[rel=manifest]').href
          const manifest = await (await fetch(at)).json()
          const icons = await Promise.all(manifest.icons.map(async ({ src }) => (await fetch(new URL(src, at))).ok))
          return [manifest.name, manifest.start_url, manifest.display, icons]
        }"""
    )
    assert told == ["Spissus", "/", "standalone", [True] * 4]
