"""Reading requests and writing answers: JSON in which every number and every text can be kept."""

from __future__ import annotations

import json
import math
from collections.abc import Iterator, Mapping
from typing import Any, NoReturn, cast

from django.http import HttpRequest
from django.utils.datastructures import MultiValueDict
from ninja.errors import HttpError
from ninja.parser import Parser
from ninja.renderers import JSONRenderer
from spissus_core.amounts.fields import keepable
from spissus_core.errors import SpissusError
from spissus_core.messages import Message, say
from words import plain

#: No figure of a kitchen is larger, and none but nothing itself is smaller.
LARGEST, SMALLEST = 1e15, 1e-15
#: Deeper than any request is nested.
DEEPEST = 40


class UnusableError(Exception):
    """A request that holds what can be neither kept nor worked with; a sentence for each field."""

    def __init__(self, errors: list[dict[str, str]]) -> None:
        super().__init__(errors[0]["message"])
        self.errors = errors


def _fault(path: tuple[str, ...], said: Message) -> dict[str, str]:
    return {"field": ".".join(path), "message": plain(said)}


def _no_constant(text: str) -> NoReturn:
    raise UnusableError([_fault((), say("problems.no_such_number", text=text))])


def _whole(text: str) -> float:
    # Past what a float can tell apart nothing is exact anyway; the digits alone could be made to take for ever.
    return int(text) if len(text) <= 17 else float(text)


def _faults(data: object, path: tuple[str, ...] = ()) -> Iterator[dict[str, str]]:
    """What cannot be kept in ``data``, however deep."""
    if isinstance(data, str):
        if not keepable(data):
            yield _fault(path, say("problems.not_keepable"))
    elif isinstance(data, bool) or data is None:
        return
    elif isinstance(data, int | float):
        size = abs(data)
        if not math.isfinite(size) or size > LARGEST:
            yield _fault(path, say("problems.beyond"))
        elif 0.0 < size < SMALLEST:
            yield _fault(path, say("problems.too_little"))
    elif len(path) > DEEPEST:
        yield _fault(path[:3], say("problems.nested_too_deep"))
    elif isinstance(data, Mapping):
        for key, value in data.items():
            yield from _faults(key, path) if not keepable(key) else ()
            yield from _faults(value, (*path, key))
    elif isinstance(data, list):
        for i, value in enumerate(data):
            yield from _faults(value, (*path, str(i)))


class StrictParser(Parser):
    """JSON without infinities, without numbers too small or too large, without texts that no database takes."""

    def parse_body(self, request: HttpRequest) -> dict[str, Any]:
        if request.content_type != "application/json":
            raise HttpError(415, plain(say("problems.status_415")))
        data = json.loads(request.body, parse_constant=_no_constant, parse_int=_whole)
        faults = list(_faults(data))
        if faults:
            raise UnusableError(faults)
        return cast(dict[str, Any], data)

    def parse_querydict(
        self, data: MultiValueDict[str, Any], list_fields: list[str], request: HttpRequest
    ) -> dict[str, Any]:
        for key, value in data.items():
            if not keepable(key) or not keepable(str(value)):
                raise SpissusError(key.replace("\x00", ""), say("problems.not_keepable"))
        return super().parse_querydict(data, list_fields, request)


class StrictRenderer(JSONRenderer):
    """JSON as the standard has it: an infinity is a fault of ours, not something to send."""

    json_dumps_params = {"allow_nan": False, "separators": (",", ":")}
