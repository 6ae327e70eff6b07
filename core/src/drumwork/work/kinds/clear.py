"""Clearing: readings by four means, what is wanted, and the turns worked out from them."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, ClassVar, Literal, Self

from drumwork.drums import Side
from drumwork.errors import BadEvent, BadQuantity, ReadAgain
from drumwork.listening import HeardRod, merge_taps, tapped_hz
from drumwork.quantities import Pitch, Turns, parse_pitch
from drumwork.rods.clearing import EAR_WORDS, Ear, Means
from drumwork.rods.deliberate import OnPurpose, leave_uneven
from drumwork.work.kinds.common import StepId
from drumwork.work.kinds.passes import LapNumber, Rod, TurnCount
from drumwork.work.log import FOUND, Entry, Logged, Rule, WordCount
from drumwork.work.misread import misread_in
from drumwork.work.plan import Plan, StepPlan
from drumwork.work.rounds import Lap, LapTap, Mark, Partial, RoundPlan
from drumwork.work.state import BenchState, ReadWith

__all__ = [
    "CentreRead", "LeftUneven", "MeansChosen", "Move", "ReadingTaken", "ReadingsMoved", "RodTapped", "RoundPlanned", "StepSizeChosen", "TargetChosen",
    "WholeJudged", "begin_clearing", "open_next_rounds", "where_in_clearing",
]  # fmt: skip

MOST_PARTIALS = 12
"""Metadata of a field that whoever takes the entry in finds; no device sends it."""


def _require_round(state: BenchState, step: str, lap: int) -> Lap:
    if state.plan.step(step).kind != "clear":
        raise BadEvent(f"“{state.plan.step(step).title}” has no rounds of reading.", step=step)
    return state.lap(step, lap)


def _doubt(typed: str) -> tuple[str, bool]:
    """A question mark after a reading keeps it but trusts it little."""
    plain = typed.strip()
    return plain.removesuffix("?").strip(), plain.endswith("?")


def _number(typed: str) -> float:
    try:
        number = float(typed.replace(",", "."))
    except ValueError:
        number = math.nan
    if not 0 < number < 1e6:
        raise BadQuantity("Type the number on the gauge or key, above nothing.", text=typed)
    return number


def _judgement(typed: str) -> Ear:
    if typed not in {each.value for each in Ear}:
        raise BadQuantity(
            "By ear a rod is much lower, lower, level, higher, much higher, or you can't tell.", text=typed
        )
    return Ear(typed)


def _whose(simulated: bool) -> str:
    return ", of a simulated drum" if simulated else ""


@dataclass(frozen=True, slots=True)
class ReadingTaken(Entry):
    """One rod as it was read, by pitch, by ear, on a gauge or with a key.

    `typed` is hertz or a note with cents, a gauge's or key's number, or a judgement by ear. A question mark after it keeps the reading but
    trusts it little. `partials` are what a heard tap rang with, `tap` which one it was. `sure` is said of one that was asked about: it is
    so; `simulated` of one that no drum gave but the simulated one. One of `hz`, `ear` and `number` is found from what was typed.
    """

    kind: ClassVar[str] = "reading"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    lap: LapNumber
    rod: Rod
    typed: Annotated[str, WordCount(1, 30)]
    means: Means = Means.PITCH
    partials: Annotated[tuple[Partial, ...], WordCount(0, MOST_PARTIALS)] = ()
    tap: Annotated[str, WordCount(0, 36)] = ""
    sure: bool = False
    simulated: bool = False
    doubtful: bool = field(default=False, metadata=FOUND)
    hz: float | None = field(default=None, metadata=FOUND)
    ear: Ear | None = field(default=None, metadata=FOUND)
    number: float | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        beside = "" if self.means is Means.PITCH else f":{self.means}"
        return (f"reading:{self.step}:{self.lap}:{self.rod}{beside}",)

    def read(self, a4_hz: float) -> Self:
        plain, doubtful = _doubt(self.typed)
        match self.means:
            case Means.PITCH:
                return replace(self, typed=self.typed.strip(), doubtful=doubtful, hz=parse_pitch(plain, a4_hz).hz)
            case Means.EAR:
                return replace(self, typed=plain, ear=_judgement(plain))
            case _:
                return replace(self, typed=plain, doubtful=doubtful, number=_number(plain))

    def require(self, state: BenchState) -> None:
        _require_round(state, self.step, self.lap)
        state.layout(state.plan.side_of(self.step)).require(self.rod)

    def apply(self, state: BenchState, at: Logged) -> None:
        if not state.has_lap(self.step, self.lap):
            return
        lap = state.laps[self.step][self.lap]
        if self.hz is not None:
            lap.readings[self.rod], lap.typed[self.rod] = Mark(Pitch(self.hz), at.id, at.by, at.at), self.typed
            lap.partials[self.rod] = tuple((each.hz, each.amplitude) for each in self.partials)
            lap.taps[self.rod] = self.tap
        elif self.ear is not None:
            lap.ear[self.rod] = Mark(self.ear, at.id, at.by, at.at)
        elif self.number is not None:
            lap.numbers[self.rod] = Mark(self.number, at.id, at.by, at.at)
        (lap.doubtful.add if self.doubtful else lap.doubtful.discard)(self.rod)
        (lap.sure.add if self.sure else lap.sure.discard)(self.rod)

    def words(self, plan: Plan) -> str:
        return f"rod {self.rod} " + (EAR_WORDS[self.ear] if self.ear else f"at {self.typed}{_whose(self.simulated)}")

    def about(self) -> str:
        return f"rod {self.rod}"


@dataclass(frozen=True, slots=True)
class RodTapped(Entry):
    """Turn and tap: a rod was turned by so much and then read, and what is left of the round is planned again.

    `typed`, `partials`, `tap`, `sure` and `simulated` as of a reading; without `turns_32` the rod was only read. Not by ear, which compares rods.
    """

    kind: ClassVar[str] = "tapped"
    rule: ClassVar[Rule] = Rule.COUNTS
    step: StepId
    lap: LapNumber
    rod: Rod
    typed: Annotated[str, WordCount(1, 30)]
    turns_32: TurnCount | None = None
    means: Means = Means.PITCH
    partials: Annotated[tuple[Partial, ...], WordCount(0, MOST_PARTIALS)] = ()
    tap: Annotated[str, WordCount(0, 36)] = ""
    sure: bool = False
    simulated: bool = False
    doubtful: bool = field(default=False, metadata=FOUND)
    value: float | None = field(default=None, metadata=FOUND)
    found: RoundPlan | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return () if self.turns_32 is None else (f"turn:{self.step}:{self.lap}:{self.rod}",)

    def read(self, a4_hz: float) -> Self:
        plain, doubtful = _doubt(self.typed)
        if self.means is Means.EAR:
            raise BadQuantity("Between turns a rod is read by its pitch or a number, not by ear.", text=self.typed)
        if self.means is not Means.PITCH:
            return replace(self, typed=plain, doubtful=doubtful, value=_number(plain))
        rang = tuple((each.hz, each.amplitude) for each in self.partials)
        hz = tapped_hz(HeardRod(parse_pitch(plain, a4_hz).hz, rang))
        return replace(self, typed=self.typed.strip(), doubtful=doubtful, value=hz)

    def require(self, state: BenchState) -> None:
        if _require_round(state, self.step, self.lap).plan is None:
            raise BadEvent("Work out the turns of this round first, then turn and tap.", lap=self.lap)
        state.layout(state.plan.side_of(self.step)).require(self.rod)

    def apply(self, state: BenchState, at: Logged) -> None:
        if not state.has_lap(self.step, self.lap) or self.value is None:
            return
        lap = state.laps[self.step][self.lap]
        if self.turns_32 is not None:
            lap.turn(self.rod, Turns(self.turns_32), lambda made: Mark(made, at.id, at.by, at.at))
        left = None if self.found is None else any(self.found.turns_32.values())
        tap = LapTap(self.rod, self.means, self.value, lap.made(), self.doubtful, at.id, self.sure, left)
        lap.between.append(tap)
        if self.found is not None:
            lap.plan_left(Mark(self.found, at.id, at.by, at.at))

    def words(self, plan: Plan) -> str:
        turned = f"{Turns(self.turns_32).words()}, then " if self.turns_32 else ""
        return f"rod {self.rod} {turned}at {self.typed}{_whose(self.simulated)}"

    def about(self) -> str:
        return f"rod {self.rod}"


@dataclass(frozen=True, slots=True)
class Move:
    """What was read for `rod` belongs to `real`."""

    rod: Rod
    real: Rod


@dataclass(frozen=True, slots=True)
class ReadingsMoved(Entry):
    """The round was tapped in another order than asked for; rods that get no reading are to be tapped again."""

    kind: ClassVar[str] = "order"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    lap: LapNumber
    moves: Annotated[tuple[Move, ...], WordCount(1, 16)]

    def slots(self) -> tuple[str, ...]:
        return (f"order:{self.step}:{self.lap}",)

    def require(self, state: BenchState) -> None:
        lap = _require_round(state, self.step, self.lap)
        for each in self.moves:
            state.layout(state.plan.side_of(self.step)).require(each.real)
        if {each.rod for each in self.moves} != set(lap.readings):
            raise BadEvent("The readings changed meanwhile; look at them again.", lap=self.lap)

    def apply(self, state: BenchState, at: Logged) -> None:
        if state.has_lap(self.step, self.lap):
            _move(state.laps[self.step][self.lap], self.moves, lambda value: Mark(value, at.id, at.by, at.at))

    def words(self, plan: Plan) -> str:
        return "readings brought to their rods"


def _move(lap: Lap, moves: tuple[Move, ...], mark: Callable[[Any], Mark[Any]]) -> None:
    """Taps of one rod are merged; of their partials and of what was typed the last stand."""
    before, typed, doubtful = dict(lap.readings), dict(lap.typed), set(lap.doubtful)
    partials, taps = dict(lap.partials), dict(lap.taps)
    lap.moved = True
    for rods in (lap.readings, lap.typed, lap.partials, lap.taps, lap.doubtful):
        rods.clear()
    landed: dict[int, list[float]] = {}
    for each in moves:
        rod, real = each.rod, each.real
        if rod in before:
            landed.setdefault(real, []).append(before[rod].value.hz)
            lap.readings[real] = mark(Pitch(merge_taps(landed[real])))
            lap.typed[real], lap.partials[real], lap.taps[real] = typed[rod], partials[rod], taps[rod]
            (lap.doubtful.add if rod in doubtful else lap.doubtful.discard)(real)


@dataclass(frozen=True, slots=True)
class CentreRead(Entry):
    """The drum's note, tapped in the middle: hertz, or a note with cents; `simulated` as of a reading."""

    kind: ClassVar[str] = "centre"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    lap: LapNumber
    typed: Annotated[str, WordCount(1, 30)]
    simulated: bool = False
    hz: float | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return (f"centre:{self.step}:{self.lap}",)

    def read(self, a4_hz: float) -> Self:
        return replace(self, typed=self.typed.strip(), hz=parse_pitch(_doubt(self.typed)[0], a4_hz).hz)

    def require(self, state: BenchState) -> None:
        _require_round(state, self.step, self.lap)

    def apply(self, state: BenchState, at: Logged) -> None:
        if state.has_lap(self.step, self.lap) and self.hz is not None:
            lap = state.laps[self.step][self.lap]
            lap.centre, lap.centre_typed = Mark(Pitch(self.hz), at.id, at.by, at.at), self.typed

    def words(self, plan: Plan) -> str:
        return f"middle at {self.typed}"

    def about(self) -> str:
        return "the middle"


@dataclass(frozen=True, slots=True)
class MeansChosen(Entry):
    """Read the rods with this from here on; by ear, against this rod."""

    kind: ClassVar[str] = "means"
    rule: ClassVar[Rule] = Rule.APART
    means: Means
    reference: Rod | None = None

    def slots(self) -> tuple[str, ...]:
        return ("means",)

    def require(self, state: BenchState) -> None:
        if self.reference is not None:
            now = state.now.side if state.now else None
            state.layout(now or _side(state.plan, None)).require(self.reference)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.read_with = Mark(ReadWith(self.means, self.reference), at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        return f"reading by {self.means}"

    def about(self) -> str:
        return "what the rods are read with"


@dataclass(frozen=True, slots=True)
class WholeJudged(Entry):
    """By ear: the whole head against the wanted tone."""

    kind: ClassVar[str] = "whole"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    lap: LapNumber
    judged: Ear

    def slots(self) -> tuple[str, ...]:
        return (f"whole:{self.step}:{self.lap}",)

    def require(self, state: BenchState) -> None:
        _require_round(state, self.step, self.lap)

    def apply(self, state: BenchState, at: Logged) -> None:
        if state.has_lap(self.step, self.lap):
            state.laps[self.step][self.lap].whole = Mark(self.judged, at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        return f"whole head {EAR_WORDS[self.judged]}"

    def about(self) -> str:
        return "the whole head"


@dataclass(frozen=True, slots=True)
class LeftUneven(Entry):
    """What is left uneven on purpose, from which rod; empty for even everywhere."""

    kind: ClassVar[str] = "uneven"
    rule: ClassVar[Rule] = Rule.APART
    what: Literal["", "rod-down", "four-by-a-hair", "beside-wires"] = ""
    start: Rod = 1
    side: Side | None = None

    def slots(self) -> tuple[str, ...]:
        return (f"uneven:{self.side or ''}",)

    def require(self, state: BenchState) -> None:
        side = _side(state.plan, self.side)
        if self.what:
            leave_uneven(state.layout(side), OnPurpose(self.what), self.start)

    def apply(self, state: BenchState, at: Logged) -> None:
        kind = OnPurpose(self.what) if self.what else None
        state.uneven[_side(state.plan, self.side)] = Mark((kind, self.start), at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        return "left uneven on purpose" if self.what else "even everywhere"

    def about(self) -> str:
        return "unevenness on purpose"


def _side(plan: Plan, side: Side | None) -> Side:
    """The side named; else the only, or first, one of the job."""
    if side is not None and side not in plan.sides:
        raise BadEvent(f"This job is not about the {side.value} head.", side=side.value)
    if not plan.sides:
        raise BadEvent("This job is about no head.")
    return side or plan.sides[0]


@dataclass(frozen=True, slots=True)
class TargetChosen(Entry):
    """The pitch to bring a head to. Empty text holds the mean of the first round."""

    kind: ClassVar[str] = "target"
    rule: ClassVar[Rule] = Rule.APART
    typed: Annotated[str, WordCount(0, 30)] = ""
    side: Side | None = None
    hz: float | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return (f"target:{self.side or ''}",)

    def read(self, a4_hz: float) -> Self:
        typed = self.typed.strip()
        return replace(self, typed=typed, hz=parse_pitch(typed, a4_hz).hz if typed else None)

    def require(self, state: BenchState) -> None:
        _side(state.plan, self.side)

    def apply(self, state: BenchState, at: Logged) -> None:
        side = _side(state.plan, self.side)
        state.targets[side] = Mark(Pitch(self.hz) if self.hz else None, at.id, at.by, at.at)
        state.targets_typed[side] = self.typed

    def words(self, plan: Plan) -> str:
        which = f"{self.side.value} " if self.side and len(plan.sides) > 1 else ""
        return f"{which}wanted pitch {self.typed}" if self.typed else f"{which}wanted pitch: hold the mean"

    def about(self) -> str:
        return "the wanted pitch"


@dataclass(frozen=True, slots=True)
class RoundPlanned(Entry):
    """Work out the turns for a round; what was found comes with it."""

    kind: ClassVar[str] = "plan"
    rule: ClassVar[Rule] = Rule.ONCE
    step: StepId
    lap: LapNumber
    found: RoundPlan | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return (f"plan:{self.step}:{self.lap}",)

    def require(self, state: BenchState) -> None:
        _require_round(state, self.step, self.lap)
        if asked := misread_in(state, self.step, self.lap):
            raise ReadAgain(
                " ".join(each.words for each in asked) + " Read again, or say that it is so.",
                rods=[each.rod for each in asked],
            )

    def apply(self, state: BenchState, at: Logged) -> None:
        if state.has_lap(self.step, self.lap) and self.found is not None:
            state.laps[self.step][self.lap].plan = Mark(self.found, at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        return "turns worked out"


@dataclass(frozen=True, slots=True)
class StepSizeChosen(Entry):
    """Work in another finest turn from here on."""

    kind: ClassVar[str] = "step_size"
    step_32: Literal[1, 2, 4]

    def apply(self, state: BenchState, at: Logged) -> None:
        state.step_size = Mark(Turns(self.step_32), at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        return f"steps of {Turns(self.step_32).amount()} turn"


def begin_clearing(state: BenchState, step: StepPlan) -> None:
    """The first round lies open from the start."""
    state.laps[step.id] = [Lap(state.plan.turning_order(state.plan.side_of(step.id)))]


def open_next_rounds(state: BenchState) -> None:
    """When every turn of a planned round is made, the next round of reading is open."""
    for step in state.plan.steps:
        laps = state.laps.get(step.id) if step.kind == "clear" else None
        if laps and laps[-1].plan and any(laps[-1].plan.value.turns_32.values()) and not laps[-1].owed():
            side = state.plan.side_of(step.id)
            laps.append(Lap(state.plan.turning_order(side), gone=state.lost_since(side)))


def where_in_clearing(state: BenchState, step: StepPlan) -> str:
    laps = state.laps[step.id]
    lap = laps[-1]
    rod = next(iter(lap.owed()), None)
    if rod:
        doing = f"turn rod {rod} next"
    else:
        doing = "clear" if lap.plan else f"{len(lap.heard(state.means))} of {len(lap.rods)} read"
    return f"clearing round {len(laps)}, {doing}"
