"""What the readings and turns so far say about a head: its present state and how it answers to its rods.

Everything is linear in z, which goes with tension. With s the present state and U the turns made since a reading was taken, that reading
saw

    z = s - R · diag(1 + q) · U,        R = Σ_k λ_k P_k

where P_k projects on the k-th harmonic round the head, λ_k is that harmonic's answer per turn, and q is each rod's own departure
(thread, friction, slip). Turns are made with a small error of their own, which stays in the head: readings from before the same turn
share it. Several kinds of head are believed in side by side and weighed by evidence (`kinds`).

References
----------
Gauss–Newton on a Gaussian prior: any text on Bayesian filtering, e.g. S. Särkkä, *Bayesian Filtering and Smoothing* (2013), ch. 5.
Down-weighting of outlying readings: P. J. Huber, *Robust Statistics* (1981), ch. 4.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Final

import numpy as np
from numpy.typing import NDArray

from drumwork.rods.clearing.judgements import Judgements, Taken
from drumwork.rods.clearing.kinds import Prior, kinds_for, prior_of, projections_of
from drumwork.rods.clearing.learned import Learned, LearnedKind
from drumwork.rods.clearing.numerics import cholesky, cholesky_solve
from drumwork.rods.clearing.observe import Observed, observe
from drumwork.rods.clearing.readings import Means
from drumwork.rods.clearing.task import ClearingTask

__all__ = ["EXECUTION_SD", "Belief", "Component", "believe"]

Array = NDArray[np.float64]

ANSWER_PER_TURN: Final = 0.8  # all rods one turn: z rises by this, when nothing is known; our own study, a model
EXECUTION_SD: Final = 0.04  # of a turn: how exactly it is made
NOISES: Final = (2.0, 1.25, 0.75)
"""What a reading's own error may be, in multiples of the usual; rounds of the head itself tell."""
FIRST: Final = 2
AFTER: Final = 1
"""Steps towards the best fit of a kind of head, from what is believed beforehand; and from where it fitted with readings taken to err more."""
WORDS_FIRST: Final = 5
WORDS_AFTER: Final = 3
"""The same where the readings are words of the ear; with four and two, or six and three, heads come out as even."""
PAIR_TELLS: Final = 5.0
"""Natural logarithm of how much likelier a pair that rings at every rod is on a head that answers by its pair; our own estimate."""
NONE: Final = 1e-4
NEGLIGIBLE: Final = 0.02
MOST_LIKELY: Final = 3
LEAST_WEIGHT: Final = 1e-12
HOPELESS: Final = 10.0
"""A kind of head this far behind in evidence, where readings are taken to err much, is not looked at with less error."""


@dataclass(frozen=True)
class Component:
    """A Gaussian belief under one kind of head, over (present state, harmonic answers, rod departures).

    Attributes
    ----------
    mean, covariance : (2n + K,), (2n + K, 2n + K)
    projections : (K, n, n)
    weight : chance, 0…1, that the head is of this kind
    noise : readings' own error, in multiples of the usual
    strays : of a turn: how far a head of this kind answers otherwise than by one fixed answer, for a root mean square turn of one
    has_pair : whether all its readings are those of one pair of modes
    taken : what each reading was taken to say in the end, and with what variance; None where it was not fitted to any
    """

    name: str
    mean: Array
    covariance: Array
    projections: Array
    weight: float
    noise: float = 1.0
    strays: float = 0.0
    has_pair: bool = False
    taken: Taken | None = None

    @property
    def rods(self) -> int:
        return int(self.projections.shape[1])

    @property
    def harmonics(self) -> Array:
        """(K,) answer per turn of each harmonic."""
        return self.mean[self.rods : self.rods + len(self.projections)]

    @cached_property
    def plain(self) -> Array:
        """(n, n) the answer R without departures: change of z (row) per turn of a rod (column)."""
        return np.asarray(np.tensordot(self.harmonics, self.projections, axes=1))

    @property
    def quirk(self) -> Array:
        return self.mean[self.rods + len(self.projections) :]

    @cached_property
    def answer(self) -> Array:
        """(n, n) the answer with each rod's own departure."""
        return self.plain * (1 + self.quirk)

    @property
    def state(self) -> Array:
        """(n,) mean present state."""
        return self.mean[: self.rods]

    @cached_property
    def directions(self) -> Array:
        """(K + n, n, n) how the answer changes with each unknown: harmonics first, then departures."""
        n = self.rods
        by_answer = self.projections * (1 + self.quirk)
        by_quirk = np.zeros((n, n, n))
        by_quirk[np.arange(n), :, np.arange(n)] = self.plain.T
        return np.concatenate([by_answer, by_quirk])

    def slip_variance(self, turns: Array) -> Array:
        """(n,) of a turn, squared: how far the head moves otherwise than by its answer to these turns; hands slip, and the answer wanders."""
        return np.asarray((EXECUTION_SD * turns) ** 2 + self.strays**2 * (turns**2).mean())

    def outcome(self, turns: Array) -> tuple[Array, Array]:
        """(n,), (n, n): mean and covariance of z after further turns, if the head is of this kind."""
        if not turns.any():
            return self.state, self.covariance[: self.rods, : self.rods]
        jacobian = np.concatenate([np.eye(self.rods), (self.directions @ turns).T], axis=1)
        slips = (self.answer * self.slip_variance(turns)) @ self.answer.T
        return self.state + self.answer @ turns, jacobian @ self.covariance @ jacobian.T + slips

    def without(self, at: Array, z: Array, given: Array) -> tuple[Component, float]:
        """Before (k,) readings z of the state as it is now were taken into account; and how likely they then were, as a logarithm.

        A Kalman update turned round: `at` is (k, n), what they look at, and `given` their (k,) variance.
        """
        shared = self.covariance[:, : self.rods] @ at.T
        gain = np.linalg.solve(np.diag(given) - at @ shared[: self.rods], shared.T).T
        before = replace(
            self, mean=self.mean - gain @ (z - at @ self.state), covariance=self.covariance + gain @ shared.T
        )
        return before, before.log_likelihood(at, z, given, np.zeros(self.rods))

    def log_likelihood(self, at: Array, z: Array, variance: Array, turns: Array) -> float:
        """How likely (k,) readings z, looking at `at` with errors of this variance, are after these further turns; without what is always the same."""
        mean, covariance = self.outcome(turns)
        spread, off = at @ covariance @ at.T + np.diag(variance), z - at @ mean
        return -0.5 * float(off @ np.linalg.solve(spread, off)) - 0.5 * float(np.linalg.slogdet(spread)[1])

    def ordered(self, order: NDArray[np.intp]) -> Component:
        """The same with its rods in another order."""
        n, harmonics = self.rods, len(self.projections)
        every = np.concatenate([order, n + np.arange(harmonics), n + harmonics + order])
        return replace(
            self,
            mean=self.mean[every],
            covariance=self.covariance[np.ix_(every, every)],
            projections=self.projections[:, order][:, :, order],
        )


@dataclass(frozen=True)
class Belief:
    """All kinds of head, weighed; and the readings it rests on."""

    components: tuple[Component, ...]
    seen: Observed | None = None

    @property
    def modal(self) -> float:
        """Chance that the head answers by its doublet alone, so that odd patterns go unheard."""
        return sum(c.weight for c in self.components if c.has_pair)

    @property
    def two_lobed(self) -> float:
        """Of the answer to an even turn, how much a head that answers by its doublet is believed to answer to a two-lobed one."""
        pairs = [c for c in self.components if c.has_pair]
        weight = sum(c.weight for c in pairs)
        share = sum(c.weight * float(c.harmonics[2] / max(c.harmonics[0], 1e-6)) for c in pairs)
        return share / weight if weight else 1.0

    @cached_property
    def z(self) -> Array:
        return np.asarray(sum(c.weight * c.state for c in self.components))

    @cached_property
    def answer(self) -> Array:
        return np.asarray(sum(c.weight * c.answer for c in self.components))

    @cached_property
    def per_turn(self) -> float:
        """What one turn of every rod does to the mean of z."""
        return max(float(self.answer.sum(axis=1).mean()), 1e-6)

    def outcome(self, turns: Array) -> tuple[Array, Array]:
        """(n,), (n, n): mean and covariance of z after further turns."""
        each = [c.outcome(turns) for c in self.components]
        weights = [c.weight for c in self.components]
        mean = np.asarray(sum(w * m for w, (m, _) in zip(weights, each, strict=True)))
        spread = sum(w * (s + np.outer(m - mean, m - mean)) for w, (m, s) in zip(weights, each, strict=True))
        return mean, np.asarray(spread)

    def before_last(self, count: int) -> Belief:
        """As it was before the last `count` readings, which all looked at the state as it is now."""
        assert self.seen is not None
        at = self.seen.at[-count:]
        parts = [
            (c.weight, *c.without(at, c.taken.z[-count:], c.taken.variance[-count:])) for c in self._likely() if c.taken
        ]
        odds = np.array([np.log(weight) - likely for weight, _, likely in parts])
        weights = np.exp(odds - np.logaddexp.reduce(odds))
        return Belief(tuple(replace(c, weight=float(w)) for w, (_, c, _) in zip(weights, parts, strict=True)))

    def _likely(self) -> list[Component]:
        """The few that matter."""
        ranked = sorted(self.components, key=lambda c: -c.weight)
        return [c for n, c in enumerate(ranked) if n == 0 or (n < MOST_LIKELY and c.weight >= NEGLIGIBLE)]

    def log_likelihood(self, at: Array, z: Array, variance: Array, turns: Array) -> float:
        """How likely readings are after these further turns, whatever kind of head it is."""
        each = [
            c.log_likelihood(at, z, variance, turns) + float(np.log(max(c.weight, LEAST_WEIGHT)))
            for c in self.components
        ]
        return float(np.logaddexp.reduce(each))

    def ordered(self, order: NDArray[np.intp]) -> Belief:
        """The same with the rods in another order; without the readings."""
        return Belief(tuple(c.ordered(order) for c in self.components))


def _slips(seen: Observed, strays: float) -> Array:
    """(m, r, n) of a turn: how far the head moved otherwise than by its answer, after each reading, in each round."""
    squares = seen.after**2
    return np.asarray(np.sqrt(EXECUTION_SD**2 * squares + strays**2 * squares.mean(axis=2, keepdims=True)))


def _noise(by_rod: Array, variance: Array, slips: Array) -> Array:
    """(m, m) what readings do not tell: their own error, and what the head did otherwise than by its answer, shared by rods and rounds."""
    effect = (by_rod[:, None, :] * slips).reshape(len(variance), -1)
    noise = effect @ effect.T
    noise.flat[:: len(variance) + 1] += variance  # along its diagonal
    return np.asarray(noise)


class _Looks:
    """What every fit asks of the readings, worked out once."""

    def __init__(self, seen: Observed, projections: Array) -> None:
        self.seen, self.projections = seen, projections
        at_rod = np.tensordot(projections, seen.at, axes=(1, 1)).transpose(0, 2, 1)  # (K, m, n)
        self.flat = at_rod.reshape(len(projections), -1)
        self.by_reading = np.ascontiguousarray(at_rod.transpose(1, 0, 2))
        self._slips: dict[float, Array] = {}

    def slips(self, strays: float) -> Array:
        if strays not in self._slips:
            self._slips[strays] = _slips(self.seen, strays)
        return self._slips[strays]


@dataclass(frozen=True, slots=True)
class _Fit:
    """Where a fit came to under one kind of head, with readings taken to err so much; its covariance is worked out when it is wanted."""

    prior: Prior
    noise: float
    mean: Array
    off: Array  # what each reading is off by, by all the others
    taken: Taken
    factor: Array
    spread: Array
    log_odds: float

    def component(self, projections: Array, weight: float) -> Component:
        covariance = self.prior.covariance - self.spread.T @ cholesky_solve(self.factor, self.spread)
        of = self.prior
        return Component(
            name=of.name,
            mean=self.mean,
            covariance=(covariance + covariance.T) / 2,
            projections=projections,
            weight=weight,
            noise=self.noise,
            strays=of.strays,
            has_pair=of.pair,
            taken=self.taken,
        )


class _Straight:
    """What readings should be and do, made straight about a belief: (m,) expected of them beforehand, (m, u) what each unknown does to them."""

    def __init__(self, looks: _Looks, prior: Prior, mean: Array) -> None:
        seen, harmonics, n = looks.seen, len(looks.projections), looks.projections.shape[1]
        lam, quirk = mean[n : n + harmonics], mean[n + harmonics :]
        self.by_rod = (lam @ looks.flat).reshape(-1, n)  # (m, n) answer of what the reading saw to each rod
        by_answer = -np.matmul(looks.by_reading, (seen.since * (1 + quirk))[:, :, None])[:, :, 0]
        jacobian = np.concatenate([seen.at, by_answer, -self.by_rod * seen.since], axis=1)
        self.expected = seen.at @ mean[:n] + by_answer @ lam - jacobian @ (mean - prior.mean)
        self.spread = jacobian @ prior.covariance
        self.covariance = self.spread @ jacobian.T


def _fit(looks: _Looks, prior: Prior, noise: float, near: _Fit | None) -> _Fit:
    """Gauss–Newton posterior under one kind of head, and its log odds; begun from a fit near by, where there is one. Readings that lie far out count less."""
    seen = looks.seen
    if seen.words is not None:
        return _fit_words(looks, seen.words, prior, noise, near)
    mean, off = (near.mean, near.off) if near else (prior.mean, np.zeros(len(seen.z)))
    own = seen.variance * np.where(seen.known, 1.0, noise**2)
    given, slips = own, looks.slips(prior.strays)
    for _ in range(AFTER if near else FIRST):
        given = own * np.maximum(1.0, off / (seen.cut * np.sqrt(given)))
        straight = _Straight(looks, prior, mean)
        offset = seen.z - straight.expected
        factor = cholesky(straight.covariance + _noise(straight.by_rod, given, slips))
        pull = cholesky_solve(factor, offset)
        mean = prior.mean + straight.spread.T @ pull
        off = np.abs(pull) * given
    evidence = -0.5 * float(offset @ pull) - float(np.log(np.diag(factor)).sum()) + float(np.log(prior.weight))
    return _Fit(prior, noise, mean, off, Taken(seen.z, given), factor, straight.spread, evidence)


def _fit_words(looks: _Looks, words: Judgements, prior: Prior, keen: float, near: _Fit | None) -> _Fit:
    """The same of words of the ear, by a listener who notices so much, in multiples of the usual: with each step they are taken to say what they say beside
    all others."""
    mean, then = (near.mean, near.taken) if near else (prior.mean, words.begun)
    for _ in range(WORDS_AFTER if near else WORDS_FIRST):
        taken, straight = then, _Straight(looks, prior, mean)
        offset = taken.z - straight.expected
        noise = _noise(straight.by_rod, taken.variance, looks.slips(prior.strays))
        factor = cholesky(straight.covariance + noise)
        pull = cholesky_solve(factor, offset)
        mean = prior.mean + straight.spread.T @ pull
        then, more = words.again(keen, taken, factor, pull)
    evidence = more - 0.5 * float(offset @ pull) - float(np.log(np.diag(factor)).sum()) + float(np.log(prior.weight))
    return _Fit(prior, keen, mean, np.abs(pull) * taken.variance, taken, factor, straight.spread, evidence)


def _scale(task: ClearingTask) -> float:
    """What an even turn of all rods is expected to do to z."""
    if task.means is Means.PITCH and task.prior_hz_per_turn:
        return 2 * task.prior_hz_per_turn / task.wanted
    return ANSWER_PER_TURN


def believe(task: ClearingTask) -> Belief:
    """Weigh all kinds of head by all rounds so far, and by what earlier visits taught."""
    seen = observe(task)
    looks = _Looks(seen, projections_of(task.layout))
    kept = task.learned if task.means is Means.PITCH else None
    hz2 = task.wanted**2 if task.means is Means.PITCH else 1.0
    level, scale = seen.level, _scale(task)
    held = task.means is Means.EAR and all(each.whole is None for each in task.rounds)
    priors = [
        prior_of(kind, task.layout, task.means, level, scale, kept, hz2, seen.uneven, held)
        for kind in kinds_for(task.means)
    ]
    if task.pair_known:
        priors = [
            prior if prior.pair else replace(prior, weight=prior.weight * np.exp(-PAIR_TELLS)) for prior in priors
        ]
    near: dict[str, _Fit] = {}
    found: list[_Fit] = []
    for noise in NOISES:
        near = {prior.name: _fit(looks, prior, noise, near.get(prior.name)) for prior in priors}
        found += near.values()
        best = max(fit.log_odds for fit in near.values())
        priors = [prior for prior in priors if near[prior.name].log_odds >= best - HOPELESS]
    best = max(fit.log_odds for fit in found)
    odds = np.exp([fit.log_odds - best for fit in found])
    weights = odds / odds.sum()
    projections = looks.projections
    return Belief(
        tuple(fit.component(projections, float(w)) for fit, w in zip(found, weights, strict=True) if w > NONE), seen
    )


def keep(task: ClearingTask, belief: Belief) -> Learned | None:
    """What this visit taught of the head's answer, for the next; None where nothing was turned or pitch was not read."""
    if task.means is not Means.PITCH or not any(any(task.made_in(n).values()) for n in range(len(task.rounds))):
        return None
    hz2, n = task.wanted**2, len(task.layout.rods)
    unit = np.concatenate([np.full(len(belief.components[0].projections), hz2), np.ones(n)])
    names = dict.fromkeys(c.name for c in belief.components)
    kinds = tuple(_kept(name, [c for c in belief.components if c.name == name], unit) for name in names)
    earlier = task.learned.rounds if task.learned else 0
    return Learned(task.layout.rods, earlier + len(task.rounds) - 1 + bool(task.made), kinds)


def _kept(name: str, among: list[Component], unit: Array) -> LearnedKind:
    """One kind of head, whatever the noise of its readings: the mean and the spread of all of it."""
    weight = sum(c.weight for c in among)
    n = among[0].rods
    mean = np.asarray(sum(c.weight / weight * c.mean[n:] for c in among))
    covariance = np.asarray(
        sum(c.weight / weight * (c.covariance[n:, n:] + np.outer(c.mean[n:] - mean, c.mean[n:] - mean)) for c in among)
    )
    return LearnedKind(
        name,
        weight,
        tuple(float(v) for v in mean * unit),
        tuple(tuple(float(v) for v in row) for row in covariance * np.outer(unit, unit)),
    )
