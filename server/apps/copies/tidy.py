"""What an installation of years gathers and nobody needs: sessions that ran out, old tries at sign-in, links long gone."""

from __future__ import annotations

from datetime import timedelta
from typing import Final

from axes.models import AccessAttempt
from django.contrib.sessions.models import Session
from django.db.models import Q
from django.utils import timezone

from apps.archive.uploads import forget_old
from apps.people.models import Link

__all__ = ["tidy"]

TRIES: Final = timedelta(days=30)
LINKS: Final = timedelta(days=90)


def tidy() -> dict[str, int]:
    """Delete it; how many rows of each sort went. Records, history and the trail of changes are never touched."""
    now = timezone.now()
    gone = Q(used_at__isnull=False) | Q(withdrawn_at__isnull=False) | Q(until__lt=now)
    found = {
        "sessions that ran out": Session.objects.filter(expire_date__lt=now),
        "tries at sign-in": AccessAttempt.objects.filter(attempt_time__lt=now - TRIES),
        "links used or too old": Link.objects.filter(gone, made_at__lt=now - LINKS),
    }
    gone_rows = {words: rows.delete()[0] for words, rows in found.items()}
    return gone_rows | {"archives that never came in whole": forget_old()}
