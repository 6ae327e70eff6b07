"""`./bench judge --actions`: turns and taps until a head is even, in rounds and by turn and tap, on the same judging drums through the same door."""

from __future__ import annotations

import json
import os
from collections.abc import Callable, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from functools import partial
from typing import Any, Final

import numpy as np

from benchmarks.judge.drums import Heard, JudgingDrum
from drumwork.commands.clear import Desk

__all__ = ["compare"]

SURE: Final = 0.9
MOST_ROUNDS: Final = 13
MOST_ACTIONS: Final = 400


@dataclass
class Worked:
    """What one drum took. `first`: actions until it was truly even, MOST_ACTIONS where never."""

    rods: int
    turns: int = 0
    taps: int = 0
    rounds: int = 0
    first: int = MOST_ACTIONS
    said: bool = False
    even: bool = False

    @property
    def actions(self) -> int:
        return self.turns + self.taps


class _Bench:
    """One drum at the desk, and what was done to it."""

    def __init__(self, seed: int, step: float) -> None:
        self.drum, self.desk = JudgingDrum(seed), Desk()
        self.worked, self.applied = Worked(self.drum.n), np.zeros(self.drum.n)
        self.plain = {
            "case": 1,
            "n_rods": self.drum.n,
            "target_hz": self.drum.target,
            "step_turns": step,
            "prior_hz_per_turn": self.drum.told_hz,
        }
        self._look()

    def _look(self) -> None:
        if self.drum.even():
            self.worked.first = min(self.worked.first, self.worked.actions)

    def round(self) -> tuple[dict[str, Any], Heard]:
        heard = self.drum.tap()
        request = {**self.plain, "readings_hz": heard.hz.tolist()}
        if heard.partials:
            request["partials"] = heard.partials
        if self.worked.rounds:
            request["applied_turns"] = self.applied.tolist()
        self.applied[:] = 0
        self.worked.rounds += 1
        self.worked.taps += self.drum.n
        return self.desk.answer(json.dumps(request)), heard

    def turn(self, turns: np.ndarray) -> None:
        self.drum.turn(turns)
        self.applied += turns
        self.worked.turns += int(np.count_nonzero(turns))
        self._look()

    def tap(self, rod: int, turned: float) -> dict[str, Any]:
        heard = self.drum.tap()
        told: dict[str, Any] = {"rod": rod, "hz": float(heard.hz[rod - 1]), "turned": turned}
        if heard.partials:
            told["partials"] = heard.partials[rod - 1]
        self.worked.taps += 1
        return self.desk.answer(json.dumps({**self.plain, "tapped": told}))

    def end(self, said: bool) -> Worked:
        self.worked.said, self.worked.even = said, self.drum.even()
        return self.worked


def rounds_read(seed: int, step: float) -> Worked:
    """Rounds until one reads even by the rule."""
    bench = _Bench(seed, step)
    allowed = min(2.0, 0.01 * bench.drum.target)
    while bench.worked.rounds < MOST_ROUNDS:
        answer, heard = bench.round()
        if np.ptp(heard.blended) <= allowed and abs(heard.blended.mean() / bench.drum.target - 1) <= 0.01:
            return bench.end(True)
        bench.turn(np.array(answer.get("turns", np.zeros(bench.drum.n))))
    return bench.end(False)


def rounds_told(seed: int, step: float) -> Worked:
    """Rounds until even is said to be likely."""
    bench = _Bench(seed, step)
    while bench.worked.rounds < MOST_ROUNDS:
        answer, _ = bench.round()
        if answer["chance_now"] >= SURE:
            return bench.end(True)
        bench.turn(np.array(answer.get("turns", np.zeros(bench.drum.n))))
    return bench.end(False)


def turn_and_tap(seed: int, step: float) -> Worked:
    """Every turn with its tap, the largest first; a round where one is asked for."""
    bench = _Bench(seed, step)
    while bench.worked.rounds < MOST_ROUNDS and bench.worked.actions < MOST_ACTIONS:
        answer, _ = bench.round()
        while answer["chance_now"] < SURE and answer.get("ask", "turn") == "turn":
            turns = np.array(answer.get("turns", np.zeros(bench.drum.n)))
            rod = int(np.argmax(np.abs(turns)))
            if not turns[rod] or bench.worked.actions >= MOST_ACTIONS:
                break
            bench.turn(np.where(np.arange(bench.drum.n) == rod, turns, 0.0))
            answer = bench.tap(rod + 1, float(turns[rod]))
        if answer["chance_now"] >= SURE:
            return bench.end(True)
    return bench.end(False)


WAYS: Final[dict[str, Callable[[int, float], Worked]]] = {
    "rounds until one reads even": rounds_read,
    f"rounds until even is {SURE:.0%} sure": rounds_told,
    f"turn and tap until {SURE:.0%} sure": turn_and_tap,
}


def compare(seeds: Sequence[int], step: float) -> None:
    """Print actions a rod for each way of working, and their ratio to rounds."""
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        found = {name: list(pool.map(partial(way, step=step), seeds, chunksize=4)) for name, way in WAYS.items()}
    base = found[list(WAYS)[1]]
    for name, of in found.items():
        each, first = (np.array([getattr(one, what) / one.rods for one in of]) for what in ("actions", "first"))
        beside, beside_first = (
            np.array([getattr(one, what) / one.rods for one in base]) for what in ("actions", "first")
        )
        false = np.mean([one.said and not one.even for one in of])
        print(
            f"  {name:34} actions a rod: median {np.median(each):5.2f}, mean {each.mean():5.2f} "
            f"({np.mean([one.turns / one.rods for one in of]):.2f} turns, {np.mean([one.taps / one.rods for one in of]):.2f} taps); "
            f"until truly even: median {np.median(first):.2f}; rounds {np.mean([one.rounds for one in of]):.1f}; "
            f"said even {np.mean([one.said for one in of]):.0%}, truly even {np.mean([one.even for one in of]):.0%}, falsely said {false:.1%}; "
            f"beside rounds: actions {np.median(each) / np.median(beside):.2f}, until truly even {np.median(first) / np.median(beside_first):.2f}"
        )
