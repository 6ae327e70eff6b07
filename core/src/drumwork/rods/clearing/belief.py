"""What the readings and turns so far say about a head: its present state and how it answers to its rods.

Everything is linear in z = (f / wanted)², since tension goes with the square of pitch. With s the present state and U the turns made
since a reading was taken, that reading saw

    z = s - R · diag(1 + q) · U,        R = Σ_k λ_k P_k

where P_k projects on the k-th harmonic round the head, λ_k is that harmonic's answer per turn, and q is each rod's own departure
(thread, friction, slip). Turns are made with a small error of their own, which stays in the head: readings from before the same turn
share it. Two kinds of head are believed in side by side and weighed by evidence: one whose edge readings follow the two-lobed doublet
(odd harmonics all but unheard), and one that answers locally.

References
----------
Two-lobed share 0.44 and the even-harmonic blindness: our own numerical study of an uneven film, restated in
`docs/sources/film.md`; a model, no instrumented drum was measured. Gauss–Newton on a Gaussian prior: any text on
Bayesian filtering, e.g. S. Särkkä, *Bayesian Filtering and Smoothing* (2013), ch. 5.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.task import ClearingTask
from drumwork.rods.layout import RodLayout

__all__ = ["Belief", "Component", "believe"]

Array = NDArray[np.float64]

# Priors of our own study (a model), in units of z and turns; shares are of the answer of an even turn of all rods.
ANSWER_PER_TURN: Final = 0.8  # all rods one turn: z rises by this, when nothing is known
ANSWER_LOG_SD: Final = 0.35
ROD_SD: Final = 0.10
READING_SD: Final = 0.006  # ±0.3 % of pitch is ±0.6 % of z
EXECUTION_SD: Final = 0.03  # of a turn: how exactly it is made
UNEVEN_SD: Final = 0.12  # typical unevenness of z in a harmonic that can be read
MODAL_SHARE: Final = {0: (1.0, 0.0, 1.0), 2: (0.44, 0.09, UNEVEN_SD), 4: (0.06, 0.06, 0.02)}
MODAL_ODD: Final = (0.0, 0.02, 0.004)
LOCAL_SD: Final = 0.25
ITERATIONS: Final = 3


@dataclass(frozen=True, slots=True)
class Component:
    """A Gaussian belief under one kind of head, over (present state, harmonic answers, rod quirks).

    Attributes
    ----------
    mean, covariance : (2n + K,), (2n + K, 2n + K)
    projections : (K, n, n)
    weight : chance, 0…1, that the head is of this kind
    """

    mean: Array
    covariance: Array
    projections: Array
    weight: float

    @property
    def rods(self) -> int:
        return int(self.projections.shape[1])

    @property
    def plain(self) -> Array:
        """(n, n) the answer R without quirks: change of z (row) per turn of a rod (column)."""
        n = self.rods
        return np.asarray(np.tensordot(self.mean[n : n + len(self.projections)], self.projections, axes=1))

    @property
    def quirk(self) -> Array:
        return self.mean[self.rods + len(self.projections) :]

    @property
    def answer(self) -> Array:
        """(n, n) the answer with each rod's own departure."""
        return self.plain * (1 + self.quirk)

    @property
    def state(self) -> Array:
        """(n,) mean present state."""
        return self.mean[: self.rods]

    def directions(self) -> Array:
        """(K + n, n, n) how the answer changes with each unknown: harmonics first, then quirks."""
        n = self.rods
        by_answer = self.projections * (1 + self.quirk)
        by_quirk = np.zeros((n, n, n))
        by_quirk[np.arange(n), :, np.arange(n)] = self.plain.T
        return np.concatenate([by_answer, by_quirk])

    def jacobian(self, turns: Array) -> Array:
        """(n, 2n + K) how the state after further turns changes with each unknown."""
        moved = self.directions() @ turns
        return np.concatenate([np.eye(self.rods), moved.T], axis=1)


@dataclass(frozen=True, slots=True)
class Belief:
    """Both kinds of head, weighed."""

    components: tuple[Component, ...]

    @property
    def modal(self) -> float:
        """Chance that the head answers by its doublet rather than locally."""
        return self.components[0].weight

    @property
    def z(self) -> Array:
        return np.asarray(sum(c.weight * c.state for c in self.components))

    @property
    def answer(self) -> Array:
        return np.asarray(sum(c.weight * c.answer for c in self.components))

    def outcome(self, turns: Array) -> tuple[Array, Array]:
        """(n,), (n, n): mean and covariance of z after further turns."""
        means = [c.state + c.answer @ turns for c in self.components]
        mean = np.asarray(sum(c.weight * m for c, m in zip(self.components, means, strict=True)))
        spread = np.zeros((len(mean), len(mean)))
        for c, m in zip(self.components, means, strict=True):
            jacobian = c.jacobian(turns)
            slips = (c.answer * (EXECUTION_SD * turns) ** 2) @ c.answer.T
            spread += c.weight * (jacobian @ c.covariance @ jacobian.T + slips + np.outer(m - mean, m - mean))
        return mean, spread


@lru_cache(maxsize=64)
def _projections(layout: RodLayout) -> Array:
    """(K, n, n): projection on each harmonic round the whole head, cut down to the rods that are there."""
    angles = np.array([layout.angle_rad(rod) for rod in layout.rods])
    apart = angles[:, None] - angles[None, :]
    harmonics = range(layout.count // 2 + 1)
    weight = [1 if k == 0 or 2 * k == layout.count else 2 for k in harmonics]
    return np.array([w / layout.count * np.cos(k * apart) for k, w in zip(harmonics, weight, strict=True)])


def _shares(modal: bool, count: int) -> Array:
    """(K, 3): prior mean and sd of each harmonic's share of the answer, and sd of the unevenness found in it."""
    harmonics = range(count // 2 + 1)
    if modal:
        return np.array([MODAL_SHARE.get(k, MODAL_ODD) for k in harmonics])
    smooth = [0.35 + 0.45 * (1 + math.cos(2 * math.pi * k / count)) / 2 for k in harmonics]
    return np.array([(1.0, 0.0, 1.0) if k == 0 else (share, LOCAL_SD, UNEVEN_SD) for k, share in enumerate(smooth)])


@dataclass(frozen=True, slots=True)
class _Prior:
    mean: Array
    covariance: Array


def _prior(modal: bool, layout: RodLayout, projections: Array, level: float, scale: float) -> _Prior:
    harmonics, n = projections.shape[0], projections.shape[1]
    share, sd, uneven = _shares(modal, layout.count).T
    weight = np.array([np.trace(p) for p in projections]) * layout.count / n
    # A harmonic's unevenness is spread over its one or two waves: scale so that `uneven` is the sd at a rod.
    state = np.tensordot(uneven**2 / np.maximum(weight, 1) * layout.count, projections, axes=1)
    gain = ANSWER_LOG_SD * scale
    answer = np.diag((sd * scale) ** 2) + np.outer(share, share) * gain**2
    mean = np.concatenate([np.full(n, level), share * scale, np.zeros(n)])
    covariance = np.zeros((len(mean), len(mean)))
    covariance[:n, :n] = state
    covariance[n : n + harmonics, n : n + harmonics] = answer
    covariance[n + harmonics :, n + harmonics :] = np.eye(n) * ROD_SD**2
    return _Prior(mean, covariance)


@dataclass(frozen=True, slots=True)
class _Observed:
    """Every reading so far: its value, its rod, its round; and the turns made after each round."""

    z: Array  # (m,)
    rod: NDArray[np.intp]  # (m,)
    round: NDArray[np.intp]  # (m,)
    made: Array  # (r, n) turns made after each round; none after the last
    since: Array  # (m, n) turns made since each reading


def _observe(task: ClearingTask) -> _Observed:
    rods = task.layout.rods
    z, where, when = [], [], []
    made = np.zeros((len(task.rounds), len(rods)))
    for number, each in enumerate(task.rounds):
        for rod, pitch in each.readings.items():
            z.append((pitch.hz / task.wanted_hz) ** 2)
            where.append(rods.index(rod))
            when.append(number)
        if number < len(task.rounds) - 1:
            made[number] = [float(each.turned[rod].fraction) if rod in each.turned else 0.0 for rod in rods]
    later = np.cumsum(made[::-1], axis=0)[::-1]
    return _Observed(np.array(z), np.array(where), np.array(when), made, later[np.array(when)])


def _noise(seen: _Observed, made_answer: Array) -> Array:
    """(m, m) what readings do not tell: their own error, and the slips of turns made after them, shared by rods and rounds."""
    noise = np.eye(len(seen.z)) * READING_SD**2
    for number, turns in enumerate(seen.made):
        if turns.any():
            before = seen.round <= number
            effect = np.where(before[:, None], made_answer, 0.0) * (EXECUTION_SD * turns)
            noise += effect @ effect.T
    return noise


def _fit(seen: _Observed, projections: Array, prior: _Prior) -> tuple[Component, float]:
    """Gauss–Newton posterior under one kind of head, and its log evidence."""
    harmonics, n = projections.shape[0], projections.shape[1]
    at_rod = projections[:, seen.rod, :]  # (K, m, n)
    own = np.eye(n)[seen.rod]
    mean = prior.mean
    for _ in range(ITERATIONS):
        lam, quirk = mean[n : n + harmonics], mean[n + harmonics :]
        by_rod = np.tensordot(lam, at_rod, axes=1)  # (m, n) answer of the reading's rod to each rod
        by_answer = -np.einsum("kmn,mn->mk", at_rod, seen.since * (1 + quirk))
        jacobian = np.concatenate([own, by_answer, -by_rod * seen.since], axis=1)
        predicted = mean[:n][seen.rod] + by_answer @ lam
        offset = seen.z - predicted + jacobian @ (mean - prior.mean)
        spread = jacobian @ prior.covariance
        innovation = spread @ jacobian.T + _noise(seen, by_rod)
        gain = np.linalg.solve(innovation, spread).T
        mean = prior.mean + gain @ offset
    covariance = prior.covariance - gain @ spread
    log_det = float(np.linalg.slogdet(innovation)[1])
    evidence = -0.5 * float(offset @ np.linalg.solve(innovation, offset)) - 0.5 * log_det
    return Component(mean, (covariance + covariance.T) / 2, projections, 1.0), evidence


def believe(task: ClearingTask) -> Belief:
    """Weigh both kinds of head by all rounds so far."""
    projections = _projections(task.layout)
    scale = 2 * task.prior_hz_per_turn / task.wanted_hz if task.prior_hz_per_turn else ANSWER_PER_TURN
    seen = _observe(task)
    level = float(seen.z[seen.round == len(task.rounds) - 1].mean())
    fits = [_fit(seen, projections, _prior(modal, task.layout, projections, level, scale)) for modal in (True, False)]
    against = fits[1][1] - fits[0][1]
    modal = 1 / (1 + math.exp(min(50.0, max(-50.0, against))))
    weighed = zip(fits, (modal, 1 - modal), strict=True)
    return Belief(tuple(Component(c.mean, c.covariance, c.projections, w) for (c, _), w in weighed))
