"""The best turns in whole steps: least expected unevenness, then the best chance of meeting the rule, few rods, never out of tension."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.clearing.belief import EXECUTION_SD, Belief, Component
from drumwork.rods.clearing.limits import Limits, made_so_far
from drumwork.rods.clearing.numerics import solve_positive
from drumwork.rods.clearing.sample import Heads
from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.clearing.tension import EdgeTension, unheard_part

__all__ = ["STILL", "plan_equal", "plan_turns"]

Array = NDArray[np.float64]
Steps = NDArray[np.int64]

CRANKING_COST: Final = 2e-6  # per step turned, in z²: breaks ties, does not trade evenness away
UNHEARD_COST: Final = 0.01  # keeps turns that pitch cannot hear near the count that is even
RMS_WEIGHT: Final = 0.7
MEAN_ROOM: Final = 0.2  # of what the rule allows, nothing is charged for
CRANKING_RATIO: Final = 1e-5
NEGLIGIBLE: Final = 1e-4
PROMISING: Final = 30  # candidates of each look whose chance is worked out
LOOKS: Final = 3
STILL: Final = 0.5
"""A head less likely even than this is not left as it is, where a step can better it."""
CRANKING_CHANCE: Final = 0.002  # of a chance, for each step turned
UNHEARD_CHANCE: Final = 16.0  # of a chance, for each square turn of pull that pitch would not hear
UNHEARD_RATIO: Final = 1.0  # the same, in the spread's ratio
MEAN_CHANCE: Final = 0.1  # of a chance, for a mean as far off as the rule allows
MEAN_BESIDE_COUNT: Final = 3.0
"""Times as much where a count is followed: what evens the count must not draw the level off."""
SPREAD_CHANCE: Final = 0.02  # of a chance, for a spread as large as what is allowed


@dataclass(frozen=True, slots=True)
class _Quadratic:
    """cost(x) = ½ xᵀAx + bᵀx + c·Σ|x| over whole steps x."""

    a: Array
    b: Array
    c: float

    def at(self, x: Steps) -> float:
        return float(0.5 * x @ self.a @ x + self.b @ x + self.c * np.abs(x).sum())


@dataclass(frozen=True, slots=True)
class _Unheard:
    """Pull that pitch does not hear. `part` (n, n) cuts turns down to it; `lies` (n,) is what there is of it, in turns: as far as a count or a
    gauge tells, else what our own turns have made of an even one. `weight` is how likely pitch is deaf to it, `trust` how far it was told."""

    part: Array
    lies: Array
    weight: float
    trust: float

    @classmethod
    def of(cls, task: ClearingTask, belief: Belief, tension: EdgeTension) -> _Unheard:
        part = unheard_part(task, belief)
        if task.means.is_number:  # read at the pull itself: there is nothing it does not show
            return cls(part, np.zeros(len(part)), 0.0, 0.0)
        lies = tension.trust * tension.unheard + (1 - tension.trust) * (part @ made_so_far(task))
        return cls(part, lies, belief.modal, tension.trust)

    def after(self, turns: Array) -> Array:
        """(m,) square turns of it left after (m, n) turns, weighed."""
        if not self.weight:
            return np.zeros(len(turns))
        return np.asarray(self.weight * ((self.lies + turns @ self.part) ** 2).sum(axis=1))


def _expected_unevenness(component: Component) -> tuple[Array, Array]:
    """A (n, n) and b (n,): expected squared distance from wanted after turns t is tᵀAt + 2bᵀt + constant.

    With r the distance now, M the answer and B its uncertainty, E|r + δ + (M + B)t|² is quadratic in t.
    """
    n = component.rods
    directions = component.directions
    answer, residual = component.answer, component.state - 1
    spread = np.tensordot(component.covariance[n:, n:], directions, axes=1)
    uncertain = np.tensordot(directions, spread, axes=([0, 1], [0, 1]))
    shared = np.tensordot(directions, component.covariance[n:, :n], axes=([0, 1], [0, 1]))
    each = (answer**2).sum(axis=0)
    slips = np.diag(EXECUTION_SD**2 * each) + np.eye(n) * component.strays**2 * each.mean()
    return answer.T @ answer + uncertain + slips, answer.T @ residual + shared


def _cost(task: ClearingTask, belief: Belief, unheard: _Unheard) -> _Quadratic:
    step = float(task.step.fraction)
    parts = [(c.weight, *_expected_unevenness(c)) for c in belief.components if c.weight > NEGLIGIBLE]
    a = 2 * step**2 * sum(weight * part for weight, part, _ in parts)
    b = 2 * step * sum(weight * part for weight, _, part in parts)
    weight = 2 * UNHEARD_COST * unheard.weight * step  # a head that answers locally lets all of it be heard
    a, b = a + weight * step * unheard.part, b + weight * unheard.lies
    return _Quadratic(np.asarray(a), np.asarray(b), CRANKING_COST)


@lru_cache(maxsize=16)
def _moves(n: int) -> Steps:
    """(m, n): every single step and every pair of steps."""
    unit = np.eye(n, dtype=np.int64)
    singles = [unit, -unit]
    pairs = [one * unit[i] + other * unit[i + 1 :] for i in range(n - 1) for one in (1, -1) for other in (1, -1)]
    return np.concatenate([*singles, *pairs])


def _improve(cost: _Quadratic, limits: Limits, x: Steps) -> Steps:
    """Descend by single steps and by pairs of steps until nothing helps."""
    table = _moves(len(x))
    real = table.astype(float)  # whole numbers times real ones would be multiplied the slow way
    curvature = 0.5 * ((real @ cost.a) * real).sum(axis=1)
    for _ in range(400):
        slope = cost.a @ x + cost.b
        moved = x + table
        change = real @ slope + curvature + cost.c * (np.abs(moved).sum(axis=1) - np.abs(x).sum())
        change = np.where(limits.allow(moved), change, np.inf)
        best = int(np.argmin(change))
        if change[best] >= -1e-12:
            return x
        x = moved[best]
    return x


def _by_spread(
    task: ClearingTask, belief: Belief, unheard: _Unheard, cost: _Quadratic, limits: Limits, x: Steps
) -> Steps:
    """Near the goal, what counts is the spread between the highest and the lowest rod: choose among whole steps by that.

    The expected unevenness stays in the measure, so that doubtful readings do not make bolder turns.
    """
    step = float(task.step.fraction)
    answer, state = belief.answer * step, belief.z
    doubt = float(np.trace(belief.outcome(np.zeros(len(x)))[1]))
    residual = float(((state - 1) ** 2).sum()) + doubt

    def measure(steps: Steps) -> Array:
        candidates = steps.astype(float)
        ratio = np.sqrt(np.clip(state + candidates @ answer.T, 1e-6, None))
        quadratic = 0.5 * ((candidates @ cost.a) * candidates).sum(axis=1) + candidates @ cost.b + residual
        rms = 0.5 * np.sqrt(np.clip(quadratic, 0, None) / len(x))
        off = np.clip(np.abs(ratio.mean(axis=1) - 1) - MEAN_ROOM * task.even.mean_ratio, 0, None)
        cranked = CRANKING_RATIO * np.abs(candidates).sum(axis=1)
        deaf = UNHEARD_RATIO * unheard.after(candidates * step)
        return np.asarray(np.ptp(ratio, axis=1) + RMS_WEIGHT * rms + 4 * off + cranked + deaf)

    table = _moves(len(x))
    best = float(measure(x[None])[0])
    for _ in range(60):
        candidates = x + table
        values = np.where(limits.allow(candidates), measure(candidates), np.inf)
        found = int(np.argmin(values))
        if values[found] >= best - 1e-11:
            break
        x, best = candidates[found], float(values[found])
    return x


def _by_chance(task: ClearingTask, belief: Belief, heads: Heads, unheard: _Unheard, limits: Limits, x: Steps) -> Steps:
    """Last of all: among steps near by, those with the best chance that the head then lies within the rule.

    Where even is less likely than not, leaving all as it is is no plan, if any step can better it.
    """
    n, step = len(x), float(task.step.fraction)
    answer, allowed, mean_ratio = belief.answer * step, task.allowed_ratio, task.even.mean_ratio
    level_cost = MEAN_CHANCE * (1 + (MEAN_BESIDE_COUNT - 1) * unheard.trust)
    table = np.concatenate([np.zeros((1, n), dtype=np.int64), _moves(n)])

    def score(candidates: Steps) -> tuple[Array, Array]:
        turns = candidates.astype(np.float64) * step
        z = heads.after(turns)
        spread, off = heads.spread(z), np.abs(heads.level(z) - 1)
        chance = ((spread <= allowed) & (off <= mean_ratio)).mean(axis=1)
        cost = CRANKING_CHANCE * np.abs(candidates).sum(axis=1) + UNHEARD_CHANCE * unheard.after(turns)
        cost += (
            level_cost * np.clip(off.mean(axis=1) / mean_ratio - MEAN_ROOM, 0, None)
            + SPREAD_CHANCE * spread.mean(axis=1) / allowed
        )
        return chance, chance - cost

    for _ in range(LOOKS):
        candidates = x + table
        candidates = candidates[limits.allow(candidates)]
        ratio = np.sqrt(np.clip(belief.z + candidates @ answer.T, 1e-6, None))
        strayed = np.abs(ratio.mean(axis=1) - 1) > mean_ratio
        promising = np.concatenate([[0], np.argsort(np.ptp(ratio, axis=1) + strayed, kind="stable")[:PROMISING]])
        candidates = candidates[promising]
        chance, value = score(candidates)
        best = int(np.argmax(value))
        if not candidates[best].any() and chance[best] < STILL:
            moving = np.flatnonzero(candidates.any(axis=1))
            if len(moving):
                another = int(moving[np.argmax(value[moving])])
                best = another if chance[another] >= chance[best] else best
        if best == 0 or (value[best] <= value[0] + 1e-9 and x.any()):
            break
        x = candidates[best]
    return x


def _as_turns(task: ClearingTask, steps: Steps) -> Mapping[int, Turns]:
    size = task.step.thirtyseconds
    return {rod: Turns(int(each) * size) for rod, each in zip(task.layout.rods, steps, strict=True)}


def plan_turns(
    task: ClearingTask, belief: Belief, heads: Heads, tension: EdgeTension, limits: Limits
) -> Mapping[int, Turns]:
    """Turns per rod in whole steps of the task, within the limits, zero for rods to be left alone."""
    unheard = _Unheard.of(task, belief, tension)
    cost = _cost(task, belief, unheard)
    smooth = -solve_positive(cost.a + np.eye(len(cost.b)) * 1e-9, cost.b)
    start = np.clip(np.rint(smooth), limits.down, limits.up).astype(np.int64)
    at_rest = np.zeros_like(start)
    best = min((_improve(cost, limits, each) for each in (start, at_rest)), key=cost.at)
    best = _by_spread(task, belief, unheard, cost, limits, best)
    return _as_turns(task, _by_chance(task, belief, heads.every_second(), unheard, limits, best))


def plan_equal(task: ClearingTask, needed_turns: float, limits: Limits) -> Mapping[int, Turns]:
    """The same for every rod, most of the way to the wanted pitch: a large move is made even and cleared afterwards."""
    steps = round(needed_turns / float(task.step.fraction))
    steps = int(np.clip(steps, limits.down.max(initial=-(10**6)), limits.up.min(initial=10**6)))
    return _as_turns(task, np.full(len(task.layout.rods), steps, dtype=np.int64))
