"""Fold a job's events into where the work stands. The same events always give the same state."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from typing import Any, Generic, TypeVar

from drumwork.errors import BadEvent
from drumwork.listening import merge_taps
from drumwork.procedures import events as ev
from drumwork.procedures.plan import JobPlan, PassPlan, Step, StepKind
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import Ear, Means
from drumwork.rods.deliberate import Deliberate, leave_uneven

__all__ = [
    "BenchState",
    "Lap",
    "Mark",
    "fold",
    "require_fits",
]

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Mark(Generic[T]):
    """A recorded value, the event it came from, and who did it when."""

    value: T
    event_id: str
    by: str
    at: datetime


@dataclass(slots=True)
class Lap:
    """One pass of turns, or one round of clearing. `turned` holds None where a rod was skipped.

    `readings` are pitches, `ear` judgements, `numbers` a gauge's or key's; `typed` is what was typed for each.
    `centre` is the drum's note in the middle; `moved` says that the readings were brought to their rods once.
    """

    order: tuple[int, ...]
    each: Turns | None = None
    readings: dict[int, Mark[Pitch]] = field(default_factory=dict)
    ear: dict[int, Mark[Ear]] = field(default_factory=dict)
    numbers: dict[int, Mark[float]] = field(default_factory=dict)
    whole: Mark[Ear] | None = None
    doubtful: set[int] = field(default_factory=set)
    typed: dict[int, str] = field(default_factory=dict)
    partials: dict[int, tuple[tuple[float, float], ...]] = field(default_factory=dict)
    taps: dict[int, str] = field(default_factory=dict)
    centre: Mark[Pitch] | None = None
    moved: bool = False
    plan: Mark[ev.RoundPlan] | None = None
    turned: dict[int, Mark[Turns | None]] = field(default_factory=dict)

    def heard(self, means: Means) -> Mapping[int, Mark[Any]]:
        """Readings taken by these means."""
        if means is Means.PITCH:
            return self.readings
        return self.ear if means is Means.EAR else self.numbers

    def owed(self) -> dict[int, Turns]:
        """Turns still to make, in working order."""
        wanted = self._wanted()
        return {rod: wanted[rod] for rod in self.order if rod in wanted and rod not in self.turned}

    def _wanted(self) -> Mapping[int, Turns]:
        if self.each is not None:
            return dict.fromkeys(self.order, self.each)
        return {r: t for r, t in self.plan.value.turns.items() if t.thirtyseconds} if self.plan else {}


@dataclass(slots=True)
class BenchState:
    """Where a job stands.

    Attributes
    ----------
    done : step id → mark of its completion
    laps : step id → passes or rounds so far
    now : the first step not done, or None when all are
    """

    plan: JobPlan
    done: dict[str, Mark[None]] = field(default_factory=dict)
    laps: dict[str, list[Lap]] = field(default_factory=dict)
    target: Mark[Pitch | None] | None = None
    step_size: Mark[Turns] | None = None
    read_with: Mark[ev.MeansChosen] | None = None
    uneven: Mark[ev.LeftUneven] | None = None
    resting_until: datetime | None = None
    notes: list[Mark[str]] = field(default_factory=list)
    closed: Mark[str] | None = None
    live: list[ev.Event] = field(default_factory=list)
    last_seq: int = 0

    @property
    def now(self) -> Step | None:
        return next((step for step in self.plan.steps if step.id not in self.done), None)

    @property
    def step(self) -> Turns:
        """The finest turn this job works in."""
        return self.step_size.value if self.step_size else self.plan.ways.step

    @property
    def means(self) -> Means:
        """What the rods are read with now."""
        return self.read_with.value.means if self.read_with else Means.PITCH

    @property
    def reference(self) -> int:
        """By ear, the rod the others are compared with."""
        chosen = self.read_with.value.reference if self.read_with else None
        return chosen or self.plan.tapping_order[0]

    def left_uneven(self) -> Deliberate | None:
        """What is to be left uneven on purpose."""
        if self.uneven is None or self.uneven.value.kind is None:
            return None
        return leave_uneven(self.plan.job.layout, self.uneven.value.kind, self.uneven.value.start)

    def lap(self, step_id: str, number: int) -> Lap:
        """The lap, or BadEvent when it has not come yet."""
        laps = self.laps.get(step_id, [])
        if not 0 <= number < len(laps):
            raise BadEvent(
                f"“{self.plan.step(step_id).title}” has no round {number + 1} yet.", step=step_id, lap=number
            )
        return laps[number]

    def tally(self) -> Mapping[int, Turns] | None:
        """Turns of each rod since finger-tight, or None when this job did not count from there."""
        start = self.plan.counts_from_fingers
        if start is None or start not in self.done:
            return None
        ids = [step.id for step in self.plan.steps]
        total = {rod: Turns(0) for rod in self.plan.job.layout.rods}
        for step_id in ids[ids.index(start) + 1 :]:
            for lap in self.laps.get(step_id, []):
                for rod, mark in lap.turned.items():
                    total[rod] += mark.value or Turns(0)
        return total

    def clear_lap(self) -> Lap | None:
        """The last round that has been planned, if any."""
        return next((lap for lap in reversed(self.laps.get("clear", [])) if lap.plan), None)

    def where(self) -> str:
        """One line for the list of jobs in hand."""
        step = self.now
        if self.closed or step is None:
            return "closed" if self.closed else "ready to close"
        side = self.plan.job.side.value
        laps = self.laps.get(step.id, [])
        if step.kind is StepKind.PASSES and laps:
            number, lap = _lap_in_hand(laps)
            rod = next(iter(lap.owed()), None)
            return f"{side}, {step.title.lower()}, pass {number + 1} of {len(laps)}" + (
                f", rod {rod} next" if rod else ""
            )
        if step.kind is StepKind.CLEAR and laps:
            lap = laps[-1]
            rod = next(iter(lap.owed()), None)
            doing = (
                f"turn rod {rod} next"
                if rod
                else ("clear" if lap.plan else f"{len(lap.heard(self.means))} of {len(lap.order)} read")
            )
            return f"{side}, clearing round {len(laps)}, {doing}"
        return f"{side}, {step.title.lower()}"


def _lap_in_hand(laps: list[Lap]) -> tuple[int, Lap]:
    return next(((n, lap) for n, lap in enumerate(laps) if lap.owed()), (len(laps) - 1, laps[-1]))


def _pass_lap(each: PassPlan) -> Lap:
    return Lap(each.order, each=each.each)


def _fresh(plan: JobPlan) -> BenchState:
    state = BenchState(plan)
    for step in plan.steps:
        if step.kind is StepKind.PASSES:
            state.laps[step.id] = [_pass_lap(each) for each in step.passes]
        elif step.kind is StepKind.CLEAR:
            state.laps[step.id] = [Lap(plan.turning_order)]
    return state


def fold(plan: JobPlan, log: Iterable[ev.Event]) -> BenchState:
    """The state after these events. Undone events count as not having happened."""
    log = sorted(log, key=lambda event: event.seq)
    undone = {event.body.event_id for event in log if isinstance(event.body, ev.Undone)}
    state = _fresh(plan)
    for event in log:
        state.last_seq = event.seq
        if event.id not in undone and not isinstance(event.body, ev.Undone):
            state.live.append(event)
            _apply(state, event)
            _open_next_round(state)
    return state


def _apply(state: BenchState, event: ev.Event) -> None:
    body = event.body

    def mark(value: T) -> Mark[T]:
        return Mark(value, event.id, event.by, event.at)

    match body:
        case ev.StepDone():
            state.done.setdefault(body.step, mark(None))
        case ev.RodTurned() if _has_lap(state, body.step, body.lap):
            state.laps[body.step][body.lap].turned[body.rod] = mark(body.turns)
        case ev.RodSkipped() if _has_lap(state, body.step, body.lap):
            state.laps[body.step][body.lap].turned[body.rod] = mark(None)
        case ev.PassAdded():
            state.laps[body.step].append(Lap(state.plan.turning_order, each=body.each))
        case ev.ReadingTaken() if _has_lap(state, "clear", body.lap):
            lap = state.laps["clear"][body.lap]
            _take_reading(lap, body, mark)
        case ev.ReadingsMoved() if _has_lap(state, "clear", body.lap):
            _move_readings(state.laps["clear"][body.lap], body, mark)
        case ev.CentreRead() if _has_lap(state, "clear", body.lap):
            state.laps["clear"][body.lap].centre = mark(body.pitch)
        case ev.MeansChosen():
            state.read_with = mark(body)
        case ev.WholeJudged() if _has_lap(state, "clear", body.lap):
            state.laps["clear"][body.lap].whole = mark(body.judged)
        case ev.LeftUneven():
            state.uneven = mark(body)
        case ev.RoundPlanned() if _has_lap(state, "clear", body.lap):
            state.laps["clear"][body.lap].plan = mark(body.plan)
        case ev.TargetChosen():
            state.target = mark(body.pitch)
        case ev.StepSizeChosen():
            state.step_size = mark(body.step)
        case ev.RestStarted():
            state.resting_until = event.at + timedelta(minutes=body.minutes)
        case ev.NoteWritten():
            state.notes.append(mark(body.text))
        case ev.JobClosed():
            state.closed = mark(body.reason)
        case _:
            pass


def _take_reading(lap: Lap, body: ev.ReadingTaken, mark: Callable[[Any], Mark[Any]]) -> None:
    match body.value:
        case Pitch():
            lap.readings[body.rod], lap.typed[body.rod] = mark(body.value), body.typed
            lap.partials[body.rod], lap.taps[body.rod] = body.partials, body.tap
        case Ear():
            lap.ear[body.rod] = mark(body.value)
        case _:
            lap.numbers[body.rod] = mark(body.value)
    (lap.doubtful.add if body.doubtful else lap.doubtful.discard)(body.rod)


def _move_readings(lap: Lap, body: ev.ReadingsMoved, mark: Callable[[Any], Mark[Any]]) -> None:
    """Taps of one rod are merged; of their partials and of what was typed the last stand."""
    before, typed, doubtful = dict(lap.readings), dict(lap.typed), set(lap.doubtful)
    partials, taps = dict(lap.partials), dict(lap.taps)
    lap.moved = True
    for rods in (lap.readings, lap.typed, lap.partials, lap.taps, lap.doubtful):
        rods.clear()
    landed: dict[int, list[float]] = {}
    for rod, real in body.moves:
        if rod in before:
            landed.setdefault(real, []).append(before[rod].value.hz)
            lap.readings[real] = mark(Pitch(merge_taps(landed[real])))
            lap.typed[real], lap.partials[real], lap.taps[real] = typed[rod], partials[rod], taps[rod]
            (lap.doubtful.add if rod in doubtful else lap.doubtful.discard)(real)


def _has_lap(state: BenchState, step: str, lap: int) -> bool:
    """An undone plan may leave later events without their round; they stay in the log, out of the count."""
    return 0 <= lap < len(state.laps.get(step, []))


def _open_next_round(state: BenchState) -> None:
    laps = state.laps.get("clear")
    if laps and laps[-1].plan and any(laps[-1].plan.value.turns.values()) and not laps[-1].owed():
        laps.append(Lap(state.plan.turning_order))


def require_fits(state: BenchState, body: ev.EventBody) -> None:
    """Raise BadEvent or BadLayout when an event cannot belong to this job as it stands."""
    if state.closed:
        raise BadEvent("This job is closed. Start a new one on the drum; what you entered is kept on this device.")
    match body:
        case ev.StepDone():
            state.plan.step(body.step)
        case ev.RodTurned() | ev.RodSkipped():
            state.plan.job.layout.require(body.rod)
            state.lap(body.step, body.lap)
        case ev.PassAdded():
            if state.plan.step(body.step).kind is not StepKind.PASSES:
                raise BadEvent("Passes can be added to slackening and tensioning only.", step=body.step)
        case ev.ReadingTaken():
            state.plan.job.layout.require(body.rod)
            state.lap("clear", body.lap)
        case ev.ReadingsMoved():
            _require_moves(state, body)
        case ev.MeansChosen():
            if body.reference is not None:
                state.plan.job.layout.require(body.reference)
        case ev.LeftUneven():
            if body.kind is not None:
                leave_uneven(state.plan.job.layout, body.kind, body.start)
        case ev.RoundPlanned() | ev.WholeJudged() | ev.CentreRead():
            state.lap("clear", body.lap)
        case ev.Undone():
            if all(event.id != body.event_id for event in state.live):
                raise BadEvent("That entry is not in this job, or is already undone.", event_id=body.event_id)
        case _:
            pass


def _require_moves(state: BenchState, body: ev.ReadingsMoved) -> None:
    lap = state.lap("clear", body.lap)
    for _, real in body.moves:
        state.plan.job.layout.require(real)
    if {rod for rod, _ in body.moves} != set(lap.readings):
        raise BadEvent("The readings changed meanwhile; look at them again.", lap=body.lap)
