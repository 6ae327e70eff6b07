"""After much was written at once the database counts its tables anew: until it has, it plans as if they were still small."""

from __future__ import annotations

from contextlib import suppress
from typing import Final

from django.apps import apps
from django.db import OperationalError, connection, transaction

__all__ = ["MUCH", "count_anew"]

MUCH: Final = 1_000
"""So many rows written at once are worth it."""


def count_anew(*labels: str) -> None:
    """Count the tables of these apps (of all that hold a workshop's rows, where none is named). Takes a second or a few, in whatever transaction.

    The database's own sweeper gives way after a second of our waiting (its `deadlock_timeout`), so three are given. Where
    somebody else counts them just now they are left: the database comes round to it by itself, and nobody waits for it.
    """
    quote = connection.ops.quote_name
    tables = [
        model._meta.db_table
        for model in apps.get_models()
        if (not labels or model._meta.app_label in labels)
        and any(field.name == "workshop" for field in model._meta.concrete_fields)
    ]
    with connection.cursor() as cursor:
        cursor.execute("show lock_timeout")
        (usual,) = cursor.fetchone()
        with suppress(OperationalError), transaction.atomic():
            cursor.execute("set local lock_timeout = '3s'")
            cursor.execute(f"analyze {', '.join(quote(each) for each in tables)}")
        cursor.execute("select set_config('lock_timeout', %s, true)", [usual])
