"""What walks take in and give out."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, BaseModel, Field

from apps.bench.schemas import Receipt, Sending
from apps.planned.schemas import PlannedLine
from apps.workshops.typed import Line, Name, WorkName
from apps.workshops.wired import union_of
from drumwork.deciding import Verdict
from drumwork.drums import DrumKind, Side
from drumwork.findings import LookedAt, Where
from drumwork.inspecting import ENTRIES
from drumwork.work.plan import Part

if TYPE_CHECKING:

    class WalkBody(Schema):
        kind: str
        drum: str
else:
    WalkBody = union_of(ENTRIES)

Tags = Annotated[list[Annotated[Name, Field(max_length=20)]], Field(max_length=400)]


class WalkIn(Schema):
    """Start a walk. `tags` are the drums in order; where there are none, those that match are taken in order of their tags."""

    id: UUID
    name: Line = Field("", max_length=80)
    tags: Tags = []
    kind: Line = Field("", max_length=20)
    place: Line = Field("", max_length=80)
    kit: Line = Field("", max_length=80)
    going_out: bool = False


class MoreDrums(Schema):
    """One more drum for a walk, by its tag."""

    tag: Annotated[Name, Field(max_length=40)]


class WalkEventIn(BaseModel):
    """One entry. `seen` is the last entry number this device knew when it was made."""

    id: UUID
    device: Name = Field(max_length=40)
    seen: int = Field(ge=0, le=1_000_000_000)
    made_at: AwareDatetime
    v: int = Field(1, ge=1, le=9)
    body: WalkBody


class WalkEventsIn(Sending):
    events: list[WalkEventIn] = Field(min_length=1, max_length=200)


class WalkReceipts(Schema):
    receipts: list[Receipt]
    last_seq: int


class SpotOut(Schema):
    x: float
    y: float


class KnownFinding(Schema):
    """What stands on the drum's record."""

    row: int | None
    finding: str
    degree: int
    side: Side | None
    rod: int | None
    spot: SpotOut | None
    note: str
    by: str
    at: datetime


class HeadOn(Schema):
    """What is fitted on a side, and how old it is."""

    side: Side
    head: str
    months: int | None
    past: bool


class TickOut(Schema):
    """One thing that can be found: its short word, its words, what each degree looks like (one sentence where there is no more or less of it), and
    what usually answers it."""

    id: str
    where: Where
    short: str
    words: str
    answer: str
    degrees: list[str]
    usual: bool


class WalkDrumOut(Schema):
    tag: str
    name: str
    kind: DrumKind
    kind_words: str
    size: str
    place: str
    rods_batter: int
    rods_resonant: int
    lost_batter: list[int]
    lost_resonant: list[int]
    bed_rods: list[int]
    badge: str
    port: bool
    wires: str
    heads: list[HeadOn]
    known: list[KnownFinding]
    last_look: datetime | None


class BecauseOut(Schema):
    part: str
    rule: str
    words: str
    cites: list[str]
    verdict: str


class ChangeOut(Schema):
    part: str
    if_words: str
    verdict: str


class OverruledOut(Schema):
    by: str
    at: datetime
    reason: str
    said: str


class ProposedOut(Schema):
    """Work that answers a verdict."""

    work: WorkName
    part: Part
    title: str
    answers: list[str]
    verdict: str
    due_days: int
    new_heads: list[Side]
    new_wires: bool = False
    tonight: bool = False


class VerdictOut(Schema):
    """What a look came to: `said` by the rules, `stands` after a person overruled any; a short note, and everything it rests on."""

    tag: str
    seq: int
    at: datetime
    by: str
    going_out: bool
    said: dict[str, Verdict]
    stands: dict[str, Verdict]
    words: dict[str, str]
    headline: str
    lines: list[str]
    first: str
    suspect: Side | None
    turn_over: bool
    because: list[BecauseOut]
    would_change: list[ChangeOut]
    overruled: dict[str, OverruledOut]
    works: list[ProposedOut]
    answered: bool = False


class WalkEventOut(Schema):
    id: str
    seq: int
    by: str
    at: datetime
    device: str
    body: WalkBody


class WalkOut(Schema):
    """A walk; asked with `since`, only what came after: drums and vocabulary are told once."""

    id: str
    name: str
    state: Literal["open", "done"]
    going_out: bool
    started_by: str
    started_at: datetime
    last_seq: int
    drums: list[WalkDrumOut]
    events: list[WalkEventOut]
    verdicts: list[VerdictOut]
    ticks: list[TickOut]
    can: dict[str, dict[LookedAt, list[str]]]


class WalkLine(Schema):
    """A walk in the list of walks."""

    id: str
    name: str
    state: Literal["open", "done"]
    started_by: str
    started_at: datetime
    touched_at: datetime
    drums: int
    looked: int
    owed: int


class HeadChoice(Schema):
    """A head on the shelf that fits; `free` are those not promised to another job."""

    stock_item: int
    head: str
    free: int
    shelf: str
    same: bool


class ToPlan(Schema):
    """One drum's work as it can be planned, with the heads that fit each side that gets a new one."""

    tag: str
    name: str
    kind_words: str
    size: str
    headline: str
    works: list[ProposedOut]
    heads: dict[str, list[HeadChoice]]
    now: dict[str, str]


class BuyLine(Schema):
    """Something to buy, how many, and for which drums."""

    what: str
    count: int
    drums: list[str]


class WalkSum(Schema):
    """A walk's end: how many of each verdict, what to plan, what the shelf does not have, what is planned for its drums by now, and which of
    them (tags) were left as they are."""

    words: str
    counts: dict[str, int]
    to_plan: list[ToPlan]
    buy: list[BuyLine]
    left: list[str]
    planned: list[PlannedLine]
    left_so: list[str]


class PlanHead(Schema):
    side: Side
    stock_item: int | None = None


class PlanWork(Schema):
    """One piece of work to plan for a drum of the walk. The device makes the id, so that asking twice plans once."""

    id: UUID
    tag: Annotated[Name, Field(max_length=40)]
    work: WorkName
    part: Part
    due_on: date
    heads: list[PlanHead] = Field(default=[], max_length=2)


class PlanIn(Schema):
    """Work to plan; `leave`: drums whose verdict is answered with nothing."""

    works: list[PlanWork] = Field(default=[], max_length=400)
    leave: Tags = []


class PlannedOut(Schema):
    """What became of each: planned, or why not. One that is refused holds up no other."""

    planned: list[str]
    refused: list[dict[str, Any]]


class TakeBackIn(Schema):
    """Planned work of the walk's drums to be taken back, and drums that were left as they are to be decided anew."""

    planned: list[UUID] = Field(default=[], max_length=400)
    left_so: Tags = []


class RuleOut(Schema):
    """One rule, how often it carried a verdict here, and how often somebody decided otherwise."""

    id: str
    part: str
    when: str
    verdict: str
    verdict_words: str
    urgency: str
    words: str
    cites: list[str]
    overruled: int
    reasons: list[str]
