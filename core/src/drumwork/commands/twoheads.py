"""`drumwork twoheads`: lug pitches of both heads for a wanted sound."""

from __future__ import annotations

import argparse
import json

from drumwork.commands.edges import between, whole
from drumwork.commands.film import add_head, head_from
from drumwork.errors import BadQuantity
from drumwork.membrane import Relation, plan_two_heads
from drumwork.quantities import parse_length, parse_pitch
from drumwork.quantities.intervals import parse_interval

__all__ = ["add"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--diameter", required=True, help="14, or 356 mm (a bare number is inches)")
    parser.add_argument("--depth", required=True)
    parser.add_argument("--rods", type=whole(3, 16), default=8, help="3 to 16 (default 8)")
    parser.add_argument("--relation", default="equal", choices=[each.value for each in Relation])
    parser.add_argument(
        "--interval", default="minor third", help="for higher and lower: a name, cents, or a ratio such as 6:5"
    )
    parser.add_argument("--fundamental", type=between(20, 2000), help="wanted fundamental of the whole drum, hertz")
    parser.add_argument("--batter", help="wanted batter lug pitch, hertz or note")
    add_head(parser)
    add_head(parser, "resonant-")
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
    if args.fundamental is None and args.batter is None and args.relation != Relation.LOWEST_CLEAN:
        raise BadQuantity("Give --fundamental or --batter.")
    diameter = parse_length(args.diameter)
    found = plan_two_heads(
        (head_from(args, diameter), head_from(args, diameter, "resonant_")),
        parse_length(args.depth),
        Relation(args.relation),
        parse_interval(args.interval).cents,
        fundamental=args.fundamental,
        batter=parse_pitch(args.batter) if args.batter else None,
    )
    answer = {
        "batter_hz": round(found.batter.hz, 2),
        "resonant_hz": round(found.resonant.hz, 2),
        "fundamental_hz": round(found.fundamental_hz, 2),
        "fundamental_sd_hz": round(found.fundamental_sd_hz, 2),
        "tenth_more_mass_hz": round(found.by_mass_hz, 2),
        "tenth_more_air_hz": round(found.by_air_hz, 2),
        "upper_hz_rough": round(found.upper_hz, 1),
        "character": found.character,
        "why": found.why,
    }
    words = (
        f"batter {found.batter.hz:.1f} Hz, resonant {found.resonant.hz:.1f} Hz at the rods; sounds near "
        f"{found.fundamental_hz:.1f} ± {found.fundamental_sd_hz:.1f} Hz; {found.character}: {found.why}"
    )
    print(json.dumps(answer, ensure_ascii=False) if args.json else words)
