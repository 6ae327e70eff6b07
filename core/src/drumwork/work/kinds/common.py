"""Entries every job has: a step is done, a note, an undo, a conflict decided, the close."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from drumwork.errors import BadEvent
from drumwork.work.log import Entry, Logged, Rule, WordCount
from drumwork.work.plan import Plan
from drumwork.work.rounds import Mark
from drumwork.work.state import BenchState

__all__ = ["Closed", "EventId", "Noted", "Settled", "StepDone", "StepId", "Undone"]

StepId = Annotated[str, WordCount(1, 40)]
EventId = Annotated[str, WordCount(36, 36)]


@dataclass(frozen=True, slots=True)
class StepDone(Entry):
    """A step is done."""

    kind: ClassVar[str] = "step_done"
    rule: ClassVar[Rule] = Rule.ONCE
    step: StepId

    def slots(self) -> tuple[str, ...]:
        return (f"step:{self.step}",)

    def require(self, state: BenchState) -> None:
        step = state.plan.step(self.step)
        for question in step.asks:
            if question.needed and question.name not in state.answers:
                raise BadEvent(f"First: {question.words}", step=self.step, question=question.name)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.done.setdefault(self.step, Mark(None, at.id, at.by, at.at))

    def words(self, plan: Plan) -> str:
        return f"“{plan.step(self.step).title}” done"


@dataclass(frozen=True, slots=True)
class Noted(Entry):
    """Something written down."""

    kind: ClassVar[str] = "note"
    text: Annotated[str, WordCount(1, 1000)]

    def apply(self, state: BenchState, at: Logged) -> None:
        state.notes.append(Mark(self.text, at.id, at.by, at.at))


@dataclass(frozen=True, slots=True)
class Undone(Entry):
    """An entry is taken back. Entries stay; undone ones do not count."""

    kind: ClassVar[str] = "undo"
    event: EventId

    def require(self, state: BenchState) -> None:
        found = next((each for each in state.live if each.id == self.event), None)
        if found is None:
            raise BadEvent("That entry is not in this job, or is already undone.", event_id=self.event)
        if found.device == "server":
            raise BadEvent("The job began with that. Choose another pitch instead.", event_id=self.event)
        if found.entry.later_rests_on_it and any(
            each.entry.kind == found.entry.kind and each.seq > found.seq for each in state.live
        ):
            raise BadEvent("A later choice was made on top of it. Take that back first.", event_id=self.event)


@dataclass(frozen=True, slots=True)
class Settled(Entry):
    """Decide a conflict: keep what stood first, take the second instead, or both turns happened."""

    kind: ClassVar[str] = "settle"
    event: EventId
    take: Literal["first", "second", "both"]


@dataclass(frozen=True, slots=True)
class Closed(Entry):
    """The job is closed: why the old head went, and whether a check is booked."""

    kind: ClassVar[str] = "close"
    rule: ClassVar[Rule] = Rule.ONCE
    reason: Annotated[str, WordCount(0, 200)] = ""
    check: bool = True

    def slots(self) -> tuple[str, ...]:
        return ("close",)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.closed = Mark(self.reason, at.id, at.by, at.at)
