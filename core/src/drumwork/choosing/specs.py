"""Heads as specifications: what can be bought, told by plies, film, finish, built-in damping, vent and mesh (trade §10).

The films are common stock; thicknesses are from memory. How each of them tends to sound is common practice with no published source, as
numbers from about -2 to 2 that only order them; what physics can say is computed in `changes`.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Final

__all__ = ["AXES", "DAMPINGS", "FINISHES", "SPECS", "Spec"]

FINISHES: Final = ("clear", "coated", "smooth-white", "ebony", "fibre", "suede")
DAMPINGS: Final = ("none", "edge-ring", "dot", "foam")
AXES: Final = ("bright", "warm", "sustain", "attack", "sensitive", "loud", "low", "life")


@dataclass(frozen=True)
class Spec:
    """One kind of head. `mil` is the film of all plies together, in thousandths of an inch; None for mesh."""

    plies: int
    mil: float | None
    finish: str
    damping: str = "none"
    vent: bool = False
    mesh: bool = False

    @property
    def snare_side(self) -> bool:
        """A film too thin to be played on."""
        return self.mil is not None and self.mil < 6

    @property
    def cost(self) -> int:
        """What it costs beside the others, 0 the cheapest to 3: plies, coat, and whatever is built in. Common practice, no source."""
        plain = self.finish in ("clear", "coated")
        return (self.plies > 1) + (not plain) + (self.damping != "none" or self.vent) + self.mesh

    @property
    def words(self) -> str:
        if self.mesh:
            return "mesh"
        plies = {1: "one-ply", 2: "two-ply"}.get(self.plies, f"{self.plies} plies")
        kind = "snare-side film" if self.snare_side else f"{plies} {self.finish.replace('-', ' ')}"
        damped = {"none": "", "edge-ring": ", ring at the edge", "dot": ", dot", "foam": ", adjustable foam"}[
            self.damping
        ]
        return f"{kind}, {self.mil:g} mil{damped}{', vented edge' if self.vent else ''}"

    @cached_property
    def tends(self) -> Mapping[str, float]:
        """How it tends to sound and last, by axis."""
        parts = [_BASE, _FINISH[self.finish], _DAMPING[self.damping], _VENT if self.vent else {}]
        parts.append(_MESH if self.mesh else _ply(self.plies, self.mil or 10))
        return {axis: sum(part.get(axis, 0.0) for part in parts) for axis in AXES}


_BASE: Final[Mapping[str, float]] = {"bright": 0.6, "sustain": 0.8, "attack": 0.3, "sensitive": 0.4, "loud": 0.4}
_FINISH: Final[Mapping[str, Mapping[str, float]]] = {
    "clear": {"bright": 0.4, "warm": -0.4, "sustain": 0.2, "attack": 0.2},
    "coated": {"bright": -0.3, "warm": 0.8, "sustain": -0.2, "sensitive": 0.1},
    "smooth-white": {"bright": 0.4, "warm": -0.3, "attack": 0.4, "loud": 0.3},
    "ebony": {"bright": 0.3, "warm": -0.1, "attack": 0.4, "loud": 0.2},
    "fibre": {"bright": -0.9, "warm": 1.1, "sustain": -0.2, "attack": -0.6},
    "suede": {"bright": -0.6, "warm": 0.9, "sustain": -0.1, "attack": -0.4},
}
_DAMPING: Final[Mapping[str, Mapping[str, float]]] = {
    "none": {},
    "edge-ring": {
        "bright": -0.4,
        "warm": 0.2,
        "sustain": -0.9,
        "attack": 0.2,
        "sensitive": -0.1,
        "loud": -0.2,
        "low": 0.3,
    },
    "dot": {"bright": -0.2, "sustain": -0.4, "attack": 0.5, "sensitive": -0.2, "low": 0.1, "life": 0.5},
    "foam": {"bright": -0.7, "warm": 0.3, "sustain": -1.4, "attack": 0.2, "sensitive": -0.5, "loud": -0.7, "low": 0.5},
}
_VENT: Final[Mapping[str, float]] = {"bright": -0.2, "sustain": -0.7, "attack": 0.1, "loud": -0.3}
_MESH: Final[Mapping[str, float]] = {"bright": -2, "sustain": -2, "attack": -1, "loud": -3, "life": 0.5}


def _ply(plies: int, mil: float) -> Mapping[str, float]:
    """More plies and more film: lower, shorter, more attack, lasting; less of it: brighter, more sensitive."""
    more = (mil - 10) / 4
    two = plies > 1
    return {
        "bright": -0.35 * more - (0.4 if two else 0),
        "warm": 0.15 * more + (0.1 if two else 0),
        "sustain": -0.3 * more - (0.5 if two else 0),
        "attack": 0.1 * more + (0.4 if two else 0),
        "sensitive": -0.5 * more - (0.3 if two else 0),
        "loud": 0.1 * more,
        "low": 0.5 * more + (0.1 if two else 0),
        "life": 0.6 * more + (0.4 if two else 0),
    }


SPECS: Final[tuple[Spec, ...]] = (
    Spec(1, 3, "clear"),
    Spec(1, 2, "clear"),
    Spec(1, 5, "clear"),
    Spec(1, 7.5, "clear"),
    Spec(1, 7.5, "coated"),
    Spec(1, 7.5, "fibre"),
    Spec(1, 10, "clear"),
    Spec(1, 10, "coated"),
    Spec(1, 10, "smooth-white"),
    Spec(1, 10, "ebony"),
    Spec(1, 10, "fibre"),
    Spec(1, 10, "suede"),
    Spec(1, 10, "clear", "edge-ring"),
    Spec(1, 10, "coated", "edge-ring"),
    Spec(1, 10, "smooth-white", "edge-ring"),
    Spec(1, 10, "coated", "dot"),
    Spec(1, 10, "coated", "edge-ring", vent=True),
    Spec(1, 12, "coated"),
    Spec(2, 14, "clear"),
    Spec(2, 14, "coated"),
    Spec(2, 14, "smooth-white"),
    Spec(2, 14, "fibre"),
    Spec(2, 14, "clear", "edge-ring"),
    Spec(2, 14, "coated", "edge-ring"),
    Spec(2, 14, "coated", "dot"),
    Spec(2, 14, "clear", "foam"),
    Spec(2, 14, "coated", "edge-ring", vent=True),
    Spec(1, None, "clear", mesh=True),
)
"""What is chosen among."""
