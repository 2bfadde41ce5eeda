"""Errors in one shape: RFC 9457 problem details, with a sentence for each field that is wrong."""

from __future__ import annotations

from http import HTTPStatus
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from spissus_core.errors import SpissusError
from spissus_core.fold import GainError

_SENTENCES = {
    "missing": "This is needed.",
    "string_too_long": "That is too long.",
    "string_too_short": "Write something here.",
    "extra_forbidden": "Nothing of this name is known here.",
    "json_invalid": "This cannot be read as JSON.",
}


def problem(status: int, detail: str, errors: list[dict[str, str]] | None = None, **more: Any) -> JsonResponse:
    """A problem-details response; ``errors`` holds ``field`` and ``message`` pairs."""
    title = HTTPStatus(status).phrase
    body = {"type": "about:blank", "title": title, "status": status, "detail": detail, "errors": errors or [], **more}
    return JsonResponse(body, status=status, content_type="application/problem+json")


def _sentence(error: dict[str, Any]) -> str:
    raised = error.get("ctx", {}).get("error")
    if raised is not None:
        return str(raised)
    limits = error.get("ctx", {})
    if error["type"] in ("greater_than_equal", "less_than_equal"):
        word, limit = ("at least", limits.get("ge")) if "ge" in limits else ("at most", limits.get("le"))
        return f"This must be {word} {limit:g}."
    message = str(error["msg"])
    return _SENTENCES.get(error["type"], message.removeprefix("Value error, ").rstrip(".") + ".")


def _field(location: tuple[str | int, ...]) -> str:
    """The dotted path of a field, without the frame the web framework puts around it."""
    return ".".join(str(part) for part in location if part not in ("body", "path", "query", "data", "payload"))


# The web framework types the error of a handler as the error or its class; it is always the error.
def _unprocessable(request: HttpRequest, error: Any) -> HttpResponse:
    errors = [{"field": _field(e["loc"]), "message": _sentence(e)} for e in error.errors]
    return problem(422, errors[0]["message"] if errors else "That cannot be used.", errors)


def _refused(request: HttpRequest, error: Any) -> HttpResponse:
    more = {"gained_ml": error.gained_ml} if isinstance(error, GainError) else {}
    return problem(422, error.message, [{"field": error.field, "message": error.message}], **more)


def _said(request: HttpRequest, error: Any) -> HttpResponse:
    return problem(error.status_code, error.message)


def install(api: NinjaAPI) -> None:
    """Answer every error of ``api`` with problem details."""
    api.add_exception_handler(ValidationError, _unprocessable)
    api.add_exception_handler(SpissusError, _refused)
    api.add_exception_handler(HttpError, _said)
    api.add_exception_handler(AuthenticationError, lambda r, e: problem(401, "Sign in first."))
    api.add_exception_handler(Http404, lambda r, e: problem(404, "There is nothing here, or it is not yours."))
    api.add_exception_handler(RequestDataTooBig, lambda r, e: problem(413, "That is more than one request may carry."))
