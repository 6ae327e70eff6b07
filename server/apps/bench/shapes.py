"""A bench job, shaped for the screen."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any, NamedTuple

from django.conf import settings
from django.utils import timezone

from apps.bench.event_bodies import MoveIn
from apps.bench.models import Job
from apps.bench.schemas import (
    BenchOut,
    CentreOut,
    ConflictOut,
    FindingOut,
    LapOut,
    MarkOut,
    PairOut,
    PlanOut,
    PullOut,
    ReadingOut,
    RodOut,
    StepOut,
    TallyOut,
    TappedOut,
    TurnOut,
    UndoOut,
)
from apps.register.models import Drum
from apps.register.schemas import KIND_WORDS, size_words
from drumwork.listening import RoundFit
from drumwork.procedures import events as ev
from drumwork.procedures.bench import BenchState, Lap, Mark
from drumwork.procedures.plan import JobPlan, Step, StepKind
from drumwork.procedures.rounds import heard_pair, smooth_readings, spotted_order
from drumwork.quantities import Interval, Pitch, Turns
from drumwork.rods.clearing import EAR_CENTS, Ear, Means
from drumwork.rods.clearing.readings import EAR_THRESHOLD_CENTS
from drumwork.rods.patterns import plan_pattern

__all__ = ["EAR_WORDS", "Said", "shape_bench", "shape_pair"]

EAR_WORDS = {
    Ear.MUCH_LOWER: "much lower",
    Ear.LOWER: "lower",
    Ear.LEVEL: "level",
    Ear.HIGHER: "higher",
    Ear.MUCH_HIGHER: "much higher",
    Ear.CANT_TELL: "can’t tell",
}


class Said(NamedTuple):
    """Sentences about the head in hand that need its film: the wanted pitch, and how it will settle."""

    target: str
    settling: str


def _mark(mark: Mark[Any]) -> dict[str, Any]:
    return {"event": mark.event_id, "by": mark.by, "at": mark.at}


def _cents(hz: float, wanted: float | None) -> float | None:
    return round(Interval.from_ratio(hz / wanted).cents, 1) if wanted else None


def _pitch_reading(
    lap: Lap, rod: int, smooth: Mapping[int, Pitch], wanted: float | None, a4_hz: float
) -> ReadingOut | None:
    mark = lap.readings.get(rod)
    if mark is None:
        return None
    hz = smooth[rod].hz
    return ReadingOut(
        **_mark(mark),
        shown=f"{hz:.1f}",
        hz=hz,
        typed=lap.typed[rod],
        note=smooth[rod].note(a4_hz),
        cents=_cents(hz, wanted),
        doubtful=rod in lap.doubtful,
        tap=lap.taps.get(rod, ""),
    )


def _reading(
    lap: Lap, rod: int, means: Means, smooth: Mapping[int, Pitch], wanted: float | None, a4_hz: float
) -> ReadingOut | None:
    if means is Means.PITCH:
        return _pitch_reading(lap, rod, smooth, wanted, a4_hz)
    mark = lap.heard(means).get(rod)
    if mark is None:
        return None
    shown = EAR_WORDS[mark.value] if means is Means.EAR else f"{mark.value:g}"
    cents = lap.plan.value.read_cents.get(rod) if lap.plan else None
    if cents is None and means is Means.EAR:
        cents = EAR_CENTS[mark.value].cents
    return ReadingOut(
        **_mark(mark), shown=shown, hz=None, typed=shown, note="", cents=cents, doubtful=rod in lap.doubtful
    )


def _foretold(plan: ev.RoundPlan, rod: int) -> str:
    """A prediction with its interval, nineteen times in twenty."""
    value, room = plan.predicted[rod], 1.96 * plan.predicted_sd[rod]
    if plan.means is Means.EAR:
        return "level" if abs(value) < EAR_THRESHOLD_CENTS else ("lower" if value < 0 else "higher")
    return f"{value:.1f} ± {room:.1f}"


def _rod(
    lap: Lap,
    rod: int,
    means: Means,
    smooth: Mapping[int, Pitch],
    wanted: float | None,
    state: BenchState,
    a4_hz: float,
) -> RodOut:
    plan = lap.plan.value if lap.plan else None
    owed = lap.each or (plan.turns.get(rod, Turns(0)) if plan else None)
    turned = lap.turned.get(rod)
    number = lap.numbers.get(rod) if means is Means.PITCH else None
    return RodOut(
        rod=rod,
        owed_32=owed.thirtyseconds if owed is not None else None,
        turned=TurnOut(**_mark(turned), turns_32=turned.value.thirtyseconds if turned.value else None)
        if turned
        else None,
        reading=_reading(lap, rod, means, smooth, wanted, a4_hz),
        number=f"{number.value:g}" if number else "",
        predicted=_foretold(plan, rod) if plan else "",
        predicted_cents=round(plan.predicted_cents[rod], 1) if plan else None,
        predicted_sd_cents=round(plan.predicted_sd_cents[rod], 1) if plan else None,
        reference=means is Means.EAR and rod == state.reference,
        why=plan.why_rod.get(rod, "") if plan else "",
    )


_SAME = [
    "means",
    "unit",
    "wanted",
    "spread",
    "allowed",
    "mean",
    "predicted_spread",
    "predicted_mean",
    "approach",
    "rounds_left",
    "chance_even",
    "modal",
    "clear",
    "verdict",
    "too_coarse",
]


def _plan(mark: Mark[ev.RoundPlan]) -> PlanOut:
    plan, pull = mark.value, mark.value.pull
    return PlanOut(
        **_mark(mark),
        **{name: getattr(plan, name) for name in _SAME},
        why=plan.why_round,
        findings=[FindingOut(kind=f.kind, rods=list(f.rods), words=f.words) for f in plan.findings],
        pull=PullOut(
            rods=list(pull.by_pitch),
            by_pitch=list(pull.by_pitch.values()),
            unheard=list(pull.unheard.values()),
            sd=list(pull.sd.values()),
            told_by=list(pull.told_by),
            clear=pull.clear,
            words=pull.words,
        ),
    )


def _compared(lap: Lap, before: Lap | None) -> str:
    """How the last round's prediction came out."""
    if before is None or before.plan is None or lap.plan is None:
        return ""
    said, found = before.plan.value, lap.plan.value
    if said.means is not found.means or found.means is Means.EAR:
        return ""
    unit = f" {found.unit}" if found.unit else ""
    return (
        f"Expected {said.predicted_spread:.1f}{unit} between highest and lowest round {said.predicted_mean:.1f}; "
        f"found {found.spread:.1f}{unit} round {found.mean:.1f}."
    )


def _wanted_hz(lap: Lap, before: Lap | None, state: BenchState) -> float | None:
    """The pitch a lap's beams are drawn against."""
    target = state.target.value.hz if state.target and state.target.value else None
    for each in (lap, before if target is None else None):
        if each and each.plan and each.plan.value.means is Means.PITCH:
            return each.plan.value.wanted
    return target


def _means_of(lap: Lap, state: BenchState) -> Means:
    """What a lap was read with; what is in use now, where nothing was read yet."""
    if lap.plan:
        return lap.plan.value.means
    return state.means


def shape_pair(found: RoundFit | None) -> PairOut | None:
    if found is None:
        return None
    axis = math.degrees(found.axis_rad)
    return PairOut(lower_hz=found.lower_hz, upper_hz=found.upper_hz, axis_deg=round(axis, 1))


def _centre(lap: Lap, a4_hz: float) -> CentreOut | None:
    mark = lap.centre
    return CentreOut(**_mark(mark), hz=mark.value.hz, note=mark.value.note(a4_hz)) if mark else None


def _tapped(state: BenchState, number: int | None) -> TappedOut | None:
    found = spotted_order(state, number) if number is not None else None
    if found is None:
        return None
    moves = [MoveIn(rod=rod, real=real) for rod, real in zip(state.plan.tapping_order, found.rods, strict=False)]
    return TappedOut(words=found.words, certain=found.certain, moves=moves)


def _lap(lap: Lap, number: int | None, before: Lap | None, state: BenchState, a4_hz: float) -> LapOut:
    """`number` for rounds of clearing, None for passes."""
    wanted, means = _wanted_hz(lap, before, state), _means_of(lap, state)
    smooth = smooth_readings(state.plan.job.layout, lap)
    return LapOut(
        each_32=lap.each.thirtyseconds if lap.each else None,
        order=list(lap.order),
        rods=[_rod(lap, rod, means, smooth, wanted, state, a4_hz) for rod in state.plan.job.layout.rods],
        plan=_plan(lap.plan) if lap.plan else None,
        wanted_hz=wanted,
        whole=str(lap.whole.value) if lap.whole else "",
        pair=shape_pair(heard_pair(state.plan.job.layout, lap)),
        centre=_centre(lap, a4_hz),
        tapped=_tapped(state, number),
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
        laps=[
            _lap(lap, n if step.kind is StepKind.CLEAR else None, laps[n - 1] if n else None, state, a4_hz)
            for n, lap in enumerate(laps)
        ],
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


def shape_bench(
    job: Job, drum: Drum, state: BenchState, conflicts: list[ConflictOut], undo: list[UndoOut], said: Said
) -> BenchOut:
    """The whole bench view of one job."""
    workshop, plan = job.workshop, state.plan
    target = state.target.value if state.target else None
    tally, uneven = state.tally(), state.left_uneven()
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
        target_words=said.target,
        settling_words=said.settling,
        simulated=settings.DEMO,
        other_head=min(drum.rods_batter, drum.rods_resonant) > 0,
        means=state.means,
        reference=state.reference if state.means is Means.EAR else None,
        uneven=uneven.kind if uneven else "",
        uneven_words=uneven.words if uneven else "",
        resting_until=state.resting_until,
        steps=[_step(step, state, workshop.a4_hz) for step in plan.steps],
        tally=[TallyOut(rod=rod, turns_32=turns.thirtyseconds) for rod, turns in tally.items()] if tally else None,
        conflicts=conflicts,
        undo=undo,
        notes=[mark.value for mark in state.notes],
        write_on_head=f"{timezone.localtime():%m / %Y}",
        last_seq=job.last_seq,
    )
