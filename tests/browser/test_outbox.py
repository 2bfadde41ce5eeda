"""The outbox loses nothing: whatever the server answers, an entry waits, is sent, or is mended by hand."""

from __future__ import annotations

import json
from typing import Any
from uuid import uuid4

import pytest
from makers import text_of
from playwright.sync_api import Locator, Page, Route, expect
from running import Site

from .site import PASSWORD, enter_demo, sign_up

AT = "2026-03-14T18:00:00Z"


def waiting(page: Page) -> list[dict[str, Any]]:
    """What this browser keeps, in order."""
    rows = page.evaluate(
        "Object.entries(localStorage).filter(([key]) => key.startsWith('spissus-outbox:')).map(([, v]) => v)"
    )
    return sorted((json.loads(row) for row in rows), key=lambda one: one["order"])


def told(page: Page, method: str, path: str, body: Any = None) -> Any:
    """A call of the API as the page makes it."""
    return page.evaluate(
        """async ([method, path, body]) => {
            const token = document.cookie.split('; ').find((c) => c.startsWith('csrftoken=')).slice(10)
            const headers = { 'X-CSRFToken': token, 'Content-Type': 'application/json' }
            const answer = await fetch('/api/v1' + path, { method, headers, body: body && JSON.stringify(body) })
            return answer.json()
        }""",
        [method, path, body],
    )


def batch(page: Page, name: str) -> str:
    """A new batch in the demo kitchen; its id."""
    kitchen = told(page, "GET", "/kitchen")
    liquid = {"measured": {"method": "jug", "value": "1.5 l"}, "salt": {"by": "meter", "percent": 0.6}}
    start = {"pan_id": kitchen["pans"][1]["id"], "burner_id": kitchen["burners"][0]["id"], "liquid": liquid}
    body = {"id": str(uuid4()), "event_id": str(uuid4()), "at": AT, "name": name, "start": start}
    return str(told(page, "POST", "/batches", body)["id"])


def keep(page: Page, *entries: tuple[str, str | dict[str, str]], owner: dict[str, str] | None = None) -> None:
    """What waits after an evening without a network: (batch, note or entry), of who is signed in, or of another."""
    session = told(page, "GET", "/session")
    owner = owner or {"person": session["person"], "kitchen": session["kitchen_id"], "name": session["name"]}
    for order, (batch_id, entry) in enumerate(entries, 1):
        one = {
            "batchId": batch_id,
            "id": str(uuid4()),
            "at": AT,
            "payload": {"kind": "noted", "text": entry} if isinstance(entry, str) else entry,
            "owner": owner,
            "order": order,
            "state": "waits",
            "why": None,
            "failures": 0,
            "failingSince": None,
        }
        page.evaluate("([id, one]) => localStorage.setItem('spissus-outbox:' + id, one)", [one["id"], json.dumps(one)])


def notes(page: Page, batch_id: str) -> list[str]:
    log = told(page, "GET", f"/batches/{batch_id}")["log"]
    return [text_of(entry["text"]) for entry in log if entry["kind"] == "noted"]


def kept(page: Page) -> Locator:
    return page.get_by_role("status", name="Kept in this browser")


@pytest.mark.parametrize("status", [401, 404, 503])
def test_three_entries_of_two_batches(page: Page, site: Site, status: int) -> None:
    enter_demo(page, site)
    ill, well = batch(page, f"ill {status}"), batch(page, f"well {status}")

    def answer(route: Route) -> None:
        problem = {"status": status, "detail": f"Said {status}.", "errors": []}
        headers = {"Retry-After": "1"} if status in (429, 503) else {}
        route.fulfill(status=status, content_type="application/problem+json", body=json.dumps(problem), headers=headers)

    page.route(f"**/batches/{ill}/events", answer)
    mixed = [(ill, "one"), (well, "one"), (ill, "two"), (well, "two"), (ill, "three"), (well, "three")]
    if status in (401, 429, 503):
        # These hold up everything: what is well goes first, or it would rightly wait too.
        mixed.sort(key=lambda entry: entry[0] == ill)
    keep(page, *mixed)
    page.goto(f"{site.url}/batches/{well}")
    expect(kept(page)).to_contain_text(f"Said {status}.")
    expect(kept(page)).to_contain_text("3 entries are kept")
    assert notes(page, well) == ["one", "two", "three"]
    page.reload()
    expect(kept(page)).to_contain_text("3 entries are kept")
    assert [one["payload"]["text"] for one in waiting(page)] == ["one", "two", "three"]
    assert notes(page, ill) == []
    page.unroute(f"**/batches/{ill}/events")
    page.get_by_role("button", name="Try now").click()
    expect(kept(page)).to_be_hidden()
    assert notes(page, ill) == ["one", "two", "three"]


def test_what_is_refused_survives_a_reload_and_is_mended_sent_again_or_dropped(page: Page, site: Site) -> None:
    enter_demo(page, site)
    pot = batch(page, "refused")
    salt = {"kind": "salted", "salt_g": "a lot"}
    roux = {"kind": "thickened", "thickener": "white_roux", "dry_g": "a lot"}
    keep(page, (pot, salt), (pot, roux), (pot, "third"))
    page.goto(f"{site.url}/batches/{pot}")
    expect(kept(page)).to_contain_text("Salt a lot")
    expect(kept(page)).to_contain_text("is not a unit known here")
    # Nothing waits behind it.
    expect(kept(page)).not_to_contain_text("kept in this browser and sent")
    assert notes(page, pot) == ["third"]
    page.reload()
    expect(kept(page)).to_contain_text("Salt a lot")
    kept(page).get_by_role("button", name="Send again").first.click()
    expect(kept(page)).to_contain_text("Salt a lot")
    kept(page).get_by_role("button", name="Mend it").first.click()
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Weight of the salt").fill("1.5 g")
    sheet.get_by_role("button", name="Send it again").click()
    expect(kept(page)).not_to_contain_text("Salt")
    kept(page).get_by_role("button", name="Drop it").click()
    expect(kept(page)).to_be_hidden()
    kinds = [entry["kind"] for entry in told(page, "GET", f"/batches/{pot}")["log"]]
    assert kinds == ["started", "noted", "salted"]


def test_what_waits_belongs_to_whoever_made_it(page: Page, site: Site) -> None:
    enter_demo(page, site)
    pot = batch(page, "whose")
    # Somebody else's from the first: what is one's own is sent as soon as it is there.
    keep(page, (pot, "theirs"), owner={"person": "0", "kitchen": "elsewhere", "name": "late-shift"})
    page.goto(f"{site.url}/batches/{pot}")
    expect(kept(page)).to_contain_text("One entry of late-shift waits in this browser until they sign in here again")
    # The line on top is another one until the batch is there.
    expect(page.get_by_role("region", name="Now")).to_be_visible()
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    page.get_by_role("button", name="Step into the demo kitchen").wait_for()
    expect(kept(page)).to_contain_text("late-shift")
    assert len(waiting(page)) == 1


def test_a_note_made_while_signed_out_elsewhere_waits_for_the_sign_in(page: Page, site: Site) -> None:
    sign_up(page, site, "called-away")
    pot = batch(page, "signed out")
    page.goto(f"{site.url}/batches/{pot}")
    page.get_by_role("button", name="Note").click()
    page.get_by_label("What you want to remember").fill("orange peel")
    page.context.clear_cookies(name="sessionid")
    page.get_by_role("button", name="Keep it").click()
    page.get_by_role("button", name="Step into the demo kitchen").wait_for()
    page.get_by_label("Name", exact=True).fill("called-away")
    page.get_by_label("Password", exact=True).fill(PASSWORD)
    page.get_by_role("button", name="Sign in", exact=True).click()
    expect(kept(page)).to_be_hidden()
    page.goto(f"{site.url}/batches/{pot}")
    expect(page.get_by_role("button", name="Undo")).to_be_visible()
    assert notes(page, pot) == ["orange peel"]


def test_units_switch_without_the_server_and_are_told_to_it_later(page: Page, site: Site) -> None:
    enter_demo(page, site)
    one = batch(page, "Switched in the cellar")
    page.goto(f"{site.url}/batches/{one}/strain")
    strain = page.get_by_role("region", name="Strain")
    expect(strain).to_contain_text("mL")
    expect(page.get_by_role("region", name="Now")).to_contain_text("mL")
    page.context.set_offline(True)
    page.get_by_role("button", name="mL · g").click()
    expect(strain).to_contain_text("cups")
    expect(strain).not_to_contain_text("mL")
    expect(page.get_by_role("region", name="Now")).to_contain_text("cups")
    with page.expect_response(lambda answer: answer.url.endswith("/preferences") and answer.ok):
        page.context.set_offline(False)
    page.reload()
    expect(strain).to_contain_text("cups")
    told(page, "PATCH", "/preferences", {"units": "metric"})


def test_what_is_typed_is_shown_and_never_read(page: Page, site: Site) -> None:
    enter_demo(page, site)
    one = batch(page, "<b>{by}</b> 100 % \u202egravy\u202c")
    page.goto(f"{site.url}/batches/{one}")
    expect(page.get_by_role("heading", level=1)).to_have_text("<b>{by}</b> 100 % \u202egravy\u202c")
    typed = "{volume} %s <script>document.title = 'taken'</script> \u05e9\u05dc\u05d5\u05dd"
    page.keyboard.press("n")
    note = page.get_by_role("dialog", name="Note")
    note.get_by_label("What you want to remember").fill(typed)
    note.get_by_role("button", name="Keep it").click()
    expect(note).to_be_hidden()
    page.keyboard.press("l")
    entry = page.get_by_role("dialog", name="Log").locator("bdi", has_text="document.title")
    expect(entry).to_have_text(typed)
    assert page.title() != "taken"
    assert notes(page, one) == [typed]
