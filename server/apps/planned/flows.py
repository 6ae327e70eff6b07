"""Use cases of planned work: plan it with its heads promised, drop it, begin it."""

from __future__ import annotations

import uuid
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date

from django.db import transaction
from django.utils import timezone

from apps.heads.promises import hand_over, let_go, promise
from apps.heads.wires import WIRES, fitting_wires, on_a_drum
from apps.planned.models import PlannedJob
from apps.register.models import Drum
from apps.register.sides import facts_of
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.inspecting import parts_taken
from drumwork.procedures.catalogue import work_named
from drumwork.work.plan import Part

__all__ = ["Wanted", "begin", "drop", "lacking", "plan_work"]


@dataclass(frozen=True)
class Wanted:
    """Work to plan. `heads`: by side, the stock item that is promised to it, or None where it comes from elsewhere. A set of wires is
    promised by itself, where one fits and is free."""

    id: uuid.UUID
    drum: Drum
    work: str
    part: Part
    due_on: date
    why: str
    heads: Mapping[str, int | None]


def _refuse_unsuited(wanted: Wanted) -> None:
    work = work_named(wanted.work)
    if why_not := work.why_not(facts_of(wanted.drum), wanted.part):
        raise Refused("not_suited", f"{wanted.drum.name}: {why_not}", 422)


def lacking(row: PlannedJob) -> int:
    """How many pieces it takes from the shelf that nothing is promised for."""
    return sum(place not in row.heads for place in parts_taken(row.work, Part(row.part)))


def _wires(wanted: Wanted) -> list[tuple[str, int]]:
    """The set of wires such work needs, where one that goes under this drum is free."""
    if WIRES not in parts_taken(wanted.work, wanted.part) or WIRES in wanted.heads:
        return []
    found = fitting_wires(wanted.drum, on_a_drum(wanted.drum, WIRES))
    return [(WIRES, item.pk) for item, free in found[:1] if free > 0]


@transaction.atomic
def plan_work(wanted: Wanted, member: Membership) -> PlannedJob:
    """Planned once, however often it is asked; planned anew for the same part, it is brought up to date.

    Raises
    ------
    Refused
        where the work does not suit the drum, or a head it names was promised to another job meanwhile.
    """
    _refuse_unsuited(wanted)
    Drum.objects.select_for_update().get(pk=wanted.drum.pk)
    if found := PlannedJob.objects.filter(pk=wanted.id).first():
        return found
    row = PlannedJob.objects.filter(
        drum=wanted.drum, work=wanted.work, part=wanted.part.value, state=PlannedJob.State.OPEN
    ).first()
    if row is None:
        row = PlannedJob(
            id=wanted.id, workshop=member.workshop, drum=wanted.drum, work=wanted.work, part=wanted.part.value
        )
    row.due_on, row.why, row.made_by_name, row.made_at = wanted.due_on, wanted.why, member.shown_name, timezone.now()
    row.heads = {}
    let_go(row.pk)
    for side, item in (*wanted.heads.items(), *_wires(wanted)):
        if item is None:
            continue
        promised = promise(item, wanted.drum, row.pk, side, member)
        row.heads[side] = {"stock_item": item, "head": promised.named}
    row.lacks = lacking(row)
    row.save()
    return row


@transaction.atomic
def drop(planned: uuid.UUID, because: str) -> None:
    """It is not done after all: what was promised to it is free again. Asked twice, dropped once."""
    row = PlannedJob.objects.select_for_update().get(pk=planned)
    if row.state == PlannedJob.State.OPEN:
        row.state, row.dropped_because = PlannedJob.State.DROPPED, because
        row.save(update_fields=["state", "dropped_because"])
        let_go(row.pk)


def begin(drum: Drum, work: str, part: str, job: uuid.UUID) -> None:
    """A job on the bench answers what was planned for the same part of the drum; heads promised to that are the job’s now."""
    for row in PlannedJob.objects.filter(drum=drum, work=work, part=part, state=PlannedJob.State.OPEN):
        row.state, row.job_id = PlannedJob.State.BEGUN, job
        row.save(update_fields=["state", "job_id"])
        hand_over(row.pk, job)
