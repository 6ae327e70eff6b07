"""How old a head is, and whether that is past what the workshop expects of it: the one rule of Today, the sheet and the verdict."""

from __future__ import annotations

from calendar import monthrange
from datetime import date
from math import floor

__all__ = ["is_past_life", "last_past_life", "months_between", "months_past_life"]


def months_between(earlier: date, later: date) -> int:
    """Whole months gone by, never negative.

    >>> months_between(date(2025, 1, 31), date(2025, 3, 30))
    1
    """
    months = (later.year - earlier.year) * 12 + later.month - earlier.month
    return max(0, months - (later.day < earlier.day))


def is_past_life(months: float, life_months: float) -> bool:
    """Whether a head so many months old is older than this workshop keeps them; begun months do not count.

    >>> is_past_life(12.9, 12), is_past_life(13, 12)
    (False, True)
    """
    return floor(months) > life_months


def months_past_life(fitted: date, today: date, life_months: int) -> int:
    """Months beyond the workshop's expected life; 0 while within it."""
    return max(0, months_between(fitted, today) - life_months)


def last_past_life(today: date, life_months: int) -> date:
    """The latest day on which a head that is past its life today was fitted: on it and before, not after.

    >>> last_past_life(date(2025, 3, 31), 0)
    datetime.date(2025, 2, 28)
    """
    years, month = divmod(today.year * 12 + today.month - 1 - (life_months + 1), 12)
    return date(years, month + 1, min(today.day, monthrange(years, month + 1)[1]))
