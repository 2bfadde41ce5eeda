"""A time of the clock, as a cook says it ("for eight", "half past seven", "20:15"), and when it comes next."""

from __future__ import annotations

import re
from datetime import datetime, time, timedelta
from zoneinfo import ZoneInfo

from ..amounts.reading import ONES
from ..errors import QuantityError
from ..messages import say

#: How a time of the clock is kept: one, or two of which either may be meant.
CLOCK = r"^([01]\d|2[0-3]):[0-5]\d( ([01]\d|2[0-3]):[0-5]\d)?$"

#: Numbers up to twelve in words, as hours go, and those that stand before "past" and "to".
_HOURS = {word: int(value) for word, value in ONES.items() if 1 <= value <= 12}
_PARTS = {"quarter": 15, "a quarter": 15, "five": 5, "ten": 10, "twenty": 20, "twenty-five": 25, "half": 30}

_WORD = "|".join(sorted(_HOURS, key=len, reverse=True))
_HOUR = rf"(?P<hour>\d{{1,2}}|{_WORD})"
_PART = "|".join(sorted(_PARTS, key=len, reverse=True))
_HALF_DAY = r"(?P<half>a\.?m\.?|p\.?m\.?|in the morning|in the evening|in the afternoon|tonight)"

#: What may stand before it: with one of these a bare hour is one, too.
_LEAD = (
    r"(?:(?:to be |it )?(?:ready|finished|done|dinner|supper|lunch|served|eating|to eat|on the table)[ ,]*)?"
    r"(?P<tonight>tonight |this evening )?(?P<lead>by |at |for |before )?"
)

#: The ways to say it, the surest first.
_FORMS = tuple(
    re.compile(rf"(?:^|(?<=[\s,])){_LEAD}(?:{form})$")
    for form in (
        rf"(?P<hour>\d{{1,2}})[:.h](?P<minute>\d{{2}})\s*{_HALF_DAY}",
        r"(?P<hour>\d{1,2}):(?P<minute>\d{2})(?: o'?clock)?",
        r"(?P<hour>1[3-9]|2\d)[.h](?P<minute>\d{2})",
        rf"(?P<part>{_PART}) (?P<to>past|to) {_HOUR}(?: {_HALF_DAY})?",
        rf"(?P<half_past>half) (?P<hour>{_WORD})",
        rf"{_HOUR}\s*{_HALF_DAY}",
        rf"{_HOUR} o'?clock(?: {_HALF_DAY})?",
        r"(?P<named>noon|midday|midnight)",
        rf"(?P<bare>{_HOUR})",
    )
)
_BEFORE_NOW = re.compile(r"\b(?:yesterday|last night|this morning|ago)\b")
#: As likely how long it takes as a time in the night. Modelling choice.
_EITHER = re.compile(r"[1-5]:\d{2}")
_NAMED = {"noon": "12:00", "midday": "12:00", "midnight": "00:00"}


def clock_in(text: str, *, alone: bool = False, field: str = "minutes") -> tuple[str, str | None]:
    """The time of the clock at the end of what was said, and the rest of it.

    It comes as ``HH:MM``, or as two of them where morning and evening may be meant. ``alone`` nothing else is asked
    for; behind an amount a bare number is an hour only after "at", "by" or "before".

    >>> clock_in("600 ml by half past seven")
    ('600 ml', '07:30 19:30')

    Raises
    ------
    QuantityError : there is no such time, or it has passed.
    """
    said = " ".join(text.lower().split())
    if alone and _BEFORE_NOW.search(said):
        raise QuantityError(field, say("wishes.clock_passed", text=text.strip()))
    found = next((match for form in _FORMS if (match := form.search(said)) and _meant(match, alone=alone)), None)
    if found is None:
        return text, None
    if alone and _EITHER.fullmatch(said):
        raise QuantityError(field, say("wishes.in_or_at", text=text.strip()))
    return said[: found.start()].rstrip(" ,;"), _clock(found, text, field)


def _meant(match: re.Match[str], *, alone: bool) -> bool:
    """Whether an hour is meant by it."""
    said = match.groupdict()
    if not alone and not match.string[: match.start()].strip(" ,;"):
        return False
    if said.get("bare") is None:
        return True
    return bool(said["tonight"] or (said["lead"] and (alone or said["lead"] != "for ")))


def _clock(match: re.Match[str], text: str, field: str) -> str:
    said = match.groupdict()
    if said.get("named"):
        return _NAMED[said["named"]]
    word = said["hour"]
    hour = _HOURS.get(word) if word in _HOURS else int(word)
    minute = int(said.get("minute") or 0)
    part = said.get("part")
    if part is not None:
        minute = _PARTS[part]
    elif said.get("half_past"):
        minute = 30
    if hour is None or hour > 24 or minute > 59:
        raise QuantityError(field, say("wishes.no_such_clock", text=text.strip()))
    if said.get("to") == "to":
        hour, minute = (hour - 1) % 24 or 12, 60 - minute
    half = "p" if said.get("tonight") else (said.get("half") or "")
    if half and hour > 12:
        raise QuantityError(field, say("wishes.no_such_clock", text=text.strip()))
    if half:
        hour = hour % 12 + (0 if half[0] == "a" or half == "in the morning" else 12)
    both = not half and 1 <= hour <= 12 and not word.startswith("0")
    hours = sorted({hour % 12, hour % 12 + 12}) if both else [hour % 24]
    return " ".join(f"{one:02d}:{minute:02d}" for one in hours)


def next_after(clock: str, at: datetime, zone: ZoneInfo) -> datetime:
    """The next time that a clock of that zone shows this after ``at``; of two it may be, the sooner.

    A time that is left out where clocks go forward is taken for the moment at which it would have been.
    """
    today = at.astimezone(zone).date()
    ahead = (
        datetime.combine(today + timedelta(days=days), time.fromisoformat(one), zone).astimezone(at.tzinfo)
        for one in clock.split()
        for days in (0, 1, 2)
    )
    return min(moment for moment in ahead if moment > at)
