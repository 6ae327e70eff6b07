"""What the bench takes in and gives out."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, BaseModel, Field, model_validator

from apps.bench.stored import upcast_entry
from apps.bench.wire import BodyIn, MoveIn
from apps.workshops.typed import Name, WorkName
from drumwork.drums import DrumKind, Side
from drumwork.findings import Follow, Where
from drumwork.rods.clearing import FindingKind, Means
from drumwork.work.asks import Unit
from drumwork.work.kinds.steps import StepKind
from drumwork.work.log import Standing
from drumwork.work.pictures import Picture
from drumwork.work.plan import Part
from drumwork.work.ways import Cadence


class StartHead(Schema):
    """One head of a job: from which stock, or what it is where it does not come from the shelf; why the old one goes, and the wanted pitch as
    typed (empty: the drum's usual one)."""

    side: Side
    stock_item: int | None = None
    named: Annotated[str, Field(max_length=60)] = ""
    reason: str = Field("", max_length=200)
    target: str = Field("", max_length=30)


class ChosenSchool(Schema):
    """One thing this job does otherwise than the workshop."""

    way: str = Field(max_length=30)
    value: str = Field(max_length=30)


class StartJob(Schema):
    """Start a job. The device makes the id, so that asking twice starts one job."""

    id: UUID
    tag: str
    work: WorkName
    part: Part = Part.BATTER
    heads: list[StartHead] = Field(default=[], max_length=2)
    cadence: Cadence | None = None
    schools: list[ChosenSchool] = Field(default=[], max_length=20)
    begun: dict[str, str] = Field(default={}, max_length=8)
    """The drum as the job finds it, where it is not as a player left it: which way up, which head is off, where the wires are."""


class EventIn(BaseModel):
    """One entry. `seen` is the last entry number this device knew when it was made; `v` the shape of its body.

    Entries of shape 1 may still lie on a device that was without network while this server was renewed.
    """

    id: UUID
    device: Name = Field(max_length=40)
    seen: int = Field(ge=0, le=1_000_000_000)
    made_at: AwareDatetime
    v: int = Field(1, ge=1, le=2)
    body: BodyIn

    @model_validator(mode="before")
    @classmethod
    def _renew(cls, sent: Any) -> Any:
        body = sent.get("body") if isinstance(sent, dict) else None
        if not isinstance(body, dict) or sent.get("v", 1) != 1 or not isinstance(body.get("kind"), str):
            return sent
        try:
            return {**sent, "v": 2, "body": upcast_entry(body)}
        except (KeyError, TypeError, AttributeError, ValueError) as error:
            raise ValueError("An entry of the first shape lacks what it needs.") from error


class Sending(Schema):
    """What every sending of entries says beside them: `sent_at`, the device's clock meanwhile. By it a clock that is off is told from work
    that waited for the network."""

    sent_at: AwareDatetime | None = None


class EventsIn(Sending):
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


class PointOut(Schema):
    """One thing to look at, or to have to hand; `when` is true, or findings joined by all, any, not."""

    text: str
    when: Any


class PassOut(Schema):
    each_32: int
    order: list[int]
    until: str


class OptionOut(Schema):
    """One answer to a question."""

    value: str
    words: str


class QuestionOut(Schema):
    """Something a step asks: one of its options, several (`many`), one's own words (`own`), or a pitch, length or number typed (`unit`)."""

    name: str
    words: str
    options: list[OptionOut]
    many: bool
    own: bool
    unit: Unit
    needed: bool


Photographs = Literal["take", "look", "none"]
"""Whether a step is where a photo is taken of how things sat, or where one looks at it again."""


class StepOut(Schema):
    """One step of the plan, as the job began. `when` decides whether it shows. `zero`: from its end turns of its side are counted."""

    id: str
    title: str
    kind: StepKind
    side: Side | None
    say: str
    points: list[PointOut]
    tools: list[PointOut]
    cautions: list[str]
    when: Any
    minutes: int
    passes: list[PassOut]
    more_pass_32: int | None
    enough: str
    down: bool
    again: bool
    zero: bool
    lays_out: bool
    photo: Photographs
    looks_at: list[Where]
    picture: Picture
    picture_words: str
    asks: list[QuestionOut]
    recalls: list[str]
    why: str


class EntryOut(Schema):
    """One entry of the log, with what it says in words."""

    id: str
    seq: int
    by: str
    at: datetime
    device: str
    standing: Standing
    against: str | None
    words: str
    body: BodyIn


class ReadingFigures(Schema):
    """What a reading comes to: `cents` from what is wanted."""

    entry: str
    rod: int
    shown: str
    hz: float | None
    note: str
    cents: float | None
    doubtful: bool


class FindingOut(Schema):
    """Something the clearing noticed, to look at before turning on."""

    kind: FindingKind
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


class PlannedRod(Schema):
    rod: int
    turns_32: int
    predicted: str
    predicted_cents: float
    predicted_sd_cents: float
    why: str


class PlanFigures(Schema):
    """What was proposed after a round, or (with `ask`) what is left of one after a tap between its turns. Values are in `unit`."""

    entry: str
    means: Means
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
    chance_now: float
    ask: Literal["", "turn", "round", "done"]
    modal: float
    findings: list[FindingOut]
    pull: PullOut
    clear: bool
    even: bool | None
    at_pitch: bool | None
    verdict: str
    why: str
    too_coarse: str
    rods: list[PlannedRod]


class PairOut(Schema):
    """What all taps of a round say together: the split pair, and the line the lower one rings along, degrees clockwise from the badge."""

    lower_hz: float
    upper_hz: float
    axis_deg: float


class TappedOut(Schema):
    """The round was tapped otherwise than asked: what happened, and which rod each reading belongs to."""

    words: str
    certain: bool
    moves: list[MoveIn]


class RoundFigures(Schema):
    """What a round says as a whole, as long as its readings are those of the entries in `of`."""

    step: str
    lap: int
    of: list[str]
    wanted_hz: float | None
    pair: PairOut | None
    tapped: TappedOut | None
    compared: str


class PitchFigures(Schema):
    """A pitch that was typed: the wanted one, or the drum's note in the middle."""

    entry: str
    hz: float | None
    note: str


class UnevenFigures(Schema):
    entry: str
    words: str


class ToldFigures(Schema):
    """What the answers so far come to, said at a step that asks."""

    step: str
    words: str


class LeftSo(Schema):
    """Something the drum's record keeps of how it was left."""

    name: str
    words: str


class Figures(Schema):
    """Everything the server worked out, by the entry it belongs to. Of the plans of what was left of a round only the last is told; `planned_taps`
    are the taps of all of them, `last_taps` those after which nothing was left to turn."""

    readings: list[ReadingFigures]
    plans: list[PlanFigures]
    rounds: list[RoundFigures]
    pitches: list[PitchFigures]
    uneven: list[UnevenFigures]
    told: list[ToldFigures]
    planned_taps: list[str]
    last_taps: list[str]


class ConflictOut(Schema):
    """Two entries about one thing, made without knowing of each other. The first stands until someone decides."""

    event: str
    about: str
    first: str
    second: str
    can_be_both: bool


class HeadOut(Schema):
    """One head of the job, as it began: its rods, the orders they go in, what goes on and comes off; on which shelf the new one lies and how
    many are left there."""

    side: Side
    new_head: str
    old_head: str
    reason: str
    rods: int
    lost: list[int]
    beside_bed: list[int]
    beside_port: list[int]
    pairs: list[list[int]]
    tapping_order: list[int]
    turning_order: list[int]
    pattern_note: str
    shelf: str
    left: int | None
    above_cents: float
    target_words: str
    settling_words: str


class AsideOut(Schema):
    """Who put a job aside, when, and why."""

    by: str
    at: datetime
    because: str


class AsideIn(Schema):
    because: Name = Field(max_length=200)


class BenchShell(Schema):
    """What a job is about, without its plan and its log."""

    id: str
    tag: str
    name: str
    kind: DrumKind
    kind_words: str
    size: str
    part: Part
    work: WorkName
    title: str
    changes_heads: bool
    books_check: bool
    state: Literal["open", "closed", "aside"]
    aside: AsideOut | None
    where: str
    opened_by: str
    opened_at: datetime
    badge: str
    snare: bool
    pattern: str
    step_32: int
    means: Means
    cadence: Cadence
    slacken_by: Cadence
    simulated: bool
    other_head: bool
    heads: list[HeadOut]
    conflicts: list[ConflictOut]
    write_on_head: str
    kept: list[LeftSo]
    last_seq: int


class OrdersOut(Schema):
    """In which orders the rods of one head go."""

    side: Side
    pairs: list[list[int]]
    tapping_order: list[int]
    turning_order: list[int]
    pattern_note: str


class PlannedAnew(Schema):
    """What an entry made of the plan; it counts as long as the entry does."""

    entry: str
    pattern: str
    plan: list[StepOut]
    heads: list[OrdersOut]


class ChoiceLeft(Schema):
    """One answer to a quarrel, and what it changes for what is left of a job; `why_not` where it cannot be chosen."""

    value: str
    words: str
    speaks_for: str
    against: str
    adds: list[str]
    leaves_out: list[str]
    alters: list[str]
    fetch: list[str]
    why_not: str


class SchoolLeftOut(Schema):
    """A quarrel that makes a difference to what is left of a job; `now` is how it is done."""

    number: int
    way: str
    question: str
    now: str
    choices: list[ChoiceLeft]


class BenchOut(BenchShell):
    """A job for the device to fold: the plan it began with, the raw log, and the figures by entry."""

    plan: list[StepOut]
    log: list[EntryOut]
    figures: Figures
    anew: list[PlannedAnew] = []


class BenchAnswer(Schema):
    """`bench` is null when nothing happened since the number asked about."""

    last_seq: int
    bench: BenchOut | None


class CanBeFound(Schema):
    """One row of what can be found on a kind of drum."""

    id: str
    where: Where
    words: str
    answer: str
    follow: Follow
    part: str
    degrees: bool


class OfferOut(Schema):
    """One piece of work on one part of a drum; `why_not` is empty where it can be done. `in_hand` is the job that is in the way,
    `usual_first` the one of two heads such a drum wants first."""

    work: WorkName
    title: str
    words: str
    part: Part
    changes_heads: bool
    mesh: bool
    new_wires: bool
    answers_checks: bool
    sides: list[Side]
    usual_first: Side | None
    minutes: int
    why_not: str
    in_hand: str | None


class StandingFinding(Schema):
    """A finding that stands on a drum, and what is owed by it."""

    id: int
    finding: str
    words: str
    place: str
    degree: int
    note: str
    owed: Follow
    answer: str
    found_at: datetime
    by: str
    job_id: str | None
