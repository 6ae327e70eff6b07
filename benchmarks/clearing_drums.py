"""Simulated drums for the closed-loop benches, made apart from `drumwork.simulated` and from the engine's own priors.

Readings come from a doublet (each rod a blend of two frequencies) with a faint third pair, or from rods that mostly move their own reading,
with gains, quirks, noise and execution drawn anew for every drum.
"""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np

COUNTS = (5, 6, 8, 10)
NEAR_SLACK_TURNS = 1 / 8
Array = np.ndarray


@dataclass
class Drum:
    """One simulated head. `slack` counts rods that were turned out of tension, `slack_avoidable` those of them that had more than an eighth
    of a turn to give at the start."""

    n: int
    target: float
    start: float
    gain_hz: float
    told_hz: float
    modal: bool
    spread: float
    random: np.random.Generator
    slack: int = 0
    slack_avoidable: int = 0
    z: Array = field(init=False)
    answer: Array = field(init=False)
    tension: Array = field(init=False)
    start_tension: Array = field(init=False)

    def __post_init__(self) -> None:
        quirk = 1 + 0.10 * self.random.standard_normal(self.n)
        per_turn = 2 * self.gain_hz / self.target
        self.answer = per_turn * self._shape() * quirk[None, :]
        turns = self.random.standard_normal(self.n)
        uneven = self.answer @ (turns - turns.mean())
        if np.ptp(uneven) < 1e-6:
            uneven = self.random.standard_normal(self.n)
        level = (self.start / self.target) ** 2
        self.z = level * (1 + 2 * self.spread * (uneven - uneven.mean()) / np.ptp(uneven))
        scale = 2 * self.spread * level / np.ptp(uneven)
        self.tension = np.full(self.n, level / per_turn) + scale * (turns - turns.mean())  # turns above slack
        self.start_tension = self.tension.copy()

    def _shape(self) -> Array:
        angles = 2 * np.pi * np.arange(self.n) / self.n
        apart = angles[:, None] - angles[None, :]
        if self.modal:
            rho2, rho4 = self.random.uniform(0.29, 0.47), self.random.uniform(0.0, 0.08)
            share = 1 + 2 * rho2 * np.cos(2 * apart)
            return np.asarray((share + 2 * rho4 * np.cos(4 * apart) if self.n >= 8 else share) / self.n)
        near, facing = self.random.uniform(0.15, 0.5), self.random.uniform(0, 0.2)
        kernel = np.zeros(self.n)
        kernel[0], kernel[1], kernel[-1] = 1, near, near
        if self.n % 2 == 0:
            kernel[self.n // 2] += facing
        steps = (np.arange(self.n)[:, None] - np.arange(self.n)[None, :]) % self.n
        return np.asarray(kernel[steps] / kernel.sum())

    def true_hz(self) -> Array:
        return self.target * np.sqrt(np.clip(self.z, 0.01, None))

    def tap(self) -> Array:
        return self.true_hz() * (1 + 0.003 * self.random.standard_normal(self.n))

    def turn(self, turns: Array) -> Array:
        """Execute with error; what was asked is what is told to the rule."""
        made = turns * (1 + 0.03 * self.random.standard_normal(self.n))
        self.z = self.z + self.answer @ made
        before = self.tension
        self.tension = self.tension + made
        lost = (self.tension < 0) & (before >= 0)
        self.slack += int(np.sum(lost))
        self.slack_avoidable += int(np.sum(lost & (self.start_tension > NEAR_SLACK_TURNS)))
        return turns

    def reached(self) -> bool:
        hz = self.true_hz()
        return bool(np.ptp(hz) <= min(2.0, 0.01 * hz.mean()) and abs(hz.mean() / self.target - 1) <= 0.01)


def make_drum(seed: int) -> Drum:
    random = np.random.default_rng(seed)
    n = COUNTS[seed % 4]
    target = float(random.uniform(90, 330))
    gain = target * random.uniform(0.22, 0.5)
    told = gain * random.uniform(1 / 1.4, 1.4)
    retune = 0.0 if seed % 3 == 0 else float(random.uniform(-0.08, 0.12))
    return Drum(
        n,
        target,
        target / (1 + retune),
        gain,
        told,
        modal=(seed // 4) % 2 == 0,
        spread=float(random.uniform(0.05, 0.15)),
        random=random,
    )
