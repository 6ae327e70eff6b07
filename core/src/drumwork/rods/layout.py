"""Where the rods of one head sit and which of them are there."""

from __future__ import annotations

import math
from dataclasses import dataclass, field
from typing import Final

from drumwork.errors import BadLayout

__all__ = ["MOST_RODS", "FEWEST_RODS", "RodLayout"]

FEWEST_RODS: Final = 4
MOST_RODS: Final = 16


@dataclass(frozen=True, slots=True)
class RodLayout:
    """Rods 1…n, numbered clockwise seen from above the head in hand, 1 being the first past the badge.

    Raises
    ------
    BadLayout
        for a count outside 4–16, a lost or bed rod that does not exist, or fewer than three rods left.

    `beside_bed` are the rods beside the snare bed, `beside_port` those a port disturbs (F8, common practice).
    """

    count: int
    lost: frozenset[int] = field(default_factory=frozenset)
    beside_bed: frozenset[int] = field(default_factory=frozenset)
    beside_port: frozenset[int] = field(default_factory=frozenset)

    def __post_init__(self) -> None:
        if not FEWEST_RODS <= self.count <= MOST_RODS:
            raise BadLayout(f"A head has {FEWEST_RODS} to {MOST_RODS} rods.", count=self.count)
        if strange := sorted((self.lost | self.beside_bed | self.beside_port) - set(range(1, self.count + 1))):
            raise BadLayout(f"There is no rod {strange[0]} on a head of {self.count}.", rods=strange)
        if self.count - len(self.lost) < 3:
            raise BadLayout("Fewer than three rods cannot hold a head. Fit rods first.", lost=sorted(self.lost))

    @property
    def all_rods(self) -> tuple[int, ...]:
        return tuple(range(1, self.count + 1))

    @property
    def rods(self) -> tuple[int, ...]:
        """The rods that are there, clockwise."""
        return tuple(rod for rod in self.all_rods if rod not in self.lost)

    def angle_rad(self, rod: int) -> float:
        """Clockwise from the badge; the badge sits midway between the last rod and rod 1."""
        return (rod - 0.5) * math.tau / self.count

    def nth_on(self, rod: int, steps: int) -> int:
        """The rod `steps` places clockwise."""
        return (rod - 1 + steps) % self.count + 1

    def opposite(self, rod: int) -> int | None:
        """The facing rod, or None where the count is odd."""
        return self.nth_on(rod, self.count // 2) if self.count % 2 == 0 else None

    def distance(self, one: int, other: int) -> int:
        """Steps between two rods, the short way round."""
        apart = (one - other) % self.count
        return min(apart, self.count - apart)

    def require(self, rod: int) -> int:
        """`rod` itself, or BadLayout saying why it cannot be worked on."""
        if rod not in self.all_rods:
            raise BadLayout(f"There is no rod {rod} on this head; it has {self.count}.", rod=rod, count=self.count)
        if rod in self.lost:
            raise BadLayout(f"Rod {rod} is marked lost on this head. Fit one and mark it found first.", rod=rod)
        return rod
