"""`drumwork simulate`: a round of taps on a simulated drum, as WAV, with the truth beside it."""

from __future__ import annotations

import argparse
import json
from pathlib import Path

import numpy as np

from drumwork.commands.edges import between, whole
from drumwork.commands.sound_files import write_sound
from drumwork.listening.prepare import HIGHEST_RATE, LOWEST_RATE
from drumwork.membrane import Film
from drumwork.quantities import parse_length, parse_pitch
from drumwork.rods.layout import RodLayout
from drumwork.simulated import Microphone, Ringing, Shell, SoundingDrum, Tap

__all__ = ["add"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("file", metavar="FILE", help="the WAV to write; the truth goes beside it as .json")
    parser.add_argument("--rods", type=int, default=8)
    parser.add_argument("--diameter", default="14", help="14, or 356 mm (a bare number is inches)")
    parser.add_argument(
        "--pitch", default="200", help="what its rods read on the average, the other head muted; hertz or note"
    )
    parser.add_argument("--depth", default="5 1/2", help="of the shell, as for the diameter")
    parser.add_argument("--mil", type=float, default=10.0, help="film of this head (default 10)")
    parser.add_argument("--other-mil", type=float, default=10.0, help="film of the other head (default 10)")
    parser.add_argument("--other-pitch", help="of the other head at its rods (default: as this one)")
    parser.add_argument("--other-rings", action="store_true", help="the other head is not muted, but rings along")
    parser.add_argument("--middle", action="store_true", help="a last tap in the middle, for the drum’s own note")
    parser.add_argument("--split", type=between(-20, 20), default=1.0, help="per cent between the pair (default 1)")
    parser.add_argument(
        "--axis", type=between(-360, 360), default=30.0, help="degrees from the badge to the lower one's antinode"
    )
    parser.add_argument("--strength", type=between(0, 1), default=0.25, help="0 to 1, a full stroke")
    parser.add_argument("--inset-mm", type=between(0, 300), default=28.0, help="from the hoop, in mm (default 28)")
    parser.add_argument("--snr-db", type=between(-20, 120), default=45.0, help="sound over noise (default 45)")
    parser.add_argument(
        "--distance", type=between(0.01, 20), default=0.3, help="metres from drum to microphone (default 0.3)"
    )
    parser.add_argument(
        "--room", type=between(0, 10), default=0.0, help="seconds the room rings on by 60 dB (default 0, dead)"
    )
    parser.add_argument(
        "--wires", type=between(0, 10), default=0.0, help="how strongly snare wires rattle along (default 0)"
    )
    parser.add_argument("--every", type=between(0.1, 30), default=1.3, help="seconds from tap to tap")
    parser.add_argument(
        "--rate", type=whole(LOWEST_RATE, HIGHEST_RATE), default=44_100, help="samples a second (default 44100)"
    )
    parser.add_argument("--seed", type=whole(0, 2**32 - 1), default=0)
    parser.set_defaults(run=run)


def _drum(args: argparse.Namespace) -> SoundingDrum:
    shell = Shell(
        parse_length(args.depth).metres,
        Film.from_mil(args.mil).density_kg_per_m2,
        Film.from_mil(args.other_mil).density_kg_per_m2,
        parse_pitch(args.other_pitch).hz if args.other_pitch else None,
        not args.other_rings,
    )
    lowest = np.radians(args.axis)
    lobe = complex(args.split / 100 * np.exp(1j * (2 * lowest - np.pi)))  # the pull is least where the lower one moves
    ringing = Ringing(wires=args.wires)
    return SoundingDrum(
        parse_length(args.diameter).metres / 2, parse_pitch(args.pitch).hz, (lobe,), shell=shell, ringing=ringing
    )


def run(args: argparse.Namespace) -> None:
    layout, random = RodLayout(args.rods), np.random.default_rng(args.seed)
    drum = _drum(args)
    apart = int(args.every * args.rate)
    taps = {str(rod): Tap(layout.angle_rad(rod), args.inset_mm / 1000, args.strength) for rod in layout.rods}
    if args.middle:
        taps["middle"] = Tap(0.0, 0.97 * drum.radius_m, args.strength)
    sound = np.zeros(int(0.5 * args.rate) + apart * len(taps))
    starts = {}
    for number, (place, tap) in enumerate(taps.items()):
        start = int(0.5 * args.rate) + number * apart
        heard = drum.sound(tap, args.rate, args.every, random)
        sound[start : start + len(heard)] += heard[: len(sound) - start]
        starts[place] = round(start / args.rate, 4)
    microphone = Microphone(args.snr_db, distance_m=args.distance, tail_s=args.room)
    path = Path(args.file)
    write_sound(path, microphone.hear(sound, args.rate, random, lead_s=0.0), args.rate)
    lower, upper = drum.pair_hz
    truth = {
        "lower_hz": lower,
        "upper_hz": upper,
        "axis_deg": args.axis % 180,
        "centre_hz": drum.centre_hz,
        "taps_s": starts,
    }
    path.with_suffix(".json").write_text(json.dumps(truth, indent=2) + "\n", encoding="utf-8")
    print(f"{path}: {len(taps)} taps, pair {lower:.2f} and {upper:.2f} Hz, in the middle {drum.centre_hz:.2f} Hz")
