"""What is believed of a head before it is heard: kinds of head, each with its shares round the rim.

Shares are of the answer to an even turn of all rods, one for each harmonic k round the head. *Doublet*: edge readings follow the two-lobed
pair of modes, odd patterns all but unheard; *straying doublet*: the same, but what a turn does depends on the state, so that one fixed answer
explains it only roughly; *evened doublet*: one whose hoop evens out the pull of its rods before the film has it. *Local*: each rod moves
mostly its own reading and something of its neighbours' and its partner's. *Fringed*: a rod is heard so far round the edge, whatever the rods'
number, with fringes of either sign. *Between*: a blend of doublet and local; *fringed between*: of doublet and fringed. The means and
covariances are those of heads drawn from the stated ranges.

References
----------
Two-lobed share 0.44 (0.29–0.47) and the even-harmonic blindness: our own numerical study of an uneven film under a hoop that gives way,
restated in `docs/sources/film.md`; a model, no instrumented drum was measured. A hoop that does not give way evens out the pull of its rods
before the film has it, and how far unevenness reaches into a film is not settled, so that down to a fifth of that is believed in (our own
estimate). The local ranges are wider than any drum we know of asks for.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.learned import Learned
from drumwork.rods.clearing.readings import Means
from drumwork.rods.layout import RodLayout

__all__ = ["Prior", "kinds_for", "prior_of", "projections_of"]

Array = NDArray[np.float64]

ANSWER_LOG_SD: Final = 0.35
NUMBER_ANSWER_LOG_SD: Final = 0.8  # a gauge's scale is its own
ROD_SD: Final = 0.10
EVENED: Final = (0.08, 0.3)
"""Two-lobed share of an evened doublet."""
ANY: Final = (0.08, 0.55)
"""The same of whatever doublet."""
FAINT_SHARE: Final = 0.1  # of a doublet head's unevenness, what shows four-lobed
UNHEARD_SD: Final = 0.0015
HELD_SD: Final = 0.01  # by ear the level is what it is
HEARD_ROUND_RAD: Final = (0.12, 1.1)
DRAWS: Final = 2000
VISIT_ANSWER_SD: Final = 0.08  # how far an answer wanders from one visit to the next, as a ratio
VISIT_ROD_SD: Final = 0.04
LEAST_WEIGHT: Final = 0.05


@dataclass(frozen=True, slots=True)
class Prior:
    """Gaussian over (state, harmonic answers, rod departures); `weight` is how likely this kind is beforehand."""

    name: str
    mean: Array
    covariance: Array
    weight: float
    strays: float
    pair: bool


@dataclass(frozen=True, slots=True)
class _Kind:
    name: str
    draw: Callable[[np.random.Generator, int], Array]
    residual: float
    heard: bool
    """Whether every harmonic's unevenness shows in the readings."""
    strays: float
    weight: float = 1.0


def _pair(share: Array, random: np.random.Generator, count: int) -> Array:
    """Shares of heads whose two-lobed share is `share`, (DRAWS,)."""
    shares = np.zeros((DRAWS, count // 2 + 1))
    shares[:, 0], shares[:, 2] = 1, share
    if count >= 8:
        shares[:, 4] = np.abs(random.normal(0.04, 0.04, DRAWS))
    return shares


def _doublet(random: np.random.Generator, count: int) -> Array:
    return _pair(np.clip(random.normal(0.42, 0.08, DRAWS), 0.2, 0.6), random, count)


def _evened_doublet(random: np.random.Generator, count: int) -> Array:
    return _pair(_log_uniform(EVENED, random), random, count)


def _any_doublet(random: np.random.Generator, count: int) -> Array:
    return _pair(_log_uniform(ANY, random), random, count)


def _log_uniform(between: tuple[float, float], random: np.random.Generator) -> Array:
    least, most = between
    return np.asarray(least * (most / least) ** random.random(DRAWS))


def _local(random: np.random.Generator, count: int) -> Array:
    """Mostly its own rod, something of its neighbours and of the one across."""
    k = np.arange(count // 2 + 1)
    near = np.abs(random.normal(0.3, 0.2, (DRAWS, 1)))
    second = np.abs(random.normal(0.0, 0.08, (DRAWS, 1)))
    facing = np.abs(random.normal(0.08, 0.1, (DRAWS, 1))) * (count % 2 == 0)
    shares = 1 + 2 * near * np.cos(2 * np.pi * k / count) + 2 * second * np.cos(4 * np.pi * k / count)
    shares = shares + facing * (-1.0) ** k
    return np.asarray(shares / shares[:, :1])


def _fringed(random: np.random.Generator, count: int) -> Array:
    """Heard so far round the edge to either side, whatever the rods' number, with fringes of either sign, and a little across."""
    k = np.arange(count // 2 + 1)
    least, most = HEARD_ROUND_RAD
    width = least * (most / least) ** random.random((DRAWS, 1))
    shares = np.exp(-((k * width) ** random.uniform(1.0, 2.5, (DRAWS, 1))) / 2)
    fringe = random.normal(0.0, 0.08, (DRAWS, 1)) * np.cos(2 * np.pi * k / count) * 2
    facing = random.normal(0.08, 0.1, (DRAWS, 1)) * (-1.0) ** k * (count % 2 == 0)
    shares = shares + fringe + facing
    return np.asarray(shares / np.clip(shares[:, :1], 0.4, None))


def _between(random: np.random.Generator, count: int) -> Array:
    """Partly by the pair."""
    blend = random.uniform(0.25, 0.75, (DRAWS, 1))
    return np.asarray(blend * _doublet(random, count) + (1 - blend) * _local(random, count))


def _fringed_between(random: np.random.Generator, count: int) -> Array:
    """Fringed, and partly by the pair."""
    blend = random.uniform(0.1, 0.6, (DRAWS, 1))
    return np.asarray(blend * _any_doublet(random, count) + (1 - blend) * _fringed(random, count))


def _edge(random: np.random.Generator, count: int) -> Array:
    """What a gauge at the edge sees: the pull beside it, with little of the neighbours'."""
    k = np.arange(count // 2 + 1)
    near = np.abs(random.normal(0.12, 0.1, (DRAWS, 1)))
    shares = 1 + 2 * near * np.cos(2 * np.pi * k / count)
    return np.asarray(shares / shares[:, :1])


_HEARD: Final = (
    _Kind("doublet", _doublet, 0.02, heard=False, strays=0.03, weight=0.4),
    _Kind("evened doublet", _evened_doublet, 0.02, heard=False, strays=0.03, weight=0.25),
    _Kind("straying doublet", _any_doublet, 0.02, heard=False, strays=0.15, weight=0.2),
    _Kind("local", _local, 0.04, heard=True, strays=0.03, weight=1 / 3),
    _Kind("fringed", _fringed, 0.03, heard=True, strays=0.03, weight=1 / 3),
    _Kind("between", _between, 0.03, heard=True, strays=0.05, weight=1 / 3),
    _Kind("fringed between", _fringed_between, 0.03, heard=True, strays=0.04, weight=1 / 3),
)
_FELT: Final = (_Kind("edge", _edge, 0.05, heard=True, strays=0.06),)


def kinds_for(means: Means) -> tuple[_Kind, ...]:
    """Kinds of head these means can tell apart."""
    return _FELT if means.is_number else _HEARD


@lru_cache(maxsize=64)
def _study(kind: _Kind, count: int) -> tuple[Array, Array]:
    """(K,), (K, K): mean and covariance of the shares."""
    drawn = kind.draw(np.random.default_rng(1), count)
    covariance = np.cov(drawn.T) + np.eye(drawn.shape[1]) * kind.residual**2
    covariance[0, :] = covariance[:, 0] = 0.0
    return drawn.mean(axis=0), covariance


@lru_cache(maxsize=64)
def projections_of(layout: RodLayout) -> Array:
    """(K, n, n): projection on each harmonic round the whole head, cut down to the rods that are there."""
    angles = np.array([layout.angle_rad(rod) for rod in layout.rods])
    apart = angles[:, None] - angles[None, :]
    harmonics = range(layout.count // 2 + 1)
    weight = [1 if k == 0 or 2 * k == layout.count else 2 for k in harmonics]
    return np.array([w / layout.count * np.cos(k * apart) for k, w in zip(harmonics, weight, strict=True)])


def _uneven(heard: bool, harmonics: int, held: bool, uneven: float) -> Array:
    """(K,) standard deviation of each harmonic's unevenness, so that all of them together come to about what is read."""
    if heard:
        sds = np.full(harmonics, uneven / max(harmonics - 1, 1) ** 0.5)
    else:
        sds = np.full(harmonics, UNHEARD_SD)
        sds[2] = uneven
        if harmonics > 4:
            sds[4] = FAINT_SHARE * uneven
    sds[0] = HELD_SD if held else 1.0
    return sds


@lru_cache(maxsize=16)
def _state(heard: bool, layout: RodLayout, held: bool, uneven: float) -> Array:
    """(n, n): prior covariance of the state; each harmonic's unevenness is spread over its one or two waves."""
    projections = projections_of(layout)
    weight = np.array([np.trace(p) for p in projections]) * layout.count / len(layout.rods)
    sds = _uneven(heard, len(projections), held, uneven)
    return np.asarray(np.tensordot(sds**2 / np.maximum(weight, 1) * layout.count, projections, axes=1))


def prior_of(
    kind: _Kind,
    layout: RodLayout,
    means: Means,
    level: float,
    scale: float,
    kept: Learned | None,
    hz2: float,
    uneven: float,
    held: bool = False,
) -> Prior:
    """Belief beforehand.

    `level` is about where z stands, `scale` what an even turn of all rods is expected to do to it, `kept` what earlier visits taught
    (answers in Hz², divided here by `hz2`, the square of the wanted pitch), `uneven` about how uneven z is from rod to rod. `held`: the level is taken as it is, nobody judged it.
    """
    n, harmonics = len(layout.rods), layout.count // 2 + 1
    size = harmonics + n
    mean, covariance = np.full(n + size, level), np.zeros((n + size, n + size))
    covariance[:n, :n] = _state(kind.heard, layout, held, uneven)
    seen_before = kept is not None and kept.rods == layout.rods
    known = next((each for each in kept.kinds if each.name == kind.name), None) if kept and seen_before else None
    if known is not None and len(known.mean) == size:
        unit = np.concatenate([np.full(harmonics, 1 / hz2), np.ones(n)])
        mean[n:] = np.array(known.mean) * unit
        wander = np.concatenate([VISIT_ANSWER_SD * np.abs(mean[n : n + harmonics]) + 1e-3, np.full(n, VISIT_ROD_SD)])
        covariance[n:, n:] = np.array(known.covariance) * np.outer(unit, unit) + np.diag(wander**2)
        return Prior(kind.name, mean, covariance, max(known.weight, LEAST_WEIGHT), kind.strays, not kind.heard)
    share, spread = _study(kind, layout.count)
    gain = (NUMBER_ANSWER_LOG_SD if means.is_number else ANSWER_LOG_SD) * scale
    mean[n : n + harmonics], mean[n + harmonics :] = share * scale, 0.0
    covariance[n : n + harmonics, n : n + harmonics] = spread * scale**2 + np.outer(share, share) * gain**2
    covariance[n + harmonics :, n + harmonics :] = np.eye(n) * ROD_SD**2
    weight = LEAST_WEIGHT if seen_before else kind.weight  # it was ruled out, or is one more kind than there was
    return Prior(kind.name, mean, covariance, weight, kind.strays, not kind.heard)
