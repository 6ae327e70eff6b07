"""An answer to a question a step asks."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Annotated, ClassVar, Self

from drumwork.errors import BadEvent, BadQuantity
from drumwork.quantities import parse_length, parse_pitch
from drumwork.work.asks import Question, Unit
from drumwork.work.kinds.common import StepId
from drumwork.work.log import FOUND, Entry, Logged, Rule, WordCount
from drumwork.work.plan import Plan
from drumwork.work.rounds import Mark
from drumwork.work.state import Answer, BenchState

__all__ = ["Answered"]

MOST_COUNTED = 200
Value = Annotated[str, WordCount(1, 80)]


@dataclass(frozen=True, slots=True)
class Answered(Entry):
    """What was answered to a question of a step: names of its answers or one's own words; or a pitch, length or number as typed. None takes an
    answer back without undoing it. `amount` is hertz, metres or the number."""

    kind: ClassVar[str] = "answer"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    question: StepId
    values: Annotated[tuple[Value, ...], WordCount(0, 20)] = ()
    unit: Unit = ""
    amount: float | None = field(default=None, metadata=FOUND)

    def slots(self) -> tuple[str, ...]:
        return (f"answer:{self.step}:{self.question}",)

    def _asked(self, plan: Plan) -> Question:
        found = next((each for each in plan.step(self.step).asks if each.name == self.question), None)
        if found is None:
            raise BadEvent(f"“{plan.step(self.step).title}” does not ask that.", step=self.step, question=self.question)
        return found

    def read(self, a4_hz: float) -> Self:
        match self.unit, self.values:
            case "pitch", (typed,):
                return replace(self, amount=parse_pitch(typed, a4_hz).hz)
            case "length", (typed,):
                return replace(self, amount=parse_length(typed, "mm").metres)
            case "count", (typed,):
                if not typed.strip().isdecimal() or not 1 <= int(typed) <= MOST_COUNTED:
                    raise BadQuantity(f"Give a number from 1 to {MOST_COUNTED}.", text=typed)
                return replace(self, amount=float(int(typed)))
        return self

    def require(self, state: BenchState) -> None:
        question = self._asked(state.plan)
        if not question.unit:
            question.require(self.values, self.unit)
        elif self.unit != question.unit or len(self.values) > 1:
            raise BadEvent(f"“{question.words}” is answered with one {question.unit}.", question=self.question)

    def apply(self, state: BenchState, at: Logged) -> None:
        state.answers[self.question] = Mark(Answer(self.values, self.amount), at.id, at.by, at.at)

    def words(self, plan: Plan) -> str:
        question = next((each for each in plan.step(self.step).asks if each.name == self.question), None)
        said = question.words_of(self.values) if question else ", ".join(self.values)
        return f"{question.words if question else self.question}: {said or 'no answer'}".lower()

    def about(self) -> str:
        return self.question.replace("-", " ")
