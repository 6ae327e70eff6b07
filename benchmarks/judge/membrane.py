"""Modes of a round film under an uneven pull, by Rayleigh–Ritz.

    K_ij = ∫ T ∇φ_i·∇φ_j dA,  M_ij = ∫ φ_i φ_j dA,  T(r, θ) = 1 + Σ_k r^k (a_k cos kθ + b_k sin kθ)

on the unit circle, with Bessel functions of the even film as φ. The pull inside is the smooth (harmonic) continuation of that at the edge: a stand-in for
the plane stress of the film. A frequency is the square root of an eigenvalue.

References
----------
J. W. S. Rayleigh, *The Theory of Sound* (1877), §88 and ch. IX; zeros of J_m: DLMF §10.21.
"""

from __future__ import annotations

from functools import cache
from typing import Final

import numpy as np
from scipy.linalg import eigh
from scipy.special import jn_zeros, jv, jvp

__all__ = ["HARMONICS", "Modes", "modes"]

Array = np.ndarray

HARMONICS: Final = 12
ORDERS: Final = 5
RADIAL: Final = 3
EVEN_EDGE_MODE: Final = 3.831705970207512
"""j(1,1), DLMF §10.21."""
STRUCK_AT: Final = 0.93
POINTS: Final = (28, 72)


@cache
def _near_edge(angles: tuple[float, ...]) -> Array:
    """(f, p) every Ritz function where taps fall."""
    return _functions(np.full(len(angles), STRUCK_AT), np.array(angles))[0]


def _functions(r: Array, theta: Array) -> tuple[Array, Array, Array]:
    """(f, p): value, radial derivative and tangential derivative of every Ritz function at points."""
    value, radial, round_ = [], [], []
    for m in range(ORDERS + 1):
        for zero in jn_zeros(m, RADIAL):
            j, dj = jv(m, zero * r), zero * jvp(m, zero * r)
            for turned, slope in ((np.cos, lambda x: -np.sin(x)), (np.sin, np.cos)):
                if m == 0 and turned is np.sin:
                    continue
                value.append(j * turned(m * theta))
                radial.append(dj * turned(m * theta))
                round_.append(m * j / np.maximum(r, 1e-9) * slope(m * theta))
    return np.array(value), np.array(radial), np.array(round_)


@cache
def _matrices() -> tuple[Array, Array, int]:
    """(2H + 1, f, f) stiffness of a unit of each of 1, cos kθ, sin kθ; (f, f) mass; and where (1,1) begins."""
    nodes, weights = np.polynomial.legendre.leggauss(POINTS[0])
    r, theta = np.meshgrid((nodes + 1) / 2, 2 * np.pi * np.arange(POINTS[1]) / POINTS[1], indexing="ij")
    area = (weights[:, None] / 2 * r * 2 * np.pi / POINTS[1]).ravel()
    r, theta = r.ravel(), theta.ravel()
    value, radial, round_ = _functions(r, theta)
    fields = [np.ones_like(r)]
    for k in range(1, HARMONICS + 1):
        fields += [r**k * np.cos(k * theta), r**k * np.sin(k * theta)]
    stiff = np.array([(radial * f * area) @ radial.T + (round_ * f * area) @ round_.T for f in fields])
    return stiff, (value * area) @ value.T, RADIAL


class Modes:
    """The pair of modes with one diameter, of a film whose mean pull is 1: `hz` (2,) as ratios to the even film's, and how much a tap near
    the edge at angles moves each."""

    def __init__(self, values: Array, vectors: Array, mass: Array, first: int) -> None:
        share = (mass @ vectors)[first : first + 2] ** 2
        pair = np.sort(np.argsort(-share.sum(axis=0))[:2])
        self.hz = np.sqrt(np.clip(values[pair], 1e-6, None)) / EVEN_EDGE_MODE
        self._vectors = vectors[:, pair]

    def moved(self, angles: Array) -> Array:
        """(p, 2)"""
        return np.asarray((_near_edge(tuple(angles)).T @ self._vectors) ** 2)

    def blend(self, angles: Array) -> Array:
        """(p,) what is read at these angles where the two run into one, as a ratio to the even film's."""
        moved = self.moved(angles)
        return np.asarray(np.sqrt((moved * self.hz**2).sum(axis=1) / moved.sum(axis=1)))


def modes(edge: Array) -> Modes:
    """`edge` (2H,): cos and sin of each harmonic of the pull at the edge, against its mean."""
    stiff, mass, first = _matrices()
    values, vectors = eigh(stiff[0] + np.tensordot(edge, stiff[1:], axes=1), mass)
    return Modes(values, vectors, mass, first)
