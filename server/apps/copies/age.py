"""How old the last good backup is, in words for Today."""

from __future__ import annotations

from datetime import datetime, timedelta

from apps.copies.models import Copy

__all__ = ["last_copy_words"]


def last_copy_words(wanted_days: int, now: datetime) -> str:
    """Empty while it is young enough, or where the workshop does not want to hear of it (0 days)."""
    if not wanted_days:
        return ""
    last = Copy.objects.order_by("-made_at").values_list("made_at", flat=True).first()
    if last is None:
        return "No backup of the record book has been made yet."
    age = now - last
    if age <= timedelta(days=wanted_days):
        return ""
    return f"The last backup of the record book is {age.days} day{'s' if age.days != 1 else ''} old."
