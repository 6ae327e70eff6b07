"""From samples as they were recorded to one channel at a rate where a drum's low partials are cheap to look at."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, firwin, resample_poly, sosfiltfilt

from drumwork.errors import BadQuantity

__all__ = ["Heard", "prepare"]

Array = NDArray[np.float64]

LOWEST_RATE: Final = 8_000
HIGHEST_RATE: Final = 192_000
WORKING_RATE: Final = 4_800  # partials up to about two kilohertz
FIR_HALF: Final = 6  # of the length in working samples; what lies above is a click that a drum’s partials outlast
FIR_BETA: Final = 5.0
RUMBLE_HZ: Final = 28.0
NEAR_PEAK: Final = 0.97
FLAT: Final = 2e-5  # of the peak: smaller steps in a row, so near it, are a rail
RAIL_RUN: Final = 4  # samples in a row
LOUD: Final = 0.25
BUZZ_HZ: Final = (2500.0, 9000.0)
RING_BELOW_HZ: Final = 1500.0
BUZZ_S: Final = ((0.05, 0.10), (0.10, 0.20))
BUZZ_OVER_ROOM_DB: Final = 10.0
BEFORE_STROKE_S: Final = 0.02
ROOM_S: Final = 0.1


@dataclass(frozen=True, slots=True)
class Heard:
    """One channel at a working rate.

    Attributes
    ----------
    x : (n,) samples without rumble
    rate : samples a second
    peak : largest sample as recorded, 1 is full scale
    rails_s : times, in seconds, at which the recording hit its rails
    rumble_db : what was taken off below the lowest drum, against what is left
    buzz_db : what rattles on above the drum's own partials after the stroke, against the ring; -inf where the room is as loud
    """

    x: Array
    rate: float
    peak: float
    rails_s: Array
    rumble_db: float
    buzz_db: float


def _one_channel(samples: Array) -> Array:
    if samples.ndim == 1:
        return samples
    each = samples - samples.mean(axis=0)
    power = (each**2).sum(axis=0)
    together = each.mean(axis=1)
    # Channels that cancel each other are not mixed: the louder is taken.
    return np.asarray(together if (together**2).sum() >= 0.4 * power.max() else each[:, int(np.argmax(power))])


def _rails(raw: Array, rate: int) -> Array:
    """Seconds at which some channel stands flat at its largest."""
    found = []
    for channel in raw.T:
        loud = np.abs(channel)
        peak = float(loud.max())
        near = np.flatnonzero(loud > NEAR_PEAK * peak) if peak > LOUD else np.array([], dtype=np.intp)
        near = near[near > 0]
        still = near[np.abs(channel[near] - channel[near - 1]) < FLAT * peak]
        run = RAIL_RUN - 1
        if len(still) >= run:
            found.append(still[run - 1 :][still[run - 1 :] - still[: len(still) - run + 1] == run - 1] - run // 2 - 1)
    return np.unique(np.concatenate(found)) / rate if found else np.array([])


def _band_db(x: Array, rate: int, from_hz: float, to_hz: float) -> float:
    """Mean level of a band."""
    if len(x) < 8:
        return -150.0
    power = np.abs(np.fft.rfft(x * np.hanning(len(x)))) ** 2
    hz = np.fft.rfftfreq(len(x), 1 / rate)
    inside = power[(hz >= from_hz) & (hz <= to_hz)]
    return float(10 * np.log10(inside.sum() / len(x) ** 2 + 1e-15))


def _buzz(one: Array, rate: int) -> float:
    """Snare wires rattle on where a film has long fallen still: the least of two spans after the stroke."""
    top, size = int(np.argmax(np.abs(one))), int(ROOM_S * rate)
    until = max(0, top - int(BEFORE_STROKE_S * rate))
    room = _band_db(one[max(0, until - size) : until], rate, *BUZZ_HZ)
    spans = [one[top + int(a * rate) : top + int(b * rate)] for a, b in BUZZ_S]
    high = [_band_db(span, rate, *BUZZ_HZ) for span in spans]
    if min(high) < room + BUZZ_OVER_ROOM_DB:
        return -math.inf
    return min(h - _band_db(span, rate, RUMBLE_HZ, RING_BELOW_HZ) for h, span in zip(high, spans, strict=True))


@cache
def _anti_alias(down: int) -> Array:
    return np.asarray(firwin(2 * FIR_HALF * down + 1, 1 / down, window=("kaiser", FIR_BETA)))


@cache
def _no_rumble(rate: float) -> Array:
    return np.asarray(butter(2, RUMBLE_HZ, "highpass", fs=rate, output="sos"))


def prepare(samples: NDArray[np.floating], rate: int) -> Heard:
    """Mix, take off rumble, bring to the working rate.

    Parameters
    ----------
    samples : (n,) or (n, channels), full scale is 1
    rate : 8 000 to 192 000 samples a second

    Raises
    ------
    BadQuantity
        for another rate, or samples that are not finite.
    """
    if not LOWEST_RATE <= rate <= HIGHEST_RATE:
        raise BadQuantity(f"Sound is taken at {LOWEST_RATE} to {HIGHEST_RATE} samples a second.", rate=rate)
    raw = np.asarray(samples, dtype=np.float64)
    if raw.size == 0 or not np.isfinite(raw).all():
        raise BadQuantity("The sound is empty or damaged.")
    one = _one_channel(raw)
    peak = float(np.abs(one).max())
    rails = _rails(raw if raw.ndim == 2 else raw[:, None], rate)
    down = max(1, int(rate // WORKING_RATE))
    low = resample_poly(one - one.mean(), 1, down, window=_anti_alias(down)) if down > 1 else one - one.mean()
    working = rate / down
    still = sosfiltfilt(_no_rumble(working), low) if len(low) > 30 else low
    taken, left = float(((low - still) ** 2).sum()), float((still**2).sum())
    return Heard(
        np.asarray(still), working, peak, rails, 10 * np.log10((taken + 1e-15) / (left + 1e-15)), _buzz(one, rate)
    )
