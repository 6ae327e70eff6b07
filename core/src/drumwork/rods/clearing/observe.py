"""Every reading so far as a noisy look at the head's state, whatever it was read with."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.readings import CENTS_PER_Z, EAR_CENTS, READING_SD, Means
from drumwork.rods.clearing.task import ClearingTask, Round

__all__ = ["Observed", "observe"]

Array = NDArray[np.float64]

DOUBTFUL: Final = 4.0  # times the usual error
BESIDE_PORT: Final = 2.0  # common practice, F8: a port disturbs tuning near it; the figure is our own
CUT: Final = {Means.PITCH: 5.0, Means.GAUGE: 4.0, Means.TORQUE: 3.0, Means.EAR: 2.0}
"""Standard deviations beyond which a reading counts less; an ear errs now and then."""


@dataclass(frozen=True, slots=True)
class Observed:
    """Readings of all rounds, and the turns made after each.

    Attributes
    ----------
    z : (m,) value seen
    at : (m, n) what it looks at: one rod, one rod less another, or the mean of all
    variance : (m,) of its own error
    cut : standard deviations beyond which it counts less
    round : (m,) in which it was taken
    after : (m, r, n) turns made after each round that followed a reading
    since : (m, n) turns made since each reading
    level : about where z stands now
    """

    z: Array
    at: Array
    variance: Array
    cut: float
    round: NDArray[np.intp]
    after: Array
    since: Array
    level: float


@dataclass(frozen=True, slots=True)
class _Look:
    z: float
    at: Array
    sd: float


def _trust(task: ClearingTask, each: Round, rod: int) -> float:
    """How many times its usual error a reading is given."""
    if rod in each.doubtful:
        return DOUBTFUL
    return BESIDE_PORT if rod in task.layout.beside_port else 1.0


def _pitches(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    for rod in sorted(each.readings):
        sd = READING_SD[Means.PITCH] * (_trust(task, each, rod))
        yield _Look((each.readings[rod].hz / task.wanted) ** 2 - (task.z_wanted(rod) - 1), units[rod], sd)


def _numbers(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    for rod in sorted(each.numbers):
        sd = READING_SD[task.means] * (_trust(task, each, rod))
        yield _Look(each.numbers[rod] / task.wanted - (task.z_wanted(rod) - 1), units[rod], sd)


def _judgements(task: ClearingTask, each: Round, units: dict[int, Array]) -> Iterator[_Look]:
    reference = each.reference
    for rod, judged in each.ear.items():
        if reference is None or rod == reference:
            continue
        heard = EAR_CENTS[judged]
        wanted = task.z_wanted(rod) - task.z_wanted(reference)
        yield _Look(heard.cents / CENTS_PER_Z - wanted, units[rod] - units[reference], heard.sd / CENTS_PER_Z)
    if each.whole is not None:
        heard = EAR_CENTS[each.whole]
        everywhere = np.full(len(units), 1 / len(units))
        yield _Look(1 + heard.cents / CENTS_PER_Z, everywhere, heard.sd / CENTS_PER_Z)


_LOOK = {Means.PITCH: _pitches, Means.GAUGE: _numbers, Means.TORQUE: _numbers, Means.EAR: _judgements}


def observe(task: ClearingTask) -> Observed:
    """All looks at the state, oldest first. Wanted offsets are taken off, so that z = 1 is wanted of every rod."""
    rods = task.layout.rods
    units = dict(zip(rods, np.eye(len(rods)), strict=True))
    found, when = [], []
    made = np.zeros((len(task.rounds), len(rods)))
    for number, each in enumerate(task.rounds):
        looks = list(_LOOK[task.means](task, each, units))
        found += looks
        when += [number] * len(looks)
        if number < len(task.rounds) - 1:
            made[number] = [float(each.turned[rod].fraction) if rod in each.turned else 0.0 for rod in rods]
    moving = made.any(axis=1)
    later = np.cumsum(made[::-1], axis=0)[::-1]
    # Rounded far below what any reading tells, so that the same head in another unit comes to the same plan.
    z, rounds = np.array([round(look.z, 9) for look in found]), np.array(when, dtype=np.intp)
    last = z[rounds == len(task.rounds) - 1]
    return Observed(
        z=z,
        at=np.array([look.at for look in found]),
        variance=np.array([look.sd for look in found]) ** 2,
        cut=CUT[task.means],
        round=rounds,
        after=made[moving] * (rounds[:, None] <= np.flatnonzero(moving))[:, :, None],
        since=later[rounds],
        level=1.0 if task.means is Means.EAR else float(last.mean()),
    )
