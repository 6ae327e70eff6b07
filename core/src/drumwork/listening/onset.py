"""Where a tap begins, how long it rings above the room, and whether there was a second one."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np
from numpy.typing import NDArray
from scipy.signal import butter, sosfilt

__all__ = ["Ring", "find_ring", "find_taps", "loudest_stroke"]

Array = NDArray[np.float64]

FRAME_S: Final = 0.005
SMOOTH_FRAMES: Final = 4
EARLY_FRAMES: Final = 8
START_DB: Final = 20.0  # below the peak: where the stroke begins
OVER_ROOM_DB: Final = 6.0
DEEP_DB: Final = 55.0
SECOND_AFTER_S: Final = 0.045
SECOND_RISE_DB: Final = 9.0
SECOND_LEVEL_DB: Final = -20.0
SECOND_OVER_ROOM_DB: Final = 12.0
STROKE_FRAMES: Final = 2
STILL_DB: Final = 12.0  # over the room: it rang on
STROKE_WITHIN_DB: Final = 12.0
TAP_OVER_ROOM_DB: Final = 10.0
TAP_WITHIN_DB: Final = 34.0  # of the loudest stroke


@dataclass(frozen=True, slots=True)
class Ring:
    """One tap in a recording: times in seconds from its start.

    `attack_s` is how long it took to its loudest: long also where a split pair beats. `early_db` and `early_high_db` tell a stroke from what swells:
    the loudest of its first 40 ms against the loudest of all, and against the loudest after 60 ms, of the whole and of its high part. `elsewhere_db`
    is the loudest moment outside of it, `again_s` when other strokes fell into the ring; `rise_db` how far the stroke rose from what was before.
    """

    onset_s: float
    end_s: float
    peak_db: float
    room_db: float
    rise_db: float
    attack_s: float
    early_db: float
    early_high_db: float
    elsewhere_db: float
    again_s: tuple[float, ...]


def _frame(rate: float) -> int:
    """Samples in a frame: about five milliseconds, whole."""
    return max(1, int(FRAME_S * rate))


def _levels(x: Array, rate: float) -> Array:
    size = _frame(rate)
    count = len(x) // size
    frames = x[: count * size].reshape(count, size)
    return np.asarray(10 * np.log10((frames**2).mean(axis=1) + 1e-14))


def _smooth(levels: Array) -> Array:
    power = 10 ** (levels / 10)
    kernel = np.ones(SMOOTH_FRAMES) / SMOOTH_FRAMES
    return np.asarray(10 * np.log10(np.convolve(power, kernel, "same") + 1e-14))


def _stroke_levels(x: Array, rate: float) -> Array:
    """Levels of what a stroke has and a ring soon loses: its high part."""
    return _levels(np.asarray(sosfilt(_high_part(rate), x)), rate)


@cache
def _high_part(rate: float) -> Array:
    return np.asarray(butter(2, 0.25 * rate / 2 * 1.4, "highpass", fs=rate, output="sos"))


def _rises(high: Array) -> tuple[Array, Array]:
    """At each frame: the level of the three frames from it on, and how far that is over the four before; both in decibels."""
    power = np.concatenate([[0.0], np.cumsum(10 ** (high / 10))])
    count = len(high)
    frames = np.arange(count)
    after = (power[np.minimum(frames + 3, count)] - power[frames]) / np.maximum(1, np.minimum(3, count - frames))
    start = np.maximum(frames - 4, 0)
    before = (power[frames] - power[start]) / np.maximum(1, frames - start)
    level = 10 * np.log10(after + 1e-14)
    return level, level - 10 * np.log10(before + 1e-14)


def _again(high: Array, rate: float, onset: int, end: int) -> tuple[float, ...]:
    """Steep rises of the high part within the ring, each once."""
    level, rise = _rises(high)
    first = level[onset : onset + 5].max(initial=-140.0)
    quiet = [
        high[-max(8, len(high) // 5) :],
        *([high[:onset]] if onset >= 8 else []),
    ]  # a short recording ends in the ring
    room = min(float(np.median(each)) for each in quiet)
    begin = onset + int(SECOND_AFTER_S * rate / _frame(rate))
    least = max(first + SECOND_LEVEL_DB, room + SECOND_OVER_ROOM_DB)
    steep = begin + np.flatnonzero((level[begin:end] > least) & (rise[begin:end] > SECOND_RISE_DB))
    firsts = steep[np.diff(steep, prepend=-9) > 1]
    return tuple(float(frame * _frame(rate) / rate) for frame in firsts)


def _first_of(levels: Array, onset: int, stroke: int) -> int:
    """The frame of the stroke: earlier than where the loudest begins, when the sound never fell to the room between. Slow beats, and a bounce louder
    than the stroke, come late."""
    if not STROKE_FRAMES <= stroke < onset - STROKE_FRAMES:
        return onset
    room = float(np.median(levels[max(0, stroke - 20) : stroke]))
    return stroke if _smooth(levels)[stroke + STROKE_FRAMES : onset].min() > room + STILL_DB else onset


def find_ring(x: Array, rate: float) -> Ring | None:
    """The loudest tap of a recording, or None when there is nothing."""
    levels, frame_s = _levels(x, rate), _frame(rate) / rate
    if len(levels) < 8:
        return None
    top = int(np.argmax(levels))
    peak = float(levels[top])
    before = np.flatnonzero(levels[: top + 1] < peak - START_DB)
    onset = int(before[-1]) + 1 if len(before) else 0
    smooth, high = _smooth(levels), _stroke_levels(x, rate)
    onset = _first_of(levels, onset, _steepest(high))
    room = float(np.percentile(levels[:onset], 60)) if onset >= 6 else float(np.percentile(levels, 5))
    floor = max(room + OVER_ROOM_DB, peak - DEEP_DB)
    over = np.flatnonzero(smooth[top:] < floor)
    end = top + int(over[0]) if len(over) else len(levels)
    rise = peak - float(np.median(levels[max(0, onset - 20) : onset])) if onset >= 2 else 60.0
    outside = np.concatenate([levels[: max(0, onset - 6)], levels[end + 10 :]])
    return Ring(
        onset_s=onset * frame_s,
        end_s=end * frame_s,
        peak_db=peak,
        room_db=room,
        rise_db=rise,
        attack_s=(top - onset) * frame_s,
        early_db=float(smooth[onset : onset + EARLY_FRAMES].max(initial=-140.0)) - float(smooth.max()),
        early_high_db=float(
            high[max(0, onset - 3) : onset + 5].max(initial=-140.0) - high[onset + 9 : end].max(initial=-140.0)
        ),
        elsewhere_db=float(outside.max(initial=-140.0)),
        again_s=_again(high, rate, onset, end),
    )


def loudest_stroke(x: Array, rate: float) -> int:
    """The sample near which the high part rises most steeply to something loud: a stroke, whatever hums beneath it."""
    return _steepest(_stroke_levels(x, rate)) * _frame(rate)


def _steepest(high: Array) -> int:
    """The frame of it."""
    if len(high) < 8:
        return 0
    level, rise = _rises(high)
    loud = level > level.max() - STROKE_WITHIN_DB
    loud[:4] = False  # nothing was before them to rise from
    return int(np.argmax(np.where(loud, rise, -np.inf)))


def find_taps(x: Array, rate: float, least_apart_s: float = 0.25) -> list[float]:
    """Times of all strokes in a recording with several taps, by the rise of their high part over the room and the ring before."""
    high = _stroke_levels(x, rate)
    if len(high) < 20:
        return []
    level, rise = _rises(high)
    threshold = max(float(np.percentile(high, 20)) + TAP_OVER_ROOM_DB, float(level.max()) - TAP_WITHIN_DB)
    found: list[float] = []
    frame_s = _frame(rate) / rate
    for frame in np.flatnonzero((level > threshold) & (rise > SECOND_RISE_DB)):
        if not found or frame * frame_s - found[-1] > least_apart_s:
            found.append(float(frame * frame_s))
    return found
