"""The log of a job: entries as facts, which of them count, and when two of them are in conflict. Once, for all kinds of entry."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from datetime import datetime
from enum import StrEnum
from typing import TYPE_CHECKING, Any, ClassVar, Final, NamedTuple, Self

if TYPE_CHECKING:
    from drumwork.work.plan import Plan
    from drumwork.work.state import BenchState

__all__ = [
    "FOUND",
    "Between",
    "Entry",
    "Logged",
    "Rule",
    "Standing",
    "WordCount",
    "counting",
    "settled_by",
    "undone_by",
]


FOUND: Final = {"found": True}
"""Metadata of a field that no device sends: whoever takes the entry in finds it."""


class Between(NamedTuple):
    """The least and the most a number in an entry may be; stands in its field's annotation."""

    least: int
    most: int


class WordCount(NamedTuple):
    """The fewest and the most characters a text in an entry may have, or things a list; stands in its field's annotation."""

    fewest: int
    most: int


class Rule(StrEnum):
    """What it means when two devices write one slot without knowing of each other.

    APART: two different things are in conflict, the same twice is a repeat. COUNTS: even the same twice is a conflict, since both may have
    happened. ONCE: the second is a repeat. STANDS: each stands.
    """

    APART = "apart"
    COUNTS = "counts"
    ONCE = "once"
    STANDS = "stands"


class Standing(StrEnum):
    APPLIED = "applied"
    CONFLICT = "conflict"
    REPEAT = "repeat"


@dataclass(frozen=True, slots=True)
class Entry:
    """What can happen on a bench job: a fact, added and never changed. Subclasses define one kind each, once for storage, wire, conflicts,
    undo, history and fold.

    Fields are SI with the text as typed beside them. Those with metadata `found` are not sent by a device but found by whoever takes it in.
    """

    kind: ClassVar[str]
    rule: ClassVar[Rule] = Rule.STANDS
    version: ClassVar[int] = 2
    later_rests_on_it: ClassVar[bool] = False
    """A later entry of the same kind holds what this one brought: it cannot be taken back before that one."""

    def slots(self) -> tuple[str, ...]:
        """What it is about. Two entries with a slot in common are about the same thing."""
        return ()

    def read(self, a4_hz: float) -> Self:
        """The same with its typed text read; raises BadQuantity for what cannot be read."""
        return self

    def require(self, state: BenchState) -> None:
        """Raise BadEvent, BadLayout or BadFinding when it cannot belong to this job as it stands."""

    def apply(self, state: BenchState, at: Logged) -> None:
        """Change where the job stands."""

    def may_be_both(self) -> bool:
        """Whether this and another like it may both have happened."""
        return False

    def words(self, plan: Plan) -> str:
        """As a person would say it, for undo, conflicts and history."""
        return self.kind.replace("_", " ")

    def about(self) -> str:
        """What it is about, in a word or two."""
        return self.kind.replace("_", " ")


@dataclass(frozen=True, slots=True)
class Logged:
    """One entry as it stands in a job's log. `against` is the entry a conflicting one is in conflict with."""

    id: str
    seq: int
    by: str
    at: datetime
    entry: Entry
    device: str = ""
    standing: Standing = Standing.APPLIED
    against: str | None = None


def _field(entry: Entry, name: str) -> str:
    value: Any = getattr(entry, name, "")
    return str(value)


def undone_by(log: Iterable[Logged]) -> frozenset[str]:
    """Ids of entries taken back."""
    return frozenset(_field(each.entry, "event") for each in log if each.entry.kind == "undo")


def settled_by(log: Iterable[Logged]) -> Mapping[str, str]:
    """What was decided on conflicts: id of the second entry → first, second or both."""
    return {_field(each.entry, "event"): _field(each.entry, "take") for each in log if each.entry.kind == "settle"}


def counting(log: Iterable[Logged]) -> list[Logged]:
    """The entries that count, in order: applied and not undone, or in conflict and decided for. Undo is a filter, never a reversal."""
    ordered = sorted(log, key=lambda each: each.seq)
    undone, settled = undone_by(ordered), settled_by(ordered)

    def counts(each: Logged) -> bool:
        if each.id in undone or each.entry.kind in ("undo", "settle"):
            return False
        if each.standing is Standing.CONFLICT:
            return settled.get(each.id) == "second"
        return each.standing is Standing.APPLIED

    return [each for each in ordered if counts(each)]
