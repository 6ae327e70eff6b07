"""`drumwork kit-plan`: wanted pitches for a kit. JSON on standard input, JSON out (docs/kit-plan.md)."""

from __future__ import annotations

import argparse
from typing import Any, Final

from drumwork.commands.requests import Fields, answer_each, plain, request
from drumwork.errors import BadRequest
from drumwork.kits import Drum, Plan, Step, Wish, plan_pitches
from drumwork.kits.pitch_plan import MOST_DRUMS

__all__ = ["add"]

_FAR: Final = 20_000.0
"""Cents; sixteen octaves either way is further than any drum."""


def add(parser: argparse.ArgumentParser) -> None:
    parser.set_defaults(run=_run)


def _drum(said: Fields) -> Drum:
    return Drum(
        said.text("id"),
        said.number("now_cents", -_FAR, _FAR),
        said.number("lowest_cents", -_FAR, _FAR),
        said.number("highest_cents", -_FAR, _FAR),
        said.number("turns_per_cent", 0, 100, 0.0),
        said.text("role", ""),
    )


def _step(said: Fields) -> Step:
    cents = said.number("cents", -2 * _FAR, 2 * _FAR)
    return Step(said.text("above"), said.text("below"), cents, said.number("tolerance", 0, 2 * _FAR, 0.0))


def _fixed(wish: Fields) -> dict[str, int]:
    fixed: dict[str, int] = {}
    for each in wish.objects("fixed", MOST_DRUMS):
        name, cents = each.text("id"), each.whole("cents", -int(_FAR), int(_FAR))
        if fixed.setdefault(name, cents) != cents:
            raise BadRequest(f"“{name}” cannot stay at two pitches.", drum=name)
    return fixed


def plan_of(asked: Any) -> Plan:
    """The plan a request asks for.

    Raises
    ------
    BadRequest
        naming the field that is missing or of the wrong kind.
    """
    said = Fields(asked)
    wish = said.object("wish")
    apart = wish.object("apart")
    against = tuple(_number(each) for each in apart.items("against", 200))
    wanted = Wish(
        tuple(_step(each) for each in wish.objects("steps", 400)),
        _fixed(wish),
        apart.number("at_least", 0, _FAR, 0.0),
        against,
    )
    return plan_pitches(tuple(_drum(each) for each in said.objects("drums", MOST_DRUMS)), wanted)


def _number(value: Any) -> float:
    return Fields({"against": value}, "wish.apart").number("against", -_FAR, _FAR)


def _told(found: Plan) -> dict[str, Any]:
    told: dict[str, Any] = {
        "targets": dict(found.targets),
        "moved_cents": plain(found.moved),
        "bound_cents": plain(found.bound),
        "proved": found.proved,
        "dropped": [
            {"above": each.above, "below": each.below, "cents": plain(each.cents), "tolerance": plain(each.tolerance)}
            for each in found.dropped
        ],
        "turns": dict(found.turns or {}),
    }
    return told | ({"impossible": list(found.impossible)} if found.impossible else {})


def _run(args: argparse.Namespace) -> None:
    answer_each(request(), lambda asked: _told(plan_of(asked)))
