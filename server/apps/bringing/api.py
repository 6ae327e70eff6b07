"""Lists of drums over HTTP: looked at, taken, and written out."""

from __future__ import annotations

from typing import BinaryIO, cast

from django.http import StreamingHttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Form, Router
from ninja.files import UploadedFile

from apps.accounts.auth import Request, technician
from apps.bringing.schemas import DrumsSeen
from apps.bringing.taking import reading_drums
from apps.bringing.writing import written_rows
from apps.sheets.saving import saved
from apps.sheets.steps import told
from apps.workshops.bounded import bounded_json
from apps.workshops.errors import Refused

router = Router(tags=["register"])


def _asked(columns: str) -> dict[str, str] | None:
    """By number of the column, its field; None where nothing was chosen yet."""
    if not columns:
        return None
    try:
        found = bounded_json(columns)
    except ValueError:
        found = None
    if not isinstance(found, dict) or not all(isinstance(each, str) for each in found.values()):
        raise Refused("bad_columns", "Which column says what could not be read. Choose the file again.", 422)
    return found


@router.post("/sheet/look", response=DrumsSeen, auth=technician, operation_id="look_at_drums")
def look(request: Request, sheet: File[UploadedFile], columns: Form[str] = "") -> DrumsSeen | HttpResponseBase:
    """What a list would do; nothing is changed. `columns`: as JSON, by number of the column the field it says."""
    return told(request, reading_drums(cast(BinaryIO, sheet), _asked(columns), False, request.member))


@router.post("/sheet", response=DrumsSeen, auth=technician, operation_id="take_drums")
def take(request: Request, sheet: File[UploadedFile], columns: Form[str] = "") -> DrumsSeen | HttpResponseBase:
    """Take its good rows: new drums, and what it says anew of those that are there."""
    return told(request, reading_drums(cast(BinaryIO, sheet), _asked(columns), True, request.member))


@router.get("/sheet.csv", operation_id="drums_sheet", include_in_schema=False)
def sheet(request: Request) -> StreamingHttpResponse:
    """Every drum with what is on it, as comma-separated values."""
    return saved(written_rows(request.member.workshop.length_unit), "drums")
