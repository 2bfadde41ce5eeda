"""What a good cook would say next, as the page says it, on evenings that do not go as planned."""

from __future__ import annotations

import re
from datetime import UTC, datetime, timedelta

import pytest
from playwright.sync_api import Browser, Locator, Page, expect
from running import PATIENCE_S, Site

from .site import another_of, enter_demo
from .test_stove import of_batch, planned
from .test_walk import add_salt, now_line, said, start, take_reading, wish, word


def stage(page: Page, name: str) -> Locator:
    """A stage of the bench, opened."""
    page.get_by_role("navigation", name="Stages").get_by_role("button", name=name).click()
    opened = page.get_by_role("region", name=name)
    expect(opened).to_be_visible()
    return opened


def add(page: Page, what: str, found: str, amount: str) -> None:
    """Something of the catalogue goes in."""
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.press("a")
    sheet = page.get_by_role("dialog", name="Add")
    sheet.get_by_role("radio", name="Something else").click()
    sheet.get_by_label("Search").fill(what)
    sheet.get_by_role("radio", name=found, exact=True).click()
    sheet.get_by_label("How much").fill(amount)
    sheet.get_by_role("button", name="It is in").click()
    expect(sheet).to_be_hidden()


def answer(page: Page, label: str) -> None:
    now_line(page).get_by_role("button", name=label, exact=True).click()


def answer_and_wait(page: Page, label: str) -> None:
    """The answer is given, and what it comes to stands there."""
    entries = page.get_by_role("button", name=re.compile("^Log")).inner_text()
    answer(page, label)
    expect(page.get_by_role("button", name=re.compile("^Log"))).not_to_have_text(entries)


def test_four_pots_ring_on_any_page_and_what_was_heard_is_quiet_on_every_device(
    page: Page, site: Site, browser: Browser
) -> None:
    enter_demo(page, site)
    other = another_of(page, browser, viewport={"width": 390, "height": 844})
    page.clock.install()
    other.clock.install()
    names = [f"Cheek of pot {number}" for number in ("one", "two", "three", "four")]
    for name in names:
        planned(page, site, name)
    page.goto(f"{site.url}/kitchen")
    other.goto(f"{site.url}/kitchen")
    expect(page.get_by_role("main")).to_be_visible()
    page.clock.fast_forward("30:00")
    other.clock.fast_forward("30:00")
    heard: list[str] = []
    while len(heard) < len(names):
        strip = page.get_by_role("alert").filter(has_text="look now")
        expect(strip).to_be_visible()
        name = strip.get_by_role("link").locator("span").first.inner_text().strip()
        # Heard here it is quiet there, and the next one has its turn; the demo's own pots ring among them.
        strip.get_by_role("button", name="Quiet").click()
        heard += [name] if name in names else []
        expect(other.get_by_role("alert").filter(has_text=name)).to_have_count(0)
        expect(page.get_by_role("alert").filter(has_text=name)).to_have_count(0)
    assert sorted(heard) == sorted(names)
    page.goto(site.url)
    page.get_by_role("main").get_by_role("link", name=re.compile(names[0])).click()
    expect(now_line(page)).to_contain_text("Look now")
    expect(now_line(page).get_by_role("button", name="Quiet")).to_have_count(0)
    other.context.close()


def test_one_tap_from_the_alarm_is_the_pot_that_rings(page: Page, site: Site) -> None:
    page.clock.install()
    enter_demo(page, site)
    planned(page, site, "Cheek left alone")
    page.goto(f"{site.url}/kitchen")
    expect(page.get_by_role("main")).to_be_visible()
    page.clock.fast_forward("30:00")
    strip = page.get_by_role("alert").filter(has_text="look now")
    expect(strip).to_be_visible()
    strip.get_by_role("link").click()
    expect(now_line(page)).to_be_visible()


def test_a_late_look_hears_where_it_has_probably_gone(page: Page, site: Site) -> None:
    enter_demo(page, site)
    # All of it happened three quarters of an hour ago, and nobody looked since.
    page.clock.install(time=datetime.now(UTC) - timedelta(minutes=45))
    planned(page, site, "Cheek nobody looked at")
    page.clock.fast_forward("45:00")
    before = said(page).inner_text()
    late = re.compile("Take it off. It is probably .* past the mark, .* Measure it")
    expect(now_line(page)).to_contain_text(late)
    # However late it gets, the mark stays what it was.
    page.clock.fast_forward("05:00")
    page.reload()
    expect(now_line(page)).to_contain_text("past the mark, ")
    mark = re.compile(r"past the mark, ([^.]+)")
    assert mark.search(said(page).inner_text())[1] == mark.search(before)[1]  # type: ignore[index]
    take_reading(page, "Jug", "700")
    expect(now_line(page)).to_contain_text(re.compile("Past the mark. Stir in|Whisk in"))


def test_a_failed_cooling_stays_until_it_is_answered(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.clock.install(time=datetime.now(UTC) - timedelta(hours=3))
    start(page, site, "Stock left out")
    skim = stage(page, "Skim")
    skim.get_by_role("radio", name="chill and lift").click()
    skim.get_by_label("It is now at").fill("57 °C")
    skim.get_by_role("button", name="Set it to cool now").click()
    expect(now_line(page)).to_contain_text("It must reach 21 °C by")
    page.clock.fast_forward("02:59:00")
    stage(page, "Skim").get_by_label("Temperature in the thickest part").fill("48 °C")
    page.get_by_role("button", name="Keep the temperature").click()
    expect(now_line(page)).to_contain_text("not safe to keep")
    # Not by taking the fat off, nor by finishing, nor by a reload, nor by taking something else back.
    stage(page, "Skim").get_by_role("button", name="The fat is off").click()
    expect(now_line(page)).to_contain_text("not safe to keep")
    add_salt(page, "1 g")
    page.keyboard.press("u")
    stage(page, "Serve").get_by_role("button", name="Finish").click()
    page.reload()
    expect(now_line(page)).to_contain_text("not safe to keep")
    page.keyboard.press("l")
    expect(page.get_by_role("dialog", name="Log").get_by_role("alert")).to_contain_text("not safe to keep")
    page.keyboard.press("Escape")
    page.goto(site.url)
    line = page.get_by_role("listitem").filter(has_text="Stock left out")
    expect(line).to_contain_text("cooling in doubt")
    line.get_by_role("link").click()
    answer(page, "Thrown away")
    expect(now_line(page)).to_contain_text("Thrown away.")


def test_butter_that_is_on_to_boil_is_said_first(page: Page, site: Site) -> None:
    enter_demo(page, site)
    planned(page, site, "Cheek with butter")
    take_reading(page, "Jug", "885")
    add(page, "butter", "butter, unsalted", "30 g")
    stage(page, "Reduce")
    page.get_by_role("button", name=re.compile("^Heat: ")).click()
    page.get_by_role("radio", name="a full boil").click()
    # It is asked before it is taken.
    expect(page.get_by_role("alert")).to_contain_text("Butter is in it: above 80 °C it parts.")
    page.get_by_role("button", name="Boil it all the same").click()
    expect(now_line(page)).to_contain_text("Butter is in it, and it is on to boil")
    stage(page, "Season")
    expect(now_line(page)).to_contain_text("Butter is in it")
    answer(page, "Taken off in time")
    expect(now_line(page)).not_to_contain_text("Butter is in it")


def test_a_thickener_half_as_strong_gets_more_each_time_and_right_spoons_end_it(page: Page, site: Site) -> None:
    enter_demo(page, site)
    planned(page, site, "Cheek with old flour")
    take_reading(page, "Jug", "885")
    # It may be too salty once it is bound, and is tasted before.
    expect(now_line(page)).to_contain_text("Taste it twice")
    answer_and_wait(page, "Right")
    whisked: list[float] = []
    for _ in range(12):
        grams = re.search(r"Whisk in ([\d.]+)", said(page).inner_text())
        if grams is None:
            # Two are looked at before anything is added: a helping cannot be taken out.
            answer_and_wait(page, "Both too thin")
        elif len(whisked) == 3:
            break
        else:
            whisked.append(float(grams[1]))
            answer_and_wait(page, "Whisked in")
            expect(now_line(page)).to_contain_text("look at two spoonfuls")
    assert sum(whisked[1:]) > whisked[0]
    answer_and_wait(page, "Whisked in")
    for _ in range(3):
        # Two right ones are not the end of it where the ledger does not agree.
        if "a finger line stays" not in said(page).inner_text() and "look at two" not in said(page).inner_text():
            break
        answer_and_wait(page, "Both right")
    expect(said(page)).not_to_contain_text(re.compile("Whisk in|spoonful|two more"))


def test_the_wrong_order_leaves_ribbon_and_bar_true(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Everything the other way round")
    # Bound and salted before anything was wished for, read, skimmed last, and finished without a plan.
    page.keyboard.press("a")
    sheet = page.get_by_role("dialog", name="Add")
    sheet.get_by_role("radio", name="Thickener").click()
    sheet.get_by_label("Weight of the flour").fill("20 g")
    sheet.get_by_role("button", name="It is in").click()
    add_salt(page, "2 g")
    take_reading(page, "Jug", "1500")
    stage(page, "Skim").get_by_role("button", name="The fat is off").click()
    stages = page.get_by_role("navigation", name="Stages")
    expect(stages.get_by_role("button", name="Skim")).to_be_visible()
    expect(now_line(page)).to_contain_text("Make ")
    stage(page, "Serve").get_by_role("button", name="Finish").click()
    expect(now_line(page)).to_contain_text("Finished with")
    page.keyboard.press("l")
    log = page.get_by_role("dialog", name="Log")
    for entry in ("White roux", "Salt: 2.0", "Reading by jug", "Skimmed", "Finished"):
        expect(log.get_by_role("listitem").filter(has_text=entry)).to_be_visible()


def test_what_somebody_must_not_eat_is_left_out_or_told(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Cheek for a guest", "1.6 l, no fat, 0.6 % salt")
    word(page, "without").click()
    page.get_by_role("button", name="gluten", exact=True).click()
    page.get_by_role("button", name="milk", exact=True).click()
    page.get_by_role("button", name="Done").click()
    wish(page, "ready", "Ready in, or at", "40 min")
    page.get_by_role("button", name=re.compile("this pot does not allow")).click()
    expect(page.get_by_role("listitem", name="Thicken it as it is, with roux")).to_contain_text("It brings gluten")
    # What is changed on the page is not kept by agreeing to something else.
    answer(page, "Make this my wish")
    expect(now_line(page)).to_contain_text("corn starch")
    answer(page, "Take this way")
    add(page, "cream", "cream, 36 % fat", "50 ml")
    expect(now_line(page)).to_contain_text("It holds milk, and somebody at the table must not have that")
    answer(page, "They are told")
    expect(now_line(page)).not_to_contain_text("It holds milk")


def test_a_pot_salted_twice_by_two_people_asks_when_both_are_back(page: Page, site: Site, browser: Browser) -> None:
    enter_demo(page, site)
    start(page, site, "Salted by two", "1.6 l, no fat, 0.4 % salt", salt="0.4 %")
    other = another_of(page, browser, viewport={"width": 390, "height": 844})
    other.goto(page.url)
    expect(now_line(other)).to_be_visible()
    for cook in (page, other):
        # Every part of the page is there by then.
        cook.wait_for_load_state("networkidle")
        cook.context.set_offline(True)
    add_salt(page, "2 g")
    add_salt(other, "2 g")
    for cook in (page, other):
        cook.context.set_offline(False)
    expect(now_line(page)).to_contain_text("Salt went in twice within two minutes")
    expect(now_line(other)).to_contain_text("Salt went in twice within two minutes")
    answer(other, "Only one")
    expect(now_line(page)).not_to_contain_text("twice within two minutes")
    other.context.close()


def test_a_slip_is_taken_and_asked_about_until_it_is_answered(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Slipped", "1.6 l, no fat, 0.6 %")
    add_salt(page, "50 g")
    expect(now_line(page)).to_contain_text("or 5\u00a0g?")
    page.reload()
    expect(now_line(page)).to_contain_text("or 5\u00a0g?")
    now_line(page).get_by_role("button", name="5 g", exact=True).click()
    expect(now_line(page)).to_contain_text("for four people")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Season").click()
    expect(page.get_by_role("region", name="Season")).to_contain_text(re.compile(r"0\.9\d\s%"))


def test_the_stage_in_hand_stays_open_whatever_somebody_else_records(page: Page, site: Site, browser: Browser) -> None:
    enter_demo(page, site)
    planned(page, site, "Cheek with two cooks")
    expect(page.get_by_role("region", name="Reduce")).to_be_visible()
    other = another_of(page, browser, viewport={"width": 390, "height": 844})
    other.goto(page.url)
    expect(now_line(other)).to_be_visible()
    take_reading(other, "Jug", "885")
    expect(now_line(page)).to_contain_text("Taste it twice")
    answer(other, "Right")
    expect(now_line(page)).to_contain_text("may be thick enough")
    answer(other, "Both too thin")
    expect(now_line(page)).to_contain_text("Whisk in")
    expect(page.get_by_role("region", name="Reduce")).to_be_visible()
    # What the bar asks for leads on.
    answer(page, "Whisked in")
    expect(page.get_by_role("region", name="Thicken")).to_be_visible()
    # Salt in a stage that was opened on purpose leaves it open.
    stage(page, "Season").get_by_label("Another amount of salt").fill("0.5 g")
    page.get_by_role("button", name="Stirred in").click()
    expect(page.get_by_role("button", name=re.compile("Undo ?: Salt: 0.5"))).to_be_visible()
    expect(page.get_by_role("region", name="Season")).to_be_visible()
    other.context.close()


def test_a_forgotten_entry_is_added_later_with_its_time(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.clock.install(time=datetime.now(UTC) - timedelta(minutes=40))
    start(page, site, "Salted and forgotten")
    page.clock.fast_forward("40:00")
    add_salt(page, "2 g")
    then = datetime.now(UTC) - timedelta(minutes=25)
    page.keyboard.press("l")
    log = page.get_by_role("dialog", name="Log")
    entry = log.get_by_role("listitem").filter(has_text="Salt: 2.0")
    entry.get_by_role("button", name=re.compile("it was at another time")).click()
    local = page.evaluate(
        "at => new Date(at - new Date(at).getTimezoneOffset() * 60000).toISOString()", then.timestamp() * 1000
    )
    entry.get_by_label(re.compile("^When")).fill(local[:16])
    entry.get_by_role("button", name="It was then").click()
    expect(entry).to_contain_text(local[11:16])


@pytest.mark.parametrize(("by", "gap_ms"), [("touch", 500)])
def test_two_taps_are_never_two_acts(browser: Browser, site: Site, by: str, gap_ms: int) -> None:
    context = browser.new_context(viewport={"width": 1280, "height": 800}, locale="en-GB", has_touch=by == "touch")
    context.set_default_timeout(PATIENCE_S * 1000)
    page = context.new_page()
    page.add_init_script("window.taps = []; addEventListener('pointerdown', e => taps.push(e.timeStamp), true)")
    enter_demo(page, site)
    start(page, site, f"Tapped twice by {by} {gap_ms}")
    acts: list[str] = []
    tapped = {"want", "choose", "skim", "thicken"}
    for _ in range(12):
        act = of_batch(page, page.url)["act"]
        label = next((one["label"] for one in act["answers"] if one["payload"]), None)
        if act["kind"] == "boil":
            take_reading(page, "Scale", f"{of_batch(page, page.url)['plan']['gross']['value']:.0f}")
            expect(said(page)).not_to_contain_text("Look in")
            continue
        if label is None or tapped <= set(acts):
            break
        acts.append(act["kind"])
        button = (
            now_line(page)
            .get_by_role("button", name=label, exact=True)
            .or_(now_line(page).get_by_role("button", name="Take this way"))
            .first
        )
        expect(button).to_be_enabled()
        before, box = len(of_batch(page, page.url)["log"]), button.bounding_box()
        assert box is not None
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        tap = page.touchscreen.tap if by == "touch" else page.mouse.click
        with page.expect_response(re.compile("/events$")):
            tap(x, y)
        page.wait_for_timeout(gap_ms)
        tap(x, y)
        expect(now_line(page).get_by_role("button", name="Take back")).to_be_enabled()
        # A way is taken together with its wish; nothing is recorded two times, nor what came next.
        kinds = [entry["kind"] for entry in of_batch(page, page.url)["log"][before:]]
        first, second = page.evaluate("taps.slice(-2)")
        # Where a slow machine let more time pass between the two, the second one was an answer.
        if second - first < 800:
            assert kinds in ([kinds[-1]], ["wanted", "chosen"]), act["kind"]
    assert tapped <= set(acts), acts
    context.close()


def test_a_key_that_is_held_acts_once_and_what_was_recorded_can_be_taken_back_above_it(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Held down")
    before = len(of_batch(page, page.url)["log"])
    button = now_line(page).get_by_role("button", name="Make that much")
    expect(button).to_be_enabled()
    button.focus()
    for _ in range(30):
        page.keyboard.down("Enter")
    page.keyboard.up("Enter")
    back = now_line(page).get_by_role("button", name="Take back")
    expect(back).to_be_enabled()
    assert len(of_batch(page, page.url)["log"]) == before + 1
    back.click()
    expect(now_line(page).get_by_role("button", name="Make that much")).to_be_enabled()
    # Where nothing has the focus, Enter is the answer in gold.
    page.evaluate("document.activeElement.blur()")
    page.keyboard.press("Enter")
    expect(now_line(page).get_by_role("button", name="Make that much")).to_have_count(0)
    assert [one["kind"] for one in of_batch(page, page.url)["log"]][-1] == "wanted"
