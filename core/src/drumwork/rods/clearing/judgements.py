"""What a word of the ear says of a difference: a stretch that it lies in, not a figure; and one word in ten is wrong.

“Much lower” is as true of three hundred cents as of fifty, so that such a word must not hold the belief at some figure between, and one wrong word must not
outweigh three that agree. Each word's chance, as a function of the difference, is a stretch with soft ends and a little of everything; into a Gaussian belief it is
brought as the Gaussian that does to it just what the word does, when all the other words have done theirs (expectation propagation).

References
----------
T. P. Minka, “Expectation propagation for approximate Bayesian inference”, UAI 2001; C. E. Rasmussen & C. K. I. Williams, *Gaussian Processes for Machine
Learning* (2006), ch. 3.6 and 3.9 (a probit against a Gaussian) and 5.4.2 (one left out). Ordered words as stretches of one scale: P. McCullagh, “Regression
models for ordinal data”, J. R. Statist. Soc. B 42 (1980). All from memory.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.numerics import chance_below, cholesky_solve
from drumwork.rods.clearing.readings import CENTS_PER_Z, EAR_CENTS, EAR_THRESHOLD_CENTS, MUCH_CENTS, Ear

__all__ = ["Judgements", "Taken"]

Array = NDArray[np.float64]

WRONG: Final = 0.1
"""How often a word is any of the five, whatever was heard; our own estimate."""
SOFT_CENTS: Final = 7.0
"""How softly a word ends, as a standard deviation; our own estimate."""
UNTOLD_CENTS: Final = 40.0
WORDS: Final = 5
BEGUN: Final = 2.0
"""A word is first taken to say what it usually means, with this many times the usual error."""
CARRIED: Final = 0.7
"""Of the way from what a word was taken to say to what it now is; all words at once would overshoot."""
LEAST_BEND, MOST_BEND = 1e-3, 0.999
"""What a word does to a belief stays a Gaussian: it sharpens it, if by little where it is taken for wrong, and never to a point."""
_ENDS: Final[Mapping[Ear, tuple[float, float]]] = {
    Ear.MUCH_LOWER: (-np.inf, -MUCH_CENTS),
    Ear.LOWER: (-MUCH_CENTS, -EAR_THRESHOLD_CENTS),
    Ear.LEVEL: (-EAR_THRESHOLD_CENTS, EAR_THRESHOLD_CENTS),
    Ear.HIGHER: (EAR_THRESHOLD_CENTS, MUCH_CENTS),
    Ear.MUCH_HIGHER: (MUCH_CENTS, np.inf),
    Ear.CANT_TELL: (-UNTOLD_CENTS, UNTOLD_CENTS),
}


@dataclass(frozen=True, slots=True)
class Taken:
    """What (m,) words are taken to say, given all the others: readings z with their variance."""

    z: Array
    variance: Array


@dataclass(frozen=True, slots=True)
class Judgements:
    """Words of the ear.

    Attributes
    ----------
    ends : (m, 2) where the stretch of each word begins and ends, in z; infinite where it does not
    level : (m,) what z is where the word is “level”
    begun : what each is taken to say at first
    """

    ends: Array
    level: Array
    begun: Taken

    @classmethod
    def of(cls, words: Sequence[Ear], level: Sequence[float]) -> Judgements:
        usual = np.array([(EAR_CENTS[word].cents, BEGUN * EAR_CENTS[word].sd) for word in words]) / CENTS_PER_Z
        at = np.array(level)
        return cls(
            np.array([_ENDS[word] for word in words]) / CENTS_PER_Z, at, Taken(at + usual[:, 0], usual[:, 1] ** 2)
        )

    def chance(self, keen: float, mean: Array, variance: Array) -> tuple[Array, Array, Array]:
        """(m,) chance of each word, z being so much by all else, and the first and second derivative by `mean` of its logarithm.

        `keen`: how far apart two sounds must be for this listener to notice, in multiples of what is usual.
        """
        wide = np.sqrt((keen * SOFT_CENTS / CENTS_PER_Z) ** 2 + variance)[:, None]
        at = (keen * self.ends + (self.level - mean)[:, None]) / wide
        finite = np.where(np.isfinite(at), at, 0.0)
        dense = np.where(np.isfinite(at), np.exp(-0.5 * finite**2) / np.sqrt(2 * np.pi), 0.0)
        chance = WRONG / WORDS + (1 - WRONG) * (chance_below(at[:, 1]) - chance_below(at[:, 0]))
        slope = (1 - WRONG) * ((dense[:, 0] - dense[:, 1]) / wide[:, 0]) / chance
        bend = (1 - WRONG) * ((finite * dense)[:, 0] - (finite * dense)[:, 1]) / wide[:, 0] ** 2 / chance
        return chance, slope, bend - slope**2

    def again(self, keen: float, taken: Taken, factor: Array, pull: Array) -> tuple[Taken, float]:
        """What the words are taken to say, all others having been taken to say what they were; and what is to be added to the logarithm of how likely those
        readings are, for how likely the words are.

        `factor` is the lower Cholesky factor of the (m, m) covariance of the readings as expected, `taken`'s own included, `pull` its inverse times how
        far they lie off what is expected.
        """
        precision = np.diag(cholesky_solve(factor, np.eye(len(pull))))
        whole = 1 / precision
        spread, off = np.maximum(whole - taken.variance, 1e-12), pull * whole
        others = taken.z - off
        chance, slope, bend = self.chance(keen, others, spread)
        bent = np.clip(-bend, LEAST_BEND, MOST_BEND / spread)
        weight = CARRIED / (1 / bent - spread)
        kept = (1 - CARRIED) / taken.variance
        variance = 1 / (weight + kept)
        z = variance * (weight * (others + slope / bent) + kept * taken.z)
        return Taken(z, variance), float(np.log(chance).sum() + 0.5 * (np.log(whole) + off**2 / whole).sum())
