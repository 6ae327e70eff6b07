"""`./bench judge`: closed-loop clearing of judging drums, rule beside rule on the same drums."""

from __future__ import annotations

import argparse
import os
import time
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from functools import partial
from itertools import pairwise
from typing import Final

import numpy as np

from benchmarks.judge import by_ear
from benchmarks.judge.drums import KINDS, JudgingDrum
from benchmarks.judge.rules import RULES
from benchmarks.judge.turn_and_tap import compare

MOST_PASSES: Final = 12
BINS: Final = (0.0, 0.1, 0.3, 0.5, 0.7, 0.8, 0.9, 0.95, 0.985, 1.0001)


@dataclass
class Outcome:
    """What came of one drum. `passes`: turning passes until the head was truly even; MOST_PASSES + 1 when never."""

    kind: str
    rods: int
    passes: int
    everywhere: int
    said: bool
    false: bool
    false_everywhere: bool
    cranked: float
    slack: int
    avoidable: int
    further: int
    idle: int
    told: list[tuple[float, bool]] = field(default_factory=list)


def run(seed: int, name: str, step: float) -> Outcome:
    drum = JudgingDrum(seed)
    rule = RULES[name](drum, step)
    never = MOST_PASSES + 1
    out = Outcome(drum.kind, drum.n, never, never, False, False, False, 0.0, 0, 0, 0, 0)
    for number in range(MOST_PASSES + 1):
        even, everywhere = drum.even(), drum.even_everywhere()
        out.passes, out.everywhere = (
            min(out.passes, number if even else never),
            min(out.everywhere, number if everywhere else never),
        )
        turns, chance = rule(drum.tap())
        if chance is not None:
            out.told.append((chance, even))
        if turns is None:
            out.said, out.false, out.false_everywhere = True, not even, not everywhere
            break
        out.idle += not turns.any() and (chance is None or chance < 0.5)
        drum.turn(turns)
        out.cranked += float(np.abs(turns).sum())
    out.slack, out.avoidable, out.further = drum.slack, drum.slack_avoidable, drum.slack_further
    return out


def _line(name: str, found: Sequence[Outcome]) -> str:
    passes = np.array([o.passes for o in found])
    rods = sum(o.rods for o in found)
    return (
        f"  {name:14} within 2 {(passes <= 2).mean():4.0%}, within 3 {(passes <= 3).mean():4.0%}, at every angle within 3 "
        f"{np.mean([o.everywhere <= 3 for o in found]):4.0%}; median {np.median(passes):.0f}; said done {np.mean([o.said for o in found]):4.0%}, "
        f"falsely {np.mean([o.false for o in found]):.1%} (at some angle {np.mean([o.false_everywhere for o in found]):.1%}); "
        f"cranked {np.median([o.cranked for o in found]):.2f}; slack {sum(o.slack for o in found) / rods:.2%} of rods, "
        f"{sum(o.avoidable for o in found)} avoidable ({sum(o.further for o in found)} eased further than all were); rounds of no turn where even was not said to be likely {sum(o.idle for o in found)}"
    )


def _calibration(found: Sequence[Outcome]) -> None:
    told = np.array([each for o in found for each in o.told])
    for low, high in pairwise(BINS):
        inside = told[(told[:, 0] >= low) & (told[:, 0] < high)]
        if len(inside):
            print(
                f"    stated {low:.2f}–{min(high, 1):.3g}: mean {inside[:, 0].mean():.2f}, truly even {inside[:, 1].mean():.2f} of {len(inside)} rounds"
            )


def main() -> None:
    parser = argparse.ArgumentParser(prog="./bench judge")
    parser.add_argument("--drums", type=int, default=450)
    parser.add_argument("--seed", type=int, default=0, help="first seed; other seeds are other drums")
    parser.add_argument("--rule", choices=list(RULES), action="append", help="these rules alone; all without it")
    parser.add_argument(
        "--step", choices=["16", "32"], action="append", help="steps of a sixteenth or a thirty-second; both without it"
    )
    parser.add_argument("--kind", choices=list(KINDS), help="drums of one kind alone")
    parser.add_argument(
        "--actions", action="store_true", help="turns and taps until even: in rounds, and by turn and tap"
    )
    parser.add_argument("--ear", action="store_true", help="by ear, by listeners who differ")
    args = parser.parse_args()
    seeds = [each for each in range(args.seed, args.seed + args.drums) if args.kind in (None, KINDS[each % len(KINDS)])]
    print(
        f"{args.drums} judging drums, seeds from {args.seed}; within: turning passes until truly even; told: the planner told each head's answer"
    )
    if args.actions:
        for step in args.step or ("16", "32"):
            print(f"steps of 1/{step}")
            compare(seeds, 1 / int(step))
        return
    if args.ear:
        for step in args.step or ("16", "32"):
            print(f"steps of 1/{step}")
            by_ear.compare(seeds, 1 / int(step), [name for name in args.rule or by_ear.RULES if name in by_ear.RULES])
        return
    with ProcessPoolExecutor(os.cpu_count()) as pool:
        for step in args.step or ("16", "32"):
            print(f"steps of 1/{step}")
            shares = {}
            for name in args.rule or RULES:
                began = time.perf_counter()
                found = list(pool.map(partial(run, name=name, step=1 / int(step)), seeds, chunksize=4))
                print(_line(name, found) + f"; {(time.perf_counter() - began) / len(found) * 1000:.0f} ms a drum")
                shares[name] = np.mean([o.passes <= 3 for o in found])
                if name.startswith(("told", "ours")):
                    for kind in sorted({o.kind for o in found}):
                        print(_line(f"  {kind}", [o for o in found if o.kind == kind]))
                if name == "ours":
                    _calibration(found)
            if {"told", "ours"} <= set(shares):
                print(f"  ours / told, within 3: {shares['ours'] / shares['told']:.2f}")


if __name__ == "__main__":
    main()
