"""`drumwork simulate`: a round of taps on a simulated head, as WAV, with the truth beside it."""

from __future__ import annotations

import argparse
import json
from pathlib import Path

import numpy as np

from drumwork.commands.sound_files import write_sound
from drumwork.quantities import parse_length, parse_pitch
from drumwork.rods.layout import RodLayout
from drumwork.simulated import Microphone, SoundingHead, Tap

__all__ = ["add"]


def add(verbs: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    parser = verbs.add_parser(
        "simulate", help="write a round of taps on a simulated head as WAV, a stand-in for a drum"
    )
    parser.add_argument("file", metavar="FILE", help="the WAV to write; the truth goes beside it as .json")
    parser.add_argument("--rods", type=int, default=8)
    parser.add_argument("--diameter", default="14", help="14, or 356 mm (a bare number is inches)")
    parser.add_argument("--pitch", default="200", help="mean of the edge pair, hertz or note")
    parser.add_argument("--split", type=float, default=1.0, help="per cent between the pair (default 1)")
    parser.add_argument("--axis", type=float, default=30.0, help="degrees from the badge to the lower one's antinode")
    parser.add_argument("--strength", type=float, default=0.25, help="0 to 1, a full stroke")
    parser.add_argument("--inset-mm", type=float, default=28.0)
    parser.add_argument("--snr-db", type=float, default=45.0)
    parser.add_argument("--distance", type=float, default=0.3, help="metres from drum to microphone (default 0.3)")
    parser.add_argument("--room", type=float, default=0.0, help="seconds the room rings on by 60 dB (default 0, dead)")
    parser.add_argument("--wires", type=float, default=0.0, help="how strongly snare wires rattle along (default 0)")
    parser.add_argument("--every", type=float, default=1.3, help="seconds from tap to tap")
    parser.add_argument("--rate", type=int, default=44_100)
    parser.add_argument("--seed", type=int, default=0)
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
    layout, random = RodLayout(args.rods), np.random.default_rng(args.seed)
    edge = parse_pitch(args.pitch).hz
    head = SoundingHead(
        parse_length(args.diameter).metres / 2,
        edge,
        args.split / 100,
        np.radians(args.axis),
        0.6 * edge,
        wires=args.wires,
    )
    apart = int(args.every * args.rate)
    sound = np.zeros(int(0.5 * args.rate) + apart * args.rods)
    starts = {}
    for number, rod in enumerate(layout.rods):
        start = int(0.5 * args.rate) + number * apart
        tap = head.sound(Tap(layout.angle_rad(rod), args.inset_mm / 1000, args.strength), args.rate, args.every, random)
        sound[start : start + len(tap)] += tap[: len(sound) - start]
        starts[rod] = round(start / args.rate, 4)
    microphone = Microphone(args.snr_db, distance_m=args.distance, tail_s=args.room)
    heard = microphone.hear(sound, args.rate, random, lead_s=0.0)
    path = Path(args.file)
    write_sound(path, heard, args.rate)
    lower, upper = head.pair_hz
    truth = {
        "lower_hz": lower,
        "upper_hz": upper,
        "axis_deg": args.axis % 180,
        "centre_hz": head.centre_hz,
        "taps_s": starts,
    }
    path.with_suffix(".json").write_text(json.dumps(truth, indent=2) + "\n", encoding="utf-8")
    print(f"{path}: {args.rods} taps, pair {lower:.2f} and {upper:.2f} Hz")
