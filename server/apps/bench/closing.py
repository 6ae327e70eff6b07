"""Closing a job: the log entry, the heads, the shelf, the next check."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from django.db.models import F
from django.utils import timezone

from apps.bench.answers import keep_answer
from apps.bench.event_bodies import CloseIn
from apps.bench.models import Job
from apps.followups.models import FollowUp
from apps.heads.models import Fitting, StockItem
from apps.history.models import LogEntry, PitchRecord
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from drumwork.procedures.bench import BenchState, Lap
from drumwork.procedures.new_batter_head import NEW_BATTER_HEAD
from drumwork.quantities import Turns
from drumwork.settling import settling_check_due

__all__ = ["close_job", "record_of"]


def _round(lap: Lap) -> dict[str, Any]:
    plan = lap.plan.value if lap.plan else None
    return {
        "readings_hz": {str(rod): mark.value.hz for rod, mark in lap.readings.items()},
        "ear": {str(rod): mark.value for rod, mark in lap.ear.items()},
        "numbers": {str(rod): mark.value for rod, mark in lap.numbers.items()},
        "turns_32": {str(rod): mark.value.thirtyseconds for rod, mark in lap.turned.items() if mark.value},
        "spread_hz": plan.spread if plan and plan.unit == "Hz" else None,
        "mean_hz": plan.mean if plan and plan.unit == "Hz" else None,
    }


def _durations(state: BenchState, job: Job) -> list[dict[str, Any]]:
    """Minutes from the end of one step to the end of the next."""
    before, found = job.opened_at, []
    for step in state.plan.steps:
        if mark := state.done.get(step.id):
            found.append({"step": step.title, "minutes": round(max(0.0, (mark.at - before).total_seconds() / 60), 1)})
            before = max(before, mark.at)
    return found


def record_of(job: Job, state: BenchState) -> dict[str, Any]:
    """The particulars that go into the history."""
    tally = state.tally() or {}
    return {
        "tally_32": {str(rod): turns.thirtyseconds for rod, turns in tally.items()},
        "rounds": [_round(lap) for lap in state.laps.get("clear", []) if lap.readings or lap.ear or lap.numbers],
        "durations": _durations(state, job),
        "people": sorted({event.by for event in state.live}),
        "new_head": job.new_head,
        "old_head": job.old_head,
        "reason": job.reason,
        "notes": [mark.value for mark in state.notes],
    }


def _last_round(state: BenchState) -> Lap | None:
    return next((lap for lap in reversed(state.laps.get("clear", [])) if lap.readings), None)


def _spread(lap: Lap) -> tuple[float, float]:
    heard = [mark.value.hz for mark in lap.readings.values()]
    return sum(heard) / len(heard), max(heard) - min(heard)


def _record_pitch(job: Job, state: BenchState, at: datetime) -> None:
    if lap := _last_round(state):
        mean, spread = _spread(lap)
        wanted = lap.plan.value.wanted if lap.plan and lap.plan.value.unit == "Hz" else None
        PitchRecord.objects.create(
            workshop_id=job.workshop_id,
            drum=job.drum,
            side=job.side,
            at=at,
            mean_hz=mean,
            spread_hz=spread,
            wanted_hz=wanted,
            job_id=job.id,
        )


def _change_head(job: Job, member: Membership, now: datetime) -> None:
    """Retire the old head, take the new one from the shelf, fit it."""
    if job.stock_item_id:
        taken = StockItem.objects.filter(pk=job.stock_item_id, count__gt=0).update(count=F("count") - 1)
        if not taken:
            raise Refused(
                "none_left", "The shelf's count for this head is at nought. Correct the count, then close again.", 409
            )
    Fitting.objects.filter(drum=job.drum, side=job.side, retired_at__isnull=True).update(
        retired_at=now, retired_because=job.reason or "replaced"
    )
    Fitting.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        side=job.side,
        head=job.new_head or "head not from the shelf",
        fitted_at=now,
        fitted_by=member.user,
        fitted_by_name=member.shown_name,
        job_id=job.id,
    )


def _cleared(state: BenchState) -> str:
    """How evenly it was left, and by what that was judged."""
    laps = state.laps.get("clear", [])
    if rounds := [lap for lap in laps if lap.readings]:
        return f"spread {_spread(rounds[0])[1]:.1f} → {_spread(rounds[-1])[1]:.1f} Hz"
    if any(lap.ear for lap in laps):
        return "by ear"
    return f"by {state.means}" if any(lap.numbers for lap in laps) else "not tapped round"


def _words(job: Job, state: BenchState) -> tuple[str, str]:
    rounds = [lap for lap in state.laps.get("clear", []) if lap.readings or lap.ear or lap.numbers]
    spread = _cleared(state)
    tally = state.tally()
    if job.procedure == NEW_BATTER_HEAD:
        old = f" Old {job.old_head}: {job.reason}." if job.old_head and job.reason else ""
        each = Turns(round(sum(t.thirtyseconds for t in tally.values()) / len(tally))) if tally else None
        outcome = f"{each.amount()} turns each" if each else ""
        return (
            f"{job.side.capitalize()} fitted: {job.new_head or 'head not from the shelf'}.{old} Cleared, {spread}",
            outcome,
        )
    turned = {rod for lap in rounds for rod, mark in lap.turned.items() if mark.value}
    return f"Settling check, {job.side}: {spread}", f"{len(turned)} rods turned" if turned else "nothing to turn"


def _book_checks(job: Job, wanted: bool, now: datetime) -> None:
    """A check answers every open check of its side; a new head makes the old one's checks pointless and earns its own."""
    FollowUp.objects.filter(drum=job.drum, side=job.side, done_at__isnull=True).update(done_at=now, done_by_job=job.id)
    if job.procedure == NEW_BATTER_HEAD and wanted:
        FollowUp.objects.create(
            workshop_id=job.workshop_id,
            drum=job.drum,
            side=job.side,
            due_at=settling_check_due(now, job.workshop.check_after_days),
            why=f"new {job.side} head; its check",
            booked_by_job=job.id,
        )


def close_job(job: Job, state: BenchState, asked: CloseIn, member: Membership) -> None:
    """Everything that follows from closing, within the caller's transaction."""
    now = timezone.now()
    if asked.reason:
        job.reason = asked.reason
    if job.procedure == NEW_BATTER_HEAD:
        _change_head(job, member, now)
    _record_pitch(job, state, now)
    keep_answer(job, state)
    text, outcome = _words(job, state)
    LogEntry.objects.create(
        workshop_id=job.workshop_id,
        drum=job.drum,
        at=now,
        kind=job.procedure,
        side=job.side,
        text=text,
        outcome=outcome,
        by_name=member.shown_name,
        job_id=job.id,
        record=record_of(job, state),
    )
    _book_checks(job, asked.check, now)
    job.state, job.closed_at, job.resting_until = Job.State.CLOSED, now, None
    job.save(update_fields=["state", "closed_at", "resting_until", "reason"])
