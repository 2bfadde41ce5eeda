"""Asides of a line: what it says beside what went in and how much, as how it was trimmed and what it is for."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import lru_cache

from ..pantry.ingredients import Ingredient, catalogue, names_of
from ..pantry.naming import is_named, taken_for

_PURPOSE = re.compile(
    r"\s+(?:for|to (?:go )?(?:with|on|into)) (?:the |a |my |our )?[^\W\d_][^,;()\d]*(?=[,;()]|$)", re.I
)
#: Meat that was salted; ``salt`` where it is said with how much.
_SALTED = re.compile(
    r"[,;(]?\s*\b(?:lightly |well |generously )?(?:dry-?\s?)?(?:salted|brined)"
    r" (?:the (?:day|night) before|overnight|beforehand|in advance|yesterday"
    r"|for (?:a (?:day|night)|\d+ (?:hours?|days?)))"
    r"(?P<salt> with \d[^,;()]*)?\)?",
    re.I,
)
_SKINLESS = re.compile(
    r"[,(]?\s*\b(?:skins? (?:off|removed|taken off)|no skin|without (?:the |their |its )?skin)\b\)?", re.I
)
_WITH_LIQUID = re.compile(
    r"[,(]?\s*\b(?:with|in|and) (?:(?:its|their|the) )?(?:own )?(?:liquid|liquor|brine|juices?)(?! of)\b\)?", re.I
)
_NOT_EATEN = "fat|sinews?|gristle|membranes?|pith|seeds?|stalks?|stems?|rind|bones?|pips?|stones?|tops?|roots?"
_PREPARED = "(?:peel|trimm?|bon|clean|pluck)(?:ed|ing)"
#: Not what a weight is said of: "900 g after boning".
_NO_WEIGHT = "(?<!g )(?<!lb )(?<!oz )(?<!lbs )"
#: How thick or long it was cut, what was taken off, and skin and bone that the figures of a cut have with it.
_ASIDES = re.compile(
    r"\b(?:"
    + "|".join(
        (
            r"white parts? only",
            r"for the (?:sauce|pot|braise|stew)",
            r"(?<=drained) of (?:(?:its|the) )?(?:juice|liquid|brine|oil)",
            r"(?:(?<=juice )|(?<=yolks )|(?<=yolk )|(?<=whites )|(?<=zest ))only|(?:leaves|caps|stalks|tops) only",
            r"(?:(?:trimmed|freed|cleared|rid) of|no|without) (?:(?:all|its|the|their|excess|most|of) )*"
            rf"(?:{_NOT_EATEN})",
            rf"(?:{_NOT_EATEN}) (?:off|removed|trimmed(?: off| away)?|cut off|taken off|discarded|out|away)",
            rf"{_NO_WEIGHT}(?:weighed )?(?:before|after|when) (?:being )?{_PREPARED}",
            rf"{_NO_WEIGHT}(?:unpeeled|peeled|untrimmed|trimmed|boned|prepared|gross|raw) weight",
            r"(?:skin|rind|bone|fat|head|shell)[ -](?:on|in)|on the (?:bone|vine)|with (?:the )?(?:skin|bone|rind)s?",
            r"(?:into |in )?\d[\d/.,–-]*\s*-?\s*(?:inch(?:es)?|in\.|cm|mm)(?:[ -](?:thick|long|wide|square))?"
            r"(?: (?:chunks?|pieces?|cubes?|slices?|dice|lengths?|rounds?))?",
        )
    )
    + r")(?![^\W\d_])",
    re.I,
)


def without_asides(text: str) -> str:
    """A line without what was taken off and how it was cut; what changes its figures is said in one word.

    >>> without_asides("8 chicken thighs, skin removed")
    '8 chicken thighs skinless '
    """
    text = _WITH_LIQUID.sub(" undrained ", _SKINLESS.sub(" skinless ", text))
    return _ASIDES.sub(" ", text)


def without_purpose(body: str, own: Sequence[Ingredient]) -> str:
    """Without what it is for, where a thing is named before it: "salt for the onions" is no onion salt."""
    found = _PURPOSE.search(body)
    if found is None or found.group().strip().lower() in _named_for() or not is_named(body[: found.start()], own):
        return body
    return f"{body[: found.start()]}{body[found.end() :]}"


@lru_cache(maxsize=1)
def _named_for() -> frozenset[str]:
    """Purposes that are part of a name: "wine for cooking"."""
    names = (name for item in catalogue().values() for name in (item.name, *names_of(item)))
    return frozenset(found.group().lower() for name in names if (found := re.search(r"\bfor [^\W\d_]+", name)))


def without_salting(text: str, own: Sequence[Ingredient]) -> tuple[str, bool]:
    """A line without the words for meat that was salted before, and whether they were there.

    Salt itself that was used so, or that is told with its amount, stays as it is.
    """
    found = _SALTED.search(text)
    if found is None or found["salt"] or _is_salt(text[: found.start()], own):
        return text, False
    return f"{text[: found.start()]} {text[found.end() :]}", True


def _is_salt(text: str, own: Sequence[Ingredient]) -> bool:
    found = taken_for(text, own)
    return bool(found) and not found[0].missing and found[0].ingredient.group == "salt"
