"""Doing one job otherwise than the workshop does: which schools still make a difference, what changes with each, and the plan of what is left.

Nothing that was done is asked for again, and nothing is asked for whose moment has passed.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Final

from drumwork.errors import BadEvent
from drumwork.work.hand import InHand
from drumwork.work.making import make_plan
from drumwork.work.plan import Plan, Procedure, StepPlan
from drumwork.work.schools import SCHOOLS, Choice, School, school_choice
from drumwork.work.state import BenchState
from drumwork.work.ways import Ways

__all__ = [
    "Changes",
    "SchoolLeft",
    "begun_steps",
    "planned_otherwise",
    "require_school",
    "school_choice",
    "schools_left",
    "with_school",
]

_CHANGED_ELSEWHERE: Final = ("means",)
"""The Bench changes what rods are read with by an entry of its own, which plans nothing anew."""
_TURNS: Final = ("passes", "clear")


def require_school(way: str, value: str) -> Choice:
    """The same, or BadEvent: where the trade knows no such choice, or the Bench changes it otherwise."""
    found = school_choice(way, value)
    if found is None:
        raise BadEvent("There is no such choice among the workshop’s ways.", way=way, value=value)
    if way in _CHANGED_ELSEWHERE:
        raise BadEvent("Choose what the rods are read with where they are read.", way=way)
    return found


def with_school(ways: Ways, way: str, value: str) -> Ways:
    """The same ways but for one.

    Raises
    ------
    BadEvent
        where the trade knows no such choice.
    """
    if school_choice(way, value) is None:
        raise BadEvent("There is no such choice among the workshop’s ways.", way=way, value=value)
    return replace(ways, **{way: type(getattr(ways, way))(value)})


def begun_steps(state: BenchState) -> frozenset[str]:
    """Ids of the steps that are done or in which something was entered."""
    touched = (getattr(each.entry, "step", None) for each in state.live)
    return frozenset(state.done) | {step for step in touched if step}


@dataclass(frozen=True, slots=True)
class Changes:
    """What comes of one choice for what is left of a job. `too_late` says why it cannot be made any more; else empty."""

    plan: Plan
    adds: tuple[str, ...] = ()
    leaves_out: tuple[str, ...] = ()
    alters: tuple[str, ...] = ()
    fetch: tuple[str, ...] = ()
    too_late: str = ""

    @property
    def any(self) -> bool:
        """Whether it makes a difference."""
        return bool(self.adds or self.leaves_out or self.alters)


def _behind(steps: Iterable[StepPlan], begun: frozenset[str]) -> int:
    """How many steps lie behind: up to the last that was begun."""
    return max((number for number, step in enumerate(steps, 1) if step.id in begun), default=0)


def _passed(new: Plan, behind: frozenset[str]) -> dict[str, StepPlan]:
    """Steps that would have come before what is done, and are not done."""
    early = new.steps[: _behind(new.steps, behind)]
    return {step.id: step for step in early if step.id not in behind}


def _tools(steps: Iterable[StepPlan]) -> dict[str, None]:
    return {str(tool.text): None for step in steps if "lay-out" not in step.does for tool in step.tools}


def _orders_differ(old: Plan, new: Plan, side: StepPlan) -> bool:
    if side.kind not in _TURNS or side.side is None:
        return False
    return old.turning_order(side.side) != new.turning_order(side.side)


def _as_it_is(plan: Plan, procedure: Procedure) -> Plan:
    """The job’s procedure on its drum in its own ways, planned afresh."""
    return make_plan(procedure, plan.part, plan.drum, plan.ways, plan.heads, plan.lists, begun=_begun(plan))


def _begun(plan: Plan) -> InHand | None:
    """The drum as the job found it."""
    return plan.steps[0].before


def planned_otherwise(
    state: BenchState, procedure: Procedure, way: str, value: str, same: Plan | None = None
) -> Changes:
    """What is left of a job when it goes by another school from here on.

    The steps behind stay as they are. What is left is today's procedure on this drum in the changed ways, without what is done. A choice whose
    steps would have come before something already done is too late. `same` is the job planned afresh in its own ways, where it is at hand.

    Raises
    ------
    BadEvent
        where the trade knows no such choice.
    """
    old = state.plan
    ways = with_school(old.ways, way, value)
    asked = make_plan(procedure, old.part, old.drum, ways, old.heads, old.lists, begun=_begun(old))
    same = same or _as_it_is(old, procedure)
    behind = old.steps[: _behind(old.steps, begun_steps(state))]
    ids = frozenset(step.id for step in behind)
    missed, known = _passed(asked, ids), _passed(same, ids)
    late = [step for key, step in missed.items() if key not in known]
    left = [step for step in asked.steps if step.id not in ids and (step.id not in missed or step.id in known)]
    plan = replace(old, ways=asked.ways, steps=(*behind, *left))
    before = {step.id: step for step in old.steps[len(behind) :]}
    after = {step.id: step for step in left}
    altered = [
        step
        for step in left
        if step.id in before and (before[step.id] != step or _orders_differ(old, asked, step)) and "lay-out" not in step.does
    ]  # fmt: skip
    laid_out = any("lay-out" in step.does for step in behind)
    had = _tools(old.steps)
    return Changes(
        plan,
        adds=tuple(step.title for key, step in after.items() if key not in before),
        leaves_out=tuple(step.title for key, step in before.items() if key not in after),
        alters=tuple(step.title for step in altered),
        fetch=tuple(tool for tool in _tools(left) if tool not in had) if laid_out else (),
        too_late=f"Too late: “{late[0].title}” would have come before what is done." if late else "",
    )


@dataclass(frozen=True, slots=True)
class SchoolLeft:
    """A quarrel that still makes a difference to a job: how it is done now, and what each other answer changes."""

    school: School
    now: str
    changes: dict[str, Changes]


def schools_left(state: BenchState, procedure: Procedure) -> tuple[SchoolLeft, ...]:
    """The schools by which what is left of this job would go differently."""
    found, same = [], _as_it_is(state.plan, procedure)
    for school in SCHOOLS:
        now = str(getattr(state.plan.ways, school.way))
        if school.way in _CHANGED_ELSEWHERE:
            continue
        others = [choice.value for choice in school.choices if choice.value != now]
        changes = {value: planned_otherwise(state, procedure, school.way, value, same) for value in others}
        if any(each.any and not each.too_late for each in changes.values()):
            found.append(SchoolLeft(school, now, changes))
    return tuple(found)
