"""What the bench takes in and gives out."""

from __future__ import annotations

from datetime import datetime
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from apps.bench.event_bodies import BodyIn, MoveIn
from apps.workshops.schemas import TighteningPattern


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
    """One rod as it was read. `shown` is the reading in words; `hz` and `note` are for pitch only; `cents` is from what is wanted."""

    shown: str
    hz: float | None
    typed: str
    note: str
    cents: float | None
    doubtful: bool
    tap: str = ""


class TurnOut(MarkOut):
    """`turns_32` is null where the rod was skipped."""

    turns_32: int | None


class RodOut(Schema):
    """One rod in one lap. `owed_32` is what this lap asks of it (null: nothing asked yet)."""

    rod: int
    owed_32: int | None
    turned: TurnOut | None
    reading: ReadingOut | None
    number: str
    predicted: str
    predicted_cents: float | None
    predicted_sd_cents: float | None
    reference: bool
    why: str


class FindingOut(Schema):
    """Something to look at before turning on."""

    kind: str
    rods: list[int]
    words: str


class PullOut(Schema):
    """The pull at each rod as the engine understands it, in turns away from the mean: what pitch shows, what it cannot."""

    rods: list[int]
    by_pitch: list[float]
    unheard: list[float]
    sd: list[float]
    told_by: list[str]
    clear: bool
    words: str


class PlanOut(MarkOut):
    """What was proposed. Values are in `unit`."""

    means: str
    unit: str
    wanted: float
    spread: float
    allowed: float
    mean: float
    predicted_spread: float
    predicted_mean: float
    approach: str
    rounds_left: float
    chance_even: float
    modal: float
    findings: list[FindingOut]
    pull: PullOut
    clear: bool
    verdict: str
    why: str
    too_coarse: str


class PairOut(Schema):
    """What all taps of a round say together: the split pair, and the line the lower one rings along, degrees clockwise from the badge."""

    lower_hz: float
    upper_hz: float
    axis_deg: float


class CentreOut(MarkOut):
    """The drum's note in the middle."""

    hz: float
    note: str


class TappedOut(Schema):
    """The round was tapped otherwise than asked: what happened, and which rod each reading belongs to."""

    words: str
    certain: bool
    moves: list[MoveIn]


class LapOut(Schema):
    each_32: int | None
    order: list[int]
    rods: list[RodOut]
    plan: PlanOut | None
    wanted_hz: float | None
    whole: str
    pair: PairOut | None
    centre: CentreOut | None
    tapped: TappedOut | None
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
    target_words: str
    settling_words: str
    simulated: bool
    other_head: bool
    means: str
    reference: int | None
    uneven: str
    uneven_words: str
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
