"""Time to plan a job in the core, over every work, kind, number of rods and first head; beside it, as baseline, the order of the rods alone."""

from __future__ import annotations

import itertools
import statistics
import time

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, order_rods
from drumwork.work.plan import DrumFacts, make_plan
from drumwork.work.ways import Ways

TIMES = 5


def main() -> None:
    planned, ordered = [], []
    for work, kind, rods, first in itertools.product(CATALOGUE.values(), DrumKind, range(4, 17), Side):
        layouts = {side: RodLayout(rods) for side in Side}
        drum = DrumFacts(kind, layouts if traits_of(kind).rods else {}, snare_bed=traits_of(kind).wires)
        for part in work.parts:
            if work.why_not(drum, part):
                continue
            for _ in range(TIMES):
                began = time.perf_counter()
                make_plan(work, part, drum, Ways(first_head=first))
                planned.append((time.perf_counter() - began) * 1000)
                began = time.perf_counter()
                order_rods(layouts[Side.BATTER], Pattern.STAR)
                ordered.append((time.perf_counter() - began) * 1000)
    base = statistics.median(ordered)
    for name, values in (("order of the rods (baseline)", ordered), ("a whole plan", planned)):
        p50, p95 = statistics.median(values), statistics.quantiles(values, n=20)[-1]
        print(f"{name:30} median {p50:6.2f} ms ({p50 / base:5.1f}x)   p95 {p95:6.2f} ms   of {len(values)}")


if __name__ == "__main__":
    main()
