"""The shelf on the wire."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from apps.workshops.typed import Line, Name
from drumwork.shelf import EXPLAINED, MOST, Readiness, Sort

SortName = Literal["head", "wires", "rod", "claw", "part"]
Explained = Literal["", "bought", "miscounted"]
assert set(SortName.__args__) == set(Sort)  # type: ignore[attr-defined]
assert set(Explained.__args__) == {"", *EXPLAINED}  # type: ignore[attr-defined]
Shelved = Annotated[Line, Field(max_length=20)]
Batch = Annotated[Line, Field(max_length=30)]
Words = Annotated[Line, Field(max_length=200)]
Pieces = Annotated[int, Field(ge=1, le=MOST)]
Ready = Literal["promised", "free", "short", "nothing"]
assert set(Ready.__args__) == {*Readiness, "nothing"}  # type: ignore[attr-defined]


class ShelfRow(Schema):
    """One line: how many are there, of those promised and free, how many to keep. `owed` says what is to be bought, `said` what else there is to know."""

    id: int
    sort: SortName
    what: str
    size: str
    place: str
    elsewhere: list[str]
    there: int
    promised: int
    free: int
    minimum: int
    used: bool
    owed: str
    said: str


class ReadyPiece(Schema):
    what: str
    place: str
    state: Ready


class ReadyJob(Schema):
    """A planned job, and whether what it needs is there."""

    id: str
    tag: str
    name: str
    title: str
    work: str
    part: str
    due_on: date
    days_late: int
    state: Ready
    pieces: list[ReadyPiece]


class ShelfOut(Schema):
    lines: list[ShelfRow]
    words: str
    by: date
    jobs: list[ReadyJob]
    jobs_words: str
    to_buy: int
    going_back: int
    lent: int


class BuyOut(Schema):
    """So many of one thing, and why."""

    line: int | None
    what: str
    count: int
    due: date | None
    drums: list[str]
    reasons: list[str]


class HeapOut(Schema):
    place: str
    batch: str
    count: int


class MovementOut(Schema):
    """One change of a count; `act` where it can be taken back."""

    act: UUID | None
    why: str
    words: str
    delta: int
    after: int
    place: str
    batch: str
    drum: str
    job: UUID | None
    by: str
    at: datetime


class PromiseOut(Schema):
    tag: str
    name: str
    place: str
    by: str
    at: datetime


class GoesBackOut(Schema):
    id: UUID
    line: int
    called: str
    count: int
    what: str
    words: str
    batch: str
    by: str
    at: datetime


class LoanOut(Schema):
    id: UUID
    what: str
    number: int
    from_words: str
    from_tag: str
    to_words: str
    to_tag: str
    lent_at: datetime
    days: int
    late: bool
    due_on: date | None
    by: str


class ArrivalOut(Schema):
    id: str
    words: str
    look: str


class BareOut(Schema):
    """The note of one bare head of a line."""

    hz: float
    note: str
    heard: bool
    by: str
    at: datetime


class BareIn(Schema):
    id: UUID
    typed: Annotated[Name, Field(max_length=20)]


class BareHeard(Schema):
    """The body is one tap as samples; this says how many a second, and names it."""

    id: UUID
    rate: int = Field(ge=8000, le=192_000)


class LineOut(Schema):
    """A line with everything that happened to it."""

    row: ShelfRow
    called: str
    note: str
    heaps: list[HeapOut]
    promises: list[PromiseOut]
    movements: list[MovementOut]
    going_back: list[GoesBackOut]
    loans: list[LoanOut]
    codes: list[str]
    arrivals: list[ArrivalOut]
    bare: list[BareOut]
    foretells: str


class HeadFacts(Schema):
    """What a new line of heads is made of."""

    plies: int = Field(1, ge=1, le=4)
    film_mil: float = Field(10, gt=0, le=40, allow_inf_nan=False)
    finish: Literal["clear", "coated", "smooth-white", "ebony", "fibre", "suede", "mesh", "skin"] = "clear"
    damping: Literal["none", "edge-ring", "dot", "foam"] = "none"
    vent: bool = False
    side: Literal["batter", "resonant", "either"] = "either"


class WireFacts(Schema):
    strands: int = Field(20, ge=2, le=60)
    tie: Literal["cord", "strap"] = "cord"
    made: Literal["coiled", "cable", "gut"] = "coiled"


class LineIn(Schema):
    """A new line. `name` of a head or of wires is one the workshop knows, or a new one with what it is made of."""

    id: UUID
    sort: SortName
    name: Annotated[Name, Field(max_length=60)]
    size: Annotated[Line, Field(max_length=20)] = ""
    used: bool = False
    count: int = Field(0, ge=0, le=MOST)
    minimum: int = Field(0, ge=0, le=MOST)
    place: Shelved = ""
    note: Words = ""
    head: HeadFacts | None = None
    wires: WireFacts | None = None


class LineEdit(Schema):
    minimum: int = Field(ge=0, le=MOST)
    place: Shelved = ""
    note: Words = ""


class StockMoveIn(Schema):
    """What happened to a line. `id` is made by the device, so that asking twice does it once."""

    id: UUID
    why: Literal["bought", "brought-back", "fitted", "written-off", "counted", "moved"]
    number: int = Field(ge=0, le=MOST)
    place: Shelved = ""
    batch: Batch = ""
    to: Shelved = ""
    words: Words = ""
    drum: Annotated[Line, Field(max_length=20)] = ""
    explained: Explained = ""


class GoesBackIn(Schema):
    id: UUID
    number: Pieces
    what: Annotated[Line, Field(max_length=20)]
    batch: Batch = ""
    place: Shelved = ""
    words: Words = ""


class GoesBackEnd(Schema):
    ended: Literal["sent", "kept", "thrown"]


class LoanIn(Schema):
    """A part lent: from a drum by its tag, from a line of the shelf, or from elsewhere in words; to a drum or to somebody."""

    id: UUID
    what: Annotated[Line, Field(max_length=60)] = ""
    number: int = Field(1, ge=1, le=99)
    from_tag: Annotated[Line, Field(max_length=20)] = ""
    from_rod: Annotated[int, Field(ge=1, le=32)] | None = None
    line: int | None = None
    to_tag: Annotated[Line, Field(max_length=20)] = ""
    to_words: Annotated[Line, Field(max_length=60)] = ""
    due_on: date | None = None
    explained: Explained = ""


class LoanEnd(Schema):
    ended: Literal["back", "lost", "kept"]


class CountSaid(Schema):
    line: int
    count: int = Field(ge=0, le=MOST)
    batch: Batch = ""


class CountIn(Schema):
    """A place counted: what was said of each line that was looked at there."""

    id: UUID
    place: Shelved = ""
    said: Annotated[list[CountSaid], Field(min_length=1, max_length=2000)]


class CountDiff(Schema):
    line: int
    called: str
    was: int
    now: int


class CountOut(Schema):
    place: str
    looked_at: int
    differ: list[CountDiff]


class PlaceOut(Schema):
    """A place of the shelf: what should lie there, and when it was last counted."""

    place: str
    lines: list[PlaceLine]
    counted_at: datetime | None
    counted_by: str


class PlaceLine(Schema):
    line: int
    called: str
    batch: str
    count: int


class FoundCode(Schema):
    """What a label is of: a line, or a place that lies on the shelf; neither where nobody said yet."""

    line: int | None = None
    called: str = ""
    place: str = ""


class CodeIn(Schema):
    code: Annotated[Name, Field(max_length=60)]


PlaceOut.model_rebuild()
