"""What call-outs take in and give out."""

from __future__ import annotations

from datetime import date, datetime
from typing import TYPE_CHECKING, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, BaseModel, Field

from apps.bench.schemas import Receipt, Sending
from apps.workshops.typed import Line, Name
from apps.workshops.wired import union_of
from drumwork.callout import CALLOUT_ENTRIES
from drumwork.drums import DrumKind, Side
from drumwork.kits import Role

if TYPE_CHECKING:

    class CallOutBody(Schema):
        kind: str
else:
    CallOutBody = union_of(CALLOUT_ENTRIES)


class CallOutIn(Schema):
    """A call-out to a kit. The device makes the id, so that asking twice begins one."""

    id: UUID
    kit: int
    at: Line = Field("", max_length=80)
    show_at: AwareDatetime | None = None
    minutes: float = Field(ge=0, le=600)


class CallOutEventIn(BaseModel):
    """One entry. `seen` is the last entry number this device knew when it was made."""

    id: UUID
    device: Name = Field(max_length=40)
    seen: int = Field(ge=0, le=1_000_000_000)
    made_at: AwareDatetime
    v: int = Field(1, ge=1, le=9)
    body: CallOutBody


class CallOutEventsIn(Sending):
    events: list[CallOutEventIn] = Field(min_length=1, max_length=200)


class CallOutReceipts(Schema):
    receipts: list[Receipt]
    last_seq: int


class TickOffered(Schema):
    finding: str
    side: str
    words: str
    rod: bool
    usual: bool
    degree: int


class CallOutDrumOut(Schema):
    """A drum of the book; tag "" is the stands."""

    tag: str
    name: str
    kind: DrumKind | None
    role: Role | None
    rods_batter: int
    rods_resonant: int
    bed_rods: list[int]
    ticks: list[TickOffered]
    size: str
    thread: str
    note: str


class GivenOut(Schema):
    giver: str
    giver_name: str
    giver_rods: int
    giver_rod: int
    taker: str
    taker_side: Side
    taker_rods: int
    taker_rod: int


class CallOutStep(Schema):
    """One thing that can be done in minutes: see `drumwork.callout.Step`."""

    id: str
    drum: str
    title: str
    beside: str
    did: str
    why: str
    minutes: float
    worth: float
    phase: int
    when: list[str]
    unless: list[str]
    after: list[str]
    uses: list[str]
    mends: list[str]
    stop_gap: bool
    gives: GivenOut | None
    caution: str


class BookOut(Schema):
    drums: list[CallOutDrumOut]
    known: list[str]
    steps: list[CallOutStep]
    refused: list[str]


class BagOut(Schema):
    """A part to bring, how many, and what says so."""

    part: str
    number: int
    why: str


class TickNotedOut(Schema):
    drum: str
    finding: str
    side: str
    words: str
    at_rod: str
    buys: str
    counts: bool


class LetterFormOut(Schema):
    """Every word of the note to the owner that does not come from the log: see `drumwork.callout.LetterForm`."""

    subject: str
    opening: str
    found: str
    nothing: str
    prices: str
    lent: str
    makers: str
    signed: str
    ticks: list[TickNotedOut]


class CallOutEventOut(Schema):
    id: str
    seq: int
    by: str
    at: datetime
    device: str
    body: CallOutBody


class CallOutOut(Schema):
    """A call-out; asked with `since`, only the entries after that one, and no book, bag or form."""

    id: str
    kit: int | None
    name: str
    at: str
    show_at: datetime | None
    minutes: float
    last_seq: int
    owing: int
    events: list[CallOutEventOut]
    book: BookOut | None
    bag: list[BagOut]
    form: LetterFormOut | None


class CallOutLine(Schema):
    """A call-out in the list: coming, going on, or over."""

    id: str
    name: str
    at: str
    show_at: datetime | None
    minutes: float
    state: Literal["coming", "going-on", "over", "reported", "answered"]
    touched_at: datetime
    owing: int
    by: str


class WorkOfCallOut(Schema):
    """Work planned from what is left."""

    planned: int
    words: list[str]


class PlanCallOutIn(Schema):
    due_on: date
