"""The trail over HTTP; owners read it."""

from __future__ import annotations

from django.http import StreamingHttpResponse
from ninja import Query, Router, Schema
from pydantic import Field

from apps.accounts.auth import Request, owner
from apps.audit.reading import TrailPage, changes, written_rows
from apps.sheets.saving import saved
from apps.workshops.typed import Line

router = Router(tags=["audit"])


class TrailAsked(Schema):
    """Before which entry, and what of the trail."""

    before: int | None = None
    what: Line = Field("", max_length=40)
    by: Line = Field("", max_length=60)
    text: Line = Field("", max_length=60)


@router.get("", response=TrailPage, auth=owner, operation_id="changes")
def trail(request: Request, asked: Query[TrailAsked]) -> TrailPage:
    """Every change to records, people and settings, the newest first."""
    unit = request.member.workshop.length_unit
    return changes(unit, asked.before, asked.what, asked.by, asked.text)


@router.get("/trail.csv", auth=owner, operation_id="changes_csv", include_in_schema=False)
def sheet(request: Request) -> StreamingHttpResponse:
    """The whole of it as comma-separated values."""
    return saved(written_rows(request.member.workshop.length_unit), "changes")
