"""Paper over HTTP: PDF, A4 or Letter."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpResponse
from django.utils import timezone
from django.utils.http import content_disposition_header
from ninja import Router

from apps.accounts.auth import Request
from apps.bench.selectors import job_by_id
from apps.callouts.selectors import callout_by_id, letter
from apps.drums.sheet import sheet_of
from apps.paper.page import PaperSize
from apps.paper.sheets import bench_sheet, owners_note, service_card
from apps.register.lookup import drum_by_tag
from apps.workshops.typed import printed

router = Router(tags=["paper"])


def _pdf(written: bytes, name: str) -> HttpResponse:
    header = content_disposition_header(as_attachment=False, filename=f"{printed(name)}.pdf")
    return HttpResponse(written, "application/pdf", headers={"Content-Disposition": header or "inline"})


@router.get("/jobs/{job_id}", response=bytes, operation_id="bench_sheet")
def job_paper(request: Request, job_id: UUID, size: PaperSize = "a4") -> HttpResponse:
    """The bench sheet of a job: steps, ladder, tallies to tick by hand, a tag that opens the job."""
    job = job_by_id(job_id)
    address = request.build_absolute_uri(f"/bench/{job.id}")
    return _pdf(bench_sheet(job, address, size), f"{job.drum.tag}-{job.work}")


@router.get("/drums/{tag}", response=bytes, operation_id="service_card")
def drum_paper(request: Request, tag: str, size: PaperSize = "a4") -> HttpResponse:
    """The service card of a drum, with a tag that opens its page."""
    drum = drum_by_tag(tag)
    sheet = sheet_of(drum, request.member.workshop, timezone.now())
    return _pdf(service_card(sheet, request.build_absolute_uri(f"/drums/{drum.tag}"), size), f"{drum.tag}-card")


@router.get("/callouts/{key}", response=bytes, operation_id="owners_note")
def callout_paper(request: Request, key: UUID, size: PaperSize = "a4") -> HttpResponse:
    """The note to the owner of a kit, with its prices left blank."""
    callout = callout_by_id(key)
    address = request.build_absolute_uri(f"/callouts/{callout.pk}?at=note")
    return _pdf(owners_note(letter(callout, request.member), address, size), f"{callout.name}-note")
