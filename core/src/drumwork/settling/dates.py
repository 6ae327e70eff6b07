"""When a fresh head wants looking at again."""

from __future__ import annotations

from datetime import datetime, timedelta

from drumwork.sources import common_practice

__all__ = ["settling_check_due"]


def settling_check_due(fitted: datetime, after_days: int = common_practice.SETTLING_CHECK_DAYS) -> datetime:
    """The check after the first days of playing (common practice, F6)."""
    return fitted + timedelta(days=after_days)
