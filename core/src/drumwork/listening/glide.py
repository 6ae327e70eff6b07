"""A hard tap starts sharp and glides down: tension rises with the square of amplitude, and all partials with it.

The strongest partial is followed: its frequency against its squared envelope gives how far the tap was from small amplitude. Time is then
bent by as much, so that every partial of the same tap stands still at the pitch it settles to.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.fft import next_fast_len
from scipy.interpolate import CubicSpline

from drumwork.quantities import cents_of

__all__ = ["Glide", "follow_glide", "unbend"]

Array = NDArray[np.float64]

BAND_HZ: Final = 13.0
MOST: Final = 0.20  # a stroke this far sharp (over 300 cents) is beyond what drums do
FIRST_S: Final = 0.016
LEAST_POINTS: Final = 20
LOUD_ENOUGH: Final = 0.01
FAINT: Final = 1e-4
FOLLOW: Final = 3
USUAL: Final = 0.05  # of pitch: what strokes are sharp by
SLOW_HZ: Final = 240.0
DIES: Final = (3.5, 6.0, 10.0, 16.0, 26.0)  # 1/s
AGREE: Final = 3.0  # standard deviations
AGREE_LEAST: Final = 0.003  # of pitch
LEAST_SIGMA: Final = 0.0005


@dataclass(frozen=True, slots=True)
class Glide:
    """How far, as a ratio, the tap was sharp at each sample (n,); the most of it in cents once the click of the stroke is over, and how surely
    that is known, in cents."""

    sharp: Array
    cents: float
    doubt_cents: float


def envelope_of(x: Array, rate: float, hz: float, band_hz: float = BAND_HZ) -> NDArray[np.complex128]:
    """(n,) the partial near `hz` turned down to standstill, and what lies further off than the band taken away."""
    size = next_fast_len(len(x) + int(3 * rate / (2 * np.pi * band_hz)))
    turned = np.fft.fft(x * np.exp(-2j * np.pi * hz * np.arange(len(x)) / rate), size)
    band = np.exp(-0.5 * (np.fft.fftfreq(size, 1 / rate) / band_hz) ** 2)
    return np.asarray(np.fft.ifft(turned * band)[: len(x)])


@dataclass(frozen=True, slots=True)
class _Slow:
    """A partial at standstill, at a slow rate: (n,) its envelope."""

    a: NDArray[np.complex128]
    rate: float

    @property
    def power(self) -> Array:
        return np.asarray(np.abs(self.a) ** 2)


def _slow(spectrum: NDArray[np.complex128], rate: float, count: int, hz: float) -> _Slow:
    """The partial near `hz` cut out of the spectrum of a ring that is `count` samples long."""
    size = len(spectrum)
    step = rate / size
    half = int(SLOW_HZ / 2 / step)
    place = round(hz / step)
    offsets = np.arange(-half, half)
    cut = spectrum[(place + offsets) % size] * np.exp(-0.5 * ((place + offsets) * step / BAND_HZ - hz / BAND_HZ) ** 2)
    slow_rate = 2 * half * step
    a = np.fft.ifft(np.fft.ifftshift(cut)) * (2 * half / size)
    kept = max(LEAST_POINTS, int(count / rate * slow_rate))
    turn = np.exp(2j * np.pi * (place * step - hz) * np.arange(kept) / slow_rate)
    return _Slow(a[:kept] * turn[: len(a[:kept])], slow_rate)


@dataclass(frozen=True, slots=True)
class _Tension:
    """How far the tension is up at each moment against its most, and the time gone by so weighed."""

    course: Array
    bent: Array

    @classmethod
    def of(cls, power: Array, rate: float) -> _Tension:
        first = int(FIRST_S * rate)
        course = power / (power[first : first + int(0.25 * rate)].max(initial=1e-30) + 1e-30)
        return cls(course, np.concatenate([[0.0], np.cumsum(course[:-1])]) / rate)


@dataclass(frozen=True, slots=True)
class _Followed:
    """One partial's say under one course of the tension: sharpness per unit of it, its error, how far the phase lies off, and where it settles."""

    k: float
    sigma: float
    off: float
    settled_hz: float
    settled_sigma_hz: float


class _Phase:
    """A partial's phase against time, ready to be held against courses of the tension."""

    def __init__(self, slow: _Slow, hz: float) -> None:
        power, rate = slow.power, slow.rate
        first = int(np.ceil(FIRST_S * rate))
        top = first + int(np.argmax(power[first : first + int(0.25 * rate)]))
        faint = np.flatnonzero(power[top:] < FAINT * power[top])
        end = max(top + int(faint[0]) if len(faint) else len(power), first + LEAST_POINTS)
        self.used = slice(first, end)
        self.hz = hz
        self.top = float(power[top])
        self.phase = np.unwrap(np.angle(slow.a[self.used]))
        self.t = np.arange(len(power))[self.used] / rate
        # Where the partial is well above what disturbs it, every moment counts alike: the settling end tells most of where it settles.
        self.weight = np.sqrt(np.minimum(1.0, power[self.used] / (LOUD_ENOUGH * self.top + 1e-30)))
        # Neighbouring samples share the band: so many fewer are independent.
        self.share = max(1.0, rate / (4 * BAND_HZ))

    def under(self, tensions: Sequence[_Tension]) -> list[_Followed]:
        """What this partial says under each course of the tension."""
        bent = np.stack([tension.bent[self.used] for tension in tensions])
        columns = np.stack([np.ones_like(bent), np.broadcast_to(self.t, bent.shape), bent], axis=2)
        columns *= self.weight[None, :, None]
        wanted = self.phase * self.weight
        inverse = np.linalg.inv(np.swapaxes(columns, 1, 2) @ columns + 1e-9 * np.eye(3))
        solved = (inverse @ (np.swapaxes(columns, 1, 2) @ wanted)[..., None])[..., 0]
        off = np.sqrt((((columns @ solved[..., None])[..., 0] - wanted) ** 2).mean(axis=1)) + 1e-3
        usual = (
            off**2 * self.share / (2 * np.pi * self.hz * USUAL) ** 2
        )  # so much is it worth that strokes are seldom so sharp
        inverse = np.linalg.inv(np.linalg.inv(inverse) + usual[:, None, None] * np.diag([0.0, 0.0, 1.0]))
        solved = (inverse @ (np.swapaxes(columns, 1, 2) @ wanted)[..., None])[..., 0]
        settled = np.maximum(self.hz + solved[:, 1] / (2 * np.pi), 1.0)
        spread = off * math.sqrt(self.share)
        k = solved[:, 2] / (2 * np.pi * settled)
        sigma = spread * np.sqrt(inverse[:, 2, 2]) / (2 * np.pi * settled)
        settled_sigma = spread * np.sqrt(inverse[:, 1, 1]) / (2 * np.pi)
        return [
            _Followed(*(float(each) for each in one)) for one in zip(k, sigma, off, settled, settled_sigma, strict=True)
        ]


def _spectrum(x: Array, rate: float) -> NDArray[np.complex128]:
    return np.fft.fft(x, next_fast_len(len(x) + int(3 * rate / (2 * np.pi * BAND_HZ))))


def follow_glide(x: Array, rate: float, peaks: Sequence[float]) -> Glide:
    """Follow the strongest partials from the stroke on; all are sharp by the same ratio at the same moment. `x` begins at the stroke.

    Tension is taken to go with the energy of one of the partials, of all of them, or to die away evenly: whichever explains their phases best. Their glide is
    believed as far as they agree on it.
    """
    spectrum = _spectrum(x, rate)
    slow = [_slow(spectrum, rate, len(x), hz) for hz in peaks[:FOLLOW]]
    phases = [_Phase(each, hz) for each, hz in zip(slow, peaks, strict=False)]
    slow_rate = slow[0].rate
    t = np.arange(len(slow[0].a)) / slow_rate
    powers = [each.power for each in slow]
    courses = [
        *powers,
        *([np.sum(powers, axis=0)] if len(powers) > 1 else []),
        *(np.exp(-2 * rate_ * t) for rate_ in DIES),
    ]
    tensions = [_Tension.of(course, slow_rate) for course in courses]
    told = list(zip(*(phase.under(tensions) for phase in phases), strict=True))
    loud = np.array([phase.top for phase in phases]) ** 0.5
    off = np.array([[each.off for each in of] for of in told])
    badness = (np.log(off) * (loud / loud.sum())).sum(axis=1)
    best = int(np.argmin(badness))
    k, doubt = _agreed(told[best])
    course = np.interp(np.arange(len(x)) / rate, t, tensions[best].course)
    sharp = np.clip(k * course, 0.0, MOST) if k > 0 else np.zeros(len(x))
    first = int(FIRST_S * rate)
    return Glide(sharp, cents_of(1 + float(sharp[first:].max(initial=0.0))), 1731 * doubt)


def _agreed(told: Sequence[_Followed]) -> tuple[float, float]:
    """Sharpness, and its error: the mean of those that agree with the surest; one that stands alone is believed."""
    sure = min(told, key=lambda each: each.sigma)
    alike = [each for each in told if abs(each.k - sure.k) < AGREE * math.hypot(each.sigma, sure.sigma) + AGREE_LEAST]
    weights = [1 / (each.sigma**2 + LEAST_SIGMA**2) for each in alike]
    k = sum(weight * each.k for weight, each in zip(weights, alike, strict=True)) / sum(weights)
    doubt = 1 / math.sqrt(sum(weights))
    return (k, doubt) if len(alike) > 1 or len(told) == 1 else (k, max(doubt, abs(k) / 2))


def settle(x: Array, rate: float, hz: float) -> tuple[float, float]:
    """Where a partial that stands alone settles, and the error of that, in hertz: a second look once the tap has been unbent."""
    slow = _slow(_spectrum(x, rate), rate, len(x), hz)
    (told,) = _Phase(slow, hz).under([_Tension.of(slow.power, slow.rate)])
    return told.settled_hz, told.settled_sigma_hz


def unbend(x: Array, glide: Glide) -> Array:
    """The tap as it would have sounded, had it been soft: every partial at the pitch it settles to."""
    if not glide.sharp.any():
        return x
    elapsed = np.concatenate([[0.0], np.cumsum(1 + glide.sharp[:-1])])
    even = np.arange(len(x))
    return np.asarray(CubicSpline(elapsed, x)(even[even <= elapsed[-1]]))
