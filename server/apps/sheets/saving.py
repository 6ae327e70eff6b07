"""A list to save: comma-separated values under a name with its day."""

from __future__ import annotations

from collections.abc import Iterable

from django.http import StreamingHttpResponse
from django.utils import timezone

__all__ = ["saved"]

_MARK = "\ufeff"
"""Spreadsheets read a file that begins with it as UTF-8."""


def saved(lines: Iterable[str], name: str) -> StreamingHttpResponse:
    """The lines as a file. They are read here, while the workshop is entered: what is sent later would see no rows."""
    whole = [_MARK, *lines]
    named = {"Content-Disposition": f'attachment; filename="{name}-{timezone.localdate():%Y-%m-%d}.csv"'}
    return StreamingHttpResponse(whole, content_type="text/csv; charset=utf-8", headers=named)
