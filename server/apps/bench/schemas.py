"""A bench job, shaped for the screen."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal
from uuid import UUID

from django.utils import timezone
from ninja import Schema
from pydantic import Field

from apps.bench.event_bodies import BodyIn
from apps.bench.models import Job
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, size_words
from apps.workshops.schemas import TighteningPattern
from drumwork.procedures.bench import BenchState, Lap, Mark
from drumwork.procedures.plan import JobPlan, Step
from drumwork.quantities import Interval, Pitch, Turns
from drumwork.rods.patterns import plan_pattern


class StartJob(Schema):
    """Start a job. The device makes the id, so that asking twice starts one job."""

    id: UUID
    tag: str
    procedure: Literal["new-batter-head", "settling-check"]
    side: Literal["batter", "resonant"] = "batter"
    stock_item: int | None = None
    reason: str = Field("", max_length=200)
    pattern: TighteningPattern | None = None
    target: str = Field("", max_length=30)


class EventIn(Schema):
    """One entry. `seen` is the last event number this device knew when it was made."""

    id: UUID
    device: str = Field(min_length=1, max_length=40)
    seen: int = Field(ge=0)
    made_at: datetime
    body: BodyIn


class EventsIn(Schema):
    events: list[EventIn] = Field(min_length=1, max_length=200)


class Receipt(Schema):
    """What became of one entry. `refused` ones say why; the device keeps them for the person to decide."""

    id: UUID
    standing: Literal["applied", "conflict", "repeat", "refused"]
    seq: int | None = None
    code: str = ""
    message: str = ""


class Receipts(Schema):
    receipts: list[Receipt]
    last_seq: int


class MarkOut(Schema):
    event: str
    by: str
    at: datetime


class ReadingOut(MarkOut):
    hz: float
    typed: str
    note: str
    cents: float | None


class TurnOut(MarkOut):
    """`turns_32` is null where the rod was skipped."""

    turns_32: int | None


class RodOut(Schema):
    """One rod in one lap. `owed_32` is what this lap asks of it (null: nothing asked yet)."""

    rod: int
    owed_32: int | None
    turned: TurnOut | None
    reading: ReadingOut | None
    predicted_hz: float | None
    predicted_sd_hz: float | None
    predicted_cents: float | None
    why: str


class PlanOut(MarkOut):
    wanted_hz: float
    spread_hz: float
    allowed_hz: float
    mean_hz: float
    predicted_spread_hz: float
    predicted_mean_hz: float
    clear: bool
    verdict: str
    why: str
    too_coarse: str


class LapOut(Schema):
    each_32: int | None
    order: list[int]
    rods: list[RodOut]
    plan: PlanOut | None
    wanted_hz: float | None
    compared: str


class StepOut(Schema):
    id: str
    title: str
    kind: str
    say: str
    points: list[str]
    cautions: list[str]
    minutes: int
    more_pass_32: int | None
    done: MarkOut | None
    laps: list[LapOut]


class ConflictOut(Schema):
    """Two entries about one thing, made without knowing of each other. The first stands until someone decides."""

    event: str
    about: str
    first: str
    second: str
    can_be_both: bool


class UndoOut(Schema):
    event: str
    words: str


class TallyOut(Schema):
    rod: int
    turns_32: int


class BenchOut(Schema):
    id: str
    tag: str
    name: str
    kind: str
    kind_words: str
    size: str
    side: str
    procedure: str
    title: str
    state: str
    where: str
    new_head: str
    old_head: str
    reason: str
    opened_by: str
    opened_at: datetime
    rods: int
    lost: list[int]
    badge: str
    snare: bool
    pairs: list[list[int]]
    tapping_order: list[int]
    pattern: str
    pattern_note: str
    step_32: int
    target_hz: float | None
    target_note: str
    resting_until: datetime | None
    steps: list[StepOut]
    tally: list[TallyOut] | None
    conflicts: list[ConflictOut]
    undo: list[UndoOut]
    notes: list[str]
    write_on_head: str
    last_seq: int


class BenchAnswer(Schema):
    """`bench` is null when nothing happened since the number asked about."""

    last_seq: int
    bench: BenchOut | None


def _mark(mark: Mark[Any]) -> dict[str, Any]:
    return {"event": mark.event_id, "by": mark.by, "at": mark.at}


def _cents(hz: float, wanted: float | None) -> float | None:
    return round(Interval.from_ratio(hz / wanted).cents, 1) if wanted else None


def _rod(lap: Lap, rod: int, wanted: float | None, a4_hz: float) -> RodOut:
    plan = lap.plan.value if lap.plan else None
    owed = lap.each or (plan.turns.get(rod, Turns(0)) if plan else None)
    turned, reading = lap.turned.get(rod), lap.readings.get(rod)
    predicted = plan.predicted_hz.get(rod) if plan else None
    return RodOut(
        rod=rod,
        owed_32=owed.thirtyseconds if owed is not None else None,
        turned=TurnOut(**_mark(turned), turns_32=turned.value.thirtyseconds if turned.value else None)
        if turned
        else None,
        reading=ReadingOut(
            **_mark(reading),
            hz=reading.value.hz,
            typed=lap.typed[rod],
            note=reading.value.note(a4_hz),
            cents=_cents(reading.value.hz, wanted),
        )
        if reading
        else None,
        predicted_hz=predicted,
        predicted_sd_hz=plan.predicted_sd_hz.get(rod) if plan else None,
        predicted_cents=_cents(predicted, wanted) if predicted else None,
        why=plan.why_rod.get(rod, "") if plan else "",
    )


def _plan(mark: Mark[Any]) -> PlanOut:
    plan = mark.value
    same = {name: getattr(plan, name) for name in PlanOut.model_fields if hasattr(plan, name)}
    return PlanOut(**_mark(mark), **same, why=plan.why_round)


def _compared(lap: Lap, before: Lap | None) -> str:
    """How the last round's prediction came out."""
    if before is None or before.plan is None or lap.plan is None:
        return ""
    said, found = before.plan.value, lap.plan.value
    return (
        f"Expected {said.predicted_spread_hz:.1f} Hz between highest and lowest round {said.predicted_mean_hz:.1f}; "
        f"found {found.spread_hz:.1f} Hz round {found.mean_hz:.1f}."
    )


def _lap(lap: Lap, before: Lap | None, state: BenchState, a4_hz: float) -> LapOut:
    target = state.target.value.hz if state.target and state.target.value else None
    if lap.plan:
        wanted: float | None = lap.plan.value.wanted_hz
    elif target is None and before and before.plan:
        wanted = before.plan.value.wanted_hz
    else:
        wanted = target
    return LapOut(
        each_32=lap.each.thirtyseconds if lap.each else None,
        order=list(lap.order),
        rods=[_rod(lap, rod, wanted, a4_hz) for rod in state.plan.job.layout.rods],
        plan=_plan(lap.plan) if lap.plan else None,
        wanted_hz=wanted,
        compared=_compared(lap, before),
    )


def _step(step: Step, state: BenchState, a4_hz: float) -> StepOut:
    laps = state.laps.get(step.id, [])
    done = state.done.get(step.id)
    return StepOut(
        id=step.id,
        title=step.title,
        kind=step.kind,
        say=step.say,
        points=list(step.points),
        cautions=list(step.cautions),
        minutes=step.minutes,
        more_pass_32=step.more_pass.thirtyseconds if step.more_pass else None,
        done=MarkOut(**_mark(done)) if done else None,
        laps=[_lap(lap, laps[n - 1] if n else None, state, a4_hz) for n, lap in enumerate(laps)],
    )


def _pairs(plan: JobPlan) -> list[list[int]]:
    """Rungs of the ladder in working order: facing pairs, then whoever has no partner."""
    layout, seen, rungs = plan.job.layout, set[int](), []
    for rod in (*plan.turning_order, *layout.all_rods):
        if rod in seen:
            continue
        facing = layout.opposite(rod)
        rung = sorted([rod] if facing is None else [rod, facing])
        seen.update(rung)
        rungs.append(rung)
    return rungs


def shape_bench(job: Job, drum: Drum, state: BenchState, conflicts: list[ConflictOut], undo: list[UndoOut]) -> BenchOut:
    """The whole bench view of one job."""
    workshop, plan = job.workshop, state.plan
    target = state.target.value if state.target else None
    tally = state.tally()
    return BenchOut(
        id=str(job.id),
        tag=drum.tag,
        name=drum.name,
        kind=drum.kind,
        kind_words=KIND_WORDS[drum.kind],
        size=size_words(drum.diameter_m, drum.depth_m, workshop.length_unit),
        side=job.side,
        procedure=job.procedure,
        title=plan.title,
        state=job.state,
        where=state.where(),
        new_head=job.new_head,
        old_head=job.old_head,
        reason=job.reason,
        opened_by=job.opened_by_name,
        opened_at=job.opened_at,
        rods=plan.job.layout.count,
        lost=sorted(plan.job.layout.lost),
        badge=drum.badge,
        snare=drum.snare_bed,
        pairs=_pairs(plan),
        tapping_order=list(plan.tapping_order),
        pattern=plan.ways.pattern,
        pattern_note=plan_pattern(plan.job.layout, plan.ways.pattern, plan.job.layout.rods[0]).note,
        step_32=state.step.thirtyseconds,
        target_hz=target.hz if target else None,
        target_note=Pitch(target.hz).note(workshop.a4_hz) if target else "",
        resting_until=state.resting_until,
        steps=[_step(step, state, workshop.a4_hz) for step in plan.steps],
        tally=[TallyOut(rod=rod, turns_32=turns.thirtyseconds) for rod, turns in tally.items()] if tally else None,
        conflicts=conflicts,
        undo=undo,
        notes=[mark.value for mark in state.notes],
        write_on_head=f"{timezone.localtime():%m / %Y}",
        last_seq=job.last_seq,
    )
