"""Readings of a job's rounds that cannot be, to be asked about before anything is turned by them."""

from __future__ import annotations

from collections.abc import Mapping

from drumwork.rods.clearing import Means, Misread, misread
from drumwork.work.rounds import Lap
from drumwork.work.state import BenchState

__all__ = ["misread_in", "misread_tap"]


def _values(lap: Lap, means: Means, there: tuple[int, ...]) -> dict[int, float]:
    if means is Means.PITCH:
        return {rod: mark.value.hz for rod, mark in lap.readings.items() if rod in there}
    return {rod: mark.value for rod, mark in lap.numbers.items() if rod in there} if means.is_number else {}


def _wanted(state: BenchState, step: str, means: Means) -> float | None:
    target = state.aim(state.plan.side_of(step))
    return target.hz if target and means is Means.PITCH else None


def _foretold(state: BenchState, step: str, number: int) -> Mapping[int, float] | None:
    before = state.laps[step][number - 1] if number else None
    plan = before and (before.left or before.plan)
    return plan.value.predicted if plan and plan.value.means is state.means else None


def misread_in(state: BenchState, step: str, number: int) -> tuple[Misread, ...]:
    """Readings of a round that cannot be and that nobody said are so."""
    lap, rods = state.lap(step, number), state.layout(state.plan.side_of(step)).rods
    values = _values(lap, state.means, rods)
    return misread(values, _wanted(state, step, state.means), _foretold(state, step, number), state.means, lap.sure)


def misread_tap(state: BenchState, step: str, lap: Lap, rod: int, value: float, means: Means) -> bool:
    """Whether what a rod read between turns cannot be, beside what the round read."""
    rods = state.layout(state.plan.side_of(step)).rods
    values = {**_values(lap, means, rods), rod: value}
    return any(each.rod == rod for each in misread(values, _wanted(state, step, means), None, means))
