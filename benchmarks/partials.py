"""What each trait of a partial weighs: fitted on taps of the engine's own two-film drums, judged on another simulator's; how honest the stated chances are.

A conditional logit: the chance of a partial goes with the exponential of its weighed traits, and the weights are those under which the pairs of the drawn
taps are likeliest (D. McFadden, “Conditional logit analysis of qualitative choice behavior”, 1974, from memory). The drums are `SoundingDrum`s whose levels, decays and
notes are spread far beyond what the model says, since microphones, strokes and leaks do so; tunings spread about `usual_edge_hz`. Nothing of the judging
simulator is used in the fit. `--write` puts the weights into `drumwork/listening/weights.py`.
"""

from __future__ import annotations

import argparse
import itertools
import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from typing import NamedTuple

import numpy as np
from scipy.optimize import minimize

from benchmarks import judging_taps
from drumwork.listening import TapContext, listen_to_tap, usual_edge_hz
from drumwork.listening.around import Around, Other
from drumwork.listening.partials import Partial
from drumwork.listening.traits import TRAITS, Told, Weighed, weigh
from drumwork.listening.weights import ALONE, EXPECTED
from drumwork.quantities import Length
from drumwork.simulated import Microphone, Ringing, Shell, SoundingDrum, Tap

WEIGHTS = Path(__file__).parents[1] / "core" / "src" / "drumwork" / "listening" / "weights.py"
INCH = 0.0254
RATE = 44_100
NEAR = 2 ** (35 / 1200)
PULL_TOGETHER = 1.0
BANDS = (0.0, 0.5, 0.7, 0.9, 0.97, 1.01)
Case = tuple[Weighed, np.ndarray]
"""A tap's partials weighed, and (n,) which of them are of its pair."""


class Drawn(NamedTuple):
    """A tap's partials as they are found with and without a pitch to expect, and what is true of it."""

    alone: tuple[Partial, ...]
    expecting: tuple[Partial, ...]
    pair_hz: tuple[float, float]
    centre_hz: float
    told_hz: float
    usual_hz: float
    drum: Around

    def case(self, size: bool, expected: bool, centre: bool, drum: str = "") -> Case | None:
        partials = self.expecting if expected else self.alone
        if not partials:
            return None
        told = Told(
            self.told_hz if expected else None,
            self.usual_hz if size else None,
            self.centre_hz if centre else None,
            _known(self.drum, drum) if size else None,
        )
        hz = np.array([each.hz for each in partials])
        low, high = self.pair_hz
        return weigh(partials, told), (hz > low / NEAR) & (hz < high * NEAR)


def _known(drum: Around, what: str) -> Around:
    """As much of the drum as is said: its width, how the other head is kept, or all of it."""
    match what:
        case "":
            return Around(drum.radius_m)
        case "other":
            return Around(drum.radius_m, other=drum.other)
        case _:
            return drum


def _drum(random: np.random.Generator) -> tuple[SoundingDrum, float, float]:
    """A drum, its width in inches, and what such a drum usually reads."""
    kind = str(random.choice(["tom", "tom", "snare", "bass"]))
    inches = float(random.uniform(*{"tom": (8, 18), "snare": (12, 14.5), "bass": (16, 26)}[kind]))
    usual = usual_edge_hz(Length.from_inches(inches), kind)
    edge = float(np.clip(usual * np.exp(random.normal(0, 0.3)), 50, 600))
    shell = Shell(
        depth_m=0.15 if kind == "snare" else float(random.uniform(0.12, 0.45)),
        film_kg_per_m2=float(random.uniform(0.2, 0.6)),
        other_kg_per_m2=float(random.uniform(0.1, 0.4)),
        other_hz=edge * 2 ** float(random.uniform(-7, 9) / 12),
        other_muted=bool(random.random() < 0.6),
    )
    two = random.choice([0.0, random.uniform(0, 0.03), random.uniform(0, 0.085)])
    lobes = (complex(two * np.exp(2j * np.pi * random.uniform())), *(complex(random.uniform(0, 0.02)) for _ in "ab"))
    ringing = Ringing(float(np.exp(random.uniform(np.log(0.4), np.log(4)))), float(random.uniform(0, 240)))
    return SoundingDrum(inches * INCH / 2, edge, lobes, shell, ringing), inches, usual


def _spread(
    drum: SoundingDrum,
    partials: Sequence[Partial | tuple[float, float, float]],
    random: np.random.Generator,
) -> tuple[list[tuple[float, float, float]], float]:
    """The drum's partials as rooms, strokes and leaks would have them, and its note then."""
    note, muted = drum.centre_hz, drum.shell.other_muted
    moved = float(random.uniform(0.75, 1.12) if muted else random.uniform(0.92, 1.05))
    if random.random() < ASTRAY:  # a drum that is not as the model says
        moved = drum.edge_hz * float(random.uniform(0.45, 1.25)) / note
    louder = float(random.uniform(*((-20, 6), (6, 22), (22, 35))[int(random.choice(3, p=[0.6, 0.25, 0.15]))]))
    sooner = float(random.uniform(1.2, 3.0)) / 2.2  # than the model's own
    plain = [(float(hz), float(size), float(decay)) for hz, size, decay in partials]
    if muted and random.random() < 0.4:
        own = max(size for hz, size, _ in plain if abs(hz / drum.edge_hz - 1) < 0.1)
        leak = drum.edge_hz * 2 ** float(random.uniform(-9, 9) / 12)
        slowest = min(decay for *_, decay in plain)
        plain.append((leak, own * float(random.uniform(0.05, 0.3)), slowest * float(random.uniform(1.5, 4))))
    found = []
    for hz, size, decay in plain:
        size, decay = size * 10 ** (random.normal(0, 4) / 20), decay * float(np.exp(random.normal(0, 0.2)))
        if abs(hz - note) < 1e-6:
            hz, size, decay = hz * moved, size * 10 ** (louder / 20), decay * sooner
        found.append((hz, size, decay))
    return found, note * moved


def draw(seed: int) -> Drawn:
    """One tap to fit on."""
    random = np.random.default_rng([77, seed])
    drum, inches, usual = _drum(random)
    reach = (0.02, 0.06) if random.random() < DEEP else (0.06, 0.6 * inches * INCH / 2)
    tap = Tap(float(random.uniform(0, 2 * np.pi)), float(random.uniform(*reach)), float(random.uniform(0.05, 0.9)))
    partials, centre = _spread(drum, drum.partials(tap), random)
    sound = drum.ringing.sound(partials, tap.strength, RATE, 1.4, random)
    sound = sound / np.abs(sound).max() * float(random.uniform(0.1, 0.8))
    room = Microphone(snr_db=float(random.uniform(25, 60)), echo=float(random.uniform(0, 0.3)))
    pair = (min(drum.pair_hz), max(drum.pair_hz))
    told = math.sqrt(pair[0] * pair[1]) * (1 + float(random.uniform(-0.08, 0.08)))
    shell = drum.shell
    other = Other.HELD if shell.other_muted else Other.RINGS
    round_it = Around(drum.radius_m, shell.depth_m, shell.film_kg_per_m2, other, shell.other_hz)
    return _read(room.hear(sound, RATE, random), RATE, pair, centre, told, usual, round_it)


ASTRAY = 0.2
DEEP = 0.85  # of the strokes fall by the hoop


def judged(seed: int) -> Drawn:
    """One tap to judge by."""
    tap = judging_taps.make_tap(seed)
    width = Length.from_inches(tap.inches)
    other = Other.HELD if tap.held else Other.RINGS
    round_it = Around(width.metres / 2, tap.depth_m, tap.film_kg_per_m2, other, tap.other_hz)
    usual = usual_edge_hz(width, tap.kind)
    return _read(tap.samples, tap.rate, tap.bounds, tap.centre_hz, tap.told_hz, usual, round_it)


def _read(
    samples: np.ndarray,
    rate: int,
    pair: tuple[float, float],
    centre: float,
    told: float,
    usual: float,
    drum: Around,
) -> Drawn:
    known = TapContext(), TapContext(expect_hz=told)
    alone, expecting = (listen_to_tap(samples, rate, context).partials for context in known)
    return Drawn(alone, expecting, pair, centre, told, usual, drum)


KNOWN = {
    "": (False, False, ""),
    "size": (True, False, ""),
    "size, other head": (True, False, "other"),
    "whole drum": (True, False, "drum"),
    "size, centre": (True, True, ""),
    "whole drum, centre": (True, True, "drum"),
    "centre": (False, True, ""),
}
"""By what is known beside: the size, the note in the middle, how much of the drum round the head."""


def cases(drawn: Sequence[Drawn], expected: bool) -> dict[str, list[Case]]:
    """By what is known beside."""
    return {
        ", ".join(filter(None, ["expected" if expected else "", name])): [
            case for each in drawn if (case := each.case(size, expected, centre, drum))
        ]
        for name, (size, centre, drum) in KNOWN.items()
    }


def fit(every: Sequence[Case]) -> np.ndarray:
    """(traits,) the weights; over every way the other head may be kept where that is not known."""
    told = [case for case in every if case[1].any()]
    size = len(TRAITS)
    spread = np.concatenate([weighed.traits.reshape(-1, size) for weighed, _ in told]).std(axis=0) + 1e-9
    flat = [
        (
            weighed.traits.reshape(-1, size) / spread,
            np.repeat(weighed.often, len(right)),
            np.tile(right, len(weighed.often)),
        )
        for weighed, right in told
    ]

    def cost(weights: np.ndarray) -> tuple[float, np.ndarray]:
        value, slope = PULL_TOGETHER * weights @ weights, 2 * PULL_TOGETHER * weights
        for scaled, often, right in flat:
            score = scaled @ weights + often
            chances = np.exp(score - score.max())
            chances /= chances.sum()
            of_pair = chances * right
            sure = of_pair.sum() + 1e-12
            value -= math.log(sure)
            slope -= (of_pair / sure - chances) @ scaled
        return float(value), slope

    return np.asarray(minimize(cost, np.zeros(len(spread)), jac=True, method="L-BFGS-B").x / spread)


def told_right(every: Sequence[Case], weights: np.ndarray) -> Iterator[tuple[float, bool]]:
    """Of each tap the chance stated of the partial chosen, and whether it is of the pair."""
    for weighed, right in every:
        chances = weighed.chances(weights)
        best = int(chances.argmax())
        yield float(chances[best]), bool(right[best])


def line(name: str, every: Sequence[Case], weights: np.ndarray) -> None:
    found = np.array(list(told_right(every, weights)), dtype=float)
    bands = [found[(found[:, 0] >= low) & (found[:, 0] < high)] for low, high in itertools.pairwise(BANDS)]
    stated = "  ".join(
        f"{each[:, 0].mean():.2f} → {each[:, 1].mean():.2f} ({len(each)})" for each in bands if len(each)
    )
    print(f"  {name:28} wrong {1 - found[:, 1].mean():5.1%}; chance stated → right: {stated}")


def write(fitted: Mapping[str, np.ndarray]) -> None:
    """Into the engine."""
    text = WEIGHTS.read_text()
    text = text[: text.index(f"{next(iter(fitted))}: Final")]
    for name, weights in fitted.items():
        inside = "".join(
            f'    "{trait}": {weight:.3f},\n'
            for trait, weight in zip(TRAITS, weights, strict=True)
            if abs(weight) > 5e-4
        )
        text += f"{name}: Final = {{\n{inside}}}\n"
    WEIGHTS.write_text(text)


def drawn_by(maker: Callable[[int], Drawn], seeds: range) -> list[Drawn]:
    with ProcessPoolExecutor() as pool:
        return list(pool.map(maker, seeds, chunksize=20))


def every_case(drawn: Sequence[Drawn]) -> dict[str, dict[str, list[Case]]]:
    """By which weights they are weighed."""
    return {"ALONE": cases(drawn, expected=False), "EXPECTED": cases(drawn, expected=True)}


def report(every: Mapping[str, Mapping[str, Sequence[Case]]], weights: Mapping[str, np.ndarray]) -> None:
    for kind, known in every.items():
        for name, found in known.items():
            line(name or "nothing known", found, weights[kind])


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--taps", type=int, default=4000, help="to fit on")
    parser.add_argument("--judged", type=int, default=800)
    parser.add_argument("--seed", type=int, default=1000, help="of the judged ones")
    parser.add_argument("--fit", action="store_true", help="else the weights as they stand are judged")
    parser.add_argument("--write", action="store_true", help="the fitted weights into the engine")
    args = parser.parse_args()
    stand = {"ALONE": ALONE, "EXPECTED": EXPECTED}
    weights = {name: np.array([each.get(trait, 0.0) for trait in TRAITS]) for name, each in stand.items()}
    if args.fit or args.write:
        own = every_case(drawn_by(draw, range(args.taps)))
        weights = {name: fit([case for every in known.values() for case in every]) for name, known in own.items()}
        print(f"{args.taps} taps that the weights were fitted on")
        report(own, weights)
    print(f"{args.judged} taps of a simulator that shares nothing with them")
    report(every_case(drawn_by(judged, range(args.seed, args.seed + args.judged))), weights)
    if args.write:
        write(weights)


if __name__ == "__main__":
    main()
