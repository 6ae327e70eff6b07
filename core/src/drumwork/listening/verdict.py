"""Was it a tap, and can its reading be trusted?"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.context import TapContext, Where
from drumwork.listening.onset import Ring
from drumwork.listening.partials import Partial
from drumwork.listening.prepare import Heard
from drumwork.quantities import cents_of

__all__ = [
    "TOGETHER",
    "TWO_HITS",
    "alike",
    "doubts_of",
    "heads_together",
    "other_head",
    "refusal_of_ring",
    "refusal_of_sound",
]

Array = NDArray[np.float64]

SILENT: Final = 10 ** (-62 / 20)
LEAST_RISE_DB: Final = 9.0
SHORTEST_S: Final = 0.085
RUMBLE_DB: Final = 9.0
LEAST_FALL_DB: Final = 4.5
FALL_WITHIN_S: Final = 0.30
CLIPPED_LATE_S: Final = 0.10
HARMONIC_NEAR: Final = 0.005
HIGHEST_ORDER: Final = 10
FEWEST_HARMONICS: Final = 4
SLOWEST_ATTACK_S: Final = 0.055
ELSEWHERE_DB: Final = 11.0
SWELL_DB: Final = 7.0
SWELL_WITHIN_DB: Final = 9.0  # of the loudest moment: the beats of a split pair come back ever softer
HARD_CENTS: Final = 150.0
WEAK_DB: Final = 8.0
WIRES_DB: Final = -14.0
"""Of recorded drums, those with their wires on buzz at -11 to +3 dB of the ring, all others below -16 (hydrogen-drumkits, six kits)."""
OTHER_HEAD_CENTS: Final = 30.0
EXPECTED_CENTS: Final = 90.0
TOGETHER_CENTS: Final = 120.0
APART_CENTS: Final = (45.0, 350.0)  # wider than the pair of an uneven head, nearer than the next of its family
BESIDE_DB: Final = 14.0
TWO_HITS: Final = "two hits fell into one another; tap once"
TOGETHER: Final = "both heads ring together at nearly one pitch and pull each other’s note about; mute the other head"


def refusal_of_sound(heard: Heard) -> str:
    """Why there is nothing to listen to, or empty."""
    if heard.peak < SILENT:
        return "silence"
    if heard.rumble_db > RUMBLE_DB:
        return "rumble: something low drowns the drum"
    return ""


def _envelope_db(x: Array, rate: float) -> Array:
    size = int(0.02 * rate)
    count = len(x) // size
    return np.asarray(10 * np.log10((x[: count * size].reshape(count, size) ** 2).mean(axis=1) + 1e-14))


def _falls(level: Array, ring: Ring) -> bool:
    """The ring dies away, as a struck film's does."""
    start = level[2:5].max(initial=-140.0) if len(level) > 5 else level.max(initial=-140.0)
    last = min(len(level) - 1, int((0.06 + FALL_WITHIN_S) / 0.02))
    return bool(start - level[max(last - 1, 0) : last + 1].mean() > LEAST_FALL_DB or ring.end_s - ring.onset_s < 0.3)


def _swells(level: Array, first: int = 3) -> int:
    """How often it grows again by a good deal: speech and music do, a ring does not."""
    low, count = level[first] if len(level) > first else 0.0, 0
    high = low
    for each in level[first:]:
        if each < low:
            low = high = each
        elif each - low > SWELL_DB and each > level.max() - SWELL_WITHIN_DB:
            count += 1
            low = high = each
        high = max(high, each)
    return count


def _harmonic(partials: Sequence[Partial]) -> bool:
    """Three or more partials that are whole multiples of one note: a voice or an instrument."""
    strong = sorted(each.hz for each in partials if each.level_db > -30)
    for base in strong[:3]:
        for divisor in (1, 2):
            note = base / divisor
            if note < 60:
                continue
            orders = [(hz, max(1, round(hz / note))) for hz in strong]
            multiples = {k for hz, k in orders if k <= HIGHEST_ORDER and abs(hz / note / k - 1) < HARMONIC_NEAR}
            if len(multiples) >= FEWEST_HARMONICS and len(multiples) >= 0.5 * len(strong):
                return True
    return False


def refusal_of_ring(heard: Heard, ring: Ring, ringing: Array, partials: Sequence[Partial], tonal_db: float) -> str:
    """Why this is not one tap of a drum, or empty. `ringing` begins at the stroke; `tonal_db` is how far the strongest partial stands out."""
    length = ring.end_s - ring.onset_s
    if ring.rise_db < LEAST_RISE_DB:
        return "noise or a continuous tone: no stroke was heard"
    if ring.attack_s > SLOWEST_ATTACK_S:
        return "speech or music: it swells, a stroke does not"
    if ring.elsewhere_db > ring.peak_db - ELSEWHERE_DB:
        return "more than one sound; let it ring alone"
    if length < SHORTEST_S:
        return "too short: a knock, not a ring"
    if ring.second_s is not None:
        return TWO_HITS
    if heard.buzz_db > WIRES_DB:
        return "wires on: they hide the ring; throw them off and tap again"
    if np.any((heard.rails_s > ring.onset_s + CLIPPED_LATE_S) & (heard.rails_s < ring.end_s)):
        return "clipped: too loud for the microphone, tap softer or stand further off"
    if not partials or tonal_db < 12.0:
        return "noise: no tone stands out"
    level = _envelope_db(ringing, heard.rate)
    if not _falls(level, ring):
        return "a continuous tone, not a ring"
    if _swells(level) >= 2:
        return "speech or music"
    if _harmonic(partials):
        return "speech or music: its partials are whole multiples of one note, a film’s are not"
    return ""


def other_head(hz: float, context: TapContext) -> bool:
    """Far from what was expected of this head and at the pitch of the other, which was not muted."""
    if context.other_hz is None or context.expect_hz is None or context.other_muted or context.at is Where.CENTRE:
        return False
    off, beside = (abs(cents_of(hz / other)) for other in (context.expect_hz, context.other_hz))
    return off > EXPECTED_CENTS and beside < OTHER_HEAD_CENTS


def alike(hz: float, context: TapContext) -> bool:
    """The other head rings along and is tuned much like this one."""
    if context.other_hz is None or context.other_muted or context.at is Where.CENTRE:
        return False
    return abs(cents_of((context.expect_hz or hz) / context.other_hz)) < TOGETHER_CENTS


def heads_together(hz: float, partials: Sequence[Partial], context: TapContext) -> bool:
    """The heads are alike, and a second note beside the one read shows that they ring together: neither is this head's own any more, the air
    between pulls them apart (two films on one shell, `drumwork.simulated.shell`)."""
    level = max((each.level_db for each in partials if each.hz == hz), default=0.0)
    return alike(hz, context) and any(
        APART_CENTS[0] < abs(cents_of(each.hz / hz)) < APART_CENTS[1] and each.level_db > level - BESIDE_DB
        for each in partials
    )


def doubts_of(heard: Heard, ring: Ring, glide_cents: float, level_db: float, expected: bool) -> str:
    """Why a reading is kept but doubted, or empty."""
    if not expected:
        return "nothing rings near what was expected"
    if level_db < -WEAK_DB - 16:
        return "the wanted partial is weak beside others; tap nearer the hoop"
    if glide_cents > HARD_CENTS:
        return "a hard tap; softer ones are read more surely"
    if len(heard.rails_s):
        return "the stroke was clipped; the ring was not"
    if ring.peak_db - ring.room_db < 18:
        return "the room is nearly as loud as the drum"
    return ""
