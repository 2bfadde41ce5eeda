"""A brigade: a cook invited on a second browser, a guest on a third, one removed while recording."""

from __future__ import annotations

import re

from playwright.sync_api import Browser, Page, expect
from running import Site

from .site import PASSWORD, enter_demo
from .test_begin import begin
from .test_walk import now_line, open_batch


def claimed(page: Page, site: Site, name: str) -> None:
    """A kitchen of one's own with a pot in it, under a name."""
    begin(page, site)
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Keep this kitchen").click()
    sheet = page.get_by_role("dialog")
    for label, text in (("Name", name), ("Password", "a long enough secret"), ("Kitchen", f"Kitchen of {name}")):
        sheet.get_by_label(label, exact=True).fill(text)
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_have_count(0)


def invited(page: Page, site: Site, role: str) -> str:
    """The link of an invitation."""
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name=f"Invite a {role}").click()
    link = page.get_by_role("dialog").get_by_text(re.compile("/join/")).inner_text()
    page.get_by_role("button", name="Close").click()
    return link


def joined(browser: Browser, link: str) -> Page:
    page = browser.new_context().new_page()
    page.goto(link)
    page.get_by_role("button", name="Join", exact=True).click()
    expect(page.get_by_role("heading", name="Batches")).to_be_visible()
    return page


def test_a_cook_and_a_guest_join_and_one_is_removed_while_recording(page: Page, site: Site, browser: Browser) -> None:
    claimed(page, site, "galley-head")
    cook = joined(browser, invited(page, site, "cook"))
    guest = joined(browser, invited(page, site, "guest"))
    # The cook records; the guest sees it, and is offered nothing that would be refused.
    open_batch(cook, "Sauce")
    cook.get_by_role("button", name="Note").click()
    cook.get_by_role("dialog").get_by_role("textbox").first.fill("smells of bay")
    cook.get_by_role("dialog").get_by_role("button", name=re.compile("Note|Keep")).first.click()
    open_batch(guest, "Sauce")
    expect(now_line(guest)).to_contain_text("You look on here.")
    for act in ("Reading", "Add", "Taste", "Note", "Undo"):
        expect(now_line(guest).get_by_role("button", name=act)).to_have_count(0)
    guest.get_by_role("button", name=re.compile("^Log")).first.click()
    expect(guest.get_by_role("dialog")).to_contain_text("smells of bay")
    guest.goto(f"{site.url}/kitchen")
    expect(guest.get_by_role("heading", name="Who works here")).to_be_visible()
    expect(guest.get_by_role("button", name=re.compile("^(Invite|Add|Remove|Change)"))).to_have_count(0)
    guest.goto(site.url)
    expect(guest.get_by_role("heading", name=re.compile("^On the")).first).to_be_visible()
    expect(guest.get_by_role("button", name="Start a batch")).to_have_count(0)
    # Removed, the cook is out of it at once: what they record now stays with them, and is said.
    page.goto(f"{site.url}/kitchen")
    row = page.get_by_role("region", name="Who works here").get_by_role("listitem").filter(has_text="cooks, records")
    row.get_by_role("button", name=re.compile("^Remove")).click()
    row.get_by_role("button", name=re.compile("^Remove for good")).click()
    expect(row).to_have_count(0)
    expect(cook.get_by_text("smells of bay")).to_have_count(0)
    cook.goto(site.url)
    expect(cook.get_by_role("link", name=re.compile("Sauce"))).to_have_count(0)
    page.get_by_role("button", name="Who changed what").click()
    expect(page.get_by_role("list", name="Who changed what")).to_contain_text("Joined as guest")
    for one in (cook, guest):
        one.context.close()


def test_a_tablet_records_under_its_name_and_a_forgotten_password_is_mended(
    page: Page, site: Site, browser: Browser
) -> None:
    claimed(page, site, "galley-owner")
    # Codes to keep, and a tablet by the stove.
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="You").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_role("button", name=re.compile("^Codes for")).click()
    sheet.get_by_label("Your password").fill(PASSWORD)
    sheet.get_by_role("button", name="Draw new codes").click()
    code = sheet.get_by_role("list", name="Your codes").get_by_role("listitem").first.inner_text()
    sheet.get_by_role("button", name="Close").click()
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Add a tablet of the kitchen").click()
    page.get_by_label("What it is called in the log").fill("tablet-by-the-pass")
    page.get_by_role("button", name="Make its code").click()
    tablet = joined(browser, page.get_by_role("dialog").get_by_text(re.compile("/join/")).inner_text())
    open_batch(tablet, "Sauce")
    tablet.get_by_role("button", name="Note").click()
    tablet.get_by_role("dialog").get_by_role("textbox").first.fill("a touch of bay")
    tablet.get_by_role("dialog").get_by_role("button", name=re.compile("Note|Keep")).first.click()
    expect(tablet.get_by_role("dialog")).to_have_count(0)
    tablet.get_by_role("button", name="Menu").click()
    expect(tablet.get_by_role("menuitem", name=re.compile("^(You|Join)"))).to_have_count(0)
    tablet.context.close()
    page.goto(site.url)
    open_batch(page, "Sauce")
    page.get_by_role("button", name=re.compile("^Log")).first.click()
    expect(page.get_by_role("dialog")).to_contain_text("tablet-by-the-pass")
    # Elsewhere, without the password.
    other = browser.new_context().new_page()
    other.goto(site.url)
    other.get_by_role("button", name="I forgot my password").click()
    for label, text in (("Name", "galley-owner"), ("Code", code), ("New password", "another thing entirely")):
        other.get_by_label(label, exact=True).fill(text)
    other.get_by_role("button", name="Set it and sign in").click()
    expect(other.get_by_role("heading", name="Batches")).to_be_visible()
    other.context.close()


def test_a_code_that_opens_nothing_is_said_beside_it(page: Page, site: Site, browser: Browser) -> None:
    page.goto(f"{site.url}/join")
    page.get_by_label("The code you were given").fill("nothing at all")
    page.get_by_role("button", name="Join", exact=True).click()
    expect(page.get_by_role("alert")).to_contain_text("No invitation that is still open")
    # Whoever looks around in a made-up kitchen goes with it, and joins nothing.
    other = browser.new_context().new_page()
    enter_demo(other, site)
    other.goto(f"{site.url}/join/whatever")
    other.get_by_role("button", name="Join", exact=True).click()
    expect(other.get_by_role("alert")).to_contain_text("Sign out of the made-up kitchen")
    other.context.close()
