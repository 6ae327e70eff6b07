"""Was it a tap, and can its reading be trusted?"""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.around import Other
from drumwork.listening.choose import Choice
from drumwork.listening.context import TapContext, Where
from drumwork.listening.onset import Ring
from drumwork.listening.partials import Partial
from drumwork.listening.prepare import Heard
from drumwork.quantities import cents_of

__all__ = [
    "TOGETHER",
    "TWO_HITS",
    "alike",
    "clear_from",
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
ENVELOPE_S: Final = 0.02
LEAST_FALL_DB: Final = 3.0
FALL_WITHIN_S: Final = 0.30
FALL_MOST_S: Final = 1.2
FALL_FIRST: Final = 7  # envelope frames
FALL_LAST: Final = 8
CLIPPED_LATE_S: Final = 0.10
AFTER_RAIL_S: Final = 0.005
LEAST_AFTER_S: Final = 0.12
HARMONIC_NEAR: Final = 0.005
HIGHEST_ORDER: Final = 10
FEWEST_HARMONICS: Final = 4
SLOWEST_ATTACK_S: Final = 0.055
EARLY_DB: Final = -7.0
EARLY_HIGH_DB: Final = -5.0
"""A beating pair is loudest late; but a stroke’s first 40 ms have nearly all its loudness, and its high part more than ever after."""
ELSEWHERE_DB: Final = 11.0
SWELL_DB: Final = 7.0
SWELL_WITHIN_DB: Final = 9.0  # of the loudest moment
SWELL_MORE_DB: Final = 1.5
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
    size = int(ENVELOPE_S * rate)
    count = len(x) // size
    return np.asarray(10 * np.log10((x[: count * size].reshape(count, size) ** 2).mean(axis=1) + 1e-14))


def _falls(level: Array, length: float) -> bool:
    """The ring dies away, as a struck film's does: its loudest at first against its loudest at last, so that beats do not hide it."""
    last = min(len(level), int(min(length, FALL_MOST_S) / ENVELOPE_S))
    if last < FALL_FIRST + FALL_LAST or length < FALL_WITHIN_S:
        return True
    return bool(level[:FALL_FIRST].max() - level[last - FALL_LAST : last].max() > LEAST_FALL_DB)


def _swells(level: Array, first: int = 3) -> bool:
    """It grows again by a good deal, and more than once to more than before: speech and music do. The beats of a split pair come back ever softer."""
    low = level[first] if len(level) > first else 0.0
    high, tops = low, list[float]()
    for each in level[first:]:
        if each < low:
            low = high = each
        elif each - low > SWELL_DB and each > level.max() - SWELL_WITHIN_DB:
            tops.append(float(each))
            low = high = each
        elif tops and each > tops[-1] and each >= high:
            tops[-1] = float(each)
        high = max(high, each)
    least = tops[0] if tops else 0.0
    for top in tops[1:]:
        if top > least + SWELL_MORE_DB:
            return True
        least = min(least, top)
    return False


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


def clear_from(heard: Heard, ring: Ring) -> float:
    """Where the ring can be read from, in seconds: from the stroke, or after the last bounce and the last clipped sample in it."""
    late = heard.rails_s[(heard.rails_s > ring.onset_s + CLIPPED_LATE_S) & (heard.rails_s < ring.end_s)]
    clipped = float(late[-1]) + AFTER_RAIL_S if len(late) else ring.onset_s
    return max(ring.onset_s, clipped, *ring.again_s)


def refusal_of_ring(
    heard: Heard, ring: Ring, ringing: Array, partials: Sequence[Partial], tonal_db: float, begins_s: float
) -> str:
    """Why this is not one tap of a drum, or empty. `ringing` begins where it can be read from; `tonal_db` is how far the strongest partial stands out."""
    length = ring.end_s - begins_s
    if ring.rise_db < LEAST_RISE_DB:
        return "noise or a continuous tone: no stroke was heard"
    slow = ring.attack_s > SLOWEST_ATTACK_S and not ring.again_s
    if slow and (ring.early_db < EARLY_DB or ring.early_high_db < EARLY_HIGH_DB):
        return "speech or music: it swells, a stroke does not"
    if ring.elsewhere_db > ring.peak_db - ELSEWHERE_DB:
        return "more than one sound; let it ring alone"
    if length < SHORTEST_S:
        return "too short: a knock, not a ring"
    if begins_s > ring.onset_s and length < LEAST_AFTER_S:
        return TWO_HITS if ring.again_s else "clipped: too loud for the microphone, tap softer or stand further off"
    if heard.buzz_db > WIRES_DB:
        return "wires on: they hide the ring; throw them off and tap again"
    if not partials or tonal_db < 12.0:
        return "noise: no tone stands out"
    level = _envelope_db(ringing, heard.rate)
    if not _falls(level, length):
        return "a continuous tone, not a ring"
    if _swells(level):
        return "speech or music"
    if _harmonic(partials):
        return "speech or music: its partials are whole multiples of one note, a film’s are not"
    return ""


def other_head(hz: float, context: TapContext) -> bool:
    """Far from what was expected of this head and at the pitch of the other, which was not muted."""
    if (
        context.other_hz is None
        or context.expect_hz is None
        or context.other is Other.HELD
        or context.at is Where.CENTRE
    ):
        return False
    off, beside = (abs(cents_of(hz / other)) for other in (context.expect_hz, context.other_hz))
    return off > EXPECTED_CENTS and beside < OTHER_HEAD_CENTS


def alike(hz: float, context: TapContext) -> bool:
    """The other head rings along and is tuned much like this one."""
    if context.other_hz is None or context.other is Other.HELD or context.at is Where.CENTRE:
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


def doubts_of(heard: Heard, ring: Ring, glide_cents: float, choice: Choice) -> str:
    """Why a reading is kept but doubted, or empty."""
    if not choice.there:
        return "nothing rings near what was expected"
    if choice.close and choice.second:
        return f"a close call: it may be {choice.best.hz:.0f} or {choice.second.hz:.0f} Hz"
    if ring.again_s:
        return "it was hit twice; what rang after was read"
    if choice.best.level_db < -WEAK_DB - 16:
        return "the wanted partial is weak beside others; tap nearer the hoop"
    if glide_cents > HARD_CENTS:
        return "a hard tap; softer ones are read more surely"
    if len(heard.rails_s):
        return "clipped: too loud for the microphone; what rang after was read"
    if ring.peak_db - ring.room_db < 18:
        return "the room is nearly as loud as the drum"
    return ""
