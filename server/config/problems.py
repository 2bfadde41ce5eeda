"""Errors in one shape: RFC 9457 problem details, with a sentence for each field that is wrong.

Whatever goes wrong, wherever, is answered so: by the API's own handlers, by Django's (a page that is not
there, a request that cannot be read) and, for what is left, by :func:`in_one_shape`.
"""

from __future__ import annotations

import logging
from http import HTTPStatus
from typing import Any

from django.core.exceptions import BadRequest, RequestDataTooBig, SuspiciousOperation
from django.db import InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse, UnreadablePostError
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError, ValidationErrorContext
from pydantic_core import ErrorDetails
from spissus_core.errors import SpissusError
from spissus_core.events import GainError

from .reading import UnusableError

log = logging.getLogger(__name__)

CONTENT_TYPE = "application/problem+json"

_SENTENCES = {
    "missing": "This is needed.",
    "string_too_long": "That is too long.",
    "string_too_short": "Write something here.",
    "extra_forbidden": "Nothing of this name is known here.",
    "json_invalid": "This cannot be read as JSON.",
    "timezone_aware": "A time needs its zone.",
}

_STATUS_SENTENCES = {
    400: "This request cannot be read.",
    401: "Sign in first.",
    403: "This is not allowed, or the page is too old: load it again.",
    404: "There is nothing here, or it is not yours.",
    405: "That cannot be done here.",
    413: "That is more than one request may carry.",
    415: "This kind of content cannot be read.",
    429: "Too much at once. Wait a little.",
    500: "Something went wrong on the server. What you entered is not lost; try again.",
    503: "The database does not answer. What you entered is not lost; try again in a moment.",
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
    body["detail"] = detail or _STATUS_SENTENCES.get(status, "This did not work.")
    if instance is not None:
        body["instance"] = instance
    answer = JsonResponse(body, status=status, content_type=CONTENT_TYPE)
    if retry_s is not None:
        answer["Retry-After"] = str(max(round(retry_s), 1))
    return answer


def unavailable() -> JsonResponse:
    """The database is away: nothing was recorded, and the same may go through in a moment."""
    return problem(503, retry_s=RETRY_S)


# The web framework types the error of a handler as the error or its class; it is always the error.
def failed(request: HttpRequest, error: Any) -> JsonResponse:
    """A fault of ours, logged with the request's id, which the answer carries too."""
    if isinstance(error, OperationalError | InterfaceError):
        log.warning("The database does not answer: %s", error)
        return unavailable()
    known = getattr(request, "id", "")
    log.error("Request %s failed: %s %s", known, request.method, request.path, exc_info=error)
    detail = f"{_STATUS_SENTENCES[500]} If it stays, this is its number: {known}."
    return problem(500, detail, instance=f"urn:uuid:{known}")


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


def _sentence(error: ErrorDetails) -> str:
    limits = error.get("ctx", {})
    if isinstance(limits.get("error"), Exception):
        return str(limits["error"])
    if error["type"] in ("greater_than_equal", "less_than_equal"):
        word, limit = ("at least", limits.get("ge")) if "ge" in limits else ("at most", limits.get("le"))
        return f"This must be {word} {limit:g}."
    return _SENTENCES.get(error["type"], error["msg"].removeprefix("Value error, ").rstrip(".") + ".")


def _field(error: ErrorDetails) -> str:
    """The dotted path of a field; a rule about several fields of a thing names the one it is to stand beside."""
    path = [str(part) for part in error["loc"] if part not in _FRAME]
    raised = error.get("ctx", {}).get("error")
    if isinstance(raised, SpissusError) and raised.field not in _OF_ANY_FIELD and path[-1:] != [raised.field]:
        path.append(raised.field)
    return ".".join(path)


class Api(NinjaAPI):
    """The framework's API, with errors told by field and sentence while the rule that raised them is at hand."""

    def validation_error_from_error_contexts(
        self, error_contexts: list[ValidationErrorContext[Any]]
    ) -> ValidationError:
        return ValidationError(
            [
                {"field": _field(error), "message": _sentence(error)}
                for context in error_contexts
                for error in context.pydantic_validation_error.errors(include_url=False, include_input=False)
            ]
        )


def _unprocessable(request: HttpRequest, error: Any) -> HttpResponse:
    return problem(422, error.errors[0]["message"] if error.errors else "That cannot be used.", error.errors)


def _refused(request: HttpRequest, error: Any) -> HttpResponse:
    more: dict[str, Any] = {"gained_ml": error.gained_ml} if isinstance(error, GainError) else {}
    return problem(422, error.message, [{"field": error.field, "message": error.message}], **more)


def _said(request: HttpRequest, error: Any) -> HttpResponse:
    cause = error.__cause__
    if isinstance(cause, UnusableError):
        return problem(422, str(cause), cause.errors)
    if isinstance(cause, RequestDataTooBig):
        return problem(413)
    return problem(error.status_code, _STATUS_SENTENCES[400] if error.status_code == 400 else error.message)


def _too_many(request: HttpRequest, error: Any) -> HttpResponse:
    wait = error.wait or 60
    return problem(429, f"Too much at once. Try again in {max(round(wait), 1)} s.", retry_s=wait)


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
