"""A kitchen in a file: taken away by its page, looked at before it is brought in, and out again."""

from __future__ import annotations

import json
from pathlib import Path
from uuid import uuid4

from playwright.sync_api import Page, expect
from running import Site

from .site import enter_demo


def test_the_kitchen_is_saved_and_a_batch_of_it_brought_in_and_taken_out(
    page: Page, site: Site, tmp_path: Path
) -> None:
    enter_demo(page, site)
    page.goto(f"{site.url}/kitchen")
    with page.expect_download() as saved:
        page.get_by_role("link", name="The whole kitchen, JSON").click()
    assert saved.value.suggested_filename.endswith("kitchen.json")
    file = json.loads(saved.value.path().read_text())
    assert len(file["batches"]) >= 6

    # The same pot from another place: nothing of it is here.
    (batch,) = [one for one in file["batches"] if one["name"] == "Goat shoulder with orange"][:1]
    batch |= {"id": str(uuid4()), "name": "Goat from elsewhere", "readings": []}
    for event in batch["events"]:
        event["id"] = str(uuid4())
    # What was struck or dated there names its entry by the old id: here it names nothing, and is left out.
    batch["events"] = [one for one in batch["events"] if "event" not in one["payload"]]
    for seq, event in enumerate(batch["events"], 1):
        event["seq"] = seq
    brought = tmp_path / "brought.json"
    brought.write_text(json.dumps({**file, "batches": [batch, {"name": "Torn"}]}))
    page.get_by_label("A file of a kitchen or of a batch").set_input_files(brought)
    sheet = page.get_by_role("dialog", name="Bring in a file")
    expect(sheet).to_contain_text("1 batch")
    expect(sheet).to_contain_text("Torn")
    sheet.get_by_role("button", name="Take it in").click()
    expect(sheet.get_by_role("button", name="Take it out again")).to_be_visible()
    sheet.get_by_role("button", name="Close").click()
    page.goto(site.url)
    page.get_by_role("link", name="Goat from elsewhere").first.click()
    expect(page.get_by_role("region", name="The pot")).to_be_visible()

    # A second time nothing is new; what is no such file is said.
    page.goto(f"{site.url}/kitchen")
    page.get_by_label("A file of a kitchen or of a batch").set_input_files(brought)
    expect(sheet).to_contain_text("Nothing in it is new")
    sheet.get_by_role("button", name="Leave it").click()
    brought.write_text("{")
    page.get_by_label("A file of a kitchen or of a batch").set_input_files(brought)
    expect(sheet.get_by_role("alert")).to_contain_text("cannot be read as JSON")
