"""What the readings and turns so far say about a head: its present state and how it answers to its rods.

Everything is linear in z = (f / wanted)², since tension goes with the square of pitch. The state after the turns
T made since the first round is

    z = z0 + R · diag(1 + q) · T,        R = Σ_k λ_k P_k

where P_k projects on the k-th harmonic round the head, λ_k is that harmonic's answer per turn, and q is each rod's
own departure (thread, friction, slip). Two kinds of head are believed in side by side and weighed by evidence: one
whose edge readings follow the two-lobed doublet (odd harmonics all but unheard), and one that answers locally.

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

__all__ = ["Belief", "believe"]

Array = NDArray[np.float64]

# Priors of our own study (a model), in units of z and turns.
ANSWER_PER_TURN: Final = 0.8  # all rods one turn: z rises by this, when nothing is known
ANSWER_LOG_SD: Final = 0.40
ROD_SD: Final = 0.10
READING_SD: Final = 0.006  # ±0.3 % of pitch is ±0.6 % of z
MODAL_SHARE: Final = {0: (1.0, 0.0), 2: (0.44, 0.08), 4: (0.05, 0.06)}
MODAL_ODD: Final = (0.0, 0.03)
LOCAL_SHARE: Final = (0.6, 0.25)
SAMPLES: Final = 96
ITERATIONS: Final = 3


@dataclass(frozen=True, slots=True)
class Belief:
    """Weighted samples of the present state and the answer of one head.

    Attributes
    ----------
    z : (n,) mean present state of the rods that are there, in layout order
    z_sd : (n,) its standard deviation
    states : (s, n) samples of the present state
    answers : (s, n, n) samples of the answer: change of z (row) per turn of a rod (column)
    modal : chance, 0…1, that the head answers by its doublet rather than locally
    """

    z: Array
    z_sd: Array
    states: Array
    answers: Array
    modal: float


@lru_cache(maxsize=64)
def _projections(layout: RodLayout) -> Array:
    """(K, n, n): projection on each harmonic round the whole head, cut down to the rods that are there."""
    angles = np.array([layout.angle_rad(rod) for rod in layout.rods])
    apart = angles[:, None] - angles[None, :]
    harmonics = range(layout.count // 2 + 1)
    weight = [1 if k == 0 or 2 * k == layout.count else 2 for k in harmonics]
    return np.array([w / layout.count * np.cos(k * apart) for k, w in zip(harmonics, weight, strict=True)])


def _answer_prior(modal: bool, harmonics: int, scale: float) -> tuple[Array, Array]:
    """Mean and covariance of the harmonics' answers; a common unknown gain ties them together."""
    shares = [
        (MODAL_SHARE.get(k, MODAL_ODD) if modal else ((1.0, 0.0) if k == 0 else LOCAL_SHARE)) for k in range(harmonics)
    ]
    mean = np.array([share for share, _ in shares]) * scale
    own = np.diag([(sd * scale) ** 2 for _, sd in shares])
    return mean, own + np.outer(mean, mean) * ANSWER_LOG_SD**2


def _state_prior(modal: bool, projections: Array) -> Array:
    """Covariance of the first state round its mean: what kind of unevenness can be read at all."""
    spread = np.full(len(projections), 0.15 if not modal else 0.004)
    spread[0] = 1.0
    if modal:
        spread[2:3], spread[4:5] = 0.15, 0.02
    return np.asarray(np.tensordot(spread**2, projections, axes=1)) * projections.shape[1]


@dataclass(frozen=True, slots=True)
class _Observed:
    """Every reading so far: its value, which rod, and the turns each rod had had by then."""

    z: Array
    rod: NDArray[np.intp]
    turned: Array  # (m, n) turns since the first round, one row per reading


def _observe(task: ClearingTask) -> _Observed:
    rods = task.layout.rods
    total = np.zeros(len(rods))
    z, where, turned = [], [], []
    for each in task.rounds:
        for rod, pitch in each.readings.items():
            z.append((pitch.hz / task.wanted_hz) ** 2)
            where.append(rods.index(rod))
            turned.append(total.copy())
        total = total + np.array([float(each.turned[rod].fraction) if rod in each.turned else 0.0 for rod in rods])
    return _Observed(np.array(z), np.array(where), np.array(turned))


@dataclass(frozen=True, slots=True)
class _Fit:
    mean: Array
    covariance: Array
    log_evidence: float


def _fit(seen: _Observed, projections: Array, modal: bool, scale: float) -> _Fit:
    """Gauss–Newton posterior of (first state, harmonic answers, rod quirks) under one kind of head."""
    harmonics, n = projections.shape[0], projections.shape[1]
    answer, answer_cov = _answer_prior(modal, harmonics, scale)
    first = np.full(n, seen.z[:n].mean())
    mean0 = np.concatenate([first, answer, np.zeros(n)])
    cov0 = np.zeros((len(mean0), len(mean0)))
    cov0[:n, :n] = _state_prior(modal, projections)
    cov0[n : n + harmonics, n : n + harmonics] = answer_cov
    cov0[n + harmonics :, n + harmonics :] = np.eye(n) * ROD_SD**2
    moved = np.abs(seen.turned).mean(axis=1) * scale
    noise = np.diag(READING_SD**2 + (0.03 * moved) ** 2)
    at_rod = projections[:, seen.rod, :]  # (K, m, n)
    mean = mean0
    for _ in range(ITERATIONS):
        lam, quirk = mean[n : n + harmonics], mean[n + harmonics :]
        by_rod = np.tensordot(lam, at_rod, axes=1)  # (m, n) answer of the reading's rod to each rod
        by_answer = np.einsum("kmn,mn->mk", at_rod, seen.turned * (1 + quirk))
        jacobian = np.concatenate([np.eye(n)[seen.rod], by_answer, by_rod * seen.turned], axis=1)
        predicted = mean[:n][seen.rod] + by_answer @ lam
        offset = seen.z - predicted + jacobian @ (mean - mean0)
        innovation = jacobian @ cov0 @ jacobian.T + noise
        gain = np.linalg.solve(innovation, jacobian @ cov0).T
        mean = mean0 + gain @ offset
    covariance = cov0 - gain @ jacobian @ cov0
    _sign, log_det = np.linalg.slogdet(innovation)
    evidence = -0.5 * float(offset @ np.linalg.solve(innovation, offset)) - 0.5 * float(log_det)
    return _Fit(mean, (covariance + covariance.T) / 2, evidence)


def _samples(fit: _Fit, count: int, seed: int) -> Array:
    """Antithetic draws, the same every time."""
    half = np.random.default_rng(seed).standard_normal((max(1, count // 2), len(fit.mean)))
    values, vectors = np.linalg.eigh(fit.covariance)
    root = vectors * np.sqrt(np.clip(values, 0, None))
    return np.asarray(fit.mean + np.concatenate([half, -half]) @ root.T)


def believe(task: ClearingTask) -> Belief:
    """Weigh both kinds of head by all rounds so far and return what is believed now."""
    projections = _projections(task.layout)
    harmonics, n = projections.shape[0], projections.shape[1]
    scale = 2 * task.prior_hz_per_turn / task.wanted_hz if task.prior_hz_per_turn else ANSWER_PER_TURN
    seen = _observe(task)
    total = seen.turned[-1]
    fits = [_fit(seen, projections, modal, scale) for modal in (True, False)]
    modal = 1 / (1 + math.exp(min(50.0, max(-50.0, fits[1].log_evidence - fits[0].log_evidence))))
    drawn = []
    for seed, (fit, share) in enumerate(zip(fits, (modal, 1 - modal), strict=True)):
        if (count := round(SAMPLES * share)) >= 2:
            drawn.append(_samples(fit, count, seed))
    params = np.concatenate(drawn)
    lam = np.clip(params[:, n : n + harmonics], [0.15 * scale] + [0.0] * (harmonics - 1), None)
    quirk = np.clip(params[:, n + harmonics :], -0.5, 0.5)
    answers = np.einsum("sk,kij->sij", lam, projections) * (1 + quirk)[:, None, :]
    states = params[:, :n] + answers @ total
    return Belief(states.mean(axis=0), states.std(axis=0), states, answers, modal)
