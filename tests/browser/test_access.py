"""Every view by day on a tablet and by night on a phone: axe finds nothing, and nothing is cut off."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Literal
from uuid import uuid4

import pytest
from playwright.sync_api import Browser, Locator, Page, expect
from running import ROOT, Site

from .site import enter_demo
from .test_walk import flag, in_the_list, now_line, way_in_hand

AXE = Path(ROOT) / "web" / "node_modules" / "axe-core" / "axe.min.js"
VIEWS = ("", "plan", "strain", "skim", "thicken", "season", "serve")


def complaints(page: Page) -> list[str]:
    page.add_script_tag(path=str(AXE))
    found = page.evaluate("axe.run(document, {resultTypes: ['violations']})")["violations"]
    return [f"{v['id']}: {v['nodes'][0]['html'][:160]} {v['nodes'][0]['failureSummary'][:200]}" for v in found]


def cut_off(page: Page) -> int:
    return int(page.evaluate("document.documentElement.scrollWidth - document.documentElement.clientWidth"))


@pytest.mark.parametrize(("width", "height", "theme"), [(1280, 800, "light"), (390, 844, "dark")])
def test_views(browser: Browser, site: Site, theme: Literal["light", "dark"], width: int, height: int) -> None:
    size = {"width": width, "height": height}
    context = browser.new_context(bypass_csp=True, viewport=size, color_scheme=theme, reduced_motion="reduce")  # type: ignore[arg-type]
    page = context.new_page()
    page.goto(site.url)
    expect(page.get_by_role("button", name="Step into the demo kitchen")).to_be_visible()
    found = {"welcome": complaints(page)}
    enter_demo(page, site)
    found["list"] = complaints(page)
    link = in_the_list(page, "Pork cheek").get_attribute("href")
    for view in VIEWS:
        page.goto(f"{site.url}{link}/{view}")
        expect(page.get_by_role("region", name="Now")).to_be_visible()
        if view == "plan":
            expect(way_in_hand(page)).to_be_visible()
        found[view or "bench"] = complaints(page)
        assert cut_off(page) <= 0, view
    for letter in ("r", "a", "t", "n", "l", "?"):
        page.keyboard.press(letter)
        expect(page.get_by_role("dialog")).to_be_visible()
        found[f"the sheet of {letter}"] = complaints(page)
        page.keyboard.press("Escape")
        expect(page.get_by_role("dialog")).to_be_hidden()
    for path in ("/start", "/kitchen"):
        page.goto(f"{site.url}{path}")
        expect(page.get_by_role("banner")).to_be_visible()
        expect(page.get_by_role("main")).to_be_visible()
        found[path] = complaints(page)
        assert cut_off(page) <= 0, path
    context.close()
    lines = [f"{view}: {line}" for view, told in found.items() for line in told]
    assert not lines, "\n".join(lines)


def test_the_whole_plan_by_keyboard_alone(page: Page, site: Site) -> None:
    enter_demo(page, site)
    in_the_list(page, "Oyster mushrooms").press("Enter")
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    page.keyboard.press("p")
    all_of_it, take = flag(page, "thicken it all"), now_line(page).get_by_role("button", name="Take this way")
    expect(all_of_it).to_be_visible()
    _reach(page, all_of_it)
    page.keyboard.press("Enter")
    expect(way_in_hand(page)).to_contain_text("Thicken it as it is")
    _reach(page, take)
    page.keyboard.press("Enter")
    expect(page).not_to_have_url(re.compile("/plan$"))
    page.keyboard.press("p")
    expect(way_in_hand(page)).to_contain_text("your way")


def test_from_signing_up_to_the_finished_sauce_by_keyboard_alone(page: Page, site: Site) -> None:
    """Obeying the bar, and never touching the mouse."""
    page.goto(site.url)
    _press(page, page.get_by_role("button", name="Sign up"))
    for field, text in (("Name", f"cook-{uuid4().hex[:8]}"), ("Password", "a long enough secret"), ("Kitchen", "Pass")):
        _reach(page, page.get_by_label(field))
        page.keyboard.type(text)
    page.keyboard.press("Enter")
    expect(page.get_by_text("told in millilitres and grams")).to_be_visible()
    _press(page, page.get_by_role("main").get_by_role("button", name="Start a batch"))
    expect(page.get_by_label("Say what you have")).to_be_focused()
    page.keyboard.type("1.6 l, no fat, 0.6 % salt")
    expect(page.get_by_role("button", name=re.compile("^Salt: 0.6 %"))).to_be_visible()
    expect(page.get_by_role("button", name="This is what I have")).to_be_enabled()
    page.keyboard.press("Enter")
    bar = now_line(page)
    log = page.get_by_role("button", name=re.compile("^Log"))
    for _ in range(24):
        expect(bar.get_by_role("button").first).to_be_enabled()
        said, entries = bar.locator("[data-said]").inner_text(), log.inner_text()
        if "Done: " in said:
            break
        stop = re.search(r"Stop at ([\d\u00a0]+)\u00a0mm", said)
        right = bar.get_by_role("button", name=re.compile("^(Both right|Right)$"))
        if stop or "easure it" in said:
            page.keyboard.press("r")
            sheet = page.get_by_role("dialog", name="Reading")
            expect(sheet).to_be_visible()
            _press(page, sheet.get_by_label(re.compile("^Reading, in")), stop[1] + " mm" if stop else "460 ml")
        else:
            _press(page, right if right.count() else bar.get_by_role("button").first)
        expect(log).not_to_have_text(entries)
        # The tabulator goes on from the sentence, and a screen reader hears it once.
        expect(bar).to_be_focused()
        expect(bar.get_by_role("status")).to_have_count(1)
    expect(page.get_by_role("region", name="Serve")).to_be_visible()
    _press(page, bar.get_by_role("button", name="Finish", exact=True))
    # What was kept before it was bound is asked about.
    expect(bar).to_contain_text("is set aside")
    _press(page, bar.get_by_role("button", name="Thrown away"))
    expect(bar).to_contain_text("Finished with")


#: A device with a voice of its own, which keeps what it reads.
VOICE = """
window.heard = []
class Utterance { constructor(text) { this.text = text } }
Object.defineProperties(window, {
  SpeechSynthesisUtterance: { value: Utterance },
  speechSynthesis: { value: {
    getVoices: () => [{ localService: false, lang: 'en-GB' }, { localService: LOCAL, lang: 'en-GB' }],
    cancel() {},
    speak: ({ text }) => window.heard.push(text),
  } },
})
"""


@pytest.mark.parametrize("local", [True, False])
def test_the_sentence_is_read_aloud_by_a_voice_of_the_device(page: Page, site: Site, local: bool) -> None:
    """Off at first, and never by a voice that would send it elsewhere."""
    page.add_init_script(VOICE.replace("LOCAL", str(local).lower()))
    enter_demo(page, site)
    in_the_list(page, "Duck leg").click()
    bar = now_line(page)
    expect(bar).to_be_focused()
    page.keyboard.press("v")
    page.get_by_role("button", name="Menu").click()
    choice = page.get_by_role("menuitem", name="Read aloud at each look")
    expect(page.get_by_role("menuitem", name="Batches")).to_be_visible()
    assert choice.count() == int(local)
    if not local:
        return
    choice.click()
    page.reload()
    bar.get_by_role("button", name="Say it").click()
    assert page.evaluate("heard") == [bar.locator("[data-said]").inner_text()]


def _press(page: Page, wanted: Locator, text: str = "") -> None:
    """Go there, type what there is to type, and press Enter."""
    _reach(page, wanted)
    page.keyboard.type(text)
    page.keyboard.press("Enter")


def _reach(page: Page, wanted: Locator) -> None:
    """Go there by the tabulator alone."""
    expect(wanted).to_be_enabled()
    for _ in range(60):
        if wanted.evaluate("element => element === document.activeElement"):
            return
        page.keyboard.press("Tab")
    raise AssertionError("it cannot be reached by keyboard")
