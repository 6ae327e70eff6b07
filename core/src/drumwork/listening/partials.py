"""The family of partials of one tap: frequency, level, decay.

Peaks of a tapered spectrum say about where; each is then turned down to standstill with its near neighbours and taken apart by a matrix pencil,
which tells two partials of a split pair from one another where a spectrum shows one hump.

References
----------
Y. Hua & T. K. Sarkar, “Matrix pencil method for estimating parameters of exponentially damped/undamped sinusoids in noise”, IEEE Trans. ASSP 38
(1990).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import maximum_filter1d, median_filter

__all__ = ["Partial", "find_partials"]

Array = NDArray[np.float64]

FROM_S: Final = 0.03
MOST_S: Final = 0.65
DEEPEST_DB: Final = -42.0
OVER_FLOOR_DB: Final = 9.0
MOST_PARTIALS: Final = 7
APART_HZ: Final = 7.0
WANTED_RATIO: Final = 0.13
WANTED_MOST: Final = 2
BAND_HZ: Final = 24.0
SLOW_RATE: Final = 110.0
MOST_ORDER: Final = 4
HIGHEST_HZ: Final = 1500.0
LOWEST_HZ: Final = 32.0


@dataclass(frozen=True, slots=True)
class Partial:
    """One partial: hertz, level in decibels against the strongest, decay in decibels a second, error of its frequency in hertz."""

    hz: float
    level_db: float
    decay_db_s: float
    sigma_hz: float


def _peaks(x: Array, rate: float, near_hz: float | None) -> list[float]:
    """About where partials lie, strongest first; and the strongest near `near_hz`, however many are stronger elsewhere."""
    size = 1 << int(np.ceil(np.log2(len(x) * 4)))
    spectrum = np.abs(np.fft.rfft(x * np.hanning(len(x)), size))
    hz = np.fft.rfftfreq(size, 1 / rate)
    level = 20 * np.log10(spectrum + 1e-15)
    step = hz[1]
    near = max(3, int(APART_HZ / step))
    floor = median_filter(level[:: max(1, near // 3)], size=61, mode="nearest")
    floor = np.interp(hz, hz[:: max(1, near // 3)], floor)
    top = maximum_filter1d(level, near)
    inside = (hz > LOWEST_HZ) & (hz < min(HIGHEST_HZ, 0.42 * rate))
    if not inside.any():
        return []
    loudest = level[inside].max()
    is_peak = inside & (level >= top - 1e-9) & (level > loudest + DEEPEST_DB) & (level > floor + OVER_FLOOR_DB)
    places = np.flatnonzero(is_peak)
    order = places[np.argsort(level[places])[::-1]]
    chosen = list(order[:MOST_PARTIALS])
    if near_hz is not None:
        wanted = [place for place in order[MOST_PARTIALS:] if abs(hz[place] / near_hz - 1) < WANTED_RATIO]
        chosen += wanted[:WANTED_MOST]
    return [float(hz[place]) for place in chosen]


def _slowed(x: Array, rate: float, hz: float) -> tuple[NDArray[np.complex128], float]:
    """The band about `hz`, turned to standstill, at a slow rate."""
    down = max(1, int(rate / SLOW_RATE))
    turned = x * np.exp(-2j * np.pi * hz * np.arange(len(x)) / rate)
    width = 2 * down
    taps = np.hanning(2 * width + 1)
    frames = np.lib.stride_tricks.sliding_window_view(turned, 2 * width + 1)[::down]
    return np.ascontiguousarray(frames) @ (taps / taps.sum()).astype(np.complex128), rate / down


def _pencil(y: NDArray[np.complex128], rate: float) -> list[tuple[float, float, complex]]:
    """(offset hz, decay 1/s, amplitude at the start) of the few damped sinusoids in y."""
    n = len(y)
    length = n // 2
    if length < 4:
        return []
    hankel = np.lib.stride_tricks.sliding_window_view(y, length + 1)
    # The few strongest right singular vectors, from the small square matrix they are the eigenvectors of.
    squares, vectors = np.linalg.eigh(hankel.conj().T @ hankel)
    values = np.sqrt(squares[::-1].clip(0))
    order = int(min(MOST_ORDER, max(1, (values > 0.02 * values[0]).sum())))
    basis = vectors[:, ::-1][:, :order].conj()  # (length + 1, order), conjugate of the row space
    shift, *_ = np.linalg.lstsq(basis[:-1], basis[1:], rcond=None)
    poles = np.linalg.eigvals(shift)
    poles = poles[(np.abs(poles) > 0.5) & (np.abs(poles) < 1.06)]
    if not len(poles):
        return []
    powers = poles[None, :] ** np.arange(n)[:, None]
    amplitudes, *_ = np.linalg.lstsq(powers, y, rcond=None)
    offsets = np.angle(poles) * rate / (2 * np.pi)
    return [
        (float(o), float(-np.log(abs(p)) * rate), complex(a))
        for o, p, a in zip(offsets, poles, amplitudes, strict=True)
    ]


def find_partials(x: Array, rate: float, until_s: float, near_hz: float | None = None) -> list[Partial]:
    """Partials of a tap that begins at the first sample and rings to `until_s`; strongest first. Level is that in the middle of the window."""
    last = int(min(until_s, FROM_S + MOST_S) * rate)
    ring = x[int(FROM_S * rate) : last]
    if len(ring) < 0.05 * rate:
        return []
    found: list[tuple[float, float, float]] = []
    half = len(ring) / rate / 2
    for peak in _peaks(ring, rate, near_hz):
        slow, slow_rate = _slowed(ring, rate, peak)
        for offset, decay, amplitude in _pencil(slow, slow_rate):
            hz = peak + offset
            if abs(offset) > BAND_HZ or decay < -2.0 or decay > 90.0:
                continue
            power = abs(amplitude) * np.exp(-max(decay, 0.0) * half)
            if all(abs(hz - other) > 0.6 for other, *_ in found):
                found.append((hz, power, decay))
    if not found:
        return []
    strongest = max(power for _, power, _ in found)
    partials = [
        Partial(hz, float(20 * np.log10(power / strongest + 1e-9)), 8.686 * decay, max(0.004, 0.15 * decay / 30))
        for hz, power, decay in found
        if power > strongest * 10 ** (DEEPEST_DB / 20)
    ]
    return sorted(partials, key=lambda each: -each.level_db)
