"""The ring of a struck film from its partials: all of them die away, glide as one, and may set snare wires rattling.

Tension rises with the square of amplitude, so that a hard tap starts sharp and glides down. Decay rates and the glide are our own figures, set to the
size of those heard on recordings of toms (docs/sources/film.md).
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, sosfilt

from drumwork.quantities import ratio_of

__all__ = ["Partial", "Ringing", "Tap", "decay_rate", "softness"]

Array = NDArray[np.float64]
Partial = tuple[float, float, float]
"""(hz, amplitude, decay rate 1/s) at small amplitude."""

ATTACK_S: Final = 0.0015
RATTLE_HZ: Final = (2500.0, 9000.0)
RATTLE_FOLLOWS_HZ: Final = 30.0
FALL_60_DB: Final = 6.91  # natural logarithm of a thousand


@dataclass(frozen=True, slots=True)
class Tap:
    """Where and how the head is struck: angle from the badge, distance in from the hoop, strength 0…1 (1 is a full stroke)."""

    angle_rad: float
    inset_m: float = 0.028
    strength: float = 0.2


def softness(hz: float, strength: float) -> float:
    """How much of a partial a tip brings out; a soft stroke brings out less of the high ones."""
    return float(np.exp(-((hz / (600 + 1400 * strength)) ** 2)))


def decay_rate(hz: float, edge_hz: float, decay_s: float, fundamental: bool) -> float:
    """1/s: the fundamental gives its sound off fastest, high partials lose theirs in the film."""
    share = 2.2 if fundamental else max(0.6, 1.0 + 0.5 * (hz / edge_hz - 1))
    return FALL_60_DB / decay_s * share


@dataclass(frozen=True, slots=True)
class Ringing:
    """How a film rings: `decay_s` for its pair to fall by 60 dB, `glide_cents` a full stroke starts sharp, `wires` how strongly snare wires rattle along."""

    decay_s: float = 0.9
    glide_cents: float = 120.0
    wires: float = 0.0

    def sound(
        self, partials: Iterable[Partial], strength: float, rate: int, seconds: float, random: np.random.Generator
    ) -> Array:
        """(samples,) no noise; begins with the stroke."""
        t = np.arange(int(seconds * rate)) / rate
        sharp = ratio_of(self.glide_cents * strength**2) - 1
        slowest = FALL_60_DB / self.decay_s
        phase_time = t + sharp * (1 - np.exp(-2 * slowest * t)) / (2 * slowest)
        rise = 1 - np.exp(-t / ATTACK_S)
        out = np.zeros(len(t))
        for hz, amplitude, decay in partials:
            if hz < rate / 2.2:
                phase = 2 * np.pi * hz * phase_time + random.uniform(0, 6.28)
                out += amplitude * np.exp(-decay * t) * np.sin(phase) * rise
        click = random.standard_normal(len(t)) * np.exp(-t / 0.004) * 0.12 * strength
        return np.asarray(out + click + self._rattle(out, rate, random))

    def _rattle(self, ring: Array, rate: int, random: np.random.Generator) -> Array:
        """Wires throw noise as long as the film moves enough to lift them."""
        if not self.wires:
            return np.zeros(len(ring))
        noise = sosfilt(butter(2, RATTLE_HZ, "bandpass", fs=rate, output="sos"), random.standard_normal(len(ring)))
        moves = np.sqrt(sosfilt(butter(1, RATTLE_FOLLOWS_HZ, fs=rate, output="sos"), ring**2).clip(0))
        return np.asarray(self.wires * moves * noise / (noise.std() + 1e-12))
