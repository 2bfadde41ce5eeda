"""What is due, for a calendar: iCalendar (RFC 5545), by a library."""

from __future__ import annotations

from datetime import timedelta

from icalendar import Alarm, Calendar, Event
from words import plain

from . import Kitchen, kitchen_written

ICALENDAR = "text/calendar; charset=utf-8"

#: An entry is as long as this, and a calendar reminds so long before it. Modelling choices.
LASTS, REMINDS_BEFORE = timedelta(minutes=5), timedelta(minutes=15)


@kitchen_written("due.ics", ICALENDAR)
def _due_of(kitchen: Kitchen) -> bytes:
    """By when something must be cold, must be used, or wants a look."""
    calendar = Calendar()
    calendar.add("prodid", "-//spissus//due//EN")
    calendar.add("version", "2.0")
    for one in kitchen.dues:
        said = f"{one.batch}: {plain(one.said)}"
        entry, alarm = Event(), Alarm()
        # The same entry, fetched again, takes the place of itself.
        entry.add("uid", one.uid)
        entry.add("dtstamp", kitchen.at)
        entry.add("dtstart", one.at)
        entry.add("duration", LASTS)
        entry.add("summary", said)
        alarm.add("action", "DISPLAY")
        alarm.add("description", said)
        alarm.add("trigger", -REMINDS_BEFORE)
        entry.add_component(alarm)
        calendar.add_component(entry)
    return bytes(calendar.to_ical())
