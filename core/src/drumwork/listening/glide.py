"""A hard tap starts sharp and glides down: tension rises with the square of amplitude, and all partials with it by the same ratio.

Once the glide is undone the ring is nothing but damped sinusoids standing still, few to a band; before, each of them is smeared over many. So the glide is
looked for that leaves the least needed to explain the bands about the strongest partials, all of them at once: a split pair that beats, whose phase wanders by
itself, is as tidy as a lone partial. Time is then bent by as much, so that every partial of the tap stands still at the pitch it settles to.

References
----------
The rank of a Hankel matrix of samples is the number of damped sinusoids they hold (Kronecker's theorem); its smooth stand-in is the logarithm of the determinant:
M. Fazel, H. Hindi & S. Boyd, “Log-det heuristic for matrix rank minimization”, Proc. American Control Conference (2003), from memory. Energy of a film dying at one rate
lets its tension die at twice the rate of its amplitude (Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 5, from memory).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray
from scipy.fft import fft, ifft, next_fast_len
from scipy.ndimage import map_coordinates

from drumwork.quantities import cents_of

__all__ = ["Glide", "follow_glide", "unbend"]

Array = NDArray[np.float64]
Complex = NDArray[np.complex128]

# What is looked at.
FOLLOW: Final = 3
FLAT_HZ: Final = 18.0
RAMP_HZ: Final = 12.0
"""To either side of a partial, and over how much more it is faded out."""
EDGE_S: Final = 0.06  # what a band's filter bends at either end
FIRST_S: Final = 0.016  # the click of the stroke is over
FROM_S: Final = 0.02
SPAN_S: Final = 1.0
END_S: Final = 0.01
LEAST_POINTS: Final = 14
LEAST_S: Final = 0.19
EVENED: Final = 0.8
"""Of a band's dying away, how much is made up for: what rings last tells most of where it settles."""
LEAST_SOUND: Final = 1e-15

# What counts as untidy.
WINDOW: Final = 8
"""Samples of a Hankel row: more tell finer differences of pitch apart and take longer."""
FAINT: Final = 1e-4
"""Of a band's energy: what lies below needs no explaining."""
USUAL: Final = 0.05  # of pitch: what strokes are sharp by
USUAL_WEIGHS: Final = 0.1
SLOWER_WEIGHS: Final = 0.1
"""Sharpness that dies more slowly than the sound itself would be another pitch, and could not be told from it."""
SLOWEST: Final = 0.5  # 1/s

# What is tried.
MOST: Final = 0.20  # a stroke this far sharp (over 300 cents) is beyond what drums do
HARDEST: Final = 0.25
DIES: Final = (1.5, 3.0, 5.5, 9.0, 15.0, 25.0)  # 1/s, an amplitude's
DIES_RANGE: Final = (1.0, 40.0)
CYCLES: Final = 0.8
"""How far apart glides may be tried: what they turn the highest partial by, from first to last, differs by no more."""
FEWEST: Final = 3
MOST_TRIED: Final = 45
SOFT: Final = (0.1, 0.35)  # of the first step, glides tried below it
STARTS: Final = 2
ROUNDS: Final = 4
CLOSER: Final = 0.45
FIRST_STEP: Final = (0.5, 0.3)  # of what lay between glides tried; log of the rate
WITHIN: Final = 1.2  # steps, in which a parabola is believed

# How sure it is.
SURE: Final = 6.0
LATE_S: Final = 0.1
"""A glide is told from another by how sharp it leaves the ring then; how sure that is falls off by e for so much less tidiness (our own figure)."""


@dataclass(frozen=True, slots=True)
class Glide:
    """How far, as a ratio, the tap was sharp at each sample (n,); the most of it in cents once the click of the stroke is over, and how surely
    that is known, in cents."""

    sharp: Array
    cents: float
    doubt_cents: float


@dataclass(frozen=True, slots=True)
class _Bands:
    """Bands of a ring at standstill, at a slow rate: (b, n) samples, their dying away evened out, (n,) their seconds from the stroke; (b,) the middle of each in
    hertz, and at what rate its amplitude dies; (b, n) share of its energy at each moment."""

    samples: NDArray[np.complex64]
    t: Array
    hz: Array
    dies: Array
    energy: Array

    @classmethod
    def about(cls, peaks: Sequence[float], x: Array, rate: float, until_s: float) -> _Bands:
        size = next_fast_len(len(x) + int(EDGE_S * rate))
        step = rate / size
        half = int((FLAT_HZ + RAMP_HZ) / step)
        offsets = np.arange(-half, half)
        fade = np.clip((FLAT_HZ + RAMP_HZ - np.abs(offsets * step)) / RAMP_HZ, 0, 1)
        fade = fade**2 * (3 - 2 * fade)
        places = np.round(np.asarray(peaks) / step).astype(int)
        cut = fft(x, size)[(places[:, None] + offsets) % size] * fade
        slow = ifft(np.fft.ifftshift(cut, axes=1), axis=1)
        t = np.arange(2 * half) / (2 * half * step)
        used = (t > FROM_S) & (t < min(until_s - END_S, FROM_S + SPAN_S))
        if used.sum() < LEAST_POINTS:
            used = (t > FIRST_S) & (t < max(until_s, LEAST_S))
        slow, t = slow[:, used] + LEAST_SOUND, t[used]
        middle = len(t) // 2
        early, late = ((np.abs(part) ** 2).sum(axis=1) for part in (slow[:, :middle], slow[:, middle:]))
        dies = np.log(early / late).clip(0) / t[middle]
        even = slow * np.exp(EVENED * dies[:, None] * t)
        power = np.abs(even) ** 2
        rows = sliding_window_view(power, min(WINDOW, len(t) // 2), axis=1).sum(axis=(1, 2))
        return cls(even / np.sqrt(rows)[:, None], t, places * step, dies, power / power.sum(axis=1, keepdims=True))

    def ahead_s(self, dies: Array) -> Array:
        """What a glide dying so gains on the tap's settled time by the last sample, in seconds per unit of sharpness at the stroke."""
        return np.asarray((1 - np.exp(-2 * dies * self.t[-1])) / (2 * dies))

    def untidy(self, sharp: Array, dies: Array) -> Array:
        """(n,) how much is needed to explain all bands once a glide (n,) so sharp, dying so, is undone; in nats, less is better."""
        fallen = np.exp(-2 * dies[:, None] * self.t)
        gone = sharp[:, None] * (1 - fallen) / (2 * dies[:, None])
        seen = 1 + sharp * (self.energy @ fallen.T)  # (b, n): peaks lie as high
        turn = (2 * np.pi * (self.hz[:, None] / seen))[..., None].astype(np.float32) * gone.astype(np.float32)
        still = np.empty(turn.shape, dtype=np.complex64)
        still.real, still.imag = np.cos(turn), -np.sin(turn)
        still *= self.samples[:, None, :]
        rows = np.ascontiguousarray(sliding_window_view(still, min(WINDOW, len(self.t) // 2), axis=-1))
        diagonal = np.arange(rows.shape[-1])
        grams = np.swapaxes(rows.conj(), -1, -2) @ rows
        grams[..., diagonal, diagonal] += np.float32(FAINT)
        needed = 2 * np.log(np.linalg.cholesky(grams)[..., diagonal, diagonal].real).sum(axis=(0, -1))
        slower = np.log(max(float(self.dies.min()), SLOWEST) / dies).clip(0)
        return np.asarray(needed + USUAL_WEIGHS * (sharp / USUAL) ** 2 / 2 + SLOWER_WEIGHS * slower**2)


GRID: Final = np.array([(a, b) for a in (-1.0, 0.0, 1.0) for b in (-1.0, 0.0, 1.0)])
PARABOLA: Final = np.linalg.pinv(
    np.stack([np.ones(9), GRID[:, 0], GRID[:, 1], GRID[:, 0] ** 2, GRID[:, 0] * GRID[:, 1], GRID[:, 1] ** 2], axis=1)
)


def _lowest(untidy: Array) -> Array:
    """(2,) the lowest place of a parabola through a grid of three by three, in its steps; the lowest of the nine where it has none near."""
    _, a, b, aa, ab, bb = (float(each) for each in PARABOLA @ untidy)
    bent = 4 * aa * bb - ab**2
    if aa > 0 and bent > 0:
        place = np.array([ab * b - 2 * bb * a, ab * a - 2 * aa * b]) / bent
        if np.abs(place).max() <= WITHIN:
            return np.asarray(place)
    return np.asarray(GRID[int(np.argmin(untidy))])


@dataclass(slots=True)
class _Tried:
    """Every glide that was tried: sharpness at the stroke, rate at which amplitude dies, how untidy it leaves the bands."""

    bands: _Bands
    sharp: list[Array]
    dies: list[Array]
    untidy: list[Array]

    def of(self, sharp: Array, dies: Array) -> Array:
        found = self.bands.untidy(sharp, dies)
        self.sharp.append(sharp)
        self.dies.append(dies)
        self.untidy.append(found)
        return found


def _searched(bands: _Bands) -> tuple[Array, Array, Array]:
    """(n,) sharpness, rate and untidiness of the glides tried: a net over all of them, then closer and closer about the best. Both go by what a glide gains
    in all, which is known better than how sharp it began."""
    tried = _Tried(bands, [], [], [])
    ahead = bands.ahead_s(np.array(DIES))
    counts = np.ceil(MOST * ahead * bands.hz.max() / CYCLES).clip(FEWEST, MOST_TRIED).astype(int)
    sharp = np.concatenate([np.concatenate([SOFT, np.arange(1, count + 1)]) * MOST / count for count in counts])
    dies, step = (np.repeat(each, counts + len(SOFT)) for each in (DIES, MOST * ahead / counts))
    best = np.argsort(tried.of(sharp, dies))[:STARTS]
    middles = np.stack([sharp[best] * bands.ahead_s(dies[best]), np.log(dies[best])], axis=1)
    apart = np.stack([step[best] * FIRST_STEP[0], np.full(len(best), FIRST_STEP[1])], axis=1)

    def glides(places: Array) -> tuple[Array, Array]:
        rate = np.exp(places[..., 1].clip(*np.log(DIES_RANGE))).ravel()
        return (places[..., 0].ravel() / bands.ahead_s(rate)).clip(-HARDEST, HARDEST), rate

    for _ in range(ROUNDS):
        found = tried.of(*glides(middles[:, None] + GRID * apart[:, None])).reshape(len(best), -1)
        moved = np.array([_lowest(each) for each in found])
        middles = middles + moved * apart
        apart = np.where(np.abs(moved) < 1, CLOSER, 1.0) * apart
    tried.of(*glides(np.concatenate([middles, middles[:1] * [[0, 1]]])))  # and no glide at all
    return np.concatenate(tried.sharp), np.concatenate(tried.dies), np.concatenate(tried.untidy)


def follow_glide(x: Array, rate: float, peaks: Sequence[float], until_s: float) -> Glide:
    """How sharp the tap was from the stroke on, by the strongest partials.

    Parameters
    ----------
    x : (n,) the ring from the stroke on
    rate : samples a second
    peaks : about where the strongest partials lie, in hertz, strongest first
    until_s : how long it rings above the room
    """
    sharp, dies, untidy = _searched(_Bands.about(peaks[:FOLLOW], x, rate, until_s))
    sharp = sharp.clip(0)
    best = int(np.argmin(untidy))
    course = sharp[best] * np.exp(-2 * dies[best] * np.arange(len(x)) / rate)
    late = sharp * np.exp(-2 * dies * LATE_S)
    likely = np.exp(-SURE * (untidy - untidy[best]))
    off = np.average(late, weights=likely)
    doubt = math.sqrt(float(np.average((late - off) ** 2, weights=likely)))
    first = course[min(int(FIRST_S * rate), len(course) - 1)]
    return Glide(course, cents_of(1 + float(first)), cents_of(1 + doubt))


def unbend(x: Array, glide: Glide) -> Array:
    """The tap as it would have sounded, had it been soft: every partial at the pitch it settles to."""
    if not glide.sharp.any():
        return x
    elapsed = np.concatenate([[0.0], np.cumsum((glide.sharp[1:] + glide.sharp[:-1]) / 2 + 1)])
    even = np.arange(len(x))
    return np.asarray(map_coordinates(x, np.interp(even, elapsed, even)[None], order=3, mode="nearest"))
