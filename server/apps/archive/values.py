"""One value as an archive says it, and read again."""

from __future__ import annotations

import base64
import binascii
import math
import re
import uuid
from datetime import date, datetime
from typing import Any

from django.contrib.postgres.fields import ArrayField, IntegerRangeField
from django.core.exceptions import ValidationError
from django.db.backends.postgresql.psycopg_any import NumericRange
from django.db.models import (
    BinaryField,
    BooleanField,
    DateField,
    DateTimeField,
    Field,
    FloatField,
    IntegerField,
    JSONField,
    UUIDField,
)

from apps.workshops.typed import printable

__all__ = ["said", "taken"]


def said(field: Field[Any, Any], value: Any) -> Any:
    """As JSON has it: moments as ISO 8601, bytes in base64, a range as its first number and the one after its last."""
    if value is None:
        return None
    if isinstance(value, datetime | date):
        return value.isoformat()
    if isinstance(value, uuid.UUID):
        return str(value)
    if isinstance(value, bytes | memoryview):
        return base64.b64encode(bytes(value)).decode("ascii")
    if isinstance(field, IntegerRangeField):
        return [value.lower, value.upper]
    return value


def _is(value: Any, *kinds: type) -> bool:
    return isinstance(value, kinds) and not (isinstance(value, bool) and bool not in kinds)


def taken(field: Field[Any, Any], value: Any) -> Any:
    """As the database has it. ValueError, in words, for what it cannot be."""
    if value is None:
        if not field.null:
            raise ValueError("must not be empty")
        return None
    if isinstance(field, JSONField):
        return value
    if isinstance(field, ArrayField):
        if not isinstance(value, list):
            raise ValueError("must be a list")
        return [taken(field.base_field, each) for each in value]
    if isinstance(field, IntegerRangeField):
        if not (isinstance(value, list) and len(value) == 2 and all(_is(each, int) or each is None for each in value)):
            raise ValueError("must be two whole numbers, the second above all that are meant")
        return NumericRange(value[0], value[1])
    if isinstance(field, BinaryField):
        try:
            return base64.b64decode(value, validate=True)
        except (binascii.Error, TypeError, ValueError):
            raise ValueError("must be bytes in base64") from None
    if isinstance(field, BooleanField):
        fits, kind = _is(value, bool), "true or false"
    elif isinstance(field, FloatField):
        fits, kind = _is(value, int, float), "a number"
    elif isinstance(field, IntegerField):
        fits, kind = _is(value, int), "a whole number"
    elif isinstance(field, UUIDField | DateField | DateTimeField):
        fits, kind = isinstance(value, str), "text"
    else:
        fits, kind = isinstance(value, str), "text"
    if not fits:
        raise ValueError(f"must be {kind}")
    if kind == "text" and not printable(re.sub(r"[\n\r\t]", "", value)):
        raise ValueError("has a character in it that cannot be kept")
    if isinstance(value, float) and not math.isfinite(value):
        raise ValueError("must be a number")
    try:
        return field.clean(value, None)
    except ValidationError as error:
        raise ValueError(" ".join(error.messages).rstrip(".").lower()) from None
