"""Words of a step, as data: plain, or chosen by conditions; with places to fill in."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Generic, TypeVar

from drumwork.work.conditions import ALWAYS, NEVER, Condition, Situation

__all__ = ["Case", "If", "Point", "Text", "settle_points", "settle_text", "settle_those"]


T = TypeVar("T", bound=str)


@dataclass(frozen=True, slots=True)
class If(Generic[T]):
    """A tag, a caution or a tool of drums and ways for which something holds."""

    when: Condition
    what: T


@dataclass(frozen=True, slots=True)
class Case:
    """Words for when something holds; of several the first that holds is said."""

    when: Condition
    text: str


Text = str | tuple[Case, ...]
"""Words, or cases of words. Cases are decided by drum and ways alone. `{side}` and the like are filled in when the plan is made."""


@dataclass(frozen=True, slots=True)
class Point:
    """One thing to look at in a step. A settled point's `when` speaks of findings only."""

    text: Text
    when: Condition = ALWAYS


def settle_those(of: Iterable[T | If[T]], at: Situation) -> tuple[T, ...]:
    """Those that hold for this drum and these ways, in order."""
    return tuple(
        each.what if isinstance(each, If) else each
        for each in of
        if not isinstance(each, If) or each.when.settle(at) is ALWAYS
    )


def settle_text(text: Text, at: Situation, fill: Mapping[str, object]) -> str:
    """The words for this drum and these ways; empty where no case holds."""
    if isinstance(text, str):
        return text.format_map(fill) if "{" in text else text
    chosen = next((case.text for case in text if case.when.settle(at) is ALWAYS), "")
    return chosen.format_map(fill) if "{" in chosen else chosen


def settle_points(points: tuple[Point, ...], at: Situation, fill: Mapping[str, object]) -> tuple[Point, ...]:
    """The points that can come up on this drum, in order."""
    left = []
    for point in points:
        when = point.when.settle(at)
        words = settle_text(point.text, at, fill) if when is not NEVER else ""
        if words:
            left.append(Point(words, when))
    return tuple(left)
