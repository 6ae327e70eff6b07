"""How long a rope a drum takes, by geometry.

The rope zigzags between holes in two hoops, half a hole's spacing further round at each: two segments a hole. A segment is the straight
line between a hole above and the next below, at the hoops' radius. At each hole it goes round the hoop's edge: in at the face, over, and
down again. What is left beyond the last hole is splice, pigtail and drag rope.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from drumwork.errors import BadQuantity

__all__ = ["Lacing", "RopeLength", "rope_length"]

PIGTAIL_WRAPS = 4  # F10, common practice: three or four
SPLICE_M = 0.25  # common practice, no source: what an eye splice takes


@dataclass(frozen=True, slots=True)
class Lacing:
    """The drum a rope goes round.

    Parameters
    ----------
    diameter_m, depth_m : of the shell; the hoops sit outside it at its two ends
    holes : in each hoop
    hoop_m : height of a hoop, from its edge to the middle of its holes is half of it
    hoop_out_m : how far the rope's holes stand outside the shell
    rope_m : the rope's own thickness
    spare_m : left over for the drag rope

    Raises
    ------
    BadQuantity
        for a length that is not positive, or fewer than four holes.
    """

    diameter_m: float
    depth_m: float
    holes: int
    hoop_m: float = 0.04
    hoop_out_m: float = 0.015
    rope_m: float = 0.008
    spare_m: float = 2.0

    def __post_init__(self) -> None:
        if self.holes < 4:
            raise BadQuantity("A rope drum has at least four holes in each hoop.", holes=self.holes)
        lengths = (self.diameter_m, self.depth_m, self.rope_m)
        if min(lengths) <= 0 or min(self.hoop_m, self.hoop_out_m, self.spare_m) < 0:
            raise BadQuantity("Lengths of a drum, its hoops and its rope are more than nothing.")

    @property
    def radius_m(self) -> float:
        return self.diameter_m / 2 + self.hoop_out_m

    @property
    def rise_m(self) -> float:
        """From the holes of one hoop to those of the other, along the drum."""
        return self.depth_m + self.hoop_m

    @property
    def across_m(self) -> float:
        """From a hole to the one half a spacing further round, straight across."""
        return 2 * self.radius_m * math.sin(math.pi / (2 * self.holes))

    @property
    def segment_m(self) -> float:
        return math.hypot(self.rise_m, self.across_m)


@dataclass(frozen=True, slots=True)
class RopeLength:
    """The rope, piece by piece, metres."""

    segments: int
    segment_m: float
    laced_m: float
    turns_m: float
    ends_m: float

    @property
    def total_m(self) -> float:
        return self.laced_m + self.turns_m + self.ends_m


def rope_length(lacing: Lacing) -> RopeLength:
    """What a rope must measure to lace this drum once round, with splice, pigtail and drag rope.

    >>> drum = Lacing(diameter_m=0.70, depth_m=0.36, holes=10, hoop_m=0.04, hoop_out_m=0.0, rope_m=0.008, spare_m=0.0)
    >>> round(drum.segment_m, 4), rope_length(drum).segments
    (0.4147, 20)
    """
    segments = 2 * lacing.holes
    over_the_edge = (
        lacing.hoop_m + math.pi / 2 * lacing.rope_m
    )  # up one face of the hoop by half its height, over, and down
    pigtail = (
        PIGTAIL_WRAPS * math.pi * 2 * lacing.rope_m
    )  # round two ropes lying together: about four rope widths a wrap
    return RopeLength(
        segments,
        lacing.segment_m,
        segments * lacing.segment_m,
        segments * over_the_edge,
        SPLICE_M + pigtail + lacing.spare_m,
    )
