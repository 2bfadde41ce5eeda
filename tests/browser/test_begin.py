"""From the bare address to a first way in one sentence and two taps; kept afterwards, and brought along."""

from __future__ import annotations

import re

from playwright.sync_api import Browser, Page, expect
from running import Site

from .site import sign_up
from .test_walk import now_line, way_in_hand, word

SENTENCE = "1.4 litres, 5 mm fat, nearly right for salt"


def begin(page: Page, site: Site) -> None:
    """A pot of one's own on its bench, before any name was asked."""
    page.goto(site.url)
    page.get_by_label("What have you strained?").press_sequentially(SENTENCE, delay=15)
    # Not a letter is lost while the page goes over into the start.
    expect(page.get_by_label("Say what you have")).to_have_value(SENTENCE)
    expect(word(page, "How much")).to_contain_text("1400 ml")
    page.get_by_role("button", name="This is what I have").click()
    # A menu opened before the bench stands would go with the page it was opened on.
    expect(way_in_hand(page)).to_be_visible()


def test_a_first_way_stands_after_one_sentence_and_two_taps_and_is_kept(page: Page, site: Site) -> None:
    begin(page, site)
    now_line(page).get_by_role("button").first.click()
    page.get_by_role("link", name="Spissus, to the batches").click()
    expect(page.get_by_text("in this browser alone")).to_be_visible()
    page.get_by_role("button", name="Menu").click()
    expect(page.get_by_role("menuitem", name=re.compile("Sign out"))).to_have_count(0)
    page.get_by_role("menuitem", name="Keep this kitchen").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Name").fill("under-the-stairs")
    sheet.get_by_label("Password").fill("a long enough secret")
    sheet.get_by_label("Kitchen").fill("Under the stairs")
    sheet.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("in this browser alone")).to_have_count(0)
    expect(page.get_by_role("main").get_by_role("link", name=re.compile("Sauce")).first).to_be_visible()


def test_what_was_begun_comes_along_into_a_kitchen_with_a_name(page: Page, site: Site, browser: Browser) -> None:
    other = browser.new_context().new_page()
    sign_up(other, site, "long-shift")
    begin(page, site)
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign in to another").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Name").fill("long-shift")
    sheet.get_by_label("Password").fill("a long enough secret")
    sheet.get_by_role("button", name="Sign in", exact=True).click()
    expect(sheet).to_have_count(0)
    other.reload()
    expect(other.get_by_role("main").get_by_role("link", name=re.compile("Sauce")).first).to_be_visible()
    other.context.close()
