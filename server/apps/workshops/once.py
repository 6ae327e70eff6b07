"""What is asked for twice at the same moment, by a finger or by a network that lost the answer, is made once."""

from __future__ import annotations

import uuid

from django.db import connection

__all__ = ["asked_alone"]


def asked_alone(key: uuid.UUID) -> None:
    """Until the current transaction ends nobody else gets past here with this key."""
    with connection.cursor() as cursor:
        cursor.execute("select pg_advisory_xact_lock(hashtextextended(%s, 0))", [str(key)])
