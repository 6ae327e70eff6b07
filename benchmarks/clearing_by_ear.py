"""Clearing by ear: a listener with a threshold of fifteen cents and one wrong answer in ten, on the drums of `./bench clearing`."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from benchmarks.clearing_drums import Drum, make_drum
from drumwork.quantities import Turns
from drumwork.rods.clearing import ClearingTask, Ear, Means, Round, hears, propose
from drumwork.rods.layout import RodLayout

MOST_ROUNDS = 12
GOAL = 0.02
WRONG = 0.10
LEVELS = (Ear.MUCH_LOWER, Ear.LOWER, Ear.LEVEL, Ear.HIGHER, Ear.MUCH_HIGHER)


def listen(drum: Drum, random: np.random.Generator) -> Round:
    """Every rod beside rod 1; a wrong answer is any of the five."""
    hz, judged = drum.true_hz(), {}
    for rod in range(2, drum.n + 1):
        heard = hears(1200 * float(np.log2(hz[rod - 1] / hz[0])))
        judged[rod] = LEVELS[random.integers(5)] if random.random() < WRONG else heard
    return Round(ear=judged, reference=1)


def rounds_needed(seed: int, step: Turns) -> tuple[bool, int]:
    """Rounds of turns until the true spread is within the goal."""
    drum = make_drum(seed)
    drum.z = drum.z / drum.z.mean()
    random, layout = np.random.default_rng(seed + 1), RodLayout(drum.n)
    rounds: list[Round] = []
    for number in range(MOST_ROUNDS):
        hz = drum.true_hz()
        if np.ptp(hz) / hz.mean() <= GOAL:
            return drum.modal, number
        rounds.append(listen(drum, random))
        task = ClearingTask(layout, tuple(rounds), step, means=Means.EAR)
        turns = propose(task, stop_when_read_clear=False).turns
        rounds[-1] = replace(rounds[-1], turned=turns)
        drum.turn(np.array([float(turns[rod].fraction) for rod in layout.rods]))
    return drum.modal, MOST_ROUNDS


def report(drums: int, seed: int) -> None:
    for words, step in (("1/16", Turns.of(1, 16)), ("1/32", Turns.of(1, 32))):
        found = [rounds_needed(each, step) for each in range(seed, seed + drums)]
        every = np.array([number for _, number in found])
        kinds = [np.median([number for modal, number in found if modal is kind]) for kind in (True, False)]
        print(
            f"by ear, {words}: rounds to {GOAL:.0%} median {np.median(every):.0f} (modal {kinds[0]:.0f}, local {kinds[1]:.0f}), "
            f"95th {np.percentile(every, 95):.0f}; within 4 {(every <= 4).mean():.0%}"
        )
