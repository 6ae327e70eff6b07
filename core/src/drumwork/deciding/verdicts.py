"""What can be decided, mildest first (trade §11), and how soon each is owed."""

from __future__ import annotations

from collections.abc import Iterable
from enum import StrEnum

__all__ = ["Verdict", "worst"]


class Verdict(StrEnum):
    """In order of severity."""

    NOTHING = "nothing"
    CLEAR = "clear"
    CLEAR_RECHECK = "clear-recheck"
    REPAIR = "repair"
    REPLACE_NEXT = "replace-next"
    REPLACE_NOW = "replace-now"
    OUT_OF_SERVICE = "out-of-service"

    @property
    def severity(self) -> int:
        return list(Verdict).index(self)

    @property
    def words(self) -> str:
        return _WORDS[self]

    @property
    def urgency(self) -> str:
        """How soon: never, when convenient, by a date, at the next bench day, before it goes out, at once."""
        return _URGENCY[self]


_WORDS = {
    Verdict.NOTHING: "nothing to do",
    Verdict.CLEAR: "clear it",
    Verdict.CLEAR_RECHECK: "clear it and look again",
    Verdict.REPAIR: "repair",
    Verdict.REPLACE_NEXT: "replace at the next bench day",
    Verdict.REPLACE_NOW: "replace before it goes out",
    Verdict.OUT_OF_SERVICE: "take out of service",
}
_URGENCY = {
    Verdict.NOTHING: "none",
    Verdict.CLEAR: "when convenient",
    Verdict.CLEAR_RECHECK: "by a date",
    Verdict.REPAIR: "next bench day",
    Verdict.REPLACE_NEXT: "next bench day",
    Verdict.REPLACE_NOW: "before it goes out",
    Verdict.OUT_OF_SERVICE: "at once",
}


def worst(verdicts: Iterable[Verdict]) -> Verdict:
    """The most severe; NOTHING of none."""
    return max(verdicts, key=lambda each: each.severity, default=Verdict.NOTHING)
