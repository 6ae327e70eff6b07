"""What a head is made of, how hard a pitch strains it, and what lies within its limits."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.membrane.modes import Membrane, edge_hz, tension_for_edge
from drumwork.quantities import Length, Pitch
from drumwork.sources import materials

__all__ = ["Film", "Head", "LugTarget", "assess_target"]


@dataclass(frozen=True, slots=True)
class Film:
    """Plies and coating of a head. Thickness of all plies together."""

    plies: int
    thickness_m: float
    coated: bool = False

    def __post_init__(self) -> None:
        if not 1 <= self.plies <= 4 or not 20e-6 <= self.thickness_m <= 1e-3:
            raise BadQuantity(
                "A head has one to four plies of 0.02 to 1 mm together.", plies=self.plies, thickness_m=self.thickness_m
            )

    @classmethod
    def from_mil(cls, mil: float, plies: int = 1, coated: bool = False) -> Film:
        return cls(plies, mil * materials.METRES_PER_MIL, coated)

    @property
    def density_kg_per_m2(self) -> float:
        coating = materials.COATING_KG_PER_M2 if self.coated else 0.0
        return materials.PET_DENSITY_KG_PER_M3 * self.thickness_m + coating


@dataclass(frozen=True, slots=True)
class Head:
    """A film on a drum with so many rods."""

    film: Film
    diameter: Length
    rods: int

    @property
    def membrane(self) -> Membrane:
        return Membrane(self.diameter.metres / 2, self.film.density_kg_per_m2)

    def stress_pa(self, lug: Pitch) -> float:
        """Film stress at this pitch; the coating carries none of it."""
        return tension_for_edge(self.membrane, lug.hz) / self.film.thickness_m

    def rod_load_n(self, lug: Pitch) -> float:
        """Pull on each rod: the film's tension round the rim, shared alike."""
        return math.pi * self.diameter.metres * tension_for_edge(self.membrane, lug.hz) / self.rods

    def highest_safe(self) -> Pitch:
        """The lug pitch at which film or rods come to their limit, whichever is first."""
        by_film = materials.SAFE_SHARE_OF_YIELD * materials.PET_YIELD_PA * self.film.thickness_m
        by_rods = materials.STEEL_ROD_LIMIT_N * self.rods / (math.pi * self.diameter.metres)
        return Pitch(min(2000.0, edge_hz(self.membrane, min(by_film, by_rods))))


@dataclass(frozen=True, slots=True)
class LugTarget:
    """How a wanted lug pitch sits with a head.

    `share_of_yield` is film stress over yield, 0…1; `allowed` is False beyond film or rod limits, and `words` says why, what the
    nearest safe pitch is, and whether another film on the shelf would reach it.
    """

    lug: Pitch
    stress_pa: float
    share_of_yield: float
    rod_load_n: float
    highest_safe: Pitch
    allowed: bool
    words: str


def _margin_words(share: float) -> str:
    if share < 0.2:
        return "far from the film's limit"
    return "well within the film's limit" if share < 0.35 else "near what the film should carry"


def _others_words(head: Head, lug: Pitch, others: Sequence[Film]) -> str:
    """Whether a thinner or thicker film would carry the pitch. Stress at one pitch hardly depends on thickness; air and coating decide."""
    for film in others:
        if Head(film, head.diameter, head.rods).highest_safe().hz >= lug.hz:
            kind = "thicker" if film.thickness_m > head.film.thickness_m else "thinner"
            return f" A {kind} head ({film.thickness_m / materials.METRES_PER_MIL:.0f} mil) reaches it."
    return ""


RODS_SLACK_N: Final = 15.0
"""Below this pull a rod holds too little to keep its place; our own figure, no published source."""


def assess_target(head: Head, lug: Pitch, others: Sequence[Film] = ()) -> LugTarget:
    """Film stress, rod load and verdict for a wanted lug pitch."""
    stress, load, highest = head.stress_pa(lug), head.rod_load_n(lug), head.highest_safe()
    share = stress / materials.PET_YIELD_PA
    if lug.hz > highest.hz:
        by_rods = load > materials.STEEL_ROD_LIMIT_N
        reason = f"each rod would pull {load:.0f} N" if by_rods else f"the film would stand at {share:.0%} of its yield"
        words = f"{lug.hz:.0f} Hz is too high for this head: {reason}. The highest safe pitch is {highest.hz:.0f} Hz."
        return LugTarget(lug, stress, share, load, highest, False, words + _others_words(head, lug, others))
    words = f"{_margin_words(share)} ({share:.0%} of yield); each rod pulls about {load:.0f} N"
    if load < RODS_SLACK_N:
        words += "; so little that rods may walk loose"
    return LugTarget(lug, stress, share, load, highest, True, words)
