"""What is owed today, and in what order."""

from drumwork.planning.owed import (
    AgedHead,
    CallOutAhead,
    CheckDue,
    JobInHand,
    NoteOwed,
    Owed,
    OwedKind,
    PartLent,
    ShelfShort,
    ToFetch,
    Undecided,
    WorkPlanned,
    list_owed,
)

__all__ = [
    "AgedHead", "CallOutAhead", "CheckDue", "JobInHand", "NoteOwed", "Owed", "OwedKind", "PartLent", "ShelfShort", "ToFetch", "Undecided", "WorkPlanned", "list_owed",
]  # fmt: skip
