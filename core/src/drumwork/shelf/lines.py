"""What sorts of things lie on the shelf, and what makes one line different from another."""

from __future__ import annotations

from collections.abc import Mapping
from enum import StrEnum
from typing import Final

from drumwork.errors import BadQuantity

__all__ = ["LENGTHS", "Sort", "fits_wires", "sort_of"]


class Sort(StrEnum):
    """Sorts of things, in the order they are shown."""

    HEAD = "head"
    WIRES = "wires"
    ROD = "rod"
    CLAW = "claw"
    PART = "part"

    @property
    def words(self) -> str:
        return _WORDS[self]

    @property
    def fits_a_diameter(self) -> bool:
        """Whether its size is the diameter of the drum it is for, without which nobody can tell what it fits."""
        return self in (Sort.HEAD, Sort.WIRES)


_WORDS: Final[Mapping[Sort, str]] = {
    Sort.HEAD: "head",
    Sort.WIRES: "snare wires",
    Sort.ROD: "tension rod",
    Sort.CLAW: "claw",
    Sort.PART: "small part",
}
_ALSO: Final[Mapping[str, Sort]] = {
    "heads": Sort.HEAD,
    "skin": Sort.HEAD,
    "wire": Sort.WIRES,
    "snare wires": Sort.WIRES,
    "wire set": Sort.WIRES,
    "rods": Sort.ROD,
    "tension rod": Sort.ROD,
    "tension rods": Sort.ROD,
    "claws": Sort.CLAW,
    "parts": Sort.PART,
    "small part": Sort.PART,
    "small parts": Sort.PART,
}
LENGTHS: Final[Mapping[Sort, tuple[float, float]]] = {
    Sort.HEAD: (0.1, 1.6),
    Sort.WIRES: (0.1, 0.6),
    Sort.ROD: (0.015, 0.4),
    Sort.CLAW: (0.01, 0.2),
    Sort.PART: (0.001, 1.6),
}
"""Smallest and largest size in metres that is taken for one; wide of anything in use."""
_LONGER_M: Final = 0.013


def sort_of(text: str) -> Sort:
    """A sort as a person writes it.

    Raises
    ------
    BadQuantity
        when it is none of ours.

    >>> sort_of(" Tension rods ")
    <Sort.ROD: 'rod'>
    """
    said = " ".join(text.lower().split())
    if said in set(Sort):
        return Sort(said)
    if said in _ALSO:
        return _ALSO[said]
    raise BadQuantity(f"“{text.strip()}” is not a sort we keep. Write one of: {', '.join(Sort)}.", text=text)


def fits_wires(wires_m: float, drum_m: float) -> bool:
    """Whether wires made for one diameter (metres) go under a drum of another: never longer than its bed, and not much shorter.

    Half an inch of tolerance; common practice, no source (trade §8, §10: fit length to diameter).
    """
    return drum_m - 2 * _LONGER_M <= wires_m <= drum_m + 0.003
