"""How long one proposal takes: twelve rods, eight rounds of history; and the share of it spent inside SciPy."""

from __future__ import annotations

import cProfile
import pstats
import time

import numpy as np

from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingTask, Round, propose
from drumwork.rods.layout import RodLayout
from drumwork.simulated import SimulatedHead

RODS, ROUNDS, HEADS = 12, 8, 40


def history(seed: int) -> ClearingTask:
    """Rounds of readings with random turns between them."""
    layout, random = RodLayout(RODS), np.random.default_rng(seed)
    head = SimulatedHead(layout, 200, seed, uneven=0.03, noise=0.003, modal=seed % 2 == 0)
    rounds = []
    for _ in range(ROUNDS):
        turns = {rod: Turns(int(random.integers(-3, 4))) for rod in layout.rods}
        rounds.append(Round(head.tap(), turns))
        head.turn(turns)
    return ClearingTask(layout, tuple(rounds), Turns(2), Pitch(200))


def _inside(stats: pstats.Stats, name: str) -> float:
    """Seconds in functions of a package itself, and in what they call."""
    found = stats.stats.items()  # type: ignore[attr-defined]
    return sum(own for (file, _, _), (_, _, own, _, _) in found if f"/{name}/" in file)


def report() -> None:
    tasks = [history(seed) for seed in range(HEADS)]
    for task in tasks[:3]:
        propose(task)
    took = []
    for task in tasks:
        began = time.perf_counter()
        propose(task)
        took.append(time.perf_counter() - began)
    profile = cProfile.Profile()
    profile.enable()
    for task in tasks:
        propose(task)
    profile.disable()
    stats = pstats.Stats(profile)
    print(
        f"a proposal, {RODS} rods, {ROUNDS} rounds: median {np.median(took) * 1000:.1f} ms, 95th {np.percentile(took, 95) * 1000:.1f} ms; "
        f"{_inside(stats, 'scipy') / stats.total_tt:.0%} of it in SciPy"  # type: ignore[attr-defined]
    )
