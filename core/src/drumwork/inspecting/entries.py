"""What a walk's log is made of. Entries are only ever added; one is taken back by another."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Final, Literal

from drumwork.deciding import Verdict
from drumwork.drums import Side
from drumwork.findings import Degree
from drumwork.inspecting.spots import Spot
from drumwork.work.log import WordCount

__all__ = [
    "ENTRIES", "Again", "Changed", "DecidedPart", "GoesOut", "Gone", "Looked", "NotHere", "Overruled", "Seen", "TakenBack", "WalkEntry",
]  # fmt: skip

Tag = Annotated[str, WordCount(1, 40)]
Event = Annotated[str, WordCount(1, 40)]
Rows = Annotated[tuple[int, ...], WordCount(1, 200)]
DecidedPart = Literal["batter", "resonant", "wires", "hardware"]


@dataclass(frozen=True)
class WalkEntry:
    """One entry of a walk, about the drum with this tag."""

    kind: ClassVar[str]
    drum: Tag


@dataclass(frozen=True)
class Seen(WalkEntry):
    """Something seen or heard: what, how bad, and where on the drum as far as it was said."""

    kind: ClassVar[str] = "seen"
    finding: Annotated[str, WordCount(1, 40)]
    degree: Degree
    side: Side | None = None
    rod: int | None = None
    spot: Spot | None = None
    note: Annotated[str, WordCount(0, 300)] = ""


@dataclass(frozen=True)
class Changed(WalkEntry):
    """What was seen before, said better: another degree, its place, a word about it. What is None stays."""

    kind: ClassVar[str] = "changed"
    event: Event
    degree: Degree | None = None
    rod: int | None = None
    spot: Spot | None = None
    note: Annotated[str, WordCount(0, 300)] | None = None


@dataclass(frozen=True)
class Again(WalkEntry):
    """What stands on record is still so; `rows` are the record's findings."""

    kind: ClassVar[str] = "again"
    rows: Rows


@dataclass(frozen=True)
class Gone(WalkEntry):
    """What stands on record is no longer so."""

    kind: ClassVar[str] = "gone"
    rows: Rows


@dataclass(frozen=True)
class GoesOut(WalkEntry):
    """Whether the drum goes out next, which makes some things urgent."""

    kind: ClassVar[str] = "goes_out"
    out: bool


@dataclass(frozen=True)
class Looked(WalkEntry):
    """The look at this drum is done; with nothing seen before it, nothing was found."""

    kind: ClassVar[str] = "looked"


@dataclass(frozen=True)
class NotHere(WalkEntry):
    """The drum is not where the walk looked for it."""

    kind: ClassVar[str] = "not_here"


@dataclass(frozen=True)
class Overruled(WalkEntry):
    """A person decides otherwise than the rules, with the reason."""

    kind: ClassVar[str] = "overruled"
    part: DecidedPart
    verdict: Verdict
    reason: Annotated[str, WordCount(1, 200)]


@dataclass(frozen=True)
class TakenBack(WalkEntry):
    """An entry of this walk no longer counts."""

    kind: ClassVar[str] = "taken_back"
    event: Event


ENTRIES: Final[tuple[type[WalkEntry], ...]] = (
    Seen,
    Changed,
    Again,
    Gone,
    GoesOut,
    Looked,
    NotHere,
    Overruled,
    TakenBack,
)
