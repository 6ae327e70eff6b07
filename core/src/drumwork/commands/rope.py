"""`drumwork rope`: rope length by geometry, range and how much more to pull, segments, pigtail."""

from __future__ import annotations

import argparse
import json
from typing import Any

from drumwork.commands.edges import between, whole
from drumwork.errors import BadQuantity
from drumwork.quantities import parse_length
from drumwork.rope import Lacing, Pass, Range, Squeeze, correct_segments, how_much_more, rope_length

__all__ = ["add"]

MOST_WRAPS = 4  # F10, common practice


def add(parser: argparse.ArgumentParser) -> None:
    what = parser.add_subparsers(dest="what", required=True)
    length = what.add_parser("length", help="how long a rope the drum takes, by geometry")
    length.add_argument("--diameter", required=True, help="of the shell: 28, or 710 mm (a bare number is inches)")
    length.add_argument("--depth", required=True)
    length.add_argument("--holes", type=whole(3, 40), required=True, help="in each hoop")
    length.add_argument("--hoop", default="40 mm", help="height of a hoop")
    length.add_argument("--hoop-out", default="15 mm", help="how far the holes stand outside the shell")
    length.add_argument("--rope", default="8 mm", help="the rope's thickness")
    length.add_argument("--spare", default="2000 mm", help="left over for the drag rope")
    length.set_defaults(run=_length)
    reach = what.add_parser("range", help="how much more to pull for a wanted range")
    reach.add_argument(
        "--now",
        type=between(20, 2000),
        nargs=2,
        required=True,
        metavar=("UP", "DOWN"),
        help="hertz, ears up and ears down",
    )
    reach.add_argument("--wanted", type=between(20, 2000), nargs=2, required=True, metavar=("LOW", "HIGH"))
    reach.add_argument("--pass", dest="passes", type=between(0, 20_000), nargs=3, action="append", default=[], metavar=("MM", "BEFORE", "AFTER"), help="a pass made: how far pulled, the lowest pitch before and after")  # fmt: skip
    reach.add_argument(
        "--above", type=between(0, 1200), default=50.0, help="cents aimed above what is wanted (default 50)"
    )
    reach.set_defaults(run=_range)
    pairs = what.add_parser("segments", help="what to pull where pairs are slack or tight")
    pairs.add_argument("--pairs", type=whole(3, 40), required=True)
    pairs.add_argument("--felt", nargs="*", default=[], metavar="PAIR=HOW", help="3=slack, 7=a-little-tight …")
    pairs.set_defaults(run=_segments)
    pigtail = what.add_parser("pigtail", help="whether the wraps left are right")
    pigtail.add_argument("--wraps", type=between(0, 100), required=True)
    pigtail.set_defaults(run=_pigtail)
    for each in (length, reach, pairs, pigtail):
        each.add_argument("--json", action="store_true")


def _say(args: argparse.Namespace, answer: dict[str, Any], words: str) -> None:
    print(json.dumps(answer, ensure_ascii=False) if args.json else words)


def _metres(typed: str) -> float:
    return parse_length(typed).metres if typed.strip() not in ("0", "0 mm") else 0.0


def _length(args: argparse.Namespace) -> None:
    lacing = Lacing(
        _metres(args.diameter), _metres(args.depth), args.holes, _metres(args.hoop), _metres(args.hoop_out), _metres(args.rope), _metres(args.spare),
    )  # fmt: skip
    found = rope_length(lacing)
    answer = {
        "segments": found.segments,
        "segment_m": round(found.segment_m, 4),
        "laced_m": round(found.laced_m, 3),
        "turns_m": round(found.turns_m, 3),
        "ends_m": round(found.ends_m, 3),
        "total_m": round(found.total_m, 2),
    }
    _say(args, answer, f"{found.total_m:.1f} m of rope: {found.segments} segments of {found.segment_m * 1000:.0f} mm, {found.turns_m:.1f} m round the hoops, {found.ends_m:.1f} m for splice, pigtail and drag rope.")  # fmt: skip


def _range(args: argparse.Namespace) -> None:
    passes = [Pass(mm / 1000, before, after) for mm, before, after in args.passes]
    found = how_much_more(Range(*args.now), Range(*args.wanted), passes, args.above)
    answer = {
        "pull_mm": round(found.pull_m * 1000, 1),
        "hz2_per_mm": None if found.per_m is None else round(found.per_m / 1000, 3),
        "aimed_hz": [round(found.aimed.low_hz, 2), round(found.aimed.high_hz, 2)],
        "expected_hz": None
        if found.expected is None
        else [round(found.expected.low_hz, 2), round(found.expected.high_hz, 2)],
        "words": found.words,
    }
    _say(args, answer, found.words)


def _segments(args: argparse.Namespace) -> None:
    felt: dict[int, Squeeze] = {}
    for said in args.felt:
        pair, _, how = said.partition("=")
        name = how.upper().replace("-", "_")
        if not pair.isdecimal() or name not in Squeeze.__members__:
            known = ", ".join(each.name.lower().replace("_", "-") for each in Squeeze)
            raise BadQuantity(f"Write a pair and how it feels, as 3=slack. Known: {known}.", felt=said)
        felt[int(pair)] = Squeeze[name]
    found = correct_segments(args.pairs, felt)
    answer = [{"pair": each.pair, "hold": each.hold, "carry_to": each.carry_to, "words": each.words} for each in found]
    _say(args, {"corrections": answer}, "\n".join(each.words for each in found) or "Every pair is even.")


def _pigtail(args: argparse.Namespace) -> None:
    good = 3 <= args.wraps <= MOST_WRAPS
    if good:
        words = "Three or four wraps, twisted with the lay: lock it."
    elif args.wraps < 3:
        words = "Too few wraps to hold: let a little back from the end, or a longer rope."
    else:
        words = "More than four wraps: too much rope was drawn out. Start over from the splice."
    _say(args, {"wraps": args.wraps, "right": good, "words": words}, words)
