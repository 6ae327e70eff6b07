"""Passes: the same small turn at each rod, in an order, from large to small.

Figures are common practice, by their ids in the trade notes; none has a published source.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.errors import BadQuantity
from drumwork.quantities import Turns
from drumwork.quantities.thread import USUAL_THREAD, thread_pitch_m
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, order_rods

__all__ = [
    "PassPlan", "slackening_passes", "snare_side_passes", "snare_side_turns", "tightening_passes", "usual_bed", "wrinkle_passes",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class PassPlan:
    """One pass: the same turn for every rod named, in order. `until` is set where a pass is repeated until something shows."""

    each: Turns
    order: tuple[int, ...]
    until: str = ""


_SIZES: Final = tuple(
    Turns.of(1, part) for part in (1, 2, 4, 8, 16, 32)
)  # P10: full, half, quarter, eighth, then the finest
_QUARTER: Final = Turns.of(1, 4)
_SNARE_SIDE: Final = Turns.of(3, 2)  # P12, F5: 1½ to 2 turns
_HALF: Final = Turns.of(1, 2)
_WRINKLE: Final = Turns.of(-1, 16)
"""Our own figure, from memory: an eighth down, a sixteenth up."""


def tightening_passes(order: Sequence[int], total: Turns, largest: Turns = _HALF) -> tuple[PassPlan, ...]:
    """Passes that come to `total` at every rod: large first, each size at most as large as what is left, small ones last (P10).

    Raises
    ------
    BadQuantity
        for a total that is not an upward one, or beyond eight turns (P15: seven to eight close up a loose drum).
    """
    if not 0 < total.thirtyseconds <= 8 * 32:
        raise BadQuantity("Tightening takes more than nothing and at most eight turns.", turns=total.words())
    left, found = total.thirtyseconds, []
    for size in _SIZES:
        while size.thirtyseconds <= min(left, largest.thirtyseconds):
            found.append(PassPlan(size, tuple(order)))
            left -= size.thirtyseconds
    return tuple(found)


def slackening_passes(order: Sequence[int], over_zero: Turns) -> tuple[PassPlan, ...]:
    """Even rounds down to zero (P11): half turns, the last half turn by quarters, never more than the head has over zero, never one side first.

    >>> [each.each.words() for each in slackening_passes((1, 3, 2, 4), Turns.of(3, 2))]
    ['down 1/2', 'down 1/2', 'down 1/4', 'down 1/4']
    """
    left, found = over_zero.thirtyseconds, []
    while left > 0:
        size = _HALF if left - _HALF.thirtyseconds >= _HALF.thirtyseconds else _QUARTER
        found.append(PassPlan(-size, tuple(order)))
        left -= size.thirtyseconds
    return tuple(found)


def snare_side_turns(thread: str = "") -> Turns:
    """Turns from finger-tight on a snare side: 1½ on the usual thread (P12, F5), more on a finer one for the same pull, in half turns.

    The hoop comes down by pitch times turns, so turns go as one over the pitch. Not more than four, where the thread is not the reason.

    >>> snare_side_turns("12-24").words(), snare_side_turns("M5 x 0.5").words()
    ('up 1 1/2', 'up 3 1/2')
    """
    try:
        finer = thread_pitch_m(USUAL_THREAD) / thread_pitch_m(thread or USUAL_THREAD)
    except BadQuantity:  # written in a way the core does not know
        finer = 1.0
    halves = math.ceil(round(2 * float(_SNARE_SIDE.fraction) * finer, 2))
    return Turns.of(min(8, max(3, halves)), 2)


def usual_bed(layout: RodLayout) -> frozenset[int]:
    """The rods beside a bed that runs a quarter round from the badge, where most strainers sit (common practice, no source)."""
    first = max(1, round(layout.count / 4))
    pairs = (first, first + 1, first + layout.count // 2, first + 1 + layout.count // 2)
    return frozenset((rod - 1) % layout.count + 1 for rod in pairs)


def snare_side_passes(
    layout: RodLayout, pattern: Pattern = Pattern.STAR, total: Turns = _SNARE_SIDE
) -> tuple[PassPlan, ...]:
    """Snare side from finger-tight: half turns away from the bed first (P12: 1½ to 2 turns), the rods beside it last and only until
    the ripple just goes (N9: creases there are expected, and people over-tighten them).

    Raises
    ------
    BadQuantity
        when the layout does not say which rods stand beside the bed.
    """
    if not layout.beside_bed:
        raise BadQuantity("Say which rods stand beside the snare bed first.")
    order = order_rods(layout, pattern)
    away = [rod for rod in order if rod not in layout.beside_bed]
    beside = tuple(rod for rod in order if rod in layout.beside_bed)
    ripple = PassPlan(_QUARTER, beside, "the ripple beside the bed just goes")
    return (*tightening_passes(away, total), ripple)


def wrinkle_passes(order: Sequence[int]) -> tuple[PassPlan, ...]:
    """Lowest clean pitch (P14), from a head that resonates: palm on the middle, and each rod by itself is eased until its wrinkle shows and
    brought up until it just goes, before the next is touched. What is left of it counts as a sixteenth down."""
    return (PassPlan(_WRINKLE, tuple(order), "its wrinkle has shown and just gone"),)
