"""A workshop written out: as one JSON archive, and as a folder of tables."""

from __future__ import annotations

import csv
import io
import json
import tempfile
import zipfile
from collections.abc import Iterator
from typing import IO, Any

from django.db.models import BinaryField, Model
from django.utils import timezone

from apps.archive.tables import FORMAT, SETTINGS, TABLES, VERSION, columns
from apps.archive.values import said
from apps.workshops.models import Workshop
from drumwork.sheets import harmless

__all__ = ["archive", "tables"]

_AT_ONCE = 500
_WITH_BYTES = 8
"""Of rows that hold photos or sounds: a few megabytes each."""
_FILES = {"jpeg": "photos/{id}.jpg", "sound": "sounds/{id}.flac"}
"""Bytes lie beside the tables as files, by the row's id."""


def _rows(model: type[Model]) -> Iterator[dict[str, Any]]:
    fields = columns(model)
    names = [field.attname for field in fields]
    at_once = _WITH_BYTES if any(isinstance(field, BinaryField) for field in fields) else _AT_ONCE
    for row in model._default_manager.order_by("pk").values_list(*names).iterator(chunk_size=at_once):
        yield {field.name: said(field, value) for field, value in zip(fields, row, strict=True)}


def _json(value: Any) -> str:
    return json.dumps(value, ensure_ascii=False, separators=(",", ":"), allow_nan=False)


def archive(workshop: Workshop) -> Iterator[str]:
    """The archive piece by piece, a row a line. The workshop must be entered while it is read."""
    settings = {name: getattr(workshop, name) for name in SETTINGS}
    head = {"format": FORMAT, "version": VERSION, "made_at": timezone.now().isoformat(), "workshop": settings}
    yield _json(head)[:-1] + ',"tables":{'
    for place, (name, model) in enumerate(TABLES.items()):
        yield f"{',' if place else ''}\n{_json(name)}:["
        for number, row in enumerate(_rows(model)):
            yield f"{',' if number else ''}\n{_json(row)}"
        yield "]"
    yield "}}\n"


def _cell(value: Any) -> object:
    if isinstance(value, str):
        return harmless(value)
    return _json(value) if isinstance(value, list | dict | bool) else value


def tables() -> IO[bytes]:
    """Every table as CSV in one ZIP, photos and sounds beside them as files. The workshop must be entered."""
    file = tempfile.SpooledTemporaryFile(max_size=8 * 1024 * 1024)  # noqa: SIM115 — the caller closes it, once it is sent
    with zipfile.ZipFile(file, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, model in TABLES.items():
            with packed.open(f"{name}.csv", "w") as raw, io.TextIOWrapper(raw, "utf-8-sig", newline="") as text:
                _table(csv.writer(text), model)
        for model, column in ((TABLES["photos"], "jpeg"), (TABLES["taps"], "sound")):
            kept = model._default_manager.exclude(**{f"{column}": None}).order_by("pk").values_list("pk", column)
            for key, data in kept.iterator(chunk_size=_WITH_BYTES):
                packed.writestr(_FILES[column].format(id=key), bytes(data), zipfile.ZIP_STORED)  # packed already
    file.seek(0)
    return file


def _table(sheet: Any, model: type[Model]) -> None:
    names = [field.name for field in columns(model) if field.name not in _FILES]
    sheet.writerow(names)
    fields = [field for field in columns(model) if field.name in names]
    rows = model._default_manager.order_by("pk").values_list(*(field.attname for field in fields))
    for row in rows.iterator(chunk_size=_AT_ONCE):
        sheet.writerow([_cell(said(field, value)) for field, value in zip(fields, row, strict=True)])
