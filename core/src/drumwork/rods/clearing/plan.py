"""The best turns in whole steps: least expected unevenness, few rods, never out of tension."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.clearing.belief import EXECUTION_SD, Belief, Component
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["Limits", "limits_of", "plan_turns"]

Array = NDArray[np.float64]

CRANKING_COST: Final = 2e-6  # per step turned, in z²: breaks ties, does not trade evenness away
ODD_COST: Final = 0.01  # keeps turns that pitch cannot hear near the count that is even
MOST_SLACKENED: Final = 0.4  # of what holds a rod, in one round
HEARD_SHARE: Final = 0.44  # of a two-lobed pattern of turns, what the readings show (docs/sources/film.md)
UNHEARD_SDS: Final = 2.5
MOST_TIGHTENED_TURNS: Final = 1.0
RMS_WEIGHT: Final = 0.7
MEAN_ROOM: Final = 0.5
CRANKING_HZ: Final = 0.002
NEGLIGIBLE: Final = 1e-4
KEEP_ABOVE_FINGERS: Final = Turns.of(1, 8)


@dataclass(frozen=True, slots=True)
class Limits:
    """Most steps down (≤ 0) and up (≥ 0) per rod, in layout order."""

    down: NDArray[np.int64]
    up: NDArray[np.int64]


def limits_of(task: ClearingTask, belief: Belief) -> Limits:
    """A rod keeps more than half of what holds it now, and stays above finger-tight where the tally tells where that is.

    Without a tally, unevenness that pitch does not hear must be reckoned with: it is taken to be as large as what is heard, and a rod
    that may hang by little is not slackened far.
    """
    step = float(task.step.fraction)
    per_turn = max(float(belief.answer.sum(axis=1).mean()), 1e-6)
    in_tension = np.clip(belief.z, 0, None) / per_turn  # turns above slack, as pitch tells
    room = MOST_SLACKENED * in_tension
    if task.tally is not None:
        counted = [float((task.tally[rod] + -KEEP_ABOVE_FINGERS).fraction) for rod in task.layout.rods]
        room = np.minimum(room, np.clip(counted, 0, None))
    else:
        unheard = belief.modal * np.std(belief.z) / (HEARD_SHARE * per_turn)
        room = np.minimum(room, np.clip(in_tension - UNHEARD_SDS * unheard, step, None))
    up = np.full(len(room), MOST_TIGHTENED_TURNS)
    return Limits(-np.floor(room / step + 1e-9).astype(np.int64), np.floor(up / step).astype(np.int64))


@dataclass(frozen=True, slots=True)
class _Quadratic:
    """cost(x) = ½ xᵀAx + bᵀx + c·Σ|x| over whole steps x."""

    a: Array
    b: Array
    c: float


def _expected_unevenness(component: Component) -> tuple[Array, Array]:
    """A (n, n) and b (n,): expected squared distance from wanted after turns t is tᵀAt + 2bᵀt + constant.

    With r the distance now, M the answer and B its uncertainty, E|r + δ + (M + B)t|² is quadratic in t.
    """
    n = component.rods
    directions = component.directions()
    answer, residual = component.answer, component.state - 1
    spread = np.tensordot(component.covariance[n:, n:], directions, axes=1)
    uncertain = np.einsum("mri,mrj->ij", directions, spread)
    shared = np.einsum("mri,rm->i", directions, component.covariance[:n, n:])
    slips = np.diag(EXECUTION_SD**2 * (answer**2).sum(axis=0))
    return answer.T @ answer + uncertain + slips, answer.T @ residual + shared


def _cost(task: ClearingTask, belief: Belief) -> _Quadratic:
    step = float(task.step.fraction)
    parts = [(c.weight, *_expected_unevenness(c)) for c in belief.components if c.weight > NEGLIGIBLE]
    a = 2 * step**2 * sum(weight * part for weight, part, _ in parts)
    b = 2 * step * sum(weight * part for weight, _, part in parts)
    odd = _odd_projection(task)
    weight = 2 * ODD_COST * belief.modal * step  # a head that answers locally lets odd patterns be heard
    a = a + weight * step * odd
    if task.tally is not None:
        counted = np.array([float(task.tally[rod].fraction) for rod in task.layout.rods])
        b = b + weight * (odd @ (counted - counted.mean()))
    return _Quadratic(np.asarray(a), np.asarray(b), CRANKING_COST)


def _odd_projection(task: ClearingTask) -> Array:
    """Odd harmonics of the turns: tilt and its like, which pitch does not hear."""
    angles = np.array([task.layout.angle_rad(rod) for rod in task.layout.rods])
    apart = angles[:, None] - angles[None, :]
    harmonics = range(1, task.layout.count // 2 + 1, 2)
    return np.asarray(
        sum(((1 if 2 * k == task.layout.count else 2) / task.layout.count) * np.cos(k * apart) for k in harmonics)
    )


@lru_cache(maxsize=16)
def _moves(n: int) -> NDArray[np.int64]:
    """(m, n): every single step and every pair of steps."""
    unit = np.eye(n, dtype=np.int64)
    singles = [unit, -unit]
    pairs = [one * unit[i] + other * unit[i + 1 :] for i in range(n - 1) for one in (1, -1) for other in (1, -1)]
    return np.concatenate([*singles, *pairs])


def _improve(cost: _Quadratic, limits: Limits, x: NDArray[np.int64]) -> NDArray[np.int64]:
    """Descend by single steps and by pairs of steps until nothing helps."""
    table = _moves(len(x))
    curvature = 0.5 * np.einsum("mi,ij,mj->m", table, cost.a, table)
    for _ in range(400):
        slope = cost.a @ x + cost.b
        moved = x + table
        change = table @ slope + curvature + cost.c * (np.abs(moved).sum(axis=1) - np.abs(x).sum())
        allowed = ((moved >= limits.down) & (moved <= limits.up)).all(axis=1)
        change = np.where(allowed, change, np.inf)
        best = int(np.argmin(change))
        if change[best] >= -1e-12:
            return x
        x = moved[best]
    return x


def _polish(
    task: ClearingTask, belief: Belief, cost: _Quadratic, limits: Limits, x: NDArray[np.int64]
) -> NDArray[np.int64]:
    """Near the goal, what counts is the spread between the highest and the lowest rod: choose among whole steps by that.

    The expected unevenness stays in the measure, so that doubtful readings do not make bolder turns.
    """
    wanted, step = task.wanted_hz, float(task.step.fraction)
    answer, state = belief.answer * step, belief.z
    doubt = float(np.trace(belief.outcome(np.zeros(len(x)))[1]))
    residual = float(((state - 1) ** 2).sum()) + doubt

    def measure(candidates: NDArray[np.int64]) -> Array:
        hz = wanted * np.sqrt(np.clip(state + candidates @ answer.T, 1e-6, None))
        quadratic = 0.5 * np.einsum("mi,ij,mj->m", candidates, cost.a, candidates) + candidates @ cost.b + residual
        rms = wanted / 2 * np.sqrt(np.clip(quadratic, 0, None) / len(x))
        off = np.clip(np.abs(hz.mean(axis=1) / wanted - 1) - MEAN_ROOM * task.even.mean_ratio, 0, None) * wanted
        return np.asarray(
            np.ptp(hz, axis=1) + RMS_WEIGHT * rms + 4 * off + CRANKING_HZ * np.abs(candidates).sum(axis=1)
        )

    table = _moves(len(x))
    best = float(measure(x[None])[0])
    for _ in range(60):
        candidates = x + table
        allowed = ((candidates >= limits.down) & (candidates <= limits.up)).all(axis=1)
        values = np.where(allowed, measure(candidates), np.inf)
        found = int(np.argmin(values))
        if values[found] >= best - 1e-9:
            break
        x, best = candidates[found], float(values[found])
    return x


def plan_turns(task: ClearingTask, belief: Belief) -> Mapping[int, Turns]:
    """Turns per rod in whole steps of the task, within the limits, zero for rods to be left alone."""
    cost, limits = _cost(task, belief), limits_of(task, belief)
    smooth = -np.linalg.solve(cost.a + np.eye(len(cost.b)) * 1e-9, cost.b)
    start = np.clip(np.rint(smooth), limits.down, limits.up).astype(np.int64)
    at_rest = np.clip(np.zeros_like(start), limits.down, limits.up)
    found = [_improve(cost, limits, each) for each in (start, at_rest)]
    value = [0.5 * x @ cost.a @ x + cost.b @ x + cost.c * np.abs(x).sum() for x in found]
    best = found[int(np.argmin(value))]
    best = _polish(task, belief, cost, limits, best)
    size = task.step.thirtyseconds
    return {rod: Turns(int(steps) * size) for rod, steps in zip(task.layout.rods, best, strict=True)}
