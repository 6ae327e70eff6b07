"""A job closed too soon is opened again within a day: what closing it changed is taken back, and it goes on where it was."""

from __future__ import annotations

import uuid
from datetime import timedelta
from typing import Final

from django.db import transaction
from django.utils import timezone

from apps.bench.aside import promise_again, save_open
from apps.bench.flows import take_back_close
from apps.bench.models import Job, JobEvent
from apps.bench.reversal import take_back
from apps.history.models import LogEntry
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["WITHIN", "reopen"]

WITHIN: Final = timedelta(days=1)


def _closed_by(job: Job) -> JobEvent:
    undone = JobEvent.objects.filter(job=job, kind="undo").values_list("body__event", flat=True)
    return JobEvent.objects.filter(job=job, kind="close", standing="applied").exclude(pk__in=[*undone]).latest("seq")


@transaction.atomic
def reopen(job_id: uuid.UUID, member: Membership) -> None:
    """Asked twice, it is opened once.

    Raises
    ------
    Refused
        to anyone but who closed it and an owner, after a day, when something was built on it since, or while another job about the same part is in hand.
    """
    job = Job.objects.select_for_update(of=("self",)).select_related("drum", "workshop").get(pk=job_id)
    if job.state == Job.State.OPEN:
        return
    if job.state != Job.State.CLOSED or job.closed_at is None:
        raise Refused("aside", "This job was put aside; take it up again instead.")
    if timezone.now() - job.closed_at > WITHIN:
        raise Refused(
            "too_late",
            "A job can be opened again for a day. What the history says can be corrected: open its line there.",
        )
    close = _closed_by(job)
    if close.by_id != member.user_id and member.role != Membership.Role.OWNER:
        raise Refused(
            "not_yours",
            f"{close.by_name} closed this job, and can open it again; so can an owner of the workshop.",
            403,
        )
    take_back(job, job.changed, member)
    job.state, job.closed_at, job.changed, job.touched_at = Job.State.OPEN, None, {}, timezone.now()
    take_back_close(job, member, close)
    save_open(job)
    promise_again(job, member)
    LogEntry.objects.filter(job_id=job.pk, at__gte=close.received_at - timedelta(minutes=1)).exclude(
        kind="bench"
    ).update(outcome="opened again")
    LogEntry.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        at=timezone.now(),
        kind="bench",
        text="Opened again: what closing the job had changed was taken back",
        by_name=member.shown_name,
        job_id=job.id,
    )
