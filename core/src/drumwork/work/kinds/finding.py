"""Something found on the way: what, how bad, where; and put right on the bench."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from drumwork.drums import Side
from drumwork.errors import BadEvent
from drumwork.findings import Place, finding, require_place
from drumwork.rods.layout import RodLayout
from drumwork.work.kinds.common import EventId, StepId
from drumwork.work.kinds.passes import Rod
from drumwork.work.log import Entry, Logged, Rule, WordCount
from drumwork.work.plan import Plan
from drumwork.work.state import LOST, BenchState, FoundMark

__all__ = ["FindingMade", "PutRight", "mark_gone"]


@dataclass(frozen=True, slots=True)
class FindingMade(Entry):
    """Something of the vocabulary was found during a step, on a side or at a rod, so bad, with a note."""

    kind: ClassVar[str] = "found"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    finding: Annotated[str, WordCount(1, 40)]
    side: Side | None = None
    rod: Rod | None = None
    degree: Literal[1, 2, 3] = 2
    note: Annotated[str, WordCount(0, 300)] = ""

    @property
    def place(self) -> Place:
        return Place(self.side.value if self.side else "", self.rod)

    def slots(self) -> tuple[str, ...]:
        return (f"found:{self.finding}:{self.place.side}:{self.rod or ''}",)

    def require(self, state: BenchState) -> None:
        state.plan.step(self.step)
        layouts = {side.value: state.plan.drum.layouts.get(side) for side in state.plan.sides or Side}
        require_place(finding(self.finding), state.plan.drum.kind, layouts, self.place)
        if self.finding == LOST and self.side is not None and self.rod is not None:
            now = state.layout(self.side)
            RodLayout(now.count, now.lost | {self.rod})  # fewer than three left cannot hold a head

    def apply(self, state: BenchState, at: Logged) -> None:
        state.found[at.id] = FoundMark(self.finding, self.degree, self.place, self.note, self.step, at.id, at.by, at.at)
        mark_gone(state)

    def words(self, plan: Plan) -> str:
        at = self.place.words()
        return finding(self.finding).words + (f", {at}" if at else "")

    def about(self) -> str:
        return finding(self.finding).words


@dataclass(frozen=True, slots=True)
class PutRight(Entry):
    """What was found was put right on the bench."""

    kind: ClassVar[str] = "put_right"
    rule: ClassVar[Rule] = Rule.ONCE
    event: EventId

    def slots(self) -> tuple[str, ...]:
        return (f"put_right:{self.event}",)

    def require(self, state: BenchState) -> None:
        if self.event not in state.found:
            raise BadEvent("That was not found on this job, or was taken back.", event_id=self.event)

    def apply(self, state: BenchState, at: Logged) -> None:
        if self.event in state.found:
            state.found[self.event] = replace(state.found[self.event], put_right=True)
            mark_gone(state)

    def words(self, plan: Plan) -> str:
        return "put right on the bench"


def mark_gone(state: BenchState) -> None:
    """Every pass and round still to be made goes round the rods that were found missing."""
    for step in state.plan.steps:
        if step.side is not None:
            gone = state.lost_since(step.side)
            for lap in state.laps.get(step.id, ()):
                lap.gone = gone
