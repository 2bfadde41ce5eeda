"""The end of an evening: tasted, put right, warmed with its meat, and out on plates."""

from __future__ import annotations

import re
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

from playwright.sync_api import Page, expect
from running import Site
from spissus_core import events as ev

from .site import enter_demo
from .test_judgement import answer_and_wait
from .test_outbox import told
from .test_screens import send
from .test_walk import now_line, said, start, word

BOTTLE = (
    {"text": "a bottle of red wine", "ingredient": "red_wine", "volume_ml": 750},
    {"text": "300 ml veal stock", "ingredient": "beef_stock_own", "volume_ml": 300},
    {"text": "1.5 kg beef cheek", "ingredient": "beef_cheek", "mass_g": 1500},
)


FOUR = {"portions": 4, "portion_ml": 120}


def bound(page: Page, name: str, *more: dict[str, Any], wish: dict[str, Any] = FOUR, **liquid: Any) -> str:
    """The path of a sauce that is right in amount, body and salt, begun and bound on another device."""
    kitchen = told(page, "GET", "/kitchen")
    pan = next(one["id"] for one in kitchen["pans"] if "24 cm" in one["name"])
    now = {"at": datetime.now(UTC).isoformat(), "version": ev.VERSION}
    measured = {"method": "jug", "value": "520 ml", "hot": False}
    known = {"measured": measured, "fat_ml": "0 ml", "character": "thin", "salt": {"by": "meter", "percent": 0.97}}
    start = {"kind": "started", "pan_id": pan, "burner_id": kitchen["burners"][0]["id"], "liquid": known | liquid}
    ids = {"id": str(uuid4()), "event_id": str(uuid4()), "name": name, "start": start}
    batch = send(page, "POST", "/batches", ids | now)["id"]
    for payload in (
        {"kind": "wanted", "body": 2, "salt_percent": 0.9, **wish},
        {"kind": "chosen", "route": "all-here-corn_starch_own"},
        *more,
    ):
        send(page, "POST", f"/batches/{batch}/events", {"id": str(uuid4()), "payload": payload} | now)
    return f"/batches/{batch}"


SALTED = {"by": "meter", "percent": 1.06}
FLOUR = {"kind": "thickened", "thickener": "corn_starch", "dry_g": 11.5}
SPOON = {"kind": "tested", "of": "body", "verdict": "right", "again": "right"}
TONGUE = {"kind": "tested", "of": "salt", "verdict": "right", "twice": True}


def test_flat_is_made_good_without_salt_then_warmed_with_its_meat_and_plated(page: Page, site: Site) -> None:
    enter_demo(page, site)
    ten = {"portions": 10, "portion_ml": 55}
    page.goto(site.url + bound(page, "Shin that is dull", FLOUR, SPOON, TONGUE, SPOON, wish=ten) + "/season")
    # Two taps at any moment: the word, and what it is.
    page.get_by_role("button", name=re.compile("^sour: ")).click()
    page.get_by_role("dialog", name="sour").get_by_role("button", name="Too dull").click()
    expect(said(page)).to_contain_text("Too dull. Stir in 1\u00a0tsp of lemon juice.")
    expect(page.get_by_role("img", name=re.compile("Tastes: .*sour too dull, "))).to_be_visible()
    answer_and_wait(page, "Stirred in")
    expect(said(page)).to_contain_text("Is it still too dull?")
    answer_and_wait(page, "Right")
    expect(said(page)).to_contain_text("Done: ")

    # Cold slices are warmed in it until a probe says so.
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Serve").click()
    page.get_by_role("button", name="Meat and sauce").click()
    sheet = page.get_by_role("dialog", name="Meat and sauce")
    sheet.get_by_role("radio", name="Warm it through in the sauce").click()
    sheet.get_by_role("radio", name="carved slices").click()
    sheet.get_by_label("Its weight").fill("300 g")
    expect(sheet.get_by_role("status")).to_contain_text("in all")
    sheet.get_by_role("button", name="It is in").click()
    expect(said(page)).to_contain_text("until the thickest piece is 74\u00a0°C")
    now_line(page).get_by_role("button", name=re.compile("^It is 74")).click()
    # Its juice is in the sauce: body and salt are looked at once more.
    expect(said(page)).to_contain_text("spoonfuls")
    answer_and_wait(page, "Both right")
    while "Taste it twice" in said(page).inner_text():
        answer_and_wait(page, "Right")
    expect(said(page)).to_contain_text("Done: ")

    # Then it goes out by the ladle.
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Serve").click()
    expect(page.get_by_text("of sodium a helping")).to_be_visible()
    page.get_by_role("button", name="Plate by plate: the first is out").click()
    for left in range(9, 0, -1):
        expect(said(page)).to_contain_text(f"on the next plate: {left} left.")
        answer_and_wait(page, "On the plate")
    expect(said(page)).to_contain_text("10 plates are out")


def test_a_sharp_sauce_is_covered_and_what_its_wine_covers_is_not_chased(page: Page, site: Site) -> None:
    enter_demo(page, site)
    vinegar = {"kind": "added", "ingredient": "wine_vinegar", "volume_ml": 60}
    page.goto(
        site.url + bound(page, "Hock that is sharp", FLOUR, vinegar, SPOON, TONGUE, SPOON, salt=SALTED) + "/season"
    )
    expect(said(page)).to_contain_text("Is its sourness right, or too sharp?")
    now_line(page).get_by_role("button", name="Too sharp").click()
    expect(said(page)).to_contain_text("Too sharp. Stir in 25\u00a0g of cold butter. Off the heat")
    answer_and_wait(page, "Leave it")
    expect(said(page)).not_to_contain_text("sharp")

    braise, jug = {"lines": BOTTLE, "hours": 3}, {"method": "jug", "value": "420 ml", "hot": False}
    page.goto(site.url + bound(page, "Cheek in a bottle", braise=braise, measured=jug) + "/season")
    expect(said(page)).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^sour: sharp, covered"))).to_be_visible()
    expect(said(page)).not_to_contain_text("sharp")


def test_tongues_that_contradict_are_asked_once_more_and_a_yolk_is_watched_by_its_probe(page: Page, site: Site) -> None:
    enter_demo(page, site)
    no_fish = {"portions": 4, "portion_ml": 120, "avoid": ["fish"]}
    page.goto(site.url + bound(page, "Neck that is doubtful", FLOUR, SPOON, TONGUE, SPOON, wish=no_fish) + "/season")
    expect(said(page)).to_be_visible()
    # What somebody at the table must not have is stopped before it goes in; what they may have is not.
    page.get_by_role("radio", name="Depth").click()
    anchovy = page.get_by_role("listitem", name="anchovy paste")
    expect(anchovy).to_contain_text("Not for this table: somebody must not have fish.")
    expect(anchovy.get_by_role("button", name="It is in")).to_be_hidden()
    expect(page.get_by_role("listitem", name="mustard").get_by_role("button", name="It is in")).to_be_visible()
    for words in ("Too dull", "Too sharp"):
        now_line(page).get_by_role("button", name="Taste", exact=True).click()
        sheet = page.get_by_role("dialog", name="Taste")
        sheet.get_by_role("group", name="sour").get_by_role("button", name=words).click()
        expect(sheet).to_be_hidden()
    expect(said(page)).to_contain_text("Too dull, then too sharp, and nothing went in.")
    answer_and_wait(page, "Right")
    expect(said(page)).not_to_contain_text("nothing went in")
    # Somebody else tastes it, and the log says who.
    now_line(page).get_by_role("button", name="Taste", exact=True).click()
    sheet = page.get_by_role("dialog", name="Taste")
    sheet.get_by_role("radio", name="the chef").click()
    sheet.get_by_role("group", name="salt").get_by_role("button", name="Right").click()
    expect(sheet).to_be_hidden()
    page.keyboard.press("l")
    expect(page.get_by_role("dialog", name="Log")).to_contain_text("the chef tasted: right")
    page.keyboard.press("Escape")

    path = page.url.removeprefix(site.url).removesuffix("/season")
    now = {"at": datetime.now(UTC).isoformat(), "version": ev.VERSION}
    yolk = {"kind": "added", "ingredient": "egg_yolk", "mass_g": 17}
    send(page, "POST", f"{path}/events", {"id": str(uuid4()), "payload": yolk} | now)
    expect(said(page)).to_contain_text("Warm it gently, stirring, to 72")
    for celsius, told_then in (("84", "yolk flakes over 80"), ("75 °C", "")):
        now_line(page).get_by_role("button", name="Temperature", exact=True).click()
        probe = page.get_by_role("dialog", name="Temperature")
        probe.get_by_label("In the middle of the sauce").fill(celsius)
        probe.get_by_role("button", name="Keep the temperature").click()
        expect(probe).to_be_hidden()
        if told_then:
            expect(said(page)).to_contain_text(told_then)
    expect(said(page)).not_to_contain_text("yolk")


def test_a_liking_of_five_batches_is_what_the_sixth_begins_with(page: Page, site: Site) -> None:
    enter_demo(page, site)
    salted = ({"kind": "salted", "salt_g": 1.1, "salt": "table"}, TONGUE, {"kind": "finished"})
    for count in range(5):
        bound(page, f"Cheek, salted well, {count}", *salted)
    page.goto(site.url + "/kitchen")
    liked = page.get_by_text("You like your sauces at about")
    expect(liked).to_contain_text("from 5 batches")
    expect(liked).to_contain_text("New batches begin at 1.10")
    start(page, site, "Cheek, the sixth")
    expect(word(page, "how salty")).to_contain_text("bold")
