"""How a head on a drum settles: by its film, and by what it had done at its own first check."""

from __future__ import annotations

from datetime import datetime

from apps.history.models import LogEntry, PitchRecord
from apps.register.models import Drum
from drumwork.membrane import Head
from drumwork.procedures.catalogue import CHECKS
from drumwork.quantities import Interval, Pitch, cents_words
from drumwork.settling import Dropped, Settling, expect_settling

__all__ = ["film_kind", "settling_of", "settling_words"]
THIN_M = 0.1e-3
DAY_SECONDS = 86_400


def film_kind(head: Head) -> str:
    """The core's kinds of settling film."""
    if head.film.thickness_m < THIN_M:
        return "snare-side"
    return "double" if head.film.plies > 1 else "single"


def _seen(drum: Drum, side: str, fitted_at: datetime) -> list[Dropped]:
    """How far this head had dropped at its first check, by what was read before anything was turned."""
    left = PitchRecord.objects.filter(drum=drum, side=side, at__gte=fitted_at).order_by("at").first()
    check = (
        LogEntry.objects.filter(drum=drum, side=side, kind__in=[each.id for each in CHECKS], at__gt=fitted_at)
        .order_by("at")
        .first()
    )
    if left is None or check is None or check.at <= left.at:
        return []
    rounds = check.record.get("rounds") or [{}]
    found = rounds[0].get("mean_hz")
    if not found:
        return []
    days = (check.at - left.at).total_seconds() / DAY_SECONDS
    return [Dropped(days, Interval.from_ratio(left.mean_hz / found).cents)] if days > 0 else []


def settling_of(drum: Drum, side: str, head: Head | None, fitted_at: datetime | None) -> Settling:
    """What is expected of the head on this side, by its film and its own first check."""
    kind = film_kind(head) if head else "single"
    return expect_settling(kind, _seen(drum, side, fitted_at) if fitted_at else ())


def settling_words(found: Settling, wanted: Pitch, days: int, leave_above: bool) -> str:
    """For a head just fitted: what it will have done by its check, and where to leave it."""
    drop, sd = found.drop_cents(days), found.drop_sd_cents(days)
    words = f"Expect it {cents_words(drop)} lower at its check in {days} day{'s' if days != 1 else ''}, give or take {1.96 * sd:.0f}"
    if leave_above:
        words += f"; left at {found.leave_at(wanted, days).hz:.1f} Hz it comes to {wanted.hz:.1f}"
    following = found.next_check_days(days)
    return words + (
        f". Another look is worth making about day {following:.0f}." if following else ". One check will do."
    )
