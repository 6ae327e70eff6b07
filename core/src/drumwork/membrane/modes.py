"""Modes of a circular membrane, with the mass of the air that moves along.

References
----------
Ideal modes: f_mn = j_mn / (2πa) · √(T/σ); Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 3; zeros j_mn from DLMF §10.21.
Air loading: a mode of wavelength λ = 2πa/j_mn carries, on each side, air about one decay length a/j_mn thick, since the pressure of a
subsonic standing wave on a plane falls as exp(-k z); the added mass per area and side is ρ/k = ρ·a/j_mn. This is the low-frequency limit for
an infinite baffled plane wave (Cremer, Heckl & Petersson, *Structure-Borne Sound*, ch. 6, from memory); it neglects the edge and the
other head and is good to some ten per cent of the added mass.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from drumwork.errors import BadQuantity
from drumwork.sources.bessel import BESSEL_ZEROS
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3

__all__ = ["Membrane", "edge_hz", "fundamental_hz", "mode_hz", "tension_for_edge"]

EDGE_MODE = (1, 1)
"""Taps near the edge read mainly this pair of modes (our own study, docs/sources/film.md)."""


@dataclass(frozen=True, slots=True)
class Membrane:
    """A film of areal density `density_kg_per_m2` on a radius `radius_m`, with air on `air_sides` (0, 1 or 2)."""

    radius_m: float
    density_kg_per_m2: float
    air_sides: int = 2

    def __post_init__(self) -> None:
        if not 0.03 < self.radius_m < 1 or self.density_kg_per_m2 <= 0 or self.air_sides not in (0, 1, 2):
            raise BadQuantity(
                "A film needs a radius of 3 to 100 cm, a weight above nought, and air on no, one or both sides.",
                radius_m=self.radius_m,
                density_kg_per_m2=self.density_kg_per_m2,
            )

    def loaded_density(self, mode: tuple[int, int]) -> float:
        """kg/m², film and moving air, for a mode."""
        return self.density_kg_per_m2 + self.air_sides * AIR_DENSITY_KG_PER_M3 * self.radius_m / BESSEL_ZEROS[mode]


def mode_hz(film: Membrane, tension_n_per_m: float, mode: tuple[int, int]) -> float:
    """Frequency of mode (m, n), m nodal diameters and n nodal circles (the rim counts as one)."""
    if tension_n_per_m <= 0:
        raise BadQuantity("A film sounds only under tension.", tension_n_per_m=tension_n_per_m)
    speed = math.sqrt(tension_n_per_m / film.loaded_density(mode))
    return BESSEL_ZEROS[mode] * speed / (math.tau * film.radius_m)


def edge_hz(film: Membrane, tension_n_per_m: float) -> float:
    """What a tap near a rod reads: the (1,1) pair."""
    return mode_hz(film, tension_n_per_m, EDGE_MODE)


def fundamental_hz(film: Membrane, tension_n_per_m: float) -> float:
    """The (0,1) mode of one head alone, its air load included, no other head."""
    return mode_hz(film, tension_n_per_m, (0, 1))


def tension_for_edge(film: Membrane, lug_hz: float) -> float:
    """N/m that make the edge read `lug_hz`; the inverse of `edge_hz`."""
    if lug_hz <= 0:
        raise BadQuantity("A pitch must be more than nought.", hz=lug_hz)
    speed = lug_hz * math.tau * film.radius_m / BESSEL_ZEROS[EDGE_MODE]
    return film.loaded_density(EDGE_MODE) * speed**2
