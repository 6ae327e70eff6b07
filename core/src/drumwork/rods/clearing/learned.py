"""How a head answered to its rods, kept from one visit for the next."""

from __future__ import annotations

import math
from dataclasses import dataclass

__all__ = ["Learned", "LearnedKind"]


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
