"""How far an order pulls the hoop over and out of flat while a pass is under way."""

from __future__ import annotations

import cmath
from collections.abc import Sequence
from dataclasses import dataclass

from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, plan_pattern

__all__ = ["HoopBalance", "balance_of", "recommend_pattern"]

_TIGHTENING = (Pattern.STAR, Pattern.NEIGHBOUR_STAR, Pattern.PLUS_CROSS, Pattern.EVERY_THIRD, Pattern.EVERY_SECOND)


@dataclass(frozen=True, slots=True)
class HoopBalance:
    """Largest one-sided pull (tilt, first harmonic) and two-lobed pull (saddle, second harmonic) met during a pass.

    A single rod turned alone counts 1 in both.
    """

    tilt: float
    saddle: float


def _largest(layout: RodLayout, order: Sequence[int], harmonic: int) -> float:
    pull, largest = 0j, 0.0
    for rod in order:
        pull += cmath.exp(1j * harmonic * layout.angle_rad(rod))
        largest = max(largest, abs(pull))
    return largest


def balance_of(layout: RodLayout, order: Sequence[int]) -> HoopBalance:
    """Exact largest tilt and saddle over every moment of the pass, equal turns at each rod."""
    return HoopBalance(_largest(layout, order, 1), _largest(layout, order, 2))


def recommend_pattern(layout: RodLayout) -> Pattern:
    """The school with the least tilt, then the least saddle, on this head."""

    def strain(pattern: Pattern) -> tuple[float, float]:
        balance = balance_of(layout, plan_pattern(layout, pattern, layout.rods[0]).rods)
        return round(balance.tilt, 6), round(balance.saddle, 6)

    return min(_TIGHTENING, key=strain)
