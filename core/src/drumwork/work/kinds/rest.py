"""A rest is started with its minutes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import timedelta
from typing import Annotated, ClassVar

from drumwork.errors import BadEvent
from drumwork.work.kinds.common import StepId
from drumwork.work.log import Between, Entry, Logged, Rule
from drumwork.work.plan import Plan
from drumwork.work.state import BenchState

__all__ = ["RestStarted"]


@dataclass(frozen=True, slots=True)
class RestStarted(Entry):
    """The drum rests for so many minutes."""

    kind: ClassVar[str] = "rest"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    minutes: Annotated[int, Between(1, 60 * 48)]

    def slots(self) -> tuple[str, ...]:
        return (f"rest:{self.step}",)

    def require(self, state: BenchState) -> None:
        if state.plan.step(self.step).kind != "rest":
            raise BadEvent("Only a rest has a clock.", step=self.step)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.rests[self.step] = at.at + timedelta(minutes=self.minutes)

    def words(self, plan: Plan) -> str:
        return f"rest of {self.minutes} minutes"
