"""The order that helps most in the time: the most worth whose minutes fit, nothing before what it needs, no part given twice. Exact."""

from __future__ import annotations

import math
import time
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Final

from drumwork.errors import BadRequest
from drumwork.exact import new_model, solve

__all__ = ["MOST_TASKS", "Planned", "Task", "plan_callout", "worst_first"]

MOST_TASKS: Final = 300
SECONDS: Final = 4.0
_FINEST: Final = 10**6


@dataclass(frozen=True, slots=True)
class Task:
    """One thing to do: its minutes, what it is worth, what must be done before it, and the parts it uses up (named once for each piece).

    `phase`: of what is chosen, lower phases stand first; it never decides what is chosen.
    """

    id: str
    minutes: float
    worth: float
    after: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    phase: int = 0


@dataclass(frozen=True, slots=True)
class Planned:
    """What is done, in this order; its worth, the most it could be by proof so far, and the minutes left over."""

    order: tuple[str, ...]
    worth: float
    bound: float
    proved: bool
    spare_minutes: float


def _require(tasks: Sequence[Task]) -> None:
    if len(tasks) > MOST_TASKS:
        raise BadRequest(f"A call-out has up to {MOST_TASKS} tasks.")
    known = {each.id for each in tasks}
    if len(known) != len(tasks):
        raise BadRequest("Every task has an id of its own.")
    for task in tasks:
        for each in task.after:
            if each not in known:
                raise BadRequest(f"“{task.id}” comes after “{each}”, which is no task of this call-out.", task=each)


def _whole(values: Iterable[float], rounded: str) -> tuple[list[int], int]:
    """Numbers as whole multiples of 1/scale: exactly where their decimals allow, else to a millionth, minutes rounded up."""
    exact = [Fraction(repr(float(each))) for each in values]
    scale = math.lcm(*(each.denominator for each in exact)) if exact else 1
    if scale > _FINEST:
        scale = _FINEST
    up = math.ceil if rounded == "up" else math.floor if rounded == "down" else round
    return [int(up(each * scale)) for each in exact], scale


def plan_callout(minutes: float, tasks: Sequence[Task], parts: Mapping[str, int], seconds: float = SECONDS) -> Planned:
    """The most worth that fits.

    Raises
    ------
    BadRequest
        for tasks that name what is not there, or twice the same id.
    """
    _require(tasks)
    began, model = time.monotonic(), new_model()
    does = {each.id: model.new_bool_var(each.id) for each in tasks}
    took, scale = _whole((*(each.minutes for each in tasks), minutes), "up")
    room = math.floor(Fraction(repr(float(minutes))) * scale)
    worth, worth_scale = _whole((each.worth for each in tasks), "near")
    in_order = _in_order(tasks)
    for task in tasks:
        if task.id not in in_order:
            model.add(does[task.id] == 0)  # it waits for itself
        for each in task.after:
            model.add_implication(does[task.id], does[each])
    spent = sum(each * does[task.id] for each, task in zip(took, tasks, strict=False))
    if tasks:
        model.add(spent <= room)
    for part in {each for task in tasks for each in task.uses}:
        uses = sum(Counter(task.uses)[part] * does[task.id] for task in tasks)
        model.add(uses <= parts.get(part, 0))
    gained = sum(each * does[task.id] for each, task in zip(worth, tasks, strict=True))
    if not tasks:
        return Planned((), 0.0, 0.0, True, minutes)
    model.maximize(gained)
    best = solve(model, seconds)
    if best is None:  # doing nothing is always possible
        return Planned((), 0.0, math.inf, False, minutes)
    model.add(gained >= best.value)
    model.minimize(spent)
    quickest = solve(
        model, min(0.5, seconds - (time.monotonic() - began)), [(each, best.of(each)) for each in does.values()]
    )
    chosen = [task for task in tasks if (quickest or best).of(does[task.id])]
    order = _best_first(chosen)
    return Planned(
        tuple(each.id for each in order),
        _sum(each.worth for each in chosen),
        best.bound / worth_scale,
        best.proved,
        _less(minutes, (each.minutes for each in chosen)),
    )


def _sum(values: Iterable[float]) -> float:
    return float(sum((Fraction(repr(float(each))) for each in values), Fraction()))


def _less(whole: float, values: Iterable[float]) -> float:
    return float(Fraction(repr(float(whole))) - sum((Fraction(repr(float(each))) for each in values), Fraction()))


def _in_order(tasks: Sequence[Task]) -> set[str]:
    """The tasks that can ever be done: not those that wait for each other in a circle, nor what waits for them."""
    done: set[str] = set()
    while more := [each for each in tasks if each.id not in done and set(each.after) <= done]:
        done |= {each.id for each in more}
    return done


def _best_first(chosen: Sequence[Task]) -> list[Task]:
    """Each after what it needs, and of those that may come next in the lowest phase the one that helps most a minute: if time is cut, the most is done."""
    left, order = list(chosen), list[Task]()
    while left:
        done = {each.id for each in order}
        open_now = [each for each in left if set(each.after) <= done]
        first = min(each.phase for each in open_now)
        best = max((each for each in open_now if each.phase == first), key=lambda each: _promise(each, left))
        order.append(best)
        left.remove(best)
    return order


def _promise(task: Task, left: Sequence[Task]) -> float:
    """Worth a minute, of the task alone or with what it alone still holds up."""
    alone = task.worth / max(task.minutes, 1e-6)
    opened = [each for each in left if each.after and task.id in each.after]
    together = [(task.worth + each.worth) / max(task.minutes + each.minutes, 1e-6) for each in opened]
    return max([alone, *together])


def worst_first(minutes: float, tasks: Sequence[Task], parts: Mapping[str, int]) -> Planned:
    """The plain baseline: what is worth most first, as long as it fits and nothing stands before it."""
    _require(tasks)
    order, room, left = list[Task](), minutes, Counter(parts)
    while True:
        done = {each.id for each in order}
        fits = [
            each
            for each in tasks
            if each.id not in done
            and each.minutes <= room
            and set(each.after) <= done
            and all(left[part] >= count for part, count in Counter(each.uses).items())
        ]
        if not fits:
            return Planned(tuple(each.id for each in order), _sum(each.worth for each in order), math.inf, False, room)
        best = max(fits, key=lambda each: each.worth)
        order.append(best)
        room -= best.minutes
        left -= Counter(best.uses)
