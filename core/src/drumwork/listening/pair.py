"""What a round of taps says to the clearing: one pair of frequencies for the whole head where the partials allow it, else each rod's own reading.

An uneven head splits the (1,1) pair in two, with a fixed axis. Its two frequencies are the whole head's: pooled over the rods they are known far better than
any one reading. A rod at angle θ moves the lower one with cos²(θ - axis) and the upper with sin²; whether a partial's amplitude goes with that or with its
square depends on how the drum is heard, so both are tried. Rods that read a blend of the two already are kept as they are.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.round import HeardRod
from drumwork.quantities import Pitch, ratio_of
from drumwork.rods.clearing import PairHeard, Round
from drumwork.rods.layout import RodLayout

__all__ = ["common_pair", "round_of", "tapped_hz"]

Array = NDArray[np.float64]

BUNCHED: Final = 5.0
NO_BLEND: Final = 1.7
"""Readings gather in two bunches from so many times their scatter apart, where a blend leaves so many times more unexplained; our own figures."""
STRONGEST: Final = 8.0
"""The stronger of two takes all: as if amplitudes went with a high power."""
FEWEST_RODS: Final = 4
AT_BOTH: Final = 2
"""Rods at which both frequencies ring; else they may be two rods' own."""
NEAR_RATIO: Final = ratio_of(60.0)
"""Partials belong to the pair within what the rods read, and as much beside as they read apart, but no less than this."""
FAINT: Final = 0.05
SPLIT_IN_TWO: Final = 3.5
"""Two frequencies count as two from this many times the scatter about each; our own figure."""
MOST_SCATTER: Final = 0.012
LEAST_SD: Final = 3e-4
SHARE_SD: Final = 0.12
MISFIT: Final = 1.5
ONE_OF_TWO: Final = 0.15
"""A reading this near one of two partials, against their distance, is that one and no blend."""
EXPONENTS: Final = (0.5, 1.0, 2.0)
AXES: Final = 90
LEAST_AXIS_SD: Final = 0.02
ITERATIONS: Final = 8


@dataclass(frozen=True, slots=True)
class _Points:
    """Partials near the pair: of which rod, how high, how loud against the loudest of its rod."""

    rod: NDArray[np.intp]
    hz: Array
    loud: Array


def _points(rods: list[HeardRod]) -> _Points:
    read = [each.hz for each in rods]
    beside = max(NEAR_RATIO, max(read) / min(read))
    found = []
    for place, each in enumerate(rods):
        near = [(hz, amp) for hz, amp in each.partials if min(read) / beside < hz < max(read) * beside and amp > 0]
        most = max((amp for _, amp in near), default=1.0)
        found += [(place, hz, amp / most) for hz, amp in near if amp >= FAINT * most]
    rod, hz, loud = zip(*found, strict=True) if found else ((), (), ())
    return _Points(np.array(rod, dtype=np.intp), np.array(hz, dtype=np.float64), np.array(loud, dtype=np.float64))


@dataclass(frozen=True, slots=True)
class _Two:
    """Two frequencies that partials or readings gather about, which belong to the lower, and their scatter about either, as a ratio."""

    low: float
    high: float
    lower: NDArray[np.bool_]
    scatter: float

    @property
    def counts(self) -> tuple[int, int]:
        return int(self.lower.sum()), int((~self.lower).sum())

    def stand_apart(self, times: float) -> bool:
        """Whether they are two, and not one with its errors: both heard twice, tight, and so many times their scatter apart."""
        apart = math.log(self.high / self.low)
        return min(self.counts) >= 2 and self.scatter <= MOST_SCATTER and apart >= times * self.scatter

    def pair(self, axis: tuple[float, float]) -> PairHeard:
        lower_sd, upper_sd = (max(self.scatter / math.sqrt(count), LEAST_SD) for count in self.counts)
        return PairHeard(self.low, self.high, axis[0], lower_sd, upper_sd, axis[1])


def _two(hz: Array, weight: Array) -> _Two | None:
    """Weighed two-means from the outermost inward; the loud ones tell most. None where all lie together."""
    low, high = (float(each) for each in np.percentile(hz, [10, 90]))
    lower = np.abs(hz - low) <= np.abs(hz - high)
    for _ in range(ITERATIONS):
        if lower.all() or not lower.any():
            return None
        low, high = (float(np.average(hz[side], weights=weight[side])) for side in (lower, ~lower))
        again = np.abs(hz - low) <= np.abs(hz - high)
        if (again == lower).all():
            break
        lower = again
    off = np.log(hz / np.where(lower, low, high))
    scatter = math.sqrt(float((off**2).sum()) / max(len(off) - 2, 1))
    return _Two(low, high, lower, max(scatter, LEAST_SD))


def _shares(points: _Points, lower: NDArray[np.bool_], count: int) -> Array:
    """(n,) how much of each rod's ring is the lower frequency's; nan where nothing of either was heard."""
    low, high = (np.bincount(points.rod[side], weights=points.loud[side], minlength=count) for side in (lower, ~lower))
    with np.errstate(invalid="ignore"):
        return np.asarray(low / (low + high))


def _axis(angles: Array, shares: Array, exponents: tuple[float, ...]) -> tuple[float, float] | None:
    """Angle of the lower frequency's antinode and its standard deviation, whatever the amplitudes go with; None where no axis fits."""
    axes = np.pi * np.arange(AXES) / AXES
    moved = np.clip(np.cos(angles - axes[:, None]) ** 2, 1e-9, 1 - 1e-9)
    off = []
    for exponent in exponents:
        told = moved**exponent / (moved**exponent + (1 - moved) ** exponent)
        off.append(np.nansum(np.minimum(((shares - told) / SHARE_SD) ** 2, 9.0), axis=1))
    surface = np.array(off)
    if surface.min() > MISFIT * np.isfinite(shares).sum():
        return None
    weight = np.exp(-(surface - surface.min()) / 2).sum(axis=0)
    mean = complex((weight * np.exp(2j * axes)).sum() / weight.sum())
    sd = math.sqrt(max(-2 * math.log(max(abs(mean), 1e-6)), 0.0)) / 2
    return float(np.angle(mean) / 2 % np.pi), max(sd, LEAST_AXIS_SD)


def _told_by_readings(angles: Array, hz: Array) -> PairHeard | None:
    """The pair where rods were read at its one or its other frequency, by the stronger of them: readings in two bunches that no blend explains."""
    two = _two(hz, np.ones(len(hz)))
    if two is None or not two.stand_apart(BUNCHED):
        return None
    waves = np.stack([np.ones_like(angles), np.cos(2 * angles), np.sin(2 * angles)], axis=1)
    blend, *_ = np.linalg.lstsq(waves, 2 * np.log(hz), rcond=None)
    unblended = math.sqrt(float(((2 * np.log(hz) - waves @ blend) ** 2).sum()) / max(len(hz) - 3, 1)) / 2
    if unblended < NO_BLEND * two.scatter:
        return None
    axis = _axis(angles, two.lower.astype(np.float64), (STRONGEST,))
    return two.pair(axis) if axis else None


def common_pair(layout: RodLayout, heard: Mapping[int, HeardRod]) -> PairHeard | None:
    """The pair that rings at every rod of a head, told by the partials of all; None where they gather about no two frequencies."""
    rods = [rod for rod in layout.rods if rod in heard]
    if len(rods) < FEWEST_RODS:
        return None
    angles = np.array([layout.angle_rad(rod) for rod in rods])
    if not any(heard[rod].partials for rod in rods):
        return _told_by_readings(angles, np.array([heard[rod].hz for rod in rods]))
    points = _points([heard[rod] for rod in rods])
    two = _two(points.hz, points.loud) if len(points.hz) >= FEWEST_RODS else None
    if two is None or not two.stand_apart(SPLIT_IN_TWO):
        return None
    if len(set(points.rod[two.lower]) & set(points.rod[~two.lower])) < AT_BOTH:
        return None
    axis = _axis(angles, _shares(points, two.lower, len(rods)), EXPONENTS)
    return two.pair(axis) if axis else None


def _blends(layout: RodLayout, heard: Mapping[int, HeardRod], pair: PairHeard) -> bool:
    """Whether the rods' own readings lie on the blend of the pair rather than on the one or the other of it."""
    near, blend = 0.0, 0.0
    for rod, each in heard.items():
        smooth = pair.blend_hz(layout.angle_rad(rod))
        near += min(abs(each.hz - pair.lower_hz), abs(each.hz - pair.upper_hz)) ** 2
        blend += (each.hz - smooth) ** 2
    return blend < near


def tapped_hz(rod: HeardRod) -> float:
    """A rod's own blend where it read one of two partials of its own; what it read where that lies between them already."""
    near = [(hz, amp) for hz, amp in rod.partials if rod.hz / NEAR_RATIO < hz < rod.hz * NEAR_RATIO and amp > 0]
    most = max((amp for _, amp in near), default=0.0)
    near = [(hz, amp) for hz, amp in near if amp >= FAINT * most]
    if len(near) < 2:
        return rod.hz
    apart = max(hz for hz, _ in near) - min(hz for hz, _ in near)
    if min(abs(rod.hz - hz) for hz, _ in near) > ONE_OF_TWO * apart:
        return rod.hz
    return math.sqrt(sum(amp * hz**2 for hz, amp in near) / sum(amp for _, amp in near))


def round_of(layout: RodLayout, heard: Mapping[int, HeardRod]) -> Round:
    """A round as the clearing takes it, of (hz, amplitude) partials where a rod has them.

    Where a common pair is found, rods that read one or the other of it are given the blend they hear, and say nothing of their own. A rod without
    partials, or far off the pair, keeps what was read.
    """
    plain = {rod: Pitch(each.hz) for rod, each in heard.items()}
    pair = common_pair(layout, heard)
    if pair is None:
        return Round({rod: Pitch(tapped_hz(each)) for rod, each in heard.items()})
    if _blends(layout, heard, pair):
        return Round(plain, pair=pair)
    partials = any(each.partials for each in heard.values())
    told = frozenset(rod for rod, each in heard.items() if pair.spans(each.hz) and (each.partials or not partials))
    smooth = {rod: Pitch(pair.blend_hz(layout.angle_rad(rod))) for rod in told}
    return Round(plain | smooth, pair=pair, worked_out=told)
