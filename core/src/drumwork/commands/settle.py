"""`drumwork settle`: how far a new head will fall, where to leave it, when to come back."""

from __future__ import annotations

import argparse
import json

from drumwork.commands.edges import between
from drumwork.errors import BadQuantity
from drumwork.quantities import parse_pitch
from drumwork.settling import Dropped, expect_settling

__all__ = ["add"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--target", required=True, help="wanted pitch, hertz or note")
    parser.add_argument("--film", default="single", help="snare-side, single, double or mesh")
    parser.add_argument("--days", type=between(0, 3650), default=2.0, help="days until the check (default 2)")
    parser.add_argument(
        "--share", type=between(0, 1), default=1.0, help="how much of the fall to leave above: 1 all, 0 none"
    )
    parser.add_argument(
        "--seen", nargs="*", default=[], metavar="DAYS:CENTS", help="this drum's own falls, such as 2:18"
    )
    parser.add_argument("--json", action="store_true")
    parser.set_defaults(run=run)


def _seen(text: str) -> Dropped:
    days, _, cents = text.partition(":")
    try:
        fall = Dropped(float(days), float(cents))
    except ValueError:
        raise BadQuantity("Give a fall as days:cents, such as 2:18.", text=text) from None
    if not (0 < fall.days <= 3650 and -1200 <= fall.cents <= 1200):
        raise BadQuantity(
            "A fall is seen some days after fitting, and is less than an octave: give it such as 2:18.", text=text
        )
    return fall


def run(args: argparse.Namespace) -> None:
    target = parse_pitch(args.target)
    settling = expect_settling(args.film, [_seen(each) for each in args.seen])
    again = settling.next_check_days(args.days)
    answer = {
        "drop_cents": round(settling.drop_cents(args.days), 1),
        "drop_sd_cents": round(settling.drop_sd_cents(args.days), 1),
        "leave_at_hz": round(settling.leave_at(target, args.days, args.share).hz, 2),
        "pitch_at_check_hz": round(settling.pitch_at(target, args.days).hz, 2),
        "next_check_after_days": round(again, 1) if again is not None else None,
    }
    words = (
        f"falls about {answer['drop_cents']} ± {answer['drop_sd_cents']} cents in {args.days:g} days; leave it at "
        f"{answer['leave_at_hz']} Hz; after clearing it then, another check is worth making "
        + (f"at {again:.0f} days" if again is not None else "never")
    )
    print(json.dumps(answer, ensure_ascii=False) if args.json else words)
