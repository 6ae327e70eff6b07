"""Every reading so far as a noisy look at the head's state, whatever it was read with."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.quantities import Turns
from drumwork.rods.clearing.judgements import Judgements
from drumwork.rods.clearing.readings import CENTS_PER_Z, EAR_CENTS, READING_SD, Ear, Means
from drumwork.rods.clearing.task import ClearingTask, PairHeard, Round, Tap
from drumwork.rods.layout import RodLayout

__all__ = ["Observed", "lobes_of", "observe"]

Array = NDArray[np.float64]

DOUBTFUL: Final = 4.0  # times the usual error
BESIDE_PORT: Final = 2.0  # common practice, F8: a port disturbs tuning near it; the figure is our own
MOST_ROUNDS: Final = 16
"""Rounds looked at. What a head did to large turns tells its kind, and is not to be forgotten while it is hardly turned any more; our own figure."""
LOOKS_AT_A_ROD: Final = 0.5
CUT: Final = {Means.PITCH: 5.0, Means.GAUGE: 4.0, Means.TORQUE: 3.0}
"""Standard deviations beyond which a reading counts less; what the ear's words say has its own rule (`judgements`)."""
UNEVEN: Final = (0.03, 0.2)
"""Least and most a head is taken to be uneven before it is heard, in z; our own estimate."""


@dataclass(frozen=True, slots=True)
class Observed:
    """Readings of all rounds, and the turns made after each.

    Attributes
    ----------
    z : (m,) value seen
    at : (m, n) what it looks at: one rod, one rod less another, or the mean of all
    variance : (m,) of its own error
    known : (m,) whether that error is known from the round itself, not taken from what is usual
    cut : standard deviations beyond which it counts less
    words : where they are words of the ear, what those say; `z` and `variance` are then about what each means
    round : (m,) in which it was taken
    after : (m, r, n) turns made after each round that followed a reading
    since : (m, n) turns made since each reading
    level : about where z stands now
    uneven : about how uneven z was from rod to rod in the first of them, as a standard deviation
    """

    z: Array
    at: Array
    variance: Array
    known: NDArray[np.bool_]
    cut: float
    words: Judgements | None
    round: NDArray[np.intp]
    after: Array
    since: Array
    level: float
    uneven: float


@dataclass(frozen=True, slots=True)
class _Look:
    z: float
    at: Array
    sd: float
    known: bool = False
    word: Ear | None = None
    level: float = 0.0


def _trust(task: ClearingTask, rod: int, doubtful: bool) -> float:
    """How many times its usual error a reading is given."""
    if doubtful:
        return DOUBTFUL
    return BESIDE_PORT if rod in task.layout.beside_port else 1.0


def _pitches(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    if each.pair is not None:
        yield from _pair(task, each.pair, units)
    for rod in sorted(set(each.readings) - each.worked_out):
        sd = READING_SD[Means.PITCH] * _trust(task, rod, rod in each.doubtful)
        yield _Look((each.readings[rod].hz / task.wanted) ** 2 - (task.z_wanted(rod) - 1), units[rod], sd)


def _pair(task: ClearingTask, pair: PairHeard, units: dict[int, Array]) -> Iterator[_Look]:
    """Three looks at once: the mean of the pair, half its distance along its axis, and how far it may lie beside that axis."""
    low, high = (pair.lower_hz / task.wanted) ** 2, (pair.upper_hz / task.wanted) ** 2
    half, sd = (high - low) / 2, math.hypot(pair.lower_sd * low, pair.upper_sd * high)
    wanted = np.array([task.z_wanted(rod) - 1 for rod in units])
    mean = np.full(len(units), 1 / len(units))
    cosine, sine = lobes_of(task.layout)
    along = math.cos(2 * pair.axis_rad) * cosine + math.sin(2 * pair.axis_rad) * sine
    beside = math.cos(2 * pair.axis_rad) * sine - math.sin(2 * pair.axis_rad) * cosine
    yield _Look((low + high) / 2 - float(mean @ wanted), mean, sd, True)
    yield _Look(-half - float(along @ wanted), along, sd, True)
    yield _Look(-float(beside @ wanted), beside, math.hypot(2 * half * pair.axis_sd_rad, sd), True)


def lobes_of(layout: RodLayout) -> Array:
    """(2, n) what turns z at the rods into the cosine and the sine of its two-lobed part, by least squares."""
    angles = np.array([layout.angle_rad(rod) for rod in layout.rods])
    waves = np.stack([np.ones_like(angles), np.cos(2 * angles), np.sin(2 * angles)], axis=1)
    return np.asarray(np.linalg.pinv(waves)[1:])


def _numbers(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    for rod in sorted(each.numbers):
        sd = READING_SD[task.means] * _trust(task, rod, rod in each.doubtful)
        yield _Look(each.numbers[rod] / task.wanted - (task.z_wanted(rod) - 1), units[rod], sd)


def _judgements(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    reference = each.reference
    for rod, judged in each.ear.items():
        if reference is None or rod == reference:
            continue
        wanted = task.z_wanted(rod) - task.z_wanted(reference)
        yield _judgement(judged, units[rod] - units[reference], -wanted)
    if each.whole is not None:
        yield _judgement(each.whole, np.full(len(units), 1 / len(units)), 1.0)


def _judgement(word: Ear, at: Array, level: float) -> _Look:
    heard = EAR_CENTS[word]
    return _Look(level + heard.cents / CENTS_PER_Z, at, heard.sd / CENTS_PER_Z, word=word, level=level)


def _tapped(task: ClearingTask, tap: Tap, units: dict[int, Array]) -> _Look:
    """A rod read between turns, like any reading of its means."""
    ratio = tap.value / task.wanted
    z = ratio**2 if task.means is Means.PITCH else ratio
    sd = READING_SD[task.means] * _trust(task, tap.rod, tap.doubtful)
    return _Look(z - (task.z_wanted(tap.rod) - 1), units[tap.rod], sd)


_LOOK = {Means.PITCH: _pitches, Means.GAUGE: _numbers, Means.TORQUE: _numbers, Means.EAR: _judgements}


def _uneven(task: ClearingTask, first: Round) -> float:
    """Standard deviation of z from rod to rod in the first round looked at."""
    match task.means:
        case Means.PITCH:
            z = [(pitch.hz / task.wanted) ** 2 - task.z_wanted(rod) for rod, pitch in first.readings.items()]
        case Means.EAR:
            z = [0.0, *(EAR_CENTS[each].cents / CENTS_PER_Z for each in first.ear.values())]
        case _:
            z = [number / task.wanted - task.z_wanted(rod) for rod, number in first.numbers.items()]
    return round(float(np.std(z)), 6) if z else UNEVEN[1]


def _by_rod(turns: Mapping[int, Turns], rods: Sequence[int]) -> list[float]:
    return [turns[rod].thirtyseconds / 32 if rod in turns else 0.0 for rod in rods]


def _words(looks: Sequence[_Look]) -> Judgements:
    return Judgements.of([look.word for look in looks if look.word], [look.level for look in looks if look.word])


def observe(task: ClearingTask) -> Observed:
    """All looks at the state, oldest first. Wanted offsets are taken off, so that z = 1 is wanted of every rod."""
    rods = task.layout.rods
    units = dict(zip(rods, np.eye(len(rods)), strict=True))
    first = max(0, len(task.rounds) - MOST_ROUNDS)
    found, when, by_then = [], [], []
    made = np.array([_by_rod(task.made_in(number), rods) for number in range(len(task.rounds))])
    for number, each in enumerate(task.rounds[first:], first):
        looks = list(_LOOK[task.means](task, each, units))
        found += [*looks, *(_tapped(task, tap, units) for tap in each.taps)]
        when += [number] * (len(looks) + len(each.taps))
        by_then += [[0.0] * len(rods)] * len(looks) + [_by_rod(tap.turned, rods) for tap in each.taps]
    moving = made.any(axis=1) & (np.arange(len(made)) >= first)
    later = np.cumsum(made[::-1], axis=0)[::-1]
    # Rounded far below what any reading tells, so that the same head in another unit comes to the same plan.
    at = np.array([look.at for look in found])
    z, rounds = np.array([round(look.z, 9) for look in found]), np.array(when, dtype=np.intp)
    already = np.array(by_then)
    whole = (rounds == len(task.rounds) - 1) & (np.arange(len(z)) < len(z) - len(task.rounds[-1].taps))
    last = z[whole & (at.sum(axis=1) > LOOKS_AT_A_ROD)]
    after = made[moving] * (rounds[:, None] <= np.flatnonzero(moving))[:, :, None]
    after -= already[:, None, :] * (rounds[:, None] == np.flatnonzero(moving))[:, :, None]
    return Observed(
        z=z,
        at=at,
        variance=np.array([look.sd for look in found]) ** 2,
        known=np.array([look.known for look in found]),
        cut=CUT.get(task.means, np.inf),
        words=_words(found) if task.means is Means.EAR else None,
        round=rounds,
        after=after,
        since=later[rounds] - already,
        uneven=float(np.clip(_uneven(task, task.rounds[first]), *UNEVEN)),
        level=1.0 if task.means is Means.EAR else float(last.mean()),
    )
