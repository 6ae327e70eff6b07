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
Complex = NDArray[np.complex128]

FROM_S: Final = 0.03
MOST_S: Final = 0.65
DEEPEST_DB: Final = -42.0
OVER_FLOOR_DB: Final = 9.0
MOST_PARTIALS: Final = 10
APART_HZ: Final = 7.0
WANTED_RATIO: Final = 0.13
WANTED_MOST: Final = 2
BAND_HZ: Final = 24.0
SLOW_RATE: Final = 110.0
MOST_ORDER: Final = 4
FAINT: Final = 0.02  # of the strongest: what counts as a sinusoid of its own
SHORTEST: Final = 8  # samples
BENT: Final = 2  # samples at either end
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


class _Slowed:
    """A ring's spectrum, from which the band about any partial is cut and turned to standstill at a slow rate."""

    def __init__(self, x: Array, rate: float) -> None:
        self._down = max(1, int(rate / SLOW_RATE))
        self._count = -(-len(x) // self._down)
        self._step = rate / (self._count * self._down)
        self._spectrum = np.fft.fft(x, self._count * self._down)
        self.rate = rate / self._down
        self._band = np.fft.ifftshift(np.hanning(self._count))

    def at(self, hz: float) -> tuple[Complex, float]:
        """(n,) the band about the bin nearest `hz`, and that bin in hertz; its ends, which the filter bends, are left out."""
        place = round(hz / self._step)
        bins = (np.fft.fftfreq(self._count, 1 / self._count).astype(int) + place) % len(self._spectrum)
        slow = np.fft.ifft(self._spectrum[bins] * self._band) / self._down
        bent = BENT if self._count >= 2 * SHORTEST else 1
        return slow[bent:-bent], place * self._step


def _poles(every: Complex) -> list[Complex]:
    """For each row of (p, n) what each of its few damped sinusoids is multiplied by from one sample to the next."""
    n = every.shape[1]
    length = max(n // 3, min(n // 2, SHORTEST))
    hankel = np.lib.stride_tricks.sliding_window_view(every, length + 1, axis=1)
    # The few strongest right singular vectors, from the small square matrices they are the eigenvectors of.
    squares, vectors = np.linalg.eigh(np.swapaxes(hankel.conj(), 1, 2) @ hankel)
    values = np.sqrt(squares[:, ::-1].clip(0))
    orders = (values > FAINT * values[:, :1]).sum(axis=1).clip(1, MOST_ORDER)
    found = [np.zeros(0, complex)] * len(every)
    for order, rows in _alike(orders):
        of = vectors[rows, :, : -order - 1 : -1].conj()  # (…, length + 1, order), conjugate of the row space
        for row, poles in zip(rows, np.linalg.eigvals(_least_squares(of[:, :-1], of[:, 1:])), strict=True):
            found[row] = np.asarray(poles[(np.abs(poles) > 0.5) & (np.abs(poles) < 1.06)])
    return found


def _alike(counts: NDArray[np.intp]) -> list[tuple[int, NDArray[np.intp]]]:
    """Rows of one count together, so that they are worked out at once; those of none left out."""
    return [(int(count), np.flatnonzero(counts == count)) for count in np.unique(counts[counts > 0])]


def _least_squares(columns: Complex, wanted: Complex) -> Complex:
    """(…, n, m) of (…, k, n) and (…, k, m), by the normal equations: few columns, far from one another."""
    turned = np.swapaxes(columns.conj(), -1, -2)
    normal = turned @ columns
    ridge = 1e-12 * np.trace(normal, axis1=-2, axis2=-1).real[..., None, None] * np.eye(normal.shape[-1])
    return np.asarray(np.linalg.solve(normal + ridge, turned @ wanted))


def _pencil(every: Complex, rate: float) -> list[list[tuple[float, float, complex]]]:
    """(offset hz, decay 1/s, amplitude at the start) of the few damped sinusoids in each row of (p, n)."""
    found: list[list[tuple[float, float, complex]]] = [[] for _ in every]
    if every.shape[1] < SHORTEST:
        return found
    steps = np.arange(every.shape[1])[:, None]
    told = _poles(every)
    for _, rows in _alike(np.array([len(poles) for poles in told])):
        poles: Complex = np.stack([told[row] for row in rows])
        amplitudes = _least_squares(np.asarray(poles[:, None, :] ** steps, dtype=np.complex128), every[rows, :, None])[
            ..., 0
        ]
        offsets, decays = np.angle(poles) * rate / (2 * np.pi), -np.log(np.abs(poles)) * rate
        for row, *of in zip(rows, offsets.tolist(), decays.tolist(), amplitudes.tolist(), strict=True):
            found[row] = list(zip(*of, strict=True))
    return found


def find_partials(x: Array, rate: float, until_s: float, near_hz: float | None = None) -> list[Partial]:
    """Partials of a tap that begins at the first sample and rings to `until_s`; strongest first. Level is that in the middle of the window."""
    last = int(min(until_s, FROM_S + MOST_S) * rate)
    ring = x[int(FROM_S * rate) : last]
    if len(ring) < 0.05 * rate:
        return []
    found: list[tuple[float, float, float]] = []
    half = len(ring) / rate / 2
    slowed = _Slowed(ring, rate)
    bands = [slowed.at(peak) for peak in _peaks(ring, rate, near_hz)]
    if not bands:
        return []
    told = _pencil(np.array([slow for slow, _ in bands]), slowed.rate)
    for (_, standing), damped in zip(bands, told, strict=True):
        for offset, decay, amplitude in damped:
            hz = standing + offset
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
