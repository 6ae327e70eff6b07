"""Closing a job: the reasons kept, and every effect of its plan."""

from __future__ import annotations

from django.utils import timezone

from apps.bench.effects import Closing, apply_effects
from apps.bench.models import Job
from apps.bench.reversal import difference, snapshot
from apps.workshops.models import Membership
from drumwork.drums import Side
from drumwork.work.kinds.common import Closed
from drumwork.work.state import BenchState

__all__ = ["close_job"]


def close_job(job: Job, state: BenchState, asked: Closed, member: Membership) -> None:
    """Everything that follows from closing, within the caller's transaction."""
    now, before = timezone.now(), snapshot(job)
    heads = {Side(head.side): head for head in job.heads.all()}
    for head in heads.values():
        if asked.reason and (len(heads) == 1 or not head.reason):
            head.reason = asked.reason
            head.save(update_fields=["reason"])
    apply_effects(Closing(job, state, heads, asked, member, now))
    job.state, job.closed_at, job.resting_until = Job.State.CLOSED, now, None
    job.changed = difference(before, snapshot(job))
    job.save(update_fields=["state", "closed_at", "resting_until", "changed"])
