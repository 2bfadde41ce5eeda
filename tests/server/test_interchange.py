"""Open formats out: tables that a spreadsheet takes as text, a calendar that another reader understands, plain text."""

from __future__ import annotations

import csv
import io
from typing import Any

import pytest
import vobject
from icalendar import Calendar
from interchange.tables import FORMULA, table

from .conftest import Caller
from .test_archive import full
from .test_shelf import aside, put_by


def sheet(answer: Any) -> list[dict[str, str]]:
    """The rows of a table, by the standard library's own reader."""
    assert answer.status_code == 200, answer.content
    assert answer["Content-Type"] == "text/csv; charset=utf-8"
    return list(csv.DictReader(io.StringIO(answer.content.decode(), newline="")))


def test_what_happened_is_a_table_with_the_pot_after_each_entry(cook: Caller) -> None:
    batch = full(cook)
    rows = sheet(cook.get(f"/batches/{batch}/files/events.csv?units=metric"))
    shown = cook.get(f"/batches/{batch}").json()
    salted = next(row for row in rows if row["what"] == "salted")
    assert float(rows[-1]["salt, %"]) == pytest.approx(shown["pot"]["salt"]["best"], rel=1e-2)
    assert float(salted["liquid, mL"]) > 1000.0
    noted = next(row for row in rows if row["what"] == "noted")
    assert '=1+1 "and" <b>' in noted["said"]
    assert {row["counts"] for row in rows} <= {"yes", "no"}


def test_readings_of_devices_and_of_the_cook_stand_in_one_table(cook: Caller) -> None:
    batch = full(cook)
    cook.record(batch, {"kind": "read", "measured": {"method": "jug", "value": "1.5 l", "hot": True}})
    rows = sheet(cook.get(f"/batches/{batch}/files/readings.csv?units=metric"))
    assert {row["unit"] for row in rows} >= {"g"}
    assert {row["by"] for row in rows} >= {"scale"}


@pytest.mark.parametrize("sign", FORMULA)
def test_no_cell_is_worked_out_by_a_spreadsheet(sign: str) -> None:
    text = f"{sign}cmd|' /C calc'!A0"
    (_, row) = csv.reader(io.StringIO(table(("what",), [(text,)]).decode(), newline=""))
    assert row == [f"'{text}"]


def test_the_batches_of_a_kitchen_are_a_table(cook: Caller) -> None:
    cook.start('=HYPERLINK("x")')
    full(cook)
    rows = sheet(cook.get("/kitchen/files/batches.csv?units=metric"))
    assert [row["name"] for row in rows] == ["Shin in stout", '\'=HYPERLINK("x")']
    assert rows[0]["finished"] == "yes"
    assert float(rows[1]["at first, mL"]) > 1000.0


def test_what_is_due_is_a_calendar(cook: Caller) -> None:
    batch = aside(cook)
    put_by(cook, batch, place="fridge")
    text = cook.get("/kitchen/files/due.ics?units=metric").content
    calendar = Calendar.from_ical(text)
    entries = list(calendar.walk("VEVENT"))
    said = {str(one["summary"]) for one in entries}
    jar = cook.get("/shelf").json()[0]
    times = {one.decoded("dtstart").isoformat() for one in entries}
    assert {jar["use_by"].replace("Z", "+00:00"), jar["cold_by"].replace("Z", "+00:00")} <= times
    assert any("use it today" in one for one in said)
    assert any("Take its temperature" in one for one in said)
    # Another reader finds the same.
    other = vobject.readOne(text.decode()).vevent_list
    assert {(str(one.uid.value), str(one.summary.value)) for one in other} == {
        (str(one["uid"]), str(one["summary"])) for one in entries
    }
    assert {one.dtstart.value for one in other} == {one.decoded("dtstart") for one in entries}
    # Lines are folded at 75 octets and end as the standard wants them.
    assert all(len(line) <= 75 for line in text.split(b"\r\n"))
    # Fetched again, the entries are the same ones.
    again = Calendar.from_ical(cook.get("/kitchen/files/due.ics?units=metric").content)
    assert {str(one["uid"]) for one in again.walk("VEVENT")} == {str(one["uid"]) for one in entries}


def test_a_batch_is_plain_text(cook: Caller) -> None:
    batch = full(cook)
    answer = cook.get(f"/batches/{batch}/files/batch.txt?units=us")
    assert answer["Content-Type"].startswith("text/plain")
    text = answer.content.decode()
    assert text.startswith("Shin in stout\n")
    assert "=1+1" in text


@pytest.mark.parametrize(
    ("accept", "got"),
    [
        ("*/*", "application/json"),
        ("application/json", "application/json"),
        ("text/csv;q=0.9, text/plain;q=0.3", "text/csv"),
        ("text/plain", "text/plain"),
        ("application/pdf", "application/pdf"),
    ],
)
def test_a_batch_is_sent_in_the_format_that_is_preferred(cook: Caller, accept: str, got: str) -> None:
    path = f"/api/v1/batches/{full(cook)}/file"
    answer = cook.client.get(path, headers={"accept": accept}, follow=True)
    assert answer.status_code == 200
    assert answer["Content-Type"].startswith(got)
    assert cook.client.get(path, headers={"accept": "video/mp4"}).status_code == 406
