"""`drumwork film`: what a lug pitch asks of a head."""

from __future__ import annotations

import argparse
import json
from typing import Any

from drumwork.commands.edges import whole
from drumwork.membrane import Film, Head, assess_target, fundamental_hz, tension_for_edge
from drumwork.membrane.answer import expect_answer
from drumwork.quantities import Length, parse_length, parse_pitch
from drumwork.quantities.thread import USUAL_THREAD

__all__ = ["add", "add_head", "head_from"]


def add_head(parser: argparse.ArgumentParser, prefix: str = "") -> None:
    """Options that describe one head."""
    parser.add_argument(
        f"--{prefix}mil", type=float, default=10.0, help="film thickness of all plies, in mil (default 10)"
    )
    parser.add_argument(f"--{prefix}plies", type=int, default=1)
    parser.add_argument(f"--{prefix}coated", action="store_true")


def head_from(args: argparse.Namespace, diameter: Length, prefix: str = "") -> Head:
    given = {name: getattr(args, f"{prefix}{name}") for name in ("mil", "plies", "coated")}
    return Head(Film.from_mil(given["mil"], given["plies"], given["coated"]), diameter, args.rods)


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--diameter", required=True, help="14, or 356 mm (a bare number is inches)")
    parser.add_argument("--pitch", required=True, help="wanted lug pitch, hertz or note")
    parser.add_argument("--rods", type=whole(3, 16), default=8, help="3 to 16 (default 8)")
    parser.add_argument("--from", dest="start", help="pitch it stands at: says how many turns to expect")
    parser.add_argument("--thread", default=USUAL_THREAD, help=f"thread of the rods (default {USUAL_THREAD})")
    add_head(parser)
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
    head = head_from(args, parse_length(args.diameter))
    expected = expect_answer(head, args.thread)
    found = assess_target(head, parse_pitch(args.pitch))
    tension = tension_for_edge(head.membrane, found.lug.hz)
    answer: dict[str, Any] = {
        "lug_hz": round(found.lug.hz, 2),
        "tension_n_per_m": round(tension, 1),
        "fundamental_alone_hz": round(fundamental_hz(head.membrane, tension), 2),
        "stress_mpa": round(found.stress_pa / 1e6, 2),
        "share_of_yield": round(found.share_of_yield, 4),
        "rod_load_n": round(found.rod_load_n, 1),
        "highest_safe_hz": round(found.highest_safe.hz, 1),
        "allowed": found.allowed,
        "words": found.words,
    }
    words = found.words
    if args.start:
        turns, low, high = expected.turns(parse_pitch(args.start), found.lug)
        answer["turns"] = {"expected": round(turns, 3), "low": round(low, 3), "high": round(high, 3)}
        words += f"; about {turns:+.2f} turns of every rod ({low:+.2f} to {high:+.2f}), {expected.words}"
    print(json.dumps(answer, ensure_ascii=False) if args.json else words)
