"""Passes: turns made at rods, one entry for one rod, a facing pair or a whole pass; and how they are confirmed."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar

from drumwork.errors import BadEvent
from drumwork.quantities import Turns
from drumwork.work.kinds.common import StepId
from drumwork.work.log import Between, Entry, Logged, Rule, WordCount
from drumwork.work.plan import Plan, StepPlan, passes_of
from drumwork.work.rounds import Lap, Mark
from drumwork.work.state import BenchState
from drumwork.work.ways import Cadence

__all__ = ["CadenceChosen", "LapNumber", "PassAdded", "Rod", "RodTurn", "Turned", "begin_passes", "where_in_passes"]

Rod = Annotated[int, Between(1, 16)]
LapNumber = Annotated[int, Between(0, 60)]
MOST_32 = 8 * 32
"""P15: seven to eight turns close up a loose drum; more in one entry is a slip (common practice)."""
TurnCount = Annotated[int, Between(-MOST_32, MOST_32)]


@dataclass(frozen=True, slots=True)
class RodTurn:
    """What was really turned at a rod, in thirty-seconds; null where it was skipped."""

    rod: Rod
    turns_32: TurnCount | None


@dataclass(frozen=True, slots=True)
class Turned(Entry):
    """Rods were turned in pass or round `lap` (counted from 0) of a step: one rod, two facing ones, or as many as one confirms at once."""

    kind: ClassVar[str] = "turned"
    rule: ClassVar[Rule] = Rule.COUNTS
    step: StepId
    lap: LapNumber
    made: Annotated[tuple[RodTurn, ...], WordCount(1, 16)]

    def slots(self) -> tuple[str, ...]:
        return tuple(f"turn:{self.step}:{self.lap}:{each.rod}" for each in self.made)

    def require(self, state: BenchState) -> None:
        state.lap(self.step, self.lap)
        layout = state.plan.layout(state.plan.side_of(self.step))
        for each in self.made:
            layout.require(each.rod)
        if len({each.rod for each in self.made}) < len(self.made):
            raise BadEvent("One rod stands twice in that entry.", step=self.step)

    def apply(self, state: BenchState, at: Logged) -> None:
        if not state.has_lap(self.step, self.lap):
            return
        lap = state.laps[self.step][self.lap]
        for each in self.made:
            turns = None if each.turns_32 is None else Turns(each.turns_32)
            lap.turn(each.rod, turns, lambda made: Mark(made, at.id, at.by, at.at))

    def words(self, plan: Plan) -> str:
        amounts = {each.turns_32 for each in self.made}
        rods = [str(each.rod) for each in self.made]
        who = (
            f"rod {rods[0]}" if len(rods) == 1 else f"rods {', '.join(rods)}" if len(rods) < 5 else f"{len(rods)} rods"
        )
        if len(amounts) > 1:
            return f"{who} turned"
        (amount,) = amounts
        return f"{who} skipped" if amount is None else f"{who} {Turns(amount).words()}"

    def may_be_both(self) -> bool:
        return any(each.turns_32 for each in self.made)

    def about(self) -> str:
        return f"rod {self.made[0].rod}" if len(self.made) == 1 else f"{len(self.made)} rods"


@dataclass(frozen=True, slots=True)
class PassAdded(Entry):
    """One more pass."""

    kind: ClassVar[str] = "pass_added"
    rule: ClassVar[Rule] = Rule.APART
    step: StepId
    each_32: TurnCount

    def slots(self) -> tuple[str, ...]:
        return (f"pass:{self.step}",)

    def require(self, state: BenchState) -> None:
        passes_of(state.plan.step(self.step))

    def apply(self, state: BenchState, at: Logged) -> None:
        if self.step not in state.laps:  # the choice that brought this step was taken back
            return
        side, passes = state.plan.side_of(self.step), passes_of(state.plan.step(self.step)).passes
        # Some steps are about some rods only: the bed's, or all others.
        order, until = (passes[-1].order, passes[-1].until) if passes else (state.plan.turning_order(side), "")
        state.laps[self.step].append(Lap(order, each=Turns(self.each_32), until=until, gone=state.lost_since(side)))

    def words(self, plan: Plan) -> str:
        return f"one more pass, {Turns(self.each_32).words()}"


@dataclass(frozen=True, slots=True)
class CadenceChosen(Entry):
    """From here on turns are confirmed so, slackening (`down`) or tightening."""

    kind: ClassVar[str] = "cadence"
    by: Cadence
    down: bool = False

    def apply(self, state: BenchState, at: Logged) -> None:
        if self.down:
            state.cadence_down = self.by
        else:
            state.cadence_up = self.by

    def words(self, plan: Plan) -> str:
        return f"turns confirmed by {self.by.value}"


def begin_passes(state: BenchState, step: StepPlan) -> None:
    """All passes lie there from the start."""
    state.laps[step.id] = [Lap(each.order, each=each.each, until=each.until) for each in passes_of(step).passes]


def where_in_passes(state: BenchState, step: StepPlan) -> str:
    laps = state.laps[step.id]
    number, lap = next(((n, lap) for n, lap in enumerate(laps) if lap.owed()), (len(laps) - 1, laps[-1]))
    rod = next(iter(lap.owed()), None)
    return f"{step.title.lower()}, pass {number + 1} of {len(laps)}" + (f", rod {rod} next" if rod else "")
