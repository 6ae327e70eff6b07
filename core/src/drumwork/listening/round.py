"""All taps of a round together: the two frequencies of the (1,1) pair and their axis, and each rod's smooth reading.

An uneven head splits the pair in two, with a fixed axis. A rod at angle θ hears the lower one with cos²(θ - axis) and the upper with sin²; what is linear in
tension is the mean of their squares so weighed:

    f(θ)² = m + d · cos 2(θ - axis)

A single tap's strongest partial jumps between the two; all taps of a round together tell m, d and the axis, and so a steady reading for every rod. Readings
that lie far off the curve count less, and a round whose readings fit far better one rod further round is said to.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.partials import Partial
from drumwork.quantities import cents_of, ratio_of

__all__ = ["HeardRod", "blend_of_pair", "merge_taps", "pair_of"]

Array = NDArray[np.float64]

NEAR_CENTS: Final = 170.0
"""Readings further than this from the round's middle are no readings of the pair."""
BESIDE_CENTS: Final = 25.0
"""Partials belong to the pair within what the rods read, and this much beside: with its other head muted a drum's own note may lie close by."""
ITERATIONS: Final = 6
CUT_CENTS: Final = 6.0


@dataclass(frozen=True, slots=True)
class HeardRod:
    """One rod as it was heard: its pitch, and the partials near it as (hz, amplitude)."""

    hz: float
    partials: tuple[tuple[float, float], ...] = ()

    @classmethod
    def of(cls, hz: float, partials: Sequence[Partial]) -> HeardRod:
        return cls(hz, tuple((each.hz, 10 ** (each.level_db / 20)) for each in partials))


def merge_taps(readings: Sequence[float]) -> float:
    """Repeated taps of one rod: the median, which one slip does not move."""
    return float(np.median(np.asarray(readings)))


def _near(rod: HeardRod, low: float, high: float) -> list[tuple[float, float]]:
    beside = ratio_of(BESIDE_CENTS)
    return [(hz, amp) for hz, amp in rod.partials if low / beside < hz < high * beside]


def pair_of(rods: Sequence[HeardRod], middle: float) -> tuple[float, float]:
    """The two frequencies that the partials of all rods gather about: weighed two-means from the outermost inward."""
    read = [rod.hz for rod in rods if abs(cents_of(rod.hz / middle)) < NEAR_CENTS]
    found = [each for rod in rods for each in (_near(rod, min(read), max(read)) or [(rod.hz, 1.0)])]
    hz, weight = np.array([each[0] for each in found]), np.array([each[1] for each in found])
    low, high = np.percentile(hz, 10), np.percentile(hz, 90)
    for _ in range(ITERATIONS):
        lower = np.abs(hz - low) <= np.abs(hz - high)
        if lower.all() or not lower.any():
            break
        low, high = (float(np.average(hz[side], weights=weight[side])) for side in (lower, ~lower))
    return float(low), float(high)


def blend_of_pair(rod: HeardRod, low: float, high: float) -> float:
    """The square of pitch a rod hears, by how strong each of the pair is in its tap."""
    near = _near(rod, low, high)
    if not near:
        return rod.hz**2
    shares = [0.0, 0.0]
    for hz, amplitude in near:
        shares[abs(hz - low) > abs(hz - high)] += amplitude
    return (shares[0] * low**2 + shares[1] * high**2) / sum(shares)
