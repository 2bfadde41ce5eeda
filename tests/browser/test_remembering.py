"""What a batch is remembered by: a note comes back in the next one at its moment; a wrong amount is mended."""

from __future__ import annotations

import re
from datetime import UTC, datetime
from urllib.parse import urlparse
from uuid import uuid4

from playwright.sync_api import Page, expect
from running import Site
from spissus_core import events as ev

from .site import enter_demo
from .test_judgement import answer
from .test_screens import send
from .test_walk import now_line, said, start

DISH = "Ham hock with mustard seed"


def test_a_note_returns_at_the_stop_and_a_wrong_amount_is_mended(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, DISH, "1.2 l, no fat, 0.6 % salt")
    path = page.url
    # Twenty grams of salt were entered for two.
    page.keyboard.press("a")
    add = page.get_by_role("dialog", name="Add")
    add.get_by_role("radio", name="Salt").click()
    add.get_by_label("Salt").last.fill("20 g")
    page.keyboard.press("Enter")
    expect(add).to_be_hidden()
    page.keyboard.press("l")
    log = page.get_by_role("dialog", name="Log")
    entry = log.get_by_role("listitem").filter(has_text="Salt: 20")
    entry.get_by_role("button", name=re.compile("it was another amount")).click()
    entry.get_by_label("How much").fill("a wish")
    entry.get_by_role("button", name="It was so much").click()
    expect(entry.get_by_role("alert")).to_be_visible()
    entry.get_by_label("How much").fill("2 g")
    entry.get_by_role("button", name="It was so much").click()
    # Both stay: what it is now, and that it was mended.
    expect(log.get_by_role("listitem").filter(has_text="Salt: 2.0")).to_be_visible()
    expect(log.get_by_role("listitem").filter(has_text="It was 2 g")).to_be_visible()
    page.keyboard.press("Escape")

    page.goto(f"{path.rstrip('/')}/serve")
    page.get_by_role("button", name="Finish").first.click()
    expect(said(page)).to_contain_text("Finished with")
    was = page.get_by_role("region", name="How it was")
    was.get_by_role("radio", name="very good").click()
    expect(was.get_by_label("How many ate")).to_be_visible()
    was.get_by_label(f"Next time you make {DISH}").fill("Ten minutes longer.")
    was.get_by_role("radio", name="at the stop").click()
    was.get_by_role("button", name="Note it").click()
    expect(was.get_by_role("list", name="Noted for next time")).to_contain_text("Ten minutes longer.")

    start(page, site, DISH, "1.4 l, no fat, 0.6 % salt")
    again = page.get_by_role("list", name="From last time")
    expect(again).to_be_hidden()
    answer(page, "Make that much")
    answer(page, "Take this way")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Reduce").click()
    expect(again).to_contain_text("Ten minutes longer.")
    again.get_by_role("button", name="Done").click()
    expect(again).to_be_hidden()
    expect(now_line(page)).to_be_visible()

    # What is on the heat is not put away; off it, it stands at the end of the list, and comes back from there.
    page.keyboard.press("l")
    log.get_by_role("button", name="Put it away").click()
    expect(log.get_by_role("region", name="This batch").get_by_role("alert")).to_contain_text("on the heat")
    page.keyboard.press("Escape")
    batch = urlparse(page.url).path.split("/")[2]
    off = {"kind": "heated", "heat": "off"}
    now = {"at": datetime.now(UTC).isoformat(), "version": ev.VERSION}
    send(page, "POST", f"/batches/{batch}/events", {"id": str(uuid4()), "payload": off} | now)
    page.keyboard.press("l")
    log.get_by_role("region", name="This batch").get_by_label("Its name").fill("Hock, the second")
    log.get_by_role("button", name="Call it that").click()
    expect(page.get_by_role("heading", name="Hock, the second", include_hidden=True)).to_be_attached()
    log.get_by_role("button", name="Put it away").click()
    expect(page.get_by_role("heading", name="On the stove")).to_be_visible()
    expect(page.get_by_role("link", name=re.compile("Hock, the second"))).to_be_hidden()
    page.get_by_role("button", name="What was put away").click()
    page.get_by_role("button", name="Bring back Hock, the second").click()
    expect(page.get_by_role("link", name=re.compile("Hock, the second")).first).to_be_visible()
