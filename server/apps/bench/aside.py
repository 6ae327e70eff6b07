"""A job begun by mistake, or not now: put aside with its reason, and taken up again. Nothing of it is recorded as done."""

from __future__ import annotations

import uuid
from contextlib import suppress

from django.db import IntegrityError, transaction
from django.utils import timezone

from apps.bench.flows import note_on
from apps.bench.models import Job
from apps.heads.promises import let_go, promise
from apps.history.models import LogEntry
from apps.workshops.errors import Refused
from apps.workshops.models import Membership

__all__ = ["promise_again", "put_aside", "save_open", "take_up"]


def promise_again(job: Job, member: Membership) -> None:
    """The heads of a job that goes on are its own again, as far as they are still free; where one is not, closing the job says so."""
    for head in job.heads.exclude(stock_item=None):
        with suppress(Refused):
            assert head.stock_item_id is not None
            promise(head.stock_item_id, job.drum, job.pk, head.side, member)


def save_open(job: Job) -> None:
    """A job that goes on again; the database refuses a second open one about the same part.

    Raises
    ------
    Refused
        while there is one.
    """
    try:
        with transaction.atomic():
            job.save()
    except IntegrityError as error:
        said = "Another job about the same part is in hand now. Close it or put it aside first."
        raise Refused("in_hand", said) from error


def _locked(job_id: uuid.UUID) -> Job:
    return Job.objects.select_for_update(of=("self",)).select_related("drum").get(pk=job_id)


def _title(job: Job) -> str:
    return str(job.plan.get("title") or job.work)


@transaction.atomic
def put_aside(job_id: uuid.UUID, because: str, member: Membership) -> None:
    """Asked twice, it is put aside once.

    Raises
    ------
    Refused
        a closed job: what it did is done.
    """
    job = _locked(job_id)
    if job.state == Job.State.ASIDE:
        return
    if job.state == Job.State.CLOSED:
        raise Refused("closed", "This job is closed already; what it did stands in the history.")
    job.state, job.closed_at, job.resting_until = Job.State.ASIDE, timezone.now(), None
    job.aside_because, job.aside_by_name = because, member.shown_name
    let_go(job.pk)
    note_on(job, member, f"Put aside: {because}")
    job.save()
    _write(job, member, f"Put aside, nothing of it counts: {_title(job)}", because)


@transaction.atomic
def take_up(job_id: uuid.UUID, member: Membership) -> None:
    """Go on with a job that was put aside, from where it was left.

    Raises
    ------
    Refused
        while another job about the same part is in hand.
    """
    job = _locked(job_id)
    if job.state != Job.State.ASIDE:
        return
    job.state, job.closed_at = Job.State.OPEN, None
    job.aside_because = job.aside_by_name = ""
    job.touched_at = timezone.now()
    note_on(job, member, "Taken up again")
    promise_again(job, member)
    save_open(job)
    _write(job, member, f"Taken up again: {_title(job)}", "")


def _write(job: Job, member: Membership, text: str, outcome: str) -> None:
    LogEntry.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        at=timezone.now(),
        kind="bench",
        text=text[:300],
        outcome=outcome[:120],
        by_name=member.shown_name,
        job_id=job.id,
    )
