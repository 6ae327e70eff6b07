"""What can happen on a bench job. Events are facts: they are added, never changed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime

from drumwork.quantities import Pitch, Turns

__all__ = [
    "Event",
    "EventBody",
    "JobClosed",
    "NoteWritten",
    "PassAdded",
    "ReadingTaken",
    "RestStarted",
    "RodSkipped",
    "RodTurned",
    "RoundPlan",
    "RoundPlanned",
    "StepDone",
    "StepSizeChosen",
    "TargetChosen",
    "Undone",
]


@dataclass(frozen=True, slots=True)
class StepDone:
    step: str


@dataclass(frozen=True, slots=True)
class RodTurned:
    """A rod was turned in pass or round `lap` (counted from 0) of a step."""

    step: str
    lap: int
    rod: int
    turns: Turns


@dataclass(frozen=True, slots=True)
class RodSkipped:
    step: str
    lap: int
    rod: int


@dataclass(frozen=True, slots=True)
class PassAdded:
    step: str
    each: Turns


@dataclass(frozen=True, slots=True)
class ReadingTaken:
    lap: int
    rod: int
    pitch: Pitch
    typed: str


@dataclass(frozen=True, slots=True)
class TargetChosen:
    """The pitch to bring the head to; None holds the mean of the first round."""

    pitch: Pitch | None


@dataclass(frozen=True, slots=True)
class StepSizeChosen:
    """The finest turn to work in from here on, in this job."""

    step: Turns


@dataclass(frozen=True, slots=True)
class RoundPlan:
    """What was proposed after a round, as it was shown then."""

    turns: Mapping[int, Turns]
    predicted_hz: Mapping[int, float]
    predicted_sd_hz: Mapping[int, float]
    wanted_hz: float
    spread_hz: float
    allowed_hz: float
    mean_hz: float
    predicted_spread_hz: float
    predicted_mean_hz: float
    clear: bool
    verdict: str
    why_round: str
    why_rod: Mapping[int, str]
    too_coarse: str = ""


@dataclass(frozen=True, slots=True)
class RoundPlanned:
    lap: int
    plan: RoundPlan


@dataclass(frozen=True, slots=True)
class RestStarted:
    minutes: int


@dataclass(frozen=True, slots=True)
class NoteWritten:
    text: str


@dataclass(frozen=True, slots=True)
class Undone:
    event_id: str


@dataclass(frozen=True, slots=True)
class JobClosed:
    reason: str = ""


EventBody = (
    StepDone
    | RodTurned
    | RodSkipped
    | PassAdded
    | ReadingTaken
    | TargetChosen
    | StepSizeChosen
    | RoundPlanned
    | RestStarted
    | NoteWritten
    | Undone
    | JobClosed
)


@dataclass(frozen=True, slots=True)
class Event:
    """One event as it stands in the job's log."""

    id: str
    seq: int
    by: str
    at: datetime
    body: EventBody = field(repr=True)
