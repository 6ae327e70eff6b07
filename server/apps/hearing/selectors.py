"""What was heard on a job, round by round."""

from __future__ import annotations

import uuid

from apps.bench.figures import shape_pair
from apps.bench.ledger import look_at
from apps.bench.models import Job
from apps.hearing.models import HeardTap
from apps.hearing.schemas import RoundOut, TapOut, TapsOut
from drumwork.work.clearing import heard_pair

__all__ = ["heard_on"]


def heard_on(job_id: uuid.UUID) -> TapsOut:
    """All taps of a job, each with the rod it belongs to as far as is known now, and what each round says as a whole. Sound is not loaded."""
    job = Job.objects.select_related("drum", "workshop").get(pk=job_id)
    state = look_at(job).state
    moved = {
        tap: rod for step in state.clearings() for lap in state.laps[step] for rod, tap in lap.taps.items() if tap
    }  # fmt: skip
    taps = [TapOut.of(tap) for tap in HeardTap.objects.filter(job=job).order_by("heard_at").defer("sound")]
    for tap in taps:
        tap.rod = moved.get(str(tap.id), tap.rod)
    rounds = [
        RoundOut(
            step=step,
            title=state.plan.step(step).title,
            side=state.plan.side_of(step),
            rods=state.layout(state.plan.side_of(step)).count,
            lap=number,
            pair=shape_pair(heard_pair(state.layout(state.plan.side_of(step)), lap)),
            centre_hz=lap.centre.value.hz if lap.centre else None,
        )
        for step in state.clearings()
        for number, lap in enumerate(state.laps[step])
    ]
    return TapsOut(
        tag=job.drum.tag, name=job.drum.name, part=state.plan.part, badge=job.drum.badge, rounds=rounds, taps=taps
    )
