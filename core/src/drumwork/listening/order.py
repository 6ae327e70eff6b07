"""A rod missed, tapped twice or out of turn: which tap of a round belongs to which rod.

A round is tapped in a known order, but hands slip. The pair of an uneven head writes the angle of every tap into its pitch and into the strengths of its
two partials (`round`), and after a turn the clearing foretells every rod's reading. Each way the round may have gone is tried: how well the taps
then lie on one curve, and agree with what was foretold, against how seldom hands slip so.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from enum import StrEnum
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.errors import TooFewReadings
from drumwork.listening.round import HeardRod, blend_of_pair, pair_of
from drumwork.quantities import Interval
from drumwork.rods.layout import RodLayout

__all__ = ["Foretold", "OrderKind", "TapOrder", "spot_order"]

Array = NDArray[np.float64]

FEWEST_TAPS: Final = 4
MOST_TAPS: Final = 80
NOISE_CENTS: Final = 0.9
SHARE_NOISE: Final = 0.07  # of the split: a hand taps a little beside the rod, which the pair's strengths show
HEAVY_TAILS: Final = 4.0  # degrees of freedom of Student's t: a lopsided tap must not decide alone
ITERATIONS: Final = 5
TELLING: Final = 20.0  # how much better than the round as it was asked for
ALIKE: Final = 4.0
ODDS: Final = {"missed": 0.02, "doubled": 0.02, "both": 0.002, "swapped": 0.005, "went on": 0.02, "each": 0.5}
"""How often it happens in a round, beforehand; our own figures."""


class OrderKind(StrEnum):
    """How the round was tapped."""

    AS_ASKED = "as-asked"
    MISSED = "missed"
    DOUBLED = "doubled"
    BOTH = "missed-and-doubled"
    SWAPPED = "swapped"
    WENT_ON = "went-on"
    EACH_AGAIN = "each-again"


@dataclass(frozen=True, slots=True)
class Foretold:
    """What a rod is expected to read, and one standard deviation of that in cents."""

    hz: float
    sd_cents: float


@dataclass(frozen=True, slots=True)
class TapOrder:
    """How a round was tapped.

    Attributes
    ----------
    rods : the rod of each tap, in the order of the taps
    missing : rods of the round that have no tap
    certain : False where another way explains the taps about as well
    words : what happened and what follows; empty when all is as asked
    """

    kind: OrderKind
    rods: tuple[int, ...]
    missing: tuple[int, ...]
    certain: bool
    words: str

    @property
    def amiss(self) -> bool:
        return self.kind is not OrderKind.AS_ASKED


@dataclass(frozen=True, slots=True)
class _Story:
    kind: OrderKind
    places: tuple[int, ...]  # of each tap, in the order asked
    about: tuple[int, ...]  # places the words name
    log_odds: float


def _path(n: int, taps: int, missed: int | None = None, doubled: int | None = None) -> tuple[int, ...]:
    """Places of so many taps along the round and on into the next."""
    once = [place for place in range(n) if place != missed for _ in range(2 if place == doubled else 1)]
    whole = once + [place % n for place in range(taps)]
    return tuple(whole[:taps])


def _each(n: int, times: int) -> tuple[int, ...]:
    return tuple(place for place in range(n) for _ in range(times))


def _stories(n: int, taps: int) -> Iterator[_Story]:
    plain = _path(n, taps)
    yield _Story(
        OrderKind.AS_ASKED if taps <= n else OrderKind.WENT_ON,
        plain,
        (),
        0.0 if taps <= n else math.log(ODDS["went on"]),
    )
    if taps > n and taps % n == 0:
        yield _Story(OrderKind.EACH_AGAIN, _each(n, taps // n), (), math.log(ODDS["each"]))
        return
    for place in range(min(n, taps - 1)):
        yield _Story(OrderKind.DOUBLED, _path(n, taps, doubled=place), (place,), math.log(ODDS["doubled"] / n))
    if taps > n:
        return
    for place in range(min(n, taps)):
        yield _Story(OrderKind.MISSED, _path(n, taps, missed=place), (place,), math.log(ODDS["missed"] / n))
        for again in range(min(n, taps - 1)):
            if again != place:
                path = _path(n, taps, missed=place, doubled=again)
                yield _Story(OrderKind.BOTH, path, (place, again), math.log(ODDS["both"] / n**2))
    for one in range(taps):
        for other in range(one + 1, taps):
            path = tuple(other if p == one else one if p == other else p for p in plain)
            yield _Story(OrderKind.SWAPPED, path, (one, other), math.log(2 * ODDS["swapped"] / (n * (n - 1))))


def _off_curve(curve: Array, squares: Array, noise: float) -> Array:
    """(stories, taps) how far the taps lie off one curve of two lobes, its three unknowns fitted to each story. `curve` is (stories, taps, 3)."""
    weight = np.ones(curve.shape[:2])
    off = np.zeros_like(weight)
    for _ in range(ITERATIONS):
        weighed = curve * weight[..., None]
        normal = np.einsum("ski,skj->sij", weighed, curve) + 1e-9 * np.eye(3)
        solved = np.linalg.solve(normal, np.einsum("ski,k->si", weighed, squares)[..., None])[..., 0]
        off = np.einsum("ski,si->sk", curve, solved) - squares
        weight = 1 / (1 + (off / noise) ** 2 / HEAVY_TAILS)
    return off


def _noise_left(off: Array, noise: float) -> float:
    """The noise as expected, or as it must be where no story makes the taps lie better: a head is not a simple pair alone."""
    unknowns = 3
    rms = np.sqrt((off**2).sum(axis=1) / max(1, off.shape[1] - unknowns))
    return max(noise, float(rms.min()))


def _heavy(off: Array) -> Array:
    """Log-likelihood of deviations in standard deviations, summed over the last axis."""
    return np.asarray(-(HEAVY_TAILS + 1) / 2 * np.log1p(off**2 / HEAVY_TAILS).sum(axis=-1))


def _off_foretold(places: NDArray[np.intp], cents: Array, foretold: Array, sd: Array) -> Array:
    """(stories,) log-likelihood of the taps against what was foretold; a step of the whole head together is allowed for."""
    off, spread = cents[None, :] - foretold[places], sd[places]
    middle = np.median(off, axis=1, keepdims=True)
    return _heavy((off - middle) / spread)


def spot_order(
    layout: RodLayout,
    order: Sequence[int],
    heard: Sequence[HeardRod],
    foretold: Mapping[int, Foretold] | None = None,
) -> TapOrder:
    """How a round was tapped.

    Parameters
    ----------
    order : rods as they were asked for
    heard : the taps, in time; there may be fewer or more than rods
    foretold : what each rod should read, where every one is known

    Raises
    ------
    TooFewReadings
        with fewer than four taps, or more than eighty.
    """
    if not FEWEST_TAPS <= len(heard) <= MOST_TAPS:
        raise TooFewReadings(f"A round has {FEWEST_TAPS} to {MOST_TAPS} taps.", heard=len(heard))
    stories = list(_stories(len(order), len(heard)))
    places = np.array([story.places for story in stories])
    score = np.array([story.log_odds for story in stories])
    middle = float(np.median([each.hz for each in heard]))
    low, high = pair_of(heard, middle)
    blends = np.array([1731 * (blend_of_pair(each, low, high) / middle**2 - 1) / 2 for each in heard])
    noise = math.hypot(NOISE_CENTS, SHARE_NOISE * Interval.from_ratio(high / low).cents)
    angles = np.array([layout.angle_rad(rod) for rod in order])[places]
    curve = np.stack([np.ones_like(angles), np.cos(2 * angles), np.sin(2 * angles)], axis=-1)
    off = _off_curve(curve, blends, noise)
    noise = _noise_left(off, noise)
    score += _heavy(off / noise)
    if foretold and all(rod in foretold for rod in order):
        cents = np.array([Interval.from_ratio(foretold[rod].hz / middle).cents for rod in order])
        sd = np.array([math.hypot(foretold[rod].sd_cents, noise) for rod in order])
        score += _off_foretold(places, blends, cents, sd)
    return _told(stories, score, order)


def _told(stories: Sequence[_Story], score: Array, order: Sequence[int]) -> TapOrder:
    best = int(np.argmax(score))
    if stories[0].kind is OrderKind.AS_ASKED and score[best] - score[0] < math.log(TELLING):
        best = 0
    story = stories[best]
    alike = [
        other
        for other, value in zip(stories, score, strict=True)
        if value > score[best] - math.log(ALIKE) and other.places != story.places
    ]
    rods = tuple(order[place] for place in story.places)
    missing = tuple(rod for rod in order if rod not in rods)
    certain = not alike or story.kind is OrderKind.AS_ASKED
    return TapOrder(story.kind, rods, missing, certain, _words(story, order, missing, certain))


def _words(story: _Story, order: Sequence[int], missing: Sequence[int], certain: bool) -> str:
    about = [str(order[place]) for place in story.about]
    match story.kind:
        case OrderKind.AS_ASKED:
            return ""
        case OrderKind.MISSED:
            said = f"rod {about[0]} was missed, and each reading after it belongs one rod further on"
        case OrderKind.DOUBLED:
            said = f"rod {about[0]} was tapped twice, and each reading after it belongs one rod back"
        case OrderKind.BOTH:
            said = (
                f"rod {about[0]} was missed and rod {about[1]} tapped twice; the readings between belong one rod over"
            )
        case OrderKind.SWAPPED:
            said = f"rods {about[0]} and {about[1]} were tapped in each other’s place"
        case OrderKind.WENT_ON:
            return "There are more taps than rods; the last ones are read as a second time round."
        case OrderKind.EACH_AGAIN:
            return "There are several taps for each rod; each rod’s are read together."
    again = f" Tap {' and '.join(f'rod {rod}' for rod in missing)} once more." if missing else ""
    doubt = "" if certain else " Another place would explain it about as well: look at the readings before you agree."
    return f"It sounds as if {said}.{again}{doubt}"
