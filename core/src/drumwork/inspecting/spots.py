"""Where on a head something was seen, as a point of its plan view, and how that is said."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadFinding
from drumwork.rods.layout import RodLayout

__all__ = ["MIDDLE", "RIM", "Spot", "spot_words"]

MIDDLE: Final = 0.34
"""Of the radius: what lies within is the middle, where a head is played."""
RIM: Final = 0.78
"""Of the radius: what lies beyond is at the edge."""


@dataclass(frozen=True, slots=True)
class Spot:
    """A point on a head seen from above with the badge at the top: `x` to the right, `y` up, in radii."""

    x: float
    y: float

    def __post_init__(self) -> None:
        if not math.isfinite(self.x) or not math.isfinite(self.y) or math.hypot(self.x, self.y) > 1.0001:
            raise BadFinding("That spot is not on the head.", x=self.x, y=self.y)

    @property
    def radius(self) -> float:
        return math.hypot(self.x, self.y)


def _nearest(spot: Spot, layout: RodLayout, badge_at_rod: bool) -> int:
    """The rod whose place is nearest in angle; rod 1 stands at the badge, or half a step clockwise from it."""
    step = 2 * math.pi / layout.count
    clockwise = math.atan2(spot.x, spot.y) % (2 * math.pi)
    return math.floor(clockwise / step + (0.5 if badge_at_rod else 0)) % layout.count + 1


def spot_words(spot: Spot | None, layout: RodLayout | None, badge_at_rod: bool = False) -> str:
    """'middle', 'edge by rod 3', 'between the middle and rod 3'; said beside the snare bed where it is."""
    if spot is None:
        return ""
    if spot.radius <= MIDDLE:
        return "middle"
    if layout is None:
        return "edge" if spot.radius >= RIM else "half way out"
    rod = _nearest(spot, layout, badge_at_rod)
    if spot.radius < RIM:
        return f"half way to rod {rod}"
    return f"edge by rod {rod}{', beside the snare bed' if rod in layout.beside_bed else ''}"
