"""Nothing overlaps, is cut off or runs off the page: the longest name, forty litres and twelve pots, on any screen."""

from __future__ import annotations

import re
from collections.abc import Iterator
from datetime import UTC, datetime
from io import BytesIO
from pathlib import Path
from typing import Any
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, Page, expect
from pypdf import PdfReader
from running import Site

from .site import enter_demo
from .test_walk import flag, in_the_list, now_line, open_batch, said, way_in_hand

COLLISIONS = (Path(__file__).parent / "collisions.js").read_text(encoding="utf-8").partition("\n")[2]

LONGEST = (
    "Slow-braised shoulder of mutton with pearl barley, bay, preserved lemon, juniper, black garlic and fino sherry, "
    "for all"
)
STAGES = ("plan", "strain", "skim", "reduce", "thicken", "season", "serve")


def send(page: Page, method: str, path: str, body: dict[str, Any]) -> dict[str, Any]:
    """Say something to the API as the page would."""
    call = """async ([method, path, body]) => {
        const token = document.cookie.split('; ').find((one) => one.startsWith('csrftoken=')).slice(10)
        const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token}
        const answer = await fetch('/api/v1' + path, {method, headers, body: JSON.stringify(body)})
        return [answer.status, await answer.json()]
    }"""
    status, found = page.evaluate(call, [method, path, body])
    assert status < 300, found
    return dict(found)


def begin(page: Page, name: str, stove: tuple[str, str], amount: str, wanted_ml: float) -> str:
    """A pot on its way, in a pan on a burner; its page."""
    pan, burner = stove
    now = {"at": datetime.now(UTC).isoformat(), "version": 2}
    measured = {"method": "jug", "value": amount, "hot": True}
    liquid = {"measured": measured, "fat_ml": "0 ml", "salt": {"by": "meter", "percent": 0.6}}
    start = {"kind": "started", "pan_id": pan, "burner_id": burner, "liquid": liquid}
    ids = {"id": str(uuid4()), "event_id": str(uuid4())}
    batch = send(page, "POST", "/batches", ids | now | {"name": name, "start": start})["id"]
    for payload in ({"kind": "wanted", "volume_ml": wanted_ml}, {"kind": "chosen", "route": "all-volume-white_roux"}):
        send(page, "POST", f"/batches/{batch}/events", {"id": str(uuid4()), "payload": payload} | now)
    return f"/batches/{batch}"


@pytest.fixture(scope="module")
def crowded(browser: Browser, site: Site) -> Iterator[tuple[Page, list[str]]]:
    """The demo kitchen with more in it than it should have, and its views."""
    page = browser.new_context(reduced_motion="reduce").new_page()
    enter_demo(page, site)
    kitchen = page.evaluate("fetch('/api/v1/kitchen').then((answer) => answer.json())")
    burner, pans = kitchen["burners"][0]["id"], kitchen["pans"]
    size = {f"{where}_mm": 400 for where in ("base_length", "base_width", "rim_length", "rim_width", "height")}
    name = "the big forty-litre stock pot by the window"
    big = send(page, "POST", "/pans", {"name": name, "shape": "round", "empty_g": 6000} | size)["id"]
    forty = begin(page, LONGEST, (big, burner), "40 l", 25_000)
    for i in range(12):
        begin(page, f"Pot {i}, {LONGEST[:40]}", (pans[i % len(pans)]["id"], burner), "1.2 l", 700)
    page.goto(site.url)
    demo = [
        in_the_list(page, of).get_attribute("href")
        for of in ("Pork cheek", "Duck leg", "Mutton shoulder with barley and bay", "Venison neck", "Goat shoulder")
    ]
    pork, duck, mutton, venison, goat = demo
    assert venison is not None
    assert goat is not None
    ids = [link.removeprefix("/batches/") for link in (venison, goat)]
    dish = page.evaluate("fetch('/api/v1/house-dishes').then((answer) => answer.json())")[0]["id"]
    # Kept under the longest name, it is a house dish of that name.
    send(page, "PATCH", f"/house-dishes/{dish}", {"name": LONGEST})
    views = [f"{forty}/{stage}" for stage in STAGES]
    views += [f"{pork}/plan", f"{pork}/reduce", f"{duck}/plan", f"{mutton}/skim", "/", "/start", "/kitchen"]
    views += [f"{venison}/story", f"/compare?of={ids[0]}&of={ids[1]}", "/house-dishes"]
    views += [f"/house-dishes/{dish}?people=9", f"/house-dishes/{dish}?people=1999"]
    yield page, views
    page.context.close()


@pytest.mark.parametrize(
    ("width", "height", "units"),
    [(320, 640, "metric"), (390, 844, "us"), (768, 1024, "metric"), (1024, 768, "us"), (1920, 1080, "metric")],
)
def test_nothing_overlaps_or_is_cut_off(
    crowded: tuple[Page, list[str]], site: Site, width: int, height: int, units: str
) -> None:
    page, views = crowded
    send(page, "PATCH", "/preferences", {"units": units})
    page.set_viewport_size({"width": width, "height": height})
    found = []
    for view in views:
        page.goto(site.url + view)
        page.wait_for_load_state("networkidle")
        expect(page.get_by_role("heading", level=1).first).to_be_visible()
        page.evaluate("document.fonts.ready")
        found += [f"{view}: {line}" for line in page.evaluate(COLLISIONS)]
    assert not found, "\n".join(found)


@pytest.mark.parametrize(("width", "height"), [(1024, 768)])
def test_what_is_to_be_done_is_read_from_a_metre_away(
    crowded: tuple[Page, list[str]], site: Site, width: int, height: int
) -> None:
    """On a ten-inch tablet of 1280 by 800 a pixel is 0.168 mm: 16 minutes of arc at a metre are 28 px of capital,
    which this typeface has at 42 px."""
    page, views = crowded
    page.set_viewport_size({"width": width, "height": height})
    for view in (one for one in views if one.startswith("/batches") and not one.endswith("story")):
        page.goto(site.url + view)
        said = now_line(page).locator("[data-said]")
        expect(said).to_be_visible()
        assert float(said.evaluate("element => parseFloat(getComputedStyle(element).fontSize)")) >= 41.5, view


#: Every figure of a view by what it is of, and what the ribbon ends with.
FIGURES = """() => [
  ...[...document.querySelectorAll('[data-of]')].map((one) => [one.dataset.of, one.innerText]),
  ...[...document.querySelectorAll('svg[aria-label^="The sauce"]')]
    .map((one) => ['makes', one.getAttribute('aria-label').split(', ').at(-1)]),
]"""
#: What of a pot that boils is another by the next view.
MOVES = {"salt now", "liquid", "body", "taste"}
#: What goes by one name on one view and by another elsewhere, where it is plain what it is of.
SAME = {"salt": "salt now", "in the pan": "liquid", "liquid below": "liquid", "you get": "at the end"}


@pytest.mark.parametrize("name", ["Pork cheek", "Mutton shoulder with barley and bay"])
def test_no_thing_has_two_figures_on_any_view(page: Page, site: Site, name: str) -> None:
    enter_demo(page, site)
    link = in_the_list(page, name).get_attribute("href")
    things: dict[str, set[str]] = {}
    for stage in STAGES:
        page.goto(f"{site.url}{link}/{stage}")
        expect(said(page)).to_be_visible()
        seen = page.get_by_role("region", name=re.compile(f"^{stage}$", re.IGNORECASE))
        expect(page.get_by_role("slider", name="Boil down to") if stage == "plan" else seen).to_be_visible()
        for name_of, figure in page.evaluate(FIGURES):
            comes = name_of == "thicken" or name_of.endswith("still to come")
            of = "thickener" if comes else SAME.get(name_of, name_of)
            things.setdefault(of, set()).add(figure.replace("\u00a0", " "))
        stop = re.search(r"Stop at ([\d\u00a0]+\w+)\.", said(page).inner_text())
        if stop:
            things.setdefault("stop at", set()).add(stop[1].replace("\u00a0", " "))
    moves = MOVES if said(page).inner_text().startswith("Boil") else set()
    assert {of: figures for of, figures in things.items() if len(figures) > 1 and of not in moves} == {}
    assert len(things) > 7


@pytest.mark.parametrize(("name", "width", "height"), [("Pork cheek", 390, 844), ("Duck leg", 1280, 800)])
def test_nothing_jumps_under_a_finger_that_drags(page: Page, site: Site, name: str, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    enter_demo(page, site)
    page.goto(f"{site.url}{in_the_list(page, name).get_attribute('href')}/plan")
    ways, card = page.get_by_role("group", name="Ways there"), way_in_hand(page)
    handle = page.get_by_role("slider", name="Boil down to")
    expect(handle).to_be_visible()
    handle.scroll_into_view_if_needed()

    def stands() -> list[float]:
        return [round(box["y"]) for one in (ways, card) if (box := one.bounding_box())]

    before, box = stands(), ways.bounding_box()
    assert box is not None
    floor = box["y"] + box["height"] - 60
    page.mouse.move(box["x"] + box["width"] * 0.4, floor)
    page.mouse.down()
    for share in (0.5, 0.6, 0.7, 0.8, 0.6):
        told = handle.get_attribute("aria-valuenow")
        page.mouse.move(box["x"] + box["width"] * share, floor)
        expect(handle).not_to_have_attribute("aria-valuenow", str(told))
        assert stands() == before
    page.mouse.up()


@pytest.mark.parametrize(("width", "height"), [(1280, 800), (1024, 768), (390, 844)])
def test_the_plan_needs_no_scrolling(page: Page, site: Site, width: int, height: int) -> None:
    page.set_viewport_size({"width": width, "height": height})
    enter_demo(page, site)
    open_batch(page, "Duck leg")
    expect(flag(page, "take some")).to_be_visible()
    bar = now_line(page).bounding_box()
    assert bar is not None
    needed = [flag(page, "take some"), flag(page, "thicken a part"), page.get_by_role("slider", name="Boil down to")]
    if width > 1000:
        needed.append(way_in_hand(page).get_by_role("heading"))
    for one in needed:
        box = one.bounding_box()
        assert box is not None
        assert box["y"] + box["height"] <= bar["y"], one


def test_the_batch_prints_on_one_sheet_with_its_marks_at_true_size(page: Page, site: Site) -> None:
    enter_demo(page, site)
    open_batch(page, "Pork cheek")
    expect(now_line(page)).to_be_visible()
    page.keyboard.press("l")
    page.get_by_role("link", name="The batch on one sheet, to print").click()
    sheet = page.get_by_role("main")
    for line in ("Stop at 35\u00a0mm by a dip", "27\u00a0g (3½\u00a0tbsp) flour", "gluten", "Local food rules"):
        expect(sheet).to_contain_text(line)
    page.emulate_media(media="print")
    skewer = page.get_by_role("img", name=re.compile("true size. .*35.mm, stop here")).bounding_box()
    assert skewer is not None
    # The pan is 105 mm deep, and 8 mm stand around the skewer; CSS has 96 px to 25.4 mm.
    assert skewer["height"] / 96 * 25.4 == pytest.approx(105 + 8, abs=0.3)
    pages = PdfReader(BytesIO(page.pdf(format="A4", prefer_css_page_size=True))).pages
    assert len(pages) == 1
