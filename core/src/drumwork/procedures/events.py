"""What can happen on a bench job. Events are facts: they are added, never changed."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from datetime import datetime

from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingTask, Ear, Means, Proposal, cents_read
from drumwork.rods.deliberate import OnPurpose

__all__ = [
    "Event",
    "EventBody",
    "JobClosed",
    "LeftUneven",
    "MeansChosen",
    "Noted",
    "NoteWritten",
    "PassAdded",
    "Pull",
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
    "WholeJudged",
    "round_plan",
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
    """`value` is a pitch, a judgement by ear, or a gauge's or key's number; `doubtful` ones count for little.

    `partials` are what a heard tap rang with, as (hz, amplitude); `tap` names it where it was kept.
    """

    lap: int
    rod: int
    value: Pitch | Ear | float
    typed: str
    doubtful: bool = False
    partials: tuple[tuple[float, float], ...] = ()
    tap: str = ""


@dataclass(frozen=True, slots=True)
class ReadingsMoved:
    """The round was tapped in another order: what was read for the first rod of each pair belongs to the second. Rods left without are unread again."""

    lap: int
    moves: tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class CentreRead:
    """The drum's note, tapped in the middle."""

    lap: int
    pitch: Pitch
    typed: str


@dataclass(frozen=True, slots=True)
class MeansChosen:
    """What the rods are read with from here on; by ear, against which rod."""

    means: Means
    reference: int | None = None


@dataclass(frozen=True, slots=True)
class WholeJudged:
    """By ear: the whole head against the wanted tone."""

    lap: int
    judged: Ear


@dataclass(frozen=True, slots=True)
class LeftUneven:
    """What is left uneven on purpose, from which rod; None for even everywhere."""

    kind: OnPurpose | None
    start: int = 1


@dataclass(frozen=True, slots=True)
class TargetChosen:
    """The pitch to bring the head to; None holds the mean of the first round."""

    pitch: Pitch | None


@dataclass(frozen=True, slots=True)
class StepSizeChosen:
    """The finest turn to work in from here on, in this job."""

    step: Turns


@dataclass(frozen=True, slots=True)
class Noted:
    """A finding as it was shown: its kind, the rods it is about, and the sentence."""

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
    """What was proposed after a round, as it was shown then. Values are in `unit`: hertz, cents by ear, or a bare number."""

    means: Means
    unit: str
    turns: Mapping[int, Turns]
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


def round_plan(task: ClearingTask, found: Proposal) -> RoundPlan:
    """A proposal as a job remembers it, rounded to what is worth keeping."""
    rods = task.layout.rods

    def by_rod(values: Iterable[float]) -> dict[int, float]:
        return {rod: round(float(value), 3) for rod, value in zip(rods, values, strict=True)}

    each, tension = found.predicted.values(), found.tension
    return RoundPlan(
        means=task.means,
        unit=found.verdict.unit,
        turns=found.turns,
        predicted=by_rod(p.value for p in each),
        predicted_sd=by_rod(p.sd for p in each),
        predicted_cents=by_rod(p.cents for p in each),
        predicted_sd_cents=by_rod(p.sd_cents for p in each),
        read_cents={rod: round(cents, 1) for rod, cents in cents_read(task).items()},
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
    )


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
    | ReadingsMoved
    | CentreRead
    | MeansChosen
    | WholeJudged
    | LeftUneven
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
