"""What is asked for twice at the same moment, by a finger or by a network that lost the answer, is made once."""

from __future__ import annotations

import uuid

from django.db import connection

__all__ = ["asked_alone", "is_alone"]


def asked_alone(key: uuid.UUID) -> None:
    """Until the current transaction ends nobody else gets past here with this key."""
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_xact_lock(hashtextextended(%s, 0))", [str(key)])


def is_alone(key: uuid.UUID) -> bool:
    """The same for those who would wait too long: whether nobody else is past here, told at once."""
    with connection.cursor() as cursor:
        cursor.execute("select pg_try_advisory_xact_lock(hashtextextended(%s, 0))", [str(key)])
        (alone,) = cursor.fetchone()
    return bool(alone)
