"""Simulated taps with their truth, and sounds that are no taps, for `./bench listening`."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.signal import butter, lfilter, sosfilt

from drumwork.simulated import Microphone, Ringing, Shell, SoundingDrum, SoundingHead, Tap

Array = np.ndarray
INCH = 0.0254
RATE = 44_100
KINDS = ("silence", "noise", "speech-like", "tone", "rumble", "knock", "music-like")


@dataclass(frozen=True)
class HeardTap:
    """One simulated tap: the sound, its sample rate, and what is true of it."""

    samples: Array
    rate: int
    diameter_m: float
    edge_hz: float
    pair_hz: tuple[float, float]
    centre_hz: float
    told_hz: float

    def error_cents(self, hz: float) -> float:
        """From the nearer of the pair."""
        return min(abs(1200 * float(np.log2(hz / each))) for each in self.pair_hz)


def make_tap(seed: int) -> HeardTap:
    """8–24 inches, 20–60 dB, any rod, insets of 20–50 mm, soft and hard, the pair split or not; told within ±8 %."""
    random = np.random.default_rng(seed)
    inches = random.uniform(8, 24)
    edge = float(np.clip(2900 / inches * np.exp(random.normal(0, 0.22)), 55, 480))
    head = SoundingHead(
        radius_m=inches * INCH / 2,
        edge_hz=edge,
        split=float(random.choice([0.0, random.uniform(0, 0.03)])),
        axis_rad=float(random.uniform(0, np.pi)),
        centre_hz=edge * float(random.uniform(0.5, 0.7)),
        decay_s=float(random.uniform(0.5, 1.4)),
        glide_cents=float(random.uniform(60, 240)),
    )
    tap = Tap(float(random.uniform(0, 2 * np.pi)), float(random.uniform(0.02, 0.05)), float(random.uniform(0.05, 0.9)))
    rate = int(random.choice([44_100, 48_000]))
    room = Microphone(snr_db=float(random.uniform(20, 60)), echo=float(random.uniform(0, 0.3)))
    samples = room.hear(head.sound(tap, rate, 1.2, random), rate, random)
    told = edge * (1 + float(random.uniform(-0.08, 0.08)))
    return HeardTap(samples, rate, inches * INCH, edge, head.pair_hz, float(head.centre_hz or 0), told)


def make_coupled(seed: int, other_rings: bool) -> tuple[HeardTap, float]:
    """A tap on a drum of two films, shell and air, and the other head's pitch: sizes, taps and rooms as in `make_tap`; heads up to a fifth apart."""
    random = np.random.default_rng(seed)
    inches = random.uniform(8, 24)
    edge = float(np.clip(2900 / inches * np.exp(random.normal(0, 0.22)), 55, 480))
    other = edge * 2 ** float(random.uniform(-7, 7) / 12)
    shell = Shell(float(random.uniform(0.1, 0.45)), other_hz=other, other_muted=not other_rings)
    lobe = complex(random.choice([0.0, random.uniform(0, 0.03)]) * np.exp(2j * np.pi * random.uniform()))
    ringing = Ringing(float(random.uniform(0.5, 1.4)), float(random.uniform(60, 240)))
    drum = SoundingDrum(inches * INCH / 2, edge, (lobe,), shell, ringing)
    tap = Tap(float(random.uniform(0, 2 * np.pi)), float(random.uniform(0.02, 0.05)), float(random.uniform(0.05, 0.9)))
    room = Microphone(snr_db=float(random.uniform(20, 60)), echo=float(random.uniform(0, 0.3)))
    samples = room.hear(drum.sound(tap, RATE, 1.2, random), RATE, random)
    told = edge * (1 + float(random.uniform(-0.08, 0.08)))
    return HeardTap(samples, RATE, inches * INCH, edge, drum.pair_hz, drum.centre_hz, told), other


def _speech(random: np.random.Generator, t: Array, rate: int) -> Array:
    """Syllables: a gliding voice through two formants, between them breath."""
    out = np.zeros(len(t))
    at = 0.05
    while at < t[-1] - 0.3:
        size = random.uniform(0.12, 0.3)
        inside = (t >= at) & (t < at + size)
        u = (t[inside] - at) / size
        note = random.uniform(95, 230) * (1 + random.uniform(-0.15, 0.2) * u)
        source = sum(np.sin(2 * np.pi * k * np.cumsum(note) / rate) / k for k in range(1, 14))
        for formant in (random.uniform(300, 800), random.uniform(900, 2200)):
            r = np.exp(-np.pi * 90 / rate)
            source = lfilter([1 - r], [1, -2 * r * np.cos(2 * np.pi * formant / rate), r * r], source)
        out[inside] += source * np.sin(np.pi * u) ** 0.7
        at += size + random.uniform(0.02, 0.12)
    return out


def _music(random: np.random.Generator, t: Array, _: int) -> Array:
    """Plucked or bowed notes, two or three at once, whole multiples each."""
    out = np.zeros(len(t))
    for start in np.arange(0.05, t[-1], random.uniform(0.18, 0.45)):
        for _ in range(random.integers(1, 4)):
            note, inside = 110 * 2 ** (random.integers(0, 25) / 12), t >= start
            u = t[inside] - start
            decay = random.uniform(0.5, 4)
            for k in range(1, 9):
                out[inside] += np.sin(2 * np.pi * k * note * u) * np.exp(-decay * u) / k
    return out


def make_other(seed: int) -> tuple[str, Array, int]:
    """(kind, samples, rate) of something that is no tap."""
    random = np.random.default_rng(seed)
    kind, rate = KINDS[seed % len(KINDS)], 48_000
    t = np.arange(int(1.4 * rate)) / rate
    match kind:
        case "silence":
            sound = random.standard_normal(len(t)) * 1e-4
            return kind, sound, rate
        case "noise":
            low, high = random.uniform(60, 300), random.uniform(800, 6000)
            sound = sosfilt(butter(2, [low, high], "bandpass", fs=rate, output="sos"), random.standard_normal(len(t)))
            sound *= 1 + 0.5 * np.sin(2 * np.pi * random.uniform(0.5, 3) * t)
        case "speech-like":
            sound = _speech(random, t, rate)
        case "tone":
            hz = random.uniform(80, 600)
            sound = sum(np.sin(2 * np.pi * hz * k * t) / k**2 for k in range(1, random.integers(2, 5)))
            sound = sound * np.clip(t / random.uniform(0.002, 0.2), 0, 1)
        case "rumble":
            sound = sosfilt(
                butter(4, random.uniform(12, 22), "lowpass", fs=rate, output="sos"), random.standard_normal(len(t))
            )
        case "knock":
            sound = (
                random.standard_normal(len(t))
                * np.exp(-np.clip(t - 0.3, 0, None) / random.uniform(0.004, 0.012))
                * (t > 0.3)
            )
            sound = sosfilt(butter(2, random.uniform(500, 3000), "lowpass", fs=rate, output="sos"), sound)
        case _:
            sound = _music(random, t, rate)
    sound = sound / np.abs(sound).max() * random.uniform(0.1, 0.6)
    return kind, sound + random.standard_normal(len(t)) * 3e-4, rate
