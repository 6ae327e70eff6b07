"""How much room the record book takes, and what of it is what."""

from __future__ import annotations

from datetime import datetime
from typing import Final

from django.db import connection
from django.db.models import Max
from django.utils import timezone
from ninja import Schema

from apps.copies.age import AHEAD
from apps.copies.models import Copy

__all__ = ["Room", "room"]

_SORTS: Final = {
    "photos": ("photos_photo",),
    "kept sound": ("hearing_heardtap",),
    "jobs and walks": ("bench_", "inspecting_"),
    "history and changes": ("history_", "audit_"),
}


class PartOut(Schema):
    words: str
    bytes: int


class Room(Schema):
    """Of the whole database, all workshops; `last_copy` is when the last good backup was made."""

    bytes: int
    parts: list[PartOut]
    last_copy: datetime | None


def room() -> Room:
    with connection.cursor() as cursor:
        cursor.execute("select pg_database_size(current_database())")
        (whole,) = cursor.fetchone()
        cursor.execute(
            "select relname, pg_total_relation_size(oid) from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace"
        )
        sizes = dict(cursor.fetchall())
    parts = {
        words: sum(size for table, size in sizes.items() if table.startswith(begins))
        for words, begins in _SORTS.items()
    }
    parts["everything else"] = whole - sum(parts.values())
    return Room(
        bytes=whole,
        parts=[PartOut(words=words, bytes=size) for words, size in parts.items()],
        last_copy=Copy.objects.filter(made_at__lte=timezone.now() + AHEAD).aggregate(last=Max("made_at"))["last"],
    )
