"""The whole record over HTTP, out and in; owners only."""

from __future__ import annotations

import tempfile
from typing import Annotated

from django.http import FileResponse
from django.utils import timezone
from ninja import Query, Router, Schema
from pydantic import Field

from apps.accounts.auth import Request, owner
from apps.archive import uploads
from apps.archive.bounds import MOST_BYTES
from apps.archive.uploads import PIECE
from apps.archive.writing import archive, tables
from apps.workshops.errors import Refused

router = Router(tags=["archive"])


class BroughtIn(Schema):
    """`rows`: how many of each table came in."""

    rows: dict[str, int]


def _file(name: str, suffix: str) -> str:
    return f"{name}-{timezone.localdate():%Y-%m-%d}.{suffix}"


@router.get("/archive.json", auth=owner, operation_id="archive", include_in_schema=False)
def out(request: Request) -> FileResponse:
    """Everything of this workshop as one JSON archive, photos and sounds in it."""
    file = tempfile.SpooledTemporaryFile(max_size=8 * 1024 * 1024)  # noqa: SIM115 — closed once it is sent
    for piece in archive(request.member.workshop):
        if file.tell() > MOST_BYTES:
            file.close()
            raise Refused("too_large", "The workshop’s record is larger than the two gigabytes an archive may have. Ask whoever runs this for a backup instead.", 422)  # fmt: skip
        file.write(piece.encode())
    file.seek(0)
    name = _file(request.member.workshop.slug, "json")
    return FileResponse(file, as_attachment=True, filename=name, content_type="application/json")


@router.get("/tables.zip", auth=owner, operation_id="archive_tables", include_in_schema=False)
def as_tables(request: Request) -> FileResponse:
    """Everything of this workshop as CSV, a file a table, photos and sounds as files beside them."""
    name = _file(request.member.workshop.slug, "zip")
    return FileResponse(tables(), as_attachment=True, filename=name, content_type="application/zip")


class FileOf(Schema):
    """A file by what its device knows of it, as hexadecimal figures, and its size in bytes: chosen again, it goes on where it was."""

    key: str
    size: int = Field(ge=1)


class CameSoFar(Schema):
    """How many bytes are here, and how many may come at once."""

    at: int
    piece: int = PIECE


@router.post("/upload", auth=owner, response=CameSoFar, operation_id="begin_archive")
def begin(request: Request, body: FileOf) -> CameSoFar:
    """An archive is to come in: how much of it is here already."""
    return CameSoFar(at=uploads.begin(request.member, body.key, body.size))


@router.put("/upload", auth=owner, response=CameSoFar, operation_id="send_archive")
def piece(request: Request, of: Query[FileOf], at: Annotated[int, Field(ge=0)]) -> CameSoFar:
    """The body is what begins at byte `at`. Where that is not what comes next, nothing is changed, and the answer says what does."""
    return CameSoFar(at=uploads.add_piece(request.member, of.key, of.size, at, request.read(PIECE + 1)))


@router.post("/upload/take", auth=owner, response=BroughtIn, operation_id="take_archive")
def bring(request: Request, body: FileOf) -> BroughtIn:
    """Take what was sent into this workshop, which must hold no record yet: all of it, or nothing."""
    return BroughtIn(rows=dict(uploads.take_uploaded(request.member, body.key, body.size)))
