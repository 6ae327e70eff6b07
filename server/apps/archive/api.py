"""The whole record over HTTP, out and in; owners only."""

from __future__ import annotations

import tempfile
from typing import BinaryIO, cast

from django.http import FileResponse
from django.utils import timezone
from ninja import File, Router, Schema
from ninja.files import UploadedFile

from apps.accounts.auth import Request, owner
from apps.archive.reading import take
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
        file.write(piece.encode())
    file.seek(0)
    name = _file(request.member.workshop.slug, "json")
    return FileResponse(file, as_attachment=True, filename=name, content_type="application/json")


@router.get("/tables.zip", auth=owner, operation_id="archive_tables", include_in_schema=False)
def as_tables(request: Request) -> FileResponse:
    """Everything of this workshop as CSV, a file a table, photos and sounds as files beside them."""
    name = _file(request.member.workshop.slug, "zip")
    return FileResponse(tables(), as_attachment=True, filename=name, content_type="application/zip")


@router.post("", auth=owner, response=BroughtIn, operation_id="take_archive")
def bring(request: Request, archive: File[UploadedFile]) -> BroughtIn:
    """Take an archive into this workshop, which must hold no record yet: all of it, or nothing."""
    if request.member.workshop.demo:
        raise Refused("demo_stays", "The demo stays as it is. Begin a workshop of your own first.", status=403)
    return BroughtIn(rows=dict(take(cast(BinaryIO, archive.file), archive.size or 0, request.member)))
