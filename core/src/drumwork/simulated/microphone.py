"""A simulated microphone in a simulated room. A stand-in, not a measurement."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import fftconvolve

__all__ = ["Microphone"]

Array = NDArray[np.float64]

NEAR_M: Final = 0.3
TAIL_SHARE: Final = 0.12


@dataclass(frozen=True, slots=True)
class Microphone:
    """A microphone in a room.

    Parameters
    ----------
    snr_db
        signal to noise at the tap's peak, from near by.
    hum, hum_hz
        a steady hum against full scale.
    echo_s, echo
        an early reflection.
    distance_m
        from the drum: twice as far is half as loud, and the room's tail stays.
    tail_s
        time for the room's tail to fall by 60 dB; 0 is a dead room.
    """

    snr_db: float = 45.0
    hum: float = 0.0
    hum_hz: float = 50.0
    echo_s: float = 0.007
    echo: float = 0.15
    distance_m: float = NEAR_M
    tail_s: float = 0.0

    def hear(self, sound: Array, rate: int, random: np.random.Generator, lead_s: float = 0.15) -> Array:
        """(samples,) with silence before the tap; half of full scale from near by."""
        lead = int(lead_s * rate)
        heard = np.concatenate([np.zeros(lead), sound])
        late = int(self.echo_s * rate)
        heard[late:] += self.echo * heard[:-late]
        peak = float(np.abs(heard).max()) or 1.0
        heard = heard / peak * 0.5 * NEAR_M / self.distance_m
        if self.tail_s:
            heard = heard + self._tail(heard * self.distance_m / NEAR_M, rate, random)
        noise = random.standard_normal(len(heard)) * 0.5 * 10 ** (-self.snr_db / 20)
        t = np.arange(len(heard)) / rate
        return np.asarray(heard + noise + self.hum * np.sin(2 * np.pi * self.hum_hz * t))

    def _tail(self, near: Array, rate: int, random: np.random.Generator) -> Array:
        """What comes back from the walls: as loud everywhere."""
        t = np.arange(int(self.tail_s * rate)) / rate
        walls = random.standard_normal(len(t)) * np.exp(-6.91 * t / self.tail_s)
        return np.asarray(TAIL_SHARE * fftconvolve(near, walls / np.sqrt((walls**2).sum()))[: len(near)])
