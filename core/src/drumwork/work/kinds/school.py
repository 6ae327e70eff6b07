"""A job does one thing otherwise than it began: what is left is planned anew, what was done stays done."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Annotated, ClassVar

from drumwork.errors import BadEvent
from drumwork.work.log import FOUND, Entry, Logged, Rule, WordCount
from drumwork.work.otherwise import require_school
from drumwork.work.plan import Plan
from drumwork.work.schools import school_choice
from drumwork.work.state import BenchState

__all__ = ["SchoolChosen"]

Name = Annotated[str, WordCount(1, 30)]


@dataclass(frozen=True, slots=True)
class SchoolChosen(Entry):
    """From here on this job goes by another school (trade §17). The plan that comes of it is kept with the entry: nothing changes under the
    hands when procedures do."""

    kind: ClassVar[str] = "school"
    rule: ClassVar[Rule] = Rule.APART
    later_rests_on_it: ClassVar[bool] = True
    way: Name
    value: Name
    plan: Plan | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return ("school",)

    def require(self, state: BenchState) -> None:
        choice = require_school(self.way, self.value)
        if str(getattr(state.plan.ways, self.way)) == self.value:
            raise BadEvent(f"It is done so already: {choice.words}.", way=self.way)

    def apply(self, state: BenchState, at: Logged) -> None:
        if self.plan is not None:
            state.plan = self.plan

    def words(self, plan: Plan) -> str:
        choice = school_choice(self.way, self.value)
        return f"from here on {choice.words}" if choice else f"{self.way} {self.value}"

    def about(self) -> str:
        return "the way it is done"
