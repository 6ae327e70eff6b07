"""`drumwork pattern`: the order in which to turn the rods of a head."""

from __future__ import annotations

import argparse
import json
import sys

from drumwork.rods.balance import balance_of, recommend_pattern
from drumwork.rods.layout import RodLayout
from drumwork.rods.patterns import Pattern, plan_pattern

__all__ = ["add"]


def add(verbs: argparse._SubParsersAction[argparse.ArgumentParser]) -> None:
    parser = verbs.add_parser("pattern", help="the order in which to turn the rods of a head")
    parser.add_argument("--rods", type=int, required=True, help="rods on the head, 4 to 16")
    names = ", ".join(each.value for each in Pattern)
    parser.add_argument("--pattern", help=f"one of {names}; without it, the one that keeps the hoop flattest")
    parser.add_argument("--start", type=int, default=1, help="the rod to start at (default 1)")
    parser.add_argument("--lost", type=int, nargs="*", default=[], help="rods that are missing")
    parser.add_argument("--json", action="store_true", help="one JSON object with order, notes and hoop balance")
    parser.set_defaults(run=run)


def run(args: argparse.Namespace) -> None:
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
