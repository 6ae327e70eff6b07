"""`drumwork pitch`: a pitch in hertz and as a note, and how far it lies from another."""

from __future__ import annotations

import argparse
import json

from drumwork.commands.edges import A4
from drumwork.quantities import parse_pitch
from drumwork.sources.iso16 import A4_HZ

__all__ = ["add"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("pitch", help="hertz, or a note with cents: 174.9, F3, 'F3 +12'")
    parser.add_argument("--from", dest="other", help="say how far it lies above this pitch")
    parser.add_argument("--a4", type=A4, default=A4_HZ, help="reference A in hertz (default 440, ISO 16)")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
    pitch = parse_pitch(args.pitch, args.a4)
    answer: dict[str, object] = {"hz": round(pitch.hz, 4), "note": pitch.note(args.a4)}
    if args.other:
        interval = pitch.above(parse_pitch(args.other, args.a4))
        answer |= {"cents": round(interval.cents, 2), "ratio": round(interval.ratio, 6)}
    print(json.dumps(answer, ensure_ascii=False) if args.json else "\t".join(str(value) for value in answer.values()))
