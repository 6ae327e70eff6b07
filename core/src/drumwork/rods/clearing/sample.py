"""Heads as they may be: a few hundred of them drawn from the belief, the same every time, so that chances can be counted.

Each drawn head has a state, an answer to its rods, and its own way of departing from that answer: hands slip, and the answer wanders.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.belief import EXECUTION_SD, Belief, Component
from drumwork.rods.clearing.observe import lobes_of
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["Heads", "draw_heads"]

Array = NDArray[np.float64]

DRAWS: Final = 192
LEAST_Z: Final = 1e-6
NOTHING: Final = 1e-7
"""What keeps a covariance that is all but flat in some direction from failing; far below what any reading tells."""


@lru_cache(maxsize=32)
def _normals(size: int, seed: int) -> Array:
    """(DRAWS, size) normal draws."""
    return np.random.default_rng([size, seed]).standard_normal((DRAWS, size))


def _allot(weights: Array) -> NDArray[np.intp]:
    """How many of the draws each weight gets, by largest remainder."""
    due = weights * DRAWS
    counts = np.floor(due).astype(np.intp)
    short = DRAWS - int(counts.sum())
    counts[np.argsort(counts - due, kind="stable")[:short]] += 1
    return counts


@dataclass(frozen=True, slots=True)
class Heads:
    """Drawn heads.

    Attributes
    ----------
    state : (d, n) z now
    answer : (d, n, n) change of z (row) per turn of a rod (column)
    strays : (d,) of a turn: how far each answers otherwise than by its answer
    lobes : (d, 2, n) of a head whose pair is known, the two waves that all angles are judged by; else zero
    """

    state: Array
    answer: Array
    strays: Array
    lobes: Array

    def every_second(self) -> Heads:
        """Half of them, enough to choose between turns by."""
        return Heads(*(each[::2] for each in (self.state, self.answer, self.strays, self.lobes)))

    def after(self, turns: Array) -> Array:
        """(c, d, n) z of every head after each of (c, n) turns."""
        count, n = self.state.shape
        wanders = self.strays[:, None] * _normals(n, 2)[:count]
        # (d, c, n), and worked on in place: it is large
        made = np.abs(turns) * (EXECUTION_SD * _normals(n, 1)[:count, None, :])
        made += np.sqrt((turns**2).mean(axis=1))[:, None] * wanders[:, None, :]
        made += turns
        z = made @ self.answer.transpose(0, 2, 1)
        z += self.state[:, None, :]
        return np.asarray(np.maximum(z, LEAST_Z, out=z).transpose(1, 0, 2))

    def spread(self, z: Array) -> Array:
        """(c, d) of (c, d, n): from lowest to highest as a ratio of pitch, over the rods, and over every angle where the pair is known."""
        at_rods = np.sqrt(z.max(axis=2)) - np.sqrt(z.min(axis=2))
        if not self.lobes.any():
            return np.asarray(at_rods)
        half = np.sqrt((np.einsum("dwn,cdn->cdw", self.lobes, z) ** 2).sum(axis=2))
        mean = z.mean(axis=2)
        everywhere = np.sqrt(mean + half) - np.sqrt(np.maximum(mean - half, LEAST_Z))
        return np.asarray(np.maximum(at_rods, everywhere))

    def level(self, z: Array) -> Array:
        """(c, d) mean pitch as a ratio of the wanted."""
        return np.asarray(np.sqrt(z).mean(axis=2))

    def chance(self, task: ClearingTask, turns: Array) -> float:
        """Share of the heads that lie within the rule after these (n,) turns."""
        z = self.after(turns[None])
        within = (self.spread(z) <= task.allowed_ratio) & (np.abs(self.level(z) - 1) <= task.even.mean_ratio)
        return float(within.mean())


def _drawn(component: Component, rows: slice) -> tuple[Array, Array]:
    """(c, n), (c, n, n): states and answers of the draws in `rows`."""
    n, harmonics = component.rods, len(component.projections)
    size = len(component.mean)
    spread = component.covariance + np.eye(size) * (NOTHING * float(np.trace(component.covariance)) / size)
    off = _normals(size, 0)[rows] @ np.linalg.cholesky(spread).T
    each = component.mean + off
    plain = np.tensordot(each[:, n : n + harmonics], component.projections, axes=1)
    return each[:, :n], plain * (1 + each[:, None, n + harmonics :])


def draw_heads(task: ClearingTask, belief: Belief) -> Heads:
    """Draw heads of every kind, as many as each is likely."""
    counts = _allot(np.array([c.weight for c in belief.components]))
    ends = np.cumsum(counts)
    parts = [
        (c, *_drawn(c, slice(end - count, end)))
        for c, count, end in zip(belief.components, counts, ends, strict=True)
        if count
    ]
    lobes = lobes_of(task.layout) if task.pair_known else np.zeros((2, len(task.layout.rods)))
    return Heads(
        state=np.concatenate([state for _, state, _ in parts]),
        answer=np.concatenate([answer for *_, answer in parts]),
        strays=np.concatenate([np.full(len(state), c.strays) for c, state, _ in parts]),
        lobes=np.concatenate([np.repeat(lobes[None] * c.has_pair, len(state), axis=0) for c, state, _ in parts]),
    )
