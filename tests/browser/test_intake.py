"""Two cooks say what they have: one knows only a sentence, one has the whole list. And what may follow."""

from __future__ import annotations

import re

from playwright.sync_api import Page, Route, expect
from running import Site

from .site import enter_demo
from .test_walk import now_line, pick, start, word

LIST = """Pork cheek in dry cider:
1.2 kg pork cheek
12 g salt on the meat
2 onions, roughly chopped
2 sticks celery
2 tbsp olive oil for frying, most poured off
1 bottle dry cider (750 ml), reduced by half
1 l chicken stock
2 heaped tbsp flour, for dusting the meat
3 cups blorple
"""


def paste(page: Page, text: str) -> None:
    field = page.get_by_label("What went into the braise")
    field.focus()
    page.evaluate(
        """text => {
            const data = new DataTransfer()
            data.setData('text', text)
            document.activeElement.dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true}))
        }""",
        text,
    )


def test_a_cook_who_knows_only_a_sentence(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    expect(now_line(page)).to_contain_text("Say how much there is")
    pick(page, "Pan", "24 cm braising pan")
    page.get_by_label("Say what you have").fill("a bit over two litres, two centimetres of fat")
    expect(word(page, "How much")).to_contain_text("2100 ml by eye")
    # The pot fills before the last question is answered.
    expect(page.get_by_role("slider", name="Level in the pan, mm")).to_have_attribute("aria-valuenow", "46")
    expect(now_line(page)).to_contain_text("how salty is it?")
    expect(page.get_by_role("button", name="This is what I have")).to_be_disabled()
    page.get_by_label("Say what you have").fill(
        "a bit over two litres, two centimetres of fat, nearly right for salt, and the radio is on"
    )
    expect(word(page, "Salt")).to_contain_text("nearly right")
    expect(page.get_by_text("Not understood: “the radio is on”")).to_be_visible()
    expect(page.get_by_text("The eye is good to")).to_be_visible()
    page.get_by_role("button", name="This is what I have").click()
    expect(now_line(page)).to_contain_text("for four people")
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Strain").click()
    strain = page.get_by_role("region", name="Strain")
    expect(strain).to_contain_text("0.65 %")
    expect(strain).to_contain_text("likely 0.33 to 0.97 %")


def test_a_cook_with_the_whole_list(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    page.get_by_label("What is it?").fill("Cheek by the list")
    pick(page, "Pan", "24 cm braising pan")
    paste(page, LIST)
    went_in = page.get_by_role("region", name="What went in")
    expect(went_in.get_by_role("button", name=re.compile("pork cheek gives 18 to 72 g fat"))).to_be_visible()
    expect(went_in.get_by_text("“blorple” is not in the catalogue")).to_be_visible()
    expect(went_in.get_by_text("One line does not count yet.")).to_be_visible()
    # The pot filled by the list alone, and the list explains itself.
    expect(page.get_by_role("slider", name="Level in the pan, mm")).not_to_have_attribute("aria-valuenow", "0")
    by_list = page.get_by_role("region", name="By the list")
    by_list.get_by_role("button", name=re.compile("^salt")).click()
    expect(by_list).to_contain_text("Table salt: 12\u00a0g: 11.8 g salt")
    expect(by_list).to_contain_text("Boiled down open before the braise: Rayleigh's equation")
    expect(by_list).to_contain_text("celery, gluten, sulphites")

    # A line that was not understood is put right; another is taken out and put back.
    went_in.get_by_role("button", name=re.compile("blorple")).click()
    edit = page.get_by_role("dialog", name="Change blorple")
    edit.get_by_label("As you would write it").fill("3 cups water")
    edit.get_by_role("button", name="Read", exact=True).click()
    expect(went_in.get_by_role("button", name=re.compile(r"710 mL\s*water"))).to_be_visible()
    page.keyboard.press("Escape")
    went_in.get_by_role("button", name=re.compile("celery")).click()
    page.get_by_role("button", name="Take it out of the list").click()
    went_in.get_by_role("button", name="Put celery back").click()
    expect(went_in.get_by_role("button", name=re.compile("100 g celery"))).to_be_visible()

    # What was done with a line, and how it was cooked, change the liquid.
    went_in.get_by_role("button", name=re.compile("dry cider")).click()
    page.get_by_role("radio", name="¼ boil off ¾").click()
    expect(went_in).to_contain_text("190\u00a0mL left of 750\u00a0mL")
    page.keyboard.press("Escape")
    pick(page, "Strained through", "through a fine sieve, pressed")

    # A measurement pins it, and a contradiction is named.
    word(page, "How much").click()
    page.get_by_label("Measurement").fill("4.5 l")
    page.keyboard.press("Enter")
    expect(by_list.get_by_role("status")).to_contain_text("missing from the list")
    word(page, "How much").click()
    page.get_by_label("Measurement").fill("2.3 l")
    page.keyboard.press("Enter")
    expect(by_list.get_by_role("status")).to_be_hidden()
    page.get_by_role("button", name="This is what I have").click()
    expect(now_line(page)).to_contain_text("for four people")

    # All of it is still there when the start is corrected.
    page.get_by_role("navigation", name="Stages").get_by_role("button", name="Strain").click()
    page.get_by_role("button", name="Correct the start").click()
    expect(page.get_by_role("region", name="What went in").get_by_role("button")).to_have_count(11)
    expect(word(page, "Strained through")).to_contain_text("pressed")


def test_one_line_at_a_time_with_a_slip_of_the_finger(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    went_in = page.get_by_role("region", name="What went in")
    field = page.get_by_label("What went into the braise")
    field.fill("half a botle of red wine")
    field.fill("half a bottle of rde wine")
    expect(went_in).to_contain_text("375\u00a0mL red wine")
    page.keyboard.press("Enter")
    expect(went_in.get_by_role("button", name=re.compile("375 mL red wine"))).to_be_visible()
    expect(field).to_have_value("")
    field.fill("600 ml pork cheek")
    expect(went_in).to_contain_text("weighed, not poured")
    # An interrupted start is kept.
    page.reload()
    expect(went_in.get_by_role("button", name=re.compile("375 mL red wine"))).to_be_visible()


def test_five_thousand_lines_and_strange_writing(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    went_in = page.get_by_role("region", name="What went in")
    paste(page, "مرق لحم\n🍷🍷\n300 % ABV\n" + "\n".join(f"{i} g salt" for i in range(1, 5001)))
    expect(went_in.get_by_text("More than 200 lines")).to_be_visible()
    expect(went_in.get_by_label("Lines that were not read")).to_have_value(re.compile("5000 g salt$"))
    expect(went_in.get_by_text("“مرق لحم” is not in the catalogue")).to_be_visible()
    expect(went_in.get_by_text("“🍷🍷” is not in the catalogue")).to_be_visible()


def test_stock_from_a_concentrate(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    page.get_by_role("button", name="Stock from a concentrate?").click()
    sheet = page.get_by_role("dialog", name="Stock from a concentrate")
    expect(sheet).to_contain_text("400\u00a0mL of it, 1\u00a0400\u00a0mL of water")
    expect(sheet).to_contain_text("Not 1\u00a0800\u00a0mL of water")
    sheet.get_by_label("In all").fill("900 ml")
    expect(sheet).to_contain_text("200\u00a0mL of it, 700\u00a0mL of water")
    sheet.get_by_role("button", name="Put both in the list").click()
    went_in = page.get_by_role("region", name="What went in")
    expect(went_in.get_by_role("button", name=re.compile("200 mL chicken broth, condensed"))).to_be_visible()
    expect(went_in.get_by_role("button", name=re.compile("700 mL water"))).to_be_visible()


def test_ice_is_priced_and_a_pot_is_chilled_against_the_clock(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Brisket overnight", "1.6 l, 120 ml of fat, 0.6 %")
    page.keyboard.press("s")
    page.get_by_role("radio", name="ice in the pot").click()
    ice = page.get_by_role("form", name="ice in the pot")
    expect(ice).to_contain_text("of ice, and all of it ends in the pot")
    expect(ice).to_contain_text("ice in a sealed bag")
    page.get_by_role("radio", name="chill and lift").click()
    page.get_by_label("It is now at").fill("9000 °C")
    page.get_by_role("button", name="Set it to cool now").click()
    expect(page.get_by_role("form", name="chill and lift").get_by_role("alert")).to_contain_text("between -40 and 300")
    page.get_by_label("It is now at").fill("50 °C")
    page.get_by_role("button", name="Set it to cool now").click()
    expect(now_line(page)).to_contain_text(re.compile(r"It must reach 21\u00a0°C by \d\d:\d\d"))
    cooling = page.get_by_role("region", name="Cooling")
    expect(cooling).to_contain_text("Never leave a full pot to cool to room temperature")
    cooling.get_by_label("Temperature in the thickest part").fill("48 °C")
    cooling.get_by_role("button", name="Keep the temperature").click()
    expect(cooling.get_by_role("img", name=re.compile("48 °C at"))).to_be_visible()
    page.get_by_role("button", name="The fat is off").click()
    expect(now_line(page)).to_contain_text("for four people")
    expect(page.get_by_role("button", name=re.compile("Undo ?: Skimmed: chill and lift"))).to_be_visible()


def test_drawing_off_a_part_and_meat_in_the_pan(page: Page, site: Site) -> None:
    enter_demo(page, site)
    start(page, site, "Neck, drawn off")
    stages = page.get_by_role("navigation", name="Stages")
    stages.get_by_role("button", name="Strain").click()
    page.get_by_role("button", name="Meat is in the pan").click()
    page.get_by_label("Their weight").fill("900 g")
    page.get_by_role("button", name="They are in the pan").click()
    stages.get_by_role("button", name="Strain").click()
    strain = page.get_by_role("region", name="Strain")
    expect(strain).to_contain_text("900\u00a0g of meat or vegetables stand in the liquid")
    page.get_by_role("button", name="Draw off a part").click()
    sheet = page.get_by_role("dialog", name="Draw off a part")
    sheet.get_by_role("radio", name="The sauce").click()
    sheet.get_by_label("How much, as the jug shows it").fill("9 l")
    sheet.get_by_role("radio", name="18 cm straight pan").click()
    # With fat on it, it matters how.
    expect(sheet.get_by_role("button", name="Drawn off")).to_be_disabled()
    sheet.get_by_role("radio", name=re.compile("from under the fat")).click()
    sheet.get_by_role("button", name="Drawn off").click()
    expect(sheet.get_by_role("alert")).to_contain_text("of liquid is in the pot")
    sheet.get_by_label("How much, as the jug shows it").fill("400 ml")
    sheet.get_by_role("button", name="Drawn off").click()
    expect(sheet).to_be_hidden()
    stages.get_by_role("button", name="Strain").click()
    expect(strain).to_contain_text("of liquid stands aside, on the meat or by itself")
    expect(page.get_by_role("region", name="The pot").get_by_text("18 cm straight pan")).to_be_visible()


def test_a_pan_is_calibrated_and_an_ingredient_kept(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/kitchen")
    page.get_by_role("button", name="Calibrate 22 cm tapered pan").click()
    sheet = page.get_by_role("dialog")
    for row, (volume, depth) in enumerate((("500 ml", "23 mm"), ("1 l", "43 mm"))):
        sheet.get_by_label("Volume in all").nth(row).fill(volume)
        sheet.get_by_label("Depth").nth(row).fill(depth)
    expect(sheet).to_contain_text("By these dips it is")
    sheet.get_by_role("button", name="Go by the dips from now on").click()
    expect(sheet).to_be_hidden()

    page.get_by_role("button", name="Add an ingredient").click()
    sheet.get_by_label("What you call it").fill("house brown stock")
    sheet.get_by_label("What it is like").fill("beef stok")
    sheet.get_by_role("radio", name="beef stock, home made").click()
    sheet.get_by_label("Sodium in a serving").fill("9 furlongs")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet.get_by_role("alert").first).to_contain_text("is not a unit")
    sheet.get_by_label("Sodium in a serving").fill("480 mg")
    sheet.get_by_role("button", name="Keep it").click()
    expect(sheet).to_be_hidden()
    expect(page.get_by_text("0.50 % salt")).to_be_visible()

    page.goto(f"{site.url}/start")
    page.get_by_label("What went into the braise").fill("1 l house brown stock")
    expect(page.get_by_role("region", name="What went in")).to_contain_text("1\u00a0000\u00a0mL house brown stock")
    with page.expect_response(re.compile(r"/skewer\.pdf")) as answer:
        page.goto(f"{site.url}/kitchen")
        href = page.get_by_role("link", name="Print its skewer 18 cm straight pan").get_attribute("href")
        page.evaluate("href => fetch(href)", href)
    assert answer.value.headers["content-type"] == "application/pdf"


def test_a_line_that_is_read_late_takes_back_nothing_that_the_sentence_said(page: Page, site: Site) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/start")
    held: list[Route] | None = []

    def hold(route: Route) -> None:
        if held is None:
            route.continue_()
        else:
            held.append(route)

    page.route("**/previews/line", hold)
    box = page.get_by_label("What went into the braise?")
    box.fill("200 ml stock")
    page.get_by_role("button", name="Put it in").click()
    page.get_by_label("Say what you have").fill("a bit over two litres, 2 cm of fat")
    expect(word(page, "How much")).to_contain_text("2100 ml")
    row = page.get_by_label("What went in", exact=True)
    late, held = held or [], None
    for one in late:
        one.continue_()
    expect(row).to_contain_text("several are called so")
    expect(word(page, "How much")).to_contain_text("2100 ml")
    # One tap puts the line right.
    row.get_by_role("button", name="stock, unsalted").click()
    expect(row).not_to_contain_text("several are called so")
    expect(row).to_contain_text("stock, unsalted")
