"""A simulated drum on the bench: rods that can be turned, a head that answers, and its sound at any rod.

A stand-in: the pull at the rods is a number each; edge taps hear its mean and its two-lobed part (docs/sources/film.md), so that tilt and other
lopsided pulls go unheard, and a film gauge at the edge shows them. No instrumented drum was measured.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.layout import RodLayout
from drumwork.simulated.sound import Microphone, SoundingHead, Tap

__all__ = ["SimulatedDrum"]

Array = NDArray[np.float64]

DOUBLET_SHARE: Final = 0.42
LEAST_PULL: Final = 0.05
GAUGE_AT_ONE: Final = 80.0
GAUGE_NOISE: Final = 0.01


@dataclass
class SimulatedDrum:
    """One head on a drum near `near_hz`, unevenly set.

    Parameters
    ----------
    answer_per_turn
        what a turn adds to the pull at its own rod, 1 being the usual pull.
    uneven
        standard deviation of the pull at the rods to begin with.
    """

    layout: RodLayout
    near_hz: float
    radius_m: float
    seed: int
    answer_per_turn: float = 0.8
    uneven: float = 0.09
    _pull: Array = field(init=False, repr=False)
    _quirk: Array = field(init=False, repr=False)

    def __post_init__(self) -> None:
        random, n = np.random.default_rng(self.seed), len(self.layout.rods)
        pull = random.standard_normal(n)
        self._pull = 1 + self.uneven * (pull - pull.mean())
        self._quirk = 1 + 0.06 * random.standard_normal(n)

    def turn(self, turns: Mapping[int, Turns]) -> None:
        """Turn rods; what is left out stays."""
        made = np.array([float(turns[rod].fraction) if rod in turns else 0.0 for rod in self.layout.rods])
        self._pull = np.clip(self._pull + self.answer_per_turn * self._quirk * made, LEAST_PULL, None)

    def settle(self, cents: float) -> None:
        """The film stretches: the whole head falls by so many cents."""
        self._pull = self._pull * 2 ** (-2 * cents / 1200)

    def head(self) -> SoundingHead:
        """The head as it sounds now."""
        angles = np.array([self.layout.angle_rad(rod) for rod in self.layout.rods])
        mean = float(self._pull.mean())
        lobe = 2 * DOUBLET_SHARE * complex((self._pull * np.exp(2j * angles)).mean())
        low, high = (self.near_hz * math.sqrt(max(LEAST_PULL, mean + sign * abs(lobe))) for sign in (-1, 1))
        axis = (np.angle(lobe) / 2 + math.pi / 2) % math.pi
        edge = (low + high) / 2
        return SoundingHead(self.radius_m, edge, 2 * (high - low) / (high + low), float(axis), centre_hz=0.6 * edge)

    def true_hz(self) -> Mapping[int, float]:
        """What each rod reads: the blend of the pair it hears."""
        head = self.head()
        low, high = head.pair_hz
        share = {rod: math.cos(self.layout.angle_rad(rod) - head.axis_rad) ** 2 for rod in self.layout.rods}
        return {rod: math.sqrt(s * low**2 + (1 - s) * high**2) for rod, s in share.items()}

    def tap(self, rod: int, rate: int, seed: int, strength: float = 0.2, snr_db: float = 45.0) -> Array:
        """(samples,) one tap at a rod as a microphone hears it."""
        random = np.random.default_rng(seed)
        place = Tap(self.layout.angle_rad(self.layout.require(rod)), 0.028, strength)
        return Microphone(snr_db=snr_db).hear(self.head().sound(place, rate, 1.1, random), rate, random)

    def gauge(self, rod: int, seed: int) -> float:
        """The number of a film gauge standing near a rod: any scale, rising with the pull."""
        noise = 1 + GAUGE_NOISE * np.random.default_rng(seed).standard_normal()
        return float(GAUGE_AT_ONE * self._pull[self.layout.rods.index(rod)] * noise)
