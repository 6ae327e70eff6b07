"""What is known of a tap before it is heard."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.listening.around import Around, Other
from drumwork.quantities import Length

__all__ = ["TapContext", "Where", "usual_edge_hz"]

USUAL_HZ: Final = 270.0
USUAL_INCHES: Final = 10.0
FALLS_WITH: Final = 1.3
"""Edge pitch of toms as they are usually kept: about 270 Hz at 10 inches, falling with the 1.3th power of the width, since large drums are kept slacker.
Common practice, no source."""
OF_KIND: Final = {"snare": 1.75, "bass": 0.8}
"""Against that middle: common practice, no source."""


class Where(StrEnum):
    """Where the head was tapped: by a rod, or in the middle."""

    EDGE = "edge"
    CENTRE = "centre"


@dataclass(frozen=True, slots=True)
class TapContext:
    """Everything known helps to tell the wanted partial from its family; nothing need be known.

    Parameters
    ----------
    expect_hz
        about what this tap should read; None when unknown.
    centre_hz
        the drum's note in the middle, when known.
    diameter
    at
    other_hz
        the other head's pitch at its edge, when known.
    other
        how the other head is kept: it rings, it is held by a cloth or a hand, there is none; None when nobody said.
    usual_hz
        about what such a tap on such a drum usually reads, when nothing nearer is known.
    pair_hz
        what the rods read, when the middle is tapped.
    depth
        of the shell.
    film_kg_per_m2
        weight of the head in hand.
    """

    expect_hz: float | None = None
    centre_hz: float | None = None
    diameter: Length | None = None
    at: Where = Where.EDGE
    other_hz: float | None = None
    other: Other | None = None
    usual_hz: float | None = None
    pair_hz: float | None = None
    depth: Length | None = None
    film_kg_per_m2: float | None = None

    def __post_init__(self) -> None:
        for name in ("expect_hz", "centre_hz", "other_hz", "usual_hz", "pair_hz"):
            value = getattr(self, name)
            if value is not None and not 20 <= value <= 2000:
                raise BadQuantity(f"“{name}” lies between 20 and 2000 Hz.", **{name: value})
        _ = self.drum  # whose own bounds are checked

    @property
    def drum(self) -> Around | None:
        """The drum round the head, where its width is known."""
        if self.diameter is None:
            return None
        depth = self.depth.metres if self.depth else None
        return Around(self.diameter.metres / 2, depth, self.film_kg_per_m2, self.other, self.other_hz)


def usual_edge_hz(diameter: Length, kind: str = "") -> float:
    """About what an edge tap reads on a drum of this size; `kind` is snare, bass, or anything else for a tom."""
    return USUAL_HZ * math.pow(USUAL_INCHES / diameter.inches, FALLS_WITH) * OF_KIND.get(kind, 1.0)
