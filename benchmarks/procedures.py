"""Every plan held against a drum: needs that nothing meets, turns of the drum against the least there can be, and the time a plan takes.

The least is found by trying every way up at every step; it knows nothing of how plans are completed. Times are ratios to the order of the rods alone.
"""

from __future__ import annotations

import itertools
import statistics
import time
from collections.abc import Iterator

from drumwork.drums import DrumKind, Side, traits_of
from drumwork.errors import UnknownWork
from drumwork.procedures.catalogue import CATALOGUE
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, order_rods
from drumwork.work.hand import Up
from drumwork.work.making import make_plan
from drumwork.work.plan import DrumFacts, Part, Plan, Procedure
from drumwork.work.ways import AfterStretch, BassPitch, BedRods, FirstHead, Stretch, Ways

_SIDES = {Side.BATTER: Up.BATTER, Side.RESONANT: Up.RESONANT}


def least_turns(work: Procedure, part: Part, drum: DrumFacts, ways: Ways, plan: Plan) -> int:
    """The fewest times the drum must be turned for these steps in this order."""
    shown = {step.id for step in plan.steps if step.shows(())}
    cost = {Up.PLAYED: 0}
    for step in work.steps(part, ways, drum):
        if step.id not in shown:
            continue
        hand = step.side or Side.BATTER
        named = {Up.HAND: _SIDES[hand], Up.OTHER: _SIDES[hand.other]}
        if allowed := {named.get(each, each) for each in step.needs.up}:
            cost = {to: min(turns + (at is not to) for at, turns in cost.items()) for to in allowed}
        if step.leaves.up:
            cost = {named.get(step.leaves.up, step.leaves.up): min(cost.values())}
    return min(cost.values())


def turns_in(plan: Plan) -> int:
    return sum("turn" in step.does for step in plan.steps if step.shows(()))


def jobs(rods: tuple[int, ...] = (6, 8, 10)) -> Iterator[tuple[Procedure, Part, DrumFacts, Ways]]:
    """Every work on every part of every kind of drum, ported or not, in the schools that change its steps."""
    schools = itertools.product(FirstHead, Stretch, AfterStretch, BassPitch, BedRods)
    ways = [Ways(first_head=a, stretch=b, after_stretch=c, bass_pitch=d, bed_rods=e) for a, b, c, d, e in schools]
    for kind, count, port in itertools.product(DrumKind, rods, (False, True)):
        traits = traits_of(kind)
        layouts = {side: RodLayout(count) for side in Side} if traits.rods else {}
        drum = DrumFacts(kind, layouts, snare_bed=traits.wires, port=port)
        for work in CATALOGUE.values():
            for part, way in itertools.product(work.parts, ways):
                if not work.why_not(drum, part):
                    yield work, part, drum, way


def main() -> None:
    planned, ordered, unmet, turns, least, whys = [], [], [], 0, 0, 0
    for work, part, drum, ways in jobs():
        began = time.perf_counter()
        try:
            plan = make_plan(work, part, drum, ways)
        except UnknownWork as error:
            unmet.append(error.message)
            continue
        planned.append((time.perf_counter() - began) * 1000)
        began = time.perf_counter()
        order_rods(RodLayout(10), Pattern.STAR)
        ordered.append((time.perf_counter() - began) * 1000)
        turns += turns_in(plan)
        least += least_turns(work, part, drum, ways, plan)
        whys += sum(not step.why for step in plan.steps)
    print(f"{len(planned)} plans; needs that nothing meets: {len(unmet)}; steps without a why: {whys}")
    print(f"turns of the drum: {turns}; the least there can be: {least}")
    print("\n".join(sorted(set(unmet))))
    base = statistics.median(ordered)
    for name, values in (("order of the rods (baseline)", ordered), ("a whole plan", planned)):
        p50, p95 = statistics.median(values), statistics.quantiles(values, n=20)[-1]
        print(f"{name:30} median {p50:6.2f} ms ({p50 / base:5.1f}x)   p95 {p95:6.2f} ms   of {len(values)}")


if __name__ == "__main__":
    main()
