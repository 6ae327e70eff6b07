"""What a drum's record says of a head before anyone looks: how far it falls, and which rods are turned again and again."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from drumwork.quantities import Interval

__all__ = ["HeadVisit", "falls", "turned_again"]

_PLAIN_32: Final = 4
"""An eighth of a turn; less is touching up. Our own, no source."""


@dataclass(frozen=True, slots=True)
class HeadVisit:
    """One visit to a head: what it was left at before and found at, in hertz, and what its rods were turned in thirty-seconds."""

    left_hz: float | None
    found_hz: float | None
    turned_32: tuple[tuple[int, int], ...] = ()


def falls(visits: Iterable[HeadVisit]) -> list[float]:
    """How many cents the head had fallen at each visit that tells it; less than nought where it had risen."""
    return [
        -Interval.from_ratio(each.found_hz / each.left_hz).cents for each in visits if each.left_hz and each.found_hz
    ]


def turned_again(visits: Sequence[HeadVisit]) -> int:
    """At how many visits in a row, up to the last, one and the same rod was turned plainly."""
    rods: set[int] | None = None
    count = 0
    for visit in reversed(visits):
        turned = {rod for rod, amount in visit.turned_32 if abs(amount) >= _PLAIN_32}
        rods = turned if rods is None else rods & turned
        if not rods:
            break
        count += 1
    return count
