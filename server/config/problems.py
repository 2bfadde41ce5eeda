"""Errors in one shape: RFC 9457 problem details, with a sentence for each field that is wrong.

Whatever goes wrong, wherever, is answered so: by the API's own handlers, by Django's (a page that is not
there, a request that cannot be read) and, for what is left, by :func:`in_one_shape`.
"""

from __future__ import annotations

import logging
from http import HTTPStatus
from typing import Any, Literal, cast

from django.core.exceptions import BadRequest, RequestDataTooBig, SuspiciousOperation
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError, ValidationErrorContext
from ninja.openapi.schema import OpenAPISchema
from pydantic_core import ErrorDetails
from shared.refusals import wait_shown
from spissus_core.amounts.quantities import UnitSystem, show_plain
from spissus_core.errors import AskedError, SpissusError
from spissus_core.messages import Message, say, sentences
from words import plain

from .description import described
from .reading import UnusableError

log = logging.getLogger(__name__)

CONTENT_TYPE = "application/problem+json"

#: What is said of a field, by what the reading library calls it; where it names a limit or a list, that is told.
_WRONG: dict[str, str] = {
    "missing": "problems.missing",
    "string_too_short": "problems.string_too_short",
    "extra_forbidden": "problems.extra_forbidden",
    "json_invalid": "problems.json_invalid",
    "timezone_aware": "problems.timezone_aware",
    "string_type": "problems.a_text",
    "list_type": "problems.a_list",
    "tuple_type": "problems.a_list",
    "dict_type": "problems.an_object",
    "model_type": "problems.an_object",
    "model_attributes_type": "problems.an_object",
    "bool_type": "problems.yes_or_no",
    "bool_parsing": "problems.yes_or_no",
    "float_type": "problems.a_number",
    "float_parsing": "problems.a_number",
    "finite_number": "problems.a_number",
    "int_type": "problems.a_whole_number",
    "int_parsing": "problems.a_whole_number",
    "int_from_float": "problems.a_whole_number",
    "datetime_type": "problems.a_time",
    "datetime_parsing": "problems.a_time",
    "datetime_from_date_parsing": "problems.a_time",
    "uuid_type": "problems.an_id",
    "uuid_parsing": "problems.an_id",
}
_LIMITS: dict[str, tuple[str, str]] = {
    "greater_than_equal": ("problems.at_least", "ge"),
    "less_than_equal": ("problems.at_most", "le"),
    "greater_than": ("problems.more_than", "gt"),
    "less_than": ("problems.less_than", "lt"),
    "too_long": ("problems.too_long", "max_length"),
    "too_short": ("problems.too_short", "min_length"),
    "string_too_long": ("problems.string_too_long", "max_length"),
}
_KNOWN: dict[str, str] = {"literal_error": "expected", "enum": "expected", "union_tag_invalid": "expected_tags"}

#: What is said of a status where there is nothing better to say.
_STATUS: dict[int, Message] = {
    400: say("problems.status_400"),
    401: say("problems.status_401"),
    403: say("problems.status_403"),
    404: say("problems.status_404"),
    405: say("problems.status_405"),
    413: say("problems.status_413"),
    415: say("problems.status_415"),
    429: say("problems.status_429"),
    500: say("problems.status_500"),
    503: say("problems.status_503"),
}

#: Seconds after which to try again, where nothing better is known.
RETRY_S = 2


def problem(
    status: int,
    detail: str = "",
    errors: list[dict[str, str]] | None = None,
    *,
    retry_s: float | None = None,
    instance: str | None = None,
    **more: Any,
) -> JsonResponse:
    """A problem-details response; ``errors`` holds ``field`` and ``message`` pairs."""
    try:
        title = HTTPStatus(status).phrase
    except ValueError:
        title = "Error"
    body = {"type": "about:blank", "title": title, "status": status, "errors": errors or [], **more}
    body["detail"] = detail or plain(_STATUS.get(status, say("problems.any")))
    if instance is not None:
        body["instance"] = instance
    answer = JsonResponse(body, status=status, content_type=CONTENT_TYPE)
    if retry_s is not None:
        answer["Retry-After"] = str(max(round(retry_s), 1))
    return answer


def unavailable() -> JsonResponse:
    """The database is away: nothing was recorded, and the same may go through in a moment."""
    answer = problem(503, retry_s=RETRY_S)
    answer.database_away = True  # type: ignore[attr-defined]
    return answer


# The web framework types the error of a handler as the error or its class; it is always the error.
def failed(request: HttpRequest, error: Any) -> JsonResponse:
    """A fault of ours, logged with the request's id, which the answer carries too."""
    if isinstance(error, OperationalError | InterfaceError):
        log.warning("The database does not answer: %s", error)
        return unavailable()
    known = getattr(request, "id", "")
    log.error("Request %s failed: %s %s", known, request.method, request.path, exc_info=error)
    detail = sentences(_STATUS[500], say("problems.its_number", number=str(known)))
    return problem(500, plain(detail), instance=f"urn:uuid:{known}")


def in_one_shape(response: HttpResponse) -> HttpResponse:
    """Any error that is not in problem details yet, in them."""
    if response.status_code < 400 or response.get("Content-Type", "").startswith(CONTENT_TYPE):
        return response
    shaped = problem(response.status_code)
    for name in ("Allow", "Retry-After", "WWW-Authenticate"):
        if name in response:
            shaped[name] = response[name]
    shaped.cookies = response.cookies
    return shaped


#: Names under which a rule speaks of whatever field it was asked about.
_OF_ANY_FIELD = ("amount", "text")
#: The frame that the web framework puts around a field.
_FRAME = ("body", "path", "query", "data", "payload")


def _sentence(error: ErrorDetails) -> Message:
    """What is said of a field; a rule of ours says it itself."""
    kind, about = error["type"], error.get("ctx", {})
    raised = about.get("error")
    if isinstance(raised, SpissusError):
        return raised.message
    if kind in _LIMITS and _LIMITS[kind][1] in about:
        key, limit = _LIMITS[kind]
        return say(key, limit=show_plain(float(about[limit])))
    if kind in _KNOWN and _KNOWN[kind] in about:
        return say("problems.one_of", known=str(about[_KNOWN[kind]]))
    return say(_WRONG.get(kind, "problems.not_like_this"))


def _field(error: ErrorDetails) -> str:
    """The dotted path of a field; a rule about several fields of a thing names the one it is to stand beside."""
    path = [str(part) for part in error["loc"] if part not in _FRAME]
    raised = error.get("ctx", {}).get("error")
    if isinstance(raised, SpissusError) and raised.field not in _OF_ANY_FIELD and path[-1:] != [raised.field]:
        path.append(raised.field)
    return ".".join(path)


class Api(NinjaAPI):
    """The framework's API, with errors told by field and sentence while the rule that raised them is at hand."""

    def get_openapi_schema(self, **how: Any) -> OpenAPISchema:
        """The description, with every error that an operation declares."""
        return cast(OpenAPISchema, described(super().get_openapi_schema(**how)))

    def validation_error_from_error_contexts(
        self, error_contexts: list[ValidationErrorContext[Any]]
    ) -> ValidationError:
        return ValidationError(
            [
                {"field": _field(error), "said": _sentence(error)}
                for context in error_contexts
                for error in context.pydantic_validation_error.errors(include_url=False, include_input=False)
            ]
        )


def _units(request: HttpRequest) -> UnitSystem | Literal["both"]:
    """The reader's units, where there is a reader."""
    user = getattr(request, "user", None)
    return cast(UnitSystem, user.units) if user is not None and user.is_authenticated else "both"


def _unprocessable(request: HttpRequest, error: Any) -> HttpResponse:
    units = _units(request)
    errors = [{"field": one["field"], "message": plain(one["said"], units)} for one in error.errors]
    return problem(422, errors[0]["message"] if errors else plain(say("problems.cannot_be_used")), errors)


def _refused(request: HttpRequest, error: Any) -> HttpResponse:
    asked = error.answers if isinstance(error, AskedError) else ()
    answers = [{"label": plain(label, _units(request)), "says": dict(says)} for label, says in asked]
    more: dict[str, Any] = {"answers": answers} if answers else {}
    message = plain(error.message, _units(request))
    return problem(422, message, [{"field": error.field, "message": message}], **more)


def _said(request: HttpRequest, error: Any) -> HttpResponse:
    cause = error.__cause__
    if isinstance(cause, UnusableError):
        return problem(422, str(cause), cause.errors)
    if isinstance(cause, RequestDataTooBig):
        return problem(413)
    if isinstance(cause, HttpError):
        return _said(request, cause)
    said = plain(_STATUS[400]) if error.status_code == 400 else error.message
    return problem(error.status_code, said, retry_s=getattr(error, "retry_s", None))


def _too_many(request: HttpRequest, error: Any) -> HttpResponse:
    wait = error.wait or 60
    return problem(429, plain(say("problems.try_again_in", wait=wait_shown(wait))), retry_s=wait)


def _bad(request: HttpRequest, error: Any) -> HttpResponse:
    return problem(400)


def install(api: NinjaAPI) -> None:
    """Answer every error of ``api`` with problem details."""
    api.add_exception_handler(ValidationError, _unprocessable)
    api.add_exception_handler(SpissusError, _refused)
    api.add_exception_handler(HttpError, _said)
    api.add_exception_handler(Throttled, _too_many)
    api.add_exception_handler(AuthenticationError, lambda r, e: problem(401))
    api.add_exception_handler(Http404, lambda r, e: problem(404))
    api.add_exception_handler(RequestDataTooBig, lambda r, e: problem(413))
    for unreadable in (SuspiciousOperation, BadRequest, MultiPartParserError, UnreadablePostError):
        api.add_exception_handler(unreadable, _bad)
    api.add_exception_handler(Exception, failed)
