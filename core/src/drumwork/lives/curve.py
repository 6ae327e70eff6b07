"""The survival curve of heads: how many of a kind were still on after so many months, those still on counted as far as they came.

References
----------
E. L. Kaplan & P. Meier, “Nonparametric estimation from incomplete observations”, JASA 53 (1958); variance by Greenwood, band on the log-log scale
(J. D. Kalbfleisch & R. L. Prentice, *The Statistical Analysis of Failure Time Data*, 2nd ed., §1.4).
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from statistics import NormalDist
from typing import Final

from drumwork.errors import BadQuantity

__all__ = ["Curve", "Life", "in_words", "survival"]

LONGEST_MONTHS: Final = 1200.0


@dataclass(frozen=True, slots=True)
class Life:
    """One head: months it was on, and whether that was its end. A head still on, or taken off for a reason that was not its own (another sound
    wanted, drum sold), did not end."""

    months: float
    ended: bool

    def __post_init__(self) -> None:
        if not 0 <= self.months <= LONGEST_MONTHS:
            raise BadQuantity(f"A head is on for 0 to {LONGEST_MONTHS:g} months.", months=self.months)


@dataclass(frozen=True, slots=True)
class Curve:
    """Steps of a survival curve.

    Attributes
    ----------
    months : (k,) at which heads ended, rising
    share : (k,) still on just after
    low, high : (k,) band of `confidence` about it
    at_risk, ended : (k,) heads on just before, and how many ended then
    """

    months: tuple[float, ...]
    share: tuple[float, ...]
    low: tuple[float, ...]
    high: tuple[float, ...]
    at_risk: tuple[int, ...]
    ended: tuple[int, ...]

    def at(self, months: float) -> float:
        """The share still on after so many months; 1 before the first end."""
        passed = [share for when, share in zip(self.months, self.share, strict=True) if when <= months]
        return passed[-1] if passed else 1.0

    @property
    def median(self) -> float | None:
        """The months by which half were changed; None while more than half are still on."""
        return next((when for when, share in zip(self.months, self.share, strict=True) if share <= 0.5), None)


def survival(lives: Iterable[Life], confidence: float = 0.95) -> Curve:
    """The curve of these heads; without steps where none ended.

    Raises
    ------
    BadQuantity
        for a confidence outside of 0 to 1.
    """
    if not 0 < confidence < 1:
        raise BadQuantity("A confidence lies between 0 and 1.", confidence=confidence)
    known = list(lives)
    ends = Counter(each.months for each in known if each.ended)
    share, greenwood, rows = 1.0, 0.0, []
    for when in sorted(ends):
        risk = sum(each.months >= when for each in known)
        share *= 1 - ends[when] / risk
        greenwood += ends[when] / (risk * (risk - ends[when])) if risk > ends[when] else math.inf
        rows.append((when, share, *_band(share, greenwood, confidence), risk, ends[when]))
    return Curve(*(tuple(column) for column in zip(*rows, strict=True))) if rows else Curve((), (), (), (), (), ())


def _band(share: float, greenwood: float, confidence: float) -> tuple[float, float]:
    """On log(-log S), where it never leaves 0 to 1. All gone: nothing is known of what is left but that it was the whole way down."""
    if share <= 0 or math.isinf(greenwood):
        return 0.0, 1.0
    wide = NormalDist().inv_cdf(0.5 + confidence / 2) * math.sqrt(greenwood) / abs(math.log(share))
    return share ** math.exp(wide), share ** math.exp(-wide)


def in_words(lives: Sequence[Life], what: str, months: float) -> str:
    """“7 of our 12 coated singles on tenor drums were changed by month 14.” Counts only heads that were on so long, or ended before."""
    known = [each for each in lives if each.ended or each.months >= months]
    gone = sum(each.ended and each.months <= months for each in known)
    return f"{gone} of our {len(known)} {what} were changed by month {months:g}."
