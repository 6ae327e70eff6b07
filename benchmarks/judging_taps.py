"""Taps to judge the listener by, from a simulator that shares nothing with the engine: neither its film, nor its family, nor its figures.

Everything is drawn from ranges written here. Tunings at the rods by kind and size are those players' guides commonly give, from memory, with half as
much again either way; depths of shells and weights of heads are those drums are sold with, from memory; the rest are the ranges that recorded drums spread
over (decays of 0.4 to 5 s, splits to 150 cents, the drum's note from far below its pair to above it). Zeros of Bessel functions from SciPy, not from the
engine's table.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.special import jn_zeros, jv

Array = np.ndarray
LOW_HIGH = {
    ("rack-tom", 8): (260, 420), ("rack-tom", 10): (200, 330), ("rack-tom", 12): (160, 270), ("rack-tom", 13): (145, 240),
    ("floor-tom", 14): (115, 200), ("floor-tom", 16): (90, 165), ("floor-tom", 18): (75, 140),
    ("snare", 13): (260, 430), ("snare", 14): (230, 400),
    ("bass", 18): (75, 150), ("bass", 20): (65, 130), ("bass", 22): (55, 110), ("bass", 24): (50, 100),
}  # fmt: skip
"""Hertz at the rods, by kind and inches; common practice from memory, no source."""
DEPTHS_M = {"rack-tom": (0.16, 0.3), "floor-tom": (0.3, 0.45), "snare": (0.09, 0.2), "bass": (0.35, 0.56)}
FILMS = (0.2, 0.65)  # kg/m²: from a thin single ply to two plies and a coating
AIR, SOUND = 1.2, 343.0


@dataclass(frozen=True)
class Judged:
    """One tap, what is true of it, and what could be known beforehand."""

    samples: Array
    rate: int
    kind: str
    inches: int
    pair_hz: tuple[float, float]
    centre_hz: float
    told_hz: float
    trouble: str
    blended: bool
    depth_m: float
    film_kg_per_m2: float
    held: bool
    other_hz: float

    @property
    def bounds(self) -> tuple[float, float]:
        """What may be read: anywhere between the pair's two, since a blend of them is what a rod between their axes reads. Where the drum's own note and
        the pair are one mode as much as the other, either will do."""
        hz = (*self.pair_hz, self.centre_hz) if self.blended else self.pair_hz
        return min(hz), max(hz)

    def error_cents(self, hz: float) -> float:
        low, high = self.bounds
        return 0.0 if low <= hz <= high else min(abs(1200 * float(np.log2(hz / each))) for each in (low, high))


def _partials(
    random: np.random.Generator,
    pair: tuple[float, float],
    centre: float,
    centre_db: float,
    air: float,
    t60: float,
) -> list[tuple[float, float, float]]:
    """(hz, amplitude, decay 1/s). The family lies wider the more the air weighs; the drum's note dies 1.3 to 3 times faster than the pair."""
    j11 = float(jn_zeros(1, 1)[0])
    middle = float(np.sqrt(pair[0] * pair[1]))
    angle, decay = random.uniform(0, np.pi), 6.91 / t60
    place = 1 - random.uniform(0.06, 0.3)  # of the radius, where it is tapped
    found = [(pair[0], float(np.cos(angle)), decay), (pair[1], float(np.sin(angle)), decay * random.uniform(0.85, 1.2))]
    tallest = max(abs(found[0][1]), abs(found[1][1]))
    own = float(jv(1, j11 * place)) / 0.5819  # the (1,1) mode's most
    found = [(hz, amplitude * own, rate) for hz, amplitude, rate in found]
    found.append((centre, tallest * own * 10 ** (centre_db / 20), decay * random.uniform(1.3, 3.0)))
    for m, n in ((2, 1), (0, 2), (3, 1), (1, 2), (4, 1), (2, 2), (5, 1)):
        zero = float(jn_zeros(m, n)[-1])
        wide = np.sqrt((1 + air) / (1 + air * j11 / zero))
        hz = middle * zero / j11 * float(wide) * (1 + random.normal(0, 0.006))
        size = abs(float(jv(m, zero * place))) / 0.45 * 10 ** (random.uniform(-26, -4) / 20)
        rate = decay * random.uniform(1.0, 2.5)
        halves = (1 - 0.5 * random.uniform(0, 0.012), 1 + 0.5 * random.uniform(0, 0.012)) if m else (1.0,)
        found += [(hz * half, size / len(halves), rate) for half in halves]
    return found


def _mixed(pair: tuple[float, float], centre: float, coupling: float) -> tuple[tuple[float, float], float, bool]:
    """Pair and drum's note where uneven pull couples them: two that come near push each other apart, as any two oscillators do. Whether they are so
    near that the upper and the lower are as much the one as the other."""
    near = min(range(2), key=lambda one: abs(pair[one] - centre))
    mean, half = (pair[near] + centre) / 2, (pair[near] - centre) / 2
    apart = float(np.hypot(half, coupling * mean)) * (1 if half >= 0 else -1)
    moved = list(pair)
    moved[near] = mean + apart
    return (moved[0], moved[1]), mean - apart, abs(half) < coupling * mean


def _note(
    random: np.random.Generator, middle: float, radius: float, depth: float, film: float, held: bool, other: float
) -> float:
    """The drum's note: one mass on the shell's air where the other head is held and leaks, two where it rings; each some way off what that says, and one in
    three wherever notes lie on drums, whatever the drum."""
    if random.random() < 1 / 3:
        return middle * float(random.uniform(0.6, 1.25) if held else random.uniform(0.45, 0.8))
    j01, j11 = float(jn_zeros(0, 1)[0]), float(jn_zeros(1, 1)[0])
    mass = film + 2 * AIR * radius / j01
    own = (2 * np.pi * middle * j01 / j11) ** 2 * (film + 2 * AIR * radius / j11) / mass
    squeezed = AIR * SOUND**2 * (2 / j01) ** 2 / depth / mass  # mean movement squared over mean square
    if held:
        square = own + squeezed * float(random.uniform(0.3, 1))
    else:
        facing = float(random.uniform(0.6, 1.4))  # the other film weighs so much less or more
        its = (2 * np.pi * other * j01 / j11) ** 2
        square = float(
            np.linalg.eigvalsh(
                [[own + squeezed, -squeezed * facing], [-squeezed * facing, its + squeezed * facing**2]]
            )[0]
        )
    hz = float(np.sqrt(max(square, 0.0)) / (2 * np.pi) * np.exp(random.normal(0, 0.06)))
    return float(np.clip(hz, 0.45 * middle, 1.25 * middle))


def _centre_db(random: np.random.Generator) -> float:
    """The drum's note against the pair: -30 to +40 dB; seldom the most, which is a microphone over the middle."""
    low, high = ((-30, 8), (8, 22), (22, 40))[int(random.choice(3, p=[0.65, 0.23, 0.12]))]
    return float(random.uniform(low, high))


def _ring(
    random: np.random.Generator,
    partials: list[tuple[float, float, float]],
    rate: int,
    seconds: float,
    glide_cents: float,
) -> Array:
    t = np.arange(int(seconds * rate)) / rate
    slow = min(each[2] for each in partials)
    sharp = 2 ** (glide_cents / 1200) - 1
    bent = t + sharp * (1 - np.exp(-2 * slow * t)) / (2 * slow)
    rise = 1 - np.exp(-t / random.uniform(0.0006, 0.004))
    out = np.zeros(len(t))
    for hz, amplitude, decay in partials:
        out += amplitude * np.exp(-decay * t) * np.sin(2 * np.pi * hz * bent + random.uniform(0, 2 * np.pi)) * rise
    tip = random.standard_normal(len(t)) * np.exp(-t / random.uniform(0.002, 0.007)) * random.uniform(0.02, 0.5)
    return out + tip


def _pink(random: np.random.Generator, count: int) -> Array:
    spectrum = np.fft.rfft(random.standard_normal(count))
    return np.fft.irfft(spectrum / np.sqrt(np.maximum(np.arange(len(spectrum)), 1)), count)


def make_tap(seed: int, trouble: str = "") -> Judged:
    """A plain tap, or one with a trouble: bounce, clipped, hum, leak. All are readable."""
    random = np.random.default_rng([13, seed])
    kind, inches = list(LOW_HIGH)[random.integers(len(LOW_HIGH))]
    low, high = LOW_HIGH[kind, inches]
    middle = float(np.exp(random.uniform(np.log(max(45, low / 1.5)), np.log(high * 1.5))))
    split = float(random.choice([0.0, random.uniform(0, 40), random.uniform(0, 150)], p=[0.3, 0.45, 0.25]))
    pair = (middle * 2 ** (-split / 2400), middle * 2 ** (split / 2400))
    held = random.random() < 0.6
    radius, depth = inches * 0.0127, float(random.uniform(*DEPTHS_M[kind]))
    film, other = float(np.exp(random.uniform(*np.log(FILMS)))), middle * 2 ** float(random.uniform(-9, 9) / 12)
    centre = max(_note(random, middle, radius, depth, film, held, other), 34.0)
    pair, centre, blended = _mixed(pair, centre, float(random.uniform(0.0, 0.02)))
    t60 = float(np.exp(random.uniform(np.log(0.4), np.log(5.0))))
    if kind == "bass" or kind == "snare":
        t60 = min(t60, 2.0)
    air = 2 * AIR * radius / float(jn_zeros(1, 1)[0]) / film * float(np.exp(random.normal(0, 0.2)))
    partials = _partials(random, pair, centre, _centre_db(random), air, t60)
    rate = int(random.choice([44_100, 48_000]))
    if random.random() < 0.5:  # the other head leaks: its own pair, soft, somewhere else; held, it dies sooner
        sooner = float(random.uniform(1.5, 4) if held else random.uniform(1.0, 2.0))
        partials.append((other, abs(partials[0][1]) * float(random.uniform(0.05, 0.3)), 6.91 / t60 * sooner))
    ring = _ring(
        random, partials, rate, 1.4, float(random.choice([0.0, random.uniform(0, 80), random.uniform(0, 300)]))
    )
    ring /= np.abs(ring).max()
    if trouble == "bounce":
        late = int(random.uniform(0.025, 0.15) * rate)
        again = _ring(random, partials, rate, 1.4, 0.0)
        ring[late:] += again[: len(ring) - late] / np.abs(again).max() * random.uniform(0.2, 0.8)
        ring /= np.abs(ring).max()
    sound = np.concatenate([np.zeros(int(random.uniform(0.08, 0.5) * rate)), ring])
    sound *= random.uniform(0.08, 0.8)
    peak = np.abs(sound).max()
    sound += _pink(random, len(sound)) / 8 * peak * 10 ** (-random.uniform(28, 60) / 20)
    if trouble == "hum":
        t = np.arange(len(sound)) / rate
        mains = float(random.choice([50.0, 60.0]))
        level = peak * 10 ** (-random.uniform(8, 24) / 20)
        sound += level * sum(np.sin(2 * np.pi * mains * k * t + random.uniform(0, 6.28)) / k for k in (1, 2, 3))
    sound += random.uniform(-0.02, 0.02)
    if trouble == "clipped":
        rail = np.abs(sound).max() * random.uniform(0.35, 0.8)
        sound = np.clip(sound, -rail, rail) / rail
    told = middle * (1 + float(random.uniform(-0.08, 0.08)))
    return Judged(
        np.clip(sound, -1, 1),
        rate,
        kind,
        inches,
        pair,
        centre,
        told,
        trouble,
        blended,
        depth,
        film,
        held,
        other,
    )
