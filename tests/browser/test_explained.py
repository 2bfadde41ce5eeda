"""What the words mean, where they stand; and the example sauce that plays itself."""

from __future__ import annotations

import re

from playwright.sync_api import Page, Route, expect
from running import Site

from .site import enter_demo
from .test_walk import open_batch


def test_a_word_is_explained_where_it_stands_and_by_the_question_mark_anywhere(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.keyboard.press("?")
    sheet = page.get_by_role("dialog")
    expect(sheet.get_by_role("list", name="Explained").get_by_role("listitem")).to_have_count(21)
    sheet.get_by_label("A word").fill("bones")
    expect(sheet.get_by_role("list", name="Explained").get_by_role("listitem")).to_have_count(2)
    sheet.get_by_role("button", name="Slippery (jus)").click()
    expect(sheet.get_by_role("heading", name="Slippery (jus)")).to_be_visible()
    expect(sheet.get_by_role("article")).to_contain_text("pools on the plate")
    sheet.get_by_label("Another word").fill("nothing of the kind")
    expect(sheet).to_contain_text("Nothing is explained under that word.")
    page.keyboard.press("Escape")
    # At the bench, behind the figure itself.
    open_batch(page, "Pork cheek")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Strain").click()
    strained = page.get_by_role("region", name="Strain")
    strained.get_by_role("button", name=re.compile("^taste")).click()
    strained.get_by_role("button", name="What is strength?").click()
    expect(page.get_by_role("dialog")).to_contain_text("Grams of what tastes in a hundred grams of sauce")
    page.keyboard.press("Escape")
    page.keyboard.press("r")
    page.get_by_role("dialog", name="Reading").get_by_role("button", name="Jug, dip or scale?").click()
    expect(page.get_by_role("dialog", name="Jug, dip or scale?")).to_contain_text("A scale is the surest")


def test_what_is_below_stands_still_while_the_example_comes_and_plays(page: Page, site: Site) -> None:
    asked: list[Route] = []

    def held_back(route: Route) -> None:
        asked.append(route)

    page.route("**/api/v1/example", held_back)
    page.goto(site.url)
    step_in = page.get_by_role("button", name="Step into the demo kitchen")
    before = step_in.bounding_box()
    expect(page.get_by_role("region", name="An example sauce")).to_have_count(0)
    while not asked:
        page.wait_for_timeout(20)
    asked[0].continue_()
    example = page.get_by_role("region", name="An example sauce")
    for _ in range(3):
        expect(example).to_be_visible()
        assert step_in.bounding_box() == before
        example.get_by_role("button", name="Next").click()


#: What is said of the steps after the first.
LATER = re.compile("The fat is poured off|It boils to its mark|A roux of|Last comes|left to luck")


def test_the_example_begins_by_itself_goes_on_and_is_skipped_for_good_in_one_tap(page: Page, site: Site) -> None:
    page.goto(site.url)
    example = page.get_by_role("region", name="An example sauce")
    # One step after the other, whichever is looked at.
    expect(example).to_contain_text(LATER)
    example.get_by_role("button", name=re.compile("^(Skip|That was it)$")).click()
    expect(example.get_by_role("button", name="Watch a sauce being made")).to_be_visible()
    page.reload()
    expect(example.get_by_role("button", name="Watch a sauce being made")).to_be_visible()
    expect(example).not_to_contain_text("A braise is strained")


def test_where_nothing_is_to_move_it_is_gone_through_by_taps_and_gives_way_to_a_sauce_of_ones_own(
    page: Page, site: Site
) -> None:
    page.emulate_media(reduced_motion="reduce")
    page.goto(site.url)
    example = page.get_by_role("region", name="An example sauce")
    watch = example.get_by_role("button", name="Watch a sauce being made")
    expect(watch).to_be_visible()
    expect(example).not_to_contain_text("A braise is strained")
    watch.click()
    expect(example).to_contain_text("A braise is strained")
    example.get_by_role("button", name="Next").click()
    expect(example).to_contain_text("The fat is poured off")
    example.get_by_role("button", name="Next").click()
    expect(example).to_contain_text(re.compile("It boils to its mark: .* become .* in 26.min"))
    page.get_by_label("What have you strained?").press_sequentially("two l", delay=30)
    expect(page.get_by_label("Say what you have")).to_have_value("two l")
