"""One error shape for everything the API refuses: {code, message, fields, kept}."""

from __future__ import annotations

import errno
import logging
from collections.abc import Mapping
from http import HTTPStatus
from typing import Any

from django.core.exceptions import ObjectDoesNotExist, PermissionDenied
from django.db.utils import DataError, IntegrityError, InterfaceError, OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, AuthorizationError, HttpError, ValidationError

from apps.workshops.errors import Refused
from drumwork.errors import DrumworkError

logger = logging.getLogger("redtally.errors")
KEPT = "Nothing was changed here; what you entered stays on this device."
DATABASE_DOWN = (
    "database_down",
    "The record book cannot be reached just now. Your entries wait on this device and are sent by themselves.",
)
DISK_FULL = (
    "disk_full",
    "The disk of the machine Red Tally runs on is full; nothing can be kept there. Your entries wait on this device. Tell whoever runs it.",
)
TOO_MUCH = ("too_much", "That asked for more memory than there is. Send less at once, or try once more.")
UNEXPECTED = ("unexpected", "Something went wrong on the server. Try once more; if it stays, tell whoever runs it.")
SIGNED_OUT = ("signed_out", "You are signed out. Sign in again; entries not yet sent are kept on this device.")


class ErrorOut(Schema):
    """The shape of every error."""

    code: str
    message: str
    fields: dict[str, str]
    kept: str


def error_body(
    code: str, message: str, fields: Mapping[str, object] | None = None, kept: str = KEPT
) -> dict[str, object]:
    return {"code": code, "message": message, "fields": {k: str(v) for k, v in (fields or {}).items()}, "kept": kept}


def _sentence(problem: Mapping[str, object]) -> str:
    """Pydantic's finding as an instruction."""
    kind, context = str(problem.get("type")), problem.get("ctx")
    limits = context if isinstance(context, dict) else {}
    table = {
        "missing": "Fill this in.",
        "string_too_short": "Fill this in.",
        "string_too_long": f"Use at most {limits.get('max_length')} characters.",
        "greater_than_equal": f"Must be {limits.get('ge')} or more.",
        "less_than_equal": f"Must be {limits.get('le')} or less.",
        "int_parsing": "Give a whole number.",
        "enum": f"Choose one of: {limits.get('expected')}.",
        "literal_error": f"Choose one of: {limits.get('expected')}.",
    }
    return table.get(kind, str(problem.get("msg", "Check this.")))


def _invalid(request: HttpRequest, error: Any, api: NinjaAPI) -> HttpResponse:
    fields = {".".join(str(part) for part in p["loc"][2:]) or str(p["loc"][-1]): _sentence(p) for p in error.errors}
    first = next(iter(fields), "")
    message = (
        f"Check {first.replace('_', ' ')}: {fields[first]}"
        if len(fields) == 1
        else f"{len(fields)} entries need another look."
    )
    return api.create_response(request, error_body("invalid", message, fields), status=422)


def _from_core(request: HttpRequest, error: Any, api: NinjaAPI) -> HttpResponse:
    return api.create_response(request, error_body(error.code, error.message, error.fields), status=422)


def _refused(request: HttpRequest, error: Any, api: NinjaAPI) -> HttpResponse:
    return api.create_response(request, error_body(error.code, error.message, error.fields), status=error.status)


def _http(request: HttpRequest, error: Any, api: NinjaAPI) -> HttpResponse:
    return api.create_response(request, error_body("refused", str(error)), status=error.status_code)


def is_disk_full(error: BaseException) -> bool:
    """Of this process, or of the database: PostgreSQL’s disk_full, SQLSTATE 53100."""
    if isinstance(error, OSError) and error.errno in (errno.ENOSPC, errno.EDQUOT):
        return True
    return getattr(error.__cause__, "sqlstate", None) == "53100"


def _machine(request: HttpRequest, error: Any, api: NinjaAPI) -> HttpResponse:
    """What the machine lacks: its disk is full, its database away, its memory at an end."""
    if is_disk_full(error):
        logger.error("the disk is full", extra={"path": request.path})
        return api.create_response(request, error_body(*DISK_FULL), status=HTTPStatus.INSUFFICIENT_STORAGE)
    if isinstance(error, MemoryError):
        logger.error("a request asked for more memory than a process may have", extra={"path": request.path})
        return api.create_response(request, error_body(*TOO_MUCH), status=HTTPStatus.SERVICE_UNAVAILABLE)
    if isinstance(error, OSError):
        raise error
    return api.create_response(request, error_body(*DATABASE_DOWN), status=HTTPStatus.SERVICE_UNAVAILABLE)


def install(api: NinjaAPI) -> None:
    """Register a handler for everything that can be raised."""

    def plain(status: HTTPStatus, code: str, message: str):  # type: ignore[no-untyped-def]
        return lambda request, _error: api.create_response(request, error_body(code, message), status=status)

    api.add_exception_handler(ValidationError, lambda r, e: _invalid(r, e, api))
    api.add_exception_handler(DrumworkError, lambda r, e: _from_core(r, e, api))
    api.add_exception_handler(Refused, lambda r, e: _refused(r, e, api))
    missing = plain(HTTPStatus.NOT_FOUND, "not_found", "There is no such record in this workshop.")
    for each in (Http404, ObjectDoesNotExist):
        api.add_exception_handler(each, missing)
    api.add_exception_handler(AuthenticationError, plain(HTTPStatus.UNAUTHORIZED, *SIGNED_OUT))
    forbidden = plain(
        HTTPStatus.FORBIDDEN, "not_allowed", "Your role looks on only. Ask a technician of the workshop to do this."
    )
    for denied in (AuthorizationError, PermissionDenied):
        api.add_exception_handler(denied, forbidden)
    api.add_exception_handler(
        IntegrityError,
        plain(
            HTTPStatus.CONFLICT,
            "conflict",
            "The record book already holds something that excludes this. Reload and look again.",
        ),
    )
    bad = plain(
        HTTPStatus.UNPROCESSABLE_ENTITY,
        "bad_value",
        "There is a value in it that cannot be kept: too long, too large, or not text.",
    )
    for unfit in (DataError, UnicodeEncodeError):
        api.add_exception_handler(unfit, bad)
    for down in (OperationalError, InterfaceError, OSError, MemoryError):
        api.add_exception_handler(down, lambda r, e: _machine(r, e, api))
    api.add_exception_handler(HttpError, lambda r, e: _http(r, e, api))
