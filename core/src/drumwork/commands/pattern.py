"""`drumwork pattern`: the order in which to turn the rods of a head."""

from __future__ import annotations

import argparse
import json
import sys

from drumwork.quantities.turns import parse_turns
from drumwork.rods.balance import balance_of, recommend_pattern
from drumwork.rods.layout import RodLayout
from drumwork.rods.passes import PassPlan, slackening_passes, snare_side_passes, tightening_passes, wrinkle_passes
from drumwork.rods.patterns import Pattern, PatternOrder, plan_pattern

__all__ = ["add"]


def add(parser: argparse.ArgumentParser) -> None:
    parser.add_argument("--rods", type=int, required=True, help="rods on the head, 4 to 16")
    names = ", ".join(each.value for each in Pattern)
    parser.add_argument("--pattern", help=f"one of {names}; without it, the one that keeps the hoop flattest")
    parser.add_argument("--start", type=int, default=1, help="the rod to start at (default 1)")
    parser.add_argument("--lost", type=int, nargs="*", default=[], help="rods that are missing")
    parser.add_argument("--bed", type=int, nargs="*", default=[], help="rods beside the snare bed")
    parser.add_argument(
        "--passes",
        choices=["tighten", "slacken", "snare-side", "wrinkle"],
        help="also the passes: large to small, even rounds down, bed rods last, or to the lowest clean pitch",
    )
    parser.add_argument(
        "--turns",
        default="1 1/2",
        help="how far to tighten, or what the head has over zero, such as 1 1/2 (the default)",
    )
    parser.add_argument("--json", action="store_true", help="one JSON object with order, notes and hoop balance")
    parser.set_defaults(run=run)


def _passes(args: argparse.Namespace, layout: RodLayout, order: PatternOrder) -> tuple[PassPlan, ...]:
    match args.passes:
        case "tighten":
            return tightening_passes(order.rods, parse_turns(args.turns))
        case "slacken":
            return slackening_passes(order.rods, parse_turns(args.turns))
        case "snare-side":
            return snare_side_passes(layout, order.pattern, parse_turns(args.turns))
        case "wrinkle":
            return wrinkle_passes(order.rods)
        case _:
            return ()


def run(args: argparse.Namespace) -> None:
    layout = RodLayout(args.rods, frozenset(args.lost), frozenset(args.bed))
    order = plan_pattern(layout, args.pattern or recommend_pattern(layout), args.start)
    passes = _passes(args, layout, order)
    if not args.json:
        print(*order.rods, sep="\t")
        for each in passes:
            print(
                each.each.words(), f"at {', '.join(map(str, each.order))}", f"until {each.until}" if each.until else ""
            )
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
        "passes": [
            {"turns": float(each.each.fraction), "order": list(each.order), "until": each.until} for each in passes
        ],
        "recommended": recommend_pattern(layout).value,
    }
    print(json.dumps(answer, ensure_ascii=False))
