"""The rest of a batch: cooled, kept, labelled, and poured into another one days later."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta
from uuid import uuid4

from playwright.sync_api import Page, expect
from running import Site
from spissus_core import events as ev

from .site import enter_demo
from .test_finish import FLOUR, SPOON, TONGUE, bound
from .test_judgement import answer
from .test_outbox import told
from .test_screens import send
from .test_walk import now_line, said, start, wish, word

BEGUN = timedelta(days=3)


def three_days_ago(page: Page, name: str, liquid: dict[str, object], *steps: tuple[float, dict[str, object]]) -> str:
    """The path of a batch of three days ago, with what was done so many minutes after its start."""
    kitchen = told(page, "GET", "/kitchen")
    pan = next(one["id"] for one in kitchen["pans"] if "24 cm" in one["name"])
    begun = datetime.now(UTC) - BEGUN

    def at(minutes: float) -> dict[str, object]:
        return {"at": (begun + timedelta(minutes=minutes)).isoformat(), "version": ev.VERSION}

    begin = {"kind": "started", "pan_id": pan, "burner_id": kitchen["burners"][0]["id"], "liquid": liquid}
    ids = {"id": str(uuid4()), "event_id": str(uuid4()), "name": name, "start": begin}
    batch = send(page, "POST", "/batches", ids | at(0))["id"]
    for minutes, payload in steps:
        send(page, "POST", f"/batches/{batch}/events", {"id": str(uuid4()), "payload": payload} | at(minutes))
    return f"/batches/{batch}"


def strained(value: str, percent: float) -> dict[str, object]:
    measured = {"method": "jug", "value": value, "hot": True}
    salt = {"by": "meter", "percent": percent}
    return {"measured": measured, "fat_ml": "0 ml", "character": "gelatin_rich", "salt": salt}


def tuesday(page: Page) -> str:
    """The path of a batch of three days ago: a part was taken, the rest cooled in trays, and the sauce was eaten."""
    return three_days_ago(
        page,
        "Shin of Tuesday",
        strained("2.4 l", 0.6),
        (2, {"kind": "wanted", "volume_ml": 600, "body": 2, "salt_percent": 0.9}),
        (4, {"kind": "parted", "volume_ml": 1200, "purpose": "aside", "how": "under"}),
        (30, {"kind": "finished"}),
        (31, {"kind": "rest", "rest": "cooling", "celsius": 55, "surroundings_c": 4}),
        (80, {"kind": "rest", "rest": "cooling", "celsius": 20, "surroundings_c": 4}),
        (250, {"kind": "rest", "rest": "cooling", "celsius": 4.8, "surroundings_c": 4}),
    )


def test_the_rest_of_tuesday_is_labelled_frozen_and_poured_into_fridays_batch(page: Page, site: Site) -> None:
    enter_demo(page, site)
    path = tuesday(page)
    page.goto(site.url + path + "/serve")
    left = page.get_by_role("region", name="What is left")
    # Before it is set to cool every way says how it would go: two trays make it, a full pot does not.
    expect(left.get_by_text("tray 3 cm deep in the fridge")).to_contain_text("✓")
    expect(left.get_by_text("left standing with its lid on")).to_contain_text("never gets cold enough")
    left.get_by_role("button", name="It is cold").click()
    left.get_by_role("button", name="Keep it in the fridge or the freezer").click()
    sheet = page.get_by_role("dialog", name="Keep it")
    sheet.get_by_role("radio", name="What stands aside").click()
    sheet.get_by_role("radio", name="In the freezer").click()
    sheet.get_by_label("Its name").fill("stock of Tuesday")
    sheet.get_by_label("How much of it, or all").fill("40 l")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_text("There are only")).to_be_visible()
    sheet.get_by_label("How much of it, or all").fill("")
    sheet.get_by_label("In how many containers").fill("2")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_be_hidden()

    # Its label says what is in it, by when, and how it is warmed.
    left.get_by_role("link", name="stock of Tuesday").click()
    label = page.get_by_role("article", name="Label")
    for words in ("stock of Tuesday", "0.60 % salt", "in the freezer", "Boil it up, once."):
        expect(label).to_contain_text(words)

    # It stands on the shelf of the stove, and goes into another batch with its salt.
    start(page, site, "Cheek of Friday", "0.8 l, no fat, 0.2 % salt", salt="0.2 %")
    expect(said(page)).to_be_visible()
    now_line(page).get_by_role("button", name="Add", exact=True).click()
    add = page.get_by_role("dialog", name="Add")
    add.get_by_role("radio", name="What is kept").click()
    add.get_by_role("radio", name="stock of Tuesday").click()
    add.get_by_label("How much").fill("400 ml")
    expect(add.get_by_role("status")).to_contain_text("salt 0.34")
    add.get_by_role("button", name="It is in").click()
    expect(add).to_be_hidden()
    page.keyboard.press("l")
    expect(page.get_by_role("dialog", name="Log")).to_contain_text("Poured in 400\u00a0mL of stock of Tuesday")
    page.goto(site.url)
    kept = page.get_by_role("link", name="stock of Tuesday")
    expect(kept).to_contain_text("use by")
    page.get_by_role("link", name="Cheek of Friday").first.click()
    expect(said(page)).to_be_visible()


def test_a_sauce_is_kept_warm_by_its_probe_then_kept_and_warmed_again(page: Page, site: Site) -> None:
    enter_demo(page, site)
    dinner = {"portions": 4, "portion_ml": 120, "minutes": 90}
    path = bound(page, "Shin on the pass", FLOUR, SPOON, TONGUE, SPOON, wish=dinner)
    page.goto(site.url + path + "/serve")
    # Dinner was told for in an hour and a half, and it is nearly done: it waits, and the mash is started later.
    table = page.get_by_role("region", name="On the table")
    expect(table).to_contain_text("keep it warm, or start it later")
    expect(table.get_by_role("listitem").filter(has_text="mash")).to_be_visible()
    now_line(page).get_by_role("button", name="Keep it warm").click()
    expect(said(page)).to_contain_text("Kept at 65\u00a0°C: about ")
    for celsius, heard in (("51 °C", "Bring it over 57\u00a0°C at once"), ("66 °C", "Kept at 66\u00a0°C")):
        now_line(page).get_by_role("button", name="Temperature", exact=True).click()
        page.get_by_label("In the middle of the sauce").fill(celsius)
        page.get_by_role("button", name="Keep the temperature").click()
        expect(said(page)).to_contain_text(heard)
    now_line(page).get_by_role("button", name="Finish", exact=True).click()
    expect(said(page)).to_contain_text("Finished with")

    left = page.get_by_role("region", name="What is left")
    left.get_by_role("button", name="Keep it in the fridge or the freezer").click()
    sheet = page.get_by_role("dialog", name="Keep it")
    sheet.get_by_role("radio", name="In the fridge").click()
    sheet.get_by_label("Its name").fill("sauce of the pass")
    sheet.get_by_label("How much of it, or all").fill("250 ml")
    sheet.get_by_role("button", name="Keep it").click()
    left.get_by_role("link", name="sauce of the pass").click()
    again = page.get_by_role("region", name="Warm it again")
    expect(again).to_contain_text("Bring it to a full boil, stirring, once.")
    again.get_by_label("Its temperature in the middle").fill("60 °C")
    again.get_by_role("button", name="Keep the temperature").click()
    expect(again.get_by_role("status")).to_contain_text("not 74\u00a0°C yet")
    again.get_by_label("Its temperature in the middle").fill("76 °C")
    again.get_by_role("button", name="Keep the temperature").click()
    expect(page.get_by_text("not on the shelf any more")).to_be_visible()


def test_dinner_is_told_for_eight_and_the_meat_is_late(page: Page, site: Site) -> None:
    enter_demo(page, site)
    send(page, "PATCH", "/kitchen", {"time_zone": "UTC"})
    start(page, site, "Shin for eight", "1.6 l, no fat, 0.5 % salt", salt="0.5 %")
    eight = datetime.now(UTC) + timedelta(minutes=100)
    half_past = eight + timedelta(minutes=30)
    word(page, "ready").click()
    field = page.get_by_role("dialog", name="ready").get_by_label("Ready in, or at")
    field.fill("yesterday at 8")
    expect(page.get_by_role("dialog", name="ready").get_by_role("alert")).to_contain_text("has passed")
    field.fill("")
    page.keyboard.press("Escape")
    wish(page, "ready", "Ready in, or at", f"{eight:%H:%M}")
    answer(page, "Make this my wish")
    answer(page, "Take this way")
    strip = page.get_by_role("img", name=re.compile(f"{eight:%H:%M} on the table"))
    expect(strip).to_be_visible()
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Serve").click()
    table = page.get_by_role("region", name="On the table")
    expect(table).to_contain_text(f"On the table at {eight:%H:%M}")
    expect(table.get_by_role("listitem").filter(has_text="mash")).to_be_visible()
    # The meat wants half an hour more: dinner, and the mash with it, is put off.
    table.get_by_role("button", name="30 min").click()
    expect(table).to_contain_text(f"On the table at {half_past:%H:%M}")
    mash = half_past - timedelta(minutes=35)
    expect(table.get_by_role("listitem").filter(has_text="mash")).to_contain_text(f"{mash:%H:%M}")
    page.get_by_role("link", name="Card for the pass").click()
    card = page.get_by_role("article", name="Card for the pass")
    expect(card).to_contain_text(f"On the table at {half_past:%H:%M}")
    expect(card).to_contain_text("Keep it hot at 57")


def test_a_sauce_with_butter_is_warmed_on_day_three_as_a_batch_of_its_own(page: Page, site: Site) -> None:
    enter_demo(page, site)
    jar = str(uuid4())
    three_days_ago(
        page,
        "Mounted on Sunday",
        strained("700 ml", 0.85),
        (2, {"kind": "wanted", "volume_ml": 640, "body": 1, "salt_percent": 0.9}),
        (10, {"kind": "added", "ingredient": "butter", "mass_g": 40}),
        (20, {"kind": "finished"}),
        (25, {"kind": "put_by", "jar": jar, "what": "sauce", "place": "freezer", "name": "butter sauce"}),
        (2 * 24 * 60, {"kind": "jar_moved", "jar": jar, "place": "fridge"}),
    )
    page.goto(f"{site.url}/shelf/{jar}")
    warm = page.get_by_role("region", name="Warm it again")
    expect(warm).to_contain_text("Warm it to 74\u00a0°C, stirring, once, and no hotter than 78\u00a0°C")
    expect(warm).to_contain_text("cold butter")
    page.get_by_role("button", name="Start a batch with it").click()
    sheet = page.get_by_role("dialog", name="Start with butter sauce")
    sheet.get_by_label("How much of it").fill("2.2 l")
    sheet.get_by_role("button", name="Start with it").click()
    expect(sheet.get_by_role("alert")).to_contain_text("There are only")
    sheet.get_by_label("How much of it").fill("400 ml")
    sheet.get_by_role("button", name="Start with it").click()
    expect(page.get_by_role("heading", name="butter sauce")).to_be_visible()
    # It bears no boil: no way is offered that boils it down, and heat is asked about.
    page.get_by_role("button", name=re.compile("this pot does not allow")).click()
    expect(page.get_by_text("There is butter in it, and that parts on the boil.").first).to_be_visible()
    # What was not used stays on the shelf.
    page.goto(f"{site.url}/shelf/{jar}")
    expect(page.get_by_role("article", name="Label")).to_contain_text("butter sauce")
