"""A full reduction with the simulated scale, and what happens when network, server or database fail."""

from __future__ import annotations

import contextlib
import json
import re
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from datetime import UTC, datetime
from typing import Any
from urllib.error import URLError
from urllib.request import Request, urlopen
from uuid import uuid4

import psycopg
import pytest
from playwright.sync_api import Browser, Page, expect
from running import PATIENCE_S, ROOT, Cluster, Site

from .site import another_of, enter_demo
from .test_intake import pick, word
from .test_outbox import waiting
from .test_walk import add_salt, flag, now_line, start, take_reading, way_in_hand, wish


@contextlib.contextmanager
def stand_in(site: Site, kind: str, token: str, *more: str) -> Iterator[None]:
    """A simulated device, running until it is switched off."""
    command = [sys.executable, "-m", f"standins.{kind}", "--url", site.url, *more]
    running = subprocess.Popen(command, cwd=ROOT, env=site.env | {"SPISSUS_DEVICE_TOKEN": token})
    try:
        yield
    finally:
        running.terminate()
        running.wait(timeout=PATIENCE_S)


def device(page: Page, site: Site, name: str, batch: str) -> str:
    """A scale added on the kitchen page and set to a batch; its token."""
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Add a device").click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("What you call it").fill(name)
    sheet.get_by_role("button", name="Make its token").click()
    token = sheet.locator("p.font-mono").inner_text()
    sheet.get_by_role("button", name="I have it").click()
    page.get_by_role("button", name=f"Choose a batch for {name}").click()
    sheet.get_by_role("radio", name=batch).click()
    expect(sheet).to_be_hidden()
    return token


def planned(page: Page, site: Site, name: str, burner: str | None = None, volume: str = "1.6 l") -> str:
    """A batch that boils down to 900 mL; its address."""
    page.goto(f"{site.url}/start")
    page.get_by_label("What is it?").fill(name)
    pick(page, "Pan", "24 cm braising pan")
    if burner:
        pick(page, "Burner", burner)
    page.get_by_label("Say what you have").fill(f"{volume}, no fat, 0.6 %")
    expect(word(page, "Salt")).to_contain_text("0.6 %")
    page.get_by_role("button", name="This is what I have").click()
    wish(page, "makes", "Finished sauce", "900 ml")
    # The flags stand still once the ways of this wish are there.
    expect(word(page, "makes")).to_contain_text("900\u00a0mL")
    flag(page, "your amount").click()
    expect(way_in_hand(page)).to_contain_text("Your amount")
    page.get_by_role("radiogroup", name="Thickened with").get_by_role("radio", name="flour").click()
    expect(way_in_hand(page)).to_contain_text(re.compile("Your amount, with roux.*900\u00a0mL", re.DOTALL))
    now_line(page).get_by_role("button", name="Take this way").click()
    expect(now_line(page)).to_contain_text("Look in")
    return page.url


def of_batch(page: Page, url: str) -> dict[str, Any]:
    """The batch as the API tells it."""
    answer = page.request.get(re.sub(r"/batches/", "/api/v1/batches/", re.sub(r"/(reduce)?$", "", url)))
    found: dict[str, Any] = answer.json()
    return found


def heat(page: Page, how: str) -> None:
    """The heat of the bench, as a word to tap."""
    page.get_by_role("button", name=re.compile("^Heat")).click()
    page.get_by_role("dialog", name="Heat").get_by_role("radio", name=how, exact=True).click()
    expect(page.get_by_role("button", name=re.compile(f"^Heat: {how}"))).to_be_visible()


def test_a_full_reduction_with_the_simulated_scale(page: Page, site: Site) -> None:
    """Ten kilowatts make it ten times as fast as a kitchen; nothing else is different."""
    enter_demo(page, site)
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Add a burner").click()
    page.get_by_label("What you call it, with its setting").fill("jet burner")
    page.get_by_label("Power into the liquid, kW").fill("10")
    page.get_by_role("button", name="Keep it").click()
    expect(page.get_by_text("266 g of steam a minute")).to_be_visible()
    url = planned(page, site, "Cheek at speed", "jet burner", "1.1 l")
    # The heat is on only while the scale stands under it: nothing depends on how long the rest takes.
    heat(page, "off")
    token = device(page, site, "stove scale at speed", "Cheek at speed")
    page.goto(url)
    now, mark = (of_batch(page, url)[of]["gross"]["value"] for of in ("pot", "plan"))
    floor = f"{(now + mark) / 2}"
    heat(page, "a full boil")
    with stand_in(site, "scale", token, "--gross", f"{now}", "--floor", floor, "--steam", "240", "--every", "0.5"):
        # The bench moves by itself: readings, the forecast, and the level between them.
        expect(page.get_by_text(re.compile("stove scale at speed, .*: Reading by scale"))).to_be_visible()
        expect(page.get_by_text(re.compile(r"learned from ([2-9]|\d\d+) readings"))).to_be_visible()
        level = page.get_by_role("img", name=re.compile("The pan in section"))
        before = level.get_attribute("aria-label")
        expect(level).not_to_have_attribute("aria-label", before or "")

        # A stretch without network: what the cook does is kept, and told once when there is one again.
        page.context.set_offline(True)
        page.get_by_role("button", name="Seen in the pan").click()
        page.get_by_role("button", name="film on the spoon").click()
        page.keyboard.press("Escape")
        kept = page.get_by_role("status", name="Kept in this browser")
        expect(kept).to_contain_text("One entry is kept in this browser")
        page.context.set_offline(False)
        expect(kept).to_be_hidden()
        # Half-way there somebody turns it off to change the pan.
        heat(page, "off")
    seen = [e for e in of_batch(page, url)["log"] if e["kind"] == "seen"]
    assert len(seen) == 1

    # Into another pan: the marks are new, and so is what the scale shows.
    page.get_by_role("button", name="Which pan?").click()
    sheet = page.get_by_role("dialog", name="Which pan, how hot")
    sheet.get_by_role("button", name=re.compile("22 cm tapered pan")).click()
    expect(sheet).to_be_hidden()
    expect(page.get_by_role("region", name="The pot").get_by_text("22 cm tapered pan")).to_be_visible()
    moved = of_batch(page, url)
    expect(now_line(page)).to_contain_text(moved["plan"]["gross"]["metric"])
    now, mark = (f"{moved[of]['gross']['value']}" for of in ("pot", "plan"))
    with stand_in(site, "scale", token, "--gross", now, "--floor", mark, "--steam", "450", "--every", "0.5"):
        heat(page, "a full boil")
        # The bar says so as soon as it is sure enough; the scale goes on to the mark.
        expect(now_line(page)).to_contain_text("Take it off the heat")
        for _ in range(PATIENCE_S):
            if of_batch(page, url)["pot"]["liquid"]["value"] < 1.02 * 855:
                break
            page.wait_for_timeout(1000)
        now_line(page).get_by_role("button", name="It is off").click()
    # Flour; or a spoon or a taste before, where it may be thick enough, or salty enough, to be left as it is. At ten
    # kilowatts five millilitres a second are thought gone until somebody says that it is off: how far past the mark
    # that is goes by the hand, and what is past it may be asked back.
    expect(now_line(page)).to_contain_text(re.compile("of flour with|thick enough|[Tt]aste it twice|Past the mark"))
    end = of_batch(page, url)
    assert end["pot"]["liquid"]["value"] < 1.03 * 855
    # Nothing but steam has left: the salt is all there, in less liquid. What a late reading tells of how much there was
    # at the start moves it a little; that it is kept to the gram is held where no clock runs (tests/core).
    before = end["start"]["liquid"]["measured"]["value"] / 1.038
    assert end["pot"]["salt"]["best"] == pytest.approx(0.6 * before / end["pot"]["liquid"]["value"], rel=0.3)


def test_the_alarm_rings_until_it_is_answered(page: Page, site: Site) -> None:
    page.clock.install()
    enter_demo(page, site)
    planned(page, site, "Cheek that is late")
    page.clock.fast_forward("30:00")
    expect(now_line(page)).to_contain_text("Look now")
    expect(page).to_have_title("Look now: Cheek that is late")
    now_line(page).get_by_role("button", name="Quiet").click()
    expect(page).to_have_title(re.compile("^Cheek that is late"))
    # The list puts the pan that wants a look first.
    page.goto(site.url)
    expect(page.get_by_role("list").first.get_by_role("listitem").first).to_contain_text("look now")


#: A page that never asks by itself: whatever comes every so often, or late, does not come.
NEVER_ASKS = """
for (const name of ['setInterval', 'setTimeout']) {
  const real = window[name]
  window[name] = (run, ms, ...rest) => (ms >= 5000 ? 0 : real(run, ms, ...rest))
}
"""


def test_two_browsers_see_the_same_without_asking(page: Page, site: Site, browser: Browser) -> None:
    page.add_init_script(NEVER_ASKS)
    enter_demo(page, site)
    start(page, site, "Knuckle, live")
    other = another_of(page, browser, viewport={"width": 390, "height": 844})
    other.goto(page.url)
    for grams in (2, 3, 4, 5, 6):
        add_salt(other, f"{grams} g")
        expect(page.get_by_role("button", name=re.compile(f"Undo ?: Salt: {grams}.0"))).to_be_visible()
    other.context.close()


def test_what_is_done_while_the_server_is_away_is_told_once(page: Page, site: Site) -> None:
    enter_demo(page, site)
    url = planned(page, site, "Tail without a server")
    gross = of_batch(page, url)["pot"]["gross"]["value"]
    site.stop()
    try:
        take_reading(page, "Scale", f"{gross - 100:.0f}")
        kept = page.get_by_role("status", name="Kept in this browser")
        expect(kept).to_contain_text("One entry is kept")
        page.get_by_role("button", name="Seen in the pan").click()
        page.get_by_role("button", name="film on the spoon").click()
        page.keyboard.press("Escape")
        expect(kept).to_contain_text("2 entries are kept")
        # Closing the page loses nothing.
        assert [one["payload"]["kind"] for one in waiting(page)] == ["read", "seen"]
    finally:
        site.start()
    expect(kept).to_be_hidden()
    kinds = [entry["kind"] for entry in of_batch(page, url)["log"]]
    assert kinds[-2:] == ["read", "seen"]
    assert kinds.count("read") == 1


# -- a database of its own, to be killed ----------------------------------------------------------


@pytest.fixture
def fragile() -> Iterator[tuple[Site, Cluster]]:
    cluster = Cluster()
    site = Site("spissus_fragile", cluster.url, ("--workers", "3"))
    site.start()
    try:
        yield site, cluster
    finally:
        site.stop()
        cluster.remove()


class Sender:
    """A device that remembers which of its readings were acknowledged."""

    def __init__(self, site: Site, token: str, gross: float) -> None:
        self.site, self.token, self.gross = site, token, gross
        self.acknowledged: list[str] = []
        self._waiting: list[dict[str, Any]] = []
        self._over = threading.Event()
        self._thread = threading.Thread(target=self._run)
        self._thread.start()

    def _run(self) -> None:
        began = time.monotonic()
        while not self._over.is_set():
            value = self.gross - 0.4 * (time.monotonic() - began)
            self._waiting.append({"at": datetime.now(UTC).isoformat(), "value": value})
            # Whatever was not acknowledged is sent again with the next.
            body = json.dumps({"readings": self._waiting[:60]}).encode()
            headers = {"Content-Type": "application/json", "Authorization": f"Bearer {self.token}"}
            with (
                contextlib.suppress(URLError, OSError),
                urlopen(Request(f"{self.site.url}/api/v1/device/readings", body, headers), timeout=PATIENCE_S),
            ):
                self.acknowledged += [one["at"] for one in self._waiting[:60]]
                self._waiting = self._waiting[60:]
            self._over.wait(0.15)

    def stop(self) -> None:
        self._over.set()
        self._thread.join(timeout=PATIENCE_S)


def test_nothing_is_lost_or_doubled_when_server_and_database_are_killed(
    browser: Browser, fragile: tuple[Site, Cluster]
) -> None:
    site, cluster = fragile
    page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
    enter_demo(page, site)
    url = planned(page, site, "Shin through the storm")
    token = device(page, site, "storm scale", "Shin through the storm")
    page.goto(url)
    sender = Sender(site, token, of_batch(page, url)["pot"]["gross"]["value"])
    try:
        expect(page.get_by_text("storm scale")).to_be_visible()
        for server, database in (("one", False), ("all", False), (None, True), ("all", True)):
            if database:
                cluster.crash()
            if server == "one":
                site.kill_one()
            if server == "all":
                site.kill()
            page.wait_for_timeout(500)
            if database:
                cluster.start()
            if server == "all":
                site.start()
            before = len(sender.acknowledged)
            give_up = time.monotonic() + PATIENCE_S
            while len(sender.acknowledged) < before + 3:
                assert time.monotonic() < give_up, "the device is not heard again"
                page.wait_for_timeout(100)
        # The page comes back by itself.
        expect(page.get_by_text("The server does not answer")).to_have_count(0)
        mark = f"after the storm {uuid4().hex[:6]}"
        page.keyboard.press("Escape")
        page.keyboard.press("n")
        page.get_by_label("What you want to remember").fill(mark)
        page.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("button", name=re.compile(mark))).to_be_visible()
    finally:
        sender.stop()
    with psycopg.connect(site.env["DATABASE_URL"]) as database:
        rows = [at for (at,) in database.execute("SELECT at FROM devices_reading").fetchall()]
    assert len(rows) == len(set(rows))
    assert {datetime.fromisoformat(at) for at in sender.acknowledged} <= set(rows)
    page.context.close()
