"""What the words mean, where they stand; and the example sauce that plays itself."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
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


def test_the_example_plays_itself_once_and_is_skipped_in_one_tap(page: Page, site: Site) -> None:
    page.goto(site.url)
    example = page.get_by_role("region", name="An example sauce")
    expect(example).to_contain_text("A braise is strained")
    expect(example).to_contain_text("The fat is poured off")
    example.get_by_role("button", name="Next").click()
    expect(example).to_contain_text(re.compile("It boils to its mark: .* become .* in 26.min"))
    example.get_by_role("button", name="Skip").click()
    expect(example).not_to_contain_text("It boils to its mark")
    page.reload()
    example.get_by_role("button", name="Watch a sauce being made").click()
    expect(example).to_contain_text("A braise is strained")


def test_it_gives_way_to_a_sauce_of_ones_own_and_is_still_where_nothing_is_to_move(page: Page, site: Site) -> None:
    page.emulate_media(reduced_motion="reduce")
    page.goto(site.url)
    example = page.get_by_role("region", name="An example sauce")
    expect(example.get_by_role("button", name="Watch a sauce being made")).to_be_visible()
    expect(example).not_to_contain_text("A braise is strained")
    page.get_by_label("What have you strained?").press_sequentially("two l", delay=30)
    expect(page.get_by_label("Say what you have")).to_have_value("two l")
