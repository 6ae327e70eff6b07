"""Readings that cannot be: a slip of the finger, a point left out, an octave heard for the note. They are asked about, never turned upon.

Rods of one head pull on one film: what stands further from the others than any unevenness brings, or from what the head can have, is
asked about. The figures are our own; how far rods may really stand apart has no published source.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from statistics import median_high, median_low
from typing import Final

from drumwork.rods.clearing.readings import Means

__all__ = ["Misread", "misread"]

APART: Final = 1.4
"""Rods of one head further apart than this ratio of pitch are asked about: nearly twice the pull."""
ABOVE_WANTED: Final = 2.0
"""A whole head so far above what is wanted pulls four times as hard as it should."""
BELOW_WANTED: Final = 0.25
"""So far below it a head still comes up from its first tone."""
FEWEST: Final = 2
"""Others that must be read before a rod is held against them."""
SLIPS: Final = (1.0, 10.0, 0.1, 2.0, 0.5, 100.0, 0.01)
"""A point left out or set wrong; the octave above or below heard for the note."""
NEAR: Final = 1.25
"""What a slip put right must come to, as a ratio, to be offered."""


@dataclass(frozen=True, slots=True)
class Misread:
    """A reading to be asked about: what was read, what the others or the wanted pitch are near, and what it was meant to be, where that
    can be guessed."""

    rod: int
    value: float
    near: float
    by: str
    perhaps: float | None

    @property
    def words(self) -> str:
        """The question, to be answered by three buttons."""
        about = {
            "others": "Its neighbours are near",
            "wanted": "This head is wanted near",
            "before": "It should be near",
        }
        return f"Rod {self.rod}: {_figure(self.value)}? {about[self.by]} {_figure(round(self.near))}."


def misread(
    values: Mapping[int, float],
    wanted: float | None = None,
    foretold: Mapping[int, float] | None = None,
    means: Means = Means.PITCH,
    sure: Iterable[int] = (),
) -> tuple[Misread, ...]:
    """Readings of one round that cannot be, in the order of the rods.

    Parameters
    ----------
    values : hertz, or a gauge's or key's numbers, by rod
    wanted : what all should come to, in the same unit
    foretold : what each rod should read by the plan of the round before
    sure : rods of which somebody said that it is so

    Examples
    --------
    >>> [each.perhaps for each in misread({1: 912.0, 2: 91.0, 3: 91.4, 4: 90.8})]
    [91.2]
    """
    if means is Means.EAR:
        return ()
    power = 1.0 if means is Means.PITCH else 2.0  # a gauge or key reads the pull, and pitch goes with its root
    said, found = set(sure), {}
    for rod, value in values.items():
        others = [each for other, each in values.items() if other != rod and each > 0]
        before = (foretold or {}).get(rod)
        if rod in said or value <= 0 or (before is not None and _within(value, before, APART**power)):
            continue
        held = _held_against(value, others, before, wanted, power)
        if held is not None:
            found[rod] = Misread(rod, value, held[0], held[1], _perhaps(value, held[0]))
    if (
        wanted is not None and len(found) == len(values) > 1
    ):  # two camps: the one that can be where the head is wanted stands
        kept = {rod: each for rod, each in found.items() if not _within(each.value, wanted, APART**power)}
        found = kept or found
    return tuple(found[rod] for rod in sorted(found))


def _held_against(
    value: float, others: list[float], before: float | None, wanted: float | None, power: float
) -> tuple[float, str] | None:
    """What a reading is too far from, and what that is; None where it may be."""
    if len(others) >= FEWEST:
        middle = min(median_low(others), median_high(others), key=lambda each: abs(math.log(each / value)))
        if not _within(value, middle, APART**power):
            return middle, "others"
    elif before is not None:
        return before, "before"
    if wanted is not None and not (BELOW_WANTED**power <= value / wanted <= ABOVE_WANTED**power):
        return wanted, "wanted"
    return None


def _figure(value: float) -> str:
    return f"{value:.2f}".rstrip("0").rstrip(".")


def _within(value: float, near: float, ratio: float) -> bool:
    return 1 / ratio <= value / near <= ratio


def _perhaps(value: float, near: float) -> float | None:
    """The slip put right that comes nearest, where one comes near."""
    best = min((value * each for each in SLIPS), key=lambda each: abs(math.log(each / near)))
    return float(f"{best:.4g}") if _within(best, near, NEAR) else None
