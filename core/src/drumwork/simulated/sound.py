"""The sound of a tap on a simulated head: its modes, struck anywhere with any strength, heard by a simulated microphone.

A stand-in, for demo, practice and tests. The head is a circular film whose edge tension is uneven by a mean and a two-lobed part, so that the
(1,1) pair is split about an axis; the second head and the air between lower the (0,1) mode and add another. Tension rises with the
square of amplitude, so that a hard tap starts sharp and glides down. No instrumented drum was measured.

References
----------
Mode ratios and shapes: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 3 and 18 (zeros: DLMF §10.21). Decay rates and the glide are our
own figures, set to the size of those heard on recordings of toms (docs/sources/film.md).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, fftconvolve, sosfilt
from scipy.special import jv

from drumwork.sources.bessel import BESSEL_ZEROS

__all__ = ["Microphone", "SoundingHead", "Tap"]

Array = NDArray[np.float64]

MODES: Final = tuple(BESSEL_ZEROS)
AIR_SHARE: Final = {(0, 1): 0.86, (1, 1): 1.0, (2, 1): 1.02, (0, 2): 1.01}
"""How air pulls modes against the (1,1) mode; the rest about 1.03. Our own figures for a usual batter head."""
HIGHER_SHARE: Final = 1.03
SPLIT_SHARE: Final = {(1, 1): 1.0, (2, 1): 0.2}
ATTACK_S: Final = 0.0015
RATTLE_HZ: Final = (2500.0, 9000.0)
RATTLE_FOLLOWS_HZ: Final = 30.0
NEAR_M: Final = 0.3
TAIL_SHARE: Final = 0.12
SKIN_DEPTH_TAP_M: Final = 0.008  # how wide the tip touches


@dataclass(frozen=True, slots=True)
class Tap:
    """Where and how the head is struck: angle from the badge, distance in from the hoop, strength 0…1 (1 is a full stroke)."""

    angle_rad: float
    inset_m: float = 0.028
    strength: float = 0.2


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
    decay_s
        time for the (1,1) pair to fall by 60 dB.
    glide_cents
        how far a full stroke starts sharp.
    wires
        how strongly snare wires rattle along, against the ring; 0 with none or thrown off.
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

    def partials(self, tap: Tap) -> list[tuple[float, float, float]]:
        """(hz, amplitude, decay rate 1/s) of every mode for this tap, small amplitude."""
        found = []
        place = (self.radius_m - tap.inset_m) / self.radius_m
        for m, n in MODES:
            zero = BESSEL_ZEROS[m, n]
            ratio = zero / BESSEL_ZEROS[1, 1] * AIR_SHARE.get((m, n), HIGHER_SHARE)
            hz = self.edge_hz * ratio
            if (m, n) == (0, 1) and self.centre_hz:
                hz = self.centre_hz
            shape = float(jv(m, zero * place)) / _norm(m, zero)
            softness = np.exp(-((hz / (600 + 1400 * tap.strength)) ** 2))
            radiates = 1.0 if m == 0 else 0.7**m
            rate = 6.91 / self.decay_s * (2.2 if m == 0 and n == 1 else 1.0 + 0.5 * (hz / self.edge_hz - 1))
            for hz_of, share in self._pair(m, hz, tap.angle_rad):
                found.append((hz_of, tap.strength * shape * share * softness * radiates, rate))
        return found

    def _pair(self, m: int, hz: float, angle: float) -> list[tuple[float, float]]:
        if m == 0:
            return [(hz, 1.0)]
        split = self.split * SPLIT_SHARE.get((m, 1), 0.1)
        turned = m * (angle - self.axis_rad)
        return [(hz / (1 + split / 2), np.cos(turned) ** 2), (hz * (1 + split / 2), np.sin(turned) ** 2)]

    def sound(self, tap: Tap, rate: int, seconds: float = 1.2, random: np.random.Generator | None = None) -> Array:
        """(samples,) the tap's sound at a distance, no noise; begins with the stroke."""
        random = random or np.random.default_rng(0)
        t = np.arange(int(seconds * rate)) / rate
        sharp = 2 ** (self.glide_cents * tap.strength**2 / 1200) - 1
        slowest = 6.91 / self.decay_s
        phase_time = t + sharp * (1 - np.exp(-2 * slowest * t)) / (2 * slowest)
        rise = 1 - np.exp(-t / ATTACK_S)
        out = np.zeros(len(t))
        for hz, amplitude, decay in self.partials(tap):
            if hz < rate / 2.2:
                out += (
                    amplitude
                    * np.exp(-decay * t)
                    * np.sin(2 * np.pi * hz * phase_time + random.uniform(0, 6.28))
                    * rise
                )
        click = random.standard_normal(len(t)) * np.exp(-t / 0.004) * 0.12 * tap.strength
        return np.asarray(out + click + self._rattle(out, rate, random))

    def _rattle(self, ring: Array, rate: int, random: np.random.Generator) -> Array:
        """Wires throw noise as long as the film moves enough to lift them."""
        if not self.wires:
            return np.zeros(len(ring))
        noise = sosfilt(butter(2, RATTLE_HZ, "bandpass", fs=rate, output="sos"), random.standard_normal(len(ring)))
        moves = np.sqrt(sosfilt(butter(1, RATTLE_FOLLOWS_HZ, fs=rate, output="sos"), ring**2).clip(0))
        return np.asarray(self.wires * moves * noise / (noise.std() + 1e-12))


def _norm(m: int, zero: float) -> float:
    """Root mean square of a mode over the film."""
    return float(abs(jv(m + 1, zero))) if m == 0 else float(abs(jv(m - 1, zero)))


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
