"""A kitchen's file, out and in."""

from __future__ import annotations

from collections.abc import AsyncIterator, Iterator
from uuid import UUID

from asgiref.sync import sync_to_async
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect, StreamingHttpResponse
from interchange import FORMATS, file_answer
from kitchens.services import member_of
from ninja import Router
from ninja.security import SessionAuth
from shared.refusals import RefusedError, may_refuse
from shared.shapes import SaidOut, Shape
from spissus_core.messages import say

from . import services

router = Router(auth=SessionAuth(), tags=["files"])

JSON = "application/json; charset=utf-8"

#: A file as it is, not wrapped in anything.
A_FILE = {"requestBody": {"required": True, "content": {"application/json": {"schema": {"type": "object"}}}}}


class PartOut(Shape):
    """How many rows of a part of the file are new, and how many are there already."""

    part: str
    new: int
    there: int


class RefusedOut(Shape):
    """Something that is not taken, by its name, and why."""

    name: str
    why: SaidOut


class LookedOut(Shape):
    """What would come of a file, or has come of it: ``taken`` is by what it may be taken out again."""

    parts: list[PartOut]
    batches: list[str]
    refused: list[RefusedOut]
    anything: bool
    taken: UUID | None = None


class StaysOut(Shape):
    """What stayed when the rest was taken out again."""

    stays: list[SaidOut]


def _looked_out(looked: services.Looked, taken: UUID | None = None) -> LookedOut:
    names = dict.fromkeys([*looked.new, "batches", *looked.there])
    counts = {name: len(rows) for name, rows in looked.new.items()} | {"batches": len(looked.batches)}
    return LookedOut(
        parts=[PartOut(part=name, new=counts.get(name, 0), there=looked.there.get(name, 0)) for name in names],
        batches=[whole.batch.name for whole in looked.batches[:SHOWN]],  # type: ignore[attr-defined]
        refused=[RefusedOut(name=name, why=SaidOut.of(why)) for name, why in looked.refused[:SHOWN]],
        anything=looked.anything,
        taken=taken,
    )


#: No more names than these are shown of a file. Modelling choice.
SHOWN = 50


@router.get("/kitchen/file")
def kitchen_file(request: HttpRequest) -> StreamingHttpResponse:
    """The whole kitchen in one file; it is sent as it is read."""
    member = member_of(request)
    answer = file_answer(b"", JSON, member.kitchen.name, "kitchen.json")
    pieces = services.file_of(member)
    disposition = answer["Content-Disposition"].replace("inline", "attachment")
    return StreamingHttpResponse(_sent(pieces), content_type=JSON, headers={"Content-Disposition": disposition})


async def _sent(pieces: Iterator[str]) -> AsyncIterator[str]:
    """One piece after another, so that none waits in memory. The connection is let go when the answer is closed."""
    following = sync_to_async(_next)
    while (piece := await following(pieces)) is not None:
        yield piece


def _next(pieces: Iterator[str], most: int = 64 * 1024) -> str | None:
    held: list[str] = []
    size = 0
    for piece in pieces:
        held.append(piece)
        size += len(piece)
        if size >= most:
            break
    return "".join(held) or None


@router.get("/batches/{batch_id}/file", openapi_extra=may_refuse(406))
def batch_file(request: HttpRequest, batch_id: UUID) -> HttpResponse:
    """A batch with everything that happened to it, as JSON; or, where another open format is preferred, that one."""
    file = services.batch_file_of(member_of(request), batch_id)
    by_type = {of.media_type.partition(";")[0]: name for name, of in reversed(FORMATS.items())}
    preferred = request.get_preferred_type(["application/json", *by_type])
    if preferred is None:
        raise RefusedError(406, say("archive.no_such_format"))
    if preferred in by_type:
        return HttpResponseRedirect(f"files/{by_type[preferred]}?units=metric", status=303)
    return file_answer(file.encode(), JSON, "batch", "batch.json")


@router.post("/files/look", response=LookedOut, openapi_extra=A_FILE | may_refuse(413))
def look(request: HttpRequest) -> LookedOut:
    """What would come of a file; nothing is taken."""
    return _looked_out(services.look(member_of(request), request.read()))


@router.post("/files", response=LookedOut, openapi_extra=A_FILE | may_refuse(413))
def take(request: HttpRequest) -> LookedOut:
    """Take in what is new in a file: all of it, or nothing."""
    taken, looked = services.take(member_of(request), request.read())
    return _looked_out(looked, taken.pk if taken else None)


@router.delete("/files/{taken_id}", response=StaysOut)
def take_out(request: HttpRequest, taken_id: UUID) -> StaysOut:
    """Take out again what a file brought in, but for what went on since."""
    return StaysOut(stays=SaidOut.of_all(services.take_out(member_of(request), taken_id)))
