"""Planned work over HTTP."""

from __future__ import annotations

from uuid import UUID

from django.utils import timezone
from ninja import Router, Schema, Status

from apps.accounts.auth import Request, technician
from apps.planned import flows
from apps.planned.models import PlannedJob
from apps.planned.schemas import PlannedLine, shape_planned
from apps.workshops.typed import Line

router = Router(tags=["planned"])


class DropIn(Schema):
    because: Line = ""


@router.get("", response=list[PlannedLine], operation_id="planned")
def planned(request: Request, tag: str = "") -> list[PlannedLine]:
    """Work to come, the earliest first; of one drum, if its tag is given."""
    rows = PlannedJob.objects.filter(state=PlannedJob.State.OPEN).select_related("drum")
    if tag:
        rows = rows.filter(drum__tag__iexact=tag)
    today = timezone.localdate()
    return [shape_planned(row, today) for row in rows[:500]]


@router.post("/{planned_id}/drop", response={204: None}, auth=technician, operation_id="drop_planned")
def drop_planned(request: Request, planned_id: UUID, body: DropIn) -> Status[None]:
    """Not to be done after all; a head promised to it is free again."""
    flows.drop(planned_id, body.because[:200])
    return Status(204, None)
