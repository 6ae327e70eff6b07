"""Tools and materials of a plan: what a step takes, and what it takes more where something is found."""

from __future__ import annotations

from collections.abc import Iterable

from drumwork.findings import finding
from drumwork.work.conditions import ALWAYS, All, Any_, Condition, Found
from drumwork.work.words import Point, Text

__all__ = ["every_tool", "tools_for"]


def tools_for(when: Condition, points: Iterable[Point]) -> tuple[Point, ...]:
    """What the findings a settled step asks about take to be put right (findings vocabulary)."""
    asked = (leaf for each in (when, *(point.when for point in points)) for leaf in each.leaves())
    found = dict.fromkeys(leaf for leaf in asked if isinstance(leaf, Found))
    return tuple(Point(tool, leaf) for leaf in found for tool in finding(leaf.finding).tools)


def every_tool(taken: Iterable[tuple[Text, Condition, Condition]]) -> tuple[Point, ...]:
    """Each tool once, in the order it is first taken; under every condition it is taken under."""
    whens: dict[Text, list[Condition]] = {}
    for text, *both in taken:
        left = tuple(each for each in both if each is not ALWAYS)
        when = ALWAYS if not left else left[0] if len(left) == 1 else All(left)
        whens.setdefault(text, []).append(when)
    return tuple(Point(text, _any(found)) for text, found in whens.items())


def _any(found: list[Condition]) -> Condition:
    different = tuple(dict.fromkeys(found))
    return ALWAYS if ALWAYS in different else different[0] if len(different) == 1 else Any_(different)
