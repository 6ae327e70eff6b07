"""How old the last good backup is, in words for Today."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Final

from apps.copies.models import Copy

__all__ = ["AHEAD", "is_believed", "last_copy_words"]

AHEAD: Final = timedelta(hours=1)


def is_believed(made_at: datetime, now: datetime) -> bool:
    """A copy dated ahead was written by a clock that was wrong: nobody knows how old it is, so it counts for none."""
    return made_at <= now + AHEAD


def last_copy_words(wanted_days: int, now: datetime) -> str:
    """Empty while it is young enough, or where the workshop does not want to hear of it (0 days)."""
    if not wanted_days:
        return ""
    last = Copy.objects.filter(made_at__lte=now + AHEAD).order_by("-made_at").values_list("made_at", flat=True).first()
    if last is None:
        return "No backup of the record book has been made yet."
    age = now - last
    if age <= timedelta(days=wanted_days):
        return ""
    return f"The last backup of the record book is {age.days} day{'s' if age.days != 1 else ''} old."
