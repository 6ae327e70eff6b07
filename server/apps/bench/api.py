"""The bench over HTTP."""

from __future__ import annotations

from uuid import UUID

from django.core.exceptions import ObjectDoesNotExist
from django.db import DatabaseError, transaction
from django.http import HttpResponse
from ninja import Router, Status

from apps.accounts.auth import Request, technician
from apps.bench import aside, flows, reopening, selectors
from apps.bench.opening import opened_bench
from apps.bench.schemas import (
    AsideIn,
    BenchAnswer,
    BenchOut,
    CanBeFound,
    EventsIn,
    OfferOut,
    Receipts,
    SchoolLeftOut,
    StartJob,
)
from apps.register.lookup import drum_by_tag
from apps.workshops.errors import Refused
from apps.workshops.schemas import to_ways
from apps.workshops.typed import WorkName
from drumwork.drums import DrumKind
from drumwork.errors import DrumworkError
from drumwork.work.plan import Part

router = Router(tags=["bench"])


def _written(text: str | bytes, status: int = 200) -> HttpResponse:
    return HttpResponse(text, "application/json", status)


@router.post("/jobs", response={201: BenchOut}, auth=technician, operation_id="start_job")
def start_job(request: Request, body: StartJob) -> HttpResponse:
    job = flows.start_job(body, request.member)
    return _written(selectors.written_bench(selectors.job_by_id(job.id)), 201)


@router.get("/jobs/{job_id}", response=BenchAnswer, operation_id="bench_job")
def bench(request: Request, job_id: UUID, since: int = -1) -> HttpResponse:
    """The job as it stands; nothing but its number when it has not moved on from `since`."""
    if since >= 0 and since == selectors.last_seq_of(job_id):
        return _written(f'{{"last_seq":{since},"bench":null}}')
    return _written(opened_bench(job_id))


@router.post("/jobs/{job_id}/events", response=Receipts, auth=technician, operation_id="bench_events")
def events(request: Request, job_id: UUID, body: EventsIn) -> Receipts:
    try:
        with transaction.atomic():
            last, receipts = flows.take_in(job_id, body.events, request.member, body.sent_at)
    except (DatabaseError, ObjectDoesNotExist, Refused, DrumworkError):
        raise
    except Exception:
        last, receipts = flows.take_in_singly(job_id, body.events, request.member, body.sent_at)
    return Receipts(receipts=receipts, last_seq=last)


@router.post("/jobs/{job_id}/aside", response={204: None}, auth=technician, operation_id="put_aside")
def put_aside(request: Request, job_id: UUID, body: AsideIn) -> Status[None]:
    """A job begun by mistake, or not now: its reason is kept, nothing of it counts as done."""
    aside.put_aside(job_id, body.because, request.member)
    return Status(204, None)


@router.delete("/jobs/{job_id}/aside", response={204: None}, auth=technician, operation_id="take_up")
def take_up(request: Request, job_id: UUID) -> Status[None]:
    """Go on with a job that was put aside."""
    aside.take_up(job_id, request.member)
    return Status(204, None)


@router.post("/jobs/{job_id}/open-again", response={204: None}, auth=technician, operation_id="open_again")
def open_again(request: Request, job_id: UUID) -> Status[None]:
    """A job closed too soon: within a day, by who closed it or an owner, with all that followed from closing it taken back."""
    reopening.reopen(job_id, request.member)
    return Status(204, None)


@router.get("/work/{tag}", response=list[OfferOut], operation_id="work_for")
def work_for(request: Request, tag: str) -> list[OfferOut]:
    """The catalogue of work for this drum; where something does not suit, why not."""
    return selectors.offers_of(drum_by_tag(tag))


@router.get("/work/{tag}/{work}/{part}/schools", response=list[SchoolLeftOut], operation_id="schools_of_work")
def schools_of_work(request: Request, tag: str, work: WorkName, part: Part) -> list[SchoolLeftOut]:
    """Where the trade disagrees, as far as it makes a difference to such a job on this drum."""
    return selectors.schools_of_work(drum_by_tag(tag), work, part, to_ways(request.member.workshop))


@router.get("/jobs/{job_id}/schools", response=list[SchoolLeftOut], operation_id="schools_of_job")
def schools_of_job(request: Request, job_id: UUID) -> list[SchoolLeftOut]:
    """Where the trade disagrees, as far as it makes a difference to what is left of this job."""
    return selectors.schools_of_job(selectors.job_by_id(job_id))


@router.get("/findings/{kind}", response=list[CanBeFound], operation_id="can_be_found")
def can_be_found(request: Request, kind: DrumKind) -> list[CanBeFound]:
    """What can be found on such a drum."""
    return selectors.can_be_found(kind)


@router.post("/findings/{finding_id}/put-right", response={204: None}, auth=technician, operation_id="put_right")
def put_right(request: Request, finding_id: int) -> Status[None]:
    """Something found before is put right now."""
    flows.mend(finding_id)
    return Status(204, None)
