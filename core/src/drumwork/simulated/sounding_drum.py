"""The sound of a tap on a simulated drum: both films, its shell and the air between them decide every partial.

A stand-in: the modes are those of `shell`; how loud either head reaches the microphone, how fast partials die away and how much a finer lobe of the
tension splits a pair are our own figures. No instrumented drum was measured.
"""

from __future__ import annotations

import cmath
import math
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.simulated.ring import Partial, Ringing, Tap, decay_rate, softness
from drumwork.simulated.shell import CoupledMode, Shell, coupled_modes, own_mode_squared

__all__ = ["SoundingDrum"]

Array = NDArray[np.float64]

ORDERS: Final = range(5)
RADIATES: Final = 0.7  # each further nodal diameter, against the one before
OTHER_LOUD: Final = 0.35  # the other head's sound at a microphone near this one
LEAST_PULL: Final = 0.05


@dataclass(frozen=True, slots=True)
class SoundingDrum:
    """A drum as it sounds, one head in hand.

    Parameters
    ----------
    radius_m
    edge_hz
        what this head reads at its rods on the average, the other held still.
    lobes
        (two-lobed, four-lobed, …) unevenness of the tension as the first, second, … pair of modes feels it: the size is half the
        difference against the mean, the angle 2m times that of the highest pull.
    shell
    ringing
    """

    radius_m: float
    edge_hz: float
    lobes: tuple[complex, ...] = ()
    shell: Shell = field(default_factory=Shell)
    ringing: Ringing = field(default_factory=Ringing)

    @property
    def pair_hz(self) -> tuple[float, float]:
        """The two frequencies of this head's (1,1) pair, with the other head as it is."""
        low, high = (max(modes[:2], key=lambda mode: (round(mode.share, 3), -mode.hz)).hz for modes in _modes(self)[1])
        return low, high

    @property
    def axis_rad(self) -> float:
        """Angle of the lower mode's antinode."""
        return self._axis(1)

    @property
    def centre_hz(self) -> float:
        """The drum's note in the middle: its lowest mode without diameters."""
        return _modes(self)[0][0][0].hz

    def blend_hz(self, angle_rad: float) -> float:
        """What an edge tap at this angle reads."""
        low, high = self.pair_hz
        share = math.cos(angle_rad - self.axis_rad) ** 2
        return math.sqrt(share * low**2 + (1 - share) * high**2)

    def partials(self, tap: Tap) -> list[Partial]:
        """Every mode as this tap brings it out, at small amplitude."""
        place = max(0.0, self.radius_m - tap.inset_m) / self.radius_m
        return [
            self._partial(mode, order, place, tap, turned, order == 0 and number == 0)
            for order, pair in enumerate(_modes(self))
            for modes, turned in zip(pair, self._turned(order, tap.angle_rad), strict=False)
            for number, mode in enumerate(modes)
        ]

    def _partial(
        self, mode: CoupledMode, order: int, place: float, tap: Tap, turned: float, fundamental: bool
    ) -> Partial:
        moved = mode.at(order, place) * self.shell.film_kg_per_m2
        loud = float(np.linalg.norm(mode.film)) + OTHER_LOUD * float(np.linalg.norm(mode.other))
        size = tap.strength * moved * loud * RADIATES**order * turned * softness(mode.hz, tap.strength)
        return mode.hz, size, decay_rate(mode.hz, self.edge_hz, self.ringing.decay_s, fundamental)

    def _turned(self, order: int, angle_rad: float) -> tuple[float, ...]:
        """How much of the lower and the upper of each pair a tap at this angle moves."""
        if order == 0:
            return (1.0,)
        turned = order * (angle_rad - self._axis(order))
        return math.cos(turned) ** 2, math.sin(turned) ** 2

    def _axis(self, order: int) -> float:
        lobe = self._lobe(order)
        return float(((cmath.phase(lobe) + math.pi) / (2 * order)) % (math.pi / order))

    def _lobe(self, order: int) -> complex:
        return self.lobes[order - 1] if order <= len(self.lobes) else 0j

    def sound(self, tap: Tap, rate: int, seconds: float = 1.2, random: np.random.Generator | None = None) -> Array:
        """(samples,) the tap's sound, no noise; begins with the stroke."""
        random = random or np.random.default_rng(0)
        return self.ringing.sound(self.partials(tap), tap.strength, rate, seconds, random)


@lru_cache(maxsize=64)
def _modes(drum: SoundingDrum) -> list[list[list[CoupledMode]]]:
    """For each number of diameters, the modes of the lower and the upper of every pair (one without diameters)."""
    pull = (math.tau * drum.edge_hz) ** 2 / own_mode_squared(drum.radius_m, drum.shell)
    other = (math.tau * (drum.shell.other_hz or drum.edge_hz)) ** 2
    other /= own_mode_squared(drum.radius_m, drum.shell, other=True)
    found = []
    for order in ORDERS:
        lobe = abs(drum._lobe(order)) if order else 0.0
        pulls = (1 - lobe, 1 + lobe) if order else (1.0,)
        found.append(
            [coupled_modes(drum.radius_m, drum.shell, (pull * max(LEAST_PULL, p), other), order) for p in pulls]
        )
    return found
