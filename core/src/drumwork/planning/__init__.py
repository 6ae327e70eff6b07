"""What is owed today, and in what order."""

from drumwork.planning.owed import (
    AgedHead,
    CheckDue,
    JobInHand,
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
    "AgedHead", "CheckDue", "JobInHand", "Owed", "OwedKind", "PartLent", "ShelfShort", "ToFetch", "Undecided", "WorkPlanned", "list_owed",
]  # fmt: skip
