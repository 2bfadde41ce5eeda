"""The cook's whole way, by the labels a cook would see."""

from __future__ import annotations

import re
from uuid import uuid4

from playwright.sync_api import Browser, Locator, Page, expect
from running import Site

from .site import another_of, enter_demo


def now_line(page: Page) -> Locator:
    return page.get_by_role("region", name="Now")


def said(page: Page) -> Locator:
    """The sentence of the bar, as it is seen."""
    return now_line(page).locator("[data-said]")


def start(
    page: Page, site: Site, name: str, said: str = "1.6 l, 80 ml of fat, 0.6 % salt", *, salt: str = "0.6 %"
) -> None:
    """A batch in the 24 cm pan, at 0.6 % salt by the meter."""
    page.goto(f"{site.url}/start")
    page.get_by_label("What is it?").fill(name)
    pick(page, "Pan", "24 cm braising pan")
    page.get_by_label("Say what you have").fill(said)
    expect(word(page, "Salt")).to_contain_text(f"{salt} by the meter")
    page.get_by_role("button", name="This is what I have").click()
    expect(page.get_by_role("heading", name=name)).to_be_visible()


def word(page: Page, name: str) -> Locator:
    """A word of the intake's sentence that can be tapped."""
    return page.get_by_role("button", name=re.compile(f"^{name}(, assumed)?: "))


def pick(page: Page, name: str, option: str) -> None:
    word(page, name).click()
    page.get_by_role("dialog", name=name).get_by_role("radio", name=option).click()
    expect(word(page, name)).to_contain_text(option)


def wish(page: Page, name: str, field: str, text: str) -> None:
    """A value of the wish, said anew."""
    word(page, name).click()
    page.get_by_role("dialog", name=name).get_by_label(field).fill(text)
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog", name=name)).to_be_hidden()


def flag(page: Page, name: str) -> Locator:
    """The flag of a way on the pot as it would fall."""
    return page.get_by_role("group", name="Ways there").get_by_role("button", name=re.compile(f"^{name}"))


def way_in_hand(page: Page) -> Locator:
    return page.get_by_role("region", name="The way in hand")


def open_batch(page: Page, name: str) -> None:
    """A batch from the list."""
    in_the_list(page, name).click()


def in_the_list(page: Page, name: str) -> Locator:
    """A batch in the list, on whatever page of it."""
    link = page.get_by_role("main").get_by_role("link", name=re.compile(name))
    older = page.get_by_role("button", name="Older batches")
    for _ in range(6):
        expect(link.or_(older).first).to_be_visible()
        if link.count() > 0:
            break
        lines = page.get_by_role("main").get_by_role("listitem")
        before = lines.count()
        older.click()
        expect(lines).not_to_have_count(before)
    return link.first


def take_reading(page: Page, method: str, value: str) -> None:
    page.keyboard.press("r")
    sheet = page.get_by_role("dialog", name="Reading")
    sheet.get_by_role("radio", name=method).click()
    for key in value:
        sheet.get_by_role("button", name=key, exact=True).click()
    sheet.get_by_role("button", name="Keep the reading").click()


def add_salt(page: Page, amount: str) -> None:
    expect(now_line(page)).to_be_visible()
    page.keyboard.press("a")
    sheet = page.get_by_role("dialog", name="Add")
    sheet.get_by_label("Weight of the salt").fill(amount)
    sheet.get_by_role("button", name="It is in").click()
    expect(sheet).to_be_hidden()


def test_from_a_measured_pot_to_a_finished_sauce(page: Page, site: Site, browser: Browser) -> None:
    enter_demo(page, site)
    start(page, site, "Shin in brown ale")

    # What is wanted, and the ways there.
    expect(now_line(page)).to_contain_text("for four people")
    wish(page, "makes", "Finished sauce", "10 portions of 90 ml")
    pick(page, "how thick", "coats")
    expect(word(page, "makes")).to_contain_text("900\u00a0mL")
    # What this pot does not allow is folded away, with the reason, and stands where it would be too salty.
    page.get_by_role("button", name=re.compile("this pot does not allow")).click()
    expect(page.get_by_role("listitem", name="Boil down, nothing added")).to_contain_text("your limit is 1.30 %")
    flag(page, "boil, nothing added").click()
    expect(now_line(page)).to_contain_text("your limit is 1.30 %")
    expect(now_line(page).get_by_role("button", name="Take this way")).to_have_count(0)
    # A wish outlives a look at another stage, and a reload.
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Strain").click()
    page.keyboard.press("p")
    page.reload()
    expect(word(page, "makes")).to_contain_text("900\u00a0mL")
    flag(page, "your amount").click()
    page.get_by_role("radiogroup", name="Thickened with").get_by_role("radio", name="flour").click()
    expect(way_in_hand(page)).to_contain_text("Your amount, with roux")
    way_in_hand(page).get_by_role("button", name=re.compile("Why")).click()
    expect(way_in_hand(page)).to_contain_text("g salt ÷")
    expect(now_line(page)).to_contain_text(re.compile(r"Boil it down to .*\. Thicken it with .* of flour"))
    now_line(page).get_by_role("button", name="Take this way").click()

    # Fat off, then down to the mark.
    expect(now_line(page)).to_contain_text("Skim off about 75\u00a0mL")
    page.get_by_role("radio", name="separator jug").click()
    page.get_by_role("button", name="The fat is off").click()
    expect(now_line(page)).to_contain_text("Stop at")
    take_reading(page, "Scale", "3480")
    expect(now_line(page)).to_contain_text("Look in")
    expect(page.get_by_role("img", name=re.compile("The pan in section"))).to_be_visible()
    take_reading(page, "Scale", "3030")
    # Seconds after the reading before: it is asked about, and right.
    page.get_by_role("dialog", name="Reading").get_by_role("button", name="It is right").click()

    # The fat is looked at once more before it is bound; then bind, test, season.
    expect(now_line(page)).to_contain_text("How does the fat look?")
    now_line(page).get_by_role("button", name="Single eyes").click()
    expect(now_line(page)).to_contain_text("of flour with")
    now_line(page).get_by_role("button", name="Whisked in").click()
    expect(now_line(page)).to_contain_text("min more. Simmer")
    expect(now_line(page)).to_contain_text("look at two spoonfuls")
    # The spoon that looks like the cook's is the verdict.
    log = page.get_by_role("button", name=re.compile("^Log"))
    entries = log.inner_text()
    page.get_by_role("region", name="The spoon").get_by_role("button", name=re.compile("^slippery")).click()
    expect(log).not_to_have_text(entries)
    # One spoon is not the whole truth, nor is one taste: it is asked until it is likely right, or the ledger agrees.
    for _ in range(12):
        line, entries = said(page).inner_text(), log.inner_text()
        if "Done: " in line:
            break
        if "easure it" in line:
            take_reading(page, "Scale", "3060")
        elif "flour" in line:
            now_line(page).get_by_role("button", name="Whisked in").click()
        else:
            now_line(page).get_by_role("button", name=re.compile("^(Both right|Right)$")).click()
        expect(log).not_to_have_text(entries)

    # A note, an undo, and the end.
    expect(now_line(page)).to_contain_text("Done: ")
    page.keyboard.press("n")
    sheet = page.get_by_role("dialog", name="Note")
    sheet.get_by_label("What you want to remember").fill("Less salt in the braise next time")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_be_hidden()
    page.keyboard.press("u")
    expect(page.get_by_role("button", name=re.compile("Undo ?: (Tasted twice|Salt)"))).to_be_visible()
    page.get_by_label("Measured yield, if you like").fill("890 ml")
    now_line(page).get_by_role("button", name="Finish", exact=True).click()
    expect(now_line(page)).to_contain_text("Finished with 890\u00a0mL.")

    # A reload, another browser and a restart of the server all show the same.
    page.reload()
    expect(now_line(page)).to_contain_text("Finished with 890\u00a0mL.")
    site.stop()
    site.start()
    other = another_of(page, browser)
    other.goto(site.url)
    other.get_by_role("main").get_by_role("link", name=re.compile("Shin in brown ale")).click()
    expect(now_line(other)).to_contain_text("Finished with 890\u00a0mL.")
    other.context.close()


def test_dragging_the_volume_moves_everything(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Neck to drag")
    handle = page.get_by_role("slider", name="Boil down to")
    before = handle.get_attribute("aria-valuetext")
    frame = handle.bounding_box()
    assert frame is not None
    x, y = frame["x"] + frame["width"] / 2, frame["y"] + frame["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 120, y, steps=8)
    page.mouse.up()
    expect(handle).not_to_have_attribute("aria-valuetext", before or "")
    expect(flag(page, "your amount")).to_have_attribute("aria-pressed", "true")
    # Every answer is shown, one after the other; the last is that of the place where it was let go, in handle and card.
    page.wait_for_function(
        """() => {
            const told = document.querySelector('[role=slider]').getAttribute('aria-valuetext').split(':')[0]
            return document.querySelector('[aria-label="The way in hand"]').textContent.includes(told)
        }"""
    )
    dragged = handle.get_attribute("aria-valuetext") or ""
    handle.focus()
    page.keyboard.press("ArrowLeft")
    expect(handle).not_to_have_attribute("aria-valuetext", dragged)
    # What cannot be had keeps the picture, with the sentence beside its word.
    wish(page, "makes", "Finished sauce", "40 l")
    expect(page.get_by_role("region", name="What you want").get_by_role("alert")).to_be_visible()
    expect(flag(page, "your amount")).to_be_visible()
    expect(now_line(page)).to_contain_text("That cannot be made")


def test_the_level_can_be_dragged_in_the_pot(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    level = page.get_by_role("slider", name="Level in the pan, mm")
    frame = level.bounding_box()
    assert frame is not None
    x = frame["x"] + frame["width"] / 2
    page.mouse.move(x, frame["y"] + frame["height"] - 4)
    page.mouse.down()
    page.mouse.move(x, frame["y"] + frame["height"] / 2, steps=6)
    page.mouse.up()
    expect(word(page, "How much")).to_contain_text(re.compile(r"\d+ mm by dip"))
    depth = level.get_attribute("aria-valuenow")
    level.focus()
    page.keyboard.press("ArrowUp")
    expect(level).not_to_have_attribute("aria-valuenow", depth or "")
    # What was said so far survives a reload.
    said = word(page, "How much").text_content() or ""
    page.reload()
    expect(word(page, "How much")).to_have_text(said)


def test_bad_input_gets_a_sentence_beside_the_field(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    pick(page, "Pan", "24 cm braising pan")
    word(page, "How much").click()
    asked = page.get_by_role("dialog", name="How much")
    measurement = asked.get_by_label("Measurement")
    for text, sentence in (
        ("1/0 cup", "divides by zero"),
        ("9 furlongs", "is not a unit known here"),
        ("-1 l", "below zero"),
        ("40 l", "does not fit in it"),
    ):
        measurement.fill(text)
        expect(asked.get_by_role("alert")).to_contain_text(sentence)
        expect(measurement).to_have_value(text)
    asked.get_by_role("radio", name="Scale").click()
    measurement.fill("900 g")
    expect(asked.get_by_role("alert")).to_contain_text("The empty pan weighs")
    expect(page.get_by_role("button", name="This is what I have")).to_be_disabled()


def test_a_reading_that_gains_is_asked_about(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Tail that gains")
    take_reading(page, "Jug", "1900")
    sheet = page.get_by_role("dialog", name="Reading")
    expect(sheet.get_by_role("alert")).to_contain_text("Did you add something, did it boil less, or was it misread?")
    sheet.get_by_role("button", name="It was misread").click()
    expect(sheet).to_be_hidden()
    page.keyboard.press("l")
    expect(page.get_by_role("dialog", name="Log")).to_contain_text("misread")


def test_what_goes_in_is_foreseen_and_what_is_missing_is_offered(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Neck that is flat", "0.6 l, no fat, 0.6 % salt")
    page.keyboard.press("a")
    sheet = page.get_by_role("dialog", name="Add")
    sheet.get_by_role("radio", name="Something else").click()
    sheet.get_by_label("Search").fill("double cream")
    sheet.get_by_role("radio", name=re.compile("^cream, 36 %")).click()
    sheet.get_by_label("How much").fill("200 ml")
    # All that it changes is read before it is poured.
    expect(sheet.get_by_role("status")).to_contain_text("rounder:")
    expect(sheet.get_by_role("status")).to_contain_text("brings milk")
    page.keyboard.press("Escape")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Season").click()
    page.get_by_role("radio", name="Sharpness").click()
    lemon = page.get_by_role("listitem", name="lemon juice")
    expect(lemon).to_contain_text(" × as sour")
    lemon.get_by_role("button", name="It is in").click()
    expect(now_line(page)).to_contain_text("lemon juice")
    page.keyboard.press("l")
    expect(page.get_by_role("dialog", name="Log")).to_contain_text("of lemon juice")


def test_undo_in_the_log_and_back(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Cheek with undo")
    add_salt(page, "3 g")
    page.keyboard.press("l")
    log = page.get_by_role("dialog", name="Log")
    log.get_by_role("button", name=re.compile("Take back ?: Salt")).click()
    log.get_by_role("button", name=re.compile("Bring back ?: Salt")).click()
    expect(log.get_by_role("button", name=re.compile("Take back ?: Salt"))).to_be_visible()


def test_the_start_can_be_corrected(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Shoulder misread")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Strain").click()
    page.get_by_role("button", name="Correct the start").click()
    word(page, "How much").click()
    page.get_by_role("dialog", name="How much").get_by_label("Measurement").fill("1.2 l")
    page.keyboard.press("Enter")
    expect(now_line(page)).to_contain_text("1\u00a0080\u00a0mL of liquid")
    page.get_by_role("button", name="Correct it").click()
    expect(page.get_by_role("region", name="Strain")).to_contain_text("1\u00a0080\u00a0mL")


def test_two_tablets_on_one_pot(page: Page, site: Site, browser: Browser) -> None:
    enter_demo(page, site)
    start(page, site, "Knuckle for two")
    other = another_of(page, browser, viewport={"width": 1280, "height": 800})
    other.goto(page.url)
    add_salt(other, "2 g")
    expect(page.get_by_role("button", name=re.compile("Undo ?: Salt: 2.0"))).to_be_visible()
    other.context.close()


def test_units_are_one_tap_away(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Pork cheek")
    # A mark, or, once it has probably gone past, how much there may be.
    metric, us = re.compile(r"mm|mL|\bg\b"), re.compile(r"\bin\b|cup|qt|tbsp|\blb\b|\boz\b")
    expect(now_line(page)).to_contain_text(metric)
    page.get_by_role("button", name=re.compile("Units: mL")).click()
    expect(now_line(page)).to_contain_text(us)
    page.get_by_role("button", name=re.compile("Units: cups")).click()
    expect(now_line(page)).to_contain_text(metric)


def test_signing_up_and_adding_a_pan(page: Page, site: Site) -> None:
    page.goto(site.url)
    page.get_by_role("button", name="Sign up").click()
    page.get_by_label("Name").fill(f"cook-{uuid4().hex[:8]}")
    page.get_by_label("Password").fill("short")
    page.get_by_label("Kitchen").fill("Corner bistro")
    page.get_by_role("button", name="Open the kitchen").click()
    expect(page.get_by_role("alert")).to_contain_text("too short")
    page.get_by_label("Password").fill("a long enough secret")
    page.get_by_role("button", name="Open the kitchen").click()
    expect(page.get_by_text("Nothing on the stove yet")).to_be_visible()
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Add a pan").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("What you call it").fill("copper pot")
    sheet.get_by_label("Width of the base").fill("22 cm")
    sheet.get_by_label("Depth").fill("9 furlongs")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("is not a unit")
    sheet.get_by_label("Depth").fill("9 cm")
    sheet.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("heading", name="copper pot")).to_be_visible()
    page.get_by_role("button", name="Put away copper pot").click()
    expect(page.get_by_role("heading", name="copper pot")).to_be_hidden()
    page.get_by_role("button", name="Change small burner, high").click()
    sheet.get_by_label("Power into the liquid, kW").fill("900")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("between 0.05 and 20")
    sheet.get_by_label("Power into the liquid, kW").fill("0,9")
    sheet.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("0.9 kW · 24 g of steam a minute")).to_be_visible()


def test_going_back_closes_a_sheet_and_leaves_the_page(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Pork cheek")
    expect(now_line(page)).to_be_visible()
    at, dialog = page.url, page.get_by_role("dialog")
    # Closed by other means, opened anew, one after the other: going back is about the one that is open.
    for letter in "nat":
        page.keyboard.press(letter)
        expect(dialog).to_be_visible()
        page.keyboard.press("Escape")
        expect(dialog).to_be_hidden()
    page.keyboard.press("a")
    page.get_by_label("Weight of the salt").fill("1.5 g")
    page.go_back()
    expect(dialog).to_be_hidden()
    assert page.url == at
    # What was typed is still there.
    page.keyboard.press("a")
    expect(page.get_by_label("Weight of the salt")).to_have_value("1.5 g")
    page.go_back()
    expect(dialog).to_be_hidden()
    page.go_back()
    expect(page.get_by_role("heading", name="On the stove")).to_be_visible()
