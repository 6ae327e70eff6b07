"""One tap, from its samples to a reading."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.choose import Ask, Candidate, choose_partial
from drumwork.listening.context import TapContext, Where
from drumwork.listening.glide import follow_glide, unbend
from drumwork.listening.hum import without_hum
from drumwork.listening.onset import find_ring, loudest_stroke
from drumwork.listening.partials import Partial, find_partials
from drumwork.listening.prepare import Heard, prepare
from drumwork.listening.verdict import (
    TOGETHER,
    TWO_HITS,
    alike,
    clear_from,
    doubts_of,
    heads_together,
    other_head,
    refusal_of_ring,
    refusal_of_sound,
)
from drumwork.quantities import cents_of

__all__ = ["Status", "TapReading", "listen_to_tap"]

Array = NDArray[np.float64]

LONGEST_S: Final = 1.6
ROUGH_FROM_S: Final = 0.05
LEAST_SIGMA_CENTS: Final = 0.3
FOLLOWED: Final = 3
FOLLOWED_LEAST: Final = 0.12  # of the strongest
FOLLOWED_APART_HZ: Final = 24.0
GLIDE_SHARE: Final = 0.03  # of the glide, what following it may miss
GLIDE_LEFT: Final = 0.1  # of the stroke's error in sharpness, what is left in the ring that is read


class Status(StrEnum):
    """Accepted, kept but doubted, or refused."""

    OK = "ok"
    FLAG = "flag"
    REFUSE = "refuse"


@dataclass(frozen=True, slots=True)
class TapReading:
    """What one tap said.

    Attributes
    ----------
    hz : the pitch it settles to at small amplitude; None when refused
    cents_sigma : one standard deviation of it
    partials : the family, strongest first
    strength_db : level of the stroke against full scale
    glide_cents : how far the stroke was sharp of where it settled
    onset_s : when it began in the samples given
    chance : that the right partial was read, 0 to 1
    second : the partial that was meant instead, if the one that was read was not
    ask : what would settle it, where the call is close
    """

    status: Status
    hz: float | None
    cents_sigma: float | None
    reason: str
    partials: tuple[Partial, ...]
    strength_db: float
    glide_cents: float
    onset_s: float
    chance: float = 0.0
    second: Candidate | None = None
    ask: Ask | None = None


def _refused(reason: str, strength_db: float, onset_s: float = 0.0, partials: tuple[Partial, ...] = ()) -> TapReading:
    return TapReading(Status.REFUSE, None, None, reason, partials, strength_db, 0.0, onset_s)


def _rough_peaks(x: Array, rate: float, until_s: float) -> tuple[list[float], float]:
    """The strongest partials once the stroke has died away, well apart, and how far the first stands out of the rest in decibels."""
    seg = x[int(ROUGH_FROM_S * rate) : int(min(until_s, ROUGH_FROM_S + 0.4) * rate)]
    if len(seg) < 64:
        seg = x[int(0.01 * rate) : int(max(until_s, 0.06) * rate)]
    size = 1 << int(np.ceil(np.log2(max(len(seg), 64) * 4)))
    spectrum = np.abs(np.fft.rfft(seg * np.hanning(len(seg)), size))
    hz = np.fft.rfftfreq(size, 1 / rate)
    inside = (hz > 32) & (hz < min(1500.0, 0.42 * rate))
    left, peaks = np.where(inside, spectrum, 0.0), list[float]()
    most = float(left.max())
    while len(peaks) < FOLLOWED and left.max() > FOLLOWED_LEAST * most:
        place = int(np.argmax(left))
        peaks.append(float(hz[place]))
        left[np.abs(hz - hz[place]) < FOLLOWED_APART_HZ] = 0.0
    middle = float(np.median(spectrum[inside])) + 1e-15
    return peaks, float(20 * np.log10(most / middle + 1e-15))


@dataclass(frozen=True, slots=True)
class _Family:
    """Partials at the pitch they settle to; glide and its uncertainty in cents; how far the tone stands out; the ring as it was and unbent."""

    partials: list[Partial]
    glide_cents: float
    doubt_cents: float
    tonal_db: float
    ringing: Array
    soft: Array


def _family(heard: Heard, onset_s: float, end_s: float, near_hz: float | None) -> _Family:
    ringing = heard.x[int(onset_s * heard.rate) : int((onset_s + LONGEST_S) * heard.rate)]
    until = end_s - onset_s
    peaks, tonal = _rough_peaks(ringing, heard.rate, until)
    if not peaks:
        return _Family([], 0.0, 0.0, tonal, ringing, ringing)
    glide = follow_glide(ringing, heard.rate, peaks, until)
    soft = unbend(ringing, glide)
    partials = find_partials(soft, heard.rate, until, near_hz)
    return _Family(partials, glide.cents, GLIDE_LEFT * glide.doubt_cents, tonal, ringing, soft)


def listen_to_tap(samples: NDArray[np.floating], rate: int, context: TapContext | None = None) -> TapReading:
    """Read one tap.

    Parameters
    ----------
    samples : (n,) or (n, channels), full scale 1; may hold silence before and after
    rate : samples a second

    Raises
    ------
    BadQuantity
        for a rate or samples that cannot be sound.
    """
    known = context or TapContext()
    heard = prepare(samples, rate)
    strength = 20 * math.log10(max(heard.peak, 1e-7))
    if reason := refusal_of_sound(heard):
        return _refused(reason, strength)
    heard = replace(heard, x=without_hum(heard.x, heard.rate, loudest_stroke(heard.x, heard.rate)))
    ring = find_ring(heard.x, heard.rate)
    if ring is None:
        return _refused("too short to be a tap", strength)
    near = known.expect_hz or (known.centre_hz if known.at is Where.CENTRE else None)
    begins = clear_from(heard, ring)
    family = _family(heard, begins, ring.end_s, near)
    if reason := refusal_of_ring(heard, ring, family.ringing, family.partials, family.tonal_db, begins):
        if reason == TWO_HITS and alike(near or known.other_hz or 0.0, known):
            reason = TOGETHER  # their beats swell like a second stroke
        return _refused(reason, strength, ring.onset_s, tuple(family.partials))
    choice = choose_partial(family.partials, known)
    best = choice.best
    if other_head(best.hz, known):
        reason = "the other head rings: that is its pitch; mute it and tap again"
        return _refused(reason, strength, ring.onset_s, tuple(family.partials))
    together = heads_together(best.hz, family.partials, known)
    sigma = math.hypot(
        LEAST_SIGMA_CENTS, cents_of(1 + best.sigma_hz / best.hz), family.doubt_cents, GLIDE_SHARE * family.glide_cents
    )
    reason = TOGETHER if together else doubts_of(heard, ring, family.glide_cents, choice)
    status = Status.FLAG if reason else Status.OK
    return TapReading(
        status, best.hz, sigma, reason, tuple(family.partials), strength, family.glide_cents, ring.onset_s, choice.chance, choice.second, choice.ask
    )  # fmt: skip
