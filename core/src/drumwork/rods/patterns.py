"""Orders in which the rods of a head are turned (trade facts P1–P7, common practice)."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from enum import StrEnum

from drumwork.errors import BadPattern
from drumwork.rods.layout import RodLayout

__all__ = ["Pattern", "PatternOrder", "from_slack", "order_rods", "plan_pattern"]


class Pattern(StrEnum):
    """Schools of tightening order."""

    STAR = "star"
    NEIGHBOUR_STAR = "neighbour-star"
    PLUS_CROSS = "plus-cross"
    EVERY_THIRD = "every-third"
    EVERY_SECOND = "every-second"
    ROUND = "round"


@dataclass(frozen=True, slots=True)
class PatternOrder:
    """An order over all rods that are there.

    `reaches_all` tells whether the plain rule alone visits every rod; where it does not, the order has been
    completed by shifting, and `note` says so.
    """

    pattern: Pattern
    rods: tuple[int, ...]
    reaches_all: bool
    note: str


def _nearest(free: list[int], layout: RodLayout, wanted: int) -> int:
    """The free rod nearest to `wanted`, clockwise first."""
    return min(free, key=lambda rod: (layout.distance(rod, wanted), (rod - wanted) % layout.count))


def _across(layout: RodLayout, rod: int) -> int:
    return layout.nth_on(rod, math.ceil(layout.count / 2))


def _star(layout: RodLayout, start: int) -> list[int]:
    """P1: a rod, its opposite, the next clockwise from the first, its opposite …"""
    free = [layout.nth_on(start, step) for step in range(layout.count)]
    order: list[int] = []
    while free:
        order.append(free.pop(0))
        if free:
            order.append(_nearest(free, layout, _across(layout, order[-1])))
            free.remove(order[-1])
    return order


def _neighbour_star(layout: RodLayout, start: int) -> list[int]:
    """P2: a rod, its right-hand neighbour, across, that one's right-hand neighbour, across …"""
    order = [start]
    free = [rod for rod in layout.all_rods if rod != start]
    while free:
        last = order[-1]
        if len(order) % 2 == 1:
            following = min(free, key=lambda rod: (rod - last) % layout.count)
        else:
            following = _nearest(free, layout, _across(layout, last))
        order.append(following)
        free.remove(following)
    return order


def _plus_cross(layout: RodLayout, start: int) -> list[int]:
    """P3, P7: opposite pairs, each next pair as near a right angle to the last as is left."""
    if layout.count % 2:
        return _star(layout, start)
    half = layout.count // 2
    offsets, order = list(range(half)), [0]
    offsets.remove(0)
    while offsets:
        last = order[-1]
        order.append(max(offsets, key=lambda o: (min((o - last) % half, (last - o) % half), -o)))
        offsets.remove(order[-1])
    return [layout.nth_on(start, step) for offset in order for step in (offset, offset + half)]


def _stepping(step: int) -> Callable[[RodLayout, int], list[int]]:
    """P4, P5: every `step`-th rod; where laps close early, start again one rod on."""

    def order(layout: RodLayout, start: int) -> list[int]:
        laps = math.gcd(step, layout.count)
        return [
            layout.nth_on(start, shift + turn * step) for shift in range(laps) for turn in range(layout.count // laps)
        ]

    return order


_RULES: Mapping[Pattern, Callable[[RodLayout, int], list[int]]] = {
    Pattern.STAR: _star,
    Pattern.NEIGHBOUR_STAR: _neighbour_star,
    Pattern.PLUS_CROSS: _plus_cross,
    Pattern.EVERY_THIRD: _stepping(3),
    Pattern.EVERY_SECOND: _stepping(2),
    Pattern.ROUND: _stepping(1),
}


def _explain(pattern: Pattern, count: int) -> tuple[bool, str]:
    """Whether the plain rule reaches every rod, and what to know about it on `count` rods."""
    if pattern is Pattern.EVERY_THIRD and count % 3 == 0:
        return False, (
            f"Every third rod comes back to where it started after {count // 3} rods when there are {count}. "
            f"It is run here as three laps, each started one rod on."
        )
    if pattern is Pattern.EVERY_SECOND and count % 2 == 0:
        return False, f"Every second rod reaches half of {count}; the second lap starts one rod on."
    if pattern is Pattern.PLUS_CROSS and count % 4:
        return True, f"{count} rods have no pairs at right angles; the nearest to it is used."
    if pattern is Pattern.ROUND:
        return True, "Straight round pulls the hoop over from slack. Keep it for reading, not for tightening."
    if count % 2:
        return True, f"With {count} rods none faces another exactly; roughly opposite is good enough."
    return True, ""


def plan_pattern(layout: RodLayout, pattern: Pattern | str, start: int = 1) -> PatternOrder:
    """The order for this head, lost rods left out.

    Raises
    ------
    BadPattern
        if the pattern is unknown.
    BadLayout
        if the starting rod is not there.
    """
    try:
        school = Pattern(pattern)
    except ValueError:
        names = ", ".join(each.value for each in Pattern)
        raise BadPattern(f"There is no pattern “{pattern}”. Choose one of: {names}.", pattern=str(pattern)) from None
    layout.require(start)
    reaches_all, note = _explain(school, layout.count)
    rods = tuple(rod for rod in _RULES[school](layout, start) if rod not in layout.lost)
    return PatternOrder(school, rods, reaches_all, note)


def order_rods(layout: RodLayout, pattern: Pattern | str, start: int | None = None) -> tuple[int, ...]:
    """Only the order, from the first rod that is there unless told otherwise."""
    return plan_pattern(layout, pattern, layout.rods[0] if start is None else start).rods


def from_slack(layout: RodLayout, pattern: Pattern | str) -> tuple[int, ...]:
    """The order for a head without tension: never straight round, which pulls the hoop over (P6, common practice); a star instead."""
    return order_rods(layout, Pattern.STAR if Pattern(pattern) is Pattern.ROUND else pattern)
