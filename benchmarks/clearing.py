"""Closed-loop clearing of simulated heads by three rules, side by side on the same drums.

The drums are those of `benchmarks.clearing_drums`. A head counts as reached when the *true* readings lie within 1 % and 2 Hz of each other and their
mean within 1 % of the target; nothing the rules see tells them so.
"""

from __future__ import annotations

import argparse
import math
import time
from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from benchmarks import clearing_by_ear, clearing_speed
from benchmarks.clearing_drums import COUNTS, Drum, make_drum
from drumwork.quantities import Pitch, Turns
from drumwork.rods.clearing import ClearingSession
from drumwork.rods.layout import RodLayout

MOST_PASSES = 20
Array = np.ndarray

Rule = Callable[[Drum, Array], Array | None]


def raise_lowest(step: float) -> Callable[[Drum], Rule]:
    """Raise the lowest rod, lower the highest, by what the difference to the target seems to want of one rod."""

    def begin(_: Drum) -> Rule:
        def rule(drum: Drum, hz: Array) -> Array | None:
            if np.ptp(hz) <= min(2.0, 0.01 * hz.mean()) and abs(hz.mean() / drum.target - 1) <= 0.01:
                return None
            turns = np.zeros(drum.n)
            for rod in (int(np.argmin(hz)), int(np.argmax(hz))):
                wanted = (drum.target - hz[rod]) / drum.told_hz
                turns[rod] = np.clip(round(wanted / step), -8, 8) * step or math.copysign(step, drum.target - hz[rod])
            return turns

        return rule

    return begin


def proportional(step: float) -> Callable[[Drum], Rule]:
    """Every rod by its own difference at a fixed hertz per turn."""

    def begin(_: Drum) -> Rule:
        def rule(drum: Drum, hz: Array) -> Array | None:
            if np.ptp(hz) <= min(2.0, 0.01 * hz.mean()) and abs(hz.mean() / drum.target - 1) <= 0.01:
                return None
            return np.asarray(np.clip(np.round((drum.target - hz) / drum.told_hz / step), -16, 16) * step)

        return rule

    return begin


def ours(step: float) -> Callable[[Drum], Rule]:
    def begin(drum: Drum) -> Rule:
        layout = RodLayout(drum.n)
        session = ClearingSession(layout, Pitch(drum.target), Turns(round(step * 32)), drum.told_hz)

        def rule(_: Drum, hz: Array) -> Array | None:
            found = session.read({rod: Pitch(float(hz[rod - 1])) for rod in layout.rods})
            if found.done:
                return None
            return np.array([float(found.turns[rod].fraction) for rod in layout.rods])

        return rule

    return begin


@dataclass
class Outcome:
    passes: int  # turning passes until the head was truly within the goal; MOST_PASSES + 1 when never
    said_done: bool
    false_done: bool
    cranked: float
    slack: int
    slack_avoidable: int


def run(drum: Drum, rule: Rule) -> Outcome:
    reached, cranked, said, false = MOST_PASSES + 1, 0.0, False, False
    for number in range(MOST_PASSES + 1):
        if reached > MOST_PASSES and drum.reached():
            reached = number
        turns = rule(drum, drum.tap())
        if turns is None:
            said, false = True, not drum.reached()
            break
        drum.turn(turns)
        cranked += float(np.abs(turns).sum())
    return Outcome(reached, said, false, cranked, drum.slack, drum.slack_avoidable)


def feasible(drum: Drum, step: float) -> bool:
    """Could anyone meet the goal in one pass of whole steps, knowing this head exactly? A descent, so a lower bound."""
    answer = drum.answer * step
    x = np.rint(
        np.linalg.lstsq(
            np.vstack([answer, 1e-3 * np.eye(drum.n)]), np.concatenate([1 - drum.z, np.zeros(drum.n)]), rcond=None
        )[0]
    )
    unit = np.eye(drum.n)
    moves = np.array(
        [
            a * unit[i] + b * unit[j]
            for i in range(drum.n)
            for j in range(i, drum.n)
            for a in (1, -1)
            for b in (0, 1, -1)
        ]
    )

    def spread(candidates: Array) -> Array:
        hz = drum.target * np.sqrt(np.clip(drum.z + candidates @ answer.T, 0.01, None))
        return np.asarray(
            np.ptp(hz, axis=1) + 4 * np.clip(np.abs(hz.mean(axis=1) / drum.target - 1) - 0.009, 0, None) * drum.target
        )

    best = float(spread(x[None])[0])
    for _ in range(200):
        values = spread(x + moves)
        found = int(np.argmin(values))
        if values[found] >= best - 1e-9:
            break
        x, best = x + moves[found], float(values[found])
    return best <= min(2.0, 0.01 * drum.target)


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--drums", type=int, default=400)
    parser.add_argument("--seed", type=int, default=0, help="first seed; other seeds are other drums")
    parser.add_argument("--only", choices=["pitch", "ear", "speed"], help="one part; all without it")
    args = parser.parse_args()
    if args.only in (None, "speed"):
        clearing_speed.report()
    if args.only in (None, "ear"):
        clearing_by_ear.report(args.drums, args.seed)
    if args.only in (None, "pitch"):
        by_pitch(args)


def by_pitch(args: argparse.Namespace) -> None:
    print(f"{args.drums} drums, seeds from {args.seed}; N in {COUNTS}; baseline: raise lowest, lower highest")
    for words, step in (("1/16", 1 / 16), ("1/32", 1 / 32)):
        base = 0.0
        can = [(drum.modal, feasible(drum, step)) for drum in map(make_drum, range(args.seed, args.seed + args.drums))]
        shares = [np.mean([ok for kind, ok in can if kind is modal]) for modal in (True, False)]
        print(
            f"{words}: one pass of a planner that knows the head exactly would meet the goal on {shares[0]:.0%} of modal, {shares[1]:.0%} of local heads"
        )
        for name, begin in (
            ("raise/lower", raise_lowest(step)),
            ("proportional", proportional(step)),
            ("ours", ours(step)),
        ):
            began, found = time.perf_counter(), []
            for seed in range(args.seed, args.seed + args.drums):
                drum = make_drum(seed)
                found.append((drum.n, drum.modal, run(drum, begin(drum))))
            took = time.perf_counter() - began
            report(f"{words} {name}", [outcome for *_, outcome in found])
            median = float(np.median([o.passes for *_, o in found]))
            base = base or median
            if name == "ours":
                print(
                    f"  passes of the baseline / ours: {base / max(median, 1):.1f}; {took / args.drums * 1000:.0f} ms a drum"
                )
                for modal in (True, False):
                    report(f"  of these, {'modal' if modal else 'local'}", [o for _, m, o in found if m is modal])


def report(name: str, outcomes: list[Outcome]) -> None:
    passes = np.array([o.passes for o in outcomes])
    within = [f"{(passes <= k).mean():.0%}" for k in (2, 3)]
    p95 = np.percentile(passes, 95)
    print(
        f"{name:22} passes median {np.median(passes):.0f}, 95th {'>' if p95 > MOST_PASSES else ''}{min(p95, MOST_PASSES):.0f}; "
        f"within 2 {within[0]}, within 3 {within[1]}; cranked {np.median([o.cranked for o in outcomes]):.2f}; "
        f"said done {np.mean([o.said_done for o in outcomes]):.0%}, falsely {np.mean([o.false_done for o in outcomes]):.1%}; "
        f"slack events {sum(o.slack for o in outcomes)}, {sum(o.slack_avoidable for o in outcomes)} of rods with over 1/8 turn to give"
    )


if __name__ == "__main__":
    main()
