"""Pitch plans and call-outs: how often proved, how long, and worth beside the greedy orders of the same run.

Cases are drawn from ranges written here, apart from the planner: notes of usual kits lie one to four octaves above 55 Hz, a drum can go
some 200 to 700 cents either way, steps between toms are a third to a fifth; tasks take 1 to 12 minutes. Common practice, no source.
"""

from __future__ import annotations

import argparse
import random
import statistics
import time
from collections.abc import Callable
from typing import TypeVar

from drumwork.callout import Task, plan_callout, worst_first
from drumwork.kits import Drum, KitDrum, KitWish, Shape, Step, Wish, crowded, plan_kit, plan_pitches
from drumwork.membrane import Film, Head
from drumwork.quantities import Length, Pitch

Found = TypeVar("Found")
PARTS = {"rod": 2, "claw": 1, "felt": 1, "leg": 1}


def kit(draw: random.Random, count: int = 8) -> tuple[tuple[Drum, ...], Wish]:
    nows = sorted((draw.randint(1200, 4400) for _ in range(count)), reverse=True)
    drums = tuple(
        Drum(
            f"drum {n}", now + draw.choice((0, 0.5)), now - draw.randint(200, 700), now + draw.randint(200, 700), 0.002
        )
        for n, now in enumerate(nows)
    )
    steps = tuple(
        Step(f"drum {n}", f"drum {n + 1}", draw.randint(300, 700), draw.choice((0, 5, 20)))
        for n in range(count - 1)
        if draw.random() < 0.8
    )
    fixed = {f"drum {count - 1}": nows[-1]} if draw.random() < 0.5 else {}
    against = tuple(float(draw.randint(1200, 4400)) for _ in range(draw.randint(0, 3)))
    return drums, Wish(steps, fixed, draw.choice((20, 35, 50)), against)


def one_by_one(drums: tuple[Drum, ...], wish: Wish) -> int:
    """The greedy baseline: each drum in turn to the nearest place that keeps its step to the one before; how many steps it keeps."""
    notes: dict[str, int] = {}
    for drum in drums:
        stays = (wish.fixed or {}).get(drum.id)
        places = (
            [stays]
            if stays is not None
            else sorted(
                range(int(-(-drum.lowest // 1)), int(drum.highest) + 1),
                key=lambda cents, now=drum.now: abs(cents - now),
            )
        )
        free = [
            c for c in places if all(abs(c - n) >= wish.at_least for n in (*notes.values(), *wish.against))
        ] or places
        step = next((each for each in wish.steps if each.below == drum.id), None)
        kept = [c for c in free if step and abs(notes[step.above] - c - step.cents) <= step.tolerance]
        notes[drum.id] = (kept or free)[0]
    return sum(abs(notes[s.above] - notes[s.below] - s.cents) <= s.tolerance for s in wish.steps)


SIZES = ((10, 7, 6), (12, 8, 6), (13, 9, 6), (14, 12, 8), (16, 14, 8), (18, 16, 8))
"""Diameter and depth in inches, and rods."""


def two_headed(draw: random.Random, count: int = 8) -> tuple[list[KitDrum], KitWish]:
    """A snare, six toms and a bass: pitches at the rods some 2300 to 2900 over the diameter in inches, resonants 0 to 300 cents over them."""
    drums = []
    for n in range(count):
        wires, bass = n == 0, n == count - 1
        inches, depth, rods = (14, 5.5, 10) if wires else (22, 16, 8) if bass else SIZES[n - 1]
        lug = (4200 if wires else draw.uniform(2300, 2900)) / inches
        above = draw.choice((0.0, 150.0, 300.0))
        head = Head(Film.from_mil(10), Length(inches * 0.0254), rods)
        now = (Pitch(lug), Pitch(lug * 2 ** (above / 1200)))
        drums.append(KitDrum(f"drum {n}", head, head, Length(depth * 0.0254), now, above, (0.001, 0.001), wires, not (wires or bass)))  # fmt: skip
    step = draw.choice((None, 200.0, 300.0, 400.0))
    return drums, KitWish(draw.choice(list(Shape)), step, 10.0, {}, frozenset(), draw.choice((35.0, 50.0, 70.0)))


def callout(draw: random.Random, count: int = 30) -> tuple[float, list[Task]]:
    tasks: list[Task] = []
    for n in range(count):
        after = (
            tuple({draw.choice(tasks).id for _ in range(draw.randint(0, 2))}) if tasks and draw.random() < 0.4 else ()
        )
        uses = (draw.choice(tuple(PARTS)),) if draw.random() < 0.4 else ()
        tasks.append(Task(f"task {n}", draw.choice((1, 1.5, 2, 3, 4, 5, 8, 12)), draw.randint(1, 30), after, uses))
    return draw.choice((8, 12, 20, 35)), tasks


def timed(act: Callable[[], Found]) -> tuple[float, Found]:
    began = time.perf_counter()
    found = act()
    return (time.perf_counter() - began) * 1000, found


def spread(values: list[float]) -> str:
    return f"median {statistics.median(values):.0f} ms, worst {max(values):.0f} ms"


def main() -> None:
    asked = argparse.ArgumentParser(description=__doc__)
    asked.add_argument("--cases", type=int, default=60)
    asked.add_argument("--seed", type=int, default=1)
    said = asked.parse_args()
    draw = random.Random(said.seed)
    plan_pitches((Drum("warm", 0, 0, 1),), Wish())  # the solver is loaded once
    took, proved, kept, greedy, wished = list[float](), 0, 0, 0, 0
    for _ in range(said.cases):
        drums, wish = kit(draw)
        ms, plan = timed(lambda drums=drums, wish=wish: plan_pitches(drums, wish))
        took.append(ms)
        proved += plan.proved
        wished += len(wish.steps)
        kept += len(wish.steps) - len(plan.dropped) if not plan.impossible else 0
        greedy += one_by_one(drums, wish)
    print(
        f"pitch plans of 8 drums: {proved} of {said.cases} proved; {spread(took)}; steps kept {kept} of {wished} (drum by drum {greedy})"
    )
    took, proved, crowds, before = list[float](), 0, 0, 0
    for _ in range(said.cases):
        both, wanted = two_headed(draw)
        ms, planned = timed(lambda d=both, w=wanted: plan_kit(d, w))
        took.append(ms)
        proved += planned.proved
        before += len(crowded([each.stands for each in both if each.stands], wanted.apart))
        crowds += len(crowded(list(planned.places.values()), wanted.apart))
    print(
        f"both heads of 8 drums: {proved} of {said.cases} proved; {spread(took)}; pairs of drums too near each other {crowds} (as they stand {before})"
    )
    took, again, proved, worth, plain = [], [], 0, 0.0, 0.0
    for _ in range(said.cases):
        minutes, tasks = callout(draw)
        ms, order = timed(lambda m=minutes, t=tasks: plan_callout(m, t, PARTS))
        took.append(ms)
        proved += order.proved
        worth += order.worth
        plain += worst_first(minutes, tasks, PARTS).worth
        done = set(order.order[:2])
        left = [
            Task(t.id, t.minutes, t.worth, tuple(a for a in t.after if a not in done), t.uses)
            for t in tasks
            if t.id not in done
        ]
        again.append(timed(lambda m=minutes * 0.6, t=left: plan_callout(m, t, PARTS))[0])
    print(
        f"call-outs of 30 tasks: {proved} of {said.cases} proved; {spread(took)}; worth {worth / plain:.2f} of worst first"
    )
    print(f"re-plan of what is left: {spread(again)}")


if __name__ == "__main__":
    main()
