"""One pass of turns, or one round of reading and turning."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime
from typing import Annotated, Any, Generic, Literal, TypeVar

from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import Ask, ClearingTask, Ear, Means, Proposal
from drumwork.work.log import Between

__all__ = ["Lap", "LapTap", "Mark", "Noted", "Partial", "Pull", "RoundPlan", "round_plan"]

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Mark(Generic[T]):
    """A recorded value, the entry it came from, and who did it when."""

    value: T
    event_id: str
    by: str
    at: datetime


@dataclass(frozen=True, slots=True)
class Partial:
    """What a tap rang with: hertz, and decibels of amplitude against the strongest."""

    hz: Annotated[float, Between(10, 4000)]
    level_db: Annotated[float, Between(-120, 0)]

    @property
    def amplitude(self) -> float:
        return float(10 ** (self.level_db / 20))


@dataclass(frozen=True, slots=True)
class Noted:
    """A finding of the clearing as it was shown: its kind, the rods it is about, and the sentence."""

    kind: str
    rods: tuple[int, ...]
    words: str


@dataclass(frozen=True, slots=True)
class Pull:
    """How the pull at the rods was understood: in turns away from the mean, by rod."""

    by_pitch: Mapping[int, float]
    unheard: Mapping[int, float]
    sd: Mapping[int, float]
    told_by: tuple[str, ...]
    clear: bool
    words: str


@dataclass(frozen=True, slots=True)
class RoundPlan:
    """What was proposed after a round, or after a tap between its turns, as it was shown then.

    Values are in `unit`: hertz, cents by ear, or a bare number. `ask` is what comes next, and only said of what is left of a round.
    `clear` is even and at pitch; `at_pitch` is None where no pitch was asked for, both are in plans of before they were told apart.
    """

    means: Means
    unit: str
    turns_32: Mapping[int, int]
    predicted: Mapping[int, float]
    predicted_sd: Mapping[int, float]
    predicted_cents: Mapping[int, float]
    predicted_sd_cents: Mapping[int, float]
    read_cents: Mapping[int, float]
    wanted: float
    spread: float
    allowed: float
    mean: float
    predicted_spread: float
    predicted_mean: float
    clear: bool
    verdict: str
    why_round: str
    why_rod: Mapping[int, str]
    too_coarse: str
    approach: str
    rounds_left: float
    chance_even: float
    modal: float
    findings: tuple[Noted, ...]
    pull: Pull
    ask: Literal["", "turn", "round", "done"] = ""
    chance_now: float = 0.0
    even: bool | None = None
    at_pitch: bool | None = None

    @property
    def turns(self) -> Mapping[int, Turns]:
        return {rod: Turns(count) for rod, count in self.turns_32.items()}


def round_plan(task: ClearingTask, found: Proposal, ask: Ask | None = None) -> RoundPlan:
    """A proposal as a job remembers it, rounded to what is worth keeping."""
    rods = task.layout.rods

    def by_rod(values: Iterable[float]) -> dict[int, float]:
        return {rod: round(float(value), 3) for rod, value in zip(rods, values, strict=True)}

    each, tension = found.predicted.values(), found.tension
    return RoundPlan(
        means=task.means,
        unit=found.verdict.unit,
        turns_32={rod: turns.thirtyseconds for rod, turns in found.turns.items()},
        predicted=by_rod(p.value for p in each),
        predicted_sd=by_rod(p.sd for p in each),
        predicted_cents=by_rod(p.cents for p in each),
        predicted_sd_cents=by_rod(p.sd_cents for p in each),
        read_cents={rod: round(cents, 1) for rod, cents in found.read.items()},
        wanted=found.wanted,
        spread=found.verdict.spread,
        allowed=found.verdict.allowed,
        mean=found.verdict.mean,
        predicted_spread=found.predicted_spread,
        predicted_mean=found.predicted_mean,
        clear=found.verdict.clear,
        verdict=found.verdict.words,
        why_round=found.why_round,
        why_rod=found.why_rod,
        too_coarse=found.too_coarse,
        approach=found.approach,
        rounds_left=round(found.rounds_left, 1),
        chance_even=round(found.chance_even, 3),
        modal=round(found.modal, 3),
        findings=tuple(Noted(f.kind, f.rods, f.words) for f in found.findings),
        pull=Pull(
            by_rod(tension.by_pitch),
            by_rod(tension.unheard),
            by_rod(tension.sd),
            tension.told_by,
            tension.clear,
            tension.words,
        ),
        ask=ask.value if ask else "",
        chance_now=round(found.chance_now, 3),
        even=found.verdict.even,
        at_pitch=found.verdict.on_pitch if found.verdict.pitch_asked else None,
    )


@dataclass(frozen=True, slots=True)
class LapTap:
    """A rod read between turns: hertz or a number, and what every rod had been turned in this round by then."""

    rod: int
    means: Means
    value: float
    turned: Mapping[int, Turns]
    doubtful: bool
    event_id: str
    sure: bool = False
    left: bool | None = None
    """Whether anything was left to turn by what was worked out from it; None where nothing was worked out."""


@dataclass(slots=True)
class Lap:
    """One pass of turns, or one round of clearing. `turned` holds None where a rod was skipped; `gone` are rods found missing since.

    `readings` are pitches, `ear` judgements, `numbers` a gauge's or key's; `typed` is what was typed for each; of the rods in `sure` somebody said that
    it is so. `afresh` is the first round after a rest: the head has moved meanwhile.
    `centre` is the drum's note in the middle; `moved` says that the readings were brought to their rods once. `between` are rods read between
    turns; `left` is the plan of what was left after the last of them, `before` what had been turned by then, `since` what was after.
    """

    order: tuple[int, ...]
    each: Turns | None = None
    until: str = ""
    readings: dict[int, Mark[Pitch]] = field(default_factory=dict)
    ear: dict[int, Mark[Ear]] = field(default_factory=dict)
    numbers: dict[int, Mark[float]] = field(default_factory=dict)
    whole: Mark[Ear] | None = None
    doubtful: set[int] = field(default_factory=set)
    sure: set[int] = field(default_factory=set)
    typed: dict[int, str] = field(default_factory=dict)
    partials: dict[int, tuple[tuple[float, float], ...]] = field(default_factory=dict)
    taps: dict[int, str] = field(default_factory=dict)
    centre: Mark[Pitch] | None = None
    centre_typed: str = ""
    moved: bool = False
    plan: Mark[RoundPlan] | None = None
    turned: dict[int, Mark[Turns | None]] = field(default_factory=dict)
    gone: frozenset[int] = frozenset()
    between: list[LapTap] = field(default_factory=list)
    left: Mark[RoundPlan] | None = None
    before: dict[int, Turns] = field(default_factory=dict)
    since: set[int] = field(default_factory=set)
    afresh: bool = False

    def turn(self, rod: int, turns: Turns | None, mark: Callable[[Turns | None], Mark[Turns | None]]) -> None:
        """A rod was turned, or skipped; what it was turned before what is left was planned is added."""
        before = self.before.get(rod)
        made = turns if before is None else before + (turns or Turns(0))
        self.turned[rod] = mark(made)
        self.since.add(rod)

    def made(self) -> dict[int, Turns]:
        """What was turned in this lap up to now."""
        return {rod: mark.value for rod, mark in self.turned.items() if mark.value is not None}

    def plan_left(self, plan: Mark[RoundPlan]) -> None:
        """From here on this is what is left to turn."""
        self.left, self.before, self.since = plan, self.made(), set()

    def heard(self, means: Means) -> Mapping[int, Mark[Any]]:
        """Readings taken by these means."""
        if means is Means.PITCH:
            return self.readings
        return self.ear if means is Means.EAR else self.numbers

    @property
    def rods(self) -> tuple[int, ...]:
        """Rods of this lap that are there, in working order."""
        return tuple(rod for rod in self.order if rod not in self.gone)

    def owed(self) -> dict[int, Turns]:
        """Turns still to make, in working order."""
        wanted = self._wanted()
        return {rod: wanted[rod] for rod in self.rods if rod in wanted and rod not in self.since}

    def _wanted(self) -> Mapping[int, Turns]:
        if self.each is not None:
            return dict.fromkeys(self.order, self.each)
        plan = self.left or self.plan
        return {r: Turns(t) for r, t in plan.value.turns_32.items() if t} if plan else {}

    @property
    def begun(self) -> bool:
        return bool(self.readings or self.ear or self.numbers)

    def left_hz(self) -> tuple[float, float] | None:
        """Mean and spread as the round was left: as its taps between turns told them, else as it was read."""
        if self.left is not None and self.left.value.means is Means.PITCH:
            return self.left.value.mean, self.left.value.spread
        return self.mean_and_spread_hz()

    def mean_and_spread_hz(self) -> tuple[float, float] | None:
        """Of the pitches read; None where none was."""
        heard = [mark.value.hz for mark in self.readings.values()]
        return (sum(heard) / len(heard), max(heard) - min(heard)) if heard else None
