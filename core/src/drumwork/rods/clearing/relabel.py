"""The same head numbered from elsewhere. Plans are made in one agreed numbering, so that turning or mirroring a drum turns or mirrors its
plan exactly, ties included."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import replace
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.learned import Learned, LearnedKind
from drumwork.rods.clearing.task import ClearingTask, PairHeard, Round, Tap
from drumwork.rods.layout import RodLayout

__all__ = ["Numbering", "agreed_numbering", "places", "relabel", "relabel_learned"]

T = TypeVar("T")
Numbering = Mapping[int, int]
"""From each rod's number to its number elsewhere."""


def _numberings(count: int) -> list[Numbering]:
    """Every turn of the drum, and every turn of its mirror image."""
    rods = range(1, count + 1)
    turned: list[Numbering] = [{rod: (rod - 1 + by) % count + 1 for rod in rods} for by in range(count)]
    return turned + [{rod: count + 1 - to for rod, to in each.items()} for each in turned]


def places(task: ClearingTask, to: Numbering) -> NDArray[np.intp]:
    """(n,) where each rod of the task, in its own order, stands among those of the other numbering."""
    there = sorted(to[rod] for rod in task.layout.rods)
    return np.array([there.index(to[rod]) for rod in task.layout.rods], dtype=np.intp)


def _move(values: Mapping[int, T], to: Numbering) -> dict[int, T]:
    return {to[rod]: values[rod] for rod in sorted(values, key=to.__getitem__)}


def _rods(rods: frozenset[int], to: Numbering) -> frozenset[int]:
    return frozenset(to[rod] for rod in rods)


def _pair(pair: PairHeard | None, to: Numbering) -> PairHeard | None:
    """Rod r stands at (r - ½) steps round from the badge."""
    if pair is None:
        return None
    step = math.tau / len(to)
    mirrored = (to[2] - to[1]) % len(to) != 1
    return pair.turned((to[1] - (0 if mirrored else 1)) * step, mirrored)


def _tap(tap: Tap, to: Numbering) -> Tap:
    return replace(tap, rod=to[tap.rod], turned=_move(tap.turned, to))


def _round(each: Round, to: Numbering) -> Round:
    return Round(
        readings=_move(each.readings, to),
        turned=_move(each.turned, to),
        ear=_move(each.ear, to),
        reference=to[each.reference] if each.reference else None,
        whole=each.whole,
        numbers=_move(each.numbers, to),
        doubtful=_rods(each.doubtful, to),
        pair=_pair(each.pair, to),
        worked_out=_rods(each.worked_out, to),
        taps=tuple(_tap(tap, to) for tap in each.taps),
    )


def relabel_learned(kept: Learned, to: Numbering) -> Learned:
    """What was learned of the same drum, numbered `to`."""
    order = sorted(range(len(kept.rods)), key=lambda place: to[kept.rods[place]])

    def kind(each: LearnedKind) -> LearnedKind:
        harmonics = len(each.mean) - len(order)
        places = [*range(harmonics), *(harmonics + place for place in order)]
        mean = tuple(each.mean[p] for p in places)
        return replace(each, mean=mean, covariance=tuple(tuple(each.covariance[p][q] for q in places) for p in places))

    rods = tuple(to[kept.rods[place]] for place in order)
    return replace(kept, rods=rods, kinds=tuple(kind(each) for each in kept.kinds))


def relabel(task: ClearingTask, to: Numbering) -> ClearingTask:
    """The task of the same drum, numbered `to`."""
    marked = (task.layout.lost, task.layout.beside_bed, task.layout.beside_port)
    layout = RodLayout(task.layout.count, *(_rods(each, to) for each in marked))
    return replace(
        task,
        layout=layout,
        rounds=tuple(_round(each, to) for each in task.rounds),
        tally=_move(task.tally, to) if task.tally is not None else None,
        meant=_move(task.meant, to) if task.meant is not None else None,
        offsets=_move(task.offsets, to),
        made=_move(task.made, to),
        learned=relabel_learned(task.learned, to) if task.learned and set(task.learned.rods) <= set(to) else None,
    )


def _features(task: ClearingTask) -> Iterator[Callable[[int], float | str]]:
    """What tells rods apart, each by rod: the newest readings first."""
    yield lambda rod: float(rod in task.layout.lost)
    yield lambda rod: float(rod in task.layout.beside_port)
    yield lambda rod: float(task.made[rod].thirtyseconds) if rod in task.made else 0.0
    for each in reversed(task.rounds):
        yield from _of_round(each)
    if task.tally is not None:
        counted = task.tally
        yield lambda rod: float(counted[rod].thirtyseconds) if rod in counted else 0.0
    if task.meant is not None:
        meant = task.meant
        yield lambda rod: float(meant[rod].thirtyseconds) if rod in meant else 0.0
    yield lambda rod: task.offsets.get(rod, 0.0)


def _of_round(each: Round) -> Iterator[Callable[[int], float | str]]:
    yield lambda rod: each.readings[rod].hz if rod in each.readings else 0.0
    yield lambda rod: each.numbers.get(rod, 0.0)
    yield lambda rod: str(each.ear.get(rod, ""))
    yield lambda rod: float(rod == each.reference)
    yield lambda rod: float(each.turned[rod].thirtyseconds) if rod in each.turned else 0.0
    for tap in reversed(each.taps):
        yield lambda rod, tap=tap: tap.value if rod == tap.rod else 0.0  # type: ignore[misc]


def agreed_numbering(task: ClearingTask) -> Numbering:
    """The numbering plans are made in, the same for a drum however it was numbered. Heads that look alike from several sides keep one."""
    left = [(to, {new: rod for rod, new in to.items()}) for to in _numberings(task.layout.count)]
    for feature in _features(task):
        if len(left) == 1:
            break
        values = {rod: feature(rod) for rod in task.layout.all_rods}
        keys = [tuple(values[back[new]] for new in task.layout.all_rods) for _, back in left]
        least = min(keys)
        left = [each for each, key in zip(left, keys, strict=True) if key == least]
    return left[0][0]
