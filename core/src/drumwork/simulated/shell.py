"""Two films on one shell with air inside and out: their modes, and how much of each is whose.

A Rayleigh–Ritz model. Each film is a sum of its ideal modes; outside, air moves along as in `drumwork.membrane.modes`; inside, the air is a sum of
the rigid-walled cylinder's crosswise modes, exact along its length. What is left out: sound's travel time across the shell, so that pitches should
lie well below the first crosswise resonance, 1.841 c / 2πa (565 Hz on 14 inches); the shell's own motion; leaks through port and vent.

References
----------
Films and zeros: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 3 and 18; DLMF §10.21. Air in a cylinder between two moving ends:
Morse & Ingard, *Theoretical Acoustics*, ch. 9 (from memory). Integrals of two Bessel functions: DLMF 10.22.5; of one squared at a zero: 10.22.37 and .38.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import eigh
from scipy.special import jn_zeros, jnp_zeros, jv

from drumwork.errors import BadQuantity
from drumwork.sources.materials import AIR_DENSITY_KG_PER_M3, SOUND_M_PER_S

__all__ = ["CoupledMode", "Shell", "coupled_modes", "own_mode_squared"]

Array = NDArray[np.float64]

FILM_MODES: Final = 4  # ideal modes of each film for each number of diameters
AIR_MODES: Final = 12  # crosswise modes of the air


@dataclass(frozen=True, slots=True)
class Shell:
    """The drum round a head: its depth, both films, and the other head.

    Parameters
    ----------
    depth_m
    film_kg_per_m2, other_kg_per_m2
        weight of the head in hand and of the other.
    other_hz
        what the other head reads at its rods with this one held still; None: as much as this one.
    other_muted
        it lies on a cloth, which holds it still; else it rings along.
    """

    depth_m: float = 0.14
    film_kg_per_m2: float = 0.353
    other_kg_per_m2: float = 0.353
    other_hz: float | None = None
    other_muted: bool = True

    def __post_init__(self) -> None:
        if not 0.02 <= self.depth_m <= 2 or min(self.film_kg_per_m2, self.other_kg_per_m2) <= 0:
            raise BadQuantity("A shell is 2 cm to 2 m deep and its films weigh more than nought.", depth_m=self.depth_m)


@dataclass(frozen=True, slots=True)
class CoupledMode:
    """One mode of the whole drum.

    Parameters
    ----------
    hz
    film, other
        (FILM_MODES,) how much of each ideal mode either film moves with, scaled so that the whole mode has a mass of one.
    share
        of the moving mass that is this film's, 0 to 1.
    """

    hz: float
    film: Array
    other: Array
    share: float

    def at(self, order: int, place: float) -> float:
        """Movement of this film at `place` (0 the middle, 1 the hoop) along an antinode."""
        return float(self.film @ _shapes(order, place))


def coupled_modes(radius_m: float, shell: Shell, pulls_n_per_m: tuple[float, float], order: int) -> list[CoupledMode]:
    """The drum's modes with `order` nodal diameters, lowest first.

    `pulls_n_per_m` are the tensions of this film and the other; the other's is not used where it is held still.
    """
    stiff, mass = _matrices(radius_m, shell, order)
    n = FILM_MODES
    stiff = np.diag(np.concatenate([np.full(n, pull) for pull in pulls_n_per_m]) * stiff) + _spring(shell, order)
    if shell.other_muted:
        stiff, mass = stiff[:n, :n], mass[:n, :n]
    squares, vectors = eigh(stiff, mass)
    own = np.einsum("ik,ij,jk->k", vectors[:n], mass[:n, :n], vectors[:n])
    modes = []
    for square, vector, share in zip(squares, vectors.T, own, strict=True):
        other = np.zeros(n) if shell.other_muted else vector[n:]
        modes.append(
            CoupledMode(math.sqrt(max(square, 0.0)) / math.tau, vector[:n], other, float(np.clip(share, 0, 1)))
        )
    return modes


def own_mode_squared(radius_m: float, shell: Shell, order: int = 1, other: bool = False) -> float:
    """(rad/s)² of a film's lowest mode a newton per metre of its tension, the other film held still; `order` at least one."""
    density = (shell.other_kg_per_m2, shell.film_kg_per_m2)
    turned = Shell(shell.depth_m, *(density if other else density[::-1]))
    lowest = coupled_modes(radius_m, turned, (1.0, 1.0), order)[0]
    return (math.tau * lowest.hz) ** 2


def _matrices(radius_m: float, shell: Shell, order: int) -> tuple[Array, Array]:
    """((2n,) stiffness a newton per metre of tension, (2n, 2n) mass), films one after the other, an ideal mode of unit mean square each."""
    n, zeros = FILM_MODES, _zeros(order)
    outside = AIR_DENSITY_KG_PER_M3 * radius_m / zeros
    mass = np.diag(np.concatenate([shell.film_kg_per_m2 + outside, shell.other_kg_per_m2 + outside]))
    across, onto = _air(order)
    for kappa, into in zip(across / radius_m, onto, strict=True):
        reach = kappa * shell.depth_m
        if kappa == 0:
            own, facing = shell.depth_m / 3, shell.depth_m / 6
        else:
            own, facing = 1 / (kappa * math.tanh(reach)), -1 / (kappa * math.sinh(min(reach, 300.0)))
        moved = AIR_DENSITY_KG_PER_M3 * np.outer(into, into)
        mass[:n, :n] += own * moved
        mass[n:, n:] += own * moved
        mass[:n, n:] += facing * moved
        mass[n:, :n] += facing * moved
    return np.tile((zeros / radius_m) ** 2, 2), mass


def _spring(shell: Shell, order: int) -> Array:
    """(2n, 2n) what squeezing the air adds; only modes without diameters squeeze it."""
    n = FILM_MODES
    if order:
        return np.zeros((2 * n, 2 * n))
    into = _air(0)[1][0]
    squeezed = AIR_DENSITY_KG_PER_M3 * SOUND_M_PER_S**2 / shell.depth_m * np.outer(into, into)
    return np.block([[squeezed, -squeezed], [-squeezed, squeezed]])


@lru_cache
def _zeros(order: int) -> Array:
    return np.asarray(jn_zeros(order, FILM_MODES))


@lru_cache
def _air(order: int) -> tuple[Array, Array]:
    """((q,) κa of the air's crosswise modes, (q, n) how each film mode pushes them), all of unit mean square."""
    zeros = _zeros(order)
    across = np.asarray(jnp_zeros(order, AIR_MODES))
    edge = jv(order, across)
    size = np.sqrt(1 - (order / across) ** 2) * np.abs(edge)
    onto = 2 * zeros * np.sign(jv(order + 1, zeros)) * (edge / size)[:, None] / (zeros**2 - across[:, None] ** 2)
    if order == 0:  # all of it to and fro at once
        across, onto = np.append(0.0, across), np.vstack([2 / zeros * np.sign(jv(1, zeros)), onto])
    return across, onto


def _shapes(order: int, place: float) -> Array:
    """(n,) each ideal mode at this place along its antinode, unit mean square over the film."""
    zeros = _zeros(order)
    return np.asarray(jv(order, zeros * place) / np.abs(jv(order + 1, zeros)))
