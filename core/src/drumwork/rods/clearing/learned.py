"""How a head answered to its rods, kept from one visit for the next."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

__all__ = ["Learned", "LearnedKind", "taught_by_others"]

Array = NDArray[np.float64]

FEWEST_OTHERS: Final = 3
"""Drums of a sort before one more is expected to be like them; our own figure."""
UNSEEN: Final = 3.0
"""How many drums' worth of difference is reckoned with beforehand: few drums say little of how they differ."""
DIFFERS_LOG_SD: Final = 0.35  # how far the answers of drums of a sort may lie apart, when nothing is known
SHARE_SD: Final = 0.1
ROD_SD: Final = 0.1


@dataclass(frozen=True, slots=True)
class LearnedKind:
    """Under one kind of head: the answer of each harmonic, then each rod's own departure, with their covariance.

    Answers are changes of pitch squared, Hz², per turn; departures are ratios. `weight` is the chance, 0…1, of this kind.

    Attributes
    ----------
    mean : K + n values
    covariance : K + n rows of as many
    """

    name: str
    weight: float
    mean: tuple[float, ...]
    covariance: tuple[tuple[float, ...], ...]


@dataclass(frozen=True, slots=True)
class Learned:
    """What is kept of one head on one drum side. `rods` are those that were there; for others it says nothing."""

    rods: tuple[int, ...]
    rounds: int
    kinds: tuple[LearnedKind, ...]

    @property
    def hz2_per_turn(self) -> float:
        """How far one turn of every rod moves the square of pitch, by the weighed kinds."""
        return sum(kind.weight * kind.mean[0] for kind in self.kinds)

    @property
    def hz2_per_turn_sd(self) -> float:
        return math.sqrt(sum(kind.weight * kind.covariance[0][0] for kind in self.kinds))

    def hz_per_turn(self, at_hz: float) -> tuple[float, float]:
        """Mean and standard deviation of what one turn of every rod does at this pitch."""
        return self.hz2_per_turn / (2 * at_hz), self.hz2_per_turn_sd / (2 * at_hz)


def taught_by_others(others: Sequence[Learned], rods: tuple[int, ...]) -> Learned | None:
    """What to expect of a head from others of its sort (kind, size, hoop), `rods` being those that are there.

    A mean over drums with the differences between them; how each rod departs is each drum's own and not carried over. None where fewer than three
    others with the same rods are known.

    References
    ----------
    Means and variances over groups: A. Gelman et al., *Bayesian Data Analysis* (3rd ed., 2013), ch. 5.
    """
    alike = [each for each in others if each.rods == rods and each.kinds]
    sizes = [len(kind.mean) for each in alike for kind in each.kinds]
    # The same rods may be those left of a head that has more: its harmonics are others.
    alike = [each for each in alike if all(len(kind.mean) == statistics.mode(sizes) for kind in each.kinds)]
    if len(alike) < FEWEST_OTHERS:
        return None
    names = dict.fromkeys(kind.name for each in alike for kind in each.kinds)
    return Learned(rods, 0, tuple(_over_drums(name, alike) for name in names))


def _over_drums(name: str, drums: Sequence[Learned]) -> LearnedKind:
    kinds = [kind for each in drums for kind in each.kinds if kind.name == name]
    n = len(drums[0].rods)
    harmonics = len(kinds[0].mean) - n
    weight = np.array([kind.weight for kind in kinds])
    answers = np.array([kind.mean[:harmonics] for kind in kinds])
    share = weight / max(float(weight.sum()), 1e-9)
    mean = share @ answers
    own = np.tensordot(share, np.array([kind.covariance for kind in kinds])[:, :harmonics, :harmonics], axes=1)
    off = answers - mean
    before = UNSEEN * (DIFFERS_LOG_SD**2 * np.outer(mean, mean) + np.eye(harmonics) * (SHARE_SD * mean[0]) ** 2)
    between = (before + (off * weight[:, None]).T @ off) / (UNSEEN + float(weight.sum()))
    covariance = np.zeros((harmonics + n, harmonics + n))
    covariance[:harmonics, :harmonics] = own + between
    covariance[harmonics:, harmonics:] = np.eye(n) * ROD_SD**2
    return LearnedKind(
        name,
        float(weight.sum()) / len(drums),
        (*(float(v) for v in mean), *(0.0,) * n),
        tuple(tuple(float(v) for v in row) for row in covariance),
    )
