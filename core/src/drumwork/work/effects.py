"""What follows from closing a job, as data. Each has one handler in the server; all land in one transaction."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from drumwork.drums import Side

__all__ = [
    "EFFECTS", "AnswerChecks", "BookCheck", "CarryFindings", "ChangeHead", "ChangeWires", "Effect", "GiveBack", "KeepAnswer", "KeepAnswers", "KeepTarget", "Log", "RecordPitch",
    "TakeFromShelf",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class TakeFromShelf:
    """One head of the line chosen for this side leaves the shelf."""

    side: Side
    kind: Literal["take-from-shelf"] = "take-from-shelf"


@dataclass(frozen=True, slots=True)
class ChangeHead:
    """The old head of this side is retired with its reason, the new one fitted."""

    side: Side
    kind: Literal["change-head"] = "change-head"


@dataclass(frozen=True, slots=True)
class RecordPitch:
    """The last round read on this side goes into the drum's pitch history."""

    side: Side
    kind: Literal["record-pitch"] = "record-pitch"


@dataclass(frozen=True, slots=True)
class KeepAnswer:
    """How this head answered is kept for the next job on it."""

    side: Side
    kind: Literal["keep-answer"] = "keep-answer"


@dataclass(frozen=True, slots=True)
class KeepTarget:
    """The pitch it was brought to becomes the drum's usual one, where it had none."""

    side: Side
    kind: Literal["keep-target"] = "keep-target"


@dataclass(frozen=True, slots=True)
class AnswerChecks:
    """Open checks of this side are answered by this job."""

    side: Side
    kind: Literal["answer-checks"] = "answer-checks"


@dataclass(frozen=True, slots=True)
class BookCheck:
    """A settling check is booked, where the person closing asks for it."""

    side: Side
    kind: Literal["book-check"] = "book-check"


@dataclass(frozen=True, slots=True)
class ChangeWires:
    """The old wires are retired, new ones fitted."""

    kind: Literal["change-wires"] = "change-wires"


@dataclass(frozen=True, slots=True)
class CarryFindings:
    """Each finding goes into the drum's record: owed as a repair or a part, or put right on the bench."""

    kind: Literal["carry-findings"] = "carry-findings"


@dataclass(frozen=True, slots=True)
class KeepAnswers:
    """Answers the drum's record keeps go there, and what was learned of a rope."""

    kind: Literal["keep-answers"] = "keep-answers"


@dataclass(frozen=True, slots=True)
class GiveBack:
    """A part this drum had lent is home again: its oldest open loan of such a part is over."""

    what: str
    kind: Literal["give-back"] = "give-back"


@dataclass(frozen=True, slots=True)
class Log:
    """A line in the drum's history; `words` names the way it is told."""

    words: Literal["fitted", "checked", "done"]
    title: str = ""
    kind: Literal["log"] = "log"


Effect = (
    TakeFromShelf
    | ChangeHead
    | ChangeWires
    | RecordPitch
    | KeepAnswer
    | KeepTarget
    | AnswerChecks
    | BookCheck
    | CarryFindings
    | KeepAnswers
    | GiveBack
    | Log
)
EFFECTS = (
    TakeFromShelf, ChangeHead, ChangeWires, RecordPitch, KeepAnswer, KeepTarget, AnswerChecks, BookCheck, CarryFindings, KeepAnswers, GiveBack, Log,
)  # fmt: skip
