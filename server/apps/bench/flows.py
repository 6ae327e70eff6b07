"""Use cases of the bench: start a job, take in events."""

from __future__ import annotations

import uuid
from dataclasses import replace
from datetime import datetime
from typing import Any

from django.db import transaction
from django.utils import timezone

from apps.bench.answers import expected_hz_per_turn, kept_answer
from apps.bench.closing import close_job
from apps.bench.event_bodies import CloseIn, PlanIn, SettleIn, UndoIn, plan_to_json, slot_of, to_core
from apps.bench.ledger import Ledger, freeze, read_ledger, row_of, thaw
from apps.bench.models import Job, JobEvent
from apps.bench.schemas import EventIn, Receipt, StartJob
from apps.heads.limits import refuse_beyond_limits
from apps.heads.models import Fitting, StockItem
from apps.register.models import Drum
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.schemas import to_even_rule, to_ways
from drumwork.errors import DrumworkError
from drumwork.procedures import events as ev
from drumwork.procedures.bench import BenchState, require_fits
from drumwork.procedures.new_batter_head import NEW_BATTER_HEAD
from drumwork.procedures.plan import DrumKind
from drumwork.procedures.rounds import clearing_task
from drumwork.quantities import Turns, parse_pitch
from drumwork.rods.clearing import propose
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern

__all__ = ["start_job", "take_in"]

_KEPT_APART = {"turned", "skipped", "reading", "target", "pass_added"}
"""Kinds where two devices writing one slot unseen is a conflict; of the rest a second is a mere repeat."""


def _stock(asked: StartJob) -> StockItem | None:
    if asked.procedure != NEW_BATTER_HEAD or asked.stock_item is None:
        return None
    item = StockItem.objects.select_related("line").get(pk=asked.stock_item)
    if item.count < 1:
        raise Refused(
            "none_left",
            f"No {item.line.name} of that size is left on the shelf. Choose another, or correct the count.",
            409,
        )
    return item


def _layout(drum: Drum, side: str) -> RodLayout:
    marked = (drum.bed_rods, drum.port_rods) if side == "resonant" else ((), ())
    return RodLayout(getattr(drum, f"rods_{side}"), frozenset(getattr(drum, f"lost_{side}")), *map(frozenset, marked))


def _first_target(job: Job, asked: StartJob, drum: Drum, member: Membership) -> None:
    """The wanted pitch is the job's first event, so that it can be changed and undone like any other."""
    typed = asked.target.strip() or (f"{hz:g}" if (hz := getattr(drum, f"wanted_{asked.side}_hz")) else "")
    if typed:
        pitch = parse_pitch(typed, member.workshop.a4_hz)
        refuse_beyond_limits(job.stock_item, job.frozen["rods"] - len(job.frozen["lost"]), pitch)
        body = {"kind": "target", "typed": typed}
        _append(job, member, uuid.uuid5(job.id, "target"), body, "target", "server", job.opened_at)
        job.save(update_fields=["last_seq"])


@transaction.atomic
def start_job(asked: StartJob, member: Membership) -> Job:
    """Open a job; asked again with the same id, the same job."""
    if found := Job.objects.filter(pk=asked.id).first():
        return found
    drum = Drum.objects.select_for_update().get(tag=asked.tag)
    if drum.kind == DrumKind.ROPE_BASS:
        raise Refused("not_rods", "This drum is tensioned by rope; there are no rods to lead along.", 422)
    if open_job := Job.objects.filter(drum=drum, side=asked.side, state="open").first():
        raise Refused(
            "in_hand", f"A job on this {asked.side} head is in hand already. Go on with that one.", 409, job=open_job.id
        )
    ways = to_ways(member.workshop)
    if asked.pattern:
        ways = replace(ways, pattern=Pattern(asked.pattern))
    item, now = _stock(asked), timezone.now()
    fitted = Fitting.objects.filter(drum=drum, side=asked.side, retired_at__isnull=True).first()
    job = Job(
        id=asked.id,
        workshop=member.workshop,
        drum=drum,
        side=asked.side,
        procedure=asked.procedure,
        frozen=freeze(ways, _layout(drum, asked.side), drum.kind),
        stock_item=item,
        new_head=item.line.name if item else "",
        old_head=fitted.head if fitted else "",
        reason=asked.reason,
        opened_by=member.user,
        opened_by_name=member.shown_name,
        opened_at=now,
        touched_at=now,
    )
    thaw(job)  # a procedure that does not suit this drum is refused here
    job.save(force_insert=True)
    _first_target(job, asked, drum, member)
    job.where = read_ledger(job).state.where()
    job.save(update_fields=["where"])
    return job


def _append(
    job: Job,
    member: Membership,
    event_id: uuid.UUID,
    body: dict[str, Any],
    slot: str,
    device: str,
    made_at: datetime,
    **more: Any,
) -> JobEvent:
    """The next event of a job. The caller holds the job's row lock."""
    job.last_seq += 1
    return JobEvent.objects.create(
        id=event_id,
        workshop_id=job.workshop_id,
        job=job,
        seq=job.last_seq,
        kind=body["kind"],
        slot=slot,
        body=body,
        by=member.user,
        by_name=member.shown_name,
        device=device,
        made_at=made_at,
        received_at=timezone.now(),
        **more,
    )


def _work_out(ledger: Ledger, body: PlanIn) -> dict[str, Any]:
    job, rule = ledger.job, to_even_rule(ledger.job.workshop)
    task = clearing_task(ledger.state, body.lap, rule, expected_hz_per_turn(job, ledger.state), kept_answer(job))
    return plan_to_json(ev.round_plan(task, propose(task)))


def _both(ledger: Ledger, body: SettleIn, member: Membership, event: EventIn) -> None:
    """Both turns happened: one more event says what they come to together."""
    second = ledger.rows[body.event]
    first = ledger.rows[str(second["against"])]
    total = Turns(first["body"]["turns_32"]) + Turns(second["body"]["turns_32"])
    merged = {**second["body"], "turns_32": total.thirtyseconds}
    row = _append(ledger.job, member, uuid.uuid5(event.id, "both"), merged, second["slot"], event.device, event.made_at)
    ledger.add(row_of(row))


def _settle(ledger: Ledger, body: SettleIn, member: Membership, event: EventIn) -> None:
    row = ledger.rows.get(body.event)
    if row is None or row["standing"] != "conflict":
        raise Refused("no_conflict", "That is not an open conflict of this job.", 422)
    if body.take == "both":
        if row["kind"] != "turned" or ledger.rows[str(row["against"])]["kind"] != "turned":
            raise Refused("no_conflict", "Only turns can both have happened.", 422)
        _both(ledger, body, member, event)


def _standing(ledger: Ledger, event: EventIn, slot: str) -> dict[str, Any]:
    """Whether another device wrote this slot unseen."""
    body: Any = event.body
    last = ledger.latest_in(slot) if slot else None
    if last is None or last["seq"] <= event.seen or last["device"] in (event.device, "server"):
        return {}
    same = {k: v for k, v in last["body"].items() if k != "found"} == body.model_dump(mode="json")
    if body.kind not in _KEPT_APART or (same and body.kind != "turned"):
        return {"standing": "repeat"}
    return {"standing": "conflict", "against": last["id"]}


def _item_of(job: Job) -> StockItem | None:
    return StockItem.objects.select_related("line").filter(pk=job.stock_item_id).first() if job.stock_item_id else None


def _take_one(ledger: Ledger, event: EventIn, member: Membership) -> Receipt:
    """Judge and store one event; errors of the core and refusals become receipts, never lose the others."""
    body: Any = event.body
    slot = slot_of(body)
    stored = body.model_dump(mode="json")
    shaped = to_core(body, ledger.job.workshop.a4_hz)
    require_fits(ledger.state, shaped or ev.NoteWritten(""))
    if isinstance(body, UndoIn) and ledger.rows[body.event]["device"] == "server":
        raise Refused("not_undone", "The job began with that. Choose another pitch instead.", 422)
    if isinstance(shaped, ev.TargetChosen) and shaped.pitch is not None:
        refuse_beyond_limits(_item_of(ledger.job), len(ledger.state.plan.job.layout.rods), shaped.pitch)
    standing = _standing(ledger, event, slot)
    if isinstance(body, PlanIn) and not standing:
        stored["found"] = _work_out(ledger, body)
    if isinstance(body, SettleIn):
        _settle(ledger, body, member, event)
    if isinstance(body, CloseIn):
        with transaction.atomic():  # a close that is refused half way leaves nothing
            close_job(ledger.job, ledger.state, body, member)
    row = _append(ledger.job, member, event.id, stored, slot, event.device, event.made_at, **standing)
    ledger.add(row_of(row))
    return Receipt.model_validate({"id": event.id, "standing": row.standing, "seq": row.seq})


def _receive(ledger: Ledger, event: EventIn, member: Membership) -> Receipt:
    if known := ledger.rows.get(str(event.id)):
        return Receipt(id=event.id, standing=known["standing"], seq=known["seq"])
    if JobEvent.objects.filter(pk=event.id).exists():
        return Receipt(id=event.id, standing="refused", code="bad_event", message="That entry belongs to another job.")
    try:
        return _take_one(ledger, event, member)
    except (DrumworkError, Refused) as error:
        return Receipt(id=event.id, standing="refused", code=error.code, message=error.message)


def _note_where(job: Job, state: BenchState) -> None:
    job.where, job.touched_at = state.where(), timezone.now()
    step = state.now
    job.resting_until = state.resting_until if step is not None and step.id == "rest" else None
    job.save(update_fields=["where", "touched_at", "resting_until", "last_seq"])


@transaction.atomic(savepoint=False)
def take_in(job_id: uuid.UUID, events: list[EventIn], member: Membership) -> tuple[int, list[Receipt]]:
    """Take in events in order. Each is stored once, whatever is sent how often.

    The job's row is locked meanwhile, so that two web processes number one job's events one after the other.
    """
    job = Job.objects.select_for_update(of=("self",)).select_related("workshop", "drum").get(pk=job_id)
    ledger = read_ledger(job)
    receipts = [_receive(ledger, event, member) for event in events]
    _note_where(job, ledger.state)
    return job.last_seq, receipts
