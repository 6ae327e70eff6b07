"""What life to expect of a head: a Weibull law learned from the workshop's own heads, leaning on a stated prior while they are few.

With the shape k known, the rate θ of ended heads in t^k has a gamma prior that stays a gamma: θ ~ Γ(a, b) becomes Γ(a + ended, b + Σ t^k), heads still
on counted in the sum alone (right-censored). The shape is averaged over a few values by how well each explains the heads.

Reference: J. O. Berger & D. Sun, “Bayesian analysis for the poly-Weibull distribution”, JASA 88 (1993), the case of one cause and known shape.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.lives.curve import Life

__all__ = ["PRIOR", "Expected", "Prior", "expect"]

SHAPES: Final = (1.0, 1.5, 2.0, 2.5, 3.0, 4.0)
"""From heads that break by chance to heads that wear out all at one age."""
SHAPE_WEIGHTS: Final = (0.10, 0.20, 0.30, 0.20, 0.12, 0.08)
"""Heads wear out, but are torn by chance too. Our own, no published source."""


@dataclass(frozen=True, slots=True)
class Prior:
    """What is believed before a head of this kind ended here: half are changed by `median_months`, worth as much as `heads` ended heads."""

    median_months: float
    heads: float = 3.0

    def __post_init__(self) -> None:
        if not 0 < self.median_months <= 1200 or not 0 < self.heads <= 1000:
            raise BadQuantity(
                "A prior has a median of up to 1200 months and a weight of up to 1000 heads.", months=self.median_months
            )


PRIOR: Final = Prior(12.0)
"""A batter head in a school: a year. Common practice, no source; every workshop sets its own."""


@dataclass(frozen=True, slots=True)
class _Gamma:
    """θ for one shape, and the weight of that shape."""

    shape: float
    a: float
    b: float
    weight: float

    def still_on(self, months: float) -> float:
        """The chance that a head is on for longer, θ averaged out."""
        return float((self.b / (self.b + months**self.shape)) ** self.a)


@dataclass(frozen=True, slots=True)
class Expected:
    """The life of the next head of a kind.

    `ended` and `heads` are what it rests on, `own` the share of that which is the workshop's own experience rather than the prior.
    """

    laws: tuple[_Gamma, ...]
    ended: int
    heads: int
    own: float

    def still_on(self, months: float) -> float:
        """The chance that a new head is on for longer than so many months."""
        return min(1.0, sum(law.weight * law.still_on(months) for law in self.laws))

    def ends_within(self, age: float, months: float) -> float:
        """The chance that a head of this age is changed within so many months."""
        on = self.still_on(age)
        return 1 - self.still_on(age + months) / on if on > 0 else 1.0

    def outlived(self, age: float) -> float:
        """How sure it is that a head of this age is past what its kind lives: the share of its kind that would be gone by now."""
        return 1 - self.still_on(age)

    def months_until(self, share: float) -> float:
        """The months by which this share of new heads is changed."""
        if not 0 < share < 1:
            raise BadQuantity("A share lies between 0 and 1.", share=share)
        return _where(lambda months: 1 - self.still_on(months) - share)

    @property
    def median(self) -> float:
        return self.months_until(0.5)

    @property
    def band(self) -> tuple[float, float]:
        """Months between which four of five heads are changed."""
        return self.months_until(0.1), self.months_until(0.9)


def _where(rises: Callable[[float], float]) -> float:
    """Where a rising function crosses nought, to a thousandth of a month."""
    low, high = 0.0, 1.0
    while rises(high) < 0 and high < 1e7:
        high *= 2
    while high - low > 1e-3:
        middle = (low + high) / 2
        low, high = (middle, high) if rises(middle) < 0 else (low, middle)
    return (low + high) / 2


def _learned(shape: float, prior: Prior, lives: Sequence[Life]) -> tuple[_Gamma, float]:
    """The law of one shape, and the logarithm of how well it explains the heads: the marginal likelihood."""
    a = prior.heads
    # So that before any head half are changed by the prior's median: (b / (b + m^k))^a = 1/2.
    b = prior.median_months**shape / (2 ** (1 / a) - 1)
    ended = [max(each.months, 0.05) for each in lives if each.ended]
    spent = sum(each.months**shape for each in lives)
    after_a, after_b = a + len(ended), b + spent
    explains = (
        len(ended) * math.log(shape)
        + (shape - 1) * sum(math.log(each) for each in ended)
        + a * math.log(b)
        - after_a * math.log(after_b)
        + math.lgamma(after_a)
        - math.lgamma(a)
    )
    return _Gamma(shape, after_a, after_b, 0.0), explains


def expect(lives: Iterable[Life], prior: Prior = PRIOR) -> Expected:
    """What is to be expected of the next head, from those there were; with none it is the prior."""
    known = list(lives)
    learned = [_learned(shape, prior, known) for shape in SHAPES]
    logs = [explains + math.log(weight) for (_, explains), weight in zip(learned, SHAPE_WEIGHTS, strict=True)]
    most = max(logs)
    weights = [math.exp(each - most) for each in logs]
    laws = tuple(
        _Gamma(law.shape, law.a, law.b, weight / sum(weights))
        for (law, _), weight in zip(learned, weights, strict=True)
    )
    ended = sum(each.ended for each in known)
    return Expected(laws, ended, len(known), ended / (ended + prior.heads))
