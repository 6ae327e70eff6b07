"""A head that was cleared is cleared once more: after a rest, in which the film went down (trade §12, F6)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from drumwork.errors import BadEvent
from drumwork.work.kinds.common import StepId
from drumwork.work.log import Entry, Logged, Rule
from drumwork.work.plan import Plan
from drumwork.work.rounds import Lap
from drumwork.work.state import BenchState

__all__ = ["OnceMore"]


@dataclass(frozen=True, slots=True)
class OnceMore(Entry):
    """A clearing that was done goes on with a fresh round; the rounds before it stay, to be compared with."""

    kind: ClassVar[str] = "once_more"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId

    def slots(self) -> tuple[str, ...]:
        return (f"step:{self.step}",)

    def require(self, state: BenchState) -> None:
        step = state.plan.step(self.step)
        if step.kind != "clear":
            raise BadEvent(f"“{step.title}” has no rounds of reading.", step=self.step)
        if self.step not in state.done:
            raise BadEvent(f"“{step.title}” is in hand; go on with its round.", step=self.step)

    def apply(self, state: BenchState, at: Logged) -> None:
        if state.done.pop(self.step, None) is None:
            return
        laps = state.laps[self.step]
        side = state.plan.side_of(self.step)
        if not laps[-1].begun and laps[-1].plan is None:
            laps.pop()
        fresh = bool(laps)  # a step that was left without a reading has nothing to be compared with
        laps.append(Lap(state.plan.turning_order(side), gone=state.lost_since(side), afresh=fresh))

    def words(self, plan: Plan) -> str:
        return f"“{plan.step(self.step).title}” once more"

    def about(self) -> str:
        return "clearing once more"
