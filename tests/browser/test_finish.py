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
from .test_walk import now_line, said

BOTTLE = (
    {"text": "a bottle of red wine", "ingredient": "red_wine", "volume_ml": 750},
    {"text": "300 ml veal stock", "ingredient": "beef_stock_own", "volume_ml": 300},
    {"text": "1.5 kg beef cheek", "ingredient": "beef_cheek", "mass_g": 1500},
)


def bound(page: Page, name: str, *more: dict[str, Any], **liquid: Any) -> str:
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
        {"kind": "wanted", "portions": 4, "portion_ml": 120, "body": 2, "salt_percent": 0.9},
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
    page.goto(site.url + bound(page, "Shin that is dull", FLOUR, SPOON, TONGUE, SPOON) + "/season")
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
    expect(said(page)).to_contain_text("on the next plate: 3 left.")
    answer_and_wait(page, "On the plate")
    expect(said(page)).to_contain_text("on the next plate: 2 left.")
    answer_and_wait(page, "On the plate")
    answer_and_wait(page, "On the plate")
    expect(said(page)).to_contain_text("4 plates are out")


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
