"""The core on the command line: `bin/drumwork VERB …`."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Sequence

from drumwork.errors import DrumworkError
from drumwork.rods.balance import balance_of, recommend_pattern
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, plan_pattern


def _pattern(args: argparse.Namespace) -> None:
    layout = RodLayout(args.rods, frozenset(args.lost))
    order = plan_pattern(layout, args.pattern or recommend_pattern(layout), args.start)
    if not args.json:
        print(*order.rods, sep="\t")
        if order.note:
            print(order.note, file=sys.stderr)
        return
    balance = balance_of(layout, order.rods)
    answer = {
        "rods": args.rods,
        "pattern": order.pattern.value,
        "start": args.start,
        "order": list(order.rods),
        "reaches_all": order.reaches_all,
        "note": order.note,
        "balance": {"tilt": round(balance.tilt, 3), "saddle": round(balance.saddle, 3)},
        "recommended": recommend_pattern(layout).value,
    }
    print(json.dumps(answer, ensure_ascii=False))


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="drumwork", description="Computation for drum work.")
    verbs = parser.add_subparsers(dest="verb", required=True)
    pattern = verbs.add_parser("pattern", help="the order in which to turn the rods of a head")
    pattern.add_argument("--rods", type=int, required=True, help="rods on the head, 4 to 16")
    names = ", ".join(each.value for each in Pattern)
    pattern.add_argument("--pattern", help=f"one of {names}; without it, the one that keeps the hoop flattest")
    pattern.add_argument("--start", type=int, default=1, help="the rod to start at (default 1)")
    pattern.add_argument("--lost", type=int, nargs="*", default=[], help="rods that are missing")
    pattern.add_argument("--json", action="store_true", help="one JSON object with order, notes and hoop balance")
    pattern.set_defaults(run=_pattern)
    return parser


def main(argv: Sequence[str] | None = None) -> int:
    args = _parser().parse_args(argv)
    try:
        args.run(args)
    except DrumworkError as error:
        print(f"drumwork: {error.message}", file=sys.stderr)
        return 2
    return 0


if __name__ == "__main__":
    sys.exit(main())
