"""The API's own description: OpenAPI from the views, their docstrings, and what else they may answer."""

from __future__ import annotations

from collections.abc import Iterator
from http import HTTPStatus
from typing import Any

from shared.shapes import Shape

#: What any operation may answer: a fault of ours, and a database that is away.
ALWAYS = (500, 503)


class FieldProblem(Shape):
    """What is wrong with one field: its dotted name, and a sentence a cook can act on."""

    field: str
    message: str


class AnswerTo(Shape):
    """What may be answered to what is asked, and the fields that say so when the same is sent again."""

    label: str
    says: dict[str, str]


class ProblemOut(Shape):
    """Problem details (RFC 9457), with a sentence for each field that is wrong.

    ``answers`` are there where it is asked about: it may be right all the same. ``instance`` is the number of a fault
    of ours.
    """

    type: str
    title: str
    status: int
    detail: str
    errors: list[FieldProblem]
    instance: str | None = None
    answers: list[AnswerTo] | None = None


def described(schema: dict[str, Any]) -> dict[str, Any]:
    """The framework's description, with a summary from each docstring and with every error."""
    shape = ProblemOut.model_json_schema(ref_template="#/components/schemas/{model}")
    schema["components"]["schemas"] |= {**shape.pop("$defs"), "ProblemOut": shape}
    problem = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/ProblemOut"}}}
    for path, operations in schema["paths"].items():
        for operation in operations.values():
            summary, _, rest = operation.pop("description", "").partition("\n\n")
            operation["summary"] = " ".join(summary.split()).rstrip(".")
            if rest:
                operation["description"] = rest
            for status in sorted(errors_of(path, operation)):
                answer = {"description": HTTPStatus(status).phrase, "content": problem}
                operation["responses"].setdefault(status, answer)
    return schema


def errors_of(path: str, operation: dict[str, Any]) -> Iterator[int]:
    """The statuses by which an operation may be refused."""
    yield from ALWAYS
    yield from operation.pop("x-refused", ())
    if operation.get("security"):
        # Nobody is signed in; or they may not, or come from a page that is not ours.
        yield from (401, 403)
    if "{" in path:
        yield 404
    if operation.get("parameters"):
        yield 422
    if "requestBody" in operation:
        yield from (400, 413, 415, 422)
