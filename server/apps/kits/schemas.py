"""Kits in and out. Notes and intervals are typed as text and read by the core."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import BaseModel, Field, FiniteFloat

from apps.planned.schemas import PlannedLine
from apps.workshops.typed import Line, Name, WorkName
from drumwork.drums import DrumKind, Side
from drumwork.kits import Role, Shape

MOST = 40
"""Drums in one kit; the plan takes fewer."""

Tag = Annotated[Name, Field(max_length=20)]
Typed = Annotated[Line, Field(max_length=20)]


class KitMember(Schema):
    """One drum of a kit, by its tag; no role is what such drums usually do."""

    tag: Tag
    role: Role | None = None


class KitIn(Schema):
    """A kit as a person has it: the drums in their row, the highest of each role first."""

    name: Name = Field(max_length=80)
    occasion: Line = Field("", max_length=120)
    at: Line = Field("", max_length=80)
    day: date | None = None
    drums: list[KitMember] = Field(max_length=MOST)


class KitWishes(BaseModel):
    """How a kit should sound. A plain model: it is kept with the kit as it is here.

    `step`: from each tom to the next, an interval's name or cents; empty for none. `notes`: by drum, the note it is to have; `stays`: drums not
    touched; `above`: by drum, how far its resonant stands over its batter, where that is not as the drum has it. `against`: notes of others.
    """

    shape: Shape = Shape.AS_IT_IS
    step: Typed = ""
    tolerance: Annotated[FiniteFloat, Field(ge=1, le=100)] = 10.0
    notes: dict[Tag, Typed] = Field({}, max_length=MOST)
    stays: list[Tag] = Field([], max_length=MOST)
    above: dict[Tag, Typed] = Field({}, max_length=MOST)
    apart: Annotated[FiniteFloat, Field(ge=0, le=400)] = 50.0
    against: list[Typed] = Field([], max_length=12)


class KitLine(Schema):
    """A kit in the list of them, with its drums by name."""

    id: int
    name: str
    occasion: str
    at: str
    day: date | None
    drums: list[str]


class KitHeadNow(Schema):
    """A head as it stands: the last reading since it was fitted, null where there is none; `lowest` and `highest` its film and rods carry."""

    side: Side
    now_hz: float | None
    now_note: str
    lowest_hz: float
    highest_hz: float


class DrumOfKit(Schema):
    """A drum of a kit. `left_out` says why the plan cannot take it; empty where it can. `way_cents` is how far its resonant stands above its batter."""

    tag: str
    name: str
    kind: DrumKind
    kind_words: str
    size: str
    role: Role
    left_out: str
    notes: list[str]
    heads: list[KitHeadNow]
    note_hz: float | None
    way_cents: float
    way_words: str


class KitOut(Schema):
    """A kit as it stands. `a4_hz` is the workshop's reference, by which notes are named; `simulated`: there is a kit to strike without a microphone."""

    id: int
    name: str
    occasion: str
    at: str
    day: date | None
    drums: list[DrumOfKit]
    a4_hz: float
    simulated: bool
    wish: KitWishes


class KitHead(Schema):
    """Where a head goes. `turns_32` is null where nobody read what it stands at; `job` where there is work to be done."""

    side: Side
    hz: float
    note: str
    cents: float | None
    turns_32: int | None
    words: str
    job: bool


class PlacedDrum(Schema):
    tag: str
    note_hz: float
    note: str
    heads: list[KitHead]


class KitStep(Schema):
    upper: str
    lower: str
    cents: float
    words: str
    kept: bool


class TooNear(Schema):
    """Two drums whose notes lie too near each other as they stand; `other` is empty where it is a note given."""

    one: str
    one_hz: float
    other: str
    other_hz: float
    cents: float


class KitPlanOut(Schema):
    """A plan. `work` is what its jobs are; `turns` is the sum over heads of turns of every rod, `bound` the least it could be; there are no places where nothing holds."""

    headline: str
    sum: str
    notes: list[str]
    places: list[PlacedDrum]
    steps: list[KitStep]
    crowded: list[TooNear]
    turns: float
    bound: float
    proved: bool
    impossible: bool
    jobs: int
    minutes: int
    work: WorkName


class HeadWanted(Schema):
    """A head of a drum as the plan on the screen has it; with `job` where it is to be brought there."""

    tag: Tag
    side: Side
    hz: Annotated[FiniteFloat, Field(ge=20, le=2000)]
    job: bool
    why: Line = Field("", max_length=120)


class KitJobsIn(Schema):
    """One press: the jobs of a plan, in this order. Sent twice, they are there once."""

    id: UUID
    heads: list[HeadWanted] = Field(min_length=1, max_length=2 * MOST)


class KitJobsOut(Schema):
    """The jobs that are planned, and what stands in the way of beginning some at once."""

    planned: list[PlannedLine]
    notes: list[str]


class SungOut(Schema):
    """A drum that answers: its note, decibels against the stroke one second after it, and for how long it is heard."""

    tag: str
    name: str
    hz: float
    level_db: float
    seconds: float


class SingMove(Schema):
    """What would let it answer much softer: this drum by so many cents, which gives it this note; or this work, which leaves it uneven."""

    tag: str
    name: str
    cents: float
    note_hz: float
    eased_by: WorkName


class SangOut(Schema):
    """One drum struck, and what was heard of the others; `before` is what answered the time before."""

    struck: str
    at: datetime
    sentences: list[str]
    hand_heard: bool
    answers: list[SungOut]
    move: SingMove | None
    before: list[SungOut]


class DonorOut(Schema):
    """A drum that may give a rod of its batter: which rod, how little it minds, and what its neighbours turn then."""

    tag: str
    name: str
    rod: int
    words: str


class DonorsOut(Schema):
    """Who gives a rod, best first; `need` says how much the head that lacks it suffers, `refused` who could not and why."""

    need: str
    donors: list[DonorOut]
    refused: list[str]
