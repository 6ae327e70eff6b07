"""Simulated taps against truth in four situations, sounds that are no taps, and the time of one tap.

Baselines on the same taps: the Hann-windowed, parabolically refined strongest peak of the spectrum; and with --yin a reference library's YIN.
"""

from __future__ import annotations

import argparse
import math
import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np

from benchmarks import judging_taps
from benchmarks.listening_order import measure
from benchmarks.listening_sounds import KINDS, HeardTap, make_coupled, make_other, make_tap
from drumwork.listening import Other, Status, TapContext, TapReading, listen_to_tap, usual_edge_hz
from drumwork.quantities import Length

GROSS_CENTS = 50.0
JUDGED = ("expected", "expected, centre", "size", "size, centre", "whole drum", "whole drum, centre")


def contexts(tap: HeardTap) -> dict[str, TapContext]:
    return {
        "expected and centre": TapContext(expect_hz=tap.told_hz, centre_hz=tap.centre_hz),
        "expected only": TapContext(expect_hz=tap.told_hz),
        "diameter only": TapContext(diameter=Length(tap.diameter_m)),
        "nothing": TapContext(),
    }


def spectrum_peak(tap: HeardTap) -> float:
    """The strongest peak of the first 0.4 s, Hann window, parabola through three bins of its logarithm."""
    start = int(np.argmax(np.abs(tap.samples) > 0.1 * np.abs(tap.samples).max()))
    seg = tap.samples[start : start + int(0.4 * tap.rate)]
    spectrum = np.abs(np.fft.rfft(seg * np.hanning(len(seg))))
    hz = np.fft.rfftfreq(len(seg), 1 / tap.rate)
    place = int(np.argmax(np.where((hz > 32) & (hz < 1500), spectrum, 0)))
    a, b, c = np.log(spectrum[place - 1 : place + 2] + 1e-12)
    return float((place + 0.5 * (a - c) / (a - 2 * b + c)) * hz[1])


def yin() -> Callable[[HeardTap], float]:
    import librosa

    def read(tap: HeardTap) -> float:
        start = int(np.argmax(np.abs(tap.samples) > 0.1 * np.abs(tap.samples).max()))
        found = librosa.yin(
            tap.samples[start : start + int(0.5 * tap.rate)], fmin=40, fmax=1000, sr=tap.rate, frame_length=4096
        )
        return float(np.median(found))

    return read


def line(name: str, errors: list[float], refused: int, doubted: int | None = None) -> None:
    found = np.array(errors)
    print(
        f"{name:26} median {np.median(found):6.2f}, 95th {np.percentile(found, 95):7.1f} cents; gross (> {GROSS_CENTS:.0f}) "
        f"{(found > GROSS_CENTS).mean():.1%}; refused {refused}"
        + (f", doubted {doubted}" if doubted is not None else "")
    )


def bound_cents(tap: HeardTap, reading: TapReading) -> float:
    """Cramér–Rao bound of a damped sinusoid's frequency, in cents, for one partial alone in white noise.

    var f ≥ σ² d³ (1 - z²)³ …: for a ring much longer than its decay, var(ω) = 4 d³ σ² Δt / A² with amplitude decay d a second, noise variance σ² a sample and
    sample interval Δt (Y.-X. Yao & S. M. Pandit, “Cramér-Rao lower bounds for a damped sinusoidal process”, IEEE Trans. SP 43 (1995), the limit for long
    records).
    """
    best = min(reading.partials, key=lambda each: abs(each.hz - (reading.hz or 0)))
    decay = max(best.decay_db_s / 8.686, 0.5)
    noise = float(np.std(tap.samples[: int(0.1 * tap.rate)]))
    amplitude = 0.1 * 10 ** (best.level_db / 20)
    sd = math.sqrt(4 * decay**3 * noise**2 / tap.rate) / amplitude / (2 * math.pi)
    return 1731 * sd / (reading.hz or 100)


def measure_coupled(taps: int, seed: int) -> None:
    """Drums whose partials follow from two films, shell and air."""
    print(f"{taps} taps each on drums of two films, shell and air; doubtful ones counted apart")
    for rings in (False, True):
        for known in ("expected", "diameter only"):
            errors, refused, doubted = [], 0, 0
            for number in range(seed, seed + taps):
                tap, other = make_coupled(number, rings)
                told = TapContext(expect_hz=tap.told_hz) if known == "expected" else TapContext()
                context = replace(
                    told, diameter=Length(tap.diameter_m), other_hz=other, other=Other.RINGS if rings else Other.HELD
                )
                reading = listen_to_tap(tap.samples, tap.rate, context)
                refused += reading.status is Status.REFUSE
                doubted += reading.status is Status.FLAG
                if reading.hz is not None and reading.status is Status.OK:
                    errors.append(tap.error_cents(reading.hz))
            line(f"other {'rings' if rings else 'muted'}, {known}", errors, refused, doubted)


def measure_judged(taps: int, seed: int) -> None:
    """A simulator that shares nothing with the engine; what is refused counts as gross."""
    print(f"{taps} taps each of a simulator that shares nothing with the engine; refused counts as gross")
    for trouble, known in (
        *(("", known) for known in JUDGED),
        ("bounce", "expected"),
        ("clipped", "expected"),
        ("hum", "expected"),
    ):
        errors, told = [], dict.fromkeys(Status, 0)
        for number in range(seed, seed + taps):
            tap = judging_taps.make_tap(number, trouble)
            width = Length.from_inches(tap.inches)
            size = TapContext(diameter=width, usual_hz=usual_edge_hz(width, tap.kind))
            context = replace(
                size,
                expect_hz=tap.told_hz if "expected" in known else None,
                centre_hz=tap.centre_hz if "centre" in known else None,
            )
            if "whole drum" in known:
                other = Other.HELD if tap.held else Other.RINGS
                context = replace(context, other=other, depth=Length(tap.depth_m), film_kg_per_m2=tap.film_kg_per_m2)
            reading = listen_to_tap(tap.samples, tap.rate, context)
            told[reading.status] += 1
            errors.append(tap.error_cents(reading.hz) if reading.hz else math.inf)
        found = np.array(errors)
        read = found[np.isfinite(found)]
        print(
            f"{trouble or 'plain'}, {known:18} median {np.median(read):6.2f}, 95th {np.percentile(read, 95):7.1f} cents; gross {(found > GROSS_CENTS).mean():.1%}; "
            + ", ".join(f"{status.value} {count}" for status, count in told.items())
        )


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--taps", type=int, default=400)
    parser.add_argument("--others", type=int, default=140)
    parser.add_argument("--rounds", type=int, default=40, help="heads whose rounds are tapped in wrong orders")
    parser.add_argument("--seed", type=int, default=0)
    parser.add_argument("--yin", action="store_true", help="beside a reference library's YIN, installed apart")
    args = parser.parse_args()
    taps = [make_tap(seed) for seed in range(args.seed, args.seed + args.taps)]
    print(f"{len(taps)} simulated taps, seeds from {args.seed}; error from the nearer of the (1,1) pair")
    took, bounds = [], []
    for name in contexts(taps[0]):
        errors, refused = [], 0
        for tap in taps:
            began = time.perf_counter()
            reading = listen_to_tap(tap.samples, tap.rate, contexts(tap)[name])
            took.append(time.perf_counter() - began)
            if reading.hz is None:
                refused += 1
                continue
            errors.append(tap.error_cents(reading.hz))
            if name == "expected and centre":
                bounds.append(bound_cents(tap, reading))
        line(name, errors, refused)
    line("strongest peak (FFT)", [tap.error_cents(spectrum_peak(tap)) for tap in taps], 0)
    if args.yin:
        reader = yin()
        line("YIN", [tap.error_cents(reader(tap)) for tap in taps], 0)
    print(
        f"Cramér–Rao bound of a lone partial: median {np.median(bounds):.3f} cents; {np.median(took) * 1000:.1f} ms a tap"
    )
    kinds: dict[str, list[bool]] = {kind: [] for kind in KINDS}
    for seed in range(args.seed, args.seed + args.others):
        kind, samples, rate = make_other(seed)
        kinds[kind].append(listen_to_tap(samples, rate).status is Status.REFUSE)
    every = [each for found in kinds.values() for each in found]
    print(
        f"no taps: {np.mean(every):.1%} of {len(every)} refused; "
        + ", ".join(f"{kind} {np.mean(found):.0%}" for kind, found in kinds.items())
    )
    measure_judged(args.taps // 2, args.seed)
    measure_coupled(args.taps // 2, args.seed)
    measure(args.rounds, args.seed)


if __name__ == "__main__":
    main()
