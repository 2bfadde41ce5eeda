"""The first choice, taken and obeyed: pots that a cook boils down, binds, stretches, parts or leaves as they are."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo
from .test_judgement import add, answer, answer_and_wait
from .test_walk import now_line, pick, said, start, take_reading, way_in_hand, wish


def jus(page: Page) -> None:
    """It is wanted as a jus."""
    pick(page, "over", "meat on its own")
    pick(page, "how thick", "slippery")


def test_a_rich_stock_is_boiled_to_a_jus_with_nothing_added(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Rich stock", "700 ml, no fat, 0.3 % salt", salt="0.3 %")
    jus(page)
    expect(way_in_hand(page)).to_contain_text("Boil down for its taste, nothing added")
    expect(way_in_hand(page)).to_contain_text("thick enough by itself")
    # What the next way would give stands beside it.
    expect(way_in_hand(page)).to_contain_text(re.compile("Or “.*”"))
    answer(page, "Take this way")
    expect(now_line(page)).to_contain_text("Stop at")
    take_reading(page, "Jug", "390")
    heard = []
    for _ in range(8):
        heard.append(said(page).inner_text())
        if "Done: " in heard[-1]:
            break
        spoons = now_line(page).get_by_role("button", name="Both right", exact=True)
        right = now_line(page).get_by_role("button", name="Right", exact=True)
        stirred = now_line(page).get_by_role("button", name="Stirred in", exact=True)
        expect(spoons.or_(right).or_(stirred).first).to_be_visible()
        named = [label for label, one in (("Both right", spoons), ("Right", right)) if one.is_visible()]
        answer_and_wait(page, named[0] if named else "Stirred in")
    assert "Done: " in heard[-1], heard
    assert not any(re.search("starch|flour|Whisk", line) for line in heard), heard


def test_a_told_half_is_boiled_to_half(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Half of it", "1.4 l, no fat, 0.4 % salt", salt="0.4 %")
    wish(page, "makes", "Finished sauce", "half")
    expect(way_in_hand(page)).to_contain_text("Down to what you said")
    answer(page, "Take this way")
    expect(now_line(page)).to_contain_text("Stop at")
    take_reading(page, "Jug", "700")
    # At its mark nothing more is boiled away.
    expect(now_line(page)).not_to_contain_text(re.compile("Stop at|Boil"))


def test_a_salty_stock_is_stretched_with_wine_that_was_boiled_down(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Salted stock", "1.6 l, no fat, 1.2 % salt", salt="1.2 %")
    now_line(page).get_by_role("button", name="Make that much").click()
    expect(now_line(page)).to_contain_text(re.compile(r"Take .*\. Stir in .*\. Thicken it with"))
    answer(page, "Take this way")
    expect(now_line(page)).to_contain_text(re.compile("Take .* for the sauce by the jug"))
    answer(page, "Taken")
    expect(now_line(page)).to_contain_text(re.compile("Stir in .* of unsalted stock or water first"))
    # Stock is asked for first; wine that was boiled down by itself does it too, and tastes of more.
    expect(now_line(page).get_by_role("button", name="Stock is in")).to_be_visible()
    add(page, "wine reduction", "red wine reduction", "120 ml")
    expect(now_line(page)).to_contain_text(re.compile("Ladle off .* Stir in .* of corn starch, and whisk it back in"))


def test_four_portions_of_three_litres_are_bound_alone(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Three litres", "3 l, no fat, 0.9 % salt", salt="0.9 %")
    now_line(page).get_by_role("button", name="Make that much").click()
    answer(page, "No raw wine")
    expect(now_line(page)).to_contain_text(re.compile(r"Take 4.*\. Thicken it with"))
    answer(page, "Take this way")
    expect(now_line(page)).to_contain_text(re.compile("Take 4.* for the sauce by the jug. Keep the rest"))
    answer(page, "Taken")
    expect(now_line(page)).to_contain_text(re.compile("Ladle off .* of corn starch"))


def test_a_pot_that_is_good_is_left_as_it_is(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    page.get_by_label("What is it?").fill("Good already")
    pick(page, "Pan", "24 cm braising pan")
    page.get_by_label("Say what you have").fill("700 ml, no fat, 0.9 % salt")
    pick(page, "What it is like", "tomato or milled vegetables")
    page.get_by_role("button", name="This is what I have").click()
    jus(page)
    expect(way_in_hand(page)).to_contain_text("It is good as it is. Taste it, and serve it.")
    answer(page, "Take this way")
    expect(now_line(page)).to_contain_text(re.compile("Two spoonfuls|Taste it"))
    expect(now_line(page)).not_to_contain_text(re.compile("Boil|Stir in|Whisk"))
