"""A planner that is told how each head answers, its noise and its slips, and hears the same taps: what anyone could reach.

A Kalman filter over the readings, and a descent over whole steps for the best chance of meeting the rule. Nothing of it is shared with the engine.
"""

from __future__ import annotations

import numpy as np

from benchmarks.judge.drums import Heard, JudgingDrum

__all__ = ["Told"]

Array = np.ndarray
DRAWS = 200
SURE = 0.985
MODEL_ERROR = 0.08
ROOM_SHARE = 0.5
CRANKING = 0.003


class Told:
    """`answer` (n, n): what it is told of the head, as `JudgingDrum.jacobian` gives it; the head's own by default."""

    def __init__(self, drum: JudgingDrum, step: float, answer: Array | None = None) -> None:
        self.drum, self.step, self.n = drum, step, drum.n
        self.answer = drum.jacobian() if answer is None else answer
        self.mean = np.ones(self.n)
        turns = 0.6 * np.eye(self.n)
        self.covariance = self.answer @ turns @ self.answer.T + np.full((self.n, self.n), 0.3) + 1e-6 * np.eye(self.n)
        self.normal = np.random.default_rng(5).standard_normal((DRAWS, self.n))

    def _update(self, z: Array) -> None:
        noise = np.diag((2 * self.drum.noise * z) ** 2)
        gain = np.linalg.solve(self.covariance + noise, self.covariance).T
        self.mean = self.mean + gain @ (z - self.mean)
        self.covariance = self.covariance - gain @ self.covariance
        self.covariance = (self.covariance + self.covariance.T) / 2

    def _after(self, turns: Array) -> Array:
        """(n, n) what a turn adds of doubt: slips, and that a head answers a little otherwise than told."""
        slips = (self.answer * (self.drum.slip * turns) ** 2) @ self.answer.T
        moved = MODEL_ERROR**2 * float((turns**2).mean()) * (self.answer @ self.answer.T)
        return np.asarray(slips + moved)

    def _off(self, covariance: Array) -> Array:
        values, vectors = np.linalg.eigh(covariance)
        return np.asarray(self.normal @ (vectors * np.sqrt(np.clip(values, 0, None))).T)

    def _score(self, means: Array, off: Array) -> Array:
        """(c,) chance of meeting the rule, and a little for being near it."""
        ratio = np.sqrt(np.clip(means[:, None, :] + off, 1e-4, None))
        spread, level = np.ptp(ratio, axis=2), np.abs(ratio.mean(axis=2) - 1)
        allowed = self.drum.allowed_hz() / self.drum.target
        within = (spread <= allowed) & (level <= 0.01)
        return np.asarray(
            within.mean(axis=1)
            - 0.05 * spread.mean(axis=1) / allowed
            - 0.3 * np.clip(level / 0.01 - 0.5, 0, None).mean(axis=1)
        )

    def __call__(self, heard: Heard) -> Array | None:
        self._update((heard.blended / self.drum.target) ** 2)
        off = self._off(self.covariance)
        ratio = np.sqrt(np.clip(self.mean + off, 1e-4, None))
        allowed = self.drum.allowed_hz() / self.drum.target
        if ((np.ptp(ratio, axis=1) <= allowed) & (np.abs(ratio.mean(axis=1) - 1) <= 0.01)).mean() >= SURE:
            return None
        turns = self._plan()
        self.mean = self.mean + self.answer @ turns
        self.covariance = self.covariance + self._after(turns)
        return turns

    def _plan(self) -> Array:
        answer, n = self.answer * self.step, self.n
        slips = (0.1 * np.linalg.norm(answer)) ** 2 / n
        x = np.rint(np.linalg.solve(answer.T @ answer + slips * np.eye(n), answer.T @ (1 - self.mean)))
        x = np.clip(x, np.minimum(-np.floor(ROOM_SHARE * self.drum.room() / self.step), 0), None)
        unit = np.eye(n)
        moves = np.array(
            [a * unit[i] + b * unit[j] for i in range(n) for j in range(i, n) for a in (1, -1) for b in (0, 1, -1)]
        )
        off = self._off(self.covariance + self._after(x * self.step))
        best = -np.inf
        for _ in range(40):
            candidates = np.concatenate([x[None], x + moves])
            means = self.mean + candidates @ answer.T
            ratio = np.sqrt(np.clip(means, 1e-4, None))
            near = np.argsort(np.ptp(ratio, axis=1) + 3 * np.clip(np.abs(ratio.mean(axis=1) - 1) - 0.005, 0, None))[:30]
            values = self._score(means[near], off) - CRANKING * np.abs(candidates[near]).sum(axis=1)
            found = int(np.argmax(values))
            if values[found] <= best + 1e-9:
                break
            x, best = candidates[near[found]], float(values[found])
        return np.asarray(x * self.step)
