"""A part lent from another drum: never without a record (N13)."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar

from drumwork.work.kinds.common import StepId
from drumwork.work.log import Between, Entry, Logged, Rule, WordCount
from drumwork.work.plan import Plan
from drumwork.work.rounds import Mark
from drumwork.work.state import BenchState

__all__ = ["Lent"]


@dataclass(frozen=True, slots=True)
class Lent(Entry):
    """A part came from another drum, by its tag; of a rod, which one of its batter, where that was said. It goes into the job's notes, and so into
    the drum's history."""

    kind: ClassVar[str] = "lent"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    what: Annotated[str, WordCount(1, 60)]
    from_tag: Annotated[str, WordCount(1, 20)]
    from_rod: Annotated[int | None, Between(1, 32)] = None

    def slots(self) -> tuple[str, ...]:
        return (f"lent:{self.what}:{self.from_tag}",)

    def require(self, state: BenchState) -> None:
        state.plan.step(self.step)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.notes.append(Mark(self._said, at.id, at.by, at.at))
        state.lent.append(Mark((self.what, self.from_tag, self.from_rod), at.id, at.by, at.at))

    @property
    def _said(self) -> str:
        rod = f", rod {self.from_rod}" if self.from_rod else ""
        return f"{self.what} lent from {self.from_tag}{rod}"

    def words(self, plan: Plan) -> str:
        return self._said
