"""Which drums of a kit answer when one is struck, how loud and how long, and what to move so that they do not (trade N11, P19: common practice).

One drum is struck and, about a second later, a hand is laid flat on both its heads. What rings on is not its own: a drum is known by the notes it
has in the kit, and how far its own lies from what excites it says how much nearer the two are than they should be. The struck drum cannot be
told from one that sings at the same pitch while both ring; that is why the hand is asked for.

References
----------
A resonator driven by a decaying sinusoid is the convolution of the two: for equal decay its height grows as sin(pi d t) / (pi d) (worked out here;
for a lasting sound it becomes the resonance curve of L. E. Kinsler et al., *Fundamentals of Acoustics*, ch. 1, from memory).
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.errors import BadLayout, BadRequest, BadSound
from drumwork.kits.both_heads import Place
from drumwork.listening.onset import loudest_stroke
from drumwork.listening.partials import Partial, find_partials
from drumwork.listening.prepare import prepare
from drumwork.quantities import cents_of
from drumwork.rods.deliberate import OnPurpose, leave_uneven
from drumwork.rods.layout import RodLayout

__all__ = ["Advice", "SingTest", "Sung", "hear_singing", "softer_by", "tell_singing"]

Array = NDArray[np.float64]

LEAST_S: Final = 1.2
"""A recording holds at least so much after the stroke."""
QUIET: Final = 1e-4
FRAME_S: Final = 0.02
BEFORE_S, AFTER_S = (0.16, 0.03), (0.06, 0.18)
"""Where the level is taken before and after a hand, seconds from it."""
HAND_DB: Final = 4.5
"""So far the level falls, more than it did by itself, where a hand is laid on."""
HAND_FROM_S, HAND_TO_S, NO_HAND_S = 0.3, 3.0, 1.2
TOLD_AT_S: Final = 1.0
"""How loud an answer is, is told for this long after the stroke, whenever the hand came."""
LISTENS_S: Final = 1.3
STRIKE_S: Final = (0.04, 0.5)
SETTLED_S: Final = 0.09
"""After the hand the struck drum itself has died away."""
NEAR_CENTS: Final = 80.0
"""So near to a note it has in the kit a drum is taken to be the one that rings."""
FAINTEST_DB: Final = -46.0
"""Under the stroke; what is fainter nobody hears over the band. Our own figure."""
PLAIN_DB: Final = -38.0
"""What is softer is not worth moving a drum for. Our own figure."""
COVERS_DB: Final = -28.0
"""So loud an answer hides that a hand was laid on."""
FURTHEST_CENTS: Final = 100.0
"""A drum is not moved by more than a semitone for this: what answers from so far is another matter."""
SILENT_DB: Final = -55.0
USUAL_DECAY_DB_S: Final = 30.0
QUICK_HZ: Final = 2.5
MIDDLING_DB: Final = 3.0
LEAST_OF_BEAT: Final = 0.25
"""An answer caught where it goes is not believed to be more than four times what is heard."""
SOFTER_DB: Final = 12.0
"""What a move is to win: less than half as loud to the ear, and then some. Our own figure."""
NEPER_DB: Final = 20 / math.log(10)


@dataclass(frozen=True, slots=True)
class Advice:
    """Move this drum by so many cents, and it answers so many decibels softer, as far as can be foretold."""

    drum: str
    cents: float
    softer_db: float


@dataclass(frozen=True, slots=True)
class Sung:
    """One drum that answers. `level_db` against the stroke, one second after it; `seconds` until nobody hears it; `cents` its note lies over the note that drives it."""

    drum: str
    which: str
    hz: float
    level_db: float
    seconds: float
    cents: float
    driven_by: str
    decay_db_s: float


@dataclass(frozen=True, slots=True)
class SingTest:
    """What was heard: who answers, the loudest first; `strangers` are notes no drum of the kit has; `hand_s` is None where no hand was heard."""

    struck: str
    hand_s: float | None
    answers: tuple[Sung, ...]
    strangers: tuple[float, ...]
    advice: Advice | None


def _levels(x: Array, rate: float) -> Array:
    """Decibels of every frame."""
    frame = max(8, round(FRAME_S * rate))
    power = (x[: len(x) // frame * frame] ** 2).reshape(-1, frame).mean(axis=1)
    return np.asarray(10 * np.log10(power + 1e-14))


def _hand(levels: Array, stroke: int) -> float | None:
    """When the hand came, seconds after the stroke: where the level falls most, beyond what it did by itself before."""
    best, at = HAND_DB, None
    before = [round(each / FRAME_S) for each in BEFORE_S]
    after = [round(each / FRAME_S) for each in AFTER_S]
    last = min(len(levels) - after[1], stroke + round(HAND_TO_S / FRAME_S))
    for frame in range(stroke + round(HAND_FROM_S / FRAME_S), last):
        was = levels[frame - before[0] : frame - before[1]]
        slope = min(0.0, float(np.polyfit(np.arange(len(was)), was, 1)[0]))
        fell = was.mean() - levels[frame + after[0] : frame + after[1]].mean()
        by_itself = -slope * ((after[0] + after[1]) / 2 + (before[0] + before[1]) / 2)
        if fell - by_itself > best:
            best, at = fell - by_itself, frame
    return None if at is None else (at - stroke) * FRAME_S


def _amplitude(x: Array, rate: float, hz: float, decay_db_s: float) -> float:
    """Of a decaying sinusoid at the start of `x`, by least squares over its first part."""
    count = min(len(x), max(round(0.35 * rate), round(6 * rate / hz)))
    t = np.arange(count) / rate
    falls = np.exp(-max(0.0, decay_db_s) / NEPER_DB * t)
    columns = np.stack([falls * np.cos(math.tau * hz * t), falls * np.sin(math.tau * hz * t)], axis=1)
    found, *_ = np.linalg.lstsq(columns, x[:count], rcond=None)
    return float(np.hypot(*found))


def _nearest(hz: float, notes: Mapping[str, float]) -> tuple[str, float]:
    which = min(notes, key=lambda each: abs(cents_of(hz / notes[each])))
    return which, float(cents_of(hz / notes[which]))


def softer_by(distance_hz: float, further_hz: float) -> float:
    """How many decibels softer a drum answers, a second after the stroke, when its note stands further from the one that drives it.

    Both dying alike, the answer has by then grown as sin(pi d t) / (pi d), d the distance and t the second; its height is told.

    >>> round(softer_by(1.0, 5.0), 1)
    13.6
    """
    near, far = ((math.pi * each * TOLD_AT_S) ** 2 + 1 for each in (distance_hz, further_hz))
    return 10 * math.log10(far / near)


def hear_singing(samples: NDArray[np.floating], rate: int, struck: str, places: Sequence[Place]) -> SingTest:
    """Who answers in a recording of one stroke on one drum and a hand laid on it.

    Parameters
    ----------
    samples : one channel
    rate : samples a second
    struck : the drum that is struck
    places : every drum of the kit, where its notes lie

    Raises
    ------
    BadRequest
        for a drum that is not in the kit, or a kit of one.
    BadSound
        where there is no stroke, or too little after it.
    """
    own = next((each for each in places if each.id == struck), None)
    others = [each for each in places if each.id != struck]
    if own is None:
        raise BadRequest(f"“{struck}” is no drum of this kit with known pitches.", drum=struck)
    if not others:
        raise BadRequest("A drum alone has none that could answer it.")
    heard = prepare(np.asarray(samples, dtype=float), rate)
    x, working = heard.x, heard.rate
    if len(x) < LEAST_S * working or not heard.peak > QUIET:
        raise BadSound(
            "There is no stroke in it with a second after it. Strike once, wait a second, then lay a hand on it."
        )
    stroke = loudest_stroke(x, working)
    if len(x) - stroke < LEAST_S * working:
        raise BadSound("It ends too soon after the stroke. Let it run for three seconds.")
    levels = _levels(x, working)
    hand = _hand(levels, round(stroke / working / FRAME_S))
    begins = stroke + round(((hand if hand is not None else NO_HAND_S) + SETTLED_S) * working)
    ring = x[begins : begins + round(LISTENS_S * working)]
    strike = x[stroke + round(STRIKE_S[0] * working) : stroke + round(STRIKE_S[1] * working)]
    first = find_partials(strike, working, len(strike) / working)
    loud = max(
        (_amplitude(strike, working, each.hz, each.decay_db_s) for each in first), default=float(np.abs(x).max())
    )
    ears = _Ears(
        own, others, {which: _drives(which, own, first) for which in own.strongest}, loud, (begins - stroke) / working
    )
    answers, strangers = _answers(ring, working, ears)
    return SingTest(
        struck,
        hand,
        tuple(answers),
        tuple(strangers),
        _what_to_move(answers, ears),
    )


@dataclass(frozen=True, slots=True)
class _Driving:
    """A note of the struck drum as it was heard: hertz, and how fast it died."""

    hz: float
    decay_db_s: float


@dataclass(frozen=True, slots=True)
class _Ears:
    """What an answer is measured by: the kit, the stroke's own notes, its amplitude, and how long after it the ring begins."""

    own: Place
    others: Sequence[Place]
    driving: Mapping[str, _Driving]
    loud: float
    since_s: float


def _drives(which: str, own: Place, first: Sequence[Partial]) -> _Driving:
    named = own.strongest[which]
    heard = [each for each in first if abs(cents_of(each.hz / named)) < NEAR_CENTS]
    nearest = min(heard, key=lambda each: abs(cents_of(each.hz / named)), default=None)
    return _Driving(nearest.hz, max(nearest.decay_db_s, 1.0)) if nearest else _Driving(named, USUAL_DECAY_DB_S)


def _answers(ring: Array, rate: float, ears: _Ears) -> tuple[list[Sung], list[float]]:
    heard: dict[str, Sung] = {}
    strangers = []
    for each in find_partials(ring, rate, len(ring) / rate) if len(ring) > 0.3 * rate else []:
        if each.decay_db_s <= 0:
            continue
        amplitude = _amplitude(ring, rate, each.hz, each.decay_db_s)
        sung = _sung(each, 20 * math.log10(amplitude / ears.loud + 1e-9), ears)
        if sung is None:
            loud = 20 * math.log10(amplitude / ears.loud + 1e-9) > FAINTEST_DB
            if loud and abs(_nearest(each.hz, ears.own.strongest)[1]) > NEAR_CENTS:
                strangers.append(each.hz)
        elif sung.level_db >= FAINTEST_DB and (sung.drum not in heard or heard[sung.drum].level_db < sung.level_db):
            heard[sung.drum] = sung
    return sorted(heard.values(), key=lambda each: -each.level_db), strangers


def _sung(partial: Partial, level: float, ears: _Ears) -> Sung | None:
    """Whose note it is; None where it is nobody's. Driven beside its own note a drum's answer comes and goes: what is told is its height."""
    found = min(((*_nearest(partial.hz, each.strongest), each) for each in ears.others), key=lambda each: abs(each[1]))
    which, off, drum = found
    if abs(off) > NEAR_CENTS:
        return None
    driven_by = min(ears.driving, key=lambda each: abs(cents_of(partial.hz / ears.driving[each].hz)))
    drives = ears.driving[driven_by]
    level += partial.decay_db_s * (ears.since_s - TOLD_AT_S) + _to_height(
        partial.hz - drives.hz, ears.since_s - SETTLED_S
    )
    cents = float(cents_of(partial.hz / drives.hz))
    seconds = (level - SILENT_DB) / max(partial.decay_db_s, 1.0)
    return Sung(drum.id, which, partial.hz, level, seconds, cents, driven_by, partial.decay_db_s)


def _to_height(beat_hz: float, hand_s: float) -> float:
    """Decibels from where the hand caught a coming and going answer to its height; of a quick one nobody knows where, and a middling amount is taken."""
    turned = abs(beat_hz) * hand_s
    if turned < 0.5:  # it is still growing
        return 0.0
    if abs(beat_hz) > QUICK_HZ:
        return MIDDLING_DB
    return -20 * math.log10(max(abs(math.sin(math.pi * turned)), LEAST_OF_BEAT))


def _what_to_move(answers: Sequence[Sung], ears: _Ears) -> Advice | None:
    """For the loudest that is not meant to sound as the struck drum does."""
    alike = {each.id for each in ears.others if each.sounds_alike(ears.own)}
    worst = next((each for each in answers if each.drum not in alike), None)
    if worst is None or worst.level_db < PLAIN_DB:
        return None
    advice = _advice(worst, ears)
    return advice if abs(advice.cents) <= FURTHEST_CENTS else None


def _advice(sung: Sung, ears: _Ears) -> Advice:
    """The way it lies already, so far that it answers as much softer as is wanted."""
    drives = ears.driving[sung.driven_by]
    distance = abs(sung.hz - drives.hz)
    wanted = 10 ** (SOFTER_DB / 10) * ((math.pi * distance * TOLD_AT_S) ** 2 + 1) - 1
    further = math.sqrt(wanted) / math.pi / TOLD_AT_S
    way = 1.0 if sung.cents >= 0 or further > 0.4 * drives.hz else -1.0
    goes_to = drives.hz + way * further
    return Advice(sung.drum, float(cents_of(goes_to / sung.hz)), softer_by(distance, further))


_WHICH: Final = {"note": "its note", "batter": "its batter", "wires": "its wires"}


def _or_a_hair(move: Advice, which: str, layout: RodLayout | None) -> str:
    """What else stops it: a rod down splits the pair the rods sound, four by a hair deaden the drum (trade §6, P19)."""
    if layout is None:
        return ""
    kind = OnPurpose.ROD_DOWN if which == "batter" else OnPurpose.FOUR_BY_A_HAIR
    try:
        rods = sorted(leave_uneven(layout, kind, layout.rods[0]).turns)
    except BadLayout:
        return ""
    named = f"rod {rods[0]}" if len(rods) == 1 else f"rods {', '.join(map(str, rods[:-1]))} and {rods[-1]}"
    return f"; or slacken {named} of its batter a hair, which lets it die sooner"


def tell_singing(
    test: SingTest, names: Mapping[str, str], batters: Mapping[str, RodLayout] | None = None
) -> tuple[str, ...]:
    """What was heard, in sentences, the weightiest first. `batters`: the rods of each drum, so that the one to ease can be named."""
    said = []
    covered = bool(test.answers) and test.answers[0].level_db > COVERS_DB
    if test.hand_s is None and not covered:
        said.append(
            f"No hand was heard on {names[test.struck]}: what rings may be its own. Strike, wait a second, lay a hand flat on both heads."
        )
    if not test.answers:
        said.append(f"Nothing answers {names[test.struck]}.")
    for each in test.answers:
        said.append(
            f"{names[each.drum]} answers with {_WHICH[each.which]} at {each.hz:.0f} Hz, {-each.level_db:.0f} dB under the stroke, for {max(0.1, each.seconds):.1f} s."
        )
    if test.advice and test.answers:
        move = test.advice
        way = "up" if move.cents > 0 else "down"
        which = next(each.which for each in test.answers if each.drum == move.drum)
        said.append(
            f"Bring {names[move.drum]} {way} by {abs(move.cents):.0f} cents and it should answer {move.softer_db:.0f} dB softer"
            f"{_or_a_hair(move, which, (batters or {}).get(move.drum))}."
        )
    if test.hand_s is None and covered:
        said.append(
            f"The hand itself was not heard. If it lay flat on both heads of {names[test.struck]}, it is the others that ring."
        )
    if test.strangers:
        notes = ", ".join(f"{each:.0f}" for each in test.strangers[:3])
        said.append(f"At {notes} Hz rings something that is no drum of this kit.")
    return tuple(said)
