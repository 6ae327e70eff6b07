"""Judging drums: each a hoop, a film and a way of being heard, with hands that slip and rods that answer less on the way down."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from benchmarks.judge import ranges
from benchmarks.judge.hoop import Hoop, basis
from benchmarks.judge.membrane import modes

__all__ = ["KINDS", "Heard", "JudgingDrum"]

Array = np.ndarray
KINDS = tuple(ranges.HOOPS)
EVERY = np.linspace(0, np.pi, 72, endpoint=False)


@dataclass(frozen=True)
class Heard:
    """A round: a reading a rod, and what rang at each, where that is told (hz, amplitude)."""

    hz: Array
    partials: list[list[tuple[float, float]]] | None
    blended: Array
    """The blend at every rod with the same errors, whatever was read: for the told planner alone."""


class JudgingDrum:
    """One head. Turns are made by hand; readings are heard with errors; `true_hz` is what no rule may see."""

    def __init__(self, seed: int) -> None:
        self.seed = seed
        self.random = random = np.random.default_rng([seed, 13])
        self.kind, self.n = KINDS[seed % 3], ranges.RODS[(seed // 3) % 5]
        self.angles = 2 * np.pi * np.arange(self.n) / self.n
        self.target = float(random.uniform(*ranges.TARGET_HZ))
        self.per_turn = 2 * float(random.uniform(*ranges.HZ_PER_TURN))
        self.told_hz = self.per_turn / 2 * self.target * ranges.GAIN_TOLD ** float(random.uniform(-1, 1))
        self.hoop = Hoop(
            self.angles,
            float(np.exp(random.uniform(*np.log(ranges.HOOPS[self.kind])))),
            float(random.uniform(*ranges.ROD_STIFF)),
        )
        self.quirk = 1 + ranges.QUIRK_SD * random.standard_normal(self.n)
        self.noise, self.slip = (float(random.uniform(*each)) for each in (ranges.NOISE, ranges.SLIP))
        self.uniform = bool(random.random() < 0.5)
        self.down, self.backlash = (
            float(random.uniform(*each)) for each in (ranges.DOWN_ANSWERS, ranges.BACKLASH_TURNS)
        )
        self.local = self.kind == "soft hoop"
        self.width, self.facing, self.pair_blend = (
            float(random.uniform(*each)) for each in (np.radians(ranges.HEARS_DEG), ranges.FACING, ranges.PAIR_BLEND)
        )
        self.tells_partials = not self.local and bool(random.random() < ranges.PARTIALS_SHARE)
        self.resolves = not self.local and bool(random.random() < ranges.RESOLVED_SHARE)
        self.exponent = 1 + int(random.random() < 0.5)
        held = bool(random.random() < ranges.HELD_SHARE)
        retune = 0.0 if held else float(random.uniform(*ranges.RETUNE))
        self.drawn = self._begin(float(random.uniform(*ranges.EDGE_UNEVEN)), 1 / (1 + retune) ** 2)
        self._read: Array | None = None
        self.last = np.zeros(self.n)
        self.slack = self.slack_avoidable = self.slack_further = 0
        self.asked = np.zeros(self.n)
        self.start_room = self.room()

    def _begin(self, uneven: float, level: float) -> Array:
        """(n,) how far each rod is drawn, in units of the pull wanted, so that the pull at the edge is uneven by ±`uneven` of its mean."""
        gain = float(self.hoop.answer[0].sum())
        off = self.random.standard_normal(self.n)
        off -= off.mean()
        across = float(np.ptp(basis(self.angles)[:, 1:] @ self.hoop.answer[1:] @ off)) / 2
        drawn = level / gain + off * uneven * level / max(across, 1e-9)
        held = self.hoop.holds @ drawn
        if held.min() < ranges.LEAST_HELD * held.mean():
            drawn = level / gain + (drawn - level / gain) * (1 - ranges.LEAST_HELD) * held.mean() / (
                held.mean() - held.min()
            )
        return np.asarray(drawn)

    def room(self) -> Array:
        """(n,) turns each rod has above slack, the others where they are."""
        unit = self.per_turn / self.hoop.answer[0].sum()
        return np.asarray(self.hoop.holds @ self.drawn / np.diag(self.hoop.holds) / unit)

    def counted(self) -> Array:
        """(n,) turns since finger-tight before the first round, as a person counts them who starts where fingers stop."""
        random = np.random.default_rng([self.seed, 14])  # of its own, so that whoever does not ask has the same drum
        unit = self.per_turn / self.hoop.answer[0].sum() * self.quirk
        return np.asarray(
            self.drawn / unit + random.uniform(*ranges.FINGER_TIGHT_TURNS) * random.standard_normal(self.n)
        )

    def pull(self) -> Array:
        return np.asarray(self.hoop.answer @ self.drawn)

    def _ratio(self, pull: Array, angles: Array) -> Array:
        """(p,) true readings, as ratios to the target."""
        level = max(float(pull[0]), 0.02)
        blend = modes(pull[1:] / level).blend(angles) * np.sqrt(level)
        if not self.local:
            return np.asarray(blend)
        order = np.concatenate([[0], np.repeat(np.arange(1, len(pull) // 2 + 1), 2)])
        near = pull * np.exp(-((order * self.width) ** 2) / 2)
        z = (basis(angles) @ near + self.facing * basis(angles + np.pi) @ near) / (1 + self.facing)
        return np.asarray(np.sqrt(np.clip((1 - self.pair_blend) * z + self.pair_blend * blend**2, 0.02, None)))

    def true_hz(self) -> Array:
        if self._read is None:
            self._read = self.target * self._ratio(self.pull(), self.angles)
        return self._read

    def turn(self, turns: Array) -> None:
        back = (np.sign(turns) * np.sign(self.last) < 0) * self.backlash
        made = np.sign(turns) * np.clip(np.abs(turns) - back, 0, None)
        made = made * (1 + self.slip * self.random.standard_normal(self.n)) * np.where(made < 0, self.down, 1.0)
        self.last = np.where(turns != 0, turns, self.last)
        self.asked = self.asked + turns
        before = self.room()
        eased = made < 0
        self.drawn = self.drawn + self.per_turn / self.hoop.answer[0].sum() * self.quirk * made
        self._read = None
        lost = (self.room() < 0) & (before >= 0)
        self.slack += int(lost.sum())
        avoidable = lost & eased & (self.start_room > ranges.NEAR_SLACK_TURNS)
        self.slack_avoidable += int(avoidable.sum())
        self.slack_further += int((avoidable & (self.asked < self.asked.mean() - 1 / 64)).sum())

    def _error(self, *shape: int) -> Array:
        if self.uniform:
            return 1 + self.noise * self.random.uniform(-np.sqrt(3), np.sqrt(3), shape)
        return 1 + self.noise * self.random.standard_normal(shape)

    def tap(self) -> Heard:
        error, pair_error = self._error(self.n), self._error(self.n, 2)
        loud = np.exp(ranges.LOUDNESS_SD * self.random.standard_normal((self.n, 2)))
        blended = self.true_hz() * error
        if self.local or not (self.tells_partials or self.resolves):
            return Heard(blended, None, blended)
        pull = self.pull()
        found = modes(pull[1:] / max(pull[0], 0.02))
        pair = self.target * np.sqrt(max(pull[0], 0.02)) * found.hz
        if pair[1] - pair[0] < ranges.RESOLUTION_HZ:
            return Heard(blended, [[(float(hz), 1.0)] for hz in blended] if self.tells_partials else None, blended)
        size = found.moved(self.angles) ** self.exponent
        size = size / size.max(axis=1, keepdims=True) * loud
        hz = pair * pair_error
        read = hz[np.arange(self.n), size.argmax(axis=1)] if self.resolves else blended
        rang = [
            [(float(hz[i, m]), float(size[i, m])) for m in (0, 1) if size[i, m] > ranges.FAINT] for i in range(self.n)
        ]
        return Heard(read, rang if self.tells_partials else None, blended)

    def jacobian(self, each_rod: bool = True) -> Array:
        """(n, n) change of (f / target)² per turn of a rod, about the even head; without `each_rod` as if all rods answered alike."""
        gain = float(self.hoop.answer[0].sum())
        even, unit = np.full(self.n, 1 / gain), self.per_turn / gain * (self.quirk if each_rod else np.ones(self.n))
        small = 0.02
        columns = []
        for rod in range(self.n):
            up, down = (even + sign * small * unit * (np.arange(self.n) == rod) for sign in (1, -1))
            z = [self._ratio(self.hoop.answer @ drawn, self.angles) ** 2 for drawn in (up, down)]
            columns.append((z[0] - z[1]) / (2 * small))
        return np.array(columns).T

    def usual(self) -> Array:
        """The same for the middle of its kind, of the size that is said beforehand: what can be told of a head that was never turned."""
        other = JudgingDrum(self.seed)
        other.hoop = Hoop(
            self.angles, float(np.exp(np.mean(np.log(ranges.HOOPS[self.kind])))), float(np.mean(ranges.ROD_STIFF))
        )
        middles = (float(np.mean(each)) for each in (np.radians(ranges.HEARS_DEG), ranges.FACING, ranges.PAIR_BLEND))
        other.width, other.facing, other.pair_blend = middles
        answer = other.jacobian(each_rod=False)
        told, level = 2 * self.told_hz / self.target, float(answer.sum(axis=1).mean())
        return np.asarray(answer * told / level)

    def allowed_hz(self) -> float:
        return min(2.0, 0.01 * self.target)

    def even(self) -> bool:
        """Within 1 % and 2 Hz from rod to rod, the mean within 1 % of the target."""
        hz = self.true_hz()
        return bool(np.ptp(hz) <= min(2.0, 0.01 * hz.mean()) and abs(hz.mean() / self.target - 1) <= 0.01)

    def even_everywhere(self) -> bool:
        """The same at every angle, where there is a pair."""
        return self.even() and (
            self.local or bool(np.ptp(self.target * self._ratio(self.pull(), EVERY)) <= self.allowed_hz())
        )
