"""Rounds of simulated taps with a rod missed, doubled or out of turn: how often that is found, and how often a good round is blamed."""

from __future__ import annotations

import math
from collections import Counter

import numpy as np

from drumwork.listening import Foretold, HeardRod, TapContext, TapOrder, listen_to_tap, spot_order
from drumwork.rods.layout import RodLayout
from drumwork.simulated import Microphone, SimulatedDrum, Tap

RATE = 44_100
BESIDE_DEG = 3.5  # how far beside the rod the hand taps, one standard deviation
FORETOLD_CENTS = 6.0


def hear(drum: SimulatedDrum, rods: list[int], random: np.random.Generator) -> list[HeardRod]:
    """These taps as they are heard: beside the rod, soft and hard, in a room."""
    head, heard = drum.sounding(), []
    for rod in rods:
        angle = drum.layout.angle_rad(rod) + math.radians(BESIDE_DEG) * random.standard_normal()
        tap = Tap(angle, float(random.uniform(0.02, 0.05)), float(random.uniform(0.1, 0.5)))
        room = Microphone(snr_db=float(random.uniform(30, 50)))
        sound = room.hear(head.sound(tap, RATE, 1.1, random), RATE, random)
        reading = listen_to_tap(sound, RATE, TapContext(expect_hz=drum.near_hz))
        heard.append(HeardRod.of(reading.hz or drum.near_hz, reading.partials))
    return heard


def rounds_of(rods: list[int], random: np.random.Generator) -> dict[str, list[int]]:
    one, other = (int(each) for each in random.choice(len(rods) - 1, 2, replace=False))
    doubled = [rod for rod in rods for _ in range(2 if rod == rods[one] else 1)]
    swapped = list(rods)
    swapped[one], swapped[other] = swapped[other], swapped[one]
    return {
        "as asked": rods,
        "one missed": [rod for rod in rods if rod != rods[one]],
        "one doubled": doubled,
        "one doubled, cut off": doubled[: len(rods)],
        "two swapped": swapped,
    }


def verdict(found: TapOrder, rods: list[int]) -> str:
    if found.rods == tuple(rods):
        return "right"
    if not found.amiss:
        return "unnoticed"
    return "wrong" if found.certain else "unsure"


def measure(drums: int, seed: int) -> None:
    counts: dict[str, Counter[str]] = {}
    for number in range(seed, seed + drums):
        random = np.random.default_rng(number)
        layout = RodLayout(int(random.choice([5, 6, 8, 10])))
        inches = float(random.uniform(8, 16))
        near = 2900 / inches * math.exp(random.normal(0, 0.15))
        drum = SimulatedDrum(layout, near, inches * 0.0127, number, uneven=float(random.uniform(0.03, 0.12)))
        true = drum.true_hz()
        foretold = {
            rod: Foretold(hz * 2 ** (FORETOLD_CENTS * random.standard_normal() / 1200), 8.0) for rod, hz in true.items()
        }
        for name, rods in rounds_of(list(layout.rods), random).items():
            heard = hear(drum, rods, random)
            for when, told in (("first round", None), ("later round", foretold)):
                said = verdict(spot_order(layout, layout.rods, heard, told), rods)
                counts.setdefault(f"{name}, {when}", Counter())[said] += 1
    print(f"order of taps, {drums} simulated heads of 5 to 10 rods, seeds from {seed}")
    for name, count in counts.items():
        print(f"  {name:34} " + ", ".join(f"{said} {n / drums:.0%}" for said, n in count.most_common()))
