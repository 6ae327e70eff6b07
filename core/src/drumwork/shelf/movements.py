"""Movements: how things come to the shelf and leave it. A count is the sum of its movements and never goes below nought unasked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

from drumwork.errors import BadQuantity, DrumworkError

__all__ = ["EXPLAINED", "MOST", "WAYS", "BelowNought", "Move", "Way", "Why", "moves"]


class Why(StrEnum):
    """Why a count changed."""

    BOUGHT = "bought"
    BROUGHT_BACK = "brought-back"
    FITTED = "fitted"
    LENT = "lent"
    WRITTEN_OFF = "written-off"
    SENT_BACK = "sent-back"
    COUNTED = "counted"
    MOVED_IN = "moved-in"
    MOVED_OUT = "moved-out"


@dataclass(frozen=True, slots=True)
class Way:
    """Which way things go: `sign` 1 onto the shelf, -1 off it, 0 where the number is the count itself."""

    sign: int
    words: str


WAYS: Final[Mapping[Why, Way]] = {
    Why.BOUGHT: Way(1, "bought"),
    Why.BROUGHT_BACK: Way(1, "brought back"),
    Why.FITTED: Way(-1, "fitted"),
    Why.LENT: Way(-1, "lent"),
    Why.WRITTEN_OFF: Way(-1, "written off"),
    Why.SENT_BACK: Way(-1, "to go back where it was bought"),
    Why.COUNTED: Way(0, "counted"),
    Why.MOVED_IN: Way(1, "put here"),
    Why.MOVED_OUT: Way(-1, "put elsewhere"),
}
EXPLAINED: Final[Mapping[str, tuple[Why, str]]] = {
    "bought": (Why.BOUGHT, "bought, and not entered before"),
    "miscounted": (Why.COUNTED, "there were more than the count said"),
}
"""What may have happened when more is taken than the count says, and the movement that puts it right."""
MOST: Final = 100_000


class BelowNought(DrumworkError):
    """More would leave the shelf than the count says is there; somebody has to say what happened."""

    code = "below_nought"


@dataclass(frozen=True, slots=True)
class Move:
    """One movement: by how much the count changes, and what it is after."""

    why: Why
    delta: int
    after: int
    words: str = ""


def _one(count: int, why: Why, number: int, words: str) -> Move:
    sign = WAYS[why].sign
    delta = sign * number if sign else number - count
    return Move(why, delta, count + delta, words)


def moves(count: int, why: Why, number: int, explained: str = "", words: str = "") -> tuple[Move, ...]:
    """The movements one act comes to: one, or two where it had to be explained why more was there than counted.

    `number` is how many moved; for COUNTED how many are there.

    Raises
    ------
    BadQuantity
        a number that moves nothing, or is absurd.
    BelowNought
        more leaves than is there, and nobody said what happened; its fields are `count` and `number`.

    >>> [each.after for each in moves(2, Why.FITTED, 1)]
    [1]
    >>> [(each.why.value, each.delta) for each in moves(0, Why.FITTED, 1, "bought")]
    [('bought', 1), ('fitted', -1)]
    """
    if not 0 <= number <= MOST or (number == 0 and WAYS[why].sign):
        raise BadQuantity("Say how many: a whole number from 1 up.", number=number)
    if explained and explained not in EXPLAINED:
        raise BadQuantity(f"Say what happened: {' or '.join(EXPLAINED)}.", explained=explained)
    lacking = number - count if WAYS[why].sign < 0 else 0
    if lacking <= 0:
        return (_one(count, why, number, words),)
    if not explained:
        there = "none is" if count == 0 else "one is" if count == 1 else f"{count} are"
        raise BelowNought(
            f"By the count {there} there, and {number} would leave. What happened? Some bought and not entered, or miscounted?",
            count=count,
            number=number,
        )
    before, said = EXPLAINED[explained]
    first = _one(count, before, lacking if WAYS[before].sign else number, said)
    return first, _one(first.after, why, number, words)
