"""What speaks for and against each partial of a tap being of the (1,1) pair, as numbers.

Every partial in turn is taken for the pair, and what the others then would have to be is measured: members of a film's family above it, at most one drum's
own note (0,1), which dies faster, strangers, things below it where a film has nothing else. How much each number weighs is not decided here but fitted
(`listening.weights`).

References
----------
Ratios of an ideal film: Fletcher & Rossing, *The Physics of Musical Instruments*, ch. 3; DLMF §10.21. The air that moves along weighs less on the higher
modes (`drumwork.membrane.modes`), so that the family lies wider the more it weighs.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.listening.around import Around, Other, place_of_note, ways
from drumwork.listening.partials import Partial
from drumwork.sources.bessel import BESSEL_ZEROS

__all__ = ["OWN_LOG", "TRAITS", "Told", "Weighed", "belongs", "note_of", "weigh"]

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]

MODES: Final = ((2, 1), (0, 2), (3, 1), (1, 2), (4, 1), (2, 2), (0, 3))
AIR_WEIGHTS: Final = (0.06, 0.25, 0.5, 0.8)
"""Weight of the air that moves with the (1,1) mode against that of the film: little on a small thick head, much on a large thin one."""
AIR_LOG_SD: Final = 0.5
AIR_TELLS: Final = 0.3
"""Of a partial, where the film is known: how much better a family must fit with another weight of air, a standard deviation and a half from the likely one."""
NEAR_LOG: Final = 0.025
OWN_LOG: Final = 0.06  # the pair's other half
SILENT_DB: Final = 40.0  # so far under the strongest a partial tells nothing
STRONG_DB: Final = 26.0
SLOWEST_DB_S: Final = 2.0
NOTE: Final = (0.42, 1.28)
"""Where the (0,1) may lie against the pair: lowest over an open drum, highest where the other head is held and leaks."""
NOTE_APART_LOG: Final = 0.02
NOTE_DIES_LOG: Final = 0.65  # about twice as fast as the pair
NOTE_DIES_SD: Final = (0.45, 0.7)  # slower, faster
NOTE_PER_DB: Final = 0.08
NOTE_LEAST: Final = -4.5
NOTE_ASTRAY: Final = 3.0  # standard deviations from where it should lie; beyond, it is no less likely
THE_OTHER_LOG: Final = 0.02
HIGHEST_LOG: Final = 0.95
GAP_LOG: Final = 0.24  # a film has nothing between its pair and its (2,1)
SECOND_LOG: Final = (0.24, 0.36)  # where the (2,1) lies
SIZE_LOG_SD: Final = 0.38
HEAVY: Final = 4.0  # degrees of freedom of Student's t
FARTHEST_CENTS: Final = 400.0
EXPECT_CENTS: Final = 60.0
SAME_LOG: Final = 0.012
BESIDE_LOG: Final = 0.05
TRAITS: Final = (
    "level", "level²", "family", "family’s share", "below", "in the gap", "strangers", "(2,1) is there", "outlasted", "outlasted²",
    "has a note", "note fits", "note’s level", "note’s place", "note’s place²", "family dies sooner", "twin",
    "size", "off the expected²", "off the expected", "is the centre", "beside the centre", "centre out of place", "centre’s place",
    "centre’s place²", "outlasts the centre",
    "note where it should be", "the loudest stranger", "is the other head’s",
)  # fmt: skip
"""What each column of `Weighed.traits` is."""


def _loaded(mode: tuple[int, int], weight: float) -> float:
    """Where a mode lies above the (1,1), air weighing less on the higher one (`drumwork.membrane.modes`)."""
    ideal = BESSEL_ZEROS[mode] / BESSEL_ZEROS[1, 1]
    return ideal * math.sqrt((1 + weight) / (1 + weight / ideal))


FAMILIES: Final = np.log([[_loaded(mode, weight) for mode in MODES] for weight in AIR_WEIGHTS])


@dataclass(frozen=True, slots=True)
class Told:
    """What is known beforehand, each in hertz where it is: what it should read, what such a drum usually reads, and its note in the middle; and the drum
    round the head."""

    expect_hz: float | None = None
    usual_hz: float | None = None
    centre_hz: float | None = None
    drum: Around | None = None


@dataclass(frozen=True, slots=True)
class Weighed:
    """Every partial taken for the pair under every way the other head may be kept.

    Attributes
    ----------
    traits : (h, n, len(TRAITS))
    often : (h,) logarithm of how often the other head is kept so
    """

    traits: Array
    often: Array

    def chances(self, weights: Array) -> Array:
        """(n,) the chance of each partial to be of the pair."""
        score = self.traits @ weights + self.often[:, None]
        odds = np.exp(score - score.max()).sum(axis=0)
        return np.asarray(odds / odds.sum())


@dataclass(frozen=True, slots=True)
class _Seen:
    """The partials as arrays (n,), and each against each (n, n): row the one taken for the pair, column the other."""

    hz: Array
    level: Array
    decay: Array
    tells: Array  # 0 to 1, by its level
    above: Array  # log of the other's pitch over the pair's
    sooner: Array  # log of the other's decay over the pair's
    own: Mask

    @classmethod
    def of(cls, partials: Sequence[Partial]) -> _Seen:
        hz, level, decay = np.array([(each.hz, each.level_db, each.decay_db_s) for each in partials]).T
        decay = np.maximum(decay, SLOWEST_DB_S)
        above = np.log(hz[None, :] / hz[:, None])
        sooner = np.log(decay[None, :] / decay[:, None])
        tells = np.clip(1 + level / SILENT_DB, 0, 1)
        return cls(hz, level, decay, tells, above, sooner, np.abs(above) < OWN_LOG)


@dataclass(frozen=True, slots=True)
class _Note:
    """For each partial taken for the pair: which other is most likely the drum's note, whether one is, and how well it fits by level and decay, and by
    where it should lie."""

    which: NDArray[np.intp]
    there: Mask
    fits: Array
    placed: Array


def _notes(seen: _Seen, drum: Around | None, other: Other) -> _Note:
    could = (seen.above > math.log(NOTE[0])) & (seen.above < math.log(NOTE[1])) & (np.abs(seen.above) > NOTE_APART_LOG)
    off = seen.sooner - NOTE_DIES_LOG
    dies = np.maximum(-0.5 * (off / np.where(off < 0, *NOTE_DIES_SD)) ** 2, -6.0)
    fits = np.where(could, NOTE_PER_DB * seen.level[None, :] + dies, -np.inf)
    placed = np.zeros_like(fits)
    if drum is not None:
        likely, sd = place_of_note(drum, other, seen.hz)
        astray = np.minimum(np.abs(seen.above - likely[:, None]) / sd[:, None], NOTE_ASTRAY)
        placed = -0.5 * astray**2
    row, which = np.arange(len(seen.hz)), (fits + placed).argmax(axis=1)
    best = fits[row, which]
    there = best > NOTE_LEAST
    return _Note(which, there, np.where(there, best, 0.0), np.where(there, placed[row, which], 0.0))


def _airs(drum: Around | None) -> Array:
    """(air,) what speaks against each weight of the air that moves along, where the film is known."""
    if drum is None or drum.film_kg_per_m2 is None:
        return np.zeros(len(AIR_WEIGHTS))
    weighs = drum.loaded((1, 1)) / drum.film_kg_per_m2 - 1
    return np.asarray((np.log(np.array(AIR_WEIGHTS) / weighs) / AIR_LOG_SD) ** 2 / 2)


def _family(seen: _Seen, note: _Note, others: Mask, airs: Array) -> list[Array]:
    """How well the others fit: in the family's places, below, in the gap, strangers, the (2,1), whether the family dies sooner, and the loudest that fits
    nowhere. `others` are the other head's."""
    n = len(seen.hz)
    rest = ~seen.own & ~np.eye(n, dtype=bool) & ~others[None, :]
    rest &= ~(note.there[:, None] & (np.arange(n)[None, :] == note.which[:, None]))
    weight = seen.tells[None, :] * rest
    off = np.abs(seen.above[None, :, :, None] - FAMILIES[:, None, None, :]).min(axis=3)
    fit = np.exp(-0.5 * (off / NEAR_LOG) ** 2)  # (air, n, n)
    told = (weight[None] * fit).sum(axis=2)
    air = (told - AIR_TELLS * airs[:, None]).argmax(axis=0)
    fit, family = fit[air, np.arange(n)], told[air, np.arange(n)]
    higher, middle = seen.above > GAP_LOG, (seen.above > 0) & (seen.above < GAP_LOG)
    second = rest & (seen.above > SECOND_LOG[0]) & (seen.above < SECOND_LOG[1])
    strange = weight * np.where(higher, (1 - fit) * (seen.above < HIGHEST_LOG), 1.0)
    return [
        family,
        family / (weight.sum(axis=1) + 0.5),
        (weight * (seen.above < 0)).sum(axis=1),
        (weight * middle).sum(axis=1),
        (weight * (1 - fit) * (higher & (seen.above < HIGHEST_LOG))).sum(axis=1),
        np.where(second, seen.tells[None, :], 0.0).max(axis=1),
        (weight * fit * np.clip(seen.sooner, -1.5, 1.5)).sum(axis=1) / (family + 0.3),
        strange.max(axis=1),
    ]


def _heavy_tailed(off: Array) -> Array:
    """Log-likelihood of a deviation in standard deviations: Student's t."""
    return np.asarray(-(HEAVY + 1) / 2 * np.log1p(off**2 / HEAVY))


def _centre(seen: _Seen, centre_hz: float | None) -> list[Array]:
    n = len(seen.hz)
    if centre_hz is None:
        return [np.zeros(n)] * 6
    place = np.log(centre_hz / seen.hz)
    off = np.abs(place)
    out = (place < math.log(NOTE[0])) | (place > math.log(NOTE[1]))
    nearest = int(off.argmin())
    heard = off[nearest] < 2 * SAME_LOG
    outlasts = np.log(seen.decay / seen.decay[nearest]).clip(-2) * (heard & (off > NOTE_APART_LOG))
    return [1.0 * (off < SAME_LOG), 1.0 * (off < BESIDE_LOG), 1.0 * out, place, place**2, outlasts]


def _under(seen: _Seen, told: Told, other: Other) -> Array:
    """(n, len(TRAITS)) of each partial, were it of the pair and the other head kept so; what is not told of is nought."""
    n = len(seen.hz)
    note = _notes(seen, told.drum, other)
    others = np.zeros(n, dtype=bool)
    if told.drum and told.drum.other_hz and other is Other.RINGS:
        others = np.abs(np.log(seen.hz / told.drum.other_hz)) < THE_OTHER_LOG
    family, share, below, gap, strangers, second, dies, loudest = _family(seen, note, others, _airs(told.drum))
    strong = seen.decay[seen.level > -STRONG_DB]
    outlasted = np.log(seen.decay / strong.min()) if len(strong) else np.zeros(n)
    place = np.where(note.there, seen.above[np.arange(n), note.which], 0.0)
    size = _heavy_tailed(np.log(seen.hz / told.usual_hz) / SIZE_LOG_SD) if told.usual_hz else np.zeros(n)
    off = np.abs(1200 * np.log2(seen.hz / told.expect_hz)) if told.expect_hz else np.zeros(n)
    columns = [
        seen.level / 10, (seen.level / 10) ** 2, family, share, below, gap, strangers, second, outlasted.clip(-1), outlasted.clip(0) ** 2,
        1.0 * note.there, note.fits, np.where(note.there, (seen.level[note.which] - seen.level) / 20, 0.0), place, place**2, dies,
        1.0 * (seen.own.sum(axis=1) > 1), size, -((np.minimum(off, FARTHEST_CENTS) / 100) ** 2), -np.log1p((off / EXPECT_CENTS) ** 2),
        *_centre(seen, told.centre_hz), note.placed, loudest, 1.0 * others,
    ]  # fmt: skip
    return np.stack(columns, axis=1)


def weigh(partials: Sequence[Partial], told: Told) -> Weighed:
    """What speaks for and against each partial, under every way the other head may be kept."""
    seen, kept = _Seen.of(partials), ways(told.drum)
    return Weighed(np.stack([_under(seen, told, other) for other in kept]), np.log(list(kept.values())))


def note_of(partials: Sequence[Partial], pair: int, told: Told) -> Partial | None:
    """Which would be the drum's own note, were the partial at `pair` of the pair."""
    note = _notes(_Seen.of(partials), told.drum, next(iter(ways(told.drum))))
    return partials[int(note.which[pair])] if note.there[pair] else None


def belongs(partials: Sequence[Partial], pair: int, other: int, told: Told) -> bool:
    """Whether the other is explained, were the first of the pair: as the drum's note or as one of the family."""
    if note_of(partials, pair, told) is partials[other]:
        return True
    above = math.log(partials[other].hz / partials[pair].hz)
    return bool((np.abs(FAMILIES - above) < 2 * NEAR_LOG).any())
