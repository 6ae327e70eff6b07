"""Checks: those this job answers, and the one a new head earns."""

from __future__ import annotations

from apps.bench.effects.closing import Closing
from apps.followups.models import FollowUp
from drumwork.settling import settling_check_due
from drumwork.work.effects import AnswerChecks, BookCheck

__all__ = ["answer_checks", "book_check"]


def answer_checks(closing: Closing, effect: AnswerChecks) -> None:
    """A check answers every open check of its side; a new head makes the old one's checks pointless."""
    FollowUp.objects.filter(drum=closing.job.drum, side=effect.side.value, done_at__isnull=True).update(
        done_at=closing.now, done_by_job=closing.job.id
    )


def book_check(closing: Closing, effect: BookCheck) -> None:
    if closing.asked.check:
        FollowUp.objects.create(
            workshop_id=closing.job.workshop_id,
            drum=closing.job.drum,
            side=effect.side.value,
            due_at=settling_check_due(closing.now, closing.job.workshop.check_after_days),
            why=f"new {effect.side.value} head; its check",
            booked_by_job=closing.job.id,
        )
