"""What happened is held against what was foreseen, and batches against each other, each as a picture."""

from __future__ import annotations

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo
from .test_walk import now_line, open_batch, way_in_hand, word


def test_the_story_of_a_batch_tells_what_came_otherwise_and_why(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Venison neck")
    page.get_by_role("button", name="Serve").click()
    page.get_by_role("link", name="How it went, and why").click()
    picture = page.get_by_role("img", name=re.compile("^What happened over what was foreseen"))
    expect(picture).to_have_accessible_name(re.compile("of corn starch, not"))
    figures = page.get_by_role("main").locator("dl")
    for label in ("made", "body", "salt", "strength", "on the table"):
        expect(figures.get_by_text(label, exact=True)).to_be_visible()
    expect(page.get_by_label("In short")).to_contain_text("→")
    done = page.get_by_role("region", name="What was done").get_by_role("listitem")
    expect(done.first).to_contain_text("by scale in")
    expect(done.filter(has_text="Finished")).to_have_count(1)
    with page.expect_download() as saved:
        page.get_by_role("link", name="entries, a table").click()
    assert saved.value.path().read_text().startswith("time,what,said")


def test_batches_are_found_by_their_month_and_put_side_by_side(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.get_by_label("Find a batch").fill("neck")
    found = page.get_by_role("list", name="Found")
    found.get_by_role("button", name=re.compile("Compare.*Venison neck")).click()
    page.get_by_label("Find a batch").fill("goat orange")
    found.get_by_role("button", name=re.compile("Compare.*Goat shoulder")).click()
    page.get_by_role("link", name="Put these 2 side by side").click()
    rows = page.get_by_role("main").get_by_role("listitem")
    expect(rows).to_have_count(2)
    for name, made in (("Venison neck", "700"), ("Goat shoulder", "1 040")):
        row = rows.filter(has_text=name)
        expect(row.get_by_role("img", name=re.compile("^The sauce's way"))).to_be_visible()
        expect(row).to_contain_text(re.compile(made.replace(" ", "\\s")))


def test_what_went_in_is_read_out_of_a_saved_page(page: Page, site: Site, tmp_path: Path) -> None:
    enter_demo(page, site)
    saved = tmp_path / "shin.html"
    recipe = {"@type": "Recipe", "name": "Shin", "recipeIngredient": ["1 l beef stock", "half a bottle of red wine"]}
    saved.write_text(f'<html><script type="application/ld+json">{json.dumps(recipe)}</script><p>Shin</p></html>')
    nothing = tmp_path / "nothing.html"
    nothing.write_text("<html><p>Shin with onions</p></html>")
    page.goto(f"{site.url}/start")
    page.get_by_label("A saved recipe").set_input_files(nothing)
    went_in = page.get_by_role("region", name="What went in")
    expect(went_in.get_by_role("alert")).to_contain_text("There is no recipe in this file")
    page.get_by_label("A saved recipe").set_input_files(saved)
    expect(went_in.get_by_role("listitem").filter(has_text="red wine")).to_be_visible()
    expect(went_in.get_by_role("listitem")).to_have_count(2)


def test_a_dish_is_cooked_again_with_what_went_in_and_the_same_wish(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Venison neck")
    page.get_by_role("button", name="Serve").click()
    page.get_by_role("link", name="Cook it again").click()
    expect(page.get_by_label("What is it?")).to_have_value("Venison neck with Madeira and juniper")
    # What is in the pot is measured anew.
    expect(now_line(page)).to_contain_text("Say how much there is")
    page.get_by_label("Say what you have").fill("2.1 l, no fat, 0.5 % salt")
    expect(word(page, "Salt")).to_contain_text("0.5 %")
    page.get_by_role("button", name="This is what I have").click()
    # Twelve portions of sixty, as last time: the bar goes on to the ways, which are worked out for this pot.
    expect(word(page, "makes")).to_contain_text("720\u00a0mL")
    expect(way_in_hand(page)).to_be_visible()
