"""The sound of a tap on one simulated head whose family of modes is set by hand: for tests and benchmarks that choose each figure freely.

A stand-in: the (1,1) pair, its split and the drum's note are given; the rest of the family follows the ideal film with fixed shares for air. For a
drum whose modes follow from films, shell and air, see `sounding_drum`.

References
----------
Mode ratios and shapes: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 3 and 18 (zeros: DLMF §10.21).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.special import jv

from drumwork.simulated.ring import Partial, Ringing, Tap, decay_rate, softness
from drumwork.sources.bessel import BESSEL_ZEROS

__all__ = ["SoundingHead"]

Array = NDArray[np.float64]

MODES: Final = tuple(BESSEL_ZEROS)
AIR_SHARE: Final = {(0, 1): 0.86, (1, 1): 1.0, (2, 1): 1.02, (0, 2): 1.01}
"""How air pulls modes against the (1,1) mode; the rest about 1.03. Our own figures for a usual batter head."""
HIGHER_SHARE: Final = 1.03
SPLIT_SHARE: Final = {(1, 1): 1.0, (2, 1): 0.2}


@dataclass(frozen=True, slots=True)
class SoundingHead:
    """One head as it sounds.

    Parameters
    ----------
    radius_m
    edge_hz
        mean of the (1,1) pair at small amplitude.
    split
        f_b / f_a - 1 of the pair.
    axis_rad
        angle of the lower mode's antinode.
    centre_hz
        the drum's (0,1) note with its other head, or None for a single head.
    decay_s, glide_cents, wires
        see `Ringing`.
    """

    radius_m: float
    edge_hz: float
    split: float = 0.0
    axis_rad: float = 0.0
    centre_hz: float | None = None
    decay_s: float = 0.9
    glide_cents: float = 120.0
    wires: float = 0.0

    @property
    def pair_hz(self) -> tuple[float, float]:
        """The two frequencies of the (1,1) pair."""
        return self.edge_hz / (1 + self.split / 2), self.edge_hz * (1 + self.split / 2)

    def partials(self, tap: Tap) -> list[Partial]:
        """Every mode as this tap brings it out, at small amplitude."""
        found = []
        place = (self.radius_m - tap.inset_m) / self.radius_m
        for m, n in MODES:
            zero = BESSEL_ZEROS[m, n]
            ratio = zero / BESSEL_ZEROS[1, 1] * AIR_SHARE.get((m, n), HIGHER_SHARE)
            hz = self.edge_hz * ratio
            if (m, n) == (0, 1) and self.centre_hz:
                hz = self.centre_hz
            shape = float(jv(m, zero * place) / abs(jv(m + 1, zero)))
            radiates = 1.0 if m == 0 else 0.7**m
            size = tap.strength * shape * softness(hz, tap.strength) * radiates
            rate = decay_rate(hz, self.edge_hz, self.decay_s, (m, n) == (0, 1))
            found += [(hz_of, size * share, rate) for hz_of, share in self._pair(m, hz, tap.angle_rad)]
        return found

    def _pair(self, m: int, hz: float, angle: float) -> list[tuple[float, float]]:
        if m == 0:
            return [(hz, 1.0)]
        split = self.split * SPLIT_SHARE.get((m, 1), 0.1)
        turned = m * (angle - self.axis_rad)
        return [(hz / (1 + split / 2), np.cos(turned) ** 2), (hz * (1 + split / 2), np.sin(turned) ** 2)]

    def sound(self, tap: Tap, rate: int, seconds: float = 1.2, random: np.random.Generator | None = None) -> Array:
        """(samples,) the tap's sound, no noise; begins with the stroke."""
        ringing = Ringing(self.decay_s, self.glide_cents, self.wires)
        return ringing.sound(self.partials(tap), tap.strength, rate, seconds, random or np.random.default_rng(0))
