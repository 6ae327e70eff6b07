"""A hard tap starts sharp and glides down: tension rises with the square of amplitude, and all partials with it.

The strongest partial is followed: its frequency against its squared envelope gives how far the tap was from small amplitude. Time is then
bent by as much, so that every partial of the same tap stands still at the pitch it settles to.
"""

from __future__ import annotations

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
FOLLOW: Final = 1
STRIDE: Final = 3


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
class _Followed:
    """One partial's say: sharpness per unit of tension, its error, and what it weighs."""

    k: float
    sigma: float
    weight: float
    settled_hz: float
    settled_sigma_hz: float


@dataclass(frozen=True, slots=True)
class _Tension:
    """A course of tension after the stroke, 1 at its most, and its integral over time; both (n,)."""

    course: Array
    bent: Array

    @classmethod
    def of(cls, power: Array, rate: float) -> _Tension:
        first = int(FIRST_S * rate)
        course = power / (power[first : first + int(0.25 * rate)].max(initial=1e-30) + 1e-30)
        return cls(course, np.concatenate([[0.0], np.cumsum(course[:-1])]) / rate)


def _follow(a: NDArray[np.complex128], rate: float, hz: float, tension: _Tension) -> _Followed:
    """A partial near `hz`, at standstill: its phase against time and against the tension gone by."""
    power = np.abs(a) ** 2
    first = int(FIRST_S * rate)
    top = first + int(np.argmax(power[first : first + int(0.25 * rate)]))
    faint = np.flatnonzero(power[top:] < FAINT * power[top])
    end = max(top + int(faint[0]) if len(faint) else len(power), first + LEAST_POINTS)
    used = slice(first, end, STRIDE)
    phase = np.unwrap(np.angle(a[used]))
    t = np.arange(len(a))[used] / rate
    # Where the partial is well above what disturbs it, every moment counts alike: the settling end tells most of where it settles.
    weight = np.sqrt(np.minimum(1.0, power[used] / (LOUD_ENOUGH * power[top] + 1e-30)))
    columns = np.stack([np.ones_like(t), t, tension.bent[used]], axis=1) * weight[:, None]
    normal = columns.T @ columns + 1e-9 * np.eye(3)
    solved = np.linalg.solve(normal, columns.T @ (phase * weight))
    spread = float(np.sqrt(((columns @ solved - phase * weight) ** 2).mean())) + 1e-3
    settled = max(hz + solved[1] / (2 * np.pi), 1.0)
    sigma = spread * float(np.sqrt(np.linalg.inv(normal)[2, 2])) / (2 * np.pi * settled)
    settled_sigma = spread * float(np.sqrt(np.linalg.inv(normal)[1, 1])) / (2 * np.pi)
    return _Followed(
        float(solved[2] / (2 * np.pi * settled)), sigma, float(power[top]) / spread**2, float(settled), settled_sigma
    )


def follow_glide(x: Array, rate: float, peaks: Sequence[float]) -> Glide:
    """Follow the strongest partials from the stroke on; all are sharp by the same ratio at the same moment. `x` begins at the stroke.

    Tension is taken to go with the energy of the whole, or with that of the strongest partial: whichever explains its phase better.
    """
    followed = [envelope_of(x, rate, hz) for hz in peaks[:FOLLOW]]
    courses = [_Tension.of(np.abs(a) ** 2, rate) for a in followed]
    told = [_follow(a, rate, hz, course) for a, hz, course in zip(followed, peaks, courses, strict=False)]
    best = max(range(len(told)), key=lambda n: told[n].weight)
    k, doubt = told[best].k, told[best].sigma
    sharp = np.clip(k * courses[best].course, 0.0, MOST) if k > 0 else np.zeros(len(x))
    first = int(FIRST_S * rate)
    return Glide(sharp, cents_of(1 + float(sharp[first:].max(initial=0.0))), 1731 * doubt)


def settle(x: Array, rate: float, hz: float) -> tuple[float, float]:
    """Where a partial that stands alone settles, and the error of that, in hertz: a second look once the tap has been unbent."""
    a = envelope_of(x, rate, hz)
    told = _follow(a, rate, hz, _Tension.of(np.abs(a) ** 2, rate))
    return told.settled_hz, told.settled_sigma_hz


def unbend(x: Array, glide: Glide) -> Array:
    """The tap as it would have sounded, had it been soft: every partial at the pitch it settles to."""
    if not glide.sharp.any():
        return x
    elapsed = np.concatenate([[0.0], np.cumsum(1 + glide.sharp[:-1])])
    even = np.arange(len(x))
    return np.asarray(CubicSpline(elapsed, x)(even[even <= elapsed[-1]]))
