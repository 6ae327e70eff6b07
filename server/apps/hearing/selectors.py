"""What was heard on a job, round by round."""

from __future__ import annotations

import uuid

from apps.bench.ledger import read_ledger
from apps.bench.models import Job
from apps.bench.shapes import shape_pair
from apps.hearing.models import HeardTap
from apps.hearing.schemas import RoundOut, TapOut, TapsOut
from drumwork.procedures.rounds import heard_pair

__all__ = ["heard_on"]


def heard_on(job_id: uuid.UUID) -> TapsOut:
    """All taps of a job, each with the rod it belongs to as far as is known now, and what each round says as a whole. Sound is not loaded."""
    job = Job.objects.select_related("drum", "workshop").get(pk=job_id)
    state = read_ledger(job).state
    layout, laps = state.plan.job.layout, state.laps.get("clear", [])
    moved = {tap: rod for lap in laps for rod, tap in lap.taps.items() if tap}
    taps = [TapOut.of(tap) for tap in HeardTap.objects.filter(job=job).order_by("heard_at").defer("sound")]
    for tap in taps:
        tap.rod = moved.get(str(tap.id), tap.rod)
    return TapsOut(
        tag=job.drum.tag,
        name=job.drum.name,
        side=job.side,
        rods=layout.count,
        badge=job.drum.badge,
        rounds=[
            RoundOut(
                lap=number,
                pair=shape_pair(heard_pair(layout, lap)),
                centre_hz=lap.centre.value.hz if lap.centre else None,
            )
            for number, lap in enumerate(laps)
        ],
        taps=taps,
    )
