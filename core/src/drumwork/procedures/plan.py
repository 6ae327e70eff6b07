"""The plan of one bench job: its steps in order, fixed when the job is started."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from drumwork.errors import BadEvent
from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.rods.passes import PassPlan
from drumwork.rods.patterns import Pattern, order_rods

__all__ = ["DrumKind", "HeadJob", "JobPlan", "LogoPlace", "PassPlan", "Side", "Step", "StepKind", "Stretch", "Ways"]


class DrumKind(StrEnum):
    """Kinds of drum (trade §4)."""

    SNARE = "snare"
    RACK_TOM = "rack-tom"
    FLOOR_TOM = "floor-tom"
    BASS = "bass"
    MARCHING_BASS = "marching-bass"
    MARCHING_SNARE = "marching-snare"
    ORCHESTRAL_SNARE = "orchestral-snare"
    PRACTICE_MESH = "practice-mesh"
    ROPE_BASS = "rope-bass"


class Side(StrEnum):
    BATTER = "batter"
    RESONANT = "resonant"


class StepKind(StrEnum):
    """What a step asks for: a tick, turns rod by rod, clearing rounds, a rest, or closing the job."""

    TICK = "tick"
    PASSES = "passes"
    CLEAR = "clear"
    REST = "rest"
    CLOSE = "close"


class Stretch(StrEnum):
    """Schools of seating (trade §17.2)."""

    PALM = "palm"
    OVER_TENSION = "over-tension"
    BARELY = "barely"


class LogoPlace(StrEnum):
    """Where this workshop puts the head's logo (trade §17.4)."""

    BADGE = "badge"
    BETWEEN_LUGS = "between-lugs"
    TWELVE = "twelve-oclock"
    THROW_OFF = "throw-off"
    OPPOSITE_LEG = "opposite-leg"


@dataclass(frozen=True, slots=True)
class Ways:
    """A workshop's own choices where the trade disagrees (trade §17)."""

    pattern: Pattern = Pattern.STAR
    step: Turns = field(default_factory=lambda: Turns.of(1, 16))
    stretch: Stretch = Stretch.PALM
    logo: LogoPlace = LogoPlace.BADGE
    grease_dry_threads: bool = True
    rest_minutes: int = 30
    tap_round: bool = True


@dataclass(frozen=True, slots=True)
class HeadJob:
    """What is being worked on."""

    kind: DrumKind
    side: Side
    layout: RodLayout
    new_head: str = ""
    old_head: str = ""


@dataclass(frozen=True, slots=True)
class Step:
    """One step: a short title for the list, one instruction to read aloud, points to look at, cautions before it."""

    id: str
    title: str
    kind: StepKind
    say: str
    points: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    passes: tuple[PassPlan, ...] = ()
    more_pass: Turns | None = None
    minutes: int = 0


@dataclass(frozen=True, slots=True)
class JobPlan:
    """Steps of one job. `counts_from_fingers` names the step after which turns count toward the tally, if any."""

    procedure: str
    title: str
    job: HeadJob
    ways: Ways
    steps: tuple[Step, ...]
    counts_from_fingers: str | None = None

    def step(self, step_id: str) -> Step:
        for each in self.steps:
            if each.id == step_id:
                return each
        raise BadEvent(f"This job has no step “{step_id}”.", step=step_id)

    @property
    def turning_order(self) -> tuple[int, ...]:
        return order_rods(self.job.layout, self.ways.pattern)

    @property
    def tapping_order(self) -> tuple[int, ...]:
        """Straight round, where the next place is plain to see; or as the rods are turned, where the workshop wants that."""
        return self.job.layout.rods if self.ways.tap_round else self.turning_order
