"""`./bench judge --ear`: clearing by ear on judging drums, by listeners who differ as drums do; rule beside rule on the same drums and ears.

A listener hears a difference with an error of their own, says “level” within what they notice, “much” beyond some multiple of that, and now and then anything
at all. The ranges are ours and meant to be wide: that many cannot judge small differences is common practice (N1); no source gives figures.
"""

from __future__ import annotations

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from functools import partial
from typing import Final

import numpy as np
from scipy.special import ndtr

from benchmarks.judge.drums import JudgingDrum
from drumwork.quantities import Turns
from drumwork.rods.clearing import ClearingTask, Ear, Means, Round, propose
from drumwork.rods.layout import RodLayout

__all__ = ["RULES", "compare"]

Array = np.ndarray
NOTICES_CENTS: Final = (8.0, 25.0)
MUCH: Final = (2.5, 4.0)
"""Of what is noticed, what counts as much."""
HEARS_SD_CENTS: Final = (3.0, 9.0)
WRONG: Final = (0.03, 0.15)
CANT_TELL: Final = (0.0, 0.1)
EVEN: Final = 0.02
"""Of the mean, from lowest to highest: about what is called even on a small drum (F2)."""
MOST_ROUNDS: Final = 12
SAID: Final = (Ear.MUCH_LOWER, Ear.LOWER, Ear.LEVEL, Ear.HIGHER, Ear.MUCH_HIGHER)
Rule = Callable[[Round], Array]


class Listener:
    """One person's ears."""

    def __init__(self, seed: int) -> None:
        self.random = random = np.random.default_rng([seed, 31])
        self.notices, self.much, self.sd, self.wrong, self.cant_tell = (
            float(random.uniform(*each)) for each in (NOTICES_CENTS, MUCH, HEARS_SD_CENTS, WRONG, CANT_TELL)
        )

    def says(self, cents: float) -> Ear:
        if self.random.random() < self.wrong:
            return SAID[self.random.integers(len(SAID))]
        if self.random.random() < self.cant_tell:
            return Ear.CANT_TELL
        heard = cents + self.sd * float(self.random.standard_normal())
        ends = self.notices * np.array([-self.much, -1, 1, self.much])
        return SAID[int(np.searchsorted(ends, heard))]

    def round(self, hz: Array) -> Round:
        """Every rod beside rod 1."""
        return Round(
            ear={rod: self.says(1200 * float(np.log2(hz[rod - 1] / hz[0]))) for rod in range(2, len(hz) + 1)},
            reference=1,
        )


def habit(drum: JudgingDrum, _: Listener, step: float) -> Rule:
    """What is higher is eased and what is lower lifted, by two steps, by four where it is much."""
    by = dict(zip(SAID, (4, 2, 0, -2, -4), strict=True))

    def rule(heard: Round) -> Array:
        return np.array([by.get(heard.ear.get(rod, Ear.LEVEL), 0) for rod in range(1, drum.n + 1)]) * step

    return rule


def ours(drum: JudgingDrum, _: Listener, step: float) -> Rule:
    layout, rounds = RodLayout(drum.n), list[Round]()

    def rule(heard: Round) -> Array:
        rounds.append(heard)
        task = ClearingTask(layout, tuple(rounds), Turns(round(32 * step)), means=Means.EAR)
        turns = propose(task, stop_when_read_clear=False).turns
        rounds[-1] = replace(heard, turned=turns)
        return np.array([float(turns[rod].fraction) for rod in layout.rods])

    return rule


class Told:
    """Told how the head answers and what its listener's words mean: heads as they may have been, moved about until they agree with every word so far.

    Elliptical slice sampling (I. Murray, R. P. Adams & D. J. C. MacKay, AISTATS 2010, from memory), many chains at once.
    """

    CHAINS, STEPS, MOST_TRIES = 160, 120, 12
    CENTS_PER_Z = 866.0
    MODEL_ERROR = 0.2  # hands slip, and a head answers a little otherwise than told

    def __init__(self, drum: JudgingDrum, ears: Listener, step: float) -> None:
        self.answer, self.ears, self.step, self.n = drum.jacobian(), ears, step, drum.n
        self.random = np.random.default_rng(7)
        self.moved = np.zeros(self.n)
        self.looks: list[tuple[Array, Round]] = []
        self.start = self._draw()

    def _draw(self) -> Array:
        turns = 0.5 * self.random.standard_normal((self.CHAINS, self.n))
        return np.asarray((turns - turns.mean(axis=1, keepdims=True)) @ self.answer.T)

    def _chance(self, moved: Array, heard: Round, z: Array) -> Array:
        """(chains,) logarithm of how likely these words are; less is made of them, the more was turned since."""
        ears, total = self.ears, np.zeros(len(z))
        sd = np.hypot(ears.sd, self.CENTS_PER_Z * self.MODEL_ERROR * np.sqrt(2 * ((self.moved - moved) ** 2).mean()))
        ends = np.concatenate([[-np.inf], ears.notices * np.array([-ears.much, -1, 1, ears.much]), [np.inf]])
        for rod, word in heard.ear.items():
            if word is Ear.CANT_TELL:
                continue
            cents, place = self.CENTS_PER_Z * (z[:, rod - 1] - z[:, 0]), SAID.index(word)
            low, high = ((ends[place + side] - cents) / sd for side in (0, 1))
            total += np.log(ears.wrong / 5 + (1 - ears.wrong) * (ndtr(high) - ndtr(low)))
        return total

    def _likely(self, start: Array) -> Array:
        return np.asarray(sum(self._chance(moved, heard, start + moved) for moved, heard in self.looks))

    def _sample(self) -> None:
        start, likely = self.start, self._likely(self.start)
        for _ in range(self.STEPS):
            other, least = self._draw(), likely + np.log(self.random.random(self.CHAINS))
            angle = self.random.uniform(0, 2 * np.pi, self.CHAINS)
            low, high, open_ = angle - 2 * np.pi, angle.copy(), np.ones(self.CHAINS, dtype=bool)
            for _ in range(self.MOST_TRIES):
                tried = start * np.cos(angle)[:, None] + other * np.sin(angle)[:, None]
                found = self._likely(tried)
                take = open_ & (found > least)
                start, likely = np.where(take[:, None], tried, start), np.where(take, found, likely)
                open_ &= ~take
                if not open_.any():
                    break
                low, high = np.where(angle < 0, angle, low), np.where(angle < 0, high, angle)
                angle = np.where(open_, self.random.uniform(low, high), angle)
        self.start = start

    def __call__(self, heard: Round) -> Array:
        self.looks.append((self.moved.copy(), heard))
        self._sample()
        turns = self._plan(self.start + self.moved)
        self.moved = self.moved + self.answer @ turns
        return turns

    def _plan(self, z: Array) -> Array:
        answer, n = self.answer * self.step, self.n
        slips = (0.1 * np.linalg.norm(answer)) ** 2 / n
        off = z.mean(axis=0) - z.mean()
        x = np.rint(np.linalg.solve(answer.T @ answer + slips * np.eye(n), -answer.T @ off))
        unit, best = np.eye(n), -np.inf
        moves = np.array(
            [a * unit[i] + b * unit[j] for i in range(n) for j in range(i, n) for a in (1, -1) for b in (0, 1, -1)]
        )
        for _ in range(40):
            candidates = np.concatenate([x[None], x + moves])
            means = candidates @ answer.T
            near = np.argsort(np.ptp(z.mean(axis=0) + means, axis=1) + 0.05 * np.abs(means.mean(axis=1)))[:30]
            ratio = np.sqrt(np.clip(1 + z[None] + means[near][:, None, :], 1e-4, None))
            spread = np.ptp(ratio, axis=2)
            value = (spread <= EVEN).mean(axis=1) - 0.05 * spread.mean(axis=1) / EVEN
            value -= 0.05 * np.abs(means[near].mean(axis=1)) / EVEN + 0.003 * np.abs(candidates[near]).sum(axis=1)
            found = int(np.argmax(value))
            if value[found] <= best + 1e-9:
                break
            x, best = candidates[near[found]], float(value[found])
        return np.asarray(x * self.step)


RULES: Final[dict[str, Callable[[JudgingDrum, Listener, float], Rule]]] = {
    "raise/lower": habit,
    "told": Told,
    "ours": ours,
}


def rounds_needed(seed: int, name: str, step: float) -> tuple[str, int]:
    """The drum's kind, and rounds of turns until the rods truly lie within EVEN of each other."""
    drum, ears = JudgingDrum(seed), Listener(seed)
    rule = RULES[name](drum, ears, step)
    for number in range(MOST_ROUNDS):
        hz = drum.true_hz()
        if np.ptp(hz) <= EVEN * hz.mean():
            return drum.kind, number
        drum.turn(rule(ears.round(hz)))
    return drum.kind, MOST_ROUNDS


def compare(seeds: Sequence[int], step: float, names: Sequence[str]) -> None:
    """Rule beside rule, on the drums that are not even to begin with."""
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for name in names:
            found = list(pool.map(partial(rounds_needed, name=name, step=step), seeds, chunksize=4))
            found = [(kind, number) for kind, number in found if number]
            every = np.array([number for _, number in found])
            kinds = "; ".join(
                f"{kind} {np.mean([number <= 4 for each, number in found if each == kind]):.0%}"
                for kind in sorted({kind for kind, _ in found})
            )
            print(
                f"  {name:14} {len(every)} uneven drums by ear to {EVEN:.0%}: median {np.median(every):.0f} rounds, 95th {np.percentile(every, 95):.0f}; "
                f"within 4 {(every <= 4).mean():.0%} ({kinds})"
            )
