"""What a good cook would say next, as the page says it: salted stock, other pots, and slips."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo
from .test_stove import planned
from .test_walk import add_salt, now_line, start


def test_salted_stock_is_not_boiled_far_and_the_bar_says_why(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Salted stock", "1.6 l, no fat, 1.2 % salt", salt="1.2 %")
    now_line(page).get_by_role("button", name="That is it").click()
    expect(now_line(page)).to_contain_text(re.compile("take .* and stretch it"))
    now_line(page).get_by_role("button", name="Take this way").click()
    expect(now_line(page)).to_contain_text(re.compile("Take .* for the sauce by the jug"))
    now_line(page).get_by_role("button", name="Taken").click()
    expect(now_line(page)).to_contain_text(re.compile("Stir in .* of unsalted stock or water first"))
    now_line(page).get_by_role("button", name="Stirred in").click()
    expect(now_line(page)).to_contain_text("Whisk in")


def test_another_pot_rings_on_any_page_and_is_one_tap_away(page: Page, site: Site) -> None:
    page.clock.install()
    enter_demo(page, site)
    planned(page, site, "Cheek left alone")
    page.goto(f"{site.url}/kitchen")
    expect(page.get_by_role("main")).to_be_visible()
    page.clock.fast_forward("30:00")
    strip = page.get_by_role("alert").filter(has_text="look now")
    expect(strip).to_be_visible()
    strip.get_by_role("link").click()
    expect(now_line(page)).to_be_visible()


def test_a_slip_is_taken_and_asked_about_until_it_is_answered(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Slipped", "1.6 l, no fat, 0.6 %")
    add_salt(page, "50 g")
    expect(now_line(page)).to_contain_text("or 5\u00a0g?")
    page.reload()
    expect(now_line(page)).to_contain_text("or 5\u00a0g?")
    now_line(page).get_by_role("button", name="5 g", exact=True).click()
    expect(now_line(page)).to_contain_text("For four people")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Season").click()
    expect(page.get_by_role("region", name="Season")).to_contain_text(re.compile(r"0\.9\d %"))
