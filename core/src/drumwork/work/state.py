"""Where a job stands: what the log comes to. It is made by the fold, and asked by everybody else."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from drumwork.drums import Side
from drumwork.errors import BadEvent
from drumwork.findings import Place
from drumwork.quantities import Interval, Pitch, Turns
from drumwork.rods.clearing import Means
from drumwork.rods.deliberate import Deliberate, OnPurpose, leave_uneven
from drumwork.rods.layout import RodLayout
from drumwork.work.conditions import Chosen, FoundThing
from drumwork.work.log import Logged
from drumwork.work.plan import Plan, StepPlan
from drumwork.work.rounds import Lap, Mark
from drumwork.work.ways import Cadence

__all__ = ["Answer", "BenchState", "FoundMark", "ReadWith"]

LOST = "rod-missing"
"""The finding that takes a rod out of the orders."""


@dataclass(frozen=True, slots=True)
class ReadWith:
    """What the rods are read with from here on; by ear, against which rod."""

    means: Means
    reference: int | None = None


@dataclass(frozen=True, slots=True)
class FoundMark:
    """Something found on the way, and whether it was put right on the bench."""

    finding: str
    degree: int
    place: Place
    note: str
    step: str
    event_id: str
    by: str
    at: datetime
    put_right: bool = False


@dataclass(frozen=True, slots=True)
class Answer:
    """What was answered: names of answers or own words; with `amount`, hertz or metres, where it was typed to be read."""

    values: tuple[str, ...]
    amount: float | None = None


@dataclass(slots=True)
class BenchState:
    """Where a job stands.

    Attributes
    ----------
    done : step id → mark of its completion
    laps : step id → passes or rounds so far
    rests : step id → when the rest ends
    found : entry id → what was found
    answers : question → what was answered last
    slots : what each thing was last written by
    """

    plan: Plan
    done: dict[str, Mark[None]] = field(default_factory=dict)
    laps: dict[str, list[Lap]] = field(default_factory=dict)
    rests: dict[str, datetime] = field(default_factory=dict)
    targets: dict[Side, Mark[Pitch | None]] = field(default_factory=dict)
    targets_typed: dict[Side, str] = field(default_factory=dict)
    step_size: Mark[Turns] | None = None
    read_with: Mark[ReadWith] | None = None
    uneven: dict[Side, Mark[tuple[OnPurpose | None, int]]] = field(default_factory=dict)
    cadence_up: Cadence | None = None
    cadence_down: Cadence | None = None
    found: dict[str, FoundMark] = field(default_factory=dict)
    answers: dict[str, Mark[Answer]] = field(default_factory=dict)
    notes: list[Mark[str]] = field(default_factory=list)
    lent: list[Mark[tuple[str, str, int | None]]] = field(default_factory=list)
    """What was borrowed, from which drum by its tag, and which rod of its batter, where that was said."""
    closed: Mark[str] | None = None
    live: list[Logged] = field(default_factory=list)
    slots: dict[str, Logged] = field(default_factory=dict)
    last_seq: int = 0

    @property
    def steps(self) -> tuple[StepPlan, ...]:
        """The steps that show: those whose condition holds, and those already done."""
        facts = self.facts
        return tuple(step for step in self.plan.steps if step.id in self.done or step.shows(facts))

    @property
    def facts(self) -> tuple[FoundThing, ...]:
        """What conditions ask about: what was found, and what was chosen."""
        chosen = (Chosen(name, value) for name, mark in self.answers.items() for value in mark.value.values)
        return (*self.found.values(), *chosen)

    @property
    def now(self) -> StepPlan | None:
        """The first step not done, or None when all are."""
        return next((step for step in self.steps if step.id not in self.done), None)

    @property
    def step(self) -> Turns:
        """The finest turn this job works in."""
        return self.step_size.value if self.step_size else self.plan.ways.step

    @property
    def means(self) -> Means:
        """What the rods are read with now."""
        return self.read_with.value.means if self.read_with else self.plan.ways.means

    def cadence(self, down: bool) -> Cadence:
        """How turns are confirmed now, slackening or tightening."""
        if down:
            return self.cadence_down or self.plan.ways.slacken_by
        return self.cadence_up or self.plan.ways.cadence

    def reference(self, side: Side) -> int:
        """By ear, the rod the others are compared with."""
        chosen = self.read_with.value.reference if self.read_with else None
        order = self.tapping_order(side)
        return chosen if chosen in order else order[0]

    def target(self, side: Side) -> Pitch | None:
        """The wanted pitch of this head; None holds the mean of the first round."""
        mark = self.targets.get(side)
        return mark.value if mark else None

    def aim(self, side: Side) -> Pitch | None:
        """What the rods are brought to now: the wanted pitch, or above it by what a new head will settle."""
        target, above = self.target(side), self.plan.above_cents.get(side, 0.0)
        return target.raised(Interval(above)) if target and above else target

    def lost_since(self, side: Side) -> frozenset[int]:
        """Rods found missing on the way and not put back."""
        return frozenset(
            each.place.rod
            for each in self.found.values()
            if each.finding == LOST and not each.put_right and each.place.side == side and each.place.rod is not None
        )

    def layout(self, side: Side) -> RodLayout:
        """The head's rods as they are now; BadEvent on a drum that has none."""
        begun, gone = self.plan.layout(side), self.lost_since(side)
        if not gone:
            return begun
        return RodLayout(begun.count, begun.lost | gone, begun.beside_bed, begun.beside_port)

    def tapping_order(self, side: Side) -> tuple[int, ...]:
        gone = self.lost_since(side)
        return tuple(rod for rod in self.plan.tapping_order(side) if rod not in gone)

    def turning_order(self, side: Side) -> tuple[int, ...]:
        gone = self.lost_since(side)
        return tuple(rod for rod in self.plan.turning_order(side) if rod not in gone)

    def left_uneven(self, side: Side) -> Deliberate | None:
        """What is to be left uneven on purpose."""
        mark = self.uneven.get(side)
        kind, start = mark.value if mark else (None, 1)
        if kind is None:
            return None
        return leave_uneven(self.layout(side), kind, start)

    def lap(self, step_id: str, number: int) -> Lap:
        """The lap, or BadEvent when it has not come yet."""
        laps, title = self.laps.get(step_id), self.plan.step(step_id).title
        if laps is None:
            raise BadEvent(f"“{title}” has no rods to turn or read.", step=step_id)
        if not 0 <= number < len(laps):
            raise BadEvent(f"“{title}” has no round {number + 1} yet.", step=step_id, lap=number)
        return laps[number]

    def has_lap(self, step_id: str, number: int) -> bool:
        """An undone plan may leave later entries without their round; they stay in the log, out of the count."""
        return 0 <= number < len(self.laps.get(step_id, ()))

    def tally(self, side: Side) -> Mapping[int, Turns] | None:
        """Turns of each rod since finger-tight, or None when this job did not count from there."""
        since = self._since_zero(side)
        if since is None:
            return None
        total = {rod: Turns(0) for rod in self.layout(side).rods}
        for step in since:
            for lap in self.laps.get(step.id, ()):
                for rod, mark in lap.turned.items():
                    if rod in total:
                        total[rod] += mark.value or Turns(0)
        return total

    def _since_zero(self, side: Side) -> tuple[StepPlan, ...] | None:
        """Steps of this head after the one its turns count from; None where that is not done, or is none."""
        steps = self.plan.steps
        zero = next((number for number, step in enumerate(steps) if step.zero and step.side is side), None)
        if zero is None or steps[zero].id not in self.done:
            return None
        return tuple(step for step in steps[zero + 1 :] if step.side is side)

    def meant(self, side: Side) -> Mapping[int, Turns] | None:
        """What each rod was meant to have been turned since finger-tight: what the passes asked, and what is left uneven on purpose.
        None where turns were not counted. What clearing turned is not in it: that was turned to even the head, and counts as pull.

        A pass that goes on until something shows, or eases some rods, is meant to do what it did; one that was left out as a whole
        was not meant.
        """
        since = self._since_zero(side)
        if since is None:
            return None
        rods = self.layout(side).rods
        total, eased = {rod: Turns(0) for rod in rods}, set[int]()
        for step in since:
            for lap in self.laps.get(step.id, ()) if step.kind == "passes" else ():
                if not lap.made():
                    continue
                some_down = lap.each is not None and lap.each.thirtyseconds < 0 and not set(rods) <= set(lap.order)
                for rod in lap.rods:
                    made = lap.turned[rod].value if rod in lap.turned and (lap.until or some_down) else lap.each
                    if rod in total:
                        total[rod] += made or Turns(0)
                eased |= set(lap.rods) if some_down else set()
        uneven = self.left_uneven(side)
        for rod, turns in uneven.turns.items() if uneven else ():
            if rod in total and rod not in eased:
                total[rod] += turns
        return total

    def clearings(self, side: Side | None = None) -> list[str]:
        """Ids of the clearing steps, of one head or of all, in order."""
        return [s.id for s in self.plan.steps if s.kind == "clear" and (side is None or s.side is side)]

    def rounds(self, side: Side) -> list[Lap]:
        """All rounds of one head in which something was read, whatever step they belong to."""
        return [lap for step in self.clearings(side) for lap in self.laps[step] if lap.begun]

    def last_read(self, side: Side) -> Lap | None:
        """The last round of one head with pitches."""
        return next((lap for lap in reversed(self.rounds(side)) if lap.readings), None)

    @property
    def resting_until(self) -> datetime | None:
        """When the rest in hand ends."""
        step = self.now
        return self.rests.get(step.id) if step else None
