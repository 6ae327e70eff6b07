"""What a call-out's log is made of. Entries are only ever added."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Final

from drumwork.drums import Side
from drumwork.findings import Degree
from drumwork.work.log import Between, WordCount

__all__ = [
    "CALLOUT_ENTRIES", "OwnerAnswered", "Bagged", "CalloutEntry", "CannotDo", "ClockSet", "DidStep", "SoundsFine", "NotSo", "StepOpenAgain", "ShowBegins", "OwnerTold", "PutOff",
    "Ticked", "TookStep", "WordToOwner",
]  # fmt: skip

Tag = Annotated[str, WordCount(0, 40)]
StepId = Annotated[str, WordCount(1, 120)]


@dataclass(frozen=True)
class CalloutEntry:
    """One entry of a call-out."""

    kind: ClassVar[str]


@dataclass(frozen=True)
class ClockSet(CalloutEntry):
    """So many minutes are left from now: the start, or a show that is late or early."""

    kind: ClassVar[str] = "clock"
    minutes: Annotated[float, Between(0, 600)]


@dataclass(frozen=True)
class Bagged(CalloutEntry):
    """So many of a part are in the bag."""

    kind: ClassVar[str] = "bagged"
    part: Annotated[str, WordCount(1, 60)]
    count: Annotated[int, Between(0, 999)]


@dataclass(frozen=True)
class Ticked(CalloutEntry):
    """Something is wrong at a drum; tag "" for the stands."""

    kind: ClassVar[str] = "ticked"
    drum: Tag
    finding: Annotated[str, WordCount(1, 40)]
    side: Side | None = None
    rod: int | None = None
    degree: Degree = 2


@dataclass(frozen=True)
class NotSo(CalloutEntry):
    """It is not so, or no longer: what was ticked, or what stood on the record."""

    kind: ClassVar[str] = "not_so"
    drum: Tag
    finding: Annotated[str, WordCount(1, 40)]
    side: Side | None = None
    rod: int | None = None


@dataclass(frozen=True)
class SoundsFine(CalloutEntry):
    """Looked at and struck: it sounds fine, or nothing is wrong but what was ticked."""

    kind: ClassVar[str] = "fine"
    drum: Tag


@dataclass(frozen=True)
class TookStep(CalloutEntry):
    """This device has that step in hand; it has one at a time."""

    kind: ClassVar[str] = "took"
    step: StepId


@dataclass(frozen=True)
class DidStep(CalloutEntry):
    """The step is done."""

    kind: ClassVar[str] = "done"
    step: StepId


@dataclass(frozen=True)
class PutOff(CalloutEntry):
    """Not now; it comes back when nothing else is left."""

    kind: ClassVar[str] = "skipped"
    step: StepId


@dataclass(frozen=True)
class CannotDo(CalloutEntry):
    """It cannot be done tonight."""

    kind: ClassVar[str] = "cannot"
    step: StepId
    words: Annotated[str, WordCount(0, 200)] = ""


@dataclass(frozen=True)
class StepOpenAgain(CalloutEntry):
    """What was said of a step is taken back."""

    kind: ClassVar[str] = "open_again"
    step: StepId


@dataclass(frozen=True)
class WordToOwner(CalloutEntry):
    """A word to the owner about a drum, or with tag "" about the whole; said again, it replaces the one before."""

    kind: ClassVar[str] = "worded"
    drum: Tag
    words: Annotated[str, WordCount(0, 1000)]


@dataclass(frozen=True)
class ShowBegins(CalloutEntry):
    """The show begins; what is left is for the note."""

    kind: ClassVar[str] = "over"


@dataclass(frozen=True)
class OwnerTold(CalloutEntry):
    """The owner has the note."""

    kind: ClassVar[str] = "reported"


@dataclass(frozen=True)
class OwnerAnswered(CalloutEntry):
    """The owner answered."""

    kind: ClassVar[str] = "answered"
    words: Annotated[str, WordCount(0, 300)] = ""


CALLOUT_ENTRIES: Final[tuple[type[CalloutEntry], ...]] = (
    ClockSet, Bagged, Ticked, NotSo, SoundsFine, TookStep, DidStep, PutOff, CannotDo, StepOpenAgain, WordToOwner, ShowBegins, OwnerTold, OwnerAnswered,
)  # fmt: skip
