"""A head whose readings answer to its rods, linear in the square of pitch.

A stand-in: it follows the even-harmonic (modal) or a local response of our own numerical study, restated in
`docs/sources/film.md`. No instrumented drum was measured.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Pitch, Turns, ratio_of
from drumwork.rods.layout import RodLayout

__all__ = ["SimulatedHead"]

Array = NDArray[np.float64]


@dataclass
class SimulatedHead:
    """A head near `near_hz`, unevenly set, that can be turned and tapped.

    Parameters
    ----------
    answer_per_turn
        change of (f / near)² when every rod makes one turn.
    modal
        readings follow the doublet (odd patterns unheard); otherwise each rod mostly its own.
    uneven
        typical departure of a rod's first reading from the mean, as a ratio of pitch.
    noise, quirk
        standard deviations: of a reading (ratio of pitch), of a rod's own answer (ratio).
    """

    layout: RodLayout
    near_hz: float
    seed: int
    answer_per_turn: float = 0.8
    modal: bool = True
    uneven: float = 0.03
    noise: float = 0.002
    quirk: float = 0.08
    _z: Array = field(init=False, repr=False)
    _answer: Array = field(init=False, repr=False)
    _random: np.random.Generator = field(init=False, repr=False)

    def __post_init__(self) -> None:
        self._random = np.random.default_rng(self.seed)
        n = self.layout.count
        quirks = 1 + self.quirk * self._random.standard_normal(n)
        self._answer = self.answer_per_turn * self._shape() * quirks[None, :]
        start = self._answer @ self._random.standard_normal(n)
        start = start - start.mean()
        self._z = 1 + start * (2 * self.uneven / max(float(np.std(start)), 1e-9))

    def _shape(self) -> Array:
        """(n, n): share of each rod (column) in each reading (row); rows sum to one."""
        n = self.layout.count
        angles = 2 * np.pi * np.arange(n) / n
        apart = angles[:, None] - angles[None, :]
        if self.modal:
            return np.asarray((1 + 2 * 0.44 * np.cos(2 * apart)) / n)
        near = {0: 1.0, 1: 0.3, n - 1: 0.3}
        kernel = np.array([near.get(step, 0.0) + (0.1 if 2 * step == n else 0.0) for step in range(n)])
        steps = (np.arange(n)[:, None] - np.arange(n)[None, :]) % n
        return np.asarray(kernel[steps] / kernel.sum())

    def turn(self, turns: Mapping[int, Turns]) -> None:
        """Turn rods; what is left out stays."""
        made = np.array([float(turns[rod].fraction) if rod in turns else 0.0 for rod in self.layout.all_rods])
        self._z = np.clip(self._z + self._answer @ made, 0.02, None)

    def drop(self, cents: float) -> None:
        """Settle: the whole head falls by so many cents."""
        self._z = self._z * ratio_of(-2 * cents)

    def true_hz(self) -> Mapping[int, float]:
        return {rod: float(self.near_hz * np.sqrt(self._z[rod - 1])) for rod in self.layout.rods}

    def tap(self) -> Mapping[int, Pitch]:
        """One round of readings, in tenths of a hertz as people note them."""
        return {
            rod: Pitch(round(hz * (1 + self.noise * float(self._random.standard_normal())), 1))
            for rod, hz in self.true_hz().items()
        }
