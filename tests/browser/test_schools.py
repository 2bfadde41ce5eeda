"""Other ways to thicken, walked to a finished sauce: for a guest without gluten, and of the pot's own fat."""

from __future__ import annotations

import re

from makers import text_of
from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo
from .test_judgement import answer, answer_and_wait
from .test_stove import of_batch
from .test_walk import pick, start, way_in_hand, wish, word


def another_way(page: Page, school: str) -> None:
    way_in_hand(page).get_by_role("button", name="Another way to thicken").click()
    sheet = page.get_by_role("dialog", name="Another way to thicken")
    sheet.get_by_role("list", name="Ways to thicken").get_by_role("button", name=re.compile(f"^{school}")).click()
    expect(sheet).to_be_hidden()


def taken(page: Page) -> None:
    """The way is taken: the wish and the way are two entries, and what is asked then follows both."""
    log = page.get_by_role("button", name=re.compile("^Log"))
    entries = int(log.inner_text().split()[-1])
    answer(page, "Take this way")
    expect(log).to_have_text(re.compile(rf"{entries + 2}$"))


def obeyed(page: Page) -> list[str]:
    """The bar is obeyed until it is done: too thin before anything went in, right after that. What it said."""
    heard: list[str] = []
    for _ in range(25):
        # What is asked now, as the page will show it: its sentence may still be the one before.
        act = of_batch(page, "/".join(page.url.split("/")[:5]))["act"]
        heard.append(text_of(act["sentence"]))
        if act["doing"] == "done" or not act["answers"]:
            break
        labels = [answer["label"] for answer in act["answers"]]
        thickened = any("hisk" in line for line in heard[:-1])
        spoons = "Both right" if thickened else "Both too thin"
        answer_and_wait(page, next((one for one in (spoons, "Right") if one in labels), labels[0]))
    return heard


def test_a_roux_that_the_kitchen_keeps_ready(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Add a thickener").click()
    page.get_by_label("What you call it").fill("house roux")
    page.get_by_label("What is in it, a line each").fill("500 g flour\n500 g dripping wood")
    page.get_by_text("cooked with fat, a roux that stands ready").click()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("alert")).to_contain_text("dripping wood")
    page.get_by_label("What is in it, a line each").fill("500 g flour\n500 g butter")
    expect(page.get_by_role("status").filter(has_text="does the work of 50 g of flour")).to_be_visible()
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_role("region", name="Thickeners of your own")).to_contain_text("house roux")
    start(page, site, "House roux", "900 ml, no fat, 0.7 % salt", salt="0.7 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    another_way(page, "house roux")
    expect(way_in_hand(page)).to_contain_text("with house roux")
    taken(page)
    heard = obeyed(page)
    assert any("house roux" in line for line in heard)
    expect(page.get_by_text("house roux").first).to_be_visible()


def test_arrowroot_for_a_guest_without_gluten(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Without gluten", "900 ml, no fat, 0.7 % salt", salt="0.7 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    word(page, "without").click()
    page.get_by_role("group", name="Somebody must not have").get_by_role("button", name="gluten").click()
    page.keyboard.press("Escape")
    way_in_hand(page).get_by_role("button", name="Another way to thicken").click()
    sheet = page.get_by_role("dialog", name="Another way to thicken")
    fit = sheet.get_by_role("list", name="Ways to thicken")
    expect(fit.get_by_role("button", name=re.compile("^arrowroot"))).to_contain_text("the clearest gloss")
    expect(fit.get_by_role("button", name=re.compile("^(white|brown|dark) roux"))).to_have_count(0)
    sheet.get_by_role("button", name=re.compile("that this sauce does not bear, and why")).click()
    expect(sheet).to_contain_text(re.compile("white roux: .*gluten"))
    page.keyboard.press("Escape")
    another_way(page, "arrowroot")
    expect(way_in_hand(page)).to_contain_text("with arrowroot")
    taken(page)
    heard = obeyed(page)
    assert any(re.search("of arrowroot, and whisk it back in", line) for line in heard), heard
    assert not any("flour" in line or "corn" in line for line in heard), heard
    assert re.search("Done: |Finished with", heard[-1]), heard


def test_a_roux_of_the_pots_own_fat(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Its own fat", "940 ml, 60 ml of fat, 0.7 % salt", salt="0.7 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    # Before anything was kept there is no such roux.
    way_in_hand(page).get_by_role("button", name="Another way to thicken").click()
    sheet = page.get_by_role("dialog", name="Another way to thicken")
    sheet.get_by_role("button", name=re.compile("that this sauce does not bear, and why")).click()
    expect(sheet).to_contain_text("No fat of this pot was kept")
    page.keyboard.press("Escape")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Skim").click()
    page.get_by_role("button", name="The fat is off").click()
    page.keyboard.press("p")
    another_way(page, "roux of its own fat")
    expect(way_in_hand(page)).to_contain_text("with a roux of its own fat")
    taken(page)
    heard = obeyed(page)
    assert any("of its own fat" in line for line in heard), heard
    assert re.search("Done: |Finished with", heard[-1]), heard


def test_a_puree_of_its_vegetables(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Milled", "900 ml, no fat, 0.5 % salt", salt="0.5 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    # For a sauce that coats it would take more than it bears.
    pick(page, "how thick", "light coat")
    another_way(page, "purée of its own vegetables")
    expect(way_in_hand(page)).to_contain_text("with its vegetables, milled")
    taken(page)
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Thicken").click()
    card = page.get_by_role("region", name="Making it: purée of its own vegetables")
    expect(card).to_contain_text("of milled vegetables")
    expect(card).to_contain_text("Push it through the sieve")
    heard = obeyed(page)
    # It is judged by the spoon from the first.
    assert any("spoonfuls" in line for line in heard[:3]), heard
    assert any(re.search("Whisk in .* of milled vegetables", line) for line in heard), heard
    assert re.search("Done: |Finished with", heard[-1]), heard


def test_granules_bring_their_salt(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Unsalted", "900 ml, no fat, 0.1 % salt", salt="0.1 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    pick(page, "how thick", "light coat")
    way_in_hand(page).get_by_role("button", name="Another way to thicken").click()
    sheet = page.get_by_role("dialog", name="Another way to thicken")
    granules = sheet.get_by_role("list", name="Ways to thicken").get_by_role(
        "button", name=re.compile("^gravy granules")
    )
    expect(granules).to_contain_text(re.compile(r"It brings [\d.]+\sg of salt with it, which is counted"))
    expect(granules).to_contain_text("Brings gluten, milk, celery")
    granules.click()
    taken(page)
    heard = obeyed(page)
    assert any("of gravy granules" in line for line in heard), heard
    assert re.search("Done: |Finished with", heard[-1]), heard
    told = of_batch(page, "/".join(page.url.split("/")[:5]))
    # Two thirds of the salt that is in it came with them: 900 mL of 0.1 % hold less than a gram.
    assert told["pot"]["salt"]["best"] > 0.5, told["pot"]["salt"]


def test_a_slurry_in_wine_of_which_some_is_left(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "In wine", "900 ml, no fat, 0.7 % salt", salt="0.7 %")
    wish(page, "makes", "Finished sauce", "850 ml")
    another_way(page, "corn starch slurry")
    taken(page)
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Thicken").click()
    card = page.get_by_role("region", name=re.compile("^Making it: corn starch"))
    card.get_by_role("radio", name="red wine").click()
    card.get_by_role("button", name="It stands ready").click()
    expect(card).to_contain_text("stands ready")
    expect(card).to_contain_text("of red wine")
    heard = obeyed(page)
    assert any(re.search("Whisk in .* of what stands ready", line) for line in heard), heard
    assert re.search("Done: |Finished with", heard[-1]), heard
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Thicken").click()
    expect(card).to_contain_text(re.compile(r"g of corn starch is left of it"))
    page.get_by_role("button", name=re.compile("^Log")).click()
    expect(page.get_by_role("dialog")).to_contain_text("stirred into red wine")
