"""The JSON Schema of an archive, from the tables themselves; kept in docs/formats/archive.schema.json."""

from __future__ import annotations

from typing import Any

from django.contrib.postgres.fields import ArrayField, IntegerRangeField
from django.db.models import (
    AutoField,
    BinaryField,
    BooleanField,
    DateField,
    DateTimeField,
    Field,
    FloatField,
    ForeignKey,
    IntegerField,
    JSONField,
    UUIDField,
)

from apps.archive.tables import FORMAT, LATER, LATER_SETTINGS, LATER_TABLES, SETTINGS, TABLES, VERSION, columns, name_of
from apps.workshops.models import Workshop

__all__ = ["schema"]


def _kind(field: Field[Any, Any]) -> dict[str, Any]:
    if isinstance(field, ForeignKey):
        return _kind(field.target_field) | {"description": f"the id of one of tables.{name_of(field.related_model)}"}
    if isinstance(field, ArrayField):
        return {"type": "array", "items": _kind(field.base_field)}
    if isinstance(field, IntegerRangeField):
        return {"type": "array", "items": {"type": ["integer", "null"]}, "minItems": 2, "maxItems": 2}
    if isinstance(field, JSONField):
        return {}
    if isinstance(field, BooleanField):
        return {"type": "boolean"}
    if isinstance(field, AutoField | IntegerField):
        return {"type": "integer"}
    if isinstance(field, FloatField):
        return {"type": "number"}
    if isinstance(field, UUIDField):
        return {"type": "string", "format": "uuid"}
    if isinstance(field, DateTimeField):
        return {"type": "string", "format": "date-time"}
    if isinstance(field, DateField):
        return {"type": "string", "format": "date"}
    if isinstance(field, BinaryField):
        return {"type": "string", "contentEncoding": "base64"}
    text: dict[str, Any] = {"type": "string"}
    if field.max_length:
        text["maxLength"] = field.max_length
    if field.choices:
        text["enum"] = sorted({str(value) for value, _ in field.choices} | ({""} if field.blank else set()))
    return text


def _said(field: Field[Any, Any]) -> dict[str, Any]:
    kind = _kind(field)
    return {"anyOf": [kind, {"type": "null"}]} if field.null and kind else kind


def _object(fields: dict[str, dict[str, Any]], later: frozenset[str] = frozenset()) -> dict[str, Any]:
    required = [name for name in fields if name not in later]
    return {"type": "object", "properties": fields, "required": required, "additionalProperties": False}


def schema() -> dict[str, Any]:
    """Draft 2020-12."""
    rows = {
        name: _object({field.name: _said(field) for field in columns(model)}, LATER.get(name, frozenset()))
        for name, model in TABLES.items()
    }
    settings = {name: _said(Workshop._meta.get_field(name)) for name in SETTINGS}  # type: ignore[arg-type]
    whole = _object(
        {
            "format": {"const": FORMAT},
            "version": {"const": VERSION},
            "made_at": {"type": "string", "format": "date-time"},
            "workshop": _object(settings, LATER_SETTINGS),
            "tables": _object(
                {name: {"type": "array", "items": {"$ref": f"#/$defs/{name}"}} for name in rows}, LATER_TABLES
            ),
        }
    )
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Red Tally archive",
        "$defs": rows,
    } | whole
