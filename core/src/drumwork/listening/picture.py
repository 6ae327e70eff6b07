"""What one tap looked like: how loud it rang, and how its pitch settled. For people to look at; nothing is read from it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.fft import next_fast_len
from scipy.ndimage import maximum_filter1d

from drumwork.listening.prepare import prepare
from drumwork.quantities import Interval

__all__ = ["TapPicture", "picture_of"]

Array = NDArray[np.float64]

STEP_S: Final = 0.02
LONGEST_S: Final = 1.2
BAND_HZ: Final = 16.0
FAINT_DB: Final = 34.0  # a partial this far under its loudest says nothing of its pitch any more
BEAT_DB: Final = 9.0  # where two partials of a split pair cancel, neither's pitch can be told
BEAT_FRAMES: Final = 9
FIRST_S: Final = 0.02
DEEPEST_DB: Final = -60.0


@dataclass(frozen=True, slots=True)
class TapPicture:
    """One tap over time, every `step_s` from the stroke on.

    Attributes
    ----------
    ring_db : level of the whole sound against its loudest
    cents : pitch of the partial that was read against where it settled; None where it is too faint to tell
    """

    step_s: float
    ring_db: tuple[float, ...]
    cents: tuple[float | None, ...]


def _every(x: Array, step: int) -> Array:
    count = len(x) // step
    return np.asarray(x[: count * step].reshape(count, step).mean(axis=1))


def _envelope(x: Array, rate: float, hz: float) -> NDArray[np.complex128]:
    """(n,) the partial near `hz` turned down to standstill, and what lies further off than the band taken away."""
    size = next_fast_len(len(x) + int(3 * rate / (2 * np.pi * BAND_HZ)))
    turned = np.fft.fft(x * np.exp(-2j * np.pi * hz * np.arange(len(x)) / rate), size)
    band = np.exp(-0.5 * (np.fft.fftfreq(size, 1 / rate) / BAND_HZ) ** 2)
    return np.asarray(np.fft.ifft(turned * band)[: len(x)])


def picture_of(samples: NDArray[np.floating], rate: int, onset_s: float, settled_hz: float | None) -> TapPicture:
    """The picture of a tap that was read; without a pitch, its ring alone.

    Parameters
    ----------
    samples : (n,) or (n, channels), full scale 1
    onset_s : when the stroke falls, as `listen_to_tap` says
    """
    heard = prepare(samples, rate)
    ring = heard.x[int(onset_s * heard.rate) :][: int(LONGEST_S * heard.rate)]
    step = max(1, int(STEP_S * heard.rate))
    level = 10 * np.log10(_every(ring**2, step) + 1e-14)
    ring_db = tuple(round(float(max(each - level.max(initial=-140.0), DEEPEST_DB)), 1) for each in level)
    cents = _course(ring, heard.rate, settled_hz, step) if settled_hz else (None,) * len(ring_db)
    return TapPicture(step / heard.rate, ring_db, cents)


def _course(ring: Array, rate: float, settled_hz: float, step: int) -> tuple[float | None, ...]:
    turning = _envelope(ring, rate, settled_hz)
    off = np.gradient(np.unwrap(np.angle(turning))) * rate / (2 * np.pi)
    power = np.abs(turning) ** 2
    means, weights = _every(off * power, step), _every(power, step)
    most = float(weights.max(initial=1e-30))
    around = maximum_filter1d(weights, BEAT_FRAMES)
    return tuple(
        round(float(Interval.from_ratio(max(0.5, 1 + mean / weight / settled_hz)).cents), 1)
        if weight > max(most * 10 ** (-FAINT_DB / 10), around[place] * 10 ** (-BEAT_DB / 10))
        and place * step >= FIRST_S * rate
        else None
        for place, (mean, weight) in enumerate(zip(means, weights, strict=True))
    )
