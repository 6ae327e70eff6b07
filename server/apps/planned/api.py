"""Planned work over HTTP."""

from __future__ import annotations

from datetime import date, datetime
from uuid import UUID

from django.utils import timezone
from ninja import Router, Schema, Status

from apps.accounts.auth import Request, technician
from apps.planned import flows
from apps.planned.models import PlannedJob
from apps.register.schemas import KIND_WORDS
from apps.workshops.typed import Line, WorkName
from drumwork.procedures.catalogue import work_named
from drumwork.work.plan import Part

router = Router(tags=["planned"])


class PlannedHead(Schema):
    stock_item: int
    head: str


class PlannedLine(Schema):
    """Work to come: on which drum, by when, with which heads promised."""

    id: str
    tag: str
    name: str
    kind_words: str
    work: WorkName
    part: Part
    title: str
    why: str
    due_on: date
    days_late: int
    minutes: int
    heads: dict[str, PlannedHead]
    made_by: str
    made_at: datetime


class DropIn(Schema):
    because: Line = ""


def _shape(row: PlannedJob, today: date) -> PlannedLine:
    work = work_named(row.work)
    return PlannedLine.model_validate(
        {
            "id": str(row.pk), "tag": row.drum.tag, "name": row.drum.name, "kind_words": KIND_WORDS[row.drum.kind], "work": row.work,
            "part": row.part, "title": work.title.format(part=row.part), "why": row.why, "due_on": row.due_on,
            "days_late": max(0, (today - row.due_on).days), "minutes": work.minutes, "heads": row.heads,
            "made_by": row.made_by_name, "made_at": row.made_at,
        }
    )  # fmt: skip


@router.get("", response=list[PlannedLine], operation_id="planned")
def planned(request: Request, tag: str = "") -> list[PlannedLine]:
    """Work to come, the earliest first; of one drum, if its tag is given."""
    rows = PlannedJob.objects.filter(state=PlannedJob.State.OPEN).select_related("drum")
    if tag:
        rows = rows.filter(drum__tag=tag)
    today = timezone.localdate()
    return [_shape(row, today) for row in rows[:500]]


@router.post("/{planned_id}/drop", response={204: None}, auth=technician, operation_id="drop_planned")
def drop_planned(request: Request, planned_id: UUID, body: DropIn) -> Status[None]:
    """Not to be done after all; a head promised to it is free again."""
    flows.drop(planned_id, body.because[:200])
    return Status(204, None)
