"""A dish that is made again: kept from a batch, opened for others, started in another pan, got ready with others."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo
from .test_screens import send
from .test_walk import now_line, open_batch, word


def open_dish(page: Page, site: Site, name: str) -> None:
    page.goto(f"{site.url}/house-dishes")
    page.get_by_role("link", name=re.compile(name)).click()
    expect(page.get_by_role("heading", name=re.compile(name))).to_be_visible()


def test_a_dish_for_six_is_started_for_thirty_in_another_pan(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_dish(page, site, "Hogget neck")
    comes_to = page.get_by_role("region", name="What it comes to")
    expect(comes_to.get_by_role("listitem")).to_have_count(1)
    # No pan of this kitchen holds thirty helpings' worth: that is said, and for how many one would do.
    page.get_by_label("For how many?").fill("30")
    expect(comes_to.get_by_role("alert")).to_contain_text(re.compile(r"does not fit in it. .* is enough for \d\d\."))
    sides = ("base_length_mm", "base_width_mm", "rim_length_mm", "rim_width_mm")
    rondeau = {"name": "forty-centimetre rondeau", "shape": "round", "height_mm": 190} | dict.fromkeys(sides, 400)
    send(page, "POST", "/pans", rondeau)
    page.reload()
    page.get_by_label("For how many?").fill("30")
    expect(page.get_by_role("region", name="For 30")).to_contain_text("9 kg lamb neck")
    expect(comes_to).to_contain_text("Everything 5 times, but not the time")
    comes_to.get_by_role("button", name=re.compile("^In which pan")).click()
    page.get_by_role("radio", name="forty-centimetre rondeau").click()
    expect(comes_to.get_by_role("listitem")).to_have_count(2)
    page.get_by_role("button", name="Start it for 30").click()
    expect(page.get_by_label("What is it?")).to_have_value("Hogget neck in brown ale")
    expect(word(page, "Pan")).to_contain_text("forty-centimetre rondeau")
    went_in = page.get_by_role("region", name="What went in")
    expect(went_in.get_by_role("listitem").filter(has_text="lamb neck")).to_contain_text(re.compile(r"9\s000\sg"))
    page.get_by_label("Say what you have").fill("8.8 l, 400 ml fat")
    expect(now_line(page)).to_contain_text(re.compile(r"8\s\d\d\d\smL of liquid"))
    page.get_by_role("button", name="This is what I have").click()
    # The wish came along for as many; the batch is one of the dish.
    expect(page.get_by_text("for 30, with something to soak it up").first).to_be_visible()
    open_dish(page, site, "Hogget neck")
    expect(page.get_by_role("region", name="Made of it").get_by_role("listitem")).to_have_count(2)


def test_a_batch_is_kept_as_a_dish_changed_put_away_and_brought_back(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Venison neck")
    page.get_by_role("button", name="Serve").click()
    page.get_by_role("button", name="Keep it as a house dish").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("For how many was it?").fill("a dozen")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_role("alert")).to_be_visible()
    sheet.get_by_label("For how many was it?").fill("12")
    sheet.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("heading", name=re.compile("Venison neck"))).to_be_visible()
    change = page.get_by_role("region", name="Change it")
    change.get_by_label("Salt, %").fill("1.05")
    change.get_by_role("button", name="Keep the change").click()
    versions = page.get_by_role("region", name="Versions")
    expect(versions).to_contain_text(re.compile(r"salt 0\.95\s% → 1\.05\s%"))
    versions.get_by_role("button", name="Back to 1").click()
    expect(versions).to_contain_text(re.compile(r"salt 1\.05\s% → 0\.95\s%"))
    change.get_by_role("button", name="Put it away").click()
    expect(change.get_by_role("button", name="Bring it back")).to_be_visible()
    page.goto(f"{site.url}/house-dishes")
    expect(page.get_by_role("link", name=re.compile("Venison neck"))).to_have_count(0)
    page.get_by_role("button", name="What was put away").click()
    page.get_by_role("button", name=re.compile("Bring it back.*Venison")).click()
    expect(page.get_by_role("link", name=re.compile("Venison neck"))).to_be_visible()


def test_several_dishes_make_one_list_to_get_ready(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/house-dishes")
    page.get_by_label("People for Hogget neck").fill("12")
    page.get_by_role("button", name=re.compile("Get ready Hogget")).click()
    ready = page.get_by_role("region", name="To get ready")
    expect(ready.get_by_role("checkbox", name=re.compile(r"3\s600\sg\slamb neck"))).to_be_visible()
    ready.get_by_role("checkbox", name=re.compile("lamb neck")).check()
    page.get_by_label("People for Hogget neck").fill("0")
    expect(ready.get_by_role("alert")).to_be_visible()
