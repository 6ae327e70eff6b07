"""Use cases of the bench: start a job, take in entries."""

from __future__ import annotations

import logging
import uuid
from collections.abc import Callable, Iterable
from dataclasses import replace
from datetime import datetime
from typing import Final, Protocol, TypeVar

from django.core.exceptions import ObjectDoesNotExist
from django.db import DatabaseError, transaction
from django.db.backends.postgresql.psycopg_any import NumericRange
from django.utils import timezone

from apps.bench.answers import answer_before, expected_hz_per_turn
from apps.bench.clocks import by_clock, said_of_clocks
from apps.bench.closing import close_job
from apps.bench.ledger import Ledger, logged, read_ledger, row_of
from apps.bench.models import PARTS, DrumFinding, Job, JobEvent, JobHead
from apps.bench.schemas import EventIn, Receipt, StartHead, StartJob
from apps.bench.stored import ENTRY_VERSION, PLAN_SHAPE, entry_of_device, entry_to, plan_to
from apps.bench.wire import UnknownBody
from apps.heads.limits import head_of, refuse_beyond_limits, usual_head
from apps.heads.models import Fitting, StockItem, WireLine
from apps.heads.promises import let_go, promise
from apps.heads.settling import settling_of
from apps.planned.flows import begin
from apps.register.lookup import one_of
from apps.register.models import Drum
from apps.register.sides import SideOf, facts_of
from apps.stock.loans import Borrowed, keep_of_job
from apps.workshops.errors import Refused
from apps.workshops.models import Membership
from apps.workshops.schemas import to_ways
from drumwork.drums import Side
from drumwork.errors import DrumworkError
from drumwork.procedures.catalogue import work_named
from drumwork.quantities import Pitch, parse_pitch
from drumwork.rods.clearing import propose
from drumwork.work.asks import Option
from drumwork.work.clearing import clearing_task, left_after
from drumwork.work.fold import require_fits, standing_of, where
from drumwork.work.hand import begun_as
from drumwork.work.kinds.clear import RodTapped, RoundPlanned, TargetChosen
from drumwork.work.kinds.common import Closed, Noted, Settled, Undone
from drumwork.work.kinds.loan import Lent
from drumwork.work.kinds.passes import RodTurn, Turned
from drumwork.work.kinds.school import SchoolChosen
from drumwork.work.log import Entry, Logged, Standing
from drumwork.work.making import came, make_plan
from drumwork.work.otherwise import planned_otherwise, with_school
from drumwork.work.plan import Head, Plan
from drumwork.work.rounds import round_plan
from drumwork.work.state import LOST
from drumwork.work.ways import Ways

__all__ = ["note_on", "mend", "singly", "start_job", "take_back_close", "take_in", "take_in_singly"]
logger = logging.getLogger("redtally.bench")

CHANGES_LOANS: Final = (Lent.kind, Undone.kind)
NOT_TAKEN: Final = (
    "Something in this entry could not be worked out. It stays on this device; tell whoever runs the server."
)


def _stock(asked: StartHead, drum: Drum, job: uuid.UUID, member: Membership) -> StockItem | None:
    """The head that goes on, promised to this job: the one planned for it, or another, and then that one is free again."""
    if asked.stock_item is None:
        let_go(job, asked.side.value)
        return None
    return promise(asked.stock_item, drum, job, asked.side.value, member)


def _ways(asked: StartJob, member: Membership) -> Ways:
    """The workshop's ways, with what this job does otherwise."""
    ways = to_ways(member.workshop)
    for each in asked.schools:
        ways = with_school(ways, each.way, each.value)
    return replace(ways, cadence=asked.cadence) if asked.cadence else ways


def lists_of_workshop() -> dict[str, tuple[Option, ...]]:
    """The workshop's own lists that questions ask among."""
    lines = WireLine.objects.all()
    return {"wire-lines": tuple(Option(line.name, line.name) for line in lines)}


def _heads(asked: StartJob, drum: Drum, sides: tuple[Side, ...], changes: bool, member: Membership) -> list[JobHead]:
    said = {each.side: each for each in asked.heads}
    made = []
    for side in sides:
        one = said.get(side) or StartHead(side=side, reason="", target="")
        item = _stock(one, drum, asked.id, member) if changes else None
        fitted = Fitting.objects.filter(drum=drum, side=side.value, retired_at__isnull=True).first()
        made.append(
            JobHead(
                workshop_id=drum.workshop_id,
                side=side.value,
                stock_item=item,
                new_head=item.named if item else one.named.strip() if changes else "",
                old_head=fitted.head if fitted else "",
                reason=one.reason,
            )
        )
    return made


def _left_above(heads: list[JobHead], drum: Drum, member: Membership) -> dict[Side, float]:
    """Cents each new head is left above its wanted pitch, where that is this workshop's way: by what such a head drops until its check."""
    workshop = member.workshop
    if not workshop.leave_above:
        return {}
    found = {}
    for head in heads:
        side = Side(head.side)
        film = head_of(head.stock_item, SideOf(drum, side).rods_there) if head.stock_item else usual_head(drum, side)
        if film is not None:
            found[side] = settling_of(drum, side, film, None).drop_cents(workshop.check_after_days)
    return found


def _first_targets(job: Job, asked: StartJob, drum: Drum, heads: list[JobHead], plan: Plan, member: Membership) -> None:
    """The wanted pitches are the job's first entries, so that they can be changed like any other."""
    typed_for = {each.side: each.target.strip() for each in asked.heads}
    read = {step.side for step in plan.steps if step.kind == "clear"}
    for head in heads:
        side = Side(head.side)
        if side not in read and not typed_for.get(side, ""):
            continue  # nothing of it is read: mesh, say
        usual = SideOf(drum, side).wanted_hz
        typed = typed_for.get(side, "") or (f"{usual:g}" if usual else "")
        if not typed:
            continue
        pitch = parse_pitch(typed, plan.ways.a4_hz)
        if layout := plan.drum.layouts.get(side):
            refuse_beyond_limits(head.stock_item, len(layout.rods), pitch)
        name = "target" if len(heads) == 1 else f"target-{side.value}"
        entry = TargetChosen(typed, side if len(heads) > 1 else None).read(plan.ways.a4_hz)
        _append(job, member, uuid.uuid5(job.id, name), entry, "server", job.opened_at)
    job.save(update_fields=["last_seq"])


def _refuse_in_hand(drum: Drum, part: str) -> None:
    """Two open jobs about the same part exclude each other; the database sees to it, this says it kindly."""
    low, high = PARTS[part]
    for key, other in Job.objects.filter(drum=drum, state="open").values_list("id", "part"):
        if PARTS[other][0] < high and low < PARTS[other][1]:
            about = f"this {other} head" if other in ("batter", "resonant") else "this drum"
            raise Refused("in_hand", f"A job on {about} is in hand already. Go on with that one.", 409, job=key)


@transaction.atomic
def start_job(asked: StartJob, member: Membership) -> Job:
    """Open a job; asked again with the same id, the same job."""
    if found := Job.objects.filter(pk=asked.id).first():
        return found
    work = work_named(asked.work)
    drum = one_of(Drum.objects.select_for_update(), asked.tag)
    if found := Job.objects.filter(pk=asked.id).first():  # begun meanwhile by the same asking
        return found
    _refuse_in_hand(drum, asked.part.value)
    begin(drum, work.id, asked.part.value, asked.id)
    heads, now = _heads(asked, drum, asked.part.sides, work.changes_heads, member), timezone.now()
    named = {Side(head.side): Head(head.new_head, head.old_head) for head in heads}
    above = _left_above(heads, drum, member) if work.changes_heads and not work.mesh else {}
    facts = facts_of(drum)
    at = begun_as(came(facts), asked.begun) if asked.begun else None
    plan = make_plan(work, asked.part, facts, _ways(asked, member), named, lists_of_workshop(), above, at)
    job = Job(
        id=asked.id,
        workshop=member.workshop,
        drum=drum,
        work=work.id,
        part=asked.part.value,
        takes=NumericRange(*PARTS[asked.part.value], "[)"),
        plan=plan_to(plan),
        plan_shape=PLAN_SHAPE,
        opened_by=member.user,
        opened_by_name=member.shown_name,
        opened_at=now,
        touched_at=now,
    )
    job.save(force_insert=True)
    for head in heads:
        head.job = job
    JobHead.objects.bulk_create(heads)
    _first_targets(job, asked, drum, heads, plan, member)
    job.where = where(read_ledger(job).state)
    job.save(update_fields=["where"])
    return job


def _append(
    job: Job,
    member: Membership,
    event_id: uuid.UUID,
    entry: Entry,
    device: str,
    made_at: datetime,
    standing: Standing = Standing.APPLIED,
    against: str | None = None,
) -> JobEvent:
    """The next entry of a job. The caller holds the job's row lock."""
    job.last_seq += 1
    return JobEvent.objects.create(
        id=event_id,
        workshop_id=job.workshop_id,
        job=job,
        seq=job.last_seq,
        kind=entry.kind,
        version=ENTRY_VERSION,
        body=entry_to(entry),
        standing=standing.value,
        against=against,
        by=member.user,
        by_name=member.shown_name,
        device=device,
        made_at=made_at,
        received_at=timezone.now(),
    )


def _add(ledger: Ledger, row: JobEvent) -> None:
    ledger.add(logged(row_of(row)), row.body)


def _worked_out(ledger: Ledger, entry: RoundPlanned) -> RoundPlanned:
    job, state = ledger.job, ledger.state
    side = ledger.plan.side_of(entry.step)
    prior, kept = expected_hz_per_turn(job, state, side), answer_before(job, state, side)
    task = clearing_task(state, entry.step, entry.lap, prior, kept)
    return replace(entry, found=round_plan(task, propose(task)))


def _what_is_left(ledger: Ledger, entry: RodTapped) -> RodTapped:
    """With what is left of the round, once this tap is taken in."""
    job, state = ledger.job, ledger.state
    side = ledger.plan.side_of(entry.step)
    prior, kept = expected_hz_per_turn(job, state, side), answer_before(job, state, side)
    return replace(entry, found=left_after(state, entry, prior, kept))


def _planned_anew(ledger: Ledger, entry: SchoolChosen) -> SchoolChosen:
    changes = planned_otherwise(ledger.state, work_named(ledger.plan.work), entry.way, entry.value)
    if changes.too_late or not changes.any:
        raise Refused("too_late", changes.too_late or "Nothing that is left of this job depends on it.", 422)
    return replace(entry, plan=changes.plan)


def _both(ledger: Ledger, second: Logged, member: Membership, event: EventIn) -> None:
    """Both turns happened: one more entry says what they come to together."""
    first = ledger.log[second.against or ""].entry
    made = second.entry
    if not (isinstance(first, Turned) and isinstance(made, Turned) and first.may_be_both() and made.may_be_both()):
        raise Refused("no_conflict", "Only turns can both have happened.", 422)
    before = {each.rod: each.turns_32 or 0 for each in first.made}
    total = tuple(RodTurn(each.rod, before.get(each.rod, 0) + (each.turns_32 or 0)) for each in made.made)
    entry = replace(made, made=total)
    row = _append(ledger.job, member, uuid.uuid5(event.id, "both"), entry, event.device, event.made_at)
    _add(ledger, row)


def _settle(ledger: Ledger, entry: Settled, member: Membership, event: EventIn) -> None:
    row = ledger.log.get(entry.event)
    if row is None or row.standing is not Standing.CONFLICT:
        raise Refused("no_conflict", "That is not an open conflict of this job.", 422)
    if entry.take == "both":
        _both(ledger, row, member, event)


def _refuse_beyond(ledger: Ledger, entry: TargetChosen) -> None:
    if entry.hz is None:
        return
    if not ledger.plan.sides:
        return
    side = entry.side or ledger.plan.sides[0]
    head = next((head for head in ledger.job.heads.all() if head.side == side), None)
    layout = ledger.plan.drum.layouts.get(side)
    if head is not None and layout is not None:
        refuse_beyond_limits(head.stock_item, len(layout.rods), Pitch(entry.hz))


def _take_one(ledger: Ledger, event: EventIn, member: Membership) -> Receipt:
    """Judge and store one entry; errors of the core and refusals become receipts, never lose the others."""
    if isinstance(event.body, UnknownBody):
        raise Refused(
            "unknown_entry",
            f"This server does not know “{event.body.kind}” entries yet; a newer device made it. It stays on that device. "
            "Update this server, then send it again.",
            422,
        )
    entry = entry_of_device(event.body.model_dump(mode="json"), ledger.plan.ways.a4_hz)
    require_fits(ledger.state, entry)
    if isinstance(entry, TargetChosen):
        _refuse_beyond(ledger, entry)
    standing, against = standing_of(ledger.state, entry, event.seen, event.device)
    if isinstance(entry, RoundPlanned) and standing is Standing.APPLIED:
        entry = _worked_out(ledger, entry)
    if isinstance(entry, RodTapped) and standing is Standing.APPLIED:
        entry = _what_is_left(ledger, entry)
    if isinstance(entry, SchoolChosen):
        entry = _planned_anew(ledger, entry)
    if isinstance(entry, Settled):
        _settle(ledger, entry, member, event)
    if isinstance(entry, Closed):
        with transaction.atomic():  # a close that is refused half way leaves nothing
            close_job(ledger.job, ledger.state, entry, member)
    row = _append(ledger.job, member, event.id, entry, event.device, event.made_at, standing, against)
    _add(ledger, row)
    return Receipt.model_validate({"id": event.id, "standing": row.standing, "seq": row.seq})


def _receive(ledger: Ledger, event: EventIn, member: Membership) -> Receipt:
    if known := ledger.log.get(str(event.id)):
        return Receipt.model_validate({"id": event.id, "standing": known.standing.value, "seq": known.seq})
    if JobEvent.objects.filter(pk=event.id).exists():
        return Receipt(id=event.id, standing="refused", code="bad_event", message="That entry belongs to another job.")
    try:
        return _take_one(ledger, event, member)
    except (DrumworkError, Refused) as error:
        return Receipt(id=event.id, standing="refused", code=error.code, message=error.message)


def _of_aside(ledger: Ledger, event: EventIn) -> Receipt:
    """What was stored before is known; anything newer stays on its device until the job is taken up again."""
    if known := ledger.log.get(str(event.id)):
        return Receipt.model_validate({"id": event.id, "standing": known.standing.value, "seq": known.seq})
    said = f"{ledger.job.aside_by_name} put this job aside. Take it up again, then enter this once more."
    return Receipt(id=event.id, standing="refused", code="aside", message=said)


def note_on(job: Job, member: Membership, text: str) -> None:
    """A line in a job's own log, so that every device that has it open sees that something changed. The caller holds the job's row lock."""
    _append(job, member, uuid.uuid4(), Noted(text), "server", timezone.now())


def take_back_close(job: Job, member: Membership, close: JobEvent) -> None:
    """The close of a job no longer counts. The caller holds the job's row lock, and has taken back what followed from it."""
    _append(job, member, uuid.uuid4(), Undone(str(close.pk)), "server", timezone.now())
    job.where = where(read_ledger(job).state)


def _note_where(ledger: Ledger) -> None:
    job = ledger.job
    job.where, job.touched_at = where(ledger.state), timezone.now()
    job.resting_until = None if ledger.state.closed else ledger.state.resting_until
    job.save(update_fields=["where", "touched_at", "resting_until", "last_seq"])


def _keep_loans(ledger: Ledger) -> None:
    """What the job borrowed, as its log tells it now, are loans that stay open until they are back."""
    borrowed = [Borrowed(uuid.UUID(each.event_id), *each.value, each.by, each.at) for each in ledger.state.lent]
    keep_of_job(ledger.job.pk, ledger.job.drum, borrowed)


@transaction.atomic(savepoint=False)
def take_in(
    job_id: uuid.UUID, events: list[EventIn], member: Membership, sent_at: datetime | None = None
) -> tuple[int, list[Receipt]]:
    """Take in entries in order. Each is stored once, whatever is sent how often.

    The job's row is locked meanwhile, so that two web processes number one job's entries one after the other.
    """
    # A reading or a turn needs neither drum nor heads: they are read by the few entries that ask for them.
    job = Job.objects.defer("plan").select_for_update().get(pk=job_id)
    job.workshop = member.workshop
    ledger = read_ledger(job)
    if job.state == Job.State.ASIDE:
        return job.last_seq, [_of_aside(ledger, event) for event in events]
    events, off = by_clock(events, sent_at)
    receipts = said_of_clocks([_receive(ledger, event, member) for event in events], off)
    if any(event.body.kind in CHANGES_LOANS for event in events):
        _keep_loans(ledger)
    _note_where(ledger)
    return job.last_seq, receipts


class Sent(Protocol):
    """An entry of any log, as a device sent it."""

    @property
    def id(self) -> uuid.UUID: ...


EventT = TypeVar("EventT", bound=Sent)


def singly(
    take_one: Callable[[EventT], tuple[int, list[Receipt]]], events: Iterable[EventT]
) -> tuple[int, list[Receipt]]:
    """Each entry by itself, after something went wrong with all of them together: one that cannot be worked out holds up no other."""
    last, receipts = 0, list[Receipt]()
    for event in events:
        try:
            with transaction.atomic():
                last, found = take_one(event)
            receipts += found
        except (DatabaseError, ObjectDoesNotExist):
            raise
        except Exception:
            logger.exception("an entry could not be taken in", extra={"entry": str(event.id)})
            receipts.append(Receipt(id=event.id, standing="refused", code="unexpected", message=NOT_TAKEN))
    return last, receipts


def take_in_singly(
    job_id: uuid.UUID, events: list[EventIn], member: Membership, sent_at: datetime | None
) -> tuple[int, list[Receipt]]:
    return singly(lambda event: take_in(job_id, [event], member, sent_at), events)


@transaction.atomic
def mend(finding_id: int) -> None:
    """A finding that stood on a drum is put right."""
    row = DrumFinding.objects.select_for_update().get(pk=finding_id)
    if row.put_right_at is not None:
        return
    row.put_right_at = timezone.now()
    row.save(update_fields=["put_right_at"])
    if row.finding == LOST:  # the rod is there again, and takes its turn
        of = SideOf(Drum.objects.select_for_update().get(pk=row.drum_id), Side(row.side))
        of.set_lost([rod for rod in of.lost if rod != row.rod])
        of.drum.save(update_fields=[f"lost_{row.side}"])
